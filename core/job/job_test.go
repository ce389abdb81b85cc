package job_test

import (
	"fmt"
	"log"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/job"
)

var turns = job.HoldInput{Hitch: "turns", Object: "100 mm", Line: "12 mm", Material: "polyester", Surface: "polished-steel", Wet: true, Load: "2.4 kN", Hand: "100 N"}

func Example() {
	c, err := catalogue.Load()
	if err != nil {
		log.Fatal(err)
	}
	t, err := job.Hold(c, turns)
	if err != nil {
		log.Fatal(err)
	}
	fmt.Println(t.Turns, "turns")
	// Output: 6 turns
}

// Plain turns on a drum: hand force = load · e^(−μφ), the capstan equation (L. Euler,
// 1762; J. Eytelwein, 1808), at the friction the table shows.
func TestTurnsFollowTheCapstanEquation(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	table, err := job.Hold(c, turns)
	require.NoError(t, err)
	factor := c.Surface("polished-steel").Factor.Likely
	for _, r := range table.Rows {
		for mu, hand := range map[float64]float64{table.Mu.Low: float64(r.Lowest), table.Mu.Likely: float64(r.Likely), table.Mu.High: float64(r.Highest)} {
			want := float64(table.Load) * math.Exp(-mu*factor*2*math.Pi*float64(r.N))
			assert.InEpsilon(t, want, hand, 1e-6, "%d turns at %g", r.N, mu)
		}
	}
}

func TestWrongInputNamesItsField(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	q := turns
	q.Material, q.Load = "string", "much"
	_, err = job.Hold(c, q)
	assert.ErrorContains(t, err, "material")
	assert.ErrorContains(t, err, "load")
	_, err = job.SoftShackle(c, "wide")
	assert.ErrorContains(t, err, "diameter")
	_, err = job.Load(c, "tide", job.LoadInput{})
	assert.Error(t, err)
}
