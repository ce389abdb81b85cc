// Package app holds the use cases: what one can ask of Oarweed and have it keep, for
// one school, given a context. It knows nothing of HTTP, of flags or of SQL: the API,
// the command line and a build for the browser call the same functions and give the
// same documents.
//
// A [School] is the tenant: a place that teaches, with its doctrines and its records.
// What a caller needs of it travels in the context ([With], [Of]), so that one process
// can serve many.
package app

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"slices"
	"sync"
	"sync/atomic"

	"oarweed/core/chain"
	"oarweed/core/chance"
	"oarweed/core/friction"
	"oarweed/core/job"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/practice"
	"oarweed/core/problem"
	"oarweed/core/rank"
	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/towline"
	"oarweed/core/trade"
	"oarweed/core/unit"
	"oarweed/core/whatif"
)

// School is a place that teaches: what it knows, taught its way, and what it keeps.
type School struct {
	usual  *trade.Catalogue
	taught atomic.Pointer[trade.Catalogue]
	plain  atomic.Pointer[trade.Catalogue] // what is taught, without own pulls
	// What own pulls lay over it; guarded by hand.
	own     []trade.Pulled
	wraps   []trade.OwnWraps
	cell    LoadCell
	wind    WindGauge
	records Records
	gate    *Gate
	hand    sync.Mutex // held while doctrines change
}

// NewSchool opens a school over its records, with the doctrines it has chosen; records
// may be nil where nothing is kept. A chosen doctrine that no longer exists is left out:
// the usual one is taught until another is chosen.
func NewSchool(ctx context.Context, usual *trade.Catalogue, records Records, gate *Gate) (*School, error) {
	s := &School{usual: usual, records: records, gate: gate, cell: noCell{}, wind: noWind{}}
	s.taught.Store(usual)
	s.plain.Store(usual)
	if records == nil {
		return s, nil
	}
	target := func(id string) float64 {
		if k := s.Trade().Knot(id); k != nil {
			return practice.Target(k)
		}
		return 0
	}
	if err := records.UseTargets(ctx, target); err != nil {
		return nil, fmt.Errorf("counting the attempts: %w", err)
	}
	chosen, err := records.Doctrines(ctx)
	if err != nil {
		return nil, fmt.Errorf("reading the doctrines: %w", err)
	}
	for q, d := range chosen.Doctrines {
		if _, err := usual.WithDoctrines(map[string]string{q: d}); err != nil {
			delete(chosen.Doctrines, q)
		}
	}
	taught, err := usual.WithDoctrines(chosen.Doctrines)
	if err != nil {
		return nil, err
	}
	s.taught.Store(taught)
	s.plain.Store(taught)
	return s, s.layPulls(ctx)
}

// Trade is what the trade knows, taught this school's way.
func (s *School) Trade() *trade.Catalogue { return s.taught.Load() }

type schoolKey struct{}

// With puts a school in a context.
func With(ctx context.Context, s *School) context.Context {
	return context.WithValue(ctx, schoolKey{}, s)
}

// Of is the school of a context; nil if none was put there.
func Of(ctx context.Context) *School {
	s, _ := ctx.Value(schoolKey{}).(*School)
	return s
}

// Chosen are the doctrines that a school teaches, by question; what is left out is
// taught the usual way.
type Chosen struct {
	Doctrines map[string]string `json:"chosen" doc:"question id → doctrine id; left out: the usual one"`
	Revision  int64             `json:"revision" readOnly:"true"`
}

// Doctrines are the questions on which practitioners disagree, and what was chosen.
type Doctrines struct {
	Questions []*knot.Question `json:"questions" nullable:"false"`
	Chosen
}

// Doctrines lists the questions and what the school teaches.
func (s *School) Doctrines(ctx context.Context) (Doctrines, error) {
	c, err := s.records.Doctrines(ctx)
	return Doctrines{s.usual.Questions, c}, err
}

// Teach changes what the school teaches. The error names the question.
func (s *School) Teach(ctx context.Context, c Chosen) (Doctrines, error) {
	taught, err := s.usual.WithDoctrines(c.Doctrines)
	if err != nil {
		return Doctrines{}, err
	}
	// What is kept and what is taught change together, in the same order.
	s.hand.Lock()
	defer s.hand.Unlock()
	kept, err := s.records.SetDoctrines(ctx, Chosen{maps.Clone(c.Doctrines), c.Revision})
	if err != nil {
		return Doctrines{}, err
	}
	s.plain.Store(taught)
	s.taught.Store(taught.WithPulls(s.own).WithWraps(s.wraps))
	return Doctrines{s.usual.Questions, kept}, nil
}

// Choose ranks the knots for a rig with one joint.
func (s *School) Choose(ctx context.Context, d rig.Document) (*Answer, error) {
	c := s.Trade()
	d, err := s.withOwn(ctx, d)
	if err != nil {
		return nil, err
	}
	r, err := c.Resolve(d)
	if err != nil {
		return nil, err
	}
	out := answerOf(c, rank.Joint(c, r))
	out.House = s.houseMoved(d)
	return out, nil
}

// CheckRig answers for a chain: every joint, what gives way first, what to cut.
func (s *School) CheckRig(ctx context.Context, d rig.Document) (*RigAnswer, error) {
	c := s.Trade()
	d, err := s.withOwn(ctx, d)
	if err != nil {
		return nil, err
	}
	return heavy(ctx, s, func() (*RigAnswer, error) {
		x, err := chain.Judge(ctx, c, d)
		if err != nil {
			return nil, err
		}
		out := rigAnswerOf(c, x)
		for i := range out.Joints {
			out.Joints[i].Answer.House = s.houseMoved(out.Joints[i].Answer.Rig)
		}
		return out, nil
	})
}

// Chances draws every ranked knot of a rig with one joint; by knot id. None where people
// depend on it.
func (s *School) Chances(ctx context.Context, d rig.Document) (map[string]Chance, error) {
	c := s.Trade()
	d, err := s.withOwn(ctx, d)
	if err != nil {
		return nil, err
	}
	r, err := c.Resolve(d)
	if err != nil {
		return nil, err
	}
	return heavy(ctx, s, func() (map[string]Chance, error) {
		line := chance.Line(r.Capacity, "")
		out := map[string]Chance{}
		if r.Consequence == rig.Person {
			return out, nil // no number may read as an approval
		}
		for _, k := range rank.Joint(c, r).Ranked {
			if err := ctx.Err(); err != nil {
				return nil, err
			}
			out[k.Knot.ID] = chanceOf(chance.Of(chance.Joint(k.Verdict, line, ""), float64(r.Load)))
		}
		return out, nil
	})
}

// Method is the page of every formula, figure and source, in Markdown.
func (s *School) Method(ctx context.Context) (string, error) {
	c := s.Trade()
	return heavy(ctx, s, func() (string, error) { return say.Method(c) })
}

// Sayings works common sayings out on a rig with one joint.
func (s *School) Sayings(ctx context.Context, d rig.Document) ([]say.Saying, error) {
	c := s.Trade()
	d, err := s.withOwn(ctx, d)
	if err != nil {
		return nil, err
	}
	return heavy(ctx, s, func() ([]say.Saying, error) {
		x, err := job.SayingsOf(c, d)
		if err != nil {
			return nil, err
		}
		return say.Sayings(x), nil
	})
}

// Changes is what would change the answer, with the numbers that a map can be drawn
// over.
type Changes struct {
	Changes []Change     `json:"changes" nullable:"false"`
	Inputs  []InputRange `json:"inputs" nullable:"false"`
}

// near is how many changes are the nearest.
const near = 3

// Changes says what would change the first choice at a joint.
func (s *School) Changes(ctx context.Context, d rig.Document) (*Changes, error) {
	c := s.Trade()
	d, err := s.withOwn(ctx, d)
	if err != nil {
		return nil, err
	}
	full, err := c.Fill(d)
	if err != nil {
		return nil, err
	}
	return heavy(ctx, s, func() (*Changes, error) {
		list, err := whatif.Changes(ctx, c, d)
		if err != nil {
			return nil, err
		}
		out := &Changes{Changes: []Change{}, Inputs: []InputRange{}}
		fishing := false
		if m := c.Material(full.Chain[2].Line.Material); m != nil {
			fishing = m.Fishing
		}
		for _, x := range list {
			out.Changes = append(out.Changes, changeOf(c, x, fishing))
		}
		for k, i := range whatif.Nearest(list, near) {
			out.Changes[i].Near = k + 1
		}
		for _, in := range rig.Inputs(full) {
			out.Inputs = append(out.Inputs, InputRange{in.ID, in.Name, in.Unit, in.Min, in.Max})
		}
		return out, nil
	})
}

// MapQuery asks for a choice map: two inputs with their ranges (0 to 0: six times up
// and down from the rig's own value), so many columns and rows.
type MapQuery struct {
	X       string  `query:"x" required:"true" example:"line.diameter" help:"input across" placeholder:"INPUT"`
	XFrom   float64 `query:"x_from" help:"low end of x"`
	XTo     float64 `query:"x_to" help:"high end of x"`
	Y       string  `query:"y" required:"true" example:"load" help:"input upward" placeholder:"INPUT"`
	YFrom   float64 `query:"y_from" help:"low end of y"`
	YTo     float64 `query:"y_to" help:"high end of y"`
	Columns int     `query:"columns" default:"64" help:"columns, 2 to 256"`
	Rows    int     `query:"rows" default:"64" help:"rows, 2 to 256"`
}

// Map lays out a choice map and returns a function that works it out, handing over each
// row as soon as it is known, one at a time; an error from row, or the end of the
// context, stops it.
func (s *School) Map(ctx context.Context, d rig.Document, q MapQuery) (whatif.Plane, func(ctx context.Context, row func(whatif.Row) error) error, error) {
	c := s.Trade()
	d, err := s.withOwn(ctx, d)
	if err != nil {
		return whatif.Plane{}, nil, err
	}
	full, err := c.Fill(d)
	if err != nil {
		return whatif.Plane{}, nil, err
	}
	p, err := whatif.NewPlane(full, whatif.Axis{Input: q.X, From: q.XFrom, To: q.XTo}, whatif.Axis{Input: q.Y, From: q.YFrom, To: q.YTo}, q.Columns, q.Rows)
	if err != nil {
		return p, nil, err
	}
	return p, func(ctx context.Context, row func(whatif.Row) error) error {
		return s.gate.each(ctx, p.RowOrder(), func(ctx context.Context, y int) (whatif.Row, error) { return p.Row(ctx, c, full, y) }, row)
	}, nil
}

// HoldQuery is what a hold table is made from.
type HoldQuery struct {
	Hitch    string `query:"hitch" default:"turns" doc:"hitch, or turns" help:"hitch, or turns"`
	Object   string `query:"object" default:"60mm" help:"diameter of the object"`
	Line     string `query:"line" default:"12mm" help:"diameter of the line"`
	Material string `query:"material" default:"polyester" help:"material id"`
	Surface  string `query:"surface" default:"polished-steel" help:"surface id"`
	Wet      bool   `query:"wet" help:"the line is wet"`
	Load     string `query:"load" required:"true" example:"2.4kN" help:"load"`
	Hand     string `query:"hand" default:"100N" help:"hand force"`
}

// Hold says what hand holds a load by a hitch or by so many turns.
func (s *School) Hold(q HoldQuery) (*HoldTable, error) {
	t, err := job.Hold(s.Trade(), job.HoldInput{Hitch: q.Hitch, Object: q.Object, Line: q.Line, Material: q.Material, Surface: q.Surface, Wet: q.Wet, Load: q.Load, Hand: q.Hand})
	if err != nil {
		return nil, err
	}
	return holdTableOf(t), nil
}

// LoadQuery holds the figures of every kind of load; each uses its own.
type LoadQuery struct {
	LOA      string  `query:"loa" example:"30ft" help:"length over all"`
	Area     float64 `query:"area" doc:"m²" help:"area to the wind, m²"`
	Cd       float64 `query:"cd" default:"1" help:"drag coefficient"`
	Wind     string  `query:"wind" example:"30kn" help:"wind, like 30kn"`
	Force    string  `query:"force" example:"2.4kN" help:"force to share"`
	Angle    float64 `query:"angle" doc:"degrees" help:"angle to the force, degrees"`
	Lines    int     `query:"lines" default:"1" help:"lines that share it"`
	Even     bool    `query:"even" help:"they share evenly"`
	Mass     float64 `query:"mass" doc:"kg" help:"mass, kg"`
	Speed    float64 `query:"speed" doc:"m/s" help:"drift, m/s"`
	Length   string  `query:"length" example:"8m" help:"length that stretches"`
	Material string  `query:"material" help:"material id"`
	Diameter string  `query:"diameter" help:"diameter"`
	Wet      bool    `query:"wet" help:"the line is wet"`
	Class    string  `query:"class" example:"20lb" help:"line class, like 20lb"`
	Shock    float64 `query:"shock" help:"shock as a share of the class"`
	People   int     `query:"people" default:"1" help:"people on the line"`
	Seconds  float64 `query:"seconds" doc:"s" help:"how long the start takes, s"`
}

// Load works out a load: wind, share, snatch, drag, hand or rider.
func (s *School) Load(kind string, q LoadQuery) (*Load, error) {
	k, err := job.Load(s.Trade(), kind, job.LoadInput(q))
	if err != nil {
		return nil, err
	}
	out := loadOf(k)
	return &out, nil
}

// StrengthQuery describes a line.
type StrengthQuery struct {
	Material     string `query:"material" required:"true" help:"material id"`
	Construction string `query:"construction" enum:",laid,braid,twelve,solid" default:"" help:"laid, braid, twelve or solid; left out: the usual one"`
	Diameter     string `query:"diameter" required:"true" example:"24mm" help:"like 24mm"`
	Wet          bool   `query:"wet" help:"the line is wet"`
}

// Strength says what a line bears.
func (s *School) Strength(q StrengthQuery) (*LineAnswer, error) {
	l, b, err := job.Strength(s.Trade(), job.StrengthInput{Material: q.Material, Construction: line.Construction(q.Construction), Diameter: q.Diameter, Wet: q.Wet})
	if err != nil {
		return nil, err
	}
	out := lineAnswer(l, b)
	return &out, nil
}

// FrictionQuery asks whether a hitch holds at a friction.
type FrictionQuery struct {
	Hitch  string  `query:"hitch" default:"turns" help:"hitch id, or turns"`
	Object string  `query:"object" example:"60mm" help:"diameter of the object, like 60mm"`
	Line   string  `query:"line" example:"12mm" help:"diameter of the line, like 12mm"`
	Mu     float64 `query:"mu" required:"true" help:"friction coefficient, rope on rope and on the object"`
	Turns  int     `query:"turns" help:"bare turns, riding turns or figure eights"`
	Load   string  `query:"load" help:"like 2.4kN; with --hand: how many bare turns hold it"`
	Hand   string  `query:"hand" help:"like 100N"`
}

// Friction says whether a hitch holds at a friction.
func (s *School) Friction(q FrictionQuery) (*Friction, error) {
	var l problem.List
	if q.Hitch == "turns" {
		// Bare turns do not depend on the diameters.
		q.Object, q.Line = cmp.Or(q.Object, "60mm"), cmp.Or(q.Line, "12mm")
	}
	object, err := unit.ParseLength(q.Object, unit.Millimetre)
	l.Take("object", err)
	rope, err := unit.ParseLength(q.Line, unit.Millimetre)
	l.Take("line", err)
	if err := l.Err(); err != nil {
		return nil, err
	}
	out, err := friction.HoldOf(q.Hitch, q.Turns, object, rope, q.Mu, 1)
	if err != nil || q.Load == "" && q.Hand == "" {
		return &out, err
	}
	pull, err := unit.ParseForce(q.Load, unit.Kilonewton)
	l.Take("load", err)
	hand, err := unit.ParseForce(q.Hand, unit.Kilonewton)
	l.Take("hand", err)
	if err := l.Err(); err != nil {
		return nil, err
	}
	out, err = out.WithHand(pull, hand, q.Mu)
	return &out, err
}

// HangFender works out how a fender hangs.
func (s *School) HangFender(q FenderQuery) (*FenderAnswer, error) {
	f, err := job.HangFender(s.Trade(), job.FenderInput(q))
	if err != nil {
		return nil, err
	}
	return &FenderAnswer{f.Drop.M(), f.Clear.M(), f.Line.M()}, nil
}

// Tow finds where a tow line is made fast for a wanted length.
func (s *School) Tow(q TowQuery) (*TowAnswer, error) {
	var l problem.List
	offs, err := towline.ParseTakeoffs(q.Takeoffs)
	l.Take("", err)
	want, err := unit.ParseLength(q.Want, unit.Metre)
	l.Take("want", err)
	if err := l.Err(); err != nil {
		return nil, err
	}
	p, err := towline.Find(offs, want, towline.On(q.On))
	if err != nil {
		return nil, err
	}
	out := &TowAnswer{TakeoffM: p.Takeoff.M(), TakeUpM: p.TakeUp.M(), Hitch: p.Hitch, Says: say.TowPlace(p, s.Trade().Knot(p.Hitch)), WantM: want.M()}
	for _, x := range slices.Sorted(slices.Values(offs)) {
		out.TakeoffsM = append(out.TakeoffsM, x.M())
	}
	return out, nil
}

// Coils counts the coils of a line.
func (s *School) Coils(q CoilsQuery) (*CoilsAnswer, error) {
	n, err := job.Coils(q.Length, q.Across)
	if err != nil {
		return nil, err
	}
	return &CoilsAnswer{n}, nil
}

// SoftShackle works out every clamp with every stopper in a cord, as typed, and how one pair is
// tied.
func (s *School) SoftShackle(q ShackleQuery) (*ShackleAnswer, error) {
	x, err := job.SoftShackle(s.Trade(), job.ShackleInput{Diameter: q.Diameter, Material: q.Material, Clear: q.Clear, Load: q.Load})
	if err != nil {
		return nil, err
	}
	out := shackleOf(x)
	if q.Clamp != "" || q.Stopper != "" {
		t, err := x.Tying(s.Trade(), q.Clamp, q.Stopper)
		if err != nil {
			return nil, err
		}
		out.Tying = tyingOf(t)
	}
	return out, nil
}

// Procedure gives a job as a guided card; d is the rig of its task, empty where it needs
// none.
func (s *School) Procedure(ctx context.Context, id string, d rig.Document) (*Card, error) {
	d, err := s.withOwn(ctx, d)
	if err != nil {
		return nil, err
	}
	x, err := job.Fill(s.Trade(), id, d)
	if err != nil {
		return nil, err
	}
	return cardOf(x), nil
}
