package trade

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/shape"
)

// Kin says that who can tie From has part of To, and why. Both: also the other
// way round. Needs: To is not taught before From where both are.
type Kin struct {
	From, To, Why string
	Both, Needs   bool
}

// KnotSet is a named list of knots.
type KnotSet struct {
	ID    string   `json:"id"`
	Name  string   `json:"name"`
	Why   string   `json:"why"`
	Knots []string `json:"knots" nullable:"false"`
}

// Word is one of the trade's, with a picture where one helps: a drawing of its own, or a knot's.
type Word struct {
	ID      string   `json:"id"`
	Word    string   `json:"word"`
	Also    []string `json:"also,omitempty" nullable:"false"`
	Says    string   `json:"says"`
	Picture string   `json:"picture,omitempty"`
	Knot    string   `json:"knot,omitempty"`
}

// WordShape is the drawing of a word, its own or a knot's; nil if it has none.
func (c *Catalogue) WordShape(w Word) (*shape.Shape, error) {
	if w.Picture != "" {
		return c.WordDrawing(w.Picture)
	}
	return c.Drawing(w.Knot)
}

// WordsIn are the words of the glossary that the steps and checks of some knots use.
func (c *Catalogue) WordsIn(knots []*knot.Knot) []Word {
	var said strings.Builder
	for _, k := range knots {
		said.WriteString(strings.Join(append(slices.Clone(k.Steps), k.Checks...), " ") + " ")
	}
	text := said.String()
	var out []Word
	for _, w := range c.Words {
		forms := append([]string{w.Word}, w.Also...)
		for i := range forms {
			forms[i] = regexp.QuoteMeta(forms[i])
		}
		if regexp.MustCompile(`(?i)\b(` + strings.Join(forms, "|") + `)\b`).MatchString(text) {
			out = append(out, w)
		}
	}
	return out
}

func (c *Catalogue) checkWords(l *problem.List) {
	for i, w := range c.Words {
		at := fmt.Sprintf("glossary.yaml[%d]", i)
		if w.ID == "" || w.Word == "" || w.Says == "" {
			l.Add(at, "needs an id, a word and what it says", "fill it in")
		}
		if w.Knot != "" && c.Knot(w.Knot) == nil {
			l.Add(at+".knot", fmt.Sprintf("%q is not a knot here", w.Knot), "use a knot id")
		}
		if w.Picture != "" {
			if sh, err := c.WordDrawing(w.Picture); err != nil || sh == nil {
				l.Add(at+".picture", fmt.Sprintf("there is no words/%s.knot that can be drawn", w.Picture), "draw it, or drop the field")
			}
		}
	}
}

// LessonKind is a lesson to begin with.
type LessonKind struct {
	ID       string   `json:"id"`
	Name     string   `json:"name"`
	Minutes  int      `json:"minutes"`
	Learners int      `json:"learners"`
	Helpers  int      `json:"helpers"`
	Place    string   `json:"place" enum:"indoors,quay,afloat"`
	Knots    []string `json:"knots" nullable:"false"`
}

// checkSets holds the named sets and lessons against the knots.
func (c *Catalogue) checkSets(l *problem.List) {
	known := func(path string, ids []string) {
		if len(ids) == 0 {
			l.Add(path, "holds no knot", "name some")
		}
		for _, id := range ids {
			if c.Knot(id) == nil {
				l.Add(path, fmt.Sprintf("%q is not a knot here", id), "use a knot id")
			}
		}
	}
	for _, s := range c.Sets {
		known("sets.yaml."+s.ID, s.Knots)
	}
	for _, x := range c.Lessons {
		known("lessons.yaml."+x.ID, x.Knots)
	}
}

// Relative is a knot that shares its structure with another.
type Relative struct {
	Knot string `json:"knot"`
	Name string `json:"name"`
	Why  string `json:"why"`
}

// GrowsFrom lists the knots that help with learning k.
func (c *Catalogue) GrowsFrom(k string) []Relative { return c.relatives(k, true) }

// LeadsTo lists the knots that k helps with.
func (c *Catalogue) LeadsTo(k string) []Relative { return c.relatives(k, false) }

func (c *Catalogue) relatives(k string, back bool) []Relative {
	out := []Relative{}
	for _, x := range c.Kin {
		other := ""
		switch {
		case x.To == k && (back || x.Both):
			other = x.From
		case x.From == k && (!back || x.Both):
			other = x.To
		default:
			continue
		}
		out = append(out, Relative{other, c.Knot(other).Name, x.Why})
	}
	return out
}

func (c *Catalogue) checkKin(l *problem.List) {
	for i, x := range c.Kin {
		for _, id := range []string{x.From, x.To} {
			if c.Knot(id) == nil {
				l.Add(fmt.Sprintf("kin.yaml[%d]", i), fmt.Sprintf("%q is not a knot here", id), "use a knot id")
			}
		}
		if x.From == x.To || x.Why == "" {
			l.Add(fmt.Sprintf("kin.yaml[%d]", i), "needs two knots and a reason", "fill it in")
		}
	}
}
