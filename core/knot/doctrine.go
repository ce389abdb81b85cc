package knot

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"oarweed/core/evidence"
	"oarweed/core/problem"
)

// Question is one on which practitioners disagree.
type Question struct {
	ID       string `json:"id"`
	Question string `json:"question"`
	// Shows is the knot that is drawn beside it, as it is taught.
	Shows string `json:"shows"`
	// Doctrines answer it; the first is taken until another is chosen.
	Doctrines []Doctrine `json:"doctrines" nullable:"false"`
}

// Doctrine is one answer, with what speaks for it and what it changes, by knot id.
type Doctrine struct {
	ID     string            `json:"id"`
	Name   string            `json:"name"`
	Why    string            `json:"why"`
	Change map[string]Change `json:"-" yaml:"change"`
}

// Change is what a doctrine alters in one knot.
type Change struct {
	// Steps replaces the words of steps, by number from 1: the next after the last is
	// added, no words take a step out.
	Steps map[int]string
	// AddChecks are new; DropChecks are parts of the checks to drop, DropFaults codes.
	AddChecks  []string `yaml:"add_checks"`
	DropChecks []string `yaml:"drop_checks"`
	DropFaults []string `yaml:"drop_faults"`
	// Fit for a task the knot is already known for, or for a new one, whatever the thing.
	// Where it is higher than the knot's own the doctrine's reason is given.
	Fit map[string]float64
	// Because is the reason for a task that Fit names, in place of the knot's own.
	Because map[string]string
	Wraps   []WrapRule
	// FrictionModel and FrictionCount replace the knot's.
	FrictionModel string `yaml:"network"`
	FrictionCount int    `yaml:"network_count"`
	// Summary, ReleaseHow and ShakeWhy replace these words of the knot.
	Summary    string
	ReleaseHow string `yaml:"release_how"`
	ShakeWhy   string `yaml:"shake_why"`
	// Release and Shake replace how it comes off and what shaking does to it.
	Release *Release
	Shake   *Shake
	// HeldByHand: a hand stays on its end.
	HeldByHand bool `yaml:"held_by_hand"`
	// BackupAlways: the end is backed up whoever depends on it.
	BackupAlways bool `yaml:"backup_always"`
	// Objects it is tied on as well.
	Objects []string
	// Drawing that shows it so tied; empty: as the knot is drawn.
	Drawing string
	// Ratio replaces the limits of thick ÷ thin.
	Ratio *Ratio
	// LeftOn replaces the end that is left on, in millimetres.
	LeftOn *evidence.Interval `yaml:"left_on"`
	// Hold goes before the classes of hold that the knot has, and so counts first.
	Hold []HoldClass
}

// Doctrine finds an answer by id; nil if there is none.
func (q *Question) Doctrine(id string) *Doctrine {
	for i := range q.Doctrines {
		if q.Doctrines[i].ID == id {
			return &q.Doctrines[i]
		}
	}
	return nil
}

// Changed is the knot as a doctrine ties it; why is the doctrine's reason. The error
// names what there was nothing to change of.
func (k *Knot) Changed(c Change, why string) (*Knot, error) {
	var l problem.List
	out := *k
	out.Steps = slices.Clone(k.Steps)
	for _, n := range slices.Sorted(maps.Keys(c.Steps)) {
		switch {
		case n < 1 || n > len(out.Steps)+1:
			l.Add("steps", fmt.Sprintf("there is no step %d", n), fmt.Sprintf("give 1 to %d, or %d for one more", len(out.Steps), len(out.Steps)+1))
		case n > len(out.Steps):
			out.Steps = append(out.Steps, c.Steps[n])
		default:
			out.Steps[n-1] = c.Steps[n]
		}
	}
	out.Steps = slices.DeleteFunc(out.Steps, func(words string) bool { return words == "" })
	out.Checks = slices.Clone(k.Checks)
	for _, part := range c.DropChecks {
		before := len(out.Checks)
		out.Checks = slices.DeleteFunc(out.Checks, func(s string) bool { return strings.Contains(s, part) })
		if len(out.Checks) == before {
			l.Add("drop_checks", fmt.Sprintf("no check says %q", part), "quote a part of one")
		}
	}
	out.Checks = append(out.Checks, c.AddChecks...)
	out.Faults = slices.Clone(k.Faults)
	for i := range out.Faults {
		// With fewer steps, a fault of the last is still one of the last.
		out.Faults[i].AfterStep = min(out.Faults[i].AfterStep, len(out.Steps))
	}
	for _, code := range c.DropFaults {
		before := len(out.Faults)
		out.Faults = slices.DeleteFunc(out.Faults, func(f Fault) bool { return f.Code == code })
		if len(out.Faults) == before {
			l.Add("drop_faults", fmt.Sprintf("there is no fault %q", code), "use the code of one")
		}
	}
	out.Tasks = maps.Clone(k.Tasks)
	for task, fit := range c.Fit {
		s := out.Tasks[task]
		if fit > s.Fit { // the doctrine speaks for the knot, so its reason is given
			s.Why = why
		}
		if words := c.Because[task]; words != "" {
			s.Why = words
		}
		s.Fit, s.On = fit, nil // the doctrine counts on every thing
		out.Tasks[task] = s
	}
	for task := range c.Because {
		if _, ok := c.Fit[task]; !ok {
			l.Add("because", fmt.Sprintf("there is no fit for %q to give a reason for", task), "name it in fit as well")
		}
	}
	if c.Wraps != nil {
		if k.Wraps == nil {
			l.Add("wraps", "the knot has none", "drop the field")
		} else {
			w := *k.Wraps
			w.Rules = c.Wraps
			out.Wraps = &w
		}
	}
	if c.FrictionModel != "" {
		out.FrictionModel = c.FrictionModel
	}
	if c.FrictionCount != 0 {
		out.FrictionCount = c.FrictionCount
	}
	if c.Release != nil {
		out.Release = *c.Release
	}
	if c.Shake != nil {
		out.Shake = *c.Shake
	}
	for now, words := range map[*string]string{&out.Summary: c.Summary, &out.Release.How: c.ReleaseHow, &out.Shake.Why: c.ShakeWhy} {
		if words != "" {
			*now = words
		}
	}
	if c.LeftOn != nil {
		out.LeftOn = &evidence.Figure{Interval: *c.LeftOn, Tag: evidence.Trade, Source: "one of the ways it is taught, common practice, no source"}
	}
	out.HeldByHand = k.HeldByHand || c.HeldByHand
	out.BackupAlways = k.BackupAlways || c.BackupAlways
	out.Objects = append(slices.Clone(k.Objects), c.Objects...)
	if c.Drawing != "" {
		out.Drawing = c.Drawing
	}
	if c.Ratio != nil {
		out.Ratio = c.Ratio
	}
	out.Hold = append(slices.Clone(c.Hold), k.Hold...)
	return &out, l.Err()
}
