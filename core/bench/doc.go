// Package bench reads pulls on a bench: what a trace shows, and what many pulls say about
// knots.
//
// # Two knots in one piece
//
// A specimen is one piece of line with a knot at each end, drawn until one of them gives.
// That gives a value for the knot that gave and an "at least" for the other one: it is
// right-censored, and so are both where the line parts away from the knots or a grip fails.
// Loads are in kilonewtons throughout.
//
// # Strength
//
// Strengths follow a Weibull distribution, S(x) = exp(−(x/scale)^shape), fitted by maximum
// likelihood with censoring. For a given quantile of it, or for a given shape, the likelihood
// has one maximum over what is left, where a decreasing function is zero; intervals are those
// of the profile likelihood (W. Q. Meeker and L. A. Escobar, Statistical Methods for
// Reliability Data, 1998, chapters 7 and 8, from memory). With few failures the limit is not
// that of χ² but of F with as many degrees of freedom as failures less one, which widens it.
//
// Survival curves are the product-limit estimate (E. L. Kaplan and P. Meier, Journal of the
// American Statistical Association 53, 1958); groups are compared by the log-rank test
// (N. Mantel, Cancer Chemotherapy Reports 50, 1966). Where two knots were drawn against each
// other, the pulls won by each say more than either: the chance that one is stronger is that
// of a share over one half, when all shares were as likely before.
//
// # Traces
//
// [Marks] finds slips, the peak and the break in a trace of time and force. [Simulate] makes
// traces such as a load cell gives, for practice and for the tests.
package bench
