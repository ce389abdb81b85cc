// Package evidence holds what every shown number carries: its unit, how far it may
// be off (an interval, and the distribution over it) and where it comes from (a tag
// and a source).
package evidence

import (
	"fmt"
	"math"

	"oarweed/core/problem"
)

// Tag says what kind of evidence stands behind a number.
type Tag string

const (
	Published Tag = "published" // a named standard, handbook or paper
	Trade     Tag = "trade"     // common practice, no source
	Memory    Tag = "memory"    // a published range recalled, not checked
	Computed  Tag = "computed"  // worked out by the core from stated inputs
	Yours     Tag = "yours"     // measured or entered by the user
)

// Tags lists all tags, strongest first.
var Tags = []Tag{Yours, Published, Computed, Trade, Memory}

// Valid reports whether t is one of the five tags.
func (t Tag) Valid() bool {
	for _, k := range Tags {
		if t == k {
			return true
		}
	}
	return false
}

// Interval is a low, a likely and a high value in one unit.
type Interval struct {
	Low    float64 `json:"low"`
	Likely float64 `json:"likely"`
	High   float64 `json:"high"`
}

// Exactly is the interval of a number known without spread.
func Exactly(x float64) Interval { return Interval{x, x, x} }

// Times multiplies end by end; for non-negative intervals this is exact at the ends.
func (i Interval) Times(j Interval) Interval {
	return Interval{i.Low * j.Low, i.Likely * j.Likely, i.High * j.High}
}

// Scale multiplies all three values by k ≥ 0.
func (i Interval) Scale(k float64) Interval {
	return Interval{i.Low * k, i.Likely * k, i.High * k}
}

// Check reports intervals that are not finite, not ordered or outside [min, max].
func (i Interval) Check(min, max float64) error {
	for _, v := range []float64{i.Low, i.Likely, i.High} {
		if math.IsNaN(v) || v < min || v > max {
			return problem.New("", fmt.Sprintf("%g is outside %g to %g", v, min, max), "correct the number")
		}
	}
	if i.Low > i.Likely || i.Likely > i.High {
		return problem.New("", fmt.Sprintf("low %g, likely %g, high %g are out of order", i.Low, i.Likely, i.High), "write low, likely, high in rising order")
	}
	return nil
}

// Figure is a number with its interval and its evidence.
type Figure struct {
	Interval
	Unit Unit `json:"unit,omitempty"`
	Tag  Tag  `json:"tag" enum:"published,trade,memory,computed,yours"`
	// Source names the publication for [Published] and says what is recalled or
	// assumed for the other tags.
	Source string `json:"source"`

	measured Dist // nil: the triangle over the interval
}

// UnmarshalYAML reads an interval written as one number or as [low, likely, high].
func (i *Interval) UnmarshalYAML(unmarshal func(any) error) error {
	var one float64
	if unmarshal(&one) == nil {
		*i = Exactly(one)
		return nil
	}
	var three []float64
	if err := unmarshal(&three); err != nil || len(three) != 3 {
		return problem.New("", "not a number or [low, likely, high]", "write one number or three in rising order")
	}
	*i = Interval{three[0], three[1], three[2]}
	return nil
}

// UnmarshalYAML reads a figure written as {value: …, tag: …, source: …}.
func (f *Figure) UnmarshalYAML(unmarshal func(any) error) error {
	var raw struct {
		Value  Interval
		Tag    Tag
		Source string
	}
	if err := unmarshal(&raw); err != nil {
		return err
	}
	*f = Figure{Interval: raw.Value, Tag: raw.Tag, Source: raw.Source}
	return nil
}

// Check reports a figure with no evidence, no source, or values outside [min, max].
func (f Figure) Check(min, max float64) error {
	var l problem.List
	l.Take("value", f.Interval.Check(min, max))
	if !f.Tag.Valid() {
		l.Add("tag", fmt.Sprintf("%q is not a kind of evidence", f.Tag), "use published, trade, memory, computed or yours")
	}
	if f.Source == "" {
		l.Add("source", "missing", "name the source, or say what is recalled or common practice")
	}
	return l.Err()
}
