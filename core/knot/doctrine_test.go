package knot_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/knot"
)

func taught() *knot.Knot {
	k := good()
	k.Steps = []string{"One.", "Two."}
	k.Checks = []string{"It lies flat.", "About 6 mm is left."}
	k.Faults = []knot.Fault{{Code: "loose", Name: "Loose"}, {Code: "wrong", Name: "Wrong"}}
	k.Tasks = map[string]knot.Suits{"moor": {Fit: 0.5, Why: "it does", On: map[string]float64{"ring": 0.2}}, "sheet": {Fit: 0.6, Why: "it is usual"}}
	k.Wraps = &knot.Wraps{Rules: []knot.WrapRule{{N: 5}}, Loss: figure(0.1, 0.15, 0.2)}
	return k
}

func TestADoctrineChangesACopy(t *testing.T) {
	k := taught()
	before := *k
	out, err := k.Changed(knot.Change{
		Steps: map[int]string{2: "Twice."}, AddChecks: []string{"The end is flush."}, DropChecks: []string{"6 mm"}, DropFaults: []string{"loose"},
		Fit: map[string]float64{"moor": 0.9, "tow": 0.4, "sheet": 0.1}, Wraps: []knot.WrapRule{{N: 7}}, FrictionCount: 3,
	}, "our way")
	require.NoError(t, err)
	assert.Equal(t, []string{"One.", "Twice."}, out.Steps)
	assert.Equal(t, []string{"It lies flat.", "The end is flush."}, out.Checks)
	assert.Equal(t, "wrong", out.Faults[0].Code)
	assert.Len(t, out.Faults, 1)
	assert.Equal(t, 0.9, out.Tasks["moor"].Fit)
	assert.Equal(t, 0.9, out.Tasks["moor"].For("ring", "salt"), "whatever the thing")
	assert.Equal(t, "our way", out.Tasks["moor"].Why, "the doctrine speaks for it")
	assert.Equal(t, "it is usual", out.Tasks["sheet"].Why, "a doctrine that speaks against it leaves the knot its reason")
	assert.Equal(t, "our way", out.Tasks["tow"].Why, "a new one takes the doctrine's")
	assert.Equal(t, 7, out.Wraps.For(20, "salt"))
	assert.Equal(t, 3, out.FrictionCount)
	assert.Equal(t, before.Steps, k.Steps)
	assert.Equal(t, 5, k.Wraps.For(20, "salt"))
	assert.NotContains(t, k.Tasks, "tow")
}

func TestAChangeThatFitsNothingIsAnError(t *testing.T) {
	k := taught()
	k.Wraps = nil
	_, err := k.Changed(knot.Change{Steps: map[int]string{4: "x"}, DropChecks: []string{"7 mm"}, DropFaults: []string{"tight"}, Wraps: []knot.WrapRule{{N: 1}}}, "")
	for _, says := range []string{"no step 4", "give 1 to 2, or 3 for one more", `no check says "7 mm"`, `no fault "tight"`, "the knot has none"} {
		assert.ErrorContains(t, err, says)
	}
}

func TestADoctrineAddsAndTakesOutSteps(t *testing.T) {
	more, err := taught().Changed(knot.Change{Steps: map[int]string{2: "then so", 3: "and so"}}, "")
	require.NoError(t, err)
	assert.Equal(t, []string{taught().Steps[0], "then so", "and so"}, more.Steps)
	less, err := taught().Changed(knot.Change{Steps: map[int]string{1: ""}}, "")
	require.NoError(t, err)
	assert.Equal(t, taught().Steps[1:], less.Steps)
}

func TestQuestionFindsItsDoctrines(t *testing.T) {
	q := knot.Question{Doctrines: []knot.Doctrine{{ID: "a"}, {ID: "b"}}}
	assert.Equal(t, "b", q.Doctrine("b").ID)
	assert.Nil(t, q.Doctrine("c"))
}
