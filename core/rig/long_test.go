package rig_test

import (
	"bytes"
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/rig"
)

// endless is a document of a chain with so many parts.
func endless(tb testing.TB, parts int) []byte {
	d := rig.Document{PeakKN: 1}
	for i := range parts {
		e := rig.Element{Line: &rig.Line{Material: "polyester", DiameterMM: 12}}
		if i%2 == 1 {
			e = rig.Element{Joint: &rig.Joint{Task: "join"}}
		}
		d.Chain = append(d.Chain, e)
	}
	text, err := json.Marshal(d)
	require.NoError(tb, err)
	return text
}

func TestLongChains(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	for parts, refused := range map[int]bool{2*rig.MaxJoints + 1: false, 2*rig.MaxJoints + 3: true, 10_001: true} {
		d, err := rig.Parse(bytes.NewReader(endless(t, parts)))
		if err == nil {
			_, _, err = c.ResolveAll(d)
		}
		assert.Equal(t, refused, err != nil, "%d parts: %v", parts, err)
		if refused {
			assert.ErrorContains(t, err, "chain")
		}
	}
}

func BenchmarkRefuse10001Parts(b *testing.B) {
	c, err := catalogue.Load()
	require.NoError(b, err)
	text := endless(b, 10_001)
	for b.Loop() {
		d, err := rig.Parse(bytes.NewReader(text))
		if err == nil {
			_, _, err = c.ResolveAll(d)
		}
		if err == nil {
			b.Fatal("it was not refused")
		}
	}
}
