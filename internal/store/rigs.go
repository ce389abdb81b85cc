package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"oarweed/core/rig"
)

// Rig is a saved rig.
type Rig struct {
	ID        int64        `json:"id" readOnly:"true"`
	ChangedAt time.Time    `json:"changed_at" readOnly:"true"`
	Rig       rig.Document `json:"rig"`
}

// Rigs lists the saved rigs, the last changed first.
func (s *Store) Rigs(ctx context.Context) ([]Rig, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id FROM rig ORDER BY changed_at DESC, id DESC`)
	ids, err := collect(rows, err, func(r *sql.Rows) (id int64, err error) { err = r.Scan(&id); return })
	if err != nil {
		return nil, err
	}
	out := make([]Rig, 0, len(ids))
	for _, id := range ids {
		r, err := s.Rig(ctx, id)
		if err != nil {
			return nil, err
		}
		out = append(out, r)
	}
	return out, nil
}

// Rig reads one saved rig.
func (s *Store) Rig(ctx context.Context, id int64) (Rig, error) {
	r := Rig{ID: id}
	var at string
	err := s.db.QueryRowContext(ctx, `SELECT name, peak_kn, character, dry, consequence, design_factor, changed_at FROM rig WHERE id=?`, id).
		Scan(&r.Rig.Name, &r.Rig.PeakKN, &r.Rig.Character, &r.Rig.Dry, &r.Rig.Consequence, &r.Rig.DesignFactor, &at)
	if errors.Is(err, sql.ErrNoRows) {
		return r, ErrNotFound
	}
	if err != nil {
		return r, err
	}
	r.Rig.Version = rig.Version
	if r.ChangedAt, err = time.Parse(time.RFC3339Nano, at); err != nil {
		return r, err
	}
	rows, err := s.db.QueryContext(ctx, `SELECT kind, body FROM rig_element WHERE rig_id=? ORDER BY position`, id)
	r.Rig.Chain, err = collect(rows, err, func(rows *sql.Rows) (e rig.Element, err error) {
		var kind, body string
		if err = rows.Scan(&kind, &body); err == nil {
			err = json.Unmarshal([]byte(fmt.Sprintf(`{%q:%s}`, kind, body)), &e)
		}
		return
	})
	return r, err
}

// SaveRig inserts a rig with id 0 and replaces any other; it returns the id.
func (s *Store) SaveRig(ctx context.Context, r Rig) (int64, error) {
	d := r.Rig
	err := s.write(ctx, func(tx *sql.Tx) error {
		at := time.Now().UTC().Format(time.RFC3339Nano)
		if r.ID == 0 {
			if err := tx.QueryRowContext(ctx, `INSERT INTO rig (name, peak_kn, character, dry, consequence, design_factor, changed_at) VALUES (?,?,?,?,?,?,?) RETURNING id`,
				d.Name, d.PeakKN, d.Character, d.Dry, d.Consequence, d.DesignFactor, at).Scan(&r.ID); err != nil {
				return err
			}
		} else if err := changed(tx.ExecContext(ctx, `UPDATE rig SET name=?, peak_kn=?, character=?, dry=?, consequence=?, design_factor=?, changed_at=? WHERE id=?`,
			d.Name, d.PeakKN, d.Character, d.Dry, d.Consequence, d.DesignFactor, at, r.ID)); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM rig_element WHERE rig_id=?`, r.ID); err != nil {
			return err
		}
		for i, e := range d.Chain {
			kind, part := "fitting", any(e.Fitting)
			switch {
			case e.Joint != nil:
				kind, part = "joint", e.Joint
			case e.Line != nil:
				kind, part = "line", e.Line
			}
			body, err := json.Marshal(part)
			if err != nil {
				return err
			}
			if _, err := tx.ExecContext(ctx, `INSERT INTO rig_element (rig_id, position, kind, body) VALUES (?,?,?,?)`, r.ID, i, kind, string(body)); err != nil {
				return err
			}
		}
		return nil
	})
	return r.ID, err
}

// DeleteRig removes a saved rig.
func (s *Store) DeleteRig(ctx context.Context, id int64) error {
	return s.delete(ctx, `DELETE FROM rig WHERE id=?`, id)
}
