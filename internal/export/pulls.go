package export

import (
	"bytes"
	"encoding/csv"
	"strconv"
	"time"

	"oarweed/core/bench"
	"oarweed/core/say"
)

// PullsCSV writes pulls as a table, units in its header. name says what a knot is called.
func PullsCSV(pulls []bench.Pull, name func(bench.Tied) string) ([]byte, error) {
	var out bytes.Buffer
	w := csv.NewWriter(&out)
	number := func(v *float64) string {
		if v == nil {
			return ""
		}
		return strconv.FormatFloat(*v, 'f', -1, 64)
	}
	_ = w.Write([]string{"pull", "at", "knot A", "knot B", "source", "highest load (kN)", "outcome", "where", "first slip (kN)", "creep A (mm)", "creep B (mm)", "note"})
	for i, p := range pulls {
		load, slip := p.LoadKN(), (*float64)(nil)
		if s := p.Slips(); len(s) > 0 {
			slip = &s[0].LoadKN
		}
		_ = w.Write([]string{strconv.Itoa(i + 1), p.At.Format(time.RFC3339), name(p.A), name(p.B), string(p.Source), number(&load),
			say.BenchOutcome(p.Outcome), say.BenchWhere(p.Where), number(slip), number(p.CreepAMM), number(p.CreepBMM), p.Note})
	}
	w.Flush()
	return out.Bytes(), w.Error()
}
