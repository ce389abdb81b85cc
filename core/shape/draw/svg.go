package draw

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"sort"
	"strings"

	"oarweed/core/shape"
	"oarweed/core/shape/curve"
)

// View is the side a drawing is seen from.
type View string

const (
	AsTied     View = "tie"      // as you tie it
	Across     View = "across"   // from behind: x flipped and every over and under swapped, the same knot
	LeftHanded View = "left"     // mirror image: x flipped only, the mirror knot
	Opposite   View = "opposite" // on a table, from the other side: turned by half a turn
)

// Views lists the views with what they are called.
var Views = []View{AsTied, Across, LeftHanded, Opposite}

// Look is how the rope's surface is drawn.
type Look string

const (
	LookLaid  Look = "laid"
	LookBraid Look = "braid"
	LookMono  Look = "mono"
)

// Options of a drawing.
type Options struct {
	View View
	// Left draws it for a left-handed tyer: the mirror image of any view.
	Left bool
	// Step runs from 0 to [shape.Shape.Steps]; a fraction shows the working end on its
	// way. Negative draws the whole knot with nothing accented.
	Step float64
	Look Look
	// Labels names the standing part and the working end, and shows where to hold,
	// and in the finished knot where to pull.
	Labels bool
	// Hold and Draw are the strands that a hand holds and that are drawn when the finished
	// knot is set; shown in its last step, in place of what Labels would show there.
	Hold, Draw []shape.Strand
	// Tones draws the half of a rope toward its end lighter than the half toward its standing
	// part, so that the two can be told apart in the knot.
	Tones bool
	// Ghost shows the next move as a dashed line.
	Ghost bool
	// Unringed leaves out the rings round places to look at.
	Unringed bool
	// Quarter turns it by a quarter, so that a bar that stands lies.
	Quarter bool
	// Title is read out in place of the picture.
	Title string
}

// SVG draws the shape. Colours are CSS variables with a fallback: --rope-1 and
// --rope-2 (body), --rope-1-edge, --rope-1-light and so on, --move (the part just
// laid), --object, --object-edge, --object-light, --ink.
func SVG(sh *shape.Shape, o Options) string {
	d := &drawing{Shape: sh, base: sh, o: o, plain: o.Step < 0}
	if d.plain {
		d.o.Step = float64(sh.Steps())
	}
	d.Shape = sh.Picture(d.o.Step)
	left := o.Left != (o.View == LeftHanded)
	d.flip, d.swap = (o.View == Across) != left, o.View == Across
	d.turn = o.View == Opposite
	return d.render()
}

type drawing struct {
	*shape.Shape
	base             *shape.Shape // with the pictures of all steps
	o                Options
	flip, swap, turn bool
	plain            bool // nothing accented
	b                strings.Builder
	min, max         curve.Point
	// side overrides crossings, by name, in the drill.
	side map[string]Side
}

// Side of a crossing in the drill.
type Side int

const (
	AsDrawn Side = iota
	Turned       // the other strand over
	Open         // not decided: both strands whole
)

// tf maps a point of the source into the view.
func (d *drawing) tf(p curve.Point) curve.Point {
	if d.flip || d.turn {
		p.X = -p.X
	}
	if d.turn {
		p.Y = -p.Y
	}
	if d.o.Quarter {
		p.X, p.Y = p.Y, -p.X
	}
	return p
}

// box frames everything with a margin, but lets a standing part run out of it.
func (d *drawing) box() {
	d.min, d.max = curve.Pt(math.Inf(1), math.Inf(1)), curve.Pt(math.Inf(-1), math.Inf(-1))
	grow := func(p curve.Point, m float64) {
		p = d.tf(p)
		d.min = curve.Pt(math.Min(d.min.X, p.X-m), math.Min(d.min.Y, p.Y-m))
		d.max = curve.Pt(math.Max(d.max.X, p.X+m), math.Max(d.max.Y, p.Y+m))
	}
	for _, obj := range d.Objects {
		for _, p := range obj.Drawn() {
			grow(p, 0.12)
		}
	}
	for _, c := range d.Ringed {
		grow(c.At, c.R)
	}
	// All steps in one frame, so that the picture does not jump between them.
	for _, sh := range append(slices.Collect(maps.Values(d.base.Pictures)), d.base) {
		for r, c := range sh.Curves {
			w := sh.Ropes[r].Width
			for i, p := range c.Points {
				if c.S[i] > 1.2*w {
					grow(p, w)
				} else {
					grow(p, -0.2*w)
				}
			}
		}
	}
}

// span is a visible length of rope: between the gaps, on one side of the objects.
type span struct {
	rope   int
	s0, s1 float64
	back   bool
	// dark0, dark1 mark ends that dive beneath another strand.
	dark0, dark1 bool
}

// spans cuts rope r, laid as far as reach, at the gaps and at the objects.
func (d *drawing) spans(r int, upto float64) []span {
	w := d.Ropes[r].Width
	type gap struct{ a, b float64 }
	var gaps []gap
	for _, x := range d.Found {
		over, under := x.Over, x.Under
		how := d.side[x.Name]
		if how == Open && !x.Hidden {
			continue
		}
		if d.swap != (how == Turned) {
			over, under = under, over
		}
		if x.Hidden || under.Rope != r || over.S > d.Reach(over.Rope, d.o.Step) {
			continue
		}
		wo := d.Ropes[over.Rope].Width
		half := (wo/2 + 0.1*wo) / math.Sin(math.Max(x.Angle, 0.35))
		gaps = append(gaps, gap{under.S - half, under.S + half})
	}
	sort.Slice(gaps, func(i, j int) bool { return gaps[i].a < gaps[j].a })
	var out []span
	s, dark := 0.0, false
	for _, g := range gaps {
		if g.a > s {
			out = append(out, span{rope: r, s0: s, s1: math.Min(g.a, upto), dark0: dark, dark1: true})
		}
		s, dark = math.Max(s, g.b), true
		if s >= upto {
			break
		}
	}
	if s < upto {
		out = append(out, span{rope: r, s0: s, s1: upto, dark0: dark})
	}
	// Split where the rope changes sides of an object, halfway between the passes.
	var sides []shape.Passing
	for _, p := range d.Passings {
		if p.Rope == r {
			sides = append(sides, p)
		}
	}
	if len(sides) == 0 {
		return out
	}
	sort.Slice(sides, func(i, j int) bool { return sides[i].S < sides[j].S })
	back := func(front bool) bool { return front == d.swap }
	// bounds[i] is where pass i begins, bounds[i+1] where it ends.
	bounds := []float64{0}
	for i := 1; i < len(sides); i++ {
		bounds = append(bounds, d.between(sides[i-1], sides[i]))
	}
	bounds = append(bounds, math.Inf(1))
	var cut []span
	for _, sp := range out {
		if sp.s1-sp.s0 < 0.02*w {
			continue
		}
		for i, p := range sides {
			a, b := math.Max(sp.s0, bounds[i]), math.Min(sp.s1, bounds[i+1])
			if a >= b {
				continue
			}
			part := span{rope: r, s0: a, s1: b, back: back(p.Front), dark0: sp.dark0 && a == sp.s0, dark1: sp.dark1 && b == sp.s1}
			if k := len(cut) - 1; k >= 0 && cut[k].back == part.back && cut[k].s1 == part.s0 {
				cut[k].s1, cut[k].dark1 = part.s1, part.dark1
				continue
			}
			if part.back {
				// The piece behind runs on a little beneath the one in front: no seam shows.
				part.s0, part.s1 = math.Max(sp.s0, a-0.3*w), math.Min(sp.s1, b+0.3*w)
			}
			cut = append(cut, part)
		}
	}
	return cut
}

// between is where a rope leaves one side of an object for the other: the place
// farthest from all objects between two passes.
func (d *drawing) between(p, q shape.Passing) float64 {
	c := d.Curves[p.Rope]
	best, at := -1.0, (p.S+q.S)/2
	for k := 1; k < 24; k++ {
		s := p.S + (q.S-p.S)*float64(k)/24
		clear := math.Inf(1)
		for _, o := range d.Objects {
			m := 0.0
			for m < 3*d.Width && !o.Within(c.At(s), m) {
				m += 0.1 * d.Width
			}
			clear = math.Min(clear, m)
		}
		if clear > best {
			best, at = clear, s
		}
	}
	return at
}

func num(v float64) string {
	s := fmt.Sprintf("%.2f", v)
	s = strings.TrimRight(strings.TrimRight(s, "0"), ".")
	if s == "-0" || s == "" {
		return "0"
	}
	return s
}

func (d *drawing) xy(p curve.Point) string {
	p = d.tf(p)
	return num(p.X) + " " + num(p.Y)
}

// path writes the Béziers of a stretch of rope.
func (d *drawing) path(r int, s0, s1 float64) string {
	var b strings.Builder
	for i, z := range d.Curves[r].Cut(s0, s1) {
		if i == 0 {
			b.WriteString("M" + d.xy(z[0]))
		}
		b.WriteString("C" + d.xy(z[1]) + " " + d.xy(z[2]) + " " + d.xy(z[3]))
	}
	return b.String()
}

func (d *drawing) render() string {
	d.box()
	w, h := d.max.X-d.min.X, d.max.Y-d.min.Y
	fmt.Fprintf(&d.b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="%s %s %s %s" role="img" data-rope="%s">`,
		num(d.min.X), num(d.min.Y), num(w), num(h), num(d.Width))
	if d.o.Title != "" {
		fmt.Fprintf(&d.b, "<title>%s</title>", escape(d.o.Title))
	}
	var spans []span
	for r := range d.Ropes {
		spans = append(spans, d.spans(r, d.Reach(r, d.o.Step))...)
	}
	d.b.WriteString(`<g stroke-linecap="butt" stroke-linejoin="round" fill="none">`)
	d.ropes(spans, true)
	for _, o := range d.Objects {
		d.b.WriteString(`<g data-object="` + escape(o.Name) + `">`)
		d.object(o)
		d.b.WriteString("</g>")
	}
	if d.o.Ghost && d.o.Step < float64(d.base.Steps()) {
		d.ghost()
	}
	d.ropes(spans, false)
	if d.o.Step >= float64(d.Steps()) && !d.o.Unringed {
		for _, c := range d.Ringed {
			at := d.tf(c.At)
			fmt.Fprintf(&d.b, `<circle cx="%s" cy="%s" r="%s" data-ringed="" style="stroke:var(--move,#e2573d)" stroke-width="%s" stroke-dasharray="%s %s"/>`,
				num(at.X), num(at.Y), num(c.R), num(0.2*d.Width), num(0.5*d.Width), num(0.3*d.Width))
		}
	}
	d.b.WriteString("</g>")
	if d.o.Labels {
		d.labels()
	}
	if d.done() && !d.plain {
		d.seats()
	}
	d.b.WriteString("</svg>")
	return d.b.String()
}

// ropes draws the strands behind the objects, or those in front.
func (d *drawing) ropes(spans []span, back bool) {
	for r, rope := range d.Ropes {
		w := rope.Width
		colour := fmt.Sprintf("--rope-%d", r%2+1)
		edge, body, light := [2]string{"#5b3c10", "#1d3f3a"}[r%2], [2]string{"#d9962f", "#4f9d94"}[r%2], [2]string{"#f3cd86", "#a5d3cb"}[r%2]
		var moved [][2]float64
		if d.o.Step > 0 && !d.plain {
			moved = d.Moved(r, int(math.Ceil(d.o.Step)), d.o.Step)
		}
		middle := d.middle(r)
		fmt.Fprintf(&d.b, `<g data-strand="%s">`, escape(rope.Name))
		for _, sp := range spans {
			if sp.rope != r || sp.back != back {
				continue
			}
			p := d.path(r, sp.s0, sp.s1)
			fmt.Fprintf(&d.b, `<path d="%s" style="stroke:var(%s-edge,%s)" stroke-width="%s"/>`, p, colour, edge, num(w))
			fmt.Fprintf(&d.b, `<path d="%s" style="stroke:var(%s,%s)" stroke-width="%s"/>`, p, colour, body, num(w*0.84))
			if a := math.Max(sp.s0, middle); d.o.Tones && sp.s1 > a {
				fmt.Fprintf(&d.b, `<path d="%s" data-toned="" style="stroke:var(%s-light,%s)" stroke-width="%s"/>`, d.path(r, a, sp.s1), colour, light, num(w*0.84))
			}
			for _, m := range moved {
				if a, b := math.Max(sp.s0, m[0]), math.Min(sp.s1, m[1]); b > a {
					fmt.Fprintf(&d.b, `<path d="%s" data-moved="" style="stroke:var(--move,#e2573d)" stroke-width="%s"/>`, d.path(r, a, b), num(w*0.84))
				}
			}
			d.surface(sp, w)
			if inset := 0.15 * w; d.spread(w) < 1.1 && sp.s1-sp.s0 > 3*inset {
				// Shorter than the rope: moved aside, it would stick out at the ends.
				fmt.Fprintf(&d.b, `<path d="%s" style="stroke:var(%s-light,%s)" stroke-width="%s" stroke-opacity=".55" transform="translate(%s %s)"/>`,
					d.path(r, sp.s0+inset, sp.s1-inset), colour, light, num(w*0.2), num(-0.1*w), num(-0.14*w))
			}
			d.shade(sp, w)
		}
		d.end(r, spans, back)
		d.b.WriteString("</g>")
	}
}

// middle is halfway between the first and the last place where rope r meets a strand or a
// thing; halfway along it where it meets none.
func (d *drawing) middle(r int) float64 {
	from, to := math.Inf(1), math.Inf(-1)
	at := func(p shape.Spot) {
		if p.Rope == r {
			from, to = math.Min(from, p.S), math.Max(to, p.S)
		}
	}
	for _, x := range d.Found {
		at(x.Over)
		at(x.Under)
	}
	for _, p := range d.Passings {
		at(p.Spot)
	}
	if from > to {
		return d.Curves[r].Length() / 2
	}
	return (from + to) / 2
}

// shade darkens a strand where it dives beneath another.
func (d *drawing) shade(sp span, w float64) {
	dark := func(a, b, o float64) {
		a, b = math.Max(a, sp.s0), math.Min(b, sp.s1)
		if b > a {
			fmt.Fprintf(&d.b, `<path d="%s" stroke="#000" stroke-opacity="%s" stroke-width="%s"/>`, d.path(sp.rope, a, b), num(o), num(w))
		}
	}
	fine := d.spread(w) < 1.1
	if sp.dark0 {
		dark(sp.s0, sp.s0+0.22*w, 0.16)
		if fine {
			dark(sp.s0, sp.s0+0.5*w, 0.12)
		}
	}
	if sp.dark1 {
		dark(sp.s1-0.22*w, sp.s1, 0.16)
		if fine {
			dark(sp.s1-0.5*w, sp.s1, 0.12)
		}
	}
}

// spread says how much wider the marks on a line are set in a wide drawing, where
// those of a thin line would only be noise: 1 where the line is thick enough.
func (d *drawing) spread(w float64) float64 {
	return math.Max(1, 0.018*(d.max.X-d.min.X)/w)
}

// surface hints at how the line is made: slanting strands for laid rope, a
// plait of short ticks for braid, a gleam for one filament.
func (d *drawing) surface(sp span, w float64) {
	c := d.Curves[sp.rope]
	var b strings.Builder
	at := func(s, side float64) curve.Point {
		t := c.Tangent(s)
		return c.At(s).Add(curve.Pt(-t.Y, t.X).Times(side * w))
	}
	spread := d.spread(w)
	switch d.o.Look {
	case LookMono:
		fmt.Fprintf(&d.b, `<path d="%s" stroke="#fff" stroke-opacity=".35" stroke-width="%s"/>`, d.path(sp.rope, sp.s0, sp.s1), num(w*0.3))
		return
	case LookBraid:
		pitch := 0.5 * w * spread
		for k := math.Ceil(sp.s0 / pitch); (k+0.6)*pitch < sp.s1; k++ {
			s := k * pitch
			b.WriteString("M" + d.xy(at(s, -0.36)) + "L" + d.xy(at(s+0.5*pitch, 0)) + "L" + d.xy(at(s, 0.36)))
		}
	default:
		pitch := 0.62 * w * spread
		for k := math.Ceil(sp.s0 / pitch); (k+1)*pitch < sp.s1; k++ {
			s := k * pitch
			b.WriteString("M" + d.xy(at(s, 0.4)) + "Q" + d.xy(at(s+0.62*pitch, 0.12)) + " " + d.xy(at(s+0.9*pitch, -0.4)))
		}
	}
	if b.Len() > 0 {
		fmt.Fprintf(&d.b, `<path d="%s" style="stroke:var(--rope-%d-edge,#5b3c10)" stroke-opacity=".5" stroke-width="%s"/>`, b.String(), sp.rope%2+1, num(w*0.07))
	}
}

// end draws the whipping at the working end, where it can be seen.
func (d *drawing) end(r int, spans []span, back bool) {
	c, s, w := d.Curves[r], d.Reach(r, d.o.Step), d.Ropes[r].Width
	seen := false
	for _, sp := range spans {
		seen = seen || sp.rope == r && sp.back == back && math.Abs(sp.s1-s) < 1e-6
	}
	if !seen || s <= 0.5*w {
		return
	}
	fmt.Fprintf(&d.b, `<path d="%s" style="stroke:var(--rope-%d-edge,#5b3c10)" stroke-width="%s"/>`, d.path(r, s-0.42*w, s), r%2+1, num(w))
	fmt.Fprintf(&d.b, `<path d="%s" style="stroke:var(--whipping,#fffaf0)" stroke-width="%s"/>`, d.path(r, s-0.34*w, s-0.09*w), num(w*0.9))
	if d.Reach(r, math.Floor(d.o.Step)+1) > s {
		// Where it goes next: a small arrow head beyond the end.
		t := c.Tangent(s)
		n := curve.Pt(-t.Y, t.X)
		tip, base := c.At(s).Add(t.Times(1.15*w)), c.At(s).Add(t.Times(0.4*w))
		fmt.Fprintf(&d.b, `<path d="M%sL%sL%sZ" style="fill:var(--move,#e2573d)"/>`, d.xy(tip), d.xy(base.Add(n.Times(0.5*w))), d.xy(base.Sub(n.Times(0.5*w))))
	}
}

// ghost draws the next move as a thin dashed line.
func (d *drawing) ghost() {
	now := int(math.Floor(d.o.Step))
	next := *d
	next.Shape = d.base.Picture(float64(now + 1))
	for r := range next.Ropes {
		for _, m := range next.Moved(r, now+1, float64(now+1)) {
			if !next.Framed {
				m[0] = d.Reach(r, d.o.Step)
			}
			if m[1]-m[0] > 0.1 {
				w := next.Ropes[r].Width
				fmt.Fprintf(&d.b, `<path d="%s" data-ghost="" style="stroke:var(--move,#e2573d)" stroke-opacity=".75" stroke-width="%s" stroke-dasharray="%s %s"/>`,
					next.path(r, m[0], m[1]), num(w*0.16), num(w*0.45), num(w*0.35))
			}
		}
	}
}

// seats shows in the finished knot which strands are held and which are drawn.
func (d *drawing) seats() {
	for _, s := range d.o.Hold {
		d.hand(s)
	}
	for _, s := range d.o.Draw {
		d.pull(s)
	}
}

// labels names the ends beside them.
func (d *drawing) labels() {
	size := 0.038 * math.Max(d.max.X-d.min.X, d.max.Y-d.min.Y)
	put := func(p, dir curve.Point, text string) {
		q := d.tf(p.Add(dir.Times(0.9 * size)))
		half := float64(len(text)) * size * 0.27
		q.X = math.Min(math.Max(q.X, d.min.X+half), d.max.X-half)
		q.Y = math.Min(math.Max(q.Y, d.min.Y+size), d.max.Y-0.4*size)
		fmt.Fprintf(&d.b, `<text x="%s" y="%s" text-anchor="middle" style="font-size:%spx;fill:var(--ink,#10231d);paint-order:stroke;stroke:var(--paper,#fff)" stroke-width="%s">%s</text>`,
			num(q.X), num(q.Y), num(size), num(size*0.28), text)
	}
	done := d.done()
	for r, rope := range d.Ropes {
		if d.Reach(r, d.o.Step) > 4*rope.Width && !(done && d.seated()) {
			standing := shape.Strand{Rope: r}
			d.hand(standing)
			if done {
				d.pull(standing)
			}
		}
		c := d.Curves[r]
		start, end := c.At(1.6*rope.Width), c.At(d.Reach(r, d.o.Step))
		ts := c.Tangent(0)
		if start.Sub(end).Len() < 4*rope.Width && done {
			put(start, curve.Pt(-ts.Y, ts.X).Times(1.6), "standing parts")
			continue // made in the bight: neither is a working end
		}
		put(start, curve.Pt(-ts.Y, ts.X).Times(1.2), "standing part")
		put(end, c.Tangent(d.Reach(r, d.o.Step)).Times(1.3), "working end")
	}
}

// done reports whether the finished knot is drawn.
func (d *drawing) done() bool { return d.o.Step >= float64(d.base.Steps()) }

// seated reports whether it is known which strands are held and which are drawn.
func (d *drawing) seated() bool { return len(d.o.Hold)+len(d.o.Draw) > 0 }

// out is a point of strand s, at arc length l from where it stops, the direction toward the
// knot there, and the rope's width.
func (d *drawing) out(s shape.Strand, l float64) (at, in curve.Point, w float64) {
	c, w := d.Curves[s.Rope], d.Ropes[s.Rope].Width
	if !s.End {
		return c.At(l * w), c.Tangent(l * w), w
	}
	l = d.Reach(s.Rope, d.o.Step) - l*w
	return c.At(l), c.Tangent(l).Times(-1), w
}

// clear is how far a place is from the nearest rope.
func (d *drawing) clear(p curve.Point) float64 {
	least := math.Inf(1)
	for r, c := range d.Curves {
		for l := 0.0; l < d.Reach(r, d.o.Step); l += d.Ropes[r].Width / 2 {
			least = min(least, c.At(l).Sub(p).Len())
		}
	}
	return least
}

// hand draws four fingers and a thumb closed round a strand.
func (d *drawing) hand(s shape.Strand) {
	at, t, w := d.out(s, 2.6)
	n := curve.Pt(-t.Y, t.X)
	d.b.WriteString(`<g data-hand="" stroke-linecap="round" fill="none">`)
	stroke := func(a, b curve.Point, width float64) {
		line := "M" + d.xy(a) + "L" + d.xy(b)
		fmt.Fprintf(&d.b, `<path d="%s" style="stroke:var(--ink,#10231d)" stroke-width="%s"/><path d="%s" style="stroke:var(--hand,#e9d3b4)" stroke-width="%s"/>`,
			line, num(width+0.1*w), line, num(width))
	}
	for i := range 4 {
		p := at.Add(t.Times((float64(i) - 1.5) * 0.42 * w))
		stroke(p.Add(n.Times(0.72*w)), p.Sub(n.Times(0.62*w)), 0.34*w)
	}
	stroke(at.Add(n.Times(0.85*w)).Sub(t.Times(0.7*w)), at.Add(n.Times(0.85*w)).Add(t.Times(0.85*w)), 0.4*w)
	d.b.WriteString("</g>")
}

// pull draws an arrow beside a strand, away from the knot.
func (d *drawing) pull(s shape.Strand) {
	from, t, w := d.out(s, 0.4)
	n := curve.Pt(-t.Y, t.X)
	beside := func(side float64) float64 { // how clear of the ropes it is on one side
		room := math.Inf(1)
		for _, along := range []float64{0.5, 2.8, 5} {
			room = min(room, d.clear(from.Add(t.Times(along*w)).Add(n.Times(side*1.5*w))))
		}
		return room
	}
	if beside(1) > beside(-1) {
		n = n.Times(-1)
	}
	at := func(s, side float64) curve.Point { return from.Add(t.Times(s * w)).Add(n.Times(side * w)) }
	fmt.Fprintf(&d.b, `<path data-pull="" d="M%sL%sL%sL%sL%sL%sL%sZ" style="fill:var(--move,#e2573d);stroke:var(--paper,#fff)" stroke-width="%s"/>`,
		d.xy(at(5.2, -1.35)), d.xy(at(5.2, -1.65)), d.xy(at(1.4, -1.65)), d.xy(at(1.4, -2.05)), d.xy(at(0.2, -1.5)), d.xy(at(1.4, -0.95)), d.xy(at(1.4, -1.35)), num(0.08*w))
}

func escape(s string) string {
	return strings.NewReplacer("&", "&amp;", "<", "&lt;", ">", "&gt;", `"`, "&quot;").Replace(s)
}

// Shadow draws a shape with some crossings overridden, by name, and nothing accented.
func Shadow(sh *shape.Shape, o Options, side map[string]Side) string {
	o.Step = float64(sh.Steps())
	d := &drawing{Shape: sh, base: sh, o: o, plain: true, side: side}
	return d.render()
}

// Frame is the box of a drawing in its own units: left, top, width, height.
func Frame(sh *shape.Shape) [4]float64 {
	d := &drawing{Shape: sh, base: sh}
	d.box()
	return [4]float64{d.min.X, d.min.Y, d.max.X - d.min.X, d.max.Y - d.min.Y}
}
