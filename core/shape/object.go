package shape

import (
	"fmt"
	"math"
)

// ObjectKind is what a knot can be made on.
type ObjectKind string

const (
	Post    ObjectKind = "post"    // upright round bar: centre, radius, height
	Bollard ObjectKind = "bollard" // a post with a head
	Pylon   ObjectKind = "pylon"   // tow pylon: a slim post with a knob
	Cord    ObjectKind = "cord"    // upright thick rope or tails that a knot grips
	Tails   ObjectKind = "tails"   // the same, level
	Rail    ObjectKind = "rail"    // level round bar: centre, radius, length
	Spar    ObjectKind = "spar"    // log, upright in the drawing
	Bundle  ObjectKind = "bundle"  // sticks side by side, upright
	Hook    ObjectKind = "hook"    // bowl of a lifting hook, seen from its point
	Shank   ObjectKind = "shank"   // shank of a fish hook, bend and point to the right
	Spike   ObjectKind = "spike"   // marlinespike, upright
	Ring    ObjectKind = "ring"    // centre, radius of its centreline, thickness
	Shackle ObjectKind = "shackle" // a ring with a pin
	TowEye  ObjectKind = "toweye"  // a ring on a plate
	Shaft   ObjectKind = "shaft"   // hole in a spear shaft that leads off to the right
	Eye     ObjectKind = "eye"     // the eye of a fish hook, with shank and bend
	Cleat   ObjectKind = "cleat"   // horned cleat seen from above: centre, half width, length
	Hole    ObjectKind = "hole"    // gap in a plate, cut through: centre, half gap, thickness of the plate
)

// form is how ropes can pass an object.
type form int

const (
	upright form = iota // across a bar that stands
	level               // across a bar that lies
	round               // through a closed ring
	gap                 // between two walls, touching neither
)

var forms = map[ObjectKind]form{
	Post: upright, Bollard: upright, Pylon: upright, Cord: upright, Spike: upright, Spar: upright, Bundle: upright,
	Rail: level, Tails: level, Hook: level, Shank: level, Cleat: level,
	Ring: round, Shackle: round, TowEye: round, Shaft: round, Eye: round,
	Hole: gap,
}

// Object is what a knot is made on, in drawing units.
type Object struct {
	Name string
	Kind ObjectKind
	At   Point
	// R is the radius or half width of a bar, the radius of the centreline of a
	// ring, or half the gap of a hole.
	R float64
	// Len is the length of a bar, or the thickness of a ring or plate.
	Len float64
}

func (o Object) form() form { return forms[o.Kind] }

// half gives half the width and height of what a rope can pass.
func (o Object) half() (x, y float64) {
	switch o.form() {
	case upright:
		return o.R, o.Len / 2
	case level:
		return o.Len / 2, o.R
	case gap:
		return o.Len / 2, 4 * o.R
	}
	return o.R + o.Len/2, o.R + o.Len/2
}

// within reports whether p lies inside the outline of object o grown by m.
func (o Object) within(p Point, m float64) bool {
	d := p.sub(o.At)
	x, y := o.half()
	switch o.form() {
	case gap:
		return false
	case round:
		return math.Abs(d.len()-o.R) < o.Len/2+m
	}
	return math.Abs(d.X) < x+m && math.Abs(d.Y) < y+m
}

// drawn lists corners of all that is drawn of the object, heads and hooks too.
func (o Object) drawn() []Point {
	x, y := o.half()
	at := func(dx, dy float64) Point { return o.At.add(Point{dx, dy}) }
	p := []Point{at(x, y), at(-x, -y)}
	switch o.Kind {
	case Eye:
		p = append(p, at(hookReach*o.R, 0), at(hookReach*o.R/2, hookReach*o.R*0.55))
	case Shaft:
		p = append(p, at(7*o.R, 0))
	case Bollard, Pylon:
		p = append(p, at(1.5*o.R, -y-1.1*o.R), at(-1.5*o.R, y))
	case Hook:
		p = append(p, at(0, -6*o.R))
	case Shank:
		p = append(p, at(x+5*o.R, 9*o.R))
	case Spike:
		p = append(p, at(0, -y-2*o.R), at(0, y+2.5*o.R))
	case TowEye:
		p = append(p, at(x+1.6*o.R, 0))
	}
	return p
}

// hookReach is how far a drawn hook extends beyond its eye, in eye radii.
const hookReach = 7.0

const (
	metal = "fill:var(--object,#a9b3ad);stroke:var(--object-edge,#46524c)"
	gleam = "stroke:var(--object-light,#dfe5e0)"
	dark  = "stroke:var(--object-edge,#46524c)"
)

// object draws one object, in front of the strands behind it.
func (d *drawing) object(o Object) {
	hx, hy := o.half()
	at := func(x, y float64) Point { return o.At.add(Point{x, y}) }
	path := func(p, style string, w float64, more string) {
		fmt.Fprintf(&d.b, `<path d="%s" style="%s" stroke-width="%s" %s/>`, p, style, num(w), more)
	}
	// box with corner radius r, centred at dx, dy from the object.
	box := func(dx, dy, w, h, r float64) {
		a := d.tf(at(dx, dy))
		fmt.Fprintf(&d.b, `<rect x="%s" y="%s" width="%s" height="%s" rx="%s" style="%s" stroke-width=".06"/>`,
			num(a.X-w/2), num(a.Y-h/2), num(w), num(h), num(r), metal)
	}
	line := func(a, b Point) string { return "M" + d.xy(a) + "L" + d.xy(b) }
	shine := func() {
		if o.form() == upright {
			path(line(at(-0.35*o.R, -hy), at(-0.35*o.R, hy)), gleam, 0.3*o.R, `stroke-opacity=".7"`)
		} else {
			path(line(at(-hx+o.R, -0.35*o.R), at(hx-o.R, -0.35*o.R)), gleam, 0.3*o.R, `stroke-opacity=".7" stroke-linecap="round"`)
		}
	}
	bent := func(p string, w float64) {
		path(p, dark, w+0.12, `stroke-linecap="round"`)
		path(p, "stroke:var(--object,#a9b3ad)", w, `stroke-linecap="round"`)
	}
	circle := func() {
		c := d.tf(o.At)
		for _, s := range []struct {
			style    string
			w, shift float64
		}{{dark, o.Len + 0.12, 0}, {"stroke:var(--object,#a9b3ad)", o.Len, 0}, {gleam, 0.28 * o.Len, -0.18 * o.Len}} {
			fmt.Fprintf(&d.b, `<circle cx="%s" cy="%s" r="%s" style="%s" stroke-width="%s"/>`, num(c.X), num(c.Y), num(o.R+s.shift), s.style, num(s.w))
		}
	}
	switch o.Kind {
	case Bollard:
		box(0, 0, 2*hx, 2*hy, 0)
		shine()
		box(0, -hy-0.45*o.R, 3*o.R, 0.9*o.R, 0.4*o.R)
	case Pylon:
		box(0, 0, 2*hx, 2*hy, 0)
		shine()
		box(0, -hy-0.4*o.R, 2.6*o.R, 1.2*o.R, 0.6*o.R)
	case Cord:
		box(0, 0, 2*hx, 2*hy, 0)
		for y := -hy; y+1.3*o.R < hy; y += 0.9 * o.R {
			path("M"+d.xy(at(-0.9*o.R, y+0.9*o.R))+"Q"+d.xy(at(-0.2*o.R, y+0.8*o.R))+" "+d.xy(at(0.9*o.R, y)), dark, 0.06, `stroke-opacity=".45"`)
		}
	case Tails:
		box(0, 0, 2*hx, 2*hy, 0)
		for x := -hx; x+1.3*o.R < hx; x += 0.9 * o.R {
			path("M"+d.xy(at(x+0.9*o.R, 0.9*o.R))+"Q"+d.xy(at(x+0.8*o.R, 0.2*o.R))+" "+d.xy(at(x, -0.9*o.R)), dark, 0.06, `stroke-opacity=".45"`)
		}
	case Spike:
		path("M"+d.xy(at(-o.R, -hy-1.5*o.R))+"Q"+d.xy(at(0, -hy-2.3*o.R))+" "+d.xy(at(o.R, -hy-1.5*o.R))+"L"+d.xy(at(o.R, hy))+"L"+d.xy(at(0, hy+2.5*o.R))+"L"+d.xy(at(-o.R, hy))+"Z", metal, 0.06, "")
		shine()
	case Spar:
		box(0, 0, 2*hx, 2*hy, 0.3*o.R)
		for i, f := range []float64{-0.6, -0.15, 0.3, 0.7} { // the grain
			a, b := -hy+(0.5+0.7*float64(i%2))*o.R, hy-(0.4+0.8*float64(i%3))*o.R
			path("M"+d.xy(at(f*o.R, a))+"Q"+d.xy(at((f+0.16)*o.R, (a+b)/2))+" "+d.xy(at(f*o.R, b)), dark, 0.05, `stroke-opacity=".5"`)
		}
	case Bundle:
		for i := range 4 {
			f := -0.75 + 0.5*float64(i)
			box(f*o.R, []float64{0.3, -0.2, 0.1, -0.3}[i], 0.5*o.R, 2*hy-0.8, 0.22*o.R)
		}
	case Hook:
		bent("M"+d.xy(at(0, 0))+"L"+d.xy(at(0, -5.4*o.R)), 1.5*o.R)
		box(0, 0, 2*hx, 2*hy, o.R)
		shine()
	case Shank:
		bent("M"+d.xy(at(hx, 0))+"C"+d.xy(at(hx+4.5*o.R, 0))+" "+d.xy(at(hx+4.5*o.R, 8.5*o.R))+" "+d.xy(at(hx, 8.5*o.R))+"C"+d.xy(at(hx-1.5*o.R, 8.5*o.R))+" "+d.xy(at(hx-2.2*o.R, 7.4*o.R))+" "+d.xy(at(hx-2.2*o.R, 5.4*o.R)), 1.6*o.R)
		box(0, 0, 2*hx, 2*hy, 0)
		shine()
	case Cleat:
		box(0, 0, 0.34*o.Len, 2.9*o.R, 0.5*o.R)
		for _, x := range []float64{-0.12, 0.12} {
			c := d.tf(at(x*o.Len, 0))
			for _, y := range []float64{-1.2, 1.2} {
				fmt.Fprintf(&d.b, `<circle cx="%s" cy="%s" r="%s" style="%s" stroke-width=".05"/>`, num(c.X), num(c.Y+y*o.R), num(0.16*o.R), dark)
			}
		}
		box(0, 0, 2*hx, 2*hy, o.R)
		shine()
	case Hole:
		for _, s := range []float64{-1, 1} {
			box(0, s*2.5*o.R, o.Len, 3*o.R, 0.15*o.Len)
		}
	case Shackle:
		circle()
		box(0, o.R*0.98, 2.2*o.R, 0.85*o.Len, 0.3*o.Len)
	case TowEye:
		box(hx+0.7*o.R, 0, 1.8*o.R, 2.4*o.R, 0.2*o.R)
		circle()
	case Shaft:
		// The hole lets the strands behind be seen. Arcs as four cubics each.
		const k = 0.5523 // 4/3·(√2−1)
		r, out, end := o.R-o.Len/2, o.R+o.Len/2, 7*o.R
		arc := func(x0, y0, x1, y1, r float64) string { // a quarter from x0, y0 to x1, y1, unit directions
			return "C" + d.xy(at(r*(x0+k*x1), r*(y0+k*y1))) + " " + d.xy(at(r*(x1+k*x0), r*(y1+k*y0))) + " " + d.xy(at(r*x1, r*y1))
		}
		path("M"+d.xy(at(end, out))+"L"+d.xy(at(0, out))+arc(0, 1, -1, 0, out)+arc(-1, 0, 0, -1, out)+"L"+d.xy(at(end, -out))+"Z"+
			"M"+d.xy(at(r, 0))+arc(1, 0, 0, 1, r)+arc(0, 1, -1, 0, r)+arc(-1, 0, 0, -1, r)+arc(0, -1, 1, 0, r)+"Z", metal, 0.06, `fill-rule="evenodd"`)
	case Eye:
		p := func(x, y float64) string { return d.xy(at(x*o.R, y*o.R)) }
		bent("M"+p(1, 0)+"L"+p(4.6, 0)+"C"+p(6.9, 0)+" "+p(6.9, 3.4)+" "+p(4.8, 3.4)+"C"+p(4, 3.4)+" "+p(3.7, 2.9)+" "+p(3.7, 1.9), o.Len)
		circle()
	default:
		if o.form() == round {
			circle()
			return
		}
		box(0, 0, 2*hx, 2*hy, 0)
		shine()
	}
}
