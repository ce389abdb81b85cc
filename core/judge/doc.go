// Package judge says of one knot in one joint whether it will do, and why: a pure
// value, without words.
//
// # Size
//
// The ratio of the two lines, the wraps that the line's strength asks for, the tail
// and the line to tie with: so many diameters, so many turns round the object, the
// tail, and twice the distance from which it is cast off.
//
// # Hold
//
// For a hitch with a friction model the class follows from the critical friction
// (core/friction) against the interval of the line's own; its chance is the share of
// that interval above the critical value. Any other knot has the class known from
// use; of two lines the more slippery decides. A load that shakes or jerks takes a
// class off a knot that does not like it.
//
// # Strength
//
// Capacity is what the line bears now (MBL × wet × wear) × the share that the knot
// keeps, ends of the intervals multiplied end by end; each wrap short of the rule
// costs its share.
//
// # Limits
//
// Every limit that is violated gives a typed [Reason]: task, object, ratio, material,
// hold, release, fit through a hole, tail, time, a person at risk, strength below the
// load itself. None means that the knot can be ranked.
package judge
