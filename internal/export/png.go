package export

import (
	"bytes"
	"fmt"
	"math"
	"regexp"

	"github.com/fogleman/gg"
)

var viewBox = regexp.MustCompile(`viewBox="([^"]+)"`)

// PNG draws one of our own drawings as a picture so many pixels wide, on white.
// The names of the ends are left out: a picture carries no type.
func PNG(svg string, width int) ([]byte, error) {
	if width < 16 || width > 8000 {
		return nil, fmt.Errorf("width: %d pixels cannot be drawn (give 16 to 8000)", width)
	}
	m := viewBox.FindStringSubmatch(svg)
	if m == nil {
		return nil, fmt.Errorf("drawing: it has no viewBox")
	}
	v := numbers(m[1])
	if len(v) != 4 || !(v[2] > 0 && v[3] > 0 && v[3]/v[2] < 100) {
		return nil, fmt.Errorf("drawing: viewBox %q", m[1])
	}
	height := int(math.Ceil(float64(width) * v[3] / v[2]))
	c := gg.NewContext(width, height)
	c.SetRGB(1, 1, 1)
	c.Clear()
	if err := drawSVG(picture{c}, svg, 0, 0, float64(width), float64(height)); err != nil {
		return nil, err
	}
	var out bytes.Buffer
	err := c.EncodePNG(&out)
	return out.Bytes(), err
}

// picture is a bitmap as a canvas, in pixels.
type picture struct{ *gg.Context }

func (p picture) moveTo(x, y float64)                  { p.MoveTo(x, y) }
func (p picture) lineTo(x, y float64)                  { p.LineTo(x, y) }
func (p picture) quadTo(x1, y1, x, y float64)          { p.QuadraticTo(x1, y1, x, y) }
func (p picture) curveTo(x1, y1, x2, y2, x, y float64) { p.CubicTo(x1, y1, x2, y2, x, y) }
func (p picture) closePath()                           { p.ClosePath() }

func (p picture) paint(how paint) {
	if how.fill != "" {
		p.SetFillRule(gg.FillRuleWinding)
		if how.evenOdd {
			p.SetFillRule(gg.FillRuleEvenOdd)
		}
		r, g, b := rgb(how.fill)
		p.SetRGB255(r, g, b)
		p.FillPreserve()
	}
	if how.stroke != "" && how.width > 0 {
		r, g, b := rgb(how.stroke)
		p.SetRGBA255(r, g, b, int(255*how.opacity+0.5))
		p.SetLineWidth(how.width)
		p.SetLineCapButt()
		p.SetDash(how.dash...)
		p.StrokePreserve()
	}
	p.ClearPath()
}
