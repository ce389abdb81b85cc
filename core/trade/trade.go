// Package trade is what the trade knows, ready to be asked: materials, surfaces,
// fittings, tasks, knots with their drawings and proofs, jobs, and the doctrines on
// which practitioners differ, each by its id. It knows no file: package catalogue
// reads the data and hands it over to [New], which checks it as a whole.
//
// A Catalogue does not change. [Catalogue.WithDoctrines] gives another one in which
// some knots are tied another way; it costs microseconds.
package trade

import (
	"fmt"
	"oarweed/core/bench"
	"slices"
	"strings"

	"oarweed/core/friction"
	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/shape"
	"oarweed/core/shape/source"
)

// Catalogue is everything known, in the order of the data.
type Catalogue struct {
	rig.Vocabulary
	*Drawings
	Knots []*knot.Knot
	// Questions are those on which practitioners disagree.
	Questions []*knot.Question
	Kin       []Kin
	// Sets are named lists of knots, Lessons those to begin with.
	Sets    []KnotSet
	Lessons []LessonKind
	// Teaching is how each knot is told, by id; New puts it into the knots.
	Teaching map[string]knot.Told
	// Words are the glossary.
	Words []Word
	// Claims are what is disputed and can be pulled, Failures what a broken piece tells.
	Claims   []bench.Claim
	Failures []bench.Failure
	// Shackle is what a soft shackle can be made of.
	Shackle Shackle
	// Procedures are the jobs that are more than a knot.
	Procedures []*Procedure
	// Templates are rigs to begin with.
	Templates []Template
	// Method is the text of the page of every formula and source, with blanks for its
	// tables.
	Method string
	// Taught is the fingerprint of the doctrines by which it is seen: equal where what is
	// taught is equal.
	Taught string

	written []*knot.Knot // as the data has them, before any doctrine
	byID    map[string]*knot.Knot
}

// New checks a catalogue and gives it as the usual doctrines see it. Errors name
// the data file and the field.
func New(c Catalogue) (*Catalogue, error) {
	var l problem.List
	if len(c.Knots) == 0 {
		l.Add("knots", "no knots found", "add a file to knots/")
		return nil, l.Err()
	}
	c.written = c.Knots
	c.index()
	if c.Drawings != nil {
		c.drawnUp(&l)
	}
	c.tell(&l)
	l.Take("", c.Vocabulary.Check())
	c.Learn()
	v := c.words()
	for _, k := range c.Knots {
		l.Take("knots/"+k.ID+".yaml", k.Check(v))
		for i, fault := range k.Faults {
			if fault.Drawing != "" && !c.Drawn(fault.Drawing) {
				l.Add(fmt.Sprintf("knots/%s.yaml.faults[%d].drawing", k.ID, i), fmt.Sprintf("there is no shapes/%s.knot", fault.Drawing), "draw it, or drop the field")
			}
			if fault.Right != "" && !c.Drawn(fault.Right) {
				l.Add(fmt.Sprintf("knots/%s.yaml.faults[%d].right", k.ID, i), fmt.Sprintf("there is no shapes/%s.knot", fault.Right), "draw it, or drop the field")
			}
		}
	}
	if l.Err() == nil {
		c.checkDoctrines(&l)
		c.checkKin(&l)
		c.checkSets(&l)
		c.checkWords(&l)
		c.checkShackle(&l)
		for i, x := range c.Claims {
			l.Take(fmt.Sprintf("claims.yaml[%d]", i), x.Check(func(id string) bool { return c.Knot(id) != nil }, v.Materials))
		}
		for i, x := range c.Failures {
			if x.ID == "" || x.Seen == "" || x.Cause == "" || x.Prove == "" || x.Cure == "" {
				l.Add(fmt.Sprintf("failures.yaml[%d]", i), "is not told whole", "give id, seen, cause, prove and cure")
			}
		}
		c.checkProcedures(&l)
		c.checkTemplates(&l)
	}
	if err := l.Err(); err != nil {
		return nil, err
	}
	return c.WithDoctrines(nil)
}

// slips is how many mistakes of beginners are told of each knot.
const slips = 3

// tell puts how it is told into each knot.
func (c *Catalogue) tell(l *problem.List) {
	for _, k := range c.Knots {
		k.Told = c.Teaching[k.ID]
		if t := k.Told; t.Why == "" || t.Aid == "" || t.Undo == "" || t.Try == "" || len(t.Slips) != slips {
			l.Add("teaching.yaml."+k.ID, "is not told whole", fmt.Sprintf("give why, aid, undo, try and %d slips", slips))
		}
		for i, w := range k.Told.Drawn {
			at := fmt.Sprintf("teaching.yaml.%s.drawn[%d]", k.ID, i)
			if w.Name == "" || len(w.Steps) == 0 {
				l.Add(at, "is not told whole", "give a name, its steps and its drawing")
			}
			if !c.Drawn(w.Drawing) {
				l.Add(at+".drawing", fmt.Sprintf("%q is not drawn", w.Drawing), "draw it in shapes")
			}
		}
	}
	for id := range c.Teaching {
		if c.Knot(id) == nil {
			l.Add("teaching.yaml."+id, "is not a knot here", "use a knot id")
		}
	}
}

// drawnUp puts what is computed of a knot's line and thickness in the place of what is
// remembered. A knot whose wraps the tyer chooses is drawn with fewer of them than are tied, and
// so are some others;
// of a hitch the computed thickness has the thing in it that it is made on.
func (c *Catalogue) drawnUp(l *problem.List) {
	for _, k := range c.Knots {
		b, err := c.Snug(k.ID)
		l.Take("", err)
		k.DrawnUp = b != nil && b.Computed
		if !k.DrawnUp || k.Wraps != nil || c.Dressing(k.ID).Shown {
			continue
		}
		eye := k.Kind == knot.Loop || k.Kind == knot.Terminal
		if line := b.Line(k.Uses.Turns, eye); line > 0 {
			k.Uses.Remembered, k.Uses.Diameters = k.Uses.Diameters, line
		}
		if eye || !b.OnThing() {
			k.Remembered, k.Bulk = k.Bulk, b.Bulk.Across
		}
	}
}

func (c *Catalogue) index() {
	c.byID = make(map[string]*knot.Knot, len(c.Knots))
	for _, k := range c.Knots {
		c.byID[k.ID] = k
	}
}

// Knot finds a knot by id; nil if there is none.
func (c *Catalogue) Knot(id string) *knot.Knot { return c.byID[id] }

// BackupOf is the knot that backs the end of another up in a joint; nil where none is
// asked for: people depend on it, or the school always backs up.
func (c *Catalogue) BackupOf(r *rig.Rig, k *knot.Knot) *knot.Knot {
	if k.Backup == "" || r.Consequence != rig.Person && !k.BackupAlways {
		return nil
	}
	return c.Knot(k.Backup)
}

// Drawing gives the laid-out shape of a knot as the chosen doctrines tie it, or of a
// faulty form, by its id; nil if there is none.
func (c *Catalogue) Drawing(id string) (*shape.Shape, error) {
	if k := c.Knot(id); k != nil && k.Drawing != "" {
		id = k.Drawing
	}
	return c.Drawings.Drawing(id)
}

// forms of what fittings are drawn as.
var forms = map[string]source.Form{"ring": source.Round, "clew": source.Round, "post": source.Upright, "bollard": source.Upright, "rail": source.Level}

// DrawingOn gives the drawing of a knot on what a fitting is drawn as, and whether it is
// to be turned by a quarter so that a bar stands, or lies, as that one does. Where the
// knot is not drawn on such a thing, it is drawn as it is.
func (c *Catalogue) DrawingOn(id, drawnAs string) (sh *shape.Shape, quarter bool, err error) {
	form, ok := forms[drawnAs]
	if !ok {
		sh, err = c.Drawing(id)
		return sh, false, err
	}
	if k := c.Knot(id); k != nil && k.Drawing != "" {
		id = k.Drawing
	}
	bar := func(f source.Form) bool { return f == source.Upright || f == source.Level }
	if sh, err = c.Drawings.DrawingOn(id, form); err != nil || sh == nil {
		return sh, false, err
	}
	is := func(f source.Form) bool {
		return slices.ContainsFunc(sh.Objects, func(o source.Object) bool { return o.Form() == f && o.Turns() })
	}
	if !bar(form) || is(form) {
		return sh, false, nil
	}
	// The other kind of bar, turned.
	other := source.Upright + source.Level - form
	if !is(other) {
		if sh, err = c.Drawings.DrawingOn(id, other); err != nil {
			return nil, false, err
		}
	}
	return sh, is(other), nil
}

// Seating is which strands of a knot's drawing are held and which are drawn when it is set.
func Seating(k *knot.Knot, sh *shape.Shape) (hold, draw []shape.Strand, err error) {
	if hold, err = sh.Strands(k.Told.Hold); err != nil {
		return nil, nil, err
	}
	draw, err = sh.Strands(k.Told.Draw)
	return hold, draw, err
}

// FaultTitle names the drawing of a faulty form, or of the right one beside it.
func (c *Catalogue) FaultTitle(drawing string) string {
	for _, k := range c.Knots {
		for _, f := range k.Faults {
			if f.Drawing == drawing {
				return k.Name + ", gone wrong: " + f.Name
			}
			if f.Right == drawing {
				return k.Name + ", done right"
			}
		}
	}
	return drawing
}

// CautionsOf gives a knot's cautions in full.
func (c *Catalogue) CautionsOf(k *knot.Knot) []rig.Caution { return c.CautionTexts(k.Cautions) }

// CautionsFor gives the cautions that belong to a joint whatever it is tied with.
func (c *Catalogue) CautionsFor(r *rig.Rig) []rig.Caution {
	var ids []string
	if r.Consequence == rig.Person {
		ids = append(ids, "person")
	}
	ids = append(append(append(ids, "strength"), r.Task.Cautions...), "memory-figures")
	return c.CautionTexts(ids)
}

// CautionTexts gives cautions in full, by their ids.
func (c *Catalogue) CautionTexts(ids []string) []rig.Caution {
	out := make([]rig.Caution, 0, len(ids))
	for _, id := range ids {
		out = append(out, c.Caution(id))
	}
	return out
}

// words is what a knot may refer to.
func (c *Catalogue) words() knot.Vocabulary {
	var v knot.Vocabulary
	for _, f := range []*rig.Field{rig.FieldOf(rig.WholeRig, "water"), rig.FieldOf(rig.JointPart, "stay"), rig.FieldOf(rig.JointPart, "pull")} {
		for _, x := range f.Values {
			v.Circumstances = append(v.Circumstances, x.ID)
		}
	}
	for _, t := range c.Tasks {
		v.Tasks = append(v.Tasks, t.ID)
	}
	for _, f := range c.Fittings {
		v.Fittings = append(v.Fittings, f.ID)
	}
	for _, m := range c.Materials {
		v.Materials = append(v.Materials, m.ID)
	}
	for _, x := range c.Surfaces {
		v.Surfaces = append(v.Surfaces, x.ID)
	}
	for _, q := range c.Cautions {
		v.Cautions = append(v.Cautions, q.ID)
	}
	v.Hitches = friction.IDs()
	return v
}

// FaultPlaces are where faults of a knot are seen on its drawing, by code, in the units of
// the drawing: where a drawn fault is ringed, and the working end for what is wrong with
// a tail. A fault that has no one place is left out.
func (c *Catalogue) FaultPlaces(k *knot.Knot) map[string][]float64 {
	out := map[string][]float64{}
	sh, err := c.Drawing(k.ID)
	if err != nil || sh == nil {
		return out
	}
	for _, f := range k.Faults {
		if f.Drawing != "" {
			if wrong, err := c.Drawings.Drawing(f.Drawing); err == nil && wrong != nil && len(wrong.Ringed) > 0 {
				out[f.Code] = []float64{wrong.Ringed[0].At.X, wrong.Ringed[0].At.Y}
				continue
			}
		}
		if strings.Contains(f.Code, "tail") {
			rope := sh.Curves[len(sh.Curves)-1]
			end := rope.Points[len(rope.Points)-1]
			out[f.Code] = []float64{end.X, end.Y}
		}
	}
	return out
}
