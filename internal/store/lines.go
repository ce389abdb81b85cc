package store

import (
	"context"
	"database/sql"

	"oarweed/core/rig"
)

// Line is a line of the locker.
type Line struct {
	ID   int64  `json:"id" readOnly:"true"`
	Name string `json:"name" minLength:"1" maxLength:"80"`
	Note string `json:"note,omitempty" maxLength:"400"`
	rig.Line
}

// Lines lists the locker by name.
func (s *Store) Lines(ctx context.Context) ([]Line, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, name, note, material, construction, diameter_mm, label_kn, wear FROM line ORDER BY name, id`)
	return collect(rows, err, func(r *sql.Rows) (l Line, err error) {
		err = r.Scan(&l.ID, &l.Name, &l.Note, &l.Material, &l.Construction, &l.DiameterMM, &l.LabelKN, &l.Wear)
		return
	})
}

// SaveLine inserts a line with id 0 and updates any other; it returns the id.
func (s *Store) SaveLine(ctx context.Context, l Line) (int64, error) {
	err := s.write(ctx, func(tx *sql.Tx) error {
		if l.ID == 0 {
			return tx.QueryRowContext(ctx, `INSERT INTO line (name, note, material, construction, diameter_mm, label_kn, wear) VALUES (?,?,?,?,?,?,?) RETURNING id`,
				l.Name, l.Note, l.Material, l.Construction, l.DiameterMM, l.LabelKN, l.Wear).Scan(&l.ID)
		}
		return changed(tx.ExecContext(ctx, `UPDATE line SET name=?, note=?, material=?, construction=?, diameter_mm=?, label_kn=?, wear=? WHERE id=?`,
			l.Name, l.Note, l.Material, l.Construction, l.DiameterMM, l.LabelKN, l.Wear, l.ID))
	})
	return l.ID, err
}

// DeleteLine removes a line.
func (s *Store) DeleteLine(ctx context.Context, id int64) error {
	return s.delete(ctx, `DELETE FROM line WHERE id=?`, id)
}

func (s *Store) delete(ctx context.Context, query string, id int64) error {
	return s.write(ctx, func(tx *sql.Tx) error { return changed(tx.ExecContext(ctx, query, id)) })
}
