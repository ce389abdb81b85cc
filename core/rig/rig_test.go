package rig_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/rig"
)

const good = `{"chain":[{"fitting":{"kind":"ring","size_mm":40}},{"joint":{"task":"moor"}},{"line":{"material":"polyester","diameter_mm":12}}],"peak_kn":2.4}`

func resolve(t *testing.T, text string) (*rig.Rig, error) {
	t.Helper()
	d, err := rig.Parse(strings.NewReader(text))
	if err != nil {
		return nil, err
	}
	return cat.Resolve(d)
}

func TestDefaultsAreStated(t *testing.T) {
	r, err := resolve(t, good)
	require.NoError(t, err)
	stated := map[string]string{}
	for _, d := range r.Defaults {
		stated[d.Field] = d.Value
		assert.NotEmpty(t, d.Why, d.Field)
	}
	assert.Equal(t, map[string]string{
		"chain[0].fitting.surface": "polished-steel", "chain[2].line.construction": "laid", "chain[1].joint.stay": "night", "chain[1].joint.release": "slack",
		"chain[1].joint.tail_m": "enough", "character": "steady", "consequence": "gear",
	}, stated)
	assert.True(t, r.Wet, "wet is assumed: the worse case")
	assert.Equal(t, 5.0, r.DesignFactor)
	again, err := resolve(t, good)
	require.NoError(t, err)
	assert.Equal(t, r.Document, again.Document)
}

// Common rope-industry guidance, from memory: 5, a mooring that comes and goes included,
// 8 in jerks all day, 10 with people; 3 for fishing (common practice, no source).
func TestDesignFactor(t *testing.T) {
	for _, c := range []struct {
		c       rig.Character
		q       rig.Consequence
		fishing bool
		want    float64
	}{{rig.Steady, rig.Boat, false, 5}, {rig.Alternating, rig.Gear, false, 5}, {rig.Snatch, rig.Boat, false, 8}, {rig.Steady, rig.Person, false, 10},
		{rig.Snatch, rig.Person, true, 10}, {rig.Snatch, rig.Gear, true, 3}} {
		f, why, tag := rig.DesignFactor(c.c, c.q, c.fishing)
		assert.True(t, tag.Valid())
		assert.Equal(t, c.want, f)
		assert.NotEmpty(t, why)
	}
}

func TestBadInputNamesTheFieldAndTheFix(t *testing.T) {
	for _, c := range []struct{ from, to, field, says string }{
		{`"diameter_mm":12`, `"diameter_mm":-12`, "chain[2].line.diameter_mm", "below zero"},
		{`"diameter_mm":12`, `"diameter_mm":900`, "chain[2].line.diameter_mm", "0.05 to 200 mm"},
		{`"diameter_mm":12`, `"diameter_mm":"12"`, "diameter_mm", "a number belongs"},
		{`"diameter_mm":12`, `"wear":1`, "chain[2].line.diameter_mm", "label strength"},
		{`2.4`, `1e9`, "peak_kn", "1000000000 kN is too large"},
		{`2.4`, `0`, "peak_kn", "no load given"},
		{`polyester`, `seaweed`, "chain[2].line.material", "polyester"},
		{`"ring"`, `"anvil"`, "chain[0].fitting.kind", "bollard"},
		{`"moor"`, `"fly-a-kite"`, "chain[1].joint.task", "sheet"},
		{`"peak_kn"`, `"peek_kn"`, "peek_kn", "not a field"},
		{`"kind":"ring","size_mm":40`, `"kind":"ring","size_mm":1e-9`, "chain[0].fitting.size_mm", "too small"},
		{`"moor"`, `"moor","release":"please"`, "chain[1].joint.release", "under-load"},
		{`"moor"`, `"join"`, "chain[0]", "joins two lines"},
		{`"peak_kn":2.4`, `"peak_kn":2.4,"consequence":"person","design_factor":4`, "design_factor", "10 or more"},
		{`"peak_kn":2.4`, `"peak_kn":2.4,"version":9`, "version", "newer"},
		{`]`, `]]`, "", "not JSON"},
		{`}}],"peak_kn":2.4}`, ``, "", "ends before"},
		{`,{"line":{"material":"polyester","diameter_mm":12}}`, ``, "chain", "in that order"},
	} {
		_, err := resolve(t, strings.Replace(good, c.from, c.to, 1))
		require.Error(t, err, c.to)
		assert.ErrorContains(t, err, c.says, c.to)
		assert.ErrorContains(t, err, c.field, c.to)
	}
}

func TestEveryComplaintAtOnce(t *testing.T) {
	_, err := resolve(t, `{"chain":[{"fitting":{"kind":"anvil"}},{"joint":{"task":"moor","tail_m":-1}},{"line":{"material":"seaweed"}}],"peak_kn":-1}`)
	for _, field := range []string{"kind", "tail_m", "material", "peak_kn"} {
		assert.ErrorContains(t, err, field)
	}
}
