package judge_test

import (
	"fmt"
	"log"
	"math"
	"reflect"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/judge"
	"oarweed/core/line"
	"oarweed/core/rig"
	"oarweed/core/trade"
)

func load(t require.TestingT) *trade.Catalogue {
	c, err := catalogue.Load()
	require.NoError(t, err)
	return c
}

// mooring is a line on a ring; change alters it before it is resolved.
func mooring(t require.TestingT, c *trade.Catalogue, change func(fitting *rig.Fitting, joint *rig.Joint, line *rig.Line, d *rig.Document)) *rig.Rig {
	f, j, l := &rig.Fitting{Kind: "ring", SizeMM: 40}, &rig.Joint{Task: "moor"}, &rig.Line{Material: "polyester", Construction: line.Braid, DiameterMM: 12}
	d := rig.Document{Chain: []rig.Element{{Fitting: f}, {Joint: j}, {Line: l}}, PeakKN: 2.4, Character: rig.Alternating, Consequence: rig.Boat}
	if change != nil {
		change(f, j, l, &d)
	}
	r, err := c.Resolve(d)
	require.NoError(t, err)
	return r
}

func Example() {
	c, err := catalogue.Load()
	if err != nil {
		log.Fatal(err)
	}
	r, err := c.Resolve(rig.Document{PeakKN: 2.4, Chain: []rig.Element{
		{Fitting: &rig.Fitting{Kind: "ring", SizeMM: 40}},
		{Joint: &rig.Joint{Task: "moor", Release: rig.UnderLoad}},
		{Line: &rig.Line{Material: "polyester", DiameterMM: 12}},
	}})
	if err != nil {
		log.Fatal(err)
	}
	v := judge.Judge(r, c.Knot("bowline"), nil)
	fmt.Println(v.Will(), v.Against[0].Gate())
	// Output: false release
}

// One situation for each limit, as an instructor would put it to a class. Common
// practice, no source.
func TestEveryLimitSpeaks(t *testing.T) {
	c := load(t)
	type change = func(f *rig.Fitting, j *rig.Joint, l *rig.Line, d *rig.Document)
	for _, x := range []struct {
		knot   string
		gate   judge.Gate
		change change
	}{
		{"reef-knot", judge.TaskGate, nil},
		{"cleat-hitch", judge.ObjectGate, nil},
		{"bowline", judge.ReleaseGate, func(_ *rig.Fitting, j *rig.Joint, _ *rig.Line, _ *rig.Document) { j.Release = rig.UnderLoad }},
		{"round-turn-two-half-hitches", judge.HoldGate, func(_ *rig.Fitting, _ *rig.Joint, l *rig.Line, _ *rig.Document) {
			l.Material, l.Construction = "hmpe", line.Twelve
		}},
		{"bowline", judge.TailGate, func(_ *rig.Fitting, j *rig.Joint, _ *rig.Line, _ *rig.Document) { j.TailM = 0.05 }},
		{"figure-eight-follow-through", judge.TimeGate, func(_ *rig.Fitting, j *rig.Joint, _ *rig.Line, _ *rig.Document) { j.Seconds = 2 }},
		{"clove-hitch", judge.PersonGate, func(f *rig.Fitting, _ *rig.Joint, _ *rig.Line, d *rig.Document) {
			f.Kind, d.Consequence = "post", rig.Person
		}},
		{"bowline", judge.StrengthGate, func(_ *rig.Fitting, _ *rig.Joint, l *rig.Line, _ *rig.Document) { l.DiameterMM = 2 }},
	} {
		v := judge.Judge(mooring(t, c, x.change), c.Knot(x.knot), nil)
		var gates []judge.Gate
		for _, r := range v.Against {
			gates = append(gates, r.Gate())
		}
		assert.Contains(t, gates, x.gate, x.knot)
		assert.False(t, v.Will())
	}
}

// A verdict is a value: asked again it is the same, and what it was asked about is as
// it was.
func TestJudgingChangesNothing(t *testing.T) {
	c := load(t)
	r, again := mooring(t, c, nil), mooring(t, c, nil)
	for _, k := range c.Knots {
		a, b := judge.Judge(r, k, nil), judge.Judge(r, k, nil)
		a.Rig, b.Rig = nil, nil
		assert.True(t, reflect.DeepEqual(a, b), k.ID)
	}
	assert.Equal(t, again, r)
}

// What is worked out is finite, in order, and adds up, for every knot and every task.
func TestVerdictsAreSound(t *testing.T) {
	c := load(t)
	for _, template := range c.Templates {
		rigs, _, err := c.ResolveAll(template.Rig)
		require.NoError(t, err)
		for _, r := range rigs {
			for _, k := range c.Knots {
				v := judge.Whatever(r, k, nil)
				at := fmt.Sprintf("%s, %s", template.ID, k.ID)
				s := v.Strength
				assert.True(t, 0 < s.Share.Low && s.Share.Low <= s.Share.Likely && s.Share.Likely <= s.Share.High && s.Share.High <= 1, "%s keeps %v", at, s.Share.Interval)
				assert.InDelta(t, s.Capacity.Likely/float64(r.Load), s.Times, 1e-9, at)
				assert.InDelta(t, s.Capacity.Low/float64(2*r.Load), s.Margin, 1e-9, at)
				for _, h := range []judge.Hold{v.Dry, v.Wet} {
					p := h.Chance
					assert.True(t, 0 < p.Low && p.Low <= p.Likely && p.Likely <= p.High && p.High < 1, "%s holds %v: nothing is certain", at, p.Interval)
				}
				assert.False(t, math.IsNaN(float64(v.Size.Needs)) || v.Size.Needs < v.Size.Tail || v.Size.Least > v.Size.Needs, "%s needs %v", at, v.Size.Needs)
				// Asked plainly, it is against the same, unless it is made for other work.
				if plain := judge.Judge(r, k, nil); !plain.OtherWork {
					assert.Equal(t, len(plain.Against), len(v.Against), at)
				}
			}
		}
	}
}
