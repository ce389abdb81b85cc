package rank_test

import (
	"fmt"
	"log"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/rank"
	"oarweed/core/rig"
)

func Example() {
	c, err := catalogue.Load()
	if err != nil {
		log.Fatal(err)
	}
	r, err := c.Resolve(rig.Document{PeakKN: 1, Character: rig.Flogging, Chain: []rig.Element{
		{Fitting: &rig.Fitting{Kind: "clew"}},
		{Joint: &rig.Joint{Task: "sheet"}},
		{Line: &rig.Line{Material: "polyester", DiameterMM: 10}},
	}})
	if err != nil {
		log.Fatal(err)
	}
	fmt.Println(rank.Joint(c, r).Ranked[0].Knot.Name)
	// Output: Bowline
}

// Every knot of the catalogue is ranked or out, the score is what its parts add up to,
// and the short way finds the same first.
func TestOrderOfEveryTemplate(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	for _, x := range c.Templates {
		rigs, _, err := c.ResolveAll(x.Rig)
		require.NoError(t, err)
		for _, r := range rigs {
			o := rank.Joint(c, r)
			assert.Len(t, c.Knots, len(o.Ranked)+len(o.Out), x.ID)
			first := ""
			for i, k := range o.Ranked {
				if i == 0 {
					first = k.Knot.ID
				} else {
					above := o.Ranked[i-1]
					assert.False(t, len(above.But) > 0 && len(k.But) == 0, "%s, against which something speaks, stands above %s", above.Knot.ID, k.Knot.ID)
					if (len(above.But) > 0) == (len(k.But) > 0) && (above.Fit >= rank.Made) == (k.Fit >= rank.Made) {
						assert.LessOrEqual(t, k.Score, above.Score)
					}
				}
				assert.True(t, k.Will(), k.Knot.ID)
				sum, weights := 0.0, 0.0
				for _, p := range k.Contributions {
					assert.True(t, p.Value >= 0 && p.Value <= 1, "%s counts %g", k.Knot.ID, p.Value)
					sum, weights = sum+p.Points(), weights+p.Weight
				}
				assert.InDelta(t, k.Score, sum, 1e-9)
				assert.Positive(t, weights)
			}
			assert.Equal(t, first, rank.First(c, r), x.ID)
			for _, v := range o.Out {
				assert.NotEmpty(t, v.Against)
			}
		}
	}
}
