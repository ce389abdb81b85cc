package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"time"

	"oarweed/core/locker"
	"oarweed/core/practice"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/trade"
	"oarweed/core/usage"
	"oarweed/internal/app"
)

// checks are the queries that name rows whose checksum is not that of what they say.
var checks = []struct{ table, query string }{
	{"rig", `SELECT id FROM rig WHERE checksum <> checksum(name_key, body)`},
	{"line", `SELECT id FROM line WHERE checksum <> checksum(name_key, body)`},
	{"learner", `SELECT id FROM learner WHERE checksum <> checksum(name, body)`},
	{"attempt", `SELECT id FROM attempt WHERE checksum <> checksum(learner_id, knot, kind, outcome, fault, seconds, conditions, help, side, judged, at, received_at) OR strftime('%s', at) IS NULL`},
	{"document", `SELECT id FROM document WHERE checksum <> checksum(kind, body)`},
	{"photo", `SELECT id FROM photo WHERE checksum <> checksum(body)`},
	{"reading", `SELECT chunk FROM reading WHERE checksum <> checksum(pull, chunk, body)`},
	{"usage", `SELECT id FROM usage WHERE checksum <> checksum(at, line, other, knot, outcome, body)`},
	{"inspection", `SELECT id FROM inspection WHERE checksum <> checksum(body, received_at)`},
}

// Verify reads a database file from end to end: pages, keys, and every row against its
// checksum. It writes nothing, and a server may be running. The error names what is wrong.
func Verify(ctx context.Context, path string) error {
	version, err := inspect(ctx, path)
	if err != nil {
		return err
	}
	if version == fresh {
		return problem.New(path, "is not there, or is empty", "name a database file")
	}
	target, err := lastVersion()
	if err != nil {
		return err
	}
	db, err := openUntouched(path)
	if err != nil {
		return err
	}
	defer db.Close()
	var bad problem.List
	text := func(scan func(...any) error) (s string, err error) { err = scan(&s); return }
	found, err := list(ctx, db, text, "PRAGMA integrity_check")
	if err != nil {
		return err
	}
	for _, f := range found {
		if f != "ok" {
			bad.Add(path, f, "restore a backup")
		}
	}
	keys, err := list(ctx, db, func(scan func(...any) error) (s string, err error) {
		var table, parent string
		var row sql.NullInt64
		var n int
		err = scan(&table, &row, &parent, &n)
		return fmt.Sprintf("%s %d refers to a %s that is not there", table, row.Int64, parent), err
	}, "PRAGMA foreign_key_check")
	if err != nil {
		return err
	}
	for _, k := range keys {
		bad.Add(path, k, "restore a backup")
	}
	if version == target {
		for _, c := range checks {
			ids, err := list(ctx, db, func(scan func(...any) error) (id int64, err error) { err = scan(&id); return }, c.query)
			if err != nil {
				return err
			}
			for _, id := range ids {
				bad.Add(path, fmt.Sprintf("%s %d is not what was written", c.table, id), "restore a backup")
			}
		}
	}
	return bad.Err()
}

// Backup copies a database into a new file, while it is in use, and verifies the copy.
func Backup(ctx context.Context, path, into string) error {
	if _, err := os.Stat(into); err == nil {
		return problem.New(into, "exists already", "name a new file")
	}
	version, err := inspect(ctx, path)
	if err != nil {
		return err
	}
	if version == fresh {
		return problem.New(path, "is not there, or is empty", "name the database with --db")
	}
	db, err := sql.Open("sqlite", dsn(path, ""))
	if err != nil {
		return err
	}
	defer db.Close()
	if _, err := db.ExecContext(ctx, "VACUUM INTO ?", into); err != nil {
		return problem.At(into, plain(err))
	}
	if err := os.Chmod(into, 0o600); err != nil {
		return err
	}
	return Verify(ctx, into)
}

// Restore puts a verified backup in the place of a database that nobody serves; the one
// that was there is kept beside it. It gives the name of that one, "" if there was none.
func Restore(ctx context.Context, from, path string) (kept string, err error) {
	if err := Verify(ctx, from); err != nil {
		return "", err
	}
	lock, err := acquire(path)
	if err != nil {
		return "", err
	}
	defer lock.Close()
	in, err := os.Open(from)
	if err != nil {
		return "", err
	}
	defer in.Close()
	next := path + ".next"
	out, err := os.OpenFile(next, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600)
	if err != nil {
		return "", cannotWrite(path, err)
	}
	_, err = io.Copy(out, in)
	if err = errors.Join(err, out.Sync(), out.Close()); err != nil {
		return "", err
	}
	if _, err := os.Stat(path); err == nil {
		kept = numbered(path + ".replaced")
		for _, f := range []string{"", "-wal", "-shm"} {
			if err := os.Rename(path+f, kept+f); err != nil && !errors.Is(err, os.ErrNotExist) {
				return kept, err
			}
		}
	}
	return kept, os.Rename(next, path)
}

// Data is everything a school keeps, as one document. Removed records are not in it.
type Data struct {
	Format    int                `json:"oarweed_data"`
	Learners  []practice.Learner `json:"learners"`
	Attempts  []practice.Attempt `json:"attempts"`
	Rigs      []rig.Saved        `json:"rigs"`
	Lines     []locker.Line      `json:"lines"`
	Doctrines map[string]string  `json:"doctrines"`
	// Inspections are left out of files written before they were kept.
	Inspections []practice.Inspection `json:"inspections,omitempty"`
	// Uses are the log of use.
	Uses []usage.Entry `json:"uses,omitempty"`
	// Documents are lessons, rounds and the like.
	Documents []app.Document `json:"documents,omitempty"`
}

const dataFormat = 1

// ExportFile gives all data of a database file as they are at one moment; a server may be
// running.
func ExportFile(ctx context.Context, path string) (*Data, error) {
	version, err := inspect(ctx, path)
	if err != nil {
		return nil, err
	}
	target, err := lastVersion()
	if err != nil {
		return nil, err
	}
	if version != target {
		return nil, problem.New(path, "is not there, or was not opened by this Oarweed yet", "name the database with --db, and serve it once")
	}
	db, err := sql.Open("sqlite", dsn(path, "&_pragma=query_only(1)"))
	if err != nil {
		return nil, err
	}
	defer db.Close()
	return exportAll(ctx, db)
}

func exportAll(ctx context.Context, db *sql.DB) (*Data, error) {
	tx, err := db.BeginTx(ctx, nil)
	if err != nil {
		return nil, err
	}
	defer func() { _ = tx.Rollback() }()
	out := &Data{Format: dataFormat}
	if out.Learners, err = list(ctx, tx, scanLearner, learnerColumns+` ORDER BY id`); err != nil {
		return nil, err
	}
	if out.Attempts, err = list(ctx, tx, scanAttempt, attemptColumns+` WHERE a.deleted_at IS NULL ORDER BY a.id`); err != nil {
		return nil, err
	}
	if out.Rigs, err = list(ctx, tx, scanRig, rigColumns+` ORDER BY id`); err != nil {
		return nil, err
	}
	if out.Lines, err = list(ctx, tx, scanLine, lineColumns+` ORDER BY id`); err != nil {
		return nil, err
	}
	if out.Inspections, err = list(ctx, tx, scanInspection, inspectionColumns+` ORDER BY id`); err != nil {
		return nil, err
	}
	if out.Uses, err = list(ctx, tx, scanUse, useColumns+` WHERE deleted_at IS NULL ORDER BY id`); err != nil {
		return nil, err
	}
	if out.Documents, err = list(ctx, tx, scanDocument, documentColumns+` WHERE deleted_at IS NULL AND kind NOT IN ('feed', 'secret') ORDER BY id`); err != nil {
		return nil, err
	}
	c, err := chosen(ctx, tx)
	out.Doctrines = c.Doctrines
	return out, err
}

// Import puts exported data into a database that holds none, all of it or nothing. Every
// record is checked as if it were entered. Ids are given anew.
func (s *Store) Import(ctx context.Context, text io.Reader, c *trade.Catalogue) (*Data, error) {
	var d Data
	dec := json.NewDecoder(text)
	dec.DisallowUnknownFields()
	if err := dec.Decode(&d); err != nil {
		return nil, problem.New("", "is not exported data: "+err.Error(), "give a file written by oarweed export")
	}
	if d.Format != dataFormat {
		return nil, problem.New("oarweed_data", fmt.Sprintf("is %d, and this Oarweed knows %d", d.Format, dataFormat), "update Oarweed, or give a file written by oarweed export")
	}
	if err := d.check(c); err != nil {
		return nil, err
	}
	return &d, s.write(ctx, func(tx *sql.Tx) error {
		s.target = func(id string) float64 {
			if k := c.Knot(id); k != nil {
				return practice.Target(k)
			}
			return 0
		}
		var n int
		if err := tx.QueryRowContext(ctx, `SELECT (SELECT count(*) FROM learner) + (SELECT count(*) FROM rig) + (SELECT count(*) FROM line)`).Scan(&n); err != nil {
			return err
		}
		if n > 0 {
			return problem.New("", "the database holds records already", "import into a new one: name it with --db")
		}
		if err := d.put(ctx, tx); err != nil {
			return err
		}
		return s.countAll(ctx, tx)
	})
}

func (d *Data) check(c *trade.Catalogue) error {
	var bad problem.List
	for i := range d.Learners {
		bad.Take(fmt.Sprintf("learners[%d]", i), d.Learners[i].Clean())
	}
	for i := range d.Attempts {
		a := &d.Attempts[i]
		received := a.ReceivedAt
		bad.Take(fmt.Sprintf("attempts[%d]", i), a.Check(c.Knot(a.Knot), received))
	}
	for i := range d.Rigs {
		bad.Take(fmt.Sprintf("rigs[%d]", i), d.Rigs[i].Check(&c.Vocabulary))
	}
	for i := range d.Lines {
		bad.Take(fmt.Sprintf("lines[%d]", i), d.Lines[i].Check(&c.Vocabulary, time.Now()))
	}
	for i := range d.Inspections {
		x := &d.Inspections[i]
		bad.Take(fmt.Sprintf("inspections[%d]", i), x.Check(&c.Vocabulary, func(id string) bool { return c.Knot(id) != nil }, x.ReceivedAt))
	}
	for i := range d.Uses {
		bad.Take(fmt.Sprintf("uses[%d]", i), d.Uses[i].Check(func(id string) bool { return c.Knot(id) != nil }, time.Now()))
	}
	_, err := c.WithDoctrines(d.Doctrines)
	bad.Take("", err)
	return bad.Err()
}

func (d *Data) put(ctx context.Context, tx *sql.Tx) error {
	learners := map[int64]int64{}
	for i, l := range d.Learners {
		var id int64
		body, err := learnerBody(l)
		if err != nil {
			return err
		}
		if err := tx.QueryRowContext(ctx, insertLearner+` RETURNING id`, l.Name, body).Scan(&id); err != nil {
			return err
		}
		if learners[l.ID] != 0 {
			return problem.New(fmt.Sprintf("learners[%d].id", i), "stands twice", "correct the file")
		}
		learners[l.ID] = id
	}
	for i, a := range d.Attempts {
		if a.LearnerID = learners[a.LearnerID]; a.LearnerID == 0 {
			return problem.New(fmt.Sprintf("attempts[%d].learner_id", i), "is none of the learners", "correct the file")
		}
		if _, err := insertAttempt(ctx, tx, a); err != nil {
			return err
		}
	}
	if _, err := tx.ExecContext(ctx, knowsOf); err != nil {
		return err
	}
	for _, r := range d.Rigs {
		body, err := r.Rig.Text()
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, insertRig, r.Rig.Name, body, stamp(r.ChangedAt)); err != nil {
			return err
		}
	}
	for _, l := range d.Lines {
		l.ID, l.Revision = 0, 0
		body, err := json.Marshal(l)
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, insertLine, l.Name, string(body), now()); err != nil {
			return err
		}
	}
	for _, x := range d.Documents {
		x.ID, x.Revision, x.Body = 0, 0, withLearners(x.Body, learners)
		if _, err := putDocument(ctx, tx, x); err != nil {
			return err
		}
	}
	for _, e := range d.Uses {
		if _, err := putUse(ctx, tx, e); err != nil {
			return err
		}
	}
	for _, i := range d.Inspections {
		if _, err := putInspection(ctx, tx, i); err != nil {
			return err
		}
	}
	_, err := setDoctrines(ctx, tx, app.Chosen{Doctrines: d.Doctrines, Revision: 1})
	return err
}

// Export gives all data as they are at one moment.
func (s *Store) Export(ctx context.Context) (*Data, error) { return exportAll(ctx, s.read) }

// withLearners is a document with the new ids of the learners that it names as learner_id
// or learner_ids.
func withLearners(body json.RawMessage, ids map[int64]int64) json.RawMessage {
	var doc any
	if json.Unmarshal(body, &doc) != nil {
		return body
	}
	anew := func(v any) any {
		if n, ok := v.(float64); ok {
			return ids[int64(n)]
		}
		return v
	}
	var walk func(any)
	walk = func(v any) {
		switch x := v.(type) {
		case []any:
			for _, e := range x {
				walk(e)
			}
		case map[string]any:
			for k, e := range x {
				switch list, many := e.([]any); {
				case k == "learner_id":
					x[k] = anew(e)
				case k == "learner_ids" && many:
					for i := range list {
						list[i] = anew(list[i])
					}
				default:
					walk(e)
				}
			}
		}
	}
	walk(doc)
	out, err := json.Marshal(doc)
	if err != nil {
		return body
	}
	return out
}
