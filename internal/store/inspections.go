package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"

	"oarweed/core/practice"
	"oarweed/internal/app"
)

const inspectionColumns = `SELECT id, body FROM inspection`

const insertInspection = `INSERT INTO inspection (key, body, received_at, checksum) VALUES (nullif(?1, ''), ?2, ?3, checksum(?2, ?3))`

func scanInspection(scan func(...any) error) (i practice.Inspection, err error) {
	var body string
	var id int64
	if err = scan(&id, &body); err != nil {
		return
	}
	err = json.Unmarshal([]byte(body), &i)
	i.ID = id
	return
}

// Inspections lists the last so many, newest first.
func (s *Store) Inspections(ctx context.Context, limit int) ([]practice.Inspection, error) {
	return list(ctx, s.read, scanInspection, inspectionColumns+` ORDER BY received_at DESC, id DESC LIMIT ?`, limit)
}

// AddInspection records an inspection, or finds the one already there by its key.
func (s *Store) AddInspection(ctx context.Context, i practice.Inspection) (out practice.Inspection, added bool, err error) {
	err = s.write(ctx, func(tx *sql.Tx) error {
		if i.Key != "" {
			out, err = one(ctx, tx, scanInspection, inspectionColumns+` WHERE key = ?`, i.Key)
			if !errors.Is(err, app.ErrNotFound) {
				return err
			}
		}
		added = true
		out, err = putInspection(ctx, tx, i)
		return err
	})
	return out, added, err
}

func putInspection(ctx context.Context, tx *sql.Tx, i practice.Inspection) (practice.Inspection, error) {
	i.ID = 0
	body, err := json.Marshal(i)
	if err != nil {
		return i, err
	}
	return one(ctx, tx, scanInspection, insertInspection+` RETURNING id, body`, i.Key, string(body), kept(i.ReceivedAt))
}
