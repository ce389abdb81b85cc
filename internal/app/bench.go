package app

import (
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"oarweed/core/bench"
	"oarweed/core/evidence"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/rank"
	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/trade"
	"oarweed/core/unit"
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
func (s *School) Close() { s.cell.Close() }

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

// PlanSpecimens lays a series out: every end at each end of the bench equally often.
func (s *School) PlanSpecimens(p bench.Plan) ([]bench.Specimen, error) { return p.Specimens(s.known) }

// AllSeries lists them, the last changed first.
func (s *School) AllSeries(ctx context.Context) ([]bench.Series, error) {
	return seriesKept.list(ctx, s)
}

// Series reads one.
func (s *School) Series(ctx context.Context, id int64) (bench.Series, error) {
	return seriesKept.one(ctx, s, id)
}

// SaveSeries keeps one. The error names each field.
func (s *School) SaveSeries(ctx context.Context, x bench.Series) (bench.Series, error) {
	var l problem.List
	l.Take("", x.Check(s.known))
	if x.Line.Material != "" {
		_, _, err := s.lineOf(x)
		l.Take("line", err)
	}
	if err := l.Err(); err != nil {
		return x, err
	}
	if x.ID == 0 && x.Key == "" {
		x.Key = secret()
	} else if x.ID != 0 {
		was, err := seriesKept.one(ctx, s, x.ID)
		if err != nil {
			return x, err
		}
		x.Key = was.Key // its pulls know it by that
	}
	out, err := seriesKept.save(ctx, s, x)
	if err != nil {
		return out, err
	}
	return out, s.layPulls(ctx)
}

// DeleteSeries removes one; its pulls stay kept and count no more.
func (s *School) DeleteSeries(ctx context.Context, id int64) error {
	if err := s.records.DeleteDocument(ctx, seriesKind, id); err != nil {
		return err
	}
	return s.layPulls(ctx)
}

// lineOf is the line of a series and what it bears in the state in which it is pulled, in kN.
func (s *School) lineOf(x bench.Series) (line.Line, evidence.Interval, error) {
	c := s.Trade()
	m := c.Material(x.Line.Material)
	if m == nil {
		return line.Line{}, evidence.Interval{}, problem.New("material", fmt.Sprintf("%q is not a material here", x.Line.Material), "choose one of the list")
	}
	l := line.Line{Material: m, Construction: x.Line.Construction, Diameter: unit.Length(x.Line.DiameterMM) * unit.Millimetre, Label: unit.Force(x.Line.LabelKN) * unit.Kilonewton, Wear: x.Line.Wear}
	if l.Construction == "" {
		l.Construction = m.Constructions[0]
	}
	if !m.Makes(l.Construction) {
		return l, evidence.Interval{}, problem.New("construction", fmt.Sprintf("%s is not made as %q", m.Name, l.Construction), fmt.Sprintf("use one of %v", m.Constructions))
	}
	if x.Line.Wear < 0 || x.Line.Wear > 3 {
		return l, evidence.Interval{}, problem.New("wear", fmt.Sprintf("%d is no grade", x.Line.Wear), "give 0 to 3")
	}
	l, _ = l.Complete()
	b, err := l.Bears(x.Wet)
	return l, b.Capacity.Scale(1e-3), err
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

// AllPulls lists them, the last changed first.
func (s *School) AllPulls(ctx context.Context) ([]bench.Pull, error) { return pullKept.list(ctx, s) }

// Pull reads one.
func (s *School) Pull(ctx context.Context, id int64) (bench.Pull, error) {
	return pullKept.one(ctx, s, id)
}

// Stopped is a pull whose readings are kept and that is not recorded yet.
type Stopped struct {
	Key      string       `json:"key"`
	Marks    *bench.Marks `json:"marks,omitempty" doc:"what its trace shows; left out where it has too few readings"`
	S        []float64    `json:"t_s" nullable:"false"`
	KN       []float64    `json:"load_kn" nullable:"false"`
	Readings int          `json:"readings"`
	// BeganS is the first reading by the clock of the marks; the picture begins at 0.
	BeganS float64 `json:"began_s"`
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
		out.BeganS = out.S[0]
		for i := range out.S {
			out.S[i] -= out.BeganS
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

// SeriesPage is a series with all that its pulls say.
type SeriesPage struct {
	Series bench.Series `json:"series"`
	// LineKN is what the line bears without a knot.
	LineName string             `json:"line_name"`
	LineKN   *evidence.Interval `json:"line_kn,omitempty"`
	Pulls    []PullRow          `json:"pulls" nullable:"false"`
	Next     int                `json:"next" doc:"the first specimen not yet pulled, from 0; −1: all are"`
	Ends     []EndResult        `json:"ends" nullable:"false"`
	LogRank  *bench.Test        `json:"logrank,omitempty"`
	// Head and Says put it in words, the most important first.
	Head string   `json:"head"`
	Says []string `json:"says" nullable:"false"`
}

// PullRow is a pull with its names.
type PullRow struct {
	bench.Pull
	AName string `json:"a_name"`
	BName string `json:"b_name"`
	Says  string `json:"says"`
}

// EndResult is what the pulls say of one knot as it was tied.
type EndResult struct {
	Knot  string      `json:"knot"`
	Wraps int         `json:"wraps,omitempty" doc:"as they were chosen"`
	Name  string      `json:"name"`
	Group bench.Group `json:"group"`
	// Values are the pulls one by one: it gave, or held at least so much.
	Values    []EndValue   `json:"values" nullable:"false"`
	House     *bench.House `json:"house,omitempty"`
	HouseSays string       `json:"house_says,omitempty"`
	Yardstick string       `json:"yardstick,omitempty"`
	Says      string       `json:"says"`
}

// EndValue is one pull as one end saw it.
type EndValue struct {
	LoadKN float64 `json:"load_kn"`
	Failed bool    `json:"failed"`
}

// SeriesPage works a series out.
func (s *School) SeriesPage(ctx context.Context, id int64) (*SeriesPage, error) {
	x, err := s.Series(ctx, id)
	if err != nil {
		return nil, err
	}
	pulls, err := s.Pulls(ctx, x.Key)
	if err != nil {
		return nil, err
	}
	c := s.Trade()
	out := &SeriesPage{Series: x, Pulls: []PullRow{}, Next: x.Next(pulls), Ends: []EndResult{}, Says: []string{}}
	lineKN := 0.0
	if l, bears, err := s.lineOf(x); err == nil {
		out.LineName, out.LineKN, lineKN = say.Line(l), &bears, bears.Likely
	}
	for _, p := range pulls {
		out.Pulls = append(out.Pulls, PullRow{p, s.EndName(p.A), s.EndName(p.B), say.Pull(p)})
	}
	values := bench.ValuesOf(pulls)
	order := variants(x, pulls)
	groups := map[string][]bench.Value{}
	for _, v := range order {
		k := c.Knot(v.Knot)
		e := EndResult{Knot: v.Knot, Wraps: v.Wraps, Name: say.EndName(v, k), Values: []EndValue{}, Group: bench.GroupOf(values[v])}
		for _, y := range values[v] {
			e.Values = append(e.Values, EndValue(y))
		}
		groups[e.Name] = values[v]
		e.Says = say.Strengths(e.Name, e.Group, lineKN)
		if h, ok := s.house(k, x, values[v], lineKN); ok {
			e.House, e.HouseSays = &h, say.House(k.Name, e.Group.Failures, h)
		}
		if x.YardstickKN > 0 {
			above, of, l := bench.Share(values[v], x.YardstickKN)
			e.Yardstick = say.Yardstick(above, of, x.YardstickKN, l)
		}
		out.Ends = append(out.Ends, e)
	}
	if len(order) == 2 {
		var body string
		out.Head, body = say.Duel(out.Ends[0].Name, out.Ends[1].Name, bench.DuelOf(pulls, order[0], order[1]))
		out.Says = append(out.Says, body)
	} else {
		out.Head = say.SeriesHead(len(pulls), len(x.Specimens))
	}
	if len(pulls) > 0 && len(groups) > 1 {
		t := bench.LogRank(groups)
		out.LogRank = &t
	}
	if len(pulls) > 0 {
		for _, e := range out.Ends {
			out.Says = append(out.Says, e.Says)
		}
	}
	return out, nil
}

// EndName names one end of a specimen.
func (s *School) EndName(t bench.Tied) string {
	return say.EndName(t.Variant(), s.Trade().Knot(t.Knot))
}

// variants in the order in which they are planned, then pulled.
func variants(x bench.Series, pulls []bench.Pull) []bench.Variant {
	var out []bench.Variant
	add := func(t bench.Tied) {
		if v := t.Variant(); !slices.Contains(out, v) {
			out = append(out, v)
		}
	}
	for _, sp := range x.Specimens {
		add(sp.A)
		add(sp.B)
	}
	for _, p := range pulls {
		add(p.A)
		add(p.B)
	}
	return out
}

// house lays pulls over the catalogue's figure for a knot; false where too few failed.
func (s *School) house(k *knot.Knot, x bench.Series, values []bench.Value, lineKN float64) (bench.House, bool) {
	fit, err := bench.FitWeibull(values)
	if err != nil || k == nil || fit.Failures < leastFailures || lineKN <= 0 {
		return bench.House{}, false
	}
	h, err := bench.Efficiency(s.usual.Knot(k.ID).EfficiencyIn(x.Line.Material, "").Value, fit, lineKN)
	return h, err == nil && h.Weight > 0 && !math.IsNaN(h.Weight)
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

// TakenResults says what became of a table of results.
type TakenResults struct {
	Lines []bench.Line `json:"lines" nullable:"false"`
	// Added are new, There were kept before; lines that are wrong are left out.
	Added int `json:"added"`
	There int `json:"there"`
}

// ReadResults reads a table of results for a series; take keeps those of its lines that are
// right. A line that was taken before is found again and kept once.
func (s *School) ReadResults(ctx context.Context, id int64, table [][]string, take bool) (*TakenResults, error) {
	x, err := s.Series(ctx, id)
	if err != nil {
		return nil, err
	}
	lines, err := bench.ReadResults(table, func(name string) (string, bool) {
		for _, k := range s.Trade().Knots {
			if k.ID == name || strings.EqualFold(k.Name, name) {
				return k.ID, true
			}
		}
		return "", false
	})
	if err != nil {
		return nil, err
	}
	before, err := s.Pulls(ctx, x.Key)
	if err != nil {
		return nil, err
	}
	out := &TakenResults{Lines: lines}
	for i, l := range lines {
		if l.Wrong != "" {
			continue
		}
		sum := sha256.Sum256(fmt.Appendf(nil, "%s|%d|%v", x.Key, l.N, l))
		key := "table-" + hex.EncodeToString(sum[:12])
		if slices.ContainsFunc(before, func(p bench.Pull) bool { return p.Key == key }) {
			out.There++
			continue
		}
		out.Added++
		if !take {
			continue
		}
		p := bench.Pull{Key: key, Series: x.Key, At: s.now().Add(time.Duration(i-len(lines)) * time.Millisecond), A: bench.Tied{Knot: l.A}, B: bench.Tied{Knot: l.B},
			Source: bench.FromFile, PeakKN: l.LoadKN, Outcome: l.Outcome, Where: l.Where, Note: l.Note}
		if _, err := s.SavePull(ctx, p); err != nil {
			return nil, problem.At(fmt.Sprintf("line %d", l.N), err)
		}
	}
	return out, nil
}

// layPulls lays what the school's own pulls say over what it teaches.
func (s *School) layPulls(ctx context.Context) error {
	set, err := s.BenchSettings(ctx)
	if err != nil {
		return err
	}
	var own []trade.Pulled
	var wraps []trade.OwnWraps
	if !set.Out {
		wraps = set.Wraps
		if own, err = s.pulled(ctx); err != nil {
			return err
		}
	}
	s.hand.Lock()
	defer s.hand.Unlock()
	s.own, s.wraps = own, wraps
	s.taught.Store(s.plain.Load().WithPulls(own).WithWraps(wraps))
	return nil
}

// pulled is what all pulls say of each knot in each kind of line, tied as usual.
func (s *School) pulled(ctx context.Context) ([]trade.Pulled, error) {
	all, err := s.AllSeries(ctx)
	if err != nil {
		return nil, err
	}
	pulls, err := pullKept.list(ctx, s)
	if err != nil {
		return nil, err
	}
	type group struct {
		knot, material string
		in             knot.In
	}
	// Loads of different lines are brought together as shares of what each bears.
	shares, slipped := map[group][]bench.Value{}, map[group]int{}
	of := map[group]bench.Series{}
	for _, x := range all {
		l, bears, err := s.lineOf(x)
		if err != nil || bears.Likely <= 0 {
			continue
		}
		var mine []bench.Pull
		for _, p := range pulls {
			if p.Series == x.Key {
				mine = append(mine, p)
			}
		}
		for v, values := range bench.ValuesOf(mine) {
			if v.Wraps+v.Finishing > 0 || v.Undressed {
				continue // not as usual
			}
			g := group{v.Knot, x.Line.Material, knot.In{Construction: string(l.Construction), Wet: x.Wet}}
			of[g] = x
			for _, y := range values {
				shares[g] = append(shares[g], bench.Value{LoadKN: y.LoadKN / bears.Likely, Failed: y.Failed})
			}
		}
		for _, p := range mine {
			a, b := p.Gave()
			for _, end := range []struct {
				gave bool
				t    bench.Tied
			}{{a, p.A}, {b, p.B}} {
				if end.gave && p.Outcome == bench.SlippedOut {
					slipped[group{end.t.Knot, x.Line.Material, knot.In{Construction: string(l.Construction), Wet: x.Wet}}]++
				}
			}
		}
	}
	var out []trade.Pulled
	for g, values := range shares {
		k := s.usual.Knot(g.knot)
		h, ok := s.house(k, of[g], values, 1)
		if !ok {
			continue
		}
		failed := 0
		for _, v := range values {
			if v.Failed {
				failed++
			}
		}
		fails := knot.Breaks
		if 2*slipped[g] > failed {
			fails = knot.Gives
		}
		ran := bench.Duel{AGave: slipped[g], BGave: failed - slipped[g]}
		out = append(out, trade.Pulled{Knot: g.knot, Material: g.material, In: g.in, Value: h.Value, Dist: h.Dist(), Fails: fails,
			Slips: ran.BStronger() >= bench.EnoughSure, Why: say.SlippedOften(slipped[g], failed), Source: say.HouseSource(failed, len(values), h.Weight)})
	}
	slices.SortFunc(out, func(a, b trade.Pulled) int {
		return cmp.Or(cmp.Compare(a.Knot, b.Knot), cmp.Compare(a.Material, b.Material), cmp.Compare(a.In.Construction, b.In.Construction))
	})
	return out, nil
}

// houseMoved says what own pulls changed at a joint: the figure, and the place in the order.
func (s *School) houseMoved(r rig.Document) []string {
	s.hand.Lock()
	own, wraps, plain := s.own, s.wraps, s.plain.Load()
	s.hand.Unlock()
	out := []string{}
	if len(own)+len(wraps) == 0 {
		return out
	}
	now, err := s.Trade().Resolve(r)
	if err != nil {
		return out
	}
	was, err := plain.Resolve(r)
	if err != nil {
		return out
	}
	in := knot.In{Construction: string(now.Line.Construction), Wet: now.Wet}
	var with, without rank.Order
	for _, p := range own {
		if p.Material != now.Line.Material.ID || p.In != in {
			continue
		}
		if with.Rig == nil {
			with, without = rank.Joint(s.Trade(), now), rank.Joint(plain, was)
		}
		place, share := placeOf(with, p.Knot)
		wasPlace, _ := placeOf(without, p.Knot)
		if place == 0 && wasPlace == 0 {
			continue
		}
		if place == 0 {
			share = p.Value.Likely
		}
		k := plain.Knot(p.Knot)
		out = append(out, say.HouseMoved(k.Name, share, k.EfficiencyIn(p.Material, now.Task.ID).Value.Likely, place, wasPlace))
	}
	if lb := now.Line.Label.LbTest(); lb > 0 {
		for _, w := range wraps {
			if k := plain.Knot(w.Knot); w.Covers(lb) && k.Tasks[now.Task.ID].Fit > 0 {
				out = append(out, say.OwnWraps(k.Name, w.N))
			}
		}
	}
	return out
}

func placeOf(o rank.Order, id string) (place int, share float64) {
	for i, x := range o.Ranked {
		if x.Knot.ID == id {
			return i + 1, x.Strength.Share.Likely
		}
	}
	return 0, 0
}
