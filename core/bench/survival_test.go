package bench_test

import (
	"bytes"
	"fmt"
	"math"
	"math/rand/v2"
	"os/exec"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat/distuv"

	"oarweed/core/bench"
)

// Eight pulls of two knots: A gave in all but the third and the sixth, where B did. Values of
// R's survival package (survreg, survfit) 3.5, by hand.
func TestWorkedPulls(t *testing.T) {
	loads := []float64{6.9, 7.4, 7.1, 8.0, 6.5, 7.7, 7.2, 7.9}
	var a, b []bench.Value
	for i, x := range loads {
		gaveB := i == 2 || i == 5
		a, b = append(a, bench.Value{x, !gaveB}), append(b, bench.Value{x, gaveB})
	}
	fit, err := bench.FitWeibull(a)
	require.NoError(t, err)
	assert.InDelta(t, 17.17193, fit.Shape, 1e-4)
	assert.InDelta(t, 7.681475, fit.ScaleKN, 1e-6)
	assert.InDelta(t, -6.149, fit.LogLik, 5e-4)
	fit, err = bench.FitWeibull(b)
	require.NoError(t, err)
	assert.InDelta(t, 19.99819, fit.Shape, 1e-4)
	assert.InDelta(t, 8.126149, fit.ScaleKN, 1e-6)
	assert.InDelta(t, -3.786874, fit.LogLik, 1e-6)
	want := []bench.Step{{6.5, .875}, {6.9, .750}, {7.2, .600}, {7.4, .450}, {7.9, .225}, {8.0, 0}}
	got := bench.KaplanMeier(a)
	require.Len(t, got, len(want))
	for i := range want {
		assert.Equal(t, want[i].LoadKN, got[i].LoadKN)
		assert.InDelta(t, want[i].Survival, got[i].Survival, 1e-12)
	}
}

type set map[string][]bench.Value

// censored draws a set of two or three groups, some of whose pulls held.
func censored(rnd *rand.Rand) set {
	out := set{}
	for g := range 2 + rnd.IntN(2) {
		w := distuv.Weibull{K: 3 + 20*rnd.Float64(), Lambda: 3 + 6*rnd.Float64()}
		held := distuv.Weibull{K: 6, Lambda: w.Lambda * (0.8 + 0.5*rnd.Float64())}
		n := 6 + rnd.IntN(40)
		var v []bench.Value
		for range n {
			x, most := w.Quantile(rnd.Float64()), held.Quantile(rnd.Float64())
			v = append(v, bench.Value{math.Round(1000*min(x, most)) / 1000, x <= most})
		}
		out[fmt.Sprintf("g%d", g)] = v
	}
	return out
}

// askR gives what R's survival package (Debian r-cran-survival) finds in sets.
func askR(tb testing.TB, sets []set) [][]string {
	tb.Helper()
	var in bytes.Buffer
	for i, s := range sets {
		for g, values := range s {
			for _, v := range values {
				failed := 0
				if v.Failed {
					failed = 1
				}
				fmt.Fprintln(&in, i, g, strconv.FormatFloat(v.LoadKN, 'g', -1, 64), failed)
			}
		}
	}
	cmd := exec.Command("Rscript", "--vanilla", "testdata/survival.R")
	cmd.Stdin = &in
	out, err := cmd.Output()
	require.NoError(tb, err, "R with its survival package is needed: run make test-deps")
	var lines [][]string
	for l := range strings.Lines(string(out)) {
		lines = append(lines, strings.Fields(l))
	}
	return lines
}

func number(tb testing.TB, s string) float64 {
	tb.Helper()
	v, err := strconv.ParseFloat(s, 64)
	require.NoError(tb, err)
	return v
}

func TestAgreesWithR(t *testing.T) {
	rnd := rand.New(rand.NewPCG(15, 1))
	var sets []set
	for range 200 {
		sets = append(sets, censored(rnd))
	}
	curves := map[string][]bench.Step{}
	fits, ranks := 0, 0
	var lung []bench.Value
	bySex := set{}
	var ovarian []bench.Value
	for _, l := range askR(t, sets) {
		if l[0] == "time" {
			continue
		}
		if l[0] == "data" {
			v := bench.Value{number(t, l[3]), l[4] == "1"}
			if l[1] == "lung" {
				lung, bySex[l[2]] = append(lung, v), append(bySex[l[2]], v)
			} else {
				ovarian = append(ovarian, v)
			}
			continue
		}
		i, err := strconv.Atoi(l[1])
		require.NoError(t, err)
		name := l[1] + l[2]
		switch l[0] {
		case "km":
			if curves[name] == nil {
				curves[name] = bench.KaplanMeier(sets[i][l[2]])
			}
			require.NotEmpty(t, curves[name], name)
			at := curves[name][0]
			curves[name] = append([]bench.Step{}, curves[name][1:]...)
			assert.InDelta(t, number(t, l[3]), at.LoadKN, 1e-9)
			assert.InDelta(t, number(t, l[4]), at.Survival, 1e-9, name)
		case "fit":
			fit, err := bench.FitWeibull(sets[i][l[2]])
			require.NoError(t, err)
			shape, scale, logLik := number(t, l[3]), number(t, l[4]), number(t, l[5])
			assert.InEpsilon(t, shape, fit.Shape, 1e-4, name)
			assert.InEpsilon(t, scale, fit.ScaleKN, 1e-4, name)
			assert.InDelta(t, logLik, fit.LogLik, 1e-4*math.Max(1, math.Abs(logLik)), name)
			fits++
		case "rank":
			test := bench.LogRank(sets[i])
			assert.InDelta(t, number(t, l[3]), test.Chi2, 1e-4*math.Max(1, test.Chi2), "set %d", i)
			assert.Equal(t, l[4], strconv.Itoa(test.DF))
			ranks++
		}
	}
	assert.Greater(t, fits, 380)
	assert.Equal(t, 200, ranks)
	// The package's own data sets, with values of its survreg and survdiff.
	fit, err := bench.FitWeibull(lung)
	require.NoError(t, err)
	assert.Equal(t, 228, fit.N)
	assert.InDelta(t, 1.31684, fit.Shape, 1e-5)
	assert.InDelta(t, 417.7587, fit.ScaleKN, 1e-3)
	assert.InDelta(t, -1153.851, fit.LogLik, 1e-3)
	assert.InDelta(t, 10.3, bench.LogRank(bySex).Chi2, 0.05)
	fit, err = bench.FitWeibull(ovarian)
	require.NoError(t, err)
	assert.InDelta(t, 1.10806, fit.Shape, 1e-5)
	assert.InDelta(t, 1225.419, fit.ScaleKN, 1e-2)
	assert.InDelta(t, -97.9539, fit.LogLik, 1e-3)
}

// The fits of the 200 sets; R's own time for the same, measured inside R, is reported beside.
func BenchmarkFit(b *testing.B) {
	rnd := rand.New(rand.NewPCG(15, 1))
	var sets []set
	for range 200 {
		sets = append(sets, censored(rnd))
	}
	var inR float64
	for _, l := range askR(b, sets) {
		if l[0] == "time" {
			inR = number(b, l[3]) / number(b, l[4]) * 1e9
		}
	}
	fits := 0
	began := time.Now()
	for b.Loop() {
		fits = 0
		for _, s := range sets {
			for _, v := range s {
				if _, err := bench.FitWeibull(v); err == nil {
					fits++
				}
			}
		}
	}
	b.ReportMetric(float64(time.Since(began).Nanoseconds())/float64(b.N*fits), "ns/fit")
	b.ReportMetric(inR, "ns/fit-in-R")
}

func TestNothingToFitIsSaid(t *testing.T) {
	_, err := bench.FitWeibull([]bench.Value{{5, false}, {6, false}})
	assert.ErrorIs(t, err, bench.NothingFailed)
	_, err = bench.FitWeibull([]bench.Value{{6, true}, {5, false}, {6, true}})
	assert.ErrorIs(t, err, bench.OneLoadFailed)
	_, err = bench.FitWeibull([]bench.Value{{6, true}, {-1, false}})
	assert.ErrorContains(t, err, "pulls[1].load_kn")
}

// The whole way: knots of known strength are pulled on the simulated bench, the peak is read off
// each trace, the intervals are worked out of it. 500 series of 12 pulls.
func TestTheSimulatorIsRecovered(t *testing.T) {
	rnd := rand.New(rand.NewPCG(15, 31))
	a, b := distuv.Weibull{K: 14, Lambda: 7.5}, distuv.Weibull{K: 16, Lambda: 7.9}
	covered, told := 0, 0
	for range 500 {
		var v []bench.Value
		for range 12 {
			p := bench.Simulated{LineKN: 13, StretchAt: 0.1, GaugeMM: 700, SpeedMMS: 8, Hertz: 50, NoiseKN: 0.01, DriftKNS: 0.001, ZeroKN: 0.1, RestS: 0.4,
				Knots: [2]bench.Act{{BreaksKN: a.Quantile(rnd.Float64())}, {BreaksKN: b.Quantile(rnd.Float64())}}}
			tr, truth := bench.Simulate(p, rnd)
			m, err := bench.FindMarks(tr)
			require.NoError(t, err)
			v = append(v, bench.Value{m.Peak.LoadKN, truth.Where == bench.KnotA})
		}
		if fit, err := bench.FitWeibull(v); err == nil {
			told++
			if l := fit.QuantileLimits(0.5); l.Low <= a.Quantile(0.5) && a.Quantile(0.5) <= l.High {
				covered++
			}
		}
	}
	share := float64(covered) / float64(told)
	t.Logf("the median is covered in %.1f %% of %d", 100*share, told)
	assert.GreaterOrEqual(t, share, 0.85)
	assert.LessOrEqual(t, share, 0.95)
}

// Over many series of two knots pulled against each other the interval of the median holds the
// true one about as often as it says.
func TestIntervalsCover(t *testing.T) {
	rnd := rand.New(rand.NewPCG(15, 3))
	const series = 500
	for _, pulls := range []int{12, 20} {
		covered := map[string]int{}
		told := 0
		a, b := distuv.Weibull{K: 14, Lambda: 7.5}, distuv.Weibull{K: 16, Lambda: 7.9}
		for range series {
			var v []bench.Value
			for range pulls {
				x, y := a.Quantile(rnd.Float64()), b.Quantile(rnd.Float64())
				v = append(v, bench.Value{min(x, y), x < y})
			}
			fit, err := bench.FitWeibull(v)
			if err != nil {
				continue
			}
			told++
			in := func(name string, l bench.Limits, x float64) {
				if l.Low <= x && x <= l.High {
					covered[name]++
				}
			}
			in("median", fit.QuantileLimits(0.5), a.Quantile(0.5))
			in("p5", fit.QuantileLimits(0.05), a.Quantile(0.05))
			in("shape", fit.ShapeLimits(), a.K)
			in("scale", fit.ScaleLimits(), a.Lambda)
		}
		assert.Greater(t, told, series*9/10)
		for name, n := range covered {
			share := float64(n) / float64(told)
			t.Logf("%d pulls: %s covered in %.1f %% of %d", pulls, name, 100*share, told)
			assert.GreaterOrEqual(t, share, 0.85, "%s, %d pulls", name, pulls)
			assert.LessOrEqual(t, share, 0.95, "%s, %d pulls", name, pulls)
		}
	}
}
