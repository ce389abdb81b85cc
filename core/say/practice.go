package say

import (
	"fmt"
	"strings"
	"time"

	"oarweed/core/knot"
	"oarweed/core/practice"
	"oarweed/core/trade"
)

// Levels of a learner at a knot, from none up.
var Levels = []string{"not yet", "with help", "alone", "in time", "wet or gloved", "in place"}

// Round says what a round at a knot showed, as one would to the class.
func Round(t practice.Tally, k *knot.Knot) string {
	name := strings.ToLower(k.Name)
	if t.Learners == 0 {
		return fmt.Sprintf("Nobody tied the %s yet.", name)
	}
	of := func(n int) string {
		if t.Learners == 1 {
			return "one"
		}
		return fmt.Sprintf("%s of %s", Number(n), Number(t.Learners))
	}
	right := t.Right + t.Slow
	switch {
	case t.Wrong == 0 && t.Slow == 0:
		return Sentence(fmt.Sprintf("all %s tied the %s right", Number(t.Learners), name))
	case t.Wrong == 0:
		return Sentence(fmt.Sprintf("all tied the %s right, %s slowly", name, of(t.Slow)))
	case t.Most != "":
		for _, f := range k.Faults {
			if f.Code == t.Most {
				return Sentence(fmt.Sprintf("%s: %s. %s", of(t.MostN), lower(f.Name), f.Mend))
			}
		}
	}
	return Sentence(fmt.Sprintf("%s tied the %s right", of(right), name))
}

// WhatNext says why a class is taught a knot next.
func WhatNext(n practice.Next, c *trade.Catalogue) string {
	name := func(id string) string {
		if k := c.Knot(id); k != nil {
			return strings.ToLower(k.Name)
		}
		return id
	}
	if n.Again {
		return fmt.Sprintf("%s tied it wrongly: show where, and repeat.", Capital(Number(n.Lack)))
	}
	why := ""
	for _, x := range c.Kin {
		if x.From == n.From && x.To == n.Knot || x.Both && x.To == n.From && x.From == n.Knot {
			why = ": " + x.Why
		}
	}
	return fmt.Sprintf("They can tie the %s%s.", name(n.From), why)
}

// Due says since when a knot is due, and why.
func Due(s practice.Standing, now time.Time) string {
	if s.Repeated {
		return "the same fault twice: first of all"
	}
	if s.Fault != "" {
		return "the last try was a fault"
	}
	days := int(now.Sub(s.Memory.Due).Hours() / 24)
	switch {
	case days <= 0:
		return "due today"
	case days == 1:
		return "due since yesterday"
	case days < 14:
		return fmt.Sprintf("due for %d days", days)
	}
	return fmt.Sprintf("due for %d weeks", days/7)
}
