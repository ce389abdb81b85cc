package lesson

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"oarweed/core/problem"
)

// Cut is what is cut from one spool.
type Cut struct {
	// Spool counts from 0, in the order given.
	Spool  int       `json:"spool"`
	Pieces []float64 `json:"pieces_m" nullable:"false"`
	Left   float64   `json:"left_m"`
}

// Cuts say how pieces come from spools.
type Cuts struct {
	Cuts []Cut `json:"cuts" nullable:"false"`
	// Waste is what is left of the spools that are cut into, in metres.
	Waste float64 `json:"waste_m"`
	// Missing are pieces for which there is no line.
	Missing []float64 `json:"missing_m,omitempty"`
}

// Pieces are lengths to be cut from spools, in metres.
type Pieces struct {
	Spools []float64 `json:"spools_m" nullable:"false"`
	Pieces []float64 `json:"pieces_m" nullable:"false"`
}

// tries bounds the search for a better cut.
const tries = 200_000

// millimetre, in metres: lengths nearer than that are the same.
const millimetre = 1e-3

// Cut finds from which spool each piece is cut. It begins with first-fit decreasing (the
// longest piece first, each from the first spool that has it; Johnson 1973, from memory)
// and looks by branch and bound for a cut that places more line, or opens spools with
// less left over; it is never worse. The error names each field.
func (q Pieces) Cut() (*Cuts, error) {
	var l problem.List
	for _, list := range []struct {
		name string
		m    []float64
	}{{"spools_m", q.Spools}, {"pieces_m", q.Pieces}} {
		if len(list.m) == 0 || len(list.m) > 500 {
			l.Add(list.name, fmt.Sprintf("are %d", len(list.m)), "give 1 to 500 lengths")
		}
		for i, x := range list.m {
			if !(x > 0 && x <= 1e5) {
				l.Add(fmt.Sprintf("%s[%d]", list.name, i), fmt.Sprintf("%g m is no length", x), "give more than 0 and at most 100 km")
			}
		}
	}
	if err := l.Err(); err != nil {
		return nil, err
	}
	s := &search{pieces: slices.Clone(q.Pieces), spools: q.Spools, left: tries}
	slices.SortFunc(s.pieces, func(a, b float64) int { return cmp.Compare(b, a) })
	for i := len(s.pieces) - 1; i >= 0; i-- {
		s.rest = append(s.rest, s.pieces[i])
	}
	for i := 1; i < len(s.rest); i++ {
		s.rest[i] += s.rest[i-1]
	}
	slices.Reverse(s.rest)
	s.rest = append(s.rest, 0)
	at := make([]int, len(s.pieces))
	free := slices.Clone(q.Spools)
	placed := 0.0
	for i, p := range s.pieces {
		at[i] = slices.IndexFunc(free, func(f float64) bool { return f >= p-millimetre })
		if at[i] >= 0 {
			free[at[i]] -= p
			placed += p
		}
	}
	s.keep(at, placed, s.waste(free))
	s.place(make([]int, len(s.pieces)), slices.Clone(q.Spools), 0, 0)
	return s.cuts(), nil
}

type search struct {
	pieces, spools []float64
	// rest[i] is the length of the pieces from i on.
	rest          []float64
	best          []int
	placed, least float64
	left          int
}

func (s *search) keep(at []int, placed, waste float64) {
	s.best, s.placed, s.least = slices.Clone(at), placed, waste
}

// waste is what is left of spools that are cut into.
func (s *search) waste(free []float64) float64 {
	sum := 0.0
	for i, f := range free {
		if f < s.spools[i]-millimetre/2 {
			sum += f
		}
	}
	return sum
}

func (s *search) place(at []int, free []float64, i int, placed float64) {
	if s.left--; s.left < 0 || placed+s.rest[i] < s.placed-millimetre/2 {
		return
	}
	if i == len(s.pieces) {
		if waste := s.waste(free); placed > s.placed+millimetre/2 || waste < s.least-millimetre/2 {
			s.keep(at, placed, waste)
		}
		return
	}
	p := s.pieces[i]
	// Spools of one length left are alike, and so are pieces of one length: the next of
	// them is not tried on an earlier spool.
	from := 0
	if i > 0 && s.pieces[i-1] == p {
		if at[i-1] < 0 {
			from = len(free)
		} else {
			from = at[i-1]
		}
	}
	var tried []float64
	for k := from; k < len(free); k++ {
		untouched := free[k] == s.spools[k]
		if free[k] < p-millimetre || untouched && slices.Contains(tried, free[k]) {
			continue
		}
		if untouched {
			tried = append(tried, free[k])
		}
		was := free[k]
		free[k], at[i] = math.Max(0, was-p), k
		s.place(at, free, i+1, placed+p)
		free[k] = was
	}
	at[i] = -1
	s.place(at, free, i+1, placed)
}

func (s *search) cuts() *Cuts {
	out := &Cuts{Cuts: []Cut{}, Waste: math.Round(s.least/millimetre) * millimetre}
	for k, length := range s.spools {
		c := Cut{Spool: k, Left: length}
		for i, at := range s.best {
			if at == k {
				c.Pieces = append(c.Pieces, s.pieces[i])
				c.Left = math.Max(0, c.Left-s.pieces[i])
			}
		}
		c.Left = math.Round(c.Left/millimetre) * millimetre
		if len(c.Pieces) > 0 {
			out.Cuts = append(out.Cuts, c)
		}
	}
	for i, at := range s.best {
		if at < 0 {
			out.Missing = append(out.Missing, s.pieces[i])
		}
	}
	return out
}
