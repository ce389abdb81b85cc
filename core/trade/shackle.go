package trade

import (
	"fmt"

	"oarweed/core/problem"
)

// Shackle lists the parts of which a soft shackle can be made.
type Shackle struct {
	Clamps   []ShacklePart
	Stoppers []ShacklePart
}

// ShacklePart is a clamp or a stopper.
type ShacklePart struct {
	Knot string
	Name string
	// Opening of a clamp under load, Bulk of a stopper, in diameters of the cord.
	Opening, Bulk float64
	// Times scales the knot's tying time and line, where it is tied more than once.
	Times float64
	// First says that it can be made first, Never why it is not for loads.
	First, Never string
}

func (c *Catalogue) checkShackle(l *problem.List) {
	for kind, list := range map[string][]ShacklePart{"clamps": c.Shackle.Clamps, "stoppers": c.Shackle.Stoppers} {
		for i := range list {
			p := &list[i]
			path := fmt.Sprintf("shackle.yaml.%s[%d]", kind, i)
			k := c.Knot(p.Knot)
			if k == nil {
				l.Add(path, fmt.Sprintf("%q is not a knot here", p.Knot), "use a knot id")
				continue
			}
			if (kind == "clamps") != (p.Opening > 0) || (kind == "stoppers") != (p.Bulk > 0) {
				l.Add(path, "a clamp has an opening, a stopper a bulk", "give that one number")
			}
			if p.Name == "" {
				p.Name = k.Name
			}
			if p.Times == 0 {
				p.Times = 1
			}
		}
	}
}
