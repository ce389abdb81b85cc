// Package store keeps a school's records in one SQLite file, through database/sql: rows
// to and from the types of the core. Each aggregate has a file of its own.
//
// What a write has acknowledged survives a loss of power (WAL with synchronous=FULL).
// Writes go one at a time through a connection of their own; reads each see one moment.
// Ids are never given twice. Every row carries a checksum of what it says, which
// [Verify] compares.
package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"net/url"
	"os"
	"path/filepath"
	"time"

	"oarweed/core/problem"
	"oarweed/internal/app"
)

// Store is an open database; it is an [app.Records].
type Store struct {
	path  string
	read  *sql.DB // several connections, which cannot write
	wrote *sql.DB // one connection
	lock  *os.File
	// target is the time in which a knot counts as tied in time, in seconds.
	target func(knot string) float64
	// New: the file was made by Open.
	New bool
	// Copy is where the file was copied before it was updated; empty if it was not.
	Copy string
}

var _ app.Records = (*Store)(nil)

// Sessions is where the session library keeps who is signed in.
func (s *Store) Sessions() *sql.DB { return s.wrote }

// connections that read at once. More only wait for the same processors.
const readers = 8

// busy is how long a statement waits for another program that reads the file.
const busy = 5 * time.Second

func dsn(path, more string) string {
	return "file:" + (&url.URL{Path: path}).EscapedPath() + fmt.Sprintf("?_pragma=busy_timeout(%d)&_pragma=foreign_keys(1)", busy.Milliseconds()) + more
}

// Open opens or makes the database file, for this process alone. A file that is damaged,
// of another program or of a newer Oarweed is refused and left as it is; the error says
// which.
func Open(ctx context.Context, path string) (s *Store, err error) {
	lock, err := acquire(path)
	if err != nil {
		return nil, err
	}
	s = &Store{path: path, lock: lock}
	defer func() {
		if err != nil {
			_ = s.Close()
			s = nil
		}
	}()
	known, err := inspect(ctx, path)
	if err != nil {
		return s, err
	}
	s.New = known == fresh
	if s.New {
		// Learners' names are in it: for its owner only.
		f, err := os.OpenFile(path, os.O_CREATE|os.O_RDWR, 0o600)
		if err != nil {
			return s, cannotWrite(path, err)
		}
		_ = f.Close()
	}
	if s.wrote, err = sql.Open("sqlite", dsn(path, "&_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)&_txlock=immediate")); err != nil {
		return s, err
	}
	s.wrote.SetMaxOpenConns(1)
	if err := s.migrate(ctx, known); err != nil {
		return s, err
	}
	if s.read, err = sql.Open("sqlite", dsn(path, "&_pragma=query_only(1)")); err != nil {
		return s, err
	}
	s.read.SetMaxOpenConns(readers)
	s.read.SetMaxIdleConns(readers)
	return s, os.Chmod(path, 0o600)
}

// acquire makes sure that no other Oarweed serves the file.
func acquire(path string) (*os.File, error) {
	f, err := os.OpenFile(path+".lock", os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, cannotWrite(path, err)
	}
	if err := lockFile(f); err != nil {
		_ = f.Close()
		return nil, problem.New(path, "is in use by another Oarweed", "stop that one, or name another file with --db")
	}
	return f, nil
}

// Close closes the database.
func (s *Store) Close() error {
	var errs []error
	for _, db := range []*sql.DB{s.read, s.wrote} {
		if db != nil {
			errs = append(errs, db.Close())
		}
	}
	if s.lock != nil {
		errs = append(errs, s.lock.Close())
		s.lock = nil
	}
	return errors.Join(errs...)
}

// Ping asks whether the database answers.
func (s *Store) Ping(ctx context.Context) error {
	var one int
	return s.read.QueryRowContext(ctx, "SELECT 1 FROM attempt UNION ALL SELECT 1 LIMIT 1").Scan(&one)
}

// write runs f in a transaction. Nothing of it is kept if it fails.
func (s *Store) write(ctx context.Context, f func(*sql.Tx) error) error {
	tx, err := s.wrote.BeginTx(ctx, nil)
	if err != nil {
		return plain(err)
	}
	if err := f(tx); err != nil {
		return errors.Join(plain(err), tx.Rollback())
	}
	return plain(tx.Commit())
}

// queryer is a database or a transaction.
type queryer interface {
	QueryContext(context.Context, string, ...any) (*sql.Rows, error)
	QueryRowContext(context.Context, string, ...any) *sql.Row
}

// list reads all rows of a query.
func list[T any](ctx context.Context, q queryer, scan func(func(...any) error) (T, error), query string, args ...any) ([]T, error) {
	rows, err := q.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, plain(err)
	}
	defer rows.Close()
	out := []T{}
	for rows.Next() {
		x, err := scan(rows.Scan)
		if err != nil {
			return nil, err
		}
		out = append(out, x)
	}
	return out, plain(rows.Err())
}

// one reads one row; none is [app.ErrNotFound].
func one[T any](ctx context.Context, q queryer, scan func(func(...any) error) (T, error), query string, args ...any) (T, error) {
	x, err := scan(q.QueryRowContext(ctx, query, args...).Scan)
	if errors.Is(err, sql.ErrNoRows) {
		err = app.ErrNotFound
	}
	return x, plain(err)
}

// changed turns an update that met no row into [app.ErrNotFound].
func changed(r sql.Result, err error) error {
	if err != nil {
		return err
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(app.ErrNotFound, err)
	}
	return nil
}

// stamp is the time as it is kept.
func stamp(t time.Time) string { return t.UTC().Format(time.RFC3339Nano) }

func now() string { return stamp(time.Now()) }

// numbered is the first of path-001, path-002 … that does not exist.
func numbered(path string) string {
	for n := 1; ; n++ {
		p := fmt.Sprintf("%s-%03d", path, n)
		if _, err := os.Stat(p); errors.Is(err, os.ErrNotExist) {
			return p
		}
	}
}

func cannotWrite(path string, err error) error {
	if info, statErr := os.Stat(path); statErr == nil && info.IsDir() {
		return problem.New(path, "is a folder", "name a file with --db")
	}
	return problem.New(path, "cannot be written ("+errors.Unwrap(unwrapped(err)).Error()+")",
		"allow writing to the file and to the folder "+filepath.Dir(path)+", or name another file with --db")
}

// unwrapped makes sure that there is something to unwrap.
func unwrapped(err error) error {
	if errors.Unwrap(err) == nil {
		return fmt.Errorf("%w", err)
	}
	return err
}
