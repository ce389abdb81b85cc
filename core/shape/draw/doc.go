// Package draw writes a laid-out shape as SVG: from the tyer's side, from across, left-handed,
// step by step, in laid rope, braid or monofilament.
package draw
