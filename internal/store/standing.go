package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"strconv"
	"strings"
	"time"

	"oarweed/core/practice"
	"oarweed/internal/app"
)

func scanStanding(scan func(...any) error) (s practice.Standing, err error) {
	var body string
	if err = scan(&body); err != nil {
		return
	}
	var k keptStanding
	err = json.Unmarshal([]byte(body), &k)
	s = k.Standing
	s.Memory.Last, s.Memory.Step = k.MemoryLast, k.MemoryStep
	return
}

// keptStanding is a standing with what its documents do not show.
type keptStanding struct {
	practice.Standing
	MemoryLast time.Time `json:"memory_last,omitzero"`
	MemoryStep int       `json:"memory_step,omitempty"`
}

// UseTargets says in which time each knot counts as tied in time, and counts all attempts
// anew where nothing has been counted yet.
func (s *Store) UseTargets(ctx context.Context, target func(knot string) float64) error {
	s.target = target
	var missing bool
	if err := s.read.QueryRowContext(ctx, `SELECT NOT EXISTS (SELECT 1 FROM standing) AND EXISTS (SELECT 1 FROM attempt WHERE deleted_at IS NULL)`).Scan(&missing); err != nil || !missing {
		return err
	}
	return s.write(ctx, func(tx *sql.Tx) error { return s.countAll(ctx, tx) })
}

// countAll counts every learner at every knot.
func (s *Store) countAll(ctx context.Context, tx *sql.Tx) error {
	type pair struct {
		learner int64
		knot    string
	}
	pairs, err := list(ctx, tx, func(scan func(...any) error) (p pair, err error) { err = scan(&p.learner, &p.knot); return },
		`SELECT DISTINCT learner_id, knot FROM attempt WHERE deleted_at IS NULL`)
	for _, p := range pairs {
		if err == nil {
			err = s.count(ctx, tx, p.learner, p.knot)
		}
	}
	return err
}

// count counts the attempts of a learner at a knot anew.
func (s *Store) count(ctx context.Context, tx *sql.Tx, learner int64, knot string) error {
	attempts, err := list(ctx, tx, scanAttempt, attemptColumns+` WHERE a.learner_id = ? AND a.knot = ? AND a.deleted_at IS NULL ORDER BY a.at, a.id`, learner, knot)
	if err != nil {
		return err
	}
	if len(attempts) == 0 {
		_, err := tx.ExecContext(ctx, `DELETE FROM standing WHERE learner_id = ? AND knot = ?`, learner, knot)
		return err
	}
	return putStanding(ctx, tx, practice.StandingOf(attempts, s.targetOf(knot)))
}

// countOne adds the newest attempt to what the others came to.
func (s *Store) countOne(ctx context.Context, tx *sql.Tx, a practice.Attempt) error {
	now, err := one(ctx, tx, scanStanding, `SELECT body FROM standing WHERE learner_id = ? AND knot = ?`, a.LearnerID, a.Knot)
	if err != nil && !errors.Is(err, app.ErrNotFound) {
		return err
	}
	if a.At.Before(now.Last) {
		return s.count(ctx, tx, a.LearnerID, a.Knot)
	}
	now.Add(a, s.targetOf(a.Knot))
	return putStanding(ctx, tx, now)
}

func (s *Store) targetOf(knot string) float64 {
	if s.target == nil {
		return 0
	}
	return s.target(knot)
}

func putStanding(ctx context.Context, tx *sql.Tx, s practice.Standing) error {
	body, err := json.Marshal(keptStanding{s, s.Memory.Last, s.Memory.Step})
	if err != nil {
		return err
	}
	fault, due := 0, ""
	if s.Fault != "" {
		fault = 1
	}
	if s.Repeated {
		fault = 2
	}
	if !s.Memory.Due.IsZero() {
		due = kept(s.Memory.Due)
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO standing (learner_id, knot, level, fault, due, body) VALUES (?1, ?2, ?3, ?4, ?5, ?6)
		ON CONFLICT DO UPDATE SET level = ?3, fault = ?4, due = ?5, body = ?6`, s.LearnerID, s.Knot, int(s.Level), fault, due, string(body))
	return err
}

// Standings of a learner, by knot.
func (s *Store) Standings(ctx context.Context, learner int64) ([]practice.Standing, error) {
	return list(ctx, s.read, scanStanding, `SELECT body FROM standing WHERE learner_id = ? ORDER BY knot`, learner)
}

// Due are the standings that are due at a time, those longest overdue first.
func (s *Store) Due(ctx context.Context, learner int64, at time.Time, limit int) ([]practice.Standing, error) {
	if learner != 0 {
		return list(ctx, s.read, scanStanding, `SELECT body FROM standing WHERE learner_id = ? AND due <> '' AND due <= ? ORDER BY due LIMIT ?`, learner, kept(at), limit)
	}
	return list(ctx, s.read, scanStanding, `SELECT body FROM standing WHERE due <> '' AND due <= ? ORDER BY due LIMIT ?`, kept(at), limit)
}

// ClassTries are the tied attempts of a group's learners, of all where it is empty, those
// of each learner and knot together, the earliest first.
func (s *Store) ClassTries(ctx context.Context, group string) ([]practice.Attempt, error) {
	cond, args := narrowed(app.Filter{Group: group})
	return list(ctx, s.read, scanAttempt, attemptColumns+cond+` AND a.kind = 'tied' AND coalesce(json_extract(l.body, '$.archived'), 0) = 0 ORDER BY a.knot, a.learner_id, a.at, a.id`, args...)
}

// Board gives what every learner can, in the order of their names.
func (s *Store) Board(ctx context.Context) ([]app.BoardRow, error) {
	return list(ctx, s.read, func(scan func(...any) error) (r app.BoardRow, err error) {
		var body string
		var cells sql.NullString
		if err = scan(&r.ID, &r.Name, &body, &cells); err != nil {
			return
		}
		var l practice.Learner
		if err = json.Unmarshal([]byte(body), &l); err != nil {
			return
		}
		r.Groups, r.Archived = l.Groups, l.Archived
		r.Cells = map[string]app.Cell{}
		for cell := range strings.FieldsSeq(cells.String) {
			knot, rest, _ := strings.Cut(cell, "=")
			level, fault, _ := strings.Cut(rest, ".")
			x := app.Cell{}
			x.Level, _ = strconv.Atoi(level)
			x.Fault, _ = strconv.Atoi(fault)
			r.Cells[knot] = x
		}
		return
	}, `SELECT l.id, l.name, l.body, (SELECT group_concat(s.knot || '=' || s.level || '.' || s.fault, ' ') FROM standing s WHERE s.learner_id = l.id)
		FROM learner l ORDER BY l.name_key, l.id`)
}
