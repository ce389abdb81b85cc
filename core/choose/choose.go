package choose

import (
	"fmt"
	"math"
	"sort"
	"strings"

	"oarweed/catalogue"
	"oarweed/core/evidence"
	"oarweed/core/friction"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Answer is everything there is to say about a joint. It is the document that
// the API and the command line give.
type Answer struct {
	// Rig is the rig with its defaults filled in, Defaults what was filled in.
	Rig      rig.Document  `json:"rig"`
	Defaults []rig.Default `json:"defaults" nullable:"false"`
	Line     LineAnswer    `json:"line"`
	// Other is the second line of a bend.
	Other *LineAnswer `json:"other,omitempty"`
	// NeededKN is load × design factor.
	NeededKN     float64 `json:"needed_kn"`
	DesignFactor float64 `json:"design_factor"`
	FactorWhy    string  `json:"factor_why"`
	// FactorTag is memory for the usual factor, yours for one that was chosen.
	FactorTag evidence.Tag  `json:"factor_tag" enum:"published,trade,memory,computed,yours"`
	Ranked    []Choice      `json:"ranked" nullable:"false"`
	RuledOut  []Ruled       `json:"ruled_out" nullable:"false"`
	Cautions  []rig.Caution `json:"cautions" nullable:"false"`

	rig  *rig.Rig
	line evidence.Figure // of the line or, in a bend, of the weaker one; N
}

// LineAnswer is what a line bears.
type LineAnswer struct {
	Name       string  `json:"name"`
	DiameterMM float64 `json:"diameter_mm"`
	// MBLKN is the breaking strength that counts, Options every way of finding it.
	MBLKN   evidence.Figure `json:"mbl_kn"`
	Options []Option        `json:"options" nullable:"false"`
	Why     string          `json:"why"`
	// CapacityKN is what is left when wet and worn.
	CapacityKN evidence.Figure `json:"capacity_kn"`
}

// Option is one way of finding a breaking strength.
type Option struct {
	Name  string          `json:"name"`
	MBLKN evidence.Figure `json:"mbl_kn"`
	Used  bool            `json:"used"`
}

// Choice is a knot that can do the job.
type Choice struct {
	Knot          string          `json:"knot"`
	Name          string          `json:"name"`
	Kind          knot.Kind       `json:"kind"`
	Drawn         bool            `json:"drawn"`
	Score         float64         `json:"score"`
	Reason        string          `json:"reason"`
	Contributions []Contribution  `json:"contributions" nullable:"false"`
	Strength      Strength        `json:"strength"`
	Dry           Hold            `json:"dry"`
	Wet           Hold            `json:"wet"`
	ReleaseHow    string          `json:"release_how"`
	ReleaseWord   string          `json:"release_word"`
	Seconds       evidence.Figure `json:"seconds"`
	// NeedsM is the line to tie with: what the knot takes and the tail.
	NeedsM float64 `json:"needs_m"`
	TailM  float64 `json:"tail_m"`
	Wraps  int     `json:"wraps,omitempty"`
	// Flags are warnings about this knot in this rig.
	Flags    []string      `json:"flags" nullable:"false"`
	Cautions []rig.Caution `json:"cautions" nullable:"false"`
}

// Contribution of one criterion to the score.
type Contribution struct {
	Criterion string  `json:"criterion"`
	Weight    float64 `json:"weight"`
	Value     float64 `json:"value"`
	Points    float64 `json:"points"`
}

// Strength of the joint.
type Strength struct {
	CapacityKN evidence.Figure `json:"capacity_kn"`
	Efficiency evidence.Figure `json:"efficiency"`
	// Fails is "breaks" or "slips".
	Fails string `json:"fails"`
	// Utilisation is load × design factor ÷ capacity, Margin its inverse; Times is
	// capacity ÷ load. All from the likely capacity.
	Utilisation float64 `json:"utilisation"`
	Margin      float64 `json:"margin"`
	Times       float64 `json:"times"`
	Word        string  `json:"word" enum:"enough,short,thin"`
}

// Hold of the joint, dry or wet.
type Hold struct {
	Class knot.Class   `json:"class" enum:"holds,marginal,slips"`
	Why   string       `json:"why"`
	Tag   evidence.Tag `json:"tag" enum:"published,trade,memory,computed,yours"`
	// Chance that it holds, for hitches with a friction model.
	Chance *float64 `json:"chance,omitempty"`
	// MuCritical is the least friction at which it locks; Mu is the line's.
	MuCritical *float64         `json:"mu_critical,omitempty"`
	Mu         *evidence.Figure `json:"mu,omitempty"`
	// HandN is the force the end must be held with at the lowest friction
	// expected, in newtons; left out where it locks or no hand can hold it.
	HandN *float64 `json:"hand_n,omitempty"`
	value float64
}

// Ruled is a knot that cannot do the job.
type Ruled struct {
	Knot    string   `json:"knot"`
	Name    string   `json:"name"`
	Reasons []Reason `json:"reasons" nullable:"false"`
	// Near: it is meant for this task and fitting, so that the reason is worth
	// reading first.
	Near bool `json:"near"`
}

// Reason why a gate rules a knot out.
type Reason struct {
	Gate string `json:"gate"`
	Why  string `json:"why"`
}

// For ranks the catalogue for a checked rig. The error names the field: a line
// whose strength is not known.
func For(c *catalogue.Catalogue, r *rig.Rig) (*Answer, error) {
	a := &Answer{Rig: r.Document, Defaults: r.Defaults, DesignFactor: r.DesignFactor, FactorWhy: r.FactorWhy, FactorTag: r.FactorTag,
		NeededKN: r.Load.KN() * r.DesignFactor, Ranked: []Choice{}, RuledOut: []Ruled{}, Cautions: cautions(c, r), rig: r}
	if a.Defaults == nil {
		a.Defaults = []rig.Default{}
	}
	var err error
	if a.Line, err = Bears(r.Line, r.Wet); err != nil {
		return nil, prefixed("chain[2].line", err)
	}
	capacity := a.Line.CapacityKN
	if r.Other != nil {
		other, err := Bears(*r.Other, r.Wet)
		if err != nil {
			return nil, prefixed("chain[0].line", err)
		}
		a.Other = &other
		if r.Task.Between == rig.TwoLines && other.CapacityKN.Likely < capacity.Likely {
			capacity = other.CapacityKN // the weaker line sets what the bend can bear
		}
	}
	capacity.Interval = capacity.Scale(1e3)
	a.line = capacity
	weights := c.Weights[r.Weights]
	for _, k := range c.Knots {
		j := joint{c: c, r: r, k: k, line: capacity}
		if other := j.otherWork(); other != nil {
			a.RuledOut = append(a.RuledOut, Ruled{k.ID, k.Name, other, false})
			continue
		}
		j.size()
		j.holds()
		j.strength()
		if reasons := j.gates(); len(reasons) > 0 {
			a.RuledOut = append(a.RuledOut, Ruled{k.ID, k.Name, reasons, true})
			continue
		}
		a.Ranked = append(a.Ranked, j.choice(weights))
	}
	sort.SliceStable(a.Ranked, func(i, j int) bool { return a.Ranked[i].Score > a.Ranked[j].Score })
	sort.SliceStable(a.RuledOut, func(i, j int) bool {
		x, y := a.RuledOut[i], a.RuledOut[j]
		if x.Near != y.Near {
			return x.Near
		}
		// The knots best made for the task first: their reasons teach most.
		return c.Knot(x.Knot).Tasks[r.Task.ID].Fit > c.Knot(y.Knot).Tasks[r.Task.ID].Fit
	})
	return a, nil
}

func cautions(c *catalogue.Catalogue, r *rig.Rig) []rig.Caution {
	out := []rig.Caution{}
	if r.Consequence == rig.Person {
		out = append(out, c.Caution("person"))
	}
	out = append(out, c.Caution("strength"))
	for _, id := range r.Task.Cautions {
		out = append(out, c.Caution(id))
	}
	return append(out, c.Caution("memory-figures"))
}

// Bears says what a line bears, wet or dry, as new or worn. The error names the
// field that is missing.
func Bears(ln line.Line, wet bool) (LineAnswer, error) {
	s, err := ln.Strength()
	if err != nil {
		return LineAnswer{}, err
	}
	out := LineAnswer{Name: lineName(ln), DiameterMM: ln.Diameter.MM(), MBLKN: inKN(s.MBL()), Why: s.Why,
		CapacityKN: inKN(ln.Capacity(s.MBL(), wet))}
	for i, o := range s.Options {
		out.Options = append(out.Options, Option{o.Name, inKN(o.Newtons), i == s.Used})
	}
	return out, nil
}

// lineName says a line in words: "12 mm polyester braid"; fishing line by its pound
// test where that is known.
func lineName(ln line.Line) string {
	word := map[line.Construction]string{line.Laid: " three-strand", line.Braid: " braid", line.Twelve: " 12-strand"}[ln.Construction]
	size := ln.Diameter.String()
	if ln.Material.Fishing && ln.Label > 0 {
		size = ln.Label.Pounds()
	}
	return size + " " + strings.TrimPrefix(ln.Material.Name, "braided ") + word
}

func prefixed(path string, err error) error {
	var l problem.List
	l.Take(path, err)
	return l.Err()
}

func inKN(f evidence.Figure) evidence.Figure {
	f.Interval = f.Scale(1e-3)
	return f
}

// joint is one knot being judged in one rig.
type joint struct {
	c    *catalogue.Catalogue
	r    *rig.Rig
	k    *knot.Knot
	line evidence.Figure // capacity of the line, N

	ratio        float64 // thick ÷ thin, or object line ÷ helper; 0 if one line
	needs, tail  unit.Length
	wraps, short int
	dry, wet     Hold
	out          Strength
	capacity     evidence.Interval // N
}

// now is the hold that counts.
func (j *joint) now() Hold {
	if j.r.Wet {
		return j.wet
	}
	return j.dry
}

// size works out ratio, wraps and the line needed.
func (j *joint) size() {
	d := j.r.Line.Diameter
	round := 0.0
	switch {
	case j.r.Fitting != nil:
		round = math.Pi * float64(j.r.Fitting.Size+d)
	case j.r.Other != nil:
		j.ratio = float64(j.r.Other.Diameter / d)
		if j.r.Task.Between == rig.TwoLines && j.ratio < 1 {
			j.ratio = 1 / j.ratio
		}
		round = math.Pi * float64(j.r.Other.Diameter+d)
	}
	j.tail = d * unit.Length(j.k.Tail.Low)
	j.needs = d*unit.Length(j.k.Uses.Diameters) + unit.Length(j.k.Uses.Turns*round) + j.tail + 2*j.r.Distance
	if j.k.Wraps != nil {
		j.wraps = j.k.Wraps.For(unit.Force(j.line.Likely).LbTest())
		if j.r.Wraps > 0 {
			j.short = max(0, j.wraps-j.r.Wraps)
			j.wraps = j.r.Wraps
		}
	}
}

// holds judges the hold dry and wet.
func (j *joint) holds() {
	if j.k.Network == "" {
		h := j.k.HoldIn(j.r.Line.Material.ID)
		if j.r.Other != nil && j.r.Task.Between == rig.TwoLines {
			// The more slippery of two lines decides.
			if o := j.k.HoldIn(j.r.Other.Material.ID); rank(o.Wet)+rank(o.Dry) > rank(h.Wet)+rank(h.Dry) {
				h = o
			}
		}
		j.dry = Hold{Class: h.Dry, Why: h.Why, Tag: h.Tag, value: classValue(h.Dry)}
		j.wet = Hold{Class: h.Wet, Why: h.Why, Tag: h.Tag, value: classValue(h.Wet)}
	} else {
		h, g, m := j.friction()
		mc := h.CriticalMu(g, m)
		for wet, out := range map[bool]*Hold{false: &j.dry, true: &j.wet} {
			*out = j.network(mc, wet)
			low := out.Mu.Low
			if ratio := h.HoldRatio(g, m.Scale(low)); ratio > 0 && !math.IsInf(ratio, 1) {
				hand := float64(j.r.Load) / ratio
				out.HandN = &hand
			}
		}
	}
	j.shake(&j.dry)
	j.shake(&j.wet)
}

// friction gives the knot's friction model, its geometry on this object, and
// how both coefficients follow from the line's friction on smooth metal.
func (j *joint) friction() (friction.Hitch, friction.Geometry, friction.Mu) {
	h, _ := friction.Find(j.k.Network, j.k.NetworkCount) // the catalogue checks that it exists
	g := friction.Geometry{Rope: float64(j.r.Line.Diameter) / 2}
	m := friction.Mu{Rope: 1, Object: 1}
	switch {
	case j.r.Fitting != nil:
		g.Object = float64(j.r.Fitting.Size) / 2
		m.Object = j.r.Fitting.Factor.Likely
	case j.r.Other != nil:
		g.Object = float64(j.r.Other.Diameter) / 2
	}
	return h, g, m
}

func (j *joint) network(mc float64, wet bool) Hold {
	mu := j.r.Line.Mu(wet)
	chance := mu.Above(mc)
	h := Hold{Tag: evidence.Computed, Chance: &chance, Mu: &mu, value: chance}
	if !math.IsInf(mc, 1) {
		h.MuCritical = &mc
	}
	switch {
	case mu.Low >= mc:
		h.Class, h.Why = knot.Holds, "locks even at the lowest friction expected"
	case mu.High < mc:
		h.Class, h.Why = knot.Slips, fmt.Sprintf("needs friction of %.2f, and this line has at most %.2f", mc, mu.High)
	default:
		h.Class, h.Why = knot.Marginal, fmt.Sprintf("needs friction of %.2f, and this line has %.2f to %.2f", mc, mu.Low, mu.High)
	}
	return h
}

// shake takes a class off where the load shakes a knot that does not like it.
func (j *joint) shake(h *Hold) {
	worse := false
	switch j.r.Character {
	case rig.Alternating:
		worse = j.k.Shake.Class == knot.Slips
	case rig.Flogging, rig.Snatch:
		worse = j.k.Shake.Class != knot.Holds
	}
	if !worse || h.Class == knot.Slips {
		return
	}
	h.Why = j.k.Shake.Why
	h.value *= 0.5
	// A shaken knot is watched, not forbidden: it goes no lower than marginal,
	// unless flogging meets a knot that works loose by itself.
	if h.Class == knot.Holds || j.k.Shake.Class == knot.Slips && j.r.Character != rig.Alternating {
		h.Class = h.Class.Worse()
	}
}

func (j *joint) strength() {
	e := j.k.EfficiencyIn(j.r.Line.Material.ID)
	if j.r.Other != nil && j.r.Task.Between == rig.TwoLines {
		if o := j.k.EfficiencyIn(j.r.Other.Material.ID); o.Value.Likely < e.Value.Likely {
			e = o
		}
	}
	f := e.Figure()
	if j.short > 0 {
		loss := j.k.Wraps.Loss
		n := float64(j.short)
		f.Interval = evidence.Interval{
			Low:    f.Low * math.Pow(1-loss.High, n),
			Likely: f.Likely * math.Pow(1-loss.Likely, n),
			High:   f.High * math.Pow(1-loss.Low, n),
		}
	}
	j.capacity = j.line.Interval.Times(f.Interval)
	needed := float64(j.r.Load) * j.r.DesignFactor
	j.out = Strength{
		CapacityKN: evidence.Figure{Interval: j.capacity.Scale(1e-3), Tag: evidence.Computed,
			Source: "strength of the line (" + string(j.line.Tag) + ") × share kept by the knot (" + string(f.Tag) + ")"},
		Efficiency: f, Fails: e.Fails,
		Utilisation: needed / j.capacity.Likely,
		Margin:      j.capacity.Likely / needed,
		Times:       j.capacity.Likely / float64(j.r.Load),
	}
	switch {
	case j.out.Margin >= 1:
		j.out.Word = "enough"
	case j.capacity.Low >= 2*float64(j.r.Load):
		j.out.Word = "short"
	default:
		j.out.Word = "thin"
	}
}

func (j *joint) choice(w rig.Weights) Choice {
	k := j.k
	c := Choice{Knot: k.ID, Name: k.Name, Kind: k.Kind, Drawn: k.Shape != "", Strength: j.out, Dry: j.dry, Wet: j.wet,
		ReleaseHow: k.Release.How, ReleaseWord: releaseWord(k), Seconds: k.Seconds,
		NeedsM: j.needs.M(), TailM: j.tail.M(), Wraps: j.wraps, Flags: j.flags(), Cautions: []rig.Caution{}}
	for _, id := range k.Cautions {
		c.Cautions = append(c.Cautions, j.c.Caution(id))
	}
	fit := k.Tasks[j.r.Task.ID]
	c.Reason = fit.Why
	for _, p := range []Contribution{
		{"made for this", w.Fit, fit.Fit, 0},
		{"strength", w.Strength, j.out.Margin / (1 + j.out.Margin), 0},
		{"hold", w.Hold, j.now().value, 0},
		{"coming off", w.Release, j.releaseValue(), 0},
		{"time to tie", w.Time, j.timeValue(), 0},
		{"easy to learn", w.Ease, float64(6-k.Difficulty) / 5, 0},
		{"easy to check", w.Inspect, float64(k.Inspect) / 5, 0},
		{"line used", w.Line, 1 / (1 + j.needs.M()), 0},
	} {
		p.Points = p.Weight * p.Value
		c.Score += p.Points
		c.Contributions = append(c.Contributions, p)
	}
	return c
}

// timeValue falls with the time it takes; where the user says how long there is,
// any knot that fits into it is as good as another.
func (j *joint) timeValue() float64 {
	likely := j.k.Seconds.Likely
	if t := j.r.Seconds; t > 0 {
		return math.Min(1, t/likely)
	}
	return 15 / (15 + likely)
}

func releaseWord(k *knot.Knot) string {
	if k.Release.UnderLoad {
		return "under load"
	}
	return map[knot.Off]string{knot.Easy: "by hand, when slack", knot.Worked: "by hand, with work", knot.Jams: "jams", knot.Cut: "by cutting"}[k.Release.Slack]
}

func (j *joint) releaseValue() float64 {
	if j.k.Release.UnderLoad {
		return 1
	}
	return map[knot.Off]float64{knot.Easy: 0.9, knot.Worked: 0.6, knot.Jams: 0.3, knot.Cut: 0.3}[j.k.Release.Slack]
}

// flags are warnings about this knot in this rig.
func (j *joint) flags() []string {
	out := []string{}
	if h := j.now(); h.Class == knot.Marginal && j.k.Network == "" {
		out = append(out, sentence(h.Why))
	} else if h.Class == knot.Marginal && *h.Chance < 0.9 {
		flag := fmt.Sprintf("Locks by itself in %.0f of 100 cases.", 100**h.Chance)
		if h.HandN != nil {
			flag += fmt.Sprintf(" At the worst the end must be held with %s: add turns, or another half hitch.", unit.Force(*h.HandN))
		}
		out = append(out, flag)
	}
	if j.out.Fails == "slips" {
		out = append(out, "It slips before it breaks.")
	}
	if j.out.Word != "enough" {
		out = append(out, fmt.Sprintf("Bears %.1f times the load; %.0f times is asked for.", j.out.Times, j.r.DesignFactor))
	}
	if j.short > 0 {
		out = append(out, fmt.Sprintf("%d wraps fewer than this line asks for.", j.short))
	}
	if j.r.Line.Wear == 3 {
		out = append(out, "This line is worn out: retire it.")
	}
	return out
}

func sentence(s string) string {
	if s == "" {
		return s
	}
	return strings.ToUpper(s[:1]) + s[1:] + "."
}

func rank(c knot.Class) int {
	return map[knot.Class]int{knot.Holds: 0, knot.Marginal: 1, knot.Slips: 2}[c]
}

func classValue(c knot.Class) float64 {
	return map[knot.Class]float64{knot.Holds: 0.95, knot.Marginal: 0.5, knot.Slips: 0.05}[c]
}
