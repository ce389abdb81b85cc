package bench

import (
	"fmt"
	"slices"

	"oarweed/core/problem"
)

// Claim is something that is said of knots and disputed.
type Claim struct {
	ID      string `json:"id"`
	Claim   string `json:"claim"`
	Against string `json:"against"`
	// Stronger is said to outlast Weaker; or Slips to slip before it breaks.
	Stronger  *ClaimEnd `json:"stronger,omitempty"`
	Weaker    *ClaimEnd `json:"weaker,omitempty"`
	Slips     *ClaimEnd `json:"slips,omitempty"`
	Materials []string  `json:"materials,omitempty" nullable:"false"`
	// Reference is what the trade has seen pulled.
	Reference string `json:"reference,omitempty"`
}

// ClaimEnd is the knot that a claim is about, tied so; what is left out may be as it likes.
type ClaimEnd struct {
	Knot       string `json:"knot"`
	Wraps      int    `json:"wraps,omitempty"`
	Lubricated *bool  `json:"lubricated,omitempty"`
}

func (c ClaimEnd) is(t Tied) bool {
	return t.Knot == c.Knot && (c.Wraps == 0 || t.Wraps == c.Wraps) && (c.Lubricated == nil || t.Lubricated == *c.Lubricated)
}

// Verdict of own pulls on a claim.
type Verdict string

const (
	Agrees    Verdict = "agrees"
	Disagrees Verdict = "disagrees"
	TooSoon   Verdict = "too-few"
)

// Standing is a claim held against own pulls: For so many speak for it, Counter against it; More
// further ones would tell, if they went on so (MostMore: not even so many would).
type Standing struct {
	For, Counter, More int
	Sure               float64
	Verdict            Verdict
}

// Check reports a claim that cannot be held against anything.
func (c Claim) Check(known func(knot string) bool, materials []string) error {
	var l problem.List
	if c.ID == "" || c.Claim == "" || c.Against == "" {
		l.Add("claim", "lacks id, claim or against", "fill it in")
	}
	if (c.Stronger == nil) != (c.Weaker == nil) || (c.Stronger == nil) == (c.Slips == nil) {
		l.Add(c.ID, "is about nothing that can be pulled", "give stronger and weaker, or slips")
	}
	for _, e := range []*ClaimEnd{c.Stronger, c.Weaker, c.Slips} {
		if e != nil && !known(e.Knot) {
			l.Add(c.ID+".knot", fmt.Sprintf("%q is not a knot here", e.Knot), "use a knot id")
		}
	}
	for _, m := range c.Materials {
		if !slices.Contains(materials, m) {
			l.Add(c.ID+".materials", fmt.Sprintf("%q is not a material here", m), "use a material id")
		}
	}
	return l.Err()
}

// Hold holds a claim against pulls; material says what the line of a series is made of.
func (c Claim) Hold(pulls []Pull, material func(series string) string) Standing {
	in := slices.DeleteFunc(slices.Clone(pulls), func(p Pull) bool {
		return len(c.Materials) > 0 && !slices.Contains(c.Materials, material(p.Series))
	})
	var d Duel // AGave: for the claim
	if c.Slips != nil {
		d = slipped(in, *c.Slips)
	} else {
		d = duel(in, c.Weaker.is, c.Stronger.is)
	}
	h := Standing{For: d.AGave, Counter: d.BGave, More: d.More(), Sure: d.BStronger(), Verdict: TooSoon}
	switch {
	case h.Sure >= EnoughSure:
		h.Verdict = Agrees
	case 1-h.Sure >= EnoughSure:
		h.Verdict = Disagrees
	}
	return h
}

// slipped counts the pulls in which an end gave, by whether it slipped out.
func slipped(pulls []Pull, end ClaimEnd) (d Duel) {
	for _, p := range pulls {
		a, b := p.Gave()
		if !(a && end.is(p.A) || b && end.is(p.B)) {
			continue
		}
		if p.Outcome == SlippedOut {
			d.AGave++
		} else {
			d.BGave++
		}
	}
	return d
}

// Failure is what is seen after something gave, and what it tells.
type Failure struct {
	ID    string `json:"id"`
	Seen  string `json:"seen"`
	Cause string `json:"cause"`
	Prove string `json:"prove"`
	Cure  string `json:"cure"`
}
