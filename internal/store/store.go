// Package store keeps lines, rigs, learners and attempts in one SQLite file,
// through database/sql. Migrations are embedded and run on opening, after a copy
// of the file has been put beside it.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // the driver

	"oarweed/core/problem"
)

//go:embed migrations
var migrations embed.FS

// ErrNotFound is what the store says of an id it does not hold.
var ErrNotFound = errors.New("not found")

// Store is an open database.
type Store struct {
	db *sql.DB
}

// Open opens or makes the database file. A damaged file is refused and left as
// it is.
func Open(ctx context.Context, path string) (*Store, error) {
	dsn := "file:" + (&url.URL{Path: path}).EscapedPath() +
		"?_pragma=journal_mode(WAL)&_pragma=synchronous(NORMAL)&_pragma=busy_timeout(5000)&_pragma=foreign_keys(1)&_txlock=immediate"
	info, statErr := os.Stat(path)
	db, err := sql.Open("sqlite", dsn)
	if err != nil {
		return nil, err
	}
	s := &Store{db: db}
	if statErr == nil && info.Size() > 0 {
		if err := s.sound(ctx); err != nil {
			_ = db.Close()
			return nil, problem.New(path, "is damaged or is no Oarweed database ("+err.Error()+")",
				"it was left untouched: put back a copy of it, or name another file with --db")
		}
	}
	if err := s.migrate(ctx, path); err != nil {
		_ = db.Close()
		return nil, fmt.Errorf("%s: %w", path, err)
	}
	return s, nil
}

// Close closes the database.
func (s *Store) Close() error { return s.db.Close() }

func (s *Store) sound(ctx context.Context) error {
	var verdict string
	if err := s.db.QueryRowContext(ctx, "PRAGMA quick_check(1)").Scan(&verdict); err != nil {
		return err
	}
	if verdict != "ok" {
		return errors.New(verdict)
	}
	return nil
}

func (s *Store) migrate(ctx context.Context, path string) error {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, s.db, dir)
	if err != nil {
		return err
	}
	now, target, err := p.GetVersions(ctx)
	if err != nil {
		return err
	}
	if now == target {
		return nil
	}
	if now > 0 {
		backup := fmt.Sprintf("%s.before-%d", path, target)
		if _, err := s.db.ExecContext(ctx, "VACUUM INTO ?", backup); err != nil {
			return fmt.Errorf("copying the database to %s before the update: %w", backup, err)
		}
	}
	_, err = p.Up(ctx)
	return err
}

// write runs f in a transaction.
func (s *Store) write(ctx context.Context, f func(*sql.Tx) error) error {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	if err := f(tx); err != nil {
		return errors.Join(err, tx.Rollback())
	}
	return tx.Commit()
}

// changed turns an update that met no row into ErrNotFound.
func changed(r sql.Result, err error) error {
	if err != nil {
		return err
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(ErrNotFound, err)
	}
	return nil
}

func collect[T any](rows *sql.Rows, err error, scan func(*sql.Rows) (T, error)) ([]T, error) {
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := []T{}
	for rows.Next() {
		x, err := scan(rows)
		if err != nil {
			return nil, err
		}
		out = append(out, x)
	}
	return out, rows.Err()
}
