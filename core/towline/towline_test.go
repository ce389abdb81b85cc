package towline_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/rig"
	"oarweed/core/towline"
	"oarweed/core/unit"
)

func ft(v float64) unit.Length { return unit.Length(v) * unit.Foot }

// Common practice, no source: take-offs every five feet from sixty.
func TestBetweenBelowAndAt(t *testing.T) {
	offs, err := towline.ParseTakeoffs("60ft,65ft,…,85ft")
	require.NoError(t, err)
	require.Len(t, offs, 6)
	for _, c := range []struct {
		want, takeoff, up float64
		hitch             string
		below             bool
	}{
		{72.5, 75, 2.5, "tow-pylon-hitch", false},
		{68, 70, 2, "tow-pylon-hitch", false},
		{55, 60, 5, "tow-pylon-hitch", true},
		{65, 65, 0, "", false},
		{85, 85, 0, "", false},
	} {
		p, err := towline.Find(offs, ft(c.want), towline.Pylon)
		require.NoError(t, err)
		assert.InDelta(t, float64(ft(c.takeoff)), float64(p.Takeoff), 1e-9, "%g ft", c.want)
		assert.InDelta(t, float64(ft(c.up)), float64(p.TakeUp), 1e-9, "%g ft", c.want)
		assert.Equal(t, c.hitch, p.Hitch, "%g ft", c.want)
		assert.Equal(t, c.below, p.Below, "%g ft", c.want)
	}
	p, err := towline.Find(offs, ft(68), towline.Eye)
	require.NoError(t, err)
	assert.Equal(t, "tow-eye-hitch", p.Hitch)
	_, err = towline.Find(offs, ft(90), towline.Pylon)
	assert.ErrorContains(t, err, "1.52 m longer")
}

// Against a search over every place of the line: the place lies between handle and the
// loop, reaches the wanted length, and no other loop would take up less.
func TestBruteForce(t *testing.T) {
	rng := rand.New(rand.NewPCG(16, 3))
	on := []towline.On{towline.Pylon, towline.Hook, towline.Eye}
	for range 10_000 {
		offs := make([]unit.Length, 1+rng.IntN(8))
		for i := range offs {
			offs[i] = unit.Length(5 + math.Floor(rng.Float64()*300)/10)
		}
		want := unit.Length(4 + rng.Float64()*33)
		if rng.IntN(4) == 0 {
			want = offs[rng.IntN(len(offs))]
		}
		best := math.Inf(1)
		for _, x := range offs {
			if up := float64(x - want); up >= -float64(towline.Fits) && math.Abs(up) < best {
				best = math.Abs(up)
			}
		}
		p, err := towline.Find(offs, want, on[rng.IntN(3)])
		if math.IsInf(best, 1) {
			require.Error(t, err)
			continue
		}
		require.NoError(t, err)
		got := math.Abs(float64(p.Takeoff - want))
		require.InDelta(t, best, got, 1e-9, fmt.Sprint(offs, want))
		require.Equal(t, best <= float64(towline.Fits), p.Hitch == "")
		if p.Hitch != "" {
			require.InDelta(t, float64(want), float64(p.Takeoff-p.TakeUp), 1e-9)
		}
	}
}

func TestRefusals(t *testing.T) {
	for text, says := range map[string]string{
		"60ft,…,85ft": "does not follow two", "60ft,65ft,…": "leads nowhere", "60ft,65ft,…,83ft": "not reached in steps",
		"sixty": "not a length", "": "no length",
	} {
		_, err := towline.ParseTakeoffs(text)
		assert.ErrorContains(t, err, says, text)
		assert.ErrorContains(t, err, "takeoffs", text)
	}
	_, err := towline.Find(nil, 3, towline.Pylon)
	assert.ErrorContains(t, err, "takeoffs")
	_, err = towline.Find([]unit.Length{20}, -1, towline.Pylon)
	assert.ErrorContains(t, err, "want")
	_, err = towline.Find([]unit.Length{20}, 18, "bow")
	assert.ErrorContains(t, err, "on")
}

// A run with a hitch rubs the cover where it sits, one on a loop does not; places that a hitch
// covers together count as one, and after twenty the place is shifted.
func TestRunsRubTheCover(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	b := towline.Book{Name: " Tow line  two ", TakeoffsM: []float64{24.4, 18.4, 19.9}, On: towline.Tower,
		Line: rig.Line{Material: "hmpe", DiameterMM: 6}, Riders: []towline.Rider{{Name: "Fenna", WantM: 22.1, Kn: 13}}}
	require.NoError(t, b.Check(&c.Vocabulary))
	assert.Equal(t, "Tow line two", b.Name)
	assert.Equal(t, []float64{18.4, 19.9, 24.4}, b.TakeoffsM)
	at := func(want float64) towline.Place {
		p, err := towline.Find(b.Offs(), unit.Length(want), b.On)
		require.NoError(t, err)
		return p
	}
	b.Record(at(19.9))
	assert.Empty(t, b.Runs, "a loop that fits rubs nothing")
	for i := range towline.Shift {
		assert.Empty(t, b.Rubbed())
		b.Record(at(22.1 + 0.1*float64(i%2)))
	}
	b.Record(at(21))
	require.Len(t, b.Runs, 2)
	assert.InDelta(t, 21, b.Runs[0].PlaceM, 1e-9)
	require.Len(t, b.Rubbed(), 1)
	assert.InDelta(t, 22.1, b.Rubbed()[0].PlaceM, 1e-9)
}

func TestWrongTowLinesNameTheirFields(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	b := towline.Book{Own: "L7", On: "bow", TakeoffsM: []float64{-1}, Line: rig.Line{Material: "wool"}, Runs: []towline.Run{{PlaceM: -1}},
		Riders: []towline.Rider{{Name: "", WantM: 0, Kn: 90}}}
	err = b.Check(&c.Vocabulary)
	for _, f := range []string{"name", "own", "on", "takeoffs_m[0]", "line.material", "runs[0]", "riders[0].name", "riders[0].want_m", "riders[0].kn"} {
		assert.ErrorContains(t, err, f)
	}
	b.TakeoffsM = nil
	assert.ErrorContains(t, b.Check(&c.Vocabulary), "takeoffs_m")
}
