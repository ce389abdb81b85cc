package chance_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"gonum.org/v1/gonum/stat/distuv"

	"oarweed/core/chance"
	"oarweed/core/evidence"
)

func figure(low, likely, high float64) evidence.Figure {
	return evidence.Figure{Interval: evidence.Interval{Low: low, Likely: likely, High: high}}
}

func Example() {
	line := chance.Line(figure(15000, 18000, 22000), "")
	o := chance.Of(line, 16000)
	fmt.Printf("breaks in about %.0f of 100\n", 100*o.Breaks)
	// Output: breaks in about 5 of 100
}

// The draws follow the triangular distribution: against gonum's, within what ten
// thousand draws can be off by (four standard errors).
func TestAgainstTheTriangularDistribution(t *testing.T) {
	for _, f := range [][3]float64{{10, 15, 30}, {1, 1.1, 5}, {100, 190, 200}} {
		d := distuv.NewTriangle(f[0], f[2], f[1], nil)
		s := chance.Line(figure(f[0], f[1], f[2]), "a")
		for _, p := range []float64{0.02, 0.3, 0.5, 0.9} {
			load := d.Quantile(p)
			o := chance.Of(s, load)
			assert.InDelta(t, p, o.Breaks, 4*math.Sqrt(p*(1-p)/chance.Draws), "%v at %g", f, load)
			assert.Zero(t, o.Slips)
			assert.InDelta(t, 1, o.Holds+o.Breaks, 1e-12)
		}
		o := chance.Of(s, d.Mode())
		for p, got := range map[float64]float64{0.05: o.P5, 0.5: o.P50, 0.95: o.P95} {
			assert.InDelta(t, p, d.CDF(got), 4*math.Sqrt(p*(1-p)/chance.Draws))
		}
	}
}

// Parts drawn apart hold together as often as the product says; the first to give way
// is counted once in every draw.
func TestChainOfIndependentParts(t *testing.T) {
	a, b := chance.Line(figure(10, 15, 30), "a"), chance.Line(figure(8, 20, 25), "b")
	load := 13.0
	both, first := chance.Chain([]chance.Sample{a, b}, load)
	p := chance.Of(a, load).Holds * chance.Of(b, load).Holds
	assert.InDelta(t, p, both.Holds, 4*math.Sqrt(p*(1-p)/chance.Draws))
	assert.InDelta(t, 1, first[0]+first[1], 1e-12)
	// A copy of a part changes nothing: it is the same line.
	same, _ := chance.Chain([]chance.Sample{a, a}, load)
	assert.Equal(t, chance.Of(a, load).Holds, same.Holds)
}

// A hitch that does not lock lets go before anything breaks; what the rig bears is told of
// the draws in which it holds.
func TestWhatDoesNotLockLetsGo(t *testing.T) {
	s := chance.Line(figure(10, 15, 30), "a")
	s.Gives = make([]bool, chance.Draws)
	for i := range s.Gives {
		s.Gives[i] = i%4 == 0
	}
	o, first := chance.Chain([]chance.Sample{chance.Line(figure(50, 60, 70), "b"), s}, 5)
	assert.InDelta(t, 0.25, o.Slips, 1e-12)
	assert.Equal(t, []float64{0, 1}, first)
	assert.Equal(t, chance.Of(chance.Line(figure(10, 15, 30), "a"), 5).P5, o.P5)
	// Though the other line is the weaker one, it is the hitch that lets go first.
	_, first = chance.Chain([]chance.Sample{chance.Line(figure(5, 6, 7), "b"), s}, 4)
	assert.InDelta(t, 0.25, first[1], 1e-12)
}
