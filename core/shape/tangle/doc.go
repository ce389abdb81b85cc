// Package tangle closes the open ends of a knot by stated rules and computes what can be
// said of the closed diagrams: linking numbers, the Alexander polynomial and determinant,
// the Jones polynomial.
package tangle
