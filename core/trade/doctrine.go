package trade

import (
	"fmt"
	"slices"

	"oarweed/core/knot"
	"oarweed/core/problem"
)

// WithDoctrines is the catalogue as those who hold some doctrines see it: choices
// maps question ids to doctrine ids; a question that is left out keeps its default.
// Drawings, proofs and drills are shared with the original. The error names the
// question.
func (c *Catalogue) WithDoctrines(choices map[string]string) (*Catalogue, error) {
	var l problem.List
	for q := range choices {
		if c.question(q) == nil {
			l.Add("doctrines."+q, "is not a question on which practitioners differ", "see the list of doctrines")
		}
	}
	out := *c
	out.Knots = slices.Clone(c.written)
	out.Taught = ""
	for _, q := range c.Questions {
		chosen := &q.Doctrines[0]
		if id, ok := choices[q.ID]; ok {
			if chosen = q.Doctrine(id); chosen == nil {
				l.Add("doctrines."+q.ID, fmt.Sprintf("%q is not one of its doctrines", id), "use one of "+doctrineIDs(q))
				continue
			}
		}
		out.Taught += q.ID + "=" + chosen.ID + ";"
		for id, change := range chosen.Change {
			i := slices.IndexFunc(out.Knots, func(k *knot.Knot) bool { return k.ID == id })
			if i < 0 {
				l.Add("doctrines."+q.ID+"."+chosen.ID, fmt.Sprintf("changes %q, which is not a knot here", id), "correct doctrines.yaml")
				continue
			}
			k, err := out.Knots[i].Changed(change, chosen.Why)
			l.Take("doctrines."+q.ID+"."+chosen.ID+"."+id, err)
			out.Knots[i] = k
		}
	}
	out.index()
	return &out, l.Err()
}

func (c *Catalogue) question(id string) *knot.Question {
	for _, q := range c.Questions {
		if q.ID == id {
			return q
		}
	}
	return nil
}

func doctrineIDs(q *knot.Question) string {
	s := ""
	for i, x := range q.Doctrines {
		if i > 0 {
			s += ", "
		}
		s += x.ID
	}
	return s
}

// checkDoctrines tries every doctrine once, so that a change that fits nothing is
// found when the catalogue is read.
func (c *Catalogue) checkDoctrines(l *problem.List) {
	v := c.words()
	for _, q := range c.Questions {
		if q.ID == "" || q.Question == "" || len(q.Doctrines) < 2 {
			l.Add("doctrines.yaml", fmt.Sprintf("the question %q lacks an id, words or two doctrines", q.ID), "fill it in")
			continue
		}
		for _, s := range q.Doctrines {
			if s.ID == "" || s.Name == "" || s.Why == "" {
				l.Add("doctrines.yaml", "a doctrine of "+q.ID+" lacks id, name or why", "fill it in")
			}
			of, err := c.WithDoctrines(map[string]string{q.ID: s.ID})
			l.Take("doctrines.yaml", err)
			if err != nil {
				continue
			}
			for id, change := range s.Change {
				l.Take("doctrines.yaml", of.Knot(id).Check(v))
				if change.Drawing != "" && !c.Drawn(change.Drawing) {
					l.Add("doctrines.yaml", fmt.Sprintf("there is no shapes/%s.knot", change.Drawing), "draw it, or drop the field")
				}
			}
		}
	}
}
