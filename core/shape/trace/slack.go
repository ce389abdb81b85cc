package trace

import (
	"slices"
)

const (
	// mostSlack is how many times slack is taken out one after the other, mostTried how many
	// diagrams are looked at on the way.
	mostSlack = 4
	mostTried = 150
)

// bySlack finds forms of which the tracing has crossings too many that mean nothing: a kink with
// nothing in it, or a strand that lies over another there and back. Taking out as few as can be
// counts: a bight that holds nothing but itself could be taken out too.
func (x *Index) bySlack(r *Tied) []Match {
	tried := 0
	seen := map[string]bool{}
	now := []*Tied{r}
	for range mostSlack {
		var next []*Tied
		for _, d := range now {
			for _, drop := range d.slack() {
				less := d.less(drop)
				code, _, _ := less.code(less.inOrder(), false, false)
				if seen[code] {
					continue
				}
				seen[code] = true
				if tried++; tried > mostTried {
					return nil
				}
				found := slices.DeleteFunc(x.byDiagram(less), func(m Match) bool { return len(m.Changes) > 0 || m.Exchanged })
				if len(found) > 0 {
					for i := range found {
						found[i].Slack = len(r.meets) - len(less.meets)
					}
					return found
				}
				next = append(next, less)
			}
		}
		now = next
	}
	return nil
}

// stop is a meeting on a rope, in the order in which the rope comes by.
type stop struct {
	m     int
	along float64
	over  bool
	first bool // the rope is strand a of the meeting here
}

// stops lists the meetings along each rope.
func (r *Tied) stops() [][]stop {
	out := make([][]stop, len(r.ropes))
	for m, x := range r.meets {
		out[x.a.rope] = append(out[x.a.rope], stop{m, x.a.along, r.over[m], true})
		out[x.b.rope] = append(out[x.b.rope], stop{m, x.b.along, !r.over[m], false})
	}
	for _, s := range out {
		slices.SortFunc(s, func(a, b stop) int {
			if a.along < b.along {
				return -1
			}
			return 1
		})
	}
	return out
}

// slack lists what can be taken out without moving anything through anything: a crossing of a
// rope with itself that comes twice in a row, and two crossings that follow each other on both
// strands, the same strand over at both.
func (r *Tied) slack() [][]int {
	stops := r.stops()
	type pair struct{ m, n int }
	beside := map[pair]int{}
	var out [][]int
	for rope, s := range stops {
		n := len(s) - 1
		if r.object(rope) && r.loops {
			n = len(s)
		}
		for i := range n {
			a, b := s[i], s[(i+1)%len(s)]
			if a.m == b.m {
				if len(s) > 1 && !r.object(rope) {
					out = append(out, []int{a.m})
				}
				continue
			}
			if a.over != b.over {
				continue
			}
			p := pair{min(a.m, b.m), max(a.m, b.m)}
			if beside[p]++; beside[p] == 2 {
				out = append(out, []int{p.m, p.n})
			}
		}
	}
	return out
}

// less is the tracing without some of its crossings.
func (r *Tied) less(drop []int) *Tied {
	out := *r
	out.meets, out.over, out.shown = nil, nil, nil
	for m := range r.meets {
		if !slices.Contains(drop, m) {
			out.meets, out.over, out.shown = append(out.meets, r.meets[m]), append(out.over, r.over[m]), append(out.shown, r.shown[m])
		}
	}
	return &out
}
