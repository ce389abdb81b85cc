package catalogue_test

import (
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/shape"
	"oarweed/core/shape/source"
	"oarweed/core/shape/tangle"
	"oarweed/core/trade"
)

var (
	saysUnder = regexp.MustCompile(`(?i)\b(under|beneath|below|behind)\b`)
	saysOver  = regexp.MustCompile(`(?i)\b(over|across|on top|in front)\b`)
)

// made counts what is passed over and under in the step that ends at n: by what moved in it, and
// by a thing that is put in.
func made(sh *shape.Shape, n int) (over, under int) {
	picture, before := sh.Picture(float64(n)), sh.Picture(float64(n-1))
	laid := func(p shape.Spot) bool { return p.S <= picture.Reach(p.Rope, float64(n))+1e-6 }
	for r := range picture.Ropes {
		for _, moved := range picture.Moved(r, n, float64(n)) {
			in := func(p shape.Spot) bool { return p.Rope == r && p.S >= moved[0] && p.S <= moved[1] }
			for _, x := range picture.Found {
				if x.Hidden || !laid(x.Over) || !laid(x.Under) {
					continue
				}
				if in(x.Over) {
					over++
				}
				if in(x.Under) {
					under++
				}
			}
			for _, p := range picture.Passings {
				if in(p.Spot) && p.Front {
					over++
				} else if in(p.Spot) {
					under++
				}
			}
		}
	}
	for _, p := range picture.Passings {
		name := picture.Objects[p.Object].Name
		if !slices.ContainsFunc(before.Objects, func(o source.Object) bool { return o.Name == name }) {
			if p.Front {
				under++ // the thing goes beneath the rope
			} else {
				over++
			}
		}
	}
	return over, under
}

// A step that says "under" makes an under, one that says "over" an over, as every doctrine has
// it.
func TestWordsOfStepsAreDrawn(t *testing.T) {
	usual := load(t)
	steps := 0
	check := func(t *testing.T, k string, words []string, sh *shape.Shape) {
		for i, text := range words {
			over, under := made(sh, i+1)
			steps++
			assert.False(t, saysUnder.MatchString(text) && under == 0, "%s, step %d: nothing goes under: %s", k, i+1, text)
			assert.False(t, saysOver.MatchString(text) && over == 0, "%s, step %d: nothing goes over: %s", k, i+1, text)
		}
	}
	for _, k := range usual.Knots {
		sh, err := usual.Drawing(k.ID)
		require.NoError(t, err)
		if sh != nil {
			check(t, k.ID, k.Steps, sh)
		}
		for _, w := range k.Told.Drawn {
			sh, err := usual.WayDrawing(k, w.Drawing)
			require.NoError(t, err)
			check(t, k.ID+" "+w.Name, w.Steps, sh)
			assert.Equal(t, len(w.Steps), sh.Steps(), w.Drawing)
		}
	}
	for _, q := range usual.Questions {
		for _, d := range q.Doctrines {
			c, err := usual.WithDoctrines(map[string]string{q.ID: d.ID})
			require.NoError(t, err)
			for id, change := range d.Change {
				if change.Drawing == "" && len(change.Steps) == 0 {
					continue
				}
				sh, err := c.Drawing(id)
				require.NoError(t, err)
				check(t, id+" as "+d.Name, c.Knot(id).Steps, sh)
			}
		}
	}
	assert.Greater(t, steps, 200)
}

// From step to step only what moves does; a crossing that changes by itself is found.
func TestStepsAreContinuous(t *testing.T) {
	c := load(t)
	framed := 0
	for _, id := range c.DrawingIDs() {
		sh, err := c.Drawings.Drawing(id)
		require.NoError(t, err)
		assert.NoError(t, sh.Continuous(), id)
		if sh.Framed {
			framed++
		}
	}
	assert.Greater(t, framed, 5)
	text, err := os.ReadFile("shapes/marlinespike-hitch.knot")
	require.NoError(t, err)
	// In the third picture the end, which has not moved, comes out the other way.
	frames := strings.Split(string(text), "frame 3")
	frames[1] = strings.NewReplacer("-a +P", "+a +P", "1.6,1.7 +a 1.6", "1.6,1.7 -a 1.6", "0.5 1.6,1.7 +a", "0.5 1.6,1.7 -a").Replace(frames[1])
	sh, err := shape.Load(strings.Join(frames, "frame 3"))
	require.NoError(t, err)
	assert.ErrorContains(t, sh.Continuous(), "step 3")
}

// Left out anywhere, a tuck shows: a rope of which a stretch that passes under lies over all
// instead makes another knot. A bight can be lifted out whole and nothing closed sees it; drawn
// back, the rope then turns into another knot on the way.
func TestEveryTuckShows(t *testing.T) {
	c := load(t)
	for _, id := range c.DrawingIDs() {
		t.Run(id, func(t *testing.T) {
			t.Parallel()
			sh, err := c.Drawings.Drawing(id)
			require.NoError(t, err)
			if len(sh.Found) > 40 {
				sh = sh.Single() // its doubled line is tucked as one
				require.Less(t, len(sh.Found), 40)
			}
			whole, wholeUndone := fingerprint(sh), [][]string(nil)
			for r := range sh.Ropes {
				for _, tuck := range tucks(sh, r) {
					lifted := sh
					for _, name := range tuck {
						lifted = lifted.Flipped(name)
					}
					if whole != fingerprint(lifted) {
						continue
					}
					if wholeUndone == nil {
						wholeUndone = undone(sh)
					}
					assert.NotEqual(t, wholeUndone, undone(lifted), "%s: lifted over %v", sh.Ropes[r].Name, tuck)
				}
			}
		})
	}
}

// undone is what the knot turns into while each rope is drawn back, from either end.
func undone(sh *shape.Shape) (out [][]string) {
	for r := range sh.Ropes {
		for _, standing := range []bool{false, true} {
			out = append(out, slices.Compact(tangle.Stages(tangle.Drawn{Shape: sh}, len(sh.Ropes), tangle.OutlineOf(sh), r, standing)))
		}
	}
	return out
}

// tucks are the stretches of a rope that pass under one crossing after the other.
func tucks(sh *shape.Shape, rope int) [][]string {
	var out [][]string
	var now []string
	for _, n := range sh.Ropes[rope].Nodes {
		switch {
		case n.Crossing != "" && n.Pass == source.Below:
			now = append(now, n.Crossing)
		case (n.Crossing != "" || n.Object != "") && len(now) > 0:
			out, now = append(out, now), nil
		}
	}
	if len(now) > 0 {
		out = append(out, now)
	}
	return out
}

// Which strand is held and which drawn is told in words where it is shown, and every strand
// is one of the drawing.
func TestSeatingIsOfTheDrawing(t *testing.T) {
	c := load(t)
	shown := 0
	for _, k := range c.Knots {
		if len(k.Told.Hold)+len(k.Told.Draw) == 0 {
			continue
		}
		shown++
		assert.NotEmpty(t, k.Told.Seat, k.ID)
		sh, err := c.Drawing(k.ID)
		require.NoError(t, err)
		_, pull, err := trade.Seating(k, sh)
		require.NoError(t, err, k.ID)
		assert.NotEmpty(t, pull, "%s: something is drawn", k.ID)
	}
	assert.GreaterOrEqual(t, shown, 12)
}
