// Package export writes what leaves the application on paper.
package export

import (
	"encoding/xml"
	"fmt"
	"io"
	"math"
	"regexp"
	"strconv"
	"strings"
)

// fallback finds the colour after a CSS variable: "var(--rope-1,#d9962f)".
var fallback = regexp.MustCompile(`(stroke|fill):var\([^,]+,(#[0-9a-fA-F]{3,6})\)`)

// named finds short names of colours that a group gives, and used where one is used:
// "--b0:var(--rope-1,#d9962f)" and "stroke:var(--b0)".
var (
	named = regexp.MustCompile(`(--\w+):var\([^,]+,(#[0-9a-fA-F]{3,6})\)`)
	used  = regexp.MustCompile(`(stroke|fill):var\((--\w+)\)`)
)

// canvas is what one of our drawings is drawn on: a page or a picture. A path is
// begun, led on and then painted, which forgets it.
type canvas interface {
	moveTo(x, y float64)
	lineTo(x, y float64)
	curveTo(x1, y1, x2, y2, x, y float64)
	quadTo(x1, y1, x, y float64)
	closePath()
	paint(p paint)
}

// paint is how a path is painted; an empty colour leaves that part out.
type paint struct {
	fill, stroke string // "#rrggbb"
	opacity      float64
	width        float64
	dash         []float64
	evenOdd      bool
}

// drawSVG draws one of our own drawings (core/shape and core/snug: paths with M, L, l, C, Q and Z,
// circles and rectangles) into a box of the canvas, centred and as large as fits.
func drawSVG(c canvas, svg string, x, y, w, h float64) error {
	dec := xml.NewDecoder(strings.NewReader(svg))
	p := &pen{canvas: c, colours: map[string]string{}}
	for {
		tok, err := dec.Token()
		if err == io.EOF {
			return nil
		}
		if err != nil {
			return fmt.Errorf("drawing: %w", err)
		}
		e, ok := tok.(xml.StartElement)
		if !ok {
			continue
		}
		a := map[string]string{}
		for _, at := range e.Attr {
			a[at.Name.Local] = at.Value
		}
		switch e.Name.Local {
		case "svg":
			v := numbers(a["viewBox"])
			if len(v) != 4 || v[2] <= 0 || v[3] <= 0 {
				return fmt.Errorf("drawing: viewBox %q", a["viewBox"])
			}
			p.k = math.Min(w/v[2], h/v[3])
			p.x = x + (w-v[2]*p.k)/2 - v[0]*p.k
			p.y = y + (h-v[3]*p.k)/2 - v[1]*p.k
		case "g":
			for _, m := range named.FindAllStringSubmatch(a["style"], -1) {
				p.colours[m[1]] = m[2]
			}
		case "path":
			p.path(a["d"], a["transform"])
			p.finish(a)
		case "circle":
			v := numbers(a["cx"] + " " + a["cy"] + " " + a["r"])
			if len(v) != 3 {
				return fmt.Errorf("drawing: a circle is not complete")
			}
			p.roundBox(v[0]-v[2], v[1]-v[2], 2*v[2], 2*v[2], v[2])
			p.finish(a)
		case "rect":
			v := numbers(a["x"] + " " + a["y"] + " " + a["width"] + " " + a["height"])
			if len(v) != 4 {
				return fmt.Errorf("drawing: a box is not complete")
			}
			r, _ := strconv.ParseFloat(a["rx"], 64)
			p.roundBox(v[0], v[1], v[2], v[3], math.Min(r, math.Min(v[2], v[3])/2))
			p.finish(a)
		}
	}
}

// pen places drawing units on the canvas.
type pen struct {
	canvas
	x, y, k float64
	colours map[string]string // by their short names
}

// finish paints with colours, width and opacity from an element's attributes.
func (p *pen) finish(a map[string]string) {
	colours := map[string]string{"stroke": a["stroke"], "fill": a["fill"]}
	for _, m := range fallback.FindAllStringSubmatch(a["style"], -1) {
		colours[m[1]] = m[2]
	}
	for _, m := range used.FindAllStringSubmatch(a["style"], -1) {
		colours[m[1]] = p.colours[m[2]]
	}
	how := paint{opacity: 1, evenOdd: a["fill-rule"] == "evenodd"}
	if c := colours["fill"]; c != "none" {
		how.fill = c
	}
	if c := colours["stroke"]; c != "none" {
		how.stroke = c
	}
	if o, err := strconv.ParseFloat(a["stroke-opacity"], 64); err == nil {
		how.opacity = o
	}
	if v := numbers(a["stroke-width"]); len(v) == 1 {
		how.width = v[0] * p.k
	}
	for _, v := range numbers(a["stroke-dasharray"]) {
		how.dash = append(how.dash, v*p.k)
	}
	p.paint(how)
}

var command = regexp.MustCompile(`([MLlCQZ])([^MLlCQZ]*)`)

func (p *pen) path(d, transform string) {
	shift := [2]float64{}
	if t, ok := strings.CutPrefix(transform, "translate("); ok {
		if v := numbers(strings.TrimSuffix(t, ")")); len(v) == 2 {
			shift = [2]float64{v[0], v[1]}
		}
	}
	X := func(v float64) float64 { return p.x + (v+shift[0])*p.k }
	Y := func(v float64) float64 { return p.y + (v+shift[1])*p.k }
	var at [2]float64
	for _, m := range command.FindAllStringSubmatch(d, -1) {
		v := numbers(m[2])
		if m[1] == "l" { // on from place to place
			v = numbers(strings.ReplaceAll(m[2], "-", " -"))
			for ; len(v) >= 2; v = v[2:] {
				at = [2]float64{at[0] + v[0], at[1] + v[1]}
				p.lineTo(X(at[0]), Y(at[1]))
			}
			continue
		}
		if m[1] == "M" && len(v) == 2 {
			at = [2]float64{v[0], v[1]}
		}
		switch {
		case m[1] == "M" && len(v) == 2:
			p.moveTo(X(v[0]), Y(v[1]))
		case m[1] == "L" && len(v) == 2:
			p.lineTo(X(v[0]), Y(v[1]))
		case m[1] == "C" && len(v) == 6:
			p.curveTo(X(v[0]), Y(v[1]), X(v[2]), Y(v[3]), X(v[4]), Y(v[5]))
		case m[1] == "Q" && len(v) == 4:
			p.quadTo(X(v[0]), Y(v[1]), X(v[2]), Y(v[3]))
		case m[1] == "Z":
			p.closePath()
		}
	}
}

// roundBox leads the path round a box whose corners have radius r.
func (p *pen) roundBox(x, y, w, h, r float64) {
	const c = 1 - 0.5523 // quarter circles as cubics: 1 − 4/3·(√2−1)
	X := func(v float64) float64 { return p.x + v*p.k }
	Y := func(v float64) float64 { return p.y + v*p.k }
	p.moveTo(X(x+r), Y(y))
	p.lineTo(X(x+w-r), Y(y))
	p.curveTo(X(x+w-r*c), Y(y), X(x+w), Y(y+r*c), X(x+w), Y(y+r))
	p.lineTo(X(x+w), Y(y+h-r))
	p.curveTo(X(x+w), Y(y+h-r*c), X(x+w-r*c), Y(y+h), X(x+w-r), Y(y+h))
	p.lineTo(X(x+r), Y(y+h))
	p.curveTo(X(x+r*c), Y(y+h), X(x), Y(y+h-r*c), X(x), Y(y+h-r))
	p.lineTo(X(x), Y(y+r))
	p.curveTo(X(x), Y(y+r*c), X(x+r*c), Y(y), X(x+r), Y(y))
	p.closePath()
}

// numbers between blanks and commas; none where one of them is no number or far outside
// any drawing.
func numbers(s string) []float64 {
	var out []float64
	for _, w := range strings.FieldsFunc(s, func(r rune) bool { return r == ' ' || r == ',' }) {
		v, err := strconv.ParseFloat(w, 64)
		if err != nil || !(math.Abs(v) < 1e6) {
			return nil
		}
		out = append(out, v)
	}
	return out
}

func rgb(hex string) (r, g, b int) {
	h := strings.TrimPrefix(hex, "#")
	if len(h) == 3 {
		h = string([]byte{h[0], h[0], h[1], h[1], h[2], h[2]})
	}
	v, _ := strconv.ParseUint(h, 16, 32)
	return int(v >> 16), int(v >> 8 & 255), int(v & 255)
}
