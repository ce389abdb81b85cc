package bench_test

import (
	"math/rand/v2"
	"runtime"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/core/bench"
)

func TestFilesOfManyKinds(t *testing.T) {
	want := bench.Trace{S: []float64{0, 0.5, 1}, KN: []float64{0, 1.25, 2.5}}
	for name, text := range map[string]string{
		"our own":             "time (s),force (kN)\n0,0\n0.5,1.25\n1,2.5\n",
		"decimal commas":      "Zeit (s);Kraft (kN)\r\n0;0\r\n0,5;1,25\r\n1;2,5\r\n",
		"tabs and newtons":    "t [ms]\tload [N]\n0\t0\n500\t1250\n1000\t2500\n",
		"no header":           "0;0\n0,5;1,25\n1;2,5\n",
		"a cell's own stream": "0.0,0,kN\n0.5,1.25,kN\n1.0,2.5,kN\n",
		"force first":         "force_n,time_s\n0,0\n1250,0.5\n2500,1\n",
		"byte order mark":     "\ufefftime,force kN\n0,0\n0.5,1.25\n1,2.5",
		"blanks":              "0.0  0.0\n0.5  1.25\n1.0  2.5\n",
		"more columns":        "no,time s,force kN,temp\n1,0,0,20\n2,0.5,1.25,20\n3,1,2.5,20\n",
		"exponents":           "time s,force kN\n0,0\n5e-1,1.25e0\n1,2.5\n",
	} {
		got, how, err := bench.ReadCSV([]byte(text), nil)
		require.NoError(t, err, name)
		assert.InDeltaSlice(t, want.S, got.S, 1e-12, "%s: %+v", name, how)
		assert.InDeltaSlice(t, want.KN, got.KN, 1e-12, "%s: %+v", name, how)
	}
	pounds, _, err := bench.ReadCSV([]byte("time s,force lbf\n0,0\n1,100\n2,200"), nil)
	require.NoError(t, err)
	assert.InDelta(t, 0.4448222, pounds.KN[1], 1e-6, "1 lbf = 4.448222 N, by definition")
	_, how, err := bench.ReadCSV([]byte("0;0\n1;1\n2;2"), nil)
	require.NoError(t, err)
	assert.Equal(t, []bench.Guess{bench.GuessedTimeUnit, bench.GuessedForceUnit}, how.Guessed)
}

func TestWhatIsWrongWithAFileIsNamed(t *testing.T) {
	for text, says := range map[string]string{
		"":                                    "is empty",
		"time,force\n0,1\n1,two\n2,3":         "line 3, column 2",
		"time,force\n0,1\n1\n2,3":             "line 3",
		"time;force\n0;1\n1;1\n2":             "line 4",
		"time,force\n0,1\n2,1\n1,1":           "line 4, column 1",
		"time,force\n0,1":                     "has 1 readings",
		"0,01,1,25\n0,02,1,30\n0,03,1,35":     "separate the columns by ;",
		"just words\nand more\nand even more": "is not a number",
	} {
		_, _, err := bench.ReadCSV([]byte(text), nil)
		assert.ErrorContains(t, err, says, text)
	}
	_, _, err := bench.ReadCSV([]byte("0,1\n1,2\n2,3"), &bench.Columns{Separator: ",", DecimalComma: true, Time: 1, Force: 1, TimeUnit: "h", ForceUnit: "stone"})
	for _, field := range []string{"decimal_comma", "force", "time_unit", "force_unit"} {
		assert.ErrorContains(t, err, field)
	}
}

func TestATraceComesBackEqual(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(3, 50).Draw(t, "n")
		var tr bench.Trace
		s := 0.0
		for range n {
			s += rapid.Float64Range(0, 10).Draw(t, "dt")
			tr.S, tr.KN = append(tr.S, s), append(tr.KN, rapid.Float64Range(-100, 100).Draw(t, "kN"))
		}
		got, _, err := bench.ReadCSV(bench.WriteCSV(tr), nil)
		if err != nil || len(got.S) != n {
			t.Fatalf("%v, %d readings", err, len(got.S))
		}
		for i := range tr.S {
			if tr.S[i] != got.S[i] || tr.KN[i] != got.KN[i] {
				t.Fatalf("reading %d: %v %v is %v %v", i, tr.S[i], tr.KN[i], got.S[i], got.KN[i])
			}
		}
	})
}

func FuzzReadCSV(f *testing.F) {
	f.Add([]byte("time (s),force (kN)\n0,0\n0.5,1.25\n1,2.5\n"))
	f.Add([]byte("0;0\n0,5;1,25\n1;2,5\n"))
	f.Add([]byte("\ufeffa b\n1 2\n3 4\n"))
	f.Fuzz(func(t *testing.T, text []byte) {
		tr, _, err := bench.ReadCSV(text, nil)
		if err == nil && (len(tr.S) < 3 || len(tr.S) != len(tr.KN)) {
			t.Fatal("read, but not as a trace")
		}
	})
}

// A million readings as a logger writes them, parsed and marked.
func BenchmarkMillion(b *testing.B) {
	p := bench.Simulated{LineKN: 12, StretchAt: 0.1, GaugeMM: 10000, SpeedMMS: 1, Hertz: 1000, NoiseKN: 0.01, RestS: 1, Knots: [2]bench.Act{{BreaksKN: 11.9, SlipsKN: 8, Catches: 20}, {BreaksKN: 13}}}
	tr, _ := bench.Simulate(p, rand.New(rand.NewPCG(1, 2)))
	for len(tr.S) < 1_000_000 {
		tr.S, tr.KN = append(tr.S, tr.S[len(tr.S)-1]+0.001), append(tr.KN, 0)
	}
	tr.S, tr.KN = tr.S[:1_000_000], tr.KN[:1_000_000]
	text := bench.WriteCSV(tr)
	b.SetBytes(int64(len(text)))
	b.ReportAllocs()
	for b.Loop() {
		got, _, err := bench.ReadCSV(text, nil)
		if err != nil {
			b.Fatal(err)
		}
		if _, err := bench.FindMarks(got); err != nil {
			b.Fatal(err)
		}
	}
	var m runtime.MemStats
	runtime.ReadMemStats(&m)
	b.ReportMetric(float64(m.Sys)/1e6, "MB-of-the-process")
}
