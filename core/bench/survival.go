package bench

import (
	"cmp"
	"maps"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distuv"
)

// Step is one step of a survival curve: the share that outlives the load.
type Step struct {
	LoadKN   float64 `json:"load_kn"`
	Survival float64 `json:"survival"`
}

// KaplanMeier is the survival curve, one step at every load at which something failed. What
// held at a load counts as at risk there.
func KaplanMeier(values []Value) []Step {
	sorted := byLoad(values)
	out := []Step{}
	survival := 1.0
	for i := 0; i < len(sorted); {
		load, failed, j := sorted[i].LoadKN, 0, i
		for ; j < len(sorted) && sorted[j].LoadKN == load; j++ {
			if sorted[j].Failed {
				failed++
			}
		}
		if failed > 0 {
			survival *= 1 - float64(failed)/float64(len(sorted)-i)
			out = append(out, Step{load, survival})
		}
		i = j
	}
	return out
}

func byLoad(values []Value) []Value {
	return slices.SortedFunc(slices.Values(values), func(a, b Value) int { return cmp.Compare(a.LoadKN, b.LoadKN) })
}

// Test is the outcome of a test: the chance P of a difference as large as this or larger, were
// there none.
type Test struct {
	Chi2 float64 `json:"chi2"`
	DF   int     `json:"df"`
	P    float64 `json:"p"`
}

// LogRank compares the survival of groups. Groups that were never at risk when something
// failed say nothing and do not count; with fewer than two left P is 1.
func LogRank(groups map[string][]Value) Test {
	names := slices.Sorted(maps.Keys(groups))
	type pull struct {
		Value
		group int
	}
	var all []pull
	for g, name := range names {
		for _, v := range groups[name] {
			all = append(all, pull{v, g})
		}
	}
	slices.SortFunc(all, func(a, b pull) int { return cmp.Compare(a.LoadKN, b.LoadKN) })
	n := len(names)
	risk, more, expected := make([]float64, n), make([]float64, n), make([]float64, n)
	for _, p := range all {
		risk[p.group]++
	}
	v := mat.NewSymDense(max(n, 1), nil)
	for i := 0; i < len(all); {
		j := i
		failed := 0.0
		for ; j < len(all) && all[j].LoadKN == all[i].LoadKN; j++ {
			if all[j].Failed {
				failed++
				more[all[j].group]++
			}
		}
		if total := float64(len(all) - i); failed > 0 {
			for a := range n {
				expected[a] += failed * risk[a] / total
				if total < 2 {
					continue
				}
				for b := a; b < n; b++ {
					same := 0.0
					if a == b {
						same = 1
					}
					v.SetSym(a, b, v.At(a, b)+failed*(risk[a]/total)*(same-risk[b]/total)*(total-failed)/(total-1))
				}
			}
		}
		for ; i < j; i++ {
			risk[all[i].group]--
		}
	}
	// One group follows from the others: leave out the last that counts.
	var use []int
	for g := range n {
		if expected[g] > 0 {
			use = append(use, g)
		}
	}
	if len(use) < 2 {
		return Test{P: 1}
	}
	use = use[:len(use)-1]
	u, m := mat.NewVecDense(len(use), nil), mat.NewSymDense(len(use), nil)
	for a, g := range use {
		u.SetVec(a, more[g]-expected[g])
		for b := a; b < len(use); b++ {
			m.SetSym(a, b, v.At(g, use[b]))
		}
	}
	var x mat.VecDense
	if err := x.SolveVec(m, u); err != nil {
		return Test{DF: len(use), P: 1}
	}
	chi2 := math.Max(0, mat.Dot(u, &x))
	return Test{chi2, len(use), distuv.ChiSquared{K: float64(len(use))}.Survival(chi2)}
}
