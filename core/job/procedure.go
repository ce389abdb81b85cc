package job

import (
	"fmt"
	"math"
	"strings"

	"oarweed/core/evidence"
	"oarweed/core/friction"
	"oarweed/core/judge"
	"oarweed/core/problem"
	"oarweed/core/rank"
	"oarweed/core/rig"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// Card is a procedure worked out for the lines at hand.
type Card struct {
	*trade.Procedure
	Cautions []rig.Caution
	// Relief is what was worked out for freeing a jammed line; nil for other jobs.
	Relief *Relief
	// Helper is the line that is tied, Length what its knot takes; zero where the
	// procedure needs no rig.
	Helper *rig.Rig
	Length unit.Length
	// Purchase is tension ÷ pull of a trucker's hitch in the line; zero for other jobs.
	Purchase evidence.Interval
	// Lashing is the line that a square lashing takes; zero for other jobs.
	Lashing unit.Length
}

// Relief of a jammed line by a helper: so many riding turns of the rolling hitch, so
// many turns on the winch.
type Relief struct {
	Turns, WinchTurns int
	// Holds: a light hand on the tail holds that many riding turns at the lowest
	// friction expected, with Tail.
	Holds bool
	Tail  unit.Force
	// Ratio of the loaded line to the helper.
	Ratio float64
	// Hand holds what the end asks of a hand at 2 to 5 turns on the winch, at the lowest
	// friction expected.
	Hand [4]unit.Force
	// Hitch is the rolling hitch judged in this helper: whether it bears the load at all.
	Hitch judge.Verdict
}

// Weak reports whether the helper would fail at the load, whatever grips.
func (r *Relief) Weak() bool { return r.Hitch.Strength.Margin < 1 }

// Thick reports whether the helper is thicker than the line it should grip.
func (r *Relief) Thick() bool { return r.Ratio < 1 }

const (
	// mostRiding turns that anybody would lay on.
	mostRiding = 8
	// Thinner: the loaded line should be so much thicker than its helper. Common
	// practice, no source.
	Thinner = 1.2
)

// Fill works a procedure out. d is the rig of its task (a loaded line and a helper, or
// a hawser and a heaving line); a procedure that needs none takes an empty one. The
// error names the field.
func Fill(c *trade.Catalogue, id string, d rig.Document) (*Card, error) {
	p := c.Procedure(id)
	if p == nil {
		return nil, problem.New("procedure", fmt.Sprintf("%q is not a procedure", id), "see the list of procedures")
	}
	out := &Card{Procedure: p, Cautions: c.CautionTexts(p.Cautions)}
	if p.Needs == "" {
		return out, nil
	}
	r, err := c.Resolve(d)
	if err != nil {
		return nil, err
	}
	if p.Needs != trade.AnyTask && r.Task.ID != p.Needs {
		return nil, problem.New("chain[1].joint.task", fmt.Sprintf("is %q, but this job needs %q", r.Task.ID, p.Needs), "send a rig for that task")
	}
	out.Helper = r
	if p.Relieves {
		out.Relief = relieve(r)
		out.Relief.Hitch = judge.Whatever(r, c.Knot("rolling-hitch"), nil)
		out.Relief.Holds = out.Relief.Holds && !out.Relief.Weak() && !out.Relief.Thick()
		out.Cautions = append(out.Cautions, c.Caution("memory-figures"))
	}
	switch p.Needs {
	case "tiedown":
		out.Purchase = judge.Purchase(r)
	case "lash":
		out.Lashing = lashing(r)
	case trade.AnyTask:
		if o := rank.Joint(c, r); len(o.Ranked) > 0 {
			out.Length = o.Ranked[0].Size.Needs
		}
	}
	for _, s := range p.Steps {
		if s.Knot != "" && p.Needs != trade.AnyTask {
			out.Length = judge.Whatever(r, c.Knot(s.Knot), nil).Size.Needs
			break
		}
	}
	return out, nil
}

// lashing is the line of a square lashing: three turns round both spars, each about the
// sum of their circumferences, three frapping turns of half that, and an arm's length for
// the hitches. The other spar is taken as thick. Our own estimate.
func lashing(r *rig.Rig) unit.Length {
	round := unit.Length(math.Pi) * (r.Fitting.Size + r.Line.Diameter) * 2
	return 3*round + 3*round/2 + 600*unit.Millimetre
}

// relieve works out the riding turns, and the turns on the winch, with which a light
// hand on the end holds the load at the lowest friction expected.
func relieve(r *rig.Rig) *Relief {
	mu := r.Line.Mu(r.Wet)
	g := friction.Geometry{Object: float64(r.Other.Diameter) / 2, Rope: float64(r.Line.Diameter) / 2}
	out := &Relief{Tail: unit.Force(math.Inf(1)), Ratio: float64(r.Other.Diameter / r.Line.Diameter)}
	for n := 2; n <= mostRiding && !out.Holds; n++ {
		h, _ := friction.Find("rolling-hitch", n) // 2 to 8 riding turns always exist
		out.Turns = n
		if ratio := h.HoldRatio(g, friction.Mu{Rope: mu.Low, Object: mu.Low}); ratio > 0 {
			out.Tail = handForce(ratio, r.Load)
		}
		out.Holds = out.Tail <= judge.LightHand
	}
	for i := range out.Hand {
		out.Hand[i] = unit.Force(friction.HandAfter(float64(r.Load), float64(i+2), mu.Low))
	}
	out.WinchTurns = int(math.Max(2, math.Ceil(friction.TurnsToHold(float64(r.Load), float64(judge.LightHand), mu.Low))))
	return out
}

// Words are what the blanks of a card's steps are filled with.
func Words(steps []trade.ProcedureStep, words map[string]string) []trade.ProcedureStep {
	out := make([]trade.ProcedureStep, len(steps))
	for i, s := range steps {
		for k, w := range words {
			s.Says = strings.ReplaceAll(s.Says, "{"+k+"}", w)
		}
		out[i] = s
	}
	return out
}
