// Package line answers what a rope or a fishing line can bear and how it grips.
//
// Breaking strength (MBL, minimum breaking load) comes from the label if there
// is one, otherwise from every law the catalogue knows for the material and
// construction, and the lowest of them is used. Three kinds of law exist:
//
//   - the seamanship rule k·D²/300 in tonnes-force, D in mm;
//   - a table of diameters, interpolated as a power law between its rows;
//   - a stress on the full circle of the stated diameter, in MPa.
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
	Laws          []Law          `json:"-" yaml:"laws"`
	// Wet is the share of strength left when wet, 1 = no change.
	Wet evidence.Figure `json:"wet"`
	// Stretch at the breaking load, as a share of the length.
	Stretch evidence.Figure `json:"stretch"`
	// Friction holds the coefficient on smooth metal, dry and wet.
	Friction Friction `json:"friction"`
}

// Friction coefficients of a line on smooth metal.
type Friction struct {
	Dry evidence.Figure `json:"dry"`
	Wet evidence.Figure `json:"wet"`
}

// Law gives a breaking strength from a diameter. Exactly one of Seamanship,
// Table and Stress is set.
type Law struct {
	Name          string
	Constructions []Construction
	// Seamanship is k in k·D²/300 tonnes-force, D in mm.
	Seamanship float64
	// Table maps diameter in mm to kN.
	Table map[float64]float64
	// Stress is breaking force over the full circle of the diameter, MPa.
	Stress evidence.Interval
	Tag    evidence.Tag
	Source string
}

// Surface scales the friction coefficient of a line.
type Surface struct {
	ID     string          `json:"id"`
	Name   string          `json:"name"`
	Factor evidence.Figure `json:"factor"`
}

// Line is one piece of line in a rig.
type Line struct {
	Material     *Material
	Construction Construction
	// Diameter nominal. It may be zero if Label is given: see [Line.Complete].
	Diameter unit.Length
	// Label is the strength printed on the line or its spool; zero if unknown.
	Label unit.Force
	// Wear is the inspection grade: 0 as new, 1 furry, 2 worn, 3 retire.
	Wear int
	// OwnMu is the friction on smooth metal that the user measured; zero if he did not.
	OwnMu float64
	// Length between its joints; zero if not given.
	Length unit.Length
}

// Mu is the line's friction coefficient on smooth metal: the user's own, or that
// of its material.
func (l Line) Mu(wet bool) evidence.Figure {
	if l.OwnMu > 0 {
		return evidence.Figure{Interval: evidence.Exactly(l.OwnMu), Tag: evidence.Yours, Source: "measured by you"}
	}
	return l.Material.Mu(wet)
}

// Strength is what a line can bear, with every way of finding it.
type Strength struct {
	// Options hold all figures in newtons, in the order of the catalogue.
	Options []Option
	// Used is the index of the option that counts, Why says why.
	Used int
	Why  Why
	// Capacity is what is left now, wet and worn: see [Line.Bears].
	Capacity evidence.Figure
}

// Why one way of finding a strength counts and not another.
type Why int

const (
	LabelWins  Why = iota // the label wins over any rule
	OnlyFigure            // there is no other
	LowestWins            // the safe side
)

// Option is one way of finding the breaking strength.
type Option struct {
	Name string
	// Newtons is the strength, with its spread and evidence.
	Newtons evidence.Figure
}

// MBL is the figure that counts, in newtons.
func (s Strength) MBL() evidence.Figure { return s.Options[s.Used].Newtons }

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

// Complete fills in the diameter of a line known only by its label, from the
// strongest law that can be turned round (rule or stress), so that the line is
// never taken for thicker than it is. It reports whether it did.
func (l Line) Complete() (Line, bool) {
	if l.Diameter > 0 || l.Label <= 0 {
		return l, false
	}
	var best unit.Length
	for _, w := range l.Material.Laws {
		if !slices.Contains(w.Constructions, l.Construction) || w.Table != nil {
			continue
		}
		d := unit.Length(math.Sqrt(float64(l.Label)/w.newtonsPerSquareMM().Likely)) * unit.Millimetre
		if best == 0 || d < best {
			best = d
		}
	}
	l.Diameter = best
	return l, best > 0
}

// Strength works out the breaking strength of the line as new and dry. The
// label wins; otherwise the lowest figure is used. The error names the field.
func (l Line) Strength() (Strength, error) {
	if l.Material == nil {
		return Strength{}, problem.New("material", "not chosen", "choose a material")
	}
	var s Strength
	if l.Label > 0 {
		s.Options = append(s.Options, Option{"label", evidence.Figure{
			Interval: evidence.Exactly(float64(l.Label)), Unit: evidence.Newton, Tag: evidence.Yours, Source: "the strength on the line's label"}})
	}
	if l.Diameter > 0 {
		for _, w := range l.Material.Laws {
			if !slices.Contains(w.Constructions, l.Construction) {
				continue
			}
			if n, ok := w.at(l.Diameter); ok {
				s.Options = append(s.Options, Option{w.Name, evidence.Figure{Interval: n, Unit: evidence.Newton, Tag: w.Tag, Source: w.Source}})
			}
		}
	}
	switch {
	case len(s.Options) == 0:
		return s, problem.New("diameter_mm", fmt.Sprintf("no strength is known for %s, %s", l.Material.Name, l.Construction),
			"give the diameter, or the strength on the label")
	case l.Label > 0:
		s.Why = LabelWins
	case len(s.Options) == 1:
		s.Why = OnlyFigure
	default:
		for i, o := range s.Options {
			if o.Newtons.Likely < s.MBL().Likely {
				s.Used = i
			}
		}
		s.Why = LowestWins
	}
	return s, nil
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
	for i, w := range m.Laws {
		path := fmt.Sprintf("laws[%d]", i)
		kinds := 0
		for _, set := range []bool{w.Seamanship > 0, len(w.Table) > 0, w.Stress.Likely > 0} {
			if set {
				kinds++
			}
		}
		if kinds != 1 {
			l.Add(path, "needs exactly one of seamanship, table and stress", "keep one")
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

// newtonsPerSquareMM is the law as force per square of the diameter in mm; a
// table has none.
func (w Law) newtonsPerSquareMM() evidence.Interval {
	if w.Seamanship > 0 {
		return evidence.Exactly(w.Seamanship / 300 * float64(unit.Tonne))
	}
	return w.Stress.Scale(math.Pi / 4)
}

// at gives the strength in newtons at diameter d; false outside a table's rows.
func (w Law) at(d unit.Length) (evidence.Interval, bool) {
	mm := d.MM()
	if w.Table == nil {
		return w.newtonsPerSquareMM().Scale(mm * mm), true
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
