package leader

import (
	"fmt"
	"math"

	"oarweed/core/judge"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// Section is a part of a leader above the one that is tied again, from the reel down, and the
// knot by which it is joined to the next.
type Section struct {
	LengthM float64  `json:"length_m"`
	Knot    string   `json:"knot" doc:"joins it to the next section"`
	Line    rig.Line `json:"line"`
}

// mostSections of a taper.
const mostSections = 12

func checkSections(c *trade.Catalogue, list []Section) error {
	var l problem.List
	if len(list) > mostSections {
		l.Add("sections", "are too many", fmt.Sprintf("give %d at the most", mostSections))
	}
	for i := range list {
		s, at := &list[i], fmt.Sprintf("sections[%d].", i)
		if !(s.LengthM > 0 && s.LengthM <= 1000) {
			l.Add(at+"length_m", fmt.Sprintf("%g is no length", s.LengthM), "give metres above 0")
		}
		if k := c.Knot(s.Knot); k == nil {
			l.Add(at+"knot", fmt.Sprintf("%q is not a knot here", s.Knot), "use the id of one that joins two lines")
		}
		l.Take(at+"line", c.CheckLine(&s.Line))
	}
	return l.Err()
}

// Advice is what to do about a leader, and when.
type Advice struct {
	// ActionLeft is how many changes are left until it no longer works as it should, where a
	// length for that is given; never more than are left at all.
	ActionLeft int `json:"action_left"`
	// AddM is how much tippet makes it what it was, 0 where nothing needs adding yet; JoinM what
	// the join of a tippet takes of both lines besides.
	AddM  float64 `json:"add_m"`
	JoinM float64 `json:"join_m"`
	// UpKN is the strength of the next line class, where a stronger one is advised; else 0.
	UpKN float64 `json:"up_kn"`
	// Because says why: it was cut back by damage more than by knots, or after so many changes.
	Because string `json:"because,omitempty" enum:"damage,changes"`
	// Into: the section above is what is tied to next, without a new tippet.
	Into bool `json:"into"`
}

// ManyChanges is after how many changes of one leader a stronger class is advised: common
// practice (8 to 12), no source.
const ManyChanges = 8

// classes of game-fishing line in pounds, published by the international game fishing body,
// from memory.
var classes = []float64{2, 4, 6, 8, 12, 16, 20, 30, 50, 80, 130}

// Advise says what to do about a leader as it is now.
func (b Book) Advise(c *trade.Catalogue) (Advice, error) {
	now, left, err := b.Now(c)
	if err != nil {
		return Advice{}, err
	}
	out := Advice{ActionLeft: left.ChangesLeft}
	if b.ActionM > 0 && left.PerChangeM > 0 {
		out.ActionLeft = min(out.ActionLeft, int(math.Floor(max(0, now-b.ActionM)/left.PerChangeM+1e-9)))
	}
	if min(out.ActionLeft, left.ChangesLeft) <= Warn {
		out.AddM = max(0, b.LengthM-now)
		out.Into = len(b.Sections) > 0
	}
	if k := c.Knot(joins(b)); k != nil {
		one, err := tied(c, k, b.Line)
		if err != nil {
			return out, err
		}
		out.JoinM = judge.Whatever(one, k, nil).Size.Consumes.M()
	}
	gone := float64(b.Changes) * left.PerChangeM
	switch {
	case b.LostM > gone && b.LostM > 0:
		out.Because = "damage"
	case b.Changes >= ManyChanges:
		out.Because = "changes"
	}
	if out.Because != "" {
		out.UpKN = above(c, b.Line)
	}
	return out, nil
}

// joins is the knot by which the tippet is joined on.
func joins(b Book) string {
	if n := len(b.Sections); n > 0 {
		return b.Sections[n-1].Knot
	}
	return "double-uni"
}

// above is the next line class above a line's strength, in kN; 0 where there is none.
func above(c *trade.Catalogue, n rig.Line) float64 {
	ln, err := c.LineOf(n)
	if err != nil {
		return 0
	}
	s, err := ln.Bears(false)
	if err != nil {
		return 0
	}
	for _, lb := range classes {
		if f := lb * float64(unit.Pound); f > s.AsNew.Likely*1.05 {
			return f / 1000
		}
	}
	return 0
}

// Trip is what a trip takes off the spools.
type Trip struct {
	Days   int `json:"days" minimum:"1" maximum:"60"`
	People int `json:"people" minimum:"1" maximum:"100"`
	// Waste is the share that is spoilt; left out: [UsualWaste].
	Waste float64    `json:"waste,omitempty" minimum:"0" maximum:"1"`
	Items []TripItem `json:"items" nullable:"false" maxItems:"40"`
}

// TripItem is a leader that everybody uses: how long it is made, from which length it is too
// short, its knot, and how often a day that is tied again.
type TripItem struct {
	Name string `json:"name,omitempty" maxLength:"80"`
	Query
	ChangesADay float64 `json:"changes_a_day" minimum:"0" maximum:"200"`
}

// UsualWaste is the share of line that is spoilt: our own estimate.
const UsualWaste = 0.1

// Needed is what an item takes: so many leaders, each cut so long, and metres off the spool with
// the waste.
type Needed struct {
	Name     string  `json:"name"`
	Leaders  int     `json:"leaders"`
	CutM     float64 `json:"cut_m" doc:"one leader, with what both its knots take to tie"`
	Ties     int     `json:"ties"`
	SpoolM   float64 `json:"spool_m"`
	PerTieM  float64 `json:"per_tie_m"`
	ToTieM   float64 `json:"to_tie_m" doc:"what the knot takes in the hand"`
	ClassKN  float64 `json:"class_kn,omitempty"`
	Material string  `json:"material"`
}

// Budget works the trip out. The error names the field.
func (t Trip) Budget(c *trade.Catalogue) ([]Needed, error) {
	var l problem.List
	if t.Days < 1 || t.Days > 60 {
		l.Add("days", fmt.Sprintf("%d is no count of days", t.Days), "give 1 to 60")
	}
	if t.People < 1 || t.People > 100 {
		l.Add("people", fmt.Sprintf("%d is no count of people", t.People), "give 1 to 100")
	}
	if !(t.Waste >= 0 && t.Waste <= 1) {
		l.Add("waste", fmt.Sprintf("%g is no share", t.Waste), "give 0 to 1")
	}
	if len(t.Items) == 0 || len(t.Items) > 40 {
		l.Add("items", fmt.Sprintf("are %d", len(t.Items)), "give 1 to 40 leaders")
	}
	waste := t.Waste
	if waste == 0 {
		waste = UsualWaste
	}
	out := []Needed{}
	for i, x := range t.Items {
		at := fmt.Sprintf("items[%d]", i)
		if !(x.ChangesADay >= 0 && x.ChangesADay <= 200) {
			l.Add(at+".changes_a_day", fmt.Sprintf("%g is no count", x.ChangesADay), "give 0 to 200")
			continue
		}
		left, err := Budget(c, x.Query)
		if err == nil && x.LengthM <= x.ShortestM {
			err = problem.New("length_m", "is not longer than it may become", "begin with more than the shortest")
		}
		if err != nil {
			l.Take(at, err)
			continue
		}
		k := c.Knot(x.Knot)
		one, err := tied(c, k, x.Line)
		if err != nil {
			l.Take(at, err)
			continue
		}
		hand := judge.Whatever(one, k, nil).Size.Needs.M()
		ties := int(math.Ceil(x.ChangesADay*float64(t.Days*t.People) - 1e-9))
		// A leader is tied once when it is new, and then so often until it is too short.
		leaders := max(t.People, int(math.Ceil(float64(ties)/float64(left.ChangesLeft+1))))
		cut := x.LengthM + 2*hand
		out = append(out, Needed{Name: x.Name, Leaders: leaders, CutM: cut, Ties: ties, SpoolM: float64(leaders) * cut * (1 + waste),
			PerTieM: left.PerChangeM, ToTieM: hand, ClassKN: x.Line.LabelKN, Material: x.Line.Material})
	}
	return out, l.Err()
}
