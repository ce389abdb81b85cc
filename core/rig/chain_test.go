package rig_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/rig"
	"oarweed/core/trade"
)

const rode = `{"peak_kn":2,"chain":[
	{"fitting":{"kind":"ring"}},{"joint":{"task":"anchor"}},
	{"line":{"material":"polyamide","diameter_mm":12}},{"joint":{"task":"extend"}},
	{"line":{"material":"polyamide","diameter_mm":10}},{"joint":{"task":"moor"}},
	{"fitting":{"kind":"cleat"}}]}`

var cat = func() *trade.Catalogue {
	c, err := catalogue.Load()
	if err != nil {
		panic(err)
	}
	return c
}()

func document(t *testing.T, text string) rig.Document {
	t.Helper()
	d, err := rig.Parse(strings.NewReader(text))
	require.NoError(t, err)
	return d
}

func TestSplitPutsWhatItIsTiedToFirst(t *testing.T) {
	parts, err := rig.Split(document(t, rode))
	require.NoError(t, err)
	require.Len(t, parts, 3)
	for i, want := range []struct{ joint, end, line int }{{1, 0, 2}, {3, 2, 4}, {5, 6, 4}} {
		assert.Equal(t, want.joint, parts[i].Joint)
		assert.Equal(t, want.end, parts[i].EndAt())
		assert.Equal(t, want.line, parts[i].LineAt())
		assert.Len(t, parts[i].Document.Chain, 3)
	}
	assert.Equal(t, "cleat", parts[2].Document.Chain[0].Fitting.Kind)
}

// A chain that ends in a line is tied to that end, as at its beginning.
func TestAFarLineIsWhatItIsTiedTo(t *testing.T) {
	parts, err := rig.Split(document(t, `{"peak_kn":1,"chain":[{"fitting":{"kind":"ring"}},{"joint":{"task":"moor"}},{"line":{"material":"hmpe"}},{"joint":{"task":"join"}},{"line":{"material":"polyester"}}]}`))
	require.NoError(t, err)
	assert.Equal(t, "polyester", parts[1].Document.Chain[0].Line.Material)
}

func TestWholePutsAPartBack(t *testing.T) {
	d := document(t, rode)
	parts, err := rig.Split(d)
	require.NoError(t, err)
	before, _ := json.Marshal(d)
	for _, p := range parts {
		after, _ := json.Marshal(p.Whole(d, p.Document.Chain))
		assert.JSONEq(t, string(before), string(after))
	}
	changed := parts[2].Document
	line := *changed.Chain[2].Line
	line.DiameterMM = 16
	changed.Chain = []rig.Element{changed.Chain[0], changed.Chain[1], {Line: &line}}
	assert.Equal(t, 16.0, parts[2].Whole(d, changed.Chain).Chain[4].Line.DiameterMM)
	assert.Equal(t, 10.0, d.Chain[4].Line.DiameterMM, "the chain itself is left alone")
}

func TestFillGivesEveryPartItsDefaults(t *testing.T) {
	full, err := cat.Fill(document(t, rode))
	require.NoError(t, err)
	assert.Equal(t, rig.Version, full.Version)
	assert.Equal(t, rig.Steady, full.Character)
	for i, e := range full.Chain {
		switch {
		case e.Joint != nil:
			assert.NotEmpty(t, e.Joint.Release, i)
		case e.Line != nil:
			assert.NotEmpty(t, e.Line.Construction, i)
		default:
			assert.Greater(t, e.Fitting.SizeMM, 0.0, i)
			assert.NotEmpty(t, e.Fitting.Surface, i)
		}
	}
	again, err := cat.Fill(full)
	require.NoError(t, err)
	assert.Equal(t, full, again, "filling twice changes nothing")
}

func TestNewFieldsAreChecked(t *testing.T) {
	for _, c := range []struct{ from, to, field string }{
		{`"diameter_mm":10`, `"diameter_mm":10,"mu":2`, "chain[4].line.mu"},
		{`"diameter_mm":10`, `"diameter_mm":10,"length_m":-1`, "chain[4].line.length_m"},
		{`{"task":"moor"}`, `{"task":"moor","seconds":-5}`, "chain[5].joint.seconds"},
		{`{"task":"moor"}`, `{"task":"moor","release":"distance","distance_m":900}`, "chain[5].joint.distance_m"},
		{`"peak_kn":2`, `"peak_kn":2,"weights":"luck"`, "weights"},
		{`{"task":"extend"}`, `{"task":"moor"}`, "chain[2]"},
	} {
		_, err := cat.Fill(document(t, strings.Replace(rode, c.from, c.to, 1)))
		assert.ErrorContains(t, err, c.field)
	}
}
