package shape

import (
	"slices"

	"oarweed/core/shape/source"
)

// Forms are the shape and the other forms that are as good.
func (sh *Shape) Forms() []*Shape {
	out := []*Shape{sh}
	for _, a := range sh.Alike {
		out = append(out, sh.Flipped(a.Crossings...))
	}
	return out
}

// Flipped is the shape with the crossings named turned over.
func (sh *Shape) Flipped(names ...string) *Shape {
	src := *sh.Source
	src.Ropes = slices.Clone(sh.Ropes)
	for r := range src.Ropes {
		src.Ropes[r].Nodes = slices.Clone(src.Ropes[r].Nodes)
		for i := range src.Ropes[r].Nodes {
			if n := &src.Ropes[r].Nodes[i]; slices.Contains(names, n.Crossing) {
				n.Pass = map[source.Pass]source.Pass{source.Over: source.Below, source.Below: source.Over}[n.Pass]
			}
		}
	}
	out := *sh
	out.Source = &src
	out.Found = slices.Clone(sh.Found)
	for i := range out.Found {
		if x := &out.Found[i]; slices.Contains(names, x.Name) && !x.Hidden {
			x.Over, x.Under = x.Under, x.Over
		}
	}
	return &out
}
