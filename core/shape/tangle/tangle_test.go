package tangle_test

import (
	"fmt"
	"strings"
	"testing"

	"oarweed/core/shape/tangle"

	"github.com/stretchr/testify/assert"
)

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
		got := tangle.JonesOfCode(torus(n))
		assert.True(t, tangle.SameUpToMirror(want.String(), got), "T(2,%d): %s, want %s", n, got, want.String())
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
	assert.True(t, tangle.Same("t^-4 - 4t^-3 + 6t^-2 - 7t^-1 + 9 - 7t + 6t^2 - 4t^3 + t^4", tangle.JonesOfCode(turksHead(4))), tangle.JonesOfCode(turksHead(4)))
}

func BenchmarkJones(b *testing.B) {
	for _, n := range []int{6, 10} {
		code := turksHead(n)
		b.Run(fmt.Sprint(2*n, " crossings"), func(b *testing.B) {
			for b.Loop() {
				tangle.JonesOfCode(code)
			}
		})
	}
}
