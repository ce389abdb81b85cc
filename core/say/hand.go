package say

import (
	"regexp"
	"slices"
	"strings"

	"oarweed/core/knot"
)

var sides = map[string]string{"left": "right", "right": "left", "clockwise": "anticlockwise", "anticlockwise": "clockwise"}

var (
	side = regexp.MustCompile(`(?i)\b(left|right|clockwise|anticlockwise)\b`)
	// sided is where left and right are sides: an end can also be left over, and be right.
	sided = regexp.MustCompile(`(?i)\b(?:(?:left|right) over (?:left|right)|(?:to|on|from|toward|towards) (?:the|your) (?:left|right)|(?:left|right) (?:side|leg|hand|horn)|clockwise|anticlockwise)\b`)
)

// OtherHand says the words of a tying for the other hand: its picture is the mirror image,
// so left and right, and the two ways round, change places.
func OtherHand(words string) string {
	return sided.ReplaceAllStringFunc(words, func(phrase string) string {
		return side.ReplaceAllStringFunc(phrase, func(w string) string {
			other := sides[strings.ToLower(w)]
			if w[0] < 'a' {
				return Capital(other)
			}
			return other
		})
	})
}

// OtherHanded is a knot with its name and the words of its tying for a left-handed tyer.
func OtherHanded(k *knot.Knot) *knot.Knot {
	out := *k
	out.Name += ", left-handed"
	out.Steps, out.Checks, out.Faults = slices.Clone(k.Steps), slices.Clone(k.Checks), slices.Clone(k.Faults)
	for i := range out.Steps {
		out.Steps[i] = OtherHand(out.Steps[i])
	}
	for i := range out.Checks {
		out.Checks[i] = OtherHand(out.Checks[i])
	}
	for i := range out.Faults {
		f := &out.Faults[i]
		f.Name, f.Looks, f.Leads, f.Mend = OtherHand(f.Name), OtherHand(f.Looks), OtherHand(f.Leads), OtherHand(f.Mend)
	}
	out.Told = k.Told
	out.Told.Aid = OtherHand(k.Told.Aid)
	out.Told.Slips = slices.Clone(k.Told.Slips)
	for i := range out.Told.Slips {
		out.Told.Slips[i] = OtherHand(out.Told.Slips[i])
	}
	out.Told.Drawn = slices.Clone(k.Told.Drawn)
	for i, w := range out.Told.Drawn {
		steps := slices.Clone(w.Steps)
		for n := range steps {
			steps[n] = OtherHand(steps[n])
		}
		out.Told.Drawn[i].Steps = steps
	}
	return &out
}
