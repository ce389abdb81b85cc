// Package chain judges a rig of any length: every joint, what gives way first, what
// to cut off the spool, and in which order to let go.
package chain

import (
	"context"
	"fmt"
	"slices"

	"oarweed/core/chance"
	"oarweed/core/evidence"
	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/rank"
	"oarweed/core/rig"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// Chain is a whole rig, judged.
type Chain struct {
	// Document with its defaults filled in.
	Document rig.Document
	Joints   []Joint
	Lines    []Line
	// Weakest is the part with the least likely capacity, or the first knot that more
	// likely slips than holds; nil where a joint has no knot: there is no chain then.
	Weakest *Weak
	// Capacity of the whole, in newtons: the least of its parts. Margin is capacity at its
	// worst ÷ twice the load. Zero without Weakest, as is Outcome.
	Capacity evidence.Figure
	Margin   float64
	Outcome  *chance.Outcome
	// Needed is load × design factor.
	Needed unit.Force
	// LettingGo holds the joints in the order in which they come off: indices of Joints.
	LettingGo []int
	Cautions  []rig.Caution
}

// Joint of a chain.
type Joint struct {
	// At is its place in the chain.
	At    int
	Order rank.Order
	// Chosen is the knot of the rig, or else the first in rank; nil if none will do.
	Chosen *rank.Ranked
	// FailsIn is the place of the line that the knot fails in.
	FailsIn int
	// First is the share of draws in which the rig gives way here first.
	First float64
}

// Line of a chain.
type Line struct {
	At int
	line.Line
	Bears line.Strength
	// Utilisation is load × design factor ÷ the low end of the new, dry line.
	Utilisation float64
	First       float64
	// Knots is the line that its knots and ends take.
	Knots unit.Length
}

// Weak is what gives way first: a joint or a line, by index; the other is −1.
type Weak struct {
	Joint, Line int
	// Doubtful: it is a knot that more likely slips than holds.
	Doubtful bool
}

// Judge judges a chain. The error names the field; it is the context's when that ends
// first.
func Judge(ctx context.Context, c *trade.Catalogue, d rig.Document) (*Chain, error) {
	rigs, pieces, err := c.ResolveAll(d)
	if err != nil {
		return nil, err
	}
	out := &Chain{Document: rig.Filled(d, rigs, pieces), Needed: unit.Force(float64(rigs[0].Load) * rigs[0].DesignFactor)}
	knots := map[int]unit.Length{} // by place of the line
	for i, p := range pieces {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		j, err := joint(c, rigs[i], p)
		if err != nil {
			return nil, err
		}
		if j.Chosen != nil {
			needs := j.Chosen.Size.Needs
			knots[p.LineAt()] += needs
			if rigs[i].JoinsTwo() {
				knots[p.EndAt()] += j.Chosen.Size.NeedsOther
			}
		}
		out.Joints = append(out.Joints, j)
	}
	out.lines(rigs, pieces, knots)
	out.cautions(c, rigs)
	if !slices.ContainsFunc(out.Joints, func(j Joint) bool { return j.Chosen == nil }) {
		out.failures(float64(rigs[0].Load))
		out.weakest(float64(rigs[0].Load))
	}
	out.lettingGo()
	return out, ctx.Err()
}

func joint(c *trade.Catalogue, r *rig.Rig, p rig.Piece) (Joint, error) {
	j := Joint{At: p.Joint, Order: rank.Joint(c, r), FailsIn: p.LineAt()}
	if r.JoinsTwo() && r.OtherBears.Capacity.Likely < r.LineBears.Capacity.Likely {
		j.FailsIn = p.EndAt() // the weaker line of a bend gives way
	}
	switch id := r.Document.Chain[1].Joint.Knot; {
	case id != "":
		k := c.Knot(id)
		if k == nil {
			return j, problem.New(fmt.Sprintf("chain[%d].joint.knot", p.Joint), fmt.Sprintf("%q is not in the catalogue", id), "use the id of a knot, or leave it open")
		}
		chosen := rank.Score(judge.Whatever(r, k, c.BackupOf(r, k)), c.Weights[r.Weights])
		j.Chosen = &chosen
	case len(j.Order.Ranked) > 0:
		j.Chosen = &j.Order.Ranked[0]
	}
	return j, nil
}

// lines adds each line once, in the order of the chain.
func (out *Chain) lines(rigs []*rig.Rig, pieces []rig.Piece, knots map[int]unit.Length) {
	add := func(at int, ln *line.Line, bears line.Strength, needed float64) {
		if ln == nil || slices.ContainsFunc(out.Lines, func(l Line) bool { return l.At == at }) {
			return
		}
		out.Lines = append(out.Lines, Line{At: at, Line: *ln, Bears: bears, Utilisation: needed / bears.MBL().Low, Knots: knots[at]})
	}
	for i, p := range pieces {
		r := rigs[i]
		add(p.EndAt(), r.Other, r.OtherBears, float64(out.Needed))
		add(p.LineAt(), &r.Line, r.LineBears, float64(out.Needed))
	}
	slices.SortFunc(out.Lines, func(a, b Line) int { return a.At - b.At })
}

// LineAt gives the line at a place of the chain; nil if there is none.
func (out *Chain) LineAt(at int) *Line {
	for i := range out.Lines {
		if out.Lines[i].At == at {
			return &out.Lines[i]
		}
	}
	return nil
}

// cautions gathers each caution once, what cannot be hidden first.
func (out *Chain) cautions(c *trade.Catalogue, rigs []*rig.Rig) {
	told := map[string]bool{}
	tell := func(list []rig.Caution) {
		for _, q := range list {
			if !told[q.ID] {
				told[q.ID] = true
				out.Cautions = append(out.Cautions, q)
			}
		}
	}
	for i, j := range out.Joints {
		if j.Chosen != nil {
			tell(c.CautionsOf(j.Chosen.Knot))
		}
		tell(c.CautionsFor(rigs[i]))
	}
	slices.SortStableFunc(out.Cautions, func(a, b rig.Caution) int {
		switch {
		case a.Locked == b.Locked:
			return 0
		case a.Locked:
			return -1
		}
		return 1
	})
}

// failures draws every part of the chain. A joint takes from the line it is tied in,
// so that of two alike the joint gives way; of joints the later one.
func (out *Chain) failures(load float64) {
	lines := map[int]chance.Sample{}
	for _, l := range out.Lines {
		lines[l.At] = chance.Line(l.Bears.Capacity, fmt.Sprint(" ", l.At))
	}
	var parts []chance.Sample
	for _, j := range slices.Backward(out.Joints) {
		parts = append(parts, chance.Joint(j.Chosen.Verdict, lines[j.FailsIn], fmt.Sprint(" ", j.At)))
	}
	for _, l := range out.Lines {
		parts = append(parts, lines[l.At])
	}
	o, first := chance.Chain(parts, load)
	out.Outcome = &o
	n := len(out.Joints)
	for i := range out.Joints {
		out.Joints[i].First = first[n-1-i]
	}
	for i := range out.Lines {
		out.Lines[i].First = first[n+i]
	}
}

func (out *Chain) weakest(load float64) {
	weak, doubtful := Weak{-1, -1, false}, Weak{-1, -1, true}
	var least evidence.Figure
	for i, j := range out.Joints {
		if j.Chosen.Now().Chance.Likely < 0.5 && doubtful.Joint < 0 {
			doubtful.Joint = i
		}
		if f := j.Chosen.Strength.Capacity; i == 0 || f.Likely < least.Likely {
			weak.Joint, least = i, f
		}
	}
	for i, l := range out.Lines {
		if f := l.Bears.Capacity; f.Likely < least.Likely {
			weak.Joint, weak.Line, least = -1, i, f
		}
	}
	out.Capacity, out.Margin = least, least.Low/(judge.LeftAtWorst*load)
	out.Weakest = &weak
	if doubtful.Joint >= 0 {
		out.Weakest = &doubtful
	}
}

// lettingGo orders the joints by how they come off: first what can be let go under
// load, last what has to be cut.
func (out *Chain) lettingGo() {
	for i, j := range out.Joints {
		if j.Chosen != nil {
			out.LettingGo = append(out.LettingGo, i)
		}
	}
	slices.SortStableFunc(out.LettingGo, func(a, b int) int {
		return letGo(out.Joints[a].Chosen.Knot) - letGo(out.Joints[b].Chosen.Knot)
	})
}

// UnderLoadFirst reports whether the first joint to let go can be let go under load.
func (out *Chain) UnderLoadFirst() bool {
	return len(out.LettingGo) > 0 && letGo(out.Joints[out.LettingGo[0]].Chosen.Knot) == 0
}

func letGo(k *knot.Knot) int {
	if k.Release.UnderLoad || k.Release.Distance {
		return 0
	}
	return map[knot.Off]int{knot.Easy: 1, knot.Worked: 2, knot.Jams: 3, knot.Cut: 4}[k.Release.Slack]
}
