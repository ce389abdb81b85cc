package choose

import (
	"fmt"
	"slices"
	"strings"

	"oarweed/core/knot"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// stopperGrowth is how much larger than its hole a stopper must be: a soft line
// squeezes. Common practice, no source.
const stopperGrowth = 1.2

// otherWork says that the knot is made for another task or another fitting; nil if
// it is not. Nothing more need be worked out for it then.
func (j *joint) otherWork() []Reason {
	if _, ok := j.k.Tasks[j.r.Task.ID]; !ok {
		return []Reason{{"task", "Not made for this. " + j.k.Summary}}
	}
	if f := j.r.Fitting; f != nil && len(j.k.Objects) > 0 && !slices.Contains(j.k.Objects, f.Kind.ID) {
		return []Reason{{"object", "Not tied on a " + f.Kind.Name + "."}}
	}
	return nil
}

// gates gives every reason why a knot made for the task cannot do it here; none
// if it can.
func (j *joint) gates() []Reason {
	var out []Reason
	add := func(gate, why string, args ...any) {
		if len(args) > 0 {
			why = fmt.Sprintf(why, args...)
		}
		out = append(out, Reason{gate, why})
	}
	k, r := j.k, j.r
	d := r.Line.Diameter
	if k.Ratio != nil && r.Other != nil && (j.ratio < k.Ratio.Min-1e-9 || j.ratio > k.Ratio.Max+1e-9) {
		add("ratio", "The lines are %.2g to 1: %s.", j.ratio, k.Ratio.Why)
	}
	for _, ln := range j.lines() {
		if why, no := k.Refuses[ln]; no {
			add("material", sentence(why))
		}
	}
	if h := j.now(); h.Class == knot.Slips {
		word := "dry"
		if r.Wet {
			word = "wet"
		}
		add("hold", "Slips %s: %s.", word, h.Why)
	}
	switch off := k.Release; {
	case r.Release == rig.UnderLoad && !off.UnderLoad:
		add("release", "Cannot be cast off under load. %s", off.How)
	case r.Release == rig.Distance && !off.Distance:
		add("release", "Cannot be cast off from a distance. %s", off.How)
	case r.Release == rig.Slack && (off.Slack == knot.Jams || off.Slack == knot.Cut):
		add("release", "Does not come off by hand. %s", off.How)
	}
	if r.Fitting != nil {
		size := r.Fitting.Size
		switch r.Fitting.Kind.ID {
		case "hook-eye", "shaft-hole":
			if d > size {
				add("fit", "A %s line does not pass through a %s hole.", d, size)
			} else if k.Doubled && 2*d > size {
				add("fit", "The line goes through doubled, and two of %s do not pass a %s eye.", d, size)
			}
		case "hole", "clamp":
			if d > size {
				add("fit", "A %s line does not pass through a %s gap.", d, size)
			} else if bulk := d * unit.Length(k.Bulk); bulk < size*stopperGrowth {
				add("fit", "It draws up to about %s, and a %s gap wants %s or more.", bulk, size, size*stopperGrowth)
			}
		}
	}
	if r.Tail > 0 && j.needs > r.Tail {
		add("tail", "Needs %s to tie, and there is %s.", j.needs, r.Tail)
	}
	if r.Seconds > 0 && k.Seconds.Low > r.Seconds {
		add("time", "Takes %s at least, and there is %s.", clock(k.Seconds.Low), clock(r.Seconds))
	}
	if r.Consequence == rig.Person && !k.Person {
		add("person", "Not where a person could be held or struck.")
	}
	if j.capacity.Likely < float64(r.Load) {
		add("strength", "Likely %s at %s, below the load itself.", strings.TrimSuffix(j.out.Fails, "s"), unit.Force(j.capacity.Likely))
	}
	return out
}

// clock writes a time in words.
func clock(s float64) string {
	if s < 90 {
		return fmt.Sprintf("%.0f s", s)
	}
	return fmt.Sprintf("%.3g min", s/60)
}

// lines lists the material ids that matter to the knot.
func (j *joint) lines() []string {
	out := []string{j.r.Line.Material.ID}
	if j.r.Other != nil && j.r.Task.Between == rig.TwoLines && j.r.Other.Material.ID != out[0] {
		out = append(out, j.r.Other.Material.ID)
	}
	return out
}
