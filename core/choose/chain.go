package choose

import (
	"fmt"
	"math"
	"sort"
	"strings"

	"oarweed/catalogue"
	"oarweed/core/evidence"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// RigAnswer is everything there is to say about a chain.
type RigAnswer struct {
	// Rig with its defaults filled in.
	Rig      rig.Document  `json:"rig"`
	Joints   []JointAnswer `json:"joints" nullable:"false"`
	Lines    []LineInRig   `json:"lines" nullable:"false"`
	Weakest  *Weakest      `json:"weakest,omitempty"`
	Chance   *Chance       `json:"chance,omitempty"`
	NeededKN float64       `json:"needed_kn"`
	// CapacityKN of the whole rig: the least of its parts.
	CapacityKN *evidence.Figure `json:"capacity_kn,omitempty"`
	// Margin is likely capacity ÷ (load × design factor).
	Margin float64 `json:"margin"`
	// CastOff says in which order to let go, in words.
	CastOff []string `json:"cast_off" nullable:"false"`
	// Cut says what to cut off the spool.
	Cut      []Cut         `json:"cut" nullable:"false"`
	Cautions []rig.Caution `json:"cautions" nullable:"false"`
}

// JointAnswer is one joint of a chain.
type JointAnswer struct {
	// At is its place in the chain.
	At int `json:"at"`
	// Where names it: "at the ring", "between the lines".
	Where  string  `json:"where"`
	Answer *Answer `json:"answer"`
	// Knot chosen in the rig, or else the first in rank; empty if none will do.
	Knot string `json:"knot"`
	// Chosen is that knot worked out; Against says why it is ruled out, if it is.
	Chosen  *Choice  `json:"chosen,omitempty"`
	Against []Reason `json:"against" nullable:"false"`
	// Fails is the share of draws in which the rig gives way here first.
	Fails float64 `json:"fails"`
	// weaker is the line that the knot fails in.
	weaker string
}

// LineInRig is one line of a chain.
type LineInRig struct {
	At int `json:"at"`
	LineAnswer
	// Utilisation is load × design factor ÷ likely capacity.
	Utilisation float64 `json:"utilisation"`
	Fails       float64 `json:"fails"`
}

// Weakest is the part that gives way first in most draws.
type Weakest struct {
	At         int             `json:"at"`
	Name       string          `json:"name"`
	Where      string          `json:"where"`
	CapacityKN evidence.Figure `json:"capacity_kn"`
	// Fails is "breaks" or "slips"; Says puts it in a sentence.
	Fails string `json:"fails"`
	Says  string `json:"says"`
}

// Cut is what one line needs.
type Cut struct {
	At   int    `json:"at"`
	Line string `json:"line"`
	// LengthM between its joints, 0 if not given; KnotsM is what knots and ends take.
	LengthM float64 `json:"length_m"`
	KnotsM  float64 `json:"knots_m"`
	TotalM  float64 `json:"total_m"`
	Says    string  `json:"says"`
}

// Whole answers for a chain. The error names the field in the chain.
func Whole(c *catalogue.Catalogue, d rig.Document) (*RigAnswer, error) {
	full, err := c.Fill(d)
	if err != nil {
		return nil, err
	}
	rigs, parts, err := c.ResolveAll(d)
	if err != nil {
		return nil, err
	}
	w := &whole{c: c, samples: map[int]sample{}, needs: map[int]float64{}, told: map[string]bool{},
		out: &RigAnswer{Rig: full, CastOff: []string{}, Cut: []Cut{}, Cautions: []rig.Caution{}}}
	for i, p := range parts {
		if err := w.joint(rigs[i], p); err != nil {
			var l problem.List
			for _, f := range problem.Fields(err) {
				l.Add(p.Path(f.Path), f.Message, f.Fix)
			}
			return nil, l.Err()
		}
	}
	for i, p := range parts {
		w.line(p.EndAt(), rigs[i].Other, rigs[i])
		w.line(p.LineAt(), &rigs[i].Line, rigs[i])
	}
	sort.Slice(w.out.Lines, func(i, j int) bool { return w.out.Lines[i].At < w.out.Lines[j].At })
	w.failures(float64(rigs[0].Load))
	w.castOff()
	sort.SliceStable(w.out.Cautions, func(i, j int) bool { return w.out.Cautions[i].Locked && !w.out.Cautions[j].Locked })
	return w.out, nil
}

// whole gathers the answer for a chain.
type whole struct {
	c       *catalogue.Catalogue
	out     *RigAnswer
	samples map[int]sample  // by place in the chain
	needs   map[int]float64 // line in knots and ends, m
	told    map[string]bool // cautions
	wet     bool
	fishing bool // said in pounds
}

// force says a force as the people of this line do.
func (w *whole) force(kn float64) string {
	if w.fishing {
		return (unit.Force(kn) * unit.Kilonewton).Pounds()
	}
	return kilonewtons(kn)
}

func (w *whole) caution(list []rig.Caution) {
	for _, q := range list {
		if !w.told[q.ID] {
			w.told[q.ID] = true
			w.out.Cautions = append(w.out.Cautions, q)
		}
	}
}

func (w *whole) joint(r *rig.Rig, p rig.Part) error {
	a, err := For(w.c, r)
	if err != nil {
		return err
	}
	w.wet, w.out.NeededKN, w.fishing = r.Wet, a.NeededKN, r.Line.Material.Fishing
	j := JointAnswer{At: p.Joint, Where: where(r), Answer: a, Against: []Reason{}}
	id := a.Rig.Chain[1].Joint.Knot
	if id == "" && len(a.Ranked) > 0 {
		id = a.Ranked[0].Knot
	}
	if id != "" {
		k := w.c.Knot(id)
		if k == nil {
			return problem.New("chain[1].joint.knot", fmt.Sprintf("%q is not in the catalogue", id), "use the id of a knot, or leave it open")
		}
		judged := judged(w.c, a, k)
		choice := judged.choice(w.c.Weights[r.Weights])
		j.Knot, j.Chosen = k.ID, &choice
		if other := judged.otherWork(); other != nil {
			j.Against = other
		} else if against := judged.gates(); against != nil {
			j.Against = against
		}
		// The weaker line of a bend gives way, the one that ties anywhere else.
		weaker := p.LineAt()
		if a.Other != nil && r.Task.Between == rig.TwoLines {
			if a.Other.CapacityKN.Likely < a.Line.CapacityKN.Likely {
				weaker = p.EndAt()
			}
			w.needs[p.EndAt()] += choice.NeedsM * float64(r.Other.Diameter/r.Line.Diameter)
		}
		w.needs[p.LineAt()] += choice.NeedsM
		j.weaker = a.Line.Name
		if weaker == p.EndAt() {
			j.weaker = a.Other.Name
		}
		w.samples[p.Joint] = judged.draw(drawn(a.line.Interval, fmt.Sprint("line ", weaker)), fmt.Sprint(" ", p.Joint))
		w.caution(choice.Cautions)
	}
	w.caution(a.Cautions)
	w.out.Joints = append(w.out.Joints, j)
	return nil
}

// line adds a line of the chain, once, with what to cut.
func (w *whole) line(at int, ln *line.Line, r *rig.Rig) {
	if ln == nil {
		return
	}
	if _, there := w.samples[at]; there {
		return
	}
	b, err := Bears(*ln, w.wet)
	if err != nil {
		return // For has complained of it
	}
	newtons := b.CapacityKN.Scale(1e3)
	w.samples[at] = sample{bears: drawn(newtons, fmt.Sprint("line ", at))}
	w.out.Lines = append(w.out.Lines, LineInRig{At: at, LineAnswer: b, Utilisation: w.out.NeededKN / b.CapacityKN.Likely})
	c := Cut{At: at, Line: b.Name, LengthM: ln.Length.M(), KnotsM: w.needs[at]}
	c.TotalM = c.LengthM + c.KnotsM
	knots := unit.Length(c.KnotsM).String()
	if c.LengthM > 0 {
		c.Says = fmt.Sprintf("%s: cut %s, of which knots and ends take %s.", b.Name, unit.Length(c.TotalM), knots)
	} else {
		c.Says = fmt.Sprintf("%s: add %s for knots and ends to the length between them.", b.Name, knots)
	}
	w.out.Cut = append(w.out.Cut, c)
}

// failures plays every draw through the chain: the part that bears least, or
// slips, gives way first.
func (w *whole) failures(load float64) {
	var places []int
	for at := range w.samples {
		places = append(places, at)
	}
	sort.Ints(places)
	for _, j := range w.out.Joints {
		if j.Chosen == nil {
			return // nothing holds this joint: there is no chain to speak of
		}
	}
	first := map[int]float64{}
	rig := sample{bears: make([]float64, Draws)}
	c := Chance{ByClass: true}
	for k := range Draws {
		least, at := math.Inf(1), 0
		slipped := false
		for _, place := range places {
			s := w.samples[place]
			b := s.bears[k]
			if s.slips != nil && s.slips[k] {
				b = 0
			}
			// A joint takes from the line it is tied in: of two alike the joint gives way.
			if b < least || b == least && place%2 == 1 {
				least, at = b, place
				slipped = s.slips != nil && s.slips[k] || s.asSlips
			}
		}
		rig.bears[k] = least
		first[at]++
		switch {
		case least >= load:
			c.Holds++
		case slipped:
			c.Slips++
		default:
			c.Breaks++
		}
	}
	for _, place := range places {
		if w.samples[place].slips != nil {
			c.ByClass = false
		}
		first[place] /= Draws
	}
	c.Holds, c.Slips, c.Breaks = c.Holds/Draws, c.Slips/Draws, c.Breaks/Draws
	c.P5KN, c.P50KN, c.P95KN = quantiles(rig.bears)
	w.out.Chance = &c
	for i := range w.out.Joints {
		w.out.Joints[i].Fails = first[w.out.Joints[i].At]
	}
	for i := range w.out.Lines {
		w.out.Lines[i].Fails = first[w.out.Lines[i].At]
	}
	w.weakest()
}

// weakest names the part with the least likely capacity; a hitch that more likely
// slips than locks comes before any of them.
func (w *whole) weakest() {
	var weak *Weakest
	var doubtful *Weakest
	for _, j := range w.out.Joints {
		x := &Weakest{At: j.At, Name: j.Chosen.Name, Where: j.Where, CapacityKN: j.Chosen.Strength.CapacityKN, Fails: j.Chosen.Strength.Fails}
		x.Says = fmt.Sprintf("The %s %s gives way first: the %s %s there at about %s.", strings.ToLower(x.Name), x.Where, j.weaker, x.Fails, w.force(x.CapacityKN.Likely))
		now := j.Chosen.Dry
		if w.wet {
			now = j.Chosen.Wet
		}
		if now.Chance != nil && *now.Chance < 0.5 && doubtful == nil {
			x.Fails = "slips"
			x.Says = fmt.Sprintf("The %s %s may not lock by itself: %s.", strings.ToLower(x.Name), x.Where, now.Why)
			doubtful = x
		}
		if weak == nil || x.CapacityKN.Likely < weak.CapacityKN.Likely {
			weak = x
		}
	}
	for _, l := range w.out.Lines {
		if weak == nil || l.CapacityKN.Likely < weak.CapacityKN.Likely {
			weak = &Weakest{At: l.At, Name: l.Name, Where: "between its knots", CapacityKN: l.CapacityKN, Fails: "breaks",
				Says: fmt.Sprintf("The %s gives way first: it breaks between its knots at about %s.", l.Name, w.force(l.CapacityKN.Likely))}
		}
	}
	capacity := weak.CapacityKN
	w.out.CapacityKN = &capacity
	w.out.Margin = capacity.Likely / w.out.NeededKN
	if doubtful != nil {
		weak = doubtful
	}
	w.out.Weakest = weak
}

func kilonewtons(kn float64) string { return (unit.Force(kn) * unit.Kilonewton).String() }

// castOff orders the joints by how they come off: first what can be let go under
// load, last what has to be cut.
func (w *whole) castOff() {
	type step struct {
		rank int
		says string
	}
	var steps []step
	for _, j := range w.out.Joints {
		if j.Chosen == nil {
			continue
		}
		k := w.c.Knot(j.Knot)
		rank := map[knot.Off]int{knot.Easy: 1, knot.Worked: 2, knot.Jams: 3, knot.Cut: 4}[k.Release.Slack]
		if k.Release.UnderLoad || k.Release.Distance {
			rank = 0
		}
		steps = append(steps, step{rank, fmt.Sprintf("%s %s: %s", k.Name, j.Where, k.Release.How)})
	}
	sort.SliceStable(steps, func(i, j int) bool { return steps[i].rank < steps[j].rank })
	if len(steps) > 0 && steps[0].rank > 0 {
		w.out.CastOff = append(w.out.CastOff, "Take the load off first: nothing here can be let go while it pulls.")
	}
	for _, s := range steps {
		w.out.CastOff = append(w.out.CastOff, s.says)
	}
}

// where names a joint.
func where(r *rig.Rig) string {
	switch {
	case r.Fitting != nil:
		return "at the " + r.Fitting.Kind.Name
	case r.Task.Between == rig.OnLine:
		return "on the loaded line"
	}
	one, two := r.Other, r.Line
	switch {
	case one.Material.ID != two.Material.ID:
		return fmt.Sprintf("between the %s and the %s", one.Material.Name, two.Material.Name)
	case one.Diameter != two.Diameter:
		return fmt.Sprintf("between %s and %s", one.Diameter, two.Diameter)
	}
	return "between the two lines"
}
