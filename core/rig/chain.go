package rig

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"

	"oarweed/core/problem"
)

// Part is one joint of a chain as a rig of its own.
type Part struct {
	// Joint is the joint's place in the chain.
	Joint int
	// Document holds end, joint and line, with the load and conditions of the chain.
	Document Document
	// at gives the place in the chain of each of the three.
	at [3]int
}

// Split takes a chain apart into its joints. A chain alternates ends and joints:
// a fitting or a line, a joint, a line, a joint … Fittings stand at its ends only.
// The error names the element.
func Split(d Document) ([]Part, error) {
	var l problem.List
	if len(d.Chain) < 3 || len(d.Chain)%2 == 0 {
		l.Add("chain", fmt.Sprintf("has %d elements", len(d.Chain)), "give a fitting or line, a joint, a line, and so on: three or more, an odd number")
		return nil, l.Err()
	}
	for i, e := range d.Chain {
		path := fmt.Sprintf("chain[%d]", i)
		n := 0
		for _, there := range []bool{e.Fitting != nil, e.Joint != nil, e.Line != nil} {
			if there {
				n++
			}
		}
		switch {
		case n != 1:
			l.Add(path, "is not exactly one of fitting, joint and line", "give one of them")
		case i%2 == 1 && e.Joint == nil:
			l.Add(path, "is not a joint", "put a joint between two ends")
		case i%2 == 0 && e.Joint != nil:
			l.Add(path, "is a joint beside a joint", "put a line between them")
		case e.Fitting != nil && i > 0 && i < len(d.Chain)-1:
			l.Add(path, "is a fitting in the middle of the chain", "end the chain there, or put a line in its place")
		}
	}
	if err := l.Err(); err != nil {
		return nil, err
	}
	if len(d.Chain) == 3 && d.Chain[0].Fitting != nil && d.Chain[2].Fitting != nil {
		l.Add("chain", "has no line", "put a line between the fittings")
		return nil, l.Err()
	}
	var out []Part
	for j := 1; j < len(d.Chain); j += 2 {
		p := Part{Joint: j, Document: d, at: [3]int{j - 1, j, j + 1}}
		if d.Chain[j+1].Fitting != nil || j > 1 && j+2 == len(d.Chain) {
			// What it is tied to comes first: a fitting, or the far end of the chain.
			p.at = [3]int{j + 1, j, j - 1}
		}
		p.Document.Chain = []Element{d.Chain[p.at[0]], d.Chain[j], d.Chain[p.at[2]]}
		out = append(out, p)
	}
	return out, nil
}

// LineAt and EndAt are the places in the chain of the line that ties and of what
// it is tied to.
func (p Part) LineAt() int { return p.at[2] }
func (p Part) EndAt() int  { return p.at[0] }

// Whole puts what became of a part's three elements back into the chain.
func (p Part) Whole(d Document, chain []Element) Document {
	d.Chain = slices.Clone(d.Chain)
	for k, i := range p.at {
		d.Chain[i] = chain[k]
	}
	return d
}

var place = regexp.MustCompile(`^chain\[([012])\]`)

// Path turns the path of a field of the part into that of the chain.
func (p Part) Path(field string) string {
	m := place.FindStringSubmatch(field)
	if m == nil {
		return field
	}
	k, _ := strconv.Atoi(m[1])
	return fmt.Sprintf("chain[%d]", p.at[k]) + field[len(m[0]):]
}

// Fill checks a chain of any length and gives it back with its defaults.
func (t *Terms) Fill(d Document) (Document, error) {
	rigs, parts, err := t.ResolveAll(d)
	if err != nil {
		return d, err
	}
	for i, p := range parts {
		full := rigs[i].Document
		d = p.Whole(d, full.Chain)
		d.Version, d.Character, d.Consequence = full.Version, full.Character, full.Consequence
	}
	return d, nil
}

// ResolveAll checks a chain of any length and gives each joint as a rig of its own.
// Complaints name the field in the chain.
func (t *Terms) ResolveAll(d Document) ([]*Rig, []Part, error) {
	parts, err := Split(d)
	if err != nil {
		return nil, nil, err
	}
	var l problem.List
	seen := map[string]bool{}
	var rigs []*Rig
	for _, p := range parts {
		r, err := t.Resolve(p.Document)
		for _, f := range problem.Fields(err) {
			f.Path = p.Path(f.Path)
			if !seen[f.Path+f.Message] {
				seen[f.Path+f.Message] = true
				l.Add(f.Path, f.Message, f.Fix)
			}
		}
		rigs = append(rigs, r)
	}
	return rigs, parts, l.Err()
}
