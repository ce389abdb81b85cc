package catalogue_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/knot"
	"oarweed/core/shape/tangle"
	"oarweed/core/shape/trace"
	"oarweed/core/trade"
)

// retraced is a drawing as a hand would trace it: turned, stretched, wavering, perhaps in the
// mirror or from behind, the object begun anywhere and run either way, the ropes in any order.
func retraced(rnd *rand.Rand, t trace.Trace) (out trace.Trace, mirror bool) {
	turn, squash := 2*math.Pi*rnd.Float64(), 0.75+0.5*rnd.Float64()
	sin, cos := math.Sincos(turn)
	flip, under := rnd.IntN(2) == 1, rnd.IntN(2) == 1
	p1, p2, f := 6*rnd.Float64(), 6*rnd.Float64(), 0.3+0.5*rnd.Float64()
	waver := func(p trace.Point) trace.Point {
		x, y := p[0]+0.35*math.Sin(f*p[1]+p1), p[1]+0.35*math.Sin(f*p[0]+p2)
		x, y = x+0.008*rnd.NormFloat64(), y+0.008*rnd.NormFloat64()
		if flip {
			x = -x
		}
		x, y = cos*x-sin*y, sin*x+cos*y
		return trace.Point{200 + 37*x*squash, 120 + 37*y}
	}
	place := rnd.Perm(len(t.Ropes)) // rope i becomes rope place[i]
	out.Ropes = make([]trace.Rope, len(t.Ropes))
	// was gives the point of a rope of the drawing from which a point of the tracing is.
	was := make([]func(float64) float64, len(t.Ropes))
	for i, rope := range t.Ropes {
		points := make([]trace.Point, len(rope.Points))
		for k, p := range rope.Points {
			points[k] = waver(p)
		}
		n, from, back := len(points), 0, false
		if t.Object != nil && *t.Object == i {
			if back = rnd.IntN(2) == 1; rope.Closed {
				from = rnd.IntN(n)
				points = append(slices.Clone(points[from:]), points[:from]...)
			}
			if back {
				slices.Reverse(points)
			}
		}
		was[place[i]] = func(k float64) float64 {
			if back {
				k = float64(n-1) - k
			}
			return math.Mod(k+float64(from+n), float64(n))
		}
		out.Ropes[place[i]] = trace.Rope{Points: points, Closed: rope.Closed}
	}
	if t.Object != nil {
		at := place[*t.Object]
		out.Object = &at
	}
	meets, err := out.Meetings()
	if err != nil {
		return out, false // what is wrong is said when it is named
	}
	for _, m := range meets {
		// The crossing of the drawing that this one is, by how far along its strands run.
		best, entry := math.Inf(1), trace.Entry{}
		for _, e := range t.Over {
			off := func(s [2]int, rope, segment int) float64 {
				if s[0] != place[rope] {
					return math.Inf(1)
				}
				return math.Abs(was[s[0]](float64(s[1])+0.5) - float64(segment) - 0.5)
			}
			if d := off(m.A, e[0], e[1]) + off(m.B, e[2], e[3]); d < best {
				best, entry = d, trace.Entry{m.A[0], m.A[1], m.B[0], m.B[1]}
			}
			if d := off(m.B, e[0], e[1]) + off(m.A, e[2], e[3]); d < best {
				best, entry = d, trace.Entry{m.B[0], m.B[1], m.A[0], m.A[1]}
			}
		}
		if under {
			entry = trace.Entry{entry[2], entry[3], entry[0], entry[1]}
		}
		out.Over = append(out.Over, entry)
	}
	return out, flip != under
}

// Every drawing traced again is named, in 2 000 tracings.
func TestTracingsAreNamed(t *testing.T) {
	c := load(t)
	ids := c.DrawingIDs()
	rnd := rand.New(rand.NewPCG(14, 2))
	const tracings = 2000
	wrong, unreadable := 0, 0
	drawn, itself, called := map[string]trace.Trace{}, map[string]bool{}, map[string]string{}
	for _, id := range ids {
		sh, err := c.Drawings.Drawing(id)
		require.NoError(t, err)
		drawn[id] = trace.Of(sh)
		straight, err := c.NameTied(drawn[id])
		require.NoError(t, err)
		require.False(t, straight[0].Mirror, id)
		called[id] = c.NameOfDrawing(id)
		if sh.Size { // no tracing tells it from the knot itself
			of := slices.IndexFunc(c.Knots, func(k *knot.Knot) bool {
				return slices.ContainsFunc(k.Faults, func(f knot.Fault) bool { return f.Drawing == id })
			})
			called[id] = c.Knots[of].Name
		}
		itself[id] = ownMirror(t, c, drawn[id], id)
	}
	for n := range tracings {
		id := ids[n%len(ids)]
		traced, mirror := retraced(rnd, drawn[id])
		found, err := c.NameTied(traced)
		if err != nil {
			unreadable++
			t.Logf("%s %.200s", id, err)
			continue
		}
		k := slices.IndexFunc(found, func(m trade.Tied) bool { return m.Name == called[id] && len(m.Changes) == 0 })
		if k < 0 {
			wrong++
			t.Log(id, len(found))
			continue
		}
		// A knot that is its own mirror image is never said to be one.
		assert.True(t, found[k].Mirror == mirror || !found[k].Mirror && itself[id], "%s: mirror", id)
	}
	t.Logf("%d of %d tracings named wrongly, %d could not be read", wrong, tracings, unreadable)
	assert.LessOrEqual(t, wrong+unreadable, tracings/100)
}

// ownMirror reports whether a drawing's diagram is that of its mirror image, seen from in front
// or behind.
func ownMirror(t *testing.T, c *trade.Catalogue, traced trace.Trace, id string) bool {
	t.Helper()
	traced.Over = slices.Clone(traced.Over)
	for i, e := range traced.Over {
		traced.Over[i] = trace.Entry{e[2], e[3], e[0], e[1]}
	}
	found, err := c.NameTied(traced)
	require.NoError(t, err)
	return slices.ContainsFunc(found, func(m trade.Tied) bool { return m.Name == c.NameOfDrawing(id) && len(m.Changes) == 0 && !m.Mirror })
}

// randomTangle is a rope led at random, and over and under at random.
func randomTangle(rnd *rand.Rand) trace.Trace {
	rope := trace.Rope{}
	for range 7 + rnd.IntN(5) {
		rope.Points = append(rope.Points, trace.Point{600 * rnd.Float64(), 400 * rnd.Float64()})
	}
	t := trace.Trace{Ropes: []trace.Rope{rope}}
	if rnd.IntN(3) == 0 {
		object := 1
		t.Object = &object
		x := 200 + 200*rnd.Float64()
		t.Ropes = append(t.Ropes, trace.Rope{Points: []trace.Point{{x, 500}, {x + 20, -100}}})
	}
	meets, err := t.Meetings()
	if err != nil {
		return randomTangle(rnd)
	}
	for _, m := range meets {
		e := trace.Entry{m.A[0], m.A[1], m.B[0], m.B[1]}
		if rnd.IntN(2) == 1 {
			e = trace.Entry{e[2], e[3], e[0], e[1]}
		}
		t.Over = append(t.Over, e)
	}
	return t
}

// No random tangle has a name that is not its own: what is named has every closure of the
// drawing, worked out from the drawing itself, and with the same Jones polynomials.
func TestRandomTanglesHaveNoFalseName(t *testing.T) {
	c := load(t)
	rnd := rand.New(rand.NewPCG(5, 14))
	named, none := map[string]int{}, 0
	for range 500 {
		traced := randomTangle(rnd)
		found, err := c.NameTied(traced)
		require.NoError(t, err)
		found = slices.DeleteFunc(found, func(m trade.Tied) bool { return len(m.Changes) > 0 })
		if len(found) == 0 {
			none++
			continue
		}
		tied, err := traced.Read()
		require.NoError(t, err)
		for _, m := range found {
			named[m.Drawing]++
			sh, err := c.Drawings.Drawing(m.Drawing)
			require.NoError(t, err)
			outline := tangle.OutlineOf(sh)
			if traced.Object != nil {
				require.NotEqual(t, tangle.NoObject, outline, m.Drawing)
			} else {
				require.Equal(t, tangle.NoObject, outline, m.Drawing)
			}
			var mine, its []int64
			for _, d := range tangle.Both(tied, 1, outline) {
				mine = append(mine, d.Turned(nil).Determinant)
			}
			for _, d := range tangle.Both(tangle.Drawn{Shape: sh}, 1, outline) {
				its = append(its, d.Turned(nil).Determinant)
			}
			slices.Sort(mine)
			slices.Sort(its)
			if mine[0] == mine[len(mine)-1] && its[0] != its[len(its)-1] {
				assert.Contains(t, its, mine[0], "%s: its end is led out", m.Drawing)
				continue
			}
			assert.Equal(t, its, mine, "%s", m.Drawing)
		}
	}
	t.Log(none, "of 500 are no knot known here; named:", named)
	assert.Greater(t, none, 250)
	assert.NotEmpty(t, named, "some are knots: a tangle that is an overhand is one")
}

// A knot laid otherwise, with a kink that means nothing, is named by its closures; with one
// crossing wrong, the crossing is.
func TestNearlyTheSameTracing(t *testing.T) {
	c := load(t)
	for _, id := range []string{"bowline", "reef-knot", "clove-hitch", "figure-eight", "zeppelin-bend", "constrictor-hitch"} {
		t.Run(id, func(t *testing.T) {
			sh, err := c.Drawings.Drawing(id)
			require.NoError(t, err)
			kinked := trace.Of(sh)
			// A small loop at the very end, over itself.
			p := kinked.Ropes[0].Points
			n := len(p)
			dx, dy := p[n-1][0]-p[n-2][0], p[n-1][1]-p[n-2][1]
			s := 0.4 / math.Hypot(dx, dy)
			dx, dy = dx*s, dy*s
			at := func(along, aside float64) trace.Point {
				return trace.Point{p[n-1][0] + along*dx - aside*dy, p[n-1][1] + along*dy + aside*dx}
			}
			kinked.Ropes[0].Points = append(slices.Clone(p), at(1, 0), at(2, 0), at(1.5, 0.7), at(1.4, -0.7))
			kinked.Over = append(slices.Clone(kinked.Over), trace.Entry{0, n + 2, 0, n})
			found, err := c.NameTied(kinked)
			require.NoError(t, err)
			require.NotEmpty(t, found)
			assert.Equal(t, id, found[0].Drawing)
			assert.Empty(t, found[0].Changes)
			assert.Equal(t, "slack", found[0].By)

			turned := trace.Of(sh)
			e := turned.Over[0]
			turned.Over[0] = trace.Entry{e[2], e[3], e[0], e[1]}
			found, err = c.NameTied(turned)
			require.NoError(t, err)
			k := slices.IndexFunc(found, func(m trade.Tied) bool { return m.Drawing == id })
			if id == "constrictor-hitch" {
				assert.Equal(t, "clove-hitch", found[0].Knot, "the end no longer beneath both")
				return
			}
			require.GreaterOrEqual(t, k, 0, "%v", found)
			assert.Equal(t, []trace.Entry{turned.Over[0]}, found[k].Changes)
		})
	}
}

// A stopper, a loop and a hitch with the wrong end for the standing part are said to be
// so.
func TestExchangedEndsAreSeen(t *testing.T) {
	c := load(t)
	for _, id := range []string{"oystermans-stopper", "bowline", "round-turn-two-half-hitches"} {
		sh, err := c.Drawings.Drawing(id)
		require.NoError(t, err)
		traced := trace.Of(sh)
		n := len(traced.Ropes[0].Points)
		slices.Reverse(traced.Ropes[0].Points)
		for i := range traced.Over {
			for k := 0; k < 4; k += 2 {
				if traced.Over[i][k] == 0 {
					traced.Over[i][k+1] = n - 2 - traced.Over[i][k+1]
				}
			}
		}
		found, err := c.NameTied(traced)
		require.NoError(t, err)
		k := slices.IndexFunc(found, func(m trade.Tied) bool { return m.Drawing == id })
		require.GreaterOrEqual(t, k, 0, id)
		assert.True(t, found[k].Exchanged, "%s: %+v", id, found)
	}
}

func BenchmarkNameTwentyCrossings(b *testing.B) {
	c := load(b)
	rnd := rand.New(rand.NewPCG(1, 1))
	var traced trace.Trace
	for len(traced.Over) != 20 {
		traced = randomTangle(rnd)
	}
	_, _ = c.NameTied(traced)
	for b.Loop() {
		_, _ = c.NameTied(traced)
	}
}

// laidOtherwise is a tracing with a finger of its rope pushed out over everything in its way: the
// same knot, with crossings more. It reports false where the finger would take a crossing of the
// knot along.
func laidOtherwise(rnd *rand.Rand, t trace.Trace) (trace.Trace, bool) {
	p := t.Ropes[0].Points
	k := 4 + rnd.IntN(len(p)-8)
	dx, dy := 4*rnd.NormFloat64(), 4*rnd.NormFloat64()
	points := slices.Concat(p[:k+1], []trace.Point{{p[k][0] + dx, p[k][1] + dy}, {p[k+1][0] + dx, p[k+1][1] + dy}}, p[k+1:])
	out := trace.Trace{Ropes: append([]trace.Rope{{Points: points}}, t.Ropes[1:]...), Object: t.Object}
	meets, err := out.Meetings()
	if err != nil {
		return out, false
	}
	finger := func(s [2]int) bool { return s[0] == 0 && s[1] >= k && s[1] <= k+2 }
	was := func(s [2]int) (int, int) {
		if s[0] == 0 && s[1] > k {
			return 0, s[1] - 2
		}
		return s[0], s[1]
	}
	kept := 0
	for _, m := range meets {
		a, b := trace.Entry{m.A[0], m.A[1], m.B[0], m.B[1]}, trace.Entry{m.B[0], m.B[1], m.A[0], m.A[1]}
		r, s := was(m.A)
		u, v := was(m.B)
		switch {
		case finger(m.A) && finger(m.B):
			return out, false
		case finger(m.A):
			out.Over = append(out.Over, a)
		case finger(m.B):
			out.Over = append(out.Over, b)
		case slices.Contains(t.Over, trace.Entry{r, s, u, v}):
			kept++
			out.Over = append(out.Over, a)
		default:
			kept++
			out.Over = append(out.Over, b)
		}
	}
	return out, kept == len(t.Over)
}

// A knot laid otherwise, with a finger pushed out over anything, is still named.
func TestNamedHoweverItIsLaid(t *testing.T) {
	c := load(t)
	rnd := rand.New(rand.NewPCG(3, 3))
	named, all := 0, 0
	for _, id := range c.DrawingIDs() {
		sh, err := c.Drawings.Drawing(id)
		require.NoError(t, err)
		drawn := trace.Of(sh)
		if len(drawn.Over) > 16 {
			continue // with the finger, more than closures are worked out for
		}
		for range 8 {
			traced, ok := laidOtherwise(rnd, drawn)
			if !ok {
				continue
			}
			all++
			found, err := c.NameTied(traced)
			require.NoError(t, err)
			if slices.ContainsFunc(found, func(m trade.Tied) bool { return m.Name == c.NameOfDrawing(id) && len(m.Changes) == 0 }) {
				named++
			} else {
				t.Log(id, len(traced.Over)-len(drawn.Over), found)
			}
		}
	}
	t.Logf("%d of %d named", named, all)
	require.Greater(t, all, 300)
	assert.GreaterOrEqual(t, float64(named), 0.95*float64(all))
}
