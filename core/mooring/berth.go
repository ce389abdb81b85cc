package mooring

import (
	"fmt"
	"math"
	"slices"

	"oarweed/core/evidence"
	"oarweed/core/load"
	"oarweed/core/name"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Berth is a plan that is kept.
type Berth struct {
	ID       int64  `json:"id" readOnly:"true"`
	Revision int64  `json:"revision" readOnly:"true"`
	Name     string `json:"name" maxLength:"80"`
	Plan
	// Heading of the bow, degrees from north, 360 for north itself; 0 or left out: not known, and a
	// wind that is told from north is held from where she stands least.
	Heading float64 `json:"heading_deg,omitempty" minimum:"0" maximum:"360" doc:"of the bow, from north; 0: not known"`
	// Lying: she lies there now, and the wind is held against the plan.
	Lying bool   `json:"lying,omitempty" doc:"she lies there now: the wind is held against the plan"`
	Note  string `json:"note,omitempty" maxLength:"400"`
}

// Check puts a berth in order. The error names each field.
func (b *Berth) Check(v *rig.Vocabulary) error {
	var l problem.List
	n, err := name.Clean(b.Name, 80)
	l.Take("name", err)
	b.Name = n
	if !(b.Heading >= 0 && b.Heading <= 360) {
		l.Add("heading_deg", fmt.Sprintf("%g is no heading", b.Heading), "give 0 to 360, from north")
	}
	if len([]rune(b.Note)) > 400 {
		l.Add("note", "is too long", "use 400 letters at the most")
	}
	for i := range b.Lines {
		l.Take(fmt.Sprintf("lines[%d].line", i), v.CheckLine(&b.Lines[i].Line))
	}
	if l.Err() == nil {
		_, err = Solve(v, b.Plan)
		l.Take("", err)
	}
	return l.Err()
}

// Post is what a line is made fast to.
type Post string

// Posts are the fittings (catalogue ids) that lines are made fast to.
var Posts = []Post{"cleat", "bollard", "ring", "post"}

// Chafe is where a line rubs.
type Chafe string

const (
	Rail  Chafe = "rail"  // it leads out over the boat's side
	Quay  Chafe = "quay"  // it bends over the edge of the quay
	Cross Chafe = "cross" // it crosses another line
)

// Detail is what one line needs.
type Detail struct {
	// RunM is from the boat's end to the shore's as she lies, CutM what is cut for it: both knots
	// to be added, and a quarter more for the tide and for easing (our own share).
	RunM float64 `json:"run_m"`
	CutM float64 `json:"cut_m"`
	// SnatchKN is the peak if she comes up on it from slack at [Drift].
	SnatchKN evidence.Figure `json:"snatch_kn"`
	// Short: new and dry, at its weakest, it is below Factor times what it bears. NeedKN is that.
	Short  bool    `json:"short"`
	NeedKN float64 `json:"need_kn"`
	// ThinMM is by how much it is thinner than the rule for dock lines asks for; 0 where it is not.
	ThinMM float64 `json:"thin_mm"`
	// Chafes are where it rubs, Crosses the lines that it crosses.
	Chafes  []Chafe `json:"chafes" nullable:"false"`
	Crosses []int   `json:"crosses,omitempty"`
}

// Drift is how fast she is taken to come up on a slack line, m/s: wash and a gust, from memory,
// kept wide.
var Drift = evidence.Figure{Interval: evidence.Interval{Low: 0.2, Likely: 0.4, High: 0.7}, Tag: evidence.Memory,
	Source: "a moored boat surging on a slack line, from memory, kept wide"}

const (
	// Factor on the strength of a mooring line new and dry: common rope-industry guidance, memory.
	Factor = 5
	// spare is what a line is longer than it leads.
	spare = 0.25
)

// Rule is the usual diameter of dock line for her, mm (common practice, no source).
func (b Boat) Rule() float64 { return load.DockLine(unit.Length(b.LOAM)).MM() }

// Details of every line of a plan whose shares are known. The error names the field.
func Details(v *rig.Vocabulary, p Plan, s Shared) ([]Detail, error) {
	quay := quayOf(p)
	out := []Detail{}
	for i, x := range p.Lines {
		ln, err := v.LineOf(x.Line)
		if err != nil {
			return nil, problem.At(fmt.Sprintf("lines[%d].line", i), err)
		}
		bears, err := ln.Bears(true)
		if err != nil {
			return nil, problem.At(fmt.Sprintf("lines[%d].line", i), err)
		}
		d := Detail{RunM: math.Hypot(x.To[0]-x.From[0], x.To[1]-x.From[1]), Chafes: []Chafe{}}
		d.CutM = d.RunM * (1 + spare)
		d.NeedKN = Factor * s.Lines[i].LoadKN
		d.Short = bears.AsNew.Low/1000 < d.NeedKN
		if rule := p.Boat.Rule(); ln.Diameter > 0 {
			d.ThinMM = max(0, rule-ln.Diameter.MM())
		}
		if p.Boat.DisplacementT > 0 {
			slow, err := load.Snatch(1000*p.Boat.DisplacementT, Drift.Low, bears.Capacity.Interval, ln.Material.Stretch.Interval, unit.Length(d.RunM))
			if err != nil {
				return nil, err
			}
			d.SnatchKN = slow.InKN()
			per := d.SnatchKN.Scale(1 / Drift.Low)
			d.SnatchKN.Interval = evidence.Interval{Low: per.Low * Drift.Low, Likely: per.Likely * Drift.Likely, High: per.High * Drift.High}
			d.SnatchKN.Source = "v·√(k·m), balance of energy; how fast she surges, strength and stretch from memory"
			d.SnatchKN.Tag = evidence.Memory
		}
		if math.Abs(x.From[1]) < half(p.Boat, x.From[0])-0.005 {
			d.Chafes = append(d.Chafes, Rail)
		}
		if quay != 0 && quay*x.To[1] > p.Boat.BeamM/2+0.5 {
			d.Chafes = append(d.Chafes, Quay)
		}
		for k, y := range p.Lines {
			if k != i && cross(x, y) {
				d.Crosses = append(d.Crosses, k)
			}
		}
		if len(d.Crosses) > 0 {
			d.Chafes = append(d.Chafes, Cross)
		}
		out = append(out, d)
	}
	return out, nil
}

// half of her breadth at a place: as wide as she is up to a fifth before amidships, then
// narrowing to the bow; four fifths of it at the stern. Only so true as the sketch of her.
func half(b Boat, x float64) float64 {
	u := x / (b.LOAM / 2) // −1 stern, +1 bow
	w := b.BeamM / 2
	switch {
	case u > 0.2:
		return w * math.Sqrt(max(0, 1-(u-0.2)/0.8))
	case u < -0.2:
		return w * (1 - 0.2*min(1, (-u-0.2)/0.8))
	}
	return w
}

func cross(a, b Line) bool {
	side := func(p, q, r [2]float64) float64 { return (q[0]-p[0])*(r[1]-p[1]) - (q[1]-p[1])*(r[0]-p[0]) }
	return side(a.From, a.To, b.From)*side(a.From, a.To, b.To) < 0 && side(b.From, b.To, a.From)*side(b.From, b.To, a.To) < 0
}

const (
	// bearing is from which share of the whole wind a line counts as holding her.
	bearing = 0.05
	// halves is what a spring's load counts when lines are ordered: ends go on before springs
	// that hold as much (common practice, no source).
	halves = 0.5
)

// Order is in which order the lines are made fast in this wind: first those that hold her against
// it, the one that bears most before the rest, springs at half their load; of those that bear
// nothing the ends before the springs. They are let go the other way round: what is slack first, what she lies to last.
func Order(p Plan, s Shared) []int {
	out := make([]int, len(p.Lines))
	for i := range out {
		out[i] = i
	}
	bears := func(i int) float64 {
		t := s.Lines[i].LoadKN
		switch {
		case t <= bearing*s.WindKN:
			return 0
		case p.Spring(i):
			return halves * t
		}
		return t
	}
	slices.SortStableFunc(out, func(a, b int) int {
		switch d := bears(b) - bears(a); {
		case d > 1e-9:
			return 1
		case d < -1e-9:
			return -1
		}
		switch x, y := p.Spring(a), p.Spring(b); {
		case x == y:
			return 0
		case x:
			return 1
		}
		return -1
	})
	return out
}

// Spring reports whether a line of a plan is one: it leads along her, toward amidships.
func (p Plan) Spring(i int) bool {
	x := p.Lines[i]
	along := x.To[0] - x.From[0]
	return x.From[0]*along < 0 && math.Abs(along) > math.Abs(x.To[1]-x.From[1])
}

// Usual is a plan for a boat as she usually lies: alongside, the quay to port, by bow and stern
// lines and two springs; or between four posts.
func Usual(b Boat, kind string, n rig.Line) (Plan, error) {
	loa, w := b.LOAM, b.BeamM
	p := Plan{Boat: b, Wind: Wind{Kn: 20, FromDeg: 300}}
	add := func(name string, from, to [2]float64, shore Post) {
		for _, at := range []*[2]float64{&from, &to} { // to the centimetre: it is read and typed over
			at[0], at[1] = math.Round(100*at[0])/100, math.Round(100*at[1])/100
		}
		p.Lines = append(p.Lines, Line{Name: name, From: from, To: to, Line: n, Boat: "cleat", Shore: shore})
	}
	switch kind {
	case "alongside":
		y := -w / 2
		quay := y - 0.8
		add("bow line", [2]float64{0.44 * loa, 0.38 * y}, [2]float64{0.62 * loa, quay}, "bollard")
		add("stern line", [2]float64{-0.46 * loa, 0.8 * y}, [2]float64{-0.64 * loa, quay}, "bollard")
		add("fore spring", [2]float64{0.3 * loa, y}, [2]float64{-0.18 * loa, quay}, "ring")
		add("aft spring", [2]float64{-0.3 * loa, y}, [2]float64{0.18 * loa, quay}, "ring")
	case "posts":
		for _, x := range []float64{0.46, -0.46} {
			end := "bow line"
			if x < 0 {
				end = "stern line"
			}
			add(end+" to port", [2]float64{x * loa, -0.3 * w}, [2]float64{x*loa + math.Copysign(3, x), -w/2 - 2.5}, "post")
			add(end+" to starboard", [2]float64{x * loa, 0.3 * w}, [2]float64{x*loa + math.Copysign(3, x), w/2 + 2.5}, "post")
		}
	default:
		return p, problem.New("kind", fmt.Sprintf("%q is no berth", kind), "use alongside or posts")
	}
	return p, nil
}
