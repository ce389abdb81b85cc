package friction

import "math"

// Purchase is what a trucker's hitch makes of a hand's pull: the tension in the
// tied line ÷ the hand's force. The line runs over the loop with friction rope and
// round the anchor with friction anchor, half a turn each. The hand pulls down from
// the loop, the part up from the anchor is weaker by the loop, the part down to the
// anchor weaker again; all three pull on the line. Without friction it is 3; rope on
// rope it is far less. Euler and Eytelwein; the geometry is ours.
func Purchase(rope, anchor float64) float64 {
	up := math.Exp(-rope * math.Pi)
	return 1 + up + up*math.Exp(-anchor*math.Pi)
}
