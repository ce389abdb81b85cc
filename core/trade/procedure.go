package trade

import (
	"fmt"
	"slices"
	"strings"

	"oarweed/core/problem"
)

// Procedure is a job that is more than a knot, as a guided card.
type Procedure struct {
	ID       string          `json:"id"`
	Name     string          `json:"name"`
	When     string          `json:"when"`
	Cautions []string        `json:"cautions" nullable:"false"`
	Steps    []ProcedureStep `json:"steps" nullable:"false"`
	// Needs is the task whose lines its computed words come from; empty if none.
	Needs string `json:"needs"`
	// Relieves: riding turns and turns on the winch are worked out for it.
	Relieves bool `json:"relieves,omitempty"`
}

// ProcedureStep is one thing to do; Knot shows the knot it uses.
type ProcedureStep struct {
	Says string `json:"says"`
	Knot string `json:"knot,omitempty"`
}

// Blanks are the words that a procedure may leave to be worked out.
var Blanks = []string{"turns", "winch", "helper", "length"}

func (c *Catalogue) checkProcedures(l *problem.List) {
	v := c.words()
	for _, p := range c.Procedures {
		path := "procedures.yaml." + p.ID
		if p.ID == "" || p.Name == "" || p.When == "" || len(p.Steps) < 2 {
			l.Add(path, "lacks id, name, when or steps", "fill it in")
		}
		if p.Needs != "" && !slices.Contains(v.Tasks, p.Needs) {
			l.Add(path+".needs", fmt.Sprintf("%q is not a task", p.Needs), "use a task id")
		}
		for _, id := range p.Cautions {
			if !slices.Contains(v.Cautions, id) {
				l.Add(path+".cautions", fmt.Sprintf("%q is not a caution", id), "use a caution id")
			}
		}
		for i, s := range p.Steps {
			at := fmt.Sprintf("%s.steps[%d]", path, i)
			if s.Knot != "" && c.Knot(s.Knot) == nil {
				l.Add(at+".knot", fmt.Sprintf("%q is not a knot here", s.Knot), "use a knot id")
			}
			rest := s.Says
			for _, b := range Blanks {
				if strings.Contains(rest, "{"+b+"}") && p.Needs == "" {
					l.Add(at, "leaves {"+b+"} open, but no task is named to work it out from", "name it under needs")
				}
				rest = strings.ReplaceAll(rest, "{"+b+"}", "")
			}
			if strings.ContainsAny(rest, "{}") {
				l.Add(at, "leaves open what cannot be worked out", fmt.Sprintf("use one of %v", Blanks))
			}
		}
	}
}

// Procedure finds a job by id; nil if there is none.
func (c *Catalogue) Procedure(id string) *Procedure {
	for _, p := range c.Procedures {
		if p.ID == id {
			return p
		}
	}
	return nil
}
