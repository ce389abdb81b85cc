package say

import (
	"fmt"
	"strings"

	"oarweed/core/job"
	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/load"
	"oarweed/core/towline"
	"oarweed/core/unit"
)

// Hold says what a hold table comes to.
func Hold(t *job.HoldTable) string {
	hand := fmt.Sprintf("with a hand of %.0f N", float64(t.Hand))
	counts := t.Hitch.Counts
	var says string
	switch {
	case !t.Holds && counts != "":
		says = fmt.Sprintf("Not even %d %s hold %s %s at the lowest friction expected.", t.Hitch.To, counts, t.Load, hand)
	case !t.Holds:
		says = fmt.Sprintf("It does not hold %s %s at the lowest friction expected.", t.Load, hand)
	case counts != "":
		says = fmt.Sprintf("%d %s hold %s %s, even at the lowest friction expected.", t.Turns, counts, t.Load, hand)
	default:
		says = fmt.Sprintf("It holds %s %s, even at the lowest friction expected.", t.Load, hand)
	}
	if use := t.FromUse; use != nil {
		if class := classOf(use, t.Wet); class != knot.Holds {
			says = fmt.Sprintf("From use it %s. By friction alone %s", map[knot.Class]string{knot.Marginal: "is marginal", knot.Slips: "slips"}[class], lower(says))
		}
	}
	return says
}

func classOf(h *knot.HoldClass, wet bool) knot.Class {
	if wet {
		return h.Wet
	}
	return h.Dry
}

// TowPlace says where a tow line is made fast; hitch is the knot of the place, nil where
// a take-off fits.
func TowPlace(p towline.Place, hitch *knot.Knot) string {
	both := func(l unit.Length) string {
		return fmt.Sprintf("%.3g ft (%s)", float64(l/unit.Foot), l)
	}
	if p.Hitch == "" {
		return fmt.Sprintf("Take the %s take-off as it is: its loop goes on from the rider's side.", both(p.Takeoff))
	}
	mark := "from its loop"
	if p.Below {
		mark = "from the shortest take-off, in the line itself"
	}
	return fmt.Sprintf("Take the %s take-off and take up %s (%.2g ft): the %s sits so far %s toward the handle. What is left lies slack in the boat, clear of feet.",
		both(p.Takeoff), Reach(p.TakeUp), float64(p.TakeUp/unit.Foot), lower(hitch.Name), mark)
}

// Relief says what was worked out for freeing a jammed line.
func Relief(c *job.Card) []string {
	r, rel := c.Helper, c.Relief
	mu := r.Line.Mu(r.Wet)
	line := "dry " + r.Line.Material.Name
	if r.Wet {
		line = "wet " + r.Line.Material.Name
	}
	var out []string
	switch bears := rel.Hitch.Strength; {
	case rel.Thick():
		return []string{fmt.Sprintf("No: the helper is thicker than the loaded line (%.2g to 1). A rolling hitch needs the thinner line to grip the thicker.", rel.Ratio)}
	case rel.Weak():
		return []string{fmt.Sprintf("No: this helper is too weak. At its worst the hitch in it bears %s, and the load is %s; twice the load is the least. Take a stronger line.", twoFigures(bears.Capacity.Low), r.Load)}
	}
	if rel.Holds {
		out = append(out, fmt.Sprintf("Taught are two or three riding turns, finished with half hitches that hold the tail. Without them, at the lowest friction of %s (%.2g), %s riding turns need %.0f N on the tail: keep a hand on it.", line, mu.Low, Number(rel.Turns), float64(rel.Tail)))
	} else {
		out = append(out, fmt.Sprintf("Even %s riding turns may slide: %s can have a friction as low as %.2g. Use a helper of polyester or natural fibre, or a thinner one, and load it slowly.", Number(rel.Turns), line, mu.Low))
	}
	if rel.Ratio < job.Thinner {
		out = append(out, fmt.Sprintf("The helper is hardly thinner than the loaded line (%.2g to 1): a thinner one grips better.", rel.Ratio))
	}
	return append(out, fmt.Sprintf("%s turns on the winch hold %s with %.0f N on the end.", Capital(Number(rel.WinchTurns)), r.Load, float64(judge.LightHand)))
}

// Blanks are what the blanks of a card's steps are filled with.
func Blanks(c *job.Card) map[string]string {
	words := map[string]string{}
	if c.Relief != nil {
		words["turns"], words["winch"] = Number(c.Relief.Turns), Number(c.Relief.WinchTurns)
		var each []string
		for i, f := range c.Relief.Hand {
			each = append(each, fmt.Sprintf("%d turns %s", i+2, twoFigures(float64(f))))
		}
		words["hand"] = "at the lowest friction " + strings.Join(each, ", ")
		words["helper"] = fmt.Sprintf("%s %s", c.Helper.Line.Diameter, c.Helper.Line.Material.Name)
	}
	if c.Length > 0 {
		words["length"] = Reach(c.Length)
	}
	if p := c.Purchase; p.Likely > 0 {
		words["purchase"] = fmt.Sprintf("%.1f to %.1f times", p.Low, p.High)
		words["drawn"] = fmt.Sprintf("%s to %s", twoFigures(200*p.Low), twoFigures(500*p.High))
	}
	if c.Lashing > 0 {
		words["lashing"] = Reach(c.Lashing)
	}
	if r := c.Helper; r != nil {
		fishing := r.Line.Material.Fishing
		for word, share := range map[string]float64{"load": 1, "half": 0.5, "quarter": 0.25, "more": 1.5} {
			words[word] = Force(unit.Force(float64(r.Load)*share), fishing)
		}
	}
	if words["length"] == "" {
		words["length"] = "enough line"
	}
	return words
}

// Stopper says how a stopper stands to the clamp it must not pass.
func Stopper(c job.Clamp, p job.Pair) string {
	if c.Never != "" {
		return c.Never
	}
	return fmt.Sprintf("The stopper draws up to %s, the clamp leaves %s open.", p.Bulk, c.Opening)
}

// StopperClass is the word for a class of stopper.
func StopperClass(c knot.Class) string {
	if c == knot.Slips {
		return "pulls through"
	}
	return string(c)
}

// Load says what a load comes to, and the steps to it.
func Load(k load.Kind) (says string, working []string) {
	likely := unit.Force(k.Of().Likely)
	switch x := k.(type) {
	case load.WindOnArea:
		return fmt.Sprintf("%s of wind on %.3g m².", likely, x.Area),
			[]string{fmt.Sprintf("½ × %g kg/m³ × (%.3g m/s)² × %.2g × %.3g m² = %s", load.AirDensity, x.Wind, x.Cd, x.Area, likely)}
	case load.WindOnLength:
		return fmt.Sprintf("%s of wind on a boat %.3g ft long.", likely, float64(x.LOA/unit.Foot)), []string{
			fmt.Sprintf("%.0f lbf at %g kn by the table", x.Pounds, load.TableWind),
			fmt.Sprintf("× (%.3g kn ÷ %g kn)² = %s", x.Wind/load.KnotSpeed, load.TableWind, likely)}
	case load.Shared:
		working = []string{fmt.Sprintf("%s ÷ cos %.3g° = %s", x.Force, float64(x.Angle/unit.Degree), x.One)}
		switch {
		case x.Even:
			return fmt.Sprintf("Each of %d lines carries %s.", x.Lines, likely), append(working, fmt.Sprintf("÷ %d lines that share evenly = %s", x.Lines, likely))
		case x.Lines > 1:
			working = append(working, "lines seldom share: the worst one is taken to carry all")
		}
		return fmt.Sprintf("The worst line carries %s.", likely), working
	case load.Jerk:
		return fmt.Sprintf("The jerk peaks at about %s.", likely), []string{
			fmt.Sprintf("stiffness %s ÷ (%.0f %% × %s) = %.3g kN/m", x.Strength, 100*x.Stretch, x.Length, x.Stiffness/1000),
			fmt.Sprintf("%.3g m/s × √(%.3g kN/m × %.4g kg) = %s", x.Speed, x.Stiffness/1000, x.Mass, likely)}
	case load.Dragged:
		return fmt.Sprintf("Drag and shock come to about %s.", likely.Pounds()),
			[]string{fmt.Sprintf("drag 25 to 33 %% of %s", x.Class.Pounds()), fmt.Sprintf("and %.0f %% for the shock", 100*x.Shock)}
	case load.Ridden:
		return fmt.Sprintf("The start peaks at about %s, the steady pull is %s.", likely, x.Steady), []string{
			fmt.Sprintf("steady pull + mass × speed ÷ time = %s", x.Start), "and up to half as much again where the start is uneven"}
	case load.Hauled:
		return fmt.Sprintf("%d on the line haul about %s.", x.People, likely), []string{fmt.Sprintf("%d × %d N", x.People, load.OnePerson)}
	}
	panic(fmt.Sprintf("say: no words for %T", k)) // a kind of load was added without its words
}

// Tying says one move of tying a soft shackle.
func Tying(s job.TyingStep) string {
	switch s.Move {
	case job.CutCord:
		return "Cut the cord to the length in the table, and find its middle."
	case job.OverFinger:
		return "Make the clamp there, over a finger that keeps the place of the tails; drawn, the finger is a bar."
	case job.TieEach:
		return "In each tail: " + lower(s.Words)
	case job.TieBoth:
		return "With both tails as one: " + lower(s.Words)
	case job.TailsThrough:
		return "Both tails through the clamp as the finger leaves; draw it shut on them."
	case job.StoppersThrough:
		return "One stopper after the other through the clamp while it is open; then draw the clamp shut behind them."
	case job.TestPull:
		return "Close it hand tight; then half the load, then the load and half as much again, with a guard and covered eyes. The stopper must not sink into the clamp."
	}
	return s.Words
}

// TowLine says what is to be seen to on a tow line: places where a hitch has rubbed the cover.
func TowLine(b towline.Book) []string {
	out := []string{}
	for _, r := range b.Rubbed() {
		out = append(out, fmt.Sprintf("A hitch has sat at %.1f m in %s runs: feel the cover there, and shift the place by an arm's length.", r.PlaceM, Number(r.N)))
	}
	return out
}

// Threads says how a loop goes on so that nothing drops off: common practice, no source.
func Threads(on towline.On) []string {
	last := "Pull the long part by hand before the boat does: both legs lie together under the bridge."
	switch on {
	case towline.Tower:
		return []string{"Loop up and over the knob from behind, then the whole line through the loop.", "The long part leaves astern, level with the knob or below it: a pull upward lifts it off.", last}
	case towline.Hook:
		return []string{"Loop through itself round the bowl of the hook; the gate or the point looks up or forward.", "The long part leaves astern, away from the opening: never across it.", last}
	case towline.Eye:
		return []string{"Pass the loop through the eye from the rider's side, and the whole line through the loop.", "The long part leaves straight astern: across the eye's edge it saws.", last}
	}
	return []string{"Enter the loop from the rider's end, lay it round the pylon, draw the whole line through it.", "The long part leaves astern. Threaded from the boat's side the take-off drops off as she goes.", last}
}

// SlipLine says how long a slip line is and what runs.
func SlipLine(s job.Slip) string {
	return fmt.Sprintf("%s of line: through the ring and back to the same cleat. When one end is let go %s runs out through the ring, so that end bears no knot, no splice and no eye.", s.Length, s.Runs)
}

// HeavingLine says how long heaving line and messenger are.
func HeavingLine(h job.Heave) string {
	out := fmt.Sprintf("%s of heaving line, coiled in two hands: throw past the hand ashore, not at it. %s of messenger reaches there and back.", h.Heaving, h.Messenger)
	if h.Far {
		out += " That is farther than most people throw: come closer, or send it another way."
	}
	return out
}

// FenderTide says how a fender hangs at a wall as the water goes.
func FenderTide(t job.Tide) string {
	hangs, clear := "at the rail", "just clear of the water"
	if t.Drop >= unit.Length(0.01) {
		hangs = Reach(t.Drop) + " below the rail"
	}
	if t.Clear >= unit.Length(0.01) {
		clear = Reach(t.Clear) + " above the water"
	}
	out := fmt.Sprintf("Its eye hangs %s, its foot %s.", hangs, clear)
	if !t.Covers {
		out += " At high water the edge comes down below its middle: hang a longer one, or a board across two."
	}
	if t.Over >= unit.Length(0.01) {
		out += fmt.Sprintf(" At high water her rail stands %s above the edge: she can ride over it.", Reach(t.Over))
	}
	if t.Under >= unit.Length(0.01) {
		out += fmt.Sprintf(" At low water her rail is %s below the edge: lines lead up.", Reach(t.Under))
	}
	if t.Lead > 0 {
		out += fmt.Sprintf(" Lead lines at least %s, or see to them as the tide goes: short ones hang her up.", Reach(t.Lead))
	}
	return out
}
