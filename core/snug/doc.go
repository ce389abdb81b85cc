// Package snug draws a knot up in space: from a loose start to the shape it has when it is
// dressed and pulled, with what line it takes and how thick it gets.
//
// # Model
//
// A rope is a tube round a centreline of nodes. Position-based relaxation with momentum
// shortens every rope step by step; two sweeps of Gauss and Seidel keep the segments even,
// the bend no tighter than a tube of its own radius allows, and the tubes apart, with
// Coulomb friction where ropes touch. Contact is between segments, not beads. Posts, rails
// and rings are ropes that cannot move, on which others slide: turns are pushed together by
// hand. The shortening falls geometrically in six stages; a stage ends when the length hardly
// drops any more.
//
// # How hands set it
//
// A run begins from the knot's drawing, laid out in space ([Lift]), or from a model in space
// ([Laid]) that is proven to be the same knot: the turns of a clinch or a blood knot go over to
// the other leg when they are drawn up, and begin as a helix there. All ends are held. What
// hands do besides is a [Hold]: push the knot up to its thing, pull each rope the way of its
// standing part, squeeze turns together, lead an end elsewhere. A push falls with the shortening,
// and is none at rest. The ends of a hitch on one bar are led beside one another.
//
// # Guards
//
// No rope passes through another: in every step the tubes stay farther apart than twice
// the largest move. Linking numbers and polynomials, ends labelled, are the same before
// and after. What overlaps at the start, passes through, diverges or does not settle is an
// error that says so.
//
// # Limits
//
// It is geometry with contact, not strength: nothing here says what a knot holds. Rope is
// a smooth tube that does not squeeze. Checked against the published lengths of ideal
// knots (knot-tightening literature, from memory): see the tests.
package snug
