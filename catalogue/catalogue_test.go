package catalogue_test

import (
	"io/fs"
	"os"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
)

// with copies the built-in files and changes one of them.
func with(t *testing.T, name, from, to string) fs.FS {
	t.Helper()
	out := fstest.MapFS{}
	disk := os.DirFS(".")
	require.NoError(t, fs.WalkDir(disk, ".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || strings.HasSuffix(path, ".go") {
			return err
		}
		text, err := fs.ReadFile(disk, path)
		out[path] = &fstest.MapFile{Data: text}
		return err
	}))
	require.Contains(t, string(out[name].Data), from)
	out[name].Data = []byte(strings.Replace(string(out[name].Data), from, to, 1))
	return out
}

func TestCatalogueErrorsNameFileAndField(t *testing.T) {
	for _, c := range []struct{ file, from, to, says string }{
		{"knots/bowline.yaml", "name: Bowline", "name: \"\"", "knots/bowline.yaml.name: missing"},
		{"knots/bowline.yaml", "bulk: 3.5", "bulky: 3.5", `knots/bowline.yaml: line`},
		{"knots/bowline.yaml", "fails: breaks", "fails: sulks", "efficiency[2].fails"},
		{"knots/bowline.yaml", "tag: trade, fails", "tag: rumour, fails", "efficiency[2].tag"},
		{"knots/bowline.yaml", "moor: {fit: 0.85", "moor: {fit: 7", "tasks.moor"},
		{"knots/bowline.yaml", "materials: [hmpe, braided-pe], value", "materials: [wool], value", `"wool" is not known`},
		{"knots/clove-hitch.yaml", "network: clove-hitch", "network: magic", "knots/clove-hitch.yaml.network"},
		{"knots/clove-hitch.yaml", "network: clove-hitch", "bulk: 2", "knots/clove-hitch.yaml"},
		{"knots/reef-knot.yaml", "id: reef-knot", "id: granny", "name the file after the knot"},
		{"materials.yaml", "value: [0.25, 0.33, 0.45]", "value: [0.45, 0.33, 0.25]", "friction.dry"},
		{"tasks.yaml", "weights: mooring", "weights: heavy", "tasks.yaml[0].weights"},
		{"weights.yaml", "hold: 30", "hold: 31", "adds up to 101"},
		{"fittings.yaml", "surface: polished-steel", "surface: jelly", "fittings.yaml[0].surface"},
		{"kin.yaml", "{from: overhand, to: figure-eight,", "{from: overhand, to: sky-hook,", `"sky-hook" is not a knot here`},
		{"kin.yaml", "{from: overhand, to: figure-eight,", "{from: overhand, to: overhand,", "two knots and a reason"},
		{"shackle.yaml", "knot: bull-hitch", "knot: calf-hitch", "calf-hitch"},
		{"shackle.yaml", "{knot: cow-hitch, opening: 2.5}", "{knot: cow-hitch, bulk: 2.5}", "a clamp has an opening"},
		{"procedures.yaml", "needs: relieve", "needs: courage", "procedures.yaml.jam.needs"},
		{"procedures.yaml", "hitch: {turns} riding", "hitch: {patience} riding", "cannot be worked out"},
		{"procedures.yaml", "Make small coils", "Make {turns} coils", "no task is named"},
		{"procedures.yaml", "knot: rolling-hitch", "knot: barrel-roll", "procedures.yaml.jam.steps[3].knot"},
		{"procedures.yaml", "cautions: [left-alone]", "cautions: [sea-monsters]", "sea-monsters"},
		{"templates.yaml", "{task: extend}", "{task: shrink}", "templates.yaml.anchor.chain[3].joint.task"},
		{"materials.yaml", "stretch: {value: [0.2, 0.27, 0.35]", "stretch: {value: [0.2, 0.27, 3.5]", "stretch"},
		{"surfaces.yaml", "id: polished-steel", "id: polished-steel, shine: 1", "surfaces.yaml: line"},
	} {
		_, err := catalogue.LoadFrom(with(t, c.file, c.from, c.to))
		require.Error(t, err, "%s: %s", c.file, c.to)
		assert.ErrorContains(t, err, c.says)
	}
}

func TestDrawingMustMatchTheWords(t *testing.T) {
	c, err := catalogue.LoadFrom(with(t, "shapes/bowline.knot", "|5", ""))
	require.NoError(t, err)
	_, err = c.Drawing("bowline")
	assert.ErrorContains(t, err, "draws 4 steps, but the knot has 5 in words")
}

func TestWrongDrawingIsFound(t *testing.T) {
	c, err := catalogue.LoadFrom(with(t, "shapes/bowline.knot", "+c 4.8,2.2", "-c 4.8,2.2"))
	require.NoError(t, err)
	_, err = c.Drawing("bowline")
	assert.ErrorContains(t, err, "crossing c")
	swapped := with(t, "shapes/reef-knot.knot", "+d 6.7,7.7 -m +f", "-d 6.7,7.7 +m -f").(fstest.MapFS)
	text := string(swapped["shapes/reef-knot.knot"].Data)
	swapped["shapes/reef-knot.knot"].Data = []byte(strings.Replace(text, "-f 3.3,7.7 +m -d", "+f 3.3,7.7 -m +d", 1))
	c, err = catalogue.LoadFrom(swapped)
	require.NoError(t, err)
	assert.ErrorContains(t, c.Prove("reef-knot"), "another knot", "a granny is no reef knot")
}

// Nobody's name, and the words that other checks rely on.
func TestWords(t *testing.T) {
	c := load(t)
	names := map[string]bool{}
	for _, k := range c.Knots {
		assert.False(t, names[k.Name], "%s twice", k.Name)
		names[k.Name] = true
		for _, s := range append(append([]string{k.Summary}, k.Steps...), k.Checks...) {
			assert.True(t, strings.HasSuffix(s, "."), "%s: %q is no sentence", k.ID, s)
		}
	}
	for _, task := range c.Tasks {
		n := 0
		for _, k := range c.Knots {
			if _, ok := k.Tasks[task.ID]; ok {
				n++
			}
		}
		assert.Positive(t, n, "no knot for the task %s", task.ID)
	}
}

// What a knot grows out of and what it leads to are the same edges, seen from
// either end.
func TestKinRunsBothWays(t *testing.T) {
	c := load(t)
	edges := 0
	for _, k := range c.Knots {
		for _, r := range c.GrowsFrom(k.ID) {
			edges++
			assert.Equal(t, c.Knot(r.Knot).Name, r.Name)
			assert.NotEmpty(t, r.Why)
			back := false
			for _, x := range c.LeadsTo(r.Knot) {
				back = back || x.Knot == k.ID
			}
			assert.True(t, back, "%s grows out of %s", k.ID, r.Knot)
		}
	}
	assert.Greater(t, edges, 40)
}

// Knots set by hand, one by one of each kind of hold, and one from a start of its own, come out
// as committed.
func TestAKnotIsSetAsWhatIsCommitted(t *testing.T) {
	c := load(t)
	for _, id := range []string{"rolling-hitch", "improved-clinch", "double-fishermans"} {
		t.Run(id, func(t *testing.T) {
			t.Parallel()
			want, err := c.Snug(id)
			require.NoError(t, err)
			got := *c.DrawUp(id, false)
			got.Seconds = want.Seconds
			assert.Equal(t, *want, got)
		})
	}
}

// What is set aside names knots there are, and is not shown; every drawn knot was tried.
func TestEveryDrawnKnotWasDrawnUpOrSaysWhyNot(t *testing.T) {
	c := load(t)
	for _, k := range c.Knots {
		b, err := c.Snug(k.ID)
		require.NoError(t, err)
		if k.Shape == "" {
			assert.Nil(t, b, k.ID)
			continue
		}
		require.NotNil(t, b, "%s: run oarweed snug build %s", k.ID, k.ID)
		if why := c.Dressing(k.ID).Undressed; why != "" {
			assert.Equal(t, why, b.Why, "%s: run oarweed snug build %s", k.ID, k.ID)
		}
		if k.Remembered > 0 {
			assert.Equal(t, b.Bulk.Across, k.Bulk, k.ID)
			assert.InDelta(t, 1, k.Bulk/k.Remembered, 0.7, "%s: remembered and computed are of one size", k.ID)
		}
	}
	// Of a bend half of what both lines take; of a hitch what its turns do not.
	assert.InDelta(t, 10.2, c.Knot("reef-knot").Uses.Diameters, 0.5, "knot-tightening trial of our own")
	assert.InDelta(t, 18, c.Knot("zeppelin-bend").Uses.Diameters, 1)
	assert.Zero(t, c.Knot("blood-join").Uses.Remembered, "its turns are the tyer's choice")
	assert.Zero(t, c.Knot("cross-woven-join").Uses.Remembered, "drawn with fewer turns")
	assert.NotEmpty(t, c.Dressing("slim-beauty").Undressed)
	assert.InDelta(t, 4.03, c.Knot("triple-overhand").Bulk, 0.05)
}
