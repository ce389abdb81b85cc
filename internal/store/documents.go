package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"

	"oarweed/internal/app"
)

const documentColumns = `SELECT id, kind, coalesce(key, ''), revision, body, changed_at FROM document`

const returningDocument = ` RETURNING id, kind, coalesce(key, ''), revision, body, changed_at`

func scanDocument(scan func(...any) error) (d app.Document, err error) {
	var body, at string
	if err = scan(&d.ID, &d.Kind, &d.Key, &d.Revision, &body, &at); err != nil {
		return
	}
	d.Body = json.RawMessage(body)
	d.ChangedAt, err = time.Parse(time.RFC3339Nano, at)
	return
}

// Documents lists those of a kind, the last changed first.
func (s *Store) Documents(ctx context.Context, kind string) ([]app.Document, error) {
	return list(ctx, s.read, scanDocument, documentColumns+` WHERE kind = ? AND deleted_at IS NULL ORDER BY changed_at DESC, id DESC`, kind)
}

// Document reads one.
func (s *Store) Document(ctx context.Context, kind string, id int64) (app.Document, error) {
	return one(ctx, s.read, scanDocument, documentColumns+` WHERE kind = ? AND id = ? AND deleted_at IS NULL`, kind, id)
}

// SaveDocument keeps a new document (id 0), or another revision of one. A new one with the
// key of one that is there finds that.
func (s *Store) SaveDocument(ctx context.Context, d app.Document) (out app.Document, err error) {
	err = s.write(ctx, func(tx *sql.Tx) error {
		out, err = putDocument(ctx, tx, d)
		return err
	})
	return out, err
}

func putDocument(ctx context.Context, tx *sql.Tx, d app.Document) (out app.Document, err error) {
	if d.ID == 0 {
		if d.Key != "" {
			out, err = one(ctx, tx, scanDocument, documentColumns+` WHERE kind = ? AND key = ?`, d.Kind, d.Key)
			if !errors.Is(err, app.ErrNotFound) {
				return out, err
			}
		}
		return one(ctx, tx, scanDocument, `INSERT INTO document (kind, key, body, changed_at, checksum) VALUES (?1, nullif(?2, ''), ?3, ?4, checksum(?1, ?3))`+returningDocument,
			d.Kind, d.Key, string(d.Body), now())
	}
	out, err = one(ctx, tx, scanDocument, `UPDATE document SET body = ?1, changed_at = ?2, revision = revision + 1, checksum = checksum(kind, ?1)
		WHERE kind = ?3 AND id = ?4 AND revision = ?5 AND deleted_at IS NULL`+returningDocument, string(d.Body), now(), d.Kind, d.ID, d.Revision)
	return out, changedMeanwhile(err, func() (any, error) {
		return one(ctx, tx, scanDocument, documentColumns+` WHERE kind = ? AND id = ? AND deleted_at IS NULL`, d.Kind, d.ID)
	})
}

// DeleteDocument removes one.
func (s *Store) DeleteDocument(ctx context.Context, kind string, id int64) error {
	return s.write(ctx, func(tx *sql.Tx) error {
		return changed(tx.ExecContext(ctx, `UPDATE document SET deleted_at = ? WHERE kind = ? AND id = ? AND deleted_at IS NULL`, now(), kind, id))
	})
}
