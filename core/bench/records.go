package bench

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"time"

	"oarweed/core/name"
	"oarweed/core/problem"
	"oarweed/core/rig"
)

// Tied is one end of a specimen.
type Tied struct {
	Knot string `json:"knot"`
	// Wraps and Finishing wraps, where the tyer chose them; 0: as usual.
	Wraps     int `json:"wraps,omitempty" minimum:"0" maximum:"40"`
	Finishing int `json:"finishing,omitempty" minimum:"0" maximum:"10"`
	// Lubricated when it was drawn up, Trimmed close, Undressed: drawn up as it fell; By whom
	// it was tied.
	Lubricated bool   `json:"lubricated,omitempty"`
	Trimmed    bool   `json:"trimmed,omitempty"`
	Undressed  bool   `json:"undressed,omitempty"`
	By         string `json:"by,omitempty"`
}

// Variant tells ends apart that are the same knot tied otherwise.
type Variant struct {
	Knot                           string
	Wraps, Finishing               int
	Lubricated, Trimmed, Undressed bool
}

// Variant of the end: all but who tied it.
func (t Tied) Variant() Variant {
	return Variant{t.Knot, t.Wraps, t.Finishing, t.Lubricated, t.Trimmed, t.Undressed}
}

// Series is a number of pulls in one line: what is compared, and the specimens planned for it.
type Series struct {
	ID       int64 `json:"id" readOnly:"true"`
	Revision int64 `json:"revision" readOnly:"true"`
	// Key names it to its pulls, and stays when records are moved to another database.
	Key  string `json:"key,omitempty"`
	Name string `json:"name"`
	// Line it is tied in, From the name of the line of the locker it was cut from.
	Line rig.Line `json:"line"`
	From string   `json:"from,omitempty"`
	Wet  bool     `json:"wet,omitempty"`
	// SoakMin is how long it lay in water, GaugeMM the line between the knots, SpeedMMS how
	// fast it is drawn out.
	SoakMin  float64 `json:"soak_min,omitempty"`
	GaugeMM  float64 `json:"gauge_mm,omitempty"`
	SpeedMMS float64 `json:"speed_mm_s,omitempty"`
	// YardstickKN is what one calls good.
	YardstickKN float64    `json:"yardstick_kn,omitempty"`
	Specimens   []Specimen `json:"specimens" nullable:"false"`
	Note        string     `json:"note,omitempty"`
}

// Specimen is one piece with a knot at each end, A at the cell.
type Specimen struct {
	A   Tied   `json:"a"`
	B   Tied   `json:"b"`
	Why string `json:"why,omitempty" doc:"what it is pulled for, in the instructor's words"`
}

// MostSpecimens in a series.
const MostSpecimens = 200

// Check reports what cannot be, by field; known tells knot ids.
func (s *Series) Check(known func(knot string) bool) error {
	var l problem.List
	n, err := name.Clean(s.Name, 80)
	l.Take("name", err)
	s.Name = n
	if s.Line.Material == "" {
		l.Add("line.material", "is not chosen", "choose what the line is made of")
	}
	within(&l, "soak_min", s.SoakMin, 0, 1e5, "minutes")
	within(&l, "gauge_mm", s.GaugeMM, 0, 1e5, "millimetres")
	within(&l, "speed_mm_s", s.SpeedMMS, 0, 1000, "millimetres a second")
	within(&l, "yardstick_kn", s.YardstickKN, 0, 1e4, "kilonewtons")
	if len(s.Specimens) == 0 || len(s.Specimens) > MostSpecimens {
		l.Add("specimens", fmt.Sprintf("there are %d", len(s.Specimens)), fmt.Sprintf("plan 1 to %d", MostSpecimens))
	}
	for i, x := range s.Specimens {
		for end, t := range map[string]Tied{"a": x.A, "b": x.B} {
			l.Take(fmt.Sprintf("specimens[%d].%s", i, end), t.check(known))
		}
	}
	if len([]rune(s.Note)) > 2000 {
		l.Add("note", "is too long", "use 2000 letters at the most")
	}
	return l.Err()
}

func (t Tied) check(known func(string) bool) error {
	var l problem.List
	if !known(t.Knot) {
		l.Add("knot", fmt.Sprintf("%q is not a knot here", t.Knot), "choose one of the catalogue")
	}
	if t.Wraps < 0 || t.Wraps > 40 {
		l.Add("wraps", fmt.Sprintf("%d is too many", t.Wraps), "give 0 to 40")
	}
	if t.Finishing < 0 || t.Finishing > 10 {
		l.Add("finishing", fmt.Sprintf("%d is too many", t.Finishing), "give 0 to 10")
	}
	if len([]rune(t.By)) > 80 {
		l.Add("by", "is too long", "use 80 letters at the most")
	}
	return l.Err()
}

func within(l *problem.List, field string, v, low, high float64, unit string) {
	if !(v >= low && v <= high) {
		l.Add(field, fmt.Sprintf("%g is no number of %s", v, unit), fmt.Sprintf("give %g to %g", low, high))
	}
}

// Source of a pull.
type Source string

const (
	FromCell Source = "cell"
	FromDial Source = "dial" // read by hand
	FromFile Source = "file"
)

// Pull is one pull of a specimen of a series.
type Pull struct {
	ID       int64 `json:"id" readOnly:"true"`
	Revision int64 `json:"revision" readOnly:"true"`
	// Key is made by whoever sends it; the readings are kept under it.
	Key    string    `json:"key"`
	Series string    `json:"series" doc:"key of the series"`
	At     time.Time `json:"at" required:"false"`
	A      Tied      `json:"a"`
	B      Tied      `json:"b"`
	Source Source    `json:"source" enum:"cell,dial,file"`
	// PeakKN is the highest load it bore; Where it failed, empty if it did not.
	PeakKN  float64 `json:"peak_kn"`
	Outcome Outcome `json:"outcome" enum:"held,crept,caught,slipped,broke"`
	Where   Where   `json:"where,omitempty" enum:"a,b,in-a,in-b,line,grip"`
	// Noted are slips marked by hand while it was made, time since its first reading; they are
	// taken into Corrected when it is recorded.
	Noted []Mark `json:"noted,omitempty" nullable:"false"`
	// Found are the marks as they were found in the trace; Corrected as they were put right.
	Found     *Marks     `json:"found,omitempty"`
	Corrected *Corrected `json:"corrected,omitempty"`
	// Creep from mark to mark at each end, mm; nil: not measured.
	CreepAMM *float64 `json:"creep_a_mm,omitempty"`
	CreepBMM *float64 `json:"creep_b_mm,omitempty"`
	Note     string   `json:"note,omitempty"`
	// Gap: the connection was lost for a while.
	Gap bool `json:"gap,omitempty"`
	// Same is the fingerprint of a trace that came from a file.
	Same string `json:"same,omitempty" readOnly:"true"`
}

// Corrected are marks put right by hand; what is nil stands as it was found.
type Corrected struct {
	Slips *[]Mark `json:"slips,omitempty"`
	Peak  *Mark   `json:"peak,omitempty"`
	Break *Mark   `json:"break,omitempty"`
}

// sameSlip is how near in time a slip marked by hand is the one that was found: a hand is slow.
const sameSlip = 0.5

// TakeNoted lays the slips that were marked by hand beside those that were found; began is the
// first reading by the clock of those. One that is near a found one is that.
func (p *Pull) TakeNoted(began float64) {
	if len(p.Noted) == 0 {
		return
	}
	all := slices.Clone(p.Slips())
	for _, m := range p.Noted {
		m.S += began
		if !slices.ContainsFunc(all, func(f Mark) bool { return math.Abs(f.S-m.S) < sameSlip }) {
			all = append(all, m)
		}
	}
	slices.SortFunc(all, func(a, b Mark) int { return cmp.Compare(a.S, b.S) })
	if p.Corrected == nil {
		p.Corrected = &Corrected{}
	}
	p.Corrected.Slips, p.Noted = &all, nil
}

// Slips of the pull, as corrected or else as found.
func (p Pull) Slips() []Mark {
	switch {
	case p.Corrected != nil && p.Corrected.Slips != nil:
		return *p.Corrected.Slips
	case p.Found != nil:
		return p.Found.Slips
	}
	return nil
}

// LoadKN is the highest load it bore: as corrected, else as read.
func (p Pull) LoadKN() float64 {
	if p.Corrected != nil && p.Corrected.Peak != nil {
		return p.Corrected.Peak.LoadKN
	}
	return p.PeakKN
}

// Check reports what cannot be, by field.
func (p *Pull) Check(known func(knot string) bool, now time.Time) error {
	var l problem.List
	l.Take("a", p.A.check(known))
	l.Take("b", p.B.check(known))
	if key, err := name.Clean(p.Key, 64); err != nil || key == "" {
		l.Add("key", "is missing", "give a key of your own, so that sending it again makes no second pull")
	}
	if p.At.After(now.Add(time.Minute)) {
		l.Add("at", "is in the future", "correct the time")
	}
	if !slices.Contains([]Source{FromCell, FromDial, FromFile}, p.Source) {
		l.Add("source", fmt.Sprintf("%q is none", p.Source), "use cell, dial or file")
	}
	if !(p.PeakKN > 0) || math.IsInf(p.PeakKN, 0) || p.PeakKN > 1e4 {
		l.Add("peak_kn", fmt.Sprintf("%g is no load", p.PeakKN), "give the highest load in kN, above 0")
	}
	if !slices.Contains(Outcomes, p.Outcome) {
		l.Add("outcome", fmt.Sprintf("%q is none", p.Outcome), "use held, crept, caught, slipped or broke")
	}
	if p.Where != "" && !slices.Contains(Wheres, p.Where) {
		l.Add("where", fmt.Sprintf("%q is no place", p.Where), "use a, b, in-a, in-b, line or grip")
	}
	if p.Failed() && p.Where == "" {
		l.Add("where", "is missing", "say where it failed: knot A, knot B, in the line, at the grip")
	}
	if !p.Failed() && p.Where != "" {
		l.Add("where", "is given, and nothing failed", "leave it out, or say that it broke or slipped out")
	}
	for field, v := range map[string]*float64{"creep_a_mm": p.CreepAMM, "creep_b_mm": p.CreepBMM} {
		if v != nil {
			within(&l, field, *v, 0, 1e4, "millimetres")
		}
	}
	if len([]rune(p.Note)) > 2000 {
		l.Add("note", "is too long", "use 2000 letters at the most")
	}
	return l.Err()
}

// Failed reports whether something gave for good.
func (p Pull) Failed() bool {
	return p.Outcome == Broke || p.Outcome == SlippedOut || (p.Outcome == Caught && p.Where != "")
}

// Gave reports which end gave; neither where it held, or the line or a grip failed.
func (p Pull) Gave() (a, b bool) {
	if !p.Failed() {
		return false, false
	}
	return p.Where == KnotA || p.Where == InA, p.Where == KnotB || p.Where == InB
}

// ValuesOf are the values of each variant in pulls, oldest first: of the end that gave a
// failure, of the other one an "at least"; of both where neither did.
func ValuesOf(pulls []Pull) map[Variant][]Value {
	out := map[Variant][]Value{}
	for _, p := range byTime(pulls) {
		a, b := p.Gave()
		out[p.A.Variant()] = append(out[p.A.Variant()], Value{p.LoadKN(), a})
		out[p.B.Variant()] = append(out[p.B.Variant()], Value{p.LoadKN(), b})
	}
	return out
}

func byTime(pulls []Pull) []Pull {
	return slices.SortedStableFunc(slices.Values(pulls), func(a, b Pull) int { return cmp.Or(a.At.Compare(b.At), cmp.Compare(a.ID, b.ID)) })
}

// DuelOf counts the pulls in which two variants were drawn against each other.
func DuelOf(pulls []Pull, a, b Variant) Duel {
	return duel(pulls, func(t Tied) bool { return t.Variant() == a }, func(t Tied) bool { return t.Variant() == b })
}

// duel counts how often each of two kinds of end gave, where one was drawn against the other.
func duel(pulls []Pull, a, b func(Tied) bool) (d Duel) {
	for _, p := range pulls {
		gaveA, gaveB := p.Gave()
		switch {
		case a(p.A) && b(p.B):
		case a(p.B) && b(p.A):
			gaveA, gaveB = gaveB, gaveA
		default:
			continue
		}
		if gaveA {
			d.AGave++
		} else if gaveB {
			d.BGave++
		}
	}
	return d
}

// Pairs plans pulls of two ends against each other, each at each end of the bench equally
// often, for what an end of the bench does to a knot falls out so.
func Pairs(a, b Tied, n int) []Specimen {
	out := make([]Specimen, n)
	for i := range out {
		out[i] = Specimen{A: a, B: b}
		if i%2 == 1 {
			out[i] = Specimen{A: b, B: a}
		}
	}
	return out
}

// Factors of a small series over how one knot is tied; an empty list leaves it as it is.
type Factors struct {
	Wraps      []int  `json:"wraps,omitempty"`
	Finishing  []int  `json:"finishing,omitempty"`
	Lubricated []bool `json:"lubricated,omitempty"`
	Trimmed    []bool `json:"trimmed,omitempty"`
	Undressed  []bool `json:"undressed,omitempty"`
}

// Grid plans every combination of the factors against another end, each so many times and at
// each end of the bench equally often, rounds one after another so that what changes with time
// falls out too.
func Grid(t, against Tied, f Factors, times int) []Specimen {
	variants := []Tied{t}
	spread := func(n int, set func(*Tied, int)) {
		if n == 0 {
			return
		}
		var next []Tied
		for _, v := range variants {
			for i := range n {
				w := v
				set(&w, i)
				next = append(next, w)
			}
		}
		variants = next
	}
	spread(len(f.Wraps), func(t *Tied, i int) { t.Wraps = f.Wraps[i] })
	spread(len(f.Finishing), func(t *Tied, i int) { t.Finishing = f.Finishing[i] })
	spread(len(f.Lubricated), func(t *Tied, i int) { t.Lubricated = f.Lubricated[i] })
	spread(len(f.Trimmed), func(t *Tied, i int) { t.Trimmed = f.Trimmed[i] })
	spread(len(f.Undressed), func(t *Tied, i int) { t.Undressed = f.Undressed[i] })
	var out []Specimen
	for round := range times {
		for i, v := range variants {
			if (round+i)%2 == 0 {
				out = append(out, Specimen{A: v, B: against})
			} else {
				out = append(out, Specimen{A: against, B: v})
			}
		}
	}
	return out
}

// Plan asks for specimens: one knot against another, as they are or over some factors of the
// first, each so many times.
type Plan struct {
	A       Tied    `json:"a"`
	B       Tied    `json:"b"`
	Factors Factors `json:"factors"`
	Times   int     `json:"times" minimum:"1" maximum:"200"`
}

// Specimens lays the plan out. The error names the field.
func (p Plan) Specimens(known func(knot string) bool) ([]Specimen, error) {
	var l problem.List
	l.Take("a", p.A.check(known))
	l.Take("b", p.B.check(known))
	out := Grid(p.A, p.B, p.Factors, max(0, p.Times))
	if len(out) == 0 || len(out) > MostSpecimens {
		l.Add("times", fmt.Sprintf("makes %d specimens", len(out)), fmt.Sprintf("plan 1 to %d", MostSpecimens))
	}
	for i, x := range out {
		l.Take(fmt.Sprintf("factors, specimen %d", i+1), x.A.check(known))
		l.Take(fmt.Sprintf("factors, specimen %d", i+1), x.B.check(known))
	}
	return out, l.Err()
}

// Next is the first specimen that has not been pulled, from 0, or −1: each pull ticks off the
// first like it that is left.
func (s Series) Next(pulls []Pull) int {
	left := map[[2]Variant]int{}
	for _, p := range pulls {
		left[[2]Variant{p.A.Variant(), p.B.Variant()}]++
	}
	for i, x := range s.Specimens {
		k := [2]Variant{x.A.Variant(), x.B.Variant()}
		if left[k] == 0 {
			return i
		}
		left[k]--
	}
	return -1
}

// Proof is a proof pull of a knot that is going to be used: drawn nearly to breaking, or a join
// under tension.
type Proof struct {
	ID       int64       `json:"id" readOnly:"true"`
	Revision int64       `json:"revision" readOnly:"true"`
	Knot     string      `json:"knot"`
	At       time.Time   `json:"at" required:"false"`
	LoadKN   float64     `json:"load_kn,omitempty" doc:"how far it was drawn; left out where it was not read"`
	Result   ProofResult `json:"result" enum:"passed,crept,broke"`
	Note     string      `json:"note,omitempty" maxLength:"500"`
}

// ProofResult is what a proof pull showed.
type ProofResult string

const (
	Passed     ProofResult = "passed"
	ProofCrept ProofResult = "crept"
	ProofBroke ProofResult = "broke"
)

// Check reports what cannot be, by field.
func (p Proof) Check(known func(knot string) bool, now time.Time) error {
	var l problem.List
	if !known(p.Knot) {
		l.Add("knot", fmt.Sprintf("%q is not a knot here", p.Knot), "choose one of the catalogue")
	}
	if p.At.After(now.Add(time.Minute)) {
		l.Add("at", "is in the future", "correct the time")
	}
	within(&l, "load_kn", p.LoadKN, 0, 1e4, "kilonewtons")
	if !slices.Contains([]ProofResult{Passed, ProofCrept, ProofBroke}, p.Result) {
		l.Add("result", fmt.Sprintf("%q is none", p.Result), "use passed, crept or broke")
	}
	return l.Err()
}
