package store_test

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/line"
	"oarweed/core/locker"
	"oarweed/core/practice"
	"oarweed/core/rig"
	"oarweed/internal/app"
	"oarweed/internal/store"
)

func open(t testing.TB, path string) *store.Store {
	t.Helper()
	s, err := store.Open(context.Background(), path)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

func slip() rig.Document {
	return rig.Document{Version: 1, Name: "Slip", PeakKN: 2.4, Character: rig.Alternating, Consequence: rig.Boat, Weights: "rescue", Chain: []rig.Element{
		{Fitting: &rig.Fitting{Kind: "ring", SizeMM: 40, Surface: "aluminium"}},
		{Joint: &rig.Joint{Task: "moor", Release: rig.Slack, TailM: 1.2}},
		{Line: &rig.Line{Material: "polyester", Construction: line.Braid, DiameterMM: 12, Mu: 0.2, LengthM: 8}},
	}}
}

func attempt(learner int64, at time.Time) practice.Attempt {
	return practice.Attempt{LearnerID: learner, Knot: "bowline", Kind: practice.Tied, Outcome: practice.Right, Seconds: 12.5, Conditions: "dry", Judged: "instructor", At: at, ReceivedAt: at}
}

func learner(t testing.TB, s *store.Store, name string) practice.Learner {
	t.Helper()
	l, _, err := s.AddLearner(t.Context(), practice.Learner{Name: name})
	require.NoError(t, err)
	return l
}

func TestEverythingSurvivesReopening(t *testing.T) {
	ctx := t.Context()
	path := filepath.Join(t.TempDir(), "a b.db")
	s := open(t, path)
	assert.True(t, s.New)
	saved, err := s.SaveRig(ctx, rig.Saved{Rig: slip()})
	require.NoError(t, err)
	l, err := s.SaveLine(ctx, locker.Line{Name: "Painter", Note: "red", Line: *slip().Chain[2].Line})
	require.NoError(t, err)
	bram := learner(t, s, "Bram")
	at := time.Date(2026, 5, 1, 10, 0, 0, 123000, time.UTC)
	a, added, err := s.AddAttempt(ctx, attempt(bram.ID, at))
	require.NoError(t, err)
	assert.True(t, added)
	require.NoError(t, s.Close())

	s = open(t, path)
	assert.False(t, s.New)
	r, err := s.Rig(ctx, saved.ID)
	require.NoError(t, err)
	assert.Equal(t, saved, r)
	assert.Equal(t, slip(), r.Rig)
	lines, err := s.Lines(ctx)
	require.NoError(t, err)
	assert.Equal(t, []locker.Line{l}, lines)
	list, next, err := s.Attempts(ctx, app.Filter{Knot: "bowline"}, app.Page{Limit: 10})
	require.NoError(t, err)
	assert.Empty(t, next)
	assert.Equal(t, []practice.Attempt{a}, list)
	assert.Equal(t, at, list[0].At)
	info, err := os.Stat(path)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm(), "learners' names are in it")
}

// Two people change one rig: the second is told, with what the first made of it.
func TestALateChangeIsAConflict(t *testing.T) {
	ctx := t.Context()
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	first, err := s.SaveRig(ctx, rig.Saved{Rig: slip()})
	require.NoError(t, err)
	mine, theirs := first, first
	theirs.Rig.PeakKN = 3
	theirs, err = s.SaveRig(ctx, theirs)
	require.NoError(t, err)
	assert.Equal(t, first.Revision+1, theirs.Revision)
	mine.Rig.PeakKN = 4
	_, err = s.SaveRig(ctx, mine)
	var c *app.Conflict
	require.ErrorAs(t, err, &c)
	assert.False(t, c.NameTaken)
	assert.Equal(t, theirs, c.Kept)
	mine.Revision = theirs.Revision
	mine, err = s.SaveRig(ctx, mine)
	require.NoError(t, err, "with its eyes open it may")
	assert.Equal(t, 4.0, mine.Rig.PeakKN)

	l, err := s.SaveLine(ctx, locker.Line{Name: "x", Line: *slip().Chain[2].Line})
	require.NoError(t, err)
	_, err = s.SaveLine(ctx, l)
	require.NoError(t, err)
	_, err = s.SaveLine(ctx, l)
	assert.ErrorAs(t, err, &c)
	d, err := s.Doctrines(ctx)
	require.NoError(t, err)
	_, err = s.SetDoctrines(ctx, app.Chosen{Doctrines: map[string]string{"cleat": "no-lock"}, Revision: d.Revision})
	require.NoError(t, err)
	_, err = s.SetDoctrines(ctx, app.Chosen{Revision: d.Revision})
	assert.ErrorAs(t, err, &c)
	ailsa := learner(t, s, "Ailsa")
	_, err = s.SaveLearner(ctx, practice.Learner{ID: ailsa.ID, Revision: ailsa.Revision, Name: "Ailsa of the slip"})
	require.NoError(t, err)
	_, err = s.SaveLearner(ctx, practice.Learner{ID: ailsa.ID, Revision: ailsa.Revision, Name: "A."})
	assert.ErrorAs(t, err, &c)
}

func TestANameIsGivenOnce(t *testing.T) {
	ctx := t.Context()
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	first, err := s.SaveRig(ctx, rig.Saved{Rig: slip()})
	require.NoError(t, err)
	other := slip()
	other.Name = "SLIP"
	var c *app.Conflict
	_, err = s.SaveRig(ctx, rig.Saved{Rig: other})
	require.ErrorAs(t, err, &c)
	assert.True(t, c.NameTaken)
	assert.Equal(t, first, c.Kept)
	require.NoError(t, s.DeleteRig(ctx, first.ID))
	second, err := s.SaveRig(ctx, rig.Saved{Rig: other})
	require.NoError(t, err, "free again")
	assert.Greater(t, second.ID, first.ID)
	// However accents are written, and whatever the capitals, it is one learner.
	one := learner(t, s, "Zoë")
	assert.Equal(t, one, learner(t, s, "ZOË"))
	var again *app.Conflict
	two := learner(t, s, "Eskil")
	_, err = s.SaveLearner(ctx, practice.Learner{ID: two.ID, Revision: two.Revision, Name: "zoë"})
	require.ErrorAs(t, err, &again)
	assert.True(t, again.NameTaken)
}

func TestIdsAreNeverGivenAgain(t *testing.T) {
	ctx := t.Context()
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	bram := learner(t, s, "Bram")
	seen := map[int64]bool{}
	for range 5 {
		a, _, err := s.AddAttempt(ctx, attempt(bram.ID, time.Now()))
		require.NoError(t, err)
		assert.False(t, seen[a.ID])
		seen[a.ID] = true
		require.NoError(t, s.DeleteAttempt(ctx, a.ID))
		assert.ErrorIs(t, s.DeleteAttempt(ctx, a.ID), app.ErrNotFound)
	}
	for _, err := range []error{s.DeleteRig(ctx, 9), s.DeleteLine(ctx, 9), second(s.Rig(ctx, 9)), second(s.Line(ctx, 9)), second(s.Learner(ctx, 9)),
		second(s.SaveRig(ctx, rig.Saved{ID: 9, Revision: 1, Rig: slip()})), second(s.RestoreAttempt(ctx, 99))} {
		assert.ErrorIs(t, err, app.ErrNotFound)
	}
}

func second[T any](_ T, err error) error { return err }

// The same key sent again makes one record, whatever happened to the answer.
func TestAKeyMakesOneRecord(t *testing.T) {
	ctx := t.Context()
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	a := attempt(learner(t, s, "Bram").ID, time.Now())
	a.Key = "from-the-phone-1"
	one, added, err := s.AddAttempt(ctx, a)
	require.NoError(t, err)
	assert.True(t, added)
	two, added, err := s.AddAttempt(ctx, a)
	require.NoError(t, err)
	assert.False(t, added)
	assert.Equal(t, one, two)
	require.NoError(t, s.DeleteAttempt(ctx, one.ID))
	_, added, err = s.AddAttempt(ctx, a)
	require.NoError(t, err)
	assert.False(t, added, "taken back stays taken back")
}

// What a learner knows follows the attempts, taken back and brought back.
func TestKnowsFollowsTheLog(t *testing.T) {
	ctx := t.Context()
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	bram := learner(t, s, "Bram")
	knows := func() []string {
		l, err := s.Learner(ctx, bram.ID)
		require.NoError(t, err)
		return l.Knows
	}
	add := func(knot string, kind practice.Kind, outcome practice.Outcome) int64 {
		a := attempt(bram.ID, time.Now())
		a.Knot, a.Kind, a.Outcome = knot, kind, outcome
		a, _, err := s.AddAttempt(ctx, a)
		require.NoError(t, err)
		return a.ID
	}
	add("bowline", practice.Tied, practice.Fault)
	add("bowline", practice.Drill, practice.Right)
	assert.Empty(t, knows(), "neither a fault nor the screen shows it")
	one := add("bowline", practice.Tied, practice.Slow)
	two := add("bowline", practice.Tied, practice.Right)
	add("reef-knot", practice.Tied, practice.Right)
	assert.Equal(t, []string{"bowline", "reef-knot"}, knows())
	require.NoError(t, s.DeleteAttempt(ctx, one))
	assert.Contains(t, knows(), "bowline", "shown twice")
	require.NoError(t, s.DeleteAttempt(ctx, two))
	assert.Equal(t, []string{"reef-knot"}, knows())
	_, err := s.RestoreAttempt(ctx, two)
	require.NoError(t, err)
	assert.Equal(t, []string{"bowline", "reef-knot"}, knows())
}

// Pages follow each other without a gap or a double, also where times are equal and while
// others write.
func TestPagesOfTheLog(t *testing.T) {
	ctx := t.Context()
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	bram := learner(t, s, "Bram")
	at := time.Date(2026, 5, 1, 10, 0, 0, 0, time.UTC)
	for i := range 25 {
		_, _, err := s.AddAttempt(ctx, attempt(bram.ID, at.Add(time.Duration(i/4)*time.Second)))
		require.NoError(t, err)
	}
	seen, cursor := map[int64]bool{}, ""
	for page := 0; ; page++ {
		require.Less(t, page, 5)
		list, next, err := s.Attempts(ctx, app.Filter{LearnerID: bram.ID}, app.Page{Limit: 7, Cursor: cursor})
		require.NoError(t, err)
		for _, a := range list {
			assert.False(t, seen[a.ID])
			seen[a.ID] = true
		}
		_, _, err = s.AddAttempt(ctx, attempt(bram.ID, at.Add(time.Hour)))
		require.NoError(t, err)
		if cursor = next; next == "" {
			break
		}
	}
	assert.Len(t, seen, 25)
	_, _, err := s.Attempts(ctx, app.Filter{}, app.Page{Limit: 7, Cursor: "soon"})
	assert.ErrorContains(t, err, "cursor")
}

func TestForeignKeysHold(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	_, _, err := s.AddAttempt(t.Context(), attempt(7, time.Now()))
	assert.ErrorContains(t, err, "FOREIGN KEY")
	list, _, err := s.Attempts(t.Context(), app.Filter{}, app.Page{Limit: 10})
	require.NoError(t, err)
	assert.Empty(t, list)
}

// What is not an Oarweed database, is damaged or newer is refused with the true reason and
// not touched.
func TestOtherFilesAreLeftAlone(t *testing.T) {
	dir := t.TempDir()
	path := filepath.Join(dir, "x.db")
	s := open(t, path)
	for i := range 200 {
		learner(t, s, fmt.Sprint("learner ", i))
	}
	require.NoError(t, s.Close())
	whole, err := os.ReadFile(path)
	require.NoError(t, err)
	makeDB := func(name, statements string) []byte {
		p := filepath.Join(dir, name)
		if strings.HasPrefix(name, "newer") {
			require.NoError(t, os.WriteFile(p, whole, 0o600))
		}
		db, err := sql.Open("sqlite", p)
		require.NoError(t, err)
		_, err = db.Exec(statements)
		require.NoError(t, err)
		require.NoError(t, db.Close())
		text, err := os.ReadFile(p)
		require.NoError(t, err)
		return text
	}
	for name, x := range map[string]struct {
		text []byte
		says string
	}{
		"cut.db":      {whole[:len(whole)/2+100], "is damaged or is no Oarweed database"},
		"letter.db":   {[]byte("this is a letter, not a database, and a long one at that, so that it is longer than a page header would be: dear Fenna, the kelp punts want new painters before Saturday"), "is damaged or is no Oarweed database"},
		"foreign.db":  {makeDB("foreign.db", `CREATE TABLE song (id INTEGER); PRAGMA application_id = 77`), "of another program"},
		"unmarked.db": {makeDB("unmarked.db", `CREATE TABLE song (id INTEGER)`), "of another program"},
		"newer.db":    {makeDB("newer.db", `INSERT INTO goose_db_version (version_id, is_applied) VALUES (99, 1)`), "by a newer Oarweed (version 99"},
	} {
		p := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(p, x.text, 0o600))
		for range 2 { // and the second start says the same
			_, err := store.Open(t.Context(), p)
			require.Error(t, err, name)
			assert.ErrorContains(t, err, x.says)
			assert.ErrorContains(t, err, "left untouched")
			after, err := os.ReadFile(p)
			require.NoError(t, err)
			assert.True(t, bytes.Equal(x.text, after), name)
		}
		for _, more := range []string{"-wal", "-shm"} {
			assert.NoFileExists(t, p+more)
		}
	}
	_, err = store.Open(t.Context(), dir)
	assert.ErrorContains(t, err, "is a folder")
	_, err = store.Open(t.Context(), filepath.Join(dir, "letter.db", "x.db"))
	assert.ErrorContains(t, err, "cannot be written")
}

func TestOneServerAtATime(t *testing.T) {
	path := filepath.Join(t.TempDir(), "x.db")
	s := open(t, path)
	_, err := store.Open(t.Context(), path)
	assert.ErrorContains(t, err, "in use by another Oarweed")
	require.NoError(t, s.Close())
	open(t, path)
}

// old makes a database as the third version kept it.
func old(t *testing.T, path string) {
	t.Helper()
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	for _, name := range []string{"00001_first.sql", "00002_attempt_kind.sql", "00003_schools.sql"} {
		text, err := os.ReadFile(filepath.Join("migrations", name))
		require.NoError(t, err)
		up, _, _ := strings.Cut(string(text), "-- +goose Down")
		_, err = db.Exec(up)
		require.NoError(t, err)
	}
	_, err = db.Exec(`CREATE TABLE goose_db_version (id INTEGER PRIMARY KEY AUTOINCREMENT, version_id INTEGER NOT NULL, is_applied INTEGER NOT NULL, tstamp TIMESTAMP DEFAULT (datetime('now')));
		INSERT INTO goose_db_version (version_id, is_applied) VALUES (0, 1), (1, 1), (2, 1), (3, 1);
		INSERT INTO learner (id, name) VALUES (3, 'Ailsa'), (5, 'Bram');
		INSERT INTO attempt (id, learner_id, knot, kind, outcome, fault, seconds, conditions, at) VALUES
			(1, 3, 'bowline', 'tied', 'right', '', 12.3, 'wet', '2026-05-01T10:00:00.5Z'), (2, 3, 'bowline', 'tied', 'fault', 'tail-short', 0, 'dry', '2026-05-01T10:00:00Z'),
			(3, 5, 'reef-knot', 'drill', 'right', '', 1, 'dry', '2026-05-01T10:00:00.123456789Z'), (4, 5, 'reef-knot', 'tied', 'slow', '', 1, 'dry', '9999-12-31T23:00:00Z');
		INSERT INTO rig (id, name, peak_kn, character, dry, consequence, design_factor, changed_at) VALUES
			(2, 'Slip', 0.30000000000000004, 'steady', 1, 'gear', 6, '2026-05-01T10:00:00Z'), (4, 'slip', 2.4, 'snatch', 0, 'boat', 0, '2026-05-02T10:00:00.25Z');
		INSERT INTO rig_element VALUES (2, 0, 'fitting', '{"kind":"ring","size_mm":40}'), (2, 1, 'joint', '{"task":"moor"}'), (2, 2, 'line', '{"material":"polyester","diameter_mm":12.1}');
		INSERT INTO rig_element VALUES (4, 0, 'fitting', '{"kind":"ring"}'), (4, 1, 'joint', '{"task":"moor"}'), (4, 2, 'line', '{"material":"hmpe","label_kn":3}');
		INSERT INTO line (id, name, material, construction, diameter_mm, label_kn, wear, note) VALUES (7, 'Painter', 'polyester', 'braid', 10.1, 0, 2, 'red');
		INSERT INTO school VALUES ('cleat', 'no-lock')`)
	require.NoError(t, err)
	require.NoError(t, db.Close())
}

// A database of the version before is copied beside itself and then updated; nothing in it
// is lost, and what could not be kept any more is put right.
func TestUpdateKeepsEverything(t *testing.T) {
	ctx := t.Context()
	path := filepath.Join(t.TempDir(), "x.db")
	old(t, path)
	s := open(t, path)
	assert.Equal(t, path+".before-8-001", s.Copy)
	list, _, err := s.Attempts(ctx, app.Filter{LearnerID: 3}, app.Page{Limit: 10})
	require.NoError(t, err)
	require.Len(t, list, 2)
	assert.Equal(t, time.Date(2026, 5, 1, 10, 0, 0, 5e8, time.UTC), list[0].At)
	assert.Equal(t, practice.Attempt{ID: 2, LearnerID: 3, Learner: "Ailsa", Knot: "bowline", Kind: "tied", Outcome: "fault", Fault: "tail-short", Conditions: "dry", Judged: "instructor",
		At: time.Date(2026, 5, 1, 10, 0, 0, 0, time.UTC), ReceivedAt: time.Date(2026, 5, 1, 10, 0, 0, 0, time.UTC)}, list[1])
	list, _, err = s.Attempts(ctx, app.Filter{LearnerID: 5}, app.Page{Limit: 10})
	require.NoError(t, err)
	require.Len(t, list, 2)
	assert.WithinDuration(t, time.Now(), list[0].At, time.Hour, "a time in the far future, which killed the log")
	assert.Equal(t, time.Date(2026, 5, 1, 10, 0, 0, 123456000, time.UTC), list[1].At)
	learners, err := s.Learners(ctx)
	require.NoError(t, err)
	assert.Equal(t, []practice.Learner{{ID: 3, Name: "Ailsa", Knows: []string{"bowline"}, Revision: 1}, {ID: 5, Name: "Bram", Knows: []string{"reef-knot"}, Revision: 1}}, learners)
	one, err := s.Rig(ctx, 2)
	require.NoError(t, err)
	assert.Equal(t, rig.Document{Version: 1, Name: "Slip", PeakKN: 0.30000000000000004, Character: "steady", Dry: true, Consequence: "gear", DesignFactor: 6, Chain: []rig.Element{
		{Fitting: &rig.Fitting{Kind: "ring", SizeMM: 40}}, {Joint: &rig.Joint{Task: "moor"}}, {Line: &rig.Line{Material: "polyester", DiameterMM: 12.1}}}}, one.Rig)
	two, err := s.Rig(ctx, 4)
	require.NoError(t, err)
	assert.Equal(t, "slip (2)", two.Rig.Name, "one rig to a name")
	assert.Equal(t, time.Date(2026, 5, 2, 10, 0, 0, 25e7, time.UTC), two.ChangedAt)
	l, err := s.Line(ctx, 7)
	require.NoError(t, err)
	assert.Equal(t, locker.Line{ID: 7, Code: locker.CodeOf(7), Name: "Painter", Note: "red", Revision: 1, Line: rig.Line{Material: "polyester", Construction: "braid", DiameterMM: 10.1, Wear: 2}}, l)
	d, err := s.Doctrines(ctx)
	require.NoError(t, err)
	assert.Equal(t, map[string]string{"cleat": "no-lock"}, d.Doctrines)
	require.NoError(t, s.Close())
	require.NoError(t, store.Verify(ctx, path))
	require.NoError(t, store.Verify(ctx, path+".before-8-001"), "the copy is one of the version before")
}

// An update that fails leaves the database as it was, for the Oarweed that wrote it, as
// often as it is tried.
func TestAFailedUpdateIsUndone(t *testing.T) {
	path := filepath.Join(t.TempDir(), "x.db")
	old(t, path)
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	_, err = db.Exec(`CREATE TABLE rig_next (in_the_way INTEGER)`)
	require.NoError(t, err)
	require.NoError(t, db.Close())
	for n := range 3 {
		_, err = store.Open(t.Context(), path)
		assert.ErrorContains(t, err, "updating")
		assert.FileExists(t, fmt.Sprintf("%s.before-8-%03d", path, n+1))
		db, err := sql.Open("sqlite", path)
		require.NoError(t, err)
		var version, learners int
		require.NoError(t, db.QueryRow(`SELECT max(version_id), (SELECT count(*) FROM learner) FROM goose_db_version`).Scan(&version, &learners))
		assert.Equal(t, 3, version)
		assert.Equal(t, 2, learners)
		if n == 1 {
			_, err = db.Exec(`DROP TABLE rig_next`)
			require.NoError(t, err)
			require.NoError(t, db.Close())
			break
		}
		require.NoError(t, db.Close())
	}
	s := open(t, path)
	assert.Equal(t, path+".before-8-003", s.Copy)
}

// One byte changed inside a text is no damage to SQLite; the checksum of its row tells.
func TestVerifyFindsOneChangedByte(t *testing.T) {
	ctx := t.Context()
	path := filepath.Join(t.TempDir(), "x.db")
	s := open(t, path)
	learner(t, s, "Ailsa of the slip")
	_, err := s.SaveRig(ctx, rig.Saved{Rig: slip()})
	require.NoError(t, err)
	require.NoError(t, store.Backup(ctx, path, path+".backup"), "while it is open")
	assert.ErrorContains(t, store.Backup(ctx, path, path+".backup"), "exists already")
	require.NoError(t, s.Close())
	require.NoError(t, store.Verify(ctx, path))
	text, err := os.ReadFile(path)
	require.NoError(t, err)
	at := bytes.Index(text, []byte("Ailsa of the slip"))
	require.Positive(t, at)
	text[at] = 'E'
	require.NoError(t, os.WriteFile(path, text, 0o600))
	assert.ErrorContains(t, store.Verify(ctx, path), "learner 1 is not what was written")
	assert.ErrorContains(t, store.Backup(ctx, path, path+".second"), "learner 1")

	kept, err := store.Restore(ctx, path+".backup", path)
	require.NoError(t, err)
	assert.FileExists(t, kept, "what was there is kept")
	require.NoError(t, store.Verify(ctx, path))
	s = open(t, path)
	_, err = store.Restore(ctx, path+".backup", path)
	assert.ErrorContains(t, err, "in use")
	l, err := s.Learner(ctx, 1)
	require.NoError(t, err)
	assert.Equal(t, "Ailsa of the slip", l.Name)
	_, err = store.Restore(ctx, kept, path+".other")
	assert.ErrorContains(t, err, "learner 1", "nothing damaged is restored")
}

func TestExportAndImport(t *testing.T) {
	ctx := t.Context()
	cat, err := catalogue.Load()
	require.NoError(t, err)
	dir := t.TempDir()
	s := open(t, filepath.Join(dir, "a.db"))
	bram := learner(t, s, "Bram")
	a := attempt(bram.ID, time.Now().Truncate(time.Microsecond))
	a.Key = "k"
	_, _, err = s.AddAttempt(ctx, a)
	require.NoError(t, err)
	full, err := cat.Fill(slip())
	require.NoError(t, err)
	_, err = s.SaveRig(ctx, rig.Saved{Rig: full})
	require.NoError(t, err)
	_, err = s.SaveLine(ctx, locker.Line{Name: "Painter", Line: *slip().Chain[2].Line})
	require.NoError(t, err)
	d, err := s.Doctrines(ctx)
	require.NoError(t, err)
	_, err = s.SetDoctrines(ctx, app.Chosen{Doctrines: map[string]string{"cleat": "no-lock"}, Revision: d.Revision})
	require.NoError(t, err)
	out, err := s.Export(ctx)
	require.NoError(t, err)
	text, err := json.Marshal(out)
	require.NoError(t, err)
	again, err := store.ExportFile(ctx, filepath.Join(dir, "a.db"))
	require.NoError(t, err, "while it is open")
	assert.Equal(t, out, again)

	b := open(t, filepath.Join(dir, "b.db"))
	_, err = b.Import(ctx, bytes.NewReader(text), cat)
	require.NoError(t, err)
	back, err := b.Export(ctx)
	require.NoError(t, err)
	assert.Equal(t, out, back)
	_, err = b.Import(ctx, bytes.NewReader(text), cat)
	assert.ErrorContains(t, err, "holds records already")
	for from, to := range map[string]string{`"oarweed_data":1`: `"oarweed_data":9`, `"knot":"bowline"`: `"knot":"sky-hook"`, `"learner_id":1`: `"learner_id":7`, `"no-lock"`: `"no-knot"`, `{"oarweed`: `{"x":1,"oarweed`} {
		c := open(t, filepath.Join(t.TempDir(), "c.db"))
		_, err = c.Import(ctx, strings.NewReader(strings.Replace(string(text), from, to, 1)), cat)
		assert.Error(t, err, to)
		none, err := c.Learners(ctx)
		require.NoError(t, err)
		assert.Empty(t, none, "all or nothing")
	}
}

// Reads while others write: no list with a hole, no rig half of one and half of another.
func TestReadsSeeOneMoment(t *testing.T) {
	ctx := t.Context()
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	r, err := s.SaveRig(ctx, rig.Saved{Rig: slip()})
	require.NoError(t, err)
	stop := make(chan struct{})
	done := make(chan error, 1)
	go func() {
		defer close(done)
		for n := 1; ; n++ {
			select {
			case <-stop:
				return
			default:
			}
			r.Rig.PeakKN = float64(n)
			r.Rig.Chain[2].Line.LengthM = float64(n)
			if r, err = s.SaveRig(context.Background(), r); err != nil {
				done <- err
				return
			}
		}
	}()
	for range 300 {
		list, err := s.Rigs(ctx)
		require.NoError(t, err)
		require.Len(t, list, 1)
		if got := list[0].Rig; got.PeakKN != 2.4 {
			require.Equal(t, got.PeakKN, got.Chain[2].Line.LengthM)
		}
	}
	close(stop)
	require.NoError(t, <-done)
}

func TestAcknowledgedMeansOnDisk(t *testing.T) {
	path := filepath.Join(t.TempDir(), "x.db")
	s := open(t, path)
	pragma := func(name string) string { return s.Pragma(t.Context(), name) }
	assert.Equal(t, "wal", pragma("journal_mode"))
	assert.Equal(t, "2", pragma("synchronous"), "FULL")
	assert.Equal(t, "1", pragma("foreign_keys"))
}

// A class of a thousand with 300,000 attempts: one attempt written, the class listed.
func BenchmarkLargeSchool(b *testing.B) {
	s := open(b, filepath.Join(b.TempDir(), "x.db"))
	require.NoError(b, s.Seed(b.Context(), 1000, 1_000_000))
	began := time.Now()
	require.NoError(b, s.UseTargets(b.Context(), func(string) float64 { return 20 }))
	b.Logf("counted anew in %s", time.Since(began).Round(time.Millisecond))
	b.Run("attempt", func(b *testing.B) {
		worst := time.Duration(0)
		var all []time.Duration
		for b.Loop() {
			began := time.Now()
			if _, _, err := s.AddAttempt(b.Context(), attempt(7, began)); err != nil {
				b.Fatal(err)
			}
			all = append(all, time.Since(began))
			worst = max(worst, all[len(all)-1])
		}
		b.ReportMetric(float64(store.Percentile(all, 99).Microseconds())/1e3, "p99-ms")
		b.ReportMetric(float64(worst.Microseconds())/1e3, "max-ms")
	})
	b.Run("board", func(b *testing.B) {
		for b.Loop() {
			if list, err := s.Board(b.Context()); err != nil || len(list) != 1000 || len(list[7].Cells) < 5 {
				b.Fatal(err, len(list))
			}
		}
	})
	b.Run("due", func(b *testing.B) {
		for b.Loop() {
			if list, err := s.Due(b.Context(), 0, time.Date(2100, 1, 1, 0, 0, 0, 0, time.UTC), 200); err != nil || len(list) != 200 {
				b.Fatal(err, len(list))
			}
		}
	})
	b.Run("totals", func(b *testing.B) {
		for b.Loop() {
			if _, err := s.Totals(b.Context(), app.Filter{LearnerID: 7}, 60); err != nil {
				b.Fatal(err)
			}
		}
	})
	b.Run("learners", func(b *testing.B) {
		for b.Loop() {
			list, err := s.Learners(b.Context())
			if err != nil || len(list) != 1000 {
				b.Fatal(err, len(list))
			}
		}
	})
	b.Run("log", func(b *testing.B) {
		for b.Loop() {
			if _, _, err := s.Attempts(b.Context(), app.Filter{LearnerID: 7}, app.Page{Limit: 50}); err != nil {
				b.Fatal(err)
			}
		}
	})
}
