package app_test

import (
	"context"
	"encoding/json"
	"errors"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/rig"
	"oarweed/core/whatif"
	"oarweed/internal/app"
)

func parsed(t testing.TB, text string) rig.Document {
	t.Helper()
	d, err := rig.Parse(strings.NewReader(text))
	require.NoError(t, err)
	return d
}

// mapped works a plane out row by row.
func mapped(ctx context.Context, d rig.Document, p whatif.Plane, row func(whatif.Row) error) error {
	_, work, err := here.Map(context.Background(), d, app.MapQuery{X: p.X.Input, XFrom: p.X.From, XTo: p.X.To, Y: p.Y.Input, YFrom: p.Y.From, YTo: p.Y.To, Columns: p.Columns, Rows: p.Rows})
	if err != nil {
		return err
	}
	return work(ctx, row)
}

const joinSixToTwelve = `{"chain":[{"line":{"material":"polyester","construction":"braid","diameter_mm":12}},{"joint":{"task":"join"}},{"line":{"material":"polyester","construction":"braid","diameter_mm":6}}],"peak_kn":0.4}`

func TestMapAgreesWithTheAnswerInEveryCell(t *testing.T) {
	d := parsed(t, joinSixToTwelve)
	p, err := whatif.NewPlane(d, whatif.Axis{Input: "line.diameter", From: 3, To: 12}, whatif.Axis{Input: "other.diameter", From: 6, To: 40}, 12, 9)
	require.NoError(t, err)
	seen := map[int]bool{}
	winners := map[string]bool{}
	require.NoError(t, mapped(t.Context(), d, p, func(r whatif.Row) error {
		assert.False(t, seen[r.Row], "each row once")
		seen[r.Row] = true
		for x, knot := range r.Knots {
			winners[knot] = true
			alone := parsed(t, joinSixToTwelve)
			alone.Chain[2].Line.DiameterMM = p.X.From * math.Pow(p.X.To/p.X.From, (float64(x)+0.5)/12)
			alone.Chain[0].Line.DiameterMM = p.Y.From * math.Pow(p.Y.To/p.Y.From, (float64(r.Row)+0.5)/9)
			a, err := here.Choose(context.Background(), alone)
			require.NoError(t, err)
			want := ""
			if len(a.Ranked) > 0 {
				want = a.Ranked[0].Knot
			}
			assert.Equal(t, want, knot)
		}
		return nil
	}))
	assert.Len(t, seen, 9)
	assert.Greater(t, len(winners), 2, "the map shows more than one knot")
	assert.Equal(t, 6.0, p.X.Now)
	assert.Equal(t, 12.0, d.Chain[0].Line.DiameterMM, "the rig is left alone")
}

func TestMapStopsWhenItsReaderDoes(t *testing.T) {
	d := parsed(t, joinSixToTwelve)
	p, err := whatif.NewPlane(d, whatif.Axis{Input: "load"}, whatif.Axis{Input: "line.diameter"}, 64, 64)
	require.NoError(t, err)
	gone := errors.New("gone")
	rows := 0
	err = mapped(t.Context(), d, p, func(whatif.Row) error { rows++; return gone })
	assert.ErrorIs(t, err, gone)
	assert.Less(t, rows, 64)
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	assert.ErrorIs(t, mapped(ctx, d, p, func(whatif.Row) error { return nil }), context.Canceled)
}

func TestPlaneRefusesWhatCannotBeDrawn(t *testing.T) {
	d := parsed(t, joinSixToTwelve)
	for _, c := range []struct {
		x, y whatif.Axis
		says string
	}{
		{whatif.Axis{Input: "colour"}, whatif.Axis{Input: "load"}, "line.diameter"},
		{whatif.Axis{Input: "fitting.size"}, whatif.Axis{Input: "load"}, "not a number of this rig"},
		{whatif.Axis{Input: "load"}, whatif.Axis{Input: "load"}, "the same as x"},
		{whatif.Axis{Input: "load", From: 3, To: 1}, whatif.Axis{Input: "tail"}, "not a range"},
	} {
		_, err := whatif.NewPlane(d, c.x, c.y, 8, 8)
		assert.ErrorContains(t, err, c.says)
	}
	_, err := whatif.NewPlane(d, whatif.Axis{Input: "load"}, whatif.Axis{Input: "tail"}, 1, 900)
	assert.ErrorContains(t, err, "2 to 256")
}

// Every input can be turned in a rig that has it, and shows in the document.
func TestEveryInputCanBeTurned(t *testing.T) {
	for _, text := range []string{joinSixToTwelve, quay} {
		d := parsed(t, text)
		before, err := json.Marshal(d)
		require.NoError(t, err)
		for _, in := range rig.Inputs(d) {
			changed, err := json.Marshal(in.With(d, in.Min*2))
			require.NoError(t, err)
			assert.NotEqual(t, string(before), string(changed), in.ID)
			still, _ := json.Marshal(d)
			assert.Equal(t, string(before), string(still), "%s leaves the rig alone", in.ID)
		}
	}
}

// The edge that Changes names is one: just inside the first choice is the old
// one, just outside the new.
func TestChangesNameTrueEdges(t *testing.T) {
	for _, text := range []string{joinSixToTwelve, quay} {
		d := parsed(t, text)
		out, err := here.Changes(t.Context(), d)
		require.NoError(t, err)
		changes := out.Changes
		require.NotEmpty(t, changes)
		before := first(answer(t, text))
		numbers := 0
		for _, x := range changes {
			assert.NotEmpty(t, x.Says)
			assert.NotEqual(t, before, x.Knot)
			if x.To == 0 {
				continue
			}
			numbers++
			in, err := rig.InputFor(resolvedDocument(t, d), "", x.Input)
			require.NoError(t, err)
			outside := in.With(resolvedDocument(t, d), x.To)
			inside := in.With(resolvedDocument(t, d), x.To+(x.From-x.To)*0.02)
			assert.Equal(t, x.Knot, firstOf(t, outside), x.Says)
			assert.Equal(t, before, firstOf(t, inside), x.Says)
		}
		assert.Greater(t, numbers, 0)
	}
}

func TestChangesNameTheMaterialAndTheWay(t *testing.T) {
	out, err := here.Changes(t.Context(), parsed(t, quay))
	require.NoError(t, err)
	says := ""
	for _, x := range out.Changes {
		says += x.Says + "\n"
	}
	assert.Contains(t, says, "In HMPE,")
	assert.Contains(t, says, "If it must come off from a distance, the sampan hitch takes over.")
}

func resolvedDocument(t *testing.T, d rig.Document) rig.Document {
	t.Helper()
	r, err := cat.Resolve(d)
	require.NoError(t, err)
	return r.Document
}

func firstOf(t *testing.T, d rig.Document) string {
	t.Helper()
	a, err := here.Choose(context.Background(), d)
	require.NoError(t, err)
	return first(a)
}

func BenchmarkMap64(b *testing.B) {
	d := parsed(b, joinSixToTwelve)
	p, err := whatif.NewPlane(d, whatif.Axis{Input: "line.diameter"}, whatif.Axis{Input: "load"}, 64, 64)
	require.NoError(b, err)
	for b.Loop() {
		if err := mapped(b.Context(), d, p, func(whatif.Row) error { return nil }); err != nil {
			b.Fatal(err)
		}
	}
}

func BenchmarkChances(b *testing.B) {
	d := parsed(b, quay)
	for b.Loop() {
		if _, err := here.Chances(b.Context(), d); err != nil {
			b.Fatal(err)
		}
	}
}

func BenchmarkChanges(b *testing.B) {
	d := parsed(b, quay)
	for b.Loop() {
		if _, err := here.Changes(b.Context(), d); err != nil {
			b.Fatal(err)
		}
	}
}
