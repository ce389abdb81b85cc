package tangle

import (
	"fmt"
	"maps"
	"math/bits"
	"slices"
	"strings"
)

// laurent is a Laurent polynomial with integer coefficients; c[i] belongs to
// exponent lo+i. Exponents count in halves, quarters … as the user of it says.
type laurent struct {
	lo int
	c  []int64
}

func monomial(coef int64, exp int) laurent { return laurent{exp, []int64{coef}} }

func (p laurent) trim() laurent {
	for len(p.c) > 0 && p.c[0] == 0 {
		p.c, p.lo = p.c[1:], p.lo+1
	}
	for len(p.c) > 0 && p.c[len(p.c)-1] == 0 {
		p.c = p.c[:len(p.c)-1]
	}
	if len(p.c) == 0 {
		p.lo = 0
	}
	return p
}

// addShifted adds k·x^shift·q to p in place where it can.
func (p *laurent) addShifted(q laurent, k int64, shift int) {
	if len(q.c) == 0 {
		return
	}
	lo := q.lo + shift
	if len(p.c) == 0 {
		p.lo = lo
	}
	if lo < p.lo {
		c := make([]int64, p.lo-lo+len(p.c))
		copy(c[p.lo-lo:], p.c)
		p.c, p.lo = c, lo
	}
	if need := lo - p.lo + len(q.c); need > len(p.c) {
		p.c = append(p.c, make([]int64, need-len(p.c))...)
	}
	for i, v := range q.c {
		p.c[lo-p.lo+i] += k * v
	}
}

// text writes the polynomial from the lowest exponent up; an exponent e stands
// for the power e/per of the variable, per 1 meaning halves are already out.
func (p laurent) text(x string, per int) string {
	p = p.trim()
	if len(p.c) == 0 {
		return "0"
	}
	var b strings.Builder
	for i, v := range p.c {
		if v == 0 {
			continue
		}
		e := p.lo + i
		abs := v
		switch {
		case v < 0 && b.Len() == 0:
			b.WriteString("-")
			abs = -v
		case v < 0:
			b.WriteString(" - ")
			abs = -v
		case b.Len() > 0:
			b.WriteString(" + ")
		}
		power := fmt.Sprint(e / 2)
		if e%2 != 0 {
			power = fmt.Sprintf("(%d/2)", e)
		}
		switch {
		case e == 0:
			fmt.Fprint(&b, abs)
			continue
		case abs != 1:
			fmt.Fprint(&b, abs)
		}
		b.WriteString(x)
		if e != 2 {
			b.WriteString("^" + power)
		}
	}
	return b.String()
}

// absAtMinusOne evaluates at t = −1 in absolute value; exponents are in halves
// and all whole.
func (p laurent) absAtMinusOne() int64 {
	var v int64
	for i, k := range p.c {
		if (p.lo+i)/2%2 != 0 {
			v -= k
		} else {
			v += k
		}
	}
	if v < 0 {
		return -v
	}
	return v
}

// prime is 2⁶¹ − 1. Polynomials are worked out modulo it and lifted to the
// coefficients nearest zero, which is exact while those are below 2⁶⁰: the
// coefficients of an Alexander polynomial are at most the number of Kauffman
// states, below 2ⁿ for n crossings.
const prime = 1<<61 - 1

func mulMod(a, b uint64) uint64 {
	hi, lo := bits.Mul64(a, b)
	return bits.Rem64(hi, lo, prime)
}

func powMod(a, e uint64) uint64 {
	out := uint64(1)
	for ; e > 0; e >>= 1 {
		if e&1 == 1 {
			out = mulMod(out, a)
		}
		a = mulMod(a, a)
	}
	return out
}

func inverseMod(a uint64) uint64 { return powMod(a, prime-2) }

func subMod(a, b uint64) uint64 {
	if a >= b {
		return a - b
	}
	return a + prime - b
}

// dropMod and liftMod go between whole numbers and residues.
func dropMod(v int64) uint64 {
	if v < 0 {
		return prime - uint64(-v)
	}
	return uint64(v)
}

func liftMod(v uint64) int64 {
	if v > prime/2 {
		return -int64(prime - v)
	}
	return int64(v)
}

// determinantMod gives the determinant of a square matrix; it spoils m.
func determinantMod(m [][]uint64) uint64 {
	det := uint64(1)
	for k := range m {
		pivot := slices.IndexFunc(m[k:], func(row []uint64) bool { return row[k] != 0 })
		if pivot < 0 {
			return 0
		}
		if pivot > 0 {
			m[k], m[k+pivot] = m[k+pivot], m[k]
			det = subMod(0, det)
		}
		det = mulMod(det, m[k][k])
		inv := inverseMod(m[k][k])
		for _, row := range m[k+1:] {
			if row[k] == 0 {
				continue
			}
			f := mulMod(row[k], inv)
			for j := k; j < len(m); j++ {
				row[j] = subMod(row[j], mulMod(f, m[k][j]))
			}
		}
	}
	return det
}

// interpolate finds the polynomial of degree below len(v) that takes the value
// v[i] at i, by Newton's divided differences.
func interpolate(v []uint64) laurent {
	n := len(v)
	d := slices.Clone(v)
	for k := 1; k < n; k++ {
		inv := inverseMod(uint64(k))
		for i := n - 1; i >= k; i-- {
			d[i] = mulMod(subMod(d[i], d[i-1]), inv)
		}
	}
	// Expand the Newton form from the inside: c ← c·(t − k) + d[k].
	c := make([]uint64, n)
	for k := n - 1; k >= 0; k-- {
		for i := n - 1; i >= 0; i-- {
			t := subMod(0, mulMod(c[i], uint64(k)))
			if i > 0 {
				t = (t + c[i-1]) % prime
			}
			c[i] = t
		}
		c[0] = (c[0] + d[k]) % prime
	}
	out := laurent{c: make([]int64, n)}
	for i := range c {
		out.c[i] = liftMod(c[i])
	}
	return out.trim()
}

// Terms reads a polynomial as [laurent.text] writes it, in any order of terms,
// into exponent (in halves) → coefficient.
func Terms(text string) map[int]int64 {
	out := map[int]int64{}
	text = strings.ReplaceAll(text, " ", "")
	for text != "" {
		sign := int64(1)
		switch text[0] {
		case '-':
			sign, text = -1, text[1:]
		case '+':
			text = text[1:]
		}
		// A term ends at the next sign that is not part of an exponent.
		end := min(1, len(text))
		for end < len(text) && (text[end] != '-' && text[end] != '+' || text[end-1] == '^' || text[end-1] == '(') {
			end++
		}
		term := text[:end]
		text = text[end:]
		coef, power, isPower := strings.Cut(term, "t")
		k := int64(1)
		if coef != "" {
			_, _ = fmt.Sscan(coef, &k)
		}
		e := 0
		if isPower {
			e = 2
			if power != "" {
				power = strings.Trim(power, "^()")
				if half, ok := strings.CutSuffix(power, "/2"); ok {
					_, _ = fmt.Sscan(half, &e)
				} else {
					_, _ = fmt.Sscan(power, &e)
					e *= 2
				}
			}
		}
		out[e] += sign * k
	}
	maps.DeleteFunc(out, func(_ int, k int64) bool { return k == 0 })
	return out
}

// Same reports whether two polynomials as written are equal.
func Same(a, b string) bool { return maps.Equal(Terms(a), Terms(b)) }

// SameUpToMirror reports whether two polynomials, as written by this package,
// are equal or become so when t is replaced by 1/t.
func SameUpToMirror(a, b string) bool {
	p, q := Terms(a), Terms(b)
	m := map[int]int64{}
	for e, k := range q {
		m[-e] = k
	}
	return maps.Equal(p, q) || maps.Equal(p, m)
}
