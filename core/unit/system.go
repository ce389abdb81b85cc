package unit

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
)

// System is how somebody wants quantities said. The zero value is millimetres, metres
// and kilonewtons for rope, pounds for fishing line.
type System struct {
	// Inches, feet and pounds-force in the place of millimetres, metres and kilonewtons.
	Inches bool
	// Kgf: kilograms-force for rope; it goes with millimetres.
	Kgf bool
	// TackleKg: fishing line in kilograms, not in pounds.
	TackleKg bool
}

// ParseSystem reads "kn", "kgf" or "in", with "kg" after a comma for fishing line; empty
// is the zero value.
func ParseSystem(text string) (System, error) {
	var s System
	for part := range strings.SplitSeq(text, ",") {
		switch strings.TrimSpace(part) {
		case "", "kn", "lb":
		case "kgf":
			s.Kgf = true
		case "in":
			s.Inches = true
		case "kg":
			s.TackleKg = true
		default:
			return System{}, fmt.Errorf("units: %q is not known: use kn, kgf or in, and kg for fishing line in kilograms", part)
		}
	}
	return s, nil
}

// said matches one quantity, or two of one unit with a dash or a word between, as this
// package and the texts of the catalogue write them. What stands behind the unit tells a
// length from a stiffness.
var said = regexp.MustCompile(`(\d+(?:\.\d+)?(?:e[+-]?\d+)?)(?:(–| to | and )(\d+(?:\.\d+)?))?( ?)(mm|cm|m|kN|N|lb)([^\pL\d/²³·]|$)`)

// Restate says every length and force of a text in the system. Figures keep as many
// significant digits as they had, two at least. Compound units (kN/m, mm²) stay.
func (s System) Restate(text string) string {
	if s == (System{}) {
		return text
	}
	return said.ReplaceAllStringFunc(text, func(found string) string {
		m := said.FindStringSubmatch(found)
		first, second, name, after := m[1], m[3], m[5], m[6]
		value := func(t string) float64 { v, _ := strconv.ParseFloat(t, 64); return v }
		// The larger of two chooses the unit for both.
		to, by := s.unit(name, math.Max(value(first), value(second)))
		if to == "" {
			return found
		}
		one := func(t string) string {
			if t == "" {
				return ""
			}
			digits := max(2, min(3, len(strings.TrimLeft(strings.ReplaceAll(t, ".", ""), "0"))))
			return significant(value(t)*by, digits)
		}
		return one(first) + m[2] + one(second) + " " + to + after
	})
}

// unit is what a quantity is said in, and the factor to it; empty where it stays.
func (s System) unit(name string, v float64) (string, float64) {
	switch name {
	case "mm", "cm", "m":
		if !s.Inches {
			return "", 0
		}
		metres := map[string]float64{"mm": 1e-3, "cm": 1e-2, "m": 1}[name]
		if v*metres < 0.9144 {
			return "in", metres / float64(Inch)
		}
		return "ft", metres / float64(Foot)
	case "N", "kN":
		newtons := map[string]float64{"N": 1, "kN": 1000}[name]
		switch {
		case s.Inches:
			return "lbf", newtons / float64(Pound)
		case s.Kgf:
			return "kgf", newtons / float64(Kilogram)
		}
	case "lb":
		if s.TackleKg {
			return "kg", float64(Pound / Kilogram)
		}
	}
	return "", 0
}

func significant(v float64, digits int) string {
	if v == 0 {
		return "0"
	}
	d := max(0, digits-1-int(math.Floor(math.Log10(math.Abs(v)))))
	scale := math.Pow(10, float64(digits-1-int(math.Floor(math.Log10(math.Abs(v))))))
	text := strconv.FormatFloat(math.Round(v*scale)/scale, 'f', d, 64)
	if strings.Contains(text, ".") {
		text = strings.TrimRight(strings.TrimRight(text, "0"), ".")
	}
	return text
}
