// Package shape turns one text source per knot into its drawing, its steps and
// its proof.
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
// "ringed x,y r" rings a place to look at, where a faulty form differs.
//
// The curve through the points is Hobby's spline (J. D. Hobby, Smooth, easy to
// compute interpolating splines, Discrete & Computational Geometry 1, 1986).
//
// A source is refused when the crossings found in the drawn curve are not the
// ones declared, or when the drawing would be hard to read: see [Shape.Legible].
//
// # Proof
//
// Open ends are closed by stated rules ([Shape.Closures]); each closed diagram
// gives a planar diagram code, from which linking numbers, the Alexander
// polynomial and determinant, and the Jones polynomial follow. They prove that a
// drawing is topologically what its code says; that the code is the knot named
// is for an independent drawing, a knot table and a person's eye to say.
package shape
