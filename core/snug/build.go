package snug

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"gonum.org/v1/gonum/spatial/r3"

	"oarweed/core/shape/space"
	"oarweed/core/shape/tangle"
)

// ErrKnot: the shape that came out is another knot than the one that went in.
var ErrKnot = errors.New("another knot came out")

// Built is a knot drawn up, with the way there; or why it is not.
type Built struct {
	ID       string `json:"id"`
	Computed bool   `json:"computed"`
	// Why it is not computed.
	Why string `json:"why,omitempty"`
	Metrics
	// Strands are its ropes and what it is made on.
	Strands []BuiltStrand `json:"strands,omitempty"`
	// Seconds of processor time that it took.
	Seconds float64 `json:"seconds"`
}

// BuiltStrand is a strand in frames from loose to drawn up.
type BuiltStrand struct {
	D      float64 `json:"d"`
	Closed bool    `json:"closed,omitempty"`
	Object bool    `json:"object,omitempty"`
	// Frames hold x, y, z of each node in hundredths of a diameter; an object has one.
	Frames [][]int `json:"frames"`
}

// frames from loose to drawn up, both included.
const frames = 6

// Build draws a knot up from its start, by these holds.
func Build(id string, start []Strand, set []Hold) *Built {
	began := time.Now()
	out := &Built{ID: id}
	if err := out.tighten(start, set); err != nil {
		*out = Built{ID: id, Why: err.Error()}
	} else {
		out.Computed = true
	}
	out.Seconds = math.Round(10*time.Since(began).Seconds()) / 10
	return out
}

func (b *Built) tighten(start []Strand, set []Hold) error {
	// An end that points to the viewer cannot be closed behind all the rest.
	behind := !slices.ContainsFunc(start, Strand.pointsAtViewer)
	before := fingerprint(start, behind)
	var seen [][]Strand
	watch := func(s []Strand) { seen = append(seen, s) }
	end := start
	if len(set) == 0 {
		p := Dress
		p.Watch = watch
		var err error
		if end, err = Tighten(start, p); err != nil {
			return err
		}
	}
	for _, h := range set {
		held, p, err := h.hold(end)
		if err != nil {
			return err
		}
		p.Watch = watch
		if end, err = Tighten(held, p); err != nil {
			return err
		}
	}
	if !slices.Equal(before, fingerprint(end, behind)) {
		return ErrKnot
	}
	b.Metrics = Measure(end)
	b.Metrics.round()
	chosen := evenly(append(append([][]Strand{start}, seen...), end))
	for i, s := range end {
		if s.Peg {
			continue
		}
		st := BuiltStrand{D: math.Round(1000*s.D) / 1000, Closed: s.Closed, Object: s.Fixed}
		for f, c := range chosen {
			if s.Fixed && f > 0 {
				break
			}
			st.Frames = append(st.Frames, packed(c[i].Nodes))
		}
		b.Strands = append(b.Strands, st)
	}
	return nil
}

// evenly chooses frames between which the ropes move about as far, the first and the last
// of all among them.
func evenly(all [][]Strand) [][]Strand {
	at := make([]float64, len(all))
	for f := 1; f < len(all); f++ {
		sum, n := 0.0, 0
		for k, s := range all[f] {
			for i, v := range s.Nodes {
				if !s.Fixed {
					sum, n = sum+norm(r3.Sub(v, all[f-1][k].Nodes[i])), n+1
				}
			}
		}
		at[f] = at[f-1] + sum/float64(n)
	}
	out := make([][]Strand, frames)
	k := 0
	for f := range frames {
		for k+1 < len(all) && at[k] < at[len(all)-1]*float64(f)/(frames-1)-1e-9 {
			k++
		}
		out[f] = all[k]
	}
	out[frames-1] = all[len(all)-1]
	return out
}

func packed(nodes []r3.Vec) []int {
	out := make([]int, 0, 3*len(nodes))
	for _, v := range nodes {
		for _, x := range []float64{v.X, v.Y, v.Z} {
			out = append(out, int(math.Round(100*x)))
		}
	}
	return out
}

// At gives the strands of a frame, 0 loose, the last drawn up.
func (b *Built) At(frame int) []Strand {
	var out []Strand
	for _, s := range b.Strands {
		st := Strand{D: s.D, Closed: s.Closed, Fixed: s.Object}
		f := s.Frames[min(max(0, frame), len(s.Frames)-1)]
		for i := 0; i+2 < len(f); i += 3 {
			st.Nodes = append(st.Nodes, r3.Vec{X: float64(f[i]) / 100, Y: float64(f[i+1]) / 100, Z: float64(f[i+2]) / 100})
		}
		out = append(out, st)
	}
	return out
}

// OnThing reports whether it is made on an object.
func (b *Built) OnThing() bool {
	return slices.ContainsFunc(b.Strands, func(s BuiltStrand) bool { return s.Object })
}

// Line is the rope that a knot takes of one line, in its diameters, without that of so many
// turns round the thing it is made on. eye: it is a loop or a terminal, whose eye is none of it.
func (b *Built) Line(turns float64, eye bool) float64 {
	most := 0.0
	var ropes, things []BuiltStrand
	for _, s := range b.Strands {
		if s.Object {
			things = append(things, s)
		} else {
			ropes = append(ropes, s)
		}
	}
	for i, r := range b.Ropes {
		line := r.Consumed
		if eye {
			line = r.Knotted
		} else if len(things) > 0 {
			line -= turns * math.Pi * (things[0].D + 1)
		}
		most = max(most, line/ropes[i].D)
	}
	return math.Round(10*most) / 10
}

// Last is the number of the frame in which it is drawn up.
func (b *Built) Last() int { return frames - 1 }

func (m *Metrics) round() {
	r := func(x *float64, by float64) { *x = math.Round(*x*by) / by }
	for i := range m.Ropes {
		r(&m.Ropes[i].Consumed, 10)
		r(&m.Ropes[i].Knotted, 10)
		r(&m.Ropes[i].Shortened, 10)
	}
	r(&m.Bulk.Across, 100)
	r(&m.Bulk.Along, 100)
	r(&m.Bulk.Flat, 100)
	r(&m.ContactMin, 10000)
}

// fingerprint is what tells knots apart, by every closure, ends labelled: linking numbers
// and polynomials; by those with arcs behind only if asked.
func fingerprint(strands []Strand, behind bool) []string {
	var ropes [][]r3.Vec
	var object []r3.Vec
	ring := false
	for _, s := range strands {
		switch {
		case s.Peg, s.Aside:
		case s.Fixed:
			object, ring = s.Nodes, s.Closed
		default:
			ropes = append(ropes, s.Nodes)
		}
	}
	var out []string
	for _, c := range space.Of("", ropes, object, ring).Closures() {
		if behind || !strings.HasSuffix(c.Name, "behind") {
			out = append(out, said(c))
		}
	}
	return out
}

func (s Strand) pointsAtViewer() bool {
	n := len(s.Nodes)
	return !s.Fixed && r3.Unit(r3.Sub(s.Nodes[n-1], s.Nodes[n-3])).Z > 0.8
}

func said(c tangle.Closure) string {
	return fmt.Sprintf("%s: %v, %s, %s", c.Name, c.Linking, c.Alexander, c.Jones)
}

// Read reads what Build made and somebody wrote down.
func Read(text []byte) (*Built, error) {
	var b Built
	if err := json.Unmarshal(text, &b); err != nil {
		return nil, err
	}
	return &b, nil
}
