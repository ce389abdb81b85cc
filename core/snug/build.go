package snug

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"slices"
	"time"

	"gonum.org/v1/gonum/spatial/r3"

	"oarweed/core/shape"
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

// Build draws a knot up. eye: it is a loop, whose eye is kept open by a pin.
func Build(sh *shape.Shape, eye bool) *Built {
	began := time.Now()
	out := &Built{ID: sh.ID}
	strands, err := Lift(sh, eye)
	if err == nil {
		err = out.tighten(strands)
	}
	if err != nil {
		*out = Built{ID: sh.ID, Why: err.Error()}
	}
	out.Computed = err == nil
	out.Seconds = math.Round(10*time.Since(began).Seconds()) / 10
	return out
}

func (b *Built) tighten(start []Strand) error {
	before := fingerprint(start)
	var seen [][]Strand
	p := Dress
	p.Watch = func(s []Strand) { seen = append(seen, s) }
	end, err := Tighten(start, p)
	if err != nil {
		return err
	}
	if after := fingerprint(end); !slices.Equal(before, after) {
		return ErrKnot
	}
	b.Metrics = Measure(end)
	b.Metrics.round()
	// Frames at even shares of what was drawn in.
	all := append(append([][]Strand{start}, seen...), end)
	from, to := Length(start), Length(end)
	var chosen [][]Strand
	k := 0
	for f := range frames {
		want := from + (to-from)*float64(f)/(frames-1)
		for k+1 < len(all) && Length(all[k]) > want+1e-9 {
			k++
		}
		if f == frames-1 {
			k = len(all) - 1
		}
		chosen = append(chosen, all[k])
	}
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

// Last is the number of the frame in which it is drawn up.
func (b *Built) Last() int { return frames - 1 }

func (m *Metrics) round() {
	r := func(x *float64, by float64) { *x = math.Round(*x*by) / by }
	for i := range m.Ropes {
		r(&m.Ropes[i].Consumed, 10)
		r(&m.Ropes[i].Shortened, 10)
	}
	r(&m.Bulk.Across, 100)
	r(&m.Bulk.Along, 100)
	r(&m.ContactMin, 10000)
}

// fingerprint is what tells knots apart, by every closure, ends labelled: linking numbers
// and polynomials.
func fingerprint(strands []Strand) []string {
	var ropes [][]r3.Vec
	var object []r3.Vec
	ring := false
	for _, s := range strands {
		switch {
		case s.Peg:
		case s.Fixed:
			object, ring = s.Nodes, s.Closed
		default:
			ropes = append(ropes, s.Nodes)
		}
	}
	var out []string
	for _, c := range space.Of("", ropes, object, ring).Closures() {
		out = append(out, said(c))
	}
	return out
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
