package export

import (
	"bytes"
	"fmt"
	"time"

	"github.com/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"

	"oarweed/core/evidence"
	"oarweed/core/knot"
	"oarweed/core/rig"
	"oarweed/core/shape"
)

// Margins and measures of the page, in millimetres.
const (
	pageW, pageH = 210.0, 297.0
	margin       = 14.0
	wide         = pageW - 2*margin
)

// Handout writes a knot on one A4 page as PDF: the finished knot, every step with
// its drawing, what to check, what goes wrong, the figures with their evidence, and
// the cautions. sh may be nil: then the steps stand in words alone.
func Handout(k *knot.Knot, sh *shape.Shape, look shape.Look, cautions []rig.Caution) ([]byte, error) {
	pdf := fpdf.New("P", "mm", "A4", "")
	pdf.AddUTF8FontFromBytes("go", "", goregular.TTF)
	pdf.AddUTF8FontFromBytes("go", "B", gobold.TTF)
	pdf.SetTitle(k.Name, true)
	pdf.SetCreator("Oarweed", true)
	// The same knot gives the same page.
	pdf.SetCreationDate(time.Unix(0, 0))
	pdf.SetModificationDate(time.Unix(0, 0))
	pdf.SetCatalogSort(true)
	pdf.SetAutoPageBreak(false, 0)
	pdf.SetCellMargin(0)
	pdf.AddPage()
	h := &handout{pdf: pdf, size: 10}
	// A knot with much to say is set smaller rather than run off the page.
	if n := len(k.Steps) + len(k.Checks) + 2*len(k.Faults); n > 17 {
		h.size = 9
	}
	y := h.head(k, sh, look)
	y = h.steps(k, sh, look, y)
	h.lower(k, cautions, y)
	var out bytes.Buffer
	if h.err == nil {
		h.err = pdf.Output(&out)
	}
	return out.Bytes(), h.err
}

type handout struct {
	pdf  *fpdf.Fpdf
	size float64 // of the text, points
	err  error
}

func (h *handout) draw(sh *shape.Shape, o shape.Options, x, y, w, hh float64) {
	if sh == nil || h.err != nil {
		return
	}
	h.err = drawSVG(h.pdf, sh.SVG(o), x, y, w, hh)
}

func (h *handout) ink(bold bool, size float64) {
	style := ""
	if bold {
		style = "B"
	}
	h.pdf.SetFont("go", style, size)
	h.pdf.SetTextColor(16, 35, 29)
}

// text sets a paragraph and gives the y below it.
func (h *handout) text(s string, x, y, w float64) float64 {
	h.pdf.SetXY(x, y)
	h.pdf.MultiCell(w, h.size*0.46, s, "", "L", false)
	return h.pdf.GetY()
}

func (h *handout) title(s string, x, y float64) float64 {
	h.ink(true, h.size+2)
	h.pdf.Text(x, y+4, s)
	h.ink(false, h.size)
	return y + 6.5
}

func (h *handout) head(k *knot.Knot, sh *shape.Shape, look shape.Look) float64 {
	h.ink(true, 24)
	h.pdf.Text(margin, margin+9, k.Name)
	h.ink(false, 11)
	h.pdf.SetXY(margin, margin+13)
	h.pdf.MultiCell(wide-62, 5.2, k.Summary, "", "L", false)
	y := h.pdf.GetY() + 2
	h.ink(false, h.size)
	y = h.text("Coming off: "+k.Release.How, margin, y, wide-62)
	h.draw(sh, shape.Options{Step: -1, Look: look}, pageW-margin-58, margin, 58, 46)
	return max(y, margin+46) + 4
}

// steps sets the steps in rows of three, each with its drawing.
func (h *handout) steps(k *knot.Knot, sh *shape.Shape, look shape.Look, y float64) float64 {
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
				h.pdf.SetDrawColor(207, 203, 184)
				h.pdf.SetLineWidth(0.3)
				h.pdf.Rect(x, y, w, high, "D")
				h.draw(sh, shape.Options{Step: float64(i + 1), Look: look}, x+2, y+2, w-4, high-4)
			}
			h.ink(false, h.size)
			bottom = max(bottom, h.text(fmt.Sprintf("%d  %s", i+1, k.Steps[i]), x, y+high+1, w))
		}
		y = bottom + 3
	}
	return y
}

// lower sets checks and figures on the left, faults on the right, cautions below.
func (h *handout) lower(k *knot.Knot, cautions []rig.Caution, top float64) {
	const gap = 8.0
	w := (wide - gap) / 2
	y := h.title("Right when", margin, top)
	for _, c := range k.Checks {
		y = h.text("–  "+c, margin, y, w) + 0.6
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
	h.pdf.SetTextColor(179, 39, 15)
	for _, c := range cautions {
		y = h.text("!  "+c.Text, margin, y, wide) + 0.6
	}
	h.ink(false, 8)
	h.pdf.Text(margin, pageH-8, "Oarweed. Figures are guides with their evidence named; they approve nothing. Follow local rules and makers' instructions.")
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
