package catalogue_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/knot"
	"oarweed/core/trade"
)

// Every doctrine but the neutral ones changes the knots it names, and only those.
func TestEveryDoctrineChangesItsKnots(t *testing.T) {
	c := load(t)
	require.GreaterOrEqual(t, len(c.Questions), 15)
	changing := 0
	for _, q := range c.Questions {
		for i, s := range q.Doctrines {
			of, err := c.WithDoctrines(map[string]string{q.ID: s.ID})
			require.NoError(t, err)
			for _, k := range c.Knots {
				_, named := s.Change[k.ID]
				if i > 0 && named {
					changing++
					assert.NotEqual(t, k, of.Knot(k.ID), "%s %s %s", q.ID, s.ID, k.ID)
				}
				if _, usual := q.Doctrines[0].Change[k.ID]; !named && !usual {
					assert.Equal(t, k, of.Knot(k.ID), "%s %s %s", q.ID, s.ID, k.ID)
				}
			}
		}
	}
	assert.Greater(t, changing, 25)
}

func TestDoctrinesReplaceTheDefault(t *testing.T) {
	c := load(t)
	alternating := func(c *trade.Catalogue) bool {
		return strings.Contains(strings.Join(c.Knot("sheet-bend").Checks, " "), "comes and goes")
	}
	assert.True(t, alternating(c), "the default asks for stoppers")
	plain, err := c.WithDoctrines(map[string]string{"sheet-bend": "plain"})
	require.NoError(t, err)
	assert.False(t, alternating(plain))
	again, err := plain.WithDoctrines(nil)
	require.NoError(t, err)
	assert.True(t, alternating(again), "and back")
	bare, err := c.WithDoctrines(map[string]string{"cleat": "no-lock"})
	require.NoError(t, err)
	assert.Equal(t, "cleat-turns", bare.Knot("cleat-hitch").FrictionModel)
	assert.NotContains(t, strings.Join(bare.Knot("cleat-hitch").Checks, " "), "locking turn")
	assert.Equal(t, "cleat-hitch", c.Knot("cleat-hitch").FrictionModel, "the original is left alone")
	locked, err := c.Drawing("cleat-hitch")
	require.NoError(t, err)
	open, err := bare.Drawing("cleat-hitch")
	require.NoError(t, err)
	assert.NotSame(t, locked, open, "the picture shows no lock either")
}

// A guard keeps the last bight from shaking out; the end through it costs the quick release.
func TestASlippedHitchIsGuarded(t *testing.T) {
	c := load(t)
	bare := c.Knot("sampan-hitch")
	assert.Equal(t, knot.Marginal, bare.Shake.Class)
	for answer, off := range map[string]knot.Off{"toggle": knot.Easy, "end-through": knot.Worked} {
		with, err := c.WithDoctrines(map[string]string{"slipped-guard": answer})
		require.NoError(t, err)
		k := with.Knot("sampan-hitch")
		assert.Equal(t, knot.Holds, k.Shake.Class, answer)
		assert.Equal(t, off, k.Release.Slack, answer)
		assert.True(t, k.Release.UnderLoad, answer)
		assert.NotEqual(t, bare.Release.How, k.Release.How, answer)
		assert.Len(t, k.Steps, len(bare.Steps)+1, answer)
	}
	through, err := c.WithDoctrines(map[string]string{"slipped-guard": "end-through"})
	require.NoError(t, err)
	assert.NotContains(t, through.Knot("sampan-hitch").Tasks["cast-off"].Why, "one pull")
	assert.Contains(t, through.Knot("sampan-hitch").Summary, "the end out of the last bight")
}

func TestADoctrineThatIsDrawnHasAStepInWordsToEveryStepDrawn(t *testing.T) {
	c := load(t)
	drawn := 0
	for _, q := range c.Questions {
		for _, d := range q.Doctrines {
			for id, change := range d.Change {
				if change.Drawing == "" {
					continue
				}
				with, err := c.WithDoctrines(map[string]string{q.ID: d.ID})
				require.NoError(t, err)
				sh, err := with.Drawing(id)
				require.NoError(t, err)
				assert.Equal(t, sh.Steps(), len(with.Knot(id).Steps), "%s as %s", id, d.ID)
				drawn++
			}
		}
	}
	assert.GreaterOrEqual(t, drawn, 3)
}

func TestUnknownDoctrinesAreNamed(t *testing.T) {
	_, err := load(t).WithDoctrines(map[string]string{"cleat": "sideways", "weather": "fine"})
	assert.ErrorContains(t, err, "doctrines.cleat")
	assert.ErrorContains(t, err, "lock-at-end, no-lock, one-of-each")
	assert.ErrorContains(t, err, "doctrines.weather")
	for _, bad := range []struct{ from, to, says string }{
		{"drop_checks: [lock]", "drop_checks: [anchor]", `no check says "anchor"`},
		{"drop_faults: [two-turns]", "drop_faults: [three-turns]", `no fault "three-turns"`},
		{"steps: {4: \"Make", "steps: {9: \"Make", "no step 9"},
		{"network: cleat-turns", "network: cleat-wish", "cleat-wish"},
		{"fit: {join: 0.35}", "fit: {fly-fishing: 0.3}", "fly-fishing"},
	} {
		_, err := catalogue.LoadFrom(with(t, "doctrines.yaml", bad.from, bad.to))
		assert.ErrorContains(t, err, bad.says)
	}
}
