package shape

import (
	"fmt"
	"math"
	"slices"

	"oarweed/core/problem"
	"oarweed/core/shape/source"
)

// shapeOf lays out one picture of a source: pairs doubled, no frames.
func shapeOf(s *source.Source, step int) (*Shape, error) {
	if s.Paired() {
		s = s.ThreadPairs(step)
	}
	sh := &Shape{Source: s}
	return sh, sh.layOut()
}

// Load parses and lays out a source, and refuses one whose drawn crossings are
// not the declared ones or whose drawing would be hard to read. A source with
// frames, or with a pair, has one picture for each step.
func Load(text string) (*Shape, error) {
	src, err := source.Parse(text)
	if err != nil {
		return nil, err
	}
	return load(src)
}

// On lays the shape out on another object, where its source names one of that form; else
// it is the shape as it is.
func (sh *Shape) On(form source.Form) (*Shape, error) {
	src, ok := sh.Source.On(form)
	if !ok {
		return sh, nil
	}
	return load(src)
}

func load(src *source.Source) (*Shape, error) {
	last := src.Steps()
	sh, err := shapeOf(src, last)
	if err != nil {
		return nil, err
	}
	var l problem.List
	l.Take("", sh.Legible())
	for _, a := range sh.Alike {
		for _, name := range a.Crossings {
			if _, ok := sh.Crossings[name]; !ok {
				l.Add("alike", fmt.Sprintf("%q is no crossing of the finished knot", name), "name one that is")
			}
		}
	}
	picture := func(n int, s *source.Source) {
		f, err := shapeOf(s, n)
		if err == nil {
			err = f.Legible()
		}
		l.Take(fmt.Sprintf("step %d", n), err)
		f.Step, f.Framed = n, true
		sh.Pictures[n] = f
	}
	if src.Frames != nil || src.Paired() {
		sh.Framed, sh.Step = true, last
		sh.Pictures = map[int]*Shape{}
		for n := 0; n < last; n++ {
			if f, ok := src.Frames[n]; ok {
				picture(n, f)
			} else if src.Frames == nil {
				picture(n, src.UpTo(float64(n)))
			}
		}
		if src.Frames == nil {
			sh.whole = src
		}
	}
	return sh, l.Err()
}

// Single is the shape with its doubled line laid single; itself where it has none.
func (sh *Shape) Single() *Shape {
	if sh.whole == nil {
		return sh
	}
	src := *sh.whole
	src.Ropes = slices.Clone(src.Ropes)
	for r := range src.Ropes {
		src.Ropes[r].Pair = nil
	}
	out, err := shapeOf(&src, sh.Step)
	if err != nil {
		return sh // its path crosses nothing that its pair does not
	}
	return out
}

// Picture is what is seen at a step: the shape itself where the working end runs
// along one path, else the frame of that step.
func (sh *Shape) Picture(step float64) *Shape {
	n := int(math.Ceil(step - 1e-9))
	if !sh.Framed || n >= sh.Step {
		if sh.whole == nil || step >= float64(sh.Step) {
			return sh
		}
	}
	if f := sh.Pictures[n]; f != nil && (sh.whole == nil || step == float64(n)) {
		return f
	}
	if sh.whole == nil {
		return sh.Pictures[1]
	}
	// The bight on its way: cheap enough to lay out when asked for.
	f, err := shapeOf(sh.whole.UpTo(step), n)
	if err != nil {
		return sh.Pictures[int(math.Floor(step))]
	}
	f.Step, f.Framed = n, true
	return f
}
