package store

import (
	"bytes"
	"compress/flate"
	"context"
	"database/sql"
	"encoding/binary"
	"io"
	"math"

	"oarweed/core/bench"
	"oarweed/internal/app"
)

// mostChunk is how many readings one chunk holds, so that none grows beyond what SQLite and
// memory take easily.
const mostChunk = 1 << 18

// AppendReadings keeps readings of a pull; chunks are numbered from 0, and one that is there
// already is left as it is.
func (s *Store) AppendReadings(ctx context.Context, pull string, chunk int, t bench.Trace) error {
	body, err := packed(t)
	if err != nil {
		return err
	}
	return s.write(ctx, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, `INSERT INTO reading (pull, chunk, body, at, checksum) VALUES (?1, ?2, ?3, ?4, checksum(?1, ?2, ?3)) ON CONFLICT DO NOTHING`, pull, chunk, body, now())
		return err
	})
}

// SaveReadings keeps all readings of a pull at once, in the place of what was kept.
func (s *Store) SaveReadings(ctx context.Context, pull string, t bench.Trace) error {
	var bodies [][]byte
	for from := 0; from < len(t.S); from += mostChunk {
		to := min(from+mostChunk, len(t.S))
		body, err := packed(bench.Trace{S: t.S[from:to], KN: t.KN[from:to]})
		if err != nil {
			return err
		}
		bodies = append(bodies, body)
	}
	return s.write(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM reading WHERE pull = ?`, pull); err != nil {
			return err
		}
		for chunk, body := range bodies {
			if _, err := tx.ExecContext(ctx, `INSERT INTO reading (pull, chunk, body, at, checksum) VALUES (?1, ?2, ?3, ?4, checksum(?1, ?2, ?3))`, pull, chunk, body, now()); err != nil {
				return err
			}
		}
		return nil
	})
}

// Readings of a pull; none if none are kept.
func (s *Store) Readings(ctx context.Context, pull string) (t bench.Trace, err error) {
	bodies, err := list(ctx, s.read, func(scan func(...any) error) (b []byte, err error) { err = scan(&b); return }, `SELECT body FROM reading WHERE pull = ? ORDER BY chunk`, pull)
	if err != nil {
		return t, err
	}
	for _, b := range bodies {
		if err := unpack(b, &t); err != nil {
			return t, err
		}
	}
	return t, nil
}

// Unfinished are pulls of which readings are kept and no record: the server was stopped while
// they were made.
func (s *Store) Unfinished(ctx context.Context) ([]string, error) {
	return list(ctx, s.read, func(scan func(...any) error) (k string, err error) { err = scan(&k); return },
		`SELECT DISTINCT pull FROM reading r WHERE NOT EXISTS (SELECT 1 FROM document d WHERE d.kind = ? AND d.key = r.pull) ORDER BY pull`, app.PullKind)
}

// DeleteReadings removes those of a pull.
func (s *Store) DeleteReadings(ctx context.Context, pull string) error {
	return s.write(ctx, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, `DELETE FROM reading WHERE pull = ?`, pull)
		return err
	})
}

func packed(t bench.Trace) ([]byte, error) {
	raw := make([]byte, 0, 16*len(t.S))
	for i := range t.S {
		raw = binary.LittleEndian.AppendUint64(raw, math.Float64bits(t.S[i]))
		raw = binary.LittleEndian.AppendUint64(raw, math.Float64bits(t.KN[i]))
	}
	var out bytes.Buffer
	w, err := flate.NewWriter(&out, flate.BestSpeed)
	if err == nil {
		_, err = w.Write(raw)
	}
	if err == nil {
		err = w.Close()
	}
	return out.Bytes(), err
}

func unpack(body []byte, t *bench.Trace) error {
	raw, err := io.ReadAll(flate.NewReader(bytes.NewReader(body)))
	if err != nil {
		return err
	}
	for ; len(raw) >= 16; raw = raw[16:] {
		t.S = append(t.S, math.Float64frombits(binary.LittleEndian.Uint64(raw)))
		t.KN = append(t.KN, math.Float64frombits(binary.LittleEndian.Uint64(raw[8:])))
	}
	return nil
}
