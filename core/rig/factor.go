package rig

import "oarweed/core/evidence"

// Design factors, on the strength of the line new and dry. Each is meant to hold the
// usual knot, water and some wear in itself: nothing is multiplied into it. Common
// rope-industry guidance, from memory; that of fishing line is common practice.
const (
	usualFactor   = 5
	jerkyFactor   = 8
	tackleFactor  = 3
	personsFactor = 10
)

// DesignFactor is how many times the load the new, dry line must bear, and why.
func DesignFactor(c Character, q Consequence, fishing bool) (float64, string, evidence.Tag) {
	switch {
	case q == Person:
		return personsFactor, "10 where a person could be hit or held", evidence.Memory
	case fishing:
		return tackleFactor, "3 for fishing: the drag is set at a quarter to a third of the line's class", evidence.Trade
	case c == Snatch:
		return jerkyFactor, "8 where the load comes in jerks all day", evidence.Memory
	}
	return usualFactor, "5 for mooring, hauling and sheets, the usual knot and water included", evidence.Memory
}
