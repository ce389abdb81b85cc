package curve

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

func anyPoints(t *rapid.T) []Point {
	n := rapid.IntRange(2, 12).Draw(t, "n")
	p := make([]Point, n)
	for i := range p {
		p[i] = Point{float64(i)*3 + rapid.Float64Range(-1, 1).Draw(t, "x"), rapid.Float64Range(-5, 5).Draw(t, "y")}
	}
	return p
}

// Hobby's spline goes through its points and leaves each in the direction in which
// it came.
func TestSplineIsSmoothThroughItsPoints(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := anyPoints(t)
		z := Through(p)
		for i, b := range z {
			assert.InDelta(t, 0, b[0].Sub(p[i]).Len(), 1e-12)
			assert.InDelta(t, 0, b[3].Sub(p[i+1]).Len(), 1e-12)
			if i > 0 {
				assert.InDelta(t, 0, TurnAngle(z[i-1].Tangent(1), b.Tangent(0)), 1e-6)
			}
		}
	})
}

// Through points of a circle the spline is that circle to within a fraction of a
// per cent (The METAFONTbook, ch. 14: this is what the velocities are for). The
// ends, where the curvature is free, are left out.
func TestSplineOfACircle(t *testing.T) {
	var p []Point
	for k := range 13 {
		a := float64(k) * math.Pi / 6
		p = append(p, Point{10 * math.Cos(a), 10 * math.Sin(a)})
	}
	z := Through(p)
	for _, b := range z[3 : len(z)-3] {
		for k := range 21 {
			assert.InDelta(t, 10, b.At(float64(k)/20).Len(), 0.01)
		}
	}
}

func TestTwoPointsMakeAStraightLine(t *testing.T) {
	z := Through([]Point{{0, 0}, {6, 3}})
	for k := range 11 {
		q := z[0].At(float64(k) / 10)
		assert.InDelta(t, 0.6*float64(k), q.X, 1e-12)
		assert.InDelta(t, 0.3*float64(k), q.Y, 1e-12)
	}
}

func TestCutKeepsTheCurve(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := New(Through(anyPoints(t)))
		a := rapid.Float64Range(0, 0.9).Draw(t, "a") * c.Length()
		b := a + rapid.Float64Range(0.05, 1).Draw(t, "b")*(c.Length()-a)
		part := c.Cut(a, b)
		assert.InDelta(t, 0, part[0][0].Sub(c.At(a)).Len(), 1e-6)
		assert.InDelta(t, 0, part[len(part)-1][3].Sub(c.At(b)).Len(), 1e-6)
		for i := 1; i < len(part); i++ {
			assert.InDelta(t, 0, part[i][0].Sub(part[i-1][3]).Len(), 1e-6, "no gap between the pieces")
		}
		assert.InDelta(t, b-a, New(part).Length(), 0.02*c.Length())
	})
}

func TestMeet(t *testing.T) {
	at, u, ok := Meet(Point{0, 0}, Point{4, 4}, Point{0, 4}, Point{4, 0})
	assert.True(t, ok)
	assert.InDelta(t, 0.5, at, 1e-12)
	assert.InDelta(t, 0.5, u, 1e-12)
	_, _, ok = Meet(Point{0, 0}, Point{4, 4}, Point{1, 0}, Point{5, 4})
	assert.False(t, ok, "parallel")
	_, _, ok = Meet(Point{0, 0}, Point{1, 1}, Point{0, 4}, Point{4, 0})
	assert.False(t, ok, "beyond the end")
}
