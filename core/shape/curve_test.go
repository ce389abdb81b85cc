package shape

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
		z := hobby(p)
		for i, b := range z {
			assert.InDelta(t, 0, b[0].sub(p[i]).len(), 1e-12)
			assert.InDelta(t, 0, b[3].sub(p[i+1]).len(), 1e-12)
			if i > 0 {
				assert.InDelta(t, 0, turnAngle(z[i-1].tangent(1), b.tangent(0)), 1e-6)
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
	z := hobby(p)
	for _, b := range z[3 : len(z)-3] {
		for k := range 21 {
			assert.InDelta(t, 10, b.at(float64(k)/20).len(), 0.01)
		}
	}
}

func TestTwoPointsMakeAStraightLine(t *testing.T) {
	z := hobby([]Point{{0, 0}, {6, 3}})
	for k := range 11 {
		q := z[0].at(float64(k) / 10)
		assert.InDelta(t, 0.6*float64(k), q.X, 1e-12)
		assert.InDelta(t, 0.3*float64(k), q.Y, 1e-12)
	}
}

func TestCutKeepsTheCurve(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := newCurve(hobby(anyPoints(t)))
		a := rapid.Float64Range(0, 0.9).Draw(t, "a") * c.length()
		b := a + rapid.Float64Range(0.05, 1).Draw(t, "b")*(c.length()-a)
		part := c.cut(a, b)
		assert.InDelta(t, 0, part[0][0].sub(c.at(a)).len(), 1e-6)
		assert.InDelta(t, 0, part[len(part)-1][3].sub(c.at(b)).len(), 1e-6)
		for i := 1; i < len(part); i++ {
			assert.InDelta(t, 0, part[i][0].sub(part[i-1][3]).len(), 1e-6, "no gap between the pieces")
		}
		assert.InDelta(t, b-a, newCurve(part).length(), 0.02*c.length())
	})
}

func TestMeet(t *testing.T) {
	at, u, ok := meet(Point{0, 0}, Point{4, 4}, Point{0, 4}, Point{4, 0})
	assert.True(t, ok)
	assert.InDelta(t, 0.5, at, 1e-12)
	assert.InDelta(t, 0.5, u, 1e-12)
	_, _, ok = meet(Point{0, 0}, Point{4, 4}, Point{1, 0}, Point{5, 4})
	assert.False(t, ok, "parallel")
	_, _, ok = meet(Point{0, 0}, Point{1, 1}, Point{0, 4}, Point{4, 0})
	assert.False(t, ok, "beyond the end")
}

func TestPolynomialText(t *testing.T) {
	p := laurent{lo: -4, c: []int64{-1, 0, 2, 0, 0, 0, -2, 0, 1}}
	assert.Equal(t, "-t^-2 + 2t^-1 - 2t + t^2", p.text("t", 1))
	assert.Equal(t, "-t^(-1/2) - t^(1/2)", laurent{lo: -1, c: []int64{-1, 0, -1}}.text("t", 1))
	assert.Equal(t, "0", laurent{}.text("t", 1))
	assert.True(t, Same("t^2 - 2t + 2t^-1 - t^-2", "-t^-2 + 2t^-1 - 2t + t^2"))
	assert.True(t, SameUpToMirror("t + t^3 - t^4", "-t^-4 + t^-3 + t^-1"))
	assert.False(t, SameUpToMirror("t + t^3 - t^4", "t + t^3"))
}

// Residues give back any polynomial whose coefficients are small against the prime.
func TestInterpolationModuloThePrime(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := rapid.SliceOfN(rapid.Int64Range(-1_000_000, 1_000_000), 1, 20).Draw(t, "c")
		values := make([]uint64, len(c))
		for x := range values {
			sum := uint64(0)
			for i := len(c) - 1; i >= 0; i-- {
				sum = (mulMod(sum, uint64(x)) + dropMod(c[i])) % prime
			}
			values[x] = sum
		}
		assert.Equal(t, laurent{c: append([]int64(nil), c...)}.trim(), interpolate(values))
	})
}
