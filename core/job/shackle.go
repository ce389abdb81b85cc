package job

import (
	"fmt"

	"oarweed/core/evidence"
	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// Shackle is every clamp of a soft shackle with every stopper, in one cord. Openings
// and bulks are from memory.
type Shackle struct {
	Cord unit.Length
	// Material of the cord, its strength wet, the clear length of the finished shackle and
	// the load on it; 0 where none is given.
	Material *line.Material
	Bears    line.Strength
	Clear    unit.Length
	Load     unit.Force
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
	// Uses is the cord that both knots take, without the loop between; Cut is all of it.
	Uses, Cut unit.Length
	// Capacity is what the finished shackle bears, in newtons.
	Capacity evidence.Figure
}

// Each reports whether the stopper is tied once in each tail, and not once of both.
func (p Pair) Each() bool { return p.Times == 2 }

// ShackleInput is a soft shackle as typed: the diameter of its cord, the material by id,
// the clear length inside the closed shackle and the load on it, each but the first as
// usual where empty.
type ShackleInput struct{ Diameter, Material, Clear, Load string }

// evenly is how evenly the four parts of a closed shackle share the load: its own estimate,
// from memory.
var evenly = evidence.Interval{Low: 0.6, Likely: 0.8, High: 1}

// parts of cord that bear in a closed shackle: two legs, each doubled.
const parts = 4

// SoftShackle works out a soft shackle as typed. The cord to cut is the body doubled, twice
// its clear length, and what both knots take. It bears what four parts of wet cord bear at
// the weaker of its two knots, as evenly as they share it. The error names the field.
func SoftShackle(c *trade.Catalogue, q ShackleInput) (*Shackle, error) {
	var l problem.List
	d := lengthWithin(&l, "diameter", q.Diameter, unit.Millimetre, 0.5*unit.Millimetre, 100*unit.Millimetre)
	clear, load := unit.Length(0), unit.Force(0)
	if q.Clear != "" {
		clear = lengthWithin(&l, "clear", q.Clear, unit.Millimetre, 10*unit.Millimetre, 5)
	}
	if q.Load != "" {
		load = forceWithin(&l, "load", q.Load, unit.Kilonewton)
	}
	if q.Material == "" {
		q.Material = "hmpe"
	}
	m := c.Material(q.Material)
	if m == nil {
		l.Add("material", fmt.Sprintf("%q is not a material", q.Material), "use one of "+rig.IDs(c.Materials, func(m *line.Material) string { return m.ID }))
	} else if m.Unknotted != "" {
		l.Add("material", m.Unknotted, "take a cord that is knotted")
	}
	if err := l.Err(); err != nil {
		return nil, err
	}
	bears, err := line.Line{Material: m, Construction: m.Constructions[0], Diameter: d}.Bears(true)
	if err != nil {
		l.Take("diameter", err)
		return nil, l.Err()
	}
	out := &Shackle{Cord: d, Material: m, Bears: bears, Clear: clear, Load: load, Cautions: c.CautionTexts([]string{"person", "stored-energy", "strength", "memory-figures"})}
	for _, clamp := range c.Shackle.Clamps {
		row := Clamp{ShacklePart: clamp, Opening: d * unit.Length(clamp.Opening)}
		ck := c.Knot(clamp.Knot)
		for _, stop := range c.Shackle.Stoppers {
			sk := c.Knot(stop.Knot)
			p := Pair{ShacklePart: stop, Bulk: d * unit.Length(stop.Bulk), Ratio: stop.Bulk / clamp.Opening,
				Seconds: ck.Seconds.Likely + stop.Times*sk.Seconds.Likely,
				Uses:    d * unit.Length(ck.Uses.Diameters+stop.Times*(sk.Uses.Diameters+sk.Tail.Likely))}
			if d < ThickCord {
				p.First = ""
			}
			p.Cut = 4*clear + p.Uses
			weaker := ck.EfficiencyIn(m.ID, "clamp")
			if e := sk.EfficiencyIn(m.ID, "shackle-stop"); e.Value.Likely < weaker.Value.Likely {
				weaker = e
			}
			p.Capacity = evidence.Figure{Interval: bears.Capacity.Times(weaker.Value).Times(evenly).Scale(parts), Unit: evidence.Newton, Tag: evidence.Computed,
				Source: fmt.Sprintf("four parts of cord (%s) × what the weaker knot keeps (%s) × how evenly they share (memory)", bears.Capacity.Tag, weaker.Tag)}
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
