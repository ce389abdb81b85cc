package job

import (
	"math"

	"oarweed/core/evidence"
	"oarweed/core/problem"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// Slip is a line led from the boat through a ring ashore and back aboard, so that she is let go
// without anybody ashore.
type Slip struct {
	// Length is both parts and what both ends take on their cleats; Runs what has to run out
	// through the ring when one end is let go.
	Length, Runs unit.Length
}

// SlipInput is what is typed: how far the ring is from the cleat, how far above or below it, and
// the line.
type SlipInput struct{ Distance, Height, Line string }

// SlipLine works out a slip line: twice the way to the ring and the knots on two cleats. The
// error names the field.
func SlipLine(c *trade.Catalogue, q SlipInput) (Slip, error) {
	var l problem.List
	d := lengthWithin(&l, "distance", q.Distance, unit.Metre, 0.2, 100)
	h := lengthWithin(&l, "height", q.Height, unit.Metre, 0, 15)
	line := lengthWithin(&l, "line", q.Line, unit.Millimetre, 3*unit.Millimetre, 60*unit.Millimetre)
	if err := l.Err(); err != nil {
		return Slip{}, err
	}
	way := unit.Length(math.Hypot(float64(d), float64(h)))
	k := c.Knot("cleat-hitch")
	cleat := line * unit.Length(k.Uses.Diameters+k.Tail.Likely)
	return Slip{Length: 2*way + 2*cleat, Runs: way + cleat}, nil
}

// Heave is a heaving line and the messenger that follows it.
type Heave struct {
	// Heaving line to coil: the way to the hand ashore and a third of it more, so that it falls
	// behind him and not short. Messenger reaches there and back again, with both bends.
	Heaving, Messenger unit.Length
	// Far: beyond what most people throw, see [Throw].
	Far bool
}

// Throw is how far a weighted line is thrown by hand: from memory, kept wide.
var Throw = evidence.Figure{Interval: evidence.Interval{Low: 12, Likely: 18, High: 25}, Unit: "m", Tag: evidence.Memory,
	Source: "a heaving line of 6 to 10 mm with a weighted knot, thrown by hand; from memory, kept wide"}

// overthrow is what a heaving line is longer than the way: our own share.
const overthrow = 1.0 / 3

// HeaveInput is what is typed: the way to the hand ashore, how much higher he stands, and the
// mooring line that is to follow.
type HeaveInput struct{ Distance, Height, Line string }

// HeavingLine works out a heaving line and its messenger. The error names the field.
func HeavingLine(c *trade.Catalogue, q HeaveInput) (Heave, error) {
	var l problem.List
	d := lengthWithin(&l, "distance", q.Distance, unit.Metre, 1, 100)
	h := lengthWithin(&l, "height", q.Height, unit.Metre, 0, 15)
	line := lengthWithin(&l, "line", q.Line, unit.Millimetre, 3*unit.Millimetre, 60*unit.Millimetre)
	if err := l.Err(); err != nil {
		return Heave{}, err
	}
	way := unit.Length(math.Hypot(float64(d), float64(h)))
	k := c.Knot("sheet-bend")
	bend := line * unit.Length(k.Uses.Diameters+k.Tail.Likely)
	return Heave{Heaving: way * (1 + overthrow), Messenger: 2*way + 2*bend, Far: float64(way) > Throw.Low}, nil
}

// Tide is how a fender hangs at a fixed wall while the water rises and falls.
type Tide struct {
	// Drop is from the rail down to the fender's eye; Clear from its foot to the water.
	Drop, Clear unit.Length
	// Covers: at the highest water the wall still reaches the middle of the fender.
	Covers bool
	// Over is how far the rail stands above the edge at high water; Under how far below it at low
	// water. Below zero: it does not.
	Over, Under unit.Length
	// Lead is how long each line should lead so that the tide does not hang her up: three times
	// the range (common practice, no source).
	Lead unit.Length
}

// TideInput is what is typed: the rail above the water, the edge of the wall above the water now,
// how much the water will still rise and fall, and the length of the fender.
type TideInput struct{ Rail, Edge, Rise, Fall, Fender string }

// tides is how many times the range a line leads.
const tides = 3

// FenderTide hangs a fender at a wall so that it lies between at every height of the water that
// is to come: its middle where the edge comes down to at high water, or as low as it hangs clear
// of the water. The error names the field.
func FenderTide(q TideInput) (Tide, error) {
	var l problem.List
	rail := lengthWithin(&l, "rail", q.Rail, unit.Metre, 0.1, 10)
	edge := lengthWithin(&l, "edge", q.Edge, unit.Metre, 0, 20)
	rise := lengthWithin(&l, "rise", q.Rise, unit.Metre, 0, 16)
	fall := lengthWithin(&l, "fall", q.Fall, unit.Metre, 0, 16)
	fender := lengthWithin(&l, "fender", q.Fender, unit.Millimetre, 0.1, 3)
	if err := l.Err(); err != nil {
		return Tide{}, err
	}
	if rail < fender {
		return Tide{}, problem.New("fender", "is longer than her side is high", "hang it level, from both its ends")
	}
	lowest := edge - rise // of the edge above the water, at high water
	middle := min(rail-fender/2, max(lowest, fender/2))
	return Tide{Drop: rail - middle - fender/2, Clear: middle - fender/2, Covers: middle <= lowest+1e-9,
		Over: rail - lowest, Under: edge + fall - rail, Lead: tides * (rise + fall)}, nil
}
