package hold

import (
	"fmt"
	"math"
	"slices"

	"oarweed/core/evidence"
	"oarweed/core/friction"
	"oarweed/core/problem"
	"oarweed/core/unit"
)

// Says is what use says of a hitch.
type Says string

const (
	Holds      Says = "holds"
	Slips      Says = "slips"
	WorksLoose Says = "works loose"
)

// Fact is what use says of a hitch in a line on an object.
type Fact struct {
	Hitch string `json:"hitch"`
	// Count of turns, eights or riding turns, as for [friction.Find].
	Count int `json:"count,omitempty"`
	// Materials it is said of.
	Materials []string `json:"materials" nullable:"false"`
	ObjectMM  float64  `json:"object_mm" yaml:"object_mm"`
	LineMM    float64  `json:"line_mm" yaml:"line_mm"`
	Surface   string   `json:"surface"`
	// LoadKN it is said of; 0: of any load, that is of locking.
	LoadKN float64 `json:"load_kn,omitempty" yaml:"load_kn"`
	Says   Says    `json:"says" enum:"holds,slips,works loose"`
	// Sure is the probability that it is so, for holds and slips.
	Sure float64 `json:"sure,omitempty"`
	// Margin and Spread of the logarithm of the gain, for works loose.
	Margin float64 `json:"margin,omitempty"`
	Spread float64 `json:"spread,omitempty"`
	// HeldOut: nothing is learnt from it; it only checks what the others teach.
	HeldOut bool         `json:"held_out,omitempty" yaml:"held_out"`
	Why     string       `json:"why"`
	Tag     evidence.Tag `json:"tag" enum:"published,trade,memory,computed,yours"`
}

// Check reports what is missing or contradictory, by field.
func (f Fact) Check(materials, surfaces []string) error {
	var l problem.List
	if _, err := friction.Find(f.Hitch, f.Count); err != nil {
		l.Take("", err)
	}
	for _, m := range f.Materials {
		if !slices.Contains(materials, m) {
			l.Add("materials", fmt.Sprintf("%q is not known", m), "use ids of materials.yaml")
		}
	}
	if len(f.Materials) == 0 {
		l.Add("materials", "missing", "say of which lines it is known")
	}
	if !slices.Contains(surfaces, f.Surface) {
		l.Add("surface", fmt.Sprintf("%q is not known", f.Surface), "use an id of surfaces.yaml")
	}
	if !(f.ObjectMM > 0) || !(f.LineMM > 0) {
		l.Add("object_mm", "object_mm and line_mm must be above zero", "say on what it is known")
	}
	switch f.Says {
	case Holds, Slips:
		if !(f.Sure > 0.5 && f.Sure < 1) {
			l.Add("sure", fmt.Sprintf("%g is not between 0.5 and 1", f.Sure), "nothing is known for certain: give 0.8 to 0.99")
		}
	case WorksLoose:
		if !(f.Spread > 0) {
			l.Add("spread", "must be above zero", "give margin and spread of the logarithm of the gain")
		}
	default:
		l.Add("says", fmt.Sprintf("%q is not known", f.Says), "write holds, slips or works loose")
	}
	if f.Why == "" || !f.Tag.Valid() {
		l.Add("why", "needs why and tag", "fill them in")
	}
	return l.Err()
}

// hitch and geometry of the fact. Both exist: Check has seen to it.
func (f Fact) hitch() (friction.Hitch, friction.Geometry) {
	h, _ := friction.Find(f.Hitch, f.Count)
	return h, friction.Geometry{Object: f.ObjectMM / 2, Rope: f.LineMM / 2}
}

// likelihood of the fact for one draw.
func (f Fact) likelihood(s *friction.Solver, m friction.Mu, tag float64) float64 {
	if f.Says == WorksLoose {
		gain := s.Gain(m)
		if gain <= 0 {
			return 1e-6
		}
		z := (math.Log(gain) - f.Margin) / f.Spread
		return math.Exp(-z * z / 2)
	}
	if f.holds(s, m, tag) == (f.Says == Holds) {
		return f.Sure
	}
	return 1 - f.Sure
}

// holds reports whether the hitch of the fact holds: its load where it names one, or
// any load.
func (f Fact) holds(s *friction.Solver, m friction.Mu, tag float64) bool {
	ratio := s.HoldRatio(m)
	if f.LoadKN == 0 {
		return math.IsInf(ratio, 1)
	}
	gives := tag * f.LineMM * f.LineMM * 1e-6
	return ratio*gives >= float64(unit.Force(f.LoadKN)*unit.Kilonewton)
}
