package export

import (
	"bytes"
	"context"
	"fmt"
	"html"
	"strings"
	"time"

	"codeberg.org/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"

	"oarweed/core/evidence"
	"oarweed/core/knot"
	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/shape"
	"oarweed/core/shape/draw"
	"oarweed/core/snug"
)

// Margins and measures of the page, in millimetres.
const (
	pageW, pageH = 210.0, 297.0
	margin       = 14.0
	wide         = pageW - 2*margin
)

// Handout writes a knot on one A4 page: the finished knot, every step with its
// drawing, what to check, what goes wrong, the figures with their evidence, and
// the cautions; left for a left-handed tyer, in pictures and words. sh may be nil: then the
// steps stand in words alone; so may up, the knot drawn up. The page is laid out once and given
// as PDF and as SVG.
func Handout(ctx context.Context, k *knot.Knot, sh *shape.Shape, up *snug.Built, look draw.Look, left bool, cautions []rig.Caution) (pdf, svg []byte, err error) {
	if left {
		k = say.OtherHanded(k)
	}
	h := &handout{ctx: ctx, left: left, pdf: fpdf.New("P", "mm", "A4", ""), size: 10}
	h.pdf.AddUTF8FontFromBytes("go", "", goregular.TTF)
	h.pdf.AddUTF8FontFromBytes("go", "B", gobold.TTF)
	h.pdf.SetTitle(k.Name, true)
	h.pdf.SetCreator("Oarweed", true)
	// The same knot gives the same page.
	h.pdf.SetCreationDate(time.Unix(0, 0))
	h.pdf.SetModificationDate(time.Unix(0, 0))
	h.pdf.SetCatalogSort(true)
	h.pdf.SetAutoPageBreak(false, 0)
	h.pdf.AddPage()
	fmt.Fprintf(&h.svg, `<svg xmlns="http://www.w3.org/2000/svg" width="%gmm" height="%gmm" viewBox="0 0 %g %g" font-family="Go, 'Atkinson Hyperlegible', Helvetica, Arial, sans-serif"><title>%s</title><rect width="%g" height="%g" fill="#fff"/>`,
		pageW, pageH, pageW, pageH, html.EscapeString(k.Name), pageW, pageH)
	// A knot with much to say is set smaller rather than run off the page.
	if n := len(k.Steps) + len(k.Checks) + 2*len(k.Faults); n > 17 {
		h.size = 9
	}
	y := h.head(k, sh, look)
	y = h.steps(k, sh, look, y)
	h.lower(k, up, snug.Look(look), cautions, y)
	h.svg.WriteString("</svg>")
	var out bytes.Buffer
	if h.err == nil {
		h.err = h.pdf.Output(&out)
	}
	return out.Bytes(), []byte(h.svg.String()), h.err
}

// handout writes every mark on both pages. Lengths are millimetres, sizes points.
type handout struct {
	ctx  context.Context // of this one page
	pdf  *fpdf.Fpdf
	svg  strings.Builder
	size float64 // of the text
	left bool    // for a left-handed tyer
	err  error
}

const (
	ink   = "#10231d"
	alarm = "#b3270f"
	point = 25.4 / 72
)

// line writes one line of text with its baseline at y.
func (h *handout) line(s string, x, y, size float64, bold bool, colour string) {
	h.font(size, bold)
	h.pdf.SetTextColor(rgb(colour))
	h.pdf.Text(x, y, s)
	weight := ""
	if bold {
		weight = ` font-weight="bold"`
	}
	fmt.Fprintf(&h.svg, `<text x="%.2f" y="%.2f" font-size="%.2f" fill="%s"%s textLength="%.2f" lengthAdjust="spacingAndGlyphs">%s</text>`, x, y, size*point, colour, weight, h.pdf.GetStringWidth(s), html.EscapeString(s))
}

func (h *handout) font(size float64, bold bool) {
	style := ""
	if bold {
		style = "B"
	}
	h.pdf.SetFont("go", style, size)
}

func (h *handout) box(x, y, w, hh float64) {
	h.pdf.SetDrawColor(rgb("#cfcbb8"))
	h.pdf.SetLineWidth(0.3)
	h.pdf.Rect(x, y, w, hh, "D")
	fmt.Fprintf(&h.svg, `<rect x="%.2f" y="%.2f" width="%.2f" height="%.2f" fill="none" stroke="#cfcbb8" stroke-width=".3"/>`, x, y, w, hh)
}

func (h *handout) draw(sh *shape.Shape, o draw.Options, x, y, w, hh float64) {
	if h.err == nil {
		h.err = h.ctx.Err() // drawing is nearly all the work
	}
	if sh == nil || h.err != nil {
		return
	}
	o.Left = h.left
	h.place(draw.SVG(sh, o), x, y, w, hh)
}

// place sets a drawing into a box.
func (h *handout) place(svg string, x, y, w, hh float64) {
	if h.err != nil {
		return
	}
	h.err = drawSVG(page{h.pdf}, svg, x, y, w, hh)
	fmt.Fprintf(&h.svg, `<svg x="%.2f" y="%.2f" width="%.2f" height="%.2f" %s`, x, y, w, hh, strings.TrimPrefix(svg, `<svg xmlns="http://www.w3.org/2000/svg" `))
}

// text sets a paragraph and gives the y below it.
func (h *handout) text(s string, x, y, w float64) float64 {
	return h.paragraph(s, x, y, w, h.size, ink)
}

func (h *handout) paragraph(s string, x, y, w, size float64, colour string) float64 {
	h.font(size, false)
	for _, line := range h.pdf.SplitText(s, w) {
		h.line(line, x, y+size*0.35, size, false, colour)
		y += size * 0.46
	}
	return y
}

func (h *handout) title(s string, x, y float64) float64 {
	h.line(s, x, y+4, h.size+2, true, ink)
	return y + 6.5
}

func (h *handout) head(k *knot.Knot, sh *shape.Shape, look draw.Look) float64 {
	h.line(k.Name, margin, margin+9, 24, true, ink)
	y := h.paragraph(k.Summary, margin, margin+13, wide-62, 11, ink) + 2
	y = h.text("Coming off: "+k.Release.How, margin, y, wide-62)
	h.draw(sh, draw.Options{Step: -1, Look: look}, pageW-margin-58, margin, 58, 46)
	return max(y, margin+46) + 4
}

// steps sets the steps in rows of three, each with its drawing.
func (h *handout) steps(k *knot.Knot, sh *shape.Shape, look draw.Look, y float64) float64 {
	const perRow, gap = 3, 5.0
	w := (wide - gap*(perRow-1)) / perRow
	high := 46.0
	if len(k.Steps) <= perRow {
		high = 52
	}
	if sh == nil {
		high = 0
	}
	y = h.title("How it is tied", margin, y)
	for from := 0; from < len(k.Steps); from += perRow {
		bottom := y
		for i := from; i < min(from+perRow, len(k.Steps)); i++ {
			x := margin + float64(i-from)*(w+gap)
			if sh != nil {
				h.box(x, y, w, high)
				h.draw(sh, draw.Options{Step: float64(i + 1), Look: look}, x+2, y+2, w-4, high-4)
			}
			bottom = max(bottom, h.text(fmt.Sprintf("%d  %s", i+1, k.Steps[i]), x, y+high+1, w))
		}
		y = bottom + 3
	}
	return y
}

// lower sets checks and figures on the left, faults on the right, cautions below.
func (h *handout) lower(k *knot.Knot, up *snug.Built, look snug.Look, cautions []rig.Caution, top float64) {
	const gap = 8.0
	w := (wide - gap) / 2
	y := h.title("Right when", margin, top)
	beside := w
	if up != nil && up.Computed {
		const figure = 30.0
		beside -= figure + 2
		h.place(up.SVG(up.Last(), snug.View{Left: h.left, Look: look}, k.Name+", drawn up"), margin+w-figure, top, figure, 22)
	}
	for _, c := range k.Checks {
		y = h.text("–  "+c, margin, y, beside) + 0.6
	}
	if beside < w {
		y = max(y, top+22)
	}
	y = h.title("Figures", margin, y+2)
	for _, e := range k.Efficiency {
		if len(e.Materials) == 0 {
			y = h.text(figure("Strength kept", e.Figure(), 100, " %"), margin, y, w)
		}
	}
	y = h.text(figure("Tail", k.Tail, 1, " diameters"), margin, y, w)
	y = h.text(figure("Time, practised", k.Seconds, 1, " s"), margin, y, w)
	right := h.title("What goes wrong", margin+w+gap, top)
	for _, f := range k.Faults {
		right = h.text("×  "+f.Name+": "+f.Looks+"; "+f.Leads+". "+f.Mend, margin+w+gap, right, w) + 1
	}
	y = max(y, right) + 3
	for _, c := range cautions {
		y = h.paragraph("!  "+c.Text, margin, y, wide, h.size, alarm) + 0.6
	}
	h.line("Oarweed. Figures are guides with their evidence named; they approve nothing. Follow local rules and makers' instructions.", margin, pageH-8, 8, false, ink)
	if y > pageH-10 && h.err == nil {
		h.err = fmt.Errorf("the handout of %s does not fit on one page", k.ID)
	}
}

func figure(name string, f evidence.Figure, k float64, unit string) string {
	value := fmt.Sprintf("%g to %g", round(f.Low*k), round(f.High*k))
	if f.Low == f.High {
		value = fmt.Sprintf("%g", round(f.Likely*k))
	}
	return fmt.Sprintf("%s: %s%s (%s)", name, value, unit, f.Tag)
}

func round(v float64) float64 { return float64(int(v*10+0.5)) / 10 }
