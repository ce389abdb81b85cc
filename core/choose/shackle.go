package choose

import (
	"fmt"

	"oarweed/catalogue"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// stopperMargin is how much bulkier than the clamp's opening a stopper must be:
// soft line squeezes. Common practice, no source.
const stopperMargin = 1.2

// ShackleAnswer is the matrix of clamps and stoppers for one cord.
type ShackleAnswer struct {
	DiameterMM float64        `json:"diameter_mm"`
	Rows       []ShackleClamp `json:"rows" nullable:"false"`
	Cautions   []rig.Caution  `json:"cautions" nullable:"false"`
}

// ShackleClamp is a clamp with every stopper.
type ShackleClamp struct {
	Knot      string  `json:"knot"`
	Name      string  `json:"name"`
	OpeningMM float64 `json:"opening_mm"`
	// Never says why the clamp is not for loads; empty if it is.
	Never string        `json:"never"`
	Cells []ShackleCell `json:"cells" nullable:"false"`
}

// ShackleCell is one clamp with one stopper.
type ShackleCell struct {
	Knot   string  `json:"knot"`
	Name   string  `json:"name"`
	BulkMM float64 `json:"bulk_mm"`
	// Ratio of bulk to opening. Word: holds from 1.2, marginal from 1, else pulls through.
	Ratio   float64 `json:"ratio"`
	Word    string  `json:"word" enum:"holds,marginal,pulls through"`
	Seconds float64 `json:"seconds"`
	// CordM is the cord that both knots take, without the loop between.
	CordM float64 `json:"cord_m"`
	Says  string  `json:"says"`
	First string  `json:"first"`
}

// SoftShackle works out every clamp with every stopper in a cord. The figures of
// opening and bulk are from memory.
func SoftShackle(c *catalogue.Catalogue, d unit.Length) ShackleAnswer {
	out := ShackleAnswer{DiameterMM: d.MM(), Cautions: []rig.Caution{c.Caution("person"), c.Caution("stored-energy"), c.Caution("strength"), c.Caution("memory-figures")}}
	for _, clamp := range c.Shackle.Clamps {
		row := ShackleClamp{Knot: clamp.Knot, Name: clamp.Name, OpeningMM: clamp.Opening * d.MM(), Never: clamp.Never}
		ck := c.Knot(clamp.Knot)
		for _, stop := range c.Shackle.Stoppers {
			sk := c.Knot(stop.Knot)
			cell := ShackleCell{Knot: stop.Knot, Name: stop.Name, BulkMM: stop.Bulk * d.MM(), Ratio: stop.Bulk / clamp.Opening,
				Seconds: ck.Seconds.Likely + stop.Times*sk.Seconds.Likely,
				CordM:   (ck.Uses.Diameters + stop.Times*(sk.Uses.Diameters+sk.Tail.Likely)) * d.M(), First: stop.First}
			switch {
			case clamp.Never != "" || cell.Ratio < 1:
				cell.Word = "pulls through"
			case cell.Ratio < stopperMargin:
				cell.Word = "marginal"
			default:
				cell.Word = "holds"
			}
			cell.Says = fmt.Sprintf("The stopper draws up to %s, the clamp leaves %s open.", unit.Length(cell.BulkMM)*unit.Millimetre, unit.Length(row.OpeningMM)*unit.Millimetre)
			if clamp.Never != "" {
				cell.Says = clamp.Never
			}
			row.Cells = append(row.Cells, cell)
		}
		out.Rows = append(out.Rows, row)
	}
	return out
}
