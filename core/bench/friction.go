package bench

import (
	"fmt"
	"math"

	"gonum.org/v1/gonum/stat"
	"gonum.org/v1/gonum/stat/distuv"

	"oarweed/core/evidence"
	"oarweed/core/problem"
)

// Over is one trial of a line laid over a rail with a weight at each end: the heavier one was
// made heavier until the line began to slide.
type Over struct {
	// HeavyN and LightN hang on the ends, in newtons.
	HeavyN float64 `json:"heavy_n"`
	LightN float64 `json:"light_n"`
	// Degrees of wrap: 180 where both ends hang straight down.
	Degrees float64 `json:"degrees"`
}

// Friction is what such trials come to.
type Friction struct {
	N int `json:"n"`
	// Mu is the coefficient of friction, with an interval of 90 %: Student's, of the mean of
	// its logarithm; of one trial a third to either side, our own choice.
	Mu evidence.Interval `json:"mu"`
}

// FrictionOf works out the coefficient by the capstan equation, T₂/T₁ = exp(μθ) (L. Euler,
// 1762, from memory). The error names the trial and the field.
func FrictionOf(trials []Over) (Friction, error) {
	var l problem.List
	var logs []float64
	if len(trials) == 0 {
		l.Add("trials", "there is none", "give the two weights at which it began to slide")
	}
	for i, t := range trials {
		at := fmt.Sprintf("trials[%d]", i)
		if !(t.LightN > 0) || math.IsInf(t.LightN, 0) {
			l.Add(at+".light_n", fmt.Sprintf("%g is no weight", t.LightN), "give newtons above 0")
			continue
		}
		if !(t.HeavyN > t.LightN) || math.IsInf(t.HeavyN, 0) {
			l.Add(at+".heavy_n", fmt.Sprintf("%g N is not heavier than %g N", t.HeavyN, t.LightN), "give the weight on the side that went down")
			continue
		}
		if !(t.Degrees >= 30 && t.Degrees <= 3600) {
			l.Add(at+".degrees", fmt.Sprintf("%g° is no wrap", t.Degrees), "give 30 to 3600; 180 where both ends hang straight down")
			continue
		}
		logs = append(logs, math.Log(math.Log(t.HeavyN/t.LightN)/(t.Degrees*math.Pi/180)))
	}
	if err := l.Err(); err != nil {
		return Friction{}, err
	}
	mean, half := logs[0], math.Log(4.0/3)
	if n := float64(len(logs)); n > 1 {
		var sd float64
		mean, sd = stat.MeanStdDev(logs, nil)
		half = math.Max(0.02, distuv.StudentsT{Sigma: 1, Nu: n - 1}.Quantile((1+Sure)/2)*sd/math.Sqrt(n))
	}
	return Friction{len(logs), evidence.Interval{Low: math.Exp(mean - half), Likely: math.Exp(mean), High: math.Exp(mean + half)}}, nil
}
