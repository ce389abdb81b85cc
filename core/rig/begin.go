package rig

import (
	"fmt"
	"slices"

	"oarweed/core/problem"
)

// Begin is a rig for a task at its usual size and load, on a thing and in a material; those
// left out are the usual ones. Errors name the field.
func (v *Vocabulary) Begin(task, fitting, material string) (Document, error) {
	var l problem.List
	t := v.Task(task)
	if t == nil {
		l.Add("task", fmt.Sprintf("%q is no task", task), "use the id of a task")
		return Document{}, l.Err()
	}
	s := t.Start
	of := Line{Material: s.Material, Construction: s.Construction, DiameterMM: s.DiameterMM, LabelKN: s.LabelKN}
	if material != "" && material != s.Material {
		m := v.Material(material)
		switch {
		case m == nil:
			l.Add("material", fmt.Sprintf("%q is no material", material), "use the id of a material")
		case m.Fishing != (s.LabelKN > 0) && !t.Cord:
			l.Add("material", fmt.Sprintf("%s is not what this task is done in", m.Name), "take rope for rope's work, and fishing line for tackle")
		default:
			of = Line{Material: m.ID, Construction: m.Constructions[0], DiameterMM: s.DiameterMM, LabelKN: s.LabelKN}
			if slices.Contains(m.Constructions, s.Construction) {
				of.Construction = s.Construction
			}
		}
	}
	end := Element{}
	if t.Between == ToFitting {
		if fitting == "" {
			fitting = t.Fitting
		}
		if v.Fitting(fitting) == nil {
			l.Add("fitting", fmt.Sprintf("%q is nothing that a line is tied to", fitting), "use the id of a fitting")
		}
		end.Fitting = &Fitting{Kind: fitting}
	} else {
		other := of
		if s.OtherMM > 0 {
			other.DiameterMM, other.LabelKN = s.OtherMM, 0
		}
		end.Line = &other
	}
	return Document{PeakKN: s.PeakKN, Character: s.Character, Consequence: s.Consequence,
		Chain: []Element{end, {Joint: &Joint{Task: t.ID, Release: t.Release}}, {Line: &of}}}, l.Err()
}
