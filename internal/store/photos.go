package store

import (
	"context"
	"database/sql"
)

// AddPhoto keeps a picture, or finds the one already there by its key.
func (s *Store) AddPhoto(ctx context.Context, key string, learner int64, body []byte) (id int64, err error) {
	scan := func(scan func(...any) error) (id int64, err error) { err = scan(&id); return }
	err = s.write(ctx, func(tx *sql.Tx) error {
		if key != "" {
			if id, err = one(ctx, tx, scan, `SELECT id FROM photo WHERE key = ?`, key); err == nil {
				return nil
			}
		}
		id, err = one(ctx, tx, scan, `INSERT INTO photo (key, learner_id, body, at, checksum) VALUES (nullif(?1, ''), nullif(?2, 0), ?3, ?4, checksum(?3)) RETURNING id`,
			key, learner, body, now())
		return err
	})
	return id, err
}

// Photo reads one.
func (s *Store) Photo(ctx context.Context, id int64) ([]byte, error) {
	return one(ctx, s.read, func(scan func(...any) error) (b []byte, err error) { err = scan(&b); return }, `SELECT body FROM photo WHERE id = ?`, id)
}
