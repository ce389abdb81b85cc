package choose

import (
	"fmt"
	"math"
	"strings"

	"oarweed/catalogue"
	"oarweed/core/friction"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Card is a procedure with its words filled in for the lines at hand.
type Card struct {
	ID       string                    `json:"id"`
	Name     string                    `json:"name"`
	When     string                    `json:"when"`
	Needs    string                    `json:"needs"`
	Cautions []rig.Caution             `json:"cautions" nullable:"false"`
	Steps    []catalogue.ProcedureStep `json:"steps" nullable:"false"`
	// Turns of the rolling hitch and on the winch, 0 where the job has none. Holds
	// says whether a light hand on the tail holds that many riding turns at the lowest
	// friction expected.
	Turns      int      `json:"turns"`
	WinchTurns int      `json:"winch_turns"`
	Holds      bool     `json:"holds"`
	Notes      []string `json:"notes" nullable:"false"`
}

const (
	// lightHand is what a hand holds on a winch end without effort, in newtons; from memory.
	lightHand = 80.0
	// mostRiding turns that anybody would lay on.
	mostRiding = 8
)

// Do fills in a procedure. d is the rig of its task (a loaded line and a helper, or
// a hawser and a heaving line); a procedure that needs none takes an empty one.
func Do(c *catalogue.Catalogue, id string, d rig.Document) (*Card, error) {
	var p *catalogue.Procedure
	for _, x := range c.Procedures {
		if x.ID == id {
			p = x
		}
	}
	if p == nil {
		return nil, problem.New("procedure", fmt.Sprintf("%q is not a procedure", id), "see the list of procedures")
	}
	out := &Card{ID: p.ID, Name: p.Name, When: p.When, Needs: p.Needs, Steps: []catalogue.ProcedureStep{}, Notes: []string{}, Cautions: []rig.Caution{}}
	for _, q := range p.Cautions {
		out.Cautions = append(out.Cautions, c.Caution(q))
	}
	words := map[string]string{}
	if p.Needs != "" {
		r, err := c.Resolve(d)
		if err != nil {
			return nil, err
		}
		if r.Task.ID != p.Needs {
			return nil, problem.New("chain[1].joint.task", fmt.Sprintf("is %q, but this job needs %q", r.Task.ID, p.Needs), "send a rig for that task")
		}
		a, err := For(c, r)
		if err != nil {
			return nil, err
		}
		if p.Needs == "relieve" {
			relieve(out, r)
			words["turns"], words["winch"] = number(out.Turns), number(out.WinchTurns)
			words["helper"] = fmt.Sprintf("%s %s", r.Line.Diameter, r.Line.Material.Name)
			out.Cautions = append(out.Cautions, c.Caution("memory-figures"))
		}
		for _, s := range p.Steps {
			if s.Knot != "" && words["length"] == "" {
				words["length"] = unit.Length(judged(c, a, c.Knot(s.Knot)).needs).String()
			}
		}
	}
	for _, s := range p.Steps {
		for k, w := range words {
			s.Says = strings.ReplaceAll(s.Says, "{"+k+"}", w)
		}
		out.Steps = append(out.Steps, s)
	}
	return out, nil
}

func number(n int) string {
	if n < len(small) {
		return small[n]
	}
	return fmt.Sprint(n)
}

var small = []string{"no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"}

// relieve works out the riding turns, and the turns on the winch, with which a
// light hand on the end holds the load at the lowest friction expected.
func relieve(out *Card, r *rig.Rig) {
	mu := r.Line.Mu(r.Wet)
	g := friction.Geometry{Object: float64(r.Other.Diameter) / 2, Rope: float64(r.Line.Diameter) / 2}
	tail := math.Inf(1)
	for n := 2; n <= mostRiding && !out.Holds; n++ {
		h, _ := friction.Find("rolling-hitch", n) // 2 to 8 riding turns always exist
		out.Turns = n
		if ratio := h.HoldRatio(g, friction.Mu{Rope: mu.Low, Object: mu.Low}); ratio > 0 {
			tail = float64(r.Load) / ratio
		}
		out.Holds = tail <= lightHand
	}
	line := "dry " + r.Line.Material.Name
	if r.Wet {
		line = "wet " + r.Line.Material.Name
	}
	if out.Holds {
		out.Notes = append(out.Notes, fmt.Sprintf("At the lowest friction of %s (%.2g), %s riding turns need %.0f N on their tail: keep a hand on it, or stop it with a half hitch.", line, mu.Low, number(out.Turns), tail))
	} else {
		out.Notes = append(out.Notes, fmt.Sprintf("Even %s riding turns may slide: %s can have a friction as low as %.2g. Use a helper of polyester or natural fibre, or a thinner one, and load it slowly.", number(out.Turns), line, mu.Low))
	}
	if ratio := r.Other.Diameter / r.Line.Diameter; ratio < 1.2 {
		out.Notes = append(out.Notes, fmt.Sprintf("The helper is hardly thinner than the loaded line (%.2g to 1): a thinner one grips better.", float64(ratio)))
	}
	out.WinchTurns = int(math.Max(2, math.Ceil(friction.TurnsToHold(float64(r.Load), lightHand, mu.Low))))
	out.Notes = append(out.Notes, fmt.Sprintf("%s turns on the winch hold %s with %.0f N on the end.", capitalised(number(out.WinchTurns)), r.Load, lightHand))
}

func capitalised(s string) string { return strings.ToUpper(s[:1]) + s[1:] }
