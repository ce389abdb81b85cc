package bench

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"oarweed/core/problem"
	"oarweed/core/unit"
)

// Line is one line of a table of results: a pull, or what is wrong with it.
type Line struct {
	// N is the line in the file, from 1.
	N       int     `json:"line"`
	A       string  `json:"a" doc:"knot id"`
	B       string  `json:"b"`
	LoadKN  float64 `json:"load_kn"`
	Outcome Outcome `json:"outcome,omitempty"`
	Where   Where   `json:"where,omitempty"`
	Note    string  `json:"note,omitempty"`
	// Wrong names the column and the fix; empty: it can be taken.
	Wrong string `json:"wrong,omitempty"`
}

// Head of a table of results, by what may stand there.
var heads = map[string][]string{
	"a":       {"knot a", "a", "first knot"},
	"b":       {"knot b", "b", "second knot"},
	"load":    {"highest load", "load", "peak", "force", "strength"},
	"outcome": {"outcome", "what happened", "result"},
	"where":   {"where", "failed at", "place"},
	"note":    {"note", "notes", "remark"},
}

var (
	outcomeWords = map[string]Outcome{"broke": Broke, "broken": Broke, "break": Broke, "slipped out": SlippedOut, "slipped": SlippedOut, "slip": SlippedOut,
		"slipped, then caught": Caught, "caught": Caught, "crept": Crept, "held": Held, "hold": Held}
	whereWords = map[string]Where{"knot a": KnotA, "a": KnotA, "knot b": KnotB, "b": KnotB, "inside knot a": InA, "in-a": InA, "inside knot b": InB, "in-b": InB,
		"in the line": InLine, "line": InLine, "at the grip": AtGrip, "grip": AtGrip}
)

// ReadResults reads a table of results, whose first line names its columns. find gives the id of
// a knot by what it is called. The error says that the table has not the columns.
func ReadResults(table [][]string, find func(name string) (string, bool)) ([]Line, error) {
	column, perKN := map[string]int{}, 1.0
	if len(table) > 0 {
		for i, cell := range table[0] {
			name, unitName, _ := strings.Cut(strings.ToLower(strings.TrimSpace(cell)), "(")
			name = strings.TrimSpace(strings.ReplaceAll(name, "_", " "))
			for id, words := range heads {
				if _, there := column[id]; !there && slices.Contains(words, name) {
					column[id] = i
					if f, err := unit.ParseForce("1 "+strings.TrimSuffix(strings.TrimSpace(unitName), ")"), unit.Kilonewton); id == "load" && err == nil {
						perKN = f.KN()
					}
				}
			}
		}
	}
	var missing []string
	for _, id := range []string{"a", "b", "load"} {
		if _, ok := column[id]; !ok {
			missing = append(missing, heads[id][0])
		}
	}
	if len(missing) > 0 {
		return nil, problem.New("line 1", "has no column "+strings.Join(missing, ", "), "name the columns as an exported table does")
	}
	out := []Line{}
	for i, row := range table[1:] {
		cell := func(id string) string {
			if at, ok := column[id]; ok && at < len(row) {
				return strings.TrimSpace(row[at])
			}
			return ""
		}
		if strings.Join(row, "") == "" {
			continue
		}
		l := Line{N: i + 2, Outcome: Broke, Note: cell("note")}
		wrong := func(id, why string) {
			if l.Wrong == "" {
				l.Wrong = fmt.Sprintf("line %d, column %d: %s", l.N, column[id]+1, why)
			}
		}
		var ok bool
		if l.A, ok = find(cell("a")); !ok {
			wrong("a", fmt.Sprintf("%q is not a knot here; use its name or its id", cell("a")))
		}
		if l.B, ok = find(cell("b")); !ok {
			wrong("b", fmt.Sprintf("%q is not a knot here; use its name or its id", cell("b")))
		}
		load, err := strconv.ParseFloat(strings.Replace(cell("load"), ",", ".", 1), 64)
		if l.LoadKN = load * perKN; err != nil || !(load > 0) || l.LoadKN > 1e4 {
			wrong("load", fmt.Sprintf("%q is no load; write a number above 0", cell("load")))
			l.LoadKN = 0
		}
		if words := strings.ToLower(cell("outcome")); words != "" {
			if l.Outcome, ok = outcomeWords[words]; !ok {
				wrong("outcome", fmt.Sprintf("%q is none; write broke, slipped out, caught, crept or held", words))
			}
		}
		if words := strings.ToLower(cell("where")); words != "" {
			if l.Where, ok = whereWords[words]; !ok {
				wrong("where", fmt.Sprintf("%q is no place; write knot A, knot B, in the line or at the grip", words))
			}
		} else if l.Outcome == Broke || l.Outcome == SlippedOut {
			wrong("a", "does not say where it failed; give a column where")
		}
		out = append(out, l)
	}
	return out, nil
}
