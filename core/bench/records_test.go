package bench_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/bench"
	"oarweed/core/rig"
)

func knows(id string) bool { return id == "bowline" || id == "figure-eight-loop" || id == "uni" }

var (
	bowline = bench.Tied{Knot: "bowline"}
	eight   = bench.Tied{Knot: "figure-eight-loop"}
	noon    = time.Date(2026, 5, 2, 12, 0, 0, 0, time.UTC)
)

func pull(kn float64, a, b bench.Tied, o bench.Outcome, w bench.Where) bench.Pull {
	return bench.Pull{Key: "k", Series: "s", At: noon, A: a, B: b, Source: bench.FromDial, PeakKN: kn, Outcome: o, Where: w}
}

// A grip failure censors both; a knot that gives censors the other; what held says at least.
func TestWhatAPullSaysOfEitherKnot(t *testing.T) {
	pulls := []bench.Pull{
		pull(7, bowline, eight, bench.Broke, bench.KnotA),
		pull(7.5, eight, bowline, bench.Broke, bench.InA), // the eight, at the other end
		pull(5, bowline, eight, bench.Broke, bench.AtGrip),
		pull(6, bowline, eight, bench.Held, ""),
		pull(6.5, eight, bowline, bench.SlippedOut, bench.KnotB),
		pull(8, bowline, eight, bench.Broke, bench.InLine),
	}
	v := bench.ValuesOf(pulls)
	assert.Equal(t, []bench.Value{{7, true}, {7.5, false}, {5, false}, {6, false}, {6.5, true}, {8, false}}, v[bowline.Variant()])
	assert.Equal(t, []bench.Value{{7, false}, {7.5, true}, {5, false}, {6, false}, {6.5, false}, {8, false}}, v[eight.Variant()])
	assert.Equal(t, bench.Duel{AGave: 2, BGave: 1}, bench.DuelOf(pulls, bowline.Variant(), eight.Variant()))
	assert.Equal(t, bench.Duel{AGave: 1, BGave: 2}, bench.DuelOf(pulls, eight.Variant(), bowline.Variant()))
}

func TestACorrectedPeakCounts(t *testing.T) {
	p := pull(7, bowline, eight, bench.Broke, bench.KnotA)
	p.Found = &bench.Marks{Slips: []bench.Mark{{S: 3, LoadKN: 4}}}
	p.Corrected = &bench.Corrected{Peak: &bench.Mark{S: 9, LoadKN: 6.8}, Slips: &[]bench.Mark{}}
	assert.Equal(t, 6.8, bench.ValuesOf([]bench.Pull{p})[bowline.Variant()][0].LoadKN)
	assert.Empty(t, p.Slips(), "both are kept, and the corrected count")
	assert.Len(t, p.Found.Slips, 1)
}

// Marked by hand a little late, a slip that was found is that one; another is added.
func TestSlipsMarkedByHand(t *testing.T) {
	p := pull(7, bowline, eight, bench.Broke, bench.KnotA)
	p.Found = &bench.Marks{Slips: []bench.Mark{{S: 103, LoadKN: 4}}}
	p.Noted = []bench.Mark{{S: 5, LoadKN: 5}, {S: 3.3, LoadKN: 3.9}}
	p.TakeNoted(100)
	assert.Equal(t, []bench.Mark{{S: 103, LoadKN: 4}, {S: 105, LoadKN: 5}}, p.Slips())
	assert.Len(t, p.Found.Slips, 1)
	assert.Empty(t, p.Noted)
}

func TestPlansAreBalanced(t *testing.T) {
	s := bench.Series{Specimens: bench.Pairs(bowline, eight, 10)}
	atCell := 0
	for _, x := range s.Specimens {
		if x.A == bowline {
			atCell++
		}
	}
	assert.Equal(t, 5, atCell, "each knot at each end equally often")
	grid := bench.Grid(bench.Tied{Knot: "uni"}, eight, bench.Factors{Wraps: []int{5, 6, 7}, Lubricated: []bool{false, true}}, 4)
	require.Len(t, grid, 24)
	times := map[bench.Variant][2]int{}
	for _, x := range grid {
		for end, v := range []bench.Variant{x.A.Variant(), x.B.Variant()} {
			n := times[v]
			n[end]++
			times[v] = n
		}
	}
	assert.Len(t, times, 7)
	for v, n := range times {
		assert.Equal(t, n[0], n[1], "%+v", v)
	}
	assert.Equal(t, 0, s.Next(nil))
	assert.Equal(t, 1, s.Next([]bench.Pull{pull(7, bowline, eight, bench.Held, "")}))
	assert.Equal(t, 0, s.Next([]bench.Pull{pull(7, eight, bowline, bench.Held, "")}), "the first is still to be pulled")
	var all []bench.Pull
	for _, x := range s.Specimens {
		all = append(all, pull(7, x.A, x.B, bench.Held, ""))
	}
	assert.Equal(t, -1, s.Next(all))
}

func TestAPlanIsLaidOut(t *testing.T) {
	out, err := bench.Plan{A: bench.Tied{Knot: "uni"}, B: eight, Factors: bench.Factors{Wraps: []int{5, 7}}, Times: 2}.Specimens(knows)
	require.NoError(t, err)
	require.Len(t, out, 4)
	assert.Equal(t, 5, out[0].A.Wraps)
	assert.Equal(t, 7, out[1].B.Wraps, "the next one at the other end")
	_, err = bench.Plan{A: bench.Tied{Knot: "lace"}, B: eight, Times: 300}.Specimens(knows)
	assert.ErrorContains(t, err, "a.knot")
	assert.ErrorContains(t, err, "makes 300 specimens")
}

func TestWhatCannotBeIsNamed(t *testing.T) {
	s := bench.Series{Name: " ", Line: rig.Line{}, SpeedMMS: -1, Specimens: []bench.Specimen{{A: bench.Tied{Knot: "lace", Wraps: 99}, B: eight}}}
	err := s.Check(knows)
	for _, field := range []string{"name", "line.material", "speed_mm_s", "specimens[0].a.knot", "specimens[0].a.wraps"} {
		assert.ErrorContains(t, err, field)
	}
	p := bench.Pull{A: bowline, B: eight, Source: "guess", PeakKN: -2, Outcome: "fine", Where: "there", At: noon.Add(time.Hour)}
	err = p.Check(knows, noon)
	for _, field := range []string{"key", "source", "peak_kn", "outcome", "where", "at"} {
		assert.ErrorContains(t, err, field)
	}
	broke := pull(7, bowline, eight, bench.Broke, "")
	assert.ErrorContains(t, broke.Check(knows, noon), "say where it failed")
	held := pull(7, bowline, eight, bench.Held, bench.KnotA)
	assert.ErrorContains(t, held.Check(knows, noon), "nothing failed")
	good := pull(7, bowline, eight, bench.Broke, bench.KnotA)
	assert.NoError(t, good.Check(knows, noon))
}
