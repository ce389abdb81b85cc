package job

import (
	"math"

	"oarweed/core/problem"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// Fender is how a fender hangs.
type Fender struct {
	// Drop is from what it is tied to down to its eye; Clear what is left between its foot
	// and the water, below zero if it hangs in it.
	Drop, Clear unit.Length
	// Line to cut: the drop and what two half hitches and a round turn take.
	Line unit.Length
}

// FenderInput is a fender as typed: the height of the rail or cleat above the water, that
// of the pontoon's edge, the length of the fender, and the diameter of its line.
type FenderInput struct{ Rail, Pontoon, Fender, Line string }

// HangFender hangs a fender with its middle at the edge of the pontoon, where the boat
// meets it, by a round turn and two half hitches on a rail of the usual size, which take
// what the catalogue says. The error names the field.
func HangFender(c *trade.Catalogue, q FenderInput) (Fender, error) {
	var l problem.List
	rail := lengthWithin(&l, "rail", q.Rail, unit.Metre, 0.1, 10)
	pontoon := lengthWithin(&l, "pontoon", q.Pontoon, unit.Metre, 0, 10)
	fender := lengthWithin(&l, "fender", q.Fender, unit.Millimetre, 0.1, 3)
	line := lengthWithin(&l, "line", q.Line, unit.Millimetre, 3*unit.Millimetre, 30*unit.Millimetre)
	if err := l.Err(); err != nil {
		return Fender{}, err
	}
	drop := rail - pontoon - fender/2
	if drop < 0 {
		return Fender{}, problem.New("rail", "is too low for it: the fender would stand above the rail", "hang it level, from both its ends")
	}
	k := c.Knot("round-turn-two-half-hitches")
	round := unit.Length(math.Pi) * (unit.Length(c.Fitting("rail").DefaultMM)*unit.Millimetre + line)
	knotted := line*unit.Length(k.Uses.Diameters+k.Tail.Likely) + round*unit.Length(k.Uses.Turns)
	return Fender{Drop: drop, Clear: pontoon - fender/2, Line: drop + knotted}, nil
}

// Coils is how many coils so far across a line of a length makes: length ÷ π·across.
func Coils(length, across string) (int, error) {
	var l problem.List
	n := lengthWithin(&l, "length", length, unit.Metre, 0.5, 1000)
	d := lengthWithin(&l, "across", across, unit.Millimetre, 0.05, 2)
	if err := l.Err(); err != nil {
		return 0, err
	}
	return int(math.Ceil(float64(n) / (math.Pi * float64(d)))), nil
}
