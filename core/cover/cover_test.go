package cover_test

import (
	"math/bits"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/cover"
	"oarweed/core/knot"
	"oarweed/core/rank"
	"oarweed/core/trade"
)

func load(t *testing.T) *trade.Catalogue {
	t.Helper()
	c, err := catalogue.Load()
	require.NoError(t, err)
	return c
}

var crew = []cover.Job{
	{Task: "moor", Fitting: "cleat"}, {Task: "moor", Fitting: "ring"}, {Task: "moor", Fitting: "bollard"}, {Task: "sheet"}, {Task: "stop"},
	{Task: "fender", Fitting: "rail"}, {Task: "join"}, {Task: "anchor"}, {Task: "reef"},
}

// Every job is with a knot that does it, once, and no smaller set would do: held against every
// smaller set that there is.
func TestFewestIsFewest(t *testing.T) {
	c := load(t)
	out, err := cover.Fewest(c, crew)
	require.NoError(t, err)
	assert.Empty(t, out.Uncovered)
	seen := map[cover.Job]int{}
	for _, k := range out.Knots {
		for _, j := range k.Covers {
			seen[j]++
		}
	}
	for _, j := range crew {
		assert.Equal(t, 1, seen[j], j)
	}
	var masks []uint64
	for _, k := range c.Knots {
		m := uint64(0)
		for i, j := range crew {
			if does(t, c, k, j) {
				m |= 1 << i
			}
		}
		if m != 0 {
			masks = append(masks, m)
		}
	}
	var reach func(from int, left uint64, n int) bool
	reach = func(from int, left uint64, n int) bool {
		if left == 0 {
			return true
		}
		if n == 0 {
			return false
		}
		for i := from; i < len(masks); i++ {
			if bits.OnesCount64(left&masks[i]) > 0 && reach(i+1, left&^masks[i], n-1) {
				return true
			}
		}
		return false
	}
	all := uint64(1)<<len(crew) - 1
	assert.True(t, reach(0, all, len(out.Knots)))
	assert.False(t, reach(0, all, len(out.Knots)-1), "a smaller set does it too")
}

// does says independently whether a knot does a job: made for it, ranked, and holding wet.
func does(t *testing.T, c *trade.Catalogue, k *knot.Knot, j cover.Job) bool {
	d, err := c.Begin(j.Task, j.Fitting, j.Material)
	require.NoError(t, err)
	r, err := c.Resolve(d)
	require.NoError(t, err)
	any := false
	for i, x := range rank.Joint(c, r).Ranked {
		made := x.Fit >= rank.Made && x.Now().Class == knot.Holds
		if any = any || made; made && x.Knot.ID == k.ID {
			return true
		}
		if i == len(rank.Joint(c, r).Ranked)-1 && !any {
			return rank.Joint(c, r).Ranked[0].Knot.ID == k.ID
		}
	}
	return false
}

// Common practice, no source: cleats ask for a knot of their own, and nothing else is learnt
// for a fender than for mooring where one knot does both.
func TestACrewNeedsFewKnots(t *testing.T) {
	out, err := cover.Fewest(load(t), crew)
	require.NoError(t, err)
	of := map[string]string{}
	for _, k := range out.Knots {
		for _, j := range k.Covers {
			of[j.Task+" "+j.Fitting] = k.Knot
		}
	}
	assert.Equal(t, "cleat-hitch", of["moor cleat"])
	assert.Equal(t, "reef-knot", of["reef "])
	assert.LessOrEqual(t, len(out.Knots), 8)
	t.Log(of)
}

func TestCoverSaysWhatIsWrong(t *testing.T) {
	c := load(t)
	_, err := cover.Fewest(c, []cover.Job{{Task: "moor"}, {Task: "fly-a-kite"}, {Task: "moor", Fitting: "cloud"}, {Task: "moor", Material: "cheese"}})
	for _, want := range []string{"jobs[1].task", "jobs[2].fitting", "jobs[3].material"} {
		assert.ErrorContains(t, err, want)
	}
	_, err = cover.Fewest(c, make([]cover.Job, 65))
	assert.ErrorContains(t, err, "at most 64")
	out, err := cover.Fewest(c, nil)
	require.NoError(t, err)
	assert.Empty(t, out.Knots)
	// A task that no knot here does is left over, and said.
	out, err = cover.Fewest(c, []cover.Job{{Task: "moor", Fitting: "ring", Material: "wire"}, {Task: "sheet"}})
	require.NoError(t, err)
	assert.Equal(t, []cover.Job{{Task: "moor", Fitting: "ring", Material: "wire"}}, out.Uncovered)
	require.Len(t, out.Knots, 1)
}

func BenchmarkFewest(b *testing.B) {
	c, err := catalogue.Load()
	require.NoError(b, err)
	var jobs []cover.Job
	for _, t := range c.Tasks {
		jobs = append(jobs, cover.Job{Task: t.ID})
	}
	jobs = jobs[:min(len(jobs), 40)]
	for b.Loop() {
		out, err := cover.Fewest(c, jobs)
		require.NoError(b, err)
		b.ReportMetric(float64(len(out.Knots)), "knots")
	}
}
