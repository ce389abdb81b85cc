// Package catalogue holds what the trade knows as data files: materials, surfaces,
// fittings, tasks, weights, cautions, knots and their drawings. They are embedded,
// read once and handed to package trade; an error names the file and the field.
// docs/adding.md says how to add to it. Nothing in core imports this package.
package catalogue

import (
	"bytes"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"path"
	"strings"
	"sync"

	"go.yaml.in/yaml/v3"

	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/trade"
)

//go:embed *.yaml method.md knots shapes second snug starts words
var files embed.FS

// Load reads the built-in catalogue.
func Load() (*trade.Catalogue, error) { return LoadFrom(files) }

// LoadFrom reads a catalogue from a file system laid out as this folder. Files are
// read side by side: parsing them is nearly all the work.
func LoadFrom(f fs.FS) (*trade.Catalogue, error) {
	var c trade.Catalogue
	var src trade.DrawingSources
	names, _ := fs.Glob(f, "knots/*.yaml")
	c.Knots = make([]*knot.Knot, len(names))
	into := map[string]any{
		"materials.yaml": &c.Materials, "surfaces.yaml": &c.Surfaces, "fittings.yaml": &c.Fittings, "tasks.yaml": &c.Tasks,
		"weights.yaml": &c.Weights, "cautions.yaml": &c.Cautions, "doctrines.yaml": &c.Questions, "kin.yaml": &c.Kin, "sets.yaml": &c.Sets, "lessons.yaml": &c.Lessons, "teaching.yaml": &c.Teaching, "glossary.yaml": &c.Words, "claims.yaml": &c.Claims, "failures.yaml": &c.Failures,
		"shackle.yaml": &c.Shackle, "procedures.yaml": &c.Procedures, "facts.yaml": &c.Facts, "templates.yaml": &c.Templates,
		"proofs.yaml": &src.Proofs, "drills.yaml": &src.DrillNames, "ends.yaml": &src.Ends, "undrilled.yaml": &src.Undrilled, "dressing.yaml": &src.Dressings,
	}
	for i, name := range names {
		c.Knots[i] = &knot.Knot{}
		into[name] = c.Knots[i]
	}
	var l problem.List
	var hand sync.Mutex
	var all sync.WaitGroup
	for name, v := range into {
		all.Go(func() {
			text, err := fs.ReadFile(f, name)
			if err == nil {
				d := yaml.NewDecoder(bytes.NewReader(text))
				d.KnownFields(true)
				err = d.Decode(v)
			}
			if err != nil {
				hand.Lock()
				l.Add(name, plain(err), "correct the file")
				hand.Unlock()
			}
		})
	}
	src.Shapes, src.Models = texts(f, "shapes", ".knot"), texts(f, "second", ".space")
	src.Words = texts(f, "words", ".knot")
	src.Snug = texts(f, "snug", ".json")
	src.Starts = texts(f, "starts", ".space")
	all.Wait()
	src.Steps = map[string]int{}
	for i, k := range c.Knots {
		if k.ID != "" && names[i] != "knots/"+k.ID+".yaml" {
			l.Add(names[i], fmt.Sprintf("holds the knot %q", k.ID), "name the file after the knot")
		}
		k.Shape = src.Shapes[k.ID]
		src.Knots = append(src.Knots, k.ID)
		src.Steps[k.ID] = len(k.Steps)
		for _, w := range c.Teaching[k.ID].Drawn {
			src.Steps[w.Drawing] = len(w.Steps)
		}
	}
	if text, err := fs.ReadFile(f, "method.md"); err == nil {
		c.Method = string(text)
	} else {
		l.Add("method.md", plain(err), "put it back")
	}
	if err := l.Err(); err != nil {
		return nil, err
	}
	c.Drawings = trade.NewDrawings(src)
	return trade.New(c)
}

// texts reads a folder of text files, by name without extension.
func texts(f fs.FS, dir, ext string) map[string]string {
	out := map[string]string{}
	names, _ := fs.Glob(f, dir+"/*"+ext)
	for _, name := range names {
		if text, err := fs.ReadFile(f, name); err == nil {
			out[strings.TrimSuffix(path.Base(name), ext)] = string(text)
		}
	}
	return out
}

// plain says what the YAML reader found wrong, and in which line.
func plain(err error) string {
	var p *fs.PathError
	var t *yaml.TypeError
	switch {
	case errors.As(err, &p):
		return "cannot be read"
	case errors.As(err, &t):
		return strings.Join(t.Errors, "; ")
	}
	return strings.TrimPrefix(err.Error(), "yaml: ")
}
