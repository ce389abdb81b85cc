// Package rig holds what is tied to what: a chain of fittings, joints and lines
// with its load and conditions. A [Document] is the open JSON form, read and
// written by the API, the command line and the store alike; [Terms.Resolve]
// checks it, fills in the stated defaults and gives the [Rig] the core works on.
package rig

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"slices"
	"strconv"
	"strings"

	"oarweed/core/evidence"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/unit"
)

// Version of the document format.
const Version = 1

// Character of the load.
type Character string

const (
	Steady      Character = "steady"
	Alternating Character = "alternating" // comes and goes
	Flogging    Character = "flogging"    // goes slack and shakes
	Snatch      Character = "snatch"      // sudden jerks
)

// Release is how a joint must come off.
type Release string

const (
	UnderLoad Release = "under-load" // while the line still pulls
	Slack     Release = "slack"      // by hand, once it is slack
	Distance  Release = "distance"   // from afar
	AnyWay    Release = "cut"        // any way, a knife included
)

// Consequence of failure.
type Consequence string

const (
	Gear   Consequence = "gear"
	Boat   Consequence = "boat"
	Person Consequence = "person"
)

var (
	characters   = []Character{Steady, Alternating, Flogging, Snatch}
	releases     = []Release{UnderLoad, Slack, Distance, AnyWay}
	consequences = []Consequence{Gear, Boat, Person}
)

// Document is a rig as written down. Zero values mean "left out".
type Document struct {
	Version int    `json:"version,omitempty" doc:"format version, 1" minimum:"0"`
	Name    string `json:"name,omitempty" maxLength:"120"`
	// Chain alternates ends (fittings or lines) and joints.
	Chain       []Element   `json:"chain" nullable:"false" doc:"fitting or line, joint, line"`
	PeakKN      float64     `json:"peak_kn" doc:"highest load expected, kN"`
	Character   Character   `json:"character,omitempty" doc:"steady, alternating, flogging or snatch"`
	Dry         bool        `json:"dry,omitempty" doc:"true if the line stays dry; wet is assumed"`
	Consequence Consequence `json:"consequence,omitempty" doc:"gear, boat or person: what is at risk if it fails"`
	// Weights names the preset by which knots are scored; left out: that of the task.
	Weights string `json:"weights,omitempty" doc:"preset of weights"`
	// DesignFactor raises the factor that follows from load and consequence.
	DesignFactor float64 `json:"design_factor,omitempty"`
}

// Element is one link of the chain; exactly one field is set.
type Element struct {
	Fitting *Fitting `json:"fitting,omitempty"`
	Joint   *Joint   `json:"joint,omitempty"`
	Line    *Line    `json:"line,omitempty"`
}

// Fitting as written down.
type Fitting struct {
	Kind    string  `json:"kind"`
	SizeMM  float64 `json:"size_mm,omitempty"`
	Surface string  `json:"surface,omitempty"`
}

// Joint as written down.
type Joint struct {
	Task string `json:"task"`
	// Knot chosen; empty while open.
	Knot    string  `json:"knot,omitempty"`
	Release Release `json:"release,omitempty" doc:"under-load, slack, distance or cut"`
	// TailM is the line there is to tie with, in metres; left out: enough.
	TailM float64 `json:"tail_m,omitempty"`
	Wraps int     `json:"wraps,omitempty"`
	// Seconds there are to tie it; left out: enough.
	Seconds float64 `json:"seconds,omitempty" doc:"time there is to tie it, s"`
	// DistanceM is how far off the fitting is when it is cast off from a distance.
	DistanceM float64 `json:"distance_m,omitempty" doc:"distance to cast off from, m"`
}

// Line as written down.
type Line struct {
	Material     string            `json:"material"`
	Construction line.Construction `json:"construction,omitempty"`
	DiameterMM   float64           `json:"diameter_mm,omitempty"`
	LabelKN      float64           `json:"label_kn,omitempty" doc:"strength on the label, kN"`
	Wear         int               `json:"wear,omitempty" doc:"0 as new, 1 furry, 2 worn, 3 retire"`
	// Mu measured on smooth metal; left out: that of the material.
	Mu float64 `json:"mu,omitempty" doc:"your own friction coefficient"`
	// LengthM between its joints, for the cut list.
	LengthM float64 `json:"length_m,omitempty" doc:"length between its joints, m"`
}

// Default is a value taken because the user left it out.
type Default struct {
	Field string `json:"field"`
	Value string `json:"value"`
	Why   string `json:"why"`
}

// Rig is a checked rig with one joint.
type Rig struct {
	Document Document
	Defaults []Default

	Task    *Task
	Release Release
	Tail    unit.Length // 0: enough
	Wraps   int         // 0: as many as the knot asks for
	Seconds float64     // 0: enough
	// Distance to cast off from; 0 unless Release is Distance.
	Distance unit.Length
	// Fitting is set for joints to a fitting, Other for joints of two lines.
	Fitting *FittingUse
	Other   *line.Line
	Line    line.Line

	// Weights is the preset by which knots are scored.
	Weights string

	Load         unit.Force
	Character    Character
	Wet          bool
	Consequence  Consequence
	DesignFactor float64
	FactorWhy    string
	FactorTag    evidence.Tag
}

// Parse reads a document; the error names the field, or the place in the text.
func Parse(r io.Reader) (Document, error) {
	var d Document
	text, err := io.ReadAll(io.LimitReader(r, 1<<20))
	if err != nil {
		return d, err
	}
	dec := json.NewDecoder(bytes.NewReader(text))
	dec.DisallowUnknownFields()
	err = dec.Decode(&d)
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case err == nil && dec.More():
		return d, problem.New("", "there is more after the end of the rig", "send one rig at a time")
	case err == nil:
		return d, nil
	case errors.As(err, &syntax):
		before := text[:min(int(syntax.Offset), len(text))]
		return d, problem.New("", fmt.Sprintf("not JSON: %v, in line %d", syntax, 1+bytes.Count(before, []byte("\n"))), "send a rig document as exported by Oarweed")
	case errors.As(err, &kind):
		return d, problem.New(kind.Field, fmt.Sprintf("is a %s where a %s belongs", kind.Value, plainType(kind.Type.String())), "correct the value")
	case errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF):
		return d, problem.New("", "the text ends before the rig does", "send the whole document")
	}
	if name, ok := strings.CutPrefix(err.Error(), "json: unknown field "); ok {
		return d, problem.New(strings.Trim(name, `"`), "is not a field of a rig", "check the spelling, or drop it")
	}
	return d, problem.New("", err.Error(), "send a rig document as exported by Oarweed")
}

func plainType(t string) string {
	switch {
	case strings.Contains(t, "float"), strings.Contains(t, "int"):
		return "number"
	case strings.Contains(t, "string"), strings.Contains(t, "rig."), strings.Contains(t, "line."):
		return "word"
	}
	return t
}

// Resolve checks a document against the vocabulary and fills in the defaults.
// All complaints are gathered, each with its field and a fix.
func (t *Terms) Resolve(d Document) (*Rig, error) {
	var l problem.List
	r := &Rig{Wet: !d.Dry}
	if d.Version > Version {
		l.Add("version", fmt.Sprintf("format %d is newer than this Oarweed knows", d.Version), "update Oarweed")
	}
	d.Version = Version
	def := func(field, value, why string) { r.Defaults = append(r.Defaults, Default{field, value, why}) }

	if len(d.Chain) != 3 || d.Chain[1].Joint == nil || d.Chain[2].Line == nil || (d.Chain[0].Fitting == nil) == (d.Chain[0].Line == nil) {
		l.Add("chain", "is not a fitting or line, a joint, and a line", "give those three, in that order")
		return nil, l.Err()
	}
	d.Chain = slices.Clone(d.Chain)
	joint := *d.Chain[1].Joint
	d.Chain[1].Joint = &joint
	if r.Task = t.Task(joint.Task); r.Task == nil {
		l.Add("chain[1].joint.task", fmt.Sprintf("%q is not a task", joint.Task), "use one of "+IDs(t.Tasks, func(k *Task) string { return k.ID }))
		return nil, l.Err()
	}

	// What it is tied to.
	if r.Task.Between == ToFitting {
		if d.Chain[0].Fitting == nil {
			l.Add("chain[0]", "is a line, but the task ties to a fitting", "give a fitting, or choose another task")
		} else {
			f := *d.Chain[0].Fitting
			d.Chain[0].Fitting = &f
			r.Fitting = t.fitting(&f, r.Task, &l, def)
		}
	} else if d.Chain[0].Line == nil {
		l.Add("chain[0]", "is a fitting, but the task joins two lines", "give the other line, or choose another task")
	} else {
		ln := *d.Chain[0].Line
		d.Chain[0].Line = &ln
		other := t.line(&ln, "chain[0].line.", &l, def)
		r.Other = &other
	}
	ln := *d.Chain[2].Line
	d.Chain[2].Line = &ln
	r.Line = t.line(&ln, "chain[2].line.", &l, def)

	// The joint.
	if joint.Release == "" {
		joint.Release = r.Task.Release
		def("chain[1].joint.release", string(joint.Release), "usual for this task")
	}
	oneOf(&l, "chain[1].joint.release", joint.Release, releases)
	between(&l, "chain[1].joint.tail_m", joint.TailM, 0, 1000, "m")
	if joint.TailM == 0 {
		def("chain[1].joint.tail_m", "enough", "no limit given")
	}
	between(&l, "chain[1].joint.wraps", float64(joint.Wraps), 0, 40, "wraps")
	between(&l, "chain[1].joint.seconds", joint.Seconds, 0, 86400, "s")
	between(&l, "chain[1].joint.distance_m", joint.DistanceM, 0, 500, "m")
	if joint.Release == Distance {
		if joint.DistanceM == 0 {
			joint.DistanceM = 3
			def("chain[1].joint.distance_m", "3 m", "no distance given")
		}
		r.Distance = unit.Length(joint.DistanceM)
	}
	r.Seconds = joint.Seconds
	r.Release, r.Tail, r.Wraps = joint.Release, unit.Length(joint.TailM), joint.Wraps

	// Load and consequence.
	if d.PeakKN == 0 {
		l.Add("peak_kn", "no load given", "give the highest load you expect, e.g. 2.4")
	} else {
		between(&l, "peak_kn", d.PeakKN, 1e-4, 1e4, "kN")
	}
	r.Load = unit.Force(d.PeakKN) * unit.Kilonewton
	if d.Character == "" {
		d.Character = Steady
		def("character", "steady", "no other given")
	}
	oneOf(&l, "character", d.Character, characters)
	if d.Consequence == "" {
		d.Consequence = Gear
		def("consequence", "gear", "no other given")
	}
	oneOf(&l, "consequence", d.Consequence, consequences)
	r.Weights = d.Weights
	if r.Weights == "" {
		r.Weights = r.Task.Weights
	} else if _, ok := t.Weights[d.Weights]; !ok {
		l.Add("weights", fmt.Sprintf("%q is not a preset", d.Weights), "use one of "+strings.Join(slices.Sorted(maps.Keys(t.Weights)), ", "))
	}
	r.Character, r.Consequence = d.Character, d.Consequence
	fishing := r.Line.Material != nil && r.Line.Material.Fishing
	r.DesignFactor, r.FactorWhy, r.FactorTag = DesignFactor(r.Character, r.Consequence, fishing)
	if d.DesignFactor != 0 {
		between(&l, "design_factor", d.DesignFactor, 2, 50, "")
		switch {
		case r.Consequence == Person && d.DesignFactor < r.DesignFactor:
			l.Add("design_factor", fmt.Sprintf("%g is too low where a person is at risk", d.DesignFactor), fmt.Sprintf("give %g or more", r.DesignFactor))
		default:
			r.DesignFactor, r.FactorWhy, r.FactorTag = d.DesignFactor, "chosen by you", evidence.Yours
		}
	}
	r.Document = d
	return r, l.Err()
}

// DesignFactor on breaking strength: 5 for general mooring and hauling, 8 where
// the load is cycled, 10 wherever a person could be hit or held (common
// rope-industry guidance, from memory); 3 for fishing line, whose drag is set at a
// quarter to a third of its class (common practice, no source).
func DesignFactor(c Character, q Consequence, fishing bool) (float64, string, evidence.Tag) {
	switch {
	case q == Person:
		return 10, "10 where a person could be hit or held", evidence.Memory
	case fishing:
		return 3, "3 for fishing line: the drag is set at a quarter to a third of its class", evidence.Trade
	case c != Steady:
		return 8, "8 where the load comes and goes", evidence.Memory
	}
	return 5, "5 for general mooring and hauling", evidence.Memory
}

func (t *Terms) fitting(f *Fitting, task *Task, l *problem.List, def func(a, b, c string)) *FittingUse {
	const path = "chain[0].fitting."
	if f.Kind == "" {
		f.Kind = task.Fitting
		def(path+"kind", f.Kind, "usual for this task")
	}
	k := t.Fitting(f.Kind)
	if k == nil {
		l.Add(path+"kind", fmt.Sprintf("%q is not a fitting", f.Kind), "use one of "+IDs(t.Fittings, func(k *FittingKind) string { return k.ID }))
		return nil
	}
	if f.SizeMM == 0 {
		f.SizeMM = k.DefaultMM
		def(path+"size_mm", unit.Length(f.SizeMM/1000).String(), "usual "+k.SizeIs)
	}
	between(l, path+"size_mm", f.SizeMM, 0.2, 5000, "mm")
	if f.Surface == "" {
		f.Surface = k.Surface
		def(path+"surface", f.Surface, "usual for a "+k.Name)
	}
	if t.Surface(f.Surface) == nil {
		l.Add(path+"surface", fmt.Sprintf("%q is not a surface", f.Surface), "use one of "+IDs(t.Surfaces, func(s *line.Surface) string { return s.ID }))
	}
	return &FittingUse{k, unit.Length(f.SizeMM) * unit.Millimetre, t.surfaceFactor(f.Surface)}
}

func (t *Terms) line(n *Line, path string, l *problem.List, def func(a, b, c string)) line.Line {
	m := t.Material(n.Material)
	if m == nil {
		l.Add(path+"material", fmt.Sprintf("%q is not a material", n.Material), "use one of "+IDs(t.Materials, func(m *line.Material) string { return m.ID }))
		return line.Line{}
	}
	if n.Construction == "" {
		n.Construction = m.Constructions[0]
		def(path+"construction", string(n.Construction), "usual for "+m.Name)
	}
	if !m.Makes(n.Construction) {
		l.Add(path+"construction", fmt.Sprintf("%s is not made as %q", m.Name, n.Construction), fmt.Sprintf("use one of %v", m.Constructions))
	}
	between(l, path+"diameter_mm", n.DiameterMM, 0, 200, "mm")
	between(l, path+"label_kn", n.LabelKN, 0, 1e4, "kN")
	between(l, path+"wear", float64(n.Wear), 0, 3, "")
	between(l, path+"length_m", n.LengthM, 0, 10000, "m")
	if n.Mu != 0 {
		between(l, path+"mu", n.Mu, 0.01, 1, "")
	}
	out := line.Line{OwnMu: n.Mu, Length: unit.Length(n.LengthM), Material: m, Construction: n.Construction, Diameter: unit.Length(n.DiameterMM) * unit.Millimetre,
		Label: unit.Force(n.LabelKN) * unit.Kilonewton, Wear: min(max(n.Wear, 0), 3)}
	if n.DiameterMM == 0 && n.LabelKN == 0 {
		l.Add(path+"diameter_mm", "neither diameter nor label strength is given", "give one of them")
		return out
	}
	if full, did := out.Complete(); did {
		out = full
		def(path+"diameter_mm", full.Diameter.String(), "worked out from the label strength")
	}
	return out
}

func between(l *problem.List, path string, v, lo, hi float64, u string) {
	if v >= lo && v <= hi {
		return
	}
	if u != "" {
		u = " " + u
	}
	what := "is too large"
	if v < lo {
		what = "is too small"
		if v < 0 {
			what = "is below zero"
		}
	}
	l.Add(path, number(v)+u+" "+what, "give "+number(lo)+" to "+number(hi)+u)
}

// number writes v without an exponent.
func number(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

func oneOf[T ~string](l *problem.List, path string, v T, list []T) {
	if !slices.Contains(list, v) {
		l.Add(path, fmt.Sprintf("%q is not known", v), fmt.Sprintf("use one of %v", list))
	}
}

// IDs joins the ids of a list, for a message.
func IDs[T any](list []*T, id func(*T) string) string {
	out := make([]string, len(list))
	for i, x := range list {
		out[i] = id(x)
	}
	return strings.Join(out, ", ")
}

// CheckLine checks a line on its own, fills in its construction, and names the
// field of what is wrong.
func (t *Terms) CheckLine(n *Line) error {
	var l problem.List
	t.line(n, "", &l, func(_, _, _ string) {})
	return l.Err()
}
