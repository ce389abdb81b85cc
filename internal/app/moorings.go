package app

import (
	"context"
	"fmt"
	"math"
	"slices"

	"oarweed/core/evidence"
	"oarweed/core/load"
	"oarweed/core/mooring"
	"oarweed/core/problem"
	"oarweed/core/rank"
	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/unit"
)

const (
	berthKind = "berth"
	windKind  = "wind"
)

var (
	berthsKept = kindOf[mooring.Berth]{berthKind, func(b *mooring.Berth, d Document) { b.ID, b.Revision = d.ID, d.Revision },
		func(b mooring.Berth) (int64, int64) { return b.ID, b.Revision }}
	windKept = kindOf[WindSettings]{windKind, func(b *WindSettings, d Document) { b.ID, b.Revision = d.ID, d.Revision },
		func(b WindSettings) (int64, int64) { return b.ID, b.Revision }}
)

// MooringAnswer is how the wind on a moored boat is shared, with its cautions.
type MooringAnswer struct {
	mooring.Shared
	// Ahead is what 30 knots from ahead are on her, Abeam how many times that she catches
	// abeam; the loads are worked out from them.
	Ahead evidence.Figure `json:"ahead_kn"`
	Abeam evidence.Figure `json:"abeam"`
	Says  []string        `json:"says" nullable:"false"`
	// Details of each line; Order in which they are made fast, the first first.
	Details  []BerthLine   `json:"details" nullable:"false"`
	Order    []int         `json:"order" nullable:"false" doc:"in which the lines are made fast, by index"`
	Moor     []string      `json:"moor" nullable:"false" doc:"said to the crew when she is made fast"`
	Unmoor   []string      `json:"unmoor" nullable:"false" doc:"said to the crew when she is let go"`
	RuleMM   float64       `json:"rule_mm" doc:"diameter that the rule for dock lines asks for (common practice, no source)"`
	Cautions []rig.Caution `json:"cautions" nullable:"false"`
}

// BerthLine is what one line needs, with the hitch at either end.
type BerthLine struct {
	mooring.Detail
	Says     []string `json:"says" nullable:"false"`
	AtBoat   Hitched  `json:"at_boat"`
	AtShore  Hitched  `json:"at_shore"`
	CutM     float64  `json:"cut_m" doc:"its run, a quarter more, and both knots"`
	LineName string   `json:"line_name,omitempty"`
}

// Hitched is the knot that is chosen for an end.
type Hitched struct {
	Post mooring.Post `json:"post"`
	Knot string       `json:"knot" doc:"empty where none will do"`
	Name string       `json:"name"`
}

// Moor shares the wind on a moored boat among her lines, and says what each of them needs.
func (s *School) Moor(ctx context.Context, p mooring.Plan) (*MooringAnswer, error) {
	p, names, err := s.ownPlan(ctx, p)
	if err != nil {
		return nil, err
	}
	c := s.Trade()
	shared, err := mooring.Solve(&c.Vocabulary, p)
	if err != nil {
		return nil, err
	}
	w, err := load.ByLength(unit.Length(p.Boat.LOAM), load.TableWind*load.KnotSpeed)
	if err != nil {
		return nil, err
	}
	details, err := mooring.Details(&c.Vocabulary, p, shared)
	if err != nil {
		return nil, err
	}
	out := &MooringAnswer{Shared: shared, Ahead: w.InKN(), Abeam: mooring.Beam, Says: say.Mooring(p, shared), Details: []BerthLine{}, Order: mooring.Order(p, shared),
		RuleMM: math.Round(p.Boat.Rule()), Cautions: c.CautionTexts([]string{"strength", "stored-energy", "left-alone", "by-hand"})}
	out.Moor, out.Unmoor = say.Moor(p, shared, out.Order), say.Unmoor(p, shared, out.Order)
	known := map[string]Hitched{}
	for i, d := range details {
		l := BerthLine{Detail: d, Says: say.LineDetail(p, i, d), CutM: d.CutM, LineName: names[p.Lines[i].Own]}
		for k, post := range []mooring.Post{p.Lines[i].Boat, p.Lines[i].Shore} {
			post = defaultPost(post, k == 0)
			h, needs := s.hitched(known, post, p.Lines[i].Line, shared.WindKN)
			l.CutM += needs
			if k == 0 {
				l.AtBoat = h
			} else {
				l.AtShore = h
			}
		}
		out.Details = append(out.Details, l)
	}
	return out, nil
}

func defaultPost(p mooring.Post, aboard bool) mooring.Post {
	switch {
	case p != "":
		return p
	case aboard:
		return "cleat"
	}
	return "bollard"
}

// usualKnotM is what a knot of a mooring line takes where none could be chosen: a guess.
const usualKnotM = 1

// hitched chooses the hitch for an end as the rig would, at the wind's whole force; what was
// chosen before is not chosen again. needs is the line it takes to tie, m.
func (s *School) hitched(known map[string]Hitched, post mooring.Post, n rig.Line, kn float64) (h Hitched, needs float64) {
	h = Hitched{Post: post}
	n.LengthM = 0
	d := rig.Document{PeakKN: max(0.05, kn), Character: rig.Alternating, Consequence: rig.Boat,
		Chain: []rig.Element{{Fitting: &rig.Fitting{Kind: string(post)}}, {Joint: &rig.Joint{Task: "moor", Release: rig.Slack}}, {Line: &n}}}
	c := s.Trade()
	r, err := c.Resolve(d)
	if err != nil {
		return h, usualKnotM
	}
	order := rank.Joint(c, r)
	needs = usualKnotM
	if len(order.Ranked) > 0 {
		k := order.Ranked[0]
		h.Knot, h.Name = k.Knot.ID, k.Knot.Name
		needs = k.Verdict.Size.Needs.M()
	}
	return h, needs
}

// ownPlan is a plan with what the locker knows of its lines, and their names by code.
func (s *School) ownPlan(ctx context.Context, p mooring.Plan) (mooring.Plan, map[string]string, error) {
	if s.records == nil || !slices.ContainsFunc(p.Lines, func(l mooring.Line) bool { return l.Own != "" }) {
		return p, nil, nil
	}
	own, err := s.ownLines(ctx)
	if err != nil {
		return p, nil, err
	}
	names := map[string]string{}
	p.Lines = slices.Clone(p.Lines)
	for i := range p.Lines {
		if l, ok := own[p.Lines[i].Own]; ok {
			p.Lines[i].Line = p.Lines[i].Line.As(l.Line)
			names[l.Code] = l.Name
		}
	}
	return p, names, nil
}

// UsualBerth is a plan for a boat as she usually lies.
func (s *School) UsualBerth(b mooring.Boat, kind string, n rig.Line) (mooring.Plan, error) {
	v := &s.Trade().Vocabulary
	if err := v.CheckLine(&n); err != nil {
		return mooring.Plan{}, problem.At("line", err)
	}
	return mooring.Usual(b, kind, n)
}

// Berths lists the plans that are kept, the last changed first.
func (s *School) Berths(ctx context.Context) ([]mooring.Berth, error) { return berthsKept.list(ctx, s) }

// Berth reads one.
func (s *School) Berth(ctx context.Context, id int64) (mooring.Berth, error) {
	return berthsKept.one(ctx, s, id)
}

// SaveBerth keeps one. The error names each field.
func (s *School) SaveBerth(ctx context.Context, b mooring.Berth) (mooring.Berth, error) {
	if err := b.Check(&s.Trade().Vocabulary); err != nil {
		return b, err
	}
	return berthsKept.save(ctx, s, b)
}

// DeleteBerth removes one.
func (s *School) DeleteBerth(ctx context.Context, id int64) error {
	return s.records.DeleteDocument(ctx, berthKind, id)
}

// WindGauge is an instrument that tells the wind.
type WindGauge interface {
	State() mooring.Feed
	// Dial listens to an address instead of the one before; an empty one to none.
	Dial(addr string) error
	// Watch shows the wind until the context ends.
	Watch(ctx context.Context, show func(mooring.Feed) error) error
	Close()
}

// noWind stands where none can be listened to.
type noWind struct{}

func (noWind) State() mooring.Feed                                   { return mooring.Feed{} }
func (noWind) Watch(context.Context, func(mooring.Feed) error) error { return nil }
func (noWind) Close()                                                {}
func (noWind) Dial(addr string) error {
	if addr == "" {
		return nil
	}
	return problem.New("wind", "cannot be listened to here", "turn the wind by hand")
}

// WindSettings are where the wind comes from.
type WindSettings struct {
	ID       int64  `json:"-"`
	Revision int64  `json:"revision" readOnly:"true"`
	Addr     string `json:"addr" maxLength:"200" doc:"host and port of an instrument that sends NMEA 0183; empty: none"`
}

// UseWind gives the school what listens to the wind, and dials the instrument that is set.
func (s *School) UseWind(ctx context.Context, g WindGauge) error {
	s.wind = g
	set, err := s.WindSettings(ctx)
	if err != nil || set.Addr == "" {
		return err
	}
	return g.Dial(set.Addr)
}

// WindSettings reads them; without any, none is listened to.
func (s *School) WindSettings(ctx context.Context) (WindSettings, error) {
	list, err := windKept.list(ctx, s)
	if err != nil || len(list) == 0 {
		return WindSettings{}, err
	}
	return list[0], nil
}

// SetWind changes them. The error names the field.
func (s *School) SetWind(ctx context.Context, w WindSettings) (WindSettings, error) {
	was, err := s.WindSettings(ctx)
	if err != nil {
		return w, err
	}
	if w.Addr != was.Addr || s.wind.State().Addr != w.Addr {
		if err := s.wind.Dial(w.Addr); err != nil {
			return w, err
		}
	}
	w.ID = was.ID
	if was.ID == 0 {
		w.Revision = 0
	}
	return windKept.save(ctx, s, w)
}

// Afloat is the wind and how it stands against each berth at which she lies.
type Afloat struct {
	Wind   mooring.Feed `json:"wind"`
	Says   string       `json:"says" doc:"what is known of the wind"`
	Berths []InBerth    `json:"berths" nullable:"false"`
}

// InBerth is a berth in the wind that blows.
type InBerth struct {
	ID   int64  `json:"id"`
	Name string `json:"name"`
	mooring.Watch
	Says string `json:"says"`
}

// Afloat holds the wind against the berths at which she lies. Without a wind that is known they
// are left out: an old wind would read as an all clear.
func (s *School) Afloat(ctx context.Context) (*Afloat, error) {
	list, err := s.lying(ctx)
	if err != nil {
		return nil, err
	}
	return s.against(s.wind.State(), list), nil
}

func (s *School) lying(ctx context.Context) ([]mooring.Berth, error) {
	list, err := s.Berths(ctx)
	if err != nil {
		return nil, err
	}
	out := []mooring.Berth{}
	for _, b := range list {
		if !b.Lying {
			continue
		}
		if b.Plan, _, err = s.ownPlan(ctx, b.Plan); err != nil {
			return nil, err
		}
		out = append(out, b)
	}
	return out, nil
}

func (s *School) against(f mooring.Feed, list []mooring.Berth) *Afloat {
	out := &Afloat{Wind: f, Says: say.Feed(f), Berths: []InBerth{}}
	if !f.Known {
		return out
	}
	v := &s.Trade().Vocabulary
	for _, b := range list {
		hold := func() (mooring.Watch, error) {
			if !f.Relative && b.Heading == 0 {
				return mooring.Anywhere(v, b.Plan, f.Kn, f.GustKn)
			}
			return mooring.In(v, b.Plan, f.Kn, f.GustKn, f.Breeze.OffBow(b.Heading))
		}
		w, err := hold()
		if err != nil {
			continue // it was sound when it was kept: its material is no longer here
		}
		out.Berths = append(out.Berths, InBerth{b.ID, b.Name, w, say.Watched(b.Name, w)})
	}
	return out
}

// WatchAfloat shows the wind against the berths until the context ends. Plans that are changed
// count from the next look at them, a few seconds later.
func (s *School) WatchAfloat(ctx context.Context, show func(*Afloat) error) error {
	const looks = 10 // shows between two looks at the plans
	var list []mooring.Berth
	n := 0
	return s.wind.Watch(ctx, func(f mooring.Feed) error {
		if n%looks == 0 {
			var err error
			if list, err = s.lying(ctx); err != nil {
				return fmt.Errorf("reading the berths: %w", err)
			}
		}
		n++
		return show(s.against(f, list))
	})
}
