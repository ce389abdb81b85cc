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
	"oarweed/core/practice"
	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/shape"
	"oarweed/core/shape/draw"
	"oarweed/core/snug"
	"oarweed/core/trade"
)

// Margins and measures of the page, in millimetres.
const (
	pageW, pageH = 210.0, 297.0
	margin       = 14.0
	wide         = pageW - 2*margin
)

// Told is a knot with all that its page shows. Shape and Up may be nil: then the steps stand in
// words alone, and how it looks drawn up is left out.
type Told struct {
	Knot     *knot.Knot
	Shape    *shape.Shape
	Up       *snug.Built
	Cautions []rig.Caution
	// Own are the instructor's own aids and notes on it, printed where he asks for them.
	Own []practice.Note
}

// Seen is how the pictures of a page are seen.
type Seen struct {
	Look draw.Look
	View draw.View
	Left bool // for a left-handed tyer, in pictures and words
}

// Handout writes a knot on one A4 page: the finished knot, every step with its
// drawing, what to check, what goes wrong, the figures with their evidence, and
// the cautions. The page is laid out once and given as PDF and as SVG.
func Handout(ctx context.Context, t Told, seen Seen) (pdf, svg []byte, err error) {
	h := blank(ctx, t.Knot.Name, seen)
	h.whole(t)
	h.svg.WriteString("</svg>")
	pdf, err = h.done()
	return pdf, []byte(h.svg.String()), err
}

// ClassSet writes the pages of several knots into one PDF, a first page that lists them, and
// behind them the words they use.
func ClassSet(ctx context.Context, title string, list []Told, words []trade.Word, picture Picture, seen Seen) ([]byte, error) {
	h := blank(ctx, title, seen)
	h.pdf.AddPage()
	h.line(title, margin, margin+9, 24, true, ink)
	y := margin + 18
	for i, t := range list {
		h.size = 11
		h.line(fmt.Sprint(i+2), pageW-margin-8, y+4, 11, false, ink)
		h.line(t.Knot.Name, margin, y+4, 11, true, ink)
		y = h.paragraph(t.Knot.Told.Aid, margin+62, y, wide-76, 11, ink) + 2
		if y > pageH-2*margin && i < len(list)-1 {
			h.pdf.AddPage()
			y = margin
		}
	}
	for _, t := range list {
		h.whole(t)
	}
	if len(words) > 0 {
		h.words(words, picture)
	}
	return h.done()
}

// MostOnSheet is how many knots a sheet of paper holds.
const MostOnSheet = 6

// Sheet writes several knots on each page, four or six: its drawing, what to remember it by, the
// steps in words and what to check.
func Sheet(ctx context.Context, title string, list []Told, per int, seen Seen) ([]byte, error) {
	h := blank(ctx, title, seen)
	const columns, gap = 2, 6.0
	rows := per / columns
	w := (wide - gap) / columns
	high := (pageH - 2*margin - 12 - gap*float64(rows-1)) / float64(rows)
	for i, t := range list {
		if i%per == 0 {
			h.pdf.AddPage()
			h.line(title, margin, margin+3, 12, true, ink)
			h.foot()
		}
		at := i % per
		x, y := margin+float64(at%columns)*(w+gap), margin+7+float64(at/columns)*(high+gap)
		h.box(x, y, w, high)
		h.cell(t, x+3, y+3, w-6, high-6)
	}
	return h.done()
}

// cell writes a knot into a part of a page; what does not fit is set smaller.
func (h *handout) cell(t Told, x, y, w, high float64) {
	k := t.Knot
	if h.seen.Left {
		k = say.OtherHanded(k)
	}
	h.line(k.Name, x, y+5, 14, true, ink)
	picture := high * 0.33
	h.draw(t.Shape, draw.Options{Step: -1}, x, y+8, w, picture)
	top := y + 8 + picture + 1
	for h.size = 9; h.size >= 6; h.size -= 0.5 {
		if h.told(k, x, top, w, true) <= y+high {
			break
		}
	}
	if bottom := h.told(k, x, top, w, false); bottom > y+high+1 && h.err == nil {
		h.err = fmt.Errorf("%s does not fit into its part of the sheet", k.ID)
	}
}

// told writes aid, steps and checks and gives the y below them; dry only measures.
func (h *handout) told(k *knot.Knot, x, y, w float64, dry bool) float64 {
	put := func(s string, colour string) {
		if !dry {
			y = h.paragraph(s, x, y, w, h.size, colour)
			return
		}
		h.font(h.size, false)
		y += float64(len(h.pdf.SplitText(s, w))) * h.size * 0.46
	}
	put(k.Told.Aid, alarm)
	for i, s := range k.Steps {
		put(fmt.Sprintf("%d  %s", i+1, s), ink)
	}
	for _, c := range k.Checks {
		put("–  "+c, ink)
	}
	return y
}

// Picture gives the drawing of a word; nil if it has none.
type Picture func(trade.Word) (*shape.Shape, error)

// Glossary writes the words of the trade on paper, those with a picture first.
func Glossary(ctx context.Context, words []trade.Word, picture Picture) ([]byte, error) {
	h := blank(ctx, "Words", Seen{Look: draw.LookLaid})
	h.words(words, picture)
	return h.done()
}

func (h *handout) words(words []trade.Word, picture Picture) {
	h.pdf.AddPage()
	h.line("Words", margin, margin+7, 20, true, ink)
	h.foot()
	h.size = 9
	const columns, gap, high = 4, 4.0, 40.0
	w := (wide - gap*(columns-1)) / columns
	y, n := margin+12, 0
	for _, word := range words {
		sh, err := picture(word)
		if h.err == nil {
			h.err = err
		}
		if sh == nil {
			continue
		}
		x := margin + float64(n%columns)*(w+gap)
		if n%columns == 0 && n > 0 {
			y += high + gap
		}
		if y+high > pageH-margin {
			h.pdf.AddPage()
			h.foot()
			y = margin
		}
		h.draw(sh, draw.Options{Step: -1}, x, y, w, 20)
		h.line(say.Capital(word.Word), x, y+24, 9, true, ink)
		h.text(word.Says, x, y+25, w)
		n++
	}
	if n > 0 {
		y += high + gap
	}
	for _, word := range words {
		if sh, err := picture(word); err != nil || sh != nil {
			continue
		}
		if y > pageH-2*margin {
			h.pdf.AddPage()
			h.foot()
			y = margin
		}
		h.line(say.Capital(word.Word), margin, y+3.2, 9, true, ink)
		y = h.text(word.Says, margin+34, y, wide-34) + 1
	}
}

func blank(ctx context.Context, title string, seen Seen) *handout {
	h := &handout{ctx: ctx, seen: seen, pdf: fpdf.New("P", "mm", "A4", ""), size: 10}
	h.pdf.AddUTF8FontFromBytes("go", "", goregular.TTF)
	h.pdf.AddUTF8FontFromBytes("go", "B", gobold.TTF)
	h.pdf.SetTitle(title, true)
	h.pdf.SetCreator("Oarweed", true)
	// The same knot gives the same page.
	h.pdf.SetCreationDate(time.Unix(0, 0))
	h.pdf.SetModificationDate(time.Unix(0, 0))
	h.pdf.SetCatalogSort(true)
	h.pdf.SetAutoPageBreak(false, 0)
	fmt.Fprintf(&h.svg, `<svg xmlns="http://www.w3.org/2000/svg" width="%gmm" height="%gmm" viewBox="0 0 %g %g" font-family="Go, 'Atkinson Hyperlegible', Helvetica, Arial, sans-serif"><title>%s</title><rect width="%g" height="%g" fill="#fff"/>`,
		pageW, pageH, pageW, pageH, html.EscapeString(title), pageW, pageH)
	return h
}

// whole writes a knot on a page of its own.
func (h *handout) whole(t Told) {
	k := t.Knot
	if h.seen.Left {
		k = say.OtherHanded(k)
	}
	h.pdf.AddPage()
	lay := func(h *handout) bool {
		y := h.steps(k, t.Shape, h.head(k, t.Shape, t.Own))
		return h.lower(k, t.Up, snug.Look(h.seen.Look), t.Cautions, y) <= pageH-10
	}
	// A knot with much to say is set smaller rather than run off the page.
	for h.size = 10; h.size > 7.5; h.size -= 0.5 {
		trial := blank(h.ctx, "", h.seen)
		trial.pdf.AddPage()
		trial.size, trial.dry = h.size, true
		if lay(trial) {
			break
		}
	}
	if !lay(h) && h.err == nil {
		h.err = fmt.Errorf("the handout of %s does not fit on one page", k.ID)
	}
	h.foot()
}

func (h *handout) done() ([]byte, error) {
	var out bytes.Buffer
	if h.err == nil {
		h.err = h.pdf.Output(&out)
	}
	return out.Bytes(), h.err
}

// foot writes what every sheet of paper says.
func (h *handout) foot() {
	h.line("Oarweed. Figures are guides with their evidence named; they approve nothing. Follow local rules and makers' instructions.", margin, pageH-8, 8, false, ink)
}

// handout writes every mark on both pages. Lengths are millimetres, sizes points.
type handout struct {
	ctx  context.Context // of this one page
	pdf  *fpdf.Fpdf
	svg  strings.Builder
	size float64 // of the text
	seen Seen
	dry  bool // only how much room it takes
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
	if sh == nil || h.err != nil || h.dry {
		return
	}
	o.Left, o.View, o.Look = h.seen.Left, h.seen.View, h.seen.Look
	h.place(draw.SVG(sh, o), x, y, w, hh)
}

// place sets a drawing into a box.
func (h *handout) place(svg string, x, y, w, hh float64) {
	if h.err != nil || h.dry {
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

func (h *handout) head(k *knot.Knot, sh *shape.Shape, own []practice.Note) float64 {
	h.line(k.Name, margin, margin+9, 24, true, ink)
	y := h.paragraph(k.Summary, margin, margin+13, wide-62, 11, ink) + 2
	y = h.text("Coming off: "+k.Release.How, margin, y, wide-62)
	y = h.text("Remember: "+k.Told.Aid, margin, y+1, wide-62)
	for _, n := range own {
		text := "Note: " + n.Text
		if n.Aid {
			text = "Remember also: " + n.Text
		}
		if n.Source != "" {
			text += " (" + n.Source + ")"
		}
		y = h.text(text, margin, y+1, wide-62)
	}
	h.draw(sh, draw.Options{Step: -1}, pageW-margin-58, margin, 58, 46)
	return max(y, margin+46) + 4
}

// steps sets the steps in rows of three, each with its drawing.
func (h *handout) steps(k *knot.Knot, sh *shape.Shape, y float64) float64 {
	const perRow, gap = 3, 5.0
	w := (wide - gap*(perRow-1)) / perRow
	high := 46.0
	if len(k.Steps) <= perRow {
		high = 52
	}
	var o draw.Options
	if sh == nil {
		high = 0
	} else if hold, pull, err := trade.Seating(k, sh); err != nil {
		h.err = err
	} else {
		o.Hold, o.Draw = hold, pull
	}
	y = h.title("How it is tied", margin, y)
	for from := 0; from < len(k.Steps); from += perRow {
		bottom := y
		for i := from; i < min(from+perRow, len(k.Steps)); i++ {
			x := margin + float64(i-from)*(w+gap)
			if sh != nil {
				h.box(x, y, w, high)
				o.Step = float64(i + 1)
				h.draw(sh, o, x+2, y+2, w-4, high-4)
			}
			bottom = max(bottom, h.text(fmt.Sprintf("%d  %s", i+1, k.Steps[i]), x, y+high+1, w))
		}
		y = bottom + 3
	}
	return y
}

// lower sets checks and figures on the left, faults on the right, cautions below, and gives the
// y below them.
func (h *handout) lower(k *knot.Knot, up *snug.Built, look snug.Look, cautions []rig.Caution, top float64) float64 {
	const gap = 8.0
	w := (wide - gap) / 2
	y := h.title("Right when", margin, top)
	beside := w
	if up != nil && up.Computed {
		const figure = 30.0
		beside -= figure + 2
		h.place(up.SVG(up.Last(), snug.View{Left: h.seen.Left, Look: look}, k.Name+", drawn up"), margin+w-figure, top, figure, 22)
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
	right := h.title("Beginners get wrong, most often first", margin+w+gap, top)
	for i, slip := range k.Told.Slips {
		right = h.text(fmt.Sprintf("%d  %s", i+1, slip), margin+w+gap, right, w) + 0.6
	}
	right = h.title("What goes wrong", margin+w+gap, right+2)
	for _, f := range k.Faults {
		right = h.text("×  "+f.Name+": "+f.Looks+"; "+f.Leads+". "+f.Mend, margin+w+gap, right, w) + 1
	}
	y = max(y, right) + 3
	for _, c := range cautions {
		y = h.paragraph("!  "+c.Text, margin, y, wide, h.size, alarm) + 0.6
	}
	return y
}

func figure(name string, f evidence.Figure, k float64, unit string) string {
	value := fmt.Sprintf("%g to %g", round(f.Low*k), round(f.High*k))
	if f.Low == f.High {
		value = fmt.Sprintf("%g", round(f.Likely*k))
	}
	return fmt.Sprintf("%s: %s%s (%s)", name, value, unit, f.Tag)
}

func round(v float64) float64 { return float64(int(v*10+0.5)) / 10 }
