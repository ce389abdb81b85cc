package mooring_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/catalogue"
	"oarweed/core/mooring"
	"oarweed/core/rig"
)

var nylon = rig.Line{Material: "polyamide", Construction: "laid", DiameterMM: 14}

var boat = mooring.Boat{LOAM: 9.144, BeamM: 3, DisplacementT: 4} // 30 ft

func vocabulary(t require.TestingT) *rig.Vocabulary {
	c, err := catalogue.Load()
	require.NoError(t, err)
	return &c.Vocabulary
}

// One line ahead bears the whole wind: 700 lb for 30 ft in 30 kn by the published ground-tackle
// table (from memory), and four times that at twice the wind.
func TestOneLineBearsTheTable(t *testing.T) {
	v := vocabulary(t)
	p := mooring.Plan{Boat: boat, Wind: mooring.Wind{Kn: 30}, Lines: []mooring.Line{{From: [2]float64{4.5, 0}, To: [2]float64{24, 0}, Line: nylon}}}
	got, err := mooring.Solve(v, p)
	require.NoError(t, err)
	assert.InDelta(t, 700*4.448222/1000, got.Lines[0].LoadKN, 0.01)
	assert.InDelta(t, got.WindKN, got.Lines[0].LoadKN, 1e-6)
	p.Wind.Kn = 60
	twice, err := mooring.Solve(v, p)
	require.NoError(t, err)
	assert.InDelta(t, 4*got.Lines[0].LoadKN, twice.Lines[0].LoadKN, 1e-5)
	assert.InDelta(t, got.StandsKN, twice.StandsKN, 0.2, "what it stands does not depend on the wind asked for")
}

// Two bow lines in a V: each bears half over the cosine, at the angle to which they have stretched.
func TestABridle(t *testing.T) {
	v := vocabulary(t)
	p := mooring.Plan{Boat: boat, Wind: mooring.Wind{Kn: 40}, Lines: []mooring.Line{
		{From: [2]float64{4.5, 0}, To: [2]float64{12, 6}, Line: nylon}, {From: [2]float64{4.5, 0}, To: [2]float64{12, -6}, Line: nylon}}}
	got, err := mooring.Solve(v, p)
	require.NoError(t, err)
	angle := math.Atan2(6, 12-4.5-got.Moved[0])
	assert.InDelta(t, got.WindKN/2/math.Cos(angle), got.Lines[0].LoadKN, 1e-4)
	assert.InDelta(t, got.Lines[0].LoadKN, got.Lines[1].LoadKN, 1e-4)
	assert.InDelta(t, 0, got.Moved[1], 1e-4)
}

// Alongside, port side to: off the quay the breast lines bear, onto it the fenders do.
func TestAlongside(t *testing.T) {
	v := vocabulary(t)
	at := func(from, to float64) mooring.Line {
		return mooring.Line{From: [2]float64{from, -1.5}, To: [2]float64{to, -2.5}, Line: nylon}
	}
	p := mooring.Plan{Boat: boat, Wind: mooring.Wind{Kn: 30, FromDeg: -90}, Lines: []mooring.Line{at(4, 6), at(-4, -6), at(1, -3), at(-1, 3)}}
	off, err := mooring.Solve(v, p)
	require.NoError(t, err)
	assert.Zero(t, off.QuayKN)
	assert.Greater(t, off.Moved[1], 0.0, "she lies off")
	for i, l := range off.Lines {
		assert.Positive(t, l.LoadKN, "line %d", i)
	}
	p.Wind.FromDeg = 90
	on, err := mooring.Solve(v, p)
	require.NoError(t, err)
	assert.InDelta(t, on.WindKN, on.QuayKN, 0.2*on.WindKN)
	for i, l := range on.Lines {
		assert.Less(t, l.LoadKN, off.Lines[i].LoadKN, "line %d", i)
	}
	assert.Greater(t, on.StandsKN, off.StandsKN)
}

// However she lies, at rest all forces and moments cancel, lines only pull, and in the wind that
// the plan stands the worst margin is 1.
func TestAtRestAllForcesCancel(t *testing.T) {
	v := vocabulary(t)
	rapid.Check(t, func(t *rapid.T) {
		p := mooring.Plan{Boat: boat, Wind: mooring.Wind{Kn: rapid.Float64Range(5, 50).Draw(t, "kn"), FromDeg: rapid.Float64Range(-180, 180).Draw(t, "from")}}
		for _, corner := range [][2]float64{{4.2, 1.2}, {4.2, -1.2}, {-4.2, 1.2}, {-4.2, -1.2}} {
			out := rapid.Float64Range(2, 12).Draw(t, "out")
			lead := rapid.Float64Range(-6, 6).Draw(t, "lead")
			p.Lines = append(p.Lines, mooring.Line{From: corner, To: [2]float64{corner[0] + math.Copysign(1, corner[0])*math.Abs(lead), corner[1] + math.Copysign(out, corner[1])}, Line: nylon})
		}
		got, err := mooring.Solve(v, p)
		if err != nil {
			t.Fatal(err)
		}
		turn := got.TurnDeg * math.Pi / 180
		sin, cos := math.Sincos(turn)
		var fx, fy, m float64
		for i, l := range p.Lines {
			rx, ry := cos*l.From[0]-sin*l.From[1], sin*l.From[0]+cos*l.From[1]
			dx, dy := l.To[0]-rx-got.Moved[0], l.To[1]-ry-got.Moved[1]
			d := math.Hypot(dx, dy)
			x, y := got.Lines[i].LoadKN*dx/d, got.Lines[i].LoadKN*dy/d
			if got.Lines[i].LoadKN < 0 {
				t.Fatalf("line %d pushes", i)
			}
			fx, fy, m = fx+x, fy+y, m+rx*y-ry*x
		}
		a := p.Wind.FromDeg * math.Pi / 180
		// From dead abeam the force is three times that from ahead.
		front := got.WindKN / math.Hypot(math.Cos(a), 3*math.Sin(a))
		fx, fy = fx-front*math.Cos(a), fy-3*front*math.Sin(a)
		if math.Hypot(fx, fy) > 1e-3*got.WindKN || math.Abs(m) > 1e-2*got.WindKN {
			t.Fatalf("left over: %g, %g, %g of %g kN", fx, fy, m, got.WindKN)
		}
		p.Wind.Kn = got.StandsKN
		at, err := mooring.Solve(v, p)
		if err != nil {
			t.Fatal(err)
		}
		worst := math.Inf(1)
		for _, l := range at.Lines {
			if l.Margin > 0 {
				worst = math.Min(worst, l.Margin)
			}
		}
		if got.StandsKN < 119 && math.Abs(worst-1) > 0.02 {
			t.Fatalf("stands %g kn with a margin of %g", got.StandsKN, worst)
		}
	})
}

func TestPlansThatAreNone(t *testing.T) {
	v := vocabulary(t)
	_, err := mooring.Solve(v, mooring.Plan{Boat: mooring.Boat{LOAM: 90, BeamM: 3}, Wind: mooring.Wind{Kn: -3}, Lines: []mooring.Line{{From: [2]float64{60, 0}, To: [2]float64{60, 0}, Line: rig.Line{Material: "wool"}}}})
	for _, field := range []string{"boat.loa_m", "wind.kn", "lines[0].from", "lines[0].to", "lines[0].line.material"} {
		assert.ErrorContains(t, err, field)
	}
}

// From abeam ½ρv²·A, drag coefficient 1, where the area is known: 20 m² at 30 knots are 2.92 kN.
func TestTheSideThatTheWindMeets(t *testing.T) {
	v := vocabulary(t)
	lines := []mooring.Line{{From: [2]float64{0, 1.4}, To: [2]float64{0, 20}, Line: nylon}}
	b := boat
	b.SideM2 = 20
	got, err := mooring.Solve(v, mooring.Plan{Boat: b, Wind: mooring.Wind{Kn: 30, FromDeg: 90}, Lines: lines})
	require.NoError(t, err)
	speed := 30 * 1852.0 / 3600
	assert.InDelta(t, 0.5*1.225*speed*speed*20/1000, got.WindKN, 1e-9)
	b.SideM2 = -1
	_, err = mooring.Solve(v, mooring.Plan{Boat: b, Wind: mooring.Wind{Kn: 30}, Lines: lines})
	assert.ErrorContains(t, err, "boat.side_m2")
}
