package say

import (
	"fmt"
	"strings"

	"oarweed/core/chain"
	"oarweed/core/line"
	"oarweed/core/unit"
)

// Weakest says what of a chain gives way first.
func Weakest(c *chain.Chain) string {
	w := c.Weakest
	fishing := c.Joints[len(c.Joints)-1].Order.Rig.Line.Material.Fishing
	if w.Joint < 0 {
		l := c.Lines[w.Line]
		return fmt.Sprintf("The %s gives way first: it breaks between its knots at about %s.", Line(l.Line), Force(unit.Force(l.Bears.Capacity.Likely), fishing))
	}
	j := c.Joints[w.Joint]
	name, where := strings.ToLower(j.Chosen.Knot.Name), Where(j.Order.Rig)
	if w.Doubtful {
		return fmt.Sprintf("The %s %s will likely slip: %s.", name, where, HoldWhy(j.Chosen.Now(), j.Chosen.Knot))
	}
	how := fmt.Sprintf("the %s %s there", Line(c.LineAt(j.FailsIn).Line), j.Chosen.Strength.Fails)
	if at := j.Chosen.Knot.FailsAt; at != "" {
		how = fmt.Sprintf("it %s %s,", j.Chosen.Strength.Fails, at)
	}
	return fmt.Sprintf("The %s %s gives way first: %s at about %s.", name, where, how, Force(unit.Force(j.Chosen.Strength.Capacity.Likely), fishing))
}

// LetGo says in which order to let go of a chain.
func LetGo(c *chain.Chain) []string {
	out := []string{}
	if len(c.LettingGo) > 0 && !c.UnderLoadFirst() {
		out = append(out, "Take the load off first: nothing here can be let go while it pulls.")
	}
	for _, i := range c.LettingGo {
		j := c.Joints[i]
		how := fmt.Sprintf("%s %s: %s", j.Chosen.Knot.Name, Where(j.Order.Rig), j.Chosen.Knot.Release.How)
		if hand := LettingGo(j.Chosen.LettingGo); hand != "" {
			how += " " + hand
		}
		out = append(out, how)
	}
	return out
}

// Cut says what to cut of a line: its length between the joints, 0 where that is not
// given, and what knots and ends take.
func Cut(l line.Line, knots unit.Length) string {
	if l.Length > 0 {
		return fmt.Sprintf("%s: cut %s, of which knots and ends take %s.", Line(l), Reach(l.Length+knots), Reach(knots))
	}
	return fmt.Sprintf("%s: add %s for knots and ends to the length between them.", Line(l), Reach(knots))
}
