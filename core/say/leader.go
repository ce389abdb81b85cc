package say

import (
	"fmt"

	"oarweed/core/leader"
)

// Leader says what is left of a leader, and which knot would make more of it.
func Leader(left leader.Left, warn int, better string, more leader.Left) []string {
	var out []string
	switch {
	case left.ChangesLeft == 0:
		out = append(out, "It is too short for another change: a new leader, or a tippet on this one.")
	case left.ChangesLeft <= warn:
		out = append(out, fmt.Sprintf("%s left: have the next one ready.", Capital(Plural(left.ChangesLeft, "change"))))
	default:
		out = append(out, fmt.Sprintf("%s left, each takes %.0f mm.", Capital(Plural(left.ChangesLeft, "change")), 1000*left.PerChangeM))
	}
	if better != "" {
		out = append(out, fmt.Sprintf("With the %s there would be %s.", Lower(better), Number(more.ChangesLeft)))
	}
	return out
}
