package export

import "codeberg.org/go-pdf/fpdf"

// page is a PDF page as a canvas, in millimetres.
type page struct{ *fpdf.Fpdf }

func (p page) moveTo(x, y float64)         { p.MoveTo(x, y) }
func (p page) lineTo(x, y float64)         { p.LineTo(x, y) }
func (p page) quadTo(x1, y1, x, y float64) { p.CurveTo(x1, y1, x, y) }
func (p page) closePath()                  { p.ClosePath() }
func (p page) curveTo(x1, y1, x2, y2, x, y float64) {
	p.CurveBezierCubicTo(x1, y1, x2, y2, x, y)
}

func (p page) paint(how paint) {
	style := ""
	if how.fill != "" {
		p.SetFillColor(rgb(how.fill))
		style = "F"
	}
	if how.stroke != "" {
		p.SetDrawColor(rgb(how.stroke))
		style += "D"
	}
	if style != "" && how.evenOdd {
		style += "*"
	}
	p.SetAlpha(how.opacity, "Normal")
	p.SetLineWidth(how.width)
	p.SetLineCapStyle("butt")
	p.SetDashPattern(how.dash, 0)
	p.DrawPath(style)
	p.SetAlpha(1, "Normal")
	p.SetDashPattern(nil, 0)
}
