// Package choose ranks the knots of the catalogue for one joint.
//
// Every knot of the catalogue ends up in one of two lists, never in neither:
// ruled out, with each gate it fails and the reason; or ranked by a score of 0
// to 100, which is the sum of visible contributions weight × value.
//
// # Gates
//
// task, object, ratio of diameters, material, hold (wet or dry as the rig
// says), release, fit through eye or hole, tail, person, strength (it would
// fail at the load itself, without any design factor).
//
// # Values, each 0 to 1
//
//   - fit: how well the knot suits the task, from the catalogue;
//   - strength: m/(1+m), m = capacity ÷ (load × design factor);
//   - hold: for hitches with a friction model the share of the friction interval
//     (triangular) above μ_c; otherwise by class: holds 0.95, marginal 0.5;
//   - release, time 15/(15+s), ease, inspection, line used 1/(1+metres).
//
// Capacity is MBL × wet × wear × efficiency, ends of the intervals multiplied
// end by end. The weights are data: see weights.yaml.
package choose
