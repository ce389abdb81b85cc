package job

import (
	"fmt"

	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// StrengthInput describes a line as typed: a material id, a construction (empty: the
// usual one) and a diameter like "24mm".
type StrengthInput struct {
	Material     string
	Construction line.Construction
	Diameter     string
	Wet          bool
}

// Strength says what a line bears as new, wet or dry. The error names the field.
func Strength(c *trade.Catalogue, q StrengthInput) (line.Line, line.Strength, error) {
	var l problem.List
	f := rig.FieldOf(rig.LinePart, "diameter_mm")
	d := lengthWithin(&l, "diameter", q.Diameter, unit.Millimetre, unit.Length(f.Min)*unit.Millimetre, unit.Length(f.Max)*unit.Millimetre)
	m := c.Material(q.Material)
	switch {
	case m == nil:
		l.Add("material", fmt.Sprintf("%q is not a material", q.Material), "use one of "+rig.IDs(c.Materials, func(m *line.Material) string { return m.ID }))
	case q.Construction == "":
		q.Construction = m.Constructions[0]
	case !m.Makes(q.Construction):
		l.Add("construction", fmt.Sprintf("%s is not made as %q", m.Name, q.Construction), fmt.Sprintf("use one of %v", m.Constructions))
	}
	if err := l.Err(); err != nil {
		return line.Line{}, line.Strength{}, err
	}
	ln := line.Line{Material: m, Construction: q.Construction, Diameter: d}
	s, err := ln.Bears(q.Wet)
	return ln, s, err
}
