package store

import (
	"context"
	"database/sql"
)

// Schools gives the chosen school of each question; questions left at their
// default are absent.
func (s *Store) Schools(ctx context.Context) (map[string]string, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT question, school FROM school`)
	list, err := collect(rows, err, func(r *sql.Rows) (p [2]string, err error) {
		err = r.Scan(&p[0], &p[1])
		return
	})
	out := map[string]string{}
	for _, p := range list {
		out[p[0]] = p[1]
	}
	return out, err
}

// SetSchools replaces all choices.
func (s *Store) SetSchools(ctx context.Context, chosen map[string]string) error {
	return s.write(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM school`); err != nil {
			return err
		}
		for q, school := range chosen {
			if _, err := tx.ExecContext(ctx, `INSERT INTO school (question, school) VALUES (?, ?)`, q, school); err != nil {
				return err
			}
		}
		return nil
	})
}
