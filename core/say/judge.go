package say

import (
	"fmt"
	"math"
	"strings"

	"oarweed/core/evidence"
	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/rank"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Reason puts a violated limit into words.
func Reason(r judge.Reason) string {
	switch x := r.(type) {
	case judge.NotForTask:
		return "Not made for this. " + x.Knot.Summary
	case judge.NotOnThis:
		return "Not tied on a " + x.Fitting.Name + "."
	case judge.BarelySuits:
		return Sentence("not for this: " + x.Why)
	case judge.RatioOutside:
		return fmt.Sprintf("The lines are %.2g to 1: %s.", x.Ratio, x.Limit.Why)
	case judge.RefusesMaterial:
		return Sentence(x.Why)
	case judge.RefusesSurface:
		return Sentence(x.Why)
	case judge.FishingLine:
		return "Fishing line is no rope: it cuts, and it cannot be let go by hand."
	case judge.OutsideRange:
		return fmt.Sprintf("This line is %s: %s.", rangeIs(x, x.Is), x.Of.Why)
	case judge.SlidesAlong:
		return fmt.Sprintf("It slides along the %s: it is for a pull across it.", x.Fitting.Name)
	case judge.OneLeg:
		return "It holds only while both of its parts are loaded, and here one is."
	case judge.ShakesOut:
		return Sentence(x.Why)
	case judge.Doubtful:
		return Sentence(HoldWhy(x.Hold, x.Knot))
	case judge.LeftThin:
		return fmt.Sprintf("At its worst it is left with %.2g times the load; %d times is the least.", x.Times, judge.LeftAtWorst)
	case judge.WillSlip:
		word := "dry"
		if x.Wet {
			word = "wet"
		}
		return fmt.Sprintf("Slips %s: %s.", word, HoldWhy(x.Hold, x.Knot))
	case judge.WrongRelease:
		cannot := map[rig.Release]string{
			rig.UnderLoad: "Cannot be cast off under load.", rig.Distance: "Cannot be cast off from a distance.", rig.Slack: "Does not come off by hand.",
		}
		return cannot[x.Asked] + " " + x.How
	case judge.LineTooThick:
		if x.Gap {
			return fmt.Sprintf("A %s line does not pass through a %s gap.", x.Line, x.Hole)
		}
		return fmt.Sprintf("A %s line does not pass through a %s hole.", x.Line, x.Hole)
	case judge.BightTooThick:
		return fmt.Sprintf("The line goes through doubled, and two of %s do not pass a %s eye.", x.Line, x.Eye)
	case judge.PullsThrough:
		return fmt.Sprintf("It draws up to about %s, and a %s gap wants %s or more.", about(x.Bulk), x.Hole, about(x.Hole*judge.StopperMargin))
	case judge.StopsAtGuide:
		return fmt.Sprintf("It draws up to about %s, and the guide is %s wide.", about(x.Bulk), x.Guide)
	case judge.TailTooShort:
		return fmt.Sprintf("Needs %s to tie, and there is %s.", Reach(x.Needs), Reach(x.Has))
	case judge.TooSlow:
		return fmt.Sprintf("Takes %s at least, and there is %s.", Clock(x.Takes), Clock(x.Has))
	case judge.NotForPeople:
		return "Not where a person could be held or struck."
	case judge.TooWeak:
		word := map[knot.Fails]string{knot.Breaks: "break", knot.Gives: "slip", knot.Creeps: "creep"}[x.Fails]
		return fmt.Sprintf("Likely %s at %s, below the load itself.", word, x.Capacity)
	case judge.ComesOff:
		return "It comes off while it bears, whoever lets it go. " + x.How
	case judge.WorksLoose:
		return Sentence("left for months, " + lower(x.Why))
	}
	panic(fmt.Sprintf("say: no words for %T", r)) // a type of reason was added without its words
}

func rangeIs(x judge.OutsideRange, v float64) string {
	if x.Lb {
		return (unit.Force(v) * unit.Pound).Pounds()
	}
	return (unit.Length(v) * unit.Millimetre).String()
}

// Mend says what to change so that a limit is met; empty where nothing at hand does it.
func Mend(r judge.Reason) string {
	switch x := r.(type) {
	case judge.TailTooShort:
		return fmt.Sprintf("Give it %s more line.", Reach(x.Needs-x.Has))
	case judge.TooSlow:
		return fmt.Sprintf("Allow %s, or tie it ahead.", Clock(x.Takes))
	case judge.TooWeak:
		return "Take a stronger line, or let it bear less."
	case judge.WillSlip:
		if x.Knot.Advice != "" {
			return x.Knot.Advice
		}
		return "Take a line that grips better."
	case judge.WrongRelease:
		return "Let it come off another way, with the load off."
	case judge.OutsideRange:
		limit := x.Of.MM
		if x.Lb {
			limit = x.Of.Lb
		}
		if x.Is < limit[0] {
			return fmt.Sprintf("It is for %s and more.", rangeIs(x, limit[0]))
		}
		return fmt.Sprintf("It is for %s and less.", rangeIs(x, limit[1]))
	case judge.PullsThrough:
		return "Take a bulkier stopper, or put a washer or a ring before the gap."
	case judge.StopsAtGuide:
		return "Take a slimmer join, or a thinner line for the thicker of the two."
	case judge.LineTooThick, judge.BightTooThick:
		return "Take a thinner line or a larger opening."
	case judge.RatioOutside:
		return "Take lines nearer in size, or a bend made for the step."
	case judge.RefusesMaterial, judge.FishingLine:
		return "Take another line."
	case judge.RefusesSurface:
		return "Put it on rough wood, or take a rated sling."
	case judge.SlidesAlong:
		return "Lead the line across it, or put a stop or a cleat on it."
	case judge.OneLeg:
		return "Load both parts alike, or take a hitch that one part may load."
	case judge.ShakesOut:
		return "Keep it loaded and watched, or tie one that does not shake out."
	case judge.NotForPeople:
		return "Choose the task that says what holds the person: a harness, a chair, being lowered."
	}
	return ""
}

// HoldWhy says why a joint holds, or does not.
func HoldWhy(h judge.Hold, k *knot.Knot) string {
	switch {
	case h.Shaken:
		return k.Shake.Why
	case h.FromUse != nil:
		return h.FromUse.Why
	}
	switch l := h.Locking; {
	case k.HeldByHand && h.Class != knot.Slips:
		return fmt.Sprintf("it never locks: a hand stays on the end, with %s, %s at the worst", Hand(l.Hand.Likely), Hand(l.Hand.High))
	case k.HeldByHand:
		return fmt.Sprintf("it never locks, and its end asks %s of the hand at the worst: lay on more turns", Hand(l.Hand.High))
	case l.Locks >= 0.9:
		return "it locks by itself, at any load"
	case h.Class == knot.Holds:
		return "its turns leave the end so little to hold that the end holds it by itself at this load"
	case l.Locks < 0.01 && h.Class == knot.Slips:
		return "it does not lock by itself in this line: a hand must hold the end"
	default:
		return fmt.Sprintf("it holds this load by itself in about %.0f of 100 cases", 100*h.Chance.Likely)
	}
}

// Reach is a length of line as a person would say it: two figures, in centimetres below
// one metre.
func Reach(l unit.Length) string {
	switch cm := float64(l) * 100; {
	case cm < 1:
		return fmt.Sprintf("%.1f cm", cm)
	case cm < 99.5:
		return fmt.Sprintf("%.0f cm", cm)
	case l < 9.95:
		return fmt.Sprintf("%.1f m", float64(l))
	}
	return fmt.Sprintf("%.0f m", float64(l))
}

// Hand is a force on the end, in newtons; in words beyond what one hand holds.
func Hand(n float64) string {
	if !math.IsInf(n, 1) && n > float64(judge.OneHand) {
		return twoFigures(n) + " (not by one hand)"
	}
	return twoFigures(n)
}

func twoFigures(n float64) string {
	if math.IsInf(n, 1) {
		return "more than any hand"
	}
	if n >= 999.5 {
		return fmt.Sprintf("%.2g kN", n/1000)
	}
	return fmt.Sprintf("%.0f N", math.Round(n/roundTo(n))*roundTo(n))
}

func roundTo(n float64) float64 {
	if n < 10 {
		return 1
	}
	return math.Pow(10, math.Floor(math.Log10(n))-1)
}

// At is the place at which a joint gives.
func At(v judge.Verdict) string {
	switch {
	case v.Strength.Fails != knot.Breaks:
		return "in the knot"
	case v.Knot.FailsAt != "":
		return v.Knot.FailsAt
	}
	return "in the line, where it enters the knot"
}

// Enough is the word for how the capacity stands to what is asked for.
func Enough(e judge.Enough) string {
	return map[judge.Enough]string{judge.Ample: "enough", judge.Under: "short", judge.Thin: "thin"}[e]
}

// Yourself stands in place of any word of approval where people depend on a knot.
const Yourself = "Tied like this by those who do it. Approve it yourself, under your own rules."

// Strength is the word for how line and joint stand to what is asked for; where people
// depend on it, that it is theirs to approve.
func Strength(v judge.Verdict) string {
	if v.Rig.Consequence == rig.Person {
		return "yours"
	}
	return Enough(v.Strength.Enough)
}

// Decided says why the first knot stands above the next.
func Decided(d rank.Decided, next string) string {
	switch {
	case d.But != nil:
		return fmt.Sprintf("Before the %s: %s", lower(next), lower(Reason(d.But)))
	case d.Made:
		return fmt.Sprintf("Before the %s, which is not made for this.", lower(next))
	}
	return fmt.Sprintf("Before the %s above all for this: %s.", lower(next), Criterion(d.Criterion))
}

// LettingGo says what the hand holds while a knot is cast off under load.
func LettingGo(x *judge.LettingGo) string {
	if x == nil {
		return ""
	}
	says := fmt.Sprintf("With the rest off, %s asks %s of the hand, %s at the worst", x.Left.Name, twoFigures(x.Hand.Likely), twoFigures(x.Hand.High))
	if x.Hand.High > float64(judge.OneHand) {
		return says + ": more than one hand holds. Keep a turn more on, or ease it with help."
	}
	return says + "."
}

// Release says in a few words how a knot comes off.
func Release(k *knot.Knot) string {
	if k.Release.UnderLoad {
		return "under load"
	}
	return map[knot.Off]string{knot.Easy: "by hand, when slack", knot.Worked: "by hand, with work", knot.Jams: "jams", knot.Cut: "by cutting"}[k.Release.Slack]
}

var criteria = [...]string{rank.Fit: "made for this", rank.Strength: "strength", rank.Hold: "hold", rank.Release: "coming off", rank.Time: "time to tie",
	rank.Ease: "easy to learn", rank.Inspect: "easy to check", rank.Line: "line used"}

// Purchase says what a trucker's hitch makes of a pull by hand.
func Purchase(p evidence.Interval) string {
	return fmt.Sprintf("With friction it makes %.1f to %.1f times of your pull, not three: a hand of 200 to 500 N draws the line to %s to %s.",
		p.Low, p.High, twoFigures(200*p.Low), twoFigures(500*p.High))
}

// Criterion names a part of the score.
func Criterion(c rank.Criterion) string { return criteria[c] }

// Flags are warnings about a knot in its rig.
func Flags(v judge.Verdict) []string {
	out := []string{}
	h := v.Now()
	if v.Knot.HeldByHand {
		out = append(out, Sentence(HoldWhy(h, v.Knot)))
	} else if h.Class == knot.Marginal {
		flag := Sentence(HoldWhy(h, v.Knot))
		if l := h.Locking; l != nil && !h.Shaken {
			if hand := l.Hand.High; hand > 0 {
				flag += fmt.Sprintf(" At the worst its end must be held with %s.", Hand(hand))
			}
		}
		if v.Knot.Advice != "" {
			flag += " " + v.Knot.Advice
		}
		out = append(out, flag)
	}
	switch v.Strength.Fails {
	case knot.Gives:
		out = append(out, "It slips before it breaks.")
	case knot.Creeps:
		out = append(out, "It creeps down until it catches on the thing: what hangs on it is not lost, and the knot is tied again.")
	}
	if q := v.Knot.Ratio; q != nil && v.Rig.Other != nil && v.Size.Ratio < q.Below {
		out = append(out, Sentence(q.Says))
	}
	if v.Rig.Ground == rig.Sharp && v.Rig.Line.Material.Cut {
		out = append(out, fmt.Sprintf("Sharp rock cuts %s: HMPE or wire stands it, or a length of chain where it lies.", v.Rig.Line.Material.Name))
	}
	if l := v.Size.Loop; l.Likely > 0 {
		out = append(out, fmt.Sprintf("Make the loop %.0f to %.0f mm long for this eye: longer, it hangs up, rides round the fly's eyes and is cut there.", 1000*l.Low, 1000*l.High))
	}
	if v.Rig.Bare && v.Knot.Wraps != nil && v.Knot.Wraps.Finish != nil {
		f := v.Knot.Wraps.Finish
		out = append(out, fmt.Sprintf("Without its finishing wraps the fold draws into the wraps: they would give %.0f to %.0f %% more.", 100*f.Low, 100*f.High))
	}
	switch s := v.Strength; s.Enough {
	case judge.Under:
		out = append(out, fmt.Sprintf("The line is short: new and dry it bears %.2g times the load at least, and %.0f times is wanted.", s.New*v.Rig.DesignFactor, v.Rig.DesignFactor))
	case judge.Thin:
		out = append(out, fmt.Sprintf("Thin: knot, water and wear at their worst leave %.2g times the load, and %d times is the least.", s.Margin*judge.LeftAtWorst, judge.LeftAtWorst))
	}
	if n := v.Size.Short; n > 0 {
		wraps := "wraps"
		if n == 1 {
			wraps = "wrap"
		}
		p := v.Size.PerWrap
		out = append(out, fmt.Sprintf("%s %s fewer than this line asks for: each costs %.0f to %.0f %% of the strength.", Capital(Number(n)), wraps, 100*p.Low, 100*p.High))
	}
	if tail := v.Rig.Tail; tail > 0 && v.Size.Needs > tail {
		out = append(out, fmt.Sprintf("There is %s to tie with: the tail comes out shorter than usual. %s is better.", Reach(tail), Reach(v.Size.Needs)))
	}
	if b := v.Size.Backup; b != nil {
		out = append(out, fmt.Sprintf("Back the end up with %s %s: its length is counted in.", article(b.Name), lower(b.Name)))
	}
	if v.Rig.Line.Wear == 3 {
		out = append(out, "This line is worn out: retire it.")
	}
	return out
}

func article(name string) string {
	if strings.ContainsRune("aeiouAEIOU", rune(name[0])) {
		return "an"
	}
	return "a"
}

// lower begins without a capital.
func lower(s string) string {
	if s == "" {
		return s
	}
	return strings.ToLower(s[:1]) + s[1:]
}

// about is a length as somebody says it who has not measured it: in two figures.
func about(l unit.Length) unit.Length {
	if l <= 0 {
		return l
	}
	step := math.Pow(10, math.Floor(math.Log10(l.MM()))-1)
	return unit.Length(math.Round(l.MM()/step)*step) * unit.Millimetre
}
