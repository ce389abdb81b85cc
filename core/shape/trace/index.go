package trace

import (
	"fmt"
	"maps"
	"math/bits"
	"slices"
	"sort"
	"strings"

	"oarweed/core/shape"
	"oarweed/core/shape/source"
	"oarweed/core/shape/tangle"
)

// Index knows drawings by their diagrams and by the invariants of their closures.
type Index struct {
	forms  []form
	byCode map[string][]int
	byKey  map[string][]named
	// told are the first parts of keys: most turned crossings are no knot known here, and this
	// says so before all is worked out.
	told map[string]bool
}

// form is a drawing as it would be traced.
type form struct {
	id, code  string
	bits      uint64
	crossings int
}

// named is a form, or its mirror image.
type named struct {
	form   int
	mirror bool
}

// Match is a drawing that a tracing is of.
type Match struct {
	ID string
	// Mirror: it is tied with the other hand.
	Mirror bool
	// Exchanged: its standing part and its end have changed places.
	Exchanged bool
	// Changes are the crossings to turn over, as entries of [Trace.Over] as they stand.
	Changes []Entry
	// Same: the diagram is that of the drawing, once Slack crossings that mean nothing are taken
	// out; else only every closure is.
	Same  bool
	Slack int
	// more is how many crossings it has more or less than the drawing.
	more int
}

// NewIndex takes up drawings in the order given; each is worked out when it is made.
func NewIndex(ids []string, drawing func(string) (*shape.Shape, error)) (*Index, error) {
	x := &Index{byCode: map[string][]int{}, byKey: map[string][]named{}, told: map[string]bool{}}
	for _, id := range ids {
		sh, err := drawing(id)
		if err != nil {
			return nil, err
		}
		if sh.Size { // its crossings are the right form's, and that is what is named
			continue
		}
		for _, form := range sh.Forms() {
			r, err := Of(form).Read()
			if err != nil {
				return nil, fmt.Errorf("%s, traced: %w", id, err)
			}
			x.add(id, r)
		}
	}
	return x, nil
}

func (x *Index) add(id string, r *Tied) {
	n := len(x.forms)
	code, over, _ := r.code(r.inOrder(), false, false)
	x.forms = append(x.forms, form{id, code, mask(over), len(r.meets)})
	x.byCode[code] = append(x.byCode[code], n)
	if len(r.meets) > closedAtMost {
		return
	}
	parts := r.closures(nil)
	if !tells(parts) {
		return
	}
	key, mirrored := keyOf(parts, 1), keyOf(parts, -1)
	keys := map[string]bool{key: false, mirrored: mirrored != key}
	if front, behind := parts[0], parts[1]; front.Name == "front" && written(front, 1) != written(behind, 1) {
		// Its end lies within. Led out across it, over all or under all, it is one of these.
		for _, c := range []tangle.Closure{front, behind} {
			if tells([]tangle.Closure{c}) {
				keys[ledOut(c, -1)] = true
				keys[ledOut(c, 1)] = false
			}
		}
	}
	for key, mirror := range keys {
		x.byKey[key] = append(x.byKey[key], named{n, mirror})
	}
	for _, hint := range hints(parts) {
		x.told[hint] = true
	}
}

// Of is a drawing as somebody would trace it without a slip: a ring as a ring, all else that it
// is tied round as a bar.
func Of(sh *shape.Shape) Trace {
	k := tangle.Drawn{Shape: sh}
	var t Trace
	lay := func(v []tangle.Vertex, closed bool) {
		rope := Rope{Closed: closed}
		for _, p := range v {
			rope.Points = append(rope.Points, Point{p.At.X, p.At.Y})
		}
		t.Ropes = append(t.Ropes, rope)
	}
	lines := make([][]tangle.Vertex, len(sh.Ropes))
	for i := range sh.Ropes {
		lines[i] = thinned(k.Strand(tangle.Ref{Index: i}))
		lay(lines[i], false)
	}
	if len(sh.Ropes) < 2 && tangle.OutlineOf(sh) != tangle.NoObject {
		n, ref := len(t.Ropes), tangle.Ref{Object: true}
		t.Object = &n
		if sh.Objects[0].Form() == source.Round {
			lay(k.FarAway(ref), true)
		} else {
			lay(k.Strand(ref), false)
		}
	}
	r, err := t.read(false)
	if err != nil {
		return t // what is wrong is said when it is read
	}
	for i, m := range r.shown {
		over, _ := k.Over(vertexAt(lines, r.meets[i].a), vertexAt(lines, r.meets[i].b), 0, 0)
		m.Over = map[bool]string{true: "a", false: "b"}[over]
		t.Over = append(t.Over, m.entry())
	}
	return t
}

// thinned keeps of a curve what a hand would draw: its strands stay well apart.
func thinned(v []tangle.Vertex) []tangle.Vertex {
	const every = 4
	var out []tangle.Vertex
	for i := 0; i < len(v)-1; i += every {
		out = append(out, v[i])
	}
	return append(out, v[len(v)-1])
}

// vertexAt is the place on the drawing's own curve; what has no line is the object.
func vertexAt(lines [][]tangle.Vertex, p place) tangle.Vertex {
	if p.rope >= len(lines) {
		return tangle.Vertex{Ref: tangle.Ref{Object: true}}
	}
	i := p.segment()
	v, next := lines[p.rope][i], lines[p.rope][i+1]
	v.S += (p.along - float64(i)) * (next.S - v.S)
	return v
}

// Find names a tracing: the diagrams that are it, else those it is nearest to and what it is by
// its closures. Best first; none if it is no form known here.
func (x *Index) Find(r *Tied) []Match {
	found := x.byDiagram(r)
	named := func() bool {
		return slices.ContainsFunc(found, func(m Match) bool { return len(m.Changes) == 0 && !m.Exchanged })
	}
	if !named() {
		found = append(found, x.bySlack(r)...)
	}
	if !named() {
		found = append(found, x.byClosures(r)...)
	}
	sort.SliceStable(found, func(i, j int) bool {
		a, b := found[i], found[j]
		switch {
		case len(a.Changes) != len(b.Changes):
			return len(a.Changes) < len(b.Changes)
		case a.Same != b.Same:
			return a.Same
		case a.Exchanged != b.Exchanged:
			return b.Exchanged
		case a.more != b.more:
			return a.more < b.more
		}
		return !a.Mirror && b.Mirror
	})
	// Each form once, and nothing to be changed where nothing needs to be.
	seen := map[string]bool{}
	return slices.DeleteFunc(found, func(m Match) bool {
		again := seen[m.ID] || len(m.Changes) > 0 && len(found[0].Changes) == 0
		seen[m.ID] = true
		return again
	})
}

// closedAtMost is the most crossings of which the closures are worked out: a tangle of more
// takes seconds.
const closedAtMost = 40

// turnedAtMost is the most crossings with which each is turned over to see whether that makes a
// knot: the work grows fast with them.
const turnedAtMost = 24

// few is how many crossings of a nearly right tracing may be wrong.
const few = 2

func (r *Tied) inOrder() []int {
	out := make([]int, r.open)
	for i := range out {
		out[i] = i
	}
	return out
}

// byDiagram finds the forms with the same diagram, but for a few crossings turned over.
func (x *Index) byDiagram(r *Tied) []Match {
	var out []Match
	orders := [][]int{r.inOrder()}
	if r.open == 2 {
		orders = append(orders, []int{1, 0})
	}
	runs := []bool{false}
	if r.open < len(r.ropes) {
		runs = append(runs, true)
	}
	n := len(r.meets)
	all := uint64(1)<<n - 1
	try := func(r *Tied, exchanged bool) {
		for _, order := range orders {
			for _, back := range runs {
				for _, behind := range []bool{false, true} {
					code, over, numbered := r.code(order, back, behind)
					mine := mask(over)
					if behind {
						mine ^= all
					}
					for _, f := range x.byCode[code] {
						for _, mirror := range []bool{false, true} {
							differ := mine ^ x.forms[f].bits
							if mirror {
								differ ^= all
							}
							if k := bits.OnesCount64(differ); k > min(few, n/3) || exchanged && k > 0 {
								continue
							}
							m := Match{ID: x.forms[f].id, Mirror: mirror, Same: true, Exchanged: exchanged}
							for i, meeting := range numbered {
								if differ>>i&1 == 1 {
									m.Changes = append(m.Changes, r.shown[meeting].entry())
								}
							}
							out = append(out, m)
						}
					}
				}
			}
		}
	}
	try(r, false)
	if !slices.ContainsFunc(out, func(m Match) bool { return len(m.Changes) == 0 }) {
		try(r.exchanged(), true)
	}
	return out
}

// exchanged is the same tracing with standing parts for ends.
func (r *Tied) exchanged() *Tied {
	out := *r
	out.meets = slices.Clone(r.meets)
	turned := func(p place) place {
		if !r.object(p.rope) {
			p.along = float64(len(r.ropes[p.rope])-1) - p.along
		}
		return p
	}
	out.over = slices.Clone(r.over)
	for i := range out.meets {
		m := &out.meets[i]
		m.a, m.b = turned(m.a), turned(m.b)
		if r.object(m.b.rope) {
			m.across = -m.across
		}
		if m.b.before(m.a) {
			m.a, m.b, m.across = m.b, m.a, -m.across
			out.over[i] = !out.over[i]
		}
	}
	return &out
}

// byClosures finds the forms whose every closure is that of the tracing, or would be with one
// crossing turned over.
func (x *Index) byClosures(r *Tied) []Match {
	if len(r.meets) > closedAtMost {
		return nil
	}
	found := func(parts []tangle.Closure, changes []Entry) []Match {
		if !tells(parts) {
			return nil
		}
		var out []Match
		known := x.byKey[keyOf(parts, 1)]
		if front := parts[0]; len(known) == 0 && front.Name == "front" && written(front, 1) == written(parts[1], 1) {
			known = x.byKey[ledOut(front, 1)]
		}
		if r.open < len(r.ropes) && slices.ContainsFunc(known, func(n named) bool { return x.forms[n.form].code != x.forms[known[0].form].code }) {
			return nil // round an object unlike things have the same closures: the diagram decides
		}
		for _, n := range known {
			f := x.forms[n.form]
			more := len(r.meets) - f.crossings
			out = append(out, Match{ID: f.id, Mirror: n.mirror, Changes: changes, more: max(more, -more)})
		}
		return out
	}
	out := found(r.closures(nil), nil)
	if len(out) > 0 || len(r.meets) > turnedAtMost {
		return out
	}
	diagrams := r.diagrams()
	crossings := make([][]tangle.Crossing, len(diagrams))
	for i, d := range diagrams {
		crossings[i] = d.Crossings()
	}
	flipped := make([]bool, len(r.meets))
	for m := range r.meets {
		flipped[m] = true
		first := tangle.ClosureOf(crossings[0], diagrams[0].Components(), flipped)
		first.Name = diagrams[0].Name
		if slices.ContainsFunc(hints([]tangle.Closure{first}), func(h string) bool { return x.told[h] }) {
			out = append(out, found(closures(diagrams, crossings, flipped), []Entry{r.shown[m].entry()})...)
		}
		flipped[m] = false
	}
	return out
}

func (r *Tied) diagrams() []tangle.Diagram { return tangle.Both(r, r.open, r.outline()) }

func (r *Tied) closures(flipped []bool) []tangle.Closure {
	d := r.diagrams()
	crossings := make([][]tangle.Crossing, len(d))
	for i := range d {
		crossings[i] = d[i].Crossings()
	}
	return closures(d, crossings, flipped)
}

func closures(d []tangle.Diagram, crossings [][]tangle.Crossing, flipped []bool) []tangle.Closure {
	out := make([]tangle.Closure, len(d))
	for i := range d {
		out[i] = tangle.ClosureOf(crossings[i], d[i].Components(), flipped)
		out[i].Name = d[i].Name
	}
	return out
}

// tells reports whether closures say enough to name a knot by them: one is knotted, and not as
// simply as whatever is laid round a bar once or twice.
func tells(parts []tangle.Closure) bool {
	least := int64(3)
	if strings.HasPrefix(parts[0].Name, "L") {
		least = 5
	}
	return slices.ContainsFunc(parts, func(c tangle.Closure) bool {
		return c.Determinant >= least || c.Components == 1 && c.Alexander != "1"
	})
}

// ledOut is the key of a rope whose ends both lie outside: closed in front or behind, it is the
// same.
func ledOut(c tangle.Closure, hand int) string { return "led out" + written(c, hand) }

// exchange is the name of the closure that a knot has for this one when it is seen from behind,
// and when its ropes change places or its bar is run the other way.
func exchange(name string, behind, other bool) string {
	base, isBehind := strings.CutSuffix(name, " behind")
	switch {
	case base == "front" && behind:
		return "behind"
	case base == "behind" && behind:
		return "front"
	case base == "front" || base == "behind":
		return base
	}
	if other {
		if x, ok := map[string]string{"K1": "K2", "K2": "K1", "1": "2", "2": "1"}[base]; ok {
			base = x
		}
	}
	if isBehind != behind {
		base += " behind"
	}
	return base
}

// keyOf writes all closures of a knot, or of its mirror image, as one text: equal for the same
// knot seen from behind, with its ropes in another order or its object run the other way.
func keyOf(parts []tangle.Closure, hand int) string {
	one := make(map[string]string, len(parts))
	for _, c := range parts {
		one[c.Name] = written(c, hand)
	}
	least := ""
	for _, behind := range []bool{false, true} {
		for _, other := range []bool{false, true} {
			var b strings.Builder
			for _, name := range slices.Sorted(maps.Keys(one)) {
				b.WriteString(name + one[exchange(name, behind, other)])
			}
			if least == "" || b.String() < least {
				least = b.String()
			}
		}
	}
	return least
}

// hints are what the first closure says, in either hand and by whatever name it may go.
func hints(parts []tangle.Closure) []string {
	var out []string
	for _, c := range parts {
		base := strings.TrimSuffix(c.Name, " behind")
		if base == "front" || base == "behind" {
			base = "front"
		}
		if base == "front" || base == "L" || base == "N" {
			out = append(out, base+written(c, 1), base+written(c, -1))
		}
	}
	return out
}

// written is a closure as text. A link with the object does not depend on which way round that
// is run: its Jones polynomial is turned by the linking number, and of its Alexander polynomial
// the determinant is kept.
func written(c tangle.Closure, hand int) string {
	if len(c.Linking) == 1 && strings.HasPrefix(c.Name, "L") {
		lk := c.Linking[0]
		return fmt.Sprint(":", max(lk, -lk), ";", c.Determinant, ";", shifted(c.Jones, -3*lk, hand))
	}
	linking := slices.Clone(c.Linking)
	for i := range linking {
		linking[i] *= hand
	}
	return fmt.Sprint(":", linking, ";", c.Alexander, ";", shifted(c.Jones, 0, hand))
}

// shifted writes a polynomial times t^(by/2), or of the mirror image.
func shifted(jones string, by, hand int) string {
	t := tangle.Terms(jones)
	out := make(map[int]int64, len(t))
	for e, k := range t {
		out[hand*(e+by)] = k
	}
	var b strings.Builder
	for _, e := range slices.Sorted(maps.Keys(out)) {
		fmt.Fprint(&b, e, "*", out[e], " ")
	}
	return b.String()
}

func mask(over []bool) uint64 {
	var out uint64
	for i, o := range over {
		if o {
			out |= 1 << i
		}
	}
	return out
}
