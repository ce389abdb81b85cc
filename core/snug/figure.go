package snug

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"
)

// mostDrawn is how many nodes are drawn one by one; of more every second is.
const mostDrawn = 400

// everySecond keeps the last node too.
func everySecond(nodes []r3.Vec) []r3.Vec {
	var out []r3.Vec
	for i := 0; i < len(nodes)-1; i += 2 {
		out = append(out, nodes[i])
	}
	return append(out, nodes[len(nodes)-1])
}

// View is from where a figure is seen: turned about the upright, then tipped toward the
// viewer, in radians; left is the mirror image.
type View struct {
	Turn, Tip float64
	Left      bool
	// Line: it is to lie on a level line that leaves to the right at half the height of the
	// figure: turned so, without the thing it is made on.
	Line bool
	// Look is what the surface of ropes shows.
	Look Look
}

// Look is the make of a rope, as its surface shows it.
type Look string

// Looks: strands laid round one another, a braid, smooth.
const (
	LookLaid  Look = "laid"
	LookBraid Look = "braid"
	LookMono  Look = "mono"
)

// piece is a stretch of a tube that is painted at once.
type piece struct {
	strand, from, to int
	depth            float64
}

// tints of the first and second rope and of an object: names of colours, and what they are
// where no style sheet has them.
var tints = []struct{ name, edge, body, light string }{
	{"--rope-1", "#573a0d", "#dc9a35", "#f6d592"},
	{"--rope-2", "#173c37", "#4a9a90", "#abd8cf"},
	{"--object", "#46524c", "#a9b3ad", "#e3e8e3"},
}

// perPiece is how many segments are painted at once.
const perPiece = 4

// SVG draws a frame as tubes, those behind first, in the look of the drawings of knots:
// colours are the same CSS variables. title is read out in its place. Numbers point to places.
func (b *Built) SVG(frame int, v View, title string, numbers ...Mark) string {
	strands := b.At(frame)
	for i := range strands {
		for k, p := range strands[i].Nodes {
			strands[i].Nodes[k] = v.see(p)
		}
	}
	if v.Line {
		strands = onLine(strands)
	}
	shown := knotted(strands)
	whole := slices.Clone(strands)
	nodes := 0
	for _, s := range strands {
		nodes += len(s.Nodes)
	}
	if nodes > mostDrawn {
		for i := range strands {
			strands[i].Nodes = everySecond(strands[i].Nodes)
		}
	}
	var pieces []piece
	low, high := r3.Vec{X: math.Inf(1), Y: math.Inf(1)}, r3.Vec{X: math.Inf(-1), Y: math.Inf(-1)}
	for i, s := range strands {
		n := len(s.Nodes) - 1
		if s.Closed {
			n++
		}
		for a := 0; a < n; a += perPiece {
			z := min(a+perPiece, n)
			pieces = append(pieces, piece{i, a, z, (s.at(a).Z + s.at((a+z)/2).Z + s.at(z).Z) / 3})
		}
		if s.Fixed {
			continue
		}
		for _, p := range shown[i] {
			r := 0.6 * s.D
			low = r3.Vec{X: math.Min(low.X, p.X-r), Y: math.Min(low.Y, p.Y-r)}
			high = r3.Vec{X: math.Max(high.X, p.X+r), Y: math.Max(high.Y, p.Y+r)}
		}
	}
	if v.Line { // the line leaves at half the height
		half := max(high.Y, -low.Y)
		low.Y, high.Y = -half, half
	}
	slices.SortStableFunc(pieces, func(a, c piece) int { return cmp.Compare(a.depth, c.depth) })
	var out strings.Builder
	fmt.Fprintf(&out, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="%s %s %s %s" role="img"><title>%s</title><g fill="none" stroke-linejoin="round" style="`,
		num(low.X), num(-high.Y), num(high.X-low.X), num(high.Y-low.Y), escape(title))
	// Short names for the colours: each is used by hundreds of pieces.
	for k, tint := range tints {
		fmt.Fprintf(&out, "--e%d:var(%s-edge,%s);--b%d:var(%s,%s);--l%d:var(%s-light,%s);", k, tint.name, tint.edge, k, tint.name, tint.body, k, tint.name, tint.light)
	}
	out.WriteString(`">`)
	rope := ropeNumbers(strands)
	for _, p := range pieces {
		s := strands[p.strand]
		if !s.within(p, low, high) {
			continue
		}
		k := rope[p.strand] % 2
		edge, body := 0.98*s.D, 0.82*s.D
		if s.Fixed {
			k, edge, body = 2, s.D, s.D-0.12
		}
		// The edge runs on a little, so that it does not gape where a rope bends; the body
		// runs on farther, so that it covers where the edge ends.
		d := s.path(p.from, p.to, 0.8)
		stroke := func(d, colour string, width float64, more string) {
			fmt.Fprintf(&out, `<path d="%s" style="stroke:var(--%s%d)" stroke-width="%s"%s/>`, d, colour, k, num(width), more)
		}
		stroke(s.path(p.from, p.to, 0.4), "e", edge, "")
		stroke(d, "b", body, "")
		if s.Fixed {
			continue
		}
		gleam := 0.14 * s.D
		if v.Look == LookMono {
			gleam *= 1.7
		}
		stroke(d, "l", gleam, ` transform="translate(-.14-.14)"`)
		if made := s.marks(p, v.Look); made != "" {
			stroke(made, "e", 0.06*s.D, "")
		}
	}
	out.WriteString("</g>")
	marks(&out, whole, numbers, low, high)
	out.WriteString("</svg>")
	return out.String()
}

// onLine turns ropes in the picture so that a standing part leaves level to the right: of a
// join that of the second rope, else that of the first. Things are left out, and where that
// part ends is the origin's height.
func onLine(strands []Strand) []Strand {
	ropes := slices.DeleteFunc(strands, func(s Strand) bool { return s.Fixed })
	s := ropes[len(ropes)-1].Nodes
	out := r3.Sub(s[0], s[min(6, len(s)-1)])
	l := math.Hypot(out.X, out.Y)
	if l == 0 {
		return ropes
	}
	cos, sin := out.X/l, out.Y/l
	turn := func(p r3.Vec) r3.Vec { return r3.Vec{X: cos*p.X + sin*p.Y, Y: cos*p.Y - sin*p.X, Z: p.Z} }
	level := turn(s[0]).Y
	for i := range ropes {
		for k, p := range ropes[i].Nodes {
			p = turn(p)
			p.Y -= level
			ropes[i].Nodes[k] = p
		}
	}
	return ropes
}

// ropeNumbers counts the ropes among strands.
func ropeNumbers(strands []Strand) []int {
	out, n := make([]int, len(strands)), 0
	for i, s := range strands {
		if !s.Fixed {
			out[i] = n
			n++
		}
	}
	return out
}

func (v View) see(p r3.Vec) r3.Vec {
	if v.Left {
		p.X = -p.X
	}
	s, c := math.Sincos(v.Turn)
	p = r3.Vec{X: c*p.X + s*p.Z, Y: p.Y, Z: c*p.Z - s*p.X}
	s, c = math.Sincos(v.Tip)
	return r3.Vec{X: p.X, Y: c*p.Y - s*p.Z, Z: s*p.Y + c*p.Z}
}

// at is a node, counted round where the strand is closed.
func (s Strand) at(i int) r3.Vec {
	n := len(s.Nodes)
	if s.Closed {
		return s.Nodes[(i%n+n)%n]
	}
	return s.Nodes[min(max(i, 0), n-1)]
}

// within reports whether any of a piece is in the picture.
func (s Strand) within(p piece, low, high r3.Vec) bool {
	for i := p.from - 1; i <= p.to+1; i++ {
		v, r := s.at(i), s.D/2
		if v.X+r > low.X && v.X-r < high.X && v.Y+r > low.Y && v.Y-r < high.Y {
			return true
		}
	}
	return false
}

// marks are the strokes across a stretch of rope that show its make: slanted where it is laid,
// pointed where it is braided. They stand at even distances along the rope.
func (s Strand) marks(p piece, look Look) string {
	if look != LookLaid && look != LookBraid {
		return ""
	}
	const apart = 0.6
	along := 0.0
	for i := 0; i < p.from; i++ {
		along += r3.Norm(r3.Sub(s.at(i+1), s.at(i)))
	}
	var b strings.Builder
	for i := p.from; i < p.to; i++ {
		at, next := s.at(i), s.at(i+1)
		l := r3.Norm(r3.Sub(next, at))
		k := math.Ceil(along / apart / s.D)
		x := (k*apart*s.D - along) / l
		if along += l; x >= 1 || l == 0 {
			continue
		}
		t := r3.Vec{X: (next.X - at.X) / l, Y: (next.Y - at.Y) / l}
		c := r3.Add(at, r3.Scale(x, r3.Sub(next, at)))
		place := func(side, on float64) (float64, float64) {
			// Across the tube, and on along it; both shrink where it runs toward the viewer.
			tenth := func(x float64) float64 { return math.Round(10*x) / 10 }
			return tenth(c.X + s.D*(on*t.X-side*t.Y)), tenth(-(c.Y + s.D*(on*t.Y+side*t.X)))
		}
		x0, y0 := place(0.36, -0.2)
		x1, y1 := place(-0.36, 0.2)
		b.WriteString("M" + pair(x0, y0) + "l")
		if look == LookBraid {
			x2, y2 := place(0, 0.2)
			b.WriteString(pair(x2-x0, y2-y0) + " ")
			x0, y0 = x2, y2
			x1, y1 = place(-0.36, -0.2)
		}
		b.WriteString(pair(x1-x0, y1-y0))
	}
	return b.String()
}

// path runs from a node to another, and on by so many segments at both. After the first
// place it tells the way to the next, in hundredths, which is shorter.
func (s Strand) path(from, to int, on float64) string {
	var b strings.Builder
	var x, y float64
	put := func(p r3.Vec) {
		px, py := math.Round(100*p.X)/100, math.Round(-100*p.Y)/100
		if b.Len() == 0 {
			b.WriteString("M" + pair(px, py) + "l")
		} else {
			if !strings.HasSuffix(b.String(), "l") && px >= x {
				b.WriteByte(' ')
			}
			b.WriteString(pair(px-x, py-y))
		}
		x, y = px, py
	}
	put(s.toward(from, from-1, on))
	for i := from; i <= to; i++ {
		put(s.at(i))
	}
	put(s.toward(to, to+1, on))
	return b.String()
}

// pair writes two numbers as short as a path has them.
func pair(x, y float64) string {
	a, b := num(x), num(y)
	if !strings.HasPrefix(b, "-") {
		a += " "
	}
	return a + b
}

func (s Strand) toward(a, b int, f float64) r3.Vec {
	return r3.Add(r3.Scale(1-f, s.at(a)), r3.Scale(f, s.at(b)))
}

func num(x float64) string {
	t := fmt.Sprintf("%.2f", x)
	t = strings.TrimRight(strings.TrimRight(t, "0"), ".")
	if t == "-0" || t == "" {
		return "0"
	}
	if strings.HasPrefix(t, "0.") || strings.HasPrefix(t, "-0.") {
		t = strings.Replace(t, "0.", ".", 1)
	}
	return t
}

func escape(s string) string {
	return strings.NewReplacer("&", "&amp;", "<", "&lt;", ">", "&gt;").Replace(s)
}
