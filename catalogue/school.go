package catalogue

import (
	"fmt"
	"slices"

	"oarweed/core/knot"
	"oarweed/core/problem"
)

// Of is the catalogue as some schools see it: choices maps question ids to school
// ids; a question that is left out keeps its default. Drawings, proofs and drills
// are shared with the original. The error names the question.
func (c *Catalogue) Of(choices map[string]string) (*Catalogue, error) {
	var l problem.List
	for q := range choices {
		if c.question(q) == nil {
			l.Add("schools."+q, "is not a question on which schools differ", "see the list of schools")
		}
	}
	out := &Catalogue{Terms: c.Terms, Knots: slices.Clone(c.written), Schools: c.Schools, written: c.written, kin: c.kin,
		Shackle: c.Shackle, Procedures: c.Procedures, Templates: c.Templates,
		shapes: c.shapes, proofs: c.proofs, drillNames: c.drillNames, drills: c.drills}
	for _, q := range c.Schools {
		school := &q.Schools[0]
		if id, ok := choices[q.ID]; ok {
			if school = q.School(id); school == nil {
				l.Add("schools."+q.ID, fmt.Sprintf("%q is not one of its schools", id), "use one of "+schoolIDs(q))
				continue
			}
		}
		for id, change := range school.Change {
			i := slices.IndexFunc(out.Knots, func(k *knot.Knot) bool { return k.ID == id })
			if i < 0 {
				l.Add("schools."+q.ID+"."+school.ID, fmt.Sprintf("changes %q, which is not a knot here", id), "correct schools.yaml")
				continue
			}
			k, err := out.Knots[i].Changed(change, school.Why)
			l.Take("schools."+q.ID+"."+school.ID+"."+id, err)
			out.Knots[i] = k
		}
	}
	return out, l.Err()
}

func (c *Catalogue) question(id string) *knot.Question {
	for _, q := range c.Schools {
		if q.ID == id {
			return q
		}
	}
	return nil
}

func schoolIDs(q *knot.Question) string {
	s := ""
	for i, x := range q.Schools {
		if i > 0 {
			s += ", "
		}
		s += x.ID
	}
	return s
}

// checkSchools tries every school once, so that a change that fits nothing is
// found when the catalogue is read.
func (c *Catalogue) checkSchools(l *problem.List) {
	v := c.vocabulary()
	for _, q := range c.Schools {
		if q.ID == "" || q.Question == "" || len(q.Schools) < 2 {
			l.Add("schools.yaml", fmt.Sprintf("the question %q lacks an id, words or two schools", q.ID), "fill it in")
			continue
		}
		for _, s := range q.Schools {
			if s.ID == "" || s.Name == "" || s.Why == "" {
				l.Add("schools.yaml", "a school of "+q.ID+" lacks id, name or why", "fill it in")
			}
			of, err := c.Of(map[string]string{q.ID: s.ID})
			l.Take("schools.yaml", err)
			if err != nil {
				continue
			}
			for id := range s.Change {
				l.Take("schools.yaml", of.Knot(id).Check(v))
			}
		}
	}
}
