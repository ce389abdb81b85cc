package catalogue_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/trade"
)

// choose sets every crossing as drawn, but for those turned over.
func choose(t *testing.T, c *trade.Catalogue, id string, flips ...string) trade.Verdict {
	t.Helper()
	d, err := c.Drill(id)
	require.NoError(t, err)
	require.NotNil(t, d)
	want, err := d.Flips(flips)
	require.NoError(t, err)
	set := map[string]bool{}
	// Find the setting that gives the mask wanted, one crossing at a time.
	for _, x := range d.Crossings {
		set[x.Name] = true
	}
	for i, x := range d.Crossings {
		m, err := d.Mask(set)
		require.NoError(t, err)
		if m>>i&1 != want>>i&1 {
			set[x.Name] = false
		}
	}
	v, err := c.Verdict(id, set)
	require.NoError(t, err)
	return v
}

func TestDrillVerdicts(t *testing.T) {
	c := load(t)
	require.Contains(t, c.Drills(), "reef-knot")
	for _, x := range []struct {
		id    string
		flips []string
		name  string
		right bool
	}{
		{"reef-knot", nil, "Reef knot", true}, {"reef-knot", []string{"a", "t", "c", "d", "m", "f"}, "Reef knot", true},
		{"reef-knot", []string{"d", "m", "f"}, "Granny", false}, {"reef-knot", []string{"a", "t", "c"}, "Granny", false},
		{"reef-knot", []string{"m"}, "One half knot", false}, {"reef-knot", []string{"t", "m"}, "Falls apart", false},
		{"figure-eight", []string{"a", "p"}, "Overhand", false}, {"figure-eight", []string{"q"}, "Falls open", false},
		{"clove-hitch", nil, "Clove hitch", true}, {"clove-hitch", []string{"a", "b"}, "Plain turns", false},
		{"bowline", nil, "Bowline", true}, {"bowline", []string{"c", "s"}, "Falls open", false},
		{"round-turn-two-half-hitches", []string{"e", "f", "d"}, "Hitches opposite ways", false},
		{"round-turn-two-half-hitches", []string{"e"}, "One half hitch", false},
		{"sheet-bend", []string{"p", "q"}, "Another tangle", false},
	} {
		v := choose(t, c, x.id, x.flips...)
		assert.Equal(t, x.name, v.Name, "%s %v", x.id, x.flips)
		assert.Equal(t, x.right, v.Right, "%s %v", x.id, x.flips)
		assert.Equal(t, len(x.flips), v.Differs)
		assert.NotEmpty(t, v.Says)
	}
	_, err := c.Verdict("reef-knot", map[string]bool{"a": true})
	assert.ErrorContains(t, err, "is not set")
	_, err = c.Verdict("figure-eight-loop", nil)
	assert.ErrorContains(t, err, "no crossing drill")
}

// Every knot that is drawn in single line and whose crossings can be told apart has a drill, and
// the next one leads through all of them.
func TestEveryKnotHasItsDrill(t *testing.T) {
	c := load(t)
	all := c.Drills()
	assert.Greater(t, len(all), 45)
	assert.Contains(t, all, "cleat-hitch")
	assert.Contains(t, all, "sampan-hitch")
	seen := map[string]bool{}
	for id := all[0]; !seen[id]; id = c.NextDrill(id) {
		seen[id] = true
	}
	assert.Len(t, seen, len(all))
	for _, id := range all {
		d, err := c.Drill(id)
		require.NoError(t, err, id)
		assert.True(t, d.Told(), "%s: its crossings cannot be told apart", id)
	}
	v := choose(t, c, "cleat-hitch", "a")
	assert.Equal(t, []string{"a"}, v.Wrong)
}
