// Package curve is the geometry of drawn ropes in the plane: points, cubic Béziers and
// Hobby's spline (J. D. Hobby, Smooth, easy to compute interpolating splines, Discrete &
// Computational Geometry 1, 1986) with its arc length.
package curve
