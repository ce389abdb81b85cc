package friction

import (
	"fmt"
	"math"
	"slices"

	"oarweed/core/problem"
)

// hornWrap is how far the rope bends round a horn in each half of a figure
// eight: half a turn and 30° more at either end, the slant at which the
// diagonals leave a common two-horned cleat. Common practice, no source.
const hornWrap = math.Pi + math.Pi/3

func turn(angle float64) Event           { return Event{Kind: Turn, Angle: angle} }
func mark(name string) Event             { return Event{Kind: Mark, Name: name} }
func under(name string, s float64) Event { return Event{Kind: Under, Name: name, Sides: s} }
func onOwn(events ...Event) []Event {
	for i := range events {
		events[i].On = Own
	}
	return events
}

// clove is shared: on an object it is the clove hitch, on the standing part it
// is what two half hitches the same way come to.
func clove() []Event {
	return []Event{under("diagonal", 1), turn(2 * math.Pi), mark("diagonal"), turn(2 * math.Pi), under("diagonal", 1)}
}

// eights is the control turn round the base of a cleat and n diagonals, with the wraps
// round a horn between them, up to the last diagonal. Each diagonal passes beneath the
// one laid after it, which has the tension of a place nearer the tag: that divides the
// force and cannot lock.
func eights(n int) []Event {
	e := []Event{turn(2 * math.Pi)}
	for i := 1; i <= n; i++ {
		e = append(e, mark(diagonal(i)))
		if i < n {
			e = append(e, under(diagonal(i+1), 1), turn(hornWrap))
		}
	}
	return e
}

func diagonal(i int) string { return fmt.Sprint("diagonal ", i) }

// build gives the event list of a hitch; n is the number of bare turns, figure
// eights or riding turns, where that is the user's choice, with its default.
type builder struct {
	n     int
	build func(n int) Hitch
}

var hitches = map[string]builder{
	"turns": {1, func(n int) Hitch {
		return Hitch{Events: []Event{turn(2 * math.Pi * float64(n))}}
	}},
	"round-turn": {1, func(int) Hitch {
		return Hitch{Events: []Event{turn(3 * math.Pi)}}
	}},
	"half-hitch": {0, func(int) Hitch {
		return Hitch{Events: []Event{mark("standing part"), turn(2 * math.Pi), under("standing part", 0.5)}}
	}},
	"clove-hitch": {0, func(int) Hitch { return Hitch{Events: clove()} }},
	"constrictor-hitch": {0, func(int) Hitch {
		return Hitch{Events: append([]Event{under("diagonal", 1), turn(2 * math.Pi), mark("diagonal"),
			turn(math.Pi), mark("second turn"), turn(math.Pi)}, under("diagonal", 1), under("second turn", 1))}
	}},
	"round-turn-two-half-hitches": {0, func(int) Hitch {
		return Hitch{Events: append([]Event{turn(3 * math.Pi)}, onOwn(clove()...)...)}
	}},
	"rolling-hitch": {2, func(n int) Hitch {
		var e []Event
		for i := range n {
			e = append(e, under(fmt.Sprint("riding ", i+1), 1))
		}
		for i := range n {
			e = append(e, turn(2*math.Pi), mark(fmt.Sprint("riding ", i+1)))
		}
		e = append(e, turn(2*math.Pi), under(fmt.Sprint("riding ", n), 1))
		return Hitch{Events: e, Axial: n + 1}
	}},
	// Control turn round the base, n figure eights, one locking turn: the end goes round
	// the last horn and beneath the diagonal it came from.
	"cleat-hitch": {2, func(n int) Hitch {
		return Hitch{Events: append(eights(2*n), turn(hornWrap), under(diagonal(2*n), 1))}
	}},
	// The load leg goes under the bridge, round to the back and up; the bridge comes
	// down across both legs; the other leg is the tag.
	"cow-hitch": {0, func(int) Hitch {
		return Hitch{Events: []Event{under("bridge", 0.5), turn(1.5 * math.Pi), mark("bridge"), turn(1.5 * math.Pi), under("bridge", 0.5)}}
	}},
	// Counted as a cow hitch until it has been pulled on a bench.
	"double-ring-hitch": {0, func(int) Hitch {
		return Hitch{Events: []Event{under("bridge", 0.5), turn(1.5 * math.Pi), mark("bridge"), turn(1.5 * math.Pi), under("bridge", 0.5)}}
	}},
	// As the cow hitch, each leg turned once about its own part.
	"bull-hitch": {0, func(int) Hitch {
		e := onOwn(turn(2 * math.Pi))
		e = append(e, under("bridge", 0.5), turn(1.5*math.Pi), mark("bridge"), turn(1.5*math.Pi), under("bridge", 0.5))
		return Hitch{Events: append(e, onOwn(turn(2*math.Pi))...)}
	}},
	// n full turns of each leg about its own part, half a turn over the hook, and
	// the same again on the other side.
	"cats-paw": {3, func(n int) Hitch {
		twist := 2 * math.Pi * float64(n)
		e := append(onOwn(turn(twist)), turn(math.Pi), Event{Kind: Turn, Angle: twist, On: Own})
		return Hitch{Events: append(e, onOwn(turn(twist))...)}
	}},
	// Round, beneath the legs, and over the head.
	"pile-hitch": {0, func(int) Hitch {
		return Hitch{Events: []Event{mark("legs"), turn(2 * math.Pi), under("legs", 1), turn(math.Pi)}}
	}},
	// Once round the tails, and the legs twisted about each other.
	"twisted-bight": {0, func(int) Hitch {
		return Hitch{Events: append([]Event{turn(math.Pi)}, onOwn(turn(2*math.Pi))...)}
	}},
	// The loop lies on the standing part, which the spike presses against it.
	"marlinespike-hitch": {0, func(int) Hitch {
		return Hitch{Events: []Event{under("loop", 0.5), turn(math.Pi), mark("loop"), turn(math.Pi), under("loop", 0.5)}}
	}},
	// Half a turn through the eye, then a half hitch about the standing part.
	"tow-eye-hitch": {0, func(int) Hitch {
		return Hitch{Events: append([]Event{turn(math.Pi)}, onOwn(mark("own turn"), turn(2*math.Pi), under("own turn", 1))...)}
	}},
	// Round the log, then n turns of the end round its own part, each pressed to
	// the log by the turn it is twisted about.
	"timber-hitch": {3, func(n int) Hitch {
		e := []Event{mark("turn"), turn(2 * math.Pi)}
		for range n {
			e = append(e, under("turn", 1))
		}
		return Hitch{Events: e}
	}},
	// A round turn; the first hitch goes under both turns, the second round the
	// standing part.
	"fishermans-bend": {0, func(int) Hitch {
		e := []Event{turn(math.Pi / 2), mark("first turn"), turn(2 * math.Pi), mark("second turn"), turn(math.Pi / 2),
			under("first turn", 1), under("second turn", 1)}
		return Hitch{Events: append(e, onOwn(turn(math.Pi), turn(math.Pi))...)}
	}},
	// Slipped with a bight: the bight holds as a single strand does, under the
	// standing part; pulled, it is gone.
	"slippery-hitch": {0, func(int) Hitch {
		return Hitch{Events: []Event{mark("standing part"), turn(2 * math.Pi), under("standing part", 0.5)}}
	}},
	// The standing part makes a bight round the end's second bight and a turn round
	// its first; half a turn through the ring; the end's first bight is pinched twice
	// by the turn, its second twice by the standing part's bight. What pinches a
	// bight presses on both its strands, half on each.
	"sampan-hitch": {0, func(int) Hitch {
		e := onOwn(mark("bight"), turn(math.Pi), mark("turn"), turn(2*math.Pi))
		e = append(e, turn(math.Pi))
		return Hitch{Events: append(e, onOwn(under("turn", 0.5), turn(math.Pi), under("turn", 0.5),
			under("bight", 0.5), turn(math.Pi), under("bight", 0.5))...)}
	}},
	// A turn round the pylon, then two half hitches about the standing part.
	"tow-pylon-hitch": {0, func(int) Hitch {
		return Hitch{Events: append([]Event{turn(2 * math.Pi)}, onOwn(clove()...)...)}
	}},
	// Bare turns on a bollard or a winch drum, half a turn more where the line
	// leaves toward the hand.
	"winch": {3, func(n int) Hitch {
		return Hitch{Events: []Event{turn(2*math.Pi*float64(n) + math.Pi)}}
	}},
	// Control turn, one figure eight, and n more full turns round the base with no
	// lock: it only ever holds with a hand, or with its own turns, never locks.
	"cleat-turns": {2, func(n int) Hitch {
		return Hitch{Events: append(eights(2), turn(hornWrap), turn(2*math.Pi*float64(n)))}
	}},
}

// IDs lists the hitches that have an event list, in alphabetical order.
func IDs() []string {
	ids := make([]string, 0, len(hitches))
	for id := range hitches {
		ids = append(ids, id)
	}
	slices.Sort(ids)
	return ids
}

// Find gives the hitch called id. n sets the number of bare turns ("turns"),
// riding turns ("rolling-hitch", at least 2), figure eights ("cleat-hitch") or
// twists ("timber-hitch");
// 0 takes the usual number.
func Find(id string, n int) (Hitch, error) {
	b, ok := hitches[id]
	if !ok {
		return Hitch{}, problem.New("hitch", fmt.Sprintf("%q has no friction model", id), "use one of "+fmt.Sprint(IDs()))
	}
	if n < 0 || n > 50 {
		return Hitch{}, problem.New("turns", fmt.Sprintf("%d turns cannot be made", n), "give 0 to 50")
	}
	if n == 0 {
		n = b.n
	}
	if id == "rolling-hitch" && n < 2 {
		return Hitch{}, problem.New("turns", "a rolling hitch has at least two riding turns", "give 2 or more")
	}
	h := b.build(n)
	h.ID = id
	return h, nil
}
