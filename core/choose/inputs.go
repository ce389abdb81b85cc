package choose

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"oarweed/catalogue"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Input is a number of a rig with one joint that can be turned to see how the
// answer follows.
type Input struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Unit of Min, Max and of every value: mm, kN, m, s or none.
	Unit string  `json:"unit"`
	Min  float64 `json:"min"`
	Max  float64 `json:"max"`
	// get gives the value in a document; absent says that it has no such part.
	get func(rig.Document) (v float64, absent bool)
	set func(*rig.Document, float64)
	say func(v float64) string
}

func lineInput(id, name string, at int, unitOf string, lo, hi float64, field func(*rig.Line) *float64, say func(float64) string) *Input {
	return &Input{ID: id, Name: name, Unit: unitOf, Min: lo, Max: hi, say: say,
		get: func(d rig.Document) (float64, bool) {
			if d.Chain[at].Line == nil {
				return 0, true
			}
			return *field(d.Chain[at].Line), false
		},
		set: func(d *rig.Document, v float64) {
			l := *d.Chain[at].Line
			*field(&l) = v
			d.Chain[at].Line = &l
		}}
}

func jointInput(id, name, unitOf string, lo, hi float64, get func(*rig.Joint) float64, set func(*rig.Joint, float64), say func(float64) string) *Input {
	return &Input{ID: id, Name: name, Unit: unitOf, Min: lo, Max: hi, say: say,
		get: func(d rig.Document) (float64, bool) { return get(d.Chain[1].Joint), false },
		set: func(d *rig.Document, v float64) {
			j := *d.Chain[1].Joint
			set(&j, v)
			d.Chain[1].Joint = &j
		}}
}

func millimetres(v float64) string { return (unit.Length(v) * unit.Millimetre).String() }
func metres(v float64) string      { return unit.Length(v).String() }
func plain(v float64) string       { return fmt.Sprintf("%.2g", v) }

// inputs in the order in which they are offered.
var inputs = []*Input{
	lineInput("line.diameter", "line diameter", 2, "mm", 0.2, 60, func(l *rig.Line) *float64 { return &l.DiameterMM }, millimetres),
	lineInput("line.label", "strength on the label", 2, "kN", 0.01, 1, func(l *rig.Line) *float64 { return &l.LabelKN }, func(v float64) string { return (unit.Force(v) * unit.Kilonewton).Pounds() }),
	lineInput("line.mu", "friction of the line", 2, "", 0.03, 0.6, func(l *rig.Line) *float64 { return &l.Mu }, plain),
	lineInput("other.diameter", "diameter of the other line", 0, "mm", 0.2, 120, func(l *rig.Line) *float64 { return &l.DiameterMM }, millimetres),
	{ID: "fitting.size", Name: "size of the fitting", Unit: "mm", Min: 1, Max: 600, say: millimetres,
		get: func(d rig.Document) (float64, bool) {
			if d.Chain[0].Fitting == nil {
				return 0, true
			}
			return d.Chain[0].Fitting.SizeMM, false
		},
		set: func(d *rig.Document, v float64) {
			f := *d.Chain[0].Fitting
			f.SizeMM = v
			d.Chain[0].Fitting = &f
		}},
	{ID: "load", Name: "load", Unit: "kN", Min: 0.001, Max: 100, say: kilonewtons,
		get: func(d rig.Document) (float64, bool) { return d.PeakKN, false },
		set: func(d *rig.Document, v float64) { d.PeakKN = v }},
	jointInput("tail", "line to tie with", "m", 0.05, 60, func(j *rig.Joint) float64 { return j.TailM }, func(j *rig.Joint, v float64) { j.TailM = v }, metres),
	jointInput("wraps", "wraps", "", 1, 12, func(j *rig.Joint) float64 { return float64(j.Wraps) }, func(j *rig.Joint, v float64) { j.Wraps = int(math.Round(v)) }, func(v float64) string { return fmt.Sprintf("%.0f", v) }),
	jointInput("time", "time to tie", "s", 3, 900, func(j *rig.Joint) float64 { return j.Seconds }, func(j *rig.Joint, v float64) { j.Seconds = v }, clock),
	jointInput("distance", "distance to cast off from", "m", 0.5, 50, func(j *rig.Joint) float64 { return j.DistanceM }, func(j *rig.Joint, v float64) { j.DistanceM = v }, metres),
}

// Inputs lists the numbers that this rig has: its own values in the document, an
// input left out of it at 0.
func Inputs(d rig.Document) []*Input {
	var out []*Input
	for _, in := range inputs {
		if _, absent := in.get(d); !absent {
			out = append(out, in)
		}
	}
	return out
}

// InputFor finds an input of a rig by id. The error lists those there are.
func InputFor(d rig.Document, field, id string) (*Input, error) {
	var ids []string
	for _, in := range Inputs(d) {
		if in.ID == id {
			return in, nil
		}
		ids = append(ids, in.ID)
	}
	return nil, problem.New(field, fmt.Sprintf("%q is not a number of this rig", id), "use one of "+strings.Join(ids, ", "))
}

// With is the document with an input set; the document itself is left alone.
func (in *Input) With(d rig.Document, v float64) rig.Document {
	d.Chain = slices.Clone(d.Chain)
	in.set(&d, v)
	return d
}

// first is the knot that comes first for a document with one joint, "" if none does
// or if the document cannot be resolved.
func first(c *catalogue.Catalogue, d rig.Document) string {
	r, err := c.Resolve(d)
	if err != nil {
		return ""
	}
	a, err := For(c, r)
	if err != nil || len(a.Ranked) == 0 {
		return ""
	}
	return a.Ranked[0].Knot
}

// Change says at which value of an input another knot comes first.
type Change struct {
	Input string `json:"input"`
	// From is the value now, To where the first choice changes; 0 and 0 for a
	// condition that is not a number.
	From float64 `json:"from"`
	To   float64 `json:"to"`
	Unit string  `json:"unit"`
	// Knot comes first beyond; empty if none will do.
	Knot string `json:"knot"`
	Name string `json:"name"`
	Says string `json:"says"`
}

// Changes finds, for every number and condition of a rig with one joint, the
// nearest value at which its first choice changes. Numbers are searched on a
// logarithmic scale, eightfold up and down within their limits, in steps of a
// twelfth of that, and the edge is then bisected to half a per cent: a change that
// reverts within one step may be missed.
func Changes(c *catalogue.Catalogue, d rig.Document) ([]Change, error) {
	r, err := c.Resolve(d)
	if err != nil {
		return nil, err
	}
	a, err := For(c, r)
	if err != nil {
		return nil, err
	}
	d = a.Rig
	now := ""
	if len(a.Ranked) > 0 {
		now = a.Ranked[0].Knot
	}
	out := []Change{}
	for _, in := range Inputs(d) {
		v, _ := in.get(d)
		if v <= 0 {
			continue // left out: enough, or the material's own
		}
		if in.ID == "line.diameter" && d.Chain[2].Line.LabelKN > 0 && r.Line.Material.Fishing {
			continue // sold by its label, which is turned instead
		}
		for _, up := range []bool{false, true} {
			if to, knot, ok := edge(c, d, in, v, up, now); ok {
				word := "Below"
				if up {
					word = "Above"
				}
				out = append(out, Change{Input: in.ID, From: v, To: to, Unit: in.Unit, Knot: knot, Name: nameOf(c, knot),
					Says: fmt.Sprintf("%s %s %s, %s.", word, in.say(to), ofWhat(in), takesOver(c, knot))})
			}
		}
	}
	for _, alt := range alternatives(c, d) {
		if knot := first(c, alt.doc); knot != now {
			out = append(out, Change{Input: alt.input, Knot: knot, Name: nameOf(c, knot), Says: alt.words + " " + takesOver(c, knot) + "."})
		}
	}
	return out, nil
}

func ofWhat(in *Input) string {
	switch in.ID {
	case "load":
		return "of load"
	case "line.diameter":
		return "line"
	}
	return "of " + strings.TrimSuffix(strings.TrimPrefix(in.Name, "size of "), " of load")
}

func nameOf(c *catalogue.Catalogue, id string) string {
	if k := c.Knot(id); k != nil {
		return k.Name
	}
	return ""
}

func takesOver(c *catalogue.Catalogue, id string) string {
	if id == "" {
		return "nothing in the catalogue will do"
	}
	return "the " + strings.ToLower(nameOf(c, id)) + " takes over"
}

// edge walks from v until another knot comes first, and closes in on the place.
func edge(c *catalogue.Catalogue, d rig.Document, in *Input, v float64, up bool, now string) (to float64, knot string, ok bool) {
	const steps = 12
	ratio := math.Pow(8, 1.0/steps)
	if !up {
		ratio = 1 / ratio
	}
	inside, x := v, v
	for range steps {
		x *= ratio
		if x < in.Min || x > in.Max {
			return 0, "", false
		}
		if knot = first(c, in.With(d, x)); knot != now {
			break
		}
		inside = x
	}
	if knot == now {
		return 0, "", false
	}
	outside := x
	for math.Abs(outside/inside-1) > 0.005 {
		mid := math.Sqrt(inside * outside)
		if k := first(c, in.With(d, mid)); k == now {
			inside = mid
		} else {
			outside, knot = mid, k
		}
	}
	return outside, knot, true
}

type alternative struct {
	input, words string
	doc          rig.Document
}

// alternatives turns every condition that is not a number.
func alternatives(c *catalogue.Catalogue, d rig.Document) []alternative {
	var out []alternative
	with := func(input, words string, change func(*rig.Document)) {
		alt := d
		alt.Chain = slices.Clone(d.Chain)
		j := *d.Chain[1].Joint
		alt.Chain[1].Joint = &j
		change(&alt)
		out = append(out, alternative{input, words, alt})
	}
	if d.Dry {
		with("wet", "Wet,", func(x *rig.Document) { x.Dry = false })
	} else {
		with("wet", "Dry,", func(x *rig.Document) { x.Dry = true })
	}
	for _, k := range []struct {
		is    rig.Character
		words string
	}{{rig.Steady, "If the load stays steady,"}, {rig.Alternating, "If the load comes and goes,"}, {rig.Flogging, "If it goes slack and shakes,"}, {rig.Snatch, "If the load comes in jerks,"}} {
		if k.is != d.Character {
			with("character", k.words, func(x *rig.Document) { x.Character = k.is })
		}
	}
	for _, k := range []struct {
		is    rig.Release
		words string
	}{{rig.Slack, "If it may come off by hand once slack,"}, {rig.UnderLoad, "If it must come off under load,"}, {rig.Distance, "If it must come off from a distance,"}, {rig.AnyWay, "If it may be cut off,"}} {
		if k.is != d.Chain[1].Joint.Release {
			with("release", k.words, func(x *rig.Document) { x.Chain[1].Joint.Release = k.is })
		}
	}
	if d.Consequence != rig.Person {
		with("consequence", "If a person is at risk,", func(x *rig.Document) { x.Consequence = rig.Person })
	}
	if l := d.Chain[2].Line; l != nil {
		fishing := c.Material(l.Material).Fishing
		for _, m := range c.Materials {
			if m.ID == l.Material || m.Fishing != fishing {
				continue
			}
			with("line.material", "In "+m.Name+",", func(x *rig.Document) {
				other := *l
				other.Material, other.Construction = m.ID, m.Constructions[0]
				if m.Makes(l.Construction) {
					other.Construction = l.Construction
				}
				x.Chain[2].Line = &other
			})
		}
	}
	return out
}
