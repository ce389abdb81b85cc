package app

import (
	"context"
	"fmt"

	"oarweed/core/bench"
	"oarweed/core/evidence"
	"oarweed/core/problem"
	"oarweed/core/trade"
)

// Kinds of documents of the bench. PullKind is known to the store, which finds readings that
// have no record by it.
const (
	seriesKind = "series"
	PullKind   = "pull"
	benchKind  = "bench"
	proofKind  = "proof"
)

var (
	seriesKept = kindOf[bench.Series]{seriesKind, func(s *bench.Series, d Document) { s.ID, s.Revision = d.ID, d.Revision },
		func(s bench.Series) (int64, int64) { return s.ID, s.Revision }}
	pullKept = kindOf[bench.Pull]{PullKind, func(p *bench.Pull, d Document) { p.ID, p.Revision = d.ID, d.Revision },
		func(p bench.Pull) (int64, int64) { return p.ID, p.Revision }}
	proofKept = kindOf[bench.Proof]{proofKind, func(p *bench.Proof, d Document) { p.ID, p.Revision = d.ID, d.Revision },
		func(p bench.Proof) (int64, int64) { return p.ID, p.Revision }}
	benchKept = kindOf[BenchSettings]{benchKind, func(b *BenchSettings, d Document) { b.ID, b.Revision = d.ID, d.Revision },
		func(b BenchSettings) (int64, int64) { return b.ID, b.Revision }}
)

// BenchSettings are what a school has set for its bench.
type BenchSettings struct {
	ID       int64 `json:"-"`
	Revision int64 `json:"revision" readOnly:"true"`
	// Cell is the address of the load cell; empty: none.
	Cell string `json:"cell" maxLength:"200"`
	// Out: own pulls are left out of the choice.
	Out bool `json:"out,omitempty" doc:"own pulls are left out of the choice"`
	// Wraps are counts that own pulls say, in the place of the catalogue's.
	Wraps []trade.OwnWraps `json:"wraps,omitempty" maxItems:"100"`
}

// leastFailures are asked for before own pulls count in the choice.
const leastFailures = 3

// LoadCell is read, and pulls on it are written down as they are made.
type LoadCell interface {
	State() bench.CellState
	// Dial connects to an address instead of the one before; an empty one disconnects.
	Dial(addr string) error
	Zero() error
	Start(pull string) error
	// Stop ends the pull; the error is that of writing it down.
	Stop(context.Context) (bench.Trace, error)
	// Watch shows what is read until the context ends.
	Watch(ctx context.Context, show func(bench.Live) error) error
	Close()
}

// noCell stands where none can be connected.
type noCell struct{}

var errNoCell = problem.New("cell", "none can be connected here", "enter what a dial showed, or a file")

func (noCell) State() bench.CellState                              { return bench.CellState{} }
func (noCell) Zero() error                                         { return errNoCell }
func (noCell) Start(string) error                                  { return errNoCell }
func (noCell) Stop(context.Context) (bench.Trace, error)           { return bench.Trace{}, errNoCell }
func (noCell) Watch(context.Context, func(bench.Live) error) error { return nil }
func (noCell) Close()                                              {}
func (noCell) Dial(addr string) error {
	if addr == "" {
		return nil
	}
	return errNoCell
}

// Bench is the load cell.
func (s *School) Bench() LoadCell { return s.cell }

// UseCell gives the school what reads a load cell, and dials the one that is set.
func (s *School) UseCell(ctx context.Context, c LoadCell) error {
	s.cell = c
	set, err := s.BenchSettings(ctx)
	if err != nil || set.Cell == "" {
		return err
	}
	return c.Dial(set.Cell)
}

// Close lets go of instruments; the records stay open.
func (s *School) Close() {
	s.cell.Close()
	s.wind.Close()
}

// BenchSettings reads them; without any, no cell is dialled and own pulls count.
func (s *School) BenchSettings(ctx context.Context) (BenchSettings, error) {
	list, err := benchKept.list(ctx, s)
	if err != nil || len(list) == 0 {
		return BenchSettings{}, err
	}
	return list[0], nil
}

// SetBench changes them. The error names the field.
func (s *School) SetBench(ctx context.Context, b BenchSettings) (BenchSettings, error) {
	was, err := s.BenchSettings(ctx)
	if err != nil {
		return b, err
	}
	var l problem.List
	for i, w := range b.Wraps {
		l.Take(fmt.Sprintf("wraps[%d]", i), w.Check(s.usual))
	}
	if err := l.Err(); err != nil {
		return b, err
	}
	if b.Cell != was.Cell || s.cell.State().Cell != b.Cell {
		if err := s.cell.Dial(b.Cell); err != nil {
			return b, err
		}
	}
	b.ID = was.ID
	if was.ID == 0 {
		b.Revision = 0
	}
	out, err := benchKept.save(ctx, s, b)
	if err != nil {
		return out, err
	}
	return out, s.layPulls(ctx)
}

// FrictionTrial is a line laid over a rail of some surface with a weight at each end.
type FrictionTrial struct {
	Trials []bench.Over `json:"trials" nullable:"false"`
	// Surface of the rail, by id; empty: smooth metal.
	Surface string `json:"surface,omitempty"`
}

// FrictionFound is what it comes to there, and on smooth metal, to which the catalogue's figures
// and those of a line in a rig are.
type FrictionFound struct {
	bench.Friction
	Metal evidence.Interval `json:"metal"`
}

// FrictionOver works out a trial. The error names the field.
func (s *School) FrictionOver(t FrictionTrial) (FrictionFound, error) {
	f, err := bench.FrictionOf(t.Trials)
	if err != nil {
		return FrictionFound{}, err
	}
	out := FrictionFound{f, f.Mu}
	if t.Surface == "" {
		return out, nil
	}
	x := s.Trade().Surface(t.Surface)
	if x == nil {
		return out, problem.New("surface", fmt.Sprintf("%q is not a surface here", t.Surface), "choose one of the list")
	}
	k := x.Factor
	out.Metal = evidence.Interval{Low: f.Mu.Low / k.High, Likely: f.Mu.Likely / k.Likely, High: f.Mu.High / k.Low}
	return out, nil
}

// Proofs lists the proof pulls, the last first.
func (s *School) Proofs(ctx context.Context) ([]bench.Proof, error) { return proofKept.list(ctx, s) }

// Proof reads one.
func (s *School) Proof(ctx context.Context, id int64) (bench.Proof, error) {
	return proofKept.one(ctx, s, id)
}

// SaveProof keeps one. The error names each field.
func (s *School) SaveProof(ctx context.Context, p bench.Proof) (bench.Proof, error) {
	if p.At.IsZero() {
		p.At = s.now().UTC()
	}
	if err := p.Check(s.known, s.now()); err != nil {
		return p, err
	}
	return proofKept.save(ctx, s, p)
}

// DeleteProof removes one.
func (s *School) DeleteProof(ctx context.Context, id int64) error {
	return s.records.DeleteDocument(ctx, proofKind, id)
}
