package judge

import (
	"slices"

	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// StopperMargin is how much bulkier than its hole, or than the opening of a clamp, a
// stopper must be: a soft line squeezes. Common practice, no source.
const StopperMargin = 1.2

// Reason is a limit that a knot violates in a joint. The types below are all there
// are; package say puts each into words.
type Reason interface{ Gate() Gate }

// Gate names the kind of limit, as documents spell it.
type Gate string

const (
	TaskGate     Gate = "task"
	ObjectGate   Gate = "object"
	RatioGate    Gate = "ratio"
	MaterialGate Gate = "material"
	HoldGate     Gate = "hold"
	ReleaseGate  Gate = "release"
	FitGate      Gate = "fit"
	TailGate     Gate = "tail"
	TimeGate     Gate = "time"
	PersonGate   Gate = "person"
	StrengthGate Gate = "strength"
	RangeGate    Gate = "range"
	SurfaceGate  Gate = "surface"
	LegsGate     Gate = "legs"
	ShakeGate    Gate = "shake"
)

type (
	// NotForTask: made for other tasks.
	NotForTask struct{ Knot *knot.Knot }
	// NotOnThis: not tied on such a thing.
	NotOnThis struct{ Fitting *rig.FittingKind }
	// RatioOutside the limits of the knot: the lines differ too much, or too little.
	RatioOutside struct {
		Ratio float64
		Limit *knot.Ratio
	}
	// RefusesMaterial: not tied in this, and why.
	RefusesMaterial struct{ Why string }
	// WillSlip, wet or dry.
	WillSlip struct {
		Wet  bool
		Hold Hold
		Knot *knot.Knot
	}
	// WrongRelease: it cannot be cast off as asked for.
	WrongRelease struct {
		Asked rig.Release
		How   string
	}
	// LineTooThick for the hole, or for the gap.
	LineTooThick struct {
		Line, Hole unit.Length
		Gap        bool
	}
	// BightTooThick: the line goes through doubled.
	BightTooThick struct{ Line, Eye unit.Length }
	// PullsThrough: the stopper is no bulkier than its gap.
	PullsThrough struct{ Bulk, Hole unit.Length }
	// StopsAtGuide: the join is no thinner than the guide it has to run through.
	StopsAtGuide struct{ Bulk, Guide unit.Length }
	// TailTooShort: it needs more line than there is.
	TailTooShort struct{ Needs, Has unit.Length }
	// TooSlow: it takes longer than there is time, in seconds.
	TooSlow struct{ Takes, Has float64 }
	// BarelySuits: it can be pressed into this, and is not made for it.
	BarelySuits struct{ Why string }
	// FishingLine where rope is meant.
	FishingLine struct{ Task *rig.Task }
	// OutsideRange of line that the knot is tied in, in lb where Lb, else in mm.
	OutsideRange struct {
		Is float64
		Lb bool
		Of *knot.Range
	}
	// RefusesSurface: not on this, and why.
	RefusesSurface struct{ Why string }
	// SlidesAlong the long thing that it goes round: made for a pull across it.
	SlidesAlong struct{ Fitting *rig.FittingKind }
	// OneLeg: it holds only with both its parts loaded.
	OneLeg struct{ Knot *knot.Knot }
	// ShakesOut of what the load does to it.
	ShakesOut struct{ Why string }
	// Doubtful hold: marginal wet or dry, and why.
	Doubtful struct {
		Hold Hold
		Knot *knot.Knot
	}
	// LeftThin: too little is left in the joint at its worst.
	LeftThin struct{ Times float64 }
	// NotForPeople: not where a person could be held or struck.
	NotForPeople struct{}
	// ComesOff under load, and it must not.
	ComesOff struct{ How string }
	// WorksLoose of itself, and it is left for months.
	WorksLoose struct{ Why string }
	// TooWeak: it would fail at the load itself.
	TooWeak struct {
		Fails          knot.Fails
		Capacity, Load unit.Force
	}
)

func (NotForTask) Gate() Gate      { return TaskGate }
func (NotOnThis) Gate() Gate       { return ObjectGate }
func (RatioOutside) Gate() Gate    { return RatioGate }
func (RefusesMaterial) Gate() Gate { return MaterialGate }
func (WillSlip) Gate() Gate        { return HoldGate }
func (WrongRelease) Gate() Gate    { return ReleaseGate }
func (LineTooThick) Gate() Gate    { return FitGate }
func (BightTooThick) Gate() Gate   { return FitGate }
func (PullsThrough) Gate() Gate    { return FitGate }
func (StopsAtGuide) Gate() Gate    { return FitGate }
func (TailTooShort) Gate() Gate    { return TailGate }
func (TooSlow) Gate() Gate         { return TimeGate }
func (BarelySuits) Gate() Gate     { return TaskGate }
func (FishingLine) Gate() Gate     { return MaterialGate }
func (OutsideRange) Gate() Gate    { return RangeGate }
func (RefusesSurface) Gate() Gate  { return SurfaceGate }
func (SlidesAlong) Gate() Gate     { return SurfaceGate }
func (OneLeg) Gate() Gate          { return LegsGate }
func (ShakesOut) Gate() Gate       { return ShakeGate }
func (Doubtful) Gate() Gate        { return HoldGate }
func (LeftThin) Gate() Gate        { return StrengthGate }
func (NotForPeople) Gate() Gate    { return PersonGate }
func (ComesOff) Gate() Gate        { return ReleaseGate }
func (WorksLoose) Gate() Gate      { return ShakeGate }
func (TooWeak) Gate() Gate         { return StrengthGate }

// aboutEnough: nobody measures an end to better than that.
const aboutEnough = 1.03

// LeastFit is how well a knot must suit a task to be ranked at all.
const LeastFit = 0.3

// otherWork says that the knot is made for another task or another thing; nil if it
// is not.
func otherWork(r *rig.Rig, k *knot.Knot) []Reason {
	if _, ok := k.Tasks[r.Task.ID]; !ok {
		return []Reason{NotForTask{k}}
	}
	if f := r.Fitting; f != nil && len(k.Objects) > 0 && !slices.Contains(k.Objects, f.Kind.ID) {
		return []Reason{NotOnThis{f.Kind}}
	}
	return nil
}

// limits gives every limit that a knot made for the task violates here.
func (v Verdict) limits() []Reason {
	var out []Reason
	add := func(r Reason) { out = append(out, r) }
	k, r := v.Knot, v.Rig
	if k.Ratio != nil && r.Other != nil && (v.Size.Ratio < k.Ratio.Min-1e-9 || v.Size.Ratio > k.Ratio.Max+1e-9) {
		add(RatioOutside{v.Size.Ratio, k.Ratio})
	}
	for _, m := range []*line.Line{&r.Line, r.Other} {
		if m != nil && m.Material.Unknotted != "" {
			add(RefusesMaterial{m.Material.Unknotted})
		}
	}
	for _, material := range materials(r) {
		if why, no := k.Refuses[material]; no {
			add(RefusesMaterial{why})
		}
	}
	if o := k.OneOf; o != nil && !slices.ContainsFunc(materials(r), func(m string) bool { return slices.Contains(o.Materials, m) }) {
		add(RefusesMaterial{o.Why})
	}
	if !r.Task.Tackle && !r.Task.Cord && r.Line.Material.Fishing {
		add(FishingLine{r.Task})
	}
	if out := outside(k.Range, r); out != nil {
		add(*out)
	}
	if r.Fitting != nil {
		if why, no := k.RefusesSurface[r.Fitting.Surface]; no {
			add(RefusesSurface{why})
		}
	}
	if r.Along && !k.Along {
		add(SlidesAlong{r.Fitting.Kind})
	}
	if k.BothLegs && !r.Task.BothLegs {
		add(OneLeg{k})
	}
	if v.Fit < LeastFit {
		add(BarelySuits{k.Tasks[r.Task.ID].Why})
	}
	if h := v.Now(); h.Class == knot.Slips {
		add(WillSlip{r.Wet, h, k})
	} else if k.Shake.Class == knot.Slips && (r.Character == rig.Flogging || r.Character == rig.Snatch) {
		add(ShakesOut{k.Shake.Why})
	}
	off := k.Release
	if r.Release == rig.UnderLoad && !off.UnderLoad || r.Release == rig.Distance && !off.Distance ||
		r.Release == rig.Slack && (off.Slack == knot.Jams || off.Slack == knot.Cut) {
		add(WrongRelease{r.Release, off.How})
	}
	if r.Fitting != nil {
		out = append(out, fit(r.Fitting, r.Line.Diameter, k)...)
	}
	if r.Guide > 0 {
		if bulk := max(r.Line.Diameter, r.Other.Diameter) * unit.Length(k.Bulk); bulk > r.Guide {
			add(StopsAtGuide{bulk, r.Guide})
		}
	}
	if r.Tail > 0 && v.Size.Least > r.Tail*aboutEnough {
		add(TailTooShort{v.Size.Least, r.Tail})
	}
	if r.Seconds > 0 && v.Size.Seconds.Low > r.Seconds {
		add(TooSlow{v.Size.Seconds.Low, r.Seconds})
	}
	if r.Consequence == rig.Person && r.Task.MayHold && !k.Person {
		add(NotForPeople{})
	}
	if v.Strength.Capacity.Likely < float64(r.Load) {
		add(TooWeak{v.Strength.Fails, unit.Force(v.Strength.Capacity.Likely), r.Load})
	}
	return out
}

// reservations gives what speaks against a knot that will do.
func (v Verdict) reservations() []Reason {
	var out []Reason
	switch h := v.Now(); {
	case h.Class != knot.Marginal:
	case h.Shaken:
		out = append(out, ShakesOut{v.Knot.Shake.Why})
	default:
		out = append(out, Doubtful{h, v.Knot})
	}
	if v.Rig.Release == rig.Stays && v.Knot.Release.UnderLoad {
		out = append(out, ComesOff{v.Knot.Release.How})
	}
	if v.Rig.Stay == rig.Months && v.Knot.Shake.Class != knot.Holds && !v.Now().Shaken {
		out = append(out, WorksLoose{v.Knot.Shake.Why})
	}
	if v.Strength.Enough == Thin {
		out = append(out, LeftThin{v.Strength.Margin * LeftAtWorst})
	}
	return out
}

// outside says how the line lies outside the range of a knot; nil if it does not. In a
// join both lines must lie inside: the thin end is asked of the thinner line.
func outside(g *knot.Range, r *rig.Rig) *OutsideRange {
	if g == nil {
		return nil
	}
	const slack = 1.02 // 20 lb written in kilonewtons is 20 lb
	in := func(v float64, limit [2]float64) bool {
		return v*slack >= limit[0] && (limit[1] == 0 || v <= limit[1]*slack)
	}
	if g.Lb != [2]float64{} && r.Line.Material.Fishing {
		if lb := Test(r); !in(lb, g.Lb) {
			return &OutsideRange{lb, true, g}
		}
	}
	if mm := r.Line.Diameter.MM(); g.MM != [2]float64{} && !in(mm, g.MM) {
		return &OutsideRange{mm, false, g}
	}
	return nil
}

// fit asks whether the line, its bight or the knot passes the fitting, or must not.
func fit(f *rig.FittingUse, d unit.Length, k *knot.Knot) []Reason {
	switch {
	case f.Kind.Passes == rig.Open:
		return nil
	case d > f.Size:
		return []Reason{LineTooThick{d, f.Size, f.Kind.Passes == rig.Stops}}
	case f.Kind.Passes == rig.Threads && k.EyeTakesBight && 2*d > f.Size:
		return []Reason{BightTooThick{d, f.Size}}
	case f.Kind.Passes == rig.Stops:
		if bulk := d * unit.Length(k.Bulk); bulk < f.Size*StopperMargin {
			return []Reason{PullsThrough{bulk, f.Size}}
		}
	}
	return nil
}

// materials lists the material ids that matter to the knot.
func materials(r *rig.Rig) []string {
	out := []string{r.Line.Material.ID}
	if r.Other != nil && r.JoinsTwo() && r.Other.Material.ID != out[0] {
		out = append(out, r.Other.Material.ID)
	}
	return out
}

// Missing is the factor by which a limit is missed, at least 1: 1.1 is a tenth short.
// Limits that are no number count as 2; what must never be as 10.
func Missing(r Reason) float64 {
	over := func(is, limit float64) float64 { return max(1, is/limit) }
	switch x := r.(type) {
	case TailTooShort:
		return over(float64(x.Needs), float64(x.Has))
	case TooSlow:
		return over(x.Takes, x.Has)
	case LineTooThick:
		return over(float64(x.Line), float64(x.Hole))
	case BightTooThick:
		return over(2*float64(x.Line), float64(x.Eye))
	case PullsThrough:
		return over(float64(x.Hole)*StopperMargin, float64(x.Bulk))
	case StopsAtGuide:
		return over(float64(x.Bulk), float64(x.Guide))
	case RatioOutside:
		return max(over(x.Ratio, x.Limit.Max), over(x.Limit.Min, x.Ratio))
	case OutsideRange:
		limit := x.Of.MM
		if x.Lb {
			limit = x.Of.Lb
		}
		if x.Is < limit[0] {
			return over(limit[0], x.Is)
		}
		return over(x.Is, limit[1])
	case TooWeak:
		return over(float64(x.Load), float64(x.Capacity))
	case RefusesSurface, NotForPeople, OneLeg:
		return 10
	}
	return 2
}
