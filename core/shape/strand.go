package shape

import (
	"fmt"
	"strings"

	"oarweed/core/problem"
)

// Strand is where a rope leaves a knot: at its standing part or at its end.
type Strand struct {
	Rope int
	End  bool
}

// Strands reads strands by their names: "standing part" or "end" are those of every rope,
// "left end" that of the rope named left. The error names what is no strand.
func (sh *Shape) Strands(names []string) ([]Strand, error) {
	var out []Strand
	for _, name := range names {
		rope, end := "", name == "end"
		if before, ok := strings.CutSuffix(name, " end"); ok {
			rope, end = before, true
		} else if before, ok := strings.CutSuffix(name, " standing part"); ok {
			rope = before
		} else if !end && name != "standing part" {
			return nil, problem.New("", fmt.Sprintf("%q is no strand", name), `write "end" or "standing part", with the rope's name before it where there are two`)
		}
		known := len(out)
		for i, r := range sh.Ropes {
			if rope == "" || r.Name == rope {
				out = append(out, Strand{i, end})
			}
		}
		if len(out) == known {
			var names []string
			for _, r := range sh.Ropes {
				names = append(names, r.Name)
			}
			return nil, problem.New("", fmt.Sprintf("there is no rope %q", rope), "use "+strings.Join(names, " or "))
		}
	}
	return out, nil
}
