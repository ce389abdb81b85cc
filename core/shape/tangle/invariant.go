package tangle

// pd is a planar diagram code with its crossing signs, and the number of
// circles that meet nothing.
type pd struct {
	x     [][4]int
	sign  []int
	loose int
}

// matching pairs the open edges of a partly contracted diagram. It is kept as a
// string of edge pairs sorted by the lower edge, so that it can key a map.
type matching string

func (m matching) partner(e byte) (byte, bool) {
	for i := 0; i < len(m); i += 2 {
		switch e {
		case m[i]:
			return m[i+1], true
		case m[i+1]:
			return m[i], true
		}
	}
	return 0, false
}

func (m matching) without(e byte) matching {
	for i := 0; i < len(m); i += 2 {
		if m[i] == e || m[i+1] == e {
			return m[:i] + m[i+2:]
		}
	}
	return m
}

func (m matching) with(a, b byte) matching {
	if a > b {
		a, b = b, a
	}
	i := 0
	for i < len(m) && m[i] < a {
		i += 2
	}
	return m[:i] + matching([]byte{a, b}) + m[i:]
}

// join ties edge a to edge b. Edges already open in the matching are spliced;
// it reports whether a circle was closed.
func (m matching) join(a, b byte) (matching, bool) {
	if a == b {
		return m, true
	}
	pa, hasA := m.partner(a)
	pb, hasB := m.partner(b)
	switch {
	case hasA && hasB:
		m = m.without(a)
		if pa == b {
			return m, true
		}
		return m.without(b).with(pa, pb), false
	case hasA:
		return m.without(a).with(pa, b), false
	case hasB:
		return m.without(b).with(pb, a), false
	}
	return m.with(a, b), false
}

// jones contracts the Kauffman bracket crossing by crossing over the planar
// matchings of the open edges (L. H. Kauffman, State models and the Jones
// polynomial, Topology 26, 1987), and normalises it by the writhe so that the
// unknot gives 1. The exponents of the result count halves of t.
func (d pd) jones() laurent {
	if len(d.x) > 127 {
		panic("tangle: a matching names its edges by bytes; 127 crossings are the most") // no drawing comes near
	}
	state := map[matching]laurent{"": monomial(1, 0)} // in A
	open := map[int]bool{}
	left := make([]bool, len(d.x))
	for range d.x {
		// Next the crossing with most edges already open: keeps the states few.
		best, most := -1, -1
		for i, x := range d.x {
			if left[i] {
				continue
			}
			k := 0
			for _, e := range x {
				if open[e] {
					k++
				}
			}
			if k > most {
				best, most = i, k
			}
		}
		left[best] = true
		x := d.x[best]
		for _, e := range x {
			if open[e] {
				delete(open, e)
			} else {
				open[e] = true
			}
		}
		next := map[matching]laurent{}
		for m, p := range state {
			for k, pairs := range [2][4]int{{x[0], x[1], x[2], x[3]}, {x[1], x[2], x[3], x[0]}} {
				q, c1 := m.join(byte(pairs[0]), byte(pairs[1]))
				q, c2 := q.join(byte(pairs[2]), byte(pairs[3]))
				shift := 1 - 2*k
				t := next[q]
				circles := 0
				if c1 {
					circles++
				}
				if c2 {
					circles++
				}
				addCircles(&t, p, shift, circles)
				next[q] = t
			}
		}
		state = next
	}
	sum := state[""]
	for range d.loose {
		var t laurent
		addCircles(&t, sum, 0, 1)
		sum = t
	}
	sum = sum.trim()
	// One circle too many was counted; divide by δ = −A² − A⁻².
	bracket := divideByCircle(sum)
	w := 0
	for _, s := range d.sign {
		w += s
	}
	// V(t) = (−A)^{−3w}·bracket at A = t^{−1/4}: exponent e of A is −e/4 of t.
	k := int64(1)
	if w%2 != 0 {
		k = -1
	}
	var out laurent
	for i, v := range bracket.c {
		if v != 0 {
			out.addShifted(monomial(k*v, -(bracket.lo+i-3*w)/2), 1, 0)
		}
	}
	return out.trim()
}

// addCircles adds A^shift·δ^circles·q to p.
func addCircles(p *laurent, q laurent, shift, circles int) {
	switch circles {
	case 0:
		p.addShifted(q, 1, shift)
	case 1:
		p.addShifted(q, -1, shift+2)
		p.addShifted(q, -1, shift-2)
	default:
		p.addShifted(q, 1, shift+4)
		p.addShifted(q, 2, shift)
		p.addShifted(q, 1, shift-4)
	}
}

// divideByCircle divides exactly by −A² − A⁻².
func divideByCircle(p laurent) laurent {
	rest := append([]int64(nil), p.c...)
	out := laurent{lo: p.lo + 2, c: make([]int64, max(len(rest)-4, 0))}
	for i := range out.c {
		out.c[i] = -rest[i]
		rest[i+4] -= rest[i]
	}
	return out.trim()
}

// alexander gives the one-variable Alexander polynomial from a minor of the Fox
// matrix of the Wirtinger presentation, taken at enough whole t and
// interpolated; scaled to begin at t⁰ with a positive coefficient. A split link
// gives 0. The exponents of the result count halves of t.
func (d pd) alexander() laurent {
	n := len(d.x)
	if d.loose > 0 {
		if n == 0 && d.loose == 1 {
			return monomial(1, 0)
		}
		return laurent{}
	}
	// Arcs: edges joined through their over-passings.
	arc := make([]int, 2*n+1)
	for i := range arc {
		arc[i] = i
	}
	var find func(int) int
	find = func(i int) int {
		if arc[i] != i {
			arc[i] = find(arc[i])
		}
		return arc[i]
	}
	for _, x := range d.x {
		arc[find(x[1])] = find(x[3])
	}
	number := map[int]int{}
	for e := 1; e <= 2*n; e++ {
		if r := find(e); number[r] == 0 {
			number[r] = len(number) + 1
		}
	}
	if len(number) > n {
		return laurent{} // a component that only passes over is an arc more: the link splits
	}
	at := func(e int) int { return number[find(e)] - 1 }
	values := make([]uint64, n+1)
	for t := range values {
		m := make([][]uint64, n)
		for i, x := range d.x {
			m[i] = make([]uint64, n)
			in, out := x[0], x[2]
			if d.sign[i] < 0 {
				in, out = out, in
			}
			add := func(e int, v int64) { m[i][at(e)] = (m[i][at(e)] + dropMod(v)) % prime }
			add(x[1], 1-int64(t))
			add(in, int64(t))
			add(out, -1)
		}
		minor := m[:n-1]
		for i := range minor {
			minor[i] = minor[i][:n-1]
		}
		values[t] = determinantMod(minor)
	}
	p := interpolate(values)
	if len(p.c) == 0 {
		return p
	}
	out := laurent{}
	for i, v := range p.c {
		out.addShifted(monomial(v, 2*i), 1, 0)
	}
	if out.c[0] < 0 {
		for i := range out.c {
			out.c[i] = -out.c[i]
		}
	}
	return out
}
