package practice

import (
	"cmp"
	"slices"
)

// Tally is what a round at one knot shows: each learner's last try counts.
type Tally struct {
	Knot                         string
	Learners, Right, Slow, Wrong int
	// Most is the fault that most of them made, MostN how many.
	Most  string
	MostN int
}

// TallyOf counts a round; attempts at other knots are left out.
func TallyOf(knot string, list []Attempt) Tally {
	last := map[int64]Attempt{}
	for _, a := range list {
		if b, ok := last[a.LearnerID]; a.Knot == knot && (!ok || !a.At.Before(b.At)) {
			last[a.LearnerID] = a
		}
	}
	t := Tally{Knot: knot, Learners: len(last)}
	faults := map[string]int{}
	for _, a := range last {
		switch a.Outcome {
		case Right:
			t.Right++
		case Slow:
			t.Slow++
		default:
			t.Wrong++
			faults[a.Fault]++
		}
	}
	for code, n := range faults {
		if code != "" && (n > t.MostN || n == t.MostN && code < t.Most) {
			t.Most, t.MostN = code, n
		}
	}
	return t
}

// Share of learners at a knot, for what to teach next.
type Share struct {
	Knot string
	// Can are those who tie it alone, Faulty those whose last try was a fault, Repeated
	// whose fault was the same twice.
	Can, Faulty, Repeated, Of int
}

// Next is a knot to teach a class now.
type Next struct {
	Knot string
	// From is what the class can that helps with it; empty where it is repeated for a fault.
	From string
	// Why: repeated fault, fault, or grown out of what is known.
	Again bool
	// Lack is how many of the class cannot tie it.
	Lack int
}

// Step is that who can tie From has part of To, and whether To needs it.
type Step struct {
	From, To string
	Needs    bool
}

// WhatNext orders what a class is taught next: first what faults were seen in, the most
// often repeated first; then knots that grow out of one that most can tie and that most
// lack, the widest gap first. among limits it; empty: any.
func WhatNext(shares []Share, steps []Step, among []string) []Next {
	by := map[string]Share{}
	of := 0
	for _, s := range shares {
		by[s.Knot] = s
		of = max(of, s.Of)
	}
	allowed := func(k string) bool { return len(among) == 0 || slices.Contains(among, k) }
	var out []Next
	for _, s := range shares {
		if allowed(s.Knot) && (s.Repeated > 0 || s.Faulty*2 >= of && s.Faulty > 0) {
			out = append(out, Next{Knot: s.Knot, Again: true, Lack: s.Faulty})
		}
	}
	slices.SortFunc(out, func(a, b Next) int {
		x, y := by[a.Knot], by[b.Knot]
		return cmp.Or(cmp.Compare(y.Repeated, x.Repeated), cmp.Compare(y.Faulty, x.Faulty), cmp.Compare(a.Knot, b.Knot))
	})
	var grown []Next
	for _, st := range steps {
		from, to := by[st.From], by[st.To]
		lack := of - to.Can
		if !allowed(st.To) || from.Can*2 < of || lack*2 < of || of == 0 {
			continue
		}
		if i := slices.IndexFunc(grown, func(n Next) bool { return n.Knot == st.To }); i >= 0 {
			continue
		}
		if slices.ContainsFunc(out, func(n Next) bool { return n.Knot == st.To }) {
			continue
		}
		grown = append(grown, Next{Knot: st.To, From: st.From, Lack: lack})
	}
	slices.SortStableFunc(grown, func(a, b Next) int {
		return cmp.Or(cmp.Compare(by[b.From].Can, by[a.From].Can), cmp.Compare(b.Lack, a.Lack))
	})
	return append(out, grown...)
}
