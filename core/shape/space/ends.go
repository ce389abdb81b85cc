package space

import (
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"oarweed/core/shape"
	"oarweed/core/shape/tangle"
)

// Ends is what drawing the ropes back says of which end is which.
type Ends string

const (
	// Told: the model comes undone as its drawing does, and less like it with its ends exchanged.
	Told Ends = "told"
	// Alike: both ends of the drawing come undone in the same way, so that they can change
	// places.
	Alike Ends = "alike"
	// ByEye: the two lie so differently that drawing back says nothing; a person has to look.
	ByEye Ends = "by eye"
)

// Ends holds the ends of the model against those of a drawing. Each rope of both is drawn back,
// crossing by crossing, from its end and from its standing part; the stages that both go
// through in the same order are counted, ends as they are and exchanged.
func (s *Model) Ends(sh *shape.Shape) Ends {
	if s.single {
		sh = sh.Single()
	}
	object := tangle.OutlineOf(sh)
	ropes := len(sh.Ropes)
	stages := func(k tangle.Strands, r int, standing bool) []string {
		return slices.Compact(tangle.Stages(k, ropes, object, r, standing))
	}
	alike := true
	var right, exchanged int
	for _, model := range s.looks() {
		var a, b int
		for r := range ropes {
			drawn := tangle.Drawn{Shape: sh}
			end, standing := stages(drawn, r, false), stages(drawn, r, true)
			alike = alike && slices.Equal(end, standing)
			its, itsStanding := stages(model, r, false), stages(model, r, true)
			a += common(end, its) + common(standing, itsStanding)
			b += common(end, itsStanding) + common(standing, its)
		}
		if a-b > right-exchanged || right == 0 {
			right, exchanged = a, b
		}
	}
	switch {
	case alike:
		return Alike
	case right > exchanged:
		return Told
	}
	return ByEye
}

// common is the length of the longest sequence that both hold in that order.
func common(a, b []string) int {
	row := make([]int, len(b)+1)
	for _, x := range a {
		before := 0
		for j, y := range b {
			now := row[j+1]
			if x == y {
				row[j+1] = before + 1
			} else {
				row[j+1] = max(row[j], row[j+1])
			}
			before = now
		}
	}
	return row[len(b)]
}

// looks are the ways in which its drawing may see the model.
func (s *Model) looks() []*Model {
	var out []*Model
	for _, across := range []bool{false, true} {
		for _, reversed := range []bool{false, true} {
			for _, mirrored := range []bool{false, true} {
				if s.seen != nil && *s.seen != (look{across, reversed, mirrored}) {
					continue
				}
				x := s.turned(across, reversed)
				if mirrored {
					x = x.mirrored()
				}
				out = append(out, x)
			}
		}
	}
	return out
}

// mirrored is the model with front and back exchanged.
func (s *Model) mirrored() *Model {
	out := *s
	flip := func(path []r3.Vec) []r3.Vec {
		out := slices.Clone(path)
		for i := range out {
			out[i].Z = -out[i].Z
		}
		return out
	}
	out.Ropes = make([][]r3.Vec, len(s.Ropes))
	for i, r := range s.Ropes {
		out.Ropes[i] = flip(r)
	}
	out.Object = flip(s.Object)
	return &out
}
