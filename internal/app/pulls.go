package app

import (
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"slices"

	"oarweed/core/bench"
	"oarweed/core/problem"
	"oarweed/core/say"
)

// AllPulls lists them, the last changed first.
func (s *School) AllPulls(ctx context.Context) ([]bench.Pull, error) { return pullKept.list(ctx, s) }

// Pull reads one.
func (s *School) Pull(ctx context.Context, id int64) (bench.Pull, error) {
	return pullKept.one(ctx, s, id)
}

// Pulls of a series, oldest first.
func (s *School) Pulls(ctx context.Context, series string) ([]bench.Pull, error) {
	list, err := pullKept.list(ctx, s)
	if err != nil {
		return nil, err
	}
	list = slices.DeleteFunc(list, func(p bench.Pull) bool { return p.Series != series })
	slices.SortStableFunc(list, func(a, b bench.Pull) int { return cmp.Or(a.At.Compare(b.At), cmp.Compare(a.ID, b.ID)) })
	return list, nil
}

// SavePull keeps a pull, or finds the one already there by its key. The error names each field.
func (s *School) SavePull(ctx context.Context, p bench.Pull) (bench.Pull, error) {
	if p.At.IsZero() {
		p.At = s.now()
	}
	p.At = p.At.UTC()
	var l problem.List
	l.Take("", p.Check(s.known, s.now()))
	if err := s.seriesThere(ctx, p.Series); err != nil {
		l.Take("series", err)
	}
	if err := l.Err(); err != nil {
		return p, err
	}
	if p.ID == 0 {
		t, err := s.records.Readings(ctx, p.Key)
		if err != nil {
			return p, err
		}
		p.Found, p.Same = nil, ""
		if len(t.S) >= 3 {
			m, err := bench.FindMarks(t)
			if err != nil {
				return p, err
			}
			p.Found, p.Same = &m, same(t)
			p.TakeNoted(t.S[0])
		}
	} else {
		was, err := pullKept.one(ctx, s, p.ID)
		if err != nil {
			return p, err
		}
		p.Key, p.Found, p.Same = was.Key, was.Found, was.Same // what was found stays beside what is corrected
	}
	body, err := json.Marshal(p)
	if err != nil {
		return p, err
	}
	d, err := s.records.SaveDocument(ctx, Document{ID: p.ID, Kind: PullKind, Key: p.Key, Revision: p.Revision, Body: body})
	if err != nil {
		return p, err
	}
	out, err := pullKept.read(d)
	if err != nil {
		return out, err
	}
	return out, s.layPulls(ctx)
}

func (s *School) seriesThere(ctx context.Context, key string) error {
	all, err := s.AllSeries(ctx)
	if err != nil {
		return err
	}
	if !slices.ContainsFunc(all, func(x bench.Series) bool { return x.Key == key }) {
		return problem.New("", fmt.Sprintf("there is no series %q", key), "choose one, or plan one")
	}
	return nil
}

// same is the fingerprint of a trace.
func same(t bench.Trace) string {
	sum := sha256.Sum256(bench.WriteCSV(t))
	return hex.EncodeToString(sum[:12])
}

// DeletePull removes one, its readings with it.
func (s *School) DeletePull(ctx context.Context, id int64) error {
	p, err := pullKept.one(ctx, s, id)
	if err != nil {
		return err
	}
	if err := s.records.DeleteDocument(ctx, PullKind, id); err != nil {
		return err
	}
	if err := s.records.DeleteReadings(ctx, p.Key); err != nil {
		return err
	}
	return s.layPulls(ctx)
}

// Stopped is a pull whose readings are kept and that is not recorded yet.
type Stopped struct {
	Key      string       `json:"key"`
	Marks    *bench.Marks `json:"marks,omitempty" doc:"what its trace shows; left out where it has too few readings"`
	S        []float64    `json:"t_s" nullable:"false"`
	KN       []float64    `json:"load_kn" nullable:"false"`
	Readings int          `json:"readings"`
}

// StartPull begins a pull on the cell; its readings are kept under the key as they come.
func (s *School) StartPull(key string) (bench.CellState, error) {
	if key == "" || len(key) > 64 {
		return bench.CellState{}, problem.New("key", "is missing or too long", "give a key of your own")
	}
	err := s.cell.Start(key)
	return s.cell.State(), err
}

// StopPull ends the pull on the cell and says what its trace shows.
func (s *School) StopPull(ctx context.Context) (*Stopped, error) {
	key := s.cell.State().Pull
	t, err := s.cell.Stop(ctx)
	if err != nil {
		return nil, err
	}
	return stopped(key, t), nil
}

func stopped(key string, t bench.Trace) *Stopped {
	small := bench.Thinned(t, 1200)
	out := &Stopped{Key: key, S: append([]float64{}, small.S...), KN: append([]float64{}, small.KN...), Readings: len(t.S)}
	if m, err := bench.FindMarks(t); err == nil {
		out.Marks = &m
		for i := range out.KN {
			out.KN[i] -= m.ZeroKN
		}
	}
	if len(out.S) > 0 {
		began := out.S[0]
		for i := range out.S {
			out.S[i] -= began
		}
	}
	return out
}

// Unrecorded are pulls whose readings are kept and that were never recorded: the server or the
// page was closed while they were made.
func (s *School) Unrecorded(ctx context.Context) ([]*Stopped, error) {
	keys, err := s.records.Unfinished(ctx)
	if err != nil {
		return nil, err
	}
	out := []*Stopped{}
	for _, key := range keys {
		if key == s.cell.State().Pull {
			continue
		}
		t, err := s.records.Readings(ctx, key)
		if err != nil {
			return nil, err
		}
		out = append(out, stopped(key, t))
	}
	return out, nil
}

// Discard removes the readings of a pull that is not recorded. The error says that it is.
func (s *School) Discard(ctx context.Context, key string) error {
	all, err := pullKept.list(ctx, s)
	if err != nil {
		return err
	}
	if slices.ContainsFunc(all, func(p bench.Pull) bool { return p.Key == key }) {
		return problem.New("key", "is that of a recorded pull", "remove the pull itself")
	}
	return s.records.DeleteReadings(ctx, key)
}

// Trace of a pull for a screen: at most so many points, lows and highs kept, zero subtracted.
func (s *School) Trace(ctx context.Context, id int64, points int) (bench.Trace, error) {
	p, err := pullKept.one(ctx, s, id)
	if err != nil {
		return bench.Trace{}, err
	}
	t, err := s.records.Readings(ctx, p.Key)
	if err != nil || len(t.S) == 0 {
		return bench.Trace{S: []float64{}, KN: []float64{}}, err
	}
	zero := 0.0
	if p.Found != nil {
		zero = p.Found.ZeroKN
	}
	out := bench.Thinned(t, points)
	for i := range out.S {
		out.KN[i] -= zero
	}
	return out, nil
}

// TraceFile is the whole trace of a pull as it was read, as CSV.
func (s *School) TraceFile(ctx context.Context, id int64) ([]byte, error) {
	p, err := pullKept.one(ctx, s, id)
	if err != nil {
		return nil, err
	}
	t, err := s.records.Readings(ctx, p.Key)
	return bench.WriteCSV(t), err
}

// ReadTrace is a file of readings before it is kept: how it is read, what it shows.
type ReadTrace struct {
	Columns  bench.Columns `json:"columns"`
	Guessed  []string      `json:"guessed" nullable:"false" doc:"what was taken for granted, in words"`
	Readings int           `json:"readings"`
	Marks    bench.Marks   `json:"marks"`
	// T and KN are some of the readings, for a picture.
	S  []float64 `json:"t_s" nullable:"false"`
	KN []float64 `json:"load_kn" nullable:"false"`
	// Twice names a pull that holds the very same readings.
	Twice *Twice `json:"twice,omitempty"`
}

// Twice is a pull whose readings are there already.
type Twice struct {
	ID     int64  `json:"id"`
	Series string `json:"series"`
	Says   string `json:"says"`
}

// PreviewTrace reads a file, and keeps nothing. The error names line and column.
func (s *School) PreviewTrace(ctx context.Context, text []byte, how *bench.Columns) (*ReadTrace, error) {
	t, out, err := s.readTrace(ctx, text, how)
	if err != nil {
		return nil, err
	}
	small := bench.Thinned(t, 600)
	out.S, out.KN = small.S, small.KN
	return out, nil
}

func (s *School) readTrace(ctx context.Context, text []byte, how *bench.Columns) (bench.Trace, *ReadTrace, error) {
	t, c, err := bench.ReadCSV(text, how)
	if err != nil {
		return t, nil, err
	}
	m, err := bench.FindMarks(t)
	if err != nil {
		return t, nil, err
	}
	out := &ReadTrace{Columns: c, Guessed: []string{}, Readings: len(t.S), Marks: m}
	for _, g := range c.Guessed {
		out.Guessed = append(out.Guessed, say.Guessed(g))
	}
	all, err := pullKept.list(ctx, s)
	if err != nil {
		return t, nil, err
	}
	print := same(t)
	for _, p := range all {
		if p.Same == print {
			out.Twice = &Twice{p.ID, p.Series, say.Twice(p.At)}
		}
	}
	return t, out, nil
}

// TakeTrace keeps the readings of a file as those of a pull that is not recorded yet.
func (s *School) TakeTrace(ctx context.Context, key string, text []byte, how *bench.Columns) (*ReadTrace, error) {
	if key == "" || len(key) > 64 {
		return nil, problem.New("key", "is missing or too long", "give a key of your own")
	}
	t, out, err := s.readTrace(ctx, text, how)
	if err != nil {
		return nil, err
	}
	return out, s.records.SaveReadings(ctx, key, t)
}
