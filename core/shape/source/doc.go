// Package source reads the text from which a knot is drawn: crossings placed, ropes
// threaded through them, objects, steps. Its language is described in package shape.
package source
