package store

import (
	"context"
	"database/sql"
	"slices"
	"strings"
	"time"
)

// Learner is somebody who practises.
type Learner struct {
	ID   int64  `json:"id" readOnly:"true"`
	Name string `json:"name" minLength:"1" maxLength:"80"`
	// Knows lists the knots this learner has tied without a fault.
	Knows []string `json:"knows" readOnly:"true" nullable:"false"`
}

// Attempt is one try at a knot.
type Attempt struct {
	ID        int64  `json:"id" readOnly:"true"`
	LearnerID int64  `json:"learner_id"`
	Learner   string `json:"learner,omitempty" readOnly:"true"`
	Knot      string `json:"knot"`
	// Kind is tied (in rope) or drill (crossings set on the screen).
	Kind    string `json:"kind,omitempty" enum:"tied,drill"`
	Outcome string `json:"outcome" enum:"right,slow,fault"`
	// Fault is a fault code of the knot, where the outcome is a fault.
	Fault      string    `json:"fault,omitempty"`
	Seconds    float64   `json:"seconds,omitempty" minimum:"0" maximum:"7200"`
	Conditions string    `json:"conditions,omitempty" enum:"dry,wet,gloves,blind,real"`
	At         time.Time `json:"at" readOnly:"true"`
}

// Learners lists them by name.
func (s *Store) Learners(ctx context.Context) ([]Learner, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT l.id, l.name, coalesce((SELECT group_concat(DISTINCT a.knot) FROM attempt a
		WHERE a.learner_id = l.id AND a.kind = 'tied' AND a.outcome <> 'fault'), '') FROM learner l ORDER BY l.name`)
	return collect(rows, err, func(r *sql.Rows) (l Learner, err error) {
		var knows string
		err = r.Scan(&l.ID, &l.Name, &knows)
		l.Knows = []string{}
		if knows != "" {
			l.Knows = strings.Split(knows, ",")
			slices.Sort(l.Knows)
		}
		return
	})
}

// AddLearner adds a learner, or finds the one already there by that name.
func (s *Store) AddLearner(ctx context.Context, name string) (Learner, error) {
	l := Learner{Name: name, Knows: []string{}}
	err := s.write(ctx, func(tx *sql.Tx) error {
		return tx.QueryRowContext(ctx, `INSERT INTO learner (name) VALUES (?) ON CONFLICT (name) DO UPDATE SET name = learner.name RETURNING id, name`, name).Scan(&l.ID, &l.Name)
	})
	return l, err
}

// Attempts lists the latest attempts, newest first; a knot id narrows the list.
func (s *Store) Attempts(ctx context.Context, knot string, limit int) ([]Attempt, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT a.id, a.learner_id, l.name, a.knot, a.kind, a.outcome, a.fault, a.seconds, a.conditions, a.at
		FROM attempt a JOIN learner l ON l.id = a.learner_id WHERE ? = '' OR a.knot = ? ORDER BY a.at DESC, a.id DESC LIMIT ?`, knot, knot, limit)
	return collect(rows, err, func(r *sql.Rows) (a Attempt, err error) {
		var at string
		if err = r.Scan(&a.ID, &a.LearnerID, &a.Learner, &a.Knot, &a.Kind, &a.Outcome, &a.Fault, &a.Seconds, &a.Conditions, &at); err == nil {
			a.At, err = time.Parse(time.RFC3339Nano, at)
		}
		return
	})
}

// AddAttempt records an attempt, now unless it says when, and returns its id.
func (s *Store) AddAttempt(ctx context.Context, a Attempt) (int64, error) {
	if a.At.IsZero() {
		a.At = time.Now()
	}
	if a.Conditions == "" {
		a.Conditions = "dry"
	}
	if a.Kind == "" {
		a.Kind = "tied"
	}
	err := s.write(ctx, func(tx *sql.Tx) error {
		return tx.QueryRowContext(ctx, `INSERT INTO attempt (learner_id, knot, kind, outcome, fault, seconds, conditions, at) VALUES (?,?,?,?,?,?,?,?) RETURNING id`,
			a.LearnerID, a.Knot, a.Kind, a.Outcome, a.Fault, a.Seconds, a.Conditions, a.At.UTC().Format(time.RFC3339Nano)).Scan(&a.ID)
	})
	return a.ID, err
}

// DeleteAttempt takes an attempt back.
func (s *Store) DeleteAttempt(ctx context.Context, id int64) error {
	return s.delete(ctx, `DELETE FROM attempt WHERE id=?`, id)
}
