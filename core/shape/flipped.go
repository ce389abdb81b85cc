package shape

import (
	"slices"

	"oarweed/core/shape/source"
)

// Flipped is the shape with one crossing turned over.
func (sh *Shape) Flipped(name string) *Shape {
	src := *sh.Source
	src.Ropes = slices.Clone(sh.Ropes)
	for r := range src.Ropes {
		src.Ropes[r].Nodes = slices.Clone(src.Ropes[r].Nodes)
		for i := range src.Ropes[r].Nodes {
			if n := &src.Ropes[r].Nodes[i]; n.Crossing == name {
				n.Pass = map[source.Pass]source.Pass{source.Over: source.Below, source.Below: source.Over}[n.Pass]
			}
		}
	}
	out := *sh
	out.Source = &src
	out.Found = slices.Clone(sh.Found)
	for i := range out.Found {
		if x := &out.Found[i]; x.Name == name && !x.Hidden {
			x.Over, x.Under = x.Under, x.Over
		}
	}
	return &out
}
