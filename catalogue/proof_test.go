package catalogue_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"os/exec"
	"strconv"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/shape"
	"oarweed/core/shape/draw"
	"oarweed/core/shape/tangle"
	"oarweed/core/trade"
)

// load gives the catalogue, which nothing changes: its drawings are laid out once for all tests.
func load(t testing.TB) *trade.Catalogue {
	t.Helper()
	c, err := loaded()
	require.NoError(t, err)
	return c
}

var loaded = sync.OnceValues(catalogue.Load)

// Every knot is drawn, and every drawing, of the faulty forms too, is the knot it
// should be: the expected values and their origins are in proofs.yaml.
func TestEveryDrawingIsProven(t *testing.T) {
	c := load(t)
	for _, id := range c.DrawingIDs() {
		t.Run(id, func(t *testing.T) {
			sh, err := c.Drawing(id)
			require.NoError(t, err)
			assert.Equal(t, id, sh.ID, "the file is named after the knot")
			assert.NotEmpty(t, c.Proofs(id))
			assert.NoError(t, c.Prove(id))
		})
	}
	for _, k := range c.Knots {
		// Known from one short description only: a drawing would teach our guess.
		assert.Equal(t, k.ID == "double-ring-hitch", k.Shape == "", "%s and its drawing", k.ID)
	}
}

type reginaAnswer struct {
	Jones      map[string]int64 `json:"jones"`
	Alexander  []int64          `json:"alexander"`
	Components int              `json:"components"`
}

// regina asks Regina (B. A. Burton and others), from Debian's regina-normal.
func regina(t *testing.T, codes map[string]any) map[string]reginaAnswer {
	t.Helper()
	in, err := json.Marshal(codes)
	require.NoError(t, err)
	cmd := exec.Command("regina-python", "testdata/regina.py")
	cmd.Stdin = bytes.NewReader(in)
	var errOut strings.Builder
	cmd.Stderr = &errOut
	out, err := cmd.Output()
	require.NoError(t, err, "Regina is needed: run make test-deps\n%s", errOut.String())
	answers := map[string]reginaAnswer{}
	require.NoError(t, json.Unmarshal(out, &answers), "%s", out)
	return answers
}

// polynomial writes Regina's coefficients the way core/shape does.
func polynomial(byHalves map[string]int64) string {
	var b strings.Builder
	for e := -200; e <= 200; e++ {
		if k := byHalves[strconv.Itoa(e)]; k != 0 {
			power := fmt.Sprintf("t^(%d/2)", e)
			if e%2 == 0 {
				power = fmt.Sprintf("t^%d", e/2)
			}
			fmt.Fprintf(&b, "%+d%s", k, power)
		}
	}
	if b.Len() == 0 {
		return "0"
	}
	return b.String()
}

// Regina is started once, for the invariants of every drawing and for those of the
// Rolfsen table, by the table's own Dowker–Thistlethwaite codes.
func TestInvariantsAgreeWithRegina(t *testing.T) {
	c := load(t)
	codes := map[string]any{}
	for name, dt := range map[string]string{
		"3_1": "4 6 2", "4_1": "4 6 8 2", "6_1": "4 8 12 10 2 6", "6_2": "4 8 10 12 2 6", "6_3": "4 8 10 2 12 6", "5_1": "6 8 10 2 4", "7_1": "8 10 12 14 2 4 6", "8_18": "6 8 10 12 14 16 2 4", "8_20": "4 8 -12 2 -14 -6 -16 -10",
	} {
		codes["Rolfsen "+name] = map[string]string{"dt": dt}
	}
	want := map[string]tangle.Closure{}
	for _, id := range c.DrawingIDs() {
		sh, err := c.Drawing(id)
		require.NoError(t, err)
		for _, x := range tangle.Of(sh) {
			if x.Crossings == 0 {
				assert.Equal(t, "1", x.Jones, "a circle")
				continue
			}
			name := id + " " + x.Name
			codes[name], want[name] = x.PD, x
		}
	}
	got := regina(t, codes)
	require.Len(t, got, len(codes))
	for name, w := range want {
		g := got[name]
		assert.Equal(t, w.Components, g.Components, name)
		assert.True(t, tangle.Same(w.Jones, polynomial(g.Jones)), "%s: Jones ours %s, Regina %s", name, w.Jones, polynomial(g.Jones))
		alexander := map[string]int64{}
		for i, k := range g.Alexander {
			alexander[strconv.Itoa(2*i)] = k
		}
		assert.True(t, tangle.Same(w.Alexander, polynomial(alexander)), "%s: Alexander ours %s, Regina %s", name, w.Alexander, polynomial(alexander))
	}
	// The polynomials quoted in proofs.yaml as those of the Rolfsen table.
	quoted := 0
	for _, id := range c.DrawingIDs() {
		for _, p := range c.Proofs(id) {
			for name, row := range got {
				if knot, ok := strings.CutPrefix(name, "Rolfsen "); ok && strings.Contains(p.Origin, "knot "+knot+" of the Rolfsen table") {
					quoted++
					assert.True(t, tangle.SameUpToMirror(p.Jones, polynomial(row.Jones)), "%s %s: %s, Regina says %s", id, p.Closure, p.Jones, polynomial(row.Jones))
				}
			}
		}
	}
	assert.GreaterOrEqual(t, quoted, 9)
}

// Turning over any single crossing of a drawing must show in its invariants.
func TestEveryFlippedCrossingShows(t *testing.T) {
	c := load(t)
	for _, id := range c.DrawingIDs() {
		t.Run(id, func(t *testing.T) {
			t.Parallel()
			sh, err := c.Drawing(id)
			require.NoError(t, err)
			before := fingerprint(sh)
			for name := range sh.Crossings {
				assert.NotEqual(t, before, fingerprint(sh.Flipped(name)), "turning crossing %s over changes nothing", name)
			}
		})
	}
}

// Drawn back from its end, every last tuck changes a closure: a knot tied without it would
// not pass for the knot.
func TestEveryLastTuckShows(t *testing.T) {
	c := load(t)
	for _, id := range c.DrawingIDs() {
		t.Run(id, func(t *testing.T) {
			t.Parallel()
			sh, err := c.Drawing(id)
			require.NoError(t, err)
			for r := range sh.Ropes {
				whole, back := tangle.DrawnBack(sh, r)
				if back == nil {
					continue
				}
				assert.NotEqual(t, printed(whole), printed(back), "%s: no closure sees the last tuck of this end", sh.Ropes[r].Name)
			}
		})
	}
}

// The constrictor is no clove hitch: a drawing in which the end misses the half
// knot beneath the turn would have the clove's invariants.
func TestConstrictorIsNoClove(t *testing.T) {
	c := load(t)
	clove, err := c.Drawing("clove-hitch")
	require.NoError(t, err)
	constrictor, err := c.Drawing("constrictor-hitch")
	require.NoError(t, err)
	for i, x := range tangle.Of(constrictor) {
		if strings.HasPrefix(x.Name, "alone") {
			continue // both are a plain turn or two without their post
		}
		assert.NotEqual(t, tangle.Of(clove)[i].Determinant, x.Determinant, x.Name)
	}
}

func fingerprint(sh *shape.Shape) string { return printed(tangle.Of(sh)) }

func printed(closures []tangle.Closure) string {
	var b strings.Builder
	for _, x := range closures {
		fmt.Fprintln(&b, x.Name, x.Linking, x.Alexander, x.Jones)
	}
	return b.String()
}

func BenchmarkDrawing(b *testing.B) {
	c := load(b)
	for _, k := range c.Knots {
		sh, err := c.Drawing(k.ID)
		require.NoError(b, err)
		if sh == nil {
			continue
		}
		b.Run(k.ID, func(b *testing.B) {
			size := 0
			for b.Loop() {
				size = len(draw.SVG(sh, draw.Options{Step: float64(sh.Steps()), Look: draw.LookLaid}))
			}
			b.ReportMetric(float64(size)/1000, "kB")
		})
	}
}

func BenchmarkLoadCatalogue(b *testing.B) {
	for b.Loop() {
		if _, err := catalogue.Load(); err != nil {
			b.Fatal(err)
		}
	}
}
