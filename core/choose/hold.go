package choose

import (
	"fmt"
	"math"
	"strings"

	"oarweed/catalogue"
	"oarweed/core/evidence"
	"oarweed/core/friction"
	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/unit"
)

// HoldTable says what hand holds a load by a hitch or by so many turns.
type HoldTable struct {
	Hitch string          `json:"hitch"`
	Mu    evidence.Figure `json:"mu"`
	Rows  []HoldRow       `json:"rows" nullable:"false"`
	// Turns with which the hand given holds the load at the lowest friction; left out
	// where no number up to the last row does.
	Turns *int   `json:"turns,omitempty"`
	Says  string `json:"says"`
	// Trade is what the trade knows of it, where that and not the model decides
	// whether it is recommended.
	Trade *TradeHold `json:"trade,omitempty"`
}

// TradeHold is a class of hold known from use.
type TradeHold struct {
	Class knot.Class   `json:"class" enum:"holds,marginal,slips"`
	Why   string       `json:"why"`
	Tag   evidence.Tag `json:"tag" enum:"published,trade,memory,computed,yours"`
}

// HoldRow is one number of turns, eights or twists.
type HoldRow struct {
	N int `json:"n"`
	// Hand force needed at the lowest, likely and highest friction, in newtons; 0
	// where it locks, left out where no hand can hold it.
	LowestN  *float64 `json:"lowest_n"`
	LikelyN  *float64 `json:"likely_n"`
	HighestN *float64 `json:"highest_n"`
	// Locks is the chance that it locks by itself.
	Locks float64 `json:"locks"`
}

// HoldInput is what a hold table is made from; lengths in metres, forces in newtons.
type HoldInput struct {
	Hitch    string
	Object   unit.Length
	Line     unit.Length
	Material string
	Surface  string
	Wet      bool
	Load     unit.Force
	Hand     unit.Force
}

// Holds works out the hand force for a load, for every sensible number of turns.
// The error names the field.
func Holds(c *catalogue.Catalogue, q HoldInput) (*HoldTable, error) {
	var l problem.List
	m := c.Material(q.Material)
	if m == nil {
		l.Add("material", fmt.Sprintf("%q is not a material", q.Material), "use the id of one, like polyester")
	}
	surface := c.Surface(q.Surface)
	if surface == nil {
		l.Add("surface", fmt.Sprintf("%q is not a surface", q.Surface), "use the id of one, like polished-steel")
	}
	for field, v := range map[string]float64{"object": float64(q.Object), "line": float64(q.Line), "load": float64(q.Load), "hand": float64(q.Hand)} {
		if !(v > 0) {
			l.Add(field, "must be above zero", "give a size or a force")
		}
	}
	if _, err := friction.Find(q.Hitch, 0); err != nil {
		l.Take("", err)
	}
	if err := l.Err(); err != nil {
		return nil, err
	}
	mu := m.Mu(q.Wet)
	out := &HoldTable{Hitch: q.Hitch, Mu: mu}
	if k := c.Knot(q.Hitch); k != nil && k.Network == "" {
		if h := k.HoldIn(q.Material); h.Why != "" {
			out.Trade = &TradeHold{h.Dry, h.Why, h.Tag}
			if q.Wet {
				out.Trade.Class = h.Wet
			}
		}
	}
	span, _ := friction.Chosen(q.Hitch)
	many := span.Counts != ""
	g := friction.Geometry{Object: float64(q.Object) / 2, Rope: float64(q.Line) / 2}
	shape := friction.Mu{Rope: 1, Object: surface.Factor.Likely}
	for n := span.From; n <= span.To; n++ {
		h, err := friction.Find(q.Hitch, n)
		if err != nil {
			return nil, err
		}
		hand := func(mu float64) *float64 {
			ratio := h.HoldRatio(g, shape.Scale(mu))
			if ratio <= 0 {
				return nil
			}
			f := 0.0
			if !math.IsInf(ratio, 1) {
				f = float64(q.Load) / ratio
			}
			return &f
		}
		row := HoldRow{N: n, LowestN: hand(mu.Low), LikelyN: hand(mu.Likely), HighestN: hand(mu.High), Locks: mu.Above(h.CriticalMu(g, shape))}
		out.Rows = append(out.Rows, row)
		if out.Turns == nil && row.LowestN != nil && *row.LowestN <= float64(q.Hand) {
			turns := n
			out.Turns = &turns
		}
	}
	switch {
	case out.Turns == nil && many:
		out.Says = fmt.Sprintf("Not even %d %s hold %s with a hand of %.0f N at the lowest friction expected.", span.To, span.Counts, q.Load, float64(q.Hand))
	case out.Turns == nil:
		out.Says = fmt.Sprintf("It does not hold %s with a hand of %.0f N at the lowest friction expected.", q.Load, float64(q.Hand))
	case many:
		out.Says = fmt.Sprintf("%d %s hold %s with a hand of %.0f N, even at the lowest friction expected.", *out.Turns, span.Counts, q.Load, float64(q.Hand))
	default:
		out.Says = fmt.Sprintf("It holds %s with a hand of %.0f N, even at the lowest friction expected.", q.Load, float64(q.Hand))
	}
	if out.Trade != nil && out.Trade.Class != knot.Holds {
		out.Says = fmt.Sprintf("From use it %s. By friction alone %s", map[knot.Class]string{knot.Marginal: "is marginal", knot.Slips: "slips"}[out.Trade.Class], strings.ToLower(out.Says[:1])+out.Says[1:])
	}
	return out, nil
}
