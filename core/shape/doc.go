// Package shape turns one text source per knot into its drawing, its steps and
// its proof. It lays a source out as curves and checks it; the packages beside it read the
// text (source), know the curves (curve), draw (draw), close and compute invariants
// (tangle), hold models in space against drawings (space) and make drills (drill).
//
// # Source
//
// A source places the crossings and then threads the ropes through them:
//
//	knot bowline
//	w 0.7
//	x c 5.2,0.6  g 3,3.6 …
//	post P 4,5 1.4 8
//	rope r: 5.5,-1.6 |0 +c -s -b 1.8,6.4 … -P@4,3 +P@4,5 … |5
//
// Every crossing named after x is met exactly twice along the ropes, once over
// (+) and once under (−). Plain points shape the curve between. "+P@x,y" passes
// in front of object P at that place, "-P@x,y" behind it. "|n" ends step n: the
// working end has come this far. x runs to the right and y down; w is the rope's
// width; a rope may be thicker or thinner: "rope b w=1.1: …". Lines beginning
// with # are remarks.
//
// Knots made in the bight are threaded doubled: "rope r pair=0.8 eye=1: …" lays two
// strands 0.8 apart along the path, joined at its end by a bight of half width 1;
// a crossing of the path becomes one for each two strands that meet. Where no one
// path shows the tying, each step has a picture of its own: "frame 1", "frame 2" …
// each followed by its own x and rope lines; the last frame is the knot. In frame n
// the stretch of rope between |n−1 and |n is the one that has moved; where several
// did, each stands between ( and ).
//
// Objects: post, bollard, pylon, cord, spike, spar and bundle stand; rail, hook,
// tails, shank and cleat lie; ring, shackle, edgeon, toweye, shaft and
// eye are closed rings; a hole is a gap in a plate.
//
// "begun n" has the first rope up to step n proven as a knot of its own, "threaded"
// the first half of a rope that runs back beside itself, "divided 0.4 0.6" its
// parts up to these shares of its length.
//
// "ringed x,y r" rings a place to look at, where a faulty form differs. "size" says
// that it differs in its size alone: its crossings are those of the right form.
//
// "alike a b: words" says that with crossings a and b turned over, both of them, the knot
// is as good: the tyer is free to choose.
//
// The curve through the points is Hobby's spline (J. D. Hobby, Smooth, easy to
// compute interpolating splines, Discrete & Computational Geometry 1, 1986).
//
// A source is refused when the crossings found in the drawn curve are not the
// ones declared, or when the drawing would be hard to read: see [Shape.Legible].
//
// # Proof
//
// Open ends are closed by stated rules (tangle.Of); each closed diagram
// gives a planar diagram code, from which linking numbers, the Alexander
// polynomial and determinant, and the Jones polynomial follow. They prove that a
// drawing is topologically what its code says; that the code is the knot named
// is for an independent drawing, a knot table and a person's eye to say. The
// independent drawing is a space.Model: ropes laid through places in space, in which
// what passes over what follows from the places.
package shape
