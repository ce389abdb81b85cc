package knot_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/evidence"
	"oarweed/core/knot"
)

func figure(low, likely, high float64) evidence.Figure {
	return evidence.Figure{Interval: evidence.Interval{Low: low, Likely: likely, High: high}, Tag: evidence.Trade, Source: "common practice, no source"}
}

func good() *knot.Knot {
	return &knot.Knot{
		ID: "hitch", Name: "Hitch", Kind: knot.Hitch, Summary: "A hitch.",
		Tasks: map[string]knot.Suits{"moor": {Fit: 0.5, Why: "it does"}}, Objects: []string{"ring"},
		Efficiency: []knot.Efficiency{
			{Materials: []string{"hmpe"}, Value: evidence.Exactly(0.3), Tag: evidence.Memory, Source: "recalled", Fails: "slips"},
			{Value: evidence.Exactly(0.6), Tag: evidence.Trade, Source: "common practice", Fails: "breaks"},
		},
		Hold: []knot.HoldClass{
			{Materials: []string{"hmpe"}, Dry: knot.Marginal, Wet: knot.Slips, Why: "it creeps", Tag: evidence.Trade},
			{Dry: knot.Holds, Wet: knot.Holds, Why: "it grips", Tag: evidence.Trade},
		},
		Shake: knot.Shake{Class: knot.Holds, Why: "it stays"}, Release: knot.Release{Slack: knot.Easy, How: "Pull."},
		Tail: figure(8, 10, 12), Uses: knot.Uses{Diameters: 10}, Bulk: 3, Seconds: figure(2, 4, 8), Difficulty: 1, Inspect: 5,
		Steps: []string{"One.", "Two."}, Checks: []string{"Right."},
		Faults: []knot.Fault{{Code: "a", Name: "A", Looks: "b", Leads: "c", Mend: "d"}},
	}
}

var words = knot.Vocabulary{Tasks: []string{"moor"}, Fittings: []string{"ring"}, Materials: []string{"hmpe", "polyester"}, Cautions: []string{"strength"}, Hitches: []string{"clove-hitch"}}

func TestTheFirstEntryThatCoversTheMaterialCounts(t *testing.T) {
	k := good()
	assert.Equal(t, knot.Gives, k.EfficiencyIn("hmpe", "moor").Fails)
	assert.Equal(t, 0.6, k.EfficiencyIn("polyester", "moor").Figure().Likely)
	assert.Equal(t, knot.Slips, k.HoldIn("hmpe", "moor").Wet)
	assert.Equal(t, knot.Holds, k.HoldIn("natural", "moor").Wet)
	assert.Equal(t, knot.Marginal, knot.Holds.Worse())
	assert.Equal(t, knot.Slips, knot.Slips.Worse())
}

func TestWrapsByStrength(t *testing.T) {
	w := knot.Wraps{Rules: []knot.WrapRule{{UpToLb: 20, N: 5}, {UpToLb: 40, N: 4}, {N: 3}}}
	for lb, n := range map[float64]int{12: 5, 20: 5, 21: 4, 40: 4, 100: 3} {
		assert.Equal(t, n, w.For(lb, "salt"), "%g lb", lb)
	}
	assert.Zero(t, knot.Wraps{}.For(10, "salt"))
}

func TestCheckNamesEveryField(t *testing.T) {
	require.NoError(t, good().Check(words))
	for field, spoil := range map[string]func(*knot.Knot){
		"id: missing":             func(k *knot.Knot) { k.ID = "" },
		"name: missing":           func(k *knot.Knot) { k.Name = "" },
		"summary: missing":        func(k *knot.Knot) { k.Summary = "" },
		"kind":                    func(k *knot.Knot) { k.Kind = "tangle" },
		"tasks: missing":          func(k *knot.Knot) { k.Tasks = nil },
		"tasks.moor":              func(k *knot.Knot) { k.Tasks["moor"] = knot.Suits{Fit: 2, Why: "x"} },
		`tasks: "fly" is not`:     func(k *knot.Knot) { k.Tasks["fly"] = knot.Suits{Fit: 1, Why: "x"} },
		`objects: "moon"`:         func(k *knot.Knot) { k.Objects = []string{"moon"} },
		"objects: missing":        func(k *knot.Knot) { k.Objects = nil },
		"ratio":                   func(k *knot.Knot) { k.Ratio = &knot.Ratio{Min: 2, Max: 1, Why: "x"} },
		`refuses: "wool"`:         func(k *knot.Knot) { k.Refuses = map[string]string{"wool": "x"} },
		"refuses.hmpe: missing":   func(k *knot.Knot) { k.Refuses = map[string]string{"hmpe": ""} },
		"efficiency: missing":     func(k *knot.Knot) { k.Efficiency = nil },
		"efficiency[1].materials": func(k *knot.Knot) { k.Efficiency[1].Materials = []string{"polyester"} },
		"efficiency[0].value":     func(k *knot.Knot) { k.Efficiency[0].Value = evidence.Exactly(1.5) },
		"efficiency[0].fails":     func(k *knot.Knot) { k.Efficiency[0].Fails = "" },
		"hold: needs either":      func(k *knot.Knot) { k.Hold = nil },
		"network":                 func(k *knot.Knot) { k.Hold, k.FrictionModel = nil, "magic" },
		"hold[0]":                 func(k *knot.Knot) { k.Hold[0].Why = "" },
		"hold[1].materials":       func(k *knot.Knot) { k.Hold[1].Materials = []string{"polyester"} },
		"shake":                   func(k *knot.Knot) { k.Shake.Class = "" },
		"release":                 func(k *knot.Knot) { k.Release.How = "" },
		"tail":                    func(k *knot.Knot) { k.Tail = figure(12, 10, 8) },
		"seconds":                 func(k *knot.Knot) { k.Seconds.Source = "" },
		"uses: missing":           func(k *knot.Knot) { k.Uses.Diameters = 0 },
		"bulk: missing":           func(k *knot.Knot) { k.Bulk = 0 },
		"difficulty: 9":           func(k *knot.Knot) { k.Difficulty = 9 },
		"inspect: 0":              func(k *knot.Knot) { k.Inspect = 0 },
		"wraps.rules: missing":    func(k *knot.Knot) { k.Wraps = &knot.Wraps{Loss: figure(0.1, 0.15, 0.2)} },
		"steps: missing":          func(k *knot.Knot) { k.Steps = k.Steps[:1] },
		"checks: missing":         func(k *knot.Knot) { k.Checks = nil },
		"faults: missing":         func(k *knot.Knot) { k.Faults = nil },
		"faults[0]: missing":      func(k *knot.Knot) { k.Faults[0].Mend = "" },
		"faults[1].code":          func(k *knot.Knot) { k.Faults = append(k.Faults, k.Faults[0]) },
		`cautions: "fire"`:        func(k *knot.Knot) { k.Cautions = []string{"fire"} },
	} {
		k := good()
		spoil(k)
		assert.ErrorContains(t, k.Check(words), field)
	}
}
