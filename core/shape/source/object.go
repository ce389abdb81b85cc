package source

import (
	"math"

	"oarweed/core/shape/curve"
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
	EdgeOn  ObjectKind = "edgeon"  // a ring seen from a little above its edge
	TowEye  ObjectKind = "toweye"  // a ring on a plate
	Shaft   ObjectKind = "shaft"   // hole in a spear shaft that leads off to the right
	Eye     ObjectKind = "eye"     // the eye of a fish hook, with shank and bend
	Cleat   ObjectKind = "cleat"   // horned cleat seen from above: centre, half width, length
	Hole    ObjectKind = "hole"    // gap in a plate, cut through: centre, half gap, thickness of the plate
)

// Form is how ropes can pass an object.
type Form int

const (
	Upright Form = iota // across a bar that stands
	Level               // across a bar that lies
	Round               // through a closed ring
	Gap                 // between two walls, touching neither
)

var forms = map[ObjectKind]Form{
	Post: Upright, Bollard: Upright, Pylon: Upright, Cord: Upright, Spike: Upright, Spar: Upright, Bundle: Upright,
	Rail: Level, Tails: Level, Hook: Level, Shank: Level, Cleat: Level,
	Ring: Round, EdgeOn: Round, Shackle: Round, TowEye: Round, Shaft: Round, Eye: Round,
	Hole: Gap,
}

// Object is what a knot is made on, in drawing units.
type Object struct {
	Name string
	Kind ObjectKind
	At   curve.Point
	// R is the radius or half width of a bar, the radius of the centreline of a
	// ring, or half the gap of a hole.
	R float64
	// Len is the length of a bar, or the thickness of a ring or plate.
	Len float64
}

func (o Object) Form() Form { return forms[o.Kind] }

// Turns reports whether it is a plain bar, which may stand or lie.
func (o Object) Turns() bool {
	switch o.Kind {
	case Post, Rail, Spar, Bundle:
		return true
	}
	return false
}

// Half gives half the width and height of what a rope can pass.
func (o Object) Half() (x, y float64) {
	switch o.Form() {
	case Upright:
		return o.R, o.Len / 2
	case Level:
		return o.Len / 2, o.R
	case Gap:
		return o.Len / 2, 4 * o.R
	}
	return o.R + o.Len/2, o.R*o.Tall() + o.Len/2
}

// Tall is the height of a ring as it is seen, as a share of its width.
func (o Object) Tall() float64 {
	if o.Kind == EdgeOn {
		return 0.45
	}
	return 1
}

// Within reports whether p lies inside the outline of object o grown by m.
func (o Object) Within(p curve.Point, m float64) bool {
	d := p.Sub(o.At)
	x, y := o.Half()
	switch o.Form() {
	case Gap:
		return false
	case Round:
		d.Y /= o.Tall()
		return math.Abs(d.Len()-o.R) < o.Len/2+m
	}
	return math.Abs(d.X) < x+m && math.Abs(d.Y) < y+m
}

// Drawn lists corners of all that is drawn of the object, heads and hooks too.
func (o Object) Drawn() []curve.Point {
	x, y := o.Half()
	at := func(dx, dy float64) curve.Point { return o.At.Add(curve.Pt(dx, dy)) }
	p := []curve.Point{at(x, y), at(-x, -y)}
	switch o.Kind {
	case Eye:
		p = append(p, at(HookReach*o.R, 0), at(HookReach*o.R/2, HookReach*o.R*0.78))
	case Shaft:
		p = append(p, at(ShaftReach*o.R, 0))
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

// How far a drawn hook extends beyond its eye, and a shaft beyond its hole, in radii of
// either: enough to be known for what it is, and no more of the picture than that.
const (
	HookReach  = 5.0
	ShaftReach = 4.5
)
