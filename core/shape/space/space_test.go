package space_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"oarweed/core/shape"
	"oarweed/core/shape/space"
)

// An overhand knot as it is drawn.
const overhand = `knot overhand
x l 1.2,3.2  b 4,5.6  r 6.8,3.2
rope r: -2.5,3 -1,3 |0 +l -b 6,6 7.2,4.6 +r 6.3,1.3 4,0.5 |1 1.7,1.3 -l 0.8,4.6 2,6 +b -r 9,3 10.5,3 |2
`

// An overhand: a loop, and the end from in front round the line and through it.
const overhandSpace = `
space overhand
rope
to -6,0,0 3,0,0 4,2,0 2,4,0 0,2,0.5 0.3,0,1 0.8,-1.2,0
to 1.5,0,-1 2,1.5,1 6,1.5,1`

func model(t *testing.T, text string) *space.Model {
	t.Helper()
	s, err := space.Parse(text)
	require.NoError(t, err)
	return s
}

// The values are those of the tables: a coil of n turns about its own line, ends
// brought together, is the torus knot T(2, 2n−1) or T(2, 2n+1); a coil round a bar
// links it n times.
func TestSpaceKnowsCoils(t *testing.T) {
	for turns, alexander := range map[string]string{"1": "1 - t + t^2", "2": "1 - t + t^2 - t^3 + t^4"} {
		s := model(t, "space coil\nrope\nto -9,0,0 6,0,0 7,2,1\ncoil 6,0,0 0,0,0 1.5 "+turns+"\nto -1,1.2,0.6 -1.4,0.6,0 7.5,0.6,0 11,0.6,0")
		got := s.Closures()
		require.Len(t, got, 2, "front and behind")
		assert.Equal(t, alexander, got[0].Alexander, turns)
	}
	round := model(t, "space turns\nbar 20,0,0 -20,0,0\nrope\nto 8,-6,2 8,-3,2\ncoil 8,0,0 0,0,0 2 3\nto 0,-6,2")
	for _, x := range round.Closures() {
		if x.Name == "L" {
			assert.Equal(t, 3, max(x.Linking[0], -x.Linking[0]))
		}
	}
}

func TestSpaceDoesNotDependOnTheView(t *testing.T) {
	s := model(t, overhandSpace)
	want := s.Closures()
	for _, v := range []space.Lean{{X: 0.02, Y: 0.01, Z: 0.3}, {X: -0.03, Y: 0.02, Z: -0.2}, {Y: 0.04, Z: 1}} {
		for i, x := range s.Leaned(v).Closures() {
			assert.Equal(t, want[i].Jones, x.Jones, "%v", v)
			assert.Equal(t, want[i].Alexander, x.Alexander, "%v", v)
		}
	}
	assert.Greater(t, s.Clearance(), 0.03)
}

func TestSpaceMatchesItsKnotOnly(t *testing.T) {
	s := model(t, overhandSpace)
	drawn := load(t, overhand)
	require.NoError(t, s.Matches(drawn))
	for name := range drawn.Crossings {
		assert.ErrorContains(t, s.Matches(drawn.Flipped(name)), "second drawing", "crossing %s turned over", name)
	}
	ringed := model(t, "space overhand\nring 0,0,0 3\nrope\nto -6,0,0 6,0,1")
	assert.ErrorContains(t, ringed.Matches(drawn), "second drawing", "a ring it never touches")
}

// A doubled path is a rope that runs back beside itself: no knot as a whole.
func TestSpacePairs(t *testing.T) {
	s := model(t, overhandSpace+"\npair 0.3")
	names := map[string]string{}
	for _, x := range s.Closures() {
		names[x.Name] = x.Alexander
	}
	assert.Equal(t, "1", names["front"])
	assert.Equal(t, "1 - t + t^2", names["half"])
}

func TestSpaceSaysWhatIsWrong(t *testing.T) {
	for text, want := range map[string]string{
		"":                                       "there is no name",
		"space a\nrope":                          "no rope of two places",
		"space a\nto 1,2,3":                      "line 2: to wants a rope begun before it",
		"space a\nrope\nto 1,2":                  `line 3: "1,2" is not a place`,
		"space a\nrope\nto 0,0,0 1,0,0\nwind up": `line 4: "wind" is no instruction`,
		"space a\nseen twice":                    "line 2: seen wants across",
		"space a b":                              "line 1: space wants a name",
		"space a\nring 0,0,0":                    "line 2: ring wants a centre and a radius",
		"space a\nbar 0,0,0":                     "line 2: bar wants two places or more",
		"space a\nrope\ncoil 0,0,0 1,0,0 1 1":    "line 3: coil wants a place to begin from",
		"space a\nrope\nto 0,0,0\npair 1":        "line 4: pair wants rope before it",
		"space a\nrope\nto 0,0,0\ncut half":      "line 4: cut wants the name of the first part",
	} {
		_, err := space.Parse(text)
		assert.ErrorContains(t, err, want, text)
	}
}

func load(t testing.TB, source string) *shape.Shape {
	t.Helper()
	sh, err := shape.Load(source)
	require.NoError(t, err)
	return sh
}
