package rig

import (
	"fmt"
	"slices"

	"oarweed/core/problem"
)

// MaxJoints is the longest chain that is worked out: a rig for teaching or for use
// has a handful of joints, and the work grows with them.
const MaxJoints = 60

// Piece is one joint of a chain as a rig of its own.
type Piece struct {
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
func Split(d Document) ([]Piece, error) {
	var l problem.List
	if len(d.Chain) < 3 || len(d.Chain)%2 == 0 {
		l.Add("chain", fmt.Sprintf("has %d elements", len(d.Chain)), "give a fitting or line, a joint, a line, and so on: three or more, an odd number")
		return nil, l.Err()
	}
	if joints := len(d.Chain) / 2; joints > MaxJoints {
		l.Add("chain", fmt.Sprintf("has %d joints", joints), fmt.Sprintf("give %d at the most: split the rig", MaxJoints))
		return nil, l.Err()
	}
	for i, e := range d.Chain {
		path := place(i)
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
	var out []Piece
	for j := 1; j < len(d.Chain); j += 2 {
		p := Piece{Joint: j, Document: d, at: [3]int{j - 1, j, j + 1}}
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
func (p Piece) LineAt() int { return p.at[2] }
func (p Piece) EndAt() int  { return p.at[0] }

func place(i int) string { return fmt.Sprintf("chain[%d]", i) }

// Whole puts what became of a part's three elements back into the chain.
func (p Piece) Whole(d Document, chain []Element) Document {
	d.Chain = slices.Clone(d.Chain)
	for k, i := range p.at {
		d.Chain[i] = chain[k]
	}
	return d
}

// Fill checks a chain of any length and gives it back with its defaults.
func (t *Vocabulary) Fill(d Document) (Document, error) {
	rigs, pieces, err := t.ResolveAll(d)
	if err != nil {
		return d, err
	}
	return Filled(d, rigs, pieces), nil
}

// Filled is a chain with the defaults of its joints, as [Vocabulary.ResolveAll] gave
// them.
func Filled(d Document, rigs []*Rig, pieces []Piece) Document {
	for i, p := range pieces {
		full := rigs[i].Document
		d = p.Whole(d, full.Chain)
		d.Version, d.Character, d.Consequence = full.Version, full.Character, full.Consequence
	}
	return d
}

// ResolveAll checks a chain of any length and gives each joint as a rig of its own.
// Complaints name the field in the chain.
func (t *Vocabulary) ResolveAll(d Document) ([]*Rig, []Piece, error) {
	parts, err := Split(d)
	if err != nil {
		return nil, nil, err
	}
	var l problem.List
	seen := map[string]bool{}
	var rigs []*Rig
	for _, p := range parts {
		if t.holdsPerson(d) {
			p.Document.Consequence = Person // one joint that holds somebody makes the rig one
		}
		r, err := t.resolve(p.Document, [3]string{place(p.at[0]), place(p.at[1]), place(p.at[2])})
		for _, f := range problem.Fields(err) {
			if !seen[f.Path+f.Message] {
				seen[f.Path+f.Message] = true
				l.Add(f.Path, f.Message, f.Fix)
			}
		}
		rigs = append(rigs, r)
	}
	return rigs, parts, l.Err()
}

// holdsPerson reports whether a joint of the chain is for a task that holds somebody.
func (t *Vocabulary) holdsPerson(d Document) bool {
	return slices.ContainsFunc(d.Chain, func(e Element) bool {
		task := (*Task)(nil)
		if e.Joint != nil {
			task = t.Task(e.Joint.Task)
		}
		return task != nil && task.Person
	})
}
