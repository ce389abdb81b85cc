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
	// Needs is the task whose lines its computed words come from, [AnyTask] for whatever
	// rig is at hand; empty if none.
	Needs string `json:"needs"`
	// Serves are the tasks at whose rigs the job is offered.
	Serves []string `json:"serves,omitempty"`
	// Relieves: riding turns and turns on the winch are worked out for it.
	Relieves bool `json:"relieves,omitempty"`
}

// AnyTask is what a procedure needs that takes whatever rig is at hand.
const AnyTask = "any"

// ProcedureStep is one thing to do. Knot shows the knot it uses, at Step of it where one
// is named; Picture is a drawing of the job's own.
type ProcedureStep struct {
	Says    string `json:"says"`
	Knot    string `json:"knot,omitempty"`
	Step    int    `json:"step,omitempty"`
	Picture string `json:"picture,omitempty" pattern:"^[a-z]+(-[a-z0-9]+)*$"`
}

// Blanks are the words that a procedure may leave to be worked out.
var Blanks = []string{"turns", "winch", "hand", "helper", "length", "purchase", "drawn", "lashing", "load", "half", "quarter", "more"}

func (c *Catalogue) checkProcedures(l *problem.List) {
	v := c.words()
	for _, p := range c.Procedures {
		path := "procedures.yaml." + p.ID
		if p.ID == "" || p.Name == "" || p.When == "" || len(p.Steps) < 2 {
			l.Add(path, "lacks id, name, when or steps", "fill it in")
		}
		if p.Needs != "" && p.Needs != AnyTask && !slices.Contains(v.Tasks, p.Needs) {
			l.Add(path+".needs", fmt.Sprintf("%q is not a task", p.Needs), "use a task id")
		}
		for _, id := range p.Serves {
			if !slices.Contains(v.Tasks, id) {
				l.Add(path+".serves", fmt.Sprintf("%q is not a task", id), "use a task id")
			}
		}
		for _, id := range p.Cautions {
			if !slices.Contains(v.Cautions, id) {
				l.Add(path+".cautions", fmt.Sprintf("%q is not a caution", id), "use a caution id")
			}
		}
		for i, s := range p.Steps {
			at := fmt.Sprintf("%s.steps[%d]", path, i)
			if s.Knot == "" && s.Picture == "" {
				l.Add(at, "shows nothing", "name a knot or a picture")
			}
			if s.Knot != "" && c.Knot(s.Knot) == nil {
				l.Add(at+".knot", fmt.Sprintf("%q is not a knot here", s.Knot), "use a knot id")
			}
			if k := c.Knot(s.Knot); k != nil && (s.Step < 0 || s.Step > len(k.Steps)) {
				l.Add(at+".step", fmt.Sprintf("there is no step %d", s.Step), fmt.Sprintf("give 1 to %d", len(k.Steps)))
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
