// Package towline finds the place at which a tow line is made fast for the length that a
// rider wants.
//
// A tow line has take-offs: loops at known lengths from the handle, the last of which is
// its end. At one of those lengths the loop itself is used. Between them, and below the
// shortest, the line is made fast with a hitch of its own: the next longer take-off is
// taken as the mark, and the hitch sits so far from it toward the handle as the wanted
// length is short of it. Beyond the longest nothing can be had: a hitch takes line up and
// never gives any. Plain arithmetic on the line's own lengths; common practice, no source.
package towline

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"oarweed/core/problem"
	"oarweed/core/unit"
)

// On is what the line is made fast to.
type On string

const (
	Pylon On = "pylon"
	Tower On = "tower" // the knob on a frame above the boat
	Hook  On = "hook"
	Eye   On = "eye"
)

// hitches are the knots (catalogue ids) with which a line is made fast at a length of its
// own: the pylon hitch drops over an open hook too, a closed eye takes a bight.
var hitches = map[On]string{Pylon: "tow-pylon-hitch", Tower: "tow-pylon-hitch", Hook: "tow-pylon-hitch", Eye: "tow-eye-hitch"}

// Hitch is the knot (a catalogue id) with which a line is made fast between its take-offs.
func (o On) Hitch() string { return hitches[o] }

// Fits is how near a wanted length may be to a take-off to be that one: nobody makes a
// tow line to better than that.
const Fits = unit.Length(0.01)

const (
	longest = unit.Length(200)
	most    = 60
)

// Place is where the line is made fast.
type Place struct {
	// Takeoff is the loop that is used, or the mark from which the hitch is measured, by
	// its length from the handle.
	Takeoff unit.Length
	// TakeUp is how far the hitch sits from it toward the handle; 0 where the loop fits.
	TakeUp unit.Length
	// Hitch is the knot by which it is made fast there; empty where the loop fits.
	Hitch string
	// Below: it is shorter than the shortest take-off.
	Below bool
}

// Find finds the place for a wanted length on a line with these take-offs, in any order.
// The error names the field: takeoffs, want or on.
func Find(takeoffs []unit.Length, want unit.Length, on On) (Place, error) {
	var l problem.List
	if len(takeoffs) == 0 || len(takeoffs) > most {
		l.Add("takeoffs", fmt.Sprintf("are %d", len(takeoffs)), fmt.Sprintf("give 1 to %d lengths from the handle", most))
	}
	for _, x := range append([]unit.Length{want}, takeoffs...) {
		if !(x > 0 && x <= longest) {
			field := "takeoffs"
			if x == want {
				field = "want"
			}
			l.Add(field, fmt.Sprintf("%s is no length of a tow line", x), "give more than 0 and at most 200 m")
			break
		}
	}
	hitch, ok := hitches[on]
	if !ok {
		l.Add("on", fmt.Sprintf("%q is not known", on), "use pylon, tower, hook or eye")
	}
	if err := l.Err(); err != nil {
		return Place{}, err
	}
	sorted := slices.Sorted(slices.Values(takeoffs))
	last := sorted[len(sorted)-1]
	if want > last+Fits {
		return Place{}, problem.New("want", fmt.Sprintf("is %s longer than the line reaches", want-last),
			"lengthen it with a section of at least that, looped in between line and boat, or take a longer line; a hitch only takes line up")
	}
	for i, x := range sorted {
		// The nearer of two that both fit.
		if i+1 < len(sorted) && math.Abs(float64(sorted[i+1]-want)) < math.Abs(float64(x-want)) {
			continue
		}
		if math.Abs(float64(x-want)) <= float64(Fits) {
			return Place{Takeoff: x}, nil
		}
		if x > want {
			return Place{Takeoff: x, TakeUp: x - want, Hitch: hitch, Below: i == 0}, nil
		}
	}
	return Place{Takeoff: last}, nil
}

// ParseTakeoffs reads lengths with commas between; "…" or "..." goes on by the last step
// up to the length after it, as in "60ft,65ft,…,85ft". Bare numbers are metres. The error
// names the field takeoffs.
func ParseTakeoffs(text string) ([]unit.Length, error) {
	bad := func(err error) error { return problem.At("takeoffs", err) }
	var out []unit.Length
	on := false
	for part := range strings.SplitSeq(text, ",") {
		part = strings.TrimSpace(part)
		if part == "…" || part == "..." {
			if on || len(out) < 2 {
				return nil, problem.New("takeoffs", "… does not follow two lengths", "write it like 60ft,65ft,…,85ft")
			}
			on = true
			continue
		}
		x, err := unit.ParseLength(part, unit.Metre)
		if err != nil {
			return nil, bad(err)
		}
		if on {
			on = false
			last := out[len(out)-1]
			step := last - out[len(out)-2]
			n := math.Round(float64((x - last) / step))
			if step <= 0 || n < 1 || n > most || math.Abs(float64(last+step*unit.Length(n)-x)) > float64(Fits) {
				return nil, problem.New("takeoffs", fmt.Sprintf("%s is not reached in steps of %s", part, step), "write every length, or end on a step")
			}
			for i := 1.0; i < n; i++ {
				out = append(out, last+step*unit.Length(i))
			}
		}
		out = append(out, x)
	}
	if on {
		return nil, problem.New("takeoffs", "… leads nowhere", "write the last length after it")
	}
	return out, nil
}
