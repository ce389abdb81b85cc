package shape_test

import (
	"encoding/xml"
	"fmt"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/shape"
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
	for _, c := range sh.Closures() {
		assert.Equal(t, "1 - t + t^2", c.Alexander, c.Name)
		assert.True(t, shape.SameUpToMirror("t + t^3 - t^4", c.Jones), c.Jones)
		assert.EqualValues(t, 3, c.Determinant)
		assert.Equal(t, 1, c.Components)
	}
	// All crossings turned over: the mirror image, another knot.
	mirror := load(t, strings.NewReplacer("+l", "-l", "-l", "+l", "+b", "-b", "-b", "+b", "+r", "-r", "-r", "+r").Replace(overhand))
	assert.NotEqual(t, sh.Closures()[0].Jones, mirror.Closures()[0].Jones)
	assert.True(t, shape.SameUpToMirror(sh.Closures()[0].Jones, mirror.Closures()[0].Jones))
	// One crossing turned over: it falls open.
	open := load(t, strings.NewReplacer("+l", "-l", "-l", "+l").Replace(overhand))
	assert.Equal(t, "1", open.Closures()[0].Jones)
	assert.Equal(t, "1", open.Closures()[0].Alexander)
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
	assert.Equal(t, []int{1}, abs(sh.Closures()[0].Linking), "one turn round the post")
	_, err := shape.Load(strings.Replace(turn, "+P@4,3.3", "4,3.3", 1))
	assert.ErrorContains(t, err, "without saying on which side")
	_, err = shape.Load(strings.Replace(turn, "6.2,2.4 |1", "4.4,2.9", 1))
	assert.ErrorContains(t, err, "changes sides of P")
	none := load(t, strings.Replace(turn, "-P@4,1.6", "+P@4,1.6", 1))
	assert.Equal(t, []int{0}, none.Closures()[0].Linking, "both passes in front: no turn")
}

func abs(v []int) []int {
	out := make([]int, len(v))
	for i, x := range v {
		out[i] = max(x, -x)
	}
	return out
}

// parsePaths reads a drawing as XML and gives the path data by group.
func parsePaths(t *testing.T, svg string) (paths int, texts []string) {
	t.Helper()
	d := xml.NewDecoder(strings.NewReader(svg))
	inText := false
	for {
		tok, err := d.Token()
		if err == io.EOF {
			return paths, texts
		}
		require.NoError(t, err, "the drawing must be well-formed")
		switch e := tok.(type) {
		case xml.StartElement:
			inText = e.Name.Local == "text"
			if e.Name.Local == "path" {
				paths++
			}
		case xml.CharData:
			if inText {
				texts = append(texts, string(e))
			}
		}
	}
}

func TestDrawings(t *testing.T) {
	sh := load(t, overhand)
	require.Equal(t, 2, sh.Steps())
	seen := map[string]bool{}
	for _, view := range shape.Views {
		for step := 0; step <= 2; step++ {
			svg := sh.SVG(shape.Options{View: view, Step: float64(step), Look: shape.LookLaid, Labels: true, Ghost: true, Title: "Over & under"})
			paths, texts := parsePaths(t, svg)
			assert.Greater(t, paths, 4)
			assert.Contains(t, texts, "working end")
			assert.Contains(t, svg, "<title>Over &amp; under</title>")
			assert.Equal(t, step > 0, strings.Contains(svg, "data-moved"), "the moved part is accented from the first step on")
			assert.Equal(t, step < 2, strings.Contains(svg, "data-ghost"), "the next move is shown until the last step")
			assert.Less(t, len(svg), 40_000)
			if step == 2 {
				assert.False(t, seen[svg], "every view of the finished knot differs")
				seen[svg] = true
			}
		}
	}
	whole := sh.SVG(shape.Options{Step: -1})
	assert.NotContains(t, whole, "data-moved")
	// Three crossings: three gaps, so the rope is drawn in four pieces.
	assert.Equal(t, 4, strings.Count(whole, `stroke-width="0.7"/>`)-strings.Count(whole, `stroke="#000"`)-1)
}

func TestHalfwayStepsMoveTheEnd(t *testing.T) {
	sh := load(t, overhand)
	last := ""
	for k := range 9 {
		svg := sh.SVG(shape.Options{Step: float64(k) / 4})
		assert.NotEqual(t, last, svg)
		last = svg
	}
}

// Torus knots T(2,n) for odd n, as planar diagram codes made here: their Jones
// polynomial has the closed form t^{(n−1)/2}(1 − t³ − t^{n+1} + t^{n+2})/(1 − t²)
// (V. F. R. Jones, Annals of Mathematics 126, 1987).
func TestTorusKnotsAgainstTheClosedForm(t *testing.T) {
	for n := 3; n <= 21; n += 2 {
		// (1 − t³ − t^{n+1} + t^{n+2}) ÷ (1 − t²), term by term.
		num := map[int]int{0: 1, 3: -1, n + 1: -1, n + 2: 1}
		quotient := make([]int, n+1)
		for e := 0; e <= n; e++ {
			quotient[e] = num[e]
			if e >= 2 {
				quotient[e] += quotient[e-2]
			}
		}
		var want strings.Builder
		for e, k := range quotient {
			if k != 0 {
				fmt.Fprintf(&want, "%+dt^%d", k, e+(n-1)/2)
			}
		}
		got := shape.JonesOf(torus(n))
		assert.True(t, shape.SameUpToMirror(want.String(), got), "T(2,%d): %s, want %s", n, got, want.String())
	}
}

// torus is the standard diagram of T(2,n): strand edges 1…2n, every crossing
// between edge i and edge i+n.
func torus(n int) [][4]int {
	edge := func(i int) int { return (i-1)%(2*n) + 1 }
	var x [][4]int
	for i := 1; i <= 2*n; i += 2 {
		// Edge i goes under, edge i+n over, at the same crossing.
		x = append(x, [4]int{edge(i), edge(i + n), edge(i + 1), edge(i + n + 1)})
	}
	return x
}

// turksHead is the planar diagram code of the closed braid (σ₁σ₂⁻¹)ⁿ, edges
// numbered along each component.
func turksHead(n int) [][4]int {
	var x [][4]int
	next := 3
	at := []int{0, 1, 2}
	for k := range 2 * n {
		i := k % 2
		left, right := at[i], at[i+1]
		at[i], at[i+1] = next, next+1
		if i == 0 {
			x = append(x, [4]int{right, left, next, next + 1})
		} else {
			x = append(x, [4]int{left, next, next + 1, right})
		}
		next += 2
	}
	joined := map[int]int{at[0]: 0, at[1]: 1, at[2]: 2}
	after := map[int]int{}
	for j := range x {
		for i, e := range x[j] {
			if first, ok := joined[e]; ok {
				x[j][i] = first
			}
		}
		after[x[j][0]] = x[j][2]
		if j%2 == 0 { // the upper strand runs from the upper left
			after[x[j][1]] = x[j][3]
		} else {
			after[x[j][3]] = x[j][1]
		}
	}
	number := map[int]int{}
	for e := range 3 {
		for ; number[e] == 0; e = after[e] {
			number[e] = len(number) + 1
		}
	}
	for j := range x {
		for i, e := range x[j] {
			x[j][i] = number[e]
		}
	}
	return x
}

// Rolfsen's table: the braid's fourth power is 8₁₈.
func TestTurksHeadOfFour(t *testing.T) {
	assert.True(t, shape.Same("t^-4 - 4t^-3 + 6t^-2 - 7t^-1 + 9 - 7t + 6t^2 - 4t^3 + t^4", shape.JonesOf(turksHead(4))), shape.JonesOf(turksHead(4)))
}

func BenchmarkJones(b *testing.B) {
	for _, n := range []int{6, 10} {
		code := turksHead(n)
		b.Run(fmt.Sprint(2*n, " crossings"), func(b *testing.B) {
			for b.Loop() {
				shape.JonesOf(code)
			}
		})
	}
}
