package store

import (
	"context"
	"database/sql"
	"fmt"
	"slices"
	"time"
)

// Pragma asks the connection that writes.
func (s *Store) Pragma(ctx context.Context, name string) (v string) {
	_ = s.wrote.QueryRowContext(ctx, "PRAGMA "+name).Scan(&v)
	return v
}

// Seed fills a database with learners and attempts, for benchmarks.
func (s *Store) Seed(ctx context.Context, learners, attempts int) error {
	var knots []string
	for i := range 60 {
		knots = append(knots, fmt.Sprintf("knot-%d", i))
	}
	return s.write(ctx, func(tx *sql.Tx) error {
		for i := range learners {
			if _, err := tx.ExecContext(ctx, insertLearner, fmt.Sprint("Learner ", i), "{}"); err != nil {
				return err
			}
		}
		add, err := tx.PrepareContext(ctx, `INSERT INTO attempt (learner_id, knot, kind, outcome, fault, seconds, conditions, at, received_at, checksum) VALUES (?, ?, 'tied', 'right', '', 9, 'dry', ?, ?, 0)`)
		if err != nil {
			return err
		}
		at := time.Date(2025, 1, 1, 0, 0, 0, 0, time.UTC)
		for i := range attempts {
			when := kept(at.Add(time.Duration(i) * time.Minute))
			if _, err := add.ExecContext(ctx, 1+i%learners, knots[i/learners%len(knots)], when, when); err != nil {
				return err
			}
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO shown SELECT learner_id, knot, count(*) FROM attempt GROUP BY learner_id, knot; `+knowsOf)
		return err
	})
}

// Percentile of times.
func Percentile(all []time.Duration, p int) time.Duration {
	slices.Sort(all)
	return all[min(len(all)-1, len(all)*p/100)]
}
