package say_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"oarweed/core/say"
	"oarweed/core/shape/roll"
)

func TestRollsAreSaid(t *testing.T) {
	six := make([]roll.Turn, 6)
	for what, r := range map[string]roll.Rolled{
		"it locks":            {Turns: six, Sum: 0, Fields: 4},
		"walk out":            {Turns: six, Sum: 6, Fields: 4},
		"it slides apart":     {Turns: six, Sum: 0, Fields: 1},
		"All 6 turn the same": {Turns: six, Sum: 6, Fields: 1},
	} {
		assert.Contains(t, say.Rolls(r), what)
	}
	assert.Contains(t, say.RollCount(roll.Rolled{Turns: six, Sum: 6, Fields: 4}), "6 crossings, the turns add up to 6, 4 fields are")
	assert.Contains(t, say.RollCount(roll.Rolled{Turns: six, Fields: 1}), "opposite sides")
}
