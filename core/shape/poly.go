package shape

import (
	"fmt"
	"maps"
	"math/big"
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

// determinantAt gives the exact determinant of a square integer matrix by
// Bareiss's fraction-free elimination.
func determinantAt(m [][]*big.Int) *big.Int {
	n := len(m)
	sign := int64(1)
	prev := big.NewInt(1)
	for k := 0; k < n-1; k++ {
		if m[k][k].Sign() == 0 {
			swap := -1
			for i := k + 1; i < n; i++ {
				if m[i][k].Sign() != 0 {
					swap = i
					break
				}
			}
			if swap < 0 {
				return new(big.Int)
			}
			m[k], m[swap] = m[swap], m[k]
			sign = -sign
		}
		for i := k + 1; i < n; i++ {
			for j := k + 1; j < n; j++ {
				a := new(big.Int).Mul(m[i][j], m[k][k])
				b := new(big.Int).Mul(m[i][k], m[k][j])
				m[i][j] = a.Sub(a, b).Quo(a, prev)
			}
		}
		prev = m[k][k]
	}
	if n == 0 {
		return big.NewInt(1)
	}
	return new(big.Int).Mul(m[n-1][n-1], big.NewInt(sign))
}

// interpolate finds the integer polynomial of degree below len(v) that takes
// the value v[i] at i, by Newton's divided differences.
func interpolate(v []*big.Int) laurent {
	n := len(v)
	d := make([]*big.Rat, n)
	for i := range v {
		d[i] = new(big.Rat).SetInt(v[i])
	}
	for k := 1; k < n; k++ {
		for i := n - 1; i >= k; i-- {
			d[i] = new(big.Rat).Quo(new(big.Rat).Sub(d[i], d[i-1]), big.NewRat(int64(k), 1))
		}
	}
	// Expand the Newton form from the inside.
	c := make([]*big.Rat, n)
	for i := range c {
		c[i] = new(big.Rat)
	}
	for k := n - 1; k >= 0; k-- {
		for i := n - 1; i >= 0; i-- {
			t := new(big.Rat).Mul(c[i], big.NewRat(int64(-k), 1))
			if i > 0 {
				t.Add(t, c[i-1])
			}
			c[i] = t
		}
		c[0].Add(c[0], d[k])
	}
	out := laurent{c: make([]int64, n)}
	for i := range c {
		out.c[i] = c[i].Num().Int64()
	}
	return out.trim()
}

// terms reads a polynomial as [laurent.text] writes it, in any order of terms,
// into exponent (in halves) → coefficient.
func terms(text string) map[int]int64 {
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
		end := 1
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
	return out
}

// SameUpToMirror reports whether two polynomials, as written by this package,
// are equal or become so when t is replaced by 1/t.
func SameUpToMirror(a, b string) bool {
	p, q := terms(a), terms(b)
	m := map[int]int64{}
	for e, k := range q {
		m[-e] = k
	}
	return maps.Equal(p, q) || maps.Equal(p, m)
}
