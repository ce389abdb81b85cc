package app

import (
	"context"
	"fmt"
	"strconv"
	"strings"
	"time"

	"oarweed/core/practice"
	"oarweed/core/problem"
)

// Incoming is a learner of a list; ID where it is one who is there already.
type Incoming struct {
	ID int64 `json:"id,omitempty"`
	practice.Learner
}

// TakeIn adds learners, and gives those who are there what the list says of them. All are
// checked before the first is written.
func (s *School) TakeIn(ctx context.Context, list []Incoming) (added, changed int, err error) {
	var bad problem.List
	for i := range list {
		bad.Take(fmt.Sprintf("learners[%d]", i), list[i].Learner.Clean())
	}
	if err := bad.Err(); err != nil {
		return 0, 0, err
	}
	for _, x := range list {
		l, isNew := x.Learner, false
		if x.ID == 0 {
			if l, isNew, err = s.records.AddLearner(ctx, x.Learner); err != nil {
				return added, changed, err
			}
			if isNew {
				added++
				continue
			}
		} else if l, err = s.records.Learner(ctx, x.ID); err != nil {
			return added, changed, err
		}
		before := fmt.Sprint(l)
		for _, g := range x.Groups {
			if !contains(l.Groups, g) {
				l.Groups = append(l.Groups, g)
			}
		}
		for _, f := range []struct{ to, from *string }{{&l.Hand, &x.Hand}, {&l.Craft, &x.Craft}, {&l.Course, &x.Course}, {&l.Note, &x.Note}} {
			if *f.from != "" {
				*f.to = *f.from
			}
		}
		if fmt.Sprint(l) == before {
			continue
		}
		if _, err = s.records.SaveLearner(ctx, l); err != nil {
			return added, changed, err
		}
		changed++
	}
	return added, changed, nil
}

func contains(list []string, s string) bool {
	for _, x := range list {
		if strings.EqualFold(x, s) {
			return true
		}
	}
	return false
}

// RosterTable is the learners as rows, heads first; what it gives [practice.ReadRoster]
// reads.
func (s *School) RosterTable(ctx context.Context) ([][]string, error) {
	list, err := s.records.Learners(ctx)
	if err != nil {
		return nil, err
	}
	out := [][]string{{"name", "groups", "hand", "craft", "course", "note"}}
	for _, l := range list {
		out = append(out, []string{l.Name, strings.Join(l.Groups, "; "), l.Hand, l.Craft, l.Course, l.Note})
	}
	return out, nil
}

// LogTable is all attempts as rows, heads first, the newest first.
func (s *School) LogTable(ctx context.Context) ([][]string, error) {
	out := [][]string{{"at", "learner", "knot", "kind", "outcome", "fault", "seconds", "conditions", "help", "side", "judged"}}
	p := Page{Limit: 1000}
	for {
		list, next, err := s.records.Attempts(ctx, Filter{}, p)
		if err != nil {
			return nil, err
		}
		for _, a := range list {
			help := ""
			if a.Help {
				help = "yes"
			}
			out = append(out, []string{a.At.Format(time.RFC3339), a.Learner, a.Knot, string(a.Kind), string(a.Outcome), a.Fault,
				strconv.FormatFloat(a.Seconds, 'f', -1, 64), a.Conditions, help, a.Side, a.Judged})
		}
		if next == "" {
			return out, nil
		}
		p.Cursor = next
	}
}

// MergeLearners gives the attempts of one learner to another.
func (s *School) MergeLearners(ctx context.Context, from, into int64) (practice.Learner, error) {
	if from == into {
		return practice.Learner{}, problem.New("into", "is the same learner", "choose another")
	}
	return s.records.MergeLearners(ctx, from, into)
}

// EraseLearner removes a learner with all that is known of him.
func (s *School) EraseLearner(ctx context.Context, id int64) error {
	return s.records.EraseLearner(ctx, id)
}
