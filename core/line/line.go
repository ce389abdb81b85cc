// Package line answers what a rope or a fishing line can bear and how it grips.
//
// Breaking strength (MBL, minimum breaking load) comes from the label if there
// is one, otherwise from every law the catalogue knows for the material and
// construction, as one interval: its low end is the lowest of them, its likely value
// the largest likely one, its high end the highest. Laws are:
//
//   - the seamanship rule k·D²/300 in tonnes-force, D in mm, which lies on the safe
//     side of what rope is sold for;
//   - a table of diameters, interpolated as a power law between its rows;
//   - a force per square of the diameter, kN/mm², as recalled from rope lists;
//   - a stress on the full circle of the stated diameter, in MPa, one for all
//     diameters or falling from band to band.
//
// Where the diameter of a fishing line is guessed from its test class the guess errs
// thick: the weakest stress of the law is taken.
//
// What is left when wet or worn is MBL × wet factor × wear factor. Friction is
// held as the coefficient of the line on smooth metal and scaled by the surface.
//
// Limits: no ageing by sunlight, no shrinkage, no heat, no rate of loading.
package line

import (
	"fmt"
	"math"
	"slices"

	"oarweed/core/evidence"
	"oarweed/core/problem"
	"oarweed/core/unit"
)

// Construction is how the line is made up.
type Construction string

const (
	Laid   Construction = "laid"   // three-strand
	Braid  Construction = "braid"  // cover and core, or hollow fishing braid
	Twelve Construction = "twelve" // single 12-strand braid, no cover
	Solid  Construction = "solid"  // one filament
)

// Material is one row of the catalogue's materials.
type Material struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Slippery materials are the ones whose knots creep: HMPE and braided PE.
	Slippery bool `json:"slippery"`
	// Fishing marks line sold by pound test.
	Fishing       bool           `json:"fishing"`
	Constructions []Construction `json:"constructions" nullable:"false"`
	// Unknotted says why no knot is tied in it; empty for what is knotted.
	Unknotted string `json:"unknotted,omitempty"`
	// Cut: sharp rock cuts it through.
	Cut  bool  `json:"cut,omitempty"`
	Laws []Law `json:"-" yaml:"laws"`
	// Wet is the share of strength left when wet, 1 = no change.
	Wet evidence.Figure `json:"wet"`
	// Stretch at the breaking load, as a share of the length.
	Stretch evidence.Figure `json:"stretch"`
	// Friction holds the coefficient on smooth metal, dry and wet.
	Friction Friction `json:"friction"`
}

// Friction coefficients of a line: on smooth metal, and on itself.
type Friction struct {
	Dry     evidence.Figure `json:"dry"`
	Wet     evidence.Figure `json:"wet"`
	RopeDry evidence.Figure `json:"rope_dry" yaml:"rope_dry"`
	RopeWet evidence.Figure `json:"rope_wet" yaml:"rope_wet"`
}

// Band is the stress at a diameter; between two it is interpolated.
type Band struct {
	MM     float64
	Stress evidence.Interval
}

// Law gives a breaking strength from a diameter. Exactly one of Seamanship,
// Table, PerSquare, Stress and Bands is set.
type Law struct {
	Name          string
	Constructions []Construction
	// Seamanship is k in k·D²/300 tonnes-force, D in mm.
	Seamanship float64
	// Table maps diameter in mm to kN.
	Table map[float64]float64
	// PerSquare is breaking force over the square of the diameter, kN/mm².
	PerSquare evidence.Interval `yaml:"per_square"`
	// Stress is breaking force over the full circle of the diameter, MPa.
	Stress evidence.Interval
	// Bands give the stress by diameter, thin to thick; beyond the ends it stays.
	Bands  []Band
	Tag    evidence.Tag
	Source string
}

// Surface scales the friction coefficient of a line.
type Surface struct {
	ID     string          `json:"id"`
	Name   string          `json:"name"`
	Factor evidence.Figure `json:"factor"`
	// Rope: the object is a rope itself.
	Rope bool `json:"rope,omitempty"`
}

// Line is one piece of line in a rig.
type Line struct {
	Material     *Material
	Construction Construction
	// Diameter nominal. It may be zero if Label is given: see [Line.Complete].
	Diameter unit.Length
	// Label is the strength printed on the line or its spool; zero if unknown.
	Label unit.Force
	// Wear is the inspection grade: 0 as new, 1 fluffed, 2 worn, 3 retire.
	Wear int
	// OwnMu is the friction on smooth metal that the user measured; zero if he did not.
	OwnMu float64
	// OwnSpread is how far that may be off; zero: it is taken as it is.
	OwnSpread evidence.Interval
	// Length between its joints; zero if not given.
	Length unit.Length
}

// Mu is the line's friction coefficient on smooth metal: the user's own, or that
// of its material.
func (l Line) Mu(wet bool) evidence.Figure {
	if l.OwnMu > 0 {
		mu := evidence.Exactly(l.OwnMu)
		if l.OwnSpread.High > 0 {
			mu = l.OwnSpread
		}
		return evidence.Figure{Interval: mu, Tag: evidence.Yours, Source: "measured by you"}
	}
	return l.Material.Mu(wet)
}

// Strength is what a line can bear, with every way of finding it.
type Strength struct {
	// Options hold all figures in newtons, in the order of the catalogue.
	Options []Option
	// AsNew is the figure that counts for the new, dry line, Why says how it was found.
	AsNew evidence.Figure
	Why   Why
	// Capacity is what is left now, wet and worn: see [Line.Bears].
	Capacity evidence.Figure
}

// Why says how the figure that counts was found.
type Why int

const (
	LabelWins   Why = iota // the label wins over any rule
	OnlyFigure             // there is no other
	OneInterval            // the figures together, lowest to highest
)

// Option is one way of finding the breaking strength.
type Option struct {
	Name string
	// Newtons is the strength, with its spread and evidence.
	Newtons evidence.Figure
	// Ends of the figure that counts which it gives.
	Low, Likely, High bool
}

// MBL is the figure that counts, in newtons.
func (s Strength) MBL() evidence.Figure { return s.AsNew }

// WearFactor is the share of strength left at wear grade 0 to 3. Our own rule,
// meant to be cautious: it has no source.
func WearFactor(grade int) float64 { return [...]float64{1, 0.9, 0.75, 0.5}[grade] }

// Makes reports whether the material is sold in construction c.
func (m *Material) Makes(c Construction) bool { return slices.Contains(m.Constructions, c) }

// Mu is the friction coefficient on smooth metal.
func (m *Material) Mu(wet bool) evidence.Figure {
	if wet {
		return m.Friction.Wet
	}
	return m.Friction.Dry
}

// RopeOnRope is the friction coefficient of the line on itself.
func (m *Material) RopeOnRope(wet bool) evidence.Figure {
	if wet {
		return m.Friction.RopeWet
	}
	return m.Friction.RopeDry
}

// Complete fills in the diameter of a line known only by its label, from the weakest
// stress or the rule, so that the line is never taken for thinner than it is: a guess
// that is too thin lets it through an eye that it does not pass. It reports whether it
// did.
func (l Line) Complete() (Line, bool) {
	if l.Diameter > 0 || l.Label <= 0 {
		return l, false
	}
	for _, w := range l.Material.Laws {
		if !slices.Contains(w.Constructions, l.Construction) || w.Table != nil {
			continue
		}
		// A falling stress makes the strength grow slower than the square, never shrink,
		// so that a few rounds find the diameter.
		mm := 1.0
		for range 40 {
			mm = math.Sqrt(float64(l.Label) / w.newtonsPerSquareMM(mm).Low)
		}
		l.Diameter = max(l.Diameter, unit.Length(mm)*unit.Millimetre)
	}
	return l, l.Diameter > 0
}

// Strength works out the breaking strength of the line as new and dry. The label wins;
// otherwise all figures make one interval. The error names the field.
func (l Line) Strength() (Strength, error) {
	if l.Material == nil {
		return Strength{}, problem.New("material", "not chosen", "choose a material")
	}
	var s Strength
	if l.Diameter > 0 {
		for _, w := range l.Material.Laws {
			if !slices.Contains(w.Constructions, l.Construction) {
				continue
			}
			if n, ok := w.at(l.Diameter); ok {
				s.Options = append(s.Options, Option{Name: w.Name, Newtons: evidence.Figure{Interval: n, Unit: evidence.Newton, Tag: w.Tag, Source: w.Source}})
			}
		}
	}
	switch {
	case l.Label > 0:
		label := Option{"label", evidence.Figure{Interval: evidence.Exactly(float64(l.Label)), Unit: evidence.Newton,
			Tag: evidence.Yours, Source: "the strength on the line's label"}, true, true, true}
		s.Options = append([]Option{label}, s.Options...)
		s.Why, s.AsNew = LabelWins, label.Newtons
	case len(s.Options) == 0:
		return s, problem.New("diameter_mm", fmt.Sprintf("no strength is known for %s, %s", l.Material.Name, l.Construction),
			"give the diameter, or the strength on the label")
	case len(s.Options) == 1:
		o := &s.Options[0]
		o.Low, o.Likely, o.High = true, true, true
		s.Why, s.AsNew = OnlyFigure, o.Newtons
	default:
		s.Why, s.AsNew = OneInterval, together(s.Options)
	}
	return s, nil
}

// together makes one interval of several figures and marks which gives which end.
func together(options []Option) evidence.Figure {
	low, likely, high := &options[0], &options[0], &options[0]
	for i := range options {
		o := &options[i]
		if o.Newtons.Low < low.Newtons.Low {
			low = o
		}
		if o.Newtons.Likely > likely.Newtons.Likely {
			likely = o
		}
		if o.Newtons.High > high.Newtons.High {
			high = o
		}
	}
	low.Low, likely.Likely, high.High = true, true, true
	f := evidence.Figure{Interval: evidence.Interval{Low: low.Newtons.Low, Likely: likely.Newtons.Likely, High: high.Newtons.High}, Unit: evidence.Newton,
		Tag: evidence.Tags[max(slices.Index(evidence.Tags, low.Newtons.Tag), slices.Index(evidence.Tags, high.Newtons.Tag))]}
	f.Source = fmt.Sprintf("low end: %s (%s); likely and high end: %s (%s)", low.Name, low.Newtons.Tag, high.Name, high.Newtons.Tag)
	return f
}

// Bears works out what the line bears now, wet or dry: its strength as new with
// [Strength.Capacity] filled in. The error names the field that is missing.
func (l Line) Bears(wet bool) (Strength, error) {
	s, err := l.Strength()
	if err == nil {
		s.Capacity = l.Capacity(s.MBL(), wet)
	}
	return s, err
}

// Capacity is MBL × wet × wear in newtons: what the line itself bears now.
func (l Line) Capacity(mbl evidence.Figure, wet bool) evidence.Figure {
	f := mbl
	if wet {
		f.Interval = f.Interval.Times(l.Material.Wet.Interval)
	}
	f.Interval = f.Interval.Scale(WearFactor(l.Wear))
	return f
}

// Check reports an incomplete or contradictory material.
func (m *Material) Check() error {
	var l problem.List
	if m.ID == "" {
		l.Add("id", "missing", "give the material a short id")
	}
	if m.Name == "" {
		l.Add("name", "missing", "give the material a name")
	}
	if len(m.Constructions) == 0 {
		l.Add("constructions", "missing", "say how the material is made up")
	}
	l.Take("wet", m.Wet.Check(0.3, 1.5))
	l.Take("stretch", m.Stretch.Check(0.005, 1))
	l.Take("friction.dry", m.Friction.Dry.Check(0.01, 1))
	l.Take("friction.wet", m.Friction.Wet.Check(0.01, 1))
	l.Take("friction.rope_dry", m.Friction.RopeDry.Check(0.01, 1))
	l.Take("friction.rope_wet", m.Friction.RopeWet.Check(0.01, 1))
	for i, w := range m.Laws {
		path := fmt.Sprintf("laws[%d]", i)
		kinds := 0
		for _, set := range []bool{w.Seamanship > 0, len(w.Table) > 0, w.PerSquare.Likely > 0, w.Stress.Likely > 0, len(w.Bands) > 0} {
			if set {
				kinds++
			}
		}
		if kinds != 1 {
			l.Add(path, "needs exactly one of seamanship, table, per_square, stress and bands", "keep one")
		}
		if w.Name == "" || w.Source == "" || !w.Tag.Valid() {
			l.Add(path, "has no name, no source or no evidence tag", "fill in name, tag and source")
		}
		for _, c := range w.Constructions {
			if !m.Makes(c) {
				l.Add(path+".constructions", fmt.Sprintf("%q is not a construction of this material", c), "list it under constructions or drop it here")
			}
		}
	}
	for _, c := range m.Constructions {
		covered := false
		for _, w := range m.Laws {
			covered = covered || slices.Contains(w.Constructions, c)
		}
		if !covered {
			l.Add("laws", fmt.Sprintf("no strength for construction %q", c), "add a law that covers it")
		}
	}
	return l.Err()
}

// newtonsPerSquareMM is the law at a diameter in mm as force per square of it; a table
// has none.
func (w Law) newtonsPerSquareMM(mm float64) evidence.Interval {
	switch {
	case w.Seamanship > 0:
		return evidence.Exactly(w.Seamanship / 300 * float64(unit.Tonne))
	case w.PerSquare.Likely > 0:
		return w.PerSquare.Scale(1e3)
	case len(w.Bands) > 0:
		return w.stressAt(mm).Scale(math.Pi / 4)
	}
	return w.Stress.Scale(math.Pi / 4)
}

// stressAt interpolates between the bands.
func (w Law) stressAt(mm float64) evidence.Interval {
	i := slices.IndexFunc(w.Bands, func(b Band) bool { return b.MM >= mm })
	switch {
	case i < 0:
		return w.Bands[len(w.Bands)-1].Stress
	case i == 0:
		return w.Bands[0].Stress
	}
	a, b := w.Bands[i-1], w.Bands[i]
	t := (mm - a.MM) / (b.MM - a.MM)
	mix := func(x, y float64) float64 { return x + t*(y-x) }
	return evidence.Interval{Low: mix(a.Stress.Low, b.Stress.Low), Likely: mix(a.Stress.Likely, b.Stress.Likely), High: mix(a.Stress.High, b.Stress.High)}
}

// at gives the strength in newtons at diameter d; false outside a table's rows.
func (w Law) at(d unit.Length) (evidence.Interval, bool) {
	mm := d.MM()
	if w.Table == nil {
		return w.newtonsPerSquareMM(mm).Scale(mm * mm), true
	}
	rows := make([]float64, 0, len(w.Table))
	for k := range w.Table {
		rows = append(rows, k)
	}
	slices.Sort(rows)
	i, _ := slices.BinarySearch(rows, mm)
	switch {
	case i < len(rows) && rows[i] == mm:
		return evidence.Exactly(w.Table[mm] * 1e3), true
	case i == 0 || i == len(rows):
		return evidence.Interval{}, false
	}
	a, b := rows[i-1], rows[i]
	t := math.Log(mm/a) / math.Log(b/a)
	kn := w.Table[a] * math.Pow(w.Table[b]/w.Table[a], t)
	return evidence.Exactly(kn * 1e3), true
}
