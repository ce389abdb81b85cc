package mooring_test

import (
	"math"
	"runtime"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/mooring"
	"oarweed/core/nmea"
)

var noon = time.Date(2026, 5, 31, 12, 0, 0, 0, time.UTC)

// From 15 to 35 knots the warning comes before the berth goes, the gusts' before the wind's own.
func TestItWarnsBeforeItGoes(t *testing.T) {
	p, _, v := usual(t, "alongside", 15, 300)
	last, rank := mooring.Stands, map[mooring.Warn]int{mooring.Stands: 0, mooring.Soon: 1, mooring.Gusts: 2, mooring.Gone: 3}
	seen := map[mooring.Warn]bool{}
	for kn := 15.0; kn <= 90; kn++ {
		w, err := mooring.In(v, p, kn, 1.2*kn, 300)
		require.NoError(t, err)
		require.GreaterOrEqual(t, rank[w.Warn], rank[last], "%g kn", kn)
		last, seen[w.Warn] = w.Warn, true
		assert.Equal(t, kn > w.StandsKN, w.Warn == mooring.Gone)
	}
	assert.Len(t, seen, 4, "each of them comes")
}

// Of an unknown bearing the one counts from which she stands least.
func TestAWindFromAnywhere(t *testing.T) {
	p, _, v := usual(t, "alongside", 20, 0)
	worst, err := mooring.Anywhere(v, p, 20, 24)
	require.NoError(t, err)
	assert.True(t, worst.Worst)
	for from := 0.0; from < 360; from += 22.5 {
		w, err := mooring.In(v, p, 20, 24, from)
		require.NoError(t, err)
		assert.LessOrEqual(t, worst.StandsKN, w.StandsKN, from)
	}
	p.Lines[0].Line.Material = "wool"
	_, err = mooring.Anywhere(v, p, 20, 24)
	assert.ErrorContains(t, err, "material")
}

func TestTheBreezeIsAMean(t *testing.T) {
	var b mooring.Breeze
	at := noon
	for i := range 600 {
		at = at.Add(100 * time.Millisecond)
		from := 350.0 // swings over north
		if i%2 == 0 {
			from = 10
		}
		b.Take(nmea.Wind{Kn: 20, FromDeg: from, Relative: true}, at)
	}
	assert.InDelta(t, 20*math.Cos(10*math.Pi/180), b.Kn, 0.1)
	assert.True(t, b.FromDeg < 1 || b.FromDeg > 359, "%g", b.FromDeg)
	assert.Equal(t, 20.0, b.GustKn())
	// A gust counts for ten minutes and is forgotten then.
	b.Take(nmea.Wind{Kn: 33, FromDeg: 0, Relative: true}, at)
	later := at.Add(9 * time.Minute)
	b.Take(nmea.Wind{Kn: 12, FromDeg: 0, Relative: true}, later)
	assert.Equal(t, 33.0, b.GustKn())
	b.Take(nmea.Wind{Kn: 12, FromDeg: 0, Relative: true}, at.Add(11*time.Minute))
	assert.Equal(t, 12.0, b.GustKn())
	b.Take(nmea.Wind{Kn: 8, FromDeg: 0, Relative: true}, at.Add(5*time.Hour))
	assert.Equal(t, 8.0, b.GustKn())
	assert.Equal(t, 0.0, math.Round(b.OffBow(90)), "it is told off the bow already")
	b.Take(nmea.Wind{Kn: 8, FromDeg: 30, True: true}, at.Add(6*time.Hour))
	assert.InDelta(t, 300, b.OffBow(90), 1e-9)
	assert.InDelta(t, 8, b.Kn, 1e-9, "from north it begins anew")
}

// Ten readings a second for a day take no memory beyond what the first took.
func TestADayOfWindTakesNoMemory(t *testing.T) {
	var b mooring.Breeze
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	at := noon
	for i := range 24 * 3600 * 10 {
		at = at.Add(100 * time.Millisecond)
		b.Take(nmea.Wind{Kn: 10 + float64(i%7), FromDeg: float64(i % 360), Relative: true}, at)
	}
	runtime.ReadMemStats(&after)
	assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(1<<20))
	assert.Equal(t, 16.0, b.GustKn())
}

// A berth held against the wind, as twice a second while she lies there.
func BenchmarkWatch(b *testing.B) {
	v := vocabulary(b)
	p, err := mooring.Usual(mooring.Boat{LOAM: 9, BeamM: 3, DisplacementT: 4}, "alongside", nylon)
	require.NoError(b, err)
	b.Run("from a bearing", func(b *testing.B) {
		for b.Loop() {
			if _, err := mooring.In(v, p, 25, 30, 300); err != nil {
				b.Fatal(err)
			}
		}
	})
	b.Run("from anywhere", func(b *testing.B) {
		for b.Loop() {
			if _, err := mooring.Anywhere(v, p, 25, 30); err != nil {
				b.Fatal(err)
			}
		}
	})
}
