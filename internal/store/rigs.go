package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"

	"oarweed/core/rig"
	"oarweed/internal/app"
)

// A rig is kept as its document: a field added to it is kept without a word here.
const rigColumns = `SELECT id, revision, changed_at, body FROM rig WHERE deleted_at IS NULL`

const insertRig = `INSERT INTO rig (name_key, body, changed_at, checksum) VALUES (fold(?1), ?2, ?3, checksum(fold(?1), ?2))`

func scanRig(scan func(...any) error) (r rig.Saved, err error) {
	var at, body string
	if err = scan(&r.ID, &r.Revision, &at, &body); err != nil {
		return
	}
	if r.ChangedAt, err = time.Parse(time.RFC3339Nano, at); err != nil {
		return
	}
	err = json.Unmarshal([]byte(body), &r.Rig)
	return
}

// Rigs lists the saved rigs, the last changed first.
func (s *Store) Rigs(ctx context.Context) ([]rig.Saved, error) {
	return list(ctx, s.read, scanRig, rigColumns+` ORDER BY changed_at DESC, id DESC`)
}

// Rig reads one saved rig.
func (s *Store) Rig(ctx context.Context, id int64) (rig.Saved, error) {
	return one(ctx, s.read, scanRig, rigColumns+` AND id = ?`, id)
}

// SaveRig keeps a new rig (id 0), or another revision of one. The conflict is that it was
// changed meanwhile, or that another rig has its name.
func (s *Store) SaveRig(ctx context.Context, r rig.Saved) (out rig.Saved, err error) {
	body, err := r.Rig.Text()
	if err != nil {
		return r, err
	}
	err = s.write(ctx, func(tx *sql.Tx) error {
		switch other, err := one(ctx, tx, scanRig, rigColumns+` AND name_key = fold(?) AND id <> ?`, r.Rig.Name, r.ID); {
		case err == nil:
			return &app.Conflict{NameTaken: true, Kept: other}
		case !errors.Is(err, app.ErrNotFound):
			return err
		}
		if r.ID == 0 {
			out, err = one(ctx, tx, scanRig, insertRig+` RETURNING id, revision, changed_at, body`, r.Rig.Name, body, now())
			return err
		}
		out, err = one(ctx, tx, scanRig, `UPDATE rig SET name_key = fold(?1), body = ?2, changed_at = ?3, revision = revision + 1, checksum = checksum(fold(?1), ?2)
			WHERE id = ?4 AND revision = ?5 AND deleted_at IS NULL RETURNING id, revision, changed_at, body`, r.Rig.Name, body, now(), r.ID, r.Revision)
		return changedMeanwhile(err, func() (any, error) { return one(ctx, tx, scanRig, rigColumns+` AND id = ?`, r.ID) })
	})
	return out, err
}

// changedMeanwhile turns an update that met no row into a conflict with what is kept, if
// anything is.
func changedMeanwhile(err error, kept func() (any, error)) error {
	if !errors.Is(err, app.ErrNotFound) {
		return err
	}
	k, err := kept()
	if err != nil {
		return err
	}
	return &app.Conflict{Kept: k}
}

// DeleteRig removes a saved rig.
func (s *Store) DeleteRig(ctx context.Context, id int64) error {
	return s.write(ctx, func(tx *sql.Tx) error {
		return changed(tx.ExecContext(ctx, `UPDATE rig SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL`, now(), id))
	})
}
