package shape_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/shape"
	"oarweed/core/shape/tangle"
)

// An overhand knot, drawn here independently of the catalogue.
const overhand = `knot overhand
x l 1.2,3.2  b 4,5.6  r 6.8,3.2
rope r: -2.5,3 -1,3 |0 +l -b 6,6 7.2,4.6 +r 6.3,1.3 4,0.5 |1 1.7,1.3 -l 0.8,4.6 2,6 +b -r 9,3 10.5,3 |2
`

func load(t testing.TB, source string) *shape.Shape {
	t.Helper()
	sh, err := shape.Load(source)
	require.NoError(t, err)
	return sh
}

// 3_1 of the Rolfsen table: Alexander 1 − t + t², Jones t + t³ − t⁴ up to mirror,
// determinant 3.
func TestOverhandIsTheTrefoil(t *testing.T) {
	sh := load(t, overhand)
	for _, c := range tangle.Of(sh) {
		assert.Equal(t, "1 - t + t^2", c.Alexander, c.Name)
		assert.True(t, tangle.SameUpToMirror("t + t^3 - t^4", c.Jones), c.Jones)
		assert.EqualValues(t, 3, c.Determinant)
		assert.Equal(t, 1, c.Components)
	}
	// All crossings turned over: the mirror image, another knot.
	mirror := load(t, strings.NewReplacer("+l", "-l", "-l", "+l", "+b", "-b", "-b", "+b", "+r", "-r", "-r", "+r").Replace(overhand))
	assert.NotEqual(t, tangle.Of(sh)[0].Jones, tangle.Of(mirror)[0].Jones)
	assert.True(t, tangle.SameUpToMirror(tangle.Of(sh)[0].Jones, tangle.Of(mirror)[0].Jones))
	// One crossing turned over: it falls open.
	open := load(t, strings.NewReplacer("+l", "-l", "-l", "+l").Replace(overhand))
	assert.Equal(t, "1", tangle.Of(open)[0].Jones)
	assert.Equal(t, "1", tangle.Of(open)[0].Alexander)
}

func TestRefusesWhatIsNotDeclared(t *testing.T) {
	for _, c := range []struct{ from, to, says string }{
		{" -b 6,6", " 6,6", "crossing b: is not met exactly twice"},
		{"+b -r", "-b -r", "crossing b: is not met exactly twice"},
		{"x l 1.2,3.2  b 4,5.6  r 6.8,3.2", "x l 1.2,3.2  b 4,5.6  r 6.8,3.2 z 4,0.5", "crossing z"},
		{"4,0.5 |1", "4,4.6 |1", "apart at"},
		{"1.7,1.3 -l", "1.7,1.3 4,4 -3,4 -l", "undeclared crossing at"},
		{"knot overhand\n", "", "no knot line"},
		{"9,3 10.5,3", "9,3 9,3", "follow each other"},
		{"+b -r", "+b -q", "names no crossing placed"},
		{"rope r", "rape r", "begins no known line"},
		{"-2.5,3", "-2.5,x", "is not a place"},
		{"-r 9,3 10.5,3 |2", "-r 7.2,3.2 |2", "too near its end"},
		{"b 4,5.6", "b 4,5.6 b 4,5.7", "placed twice"},
		{"-1,3 |0", "-1,3 |x", "is not a step mark"},
	} {
		source := strings.Replace(overhand, c.from, c.to, 1)
		require.NotEqual(t, overhand, source)
		_, err := shape.Load(source)
		require.Error(t, err, c.to)
		assert.ErrorContains(t, err, c.says)
	}
}

const turn = `knot turn
post P 4,3 1.2 7
rope r: -2,3.4 0.6,3.6 |0 +P@4,3.3 6.2,2.4 |1 -P@4,1.6 1.6,0.9 |2
`

func TestObjectsHaveTwoSides(t *testing.T) {
	sh := load(t, turn)
	assert.Equal(t, []int{1}, abs(tangle.Of(sh)[0].Linking), "one turn round the post")
	_, err := shape.Load(strings.Replace(turn, "+P@4,3.3", "4,3.3", 1))
	assert.ErrorContains(t, err, "without saying on which side")
	_, err = shape.Load(strings.Replace(turn, "6.2,2.4 |1", "4.4,2.9", 1))
	assert.ErrorContains(t, err, "changes sides of P")
	none := load(t, strings.Replace(turn, "-P@4,1.6", "+P@4,1.6", 1))
	assert.Equal(t, []int{0}, tangle.Of(none)[0].Linking, "both passes in front: no turn")
}

func abs(v []int) []int {
	out := make([]int, len(v))
	for i, x := range v {
		out[i] = max(x, -x)
	}
	return out
}
