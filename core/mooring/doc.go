// Package mooring shares the wind on a moored boat among her lines.
//
// Seen from above, the boat is a stiff body that can shift ahead, athwart and turn. Her lines
// only pull: each is an elastic line that is just taut as she lies, of the stiffness of its
// strength over its stretch at breaking and its length. A quay that all lines lead to only
// pushes, through fenders. She comes to rest where the energy of the lines, of the fenders and of
// the wind is least, which a damped Newton iteration finds.
//
// The frame is the boat's: metres, x toward the bow and y to starboard from amidships; bearings
// are clockwise from the bow. The wind from ahead is that of the ground-tackle table for her
// length; from abeam she is taken to catch more of it by a factor, both from memory, unless the area of
// her side is given. Swell, wash
// and the jerk of a slack line are not in it: the caution stands beside every answer.
package mooring
