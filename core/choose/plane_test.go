package choose_test

import (
	"context"
	"encoding/json"
	"errors"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/choose"
	"oarweed/core/rig"
)

func parsed(t testing.TB, text string) rig.Document {
	t.Helper()
	d, err := rig.Parse(strings.NewReader(text))
	require.NoError(t, err)
	return d
}

const joinSixToTwelve = `{"chain":[{"line":{"material":"polyester","construction":"braid","diameter_mm":12}},{"joint":{"task":"join"}},{"line":{"material":"polyester","construction":"braid","diameter_mm":6}}],"peak_kn":0.4}`

func TestMapAgreesWithTheAnswerInEveryCell(t *testing.T) {
	d := parsed(t, joinSixToTwelve)
	p, err := choose.NewPlane(d, choose.Axis{Input: "line.diameter", From: 3, To: 12}, choose.Axis{Input: "other.diameter", From: 6, To: 40}, 12, 9)
	require.NoError(t, err)
	seen := map[int]bool{}
	winners := map[string]bool{}
	require.NoError(t, choose.Map(t.Context(), cat, d, p, func(r choose.Row) error {
		assert.False(t, seen[r.Row], "each row once")
		seen[r.Row] = true
		for x, knot := range r.Knots {
			winners[knot] = true
			alone := parsed(t, joinSixToTwelve)
			alone.Chain[2].Line.DiameterMM = p.X.From * math.Pow(p.X.To/p.X.From, (float64(x)+0.5)/12)
			alone.Chain[0].Line.DiameterMM = p.Y.From * math.Pow(p.Y.To/p.Y.From, (float64(r.Row)+0.5)/9)
			resolved, err := cat.Resolve(alone)
			require.NoError(t, err)
			a, err := choose.For(cat, resolved)
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
	p, err := choose.NewPlane(d, choose.Axis{Input: "load"}, choose.Axis{Input: "line.diameter"}, 64, 64)
	require.NoError(t, err)
	gone := errors.New("gone")
	rows := 0
	err = choose.Map(t.Context(), cat, d, p, func(choose.Row) error { rows++; return gone })
	assert.ErrorIs(t, err, gone)
	assert.Less(t, rows, 64)
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	assert.ErrorIs(t, choose.Map(ctx, cat, d, p, func(choose.Row) error { return nil }), context.Canceled)
}

func TestPlaneRefusesWhatCannotBeDrawn(t *testing.T) {
	d := parsed(t, joinSixToTwelve)
	for _, c := range []struct {
		x, y choose.Axis
		says string
	}{
		{choose.Axis{Input: "colour"}, choose.Axis{Input: "load"}, "line.diameter"},
		{choose.Axis{Input: "fitting.size"}, choose.Axis{Input: "load"}, "not a number of this rig"},
		{choose.Axis{Input: "load"}, choose.Axis{Input: "load"}, "the same as x"},
		{choose.Axis{Input: "load", From: 3, To: 1}, choose.Axis{Input: "tail"}, "not a range"},
	} {
		_, err := choose.NewPlane(d, c.x, c.y, 8, 8)
		assert.ErrorContains(t, err, c.says)
	}
	_, err := choose.NewPlane(d, choose.Axis{Input: "load"}, choose.Axis{Input: "tail"}, 1, 900)
	assert.ErrorContains(t, err, "2 to 256")
}

// Every input can be turned in a rig that has it, and shows in the document.
func TestEveryInputCanBeTurned(t *testing.T) {
	for _, text := range []string{joinSixToTwelve, quay} {
		d := parsed(t, text)
		before, err := json.Marshal(d)
		require.NoError(t, err)
		for _, in := range choose.Inputs(d) {
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
		changes, err := choose.Changes(cat, d)
		require.NoError(t, err)
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
			in, err := choose.InputFor(resolvedDocument(t, d), "", x.Input)
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
	changes, err := choose.Changes(cat, parsed(t, quay))
	require.NoError(t, err)
	says := ""
	for _, x := range changes {
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
	r, err := cat.Resolve(d)
	require.NoError(t, err)
	a, err := choose.For(cat, r)
	require.NoError(t, err)
	return first(a)
}

func BenchmarkMap64(b *testing.B) {
	d := parsed(b, joinSixToTwelve)
	p, err := choose.NewPlane(d, choose.Axis{Input: "line.diameter"}, choose.Axis{Input: "load"}, 64, 64)
	require.NoError(b, err)
	for b.Loop() {
		if err := choose.Map(b.Context(), cat, d, p, func(choose.Row) error { return nil }); err != nil {
			b.Fatal(err)
		}
	}
}

func BenchmarkChances(b *testing.B) {
	r, err := cat.Resolve(parsed(b, quay))
	require.NoError(b, err)
	a, err := choose.For(cat, r)
	require.NoError(b, err)
	for b.Loop() {
		choose.Chances(cat, a)
	}
}

func BenchmarkChanges(b *testing.B) {
	d := parsed(b, quay)
	for b.Loop() {
		if _, err := choose.Changes(cat, d); err != nil {
			b.Fatal(err)
		}
	}
}
