package app_test

import (
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/bench"
	book "oarweed/core/leader"
	"oarweed/core/locker"
	"oarweed/core/mooring"
	"oarweed/core/nmea"
	"oarweed/core/practice"
	"oarweed/core/rig"
	"oarweed/core/towline"
	"oarweed/core/usage"
	"oarweed/internal/app"
	"oarweed/internal/export"
)

// school is one with records of its own.
func school(t *testing.T) *app.School {
	t.Helper()
	s, _ := schoolWithRecords(t)
	return s
}

// blowing is a gauge that says what it is told to.
type blowing struct {
	feed  mooring.Feed
	addr  string
	shown int
}

func (b *blowing) State() mooring.Feed { return b.feed }
func (b *blowing) Close()              {}
func (b *blowing) Dial(addr string) error {
	if addr == "refused" {
		return errors.New("refused")
	}
	b.addr = addr
	return nil
}
func (b *blowing) Watch(_ context.Context, show func(mooring.Feed) error) error {
	for range b.shown {
		if err := show(b.feed); err != nil {
			return err
		}
	}
	return nil
}

func wind(kn, from float64, north bool) mooring.Feed {
	f := mooring.Feed{Addr: "x", Connected: true, Known: true, Kn: kn, GustKn: 1.1 * kn, FromDeg: from, Relative: !north}
	f.Breeze.Take(nmea.Wind{Kn: kn, FromDeg: from, Relative: !north, True: north}, time.Now())
	return f
}

func keptBerth(t *testing.T, s *app.School, name string, heading float64, lying bool) mooring.Berth {
	t.Helper()
	p, err := s.UsualBerth(mooring.Boat{LOAM: 9, BeamM: 3, DisplacementT: 4}, "alongside", rig.Line{Material: "polyamide", DiameterMM: 12})
	require.NoError(t, err)
	b, err := s.SaveBerth(t.Context(), mooring.Berth{Name: name, Plan: p, Heading: heading, Lying: lying})
	require.NoError(t, err)
	return b
}

func kinds(list []app.ToDo) map[string]app.ToDo {
	out := map[string]app.ToDo{}
	for _, x := range list {
		out[x.Kind] = x
	}
	return out
}

// Each thing that falls due is counted once, leads to where it is seen to, and goes when it is.
func TestWhatIsDue(t *testing.T) {
	s, ctx := school(t), t.Context()
	due := func() map[string]app.ToDo {
		t.Helper()
		list, err := s.ToDo(ctx)
		require.NoError(t, err)
		return kinds(list)
	}
	assert.Empty(t, due())

	l, err := s.SaveLine(ctx, locker.Line{Name: "Painter", Line: rig.Line{Material: "polyester", DiameterMM: 10}})
	require.NoError(t, err)
	assert.Equal(t, "/lines/"+l.Code, due()["line"].To)
	assert.False(t, due()["line"].Now)
	l, err = s.LookOver(ctx, l.ID, l.Revision, locker.Look{By: "Ailsa", Grades: map[string]int{"core": 3}})
	require.NoError(t, err)
	assert.True(t, due()["line"].Now, "to be retired")
	l.Retired = "2026-05-01"
	_, err = s.SaveLine(ctx, l)
	require.NoError(t, err)
	assert.NotContains(t, due(), "line")

	g, err := s.SaveGear(ctx, practice.Gear{What: "Fender", Knot: "bowline", Tied: practice.Look{Name: "Corin"}, Again: time.Now().Add(-time.Hour)})
	require.NoError(t, err)
	assert.Contains(t, due()["gear"].Says, "Tied by Corin")
	g.Again = time.Now().Add(48 * time.Hour)
	_, err = s.SaveGear(ctx, g)
	require.NoError(t, err)
	assert.NotContains(t, due(), "gear")

	b, err := s.SaveLeader(ctx, book.Book{Name: "Evening", Query: book.Query{LengthM: 2.1, ShortestM: 2, Knot: "non-slip-loop", Line: rig.Line{Material: "fluorocarbon", LabelKN: 0.0712}}})
	require.NoError(t, err)
	assert.Equal(t, "/lines/leaders", due()["leader"].To)
	b.ShortestM = 1
	b, err = s.SaveLeader(ctx, b)
	require.NoError(t, err)
	assert.NotContains(t, due(), "leader")
	b.ActionM = 2.08
	_, err = s.SaveLeader(ctx, b)
	require.NoError(t, err)
	assert.Contains(t, due(), "leader", "its action goes before its length")

	_, err = s.SaveTow(ctx, towline.Book{Name: "Tow line two", On: towline.Hook, TakeoffsM: []float64{20}, Line: rig.Line{Material: "hmpe", DiameterMM: 6}, Runs: []towline.Run{{PlaceM: 18, N: towline.Shift}}})
	require.NoError(t, err)
	assert.Contains(t, due()["tow"].Says, "18.0 m")

	looks, err := s.Looks(ctx, time.Now().AddDate(0, 3, 0))
	require.NoError(t, err)
	require.Len(t, looks, 1, "the gear; the line is retired")
	assert.Equal(t, "Fender", looks[0].Name)
}

// A berth at which she lies is held against the wind off her own bow; one she has left is not. An
// instrument that is lost while she lies there is itself due.
func TestTheWindAgainstBerths(t *testing.T) {
	s, ctx := school(t), t.Context()
	lying := keptBerth(t, s, "Outer quay", 90, true)
	keptBerth(t, s, "Left long ago", 90, false)
	gauge := &blowing{feed: wind(20, 30, true), shown: 25}
	require.NoError(t, s.UseWind(ctx, gauge))
	got, err := s.Afloat(ctx)
	require.NoError(t, err)
	require.Len(t, got.Berths, 1)
	assert.InDelta(t, 300, got.Berths[0].FromDeg, 1e-9, "from 30° north is 300° off a bow that points east")
	assert.Equal(t, mooring.Stands, got.Berths[0].Warn)
	gauge.feed = wind(70, 30, true)
	list, err := s.ToDo(ctx)
	require.NoError(t, err)
	require.True(t, kinds(list)["wind"].Now)
	assert.Equal(t, "Outer quay", list[0].Name, "what cannot wait comes first")

	// Without a heading the worst bearing counts.
	lying.Heading = 0
	lying, err = s.SaveBerth(ctx, lying)
	require.NoError(t, err)
	gauge.feed = wind(20, 30, true)
	got, err = s.Afloat(ctx)
	require.NoError(t, err)
	assert.True(t, got.Berths[0].Worst)
	gauge.feed = wind(20, 300, false)
	got, err = s.Afloat(ctx)
	require.NoError(t, err)
	assert.False(t, got.Berths[0].Worst, "off the bow no heading is needed")

	shown := 0
	require.NoError(t, s.WatchAfloat(ctx, func(a *app.Afloat) error { shown++; return nil }))
	assert.Equal(t, 25, shown)
	assert.ErrorContains(t, s.WatchAfloat(ctx, func(*app.Afloat) error { return errors.New("gone") }), "gone")

	gauge.feed = mooring.Feed{Addr: "x", Lost: mooring.Broken}
	list, err = s.ToDo(ctx)
	require.NoError(t, err)
	assert.Contains(t, kinds(list)["wind"].Says, "nothing warns now")
	lying.Lying = false
	_, err = s.SaveBerth(ctx, lying)
	require.NoError(t, err)
	list, err = s.ToDo(ctx)
	require.NoError(t, err)
	assert.NotContains(t, kinds(list), "wind", "she is away: a lost wind is nobody's worry")
}

func TestWhereTheWindComesFromIsKept(t *testing.T) {
	s, ctx := school(t), t.Context()
	_, err := s.SetWind(ctx, app.WindSettings{Addr: "10.0.0.1:10110"})
	assert.ErrorContains(t, err, "wind", "no gauge can be listened to here")
	gauge := &blowing{}
	require.NoError(t, s.UseWind(ctx, gauge))
	_, err = s.SetWind(ctx, app.WindSettings{Addr: "refused"})
	require.Error(t, err)
	set, err := s.SetWind(ctx, app.WindSettings{Addr: "10.0.0.1:10110"})
	require.NoError(t, err)
	assert.Equal(t, "10.0.0.1:10110", gauge.addr)
	set.Addr = ""
	_, err = s.SetWind(ctx, set)
	require.NoError(t, err)
	assert.Empty(t, gauge.addr)
	_, err = s.SetWind(ctx, app.WindSettings{Addr: "10.0.0.2:10110", Revision: 1})
	assert.ErrorContains(t, err, "changed meanwhile")
}

// A line of the locker in a plan counts with what was found on it.
func TestABerthTakesItsLinesFromTheLocker(t *testing.T) {
	s, ctx := school(t), t.Context()
	l, err := s.SaveLine(ctx, locker.Line{Name: "Warp", Line: rig.Line{Material: "polyamide", DiameterMM: 12}})
	require.NoError(t, err)
	b := keptBerth(t, s, "Outer quay", 90, true)
	margin := func() float64 {
		t.Helper()
		out, err := s.Moor(ctx, b.Plan)
		require.NoError(t, err)
		assert.Len(t, out.Details, 4)
		return out.Lines[0].Margin
	}
	b.Wind = mooring.Wind{Kn: 30, FromDeg: 270}
	before := margin()
	b.Lines[0].Own = l.Code
	b.Lines[0].Line.Material, b.Lines[0].Line.DiameterMM = "polypropylene", 6 // what the plan remembers does not count
	assert.InDelta(t, before, margin(), 1e-9)
	_, err = s.LookOver(ctx, l.ID, l.Revision, locker.Look{By: "Ailsa", Grades: map[string]int{"chafe": 3}})
	require.NoError(t, err)
	assert.InDelta(t, before/2, margin(), 0.1*before, "half its strength, and as much less stiff")
}

// Whatever is logged goes out as a table and comes back the same, in any school: cells that a
// spreadsheet would take for formulas, separators and quotes, two uses of one second.
func TestAnyLogComesBack(t *testing.T) {
	s, ctx := school(t), t.Context()
	l, err := s.SaveLine(ctx, locker.Line{Name: `Warp, the "long" one`, Line: rig.Line{Material: "polyamide", DiameterMM: 12}})
	require.NoError(t, err)
	rnd := rand.New(rand.NewPCG(16, 9))
	words := []string{"slip", "quay, north", "=1+1", "-3 m off", "+ swell", "@ high; water", `the "hole"`, "épi", "'tis"}
	now := time.Now()
	for i := range 120 {
		e := usage.Entry{Key: fmt.Sprint("k", i), Where: words[rnd.IntN(len(words))], Line: l.Code, Outcome: usage.Outcomes[rnd.IntN(len(usage.Outcomes))],
			At: now.Add(-time.Duration(rnd.IntN(90)) * time.Hour), Hours: float64(rnd.IntN(40)) / 4, Note: words[rnd.IntN(len(words))]}
		_, _, err := s.AddUse(ctx, e)
		require.NoError(t, err)
	}
	table, err := s.TableOf(ctx, "use")
	require.NoError(t, err)
	lines, err := s.TableOf(ctx, "locker")
	require.NoError(t, err)
	other := school(t)
	_, err = other.TakeTable(ctx, "use", table, true)
	require.ErrorContains(t, err, "is not in the locker", "its line comes first")
	_, err = other.TakeTable(ctx, "locker", lines, true)
	require.NoError(t, err)
	text, err := export.CSV(table)
	require.NoError(t, err)
	back, err := export.ReadTable(text)
	require.NoError(t, err)
	taken, err := other.TakeTable(ctx, "use", back, true)
	require.NoError(t, err)
	require.Equal(t, 120, taken.New)
	again, err := other.TableOf(ctx, "use")
	require.NoError(t, err)
	require.Equal(t, table, again)
}

func TestKindsOfFilesAreNamed(t *testing.T) {
	s, ctx := school(t), t.Context()
	for _, kind := range app.FileKinds() {
		table, err := s.TableOf(ctx, kind)
		require.NoError(t, err)
		assert.Len(t, table, 1, "the head alone")
		_, err = s.RecordsOf(ctx, kind)
		require.NoError(t, err)
		_, err = s.TakeRecords(ctx, kind, []byte(`{"not":"a list"}`), true)
		assert.ErrorContains(t, err, "file")
	}
	for _, err := range []error{second(s.TableOf(ctx, "boats")), second(s.RecordsOf(ctx, "boats")), second(s.TakeTable(ctx, "boats", nil, true)), second(s.TakeRecords(ctx, "boats", nil, true))} {
		assert.ErrorContains(t, err, "kind")
	}
	// A grade of 0 is written, and read as looked at.
	_, err := s.TakeTable(ctx, "locker", [][]string{{"name", "material", "diameter_mm", "looked_by", "looked_at", "core", "chafe"}, {"Warp", "polyamide", "12", "Ailsa", "2026-02-01", "0", ""}, {"Warp", "", "", "Bram", "2026-03-01 14:30", "", "2"}}, true)
	require.NoError(t, err)
	list, err := s.Locker(ctx)
	require.NoError(t, err)
	require.Len(t, list, 1)
	require.Len(t, list[0].Looks, 2)
	assert.Equal(t, map[string]int{"core": 0}, list[0].Looks[0].Grades)
	assert.Equal(t, 2, list[0].Wear)
	for cell, want := range map[string]string{"soon": "row 2, looked_at", "2026-02-01": "row 2, core"} {
		_, err = s.TakeTable(ctx, "locker", [][]string{{"name", "material", "diameter_mm", "looked_by", "looked_at", "core"}, {"W", "polyamide", "12", "Ailsa", cell, "bad"}}, true)
		assert.ErrorContains(t, err, want)
	}
	for head, cell := range map[string]string{"runs": "twelve", "takeoffs": "60ft,…", "on": "bow"} {
		_, err = s.TakeTable(ctx, "tow-lines", [][]string{{"name", "material", "diameter_mm", "on", head}, {"T", "hmpe", "6", "eye", cell}}, true)
		assert.Error(t, err, head)
	}
	for head, cell := range map[string]string{"lying": "perhaps", "boat": "rail"} {
		_, err = s.TakeTable(ctx, "moorings", [][]string{{"name", head}, {"B", cell}}, true)
		assert.ErrorContains(t, err, "row 2, "+head)
	}
}

func second[T any](_ T, err error) error { return err }

// What is worth pulling next is what can be pulled and is not told yet, each place once, and what
// has been pulled for stands before what has not.
func TestWhatIsWorthPullingNext(t *testing.T) {
	s, ctx := school(t), t.Context()
	list, err := s.Ledger(ctx)
	require.NoError(t, err)
	places := map[int]bool{}
	for _, c := range list {
		if c.Stronger == nil || c.Weaker == nil || c.Stronger.Knot == c.Weaker.Knot {
			assert.Zero(t, c.Next, c.ID)
			continue
		}
		assert.NotZero(t, c.Next, "nothing is told yet: %s", c.ID)
		assert.False(t, places[c.Next])
		places[c.Next] = true
	}
	require.NotEmpty(t, places)
	for n := range len(places) {
		assert.True(t, places[n+1])
	}
}

// Pulls of pieces that were cut from a line stand in its history, at the last of them; a series
// that was never pulled does not.
func TestPullsStandInTheHistoryOfTheirLine(t *testing.T) {
	s, ctx := school(t), t.Context()
	l, err := s.SaveLine(ctx, locker.Line{Name: "Warp", Line: rig.Line{Material: "polyester", Construction: "braid", DiameterMM: 10, LabelKN: 20}})
	require.NoError(t, err)
	add := func(name, from, own string, pulls int) bench.Series {
		x, err := s.SaveSeries(ctx, bench.Series{Name: name, From: from, Line: rig.Line{Material: "polyester", Construction: "braid", DiameterMM: 10, LabelKN: 20, Own: own},
			Specimens: []bench.Specimen{{A: bench.Tied{Knot: "bowline"}, B: bench.Tied{Knot: "figure-eight-loop"}}}})
		require.NoError(t, err)
		for i := range pulls {
			_, err := s.SavePull(ctx, bench.Pull{Key: fmt.Sprint(name, i), Series: x.Key, At: time.Date(2026, 5, 1+i, 10, 0, 0, 0, time.UTC), A: bench.Tied{Knot: "bowline"}, B: bench.Tied{Knot: "figure-eight-loop"},
				Source: bench.FromDial, PeakKN: 9, Outcome: bench.Broke, Where: "a"})
			require.NoError(t, err)
		}
		return x
	}
	mine := add("Bowline and eight", "Warp", l.Code, 3)
	add("Of a line of this name, before lines had codes", "Warp", "", 1)
	add("Of another line", "Other", locker.NewCode(), 1)
	add("Never pulled", "Warp", l.Code, 0)
	page, err := s.LineByCode(ctx, l.Code)
	require.NoError(t, err)
	require.Len(t, page.History, 2)
	assert.Equal(t, "Pulled on the bench: Bowline and eight, three pulls.", page.History[0].Says)
	assert.Equal(t, time.Date(2026, 5, 3, 10, 0, 0, 0, time.UTC), page.History[0].At)
	assert.Equal(t, fmt.Sprintf("/bench/%d", mine.ID), page.History[0].To)
}
