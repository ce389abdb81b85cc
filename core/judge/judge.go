package judge

import (
	"math"

	"oarweed/core/evidence"
	"oarweed/core/friction"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Verdict is one knot judged in one joint.
type Verdict struct {
	Rig  *rig.Rig
	Knot *knot.Knot
	// Fit is how well it suits the task on this fitting, 0 to 1.
	Fit  float64
	Size Size
	// Dry and Wet are the hold either way; see [Verdict.Now].
	Dry, Wet Hold
	// LettingGo is what the hand holds while it is cast off under load; nil where it is
	// not.
	LettingGo *LettingGo
	Strength  Strength
	// Against holds every limit that the knot violates here; none if it will do.
	Against []Reason
	// But holds what speaks against a knot that will do: it stands below every knot
	// against which nothing speaks.
	But []Reason
	// OtherWork: the knot is made for another task or another thing. Nothing but
	// Against is worked out for it then, unless asked for by [Whatever].
	OtherWork bool
}

// Size of a knot in a joint.
type Size struct {
	// Ratio is thick ÷ thin of two lines joined, or object line ÷ helper; 0 for one line.
	Ratio float64
	// Needs is the line to tie with, the usual tail and a backup included; Least is with
	// the shortest tail, which is what rules it out.
	Needs, Least unit.Length
	// NeedsOther is the same of the second line of a join.
	NeedsOther unit.Length
	// Consumes is what the line is shorter by once the knot is cut off.
	Consumes unit.Length
	// Tail is the end that stays while it is used, before anything is trimmed; LeftOn the
	// end that is left on after trimming, 0 where nothing is trimmed.
	Tail, LeftOn unit.Length
	// Backup is the knot that backs the end up; nil where none is asked for. Its length
	// is in Needs.
	Backup *knot.Knot
	// Seconds to tie it in line of this size.
	Seconds evidence.Interval
	// Wraps of a wrapped knot, and how many fewer than the line asks for; else 0.
	// WrapsOther are those of the thicker line of a join.
	Wraps, WrapsOther, Short int
	// Loop is how long a free loop should be; zero where none is made.
	Loop evidence.Interval
	// PerWrap is the share of strength that each missing wrap costs.
	PerWrap evidence.Interval
	// Bulk is how thick it is when drawn up.
	Bulk unit.Length
}

// Now is the hold that counts, wet or dry.
func (v Verdict) Now() Hold {
	if v.Rig.Wet {
		return v.Wet
	}
	return v.Dry
}

// Will reports whether the knot will do.
func (v Verdict) Will() bool { return len(v.Against) == 0 }

// Judge judges a knot in a joint. A knot made for other work is only told so. backup is
// the knot that backs its end up where people depend on it, nil for none.
func Judge(r *rig.Rig, k, backup *knot.Knot) Verdict {
	if other := otherWork(r, k); other != nil {
		return Verdict{Rig: r, Knot: k, Against: other, OtherWork: true}
	}
	return Whatever(r, k, backup)
}

// Whatever judges a knot that somebody has chosen, whatever it is made for: size,
// hold and strength are worked out even if it is made for other work.
func Whatever(r *rig.Rig, k, backup *knot.Knot) Verdict {
	v := Verdict{Rig: r, Knot: k, Fit: fitOf(r, k), Size: sizeOf(r, k, backup)}
	v.Dry, v.Wet = holds(r, k)
	v.LettingGo = lettingGo(r, k)
	v.Strength = strengthOf(r, k, v.Size.Short)
	if other := otherWork(r, k); other != nil {
		v.Against, v.OtherWork = other, true
	} else {
		v.Against, v.But = v.limits(), v.reservations()
	}
	return v
}

func fitOf(r *rig.Rig, k *knot.Knot) float64 {
	on := ""
	if r.Fitting != nil {
		on = r.Fitting.Kind.ID
	}
	if r.Along {
		return k.Tasks[r.Task.ID].For(on, string(rig.Along), string(r.Water), string(r.Stay))
	}
	return k.Tasks[r.Task.ID].For(on, string(r.Water), string(r.Stay))
}

// loopPerEye is the length of a free loop as a multiple of the width of the hook's eye: 3
// to 4 mm on an eye of 3 mm. Common practice for the millimetres, our own for the rule.
var loopPerEye = evidence.Interval{Low: 1.1, Likely: 1.3, High: 1.5}

// usualMM is the diameter up to which times are those of the catalogue: what a hand
// handles with ease. Thicker line takes longer by the power stiffer. Our own estimate.
const (
	usualMM = 14
	stiffer = 1.5
)

func sizeOf(r *rig.Rig, k, backup *knot.Knot) Size {
	var s Size
	d := r.Line.Diameter
	round := 0.0
	switch {
	case r.Fitting != nil:
		round = math.Pi * float64(r.Fitting.Size+d)
	case r.Other != nil:
		s.Ratio = float64(r.Other.Diameter / d)
		if r.JoinsTwo() && s.Ratio < 1 {
			s.Ratio = 1 / s.Ratio
		}
		round = math.Pi * float64(r.Other.Diameter+d)
	}
	s.Tail = d * unit.Length(k.Tail.Likely)
	s.Bulk = d * unit.Length(k.Bulk)
	knotted := d*unit.Length(k.Uses.Diameters) + unit.Length(k.Uses.Turns*round)
	s.Needs, s.Least = knotted+s.Tail, knotted+d*unit.Length(k.Tail.Low)
	if h := k.ToTie; h != nil {
		s.Needs, s.Least = max(s.Needs, unit.Length(h.Likely)), max(s.Least, unit.Length(h.Low))
	}
	s.NeedsOther = s.Needs
	if r.Other != nil {
		s.NeedsOther = s.Needs * r.Other.Diameter / d
	}
	if h := k.ToTieOther; h != nil {
		s.NeedsOther = max(unit.Length(h.Likely), s.NeedsOther)
	} else if h := k.ToTie; h != nil {
		s.NeedsOther = max(unit.Length(h.Likely), s.NeedsOther)
	}
	if k.LeftOn != nil {
		s.LeftOn = unit.Length(k.LeftOn.Likely) * unit.Millimetre
	}
	s.Consumes = knotted + s.LeftOn
	if k.LeftOn == nil {
		s.Consumes += s.Tail
	}
	if k.Consumes != nil {
		s.Consumes = unit.Length(k.Consumes.Likely)
	}
	if backup != nil {
		s.Backup = backup
		more := d * unit.Length(backup.Uses.Diameters+backup.Tail.Likely)
		s.Needs, s.Least = s.Needs+more, s.Least+more
	}
	if r.Eye > 0 && k.Kind == knot.Loop {
		eye := 2*r.Eye - unit.Length(k.Uses.Turns*round) // the line round the thing is part of it
		eye = max(0, eye)
		s.Needs, s.Least = s.Needs+eye, s.Least+eye
	}
	if k.Loop && r.Fitting != nil {
		s.Loop = loopPerEye.Scale(float64(r.Fitting.Size))
	}
	s.Needs, s.Least = s.Needs+2*r.Distance, s.Least+2*r.Distance
	slower := math.Max(1, math.Pow(d.MM()/usualMM, stiffer))
	s.Seconds = k.Seconds.Scale(slower)
	if k.Wraps != nil {
		s.Wraps, s.PerWrap = k.Wraps.For(Test(r), water(r)), k.Wraps.Loss.Interval
		s.WrapsOther = k.Wraps.Other
		if r.Wraps > 0 {
			s.Short = max(0, s.Wraps-r.Wraps)
			s.Wraps = r.Wraps
		}
	}
	return s
}

// water for which wraps are counted: the flats are salt.
func water(r *rig.Rig) string {
	if r.Water == rig.Fresh {
		return string(rig.Fresh)
	}
	return string(rig.Salt)
}

// Test is the strength by which an angler calls the line, in pounds: the one printed on
// it, or else that of the new, dry line. In a join it is the weaker line's.
func Test(r *rig.Rig) float64 {
	lb := unit.Force(r.LineBears.MBL().Likely).LbTest()
	if r.Other != nil && r.JoinsTwo() {
		lb = math.Min(lb, unit.Force(r.OtherBears.MBL().Likely).LbTest())
	}
	return lb
}

// Purchase is what a trucker's hitch makes of a pull in this line: tension ÷ pull, with
// the friction that use teaches; low at the highest friction.
func Purchase(r *rig.Rig) evidence.Interval {
	b := r.Use.Belief(r.Line.Material, r.Wet)
	anchor := b.Metal
	if r.Fitting != nil {
		anchor = anchor.Times(r.Fitting.Factor.Interval)
	}
	return evidence.Interval{Low: friction.Purchase(b.Rope.High, anchor.High), Likely: friction.Purchase(b.Rope.Likely, anchor.Likely), High: friction.Purchase(b.Rope.Low, anchor.Low)}
}

// Strength of a joint.
type Strength struct {
	// Capacity is what it bears, in newtons; Share what the knot keeps of the line.
	Capacity evidence.Figure
	Share    evidence.Figure
	// Fails is what happens at its limit.
	Fails knot.Fails
	// Times is likely capacity ÷ load. Margin is capacity at its worst ÷ twice the load.
	Margin, Times float64
	// New is the low end of the new, dry line ÷ (load × design factor).
	New    float64
	Enough Enough
}

// Enough says how the line and the joint stand to what is asked for.
type Enough int

const (
	Ample Enough = iota // both checks are met
	Under               // the new, dry line bears less than the design factor asks for
	Thin                // what is left in the joint at its worst is less than twice the load
)

func strengthOf(r *rig.Rig, k *knot.Knot, short int) Strength {
	of := func(l line.Line) knot.Efficiency {
		return k.EfficiencyOf(l.Material.ID, r.Task.ID, knot.In{Construction: string(l.Construction), Wet: r.Wet})
	}
	e := of(r.Line)
	if r.Other != nil && r.JoinsTwo() {
		if o := of(*r.Other); o.Value.Likely < e.Value.Likely {
			e = o
		}
	}
	share := e.Figure()
	if short > 0 || r.Bare {
		share = share.Measured(nil) // what was pulled had its wraps
	}
	if short > 0 {
		loss := k.Wraps.Loss
		n := float64(short)
		share.Interval = evidence.Interval{
			Low:    share.Low * math.Pow(1-loss.High, n),
			Likely: share.Likely * math.Pow(1-loss.Likely, n),
			High:   share.High * math.Pow(1-loss.Low, n),
		}
	}
	if r.Bare && k.Wraps != nil && k.Wraps.Finish != nil {
		// The share of the catalogue is that of the finished join.
		gain := k.Wraps.Finish
		share.Interval = evidence.Interval{Low: share.Low / (1 + gain.High), Likely: share.Likely / (1 + gain.Likely), High: share.High / (1 + gain.Low)}
	}
	capacity := r.Capacity.Times(share.Interval)
	load := float64(r.Load)
	newLine := r.LineBears.MBL().Low
	if r.Other != nil && r.JoinsTwo() {
		newLine = math.Min(newLine, r.OtherBears.MBL().Low)
	}
	s := Strength{
		Capacity: evidence.Figure{Interval: capacity, Unit: evidence.Newton, Tag: evidence.Computed,
			Source: "strength of the line (" + string(r.Capacity.Tag) + ") × share kept by the knot (" + string(share.Tag) + ")"},
		Share: share, Fails: e.Fails,
		Margin: capacity.Low / (LeftAtWorst * load),
		Times:  capacity.Likely / load,
		New:    newLine / (load * r.DesignFactor),
	}
	switch {
	case s.Margin < 1:
		s.Enough = Thin
	case s.New < 1:
		s.Enough = Under
	}
	return s
}

// LeftAtWorst is how many times the load must be left in the joint after knot, water and
// wear, each at its worst. Our own rule, no source.
const LeftAtWorst = 2
