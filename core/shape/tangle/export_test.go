package tangle

// JonesOfCode gives the Jones polynomial of a planar diagram code in which every
// component passes under somewhere, as text.
func JonesOfCode(code [][4]int) string {
	d := pd{x: code}
	for _, x := range code {
		// The upper strand runs from the lower-numbered edge to the next, or from the
		// last edge of its component round to the first.
		if x[1]-x[3] == 1 || x[3]-x[1] > 1 {
			d.sign = append(d.sign, 1)
		} else {
			d.sign = append(d.sign, -1)
		}
	}
	return d.jones().text("t", 1)
}
