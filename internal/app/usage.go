package app

import (
	"context"
	"errors"
	"slices"

	"oarweed/core/problem"
	"oarweed/core/say"
	"oarweed/core/usage"
)

// UseRow is a use with its names.
type UseRow struct {
	usage.Entry
	LineName  string `json:"line_name,omitempty"`
	OtherName string `json:"other_name,omitempty"`
	KnotName  string `json:"knot_name,omitempty"`
	Says      string `json:"says"`
}

// UsePage is a page of the log of use.
type UsePage struct {
	Uses []UseRow `json:"uses" nullable:"false"`
	Next string   `json:"next,omitempty" doc:"cursor of the next page; left out after the last"`
}

// UseTally counts a line or a knot, with its name and what went wrong most with it.
type UseTally struct {
	usage.Tally
	Name string `json:"name"`
	Says string `json:"says"`
}

// UseSums are what the log comes to.
type UseSums struct {
	N     int                   `json:"n"`
	By    map[usage.Outcome]int `json:"by"`
	Lines []UseTally            `json:"lines" nullable:"false" doc:"those with most wrong first"`
	Knots []UseTally            `json:"knots" nullable:"false" doc:"those with most wrong first"`
}

// lineNames are those of the locker, by code.
func (s *School) lineNames(ctx context.Context) (map[string]string, error) {
	own, err := s.ownLines(ctx)
	out := map[string]string{}
	for code, l := range own {
		out[code] = l.Name
	}
	return out, err
}

func (s *School) knotName(id string) string {
	if k := s.Trade().Knot(id); k != nil {
		return k.Name
	}
	return id
}

// Uses lists the log of use, newest first.
func (s *School) Uses(ctx context.Context, f usage.Filter, p Page) (*UsePage, error) {
	list, next, err := s.records.Uses(ctx, f, p)
	if err != nil {
		return nil, err
	}
	names, err := s.lineNames(ctx)
	if err != nil {
		return nil, err
	}
	out := &UsePage{Uses: []UseRow{}, Next: next}
	for _, e := range list {
		knot := ""
		if e.Knot != "" {
			knot = s.knotName(e.Knot)
		}
		out.Uses = append(out.Uses, UseRow{e, names[e.Line], names[e.Other], knot, say.Used(e, knot)})
	}
	return out, nil
}

// UseSums sums the log up.
func (s *School) UseSums(ctx context.Context, f usage.Filter) (*UseSums, error) {
	counts, err := s.records.Used(ctx, f)
	if err != nil {
		return nil, err
	}
	names, err := s.lineNames(ctx)
	if err != nil {
		return nil, err
	}
	out := &UseSums{By: map[usage.Outcome]int{}, Lines: []UseTally{}, Knots: []UseTally{}}
	for _, t := range usage.Tallies(counts.Lines, func(c usage.Count) string { return c.Line }) {
		name := names[t.Of]
		if name == "" {
			name = t.Of
		}
		out.Lines = append(out.Lines, UseTally{t, name, say.Tally(t)})
	}
	for _, t := range usage.Tallies(counts.Knots, func(c usage.Count) string { return c.Knot }) {
		out.Knots = append(out.Knots, UseTally{t, s.knotName(t.Of), say.Tally(t)})
	}
	for _, c := range counts.All {
		out.N += c.N
		out.By[c.Outcome] += c.N
	}
	return out, nil
}

// AddUse records a use. added is false where it was recorded before.
func (s *School) AddUse(ctx context.Context, e usage.Entry) (out usage.Entry, added bool, err error) {
	if err := s.checkUses(ctx, []*usage.Entry{&e}, false); err != nil {
		return e, false, err
	}
	return s.records.AddUse(ctx, e)
}

// checkUses checks entries and that their lines are in the locker; each is named by its number
// where many says so.
func (s *School) checkUses(ctx context.Context, list []*usage.Entry, many bool) error {
	own, err := s.ownLines(ctx)
	if err != nil {
		return err
	}
	var bad problem.List
	for i, e := range list {
		err := e.Check(s.known, s.now())
		for field, code := range map[string]string{"line": e.Line, "other": e.Other} {
			if _, ok := own[code]; code != "" && !ok && err == nil {
				err = errors.Join(err, problem.New(field, "is not in the locker", "put the line into the locker first, or choose another"))
			}
		}
		at := ""
		if many {
			at = rowAt(i)
		}
		bad.Take(at, err)
	}
	return bad.Err()
}

// DeleteUse takes a use back, RestoreUse brings it back.
func (s *School) DeleteUse(ctx context.Context, id int64) error { return s.records.DeleteUse(ctx, id) }

// RestoreUse brings back a use that was taken back.
func (s *School) RestoreUse(ctx context.Context, id int64) (usage.Entry, error) {
	return s.records.RestoreUse(ctx, id)
}

// KnotUse is what the log of use says of a knot; empty where it says nothing.
func (s *School) KnotUse(ctx context.Context, id string) (string, error) {
	counts, err := s.records.Used(ctx, usage.Filter{Knot: id})
	if err != nil {
		return "", err
	}
	list := usage.Tallies(counts.Knots, func(c usage.Count) string { return c.Knot })
	i := slices.IndexFunc(list, func(t usage.Tally) bool { return t.Of == id })
	if i < 0 {
		return "", nil
	}
	return say.Tally(list[i]), nil
}
