package rig

import "oarweed/core/evidence"

// DesignFactor on breaking strength: 5 for general mooring and hauling, 8 where
// the load is cycled, 10 wherever a person could be hit or held (common
// rope-industry guidance, from memory); 3 for fishing line, whose drag is set at a
// quarter to a third of its class (common practice, no source).
func DesignFactor(c Character, q Consequence, fishing bool) (float64, string, evidence.Tag) {
	switch {
	case q == Person:
		return 10, "10 where a person could be hit or held", evidence.Memory
	case fishing:
		return 3, "3 for fishing line: the drag is set at a quarter to a third of its class", evidence.Trade
	case c != Steady:
		return 8, "8 where the load comes and goes", evidence.Memory
	}
	return 5, "5 for general mooring and hauling", evidence.Memory
}
