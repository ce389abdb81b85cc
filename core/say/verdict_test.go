package say_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/rig"
	"oarweed/core/say"
)

func TestTimesAreSaidAsAPersonWould(t *testing.T) {
	for x, words := range map[float64]string{6.4: "six and a half times", 6.1: "six times", 1.02: "once", 9.9: "ten times", 11.9: "12 times", 15.4: "15 times", 0.42: "0.42 times", 143: "140 times"} {
		assert.Equal(t, words, say.Times(x), "%g", x)
	}
}

func TestAVerdictSaysBothHoldsAndWhatItBears(t *testing.T) {
	v := judge.Verdict{Rig: &rig.Rig{Wet: true, Line: line.Line{Material: &line.Material{}}}, Knot: &knot.Knot{}}
	v.Wet.Class, v.Dry.Class = knot.Marginal, knot.Holds
	v.Strength.Fails, v.Strength.Times, v.Strength.Capacity.Likely = knot.Breaks, 6.4, 13_240
	assert.Equal(t, "It may slip wet, and holds dry. It breaks in the line, where it enters the knot at about 13 kN, six and a half times the load: enough.", say.Verdict(v))
	v.Rig.Consequence = rig.Person
	assert.NotContains(t, say.Verdict(v), "enough")
	assert.NotContains(t, say.Verdict(v), "holds")
	v.Rig.Consequence, v.Strength.Fails, v.Strength.Enough = rig.Boat, knot.Gives, judge.Thin
	v.Wet.Class = knot.Holds
	assert.Equal(t, "It holds wet and dry. It slips in the knot at about 13 kN, six and a half times the load: thin.", say.Verdict(v))
}
