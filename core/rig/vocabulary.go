package rig

import (
	"fmt"
	"slices"

	"oarweed/core/evidence"
	"oarweed/core/hold"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/unit"
)

// FittingKind is something a line can be tied to.
type FittingKind struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// SizeIs says what the size measures.
	SizeIs string `json:"size_is" yaml:"size_is"`
	// DefaultMM and Surface are taken when the user leaves them out.
	DefaultMM float64 `json:"default_mm" yaml:"default_mm"`
	Surface   string  `json:"surface"`
	// NoSurface: nobody asks what its surface is.
	NoSurface bool `json:"no_surface,omitempty" yaml:"no_surface"`
	// Passes says what the line has to do with the fitting's opening.
	Passes Passes `json:"passes,omitempty" enum:"threads,stops"`
	// Long: a line can pull along it, as on a post or a spar.
	Long bool `json:"long,omitempty"`
	// DrawnAs names its picture on the line drawing; empty: as a line or a spar.
	DrawnAs string `json:"drawn_as,omitempty" yaml:"drawn_as" enum:"ring,clew,post,rail,bollard,cleat,gap,eye,hook,unseen"`
}

// Passes says what a line has to do with an opening.
type Passes string

const (
	Open    Passes = ""        // nothing: it goes round
	Threads Passes = "threads" // it must pass through
	Stops   Passes = "stops"   // it passes, and its knot must not
)

// Between says what kind of joint a task is.
type Between string

const (
	ToFitting Between = "fitting" // a line to a thing
	TwoLines  Between = "lines"   // a line to a line
	OnLine    Between = "line"    // a helper gripping a line already loaded
)

// Task is what a joint has to do.
type Task struct {
	ID       string   `json:"id"`
	Name     string   `json:"name"` // completes "to …"
	Between  Between  `json:"between" enum:"fitting,lines,line"`
	Fittings []string `json:"fittings,omitempty" nullable:"false"`
	// Fitting and Release are taken when the user leaves them out.
	Fitting string  `json:"fitting,omitempty"`
	Release Release `json:"release"`
	Weights string  `json:"weights"`
	// Group is the kind of work, under which tasks are listed; Also holds other words
	// by which it is looked for.
	Group string   `json:"group" enum:"mooring,sheets and rigging,anchoring,towing and rescue,fishing,carrying and lashing"`
	Also  []string `json:"also,omitempty" nullable:"false"`
	// Tackle: it is done in fishing line; Cord: in rope or in fishing line. Else fishing
	// line is refused.
	Tackle bool `json:"tackle,omitempty"`
	Cord   bool `json:"cord,omitempty"`
	// Person: it holds a person, whatever the rig says is at risk. MayHold: it can, and
	// then only a knot that people are trusted to will do.
	Person  bool `json:"person,omitempty"`
	MayHold bool `json:"may_hold,omitempty" yaml:"may_hold"`
	// Watched: somebody stands by, so that a load that comes and goes undoes nothing
	// unseen.
	Watched bool `json:"watched,omitempty"`
	// Stay is how long what is tied is usually left; empty: overnight.
	Stay Stay `json:"stay,omitempty" enum:"hour,night,months"`
	// Eye: what is tied is an eye, whose size may be asked for.
	Eye bool `json:"eye,omitempty"`
	// Pull is which way it usually pulls on a long thing; empty: across.
	Pull Pull `json:"pull,omitempty" enum:"across,along"`
	// BothLegs: both parts of what is tied take the load.
	BothLegs bool `json:"both_legs,omitempty" yaml:"both_legs"`
	// Instead is what to do where no knot will do.
	Instead string `json:"instead,omitempty"`
	// Then is what follows once it is done.
	Then string `json:"then,omitempty"`
	// Start is what to begin with when a user turns to this task.
	Start    Start    `json:"start"`
	Cautions []string `json:"cautions,omitempty" nullable:"false"`
}

// Groups of tasks, in the order in which they are listed.
var Groups = []string{"mooring", "sheets and rigging", "anchoring", "towing and rescue", "fishing", "carrying and lashing"}

// Start is a usual line and load for a task.
type Start struct {
	Material     string            `json:"material"`
	Construction line.Construction `json:"construction"`
	DiameterMM   float64           `json:"diameter_mm,omitempty" yaml:"diameter_mm"`
	LabelKN      float64           `json:"label_kn,omitempty" yaml:"label_kn"`
	// OtherMM is the diameter of the second line, of the same make.
	OtherMM   float64   `json:"other_mm,omitempty" yaml:"other_mm"`
	PeakKN    float64   `json:"peak_kn" yaml:"peak_kn"`
	Character Character `json:"character"`
	// Consequence is what is usually at risk; empty: gear.
	Consequence Consequence `json:"consequence,omitempty"`
}

// Caution is shown beside the results it belongs to.
type Caution struct {
	ID   string `json:"id"`
	Text string `json:"text"`
	// Locked cautions cannot be hidden.
	Locked bool `json:"locked"`
}

// Weights says how much each criterion counts, in points that add up to 100.
type Weights struct {
	Fit      float64 `json:"fit"`
	Strength float64 `json:"strength"`
	Hold     float64 `json:"hold"`
	Release  float64 `json:"release"`
	Time     float64 `json:"time"`
	Ease     float64 `json:"ease"`
	Inspect  float64 `json:"inspect"`
	Line     float64 `json:"line"`
}

// Sum of all weights.
func (w Weights) Sum() float64 {
	return w.Fit + w.Strength + w.Hold + w.Release + w.Time + w.Ease + w.Inspect + w.Line
}

// Vocabulary is what a rig is written in.
type Vocabulary struct {
	Materials []*line.Material
	Surfaces  []*line.Surface
	Fittings  []*FittingKind
	Tasks     []*Task
	Cautions  []Caution
	Weights   map[string]Weights
	// Facts are what use says of hitches.
	Facts []hold.Fact

	use *hold.Table
}

// Learn makes the table of what use teaches from the facts; [Vocabulary.Use] gives it.
func (t *Vocabulary) Learn() { t.use = hold.NewTable(t.Facts, t.Surfaces) }

// Use answers how likely a hitch holds, from the facts of use.
func (t *Vocabulary) Use() *hold.Table { return t.use }

// Material, Surface, Fitting, Task find an entry by id; nil if there is none.
func (t *Vocabulary) Material(id string) *line.Material {
	return find(t.Materials, func(m *line.Material) bool { return m.ID == id })
}

func (t *Vocabulary) Surface(id string) *line.Surface {
	return find(t.Surfaces, func(s *line.Surface) bool { return s.ID == id })
}

func (t *Vocabulary) Fitting(id string) *FittingKind {
	return find(t.Fittings, func(f *FittingKind) bool { return f.ID == id })
}

func (t *Vocabulary) Task(id string) *Task {
	return find(t.Tasks, func(k *Task) bool { return k.ID == id })
}

// Caution finds a caution by id.
func (t *Vocabulary) Caution(id string) Caution {
	for _, c := range t.Cautions {
		if c.ID == id {
			return c
		}
	}
	return Caution{}
}

func find[T any](list []*T, is func(*T) bool) *T {
	for _, x := range list {
		if is(x) {
			return x
		}
	}
	return nil
}

// Check reports vocabulary that is incomplete or refers to what does not exist.
func (t *Vocabulary) Check() error {
	var l problem.List
	for i, m := range t.Materials {
		l.Take(fmt.Sprintf("materials.yaml[%d]", i), m.Check())
	}
	for i, s := range t.Surfaces {
		path := fmt.Sprintf("surfaces.yaml[%d]", i)
		if s.ID == "" || s.Name == "" {
			l.Add(path, "has no id or no name", "fill it in")
		}
		l.Take(path+".factor", s.Factor.Check(0.1, 5))
	}
	for i, f := range t.Fittings {
		path := fmt.Sprintf("fittings.yaml[%d]", i)
		if f.ID == "" || f.Name == "" || f.SizeIs == "" || f.DefaultMM <= 0 {
			l.Add(path, "needs id, name, size_is and default_mm", "fill it in")
		}
		if f.Passes != Open && f.Passes != Threads && f.Passes != Stops {
			l.Add(path+".passes", fmt.Sprintf("%q is not known", f.Passes), "write threads or stops, or drop it")
		}
		if t.Surface(f.Surface) == nil {
			l.Add(path+".surface", fmt.Sprintf("%q is not known", f.Surface), "use an id of surfaces.yaml")
		}
	}
	materials, surfaces := ids(t.Materials, func(m *line.Material) string { return m.ID }), ids(t.Surfaces, func(s *line.Surface) string { return s.ID })
	for i, f := range t.Facts {
		l.Take(fmt.Sprintf("facts.yaml[%d]", i), f.Check(materials, surfaces))
	}
	for name, w := range t.Weights {
		if s := w.Sum(); s < 99.999 || s > 100.001 {
			l.Add("weights.yaml."+name, fmt.Sprintf("adds up to %g", s), "make it 100")
		}
	}
	for i, k := range t.Tasks {
		path := fmt.Sprintf("tasks.yaml[%d]", i)
		if !slices.Contains(Groups, k.Group) {
			l.Add(path+".group", fmt.Sprintf("%q is not known", k.Group), fmt.Sprintf("use one of %q", Groups))
		}
		if k.ID == "" || k.Name == "" {
			l.Add(path, "has no id or no name", "fill it in")
		}
		if _, ok := t.Weights[k.Weights]; !ok {
			l.Add(path+".weights", fmt.Sprintf("%q is not known", k.Weights), "use a name of weights.yaml")
		}
		if k.Between == ToFitting && t.Fitting(k.Fitting) == nil {
			l.Add(path+".fitting", fmt.Sprintf("%q is not known", k.Fitting), "use an id of fittings.yaml")
		}
		if m := t.Material(k.Start.Material); m == nil || !m.Makes(k.Start.Construction) || k.Start.PeakKN <= 0 {
			l.Add(path+".start", "has no known material and construction, or no load", "correct it")
		}
		for _, f := range k.Fittings {
			if t.Fitting(f) == nil {
				l.Add(path+".fittings", fmt.Sprintf("%q is not known", f), "use an id of fittings.yaml")
			}
		}
		for _, c := range k.Cautions {
			if t.Caution(c).ID == "" {
				l.Add(path+".cautions", fmt.Sprintf("%q is not known", c), "use an id of cautions.yaml")
			}
		}
	}
	return l.Err()
}

// surfaceFactor is the friction factor of a surface; a rope is its own surface.
func (t *Vocabulary) surfaceFactor(id string) evidence.Figure {
	if s := t.Surface(id); s != nil {
		return s.Factor
	}
	return evidence.Figure{Interval: evidence.Exactly(1)}
}

// FittingUse is a fitting of a rig.
type FittingUse struct {
	Kind   *FittingKind
	Size   unit.Length
	Factor evidence.Figure
	// Surface is its id.
	Surface string
}
