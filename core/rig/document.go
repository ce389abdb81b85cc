// Package rig holds what is tied to what: a chain of fittings, joints and lines
// with its load and conditions.
//
// A [Document] is the open JSON form, read and written by the API, the command line
// and the store alike. [Fields] is the one table of what its fields are called, may
// hold and default to. [Vocabulary.Resolve] checks a document and gives the [Rig]
// the core works on.
package rig

import (
	"encoding/json"

	"oarweed/core/line"
	"oarweed/core/problem"
)

// Version of the document format.
const Version = 1

// Character of the load.
type Character string

const (
	Steady      Character = "steady"
	Alternating Character = "alternating" // comes and goes
	Flogging    Character = "flogging"    // goes slack and shakes
	Snatch      Character = "snatch"      // sudden jerks
)

// Release is how a joint must come off.
type Release string

const (
	UnderLoad Release = "under-load" // while the line still pulls
	Slack     Release = "slack"      // by hand, once it is slack
	Distance  Release = "distance"   // from afar
	AnyWay    Release = "cut"        // any way, a knife included
	Stays     Release = "stays"      // not at all while it bears
)

// Stay is how long a joint is left as it is tied.
type Stay string

const (
	Hour   Stay = "hour"   // undone again soon, with somebody near
	Night  Stay = "night"  // left until the morning, or over a tide
	Months Stay = "months" // left and forgotten
)

// Pull is which way a line pulls on the long thing that it is tied to.
type Pull string

const (
	Across Pull = "across" // square to a post, a rail, a spar
	Along  Pull = "along"  // lengthwise
)

// Water a line is fished in.
type Water string

const (
	Salt  Water = "salt"
	Flats Water = "flats" // shallow salt water, fish in sight
	Fresh Water = "fresh"
)

// Ground is what a line lies against.
type Ground string

const (
	Clear Ground = "clear" // nothing that cuts
	Sharp Ground = "sharp" // rock, coral, shell, broken concrete
)

// Consequence of failure.
type Consequence string

const (
	Gear   Consequence = "gear"
	Boat   Consequence = "boat"
	Person Consequence = "person"
)

// Document is a rig as written down. Zero values mean "left out".
type Document struct {
	Version int    `json:"version,omitempty" minimum:"0"`
	Name    string `json:"name,omitempty" maxLength:"120"`
	// Chain alternates ends (fittings or lines) and joints.
	Chain       []Element   `json:"chain" nullable:"false"`
	PeakKN      float64     `json:"peak_kn"`
	Character   Character   `json:"character,omitempty"`
	Dry         bool        `json:"dry,omitempty"`
	Consequence Consequence `json:"consequence,omitempty"`
	Water       Water       `json:"water,omitempty"`
	Ground      Ground      `json:"ground,omitempty"`
	// Weights names the preset by which knots are scored; left out: that of the task.
	Weights string `json:"weights,omitempty"`
	// DesignFactor raises the factor that follows from load and consequence.
	DesignFactor float64 `json:"design_factor,omitempty"`
}

// Element is one link of the chain; exactly one field is set.
type Element struct {
	Fitting *Fitting `json:"fitting,omitempty"`
	Joint   *Joint   `json:"joint,omitempty"`
	Line    *Line    `json:"line,omitempty"`
}

// Fitting as written down.
type Fitting struct {
	Kind    string  `json:"kind"`
	SizeMM  float64 `json:"size_mm,omitempty"`
	Surface string  `json:"surface,omitempty"`
}

// Joint as written down.
type Joint struct {
	Task string `json:"task"`
	// Knot chosen; empty while open.
	Knot    string  `json:"knot,omitempty"`
	Release Release `json:"release,omitempty"`
	// TailM is the line there is to tie with, in metres; left out: enough.
	TailM float64 `json:"tail_m,omitempty"`
	Wraps int     `json:"wraps,omitempty"`
	// Seconds there are to tie it; left out: enough.
	Seconds float64 `json:"seconds,omitempty"`
	// DistanceM is how far off the fitting is when it is cast off from a distance.
	DistanceM float64 `json:"distance_m,omitempty"`
	// Stay is how long it is left; left out: as is usual for the task.
	Stay Stay `json:"stay,omitempty"`
	// Pull is which way the line pulls on a post, a rail or a spar; left out: as is usual
	// for the task.
	Pull Pull `json:"pull,omitempty"`
	// EyeMM is the clear length of the eye or loop that is tied; left out: as small as the
	// thing it goes round allows.
	EyeMM float64 `json:"eye_mm,omitempty"`
	// GuideMM is the clear width of the smallest guide or block that a join has to run
	// through; left out: it runs through none.
	GuideMM float64 `json:"guide_mm,omitempty"`
	// Finish says whether the finishing wraps of a join are made.
	Finish Finish `json:"finish,omitempty"`
}

// Finish says whether a wrapped join is finished with more wraps on the standing part.
type Finish string

const (
	Finished Finish = "finished"
	Bare     Finish = "bare"
)

// Line as written down.
type Line struct {
	Material     string            `json:"material"`
	Construction line.Construction `json:"construction,omitempty"`
	DiameterMM   float64           `json:"diameter_mm,omitempty"`
	LabelKN      float64           `json:"label_kn,omitempty"`
	Wear         int               `json:"wear,omitempty"`
	// Mu measured on smooth metal; left out: that of the material.
	Mu float64 `json:"mu,omitempty"`
	// MuSpread is by what factor that may be off, up or down; left out: it counts as exact.
	MuSpread float64 `json:"mu_spread,omitempty" minimum:"0" maximum:"4" doc:"factor by which the measured friction may be off, up or down; left out: it counts as exact"`
	// LengthM between its joints, for the cut list.
	LengthM float64 `json:"length_m,omitempty"`
	// Own is the code of a line in the locker: this is that one, and what is known of it counts.
	Own string `json:"own,omitempty" maxLength:"12" doc:"code of a line in the locker: this is that one"`
}

// As gives the line what is known of another: what it is made of, its size, strength, wear and
// friction. Its length in the rig stays.
func (l Line) As(o Line) Line {
	o.LengthM, o.Own = l.LengthM, l.Own
	return o
}

// Default is a value taken because the user left it out.
type Default struct {
	Field string `json:"field"`
	Value string `json:"value"`
	Why   string `json:"why"`
}

// clone copies the part, so that it can be changed.
func (e Element) clone() Element {
	switch {
	case e.Fitting != nil:
		f := *e.Fitting
		e.Fitting = &f
	case e.Joint != nil:
		j := *e.Joint
		e.Joint = &j
	case e.Line != nil:
		l := *e.Line
		e.Line = &l
	}
	return e
}

// Clone copies the document and all its parts.
func (d Document) Clone() Document {
	chain := make([]Element, len(d.Chain))
	for i, e := range d.Chain {
		chain[i] = e.clone()
	}
	d.Chain = chain
	return d
}

// Text is the document as JSON. It never fails: a checked document holds no Inf.
func (d Document) Text() (string, error) {
	text, err := json.Marshal(d)
	if err != nil {
		return "", problem.New("", "cannot be written: "+err.Error(), "give finite numbers")
	}
	return string(text), nil
}
