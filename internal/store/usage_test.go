package store_test

import (
	"bytes"
	"database/sql"
	"encoding/json"
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/locker"
	"oarweed/core/rig"
	"oarweed/core/usage"
	"oarweed/internal/app"
	"oarweed/internal/store"
)

var begun = time.Date(2026, 1, 1, 8, 0, 0, 0, time.UTC)

// logged fills a log with so many uses of ten lines and eight knots.
func logged(t testing.TB, n int) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "x.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	list := make([]usage.Entry, n)
	for i := range list {
		e := usage.Entry{Key: fmt.Sprint("k", i), At: begun.Add(time.Duration(i) * time.Minute), Where: fmt.Sprintf("Quay %d", i%5), Line: locker.CodeOf(int64(i % 10)),
			Knot: fmt.Sprint("knot-", i%8), Outcome: usage.Outcomes[i*i%len(usage.Outcomes)], Hours: 0.5}
		if i%4 == 0 {
			e.Other = locker.CodeOf(int64(10 + i%3))
		}
		list[i] = e
	}
	added, err := s.AddUses(t.Context(), list)
	require.NoError(t, err)
	require.Equal(t, n, added)
	again, err := s.AddUses(t.Context(), list[:min(n, 20)])
	require.NoError(t, err)
	require.Zero(t, again, "their keys are known")
	return s
}

// What is summed up beside the log is what counting the log gives, narrowed in every way, before
// and after some of it is taken back and brought back.
func TestSumsAreThoseOfTheLog(t *testing.T) {
	s, ctx := logged(t, 600), t.Context()
	all := func(f usage.Filter) []usage.Entry {
		var out []usage.Entry
		for cursor := ""; ; {
			list, next, err := s.Uses(ctx, f, app.Page{Limit: 37, Cursor: cursor})
			require.NoError(t, err)
			out = append(out, list...)
			if cursor = next; next == "" {
				return out
			}
		}
	}
	compare := func(f usage.Filter) {
		t.Helper()
		got, err := s.Used(ctx, f)
		require.NoError(t, err)
		lines, knots, n := map[string]int{}, map[string]int{}, 0
		for _, e := range all(f) {
			n++
			knots[e.Knot+string(e.Outcome)]++
			for _, l := range []string{e.Line, e.Other} {
				if l != "" && (f.Line == "" || f.Line == l) {
					lines[l+string(e.Outcome)]++
				}
			}
		}
		sum := func(list []usage.Count, of func(usage.Count) string) map[string]int {
			out := map[string]int{}
			for _, c := range list {
				out[of(c)] += c.N
			}
			return out
		}
		assert.Equal(t, lines, sum(got.Lines, func(c usage.Count) string { return c.Line + string(c.Outcome) }), "%+v", f)
		assert.Equal(t, knots, sum(got.Knots, func(c usage.Count) string { return c.Knot + string(c.Outcome) }), "%+v", f)
		assert.Equal(t, n, sum(got.All, func(usage.Count) string { return "" })[""], "%+v", f)
	}
	everyWay := func() {
		for _, f := range []usage.Filter{{}, {Line: locker.CodeOf(3)}, {Line: locker.CodeOf(11)}, {Knot: "knot-2"}, {Outcome: usage.Jammed}, {Wrong: true},
			{Where: "QUAY 2"}, {From: "2026-01-01", To: "2026-01-01"}, {Line: locker.CodeOf(3), Wrong: true, Where: "quay 3"}, {Knot: "knot-2", Outcome: usage.Held}} {
			compare(f)
		}
	}
	everyWay()
	taken := all(usage.Filter{Line: locker.CodeOf(11)})[:5]
	for _, e := range taken {
		require.NoError(t, s.DeleteUse(ctx, e.ID))
	}
	require.ErrorIs(t, s.DeleteUse(ctx, taken[0].ID), app.ErrNotFound)
	everyWay()
	back, err := s.RestoreUse(ctx, taken[0].ID)
	require.NoError(t, err)
	assert.Equal(t, taken[0], back)
	everyWay()

	used, err := s.LinesUsed(ctx)
	require.NoError(t, err)
	mine := all(usage.Filter{Line: locker.CodeOf(3)})
	assert.Equal(t, len(mine), used[locker.CodeOf(3)].Trips)
	assert.InDelta(t, 0.5*float64(len(mine)), used[locker.CodeOf(3)].Hours, 1e-9)
	assert.Equal(t, mine[0].At, used[locker.CodeOf(3)].Last, "the newest comes first")
	for _, e := range mine {
		if e.Outcome.Hurts() {
			assert.Equal(t, e.At, used[locker.CodeOf(3)].Bad)
			break
		}
	}
	_, _, err = s.Uses(ctx, usage.Filter{}, app.Page{Limit: 3, Cursor: "nonsense"})
	assert.ErrorContains(t, err, "cursor")
}

// Everything that a school keeps goes into another database: the log of use, and lines with their
// codes and looks, by which the log knows them.
func TestUsesGoWithTheRest(t *testing.T) {
	s, ctx := logged(t, 12), t.Context()
	line, err := s.SaveLine(ctx, locker.Line{Name: "Warp", Code: locker.NewCode(), Bought: "2026-01-02", Line: rig.Line{Material: "polyester", Construction: "braid", DiameterMM: 12, Wear: 1},
		Looks: []locker.Look{{At: begun, By: "Ailsa", Grades: map[string]int{"core": 0, "chafe": 1}, PlaceM: 3.5}}})
	require.NoError(t, err)
	gone, _, err := s.AddUse(ctx, usage.Entry{Where: "slip", Line: line.Code, Outcome: usage.Broke, At: begun})
	require.NoError(t, err)
	require.NoError(t, s.DeleteUse(ctx, gone.ID))
	d, err := s.Export(ctx)
	require.NoError(t, err)
	require.Len(t, d.Uses, 12, "what was taken back stays out")
	for i := range d.Uses {
		d.Uses[i].Knot = "bowline" // the log above has knots of no catalogue
	}
	text, err := json.Marshal(d)
	require.NoError(t, err)
	cat, err := catalogue.Load()
	require.NoError(t, err)
	other, err := store.Open(ctx, filepath.Join(t.TempDir(), "y.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = other.Close() })
	_, err = other.Import(ctx, bytes.NewReader(text), cat)
	require.NoError(t, err)
	list, _, err := other.Uses(ctx, usage.Filter{}, app.Page{Limit: 50})
	require.NoError(t, err)
	require.Len(t, list, 12)
	lines, err := other.Lines(ctx)
	require.NoError(t, err)
	require.Len(t, lines, 1)
	line.ID, lines[0].ID = 0, 0
	assert.Equal(t, line, lines[0])
	counts, err := other.Used(ctx, usage.Filter{Knot: "bowline"})
	require.NoError(t, err)
	n := 0
	for _, c := range counts.All {
		n += c.N
	}
	assert.Equal(t, 12, n)
	d.Uses[3].Outcome = "fine"
	text, err = json.Marshal(d)
	require.NoError(t, err)
	fresh, err := store.Open(ctx, filepath.Join(t.TempDir(), "z.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = fresh.Close() })
	_, err = fresh.Import(ctx, bytes.NewReader(text), cat)
	assert.ErrorContains(t, err, "uses[3].outcome")
}

// A row that is changed behind the store's back is found.
func TestAUseThatWasTamperedWithIsFound(t *testing.T) {
	path := filepath.Join(t.TempDir(), "x.db")
	s, err := store.Open(t.Context(), path)
	require.NoError(t, err)
	_, _, err = s.AddUse(t.Context(), usage.Entry{Where: "slip", Knot: "bowline", Outcome: usage.Held, At: begun})
	require.NoError(t, err)
	require.NoError(t, s.Close())
	require.NoError(t, store.Verify(t.Context(), path))
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	_, err = db.ExecContext(t.Context(), `UPDATE usage SET outcome = 'broke'`)
	require.NoError(t, err)
	require.NoError(t, db.Close())
	assert.ErrorContains(t, store.Verify(t.Context(), path), "usage 1 is not what was written")
}

// A log of 100 000 uses: a page of it, narrowed, and what it comes to.
func BenchmarkUsage(b *testing.B) {
	s := logged(b, 100_000)
	for name, f := range map[string]usage.Filter{"all": {}, "line": {Line: locker.CodeOf(3)}, "second-line": {Line: locker.CodeOf(11)}, "knot": {Knot: "knot-2"}, "wrong": {Wrong: true}, "outcome": {Outcome: usage.Broke},
		"place": {Where: "quay 2"}, "month": {From: "2026-02-01", To: "2026-02-28"}, "line-place": {Line: locker.CodeOf(3), Where: "quay 3"}} {
		b.Run("list/"+name, func(b *testing.B) {
			for b.Loop() {
				list, _, err := s.Uses(b.Context(), f, app.Page{Limit: 50})
				if err != nil || len(list) == 0 {
					b.Fatal(err, len(list))
				}
			}
		})
		b.Run("sums/"+name, func(b *testing.B) {
			for b.Loop() {
				got, err := s.Used(b.Context(), f)
				if err != nil || len(got.All) == 0 {
					b.Fatal(err)
				}
			}
		})
	}
	b.Run("lines", func(b *testing.B) {
		for b.Loop() {
			if got, err := s.LinesUsed(b.Context()); err != nil || len(got) != 13 {
				b.Fatal(err, len(got))
			}
		}
	})
}
