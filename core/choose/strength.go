package choose

import (
	"fmt"

	"oarweed/catalogue"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// StrengthOf says what a line bears, from words as typed: a material id, a
// construction (empty: the usual one) and a diameter like "24mm". Errors name
// the field.
func StrengthOf(c *catalogue.Catalogue, material string, construction line.Construction, diameter string, wet bool) (LineAnswer, error) {
	d, err := unit.ParseLength(diameter, unit.Millimetre)
	if err != nil {
		return LineAnswer{}, prefixed("diameter", err)
	}
	if d <= 0 || d > 0.2 {
		return LineAnswer{}, problem.New("diameter", fmt.Sprintf("%s is no diameter of a line", d), "give more than 0 and at most 200 mm")
	}
	m := c.Material(material)
	if m == nil {
		return LineAnswer{}, problem.New("material", fmt.Sprintf("%q is not a material", material), "use one of "+rig.IDs(c.Materials, func(m *line.Material) string { return m.ID }))
	}
	if construction == "" {
		construction = m.Constructions[0]
	}
	if !m.Makes(construction) {
		return LineAnswer{}, problem.New("construction", fmt.Sprintf("%s is not made as %q", m.Name, construction), fmt.Sprintf("use one of %v", m.Constructions))
	}
	return Bears(line.Line{Material: m, Construction: construction, Diameter: d}, wet)
}
