package rig

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"oarweed/core/evidence"
	"oarweed/core/hold"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/unit"
)

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
	// Stay is how long it is left.
	Stay Stay
	// Along: it pulls lengthwise on the long thing it is tied to.
	Along bool
	// Eye is the clear length of the eye; 0: as small as the thing allows.
	Eye unit.Length
	// Guide is the smallest that a join has to run through; 0: none.
	Guide unit.Length
	// Bare: its finishing wraps are left out.
	Bare bool
	// Fitting is set for joints to a fitting, Other for joints of two lines.
	Fitting *FittingUse
	Other   *line.Line
	Line    line.Line
	// LineBears and OtherBears are what the lines bear now, Capacity that of the line
	// which sets what the joint can bear: in a bend the weaker one. In newtons.
	LineBears, OtherBears line.Strength
	Capacity              evidence.Figure

	// Weights is the preset by which knots are scored.
	Weights string
	// Use answers how likely a hitch holds.
	Use *hold.Table

	Load         unit.Force
	Character    Character
	Wet          bool
	Water        Water
	Ground       Ground
	Consequence  Consequence
	DesignFactor float64
	FactorWhy    string
	FactorTag    evidence.Tag
}

// Resolve checks a document with one joint against the vocabulary, fills in the
// defaults and works out what its lines bear. All complaints are gathered, each with
// its field and a fix.
func (t *Vocabulary) Resolve(d Document) (*Rig, error) {
	return t.resolve(d, [3]string{"chain[0]", "chain[1]", "chain[2]"})
}

// resolve names complaints by the places that the three elements have in their chain.
func (t *Vocabulary) resolve(d Document, at [3]string) (*Rig, error) {
	var l problem.List
	r := &Rig{Wet: !d.Dry, Use: t.use}
	if d.Version > Version {
		l.Add("version", fmt.Sprintf("format %d is newer than this Oarweed knows", d.Version), "update Oarweed")
	}
	d.Version = Version
	// Defaults name the field in the rig of this joint, which is what they fill in.
	def := func(field, value, why string) {
		for k, p := range at {
			if rest, ok := strings.CutPrefix(field, p+"."); ok {
				field = place(k) + "." + rest
				break
			}
		}
		r.Defaults = append(r.Defaults, Default{field, value, why})
	}

	if len(d.Chain) != 3 || d.Chain[1].Joint == nil || d.Chain[2].Line == nil || (d.Chain[0].Fitting == nil) == (d.Chain[0].Line == nil) {
		l.Add("chain", "is not a fitting or line, a joint, and a line", "give those three, in that order")
		return nil, l.Err()
	}
	d.Chain = slices.Clone(d.Chain)
	joint := *d.Chain[1].Joint
	d.Chain[1].Joint = &joint
	if r.Task = t.Task(joint.Task); r.Task == nil {
		l.Add(at[1]+".joint.task", fmt.Sprintf("%q is not a task", joint.Task), "use one of "+IDs(t.Tasks, func(k *Task) string { return k.ID }))
		return nil, l.Err()
	}

	// What it is tied to.
	if r.Task.Between == ToFitting {
		if d.Chain[0].Fitting == nil {
			l.Add(at[0], "is a line, but the task ties to a fitting", "give a fitting, or choose another task")
		} else {
			f := *d.Chain[0].Fitting
			d.Chain[0].Fitting = &f
			r.Fitting = t.fitting(&f, at[0], r.Task, &l, def)
		}
	} else if d.Chain[0].Line == nil {
		l.Add(at[0], "is a fitting, but the task joins two lines", "give the other line, or choose another task")
	} else {
		ln := *d.Chain[0].Line
		d.Chain[0].Line = &ln
		other := t.line(&ln, at[0]+".line.", &l, def)
		r.Other = &other
	}
	ln := *d.Chain[2].Line
	d.Chain[2].Line = &ln
	r.Line = t.line(&ln, at[2]+".line.", &l, def)

	// The joint.
	if joint.Release == "" {
		joint.Release = r.Task.Release
		def(at[1]+".joint.release", string(joint.Release), "usual for this task")
	}
	FieldOf(JointPart, "release").checkWord(at[1]+".joint.", string(joint.Release), &l)
	checkNumbers(JointPart, at[1]+".joint.", &joint, &l)
	if joint.TailM == 0 {
		def(at[1]+".joint.tail_m", "enough", "no limit given")
	}
	if joint.Release == Distance {
		if joint.DistanceM == 0 {
			joint.DistanceM = usualDistance
			def(at[1]+".joint.distance_m", unit.Length(usualDistance).String(), "no distance given")
		}
		r.Distance = unit.Length(joint.DistanceM)
	}
	if joint.Stay == "" {
		joint.Stay = r.Task.Stay
		if joint.Stay == "" {
			joint.Stay = Night
		}
		def(at[1]+".joint.stay", string(joint.Stay), "usual for this task")
	}
	pull := joint.Pull
	if pull == "" {
		pull = r.Task.Pull
	} else {
		FieldOf(JointPart, "pull").checkWord(at[1]+".joint.", string(pull), &l)
	}
	r.Along = pull == Along && r.Fitting != nil && r.Fitting.Kind != nil && r.Fitting.Kind.Long
	FieldOf(JointPart, "stay").checkWord(at[1]+".joint.", string(joint.Stay), &l)
	if joint.Finish != "" {
		FieldOf(JointPart, "finish").checkWord(at[1]+".joint.", string(joint.Finish), &l)
	}
	r.Stay, r.Eye, r.Bare = joint.Stay, unit.Length(joint.EyeMM)*unit.Millimetre, joint.Finish == Bare
	r.Seconds = joint.Seconds
	if r.JoinsTwo() {
		r.Guide = unit.Length(joint.GuideMM) * unit.Millimetre
	}
	r.Release, r.Tail, r.Wraps = joint.Release, unit.Length(joint.TailM), joint.Wraps

	// Load and consequence.
	if d.PeakKN == 0 {
		l.Add("peak_kn", "no load given", "give the highest load you expect, e.g. 2.4")
	}
	checkNumbers(WholeRig, "", &d, &l)
	r.Load = unit.Force(d.PeakKN) * unit.Kilonewton
	if d.Water == "" {
		d.Water = Salt
		if r.Task.Tackle {
			f := FieldOf(WholeRig, "water")
			def("water", f.Default, f.Why)
		}
	}
	FieldOf(WholeRig, "water").checkWord("", string(d.Water), &l)
	if d.Ground == "" {
		d.Ground = Clear
	}
	FieldOf(WholeRig, "ground").checkWord("", string(d.Ground), &l)
	r.Water, r.Ground = d.Water, d.Ground
	if d.Character == "" {
		f := FieldOf(WholeRig, "character")
		d.Character = Character(f.Default)
		def("character", f.Default, f.Why)
	}
	FieldOf(WholeRig, "character").checkWord("", string(d.Character), &l)
	if d.Consequence == "" {
		f := FieldOf(WholeRig, "consequence")
		d.Consequence = Consequence(f.Default)
		def("consequence", f.Default, f.Why)
	}
	FieldOf(WholeRig, "consequence").checkWord("", string(d.Consequence), &l)
	if r.Task.Person && d.Consequence != Person {
		// Whatever else is at risk, this holds somebody.
		d.Consequence = Person
		def("consequence", string(Person), "this task holds a person")
	}
	r.Consequence = d.Consequence
	r.Weights = d.Weights
	if r.Weights == "" {
		r.Weights = r.Task.Weights
		if r.Consequence == Person && !r.Task.Person {
			r.Weights = PeopleWeights
		}
	} else if _, ok := t.Weights[d.Weights]; !ok {
		l.Add("weights", fmt.Sprintf("%q is not a preset", d.Weights), "use one of "+strings.Join(slices.Sorted(maps.Keys(t.Weights)), ", "))
	}
	r.Character = d.Character
	fishing := r.Task.Tackle || r.Task.Cord && r.Line.Material != nil && r.Line.Material.Fishing
	r.DesignFactor, r.FactorWhy, r.FactorTag = DesignFactor(r.Character, r.Consequence, fishing)
	if d.DesignFactor != 0 {
		switch {
		case r.Consequence == Person && d.DesignFactor < r.DesignFactor:
			l.Add("design_factor", fmt.Sprintf("%g is too low where a person is at risk", d.DesignFactor), fmt.Sprintf("give %g or more", r.DesignFactor))
		default:
			r.DesignFactor, r.FactorWhy, r.FactorTag = d.DesignFactor, "chosen by you", evidence.Yours
		}
	}
	r.Document = d
	if err := l.Err(); err != nil {
		return r, err
	}
	r.bears(at, &l)
	return r, l.Err()
}

// bears works out what the lines bear. The error names the line whose strength is
// not known.
func (r *Rig) bears(at [3]string, l *problem.List) {
	var err error
	r.LineBears, err = r.Line.Bears(r.Wet)
	l.Take(at[2]+".line", err)
	r.Capacity = r.LineBears.Capacity
	if r.Other == nil {
		return
	}
	r.OtherBears, err = r.Other.Bears(r.Wet)
	l.Take(at[0]+".line", err)
	if r.JoinsTwo() && r.OtherBears.Capacity.Likely < r.Capacity.Likely {
		r.Capacity = r.OtherBears.Capacity // the weaker line sets what the bend can bear
	}
}

// JoinsTwo reports whether the joint is a bend of two lines, both of which it
// depends on.
func (r *Rig) JoinsTwo() bool { return r.Task.Between == TwoLines }

// PeopleWeights is the preset by which knots are scored where people depend on them.
const PeopleWeights = "people"

// usualDistance to cast off from, where none is given, in metres.
const usualDistance = 3

func (t *Vocabulary) fitting(f *Fitting, at string, task *Task, l *problem.List, def func(a, b, c string)) *FittingUse {
	path := at + ".fitting."
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
	checkNumbers(FittingPart, path, f, l)
	if f.Surface == "" {
		f.Surface = k.Surface
		def(path+"surface", f.Surface, "usual for a "+k.Name)
	}
	if t.Surface(f.Surface) == nil {
		l.Add(path+"surface", fmt.Sprintf("%q is not a surface", f.Surface), "use one of "+IDs(t.Surfaces, func(s *line.Surface) string { return s.ID }))
	}
	return &FittingUse{k, unit.Length(f.SizeMM) * unit.Millimetre, t.surfaceFactor(f.Surface), f.Surface}
}

func (t *Vocabulary) line(n *Line, path string, l *problem.List, def func(a, b, c string)) line.Line {
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
	checkNumbers(LinePart, path, n, l)
	out := line.Line{OwnMu: n.Mu, Length: unit.Length(n.LengthM), Material: m, Construction: n.Construction, Diameter: unit.Length(n.DiameterMM) * unit.Millimetre,
		Label: unit.Force(n.LabelKN) * unit.Kilonewton, Wear: min(max(n.Wear, 0), 3)}
	if n.MuSpread != 0 {
		if !(n.MuSpread >= 1 && n.MuSpread <= 4) {
			l.Add(path+"mu_spread", fmt.Sprintf("%g is no factor by which it may be off", n.MuSpread), "give 1 to 4, or leave it out")
		} else if n.Mu > 0 {
			out.OwnSpread = evidence.Interval{Low: n.Mu / n.MuSpread, Likely: n.Mu, High: n.Mu * n.MuSpread}
		}
	}
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

// IDs joins the ids of a list, for a message.
func IDs[T any](list []*T, id func(*T) string) string { return strings.Join(ids(list, id), ", ") }

func ids[T any](list []*T, id func(*T) string) []string {
	out := make([]string, len(list))
	for i, x := range list {
		out[i] = id(x)
	}
	return out
}

// LineOf is a line on its own, with its construction filled in. The error names the field.
func (t *Vocabulary) LineOf(n Line) (line.Line, error) {
	var l problem.List
	out := t.line(&n, "", &l, func(_, _, _ string) {})
	return out, l.Err()
}

// CheckLine checks a line on its own, fills in its construction, and names the
// field of what is wrong.
func (t *Vocabulary) CheckLine(n *Line) error {
	var l problem.List
	t.line(n, "", &l, func(_, _, _ string) {})
	return l.Err()
}
