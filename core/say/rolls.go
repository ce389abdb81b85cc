package say

import (
	"fmt"

	"oarweed/core/shape/roll"
)

// Rolls says what the turns at its crossings do to a join.
func Rolls(r roll.Rolled) string {
	switch {
	case r.Sum > 0:
		return fmt.Sprintf("All %d turn the same way: it rolls, and the ends walk out.", len(r.Turns))
	case r.Fields == 1:
		return "Half one way, half the other: it would lock. But each rope's end lies across from its standing part, and it slides apart."
	}
	return "Half turn one way, half the other: they hold each other, and it locks."
}

// RollCount says what was counted.
func RollCount(r roll.Rolled) string {
	if r.Fields == 1 {
		return fmt.Sprintf("%d crossings, the turns add up to %d, 1 field is edged one way round: the ends lie on opposite sides.", len(r.Turns), r.Sum)
	}
	return fmt.Sprintf("%d crossings, the turns add up to %d, %d fields are edged one way round: both ends lie on one side.", len(r.Turns), r.Sum, r.Fields)
}
