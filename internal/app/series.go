package app

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"slices"
	"strings"
	"time"

	"oarweed/core/bench"
	"oarweed/core/evidence"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/say"
	"oarweed/core/unit"
)

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
