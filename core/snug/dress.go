package snug

import (
	"fmt"
	"strconv"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"oarweed/core/problem"
)

// Dressing is how hands set a knot.
type Dressing struct {
	// Undressed says why what comes out is not how hands dress it; empty if it is.
	Undressed string `json:"undressed,omitempty"`
	// Shown: its figure is shown, and its numbers are not used: it is drawn with fewer turns than
	// are tied, or lies in parts apart.
	Shown bool `json:"shown,omitempty"`
	// Set are the holds, one after another; none: everything is shortened, all ends held.
	Set []Hold `json:"set,omitempty"`
}

// Hold is one thing that hands do to set a knot: every rope is shortened while its ends are
// held or led, and while it is pushed.
type Hold struct {
	// Slide pushes each rope the way of its standing part, as pulling both sets a bend.
	Slide float64 `json:"slide,omitempty"`
	// Up pushes it up to the thing it is made on.
	Up float64 `json:"up,omitempty"`
	// Squeeze pushes what lies apart along a line together.
	Squeeze [3]float64 `json:"squeeze,omitempty"`
	// Lead takes ends elsewhere: "end", "standing", of the second rope "end 2", to the
	// right, up and toward the viewer, in diameters.
	Lead map[string][3]float64 `json:"lead,omitempty"`
}

// hold prepares strands and preset for a hold.
func (h Hold) hold(strands []Strand) ([]Strand, Preset, error) {
	p := Dress
	p.Toward = pushed * h.Up
	p.Squeeze = r3.Scale(pushed, vec(h.Squeeze))
	out := append([]Strand(nil), strands...)
	var ropes []int
	for k := range out {
		s := &out[k]
		var push r3.Vec
		if !s.Fixed {
			ropes = append(ropes, k)
			s.Held, s.Led = []int{0, len(s.Nodes) - 1}, nil
			push = r3.Scale(pushed*h.Slide, r3.Unit(r3.Sub(s.Nodes[0], s.Nodes[4])))
		}
		p.Push = append(p.Push, push)
	}
	for name, by := range h.Lead {
		k, second, err := end(ropes, name)
		if err != nil {
			return nil, p, err
		}
		s := &out[k]
		if s.Led == nil {
			s.Led = []r3.Vec{s.Nodes[0], s.Nodes[len(s.Nodes)-1]}
		}
		s.Led[second] = r3.Add(s.Led[second], vec(by))
	}
	return out, p, nil
}

// end finds the strand of an end by its name, and whether it is the first or second of its ends.
func end(ropes []int, name string) (strand, second int, err error) {
	what, number, _ := strings.Cut(name, " ")
	k := 1
	if number != "" {
		k, err = strconv.Atoi(number)
	}
	if err != nil || k < 1 || k > len(ropes) || what != "end" && what != "standing" {
		return 0, 0, problem.New("lead", fmt.Sprintf("%q is no end", name), `write "end", "standing", "end 2" or "standing 2"`)
	}
	if what == "end" {
		second = 1
	}
	return ropes[k-1], second, nil
}

func vec(v [3]float64) r3.Vec { return r3.Vec{X: v[0], Y: v[1], Z: v[2]} }

// pushed is how fast a push of 1 moves a rope, in diameters a step.
const pushed = 0.001
