package bench

import (
	"fmt"
	"math"

	"oarweed/core/problem"
)

// Gauge is a photograph of a knot with its end marked: two places so many millimetres apart, the
// edge of the knot, and the mark on the end; all in the picture's own units.
type Gauge struct {
	Scale   [2][2]float64 `json:"scale" doc:"two places a known distance apart"`
	ScaleMM float64       `json:"scale_mm"`
	Knot    [2]float64    `json:"knot" doc:"where the end leaves the knot"`
	Mark    [2]float64    `json:"mark"`
}

// mm is how far the mark stands from the knot.
func (g Gauge) mm() (float64, error) {
	scale := math.Hypot(g.Scale[0][0]-g.Scale[1][0], g.Scale[0][1]-g.Scale[1][1])
	if !(scale > 0) || math.IsInf(scale, 0) {
		return 0, problem.New("scale", "is one place twice", "touch two places a known distance apart")
	}
	if !(g.ScaleMM > 0 && g.ScaleMM <= 10_000) {
		return 0, problem.New("scale_mm", fmt.Sprintf("%g is no distance", g.ScaleMM), "give millimetres above 0")
	}
	return math.Hypot(g.Knot[0]-g.Mark[0], g.Knot[1]-g.Mark[1]) * g.ScaleMM / scale, nil
}

// Creep is how many millimetres of end were drawn into a knot between two photographs; below
// zero where the mark stands further out. Both are taken straight from above, knot and scale in
// one plane: what is tilted reads short. The error names the photograph and the field.
func Creep(before, after Gauge) (float64, error) {
	var l problem.List
	was, err := before.mm()
	l.Take("before", err)
	is, err := after.mm()
	l.Take("after", err)
	return was - is, l.Err()
}
