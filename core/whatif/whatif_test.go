package whatif_test

import (
	"context"
	"fmt"
	"log"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/rank"
	"oarweed/core/rig"
	"oarweed/core/trade"
	"oarweed/core/whatif"
)

func fender() rig.Document {
	return rig.Document{PeakKN: 0.1, Character: rig.Alternating, Chain: []rig.Element{
		{Fitting: &rig.Fitting{Kind: "rail", SizeMM: 25}},
		{Joint: &rig.Joint{Task: "fender"}},
		{Line: &rig.Line{Material: "polyester", DiameterMM: 8}},
	}}
}

func Example() {
	c, err := catalogue.Load()
	if err != nil {
		log.Fatal(err)
	}
	list, err := whatif.Changes(context.Background(), c, fender())
	if err != nil {
		log.Fatal(err)
	}
	for _, x := range list {
		if x.Condition != nil && x.Condition.Value != nil && x.Condition.Value.ID == string(rig.UnderLoad) {
			fmt.Println("off under load:", x.Knot)
		}
	}
	// Output: off under load: slipped-clove-hitch
}

// On either side of every edge it says, the first choice is what it says.
func TestEdgesAreWhereTheyAreSaid(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	seen := 0
	for _, x := range c.Templates {
		if len(x.Rig.Chain) != 3 {
			continue
		}
		list, err := whatif.Changes(t.Context(), c, x.Rig)
		require.NoError(t, err)
		now := first(t, c, x.Rig)
		for _, change := range list {
			if change.Input == nil {
				assert.NotEqual(t, now, change.Knot, x.ID)
				continue
			}
			seen++
			beyond, before := change.To*1.006, change.To/1.006
			if !change.Up {
				beyond, before = before, beyond
			}
			if change.Input.Whole {
				beyond, before = change.To, change.From
			}
			assert.Equal(t, change.Knot, first(t, c, change.Input.With(x.Rig, beyond)), "%s: %s beyond %g", x.ID, change.Input.ID, change.To)
			assert.Equal(t, now, first(t, c, change.Input.With(x.Rig, before)), "%s: %s before %g", x.ID, change.Input.ID, change.To)
		}
	}
	assert.Greater(t, seen, 10)
}

func first(t *testing.T, c *trade.Catalogue, d rig.Document) string {
	t.Helper()
	r, err := c.Resolve(d)
	require.NoError(t, err)
	return rank.First(c, r)
}

// at is the rig in the middle of patch i of 8 along an axis.
func at(t *testing.T, d rig.Document, a whatif.Axis, i int) rig.Document {
	t.Helper()
	for _, in := range rig.Inputs(d) {
		if in.ID == a.Input {
			return in.With(d, a.From*math.Pow(a.To/a.From, (float64(i)+0.5)/8))
		}
	}
	t.Fatalf("no input %s", a.Input)
	return d
}

// A map says at each place what would be chosen there.
func TestMapIsTheChoiceAtEachPlace(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	d := fender()
	plane, err := whatif.NewPlane(d, whatif.Axis{Input: "line.diameter"}, whatif.Axis{Input: "load"}, 8, 8)
	require.NoError(t, err)
	assert.Len(t, plane.RowOrder(), 8)
	for _, y := range plane.RowOrder()[:3] {
		row, err := plane.Row(t.Context(), c, d, y)
		require.NoError(t, err)
		for x, knot := range row.Knots {
			there := at(t, at(t, d, plane.X, x), plane.Y, y)
			assert.Equal(t, first(t, c, there), knot, "%d, %d", x, y)
		}
	}
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	_, err = plane.Row(ctx, c, d, 0)
	assert.ErrorIs(t, err, context.Canceled)
}

// What has to move least comes first, a condition counts as a number doubled, and no knot
// stands twice while there is another.
func TestNearestChanges(t *testing.T) {
	wet := true
	list := []whatif.Change{
		{From: 1, To: 4, Knot: "bowline"},
		{From: 10, To: 8, Knot: "clove-hitch"},
		{Condition: &whatif.Condition{Wet: &wet}, Knot: "cow-hitch"},
		{From: 2, To: 2.6, Knot: "clove-hitch"},
	}
	assert.Equal(t, []int{1, 2, 0}, whatif.Nearest(list, 3))
	assert.Equal(t, []int{1, 2, 0, 3}, whatif.Nearest(list, 9))
	assert.Empty(t, whatif.Nearest(nil, 3))
}
