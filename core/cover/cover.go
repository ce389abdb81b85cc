// Package cover finds the fewest knots with which given jobs can be done: what a school, a
// crew or an evening's angling has to learn, for the lines and things it has.
package cover

import (
	"cmp"
	"fmt"
	"math/bits"
	"slices"

	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/rank"
	"oarweed/core/trade"
)

// Job is a task on a thing in a line. Fitting and material may be left out: those that are
// usual for the task.
type Job struct {
	Task     string `json:"task"`
	Fitting  string `json:"fitting,omitempty"`
	Material string `json:"material,omitempty"`
}

// Chosen is a knot and the jobs that it is learnt for.
type Chosen struct {
	Knot   string `json:"knot"`
	Covers []Job  `json:"covers" nullable:"false"`
}

// Cover is a smallest set of knots, those that cover most first; Uncovered are the jobs for
// which the catalogue has no knot.
type Cover struct {
	Knots     []Chosen `json:"knots" nullable:"false"`
	Uncovered []Job    `json:"uncovered" nullable:"false"`
}

// most is how many jobs can be covered at once: a bit each.
const most = 64

// Fewest finds the smallest set; of two as small the one that is easier to learn, then the one
// that suits its jobs better. A knot covers a job if it is made for it, stands in its ranking and
// holds wet; where none is, the first of the ranking does. Every job counts at its task's usual
// size and load. Errors name the job and the field.
func Fewest(c *trade.Catalogue, jobs []Job) (Cover, error) {
	var l problem.List
	if len(jobs) > most {
		l.Add("jobs", fmt.Sprintf("%d are more than can be covered at once", len(jobs)), fmt.Sprintf("give at most %d", most))
		return Cover{}, l.Err()
	}
	s := search{c: c, fit: map[string][]float64{}}
	doable := uint64(0)
	for i, j := range jobs {
		ranked, err := does(c, j)
		l.Take(fmt.Sprintf("jobs[%d]", i), err)
		for _, r := range ranked {
			if s.fit[r.Knot.ID] == nil {
				s.fit[r.Knot.ID] = make([]float64, len(jobs))
			}
			s.fit[r.Knot.ID][i] = r.Fit
			doable |= 1 << i
		}
	}
	if err := l.Err(); err != nil {
		return Cover{}, err
	}
	s.prepare()
	s.from(doable, nil)
	return s.cover(jobs, doable), nil
}

// does are the knots that do a job.
func does(c *trade.Catalogue, j Job) ([]rank.Ranked, error) {
	d, err := c.Begin(j.Task, j.Fitting, j.Material)
	if err != nil {
		return nil, err
	}
	r, err := c.Resolve(d)
	if err != nil {
		return nil, err
	}
	o := rank.Joint(c, r)
	var out []rank.Ranked
	for _, x := range o.Ranked {
		if x.Fit >= rank.Made && x.Now().Class == knot.Holds {
			out = append(out, x)
		}
	}
	if len(out) == 0 && len(o.Ranked) > 0 {
		out = o.Ranked[:1]
	}
	return out, nil
}

// search is a depth-first search with the best set so far as its bound.
type search struct {
	c *trade.Catalogue
	// fit is how well a knot suits each job; 0: not at all.
	fit  map[string][]float64
	ids  []string
	mask map[string]uint64
	best []string
}

// prepare lists the knots and the jobs that each does.
func (s *search) prepare() {
	s.mask = map[string]uint64{}
	for id, fit := range s.fit {
		for i, f := range fit {
			if f > 0 {
				s.mask[id] |= 1 << i
			}
		}
	}
	for id := range s.fit {
		s.ids = append(s.ids, id)
	}
	slices.Sort(s.ids)
}

// from goes on from the jobs left and the knots taken.
func (s *search) from(left uint64, taken []string) {
	if left == 0 {
		if s.best == nil || s.better(taken) {
			s.best = slices.Clone(taken)
		}
		return
	}
	widest := 1
	for _, id := range s.ids {
		widest = max(widest, bits.OnesCount64(s.mask[id]&left))
	}
	if need := (bits.OnesCount64(left) + widest - 1) / widest; s.best != nil && len(taken)+need > len(s.best) {
		return
	}
	// The job that the fewest knots do is done first.
	job, fewest := 0, len(s.ids)+1
	for i := range most {
		if left>>i&1 == 0 {
			continue
		}
		n := 0
		for _, id := range s.ids {
			n += int(s.mask[id] >> i & 1)
		}
		if n < fewest {
			job, fewest = i, n
		}
	}
	var can []string
	for _, id := range s.ids {
		if s.mask[id]>>job&1 == 1 {
			can = append(can, id)
		}
	}
	slices.SortStableFunc(can, func(a, b string) int {
		return cmp.Compare(bits.OnesCount64(s.mask[b]&left), bits.OnesCount64(s.mask[a]&left))
	})
	for _, id := range can {
		s.from(left&^s.mask[id], append(taken, id))
	}
}

// better compares a set with the best: fewer, then easier, then better suited.
func (s *search) better(taken []string) bool {
	sum := func(set []string) (hard int, fit float64) {
		for _, id := range set {
			hard += s.c.Knot(id).Difficulty
		}
		for i := range most {
			at := 0.0
			for _, id := range set {
				if f := s.fit[id]; i < len(f) {
					at = max(at, f[i])
				}
			}
			fit += at
		}
		return hard, fit
	}
	hard, fit := sum(taken)
	was, suited := sum(s.best)
	return cmp.Or(cmp.Compare(len(taken), len(s.best)), cmp.Compare(hard, was), cmp.Compare(suited, fit)) < 0
}

// cover gives each job to the knot of the set that suits it best.
func (s *search) cover(jobs []Job, doable uint64) Cover {
	out := Cover{Knots: []Chosen{}, Uncovered: []Job{}}
	by := map[string][]Job{}
	for i, j := range jobs {
		if doable>>i&1 == 0 {
			out.Uncovered = append(out.Uncovered, j)
			continue
		}
		best := slices.MaxFunc(s.best, func(a, b string) int { return cmp.Compare(s.fit[a][i], s.fit[b][i]) })
		by[best] = append(by[best], j)
	}
	for _, id := range s.best {
		if len(by[id]) > 0 {
			out.Knots = append(out.Knots, Chosen{id, by[id]})
		}
	}
	slices.SortStableFunc(out.Knots, func(a, b Chosen) int {
		return cmp.Or(cmp.Compare(len(b.Covers), len(a.Covers)), cmp.Compare(a.Knot, b.Knot))
	})
	return out
}
