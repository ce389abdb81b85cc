package say

import (
	"fmt"
	"math"

	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Verdict is a judged knot in two sentences, as a class would hear them: whether it holds,
// and what it bears. Where people depend on it neither word of approval is said.
func Verdict(v judge.Verdict) string {
	s := v.Strength
	fishing := v.Rig.Line.Material.Fishing
	bears := fmt.Sprintf("It %s %s at about %s, %s the load", s.Fails, At(v), Force(rounded(unit.Force(s.Capacity.Likely)), fishing), Times(s.Times))
	if v.Rig.Consequence == rig.Person {
		return bears + "."
	}
	return holding(v) + " " + bears + ": " + map[judge.Enough]string{
		judge.Ample: "enough", judge.Under: "the line is short for it", judge.Thin: "thin",
	}[s.Enough] + "."
}

// holding says how it holds wet and dry, the one that counts first.
func holding(v judge.Verdict) string {
	now, other, is, was := v.Wet, v.Dry, "wet", "dry"
	if !v.Rig.Wet {
		now, other, is, was = v.Dry, v.Wet, "dry", "wet"
	}
	if v.Knot.HeldByHand {
		return "It holds with a hand on the end."
	}
	if now.Class == other.Class {
		return map[knot.Class]string{knot.Holds: "It holds wet and dry.", knot.Marginal: "It may slip, wet or dry.", knot.Slips: "It slips, wet or dry."}[now.Class]
	}
	does := map[knot.Class]string{knot.Holds: "holds", knot.Marginal: "may slip", knot.Slips: "slips"}
	return fmt.Sprintf("It %s %s, and %s %s.", does[now.Class], is, does[other.Class], was)
}

// rounded takes a force to two figures.
func rounded(f unit.Force) unit.Force {
	if f <= 0 {
		return f
	}
	step := math.Pow(10, math.Floor(math.Log10(float64(f)))-1)
	return unit.Force(math.Round(float64(f)/step) * step)
}

// Times says a multiple as a person would: halves up to ten, whole numbers beyond.
func Times(x float64) string {
	half := math.Round(2*x) / 2
	switch whole := int(half); {
	case x < 0.75:
		return fmt.Sprintf("%.2g times", x)
	case half > 10:
		return fmt.Sprintf("%.0f times", float64(rounded(unit.Force(x))))
	case half == 1:
		return "once"
	case half == float64(whole):
		return Number(whole) + " times"
	default:
		return Number(whole) + " and a half times"
	}
}
