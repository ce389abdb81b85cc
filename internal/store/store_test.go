package store_test

import (
	"context"
	"database/sql"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/line"
	"oarweed/core/rig"
	"oarweed/internal/store"
)

func open(t *testing.T, path string) *store.Store {
	t.Helper()
	s, err := store.Open(context.Background(), path)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

func TestEverythingSurvivesReopening(t *testing.T) {
	ctx := t.Context()
	path := filepath.Join(t.TempDir(), "a b.db")
	s := open(t, path)
	doc := rig.Document{Version: 1, Name: "Slip", PeakKN: 2.4, Character: rig.Alternating, Consequence: rig.Boat, Chain: []rig.Element{
		{Fitting: &rig.Fitting{Kind: "ring", SizeMM: 40, Surface: "aluminium"}},
		{Joint: &rig.Joint{Task: "moor", Release: rig.Slack, TailM: 1.2}},
		{Line: &rig.Line{Material: "polyester", Construction: line.Braid, DiameterMM: 12}},
	}}
	id, err := s.SaveRig(ctx, store.Rig{Rig: doc})
	require.NoError(t, err)
	lineID, err := s.SaveLine(ctx, store.Line{Name: "Painter", Line: *doc.Chain[2].Line})
	require.NoError(t, err)
	bram, err := s.AddLearner(ctx, "Bram")
	require.NoError(t, err)
	at := time.Date(2026, 5, 1, 10, 0, 0, 123, time.UTC)
	_, err = s.AddAttempt(ctx, store.Attempt{LearnerID: bram.ID, Knot: "bowline", Outcome: "fault", Fault: "tail-short", Seconds: 12.5, At: at})
	require.NoError(t, err)
	require.NoError(t, s.Close())

	s = open(t, path)
	r, err := s.Rig(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, doc, r.Rig)
	lines, err := s.Lines(ctx)
	require.NoError(t, err)
	assert.Equal(t, []store.Line{{ID: lineID, Name: "Painter", Line: *doc.Chain[2].Line}}, lines)
	attempts, err := s.Attempts(ctx, "bowline", 10)
	require.NoError(t, err)
	require.Len(t, attempts, 1)
	assert.Equal(t, "Bram", attempts[0].Learner)
	assert.Equal(t, "dry", attempts[0].Conditions)
	assert.True(t, at.Equal(attempts[0].At))

	doc.Name, doc.Chain[1].Joint.Knot = "Slip again", "bowline"
	_, err = s.SaveRig(ctx, store.Rig{ID: id, Rig: doc})
	require.NoError(t, err)
	rigs, err := s.Rigs(ctx)
	require.NoError(t, err)
	require.Len(t, rigs, 1)
	assert.Equal(t, doc, rigs[0].Rig)
	require.NoError(t, s.DeleteRig(ctx, id))
	assert.ErrorIs(t, s.DeleteRig(ctx, id), store.ErrNotFound)
	_, err = s.Rig(ctx, id)
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = s.SaveLine(ctx, store.Line{ID: 999, Name: "x", Line: *doc.Chain[2].Line})
	assert.ErrorIs(t, err, store.ErrNotFound)
}

func TestLearnersAreOnePerName(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	a, err := s.AddLearner(t.Context(), "Ailsa")
	require.NoError(t, err)
	b, err := s.AddLearner(t.Context(), "ailsa")
	require.NoError(t, err)
	assert.Equal(t, a, b)
}

func TestForeignKeysAndChecksHold(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	_, err := s.AddAttempt(t.Context(), store.Attempt{LearnerID: 7, Knot: "bowline", Outcome: "right"})
	assert.ErrorContains(t, err, "FOREIGN KEY")
	l, err := s.AddLearner(t.Context(), "Ailsa")
	require.NoError(t, err)
	_, err = s.AddAttempt(t.Context(), store.Attempt{LearnerID: l.ID, Knot: "bowline", Outcome: "splendid"})
	assert.ErrorContains(t, err, "CHECK")
	list, err := s.Attempts(t.Context(), "", 10)
	require.NoError(t, err)
	assert.Empty(t, list)
}

// A database cut short, or another file by that name, is refused and not touched.
func TestDamagedFilesAreLeftAlone(t *testing.T) {
	dir := t.TempDir()
	path := filepath.Join(dir, "x.db")
	s := open(t, path)
	for range 200 {
		_, err := s.AddLearner(t.Context(), time.Now().String())
		require.NoError(t, err)
	}
	require.NoError(t, s.Close())
	whole, err := os.ReadFile(path)
	require.NoError(t, err)
	for name, text := range map[string][]byte{"cut.db": whole[:len(whole)/2+100], "other.db": []byte("this is a letter, not a database, and a long one at that")} {
		damaged := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(damaged, text, 0o600))
		_, err := store.Open(t.Context(), damaged)
		require.Error(t, err, name)
		assert.ErrorContains(t, err, "is damaged or is no Oarweed database")
		assert.ErrorContains(t, err, "left untouched")
		after, err := os.ReadFile(damaged)
		require.NoError(t, err)
		assert.Equal(t, text, after, name)
	}
}

// A database of the version before is copied beside itself and then updated.
func TestUpdateKeepsACopy(t *testing.T) {
	path := filepath.Join(t.TempDir(), "x.db")
	s := open(t, path)
	l, err := s.AddLearner(t.Context(), "Ailsa")
	require.NoError(t, err)
	_, err = s.AddAttempt(t.Context(), store.Attempt{LearnerID: l.ID, Knot: "bowline", Outcome: "right"})
	require.NoError(t, err)
	require.NoError(t, s.Close())
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	_, err = db.Exec(`ALTER TABLE attempt DROP COLUMN kind; DROP TABLE school; DELETE FROM goose_db_version WHERE version_id >= 2`)
	require.NoError(t, err)
	require.NoError(t, db.Close())

	s = open(t, path)
	list, err := s.Attempts(t.Context(), "", 10)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, "tied", list[0].Kind)
	before, err := sql.Open("sqlite", path+".before-3")
	require.NoError(t, err)
	defer before.Close()
	var n int
	require.NoError(t, before.QueryRow(`SELECT count(*) FROM attempt`).Scan(&n))
	assert.Equal(t, 1, n)
	assert.Error(t, before.QueryRow(`SELECT kind FROM attempt`).Err(), "the copy is as it was")
}

func TestWALAndForeignKeysAreOn(t *testing.T) {
	path := filepath.Join(t.TempDir(), "x.db")
	open(t, path)
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	defer db.Close()
	var mode string
	require.NoError(t, db.QueryRow("PRAGMA journal_mode").Scan(&mode))
	assert.Equal(t, "wal", mode)
}

func TestSchoolsAreReplacedAsAWhole(t *testing.T) {
	path := filepath.Join(t.TempDir(), "x.db")
	s := open(t, path)
	none, err := s.Schools(t.Context())
	require.NoError(t, err)
	assert.Empty(t, none)
	require.NoError(t, s.SetSchools(t.Context(), map[string]string{"cleat": "no-lock", "rolling": "three"}))
	require.NoError(t, s.SetSchools(t.Context(), map[string]string{"cleat": "one-of-each"}))
	require.NoError(t, s.Close())
	chosen, err := open(t, path).Schools(t.Context())
	require.NoError(t, err)
	assert.Equal(t, map[string]string{"cleat": "one-of-each"}, chosen)
}
