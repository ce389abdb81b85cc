// Package unit holds the quantities of the job as types, in SI inside, with the
// units riggers and anglers write: mm, cm, m, in, ft; N, kN, kgf, tf, lbf and
// the pound test of fishing line; degrees and radians.
//
// Conversion factors are exact by definition (international yard and pound,
// 1959; standard gravity, 3rd CGPM, 1901).
package unit

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"

	"oarweed/core/problem"
)

// Length in metres.
type Length float64

// Force in newtons.
type Force float64

// Angle in radians.
type Angle float64

const (
	Millimetre Length = 1e-3
	Centimetre Length = 1e-2
	Metre      Length = 1
	Inch       Length = 0.0254
	Foot       Length = 0.3048

	Newton     Force = 1
	Kilonewton Force = 1e3
	Kilogram   Force = 9.80665              // kilogram-force
	Tonne      Force = 9806.65              // tonne-force
	Pound      Force = 0.45359237 * 9.80665 // pound-force; "lb test" is the same force

	Radian Angle = 1
	Degree Angle = math.Pi / 180
	Turn   Angle = 2 * math.Pi
)

// MM, M give a length in millimetres and metres.
func (l Length) MM() float64 { return float64(l / Millimetre) }
func (l Length) M() float64  { return float64(l) }

// KN, LbTest give a force in kilonewtons and pounds.
func (f Force) KN() float64     { return float64(f / Kilonewton) }
func (f Force) LbTest() float64 { return float64(f / Pound) }

var lengthUnits = map[string]Length{
	"mm": Millimetre, "cm": Centimetre, "m": Metre,
	"in": Inch, "inch": Inch, "inches": Inch, `"`: Inch, "″": Inch,
	"ft": Foot, "feet": Foot, "foot": Foot, "'": Foot, "′": Foot,
}

var forceUnits = map[string]Force{
	"n": Newton, "kn": Kilonewton, "kgf": Kilogram, "kg": Kilogram, "tf": Tonne, "t": Tonne,
	"lbf": Pound, "lb": Pound, "lbs": Pound, "lb test": Pound, "lbtest": Pound, "lb-test": Pound, "#": Pound,
}

var angleUnits = map[string]Angle{
	"rad": Radian, "deg": Degree, "°": Degree, "turn": Turn, "turns": Turn,
}

// ParseLength reads "12 mm", "1/2 in", "1 1/2 in", "30ft"; a bare number is in
// bare. The error is a [problem.Error] that says what would be understood.
func ParseLength(s string, bare Length) (Length, error) {
	v, err := parse(s, "length", float64(bare), lengthUnits, "12 mm, 0.9 m, 1/2 in or 30 ft")
	return Length(v), err
}

// ParseForce reads "2.4 kN", "250 kgf", "60 lb test"; a bare number is in bare.
func ParseForce(s string, bare Force) (Force, error) {
	v, err := parse(s, "force", float64(bare), forceUnits, "2.4 kN, 250 kgf, 540 lbf or 60 lb test")
	return Force(v), err
}

// ParseAngle reads "30 deg", "1.5 turns", "2 rad"; a bare number is in bare.
func ParseAngle(s string, bare Angle) (Angle, error) {
	v, err := parse(s, "angle", float64(bare), angleUnits, "30 deg, 1.5 turns or 2 rad")
	return Angle(v), err
}

// MarshalText writes a quantity so that UnmarshalText reads the very same back.
func (l Length) MarshalText() ([]byte, error) { return text(float64(l), "m") }
func (f Force) MarshalText() ([]byte, error)  { return text(float64(f), "N") }
func (a Angle) MarshalText() ([]byte, error)  { return text(float64(a), "rad") }

// UnmarshalText reads a quantity with its unit; a bare number is metres, newtons,
// radians. Where another bare unit is meant, use the Parse functions.
func (l *Length) UnmarshalText(b []byte) (err error) { *l, err = ParseLength(string(b), Metre); return }
func (f *Force) UnmarshalText(b []byte) (err error)  { *f, err = ParseForce(string(b), Newton); return }
func (a *Angle) UnmarshalText(b []byte) (err error)  { *a, err = ParseAngle(string(b), Radian); return }

// most is the largest quantity in SI units that is read: far beyond anything real, and
// small enough to be said in any unit.
const most = 1e15

func text(v float64, unit string) ([]byte, error) {
	if math.IsInf(v, 0) || math.IsNaN(v) {
		return nil, problem.New("", fmt.Sprintf("%g is no quantity", v), "give a finite number")
	}
	return []byte(strconv.FormatFloat(v, 'g', -1, 64) + " " + unit), nil
}

// A number is decimal ("2.4", "2,4"), a fraction ("1/2") or mixed ("1 1/2").
var quantity = regexp.MustCompile(`^([+-]?)(?:(\d+)[ -])?(\d+)/(\d+)\s*(\D*)$|^([+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE][+-]?\d+)?)\s*(\D*)$`)

func parse[U ~float64](s, what string, bare float64, units map[string]U, examples string) (float64, error) {
	fix := "write it like " + examples
	t := strings.TrimSpace(s)
	if t == "" {
		return 0, problem.New("", "no "+what+" given", fix)
	}
	m := quantity.FindStringSubmatch(t)
	if m == nil {
		return 0, problem.New("", fmt.Sprintf("%q is not a %s", s, what), fix)
	}
	var v float64
	name := m[7]
	if m[6] != "" {
		v, _ = strconv.ParseFloat(strings.Replace(m[6], ",", ".", 1), 64)
	} else {
		whole, _ := strconv.ParseFloat("0"+m[2], 64)
		num, _ := strconv.ParseFloat(m[3], 64)
		den, _ := strconv.ParseFloat(m[4], 64)
		if den == 0 {
			return 0, problem.New("", fmt.Sprintf("%q divides by nothing", s), fix)
		}
		v = whole + num/den
		if m[1] == "-" {
			v = -v
		}
		name = m[5]
	}
	name = strings.ToLower(strings.Join(strings.Fields(name), " "))
	k := bare
	if name != "" {
		u, ok := units[name]
		if !ok {
			return 0, problem.New("", fmt.Sprintf("%q is not a unit of %s", name, what), fix)
		}
		k = float64(u)
	}
	// Asked after the unit has multiplied it: 1e308 m is no length either.
	if v *= k; !(math.Abs(v) <= most) {
		return 0, problem.New("", fmt.Sprintf("%q is too large to be a %s", s, what), fix)
	}
	return v, nil
}

// String gives millimetres below one metre, metres from there on.
func (l Length) String() string {
	if math.Abs(float64(l)) < 0.9995 {
		return trim(l.MM()) + " mm"
	}
	return trim(l.M()) + " m"
}

// String gives newtons below 100 N, kilonewtons from there on.
func (f Force) String() string {
	if math.Abs(float64(f)) < 99.5 {
		return trim(float64(f)) + " N"
	}
	return trim(f.KN()) + " kN"
}

// Pounds gives the force as anglers say it: "60 lb".
func (f Force) Pounds() string { return trim(f.LbTest()) + " lb" }

// Inches gives the length in inches.
func (l Length) Inches() string { return trim(float64(l/Inch)) + " in" }

// trim writes three significant figures without trailing noughts: enough for
// figures that are never known better than that.
func trim(v float64) string {
	if v == 0 {
		return "0"
	}
	digits := 2 - int(math.Floor(math.Log10(math.Abs(v))))
	if digits < 0 {
		digits = 0
	}
	s := strconv.FormatFloat(v, 'f', digits, 64)
	if strings.Contains(s, ".") {
		s = strings.TrimRight(strings.TrimRight(s, "0"), ".")
	}
	return s
}
