package shape

import (
	"fmt"
	"math"
	"slices"
	"sort"

	"oarweed/core/problem"
	"oarweed/core/shape/curve"
	"oarweed/core/shape/source"
)

// Shape is a source laid out as curves, with every crossing found and checked.
type Shape struct {
	*source.Source
	// Curves are the ropes as drawn, Found all crossings of the drawing, those hidden at
	// an object too, Passings where ropes pass objects.
	Curves   []*curve.Curve
	Found    []Crossing
	Passings []Passing
	// Framed: this is the picture of one step, drawn whole; Pictures holds those of
	// the earlier steps. whole is the source with its pairs, from which they came.
	Framed   bool
	Pictures map[int]*Shape
	whole    *source.Source
}

// Spot is a place on a rope.
type Spot struct {
	Rope int
	S    float64 // arc length
}

// Crossing of two strands. A hidden one lies at an object, between a strand in
// front of it and one behind, and is not declared by the author.
type Crossing struct {
	Name        string
	At          curve.Point
	Over, Under Spot
	Angle       float64 // between the strands, radians, at most π/2
	Hidden      bool
}

// Passing of a rope at an object.
type Passing struct {
	Spot
	Object int
	Front  bool
}

func (sh *Shape) layOut() error {
	var l problem.List
	type visit struct {
		Spot
		over bool
	}
	visits := map[string][]visit{}
	for r, rope := range sh.Ropes {
		pts := make([]curve.Point, len(rope.Nodes))
		for i, n := range rope.Nodes {
			pts[i] = n.At
			if i > 0 && pts[i].Sub(pts[i-1]).Len() < 1e-6 {
				l.Add("rope "+rope.Name, fmt.Sprintf("two points at %g,%g follow each other", n.At.X, n.At.Y), "drop one")
				return l.Err()
			}
		}
		c := curve.New(curve.Through(pts))
		sh.Curves = append(sh.Curves, c)
		for i, n := range rope.Nodes {
			at := Spot{r, c.NodeS(i)}
			if n.Crossing != "" {
				visits[n.Crossing] = append(visits[n.Crossing], visit{at, n.Pass == source.Over})
			}
			if n.Object != "" {
				o := slices.IndexFunc(sh.Objects, func(o source.Object) bool { return o.Name == n.Object })
				sh.Passings = append(sh.Passings, Passing{at, o, n.Pass == source.Over})
			}
		}
	}
	names := make([]string, 0, len(sh.Crossings))
	for name := range sh.Crossings {
		names = append(names, name)
	}
	sort.Strings(names)
	for _, name := range names {
		v := visits[name]
		if len(v) != 2 || v[0].over == v[1].over {
			l.Add("crossing "+name, "is not met exactly twice, once over and once under", "thread it as +"+name+" and -"+name)
			continue
		}
		if !v[0].over {
			v[0], v[1] = v[1], v[0]
		}
		sh.Found = append(sh.Found, Crossing{
			Name: name, At: sh.Crossings[name], Over: v[0].Spot, Under: v[1].Spot,
			Angle: sh.angle(v[0].Spot, v[1].Spot),
		})
	}
	sh.objectPasses(&l)
	sh.undeclared(&l)
	return l.Err()
}

func (sh *Shape) At(p Spot) curve.Point      { return sh.Curves[p.Rope].At(p.S) }
func (sh *Shape) Tangent(p Spot) curve.Point { return sh.Curves[p.Rope].Tangent(p.S) }

func (sh *Shape) angle(a, b Spot) float64 {
	t := math.Abs(curve.TurnAngle(sh.Tangent(a), sh.Tangent(b)))
	return math.Min(t, math.Pi-t)
}

// FrontAt tells whether the strand at p is in front of object o there: as its
// nearest declared pass says, in front where it has none.
func (sh *Shape) FrontAt(p Spot, o int) bool {
	best, front := math.Inf(1), true
	for _, q := range sh.Passings {
		if d := math.Abs(q.S - p.S); q.Object == o && q.Rope == p.Rope && d < best {
			best, front = d, q.Front
		}
	}
	return front
}

// objectPasses refuses a strand that runs across an object without saying on
// which side, or changes sides while it is there.
func (sh *Shape) objectPasses(l *problem.List) {
	for o, obj := range sh.Objects {
		for r, c := range sh.Curves {
			start := -1
			for k := range c.Points {
				in := obj.Within(c.Points[k], 0)
				if in && start < 0 {
					start = k
				}
				if start < 0 || in && k < len(c.Points)-1 {
					continue
				}
				var seen []bool
				for _, q := range sh.Passings {
					if q.Object == o && q.Rope == r && q.S >= c.S[start]-1e-9 && q.S <= c.S[k]+1e-9 {
						seen = append(seen, q.Front)
					}
				}
				where := fmt.Sprintf("rope %s at %.2f,%.2f", sh.Ropes[r].Name, c.Points[start].X, c.Points[start].Y)
				if len(seen) == 0 && c.S[k]-c.S[start] > 0.1*sh.Ropes[r].Width {
					l.Add(where, "crosses "+obj.Name+" without saying on which side", "add +"+obj.Name+"@x,y or -"+obj.Name+"@x,y there")
				}
				if slices.Contains(seen, true) && slices.Contains(seen, false) {
					l.Add(where, "changes sides of "+obj.Name+" while crossing it", "lead it out beside the object between the two")
				}
				start = -1
			}
		}
	}
}

// undeclared compares the crossings of the drawn curves with the declared ones.
func (sh *Shape) undeclared(l *problem.List) {
	for r1, c1 := range sh.Curves {
		for r2 := r1; r2 < len(sh.Curves); r2++ {
			c2 := sh.Curves[r2]
			for i := 0; i+1 < len(c1.Points); i++ {
				from := 0
				if r1 == r2 {
					from = i + 2
				}
				for j := from; j+1 < len(c2.Points); j++ {
					t, u, ok := curve.Meet(c1.Points[i], c1.Points[i+1], c2.Points[j], c2.Points[j+1])
					if !ok {
						continue
					}
					a := Spot{r1, c1.S[i] + t*(c1.S[i+1]-c1.S[i])}
					b := Spot{r2, c2.S[j] + u*(c2.S[j+1]-c2.S[j])}
					if !sh.declared(a, b) {
						sh.hiddenOr(a, b, l)
					}
				}
			}
		}
	}
}

func (sh *Shape) declared(a, b Spot) bool {
	near := func(p, q Spot) bool { return p.Rope == q.Rope && math.Abs(p.S-q.S) < 0.6*sh.Width }
	for _, x := range sh.Found {
		if near(a, x.Over) && near(b, x.Under) || near(b, x.Over) && near(a, x.Under) {
			return true
		}
	}
	return false
}

// hiddenOr adds the crossing of a strand in front of an object with one behind
// it, and complains of any other.
func (sh *Shape) hiddenOr(a, b Spot, l *problem.List) {
	p := sh.At(a)
	for o, obj := range sh.Objects {
		if !obj.Within(p, 0) {
			continue
		}
		fa, fb := sh.FrontAt(a, o), sh.FrontAt(b, o)
		if fa == fb {
			continue
		}
		if fb {
			a, b = b, a
		}
		sh.Found = append(sh.Found, Crossing{At: p, Over: a, Under: b, Angle: sh.angle(a, b), Hidden: true})
		return
	}
	l.Add("", fmt.Sprintf("undeclared crossing at %.2f,%.2f between %s and %s", p.X, p.Y, sh.place(a), sh.place(b)),
		"place it after x and thread it, or lead the strands apart")
}

// place names a Spot by the nodes around it.
func (sh *Shape) place(p Spot) string {
	i, _ := sh.Curves[p.Rope].Param(p.S)
	r := sh.Ropes[p.Rope]
	name := func(n source.Node) string {
		sign := map[source.Pass]string{source.Over: "+", source.Below: "-"}[n.Pass]
		if n.Crossing != "" {
			return sign + n.Crossing
		}
		if n.Object != "" {
			sign += n.Object + "@"
		}
		return fmt.Sprintf("%s%g,%g", sign, n.At.X, n.At.Y)
	}
	return fmt.Sprintf("%s[%s … %s]", r.Name, name(r.Nodes[i]), name(r.Nodes[i+1]))
}

// Legible checks that the drawing can be read: w is the rope's width.
//
//   - strands cross at 40° or more (20° at an object);
//   - crossings lie 1.35 w or more apart along a rope;
//   - strands that do not cross stay 1.25 w apart (1.05 w in a doubled line);
//   - no bend is tighter than 0.75 w (0.5 w at an object);
//   - crossings lie 1.2 w or more from an end;
//   - a step ends 1.5 w or more past a crossing.
func (sh *Shape) Legible() error {
	var l problem.List
	where := func(p curve.Point) string { return fmt.Sprintf("%.2f,%.2f", p.X, p.Y) }
	for _, x := range sh.Found {
		limit := 40.0
		if x.Hidden || sh.atObject(x.At, 0.6*sh.Width) {
			limit = 20
		}
		if x.Angle*180/math.Pi < limit {
			l.Add("crossing "+x.Name, fmt.Sprintf("strands meet at %.0f° at %s", x.Angle*180/math.Pi, where(x.At)), fmt.Sprintf("open it to %g° or more", limit))
		}
	}
	for r, c := range sh.Curves {
		rope := sh.Ropes[r]
		w := rope.Width
		on := sh.onRope(r)
		for i := 1; i < len(on); i++ {
			if d := on[i] - on[i-1]; d < 1.35*w {
				l.Add("rope "+rope.Name, fmt.Sprintf("crossings %.2f apart at %s", d, where(c.At(on[i]))), fmt.Sprintf("move them %.2f or more apart", 1.35*w))
			}
		}
		if len(on) > 0 {
			if on[0] < 1.2*w || c.Length()-on[len(on)-1] < 1.2*w {
				l.Add("rope "+rope.Name, "has a crossing too near its end", fmt.Sprintf("lengthen the end to %.2f or more", 1.2*w))
			}
		}
		for k := 1; k+1 < len(c.Points); k++ {
			limit := 0.75 * w
			if sh.atObject(c.Points[k], 1.5*w) {
				limit = 0.5 * w
			}
			if k%curve.Samples != 0 && c.Radius(k) < limit {
				l.Add("rope "+rope.Name, fmt.Sprintf("bends to a radius of %.2f at %s", c.Radius(k), where(c.Points[k])), fmt.Sprintf("ease it to %.2f or more", limit))
				k += curve.Samples
			}
		}
		for step, node := range rope.Marks {
			if rope.Nodes[node].Pass != source.Plain {
				l.Add("rope "+rope.Name, fmt.Sprintf("step %d ends on a crossing", step), "end it on a plain point")
			}
			for _, s := range on {
				if d := c.NodeS(node) - s; d > 0 && d < 1.5*w && node < len(rope.Nodes)-1 {
					l.Add("rope "+rope.Name, fmt.Sprintf("step %d ends %.2f past a crossing", step, d), fmt.Sprintf("end it %.2f or more past it", 1.5*w))
				}
			}
		}
	}
	sh.apart(&l, where)
	return l.Err()
}

// apart looks for strands that come too near each other away from a crossing.
func (sh *Shape) apart(l *problem.List, where func(curve.Point) string) {
	const every = 4
	for r1, c1 := range sh.Curves {
		for r2 := r1; r2 < len(sh.Curves); r2++ {
			c2 := sh.Curves[r2]
			w := (sh.Ropes[r1].Width + sh.Ropes[r2].Width) / 2
			limit := 1.25 * w
			if r1 == r2 && sh.Ropes[r1].Pair != nil {
				limit = 1.05 * w // the strands of a doubled line lie side by side
			}
			for i := 0; i < len(c1.Points); i += every {
				for j := 0; j < len(c2.Points); j += every {
					if c1.Points[i].Sub(c2.Points[j]).Len() >= limit {
						continue
					}
					if r1 == r2 && math.Abs(c1.S[i]-c2.S[j]) < 4*w {
						continue
					}
					a, b := Spot{r1, c1.S[i]}, Spot{r2, c2.S[j]}
					if sh.nearCrossing(a, b, 3.2*w) || sh.sidesOfObject(a, b) {
						continue
					}
					l.Add("", fmt.Sprintf("%s and %s run %.2f apart at %s", sh.place(a), sh.place(b), c1.Points[i].Sub(c2.Points[j]).Len(), where(c1.Points[i])),
						fmt.Sprintf("keep them %.2f apart", limit))
					i += curve.Samples
					j = len(c2.Points)
				}
			}
		}
	}
}

func (sh *Shape) nearCrossing(a, b Spot, d float64) bool {
	near := func(p, q Spot) bool { return p.Rope == q.Rope && math.Abs(p.S-q.S) < d }
	for _, x := range sh.Found {
		if near(a, x.Over) && near(b, x.Under) || near(b, x.Over) && near(a, x.Under) {
			return true
		}
	}
	return false
}

// sidesOfObject reports whether an object lies between the two strands.
func (sh *Shape) sidesOfObject(a, b Spot) bool {
	for o, obj := range sh.Objects {
		if obj.Within(sh.At(a), sh.Width) && sh.FrontAt(a, o) != sh.FrontAt(b, o) {
			return true
		}
	}
	return false
}

func (sh *Shape) atObject(p curve.Point, m float64) bool {
	return slices.ContainsFunc(sh.Objects, func(o source.Object) bool { return o.Within(p, m) })
}

// onRope lists the arc lengths of the visible crossings on rope r, rising.
func (sh *Shape) onRope(r int) []float64 {
	var on []float64
	for _, x := range sh.Found {
		for _, p := range []Spot{x.Over, x.Under} {
			if p.Rope == r && !x.Hidden {
				on = append(on, p.S)
			}
		}
	}
	sort.Float64s(on)
	return on
}

// HasStep says what is wrong with a step that the drawing has not; below zero is
// the finished knot.
func (sh *Shape) HasStep(step float64) error {
	if last := sh.Steps(); !(step <= float64(last)) {
		return problem.New("step", fmt.Sprintf("there is no step %g", step), fmt.Sprintf("give 0 to %d, or −1 for the finished knot", last))
	}
	return nil
}

// Reach is how far rope r is laid at a step; between steps the working end is
// on its way from one mark to the next.
func (sh *Shape) Reach(r int, step float64) float64 {
	c, marks := sh.Curves[r], sh.Ropes[r].Marks
	if sh.Framed || len(marks) == 0 {
		return c.Length()
	}
	at := func(n int) float64 { return c.NodeS(sh.Ropes[r].Mark(n)) }
	lo := math.Floor(step)
	a := at(int(lo))
	return a + (at(int(lo)+1)-a)*(step-lo)
}

// Moved is the stretches of rope r, from and to, laid in the step that ends at n.
func (sh *Shape) Moved(r, n int, step float64) [][2]float64 {
	if !sh.Framed {
		return [][2]float64{{sh.Reach(r, float64(n-1)), sh.Reach(r, step)}}
	}
	c, rope := sh.Curves[r], sh.Ropes[r]
	var out [][2]float64
	for _, m := range rope.Moved {
		out = append(out, [2]float64{c.NodeS(m[0]), c.NodeS(m[1])})
	}
	if from, ok := rope.Marks[n-1]; ok {
		to := c.Length()
		if k, ok := rope.Marks[n]; ok {
			to = c.NodeS(k)
		}
		out = append(out, [2]float64{c.NodeS(from), to})
	}
	return out
}
