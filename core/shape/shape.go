package shape

import (
	"fmt"
	"math"
	"slices"
	"sort"

	"oarweed/core/problem"
)

// Shape is a source laid out as curves, with every crossing found and checked.
type Shape struct {
	*Source
	curves    []*curve
	crossings []crossing
	passes    []pass
	// framed: this is the picture of one step, drawn whole; pictures holds those of
	// the earlier steps. whole is the source with its pairs, from which they came.
	framed   bool
	pictures map[int]*Shape
	whole    *Source
}

// spot is a place on a rope.
type spot struct {
	rope int
	s    float64 // arc length
}

// crossing of two strands. A hidden one lies at an object, between a strand in
// front of it and one behind, and is not declared by the author.
type crossing struct {
	name        string
	at          Point
	over, under spot
	angle       float64 // between the strands, radians, at most π/2
	hidden      bool
}

// pass of a rope at an object.
type pass struct {
	spot
	object int
	front  bool
}

func (sh *Shape) layOut() error {
	var l problem.List
	type visit struct {
		spot
		over bool
	}
	visits := map[string][]visit{}
	for r, rope := range sh.Ropes {
		pts := make([]Point, len(rope.Nodes))
		for i, n := range rope.Nodes {
			pts[i] = n.At
			if i > 0 && pts[i].sub(pts[i-1]).len() < 1e-6 {
				l.Add("rope "+rope.Name, fmt.Sprintf("two points at %g,%g follow each other", n.At.X, n.At.Y), "drop one")
				return l.Err()
			}
		}
		c := newCurve(hobby(pts))
		sh.curves = append(sh.curves, c)
		for i, n := range rope.Nodes {
			at := spot{r, c.nodeS(i)}
			if n.Crossing != "" {
				visits[n.Crossing] = append(visits[n.Crossing], visit{at, n.Pass == Over})
			}
			if n.Object != "" {
				o := slices.IndexFunc(sh.Objects, func(o Object) bool { return o.Name == n.Object })
				sh.passes = append(sh.passes, pass{at, o, n.Pass == Over})
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
		sh.crossings = append(sh.crossings, crossing{
			name: name, at: sh.Crossings[name], over: v[0].spot, under: v[1].spot,
			angle: sh.angle(v[0].spot, v[1].spot),
		})
	}
	sh.objectPasses(&l)
	sh.undeclared(&l)
	return l.Err()
}

func (sh *Shape) at(p spot) Point      { return sh.curves[p.rope].at(p.s) }
func (sh *Shape) tangent(p spot) Point { return sh.curves[p.rope].tangent(p.s) }

func (sh *Shape) angle(a, b spot) float64 {
	t := math.Abs(turnAngle(sh.tangent(a), sh.tangent(b)))
	return math.Min(t, math.Pi-t)
}

// frontAt tells whether the strand at p is in front of object o there: as its
// nearest declared pass says, in front where it has none.
func (sh *Shape) frontAt(p spot, o int) bool {
	best, front := math.Inf(1), true
	for _, q := range sh.passes {
		if d := math.Abs(q.s - p.s); q.object == o && q.rope == p.rope && d < best {
			best, front = d, q.front
		}
	}
	return front
}

// objectPasses refuses a strand that runs across an object without saying on
// which side, or changes sides while it is there.
func (sh *Shape) objectPasses(l *problem.List) {
	for o, obj := range sh.Objects {
		for r, c := range sh.curves {
			start := -1
			for k := range c.pt {
				in := obj.within(c.pt[k], 0)
				if in && start < 0 {
					start = k
				}
				if start < 0 || in && k < len(c.pt)-1 {
					continue
				}
				var seen []bool
				for _, q := range sh.passes {
					if q.object == o && q.rope == r && q.s >= c.s[start]-1e-9 && q.s <= c.s[k]+1e-9 {
						seen = append(seen, q.front)
					}
				}
				where := fmt.Sprintf("rope %s at %.2f,%.2f", sh.Ropes[r].Name, c.pt[start].X, c.pt[start].Y)
				if len(seen) == 0 && c.s[k]-c.s[start] > 0.1*sh.Ropes[r].Width {
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
	for r1, c1 := range sh.curves {
		for r2 := r1; r2 < len(sh.curves); r2++ {
			c2 := sh.curves[r2]
			for i := 0; i+1 < len(c1.pt); i++ {
				from := 0
				if r1 == r2 {
					from = i + 2
				}
				for j := from; j+1 < len(c2.pt); j++ {
					t, u, ok := meet(c1.pt[i], c1.pt[i+1], c2.pt[j], c2.pt[j+1])
					if !ok {
						continue
					}
					a := spot{r1, c1.s[i] + t*(c1.s[i+1]-c1.s[i])}
					b := spot{r2, c2.s[j] + u*(c2.s[j+1]-c2.s[j])}
					if !sh.declared(a, b) {
						sh.hiddenOr(a, b, l)
					}
				}
			}
		}
	}
}

func (sh *Shape) declared(a, b spot) bool {
	near := func(p, q spot) bool { return p.rope == q.rope && math.Abs(p.s-q.s) < 0.6*sh.Width }
	for _, x := range sh.crossings {
		if near(a, x.over) && near(b, x.under) || near(b, x.over) && near(a, x.under) {
			return true
		}
	}
	return false
}

// hiddenOr adds the crossing of a strand in front of an object with one behind
// it, and complains of any other.
func (sh *Shape) hiddenOr(a, b spot, l *problem.List) {
	p := sh.at(a)
	for o, obj := range sh.Objects {
		if !obj.within(p, 0) {
			continue
		}
		fa, fb := sh.frontAt(a, o), sh.frontAt(b, o)
		if fa == fb {
			continue
		}
		if fb {
			a, b = b, a
		}
		sh.crossings = append(sh.crossings, crossing{at: p, over: a, under: b, angle: sh.angle(a, b), hidden: true})
		return
	}
	l.Add("", fmt.Sprintf("undeclared crossing at %.2f,%.2f between %s and %s", p.X, p.Y, sh.place(a), sh.place(b)),
		"place it after x and thread it, or lead the strands apart")
}

// place names a spot by the nodes around it.
func (sh *Shape) place(p spot) string {
	i, _ := sh.curves[p.rope].param(p.s)
	r := sh.Ropes[p.rope]
	name := func(n Node) string {
		sign := map[Pass]string{Over: "+", Below: "-"}[n.Pass]
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
	where := func(p Point) string { return fmt.Sprintf("%.2f,%.2f", p.X, p.Y) }
	for _, x := range sh.crossings {
		limit := 40.0
		if x.hidden || sh.atObject(x.at, 0.6*sh.Width) {
			limit = 20
		}
		if x.angle*180/math.Pi < limit {
			l.Add("crossing "+x.name, fmt.Sprintf("strands meet at %.0f° at %s", x.angle*180/math.Pi, where(x.at)), fmt.Sprintf("open it to %g° or more", limit))
		}
	}
	for r, c := range sh.curves {
		rope := sh.Ropes[r]
		w := rope.Width
		on := sh.onRope(r)
		for i := 1; i < len(on); i++ {
			if d := on[i] - on[i-1]; d < 1.35*w {
				l.Add("rope "+rope.Name, fmt.Sprintf("crossings %.2f apart at %s", d, where(c.at(on[i]))), fmt.Sprintf("move them %.2f or more apart", 1.35*w))
			}
		}
		if len(on) > 0 {
			if on[0] < 1.2*w || c.length()-on[len(on)-1] < 1.2*w {
				l.Add("rope "+rope.Name, "has a crossing too near its end", fmt.Sprintf("lengthen the end to %.2f or more", 1.2*w))
			}
		}
		for k := 1; k+1 < len(c.pt); k++ {
			limit := 0.75 * w
			if sh.atObject(c.pt[k], 1.5*w) {
				limit = 0.5 * w
			}
			if k%samples != 0 && c.radius(k) < limit {
				l.Add("rope "+rope.Name, fmt.Sprintf("bends to a radius of %.2f at %s", c.radius(k), where(c.pt[k])), fmt.Sprintf("ease it to %.2f or more", limit))
				k += samples
			}
		}
		for step, node := range rope.Marks {
			if rope.Nodes[node].Pass != Plain {
				l.Add("rope "+rope.Name, fmt.Sprintf("step %d ends on a crossing", step), "end it on a plain point")
			}
			for _, s := range on {
				if d := c.nodeS(node) - s; d > 0 && d < 1.5*w && node < len(rope.Nodes)-1 {
					l.Add("rope "+rope.Name, fmt.Sprintf("step %d ends %.2f past a crossing", step, d), fmt.Sprintf("end it %.2f or more past it", 1.5*w))
				}
			}
		}
	}
	sh.apart(&l, where)
	return l.Err()
}

// apart looks for strands that come too near each other away from a crossing.
func (sh *Shape) apart(l *problem.List, where func(Point) string) {
	const every = 4
	for r1, c1 := range sh.curves {
		for r2 := r1; r2 < len(sh.curves); r2++ {
			c2 := sh.curves[r2]
			w := (sh.Ropes[r1].Width + sh.Ropes[r2].Width) / 2
			limit := 1.25 * w
			if r1 == r2 && sh.Ropes[r1].Pair != nil {
				limit = 1.05 * w // the strands of a doubled line lie side by side
			}
			for i := 0; i < len(c1.pt); i += every {
				for j := 0; j < len(c2.pt); j += every {
					if c1.pt[i].sub(c2.pt[j]).len() >= limit {
						continue
					}
					if r1 == r2 && math.Abs(c1.s[i]-c2.s[j]) < 4*w {
						continue
					}
					a, b := spot{r1, c1.s[i]}, spot{r2, c2.s[j]}
					if sh.nearCrossing(a, b, 3.2*w) || sh.sidesOfObject(a, b) {
						continue
					}
					l.Add("", fmt.Sprintf("%s and %s run %.2f apart at %s", sh.place(a), sh.place(b), c1.pt[i].sub(c2.pt[j]).len(), where(c1.pt[i])),
						fmt.Sprintf("keep them %.2f apart", limit))
					i += samples
					j = len(c2.pt)
				}
			}
		}
	}
}

func (sh *Shape) nearCrossing(a, b spot, d float64) bool {
	near := func(p, q spot) bool { return p.rope == q.rope && math.Abs(p.s-q.s) < d }
	for _, x := range sh.crossings {
		if near(a, x.over) && near(b, x.under) || near(b, x.over) && near(a, x.under) {
			return true
		}
	}
	return false
}

// sidesOfObject reports whether an object lies between the two strands.
func (sh *Shape) sidesOfObject(a, b spot) bool {
	for o, obj := range sh.Objects {
		if obj.within(sh.at(a), sh.Width) && sh.frontAt(a, o) != sh.frontAt(b, o) {
			return true
		}
	}
	return false
}

func (sh *Shape) atObject(p Point, m float64) bool {
	return slices.ContainsFunc(sh.Objects, func(o Object) bool { return o.within(p, m) })
}

// onRope lists the arc lengths of the visible crossings on rope r, rising.
func (sh *Shape) onRope(r int) []float64 {
	var on []float64
	for _, x := range sh.crossings {
		for _, p := range []spot{x.over, x.under} {
			if p.rope == r && !x.hidden {
				on = append(on, p.s)
			}
		}
	}
	sort.Float64s(on)
	return on
}

// Steps is the number of the last step.
func (sh *Shape) Steps() int { return sh.steps() }

// HasStep says what is wrong with a step that the drawing has not; below zero is
// the finished knot.
func (sh *Shape) HasStep(step float64) error {
	if last := sh.Steps(); !(step <= float64(last)) {
		return problem.New("step", fmt.Sprintf("there is no step %g", step), fmt.Sprintf("give 0 to %d, or −1 for the finished knot", last))
	}
	return nil
}

// reach is how far rope r is laid at a step; between steps the working end is
// on its way from one mark to the next.
func (sh *Shape) reach(r int, step float64) float64 {
	c, marks := sh.curves[r], sh.Ropes[r].Marks
	if sh.framed || len(marks) == 0 {
		return c.length()
	}
	at := func(n int) float64 { return c.nodeS(sh.Ropes[r].mark(n)) }
	lo := math.Floor(step)
	a := at(int(lo))
	return a + (at(int(lo)+1)-a)*(step-lo)
}

// moved is the stretch of rope r laid in the step that ends at n.
func (sh *Shape) moved(r, n int, step float64) (float64, float64) {
	if !sh.framed {
		return sh.reach(r, float64(n-1)), sh.reach(r, step)
	}
	c, rope := sh.curves[r], sh.Ropes[r]
	from, ok := rope.Marks[n-1]
	if !ok {
		return 0, 0
	}
	to := c.length()
	if k, ok := rope.Marks[n]; ok {
		to = c.nodeS(k)
	}
	return c.nodeS(from), to
}
