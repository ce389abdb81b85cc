package bench

import (
	"fmt"
	"math"

	"oarweed/core/problem"
)

// Pulled is one pull of one group, as it comes in.
type Pulled struct {
	Group  string  `json:"group"`
	LoadKN float64 `json:"load_kn"`
	// Failed at that load; else it held at least so much.
	Failed bool `json:"failed"`
}

// Report is what pulls say, by group.
type Report struct {
	Groups  map[string]Group `json:"groups"`
	LogRank Test             `json:"logrank"`
}

// Group is one group of pulls: the Weibull fit with intervals of 90 %, and the survival curve.
// What could not be worked out is null: a fit where TooFew says why, an end of an interval that
// the pulls do not bound.
type Group struct {
	N        int      `json:"n"`
	Failures int      `json:"failures"`
	TooFew   TooFew   `json:"too_few,omitempty" doc:"why nothing could be fitted"`
	LogLik   *float64 `json:"loglik"`

	Shape      *float64 `json:"shape"`
	ShapeLow   *float64 `json:"shape_low"`
	ShapeHigh  *float64 `json:"shape_high"`
	ScaleKN    *float64 `json:"scale_kn"`
	ScaleLow   *float64 `json:"scale_kn_low"`
	ScaleHigh  *float64 `json:"scale_kn_high"`
	MedianKN   *float64 `json:"median_kn"`
	MedianLow  *float64 `json:"median_kn_low"`
	MedianHigh *float64 `json:"median_kn_high"`
	P5KN       *float64 `json:"p5_kn" doc:"the load that one in twenty does not reach"`
	P5Low      *float64 `json:"p5_kn_low"`
	P5High     *float64 `json:"p5_kn_high"`

	KM []Step `json:"km" nullable:"false"`
}

// MostPulls is how many pulls a report is made of at most.
const MostPulls = 10_000

// Fit reports on pulls. The error names the pull and the field.
func Fit(pulls []Pulled) (Report, error) {
	var l problem.List
	groups := map[string][]Value{}
	if len(pulls) == 0 || len(pulls) > MostPulls {
		l.Add("pulls", fmt.Sprintf("%d pulls are given", len(pulls)), fmt.Sprintf("give 1 to %d", MostPulls))
	}
	for i, p := range pulls {
		if !(p.LoadKN > 0) || math.IsInf(p.LoadKN, 0) {
			l.Add(fmt.Sprintf("pulls[%d].load_kn", i), fmt.Sprintf("%g is no load", p.LoadKN), "give kilonewtons above 0")
		}
		groups[p.Group] = append(groups[p.Group], Value{p.LoadKN, p.Failed})
	}
	if err := l.Err(); err != nil {
		return Report{}, err
	}
	out := Report{Groups: map[string]Group{}, LogRank: LogRank(groups)}
	for name, values := range groups {
		out.Groups[name] = GroupOf(values)
	}
	return out, nil
}

// GroupOf reports on one group; its loads are above zero.
func GroupOf(values []Value) Group {
	w, err := FitWeibull(values)
	g := Group{N: w.N, Failures: w.Failures, KM: KaplanMeier(values)}
	if err != nil {
		g.TooFew, _ = err.(TooFew)
		return g
	}
	known := func(v float64) *float64 {
		if v == 0 || math.IsInf(v, 0) {
			return nil
		}
		return &v
	}
	shape, scale, median, p5 := w.ShapeLimits(), w.ScaleLimits(), w.QuantileLimits(0.5), w.QuantileLimits(0.05)
	g.LogLik = &w.LogLik
	g.Shape, g.ShapeLow, g.ShapeHigh = &w.Shape, known(shape.Low), known(shape.High)
	g.ScaleKN, g.ScaleLow, g.ScaleHigh = &w.ScaleKN, known(scale.Low), known(scale.High)
	g.MedianKN, g.MedianLow, g.MedianHigh = known(w.MedianKN()), known(median.Low), known(median.High)
	g.P5KN, g.P5Low, g.P5High = known(w.Quantile(0.05)), known(p5.Low), known(p5.High)
	return g
}
