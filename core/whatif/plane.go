package whatif

import (
	"context"
	"fmt"
	"math"

	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/trade"
)

// Plane is the frame of a choice map: which knot comes first over two inputs of a
// rig with one joint, both on a logarithmic scale.
type Plane struct {
	X Axis `json:"x"`
	Y Axis `json:"y"`
	// Columns and Rows of the map; cells stand for the middle of their patch.
	Columns int `json:"columns"`
	Rows    int `json:"rows"`
}

// Axis of a choice map.
type Axis struct {
	Input string  `json:"input"`
	Name  string  `json:"name"`
	Unit  string  `json:"unit"`
	From  float64 `json:"from"`
	To    float64 `json:"to"`
	// Now is the rig's own value, 0 if it has none or it lies outside.
	Now float64 `json:"now"`
	in  *rig.Input
}

// at is the value in the middle of patch i of n.
func (a Axis) at(i, n int) float64 {
	return a.From * math.Pow(a.To/a.From, (float64(i)+0.5)/float64(n))
}

// Row of a choice map, from the low end of x; "" where no knot will do.
type Row struct {
	Row   int      `json:"row"`
	Knots []string `json:"knots" nullable:"false"`
}

// MaxSide is the most columns or rows of a choice map.
const MaxSide = 256

// NewPlane lays out a choice map. A range of 0 to 0 is taken as six times up and
// down from the rig's own value, within the limits of the input.
func NewPlane(d rig.Document, x, y Axis, columns, rows int) (Plane, error) {
	var l problem.List
	p := Plane{Columns: columns, Rows: rows}
	if len(d.Chain) != 3 || d.Chain[1].Joint == nil {
		l.Add("chain", "a choice map is for one joint", "give a fitting or line, a joint and a line")
		return p, l.Err()
	}
	for field, n := range map[string]int{"columns": columns, "rows": rows} {
		if n < 2 || n > MaxSide {
			l.Add(field, fmt.Sprintf("%d is not 2 to %d", n, MaxSide), "give 64")
		}
	}
	axis := func(field string, a Axis) Axis {
		in, err := rig.InputFor(d, field, a.Input)
		if err != nil {
			l.Take("", err)
			return a
		}
		now, _ := in.Get(d)
		a.in, a.Name, a.Unit, a.Now = in, in.Name, in.Unit, now
		if a.From == 0 && a.To == 0 {
			a.From, a.To = in.Min, in.Max
			if now > 0 {
				a.From, a.To = math.Max(in.Min, now/6), math.Min(in.Max, now*6)
			}
		}
		if !(a.From > 0) || !(a.To > a.From) {
			l.Add(field, fmt.Sprintf("%g to %g is not a range", a.From, a.To), "give two numbers above zero, the smaller first")
		}
		if a.Now < a.From || a.Now > a.To {
			a.Now = 0
		}
		return a
	}
	p.X, p.Y = axis("x", x), axis("y", y)
	if x.Input == y.Input {
		l.Add("y", "is the same as x", "choose two inputs")
	}
	return p, l.Err()
}

// RowOrder is the order in which rows are best worked out: widely spaced ones first,
// so that the picture fills in gradually.
func (p Plane) RowOrder() []int {
	out := make([]int, 0, p.Rows)
	done := make([]bool, p.Rows)
	for gap := MaxSide; gap > 0; gap /= 2 {
		for y := gap / 2; y < p.Rows; y += gap {
			if !done[y] {
				done[y] = true
				out = append(out, y)
			}
		}
	}
	return out
}

// Row works out one row of a choice map for a rig with one joint. It ends early, with
// the context's error, when that ends.
func (p Plane) Row(ctx context.Context, c *trade.Catalogue, d rig.Document, y int) (Row, error) {
	r := Row{Row: y, Knots: make([]string, p.Columns)}
	line := p.Y.in.With(d, p.Y.at(y, p.Rows))
	for x := range r.Knots {
		if err := ctx.Err(); err != nil {
			return r, err
		}
		r.Knots[x] = first(c, p.X.in.With(line, p.X.at(x, p.Columns)))
	}
	return r, nil
}
