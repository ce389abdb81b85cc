// Package knot describes a knot as an instructor judges it: what it is for, what
// it can be tied in and on, how much of the line's strength it keeps, whether it
// holds wet, how it comes off, what to check and what goes wrong.
package knot

import (
	"fmt"
	"slices"

	"oarweed/core/evidence"
	"oarweed/core/problem"
)

// Kind of knot.
type Kind string

const (
	Loop     Kind = "loop"
	Hitch    Kind = "hitch"
	Bend     Kind = "bend"
	Stopper  Kind = "stopper"
	Terminal Kind = "terminal" // line to hook, lure or fly
)

var kinds = []Kind{Loop, Hitch, Bend, Stopper, Terminal}

// Class of hold, worst last.
type Class string

const (
	Holds    Class = "holds"
	Marginal Class = "marginal"
	Slips    Class = "slips"
)

var classes = []Class{Holds, Marginal, Slips}

// Rank counts from 0, the best.
func (c Class) Rank() int { return slices.Index(classes, c) }

// Worse is the next class down.
func (c Class) Worse() Class {
	if c == Holds {
		return Marginal
	}
	return Slips
}

// Off says how easily a knot comes undone with no load on it.
type Off string

const (
	Easy   Off = "easy"   // by hand, at once
	Worked Off = "worked" // by hand, with some work
	Jams   Off = "jams"   // needs a spike, or does not come undone after load
	Cut    Off = "cut"    // cut off and tied again
)

var offs = []Off{Easy, Worked, Jams, Cut}

// Knot is one entry of the catalogue.
type Knot struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Also holds other names it goes by in the trade.
	Also    []string `json:"also,omitempty" nullable:"false"`
	Kind    Kind     `json:"kind"`
	Summary string   `json:"summary"`
	// Tasks says how well it suits each task of the catalogue, by task id.
	Tasks map[string]Suits `json:"tasks"`
	// Objects lists the kinds of fitting it can be made on; empty for bends.
	Objects []string `json:"objects,omitempty" nullable:"false"`
	// Ratio limits thick ÷ thin of the two lines of a bend, or object line ÷ helper.
	Ratio *Ratio `json:"ratio,omitempty"`
	// Refuses maps a material id to why the knot is not tied in it, RefusesSurface a
	// surface id to why not on it.
	Refuses        map[string]string `json:"refuses,omitempty"`
	RefusesSurface map[string]string `json:"refuses_surface,omitempty" yaml:"refuses_surface"`
	// OneOf: one of the lines it joins must be of these; nil: any.
	OneOf *OneOf `json:"one_of,omitempty" yaml:"one_of"`
	// Range of line it is tied in; nil: any.
	Range *Range `json:"range,omitempty"`
	// Along: it grips against a pull along a post, a rail or a spar.
	Along bool `json:"along,omitempty"`
	// BothLegs: it holds only while both of its parts are loaded.
	BothLegs bool `json:"both_legs,omitempty" yaml:"both_legs"`
	// Efficiency is the share of the line's strength kept; the first entry that
	// covers the material counts, one without materials covers all.
	Efficiency []Efficiency `json:"efficiency" nullable:"false"`
	// FrictionModel names the hitch of core/friction that decides the hold; without
	// one Hold does.
	FrictionModel string `json:"network,omitempty" yaml:"network"`
	// FrictionCount is the number of figure eights or riding turns the model assumes.
	FrictionCount int `json:"network_count,omitempty" yaml:"network_count"`
	// HeldByHand: it is not left, a hand stays on its end.
	HeldByHand bool `json:"held_by_hand,omitempty" yaml:"held_by_hand"`
	// Hold gives the class of hold by material, dry and wet; as for Efficiency.
	Hold []HoldClass `json:"hold,omitempty" nullable:"false"`
	// Shake says how it takes slack, jerks and flogging.
	Shake Shake `json:"shake"`
	// Release says how it comes off.
	Release Release `json:"release"`
	// Tail is the length the end must have when tied, in line diameters.
	Tail evidence.Figure `json:"tail"`
	// Uses is the line in the knot: diameters plus turns round the object. It is what a
	// knot consumes when it is cut off, with what is LeftOn.
	Uses Uses `json:"uses"`
	// ToTie is the line that fingers need, in metres, whatever its diameter, and
	// ToTieOther that of the second line of a join; nil where the diameters decide. The
	// likely value is a practised hand's, the high one a learner's.
	ToTie      *evidence.Figure `json:"to_tie_m,omitempty" yaml:"to_tie"`
	ToTieOther *evidence.Figure `json:"to_tie_other_m,omitempty" yaml:"to_tie_other"`
	// Consumes is what the line is shorter by when the knot is cut off, in metres; nil
	// where Uses says it.
	Consumes *evidence.Figure `json:"consumes_m,omitempty" yaml:"consumes"`
	// LeftOn is the end left after trimming, in millimetres; nil where nothing is trimmed.
	LeftOn *evidence.Figure `json:"left_on_mm,omitempty" yaml:"left_on"`
	// Backup is the knot that backs its end up where people depend on it.
	Backup string `json:"backup,omitempty"`
	// BackupAlways: it is backed up whoever depends on it.
	BackupAlways bool `json:"backup_always,omitempty" yaml:"backup_always"`
	// Bulk is how thick the drawn-up knot is, in line diameters.
	Bulk float64 `json:"bulk"`
	// Remembered is the bulk that was remembered, where Bulk is computed; else 0.
	Remembered float64 `json:"bulk_remembered,omitempty" yaml:"-"`
	// DrawnUp: its form drawn up in space is known.
	DrawnUp bool `json:"drawn_up,omitempty" yaml:"-"`
	// Loop: the eye it makes on a hook is a free loop, whose length follows the hook's eye.
	Loop bool `json:"loop,omitempty"`
	// FailsAt is the place where it gives, where it is not where the line enters.
	FailsAt string `json:"fails_at,omitempty" yaml:"fails_at"`
	// Purchase: it multiplies the pull of the hand that ties it.
	Purchase bool `json:"purchase,omitempty"`
	// Advice is what to add to this knot where its hold is in doubt.
	Advice string `json:"advice,omitempty"`
	// Seconds is how long a practised hand takes to tie it in line of common size.
	Seconds evidence.Figure `json:"seconds"`
	// Difficulty and Inspect run from 1 to 5: hard to learn, easy to check by eye.
	Difficulty int `json:"difficulty"`
	Inspect    int `json:"inspect"`
	// Wraps, for knots whose number of wraps is the tyer's choice.
	Wraps *Wraps `json:"wraps,omitempty"`
	// EyeTakesBight: the line goes through the eye as a bight, so the eye must take two.
	EyeTakesBight bool `json:"doubled,omitempty" yaml:"doubled"`
	// Person allows the knot to stay in the list, with the caution, where a person is held.
	Person   bool     `json:"person"`
	Steps    []string `json:"steps" nullable:"false"`
	Checks   []string `json:"checks" nullable:"false"`
	Faults   []Fault  `json:"faults" nullable:"false"`
	Cautions []string `json:"cautions,omitempty" nullable:"false"`
	// Told is how a teacher tells it.
	Told Told `json:"told" yaml:"-"`
	// Drawing is the id of the drawing that shows it where a doctrine ties it otherwise
	// than it is usually drawn; else empty.
	Drawing string `json:"-" yaml:"-"`
	// Shape is the text of its drawing, empty while it has none.
	Shape string `json:"-" yaml:"-"`
}

// Told is how a teacher tells a knot: common practice, no source.
type Told struct {
	// Why one would use it and not its neighbour.
	Why string `json:"why"`
	// Aid is what to remember the hard move by.
	Aid string `json:"aid"`
	// Slips are what beginners get wrong, most often first.
	Slips []string `json:"slips" nullable:"false"`
	// Undo says what to do when it has jammed, Try how it is tested before it is trusted.
	Undo string `json:"undo"`
	Try  string `json:"try"`
	// Ways are other ways to the same knot, in words.
	Ways []string `json:"ways,omitempty" nullable:"false"`
	// Drawn are other ways to it with a drawing of their own.
	Drawn []Way `json:"drawn,omitempty" nullable:"false"`
	// Tip makes it quicker in the hand.
	Tip string `json:"tip,omitempty"`
	// Seat is which strand is held and which is drawn when it is set.
	Seat string `json:"seat,omitempty"`
	// Hold and Draw are the strands of it that a hand holds and that are drawn, as
	// shape.Strands reads them.
	Hold []string `json:"hold,omitempty" nullable:"false"`
	Draw []string `json:"draw,omitempty" nullable:"false"`
	// Tools help to tie, set or undo it.
	Tools []string `json:"tools,omitempty" nullable:"false"`
}

// Way is another way to the same knot, or the same knot made on another thing.
type Way struct {
	Name string `json:"name"`
	// Drawing is the id of the shape that shows it, step by step with Steps.
	Drawing string   `json:"drawing"`
	Steps   []string `json:"steps" nullable:"false"`
	// Folded: it is made of the folded line, with no end.
	Folded bool `json:"folded,omitempty"`
}

// BulkTag is the evidence of Bulk: computed where it was drawn up in space, else memory.
func (k *Knot) BulkTag() evidence.Tag {
	if k.Remembered > 0 {
		return evidence.Computed
	}
	return evidence.Memory
}

// Uses is the line a knot takes up: so many of its diameters, and so many turns
// round the object.
type Uses struct {
	Diameters float64 `json:"diameters"`
	Turns     float64 `json:"turns"`
	// Remembered are the diameters that were remembered, where Diameters is computed; else 0.
	Remembered float64 `json:"diameters_remembered,omitempty" yaml:"-"`
}

// OneOf are the materials of which one line of a join must be, and why.
type OneOf struct {
	Materials []string `json:"materials" nullable:"false"`
	Why       string   `json:"why"`
}

// Range of line that a knot is tied in: diameters in mm, or tests in lb. A high end of 0
// is no limit.
type Range struct {
	MM  [2]float64 `json:"mm,omitempty"`
	Lb  [2]float64 `json:"lb,omitempty"`
	Why string     `json:"why"`
}

// Suits says how well a knot suits a task: Fit from 0 to 1 and one line of reason.
type Suits struct {
	Fit float64 `json:"fit"`
	Why string  `json:"why"`
	// On says how well on some fittings, In in some water or left for so long, where it differs.
	On map[string]float64 `json:"on,omitempty"`
	In map[string]float64 `json:"in,omitempty"`
}

// For is the fit on a fitting, empty where there is none, and in the circumstances that
// In may name.
func (s Suits) For(fitting string, in ...string) float64 {
	if f, ok := s.On[fitting]; ok {
		return f
	}
	for _, name := range in {
		if f, ok := s.In[name]; ok {
			return f
		}
	}
	return s.Fit
}

// Ratio limits a ratio of diameters, with the reason outside it.
type Ratio struct {
	Min float64 `json:"min"`
	Max float64 `json:"max"`
	Why string  `json:"why"`
	// Below and Says: a word of warning for ratios below it; 0 for none.
	Below float64 `json:"below,omitempty"`
	Says  string  `json:"says,omitempty"`
}

// Efficiency of a knot in some materials, as a share of the line's strength.
type Efficiency struct {
	Materials []string          `json:"materials,omitempty" nullable:"false"`
	Value     evidence.Interval `json:"value"`
	Tag       evidence.Tag      `json:"tag" enum:"published,trade,memory,computed,yours"`
	Source    string            `json:"source"`
	// Tasks it is of; empty: all.
	Tasks []string `json:"tasks,omitempty" nullable:"false"`
	// Fails is what happens at that load.
	Fails Fails `json:"fails" enum:"breaks,slips,creeps"`
	// In is the one line that it was measured in; nil: any.
	In *In `json:"in,omitempty" yaml:"-"`

	measured evidence.Dist
}

// In is a line as it was pulled on a bench.
type In struct {
	Construction string `json:"construction"`
	Wet          bool   `json:"wet"`
}

// Measured is the entry with a distribution of its own, as a bench gives it.
func (e Efficiency) Measured(d evidence.Dist) Efficiency {
	e.measured = d
	return e
}

// Fails is what happens at the limit of a knot.
type Fails string

const (
	Breaks Fails = "breaks" // the line parts
	Gives  Fails = "slips"  // it runs out
	Creeps Fails = "creeps" // it draws down until it catches on the thing, and is tied again
)

// Figure is the share with its evidence.
func (e Efficiency) Figure() evidence.Figure {
	f := evidence.Figure{Interval: e.Value, Tag: e.Tag, Source: e.Source}
	if e.measured != nil {
		f = f.Measured(e.measured)
	}
	return f
}

// HoldClass is how a knot holds in some materials, at some tasks, known from use.
type HoldClass struct {
	Materials []string     `json:"materials,omitempty" nullable:"false"`
	Tasks     []string     `json:"tasks,omitempty" nullable:"false"`
	Dry       Class        `json:"dry" enum:"holds,marginal,slips"`
	Wet       Class        `json:"wet" enum:"holds,marginal,slips"`
	Why       string       `json:"why"`
	Tag       evidence.Tag `json:"tag" enum:"published,trade,memory,computed,yours"`
}

// Shake says how a knot takes slack and jerks: holds, marginal or slips.
type Shake struct {
	Class Class  `json:"class"`
	Why   string `json:"why"`
}

// Release says how a knot comes off.
type Release struct {
	// UnderLoad: it can be cast off while the line pulls. Distance: from afar.
	UnderLoad bool   `json:"under_load" yaml:"under_load"`
	Distance  bool   `json:"distance"`
	Slack     Off    `json:"slack"`
	How       string `json:"how"`
	// Left is what still holds once the rest is off, for a knot cast off under load.
	Left *Left `json:"left,omitempty"`
}

// Left is the state of a knot that is cast off under load when only its turns are left:
// a hitch of package friction, and what it is called.
type Left struct {
	Hitch string `json:"hitch"`
	Count int    `json:"count,omitempty"`
	Name  string `json:"name"`
}

// Wraps gives the number of wraps by line strength.
type Wraps struct {
	// Rules go from thin to thick; the last has no UpToLb.
	Rules []WrapRule `json:"rules" nullable:"false"`
	// Loss is the share of strength lost for each wrap short of the rule.
	Loss evidence.Figure `json:"loss"`
	// Other is how many the thicker line of a join gets; 0: as many.
	Other int `json:"other,omitempty"`
	// Finish is the share of strength that its finishing wraps give; none where it has none.
	Finish *evidence.Figure `json:"finish,omitempty"`
}

// WrapRule gives the wraps for lines up to a strength in pounds.
type WrapRule struct {
	// FromLb is the least strength it is of, for a rule of one's own; 0: any.
	FromLb float64 `json:"from_lb,omitempty" yaml:"-"`
	UpToLb float64 `json:"up_to_lb,omitempty" yaml:"up_to_lb"`
	// Water it is of: salt (flats too) or fresh; empty: any.
	Water string `json:"water,omitempty"`
	N     int    `json:"n"`
}

// rounding is how far a test may lie above its class and still be it: 20 lb written in
// kilonewtons is 20 lb.
const rounding = 1.02

// For gives the number of wraps for a line of so many pounds, in salt or fresh water.
func (w Wraps) For(lb float64, water string) int {
	for _, r := range w.Rules {
		if lb*rounding >= r.FromLb && (r.UpToLb == 0 || lb <= r.UpToLb*rounding) && (r.Water == "" || r.Water == water) {
			return r.N
		}
	}
	return 0
}

// Fault is a way of getting it wrong.
type Fault struct {
	Code  string `json:"code"`
	Name  string `json:"name"`
	Looks string `json:"looks"` // how it shows
	Leads string `json:"leads"` // what happens
	Mend  string `json:"mend"`  // how to put it right
	// AfterStep is the step at which it is made, from 1; 0 where it is not made at one.
	AfterStep int `json:"after_step,omitempty" yaml:"after_step"`
	// Drawing names the shape that shows the faulty form, where there is one.
	Drawing string `json:"drawing,omitempty"`
	// Right names the shape that shows the same place done right, where the knot's own
	// drawing does not.
	Right string `json:"right,omitempty"`
}

// EfficiencyIn is the entry that covers a material at a task, whatever the line.
func (k *Knot) EfficiencyIn(material, task string) Efficiency {
	return k.efficiency(material, task, nil)
}

// EfficiencyOf is the entry that covers a line at a task: what was measured in such a line, else
// the catalogue's.
func (k *Knot) EfficiencyOf(material, task string, in In) Efficiency {
	return k.efficiency(material, task, &in)
}

func (k *Knot) efficiency(material, task string, in *In) Efficiency {
	for _, e := range k.Efficiency {
		if e.In != nil && (in == nil || *e.In != *in) {
			continue
		}
		if (len(e.Materials) == 0 || slices.Contains(e.Materials, material)) && (len(e.Tasks) == 0 || slices.Contains(e.Tasks, task)) {
			return e
		}
	}
	return Efficiency{}
}

// HoldIn is the entry that covers a material and a task.
func (k *Knot) HoldIn(material, task string) HoldClass {
	for _, h := range k.Hold {
		if (len(h.Materials) == 0 || slices.Contains(h.Materials, material)) && (len(h.Tasks) == 0 || slices.Contains(h.Tasks, task)) {
			return h
		}
	}
	return HoldClass{}
}

// Vocabulary is what a knot may refer to.
type Vocabulary struct {
	Tasks, Fittings, Materials, Surfaces, Cautions, Hitches []string
	// Circumstances are the waters and the stays.
	Circumstances []string
}

// Check reports everything missing or contradictory, by field.
func (k *Knot) Check(v Vocabulary) error {
	var l problem.List
	missing := func(path string, absent bool) {
		if absent {
			l.Add(path, "missing", "fill it in")
		}
	}
	known := func(path, word string, list []string) {
		if !slices.Contains(list, word) {
			l.Add(path, fmt.Sprintf("%q is not known", word), fmt.Sprintf("use one of %v", list))
		}
	}
	missing("id", k.ID == "")
	missing("name", k.Name == "")
	missing("summary", k.Summary == "")
	if !slices.Contains(kinds, k.Kind) {
		l.Add("kind", fmt.Sprintf("%q is not a kind of knot", k.Kind), fmt.Sprintf("use one of %v", kinds))
	}
	missing("tasks", len(k.Tasks) == 0)
	for id, s := range k.Tasks {
		known("tasks", id, v.Tasks)
		if s.Fit <= 0 || s.Fit > 1 || s.Why == "" {
			l.Add("tasks."+id, "needs a fit above 0 and at most 1, and a reason", "write {fit: 0.8, why: …}")
		}
	}
	for id, s := range k.Tasks {
		for on, fit := range s.On {
			known("tasks."+id+".on", on, v.Fittings)
			if fit <= 0 || fit > 1 {
				l.Add("tasks."+id+".on."+on, "needs a fit above 0 and at most 1", "write {ring: 0.8}")
			}
		}
	}
	for id, s := range k.Tasks {
		for in, fit := range s.In {
			known("tasks."+id+".in", in, v.Circumstances)
			if fit <= 0 || fit > 1 {
				l.Add("tasks."+id+".in."+in, "needs a fit above 0 and at most 1", "write {fresh: 0.8}")
			}
		}
	}
	for id, why := range k.RefusesSurface {
		known("refuses_surface", id, v.Surfaces)
		missing("refuses_surface."+id, why == "")
	}
	if o := k.OneOf; o != nil {
		missing("one_of.why", o.Why == "")
		for _, m := range o.Materials {
			known("one_of", m, v.Materials)
		}
	}
	if b := k.Backup; b != "" && b == k.ID {
		l.Add("backup", "is the knot itself", "name another")
	}
	if r := k.Range; r != nil && (r.Why == "" || r.MM == [2]float64{} && r.Lb == [2]float64{}) {
		l.Add("range", "needs mm or lb, and why", "write {lb: [30, 100], why: …}")
	}
	for path, f := range map[string]*evidence.Figure{"to_tie": k.ToTie, "to_tie_other": k.ToTieOther, "consumes": k.Consumes, "left_on": k.LeftOn} {
		if f != nil {
			l.Take(path, f.Check(0, 1000))
		}
	}
	if b := k.Release.Left; b != nil {
		known("release.left.hitch", b.Hitch, v.Hitches)
		missing("release.left.name", b.Name == "")
	}
	for _, o := range k.Objects {
		known("objects", o, v.Fittings)
	}
	missing("objects", len(k.Objects) == 0 && (k.Kind == Hitch || k.Kind == Terminal))
	if k.Ratio != nil && (k.Ratio.Min < 1 || k.Ratio.Max < k.Ratio.Min || k.Ratio.Why == "") {
		l.Add("ratio", "needs min of 1 or more, max not below it, and a reason", "write {min: 1, max: 1.5, why: …}")
	}
	for id, why := range k.Refuses {
		known("refuses", id, v.Materials)
		missing("refuses."+id, why == "")
	}
	missing("efficiency", len(k.Efficiency) == 0)
	for i, e := range k.Efficiency {
		path := fmt.Sprintf("efficiency[%d]", i)
		for _, m := range e.Materials {
			known(path+".materials", m, v.Materials)
		}
		l.Take(path, e.Figure().Check(0.05, 1))
		if !slices.Contains([]Fails{Breaks, Gives, Creeps}, e.Fails) {
			l.Add(path+".fails", fmt.Sprintf("%q", e.Fails), "write breaks, slips or creeps")
		}
		for _, task := range e.Tasks {
			known(path+".tasks", task, v.Tasks)
		}
		if i == len(k.Efficiency)-1 && len(e.Materials)+len(e.Tasks) > 0 {
			l.Add(path+".materials", "the last entry must cover all materials and tasks", "drop materials and tasks from it")
		}
	}
	if (k.FrictionModel == "") == (len(k.Hold) == 0) {
		l.Add("hold", "needs either a friction network or hold classes, not both", "keep network or hold")
	}
	if k.FrictionModel != "" {
		known("network", k.FrictionModel, v.Hitches)
	}
	for i, h := range k.Hold {
		path := fmt.Sprintf("hold[%d]", i)
		if !slices.Contains(classes, h.Dry) || !slices.Contains(classes, h.Wet) || h.Why == "" || !h.Tag.Valid() {
			l.Add(path, "needs dry and wet (holds, marginal, slips), why and tag", "fill them in")
		}
		for _, task := range h.Tasks {
			known(path+".tasks", task, v.Tasks)
		}
		if i == len(k.Hold)-1 && len(h.Materials)+len(h.Tasks) > 0 {
			l.Add(path+".materials", "the last entry must cover all materials", "drop materials from it")
		}
	}
	if !slices.Contains(classes, k.Shake.Class) || k.Shake.Why == "" {
		l.Add("shake", "needs a class (holds, marginal, slips) and why", "fill it in")
	}
	if !slices.Contains(offs, k.Release.Slack) || k.Release.How == "" {
		l.Add("release", "needs slack (easy, worked, jams, cut) and how", "fill it in")
	}
	l.Take("tail", k.Tail.Check(0, 1000))
	l.Take("seconds", k.Seconds.Check(1, 1200))
	missing("uses", k.Uses.Diameters <= 0)
	missing("bulk", k.Bulk <= 0)
	for path, n := range map[string]int{"difficulty": k.Difficulty, "inspect": k.Inspect} {
		if n < 1 || n > 5 {
			l.Add(path, fmt.Sprintf("%d is not 1 to 5", n), "give 1 to 5")
		}
	}
	if k.Wraps != nil {
		missing("wraps.rules", len(k.Wraps.Rules) == 0)
		l.Take("wraps.loss", k.Wraps.Loss.Check(0, 0.5))
	}
	missing("steps", len(k.Steps) < 2)
	missing("checks", len(k.Checks) == 0)
	missing("faults", len(k.Faults) == 0)
	seen := map[string]bool{}
	for i, f := range k.Faults {
		path := fmt.Sprintf("faults[%d]", i)
		missing(path, f.Code == "" || f.Name == "" || f.Looks == "" || f.Leads == "" || f.Mend == "")
		if seen[f.Code] {
			l.Add(path+".code", f.Code+" is there twice", "give each fault its own code")
		}
		seen[f.Code] = true
		if f.AfterStep < 0 || f.AfterStep > len(k.Steps) {
			l.Add(path+".after_step", fmt.Sprintf("%d is not a step", f.AfterStep), "give the number of a step, or leave it out")
		}
	}
	for _, c := range k.Cautions {
		known("cautions", c, v.Cautions)
	}
	return l.Err()
}
