package bench_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/bench"
)

func find(name string) (string, bool) {
	id, ok := map[string]string{"Bowline": "bowline", "bowline": "bowline", "Eight": "figure-eight-loop"}[name]
	return id, ok
}

func TestATableOfResults(t *testing.T) {
	got, err := bench.ReadResults([][]string{
		{"knot A", "knot B", "highest load (N)", "outcome", "where", "note"},
		{"Bowline", "Eight", "6900", "broke", "knot A", "wet"},
		{"Eight", "bowline", "7100,5", "held", ""},
		{"", "", ""},
		{"Bowline", "lace", "7", "broke", "knot A"},
		{"Bowline", "Eight", "much", "broke", "knot A"},
		{"Bowline", "Eight", "7000", "burst", "knot A"},
		{"Bowline", "Eight", "7000", "broke", "nowhere"},
		{"Bowline", "Eight", "7000", "", ""},
	}, find)
	require.NoError(t, err)
	require.Len(t, got, 7)
	assert.Equal(t, bench.Line{N: 2, A: "bowline", B: "figure-eight-loop", LoadKN: 6.9, Outcome: bench.Broke, Where: bench.KnotA, Note: "wet"}, got[0])
	assert.InDelta(t, 7.1005, got[1].LoadKN, 1e-9)
	for i, says := range map[int]string{2: `line 5, column 2: "lace" is not a knot`, 3: `line 6, column 3: "much" is no load`, 4: `line 7, column 4: "burst"`, 5: `line 8, column 5: "nowhere"`, 6: "line 9, column 1: does not say where"} {
		assert.Contains(t, got[i].Wrong, says)
	}
	_, err = bench.ReadResults([][]string{{"knot A", "load"}}, find)
	assert.ErrorContains(t, err, "no column knot b")
}
