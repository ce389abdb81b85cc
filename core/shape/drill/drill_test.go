package drill_test

import (
	"os"
	"strings"
	"testing"

	"oarweed/core/shape/draw"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"oarweed/core/shape"
	"oarweed/core/shape/drill"
)

func drillOf(t testing.TB, id string) *drill.Drill {
	t.Helper()
	text, err := os.ReadFile("../../../catalogue/shapes/" + id + ".knot")
	require.NoError(t, err)
	d, err := drill.New(load(t, string(text)))
	require.NoError(t, err)
	return d
}

// All 64 choices of the reef's six crossings fall into ten tangles: the reef
// twice, the granny once and its mirror image once, and 18 that fall apart.
// Known from an independent drawing of the same shadow.
func TestReefDrill(t *testing.T) {
	d := drillOf(t, "reef-knot")
	classes, whole := d.Classes()
	assert.True(t, whole)
	assert.Len(t, classes, 10)
	assert.Equal(t, 2, classes[d.Key(0)], "reef")
	granny, err := d.Flips([]string{"d", "m", "f"})
	require.NoError(t, err)
	assert.Equal(t, 1, classes[d.Key(granny)], "granny")
	assert.Equal(t, 1, classes[d.Key(d.Mirror(granny))], "granny, mirrored")
	apart, err := d.Flips([]string{"t", "m"})
	require.NoError(t, err)
	assert.Equal(t, 18, classes[d.Key(apart)], "falls apart")
}

// Which crossings are wrong is said against the drawing or its mirror image, whichever is nearer.
func TestWrongCrossings(t *testing.T) {
	d := drillOf(t, "reef-knot")
	mask, err := d.Flips([]string{"m", "d"})
	require.NoError(t, err)
	assert.ElementsMatch(t, []string{"m", "d"}, d.Wrong(mask))
	assert.ElementsMatch(t, []string{"m", "d"}, d.Wrong(d.Mirror(mask)))
	assert.Empty(t, d.Wrong(0))
	assert.True(t, d.Told())
	on := drillOf(t, "clove-hitch")
	assert.Len(t, on.Wrong(on.Mirror(0)), len(on.Crossings), "on a post the mirror image is another way round")
	many, whole := drillOf(t, "double-uni").Classes()
	assert.False(t, whole)
	assert.Greater(t, len(many), 10)
}

func TestDrillReadsWhatWasSet(t *testing.T) {
	d := drillOf(t, "reef-knot")
	set := map[string]bool{}
	for _, c := range d.Crossings {
		set[c.Name] = true
	}
	mask, err := d.Mask(set)
	require.NoError(t, err)
	for name := range set {
		set[name] = !set[name]
	}
	other, err := d.Mask(set)
	require.NoError(t, err)
	assert.Equal(t, d.Mirror(mask), other)
	delete(set, "a")
	_, err = d.Mask(set)
	assert.ErrorContains(t, err, "crossing a is not set")
	_, err = d.Flips([]string{"zz"})
	assert.Error(t, err)
}

func TestShadowShowsOnlyWhatIsSet(t *testing.T) {
	d := drillOf(t, "bowline")
	bare := d.Shadow(draw.Options{}, nil)
	paths := strings.Count(bare, "<path")
	one := d.Shadow(draw.Options{}, map[string]bool{"b": true})
	more := strings.Count(one, "<path")
	assert.Greater(t, more, paths, "a set crossing has a gap")
	assert.NotEqual(t, one, d.Shadow(draw.Options{}, map[string]bool{"b": false}))
	f := d.Frame()
	for _, c := range d.Crossings {
		assert.True(t, c.X > f[0] && c.X < f[0]+f[2] && c.Y > f[1] && c.Y < f[1]+f[3])
	}
}

func BenchmarkDrill(b *testing.B) {
	d := drillOf(b, "reef-knot")
	b.Run("enumerate", func(b *testing.B) {
		for b.Loop() {
			drillOf(b, "reef-knot")
		}
	})
	b.Run("look up", func(b *testing.B) {
		set := map[string]bool{"a": true, "t": false, "c": true, "d": true, "m": false, "f": true}
		for b.Loop() {
			m, _ := d.Mask(set)
			_ = d.Key(m)
		}
	})
}

func load(t testing.TB, source string) *shape.Shape {
	t.Helper()
	sh, err := shape.Load(source)
	require.NoError(t, err)
	return sh
}

// By ear a crossing is known by its two strands: every pass of every rope is named once.
func TestEveryPassIsNamedOnce(t *testing.T) {
	for _, id := range []string{"reef-knot", "bowline", "overhand"} {
		d := drillOf(t, id)
		seen := map[drill.Strand]bool{}
		for _, x := range d.Crossings {
			for _, s := range []drill.Strand{x.First, x.Second} {
				assert.False(t, seen[s], "%s %v", id, s)
				seen[s] = true
			}
		}
		assert.Len(t, seen, 2*len(d.Crossings), id)
		for s := range seen {
			assert.True(t, s.Pass == 1 || seen[drill.Strand{Rope: s.Rope, Pass: s.Pass - 1}], "%s %v", id, s)
		}
	}
}
