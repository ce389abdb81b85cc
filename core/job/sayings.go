package job

import (
	"math"

	"oarweed/core/evidence"
	"oarweed/core/hold"
	"oarweed/core/judge"
	"oarweed/core/rig"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// Sayings holds what common sayings come to on one rig: the numbers that show when each
// is true.
type Sayings struct {
	Rig *rig.Rig
	// Turn is "one turn is always enough": what one turn round the rig's own object, or a
	// cleat, asks of the hand, in newtons; UpTo is the load that a light hand holds by it at
	// the worst.
	Turn evidence.Interval
	UpTo unit.Force
	// On is what the turn is taken round.
	On string
	// End is "more locks are stronger": what the end of a cleat hitch with two eights and
	// one lock must hold, Gives what it holds by itself, both in newtons; Eight the factor
	// by which one more eight divides it.
	End, Gives evidence.Interval
	Eight      float64
	// Bowline and FigureEight are the two sides of "the bowline is the king of knots" and
	// "a bowline never slips": verdicts in this line.
	Bowline, FigureEight judge.Verdict
	// Dry and Wet are what the line bears, in newtons; HoldsDry and HoldsWet how likely a
	// round turn and two half hitches of it hold: "wet knots are weaker".
	Dry, Wet           evidence.Figure
	HoldsDry, HoldsWet evidence.Interval
}

// cleatHorn is the thickness of a horn where the rig has no cleat, as for the fitting.
const cleatHorn = 30 * unit.Millimetre

// SayingsOf works the sayings out on a rig with one joint. The error names the field.
func SayingsOf(c *trade.Catalogue, d rig.Document) (*Sayings, error) {
	r, err := c.Resolve(d)
	if err != nil {
		return nil, err
	}
	out := &Sayings{Rig: r, On: "a cleat"}
	ask := func(hitch string, count int, wet bool, object unit.Length, surface string) hold.Answer {
		return r.Use.Ask(hold.Question{Hitch: hitch, Count: count, Line: r.Line, Wet: wet, Load: r.Load, Object: object, Surface: surface})
	}
	object, surface := cleatHorn, "aluminium"
	if f := r.Fitting; f != nil && f.Kind.Passes == rig.Open {
		object, surface, out.On = f.Size, f.Surface, "the "+f.Kind.Name
	}
	turn := ask("turns", 1, r.Wet, object, surface)
	out.Turn = turn.Hand
	if turn.Hand.High > 0 && !math.IsInf(turn.Hand.High, 1) {
		out.UpTo = unit.Force(float64(judge.LightHand) * float64(r.Load) / turn.Hand.High)
	}
	horn := cleatHorn
	if f := r.Fitting; f != nil && f.Kind.ID == "cleat" {
		horn = f.Size
	}
	three := ask("cleat-hitch", 2, r.Wet, horn, "aluminium")
	more := ask("cleat-hitch", 3, r.Wet, horn, "aluminium")
	out.End = three.Hand
	mm := r.Line.Diameter.MM()
	out.Gives = hold.TagGives.Scale(mm * mm)
	out.Eight = eightDivides(more, three)
	whatever := func(id string) judge.Verdict { return judge.Whatever(r, c.Knot(id), nil) }
	out.Bowline, out.FigureEight = whatever("bowline"), whatever("figure-eight-follow-through")
	for _, wet := range []bool{false, true} {
		s, err := r.Line.Bears(wet)
		if err != nil {
			return nil, err
		}
		a := ask("round-turn-two-half-hitches", 0, wet, object, surface)
		if wet {
			out.Wet, out.HoldsWet = s.Capacity, a.Chance
		} else {
			out.Dry, out.HoldsDry = s.Capacity, a.Chance
		}
	}
	return out, nil
}

// eightDivides is the factor by which one more eight divides what the end must hold; with
// a lock that needs nothing any more, that of the turns alone.
func eightDivides(more, lock hold.Answer) float64 {
	if lock.Hand.High > 0 && more.Hand.High > 0 && !math.IsInf(lock.Hand.High, 1) {
		return lock.Hand.High / more.Hand.High
	}
	return 0
}
