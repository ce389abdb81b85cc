package job

import (
	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// Shackle is every clamp of a soft shackle with every stopper, in one cord. Openings
// and bulks are from memory.
type Shackle struct {
	Cord     unit.Length
	Clamps   []Clamp
	Cautions []rig.Caution
}

// Clamp with every stopper.
type Clamp struct {
	trade.ShacklePart
	Opening unit.Length
	Pairs   []Pair
}

// Pair is a clamp with one stopper.
type Pair struct {
	trade.ShacklePart
	Bulk unit.Length
	// Ratio of bulk to opening; Class: holds from [judge.StopperMargin], marginal from 1,
	// else it pulls through.
	Ratio   float64
	Class   knot.Class
	Seconds float64
	// Uses is the cord that both knots take, without the loop between.
	Uses unit.Length
}

// SoftShackle works out a soft shackle in a cord, as typed. The error names the field.
func SoftShackle(c *trade.Catalogue, diameter string) (*Shackle, error) {
	var l problem.List
	d := lengthWithin(&l, "diameter", diameter, unit.Millimetre, 0.5*unit.Millimetre, 100*unit.Millimetre)
	if err := l.Err(); err != nil {
		return nil, err
	}
	out := &Shackle{Cord: d, Cautions: c.CautionTexts([]string{"person", "stored-energy", "strength", "memory-figures"})}
	for _, clamp := range c.Shackle.Clamps {
		row := Clamp{ShacklePart: clamp, Opening: d * unit.Length(clamp.Opening)}
		ck := c.Knot(clamp.Knot)
		for _, stop := range c.Shackle.Stoppers {
			sk := c.Knot(stop.Knot)
			p := Pair{ShacklePart: stop, Bulk: d * unit.Length(stop.Bulk), Ratio: stop.Bulk / clamp.Opening,
				Seconds: ck.Seconds.Likely + stop.Times*sk.Seconds.Likely,
				Uses:    d * unit.Length(ck.Uses.Diameters+stop.Times*(sk.Uses.Diameters+sk.Tail.Likely))}
			switch {
			case clamp.Never != "" || p.Ratio < 1:
				p.Class = knot.Slips
			case p.Ratio < judge.StopperMargin:
				p.Class = knot.Marginal
			default:
				p.Class = knot.Holds
			}
			row.Pairs = append(row.Pairs, p)
		}
		out.Clamps = append(out.Clamps, row)
	}
	return out, nil
}
