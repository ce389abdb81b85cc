// Package lesson plans what a class is taught in what order, and what it takes with it.
//
// # Minutes
//
// A knot takes a demonstration (shown whole, twice), a part in which everybody follows
// step by step with a pause after each, repeats (five tries at three times a practised
// hand), and a check of every learner, shared among those who teach. How many minutes
// that is follows from the knot's steps, difficulty and tying time in the catalogue: our
// own estimate, which what happened in earlier lessons corrects (Request.Factors).
//
// # Order
//
// Knots share structure (catalogue/kin.yaml): who has just been taught one of two, or
// knows it, needs less of the demonstration and the following of the other. Some cannot
// be taught before another. [New] finds the order that takes the fewest minutes, for at
// most [Exact] knots by dynamic programming over the subsets (Held and Karp, Journal of
// SIAM 10, 1962, from memory): the cost of a knot depends on which came before, not on
// their order, so f(S) = min over k in S of f(S − k) + cost(k | S − k) is exact. Of the
// subsets that fit the time it keeps the largest, then the one of fewest minutes, then
// the one asked for first. Beyond that number the knots are taken one by one, the
// cheapest next.
package lesson
