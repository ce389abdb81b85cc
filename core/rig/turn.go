package rig

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"oarweed/core/problem"
)

// Input is a number of a rig with one joint that can be turned to see how the
// answer follows: a field of the table at a place of the chain.
type Input struct {
	*Field
	ID   string  `json:"id"`
	Name string  `json:"name"`
	Unit string  `json:"unit"` // mm, kN, m, s or none
	Min  float64 `json:"min"`
	Max  float64 `json:"max"`

	at int
}

// inputs in the order in which they are offered.
var inputs = func() []*Input {
	in := func(part Part, json string, at int) *Input {
		f := FieldOf(part, json)
		unit := f.Unit
		if f.Whole {
			unit = "" // its unit is its name
		}
		return &Input{f, f.Turned.ID, f.Turned.Name, unit, f.Turned.Min, f.Turned.Max, at}
	}
	other := in(LinePart, "diameter_mm", 0)
	other.ID, other.Name, other.Max = "other.diameter", "diameter of the other line", 120
	return []*Input{in(LinePart, "diameter_mm", 2), in(LinePart, "label_kn", 2), in(LinePart, "mu", 2), other,
		in(FittingPart, "size_mm", 0), in(WholeRig, "peak_kn", 0), in(JointPart, "tail_m", 1), in(JointPart, "wraps", 1),
		in(JointPart, "seconds", 1), in(JointPart, "distance_m", 1)}
}()

// part gives the part of a document that the input belongs to, nil if it is not there.
func (in *Input) part(d *Document) any {
	switch e := &d.Chain[in.at]; {
	case in.Part == WholeRig:
		return d
	case in.Part == FittingPart && e.Fitting != nil:
		return e.Fitting
	case in.Part == JointPart && e.Joint != nil:
		return e.Joint
	case in.Part == LinePart && e.Line != nil:
		return e.Line
	}
	return nil
}

// Get gives the value in a document with one joint, 0 where it is left out; ok is
// false where the rig has no such part.
func (in *Input) Get(d Document) (v float64, ok bool) {
	part := in.part(&d)
	if part == nil {
		return 0, false
	}
	if in.whole != nil {
		return float64(*in.whole(part)), true
	}
	return *in.number(part), true
}

// With is the document with an input set; the document itself is left alone.
func (in *Input) With(d Document, v float64) Document {
	d.Chain = slices.Clone(d.Chain)
	d.Chain[in.at] = d.Chain[in.at].clone()
	part := in.part(&d)
	if in.whole != nil {
		*in.whole(part) = int(math.Round(v))
	} else {
		*in.number(part) = v
	}
	return d
}

// Inputs lists the numbers of this rig that can be turned. The diameter of a line whose
// strength is given by its label is none: the label does not follow it.
func Inputs(d Document) []*Input {
	var out []*Input
	for _, in := range inputs {
		if _, ok := in.Get(d); ok && !in.labelled(d) {
			out = append(out, in)
		}
	}
	return out
}

// labelled reports whether the input is the diameter of a line rated by its label.
func (in *Input) labelled(d Document) bool {
	line, ok := in.part(&d).(*Line)
	return ok && in.JSON == "diameter_mm" && line.LabelKN > 0
}

// InputFor finds an input of a rig by id. The error lists those there are.
func InputFor(d Document, field, id string) (*Input, error) {
	for _, in := range inputs {
		if _, ok := in.Get(d); ok && in.ID == id && in.labelled(d) {
			return nil, problem.New(field, "the strength on the label does not follow the diameter", "take the label off the line, or turn another number")
		}
	}
	var ids []string
	for _, in := range Inputs(d) {
		if in.ID == id {
			return in, nil
		}
		ids = append(ids, in.ID)
	}
	return nil, problem.New(field, fmt.Sprintf("%q is not a number of this rig", id), "use one of "+strings.Join(ids, ", "))
}
