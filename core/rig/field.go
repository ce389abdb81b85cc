package rig

import (
	"fmt"
	"slices"
	"strconv"

	"oarweed/core/line"
	"oarweed/core/problem"
)

// Part of a rig that a field belongs to.
type Part string

const (
	WholeRig    Part = "rig"
	FittingPart Part = "fitting"
	JointPart   Part = "joint"
	LinePart    Part = "line"
)

// Value is one of the words a field can hold.
type Value struct {
	ID string `json:"id"`
	// Name completes the sentence of a rig: "a load that … comes and goes".
	Name string `json:"name"`
	// Note says what follows from it.
	Note string `json:"note,omitempty"`
	// If puts it as a condition: "If the load comes and goes,".
	If string `json:"-"`
}

// Field is one row of the table of everything a rig says in numbers or words:
// what the field is called in JSON and in words, its unit, its limits, its closed
// list of values, what is taken when it is left out. The checks, the errors, the
// storage, the API's schema, the inputs of maps and the sentence on screen read
// this table; nothing else knows a limit or a word of a rig.
type Field struct {
	Part Part `json:"part"`
	// JSON is the name in the document; its suffix says the unit.
	JSON string `json:"json"`
	// Name is what a person calls it.
	Name string `json:"name"`
	Doc  string `json:"doc"`
	// Hint says how to type it.
	Hint string `json:"hint,omitempty"`
	Unit string `json:"unit,omitempty"`
	// Min and Max limit a number that is given; 0 means left out unless Min is 0.
	Min float64 `json:"min,omitempty"`
	Max float64 `json:"max,omitempty"`
	// Whole numbers only.
	Whole bool `json:"whole,omitempty"`
	// Values is the closed list of words, or of the names of whole numbers from 0.
	Values []Value `json:"values,omitempty" nullable:"false"`
	// Default is taken when the field is left out, Why says why; empty where it
	// depends on the task or the fitting, or where nothing is taken.
	Default string `json:"default,omitempty"`
	Why     string `json:"-"`
	// Turned is the range in which the field can be turned to see how the answer
	// follows; nil where it cannot.
	Turned *Turned `json:"-"`

	number func(any) *float64
	whole  func(any) *int
}

// Turned is the range over which a number is turned, with the id and the name it
// goes by there.
type Turned struct {
	ID, Name string
	Min, Max float64
}

func rigNumber(f func(*Document) *float64) func(any) *float64 {
	return func(x any) *float64 { return f(x.(*Document)) }
}

func lineNumber(f func(*Line) *float64) func(any) *float64 {
	return func(x any) *float64 { return f(x.(*Line)) }
}

func jointNumber(f func(*Joint) *float64) func(any) *float64 {
	return func(x any) *float64 { return f(x.(*Joint)) }
}

// Fields is the table.
var Fields = []Field{
	{Part: WholeRig, JSON: "peak_kn", Name: "highest load", Unit: "kN", Min: 1e-4, Max: 1e4, Doc: "highest load expected, kN", Hint: "As in 2.4 kN, 250 kgf or 540 lbf.",
		Turned: &Turned{"load", "load", 0.001, 100}, number: rigNumber(func(d *Document) *float64 { return &d.PeakKN })},
	{Part: WholeRig, JSON: "character", Name: "how the load acts", Doc: "how the load acts", Default: string(Steady), Why: "no other given", Values: []Value{
		{ID: string(Steady), Name: "stays steady", If: "If the load stays steady,"},
		{ID: string(Alternating), Name: "comes and goes", If: "If the load comes and goes,"},
		{ID: string(Flogging), Name: "goes slack and shakes", If: "If it goes slack and shakes,"},
		{ID: string(Snatch), Name: "comes in jerks", If: "If the load comes in jerks,"},
	}},
	{Part: WholeRig, JSON: "consequence", Name: "what is at risk", Doc: "what is at risk if it fails", Default: string(Gear), Why: "no other given", Values: []Value{
		{ID: string(Gear), Name: "gear", If: "If only gear is at risk,"},
		{ID: string(Boat), Name: "the boat", If: "If the boat is at risk,"},
		{ID: string(Person), Name: "a person", If: "If a person is at risk,"},
	}},
	{Part: WholeRig, JSON: "water", Name: "water", Doc: "the water it is fished in; wraps and loops follow", Default: string(Salt), Why: "no other given", Values: []Value{
		{ID: string(Salt), Name: "salt water", Note: "heavier line: five wraps seat better than seven", If: "If it is fished in salt water,"},
		{ID: string(Flats), Name: "shallow salt water", Note: "fish in sight: a fly that swings free in a loop", If: "If it is fished on the flats,"},
		{ID: string(Fresh), Name: "fresh water", Note: "lighter line: six or seven wraps", If: "If it is fished in fresh water,"},
	}},
	{Part: WholeRig, JSON: "ground", Name: "what it lies against", Doc: "what the line lies against", Default: string(Clear), Why: "no other given", Values: []Value{
		{ID: string(Clear), Name: "nothing that cuts", If: "If nothing cuts it,"},
		{ID: string(Sharp), Name: "sharp rock", Note: "or coral, shell, broken concrete", If: "If it lies against sharp rock,"},
	}},
	{Part: WholeRig, JSON: "dry", Name: "dry", Doc: "true if the line stays dry; wet is assumed"},
	{Part: WholeRig, JSON: "weights", Name: "weights", Doc: "preset of weights by which knots are scored; left out: that of the task"},
	{Part: WholeRig, JSON: "design_factor", Name: "safety", Min: 2, Max: 50, Doc: "raises the design factor that follows from load and consequence",
		number: rigNumber(func(d *Document) *float64 { return &d.DesignFactor })},

	{Part: FittingPart, JSON: "kind", Name: "what it is tied to", Doc: "id of a fitting"},
	{Part: FittingPart, JSON: "size_mm", Name: "size", Unit: "mm", Min: 0.2, Max: 5000, Doc: "size of the fitting, mm; what it measures depends on the kind", Hint: "As in 40 mm or 1 1/2 in.",
		Turned: &Turned{"fitting.size", "size of the fitting", 1, 600}, number: func(x any) *float64 { return &x.(*Fitting).SizeMM }},
	{Part: FittingPart, JSON: "surface", Name: "surface", Doc: "id of a surface"},

	{Part: JointPart, JSON: "task", Name: "what it must do", Doc: "id of a task"},
	{Part: JointPart, JSON: "knot", Name: "knot", Doc: "id of the knot chosen; empty while open"},
	{Part: JointPart, JSON: "release", Name: "how it must come off", Doc: "how it must come off; left out: as is usual for the task", Values: []Value{
		{ID: string(Slack), Name: "by hand, once slack", If: "If it may come off by hand once slack,"},
		{ID: string(UnderLoad), Name: "under load, by hand", If: "If it must come off under load,"},
		{ID: string(Distance), Name: "from a distance", If: "If it must come off from a distance,"},
		{ID: string(AnyWay), Name: "any way: cut off is fine", If: "If it may be cut off,"},
		{ID: string(Stays), Name: "not at all while it bears", If: "If it must not come off while it bears,"},
	}},
	{Part: JointPart, JSON: "tail_m", Name: "line to tie with", Unit: "m", Max: 1000, Doc: "line there is to tie with, m; left out: enough", Hint: "How much line there is for the knot and its end. 0 means enough.",
		Turned: &Turned{"tail", "line to tie with", 0.05, 60}, number: jointNumber(func(j *Joint) *float64 { return &j.TailM })},
	{Part: JointPart, JSON: "wraps", Name: "wraps", Unit: "wraps", Max: 40, Whole: true, Doc: "wraps of a fishing knot; left out: as many as the line asks for",
		Turned: &Turned{"wraps", "wraps", 1, 12}, whole: func(x any) *int { return &x.(*Joint).Wraps }},
	{Part: JointPart, JSON: "seconds", Name: "time to tie it", Unit: "s", Max: 86400, Doc: "time there is to tie it, s; left out: enough",
		Turned: &Turned{"time", "time to tie", 3, 900}, number: jointNumber(func(j *Joint) *float64 { return &j.Seconds })},
	{Part: JointPart, JSON: "distance_m", Name: "distance to cast off from", Unit: "m", Max: 500, Doc: "distance to cast off from, m; counts where it comes off from a distance", Default: "3", Why: "no distance given",
		Hint:   "From the hand to the thing it is tied to. The line needed is twice that and the knot.",
		Turned: &Turned{"distance", "distance to cast off from", 0.5, 50}, number: jointNumber(func(j *Joint) *float64 { return &j.DistanceM })},
	{Part: JointPart, JSON: "pull", Name: "which way it pulls", Doc: "which way the line pulls on a post, a rail or a spar; left out: as is usual for the task", Values: []Value{
		{ID: string(Across), Name: "across it", If: "If it pulls across,"},
		{ID: string(Along), Name: "along it", Note: "lengthwise: what only goes round slides", If: "If it pulls along it,"},
	}},
	{Part: JointPart, JSON: "stay", Name: "how long it stays", Doc: "how long it is left as it is tied; left out: as is usual for the task", Values: []Value{
		{ID: string(Hour), Name: "for an hour", Note: "somebody is near; what is undone fast counts more", If: "If it stays for an hour,"},
		{ID: string(Night), Name: "overnight", If: "If it stays overnight,"},
		{ID: string(Months), Name: "for months", Note: "nothing that works loose by itself", If: "If it stays for months,"},
	}},
	{Part: JointPart, JSON: "eye_mm", Name: "size of the eye", Unit: "mm", Min: 1, Max: 10000, Doc: "clear length of the eye or loop, mm; left out: as small as the thing allows", Hint: "From the knot to the far end of the eye, inside. 0 means: as small as the thing allows.",
		number: jointNumber(func(j *Joint) *float64 { return &j.EyeMM })},
	{Part: JointPart, JSON: "guide_mm", Name: "smallest guide it runs through", Unit: "mm", Min: 0.5, Max: 500, Doc: "clear width of the smallest guide or block that a join has to run through, mm; left out: it runs through none", Hint: "The ring at the tip of the rod, or the block, inside. 0 means: it runs through none.",
		Turned: &Turned{"guide", "smallest guide", 0.5, 100}, number: jointNumber(func(j *Joint) *float64 { return &j.GuideMM })},
	{Part: JointPart, JSON: "finish", Name: "finishing wraps", Doc: "whether the finishing wraps of a join in braid are made", Default: string(Finished), Why: "usual for a join in braid", Values: []Value{
		{ID: string(Finished), Name: "with its finishing wraps"}, {ID: string(Bare), Name: "without its finishing wraps"},
	}},

	{Part: LinePart, JSON: "material", Name: "material", Doc: "id of a material"},
	{Part: LinePart, JSON: "construction", Name: "make", Doc: "how the line is made up; left out: as is usual for the material", Values: []Value{
		{ID: string(line.Laid), Name: "three-strand"}, {ID: string(line.Braid), Name: "braid"}, {ID: string(line.Twelve), Name: "12-strand"}, {ID: string(line.Solid), Name: ""},
	}},
	{Part: LinePart, JSON: "diameter_mm", Name: "diameter", Unit: "mm", Min: 0.05, Max: 200, Doc: "diameter, mm; may be left out where the label gives a strength", Hint: "As in 12 mm or 1/2 in.",
		Turned: &Turned{"line.diameter", "line diameter", 0.2, 60}, number: lineNumber(func(l *Line) *float64 { return &l.DiameterMM })},
	{Part: LinePart, JSON: "label_kn", Name: "strength on the label", Unit: "kN", Min: 1e-3, Max: 1e4, Doc: "strength on the label, kN", Hint: "What the maker states, as in 30 kN or 3000 kgf. 0 means: go by the rule.",
		Turned: &Turned{"line.label", "strength on the label", 0.01, 1}, number: lineNumber(func(l *Line) *float64 { return &l.LabelKN })},
	{Part: LinePart, JSON: "wear", Name: "wear", Max: 3, Whole: true, Doc: "0 as new, 1 fluffed, 2 worn, 3 retire", whole: func(x any) *int { return &x.(*Line).Wear }, Values: []Value{
		{ID: "0", Name: "as new"}, {ID: "1", Name: "fluffed", Note: "a tenth off"}, {ID: "2", Name: "worn", Note: "a quarter off"}, {ID: "3", Name: "worn out", Note: "half off: retire it"},
	}},
	{Part: LinePart, JSON: "mu", Name: "friction of the line", Min: 0.01, Max: 1, Doc: "your own friction coefficient, measured on smooth metal; left out: that of the material",
		Turned: &Turned{"line.mu", "friction of the line", 0.03, 0.6}, number: lineNumber(func(l *Line) *float64 { return &l.Mu })},
	{Part: LinePart, JSON: "length_m", Name: "length between its joints", Unit: "m", Max: 10000, Doc: "length between its joints, m, for the cut list", number: lineNumber(func(l *Line) *float64 { return &l.LengthM })},
}

// FieldOf finds a row; it panics for one that is not there, which is a mistake in
// the code.
func FieldOf(part Part, json string) *Field {
	for i := range Fields {
		if f := &Fields[i]; f.Part == part && f.JSON == json {
			return f
		}
	}
	panic("rig: no field " + string(part) + "." + json)
}

// Word is what a value of the field is called.
func (f *Field) Word(id string) string {
	for _, v := range f.Values {
		if v.ID == id {
			return v.Name
		}
	}
	return id
}

// check adds a complaint about a number outside its limits or a word that is not
// one of the values.
func (f *Field) check(path string, part any, l *problem.List) {
	path += f.JSON
	v := 0.0
	switch {
	case f.number != nil:
		v = *f.number(part)
	case f.whole != nil:
		v = float64(*f.whole(part))
	default:
		return
	}
	if v == 0 || v >= f.Min && v <= f.Max {
		return
	}
	u := f.Unit
	if u != "" {
		u = " " + u
	}
	what := "is too large"
	switch {
	case v < 0:
		what = "is below zero"
	case v < f.Min:
		what = "is too small"
	}
	l.Add(path, number(v)+u+" "+what, "give "+number(f.Min)+" to "+number(f.Max)+u)
}

// checkWord adds a complaint about a word that is not one of the field's values.
func (f *Field) checkWord(path, word string, l *problem.List) {
	if slices.ContainsFunc(f.Values, func(v Value) bool { return v.ID == word }) {
		return
	}
	ids := make([]string, len(f.Values))
	for i, v := range f.Values {
		ids[i] = v.ID
	}
	l.Add(path+f.JSON, fmt.Sprintf("%q is not known", word), fmt.Sprintf("use one of %v", ids))
}

// checkNumbers checks every number of a part.
func checkNumbers(part Part, path string, x any, l *problem.List) {
	for i := range Fields {
		if Fields[i].Part == part {
			Fields[i].check(path, x, l)
		}
	}
}

// number writes v without an exponent.
func number(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
