package mooring_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/mooring"
	"oarweed/core/rig"
)

func usual(t *testing.T, kind string, kn, from float64) (mooring.Plan, mooring.Shared, *rig.Vocabulary) {
	t.Helper()
	c, err := catalogue.Load()
	require.NoError(t, err)
	p, err := mooring.Usual(mooring.Boat{LOAM: 9, BeamM: 3, DisplacementT: 4}, kind, rig.Line{Material: "polyamide", DiameterMM: 14})
	require.NoError(t, err)
	p.Wind = mooring.Wind{Kn: kn, FromDeg: from}
	s, err := mooring.Solve(&c.Vocabulary, p)
	require.NoError(t, err)
	return p, s, &c.Vocabulary
}

func names(p mooring.Plan, order []int) []string {
	out := []string{}
	for _, i := range order {
		out = append(out, p.Lines[i].Name)
	}
	return out
}

// What a careful instructor says. Wind from ahead: the bow line first, and last to go. Wind from
// astern: the stern line. Blown onto the quay nothing bears: ends before springs.
func TestInWhichOrderLinesAreMadeFast(t *testing.T) {
	p, s, _ := usual(t, "alongside", 25, 0)
	order := names(p, mooring.Order(p, s))
	assert.Equal(t, []string{"bow line", "aft spring"}, order[:2], "what holds her against wind from ahead, the end before the spring")
	assert.Equal(t, []string{"stern line", "fore spring"}, order[2:], "of what is slack the end before the spring")
	p, s, _ = usual(t, "alongside", 25, 180)
	assert.Equal(t, []string{"stern line", "fore spring"}, names(p, mooring.Order(p, s))[:2])
	p, s, _ = usual(t, "alongside", 25, 270) // off the quay
	assert.ElementsMatch(t, []string{"bow line", "stern line"}, names(p, mooring.Order(p, s))[:2])
	p, s, _ = usual(t, "alongside", 25, 90) // onto the quay, which lies to port
	for _, l := range s.Lines {
		assert.Less(t, l.LoadKN, 0.05*s.WindKN)
	}
	assert.Equal(t, []string{"bow line", "stern line", "fore spring", "aft spring"}, names(p, mooring.Order(p, s)))
}

func TestSpringsAreKnown(t *testing.T) {
	p, _, _ := usual(t, "alongside", 10, 0)
	for i, l := range p.Lines {
		assert.Equal(t, l.Name == "fore spring" || l.Name == "aft spring", p.Spring(i), l.Name)
	}
	p, _, _ = usual(t, "posts", 10, 0)
	for i := range p.Lines {
		assert.False(t, p.Spring(i))
	}
}

// A line needs five times what it bears, new; snatch goes by the root of the weight; the rule for
// dock lines is an eighth of an inch for nine feet (common practice, no source).
func TestDetailsOfLines(t *testing.T) {
	p, s, v := usual(t, "alongside", 30, 270)
	d, err := mooring.Details(v, p, s)
	require.NoError(t, err)
	for i, x := range d {
		assert.InDelta(t, 5*s.Lines[i].LoadKN, x.NeedKN, 1e-9)
		assert.InDelta(t, 1.25*x.RunM, x.CutM, 1e-9)
		assert.Less(t, x.SnatchKN.Low, x.SnatchKN.Likely)
		assert.Less(t, x.SnatchKN.Likely, x.SnatchKN.High)
		assert.Zero(t, x.ThinMM, "14 mm are enough for 9 m: the rule says 10.4")
		assert.Contains(t, x.Chafes, mooring.Quay, p.Lines[i].Name)
	}
	assert.Contains(t, d[0].Chafes, mooring.Rail, "the bow line leads out from inside the rail")
	assert.NotContains(t, d[2].Chafes, mooring.Rail, "the spring begins at the side")
	assert.Equal(t, []int{3}, d[2].Crosses, "two springs cross")
	p.Boat.DisplacementT = 16
	heavier, err := mooring.Details(v, p, s)
	require.NoError(t, err)
	assert.InDelta(t, 2*d[0].SnatchKN.Likely, heavier[0].SnatchKN.Likely, 1e-9)
	for i := range p.Lines {
		p.Lines[i].Line.DiameterMM = 6
	}
	thin, err := mooring.Details(v, p, s)
	require.NoError(t, err)
	assert.True(t, thin[0].Short)
	assert.InDelta(t, p.Boat.Rule()-6, thin[0].ThinMM, 1e-9)
}

// For boats of 20 to 50 ft at 30 knots the rule's diameter of nylon is enough for the table's
// load, two sizes less is short (lines.md's check, on the line that bears the whole wind).
func TestTheRuleOfDockLinesIsEnough(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	for _, feet := range []float64{20, 30, 40, 50} {
		b := mooring.Boat{LOAM: feet * 0.3048, BeamM: 3}
		for _, less := range []float64{0, 4} {
			n := rig.Line{Material: "polyamide", Construction: "laid", DiameterMM: b.Rule() - less}
			p := mooring.Plan{Boat: b, Wind: mooring.Wind{Kn: 30}, Lines: []mooring.Line{{From: [2]float64{b.LOAM / 2, 0}, To: [2]float64{b.LOAM/2 + 12, 0}, Line: n}}}
			s, err := mooring.Solve(&c.Vocabulary, p)
			require.NoError(t, err)
			d, err := mooring.Details(&c.Vocabulary, p, s)
			require.NoError(t, err)
			assert.Equal(t, less > 0, d[0].Short, "%g ft, %.1f mm", feet, n.DiameterMM)
		}
	}
}

func TestABerthIsCheckedWhenKept(t *testing.T) {
	p, _, v := usual(t, "posts", 20, 45)
	b := mooring.Berth{Name: " Outer  posts ", Plan: p, Heading: 200}
	require.NoError(t, b.Check(v))
	assert.Equal(t, "Outer posts", b.Name)
	b.Name, b.Heading = "", 400
	b.Lines[1].Line.Material = "wool"
	err := b.Check(v)
	for _, f := range []string{"name", "heading_deg", "lines[1].line.material"} {
		assert.ErrorContains(t, err, f)
	}
	_, err = mooring.Usual(mooring.Boat{}, "swinging", rig.Line{})
	assert.ErrorContains(t, err, "kind")
}
