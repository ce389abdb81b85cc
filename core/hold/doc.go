// Package hold says how likely a hitch holds: one yardstick for every line, object and
// load, made from friction and from what use has taught.
//
// # Two frictions
//
// A draw is a pair of coefficients: μ_o of the rope on the object, its friction on smooth
// metal times the factor of the surface, and μ_r of the rope on itself. Both start from
// wide intervals, taken as triangles, drawn independently (the prior, from memory).
//
// # Use teaches friction
//
// Those intervals alone make hitches slip that the trade has relied on for centuries. A
// [Fact] is what use says of a hitch in a line on an object, and how sure that is. The
// draws are weighted by how well they agree with all facts of their material (Bayes'
// rule with importance weights):
//
//   - "holds", sure p: weight p where the hitch holds, 1 − p where it does not;
//   - "slips", sure p: the other way round;
//   - "works loose": the natural logarithm of its gain ([friction.Hitch.Gain]) is near a
//     margin, with a normal spread: it locks, but by little.
//
// # Holding without locking
//
// A hitch that does not lock still holds this load when the force that its tag needs is
// no more than what the tag gives by itself: stiffness, weight and the set of a dressed
// knot, c·d² with d the diameter, from memory and wide ([TagGives]). The chance that a
// hitch holds is the chance of
//
//	load ÷ hold ratio ≤ what the tag gives.
//
// That it locks, holding any load, is the stronger word and kept apart.
//
// # The table
//
// The posterior of a line, wet or dry, is worked out once and kept as [Draws] draws of
// equal weight. The hold ratios of a hitch on a surface are kept by the logarithm of
// object ÷ rope, in steps between which they are interpolated, so that an answer needs
// no network to be solved again.
//
// # Limits
//
// All facts of a material are taken as independent. Coefficients do not depend on load,
// speed or age. A line whose friction on metal was measured keeps it; its friction on
// itself is scaled alike, and use, which speaks of the usual line, teaches it nothing.
// What use teaches on smooth metal is carried to other surfaces by their
// factors.
package hold
