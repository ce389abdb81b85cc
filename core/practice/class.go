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

// ClassKnot is what the tries of a class at one knot come to.
type ClassKnot struct {
	Knot string `json:"knot"`
	// Learners tried it, Competent can tie it in time, Wetted tied it right wet or in gloves.
	Learners  int `json:"learners"`
	Competent int `json:"competent"`
	Wetted    int `json:"wetted"`
	// Tries and Days that it took the competent, as medians: tries until the first in time,
	// days since their first.
	Tries float64 `json:"tries" doc:"median number of tries until the first in time"`
	Days  float64 `json:"days" doc:"median days from the first try to the first in time"`
	// Faults that were made, the most frequent first.
	Faults []FaultCount `json:"faults" nullable:"false"`
}

// FaultCount says how often a fault was made, by how many, and in how many of their tries.
type FaultCount struct {
	Code     string `json:"code"`
	Name     string `json:"name"`
	N        int    `json:"n"`
	Learners int    `json:"learners"`
	// AfterStep is the step of the tying at which it is made; 0 where that is not known.
	AfterStep int `json:"after_step,omitempty"`
}

// ClassReport counts the tries of a class, those of each knot and learner together and in
// order; target is the time of a knot in which it counts as tied in time.
func ClassReport(list []Attempt, target func(knot string) float64) []ClassKnot {
	out := []ClassKnot{}
	for i := 0; i < len(list); {
		j := i
		for j < len(list) && list[j].Knot == list[i].Knot {
			j++
		}
		out = append(out, reportOf(list[i:j], target(list[i].Knot)))
		i = j
	}
	slices.SortStableFunc(out, func(a, b ClassKnot) int { return cmp.Compare(b.Learners, a.Learners) })
	return out
}

func reportOf(list []Attempt, target float64) ClassKnot {
	k := ClassKnot{Knot: list[0].Knot, Faults: []FaultCount{}}
	var tries, days []float64
	counts, by := map[string]int{}, map[string]map[int64]bool{}
	for i := 0; i < len(list); {
		j, competent, wetted := i, 0, false
		for ; j < len(list) && list[j].LearnerID == list[i].LearnerID; j++ {
			a := list[j]
			if a.Outcome == Fault && a.Fault != "" {
				counts[a.Fault]++
				if by[a.Fault] == nil {
					by[a.Fault] = map[int64]bool{}
				}
				by[a.Fault][a.LearnerID] = true
			}
			if competent == 0 && a.Level(target) >= InTime {
				competent = j - i + 1
			}
			wetted = wetted || a.Level(target) >= Alone && (a.In("wet") || a.In("gloves"))
		}
		k.Learners++
		if wetted {
			k.Wetted++
		}
		if competent > 0 {
			k.Competent++
			tries = append(tries, float64(competent))
			days = append(days, list[i+competent-1].At.Sub(list[i].At).Hours()/24)
		}
		i = j
	}
	k.Tries, k.Days = median(tries), median(days)
	for code, n := range counts {
		k.Faults = append(k.Faults, FaultCount{Code: code, N: n, Learners: len(by[code])})
	}
	slices.SortFunc(k.Faults, func(a, b FaultCount) int { return cmp.Or(cmp.Compare(b.N, a.N), cmp.Compare(a.Code, b.Code)) })
	return k
}

// median of a list; 0 of none.
func median(list []float64) float64 {
	if len(list) == 0 {
		return 0
	}
	slices.Sort(list)
	n := len(list)
	return (list[(n-1)/2] + list[n/2]) / 2
}
