package towline

import (
	"fmt"
	"slices"

	"oarweed/core/locker"
	"oarweed/core/name"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Book is a tow line that is kept: its take-offs, who rides on it, and where it was made fast.
type Book struct {
	ID       int64  `json:"id" readOnly:"true"`
	Revision int64  `json:"revision" readOnly:"true"`
	Name     string `json:"name" maxLength:"80"`
	// Own is the code of the line in the locker.
	Own  string   `json:"own,omitempty" maxLength:"12" doc:"code of the line in the locker"`
	Line rig.Line `json:"line"`
	// TakeoffsM are lengths from the handle, the last of which is its end.
	TakeoffsM []float64 `json:"takeoffs_m" nullable:"false" maxItems:"60" doc:"from the handle; the last is its end"`
	Boat      string    `json:"boat,omitempty" maxLength:"80"`
	On        On        `json:"on" enum:"pylon,tower,hook,eye"`
	Riders    []Rider   `json:"riders" nullable:"false" maxItems:"100"`
	// Runs count how often it was made fast with a hitch at a place.
	Runs []Run `json:"runs,omitempty" maxItems:"500"`
}

// Rider wants a length behind a boat, at a speed.
type Rider struct {
	Name  string  `json:"name" maxLength:"80"`
	Boat  string  `json:"boat,omitempty" maxLength:"80" doc:"left out: the line's"`
	WantM float64 `json:"want_m"`
	Kn    float64 `json:"kn,omitempty" minimum:"0" maximum:"80" doc:"speed of the boat"`
}

// Run counts at a place along the line, from the handle.
type Run struct {
	PlaceM float64 `json:"place_m"`
	N      int     `json:"n"`
}

const (
	// Shift is after how many runs with a hitch at one place the place is shifted: our own choice.
	Shift = 20
	// Near places count as one: a hitch covers so much of the cover.
	Near = unit.Length(0.15)
)

// Check puts a tow line in order. The error names each field.
func (b *Book) Check(v *rig.Vocabulary) error {
	var l problem.List
	n, err := name.Clean(b.Name, 80)
	l.Take("name", err)
	b.Name = n
	if b.Boat != "" {
		n, err := name.Clean(b.Boat, 80)
		l.Take("boat", err)
		b.Boat = n
	}
	if b.Own != "" && !locker.Known(b.Own) {
		l.Add("own", fmt.Sprintf("%q is no code of a line", b.Own), "choose a line of the locker, or leave it out")
	}
	if len(b.TakeoffsM) == 0 || len(b.TakeoffsM) > most {
		l.Add("takeoffs_m", fmt.Sprintf("are %d", len(b.TakeoffsM)), fmt.Sprintf("give 1 to %d lengths from the handle", most))
	}
	for i, x := range b.TakeoffsM {
		if !(x > 0 && x <= float64(longest)) {
			l.Add(fmt.Sprintf("takeoffs_m[%d]", i), fmt.Sprintf("%g is no length of a tow line", x), "give more than 0 and at most 200 m")
		}
	}
	slices.Sort(b.TakeoffsM)
	if hitches[b.On] == "" {
		l.Add("on", fmt.Sprintf("%q is not known", b.On), "use pylon, tower, hook or eye")
	}
	if len(b.Riders) > 100 {
		l.Add("riders", "are too many", "give 100 at the most")
	}
	if b.Riders == nil {
		b.Riders = []Rider{}
	}
	for i := range b.Riders {
		r, at := &b.Riders[i], fmt.Sprintf("riders[%d].", i)
		n, err := name.Clean(r.Name, 80)
		l.Take(at+"name", err)
		r.Name = n
		if r.Boat != "" {
			n, err := name.Clean(r.Boat, 80)
			l.Take(at+"boat", err)
			r.Boat = n
		}
		if !(r.WantM > 0 && r.WantM <= float64(longest)) {
			l.Add(at+"want_m", fmt.Sprintf("%g is no length of a tow line", r.WantM), "ask the rider: give more than 0 and at most 200 m")
		}
		if !(r.Kn >= 0 && r.Kn <= 80) {
			l.Add(at+"kn", fmt.Sprintf("%g knots is no speed of a tow", r.Kn), "give 0 to 80, or leave it out")
		}
	}
	for i, r := range b.Runs {
		if !(r.PlaceM > 0 && r.PlaceM <= float64(longest)) || r.N < 0 || r.N > 1_000_000 {
			l.Add(fmt.Sprintf("runs[%d]", i), "are no runs at a place", "give a place on the line and a count")
		}
	}
	l.Take("line", v.CheckLine(&b.Line))
	return l.Err()
}

// Offs are the take-offs as lengths.
func (b *Book) Offs() []unit.Length {
	out := make([]unit.Length, len(b.TakeoffsM))
	for i, x := range b.TakeoffsM {
		out[i] = unit.Length(x)
	}
	return out
}

// At is the place of a rider's hitch from the handle.
func (p Place) At() unit.Length { return p.Takeoff - p.TakeUp }

// Record counts a run of a rider: where a loop is used the cover is not rubbed. The runs are
// kept by place, the nearest to the handle first.
func (b *Book) Record(p Place) {
	if p.Hitch == "" {
		return
	}
	at := float64(p.At())
	for i := range b.Runs {
		if d := b.Runs[i].PlaceM - at; d < float64(Near) && d > -float64(Near) {
			b.Runs[i].N++
			return
		}
	}
	b.Runs = append(b.Runs, Run{at, 1})
	slices.SortFunc(b.Runs, func(a, c Run) int {
		if a.PlaceM < c.PlaceM {
			return -1
		}
		return 1
	})
}

// Rubbed are the places where a hitch has sat [Shift] times or more.
func (b *Book) Rubbed() []Run {
	out := []Run{}
	for _, r := range b.Runs {
		if r.N >= Shift {
			out = append(out, r)
		}
	}
	return out
}
