package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"os"

	"github.com/pressly/goose/v3"

	"oarweed/core/problem"
)

//go:embed migrations
var migrations embed.FS

// applicationID marks the file as Oarweed's in its header: "OARW".
const applicationID = 0x4f415257

// fresh is the version of a file that is not there yet, or is empty.
const fresh = -1

// inspect says which version a file has, without writing a byte to it. A damaged file,
// that of another program and that of a newer Oarweed are refused.
func inspect(ctx context.Context, path string) (version int64, err error) {
	info, err := os.Stat(path)
	switch {
	case errors.Is(err, os.ErrNotExist):
		return fresh, nil
	case err != nil:
		return 0, cannotWrite(path, err)
	case info.IsDir():
		return 0, problem.New(path, "is a folder", "name a file with --db")
	case info.Size() == 0:
		return fresh, nil
	}
	// Asked first: what SQLite says of a file it may not write sounds like damage.
	f, err := os.OpenFile(path, os.O_RDWR, 0)
	if err != nil {
		return 0, cannotWrite(path, err)
	}
	_ = f.Close()
	db, err := openUntouched(path)
	if err != nil {
		return 0, err
	}
	defer db.Close()
	const untouched = "it was left untouched: put back a copy of it, or name another file with --db"
	damaged := func(what string) error {
		return problem.New(path, "is damaged or is no Oarweed database ("+what+")", untouched)
	}
	var id, target int64
	var verdict string
	if err := db.QueryRowContext(ctx, "PRAGMA application_id").Scan(&id); err != nil {
		return 0, damaged(err.Error())
	}
	if err := db.QueryRowContext(ctx, "PRAGMA quick_check(1)").Scan(&verdict); err != nil {
		return 0, damaged(err.Error())
	}
	if verdict != "ok" {
		return 0, damaged(verdict)
	}
	err = db.QueryRowContext(ctx, `SELECT max(version_id) FROM goose_db_version WHERE (SELECT count(*) FROM sqlite_schema WHERE name IN ('learner', 'attempt', 'rig', 'line')) = 4`).Scan(&version)
	if id != applicationID && id != 0 || err != nil {
		return 0, problem.New(path, "is the database of another program", "it was left untouched: name another file with --db")
	}
	if target, err = lastVersion(); err != nil {
		return 0, err
	}
	if version > target {
		return 0, problem.New(path, fmt.Sprintf("was written by a newer Oarweed (version %d of the records; this one knows %d)", version, target), "it was left untouched: update Oarweed, or name another file with --db")
	}
	return version, nil
}

// openUntouched opens a file to read, without leaving anything beside it: where no write-ahead
// log is there to be read with it, none is made.
func openUntouched(path string) (*sql.DB, error) {
	how := "&mode=ro"
	if _, err := os.Stat(path + "-wal"); err != nil {
		how = "&immutable=1"
	}
	return sql.Open("sqlite", dsn(path, how))
}

func provider(db *sql.DB) (*goose.Provider, error) {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectSQLite3, db, dir)
}

func lastVersion() (int64, error) {
	db, err := sql.Open("sqlite", ":memory:")
	if err != nil {
		return 0, err
	}
	defer db.Close()
	p, err := provider(db)
	if err != nil {
		return 0, err
	}
	all := p.ListSources()
	return all[len(all)-1].Version, nil
}

// migrate brings the file up to date. It is copied beside itself first; an update that
// fails puts the copy back, so that the Oarweed that wrote the file starts again with it.
func (s *Store) migrate(ctx context.Context, known int64) error {
	p, err := provider(s.wrote)
	if err != nil {
		return err
	}
	all := p.ListSources()
	target := all[len(all)-1].Version
	if known == target {
		return s.mark(ctx)
	}
	if known != fresh {
		s.Copy = numbered(fmt.Sprintf("%s.before-%d", s.path, target))
		if _, err := s.wrote.ExecContext(ctx, "VACUUM INTO ?", s.Copy); err != nil {
			return fmt.Errorf("copying the database to %s before the update: %w", s.Copy, err)
		}
		_ = os.Chmod(s.Copy, 0o600)
	}
	if _, err = p.Up(ctx); err == nil {
		return s.mark(ctx)
	}
	err = fmt.Errorf("updating %s: %w", s.path, err)
	if s.Copy == "" {
		return err
	}
	return errors.Join(err, s.putBack())
}

// mark writes whose file it is into its header.
func (s *Store) mark(ctx context.Context) error {
	_, err := s.wrote.ExecContext(ctx, fmt.Sprintf("PRAGMA application_id = %d", applicationID))
	return plain(err)
}

// putBack replaces a half updated file by the copy made before.
func (s *Store) putBack() error {
	err := s.wrote.Close()
	s.wrote = nil
	for _, f := range []string{"-wal", "-shm"} {
		if e := os.Remove(s.path + f); e != nil && !errors.Is(e, os.ErrNotExist) {
			err = errors.Join(err, e)
		}
	}
	text, e := os.ReadFile(s.Copy)
	if e != nil {
		return errors.Join(err, e)
	}
	next := s.path + ".next"
	if e := os.WriteFile(next, text, 0o600); e != nil {
		return errors.Join(err, e)
	}
	return errors.Join(err, os.Rename(next, s.path))
}
