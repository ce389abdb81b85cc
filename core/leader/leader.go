// Package leader keeps the budget of a leader: each knot that is cut off and tied again takes
// its length of it, until it is too short.
package leader

import (
	"fmt"
	"math"

	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/trade"
)

// Query is a leader of a length in metres, the least with which it still does its work, the
// knot that is tied again, and its line.
type Query struct {
	LengthM   float64  `json:"length_m"`
	ShortestM float64  `json:"shortest_m"`
	Knot      string   `json:"knot"`
	Line      rig.Line `json:"line"`
}

// Left is what is left of it: so many changes, each of which takes so much.
type Left struct {
	ChangesLeft int     `json:"changes_left"`
	PerChangeM  float64 `json:"per_change_m"`
}

// Budget works it out. What a change takes is what the knot and its trimmed end hold of the
// line; the error names the field.
func Budget(c *trade.Catalogue, q Query) (Left, error) {
	var l problem.List
	if !(q.LengthM > 0) || q.LengthM > 1000 {
		l.Add("length_m", fmt.Sprintf("%g is no length", q.LengthM), "give metres above 0")
	}
	if !(q.ShortestM >= 0) || q.ShortestM > 1000 {
		l.Add("shortest_m", fmt.Sprintf("%g is no length", q.ShortestM), "give metres, 0 or more")
	}
	k := c.Knot(q.Knot)
	if k == nil {
		l.Add("knot", fmt.Sprintf("%q is not a knot here", q.Knot), "use the id of a knot")
	}
	l.Take("line", c.CheckLine(&q.Line))
	if err := l.Err(); err != nil {
		return Left{}, err
	}
	r, err := tied(c, k, q.Line)
	if err != nil {
		return Left{}, err
	}
	per := judge.Whatever(r, k, nil).Size.Consumes.M()
	out := Left{PerChangeM: per}
	if spare := q.LengthM - q.ShortestM; spare > 0 && per > 0 {
		out.ChangesLeft = int(math.Floor(spare/per + 1e-9))
	}
	return out, nil
}

// tied is the line with the knot on what it is best at.
func tied(c *trade.Catalogue, k *knot.Knot, n rig.Line) (*rig.Rig, error) {
	var best *rig.Task
	for _, t := range c.Tasks {
		if s, ok := k.Tasks[t.ID]; ok && (best == nil || s.Fit > k.Tasks[best.ID].Fit) {
			best = t
		}
	}
	if best == nil {
		return nil, problem.New("knot", k.Name+" is made for nothing here", "choose another")
	}
	end := rig.Element{Line: &n}
	if best.Between == rig.ToFitting {
		end = rig.Element{Fitting: &rig.Fitting{Kind: best.Fitting}}
	}
	other := n
	return c.Resolve(rig.Document{PeakKN: 0.01, Chain: []rig.Element{end, {Joint: &rig.Joint{Task: best.ID, Knot: k.ID}}, {Line: &other}}})
}
