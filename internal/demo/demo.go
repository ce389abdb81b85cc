// Package demo fills an empty database with Tangholm: an invented tidal island
// whose harbour school teaches on open luggers, a workboat and kelp punts, and
// fishes for pollack from the rocks. Nobody and nothing in it is real.
package demo

import (
	"context"
	"time"

	"oarweed/core/line"
	"oarweed/core/practice"
	"oarweed/core/rig"
	"oarweed/internal/app"
)

// Fill puts the demo data into a school that has no learners yet, and reports whether it
// did. Everything goes through the use cases, as if it were entered.
func Fill(ctx context.Context, s *app.School, now time.Time) (bool, error) {
	there, err := s.Records().Learners(ctx)
	if err != nil || len(there) > 0 {
		return false, err
	}
	for _, l := range linesOf(now) {
		if _, err := s.SaveLine(ctx, l); err != nil {
			return false, err
		}
	}
	for _, r := range rigs {
		if _, err := s.SaveRig(ctx, rig.Saved{Rig: r}); err != nil {
			return false, err
		}
	}
	ids, err := enrolled(ctx, s)
	if err != nil {
		return false, err
	}
	if err := practised(ctx, s, ids, now); err != nil {
		return false, err
	}
	for _, a := range attempts {
		at := practice.Attempt{LearnerID: ids[a.who], Knot: a.knot, Outcome: a.outcome, Fault: a.fault, Seconds: a.seconds,
			Conditions: a.conditions, At: now.Add(-a.ago)}
		if _, _, err := s.AddAttempt(ctx, at); err != nil {
			return false, err
		}
	}
	if err := rigged(ctx, s, now); err != nil {
		return false, err
	}
	return true, pulled(ctx, s, now)
}

func fitting(kind string, mm float64, surface string) rig.Element {
	return rig.Element{Fitting: &rig.Fitting{Kind: kind, SizeMM: mm, Surface: surface}}
}

func rope(m string, c line.Construction, mm float64) rig.Element {
	return rig.Element{Line: &rig.Line{Material: m, Construction: c, DiameterMM: mm}}
}

func joint(task string, r rig.Release, tail float64) rig.Element {
	return rig.Element{Joint: &rig.Joint{Task: task, Release: r, TailM: tail}}
}

// rigs are kept oldest first, so that the workboat's comes up first.
var rigs = []rig.Document{
	{Name: "Rocks evening: braid to hook", PeakKN: 0.03, Character: rig.Alternating, Consequence: rig.Gear,
		Chain: []rig.Element{{Line: &rig.Line{Material: "braided-pe", LabelKN: 0.133}}, joint("leader", rig.AnyWay, 0),
			{Line: &rig.Line{Material: "fluorocarbon", LabelKN: 0.089, LengthM: 2}}, joint("lure", rig.AnyWay, 0), fitting("hook-eye", 2.5, "polished-steel")}},
	{Name: "Lugger anchor line", PeakKN: 2, Character: rig.Alternating, Consequence: rig.Boat,
		Chain: []rig.Element{fitting("ring", 16, "polished-steel"), joint("anchor", rig.Slack, 0),
			{Line: &rig.Line{Material: "polyamide", Construction: line.Laid, DiameterMM: 12, LengthM: 30}}, joint("extend", rig.Slack, 0),
			{Line: &rig.Line{Material: "polyamide", Construction: line.Laid, DiameterMM: 12, LengthM: 20}}, joint("moor", rig.UnderLoad, 0), fitting("cleat", 30, "aluminium")}},
	{Name: "Leader to a swinging fly", PeakKN: 0.02, Character: rig.Alternating, Consequence: rig.Gear,
		Chain: []rig.Element{fitting("hook-eye", 2.5, "polished-steel"), joint("fly", rig.AnyWay, 0), {Line: &rig.Line{Material: "mono", Construction: line.Solid, LabelKN: 0.0712}}}},
	{Name: "Jammed fore sheet", PeakKN: 1.2, Character: rig.Steady, Consequence: rig.Boat,
		Chain: []rig.Element{rope("polyester", line.Braid, 12), joint("relieve", rig.Slack, 2), rope("polyester", line.Braid, 8)}},
	{Name: "Lugger fenders", PeakKN: 0.1, Character: rig.Alternating, Consequence: rig.Gear,
		Chain: []rig.Element{fitting("rail", 25, "varnished-wood"), joint("fender", rig.Slack, 1), rope("polyester", line.Braid, 8)}},
	{Name: "Workboat at the slip", PeakKN: 2.4, Character: rig.Alternating, Consequence: rig.Boat,
		Chain: []rig.Element{fitting("ring", 40, "polished-steel"), joint("moor", rig.Slack, 1.2), rope("polyester", line.Braid, 12)}},
}

const hour = time.Hour

var attempts = []struct {
	who, knot  string
	outcome    practice.Outcome
	fault      string
	seconds    float64
	conditions string
	ago        time.Duration
}{
	{"Ailsa", "bowline", "right", "", 9, "dry", 50 * hour},
	{"Bram", "bowline", "fault", "loop-crossed", 21, "dry", 49 * hour},
	{"Bram", "bowline", "right", "", 16, "dry", 48 * hour},
	{"Corin", "clove-hitch", "right", "", 6, "dry", 47 * hour},
	{"Dorrit", "sheet-bend", "fault", "ends-opposite", 14, "dry", 26 * hour},
	{"Dorrit", "sheet-bend", "slow", "", 24, "wet", 25 * hour},
	{"Eskil", "round-turn-two-half-hitches", "right", "", 11, "gloves", 24 * hour},
	{"Fenna", "bowline", "right", "", 7, "blind", 4 * hour},
	{"Ailsa", "rolling-hitch", "slow", "", 31, "wet", 3 * hour},
	{"Corin", "reef-knot", "fault", "granny", 5, "dry", 2 * hour},
	{"Eskil", "bowline", "right", "", 12, "wet", hour},
}
