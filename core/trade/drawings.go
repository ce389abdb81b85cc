package trade

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"sync"

	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/shape"
	"oarweed/core/shape/source"
	"oarweed/core/shape/space"
	"oarweed/core/shape/trace"
	"oarweed/core/snug"
)

// DrawingSources are the texts that drawings are made of, by id.
type DrawingSources struct {
	// Shapes are the sources of drawings, Models those of models in space.
	Shapes, Models map[string]string
	// Words are the sources of drawings that explain a word.
	Words map[string]string
	// Snug are the knots drawn up, as package snug writes them.
	Snug map[string]string
	// Dressings say how hands set a knot, Starts are models in space from which some are
	// drawn up instead of from their drawing.
	Dressings map[string]snug.Dressing
	Starts    map[string]string
	// Knots are the ids of the knots; Steps is how many steps a drawing has in words; 0 or
	// absent: any number.
	Knots []string
	Steps map[string]int
	// Proofs are what closures must be, DrillNames what tangles are called.
	Proofs     map[string][]Proof
	DrillNames map[string][]DrillName
	Ends       EndsNot
	// Undrilled are the knots without a crossing drill, and why.
	Undrilled map[string]string
}

// Drawings are the drawings of knots and of their faulty forms, laid out when they
// are first asked for. Several goroutines may ask at once.
type Drawings struct {
	src    DrawingSources
	shapes map[string]func() (*shape.Shape, error)
	words  map[string]func() (*shape.Shape, error)
	drills map[string]func() (*namedDrill, error)
	snug   map[string]func() (*snug.Built, error)
	// on keeps the drawings on other objects, by id and form, once they are asked for.
	on sync.Map
	// tracings are all drawings as they would be traced, worked out when one is first named.
	tracings func() (*trace.Index, error)
}

// NewDrawings makes drawings known by their sources.
func NewDrawings(src DrawingSources) *Drawings {
	d := &Drawings{src: src, shapes: map[string]func() (*shape.Shape, error){}, words: map[string]func() (*shape.Shape, error){}, drills: map[string]func() (*namedDrill, error){}, snug: map[string]func() (*snug.Built, error){}}
	for id, text := range src.Shapes {
		d.shapes[id] = sync.OnceValues(func() (*shape.Shape, error) {
			sh, err := shape.Load(text)
			if steps := src.Steps[id]; err == nil && steps != 0 && sh.Steps() != steps {
				err = problem.New("", fmt.Sprintf("draws %d steps, but the knot has %d in words", sh.Steps(), steps), "make them agree")
			}
			return sh, err
		})
	}
	for id, text := range src.Words {
		d.words[id] = sync.OnceValues(func() (*shape.Shape, error) { return shape.Load(text) })
	}
	for id, text := range src.Snug {
		d.snug[id] = sync.OnceValues(func() (*snug.Built, error) { return snug.Read([]byte(text)) })
	}
	for _, id := range src.Knots {
		if src.Shapes[id] == "" || src.Undrilled[id] != "" {
			continue
		}
		d.drills[id] = sync.OnceValues(func() (*namedDrill, error) { return d.newDrill(id) })
	}
	d.tracings = sync.OnceValues(func() (*trace.Index, error) { return trace.NewIndex(d.DrawingIDs(), d.Drawing) })
	return d
}

// Snug gives a knot drawn up; nil if nobody has tried.
func (d *Drawings) Snug(id string) (*snug.Built, error) {
	load, ok := d.snug[id]
	if !ok {
		return nil, nil
	}
	b, err := load()
	if err != nil {
		return nil, fmt.Errorf("snug/%s.json: %w", id, err)
	}
	return b, nil
}

// Dressing says how hands set a knot, and why it is not drawn up if it is not.
func (d *Drawings) Dressing(id string) snug.Dressing { return d.src.Dressings[id] }

// Start gives the strands with which drawing a knot up begins: its model where there is
// one, which must be the same knot as its drawing, else the drawing in space. Their lengths
// are in diameters of the first rope.
func (d *Drawings) Start(id string, eye bool) ([]snug.Strand, error) {
	sh, err := d.Drawing(id)
	if err != nil {
		return nil, err
	}
	text, ok := d.src.Starts[id]
	if !ok {
		return snug.Lift(sh, eye), nil
	}
	m, err := space.Parse(text)
	if err == nil {
		err = m.Matches(sh)
	}
	if err != nil {
		return nil, fmt.Errorf("starts/%s.space: %w", id, err)
	}
	return snug.Laid(m), nil
}

// DrawUp draws a knot up as hands set it; eye: it is a loop, kept open. What fails is said
// in it.
func (d *Drawings) DrawUp(id string, eye bool) *snug.Built {
	start, err := d.Start(id, eye)
	if err != nil {
		return &snug.Built{ID: id, Why: err.Error()}
	}
	return snug.Build(id, start, d.Dressing(id).Set)
}

// Drawn reports whether there is a drawing by this id.
func (d *Drawings) Drawn(id string) bool { return d.shapes[id] != nil }

// DrawingIDs lists the ids of all drawings: of the knots and of their faulty forms.
func (d *Drawings) DrawingIDs() []string { return slices.Sorted(maps.Keys(d.shapes)) }

// DrawingOn gives the shape on an object of that form where its source has one, else as
// it is; nil if there is none.
func (d *Drawings) DrawingOn(id string, form source.Form) (*shape.Shape, error) {
	sh, err := d.Drawing(id)
	if err != nil || sh == nil {
		return nil, err
	}
	type key struct {
		id   string
		form source.Form
	}
	load, _ := d.on.LoadOrStore(key{id, form}, sync.OnceValues(func() (*shape.Shape, error) { return sh.On(form) }))
	out, err := load.(func() (*shape.Shape, error))()
	if err != nil {
		return nil, fmt.Errorf("shapes/%s.knot, else: %w", id, err)
	}
	return out, nil
}

// WayDrawing gives the drawing of another way to a knot; the error lists those it has.
func (c *Catalogue) WayDrawing(k *knot.Knot, id string) (*shape.Shape, error) {
	var has []string
	for _, w := range k.Told.Drawn {
		if w.Drawing == id {
			return c.Drawing(id)
		}
		has = append(has, w.Drawing)
	}
	if len(has) == 0 {
		return nil, problem.New("way", "there is no other way drawn to the "+strings.ToLower(k.Name), "leave it out")
	}
	return nil, problem.New("way", fmt.Sprintf("%q is no way to the %s", id, strings.ToLower(k.Name)), "use "+strings.Join(has, ", "))
}

// WordDrawing gives the drawing that explains a word; nil if there is none.
func (d *Drawings) WordDrawing(id string) (*shape.Shape, error) {
	load, ok := d.words[id]
	if !ok {
		return nil, nil
	}
	sh, err := load()
	if err != nil {
		return nil, fmt.Errorf("words/%s.knot: %w", id, err)
	}
	return sh, nil
}

// Drawing gives the laid-out shape of a knot, or of a faulty form, by its id; nil
// if there is none.
func (d *Drawings) Drawing(id string) (*shape.Shape, error) {
	load, ok := d.shapes[id]
	if !ok {
		return nil, nil
	}
	sh, err := load()
	if err != nil {
		return nil, fmt.Errorf("shapes/%s.knot: %w", id, err)
	}
	return sh, nil
}
