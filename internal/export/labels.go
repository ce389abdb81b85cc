package export

import (
	"bytes"
	"context"
	"fmt"
)

// Label goes on one specimen: its number, what is tied at each end, and a code that opens it.
type Label struct {
	N          int
	A, B, Line string
	Link       string
}

// Labels lays labels out on A4, three across and eight down, as PDF.
func Labels(ctx context.Context, list []Label) ([]byte, error) {
	const across, down, w, high = 3, 8, 66.0, 34.0
	pdf := blank(ctx, "Labels for specimens", Seen{}).pdf
	s := leaf{pdf}
	for i, l := range list {
		if i%(across*down) == 0 {
			pdf.AddPage()
		}
		x, y := 6+w*float64(i%across), 12+high*float64(i/across%down)
		pdf.SetDrawColor(rgb("#cfcbb8"))
		pdf.SetLineWidth(0.2)
		pdf.Rect(x, y, w, high, "D")
		if err := code(s, l.Link, x+w-25, y+4, 23); err != nil {
			return nil, err
		}
		room := w - 29
		s.text(fmt.Sprint(l.N), x+3, y+11, 26, true, ink)
		for row, text := range []string{"A  " + l.A, "B  " + l.B, l.Line} {
			s.text(fitted(s, text, 8, row < 2, room), x+3, y+17+4.5*float64(row), 8, row < 2, ink)
		}
	}
	var out bytes.Buffer
	err := pdf.Output(&out)
	return out.Bytes(), err
}
