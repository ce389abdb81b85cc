package source

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"oarweed/core/problem"
	"oarweed/core/shape/curve"
)

// Pass says how a rope goes through one of its points.
type Pass int

const (
	Plain Pass = iota
	Over       // over at a crossing, or in front of an object
	Below      // under at a crossing, or behind an object
)

// Node is one point a rope is threaded through.
type Node struct {
	At   curve.Point
	Pass Pass
	// Crossing or Object is the name of what is passed; both empty at a plain point.
	Crossing, Object string
}

// Rope is one strand, from its standing part to its working end.
type Rope struct {
	Name  string
	Width float64
	Nodes []Node
	// Marks gives, for each step number, the node it ends at.
	Marks map[int]int
	// Moved holds pairs of nodes: the stretches that moved in this frame, where
	// they are not the one between two step marks.
	Moved [][2]int
	// Pair, where the rope is threaded doubled.
	Pair *Pair
}

// Source is a parsed, not yet checked, knot source.
type Source struct {
	ID        string
	Width     float64
	Crossings map[string]curve.Point
	Objects   []Object
	// Else are other objects that the knot can be drawn on, each in the place of the one of
	// its name.
	Else  []Object
	Ropes []Rope
	// Ringed are places to look at: where a faulty form differs.
	Ringed []Circle
	// Size: right in every crossing, wrong in its size only.
	Size bool
	// Alike are the choices that the tyer is free to make.
	Alike []Alike
	// Frames are the pictures of the steps before the last, by number, where the
	// author gives each step a picture of its own.
	Frames map[int]*Source
	// Threaded: the rope is threaded doubled and runs back beside itself from its middle,
	// so that its first half can be proven by itself.
	Threaded bool
	// Parts are shares of the first rope's length at which it is divided to be
	// proven in parts.
	Parts []float64
	// Begun is the step up to which the first rope is a knot of its own, 0 if none.
	Begun int
	// Step is the number of this frame, 0 in a source without frames.
	Step int
}

// Alike is another form that is as good: with these crossings turned over, all of them.
type Alike struct {
	Crossings []string
	Says      string
}

// Circle is a place with a radius, in drawing units.
type Circle struct {
	At curve.Point
	R  float64
}

// Parse reads a knot source. Errors name the line and the word.
func Parse(text string) (*Source, error) {
	s := &Source{Width: 0.7, Crossings: map[string]curve.Point{}}
	var l problem.List
	var lines []string // a line that starts with a blank continues the one before
	var number []int
	for i, raw := range strings.Split(text, "\n") {
		if hash := strings.IndexByte(raw, '#'); hash >= 0 {
			raw = raw[:hash]
		}
		if strings.TrimSpace(raw) == "" {
			continue
		}
		if (raw[0] == ' ' || raw[0] == '\t') && len(lines) > 0 {
			lines[len(lines)-1] += " " + raw
			continue
		}
		lines = append(lines, raw)
		number = append(number, i+1)
	}
	base, frames := *s, map[int]*Source{}
	for i, line := range lines {
		words := strings.Fields(line)
		if words[0] == "frame" {
			if len(words) != 2 || words[1] != strconv.Itoa(s.Step+1) {
				l.Add(fmt.Sprintf("line %d", number[i]), "frames do not follow each other", `number them "frame 1", "frame 2", …`)
			}
			if s.Step == 0 {
				base = *s
			} else {
				frames[s.Step] = s
			}
			next := base
			next.Crossings, next.Ropes, next.Objects = map[string]curve.Point{}, nil, slices.Clone(base.Objects)
			next.Step = s.Step + 1
			s = &next
			continue
		}
		if err := s.line(words); err != nil {
			l.Take(fmt.Sprintf("line %d", number[i]), err)
		}
	}
	if len(frames) > 0 {
		s.Frames = frames
	}
	if s.ID == "" {
		l.Add("", "no knot line", `begin with "knot <id>"`)
	}
	if len(s.Ropes) == 0 {
		l.Add("", "no rope", `thread a rope: "rope r: …"`)
	}
	return s, l.Err()
}

func (s *Source) line(w []string) error {
	switch w[0] {
	case "knot":
		if len(w) != 2 {
			return problem.New("", "knot wants one id", `write "knot bowline"`)
		}
		s.ID = w[1]
	case "w":
		v, err := Numbers(w[1:], 1)
		if err != nil {
			return err
		}
		s.Width = v[0]
	case "x":
		if len(w)%2 != 1 {
			return problem.New("", "x wants pairs of a name and a place", `write "x a 1,2 b 3,4"`)
		}
		for i := 1; i < len(w); i += 2 {
			p, err := point(w[i+1])
			if err != nil {
				return err
			}
			if _, twice := s.Crossings[w[i]]; twice {
				return problem.New("", fmt.Sprintf("crossing %s is placed twice", w[i]), "keep one place")
			}
			s.Crossings[w[i]] = p
		}
	case "else":
		if len(w) < 2 || s.object(strings.Join(w[2:min(3, len(w))], "")) == nil {
			return problem.New("", "else puts an object in the place of one above", `write "else rail R 4,5 1.2 8" after placing R`)
		}
		was := len(s.Objects)
		if err := s.line(w[1:]); err != nil {
			return err
		}
		if len(s.Objects) == was {
			return problem.New("", fmt.Sprintf("%q is no object", w[1]), "use one of "+objectKinds())
		}
		s.Else = append(s.Else, s.Objects[was])
		s.Objects = s.Objects[:was]
	default:
		if _, ok := forms[ObjectKind(w[0])]; !ok {
			return problem.New("", fmt.Sprintf("%q begins no known line", w[0]), "use knot, w, frame, x, begun, threaded, divided, ringed, size, alike, rope, or an object: "+objectKinds())
		}
		if len(w) != 5 {
			return problem.New("", w[0]+" wants a name, a place and two sizes", `write "post P 4,5 1.2 8"`)
		}
		p, err := point(w[2])
		if err != nil {
			return err
		}
		v, err := Numbers(w[3:], 2)
		if err != nil {
			return err
		}
		s.Objects = append(s.Objects, Object{w[1], ObjectKind(w[0]), p, v[0], v[1]})
	case "begun":
		v, err := Numbers(w[1:], 1)
		if err != nil {
			return err
		}
		s.Begun = int(v[0])
	case "threaded":
		s.Threaded = true
	case "divided":
		v, err := Numbers(w[1:], len(w)-1)
		if err != nil {
			return err
		}
		if len(v) == 0 || slices.Min(v) <= 0 || slices.Max(v) >= 1 {
			return problem.New("", "divided wants shares of the rope's length", `write "divided 0.4"`)
		}
		s.Parts = v
	case "size":
		s.Size = true
	case "alike":
		crossings, says, ok := strings.Cut(strings.Join(w[1:], " "), ": ")
		if !ok || says == "" {
			return problem.New("", "alike wants crossings and words", `write "alike a b: entered from the other side"`)
		}
		s.Alike = append(s.Alike, Alike{strings.Fields(crossings), says})
	case "ringed":
		if len(w) != 3 {
			return problem.New("", "ringed wants a place and a radius", `write "ringed 4,5 1.5"`)
		}
		p, err := point(w[1])
		if err != nil {
			return err
		}
		v, err := Numbers(w[2:], 1)
		if err != nil {
			return err
		}
		s.Ringed = append(s.Ringed, Circle{p, v[0]})
	case "rope":
		return s.rope(w[1:])
	}
	return nil
}

func (s *Source) rope(w []string) error {
	r := Rope{Width: s.Width, Marks: map[int]int{}}
	head := 0
	for head < len(w) {
		word := w[head]
		head++
		last := strings.HasSuffix(word, ":")
		word = strings.TrimSuffix(word, ":")
		if key, v, ok := strings.Cut(word, "="); ok && (key == "pair" || key == "eye") {
			n, err := Numbers([]string{v}, 1)
			if err != nil {
				return err
			}
			if r.Pair == nil {
				r.Pair = &Pair{}
			}
			if key == "pair" {
				r.Pair.Gap = n[0]
			} else {
				r.Pair.Eye = n[0]
			}
		} else if k, ok := strings.CutPrefix(word, "w="); ok {
			v, err := Numbers([]string{k}, 1)
			if err != nil {
				return err
			}
			r.Width = v[0]
		} else {
			r.Name = word
		}
		if last {
			break
		}
	}
	open := false
	for _, word := range w[head:] {
		if word == "(" || word == ")" {
			if open == (word == "(") || len(r.Nodes) == 0 || s.Step == 0 {
				return problem.New("rope "+r.Name, fmt.Sprintf("%q does not belong here", word), "hold what moved in a frame between ( and ), each after a point")
			}
			if open = !open; open {
				r.Moved = append(r.Moved, [2]int{len(r.Nodes) - 1, 0})
			} else {
				r.Moved[len(r.Moved)-1][1] = len(r.Nodes) - 1
			}
			continue
		}
		if n, ok := strings.CutPrefix(word, "|"); ok {
			step, err := strconv.Atoi(n)
			if err != nil || len(r.Nodes) == 0 {
				return problem.New("rope "+r.Name, fmt.Sprintf("%q is not a step mark", word), `write "|2" after a point`)
			}
			r.Marks[step] = len(r.Nodes) - 1
			continue
		}
		node, err := s.node(word)
		if err != nil {
			return fmt.Errorf("rope %s: %w", r.Name, err)
		}
		r.Nodes = append(r.Nodes, node)
	}
	if open {
		return problem.New("rope "+r.Name, "what moved is opened with ( and not closed", "write ) after its last point")
	}
	if len(r.Nodes) < 2 {
		return problem.New("rope "+r.Name, "fewer than two points", "thread it through at least two")
	}
	s.Threaded = s.Threaded || r.Pair != nil
	s.Ropes = append(s.Ropes, r)
	return nil
}

func (s *Source) node(word string) (Node, error) {
	pass := map[byte]Pass{'+': Over, '-': Below}[word[0]]
	name, place, at := strings.Cut(word[1:], "@")
	if at {
		if pass == Plain || s.object(name) == nil {
			return Node{}, problem.New("", fmt.Sprintf("%q passes no object placed above", word), `write "+P@x,y" or "-P@x,y" after placing P`)
		}
		p, err := point(place)
		return Node{p, pass, "", name}, err
	}
	if pass != Plain {
		if p, ok := s.Crossings[word[1:]]; ok {
			return Node{p, pass, word[1:], ""}, nil
		}
		if !strings.Contains(word, ",") {
			return Node{}, problem.New("", fmt.Sprintf("%q names no crossing placed above", word), "place it after x")
		}
	}
	p, err := point(word)
	return Node{At: p}, err
}

// objectKinds lists the words that place an object.
func objectKinds() string {
	var words []string
	for k := range forms {
		words = append(words, string(k))
	}
	slices.Sort(words)
	return strings.Join(words, ", ")
}

// On is the source with an object of that form in the place of its own, and whether there
// is one.
func (s *Source) On(form Form) (*Source, bool) {
	for _, o := range s.Else {
		if o.Form() != form {
			continue
		}
		put := func(s *Source) *Source {
			next := *s
			next.Objects = slices.Clone(s.Objects)
			*next.object(o.Name) = o
			return &next
		}
		next := put(s)
		if s.Frames != nil {
			next.Frames = map[int]*Source{}
			for n, f := range s.Frames {
				next.Frames[n] = put(f)
			}
		}
		return next, true
	}
	return s, false
}

func (s *Source) object(name string) *Object {
	for i := range s.Objects {
		if s.Objects[i].Name == name {
			return &s.Objects[i]
		}
	}
	return nil
}

func point(word string) (curve.Point, error) {
	xy := strings.Split(word, ",")
	v, err := Numbers(xy, 2)
	if err != nil {
		return curve.Point{}, problem.New("", fmt.Sprintf("%q is not a place", word), `write "x,y"`)
	}
	return curve.Pt(v[0], v[1]), nil
}

// Numbers reads so many numbers.
func Numbers(words []string, n int) ([]float64, error) {
	if len(words) != n {
		return nil, problem.New("", fmt.Sprintf("%d numbers wanted, %d given", n, len(words)), "")
	}
	v := make([]float64, n)
	for i, w := range words {
		x, err := strconv.ParseFloat(w, 64)
		if err != nil || !(math.Abs(x) < 1e6) { // ours are a few dozen
			return nil, problem.New("", fmt.Sprintf("%q is not a number", w), "")
		}
		v[i] = x
	}
	return v, nil
}
