package store

import (
	"context"
	"database/sql"
	"encoding/base64"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"time"

	"oarweed/core/practice"
	"oarweed/core/problem"
	"oarweed/internal/app"
)

const learnerColumns = `SELECT id, revision, name, knows, body FROM learner`

const returningLearner = ` RETURNING id, revision, name, knows, body`

const insertLearner = `INSERT INTO learner (name, name_key, body, checksum) VALUES (?1, fold(?1), ?2, checksum(?1, ?2))`

// learnerBody is what is known of a learner beside the name and the knots.
func learnerBody(l practice.Learner) (string, error) {
	l.ID, l.Revision, l.Name, l.Knows = 0, 0, "", nil
	text, err := json.Marshal(l)
	return string(text), err
}

func scanLearner(scan func(...any) error) (l practice.Learner, err error) {
	var out practice.Learner
	var knows, body string
	if err = scan(&out.ID, &out.Revision, &out.Name, &knows, &body); err != nil {
		return
	}
	if err = json.Unmarshal([]byte(body), &l); err != nil {
		return
	}
	l.ID, l.Revision, l.Name, l.Knows = out.ID, out.Revision, out.Name, strings.Fields(knows)
	return
}

// Learners lists them by name.
func (s *Store) Learners(ctx context.Context) ([]practice.Learner, error) {
	return list(ctx, s.read, scanLearner, learnerColumns+` ORDER BY name_key, id`)
}

// Learner reads one learner.
func (s *Store) Learner(ctx context.Context, id int64) (practice.Learner, error) {
	return one(ctx, s.read, scanLearner, learnerColumns+` WHERE id = ?`, id)
}

// AddLearner adds a learner, or finds the one already there by that name.
func (s *Store) AddLearner(ctx context.Context, l practice.Learner) (out practice.Learner, added bool, err error) {
	err = s.write(ctx, func(tx *sql.Tx) error {
		out, err = one(ctx, tx, scanLearner, learnerColumns+` WHERE name_key = fold(?) ORDER BY id LIMIT 1`, l.Name)
		if !errors.Is(err, app.ErrNotFound) {
			return err
		}
		added = true
		body, err := learnerBody(l)
		if err != nil {
			return err
		}
		out, err = one(ctx, tx, scanLearner, insertLearner+returningLearner, l.Name, body)
		return err
	})
	return out, added, err
}

// SaveLearner changes what is known of a learner. The conflict is that it was changed meanwhile,
// or that another learner has it.
func (s *Store) SaveLearner(ctx context.Context, l practice.Learner) (out practice.Learner, err error) {
	err = s.write(ctx, func(tx *sql.Tx) error {
		switch other, err := one(ctx, tx, scanLearner, learnerColumns+` WHERE name_key = fold(?) AND id <> ? ORDER BY id LIMIT 1`, l.Name, l.ID); {
		case err == nil:
			return &app.Conflict{NameTaken: true, Kept: other}
		case !errors.Is(err, app.ErrNotFound):
			return err
		}
		body, err := learnerBody(l)
		if err != nil {
			return err
		}
		out, err = one(ctx, tx, scanLearner, `UPDATE learner SET name = ?1, name_key = fold(?1), body = ?4, checksum = checksum(?1, ?4), revision = revision + 1
			WHERE id = ?2 AND revision = ?3`+returningLearner, l.Name, l.ID, l.Revision, body)
		return changedMeanwhile(err, func() (any, error) { return one(ctx, tx, scanLearner, learnerColumns+` WHERE id = ?`, l.ID) })
	})
	return out, err
}

// MergeLearners gives all attempts of one learner to another, and removes the first.
func (s *Store) MergeLearners(ctx context.Context, from, into int64) (out practice.Learner, err error) {
	err = s.write(ctx, func(tx *sql.Tx) error {
		for _, id := range []int64{from, into} {
			if _, err := one(ctx, tx, scanLearner, learnerColumns+` WHERE id = ?`, id); err != nil {
				return err
			}
		}
		knots, err := list(ctx, tx, func(scan func(...any) error) (k string, err error) { err = scan(&k); return }, `SELECT DISTINCT knot FROM attempt WHERE learner_id = ?`, from)
		if err != nil {
			return err
		}
		for _, x := range []struct {
			query string
			args  []any
		}{
			{`UPDATE attempt SET learner_id = ?2, checksum = checksum(?2, knot, kind, outcome, fault, seconds, conditions, help, side, judged, at, received_at) WHERE learner_id = ?1`, []any{from, into}},
			{`INSERT INTO shown SELECT ?2, knot, n FROM shown WHERE learner_id = ?1 ON CONFLICT DO UPDATE SET n = n + excluded.n`, []any{from, into}},
			{`UPDATE photo SET learner_id = ?2 WHERE learner_id = ?1`, []any{from, into}},
			{`DELETE FROM shown WHERE learner_id = ?`, []any{from}},
			{`DELETE FROM standing WHERE learner_id = ?`, []any{from}},
			{`DELETE FROM learner WHERE id = ?`, []any{from}},
		} {
			if _, err := tx.ExecContext(ctx, x.query, x.args...); err != nil {
				return err
			}
		}
		for _, k := range knots {
			if err := s.count(ctx, tx, into, k); err != nil {
				return err
			}
		}
		if _, err := tx.ExecContext(ctx, knowsOf+` WHERE id = ?`, into); err != nil {
			return err
		}
		out, err = one(ctx, tx, scanLearner, learnerColumns+` WHERE id = ?`, into)
		return err
	})
	return out, err
}

// EraseLearner removes a learner with every attempt, for good.
func (s *Store) EraseLearner(ctx context.Context, id int64) error {
	return s.write(ctx, func(tx *sql.Tx) error {
		for _, table := range []string{"attempt", "shown", "standing", "photo"} {
			if _, err := tx.ExecContext(ctx, `DELETE FROM `+table+` WHERE learner_id = ?`, id); err != nil {
				return err
			}
		}
		return changed(tx.ExecContext(ctx, `DELETE FROM learner WHERE id = ?`, id))
	})
}

const attemptColumns = `SELECT a.id, a.key, a.learner_id, l.name, a.knot, a.kind, a.outcome, a.fault, a.seconds, a.conditions, a.help, a.side, a.judged, a.at, a.received_at
	FROM attempt a JOIN learner l ON l.id = a.learner_id`

func scanAttempt(scan func(...any) error) (a practice.Attempt, err error) {
	var at, received string
	var key sql.NullString
	if err = scan(&a.ID, &key, &a.LearnerID, &a.Learner, &a.Knot, &a.Kind, &a.Outcome, &a.Fault, &a.Seconds, &a.Conditions, &a.Help, &a.Side, &a.Judged, &at, &received); err != nil {
		return
	}
	a.Key = key.String
	// A row whose time cannot be read must not take the whole log with it: Verify names it.
	a.At, _ = time.Parse(time.RFC3339Nano, at)
	a.ReceivedAt, _ = time.Parse(time.RFC3339Nano, received)
	return
}

// Attempts lists attempts, newest first, and gives the cursor of the next page, "" after
// the last.
func (s *Store) Attempts(ctx context.Context, f app.Filter, p app.Page) ([]practice.Attempt, string, error) {
	cond, args := narrowed(f)
	query := attemptColumns + cond
	where := func(cond string, values ...any) {
		query += " AND " + cond
		args = append(args, values...)
	}
	if p.Cursor != "" {
		at, id, err := readCursor(p.Cursor)
		if err != nil {
			return nil, "", err
		}
		where(`(a.at, a.id) < (?, ?)`, at, id)
	}
	out, err := list(ctx, s.read, scanAttempt, query+` ORDER BY a.at DESC, a.id DESC LIMIT ?`, append(args, p.Limit+1)...)
	if err != nil || len(out) <= p.Limit {
		return out, "", err
	}
	out = out[:p.Limit]
	last := out[len(out)-1]
	return out, cursor(last.At, last.ID), nil
}

// narrowed is the condition of a filter.
func narrowed(f app.Filter) (query string, args []any) {
	query = ` WHERE a.deleted_at IS NULL`
	where := func(cond string, value any) {
		query += " AND " + cond
		args = append(args, value)
	}
	if f.Knot != "" {
		where(`a.knot = ?`, f.Knot)
	}
	if f.LearnerID != 0 {
		where(`a.learner_id = ?`, f.LearnerID)
	}
	if f.Outcome != "" {
		where(`a.outcome = ?`, f.Outcome)
	}
	if f.Condition != "" {
		where(`instr(',' || a.conditions || ',', ',' || ? || ',') > 0`, f.Condition)
	}
	if f.Group != "" {
		where(`EXISTS (SELECT 1 FROM json_each(l.body, '$.groups') g WHERE g.value = ?)`, f.Group)
	}
	return
}

// Totals count attempts by day, the last so many days on which there were any, the
// earliest first.
func (s *Store) Totals(ctx context.Context, f app.Filter, days int) ([]app.DayTotal, error) {
	cond, args := narrowed(f)
	return list(ctx, s.read, func(scan func(...any) error) (d app.DayTotal, err error) {
		err = scan(&d.Day, &d.Right, &d.Slow, &d.Fault)
		return
	}, `SELECT * FROM (SELECT substr(a.at, 1, 10) AS day, sum(a.outcome = 'right'), sum(a.outcome = 'slow'), sum(a.outcome = 'fault')
		FROM attempt a JOIN learner l ON l.id = a.learner_id`+cond+` GROUP BY day ORDER BY day DESC LIMIT ?) ORDER BY day`, append(args, days)...)
}

// A cursor is the place of the last entry of a page.
func cursor(at time.Time, id int64) string {
	return base64.RawURLEncoding.EncodeToString(fmt.Appendf(nil, "%s %d", kept(at), id))
}

func readCursor(text string) (at string, id int64, err error) {
	raw, err := base64.RawURLEncoding.DecodeString(text)
	if err == nil {
		_, err = fmt.Sscanf(string(raw), "%s %d", &at, &id)
	}
	if err != nil {
		return "", 0, problem.New("cursor", "is not one that was given out", "begin at the first page")
	}
	return at, id, nil
}

// kept is a time written so that text sorts as time does: always with six decimals.
func kept(t time.Time) string { return t.UTC().Format("2006-01-02T15:04:05.000000Z") }

// AddAttempt records an attempt, or finds the one already there by its key.
func (s *Store) AddAttempt(ctx context.Context, a practice.Attempt) (out practice.Attempt, added bool, err error) {
	err = s.write(ctx, func(tx *sql.Tx) error {
		if a.Key != "" {
			out, err = one(ctx, tx, scanAttempt, attemptColumns+` WHERE a.key = ?`, a.Key)
			if !errors.Is(err, app.ErrNotFound) {
				return err
			}
		}
		added = true
		if out, err = insertAttempt(ctx, tx, a); err != nil {
			return err
		}
		return s.countOne(ctx, tx, out)
	})
	return out, added, err
}

func insertAttempt(ctx context.Context, tx *sql.Tx, a practice.Attempt) (out practice.Attempt, err error) {
	var id int64
	if err := tx.QueryRowContext(ctx, `INSERT INTO attempt (key, learner_id, knot, kind, outcome, fault, seconds, conditions, help, side, judged, at, received_at, checksum)
		VALUES (nullif(?1, ''),?2,?3,?4,?5,?6,?7,?8,?9,?10,?11,?12,?13, checksum(?2,?3,?4,?5,?6,?7,?8,?9,?10,?11,?12,?13)) RETURNING id`,
		a.Key, a.LearnerID, a.Knot, a.Kind, a.Outcome, a.Fault, a.Seconds, a.Conditions, a.Help, a.Side, a.Judged, kept(a.At), kept(a.ReceivedAt)).Scan(&id); err != nil {
		return out, err
	}
	if out, err = one(ctx, tx, scanAttempt, attemptColumns+` WHERE a.id = ?`, id); err != nil {
		return out, err
	}
	return out, shown(ctx, tx, out, 1)
}

// DeleteAttempt takes an attempt back.
func (s *Store) DeleteAttempt(ctx context.Context, id int64) error {
	return s.write(ctx, func(tx *sql.Tx) error {
		a, err := one(ctx, tx, scanAttempt, attemptColumns+` WHERE a.id = ? AND a.deleted_at IS NULL`, id)
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE attempt SET deleted_at = ? WHERE id = ?`, now(), id); err != nil {
			return err
		}
		if err := s.count(ctx, tx, a.LearnerID, a.Knot); err != nil {
			return err
		}
		return shown(ctx, tx, a, -1)
	})
}

// RestoreAttempt brings back an attempt that was taken back.
func (s *Store) RestoreAttempt(ctx context.Context, id int64) (a practice.Attempt, err error) {
	err = s.write(ctx, func(tx *sql.Tx) error {
		a, err = one(ctx, tx, scanAttempt, attemptColumns+` WHERE a.id = ? AND a.deleted_at IS NOT NULL`, id)
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE attempt SET deleted_at = NULL WHERE id = ?`, id); err != nil {
			return err
		}
		if err := s.count(ctx, tx, a.LearnerID, a.Knot); err != nil {
			return err
		}
		return shown(ctx, tx, a, 1)
	})
	return a, err
}

// shown counts how often a learner has shown a knot, and keeps the list of those shown at
// least once with the learner, so that a class is listed without reading its whole log.
func shown(ctx context.Context, tx *sql.Tx, a practice.Attempt, by int) error {
	if !a.Shows() {
		return nil
	}
	var n int
	if err := tx.QueryRowContext(ctx, `INSERT INTO shown (learner_id, knot, n) VALUES (?1, ?2, ?3)
		ON CONFLICT DO UPDATE SET n = n + ?3 RETURNING n`, a.LearnerID, a.Knot, by).Scan(&n); err != nil {
		return err
	}
	if n > 1 || n == 1 && by < 0 {
		return nil // it was known before, and is
	}
	_, err := tx.ExecContext(ctx, knowsOf+` WHERE id = ?`, a.LearnerID)
	return err
}

// knowsOf writes the list of knots that a learner has shown.
const knowsOf = `UPDATE learner SET knows = coalesce((SELECT group_concat(knot, ' ') FROM
	(SELECT knot FROM shown WHERE learner_id = learner.id AND n > 0 ORDER BY knot)), '')`
