package lesson

import (
	"slices"

	"oarweed/core/knot"
	"oarweed/core/trade"
)

// Thing is something to bring, and how many.
type Thing struct {
	Name string `json:"name"`
	N    int    `json:"n"`
}

// Kit is what a lesson takes with it.
type Kit struct {
	Things []Thing `json:"things" nullable:"false"`
	// Pieces are lengths of line to cut, in metres.
	Pieces []float64 `json:"pieces_m" nullable:"false"`
	Metres float64   `json:"metres"`
}

// Lengths of practice line, in metres: enough for every knot of the catalogue in line of
// 8 to 10 mm, and for the one who shows in thick line. Common practice, no source.
const (
	practiceLine = 2
	showLine     = 3
	leaderLine   = 1
)

// KitOf is what the knots of a lesson take for so many learners and helpers: a line each,
// two where lines are joined, and what hitches are tied to, one for two learners.
func KitOf(c *trade.Catalogue, knots []string, learners, helpers int) Kit {
	kit := Kit{Things: []Thing{}, Pieces: []float64{}}
	var joins, tackle, rope bool
	objects := map[string]bool{}
	for _, id := range knots {
		k := c.Knot(id)
		if k == nil {
			continue
		}
		fishing := k.Kind == knot.Terminal || k.Wraps != nil
		tackle = tackle || fishing
		rope = rope || !fishing
		joins = joins || k.Kind == knot.Bend
		if len(k.Objects) > 0 {
			// The first thing that it is made for stands for all.
			objects[k.Objects[0]] = true
		}
	}
	of := func(name string, n int) {
		if n > 0 {
			kit.Things = append(kit.Things, Thing{name, n})
		}
	}
	lines := func(metres float64, n int) {
		for range n {
			kit.Pieces = append(kit.Pieces, metres)
			kit.Metres += metres
		}
	}
	each := 1
	if joins {
		each = 2
	}
	if rope {
		of("practice line, 8 to 10 mm", each*learners)
		lines(practiceLine, each*learners)
		of("thick line in two colours, to show", 2*(1+helpers))
		lines(showLine, 2*(1+helpers))
	}
	if tackle {
		of("thick cord that stands for fishing line", each*(learners+1+helpers))
		lines(leaderLine, each*(learners+1+helpers))
		of("big blunt hook or ring bolt", (learners+1)/2+1)
	}
	for _, f := range c.Fittings {
		if objects[f.ID] && f.ID != "hook-eye" {
			of(f.Name, (learners+1)/2+1)
		}
	}
	slices.SortStableFunc(kit.Pieces, func(a, b float64) int {
		switch {
		case a > b:
			return -1
		case a < b:
			return 1
		}
		return 0
	})
	return kit
}
