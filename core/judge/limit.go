package judge

import (
	"slices"

	"oarweed/core/knot"
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
	// TailTooShort: it needs more line than there is.
	TailTooShort struct{ Needs, Has unit.Length }
	// TooSlow: it takes longer than there is time, in seconds.
	TooSlow struct{ Takes, Has float64 }
	// NotForPeople: not where a person could be held or struck.
	NotForPeople struct{}
	// TooWeak: it would fail at the load itself.
	TooWeak struct {
		Slips    bool
		Capacity unit.Force
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
func (TailTooShort) Gate() Gate    { return TailGate }
func (TooSlow) Gate() Gate         { return TimeGate }
func (NotForPeople) Gate() Gate    { return PersonGate }
func (TooWeak) Gate() Gate         { return StrengthGate }

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
	for _, material := range materials(r) {
		if why, no := k.Refuses[material]; no {
			add(RefusesMaterial{why})
		}
	}
	if h := v.Now(); h.Class == knot.Slips {
		add(WillSlip{r.Wet, h, k})
	}
	off := k.Release
	if r.Release == rig.UnderLoad && !off.UnderLoad || r.Release == rig.Distance && !off.Distance ||
		r.Release == rig.Slack && (off.Slack == knot.Jams || off.Slack == knot.Cut) {
		add(WrongRelease{r.Release, off.How})
	}
	if r.Fitting != nil {
		out = append(out, fit(r.Fitting, r.Line.Diameter, k)...)
	}
	if r.Tail > 0 && v.Size.Needs > r.Tail {
		add(TailTooShort{v.Size.Needs, r.Tail})
	}
	if r.Seconds > 0 && k.Seconds.Low > r.Seconds {
		add(TooSlow{k.Seconds.Low, r.Seconds})
	}
	if r.Consequence == rig.Person && !k.Person {
		add(NotForPeople{})
	}
	if v.Strength.Capacity.Likely < float64(r.Load) {
		add(TooWeak{v.Strength.Slips, unit.Force(v.Strength.Capacity.Likely)})
	}
	return out
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
