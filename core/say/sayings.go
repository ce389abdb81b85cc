package say

import (
	"fmt"
	"math"

	"oarweed/core/job"
	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/unit"
)

// Saying is a saying held against one rig.
type Saying struct {
	ID     string `json:"id"`
	Saying string `json:"saying"`
	// Verdict: true here, not here, or half true.
	Verdict string `json:"verdict" enum:"true here,not here,half true"`
	// Says works it out on the rig, When says when it is true.
	Says string `json:"says"`
	When string `json:"when"`
}

const (
	isTrue   = "true here"
	isNot    = "not here"
	halfTrue = "half true"
)

// Sayings puts the sayings into words.
func Sayings(s *job.Sayings) []Saying {
	r := s.Rig
	line := Line(r.Line)
	load := Force(r.Load, r.Line.Material.Fishing)
	wet := "dry"
	if r.Wet {
		wet = "wet"
	}
	out := []Saying{{"one-turn", "One turn is always enough.", pick(s.Turn.High <= float64(judge.LightHand), s.Turn.Likely <= float64(judge.OneHand)),
		fmt.Sprintf("One turn of %s %s round %s at %s asks %s of the hand, %s at the worst%s.", wet, line, s.On, load, round(s.Turn.Likely), round(s.Turn.High), beyond(s.Turn.High)),
		fmt.Sprintf("True up to about %s for a light hand of %s. Each further turn divides it again; take the turn first, then hold.", upTo(s.UpTo, r.Line.Material.Fishing), judge.LightHand)}}

	locks := Saying{"more-locks", "More locks are stronger.", isNot, "", "Never by holding more: a second lock only buries the first, and jams. What holds more is another figure eight before the lock."}
	switch {
	case s.End.High <= s.Gives.Likely:
		locks.Says = fmt.Sprintf("With two eights and one lock the end of %s on a cleat has %s to hold at %s, %s at the worst, and gives some %s by itself: nothing is left for a second lock.", line, atMost(s.End.Likely), load, atMost(s.End.High), atMost(s.Gives.Likely))
	default:
		locks.Says = fmt.Sprintf("With two eights and one lock the end of %s on a cleat has %s to hold at %s, %s at the worst.", line, atMost(s.End.Likely), load, atMost(s.End.High))
	}
	if s.Eight > 1.2 {
		locks.Says += fmt.Sprintf(" One more eight divides that by %.2g.", s.Eight)
	}
	out = append(out, locks)

	b, e := s.Bowline, s.FigureEight
	h := b.Now()
	never := Saying{"bowline-slips", "A bowline never slips.", map[knot.Class]string{knot.Holds: isTrue, knot.Marginal: halfTrue, knot.Slips: isNot}[h.Class],
		fmt.Sprintf("In %s %s it %s: %s.", wet, line, h.Class, HoldWhy(h, b.Knot)), "True in laid and braided rope with a tail of ten to twelve diameters. In HMPE, braided PE and hard fishing line it creeps or slips before it breaks."}
	if b.Strength.Fails != knot.Breaks {
		never.Verdict = isNot
		never.Says += fmt.Sprintf(" It slips at about %s, %.2g times the load.", unit.Force(b.Strength.Capacity.Likely), b.Strength.Times)
	}
	out = append(out, never, Saying{"king", "The bowline is the king of knots.", halfTrue,
		fmt.Sprintf("For: tied in %s, and it always comes undone. Against: it keeps %.0f to %.0f %% of %s, a followed-through eight %.0f to %.0f %% in %s.",
			Clock(b.Size.Seconds.Likely), 100*b.Strength.Share.Low, 100*b.Strength.Share.High, line, 100*e.Strength.Share.Low, 100*e.Strength.Share.High, Clock(e.Size.Seconds.Likely)),
		"True where it must be quick and come undone; not where strength, slippery line or people decide."})

	lost := 1 - s.Wet.Likely/s.Dry.Likely
	weaker := Saying{"wet", "Wet knots are weaker.", pick(lost > 0.05, lost > 0.02 || s.HoldsDry.Likely-s.HoldsWet.Likely > 0.02),
		fmt.Sprintf("Dry, %s bears about %s, wet %s. A round turn and two half hitches of it holds %s by itself in %.0f of 100 cases dry, in %.0f wet.", line, round(s.Dry.Likely), round(s.Wet.Likely), load, hundred(s.HoldsDry.Likely), hundred(s.HoldsWet.Likely)),
		"True of nylon, which loses a tenth and more of its strength in water; polyester, polypropylene and HMPE do not. Wet line grips metal a little less, so that hitches on smooth metal hold less surely."}
	return append(out, weaker)
}

// beyond says so where no single hand holds a force.
func beyond(n float64) string {
	if n > float64(judge.OneHand) {
		return ", more than one hand holds"
	}
	return ""
}

func upTo(f unit.Force, fishing bool) string {
	if fishing {
		return fmt.Sprintf("%.2g lb", f.LbTest())
	}
	return round(float64(f))
}

// round says a force in newtons to two figures.
func round(n float64) string { return twoFigures(n) }

// hundred is a chance out of a hundred that is never certain.
func hundred(p float64) float64 { return math.Min(99, math.Max(1, math.Round(100*p))) }

func atMost(n float64) string {
	if n < 1 {
		return "next to nothing"
	}
	return Hand(n)
}

func pick(yes, half bool) string {
	switch {
	case yes:
		return isTrue
	case half:
		return halfTrue
	}
	return isNot
}
