package snug

import (
	"fmt"
	"math"
	"math/rand/v2"

	"gonum.org/v1/gonum/spatial/r3"
)

// IdealKnots names the closed knots whose ideal length can be worked out.
var IdealKnots = []string{"unknot", "hopf", "trefoil", "figure-eight", "5_1", "5_2"}

// ideals are starts: curves through which the closed rope is laid.
var ideals = map[string]func() []Strand{
	"unknot": func() []Strand {
		return []Strand{ring(80, func(t float64) r3.Vec { return r3.Vec{X: 2 * math.Cos(t), Y: 2 * math.Sin(t)} })}
	},
	"hopf": func() []Strand {
		return []Strand{
			ring(64, func(t float64) r3.Vec { return r3.Vec{X: 2 * math.Cos(t), Y: 2 * math.Sin(t)} }),
			ring(64, func(t float64) r3.Vec { return r3.Vec{X: 2 + 2*math.Cos(t), Z: 2 * math.Sin(t)} }),
		}
	},
	"trefoil": func() []Strand { return []Strand{torus(120, 2, 3, 2.4, 1.2)} },
	"5_1":     func() []Strand { return []Strand{torus(160, 2, 5, 3, 1.5)} },
	"figure-eight": func() []Strand {
		return []Strand{ring(150, func(t float64) r3.Vec {
			return r3.Scale(1.5, r3.Vec{X: (2 + math.Cos(2*t)) * math.Cos(3*t), Y: (2 + math.Cos(2*t)) * math.Sin(3*t), Z: 1.5 * math.Sin(4*t)})
		})}
	},
	// A Lissajous knot (Bogle, Hearst, Jones and Stoilov 1994, from memory): 5_2 has
	// frequencies 2, 3, 7 with these phases.
	"5_2": func() []Strand {
		return []Strand{ring(220, func(t float64) r3.Vec {
			return r3.Scale(3, r3.Vec{X: math.Cos(2*t + 0.2), Y: math.Cos(3*t + 0.7), Z: math.Cos(7 * t)})
		})}
	},
}

func ring(n int, at func(t float64) r3.Vec) Strand {
	s := Strand{D: 1, Closed: true}
	for i := range n {
		s.Nodes = append(s.Nodes, at(2*math.Pi*float64(i)/float64(n)))
	}
	return s
}

// torus is the torus knot that goes p times along and q times round.
func torus(n int, p, q, big, small float64) Strand {
	return ring(n, func(t float64) r3.Vec {
		r := big + small*math.Cos(q*t)
		return r3.Vec{X: r * math.Cos(p*t), Y: r * math.Sin(p*t), Z: -small * 1.3 * math.Sin(q*t)}
	})
}

// IdealLength is length ÷ diameter of a closed knot drawn up as tight as it goes. The
// diameter is the true one of the tube: twice the least distance or radius of curvature
// that its axis has. The error names the knots there are.
func IdealLength(knot string) (float64, error) {
	start, ok := ideals[knot]
	if !ok {
		return 0, fmt.Errorf("%q is none of %v", knot, IdealKnots)
	}
	best, err := Tighten(even(start()), Ideal)
	if err != nil {
		return 0, err
	}
	least := Length(best) / Thickness(best)
	rng := rand.New(rand.NewPCG(5, uint64(len(knot))))
	for range kicks[knot] {
		next, err := Tighten(kicked(best, rng), Ideal)
		if err != nil {
			continue // a kick that went through: the best stays
		}
		if l := Length(next) / Thickness(next); l < least {
			best, least = next, l
		}
	}
	return least, nil
}

// kicks are how often a knot that settles in a shape that is not its best is shaken.
var kicks = map[string]int{"5_1": 10, "5_2": 12}

// kicked is a shape with smooth noise of a third of a diameter, its tubes a tenth apart.
func kicked(strands []Strand, rng *rand.Rand) []Strand {
	out := make([]Strand, len(strands))
	for k, s := range strands {
		n := len(s.Nodes)
		var amp, phase [3][4]float64
		for a := range 3 {
			for f := range 4 {
				amp[a][f], phase[a][f] = 0.16*rng.NormFloat64()/float64(f+1), 2*math.Pi*rng.Float64()
			}
		}
		nodes := make([]r3.Vec, n)
		for i, v := range s.Nodes {
			var by [3]float64
			for a := range 3 {
				for f := range 4 {
					by[a] += amp[a][f] * math.Sin(2*math.Pi*float64((f+1)*i)/float64(n)+phase[a][f])
				}
			}
			nodes[i] = r3.Add(r3.Scale(1.12, v), r3.Vec{X: by[0], Y: by[1], Z: by[2]})
		}
		s.Nodes = nodes
		out[k] = s
	}
	return out
}

// Length of all ropes that move.
func Length(strands []Strand) float64 {
	sum := 0.0
	for _, s := range strands {
		if !s.Fixed {
			sum += s.length()
		}
	}
	return sum
}

func (s Strand) length() float64 {
	sum := 0.0
	for i := 0; i+1 < len(s.Nodes); i++ {
		sum += r3.Norm(r3.Sub(s.Nodes[i+1], s.Nodes[i]))
	}
	if s.Closed {
		sum += r3.Norm(r3.Sub(s.Nodes[0], s.Nodes[len(s.Nodes)-1]))
	}
	return sum
}

// Thickness is the largest share of their diameters at which the tubes do not overlap: 1
// where they just touch.
func Thickness(strands []Strand) float64 {
	s := &solver{strands: strands}
	s.lay()
	s.list()
	s.measure()
	return s.gap
}

// even lays each rope's nodes at even distances.
func even(strands []Strand) []Strand {
	for k, s := range strands {
		if !s.Fixed {
			strands[k] = s.resampled(len(s.Nodes))
		}
	}
	return strands
}

// resampled lays n nodes at even distances along the strand.
func (s Strand) resampled(n int) Strand {
	pts := append([]r3.Vec(nil), s.Nodes...)
	if s.Closed {
		pts = append(pts, pts[0])
	}
	at := []float64{0}
	for i := 0; i+1 < len(pts); i++ {
		at = append(at, at[i]+r3.Norm(r3.Sub(pts[i+1], pts[i])))
	}
	pieces := n - 1
	if s.Closed {
		pieces = n
	}
	out := s
	out.Nodes = nil
	k := 0
	for i := range n {
		want := at[len(at)-1] * float64(i) / float64(pieces)
		for k+2 < len(at) && at[k+1] < want {
			k++
		}
		f := 0.0
		if at[k+1] > at[k] {
			f = math.Min(1, (want-at[k])/(at[k+1]-at[k]))
		}
		out.Nodes = append(out.Nodes, r3.Add(pts[k], r3.Scale(f, r3.Sub(pts[k+1], pts[k]))))
	}
	return out
}
