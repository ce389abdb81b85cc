package say

import (
	"fmt"

	"oarweed/core/leader"
	"oarweed/core/unit"
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

// LeaderAdvice says when a leader wants a tippet and when a stronger line.
func LeaderAdvice(b leader.Book, a leader.Advice, left leader.Left) []string {
	var out []string
	if b.ActionM > 0 && a.ActionLeft < left.ChangesLeft {
		if a.ActionLeft == 0 {
			out = append(out, "It is short of what it needs to work as it should, though it still holds.")
		} else {
			out = append(out, fmt.Sprintf("%s until it works less well.", Capital(Plural(a.ActionLeft, "change"))))
		}
	}
	if a.AddM > 0 {
		line := fmt.Sprintf("Add %.0f cm of tippet to make it what it was", 100*a.AddM)
		if a.JoinM > 0 {
			line += fmt.Sprintf("; the join takes %.0f cm more of each", 100*a.JoinM)
		}
		out = append(out, line+".")
	}
	if a.UpKN > 0 {
		why := map[string]string{"damage": "More was cut off for nicks than for knots", "changes": "It has been tied again many times"}[a.Because]
		out = append(out, fmt.Sprintf("%s: go up to %.0f lb for the next.", why, a.UpKN*1000/float64(unit.Pound)))
	}
	return out
}
