package say_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/mooring"
	"oarweed/core/rig"
	"oarweed/core/say"
)

func TestWhatAMooringStands(t *testing.T) {
	p := mooring.Plan{Lines: []mooring.Line{{Name: "bow line"}, {}}}
	ok := strings.Join(say.Mooring(p, mooring.Shared{Lines: []mooring.Share{{LoadKN: 3, Margin: 2}, {LoadKN: 1, Margin: 4}}, StandsKN: 38.2, WindKN: 4}), " ")
	assert.Contains(t, ok, "It stands 38 knots")
	assert.Contains(t, ok, "The bow line bears most for its strength: 3 kN, 2.0 times")
	bad := strings.Join(say.Mooring(p, mooring.Shared{Lines: []mooring.Share{{LoadKN: 1, Margin: 3}, {LoadKN: 9, Margin: 0.6}}, StandsKN: 21, WindKN: 10, QuayKN: 2}), " ")
	assert.Contains(t, bad, "does not stand this wind")
	assert.Contains(t, bad, "The line 2 bears 9 kN")
	assert.Contains(t, bad, "fenders with 2 kN")
	assert.Contains(t, strings.Join(say.Mooring(p, mooring.Shared{Lines: []mooring.Share{{}, {}}}), " "), "No line bears anything")
}

func moored(t *testing.T, kn, from float64) (mooring.Plan, mooring.Shared, []mooring.Detail) {
	t.Helper()
	c, err := catalogue.Load()
	require.NoError(t, err)
	p, err := mooring.Usual(mooring.Boat{LOAM: 9, BeamM: 3, DisplacementT: 4}, "alongside", rig.Line{Material: "polyamide", DiameterMM: 10})
	require.NoError(t, err)
	p.Wind = mooring.Wind{Kn: kn, FromDeg: from}
	s, err := mooring.Solve(&c.Vocabulary, p)
	require.NoError(t, err)
	d, err := mooring.Details(&c.Vocabulary, p, s)
	require.NoError(t, err)
	return p, s, d
}

// What the crew hears: the line that holds her first, what bears nothing hand tight; when she is
// let go the slack lines first, a loaded one never by hand, the one she lies to last.
func TestWhatTheCrewHears(t *testing.T) {
	p, s, _ := moored(t, 30, 0)
	order := mooring.Order(p, s)
	on, off := say.Moor(p, s, order), say.Unmoor(p, s, order)
	require.Len(t, on, 5)
	assert.Contains(t, on[0], "Fenders down")
	assert.Equal(t, "Bow line first, onto the bollard: take it in, make fast. It holds her against the wind.", on[1])
	assert.Equal(t, "Aft spring onto the ring: take it in, make fast.", on[2])
	assert.Contains(t, on[3], "Stern line onto the bollard, hand tight")
	require.Len(t, off, 6)
	assert.Equal(t, "Let go the fore spring.", off[1])
	assert.Equal(t, "Let go the stern line.", off[2])
	assert.Contains(t, off[3], "Ease the aft spring round its cleat until it is slack")
	assert.Contains(t, off[4], "Bow line last: she lies to it with")
	assert.Contains(t, off[4], "slip line")
	assert.Contains(t, off[5], "all lines aboard")

	p, s, _ = moored(t, 25, 90)
	order = mooring.Order(p, s)
	on, off = say.Moor(p, s, order), say.Unmoor(p, s, order)
	assert.Equal(t, "Bow line first, onto the bollard: take it in, make fast.", on[1])
	assert.Equal(t, "Bow line last.", off[4])
	p.Lines[0].Name = ""
	assert.Contains(t, say.Moor(p, s, order)[1], "Line 1 first")
}

func TestWhatIsSaidOfALineOfABerth(t *testing.T) {
	p, _, d := moored(t, 35, 270)
	got := strings.Join(say.LineDetail(p, 0, d[0]), " ")
	for _, w := range []string{"Too thin for this wind", "5 times its load", "It rubs where it leads out over the side and on the edge of the quay.", "If she comes up on it from slack"} {
		assert.Contains(t, got, w)
	}
	assert.Contains(t, strings.Join(say.LineDetail(p, 2, d[2]), " "), "against the aft spring")
	d[0].ThinMM = 2
	assert.Contains(t, strings.Join(say.LineDetail(p, 0, d[0]), " "), "The rule for dock lines asks for 10 mm.")
	assert.Empty(t, say.LineDetail(p, 0, mooring.Detail{}))
}

func TestWhatIsSaidOfTheWind(t *testing.T) {
	w := mooring.Watch{Kn: 20, GustKn: 24, StandsKN: 40}
	assert.Equal(t, "Outer quay stands: 20 knots of 40.", say.Watched("Outer quay", w))
	w.Warn = mooring.Soon
	assert.Contains(t, say.Watched("Outer quay", w), "24 knots, and it stands 40 from there. See to it before it goes.")
	w.Warn = mooring.Gusts
	assert.Contains(t, say.Watched("Outer quay", w), "gusts of 24 knots are more")
	w.Warn, w.Worst = mooring.Gone, true
	assert.Contains(t, say.Watched("Outer quay", w), "her heading is not set")
	assert.Contains(t, say.Watched("Outer quay", w), "Double the lines that bear, or leave.")

	assert.Contains(t, say.Feed(mooring.Feed{}), "No wind instrument")
	assert.Equal(t, "Wind now: 20 knots, gusts of 24, from 300° off the bow.", say.Feed(mooring.Feed{Addr: "x", Known: true, Kn: 20, GustKn: 24, FromDeg: 300, Relative: true}))
	for lost, words := range map[mooring.Lost]string{mooring.Unreachable: "nobody answers", mooring.Broken: "broke off", mooring.Silent: "no wind that can be read"} {
		got := say.Feed(mooring.Feed{Addr: "x", Lost: lost})
		assert.Contains(t, got, words)
		assert.Contains(t, got, "nothing warns now")
		assert.NotContains(t, got, "The last was")
	}
	f := mooring.Feed{Addr: "x", Lost: mooring.Broken, Kn: 20, FromDeg: 10, AgeS: 40}
	f.Breeze.At = time.Now()
	assert.Contains(t, say.Feed(f), "The last was 20 knots, gusts of 0, from 10° from north, 40 s ago.")
}
