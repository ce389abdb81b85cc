package demo_test

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/internal/app"
	"oarweed/internal/demo"
	"oarweed/internal/store"
)

// The demo data is sound: every rig has an answer, every line can be rated, every
// attempt names a knot and a fault of the catalogue.
func TestDemoDataIsSound(t *testing.T) {
	ctx := t.Context()
	cat, err := catalogue.Load()
	require.NoError(t, err)
	s, err := store.Open(ctx, filepath.Join(t.TempDir(), "demo.db"))
	require.NoError(t, err)
	defer s.Close()
	school, err := app.NewSchool(ctx, cat, s, nil)
	require.NoError(t, err)
	now := time.Date(2026, 6, 1, 12, 0, 0, 0, time.UTC)
	did, err := demo.Fill(ctx, school, now)
	require.NoError(t, err)
	assert.True(t, did)

	rigs, err := s.Rigs(ctx)
	require.NoError(t, err)
	assert.Equal(t, "Workboat at the slip", rigs[0].Rig.Name, "the last saved comes up first")
	for _, r := range rigs {
		a, err := school.CheckRig(ctx, r.Rig)
		require.NoError(t, err, r.Rig.Name)
		for _, j := range a.Joints {
			assert.NotEmpty(t, j.Knot, "%s, %s", r.Rig.Name, j.Where)
		}
	}
	lines, err := s.Lines(ctx)
	require.NoError(t, err)
	for _, l := range lines {
		assert.NoError(t, cat.CheckLine(&l.Line), l.Name)
	}
	attempts, _, err := s.Attempts(ctx, app.Filter{}, app.Page{Limit: 100})
	require.NoError(t, err)
	for _, a := range attempts {
		k := cat.Knot(a.Knot)
		require.NotNil(t, k, a.Knot)
		assert.True(t, a.At.Before(now))
		known := a.Fault == ""
		for _, f := range k.Faults {
			known = known || f.Code == a.Fault
		}
		assert.True(t, known, "%s has no fault %s", a.Knot, a.Fault)
	}

	did, err = demo.Fill(ctx, school, now)
	require.NoError(t, err)
	assert.False(t, did, "a second start keeps the data")
	again, _, err := s.Attempts(ctx, app.Filter{}, app.Page{Limit: 100})
	require.NoError(t, err)
	assert.Len(t, again, len(attempts))
}
