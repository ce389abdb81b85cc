package export

import (
	"bytes"
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"codeberg.org/go-pdf/fpdf"
	"github.com/fogleman/gg"
	"golang.org/x/image/font"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"
	"golang.org/x/image/font/opentype"
	"rsc.io/qr"

	"oarweed/core/shape"
	"oarweed/core/shape/draw"
)

// Card is an answer on one card, to be sent or printed: what is tied to what, the knot
// that was chosen and why, and what to look out for.
type Card struct {
	Name     string // of the rig
	Sentence string // the rig in words
	Knot     string
	Verdict  string
	Reason   string
	Off      string
	Evidence string // of the figure in the verdict
	Cautions []string
	// Shape is the knot's drawing, nil for none.
	Shape *shape.Shape
	Look  draw.Look
	Left  bool
	// Link opens the rig; empty for none. It stands as a QR code.
	Link string
}

// Measures of a card, in millimetres; its picture has so many pixels to each.
const (
	cardW, cardH = 108.0, 144.0
	edge         = 6.0
	perMM        = 10
)

// surface is what a card is drawn on, in millimetres; sizes of type in points.
type surface interface {
	canvas() canvas
	rect(x, y, w, h float64, fill string)
	text(s string, x, y, size float64, bold bool, colour string)
	width(s string, size float64, bold bool) float64
}

// CardPDF draws the card on a page of its own size.
func CardPDF(ctx context.Context, c Card) ([]byte, error) {
	pdf := fpdf.NewCustom(&fpdf.InitType{OrientationStr: "P", UnitStr: "mm", Size: fpdf.SizeType{Wd: cardW, Ht: cardH}})
	pdf.AddUTF8FontFromBytes("go", "", goregular.TTF)
	pdf.AddUTF8FontFromBytes("go", "B", gobold.TTF)
	pdf.SetTitle(c.Knot, true)
	pdf.SetCreator("Oarweed", true)
	pdf.SetCreationDate(time.Unix(0, 0))
	pdf.SetModificationDate(time.Unix(0, 0))
	pdf.SetCatalogSort(true)
	pdf.SetAutoPageBreak(false, 0)
	pdf.AddPage()
	if err := c.draw(ctx, leaf{pdf}); err != nil {
		return nil, err
	}
	var out bytes.Buffer
	err := pdf.Output(&out)
	return out.Bytes(), err
}

// CardPNG draws the card as a picture of 1080 by 1440 pixels.
func CardPNG(ctx context.Context, c Card) ([]byte, error) {
	b := board{gg.NewContext(cardW*perMM, cardH*perMM)}
	if err := c.draw(ctx, b); err != nil {
		return nil, err
	}
	var out bytes.Buffer
	err := b.EncodePNG(&out)
	return out.Bytes(), err
}

func (c Card) draw(ctx context.Context, s surface) error {
	if err := ctx.Err(); err != nil {
		return err
	}
	const kelp, pale, sheet, quiet = "#12463a", "#fdfaf0", "#fffdf6", "#4a5a52"
	s.rect(0, 0, cardW, cardH, sheet)
	s.rect(0, 0, cardW, 15, kelp)
	s.text(fitted(s, c.Name, 13, true, cardW-2*edge), edge, 10, 13, true, pale)
	y := paragraphOn(s, c.Sentence, edge, 20.5, cardW-2*edge, 9.5, false, ink, 6)
	s.rect(edge, y-1.5, cardW-2*edge, 0.3, "#cfcbb8")
	y += 5
	s.text(fitted(s, c.Knot, 17, true, cardW-2*edge), edge, y+1, 17, true, ink)
	y += 3
	right := cardW / 2
	if c.Shape != nil {
		if err := drawSVG(s.canvas(), draw.SVG(c.Shape, draw.Options{Step: -1, Look: c.Look, Left: c.Left}), edge, y, right-edge-3, 44); err != nil {
			return err
		}
	} else {
		right = edge
	}
	below := y + 46
	y = paragraphOn(s, c.Verdict, right, y+5, cardW-edge-right, 10.5, true, ink, 9)
	y = paragraphOn(s, c.Reason, right, y+1, cardW-edge-right, 9, false, ink, 4)
	y = paragraphOn(s, "Off: "+c.Off, right, y+0.5, cardW-edge-right, 9, false, ink, 4)
	y = paragraphOn(s, c.Evidence, right, y+0.5, cardW-edge-right, 6.5, false, quiet, 3)
	y = max(y, below) + 2
	side := 0.0
	if c.Link != "" {
		side = 34
		if err := code(s, c.Link, cardW-edge-side, cardH-edge-side, side); err != nil {
			return err
		}
	}
	for _, text := range c.Cautions {
		if y > cardH-8 {
			break
		}
		s.text("!", edge, y, 10, true, alarm)
		w := cardW - 2*edge - 4
		if y > cardH-edge-side-4 {
			w -= side + 2
		}
		y = paragraphOn(s, text, edge+4, y, w, 7.6, false, ink, 3) + 0.8
	}
	s.text("Worked out by Oarweed; approve it yourself.", edge, cardH-3, 6.5, false, quiet)
	return nil
}

// paragraphOn sets lines of a paragraph, so many at the most, and gives the y below them.
func paragraphOn(s surface, text string, x, y, w, size float64, bold bool, colour string, most int) float64 {
	line := ""
	lines := 0
	put := func() {
		if line != "" && lines < most {
			lines++
			if lines == most {
				line = fitted(s, line, size, bold, w)
			}
			s.text(line, x, y, size, bold, colour)
			y += size * 0.47
		}
	}
	for _, word := range strings.Fields(text) {
		longer := strings.TrimSpace(line + " " + word)
		if line != "" && s.width(longer, size, bold) > w {
			put()
			longer = word
		}
		line = longer
	}
	put()
	return y
}

// fitted cuts a line that is too long.
func fitted(s surface, text string, size float64, bold bool, w float64) string {
	if s.width(text, size, bold) <= w {
		return text
	}
	letters := []rune(text)
	for len(letters) > 1 && s.width(string(letters)+"…", size, bold) > w {
		letters = letters[:len(letters)-1]
	}
	return string(letters) + "…"
}

// MostLink is how long a link can be that is drawn as a QR code.
const MostLink = 2900

// code draws a link as a QR code with its quiet edge.
func code(s surface, link string, x, y, side float64) error {
	q, err := qr.Encode(link, qr.L)
	if err != nil {
		return fmt.Errorf("link: %w", err)
	}
	s.rect(x, y, side, side, "#ffffff")
	unit := side / float64(q.Size+4)
	for row := range q.Size {
		for at := 0; at < q.Size; at++ {
			run := at
			for run < q.Size && q.Black(run, row) {
				run++
			}
			if run > at {
				s.rect(x+unit*float64(at+2), y+unit*float64(row+2), unit*float64(run-at)+0.01, unit+0.01, "#000000")
				at = run
			}
		}
	}
	return nil
}

// QR draws a link as an SVG that scales.
func QR(link string) ([]byte, error) {
	q, err := qr.Encode(link, qr.L)
	if err != nil {
		return nil, fmt.Errorf("link: %w", err)
	}
	var b bytes.Buffer
	n := q.Size + 4
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" shape-rendering="crispEdges"><rect width="%d" height="%d" fill="#fff"/><path fill="#000" d="`, n, n, n, n)
	for y := range q.Size {
		for x := range q.Size {
			if q.Black(x, y) {
				fmt.Fprintf(&b, "M%d %dh1v1h-1z", x+2, y+2)
			}
		}
	}
	b.WriteString(`"/></svg>`)
	return b.Bytes(), nil
}

// leaf is a PDF page as a surface.
type leaf struct{ *fpdf.Fpdf }

func (l leaf) canvas() canvas { return page{l.Fpdf} }

func (l leaf) rect(x, y, w, h float64, fill string) {
	l.SetFillColor(rgb(fill))
	l.Rect(x, y, w, h, "F")
}

func (l leaf) text(s string, x, y, size float64, bold bool, colour string) {
	l.font(size, bold)
	l.SetTextColor(rgb(colour))
	l.Text(x, y, s)
}

func (l leaf) width(s string, size float64, bold bool) float64 {
	l.font(size, bold)
	return l.GetStringWidth(s)
}

func (l leaf) font(size float64, bold bool) {
	style := ""
	if bold {
		style = "B"
	}
	l.SetFont("go", style, size)
}

// board is a bitmap as a surface.
type board struct{ *gg.Context }

func (b board) canvas() canvas { return enlarged{picture{b.Context}} }

// enlarged is a bitmap as a canvas in millimetres.
type enlarged struct{ picture }

func (e enlarged) moveTo(x, y float64) { e.picture.moveTo(x*perMM, y*perMM) }
func (e enlarged) lineTo(x, y float64) { e.picture.lineTo(x*perMM, y*perMM) }
func (e enlarged) quadTo(x1, y1, x, y float64) {
	e.picture.quadTo(x1*perMM, y1*perMM, x*perMM, y*perMM)
}
func (e enlarged) curveTo(x1, y1, x2, y2, x, y float64) {
	e.picture.curveTo(x1*perMM, y1*perMM, x2*perMM, y2*perMM, x*perMM, y*perMM)
}

func (e enlarged) paint(how paint) {
	how.width *= perMM
	how.dash = slices.Clone(how.dash)
	for i := range how.dash {
		how.dash[i] *= perMM
	}
	e.picture.paint(how)
}

func (b board) rect(x, y, w, h float64, fill string) {
	red, green, blue := rgb(fill)
	b.SetRGB255(red, green, blue)
	b.DrawRectangle(x*perMM, y*perMM, w*perMM, h*perMM)
	b.Fill()
}

func (b board) text(s string, x, y, size float64, bold bool, colour string) {
	b.SetFontFace(face(size, bold))
	red, green, blue := rgb(colour)
	b.SetRGB255(red, green, blue)
	b.DrawString(s, x*perMM, y*perMM)
}

func (b board) width(s string, size float64, bold bool) float64 {
	b.SetFontFace(face(size, bold))
	w, _ := b.MeasureString(s)
	return w / perMM
}

// face is the type of a size in points on a board.
func face(size float64, bold bool) font.Face {
	text := goregular.TTF
	if bold {
		text = gobold.TTF
	}
	f, err := opentype.Parse(text)
	if err != nil {
		panic(err) // they come with the package
	}
	out, err := opentype.NewFace(f, &opentype.FaceOptions{Size: size * point * perMM, DPI: 72, Hinting: font.HintingNone})
	if err != nil {
		panic(err)
	}
	return out
}
