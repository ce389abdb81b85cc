package store

import (
	"context"
	"database/sql"
	"encoding/json"

	"oarweed/core/locker"
)

const lineColumns = `SELECT id, revision, body FROM line WHERE deleted_at IS NULL`

const insertLine = `INSERT INTO line (name_key, body, changed_at, checksum) VALUES (fold(?1), ?2, ?3, checksum(fold(?1), ?2))`

func scanLine(scan func(...any) error) (l locker.Line, err error) {
	var body string
	var id, revision int64
	if err = scan(&id, &revision, &body); err != nil {
		return
	}
	err = json.Unmarshal([]byte(body), &l)
	l.ID, l.Revision = id, revision
	if l.Code == "" {
		l.Code = locker.CodeOf(id) // kept before lines had one
	}
	return
}

// Lines lists the locker by name.
func (s *Store) Lines(ctx context.Context) ([]locker.Line, error) {
	return list(ctx, s.read, scanLine, lineColumns+` ORDER BY name_key, id`)
}

// Line reads one line of the locker.
func (s *Store) Line(ctx context.Context, id int64) (locker.Line, error) {
	return one(ctx, s.read, scanLine, lineColumns+` AND id = ?`, id)
}

// SaveLine keeps a new line (id 0), or another revision of one.
func (s *Store) SaveLine(ctx context.Context, l locker.Line) (out locker.Line, err error) {
	text, err := json.Marshal(l)
	if err != nil {
		return l, err
	}
	body := string(text)
	err = s.write(ctx, func(tx *sql.Tx) error {
		if l.ID == 0 {
			out, err = one(ctx, tx, scanLine, insertLine+` RETURNING id, revision, body`, l.Name, body, now())
			return err
		}
		out, err = one(ctx, tx, scanLine, `UPDATE line SET name_key = fold(?1), body = ?2, changed_at = ?3, revision = revision + 1, checksum = checksum(fold(?1), ?2)
			WHERE id = ?4 AND revision = ?5 AND deleted_at IS NULL RETURNING id, revision, body`, l.Name, body, now(), l.ID, l.Revision)
		return changedMeanwhile(err, func() (any, error) { return one(ctx, tx, scanLine, lineColumns+` AND id = ?`, l.ID) })
	})
	return out, err
}

// DeleteLine takes a line out of the locker.
func (s *Store) DeleteLine(ctx context.Context, id int64) error {
	return s.write(ctx, func(tx *sql.Tx) error {
		return changed(tx.ExecContext(ctx, `UPDATE line SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL`, now(), id))
	})
}
