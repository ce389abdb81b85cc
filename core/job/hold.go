package job

import (
	"fmt"
	"math"

	"oarweed/core/evidence"
	"oarweed/core/friction"
	"oarweed/core/hold"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// HoldTable says what hand holds a load by a hitch or by so many turns. Forces in
// newtons.
type HoldTable struct {
	Hitch friction.Choice
	Load  unit.Force
	Hand  unit.Force
	Mu    evidence.Figure
	Rows  []HoldRow
	// Holds: the hand given holds the load at the lowest friction, with so many Turns (0
	// where the hitch has no number to choose).
	Holds bool
	Turns int
	// FromUse is what the trade knows of it, where that and not the model decides whether
	// it is recommended; nil elsewhere.
	FromUse *knot.HoldClass
	Wet     bool
}

// HoldRow is one number of turns, eights or twists.
type HoldRow struct {
	N int
	// Hand force needed at the lowest, likely and highest friction; 0 where it locks,
	// +Inf where no hand can hold it.
	Lowest, Likely, Highest unit.Force
	// Locks is the chance that it locks by itself, with what use teaches.
	Locks float64
}

// HoldInput is what a hold table is made from, as typed: a bare length is in mm, a bare
// load in kN, a bare hand force in N.
type HoldInput struct {
	Hitch, Object, Line, Material, Surface string
	Wet                                    bool
	Load, Hand                             string
}

// Hold works out the hand force for a load, for every sensible number of turns. The
// error names the field.
func Hold(c *trade.Catalogue, q HoldInput) (*HoldTable, error) {
	var l problem.List
	m := c.Material(q.Material)
	if m == nil {
		l.Add("material", fmt.Sprintf("%q is not a material", q.Material), "use the id of one, like polyester")
	}
	surface := c.Surface(q.Surface)
	if surface == nil {
		l.Add("surface", fmt.Sprintf("%q is not a surface", q.Surface), "use the id of one, like polished-steel")
	}
	object := lengthWithin(&l, "object", q.Object, unit.Millimetre, 0.2*unit.Millimetre, 5)
	rope := lengthWithin(&l, "line", q.Line, unit.Millimetre, 0.05*unit.Millimetre, 0.2)
	load := forceWithin(&l, "load", q.Load, unit.Kilonewton)
	hand := forceWithin(&l, "hand", q.Hand, unit.Newton)
	if _, err := friction.Find(q.Hitch, 0); err != nil {
		l.Take("", err)
	}
	if err := l.Err(); err != nil {
		return nil, err
	}
	span, _ := friction.Chosen(q.Hitch)
	mu := m.Mu(q.Wet)
	out := &HoldTable{Hitch: span, Load: load, Hand: hand, Mu: mu, Wet: q.Wet}
	if k := c.Knot(q.Hitch); k != nil && k.FrictionModel == "" {
		if h := k.HoldIn(q.Material, ""); h.Why != "" {
			out.FromUse = &h
		}
	}
	g := friction.Geometry{Object: float64(object) / 2, Rope: float64(rope) / 2}
	shape := friction.Mu{Rope: 1, Object: surface.Factor.Likely}
	for n := span.From; n <= span.To; n++ {
		h, err := friction.Find(q.Hitch, n)
		if err != nil {
			return nil, err
		}
		needs := func(mu float64) unit.Force { return handForce(h.HoldRatio(g, shape.Scale(mu)), load) }
		locks := c.Use().Ask(hold.Question{Hitch: q.Hitch, Count: n, Line: line.Line{Material: m, Diameter: rope}, Object: object, Surface: q.Surface, Wet: q.Wet, Load: load}).Locks
		row := HoldRow{n, needs(mu.Low), needs(mu.Likely), needs(mu.High), locks}
		out.Rows = append(out.Rows, row)
		if !out.Holds && row.Lowest <= hand {
			out.Turns, out.Holds = n, true
		}
	}
	return out, nil
}

// handForce is what the end must be held with: 0 where it locks, +Inf where no hand
// can hold it.
func handForce(ratio float64, load unit.Force) unit.Force {
	switch {
	case math.IsInf(ratio, 1):
		return 0
	case ratio > 0:
		return unit.Force(float64(load) / ratio)
	}
	return unit.Force(math.Inf(1))
}
