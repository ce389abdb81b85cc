package store

import (
	"context"
	"database/sql"

	"oarweed/internal/app"
)

// Doctrines gives the chosen doctrine of each question; questions left at their default
// are absent.
func (s *Store) Doctrines(ctx context.Context) (app.Chosen, error) {
	tx, err := s.read.BeginTx(ctx, nil)
	if err != nil {
		return app.Chosen{}, err
	}
	defer func() { _ = tx.Rollback() }()
	return chosen(ctx, tx)
}

func chosen(ctx context.Context, q queryer) (app.Chosen, error) {
	out := app.Chosen{Doctrines: map[string]string{}}
	if err := q.QueryRowContext(ctx, `SELECT revision FROM doctrine_revision`).Scan(&out.Revision); err != nil {
		return out, err
	}
	type choice struct{ question, doctrine string }
	all, err := list(ctx, q, func(scan func(...any) error) (c choice, err error) { err = scan(&c.question, &c.doctrine); return }, `SELECT question, doctrine FROM doctrine`)
	for _, c := range all {
		out.Doctrines[c.question] = c.doctrine
	}
	return out, err
}

// SetDoctrines replaces all choices.
func (s *Store) SetDoctrines(ctx context.Context, c app.Chosen) (out app.Chosen, err error) {
	err = s.write(ctx, func(tx *sql.Tx) error {
		out, err = setDoctrines(ctx, tx, c)
		return err
	})
	return out, err
}

func setDoctrines(ctx context.Context, tx *sql.Tx, c app.Chosen) (app.Chosen, error) {
	if err := changed(tx.ExecContext(ctx, `UPDATE doctrine_revision SET revision = revision + 1 WHERE revision = ?`, c.Revision)); err != nil {
		return c, changedMeanwhile(err, func() (any, error) { return chosen(ctx, tx) })
	}
	if _, err := tx.ExecContext(ctx, `DELETE FROM doctrine`); err != nil {
		return c, err
	}
	for q, d := range c.Doctrines {
		if _, err := tx.ExecContext(ctx, `INSERT INTO doctrine (question, doctrine) VALUES (?, ?)`, q, d); err != nil {
			return c, err
		}
	}
	return chosen(ctx, tx)
}
