package choose

import (
	"hash/fnv"
	"math/rand/v2"
	"slices"
	"sync"

	"oarweed/catalogue"
	"oarweed/core/evidence"
	"oarweed/core/knot"
)

// Draws is how often a rig is drawn from its intervals.
const Draws = 10_000

// Chance is how a joint or a rig comes out when friction, strength and knot are
// drawn from their (triangular) intervals [Draws] times, always with the same
// random numbers, so that two knots or two rigs differ only by what they are.
type Chance struct {
	// Holds + Slips + Breaks = 1, at the highest load expected.
	Holds  float64 `json:"holds"`
	Slips  float64 `json:"slips"`
	Breaks float64 `json:"breaks"`
	// ByClass: no friction model decides the hold, so slips counts only those that
	// slip before they break; the class of the catalogue says the rest.
	ByClass bool `json:"by_class"`
	// P5KN, P50KN and P95KN: 5, 50 and 95 of 100 draws bear less.
	P5KN  float64 `json:"p5_kn"`
	P50KN float64 `json:"p50_kn"`
	P95KN float64 `json:"p95_kn"`
}

var streams sync.Map // name → []float64

// stream gives the uniform numbers that belong to a name.
func stream(name string) []float64 {
	if s, ok := streams.Load(name); ok {
		return s.([]float64)
	}
	h := fnv.New64a()
	_, _ = h.Write([]byte(name))
	r := rand.New(rand.NewPCG(h.Sum64(), 20260101))
	out := make([]float64, Draws)
	for i := range out {
		out[i] = r.Float64()
	}
	s, _ := streams.LoadOrStore(name, out)
	return s.([]float64)
}

func drawn(i evidence.Interval, name string) []float64 {
	u := stream(name)
	out := make([]float64, len(u))
	for k, x := range u {
		out[k] = i.At(x)
	}
	return out
}

// sample is what a joint bears in each draw, in newtons, and whether it slips.
type sample struct {
	bears   []float64
	slips   []bool // nil where no friction model decides
	asSlips bool   // at its limit it slips rather than breaks
}

// draw draws a joint whose line bears line[k] in draw k. place tells the joints of
// a chain apart.
func (j *joint) draw(line []float64, place string) sample {
	s := sample{bears: make([]float64, len(line)), asSlips: j.out.Fails == "slips"}
	e := j.out.Efficiency.Interval
	for k, u := range stream("efficiency" + place) {
		s.bears[k] = line[k] * e.At(u)
	}
	if h := j.now(); h.MuCritical != nil && h.Mu != nil {
		mu := h.Mu.Interval
		s.slips = make([]bool, len(line))
		for k, u := range stream("friction" + place) {
			s.slips[k] = mu.At(u) < *h.MuCritical
		}
	}
	return s
}

func (s sample) chance(load float64) Chance {
	c := Chance{ByClass: s.slips == nil}
	for k, b := range s.bears {
		switch {
		case s.slips != nil && s.slips[k]:
			c.Slips++
		case b >= load:
			c.Holds++
		case s.asSlips:
			c.Slips++
		default:
			c.Breaks++
		}
	}
	n := float64(len(s.bears))
	c.Holds, c.Slips, c.Breaks = c.Holds/n, c.Slips/n, c.Breaks/n
	c.P5KN, c.P50KN, c.P95KN = quantiles(s.bears)
	return c
}

// quantiles gives the values below which 5, 50 and 95 of 100 lie, in thousands.
func quantiles(v []float64) (p5, p50, p95 float64) {
	sorted := slices.Clone(v)
	slices.Sort(sorted)
	at := func(p float64) float64 { return sorted[int(p*float64(len(sorted)-1)+0.5)] / 1e3 }
	return at(0.05), at(0.5), at(0.95)
}

// Chances draws every ranked knot of an answer; by knot id.
func Chances(c *catalogue.Catalogue, a *Answer) map[string]Chance {
	line := drawn(a.line.Interval, "line")
	out := map[string]Chance{}
	for _, ranked := range a.Ranked {
		j := judged(c, a, c.Knot(ranked.Knot))
		out[ranked.Knot] = j.draw(line, "").chance(float64(a.rig.Load))
	}
	return out
}

// judged works a knot out for the rig of an answer, ruled out or not.
func judged(c *catalogue.Catalogue, a *Answer, k *knot.Knot) *joint {
	j := &joint{c: c, r: a.rig, k: k, line: a.line}
	j.size()
	j.holds()
	j.strength()
	return j
}
