package rank_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/catalogue"
	"oarweed/core/judge"
	"oarweed/core/rank"
	"oarweed/core/rig"
	"oarweed/core/trade"
)

// anyJoint draws a rig with one joint: any task, any line that it is for, any size, load
// and condition.
func anyJoint(t *rapid.T, c *trade.Catalogue) rig.Document {
	task := rapid.SampledFrom(c.Tasks).Draw(t, "task")
	line := func(name string) *rig.Line {
		m := rapid.SampledFrom(c.Materials).Draw(t, name)
		return &rig.Line{Material: m.ID, Construction: rapid.SampledFrom(m.Constructions).Draw(t, name+" made"),
			DiameterMM: rapid.Float64Range(0.2, 40).Draw(t, name+" mm"), Wear: rapid.IntRange(0, 3).Draw(t, name+" wear")}
	}
	end := rig.Element{}
	if task.Between == rig.ToFitting {
		end.Fitting = &rig.Fitting{Kind: rapid.SampledFrom(task.Fittings).Draw(t, "fitting"), SizeMM: rapid.Float64Range(1, 400).Draw(t, "size"),
			Surface: rapid.SampledFrom(c.Surfaces).Draw(t, "surface").ID}
	} else {
		end.Line = line("other")
	}
	joint := &rig.Joint{Task: task.ID, Release: rapid.SampledFrom([]rig.Release{rig.Slack, rig.UnderLoad, rig.Distance, rig.AnyWay, ""}).Draw(t, "release"),
		TailM: rapid.SampledFrom([]float64{0, 0.1, 0.5, 2, 20}).Draw(t, "tail"), Seconds: rapid.SampledFrom([]float64{0, 5, 30, 300}).Draw(t, "seconds")}
	return rig.Document{PeakKN: rapid.Float64Range(0.001, 60).Draw(t, "load"), Dry: rapid.Bool().Draw(t, "dry"),
		Character:   rapid.SampledFrom([]rig.Character{rig.Steady, rig.Alternating, rig.Flogging, rig.Snatch}).Draw(t, "character"),
		Consequence: rapid.SampledFrom([]rig.Consequence{rig.Gear, rig.Boat, rig.Person}).Draw(t, "risk"),
		Chain:       []rig.Element{end, {Joint: joint}, {Line: line("line")}}}
}

// Whatever is asked: a knot against which something speaks never stands above one against
// which nothing does, none that violates a limit is ranked, what is ranked first is what
// the short way finds, and there is never an empty page.
func TestOrderOfAnyRig(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	rapid.Check(t, func(t *rapid.T) {
		r, err := c.Resolve(anyJoint(t, c))
		require.NoError(t, err)
		o := rank.Joint(c, r)
		against := false
		for _, x := range o.Ranked {
			require.Empty(t, x.Against, x.Knot.ID)
			require.False(t, against && len(x.But) == 0, "%s stands below one against which something speaks", x.Knot.ID)
			against = against || len(x.But) > 0
			require.GreaterOrEqual(t, x.Fit, judge.LeastFit)
		}
		if len(o.Ranked) == 0 {
			require.True(t, o.Nearest != nil || r.Task.Instead != "" || allElsewhere(o), "%s: an empty page", r.Task.ID)
			require.Empty(t, rank.First(c, r))
			return
		}
		require.Equal(t, o.Ranked[0].Knot.ID, rank.First(c, r))
	})
}

// allElsewhere: every knot for the task goes on other things than this one.
func allElsewhere(o rank.Order) bool {
	for _, v := range o.Out {
		if !v.OtherWork && v.Fit >= judge.LeastFit {
			return false
		}
	}
	return true
}

// More load is never better: a knot that is ruled out stays out, one against which
// something speaks stays so, and no score rises.
func TestMoreLoadIsNeverBetter(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	rapid.Check(t, func(t *rapid.T) {
		d := anyJoint(t, c)
		r, err := c.Resolve(d)
		require.NoError(t, err)
		d.PeakKN *= rapid.Float64Range(1.05, 4).Draw(t, "more")
		heavier, err := c.Resolve(d)
		require.NoError(t, err)
		for _, k := range c.Knots {
			light, heavy := judge.Judge(r, k, nil), judge.Judge(heavier, k, nil)
			require.LessOrEqual(t, len(light.Against), len(heavy.Against), k.ID)
			if light.Will() && heavy.Will() {
				require.LessOrEqual(t, len(light.But), len(heavy.But), k.ID)
				w := c.Weights[r.Weights]
				require.LessOrEqual(t, rank.Score(heavy, w).Score, rank.Score(light, w).Score+1e-9, k.ID)
			}
		}
	})
}

// A built-in rig is never short or thin at a joint: each is an example of how it is done.
func TestBuiltInRigsAreEnough(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	for _, x := range c.Templates {
		rigs, _, err := c.ResolveAll(x.Rig)
		require.NoError(t, err)
		for _, r := range rigs {
			o := rank.Joint(c, r)
			if assert.NotEmpty(t, o.Ranked, "%s: %s", x.ID, r.Task.ID) {
				first := o.Ranked[0]
				assert.Equal(t, judge.Ample, first.Strength.Enough, "%s: %s by %s: new %.2f, margin %.2f", x.ID, r.Task.ID, first.Knot.ID, first.Strength.New, first.Strength.Margin)
			}
		}
	}
}
