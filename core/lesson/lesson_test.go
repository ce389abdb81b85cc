package lesson_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/lesson"
	"oarweed/core/trade"
)

func load(t testing.TB) *trade.Catalogue {
	t.Helper()
	c, err := catalogue.Load()
	require.NoError(t, err)
	return c
}

// allowed reports whether no knot comes before one that it needs.
func allowed(c *trade.Catalogue, order, known []string) bool {
	for _, x := range c.Kin {
		from, to := slices.Index(order, x.From), slices.Index(order, x.To)
		if x.Needs && from > to && to >= 0 && !slices.Contains(known, x.To) && !slices.Contains(known, x.From) {
			return false
		}
	}
	return true
}

// Every order of every subset, each planned as it stands: none that fits has more knots,
// or as many in fewer minutes.
func TestNoOrderIsBetter(t *testing.T) {
	c := load(t)
	ids := []string{}
	for _, k := range c.Knots {
		ids = append(ids, k.ID)
	}
	rng := rand.New(rand.NewPCG(8, 8))
	core := []string{"overhand", "figure-eight", "double-overhand", "figure-eight-loop", "half-hitch", "clove-hitch", "constrictor-hitch", "bowline", "sheet-bend", "double-sheet-bend", "reef-knot", "round-turn-two-half-hitches"}
	for round := range 24 {
		pool := core
		if round%3 == 0 {
			pool = ids
		}
		n := 2 + round%5
		if round == 23 {
			n = 8
		}
		knots := []string{}
		for _, i := range rng.Perm(len(pool))[:n] {
			knots = append(knots, pool[i])
		}
		q := lesson.Request{Minutes: 25 + rng.IntN(100), Learners: 1 + rng.IntN(12), Helpers: rng.IntN(3), Knots: knots}
		if round%2 == 0 {
			q.Known = []string{pool[rng.IntN(len(pool))]}
		}
		got, err := lesson.New(c, q)
		require.NoError(t, err)
		order := got.Knots()
		require.True(t, allowed(c, order, q.Known), "%v", order)
		most, least := 0, math.Inf(1)
		for set := 1; set < 1<<n; set++ {
			var list []string
			for i, id := range knots {
				if set>>i&1 == 1 {
					list = append(list, id)
				}
			}
			permutations(list, func(order []string) {
				// What is left out cannot come before.
				for _, x := range c.Kin {
					if x.Needs && slices.Contains(order, x.To) && slices.Contains(knots, x.From) && !slices.Contains(order, x.From) && !slices.Contains(q.Known, x.To) && !slices.Contains(q.Known, x.From) {
						return
					}
				}
				if !allowed(c, order, q.Known) {
					return
				}
				one := q
				one.Knots, one.Keep = order, true
				p, err := lesson.New(c, one)
				require.NoError(t, err)
				if len(p.LeftOut) > 0 {
					return
				}
				if len(order) > most || len(order) == most && p.Minutes < least {
					most, least = len(order), p.Minutes
				}
			})
		}
		assert.Len(t, order, most, "%v", q)
		if most > 0 {
			assert.InDelta(t, least, got.Minutes, 1e-9, "%v", q)
			assert.LessOrEqual(t, got.Minutes, float64(q.Minutes))
		}
		assert.ElementsMatch(t, knots, append(slices.Clone(order), got.LeftOut...))
	}
}

func permutations(list []string, do func([]string)) {
	var walk func(int)
	walk = func(i int) {
		if i == len(list) {
			do(slices.Clone(list))
			return
		}
		for j := i; j < len(list); j++ {
			list[i], list[j] = list[j], list[i]
			walk(i + 1)
			list[i], list[j] = list[j], list[i]
		}
	}
	walk(0)
}

// Common practice, no source: the single eight before the one followed back, the clove
// hitch before what is made from it.
func TestOrderOfACourse(t *testing.T) {
	c := load(t)
	p, err := lesson.New(c, lesson.Request{Minutes: 240, Learners: 6, Knots: []string{"figure-eight-follow-through", "constrictor-hitch", "sheet-bend", "figure-eight", "clove-hitch", "bowline"}})
	require.NoError(t, err)
	order := p.Knots()
	before := func(a, b string) {
		assert.Less(t, slices.Index(order, a), slices.Index(order, b), "%s before %s", a, b)
	}
	before("figure-eight", "figure-eight-follow-through")
	before("clove-hitch", "constrictor-hitch")
	assert.Empty(t, p.LeftOut)
	assert.Greater(t, p.Saved, 5.0, "the bowline and the sheet bend are one structure")
	var kinds []lesson.Kind
	for _, b := range p.Blocks {
		kinds = append(kinds, b.Kind)
	}
	assert.Equal(t, lesson.Begin, kinds[0])
	assert.Equal(t, []lesson.Kind{lesson.Wet, lesson.Test, lesson.End}, kinds[len(kinds)-3:])
	assert.Contains(t, kinds, lesson.Break)
	sum := 0.0
	for _, b := range p.Blocks {
		sum += b.Minutes
	}
	assert.InDelta(t, p.Minutes, sum, 1e-9)
}

func TestWhatHappenedAndWhatIsLocked(t *testing.T) {
	c := load(t)
	q := lesson.Request{Minutes: 120, Learners: 6, Knots: []string{"bowline", "clove-hitch"}}
	usual, err := lesson.New(c, q)
	require.NoError(t, err)
	q.Factors = map[string]float64{"bowline": 2}
	slow, err := lesson.New(c, q)
	require.NoError(t, err)
	assert.Greater(t, slow.Minutes, usual.Minutes+5)
	q.Factors, q.Locked = nil, map[string]float64{"bowline": 30}
	locked, err := lesson.New(c, q)
	require.NoError(t, err)
	minutes := 0.0
	for _, b := range locked.Blocks {
		if b.Knot == "bowline" {
			minutes += b.Minutes
		}
	}
	assert.InDelta(t, 30, minutes, 1)
	q.Locked, q.Known = nil, []string{"bowline"}
	known, err := lesson.New(c, q)
	require.NoError(t, err)
	for _, b := range known.Blocks {
		assert.False(t, b.Knot == "bowline" && b.Kind == lesson.Demonstrate, "known: repeated, not shown")
	}
	q.Minutes = int(known.Minutes) - 1
	short, err := lesson.New(c, q)
	require.NoError(t, err)
	assert.Equal(t, []string{"clove-hitch"}, short.LeftOut, "the one that takes longer is left out")
}

func TestRequestRefusals(t *testing.T) {
	c := load(t)
	good := lesson.Request{Minutes: 60, Learners: 6, Knots: []string{"bowline"}}
	for field, spoil := range map[string]func(*lesson.Request){
		"minutes":        func(q *lesson.Request) { q.Minutes = 2 },
		"learners":       func(q *lesson.Request) { q.Learners = 0 },
		"helpers":        func(q *lesson.Request) { q.Helpers = -1 },
		"place":          func(q *lesson.Request) { q.Place = "moon" },
		"knots":          func(q *lesson.Request) { q.Knots = nil },
		"knots[0]":       func(q *lesson.Request) { q.Knots = []string{"braid"} },
		"known[0]":       func(q *lesson.Request) { q.Known = []string{"braid"} },
		"locked.bowline": func(q *lesson.Request) { q.Locked = map[string]float64{"bowline": -1} },
	} {
		q := good
		spoil(&q)
		_, err := lesson.New(c, q)
		assert.ErrorContains(t, err, field)
	}
}

func TestManyKnots(t *testing.T) {
	c := load(t)
	var ids []string
	for _, k := range c.Knots[:30] {
		ids = append(ids, k.ID)
	}
	p, err := lesson.New(c, lesson.Request{Minutes: 480, Learners: 8, Knots: ids})
	require.NoError(t, err)
	assert.True(t, allowed(c, p.Knots(), nil))
	assert.Greater(t, len(p.Knots()), 10)
	assert.LessOrEqual(t, p.Minutes, 480.0)
}

// firstFit is first-fit decreasing, written anew.
func firstFit(spools, pieces []float64) (placed, waste float64) {
	free, sorted := slices.Clone(spools), slices.Clone(pieces)
	slices.Sort(sorted)
	slices.Reverse(sorted)
	for _, p := range sorted {
		for i := range free {
			if free[i] >= p-1e-9 {
				free[i] -= p
				placed += p
				break
			}
		}
	}
	for i, f := range free {
		if f < spools[i] {
			waste += f
		}
	}
	return
}

func TestCutIsNeverWorseThanFirstFit(t *testing.T) {
	rng := rand.New(rand.NewPCG(50, 30))
	better := 0
	for range 400 {
		q := lesson.Pieces{}
		for range 1 + rng.IntN(5) {
			q.Spools = append(q.Spools, float64(5+rng.IntN(40)))
		}
		for range 1 + rng.IntN(14) {
			q.Pieces = append(q.Pieces, float64(1+rng.IntN(30))/2)
		}
		got, err := q.Cut()
		require.NoError(t, err)
		placed, waste := firstFit(q.Spools, q.Pieces)
		sum, pieces := 0.0, slices.Clone(got.Missing)
		left := 0.0
		for _, x := range got.Cuts {
			used := 0.0
			for _, p := range x.Pieces {
				used += p
			}
			require.LessOrEqual(t, used, q.Spools[x.Spool]+1e-9)
			require.InDelta(t, q.Spools[x.Spool]-used, x.Left, 1e-9)
			sum += used
			left += x.Left
			pieces = append(pieces, x.Pieces...)
		}
		require.ElementsMatch(t, q.Pieces, pieces)
		require.InDelta(t, left, got.Waste, 1e-6)
		require.GreaterOrEqual(t, sum, placed-1e-9)
		if math.Abs(sum-placed) < 1e-9 {
			require.LessOrEqual(t, got.Waste, waste+1e-9, fmt.Sprint(q))
		}
		if sum > placed+1e-9 || got.Waste < waste-1e-9 {
			better++
		}
	}
	assert.Greater(t, better, 20, "the search finds more than first fit does")
}

func TestCutRefusals(t *testing.T) {
	for field, q := range map[string]lesson.Pieces{
		"spools_m": {Pieces: []float64{1}}, "pieces_m": {Spools: []float64{1}}, "pieces_m[1]": {Spools: []float64{9}, Pieces: []float64{1, -1}},
	} {
		_, err := q.Cut()
		assert.ErrorContains(t, err, field)
	}
	c, err := lesson.Pieces{Spools: []float64{50, 30}, Pieces: []float64{2, 2, 3.5, 40, 60}}.Cut()
	require.NoError(t, err)
	assert.Equal(t, []float64{60}, c.Missing)
}

func TestKit(t *testing.T) {
	c := load(t)
	kit := lesson.KitOf(c, []string{"bowline", "sheet-bend", "clove-hitch"}, 6, 1)
	names := map[string]int{}
	for _, x := range kit.Things {
		names[x.Name] = x.N
	}
	assert.Equal(t, 12, names["practice line, 8 to 10 mm"], "two each, since lines are joined")
	assert.Equal(t, 4, names["thick line in two colours, to show"])
	assert.InDelta(t, 12*2+4*3, kit.Metres, 1e-9)
	assert.GreaterOrEqual(t, len(kit.Things), 3, "and something to hitch to: %v", kit.Things)
	fishing := lesson.KitOf(c, []string{"improved-clinch"}, 4, 0)
	assert.NotEmpty(t, fishing.Pieces)
}

func BenchmarkPlanFifteen(b *testing.B) {
	c := load(b)
	var ids []string
	for _, k := range c.Knots[:15] {
		ids = append(ids, k.ID)
	}
	for b.Loop() {
		if _, err := lesson.New(c, lesson.Request{Minutes: 240, Learners: 8, Knots: ids}); err != nil {
			b.Fatal(err)
		}
	}
}
