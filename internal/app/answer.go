package app

import (
	"math"

	"oarweed/core/chain"
	"oarweed/core/chance"
	"oarweed/core/evidence"
	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/rank"
	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/trade"
)

// Answer is everything there is to say about a joint. It is the document that the API,
// the command line and the build for the browser give.
type Answer struct {
	// Rig is the rig with its defaults filled in, Defaults what was filled in.
	Rig      rig.Document  `json:"rig"`
	Defaults []rig.Default `json:"defaults" nullable:"false"`
	Line     LineAnswer    `json:"line"`
	// Other is the second line of a bend.
	Other *LineAnswer `json:"other,omitempty"`
	// NeededKN is load × design factor.
	NeededKN     float64 `json:"needed_kn" doc:"load × design factor, kN"`
	DesignFactor float64 `json:"design_factor"`
	FactorWhy    string  `json:"factor_why"`
	// FactorTag is memory for the usual factor, yours for one that was chosen.
	FactorTag evidence.Tag `json:"factor_tag" enum:"published,trade,memory,computed,yours"`
	// People: somebody depends on it; nothing is approved then, and Says stands in place
	// of any word of approval.
	People bool     `json:"people"`
	Says   string   `json:"says,omitempty"`
	Ranked []Choice `json:"ranked" nullable:"false" doc:"knots that will do, best first"`
	// Nearest of what will not do, where nothing does; Instead is what to do then.
	Nearest *Nearest `json:"nearest,omitempty"`
	Instead string   `json:"instead,omitempty"`
	// Then is what follows once it is done.
	Then     string        `json:"then,omitempty"`
	RuledOut []Ruled       `json:"ruled_out" nullable:"false" doc:"knots that will not, with the reasons"`
	Cautions []rig.Caution `json:"cautions" nullable:"false"`
	// House says what own pulls changed here.
	House []string `json:"house,omitempty" nullable:"false" doc:"what own pulls changed here"`
}

// Nearest is the knot that lacks least where none will do.
type Nearest struct {
	Knot    string   `json:"knot"`
	Name    string   `json:"name"`
	Reasons []Reason `json:"reasons" nullable:"false"`
	// Change says what to change so that it will do.
	Change []string `json:"change" nullable:"false"`
}

// LineAnswer is what a line bears.
type LineAnswer struct {
	Name       string  `json:"name"`
	DiameterMM float64 `json:"diameter_mm"`
	// MBLKN is the breaking strength that counts, new and dry, Options every way of
	// finding it.
	MBLKN   evidence.Figure `json:"mbl_kn" doc:"breaking strength that counts, new and dry, kN"`
	Options []Option        `json:"options" nullable:"false" doc:"every way of finding the breaking strength"`
	Why     string          `json:"why"`
	// CapacityKN is what is left when wet and worn.
	CapacityKN evidence.Figure `json:"capacity_kn" doc:"what is left when wet and worn, kN"`
}

// Option is one way of finding a breaking strength.
type Option struct {
	Name  string          `json:"name"`
	MBLKN evidence.Figure `json:"mbl_kn"`
	// Used: it gives an end of the figure that counts, Gives says which.
	Used  bool   `json:"used"`
	Gives string `json:"gives,omitempty"`
}

// Choice is a knot that can do the job.
type Choice struct {
	Knot  string    `json:"knot"`
	Name  string    `json:"name"`
	Kind  knot.Kind `json:"kind" enum:"loop,hitch,bend,stopper,terminal"`
	Drawn bool      `json:"drawn"`
	// DrawnUp: there is a figure of how it looks drawn up.
	DrawnUp bool    `json:"drawn_up"`
	Score   float64 `json:"score" doc:"0 to 100, the sum of the contributions"`
	Reason  string  `json:"reason"`
	// Decided says why it stands above the next.
	Decided string `json:"decided,omitempty"`
	// But says what speaks against it: it stands below every knot without.
	But           []Reason       `json:"but" nullable:"false"`
	Contributions []Contribution `json:"contributions" nullable:"false"`
	Strength      Strength       `json:"strength"`
	Dry           Hold           `json:"dry"`
	Wet           Hold           `json:"wet"`
	ReleaseHow    string         `json:"release_how"`
	ReleaseWord   string         `json:"release_word"`
	// LettingGo says what the hand holds while it is cast off under load.
	LettingGo string `json:"letting_go,omitempty"`
	// Purchase says what it makes of a pull by hand.
	Purchase string `json:"purchase,omitempty"`
	// Seconds to tie it in line of this size.
	Seconds evidence.Figure `json:"seconds"`
	// NeedsM is the line to tie with: what the knot takes, the tail and a backup.
	NeedsM float64 `json:"needs_m" doc:"line to tie with: what the knot takes, the tail, and a backup, m"`
	// NeedsOtherM is that of the second line of a join.
	NeedsOtherM float64 `json:"needs_other_m,omitempty" doc:"the same of the second line of a join, m"`
	ConsumesM   float64 `json:"consumes_m" doc:"what the line is shorter by once it is cut off, m"`
	TailM       float64 `json:"tail_m" doc:"end that stays while it is used, before trimming, m"`
	LeftOnMM    float64 `json:"left_on_mm,omitempty" doc:"end left on after trimming, mm"`
	// BulkTag is computed where it is drawn up in space, else memory.
	BulkTag evidence.Tag `json:"bulk_tag" enum:"computed,memory"`
	BulkMM  float64      `json:"bulk_mm" doc:"how thick it is when drawn up, mm"`
	// Backup is the knot that backs its end up here.
	Backup string `json:"backup,omitempty"`
	Wraps  int    `json:"wraps,omitempty"`
	// WrapsOther are the wraps of the thicker line of a join, where they differ.
	WrapsOther int `json:"wraps_other,omitempty"`
	// Finish is the share of strength that finishing wraps give, where it has them.
	Finish *evidence.Figure `json:"finish,omitempty"`
	// WrapsShort is how many fewer than the line asks for.
	WrapsShort int `json:"wraps_short,omitempty"`
	// PerWrap is the share of strength that each missing wrap costs.
	PerWrap *evidence.Interval `json:"per_wrap,omitempty"`
	// Says is the verdict in two sentences.
	Says string `json:"says" doc:"the verdict in two sentences"`
	// Flags are warnings about this knot in this rig.
	Flags    []string      `json:"flags" nullable:"false"`
	Cautions []rig.Caution `json:"cautions" nullable:"false"`
}

// Contribution of one criterion to the score.
type Contribution struct {
	Criterion string  `json:"criterion"`
	Weight    float64 `json:"weight"`
	Value     float64 `json:"value"`
	Points    float64 `json:"points"`
}

// Strength of the joint.
type Strength struct {
	CapacityKN evidence.Figure `json:"capacity_kn"`
	Efficiency evidence.Figure `json:"efficiency" doc:"share of the line's strength that the knot keeps"`
	// Fails is what happens at its limit, FailsAt the place.
	Fails   knot.Fails `json:"fails" enum:"breaks,slips,creeps"`
	FailsAt string     `json:"fails_at"`
	// Margin is capacity at its worst ÷ twice the load, Utilisation its inverse; Times is
	// likely capacity ÷ load. New is the low end of the new, dry line ÷ (load × design
	// factor).
	Utilisation float64 `json:"utilisation" doc:"twice the load ÷ capacity at its worst"`
	Margin      float64 `json:"margin" doc:"capacity at its worst ÷ twice the load"`
	Times       float64 `json:"times" doc:"likely capacity ÷ load"`
	New         float64 `json:"new" doc:"low end of the new, dry line ÷ (load × design factor)"`
	// Word: the new line bears less than the design factor asks for (short), or too little
	// is left in the joint at its worst (thin); yours where people depend on it.
	Word string `json:"word" enum:"enough,short,thin,yours"`
}

// Hold of the joint, dry or wet.
type Hold struct {
	Class knot.Class   `json:"class" enum:"holds,marginal,slips"`
	Why   string       `json:"why"`
	Tag   evidence.Tag `json:"tag" enum:"published,trade,memory,computed,yours"`
	// Chance that it holds this load, on one scale for every knot; left out where people
	// depend on it. ChanceLow and ChanceHigh are its ends.
	Chance     *float64 `json:"chance,omitempty" doc:"chance that it holds this load; left out where people depend on it"`
	ChanceLow  *float64 `json:"chance_low,omitempty"`
	ChanceHigh *float64 `json:"chance_high,omitempty"`
	// Worked: a friction model gives the chance; else it is read from a class known from
	// use.
	Worked bool `json:"worked"`
	// Locks is the chance that it holds any load with no hand on the end, where a friction
	// model says so; Mu is the line's friction on smooth metal.
	// MuCritical is the least friction, on smooth metal and rope on rope alike, at which it
	// locks.
	MuCritical *float64         `json:"mu_critical,omitempty" doc:"least friction at which it locks; left out where it never does"`
	Locks      *float64         `json:"locks,omitempty" doc:"chance that it locks, for hitches with a friction model"`
	Mu         *evidence.Figure `json:"mu,omitempty"`
	// HandN is the force the end must be held with so that 95 of 100 hold, in newtons;
	// left out where none is needed or no hand can.
	HandN *float64 `json:"hand_n,omitempty" doc:"force on the end with which 95 of 100 hold, N; left out where none is needed or no hand can"`
}

// Ruled is a knot that cannot do the job.
type Ruled struct {
	Knot    string   `json:"knot"`
	Name    string   `json:"name"`
	Reasons []Reason `json:"reasons" nullable:"false"`
	// Near: it is meant for this task and fitting, so that the reason is worth
	// reading first.
	Near bool `json:"near" doc:"it is meant for this task and fitting"`
}

// Reason why a gate rules a knot out.
type Reason struct {
	Gate judge.Gate `json:"gate" enum:"task,object,ratio,material,hold,release,fit,tail,time,person,strength,range,surface,legs,shake"`
	Why  string     `json:"why"`
}

func answerOf(c *trade.Catalogue, o rank.Order) *Answer {
	r := o.Rig
	a := &Answer{Rig: r.Document, Defaults: append([]rig.Default{}, r.Defaults...), Line: lineAnswer(r.Line, r.LineBears),
		NeededKN: r.Load.KN() * r.DesignFactor, DesignFactor: r.DesignFactor, FactorWhy: r.FactorWhy, FactorTag: r.FactorTag,
		Ranked: []Choice{}, RuledOut: []Ruled{}, Cautions: c.CautionsFor(r)}
	if r.Other != nil {
		other := lineAnswer(*r.Other, r.OtherBears)
		a.Other = &other
	}
	a.Then = r.Task.Then
	if a.People = r.Consequence == rig.Person; a.People {
		a.Says = say.Yourself
	}
	for i := range o.Ranked {
		choice := choiceOf(c, o.Ranked[i])
		if i+1 < len(o.Ranked) {
			choice.Decided = say.Decided(rank.Above(&o.Ranked[i], &o.Ranked[i+1]), o.Ranked[i+1].Knot.Name)
		}
		a.Ranked = append(a.Ranked, choice)
	}
	if len(o.Ranked) == 0 {
		a.Instead = r.Task.Instead
		a.Nearest = nearestOf(o.Nearest)
	}
	for _, v := range o.Out {
		a.RuledOut = append(a.RuledOut, Ruled{v.Knot.ID, v.Knot.Name, reasons(v.Against), !v.OtherWork})
	}
	return a
}

func nearestOf(v *judge.Verdict) *Nearest {
	if v == nil {
		return nil
	}
	out := &Nearest{v.Knot.ID, v.Knot.Name, reasons(v.Against), []string{}}
	for _, r := range v.Against {
		if mend := say.Mend(r); mend != "" {
			out.Change = append(out.Change, mend)
		}
	}
	return out
}

func lineAnswer(l line.Line, s line.Strength) LineAnswer {
	out := LineAnswer{Name: say.Line(l), DiameterMM: l.Diameter.MM(), MBLKN: s.MBL().InKN(), Why: say.WhyStrength(s.Why), CapacityKN: s.Capacity.InKN()}
	for _, o := range s.Options {
		out.Options = append(out.Options, Option{o.Name, o.Newtons.InKN(), o.Low || o.Likely || o.High, say.Ends(o)})
	}
	return out
}

func reasons(list []judge.Reason) []Reason {
	out := []Reason{}
	for _, r := range list {
		out = append(out, Reason{r.Gate(), say.Reason(r)})
	}
	return out
}

func choiceOf(c *trade.Catalogue, x rank.Ranked) Choice {
	k, s := x.Knot, x.Strength
	var critical *float64
	if k.FrictionModel != "" {
		critical = finite(judge.Critical(x.Rig, k))
	}
	out := Choice{Knot: k.ID, Name: k.Name, Kind: k.Kind, Drawn: k.Shape != "", DrawnUp: k.DrawnUp, Score: x.Score, Reason: k.Tasks[x.Rig.Task.ID].Why,
		Strength: Strength{CapacityKN: s.Capacity.InKN(), Efficiency: s.Share, Fails: s.Fails, FailsAt: say.At(x.Verdict),
			Utilisation: 1 / s.Margin, Margin: s.Margin, Times: s.Times, New: s.New, Word: say.Strength(x.Verdict)},
		But: reasons(x.But), Dry: holdOf(x.Rig, x.Dry, k, critical), Wet: holdOf(x.Rig, x.Wet, k, critical), ReleaseHow: k.Release.How, ReleaseWord: say.Release(k),
		LettingGo: say.LettingGo(x.LettingGo), Seconds: evidence.Figure{Interval: x.Size.Seconds, Unit: evidence.Second, Tag: k.Seconds.Tag, Source: k.Seconds.Source},
		NeedsM: x.Size.Needs.M(), ConsumesM: x.Size.Consumes.M(), TailM: x.Size.Tail.M(), LeftOnMM: x.Size.LeftOn.MM(), BulkMM: x.Size.Bulk.MM(), BulkTag: k.BulkTag(),
		Wraps: x.Size.Wraps, WrapsOther: x.Size.WrapsOther, WrapsShort: x.Size.Short, Says: say.Verdict(x.Verdict), Flags: say.Flags(x.Verdict), Cautions: c.CautionsOf(k)}
	if x.Rig.JoinsTwo() {
		out.NeedsOtherM = x.Size.NeedsOther.M()
	}
	if k.Purchase {
		out.Purchase = say.Purchase(judge.Purchase(x.Rig))
	}
	if x.Size.Backup != nil {
		out.Backup = x.Size.Backup.ID
	}
	if k.Wraps != nil {
		out.Finish = k.Wraps.Finish
	}
	if x.Size.Wraps > 0 {
		out.PerWrap = &x.Size.PerWrap
	}
	for _, p := range x.Contributions {
		out.Contributions = append(out.Contributions, Contribution{say.Criterion(p.Criterion), p.Weight, p.Value, p.Points()})
	}
	return out
}

func holdOf(r *rig.Rig, h judge.Hold, k *knot.Knot, critical *float64) Hold {
	out := Hold{Class: h.Class, Why: say.HoldWhy(h, k), Tag: h.Chance.Tag, Worked: h.Locking != nil}
	if r.Consequence != rig.Person {
		out.Chance, out.ChanceLow, out.ChanceHigh = &h.Chance.Likely, &h.Chance.Low, &h.Chance.High
	}
	if l := h.Locking; l != nil {
		out.Mu, out.MuCritical = &l.Mu, critical
		if r.Consequence != rig.Person {
			out.Locks = &l.Locks
		}
		if l.Hand.High > 0 {
			out.HandN = finite(l.Hand.High)
		}
	}
	return out
}

// finite leaves out what is not a number that a document can hold.
func finite(v float64) *float64 {
	if math.IsInf(v, 0) || math.IsNaN(v) {
		return nil
	}
	return &v
}

// Chance is how a joint or a rig comes out in ten thousand draws from its (triangular)
// intervals, always with the same random numbers.
type Chance struct {
	// Holds + Slips + Breaks = 1, at the highest load expected.
	Holds  float64 `json:"holds"`
	Slips  float64 `json:"slips"`
	Breaks float64 `json:"breaks"`
	// ByClass: no friction model decides the hold; its chance is read from a class known
	// from use.
	ByClass bool `json:"by_class" doc:"no friction model decides the hold; its chance is read from a class known from use"`
	// P5KN, P50KN and P95KN: 5, 50 and 95 of 100 draws bear less.
	P5KN  float64 `json:"p5_kn" doc:"of the draws in which every knot holds, 5 of 100 bear less, kN"`
	P50KN float64 `json:"p50_kn"`
	P95KN float64 `json:"p95_kn"`
}

func chanceOf(o chance.Outcome) Chance {
	return Chance{o.Holds, o.Slips, o.Breaks, o.ByClass, o.P5 / 1e3, o.P50 / 1e3, o.P95 / 1e3}
}

// RigAnswer is everything there is to say about a chain.
type RigAnswer struct {
	// Rig with its defaults filled in.
	Rig      rig.Document  `json:"rig"`
	Joints   []JointAnswer `json:"joints" nullable:"false"`
	Lines    []LineInRig   `json:"lines" nullable:"false"`
	Weakest  *Weakest      `json:"weakest,omitempty"`
	Chance   *Chance       `json:"chance,omitempty"`
	NeededKN float64       `json:"needed_kn"`
	// CapacityKN of the whole rig: the least of its parts.
	CapacityKN *evidence.Figure `json:"capacity_kn,omitempty" doc:"of the whole rig: the least of its parts"`
	// Margin is capacity at its worst ÷ twice the load.
	Margin float64 `json:"margin"`
	// CastOff says in which order to let go, in words.
	CastOff []string `json:"cast_off" nullable:"false"`
	// Cut says what to cut off the spool.
	Cut      []Cut         `json:"cut" nullable:"false"`
	Cautions []rig.Caution `json:"cautions" nullable:"false"`
}

// JointAnswer is one joint of a chain.
type JointAnswer struct {
	// At is its place in the chain.
	At int `json:"at" doc:"its place in the chain"`
	// Where names it: "at the ring", "between the lines".
	Where  string  `json:"where"`
	Answer *Answer `json:"answer"`
	// Knot chosen in the rig, or else the first in rank; empty if none will do.
	Knot string `json:"knot"`
	// Chosen is that knot worked out; Against says why it is ruled out, if it is.
	Chosen  *Choice  `json:"chosen,omitempty"`
	Against []Reason `json:"against" nullable:"false"`
	// Fails is the share of draws in which the rig gives way here first.
	Fails float64 `json:"fails" doc:"share of draws in which the rig gives way here first"`
}

// LineInRig is one line of a chain.
type LineInRig struct {
	At int `json:"at"`
	LineAnswer
	// Utilisation is load × design factor ÷ the low end of the new, dry line.
	Utilisation float64 `json:"utilisation"`
	Fails       float64 `json:"fails"`
}

// Weakest is the part that gives way first in most draws.
type Weakest struct {
	At         int             `json:"at"`
	Name       string          `json:"name"`
	Where      string          `json:"where"`
	CapacityKN evidence.Figure `json:"capacity_kn"`
	// Fails is "breaks" or "slips"; Says puts it in a sentence.
	Fails knot.Fails `json:"fails" enum:"breaks,slips"`
	Says  string     `json:"says"`
}

// Cut is what one line needs.
type Cut struct {
	At   int    `json:"at"`
	Line string `json:"line"`
	// LengthM between its joints, 0 if not given; KnotsM is what knots and ends take.
	LengthM float64 `json:"length_m"`
	KnotsM  float64 `json:"knots_m"`
	TotalM  float64 `json:"total_m"`
	Says    string  `json:"says"`
}

func rigAnswerOf(c *trade.Catalogue, x *chain.Chain) *RigAnswer {
	out := &RigAnswer{Rig: x.Document, NeededKN: x.Needed.KN(), CastOff: say.LetGo(x), Cut: []Cut{}, Cautions: x.Cautions}
	for _, j := range x.Joints {
		d := JointAnswer{At: j.At, Where: say.Where(j.Order.Rig), Answer: answerOf(c, j.Order), Against: []Reason{}, Fails: j.First}
		if j.Chosen != nil {
			choice := choiceOf(c, *j.Chosen)
			d.Knot, d.Chosen, d.Against = choice.Knot, &choice, reasons(j.Chosen.Against)
		}
		out.Joints = append(out.Joints, d)
	}
	for _, l := range x.Lines {
		b := lineAnswer(l.Line, l.Bears)
		out.Lines = append(out.Lines, LineInRig{l.At, b, l.Utilisation, l.First})
		out.Cut = append(out.Cut, Cut{l.At, b.Name, l.Length.M(), l.Knots.M(), l.Length.M() + l.Knots.M(), say.Cut(l.Line, l.Knots)})
	}
	if x.Weakest == nil {
		return out
	}
	capacity := x.Capacity.InKN()
	out.CapacityKN, out.Margin = &capacity, x.Margin
	if out.Rig.Consequence != rig.Person {
		o := chanceOf(*x.Outcome)
		out.Chance = &o
	}
	w := &Weakest{Says: say.Weakest(x), Fails: knot.Breaks, Where: "between its knots"}
	if i := x.Weakest.Joint; i >= 0 {
		j := x.Joints[i]
		w.At, w.Name, w.Where = j.At, j.Chosen.Knot.Name, say.Where(j.Order.Rig)
		w.CapacityKN, w.Fails = j.Chosen.Strength.Capacity.InKN(), j.Chosen.Strength.Fails
		if x.Weakest.Doubtful {
			w.Fails = knot.Gives
		}
	} else {
		l := x.Lines[x.Weakest.Line]
		w.At, w.Name, w.CapacityKN = l.At, say.Line(l.Line), l.Bears.Capacity.InKN()
	}
	out.Weakest = w
	return out
}
