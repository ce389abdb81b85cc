package say

import (
	"fmt"
	"strconv"
	"strings"

	"oarweed/core/rig"
	"oarweed/core/trade"
	"oarweed/core/unit"
	"oarweed/core/whatif"
)

// Input says a value of an input with its unit, to two figures, as the people of the line
// say it.
func Input(in *rig.Input, v float64, fishing bool) string {
	v, _ = strconv.ParseFloat(strconv.FormatFloat(v, 'g', 2, 64), 64)
	switch {
	case in.ID == "line.label":
		return (unit.Force(v) * unit.Kilonewton).Pounds()
	case in.ID == "load":
		return Force(unit.Force(v)*unit.Kilonewton, fishing)
	case in.Whole:
		return fmt.Sprintf("%.0f", v)
	}
	switch in.Unit {
	case "mm":
		return (unit.Length(v) * unit.Millimetre).String()
	case "m":
		return Reach(unit.Length(v))
	case "kN":
		return (unit.Force(v) * unit.Kilonewton).String()
	case "s":
		return Clock(v)
	}
	return fmt.Sprintf("%.2g", v)
}

// Change says at which value, or under which condition, another knot takes over.
func Change(c *trade.Catalogue, x whatif.Change, fishing bool) string {
	over := "no knot here will do"
	if name := Knot(c, x.Knot); name != "" {
		over = "the " + name + " takes over"
	}
	return When(x, fishing) + ", " + over + "."
}

// When says the value or the condition by itself: "Above 3 kN of load".
func When(x whatif.Change, fishing bool) string {
	if x.Condition != nil {
		return strings.TrimSuffix(condition(x.Condition), ",")
	}
	word := "Below"
	if x.Up {
		word = "Above"
	}
	return fmt.Sprintf("%s %s %s", word, Input(x.Input, x.To, fishing), ofWhat(x.Input))
}

func ofWhat(in *rig.Input) string {
	switch in.ID {
	case "load":
		return "of load"
	case "line.diameter":
		return "line"
	}
	return "of " + strings.TrimPrefix(in.Name, "size of ")
}

func condition(c *whatif.Condition) string {
	switch {
	case c.Material != nil:
		return "In " + c.Material.Name + ","
	case c.Value != nil:
		return c.Value.If
	case *c.Wet:
		return "Wet,"
	}
	return "Dry,"
}
