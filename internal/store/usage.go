package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"strings"
	"time"

	"oarweed/core/name"
	"oarweed/core/usage"
	"oarweed/internal/app"
)

const useColumns = `SELECT id, coalesce(key, ''), body FROM usage`

func scanUse(scan func(...any) error) (e usage.Entry, err error) {
	var body, key string
	var id int64
	if err = scan(&id, &key, &body); err != nil {
		return
	}
	err = json.Unmarshal([]byte(body), &e)
	e.ID, e.Key = id, key
	return
}

// Uses lists the log of use, newest first, and gives the cursor of the next page, "" after the
// last.
func (s *Store) Uses(ctx context.Context, f usage.Filter, p app.Page) ([]usage.Entry, string, error) {
	cond, args := narrowedUse(f)
	if p.Cursor != "" {
		at, id, err := readCursor(p.Cursor)
		if err != nil {
			return nil, "", err
		}
		cond += ` AND (at, id) < (?, ?)`
		args = append(args, at, id)
	}
	out, err := list(ctx, s.read, scanUse, useColumns+cond+` ORDER BY at DESC, id DESC LIMIT ?`, append(args, p.Limit+1)...)
	if err != nil || len(out) <= p.Limit {
		return out, "", err
	}
	out = out[:p.Limit]
	last := out[len(out)-1]
	return out, cursor(last.At, last.ID), nil
}

func narrowedUse(f usage.Filter) (query string, args []any) {
	query = ` WHERE deleted_at IS NULL`
	where := func(cond string, values ...any) {
		query += " AND " + cond
		args = append(args, values...)
	}
	if f.Line != "" {
		where(`(line = ? AND line <> '' OR other = ? AND other <> '')`, f.Line, f.Line)
	}
	if f.Knot != "" {
		where(`knot = ?`, f.Knot)
	}
	if f.Outcome != "" {
		where(`outcome = ?`, f.Outcome)
	}
	if f.Wrong {
		where(`outcome <> ?`, usage.Held)
	}
	if f.Where != "" {
		where(`place = ?`, name.Key(f.Where))
	}
	if f.From != "" {
		where(`at >= ?`, f.From)
	}
	if f.To != "" {
		where(`at < ?`, f.To+"T99")
	}
	return
}

func scanCount(scan func(...any) error) (c usage.Count, err error) {
	err = scan(&c.Line, &c.Knot, &c.Outcome, &c.N, &c.Hours)
	return
}

// Used counts the log of use: all of it, by line, each use counting on both of its lines, and by
// knot.
func (s *Store) Used(ctx context.Context, f usage.Filter) (out app.UseCounts, err error) {
	// The sums that are kept answer for lines, knots and outcomes, those by day for days too;
	// places are counted from the entries that they leave.
	if f.Where == "" && f.From == "" && f.To == "" {
		cond := ` FROM usage_sum WHERE n > 0`
		var args []any
		if f.Knot != "" {
			cond, args = cond+` AND knot = ?`, append(args, f.Knot)
		}
		if f.Outcome != "" {
			cond, args = cond+` AND outcome = ?`, append(args, f.Outcome)
		}
		if f.Wrong {
			cond, args = cond+` AND outcome <> ?`, append(args, usage.Held)
		}
		if f.Line != "" {
			cond, args = cond+` AND line = ?`, append(args, f.Line)
		}
		if out.Lines, err = list(ctx, s.read, scanCount, `SELECT line, '', outcome, sum(n), sum(hours)`+cond+` AND line <> '' GROUP BY line, outcome`, args...); err != nil {
			return out, err
		}
		first := ` AND first = 1`
		if f.Line != "" { // of one line every use of it counts for the knot
			first = ``
		}
		if out.Knots, err = list(ctx, s.read, scanCount, `SELECT '', knot, outcome, sum(n), sum(hours)`+cond+first+` AND knot <> '' GROUP BY knot, outcome`, args...); err != nil {
			return out, err
		}
		out.All, err = list(ctx, s.read, scanCount, `SELECT '', '', outcome, sum(n), sum(hours)`+cond+first+` GROUP BY outcome`, args...)
		return out, err
	}
	cond, args := narrowedUse(f)
	from := `line, other, knot, outcome, count(*), sum(hours) FROM usage`
	if f.Where == "" {
		// The columns have the same names; a day is compared as the beginning of its times.
		cond = strings.Replace(strings.Replace(cond, `deleted_at IS NULL`, `n > 0`, 1), ` at `, ` day `, -1)
		from = `line, other, knot, outcome, sum(n), sum(hours) FROM usage_day`
	}
	all, err := list(ctx, s.read, func(scan func(...any) error) (c struct {
		usage.Count
		other string
	}, err error) {
		err = scan(&c.Line, &c.other, &c.Knot, &c.Outcome, &c.N, &c.Hours)
		return
	}, `SELECT `+from+cond+` GROUP BY line, other, knot, outcome`, args...)
	for _, c := range all {
		one := usage.Count{Outcome: c.Outcome, N: c.N, Hours: c.Hours}
		out.All = append(out.All, one)
		one.Knot = c.Knot
		out.Knots = append(out.Knots, one)
		for _, l := range []string{c.Line, c.other} {
			if l != "" && (f.Line == "" || f.Line == l) {
				out.Lines = append(out.Lines, usage.Count{Line: l, Outcome: c.Outcome, N: c.N, Hours: c.Hours})
			}
		}
	}
	return out, err
}

// LinesUsed is what the log holds of every line that is in it, by code.
func (s *Store) LinesUsed(ctx context.Context) (map[string]app.LineUsed, error) {
	type row struct {
		line string
		app.LineUsed
	}
	rows, err := list(ctx, s.read, func(scan func(...any) error) (r row, err error) {
		var last, bad string
		if err = scan(&r.line, &r.Trips, &r.Hours, &last, &bad); err == nil {
			r.Last, _ = time.Parse(time.RFC3339Nano, last)
			r.Bad, _ = time.Parse(time.RFC3339Nano, bad)
		}
		return
	}, `SELECT line, sum(n), sum(hours), max(last), coalesce(max(CASE WHEN outcome IN ('slipped', 'broke', 'chafed') THEN last END), '')
		FROM usage_sum WHERE line <> '' AND n > 0 GROUP BY line`)
	out := map[string]app.LineUsed{}
	for _, r := range rows {
		out[r.line] = r.LineUsed
	}
	return out, err
}

// AddUse records a use, or finds the one already there by its key.
func (s *Store) AddUse(ctx context.Context, e usage.Entry) (out usage.Entry, added bool, err error) {
	err = s.write(ctx, func(tx *sql.Tx) error {
		if e.Key != "" {
			out, err = one(ctx, tx, scanUse, useColumns+` WHERE key = ?`, e.Key)
			if !errors.Is(err, app.ErrNotFound) {
				return err
			}
		}
		added = true
		out, err = putUse(ctx, tx, e)
		return err
	})
	return out, added, err
}

// AddUses records many at once, all or none, and gives how many were not there yet.
func (s *Store) AddUses(ctx context.Context, list []usage.Entry) (added int, err error) {
	err = s.write(ctx, func(tx *sql.Tx) error {
		for _, e := range list {
			if e.Key != "" {
				switch _, err := one(ctx, tx, scanUse, useColumns+` WHERE key = ?`, e.Key); {
				case err == nil:
					continue
				case !errors.Is(err, app.ErrNotFound):
					return err
				}
			}
			if _, err := putUse(ctx, tx, e); err != nil {
				return err
			}
			added++
		}
		return nil
	})
	return added, err
}

func putUse(ctx context.Context, tx *sql.Tx, e usage.Entry) (usage.Entry, error) {
	e.ID = 0
	key := e.Key
	e.Key = ""
	body, err := json.Marshal(e)
	if err != nil {
		return e, err
	}
	e.Key = key
	out, err := one(ctx, tx, scanUse, `INSERT INTO usage (key, at, place, line, other, knot, outcome, hours, body, checksum)
		VALUES (nullif(?1, ''), ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, checksum(?2, ?4, ?5, ?6, ?7, ?9)) RETURNING id, coalesce(key, ''), body`,
		e.Key, kept(e.At), name.Key(e.Where), e.Line, e.Other, e.Knot, e.Outcome, e.Hours, string(body))
	if err != nil {
		return e, err
	}
	for i, line := range linesOf(e) {
		if _, err := tx.ExecContext(ctx, `INSERT INTO usage_sum (line, knot, outcome, first, n, hours, last) VALUES (?1, ?2, ?3, ?4, 1, ?5, ?6)
			ON CONFLICT DO UPDATE SET n = n + 1, hours = hours + excluded.hours, last = max(last, excluded.last)`,
			line, e.Knot, e.Outcome, i == 0, e.Hours, kept(e.At)); err != nil {
			return out, err
		}
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO usage_day (day, line, other, knot, outcome, n, hours) VALUES (?1, ?2, ?3, ?4, ?5, 1, ?6)
		ON CONFLICT DO UPDATE SET n = n + 1, hours = hours + excluded.hours`, dayKept(e), e.Line, e.Other, e.Knot, e.Outcome, e.Hours)
	return out, err
}

func dayKept(e usage.Entry) string { return e.At.UTC().Format(time.DateOnly) }

// linesOf are those that a use counts on; the first, which may be none, is counted for the knot.
func linesOf(e usage.Entry) []string {
	if e.Other == "" {
		return []string{e.Line}
	}
	return []string{e.Line, e.Other}
}

// DeleteUse takes a use back, RestoreUse brings it back.
func (s *Store) DeleteUse(ctx context.Context, id int64) error {
	_, err := s.markUse(ctx, id, `IS NULL`, now())
	return err
}

// RestoreUse brings back a use that was taken back.
func (s *Store) RestoreUse(ctx context.Context, id int64) (usage.Entry, error) {
	return s.markUse(ctx, id, `IS NOT NULL`, nil)
}

func (s *Store) markUse(ctx context.Context, id int64, was string, mark any) (e usage.Entry, err error) {
	err = s.write(ctx, func(tx *sql.Tx) error {
		if e, err = one(ctx, tx, scanUse, useColumns+` WHERE id = ? AND deleted_at `+was, id); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE usage SET deleted_at = ? WHERE id = ?`, mark, id); err != nil {
			return err
		}
		for i, line := range linesOf(e) {
			of := `line = ?1`
			if i == 1 {
				of = `other = ?1`
			}
			if _, err := tx.ExecContext(ctx, `INSERT OR REPLACE INTO usage_sum (line, knot, outcome, first, n, hours, last)
				SELECT ?1, ?2, ?3, ?4, count(*), coalesce(sum(hours), 0), coalesce(max(at), '') FROM usage
				WHERE deleted_at IS NULL AND `+of+` AND knot = ?2 AND outcome = ?3`, line, e.Knot, e.Outcome, i == 0); err != nil {
				return err
			}
		}
		_, err := tx.ExecContext(ctx, `INSERT OR REPLACE INTO usage_day (day, line, other, knot, outcome, n, hours)
			SELECT ?1, ?2, ?3, ?4, ?5, count(*), coalesce(sum(hours), 0) FROM usage
			WHERE deleted_at IS NULL AND at >= ?1 AND at < ?1 || 'T99' AND line = ?2 AND other = ?3 AND knot = ?4 AND outcome = ?5`, dayKept(e), e.Line, e.Other, e.Knot, e.Outcome)
		return err
	})
	return e, err
}
