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

	"github.com/go-pdf/fpdf"
)

// fallback finds the colour after a CSS variable: "var(--rope-1,#d9962f)".
var fallback = regexp.MustCompile(`(stroke|fill):var\([^,]+,(#[0-9a-fA-F]{3,6})\)`)

// drawSVG draws one of our own drawings (core/shape: paths with M, L, C, Q, H, V
// and Z, circles and rectangles) into a box of the page, in millimetres, centred
// and as large as fits.
func drawSVG(pdf *fpdf.Fpdf, svg string, x, y, w, h float64) error {
	dec := xml.NewDecoder(strings.NewReader(svg))
	p := &pen{pdf: pdf}
	for {
		tok, err := dec.Token()
		if err == io.EOF {
			pdf.SetAlpha(1, "Normal")
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
			if len(v) != 4 {
				return fmt.Errorf("drawing: viewBox %q", a["viewBox"])
			}
			p.k = math.Min(w/v[2], h/v[3])
			p.x = x + (w-v[2]*p.k)/2 - v[0]*p.k
			p.y = y + (h-v[3]*p.k)/2 - v[1]*p.k
		case "path":
			p.stroke(a, func() { p.path(a["d"], a["transform"]) })
		case "circle":
			v := numbers(a["cx"] + " " + a["cy"] + " " + a["r"])
			p.stroke(a, func() { pdf.Circle(p.x+v[0]*p.k, p.y+v[1]*p.k, v[2]*p.k, p.style) })
		case "rect":
			v := numbers(a["x"] + " " + a["y"] + " " + a["width"] + " " + a["height"])
			p.stroke(a, func() { pdf.Rect(p.x+v[0]*p.k, p.y+v[1]*p.k, v[2]*p.k, v[3]*p.k, p.style) })
		}
	}
}

// pen places drawing units on the page.
type pen struct {
	pdf     *fpdf.Fpdf
	x, y, k float64
	style   string
}

// stroke sets colours, width and opacity from an element's attributes and draws.
func (p *pen) stroke(a map[string]string, draw func()) {
	colours := map[string]string{"stroke": a["stroke"], "fill": a["fill"]}
	for _, m := range fallback.FindAllStringSubmatch(a["style"], -1) {
		colours[m[1]] = m[2]
	}
	p.style = ""
	if c := colours["fill"]; c != "" && c != "none" {
		p.pdf.SetFillColor(rgb(c))
		p.style = "F"
	}
	if c := colours["stroke"]; c != "" && c != "none" {
		p.pdf.SetDrawColor(rgb(c))
		p.style += "D"
	}
	if p.style == "" {
		return
	}
	alpha := 1.0
	if o, err := strconv.ParseFloat(a["stroke-opacity"], 64); err == nil {
		alpha = o
	}
	p.pdf.SetAlpha(alpha, "Normal")
	if v := numbers(a["stroke-width"]); len(v) == 1 {
		p.pdf.SetLineWidth(v[0] * p.k)
	}
	p.pdf.SetLineCapStyle("butt")
	if v := numbers(a["stroke-dasharray"]); len(v) == 2 {
		p.pdf.SetDashPattern([]float64{v[0] * p.k, v[1] * p.k}, 0)
		defer p.pdf.SetDashPattern(nil, 0)
	}
	draw()
}

var command = regexp.MustCompile(`([MLCQHVZ])([^MLCQHVZ]*)`)

func (p *pen) path(d, transform string) {
	shift := [2]float64{}
	if t, ok := strings.CutPrefix(transform, "translate("); ok {
		if v := numbers(strings.TrimSuffix(t, ")")); len(v) == 2 {
			shift = [2]float64{v[0], v[1]}
		}
	}
	X := func(v float64) float64 { return p.x + (v+shift[0])*p.k }
	Y := func(v float64) float64 { return p.y + (v+shift[1])*p.k }
	for _, m := range command.FindAllStringSubmatch(d, -1) {
		v := numbers(m[2])
		switch {
		case m[1] == "M" && len(v) == 2:
			p.pdf.MoveTo(X(v[0]), Y(v[1]))
		case m[1] == "L" && len(v) == 2:
			p.pdf.LineTo(X(v[0]), Y(v[1]))
		case m[1] == "C" && len(v) == 6:
			p.pdf.CurveBezierCubicTo(X(v[0]), Y(v[1]), X(v[2]), Y(v[3]), X(v[4]), Y(v[5]))
		case m[1] == "Q" && len(v) == 4:
			p.pdf.CurveTo(X(v[0]), Y(v[1]), X(v[2]), Y(v[3]))
		case m[1] == "Z":
			p.pdf.ClosePath()
		}
	}
	p.pdf.DrawPath(p.style)
}

func numbers(s string) []float64 {
	var out []float64
	for _, w := range strings.FieldsFunc(s, func(r rune) bool { return r == ' ' || r == ',' }) {
		v, err := strconv.ParseFloat(w, 64)
		if err != nil {
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
