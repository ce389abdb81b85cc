// Package job does the sums of an instructor's day that are more than one knot: what
// hand holds a load by so many turns, what a line has to bear, a soft shackle's parts,
// and jobs as guided cards.
//
// Inputs are taken as typed, with their units, so that the command line and the API
// share one reading and one set of limits. Errors name the field and the fix.
package job

import (
	"fmt"

	"oarweed/core/problem"
	"oarweed/core/unit"
)

// most is the largest force that means anything here, in newtons.
const most = 1e7 * unit.Newton

// lengthWithin reads a length and holds it to its limits.
func lengthWithin(l *problem.List, field, text string, bare, lo, hi unit.Length) unit.Length {
	v, err := unit.ParseLength(text, bare)
	switch {
	case err != nil:
		l.Take(field, err)
	case v < lo || v > hi:
		l.Add(field, fmt.Sprintf("%s is not %s to %s", v, lo, hi), "correct the length")
	}
	return v
}

// forceWithin reads a force above zero.
func forceWithin(l *problem.List, field, text string, bare unit.Force) unit.Force {
	v, err := unit.ParseForce(text, bare)
	switch {
	case err != nil:
		l.Take(field, err)
	case !(v > 0):
		l.Add(field, "must be above zero", "give a force")
	case v > most:
		l.Add(field, v.String()+" is too large", "give "+most.String()+" at the most")
	}
	return v
}
