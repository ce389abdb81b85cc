package app

import (
	"oarweed/core/evidence"
	"oarweed/core/friction"
	"oarweed/core/job"
	"oarweed/core/knot"
	"oarweed/core/load"
	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/trade"
	"oarweed/core/unit"
	"oarweed/core/whatif"
)

// Change says at which value of an input, or under which condition, another knot comes
// first.
type Change struct {
	Input string `json:"input"`
	// From is the value now, To where the first choice changes; 0 and 0 for a
	// condition that is not a number.
	From float64 `json:"from" doc:"value now; 0 for a condition that is not a number"`
	To   float64 `json:"to" doc:"value at which the first choice changes"`
	Unit string  `json:"unit"`
	// Knot comes first beyond; empty if none will do.
	Knot string `json:"knot" doc:"what comes first beyond; empty if none will do"`
	Name string `json:"name"`
	// Value is the word that a condition would have.
	Value string `json:"value,omitempty" doc:"the word that a condition would have"`
	// Near is its place among the three that are nearest; 0: it is none of them.
	Near int `json:"near,omitempty" doc:"1 to 3: its place among the nearest three"`
	// When says it by itself, Says with the knot that takes over.
	When string `json:"when"`
	Says string `json:"says"`
}

func changeOf(c *trade.Catalogue, x whatif.Change, fishing bool) Change {
	out := Change{From: x.From, To: x.To, Knot: x.Knot, When: say.When(x, fishing), Says: say.Change(c, x, fishing)}
	if k := c.Knot(x.Knot); k != nil {
		out.Name = k.Name
	}
	switch q := x.Condition; {
	case x.Input != nil:
		out.Input, out.Unit = x.Input.ID, x.Input.Unit
	case q.Material != nil:
		out.Input, out.Value = "line.material", q.Material.ID
	case q.Field != nil:
		out.Input, out.Value = q.Field.JSON, q.Value.ID
	default:
		out.Input = "wet"
	}
	return out
}

// InputRange is a number of a rig that can be turned.
type InputRange struct {
	ID   string  `json:"id"`
	Name string  `json:"name"`
	Unit string  `json:"unit" doc:"unit of min, max and of every value: mm, kN, m, s or none"`
	Min  float64 `json:"min"`
	Max  float64 `json:"max"`
}

// HoldTable says what hand holds a load by a hitch or by so many turns.
type HoldTable struct {
	Hitch string          `json:"hitch"`
	Mu    evidence.Figure `json:"mu"`
	Rows  []HoldRow       `json:"rows" nullable:"false"`
	// Turns with which the hand given holds the load at the lowest friction; left out
	// where no number up to the last row does.
	Turns *int   `json:"turns,omitempty" doc:"turns with which the hand holds the load at the lowest friction; left out where none do"`
	Says  string `json:"says"`
	// Trade is what the trade knows of it, where that and not the model decides
	// whether it is recommended.
	Trade *TradeHold `json:"trade,omitempty"`
}

// TradeHold is a class of hold known from use.
type TradeHold struct {
	Class knot.Class   `json:"class" enum:"holds,marginal,slips"`
	Why   string       `json:"why"`
	Tag   evidence.Tag `json:"tag" enum:"published,trade,memory,computed,yours"`
}

// HoldRow is one number of turns, eights or twists.
type HoldRow struct {
	N int `json:"n"`
	// Hand force needed at the lowest, likely and highest friction, in newtons; 0
	// where it locks, null where no hand can hold it.
	LowestN  *float64 `json:"lowest_n" doc:"hand force at the lowest friction, N; 0 where it locks, null where no hand can hold it"`
	LikelyN  *float64 `json:"likely_n"`
	HighestN *float64 `json:"highest_n"`
	// Locks is the chance that it locks by itself.
	Locks float64 `json:"locks" doc:"chance that it locks by itself"`
}

func holdTableOf(t *job.HoldTable) *HoldTable {
	out := &HoldTable{Hitch: t.Hitch.ID, Mu: t.Mu, Says: say.Hold(t)}
	if t.Holds {
		out.Turns = &t.Turns
	}
	if use := t.FromUse; use != nil {
		out.Trade = &TradeHold{use.Dry, use.Why, use.Tag}
		if t.Wet {
			out.Trade.Class = use.Wet
		}
	}
	n := func(f unit.Force) *float64 { return finite(float64(f)) }
	for _, r := range t.Rows {
		out.Rows = append(out.Rows, HoldRow{r.N, n(r.Lowest), n(r.Likely), n(r.Highest), r.Locks})
	}
	return out
}

// Load is what a line has to bear, with how it came about.
type Load struct {
	LoadKN evidence.Figure `json:"load_kn"`
	// PeakKN is what a rig has to be chosen for: the high end of the interval, for a
	// line that is too strong does no harm. To three figures.
	PeakKN float64 `json:"peak_kn" doc:"what a rig has to be chosen for: the high end, to three figures, kN"`
	// Character is how the load acts, for the rig.
	Character rig.Character `json:"character" enum:"steady,alternating,flogging,snatch"`
	// Says is the result in a sentence, Working the steps to it.
	Says    string   `json:"says"`
	Working []string `json:"working" nullable:"false"`
}

func loadOf(k load.Kind) Load {
	l := k.Of()
	says, working := say.Load(k)
	return Load{l.InKN(), l.PeakKN(), l.Character, says, working}
}

// Card is a procedure with its words filled in for the lines at hand.
type Card struct {
	ID       string                `json:"id"`
	Name     string                `json:"name"`
	When     string                `json:"when"`
	Needs    string                `json:"needs"`
	Cautions []rig.Caution         `json:"cautions" nullable:"false"`
	Steps    []trade.ProcedureStep `json:"steps" nullable:"false"`
	// Turns of the rolling hitch and on the winch, 0 where the job has none. Holds
	// says whether a light hand on the tail holds that many riding turns at the lowest
	// friction expected.
	Turns      int      `json:"turns"`
	WinchTurns int      `json:"winch_turns"`
	Holds      bool     `json:"holds" doc:"a light hand on the tail holds at the lowest friction expected"`
	Notes      []string `json:"notes" nullable:"false"`
}

func cardOf(c *job.Card) *Card {
	out := &Card{ID: c.ID, Name: c.Name, When: c.When, Needs: c.Needs, Cautions: c.Cautions, Notes: []string{},
		Steps: job.Words(c.Steps, say.Blanks(c))}
	if r := c.Relief; r != nil {
		out.Turns, out.WinchTurns, out.Holds, out.Notes = r.Turns, r.WinchTurns, r.Holds, say.Relief(c)
	}
	return out
}

// FenderQuery is a fender as typed.
type FenderQuery struct {
	Rail    string `query:"rail" default:"1.2m" help:"height of what it is tied to, above the water"`
	Pontoon string `query:"pontoon" default:"0.5m" help:"height of the pontoon's edge"`
	Fender  string `query:"fender" default:"600mm" help:"length of the fender"`
	Line    string `query:"line" default:"10mm" help:"diameter of its line"`
}

// FenderAnswer is how it hangs: the drop to its eye, what is clear of the water below its
// foot, the line to cut.
type FenderAnswer struct {
	DropM  float64 `json:"drop_m"`
	ClearM float64 `json:"clear_m"`
	LineM  float64 `json:"line_m"`
}

// TowQuery is a tow line and the length wanted of it, as typed.
type TowQuery struct {
	Takeoffs string `query:"takeoffs" default:"60ft,65ft,…,85ft" maxLength:"600" help:"lengths from the handle, the last is the line's end; … goes on by the last step"`
	Want     string `query:"want" default:"68ft" maxLength:"40" help:"length wanted"`
	On       string `query:"on" default:"pylon" enum:"pylon,tower,hook,eye" help:"what it is made fast to"`
}

// TowAnswer is where it is made fast.
type TowAnswer struct {
	TakeoffM float64 `json:"takeoff_m" doc:"the take-off used, or from which the hitch is measured"`
	TakeUpM  float64 `json:"take_up_m" doc:"how far the hitch sits from it toward the handle"`
	Hitch    string  `json:"hitch" doc:"knot by which it is made fast; empty where the take-off fits"`
	Says     string  `json:"says"`
	// TakeoffsM are all of them, the shortest first; WantM is the length wanted.
	TakeoffsM []float64 `json:"takeoffs_m" nullable:"false"`
	WantM     float64   `json:"want_m"`
}

// CoilsQuery is a line to be coiled, as typed.
type CoilsQuery struct {
	Length string `query:"length" default:"25m" help:"length of the line"`
	Across string `query:"across" default:"40cm" help:"how far across a coil is"`
}

// CoilsAnswer counts the coils.
type CoilsAnswer struct {
	Coils int `json:"coils"`
}

// ShackleQuery is a soft shackle as typed.
type ShackleQuery struct {
	Diameter string `query:"diameter" default:"6mm" help:"diameter of the cord"`
	Material string `query:"material" default:"hmpe" help:"material of the cord"`
	Clear    string `query:"clear" default:"100mm" help:"clear length inside the closed shackle"`
	Load     string `query:"load" default:"" help:"load on it; left out: none"`
	Clamp    string `query:"clamp" default:"" help:"with --stopper: how this pair is tied"`
	Stopper  string `query:"stopper" default:"" help:"with --clamp: how this pair is tied"`
}

// ShackleAnswer is the matrix of clamps and stoppers for one cord.
type ShackleAnswer struct {
	DiameterMM float64         `json:"diameter_mm"`
	Material   string          `json:"material"`
	ClearMM    float64         `json:"clear_mm"`
	LoadKN     float64         `json:"load_kn,omitempty"`
	CordKN     evidence.Figure `json:"cord_kn" doc:"what one part of the cord bears, wet, kN"`
	Rows       []ShackleClamp  `json:"rows" nullable:"false"`
	Cautions   []rig.Caution   `json:"cautions" nullable:"false"`
	// Tying is how the pair asked for is tied.
	Tying *ShackleTying `json:"tying,omitempty"`
}

// ShackleTying is one soft shackle from cord to test.
type ShackleTying struct {
	Clamp       string `json:"clamp"`
	ClampName   string `json:"clamp_name"`
	Stopper     string `json:"stopper"`
	StopperName string `json:"stopper_name"`
	Word        string `json:"word" enum:"holds,marginal,pulls through"`
	// StopperFirst: the stoppers are tied before the clamp, as suits thick rope.
	StopperFirst bool `json:"stopper_first"`
	// Steps; none where the pair pulls through.
	Steps []ShackleStep `json:"steps" nullable:"false"`
}

// ShackleStep says what to do; Step of the drawing of Knot shows it, where there is one.
type ShackleStep struct {
	Says string `json:"says"`
	Knot string `json:"knot,omitempty"`
	// Way is the drawing of another way to the knot, where that is shown.
	Way  string `json:"way,omitempty"`
	Step int    `json:"step,omitempty"`
}

// ShackleClamp is a clamp with every stopper.
type ShackleClamp struct {
	Knot      string  `json:"knot"`
	Name      string  `json:"name"`
	OpeningMM float64 `json:"opening_mm"`
	// Never says why the clamp is not for loads; empty if it is.
	Never string        `json:"never" doc:"why the clamp is not for loads; empty if it is"`
	Cells []ShackleCell `json:"cells" nullable:"false"`
}

// ShackleCell is one clamp with one stopper.
type ShackleCell struct {
	Knot   string  `json:"knot"`
	Name   string  `json:"name"`
	BulkMM float64 `json:"bulk_mm"`
	// Ratio of bulk to opening. Word: holds from 1.2, marginal from 1, else pulls through.
	Ratio   float64 `json:"ratio"`
	Word    string  `json:"word" enum:"holds,marginal,pulls through"`
	Seconds float64 `json:"seconds"`
	// CordM is the cord that both knots take, without the loop between.
	CordM float64 `json:"cord_m" doc:"cord that both knots take, without the loop between, m"`
	// CutM is the cord to cut for the whole shackle; CapacityKN what it bears, Times how
	// many times the load, 0 where none is given.
	CutM       float64         `json:"cut_m"`
	CapacityKN evidence.Figure `json:"capacity_kn"`
	Times      float64         `json:"times,omitempty"`
	Says       string          `json:"says"`
	First      string          `json:"first"`
}

func shackleOf(s *job.Shackle) *ShackleAnswer {
	out := &ShackleAnswer{DiameterMM: s.Cord.MM(), Material: s.Material.Name, ClearMM: s.Clear.MM(), LoadKN: s.Load.KN(), CordKN: s.Bears.Capacity.InKN(), Cautions: s.Cautions}
	for _, c := range s.Clamps {
		row := ShackleClamp{Knot: c.Knot, Name: c.Name, OpeningMM: c.Opening.MM(), Never: c.Never}
		for _, p := range c.Pairs {
			cell := ShackleCell{Knot: p.Knot, Name: p.Name, BulkMM: p.Bulk.MM(), Ratio: p.Ratio, Word: say.StopperClass(p.Class), Seconds: p.Seconds,
				CordM: p.Uses.M(), CutM: p.Cut.M(), CapacityKN: p.Capacity.InKN(), Says: say.Stopper(c, p), First: p.First}
			if s.Load > 0 {
				cell.Times = p.Capacity.Likely / float64(s.Load)
			}
			row.Cells = append(row.Cells, cell)
		}
		out.Rows = append(out.Rows, row)
	}
	return out
}

func tyingOf(t *job.Tying) *ShackleTying {
	out := &ShackleTying{Clamp: t.Clamp.ID, ClampName: t.Clamp.Name, Stopper: t.Stopper.ID, StopperName: t.Pair.Name,
		Word: say.StopperClass(t.Pair.Class), StopperFirst: t.StopperFirst, Steps: []ShackleStep{}}
	for _, s := range t.Steps {
		out.Steps = append(out.Steps, ShackleStep{say.Tying(s), s.Knot, s.Way, s.Step})
	}
	return out
}

// Friction is whether a hitch holds at a friction. Numbers that have no finite value
// are null: the critical friction of what never locks, the hold ratio of what does.
type Friction = friction.Report
