package rank_test

import (
	"os"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"go.yaml.in/yaml/v3"

	"oarweed/catalogue"
	"oarweed/core/judge"
	"oarweed/core/line"
	"oarweed/core/rank"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// situation as testdata/situations.yaml has it.
type situation struct {
	Says, Task, On, Line, Other, Acts, Risk, Release string
	Stay, Water, Ground, Pull                        string
	Load, Tail, Seconds, Distance, Guide             float64
	Dry                                              bool
	First, Among, Never                              []string
	Schools                                          map[string]string
	Nearest                                          string
	Enough                                           *bool
}

// lineOf reads "polyester braid 12" (mm) or "mono 20lb".
func lineOf(t *testing.T, s string) *rig.Line {
	f := strings.Fields(s)
	out := &rig.Line{Material: f[0]}
	last := f[len(f)-1]
	if lb, ok := strings.CutSuffix(last, "lb"); ok {
		v, err := strconv.ParseFloat(lb, 64)
		require.NoError(t, err)
		out.LabelKN = (unit.Force(v) * unit.Pound).KN()
		return out
	}
	v, err := strconv.ParseFloat(last, 64)
	require.NoError(t, err)
	out.Construction, out.DiameterMM = line.Construction(f[1]), v
	return out
}

func (s situation) document(t *testing.T) rig.Document {
	j := &rig.Joint{Task: s.Task, Release: rig.Release(s.Release), TailM: s.Tail, Seconds: s.Seconds, DistanceM: s.Distance, GuideMM: s.Guide, Stay: rig.Stay(s.Stay), Pull: rig.Pull(s.Pull)}
	d := rig.Document{PeakKN: s.Load, Character: rig.Character(s.Acts), Consequence: rig.Consequence(s.Risk), Dry: s.Dry, Water: rig.Water(s.Water), Ground: rig.Ground(s.Ground)}
	end := rig.Element{}
	if s.On != "" {
		f := strings.Fields(s.On)
		mm, err := strconv.ParseFloat(f[1], 64)
		require.NoError(t, err)
		end.Fitting = &rig.Fitting{Kind: f[0], SizeMM: mm}
		if len(f) > 2 {
			end.Fitting.Surface = f[2]
		}
	} else {
		end.Line = lineOf(t, s.Other)
	}
	d.Chain = []rig.Element{end, {Joint: j}, {Line: lineOf(t, s.Line)}}
	return d
}

// Common practice, no source: what an instructor ties first, and what he never offers.
func TestSituations(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	text, err := os.ReadFile("testdata/situations.yaml")
	require.NoError(t, err)
	var list []situation
	require.NoError(t, yaml.Unmarshal(text, &list))
	require.GreaterOrEqual(t, len(list), 90)
	for _, s := range list {
		t.Run(s.Says, func(t *testing.T) {
			c, err := c.WithDoctrines(s.Schools)
			require.NoError(t, err)
			r, err := c.Resolve(s.document(t))
			require.NoError(t, err)
			o := rank.Joint(c, r)
			var ids []string
			for _, x := range o.Ranked {
				ids = append(ids, x.Knot.ID)
			}
			first := ""
			if len(ids) > 0 {
				first = ids[0]
			}
			if len(s.First) > 0 {
				assert.Contains(t, s.First, first, "ranked %v", ids)
			}
			for _, id := range s.Among {
				assert.Contains(t, ids, id)
			}
			for _, id := range s.Never {
				assert.NotContains(t, ids, id)
				require.NotNil(t, c.Knot(id), id)
			}
			if s.Nearest != "" {
				assert.Empty(t, ids)
				if assert.NotNil(t, o.Nearest) {
					assert.Equal(t, s.Nearest, o.Nearest.Knot.ID)
				}
			}
			if len(ids) == 0 {
				assert.True(t, o.Nearest != nil || r.Task.Instead != "", "an empty page")
			}
			if s.Enough != nil && len(ids) > 0 {
				assert.Equal(t, *s.Enough, o.Ranked[0].Strength.Enough == judge.Ample, "%s %+v", first, o.Ranked[0].Strength)
			}
		})
	}
}
