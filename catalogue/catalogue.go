// Package catalogue holds what the trade knows as data files: materials,
// surfaces, fittings, tasks, weights, cautions, knots and their drawings. They
// are embedded, read once and checked; an error names the file and the field.
package catalogue

import (
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"maps"
	"path"
	"slices"
	"strings"
	"sync"

	"github.com/goccy/go-yaml"

	"oarweed/core/friction"
	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/shape"
)

//go:embed *.yaml knots shapes second
var files embed.FS

// Catalogue is everything known, in the order of the files.
type Catalogue struct {
	rig.Terms
	Knots []*knot.Knot
	// Schools are the questions on which practitioners disagree.
	Schools []*knot.Question
	// written are the knots as the files have them, before any school.
	written []*knot.Knot
	kin     []Kin
	// Shackle is what a soft shackle can be made of.
	Shackle Shackle
	// Procedures are the jobs that are more than a knot.
	Procedures []*Procedure
	// Templates are rigs to begin with.
	Templates []Template
	shapes    map[string]func() (*shape.Shape, error)
	proofs    map[string][]Proof
	// drillNames are read with the rest, drills worked out when first asked for.
	drillNames map[string][]DrillName
	drills     *sync.Map
}

// Load reads the built-in catalogue.
func Load() (*Catalogue, error) { return LoadFrom(files) }

// LoadFrom reads a catalogue from a file system laid out as this folder.
func LoadFrom(f fs.FS) (*Catalogue, error) {
	c := &Catalogue{shapes: map[string]func() (*shape.Shape, error){}, drills: &sync.Map{}}
	var l problem.List
	read := func(name string, into any) {
		text, err := fs.ReadFile(f, name)
		if err == nil {
			err = yaml.UnmarshalWithOptions(text, into, yaml.Strict())
		}
		if err != nil {
			l.Add(name, plain(err), "correct the file")
		}
	}
	read("materials.yaml", &c.Materials)
	read("surfaces.yaml", &c.Surfaces)
	read("fittings.yaml", &c.Fittings)
	read("tasks.yaml", &c.Tasks)
	read("weights.yaml", &c.Weights)
	read("cautions.yaml", &c.Cautions)
	read("schools.yaml", &c.Schools)
	read("kin.yaml", &c.kin)
	read("shackle.yaml", &c.Shackle)
	read("procedures.yaml", &c.Procedures)
	read("templates.yaml", &c.Templates)
	read("proofs.yaml", &c.proofs)
	read("drills.yaml", &c.drillNames)
	names, _ := fs.Glob(f, "knots/*.yaml")
	for _, name := range names {
		k := &knot.Knot{}
		read(name, k)
		if k.ID != "" && name != "knots/"+k.ID+".yaml" {
			l.Add(name, fmt.Sprintf("holds the knot %q", k.ID), "name the file after the knot")
		}
		c.Knots = append(c.Knots, k)
		k.Shape = c.readShape(f, k.ID, len(k.Steps))
		for i, fault := range k.Faults {
			if fault.Drawing != "" && c.readShape(f, fault.Drawing, 0) == "" {
				l.Add(fmt.Sprintf("%s.faults[%d].drawing", name, i), fmt.Sprintf("there is no shapes/%s.knot", fault.Drawing), "draw it, or drop the field")
			}
		}
	}
	if len(c.Knots) == 0 {
		l.Add("knots", "no knots found", "add a file to knots/")
	}
	if err := l.Err(); err != nil {
		return nil, err
	}
	l.Take("", c.Terms.Check())
	v := c.vocabulary()
	for _, k := range c.Knots {
		l.Take("knots/"+path.Base(k.ID)+".yaml", k.Check(v))
	}
	c.written = c.Knots
	if l.Err() == nil {
		c.checkSchools(&l)
		c.checkKin(&l)
		c.checkShackle(&l)
		c.checkProcedures(&l)
		c.checkTemplates(&l)
	}
	if err := l.Err(); err != nil {
		return nil, err
	}
	// What is not chosen is taught the usual way.
	return c.Of(nil)
}

// readShape makes a drawing known by its id and gives its text, empty if there is
// none. It is laid out when it is first asked for; steps, if not 0, is how many it
// must have.
func (c *Catalogue) readShape(f fs.FS, id string, steps int) string {
	text, err := fs.ReadFile(f, "shapes/"+id+".knot")
	if err != nil {
		return ""
	}
	c.shapes[id] = sync.OnceValues(func() (*shape.Shape, error) {
		sh, err := shape.Load(string(text))
		if err == nil && steps != 0 && sh.Steps() != steps {
			err = problem.New("", fmt.Sprintf("draws %d steps, but the knot has %d in words", sh.Steps(), steps), "make them agree")
		}
		return sh, err
	})
	return string(text)
}

// Drawings lists the ids of all drawings: of the knots and of their faulty forms.
func (c *Catalogue) Drawings() []string {
	return slices.Sorted(maps.Keys(c.shapes))
}

// plain strips the source excerpt that the YAML reader adds.
func plain(err error) string {
	var p *fs.PathError
	if errors.As(err, &p) {
		return "cannot be read"
	}
	return strings.SplitN(err.Error(), "\n", 2)[0]
}

func (c *Catalogue) vocabulary() knot.Vocabulary {
	var v knot.Vocabulary
	for _, t := range c.Tasks {
		v.Tasks = append(v.Tasks, t.ID)
	}
	for _, f := range c.Fittings {
		v.Fittings = append(v.Fittings, f.ID)
	}
	for _, m := range c.Materials {
		v.Materials = append(v.Materials, m.ID)
	}
	for _, q := range c.Cautions {
		v.Cautions = append(v.Cautions, q.ID)
	}
	v.Hitches = friction.IDs()
	return v
}

// Knot finds a knot by id; nil if there is none.
func (c *Catalogue) Knot(id string) *knot.Knot {
	for _, k := range c.Knots {
		if k.ID == id {
			return k
		}
	}
	return nil
}

// Drawing gives the laid-out shape of a knot, or of a faulty form, by its id; nil
// if there is none.
func (c *Catalogue) Drawing(id string) (*shape.Shape, error) {
	load, ok := c.shapes[id]
	if !ok {
		return nil, nil
	}
	sh, err := load()
	if err != nil {
		return nil, fmt.Errorf("shapes/%s.knot: %w", id, err)
	}
	return sh, nil
}
