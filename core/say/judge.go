package say

import (
	"fmt"
	"math"
	"strings"

	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/rank"
	"oarweed/core/rig"
)

// Reason puts a violated limit into words.
func Reason(r judge.Reason) string {
	switch x := r.(type) {
	case judge.NotForTask:
		return "Not made for this. " + x.Knot.Summary
	case judge.NotOnThis:
		return "Not tied on a " + x.Fitting.Name + "."
	case judge.RatioOutside:
		return fmt.Sprintf("The lines are %.2g to 1: %s.", x.Ratio, x.Limit.Why)
	case judge.RefusesMaterial:
		return Sentence(x.Why)
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
		return fmt.Sprintf("It draws up to about %s, and a %s gap wants %s or more.", x.Bulk, x.Hole, x.Hole*judge.StopperMargin)
	case judge.TailTooShort:
		return fmt.Sprintf("Needs %s to tie, and there is %s.", x.Needs, x.Has)
	case judge.TooSlow:
		return fmt.Sprintf("Takes %s at least, and there is %s.", Clock(x.Takes), Clock(x.Has))
	case judge.NotForPeople:
		return "Not where a person could be held or struck."
	case judge.TooWeak:
		word := "break"
		if x.Slips {
			word = "slip"
		}
		return fmt.Sprintf("Likely %s at %s, below the load itself.", word, x.Capacity)
	}
	panic(fmt.Sprintf("say: no words for %T", r)) // a type of reason was added without its words
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
	case h.Class == knot.Holds:
		return "locks even at the lowest friction expected"
	case math.IsInf(l.Critical, 1):
		return "never locks by itself: a hand or more turns must hold the end"
	case h.Class == knot.Slips:
		return fmt.Sprintf("needs friction of %.2f, and this line has at most %.2f", l.Critical, l.Mu.High)
	default:
		return fmt.Sprintf("needs friction of %.2f, and this line has %.2f to %.2f", l.Critical, l.Mu.Low, l.Mu.High)
	}
}

// Fails is what happens at the limit of a joint.
func Fails(slips bool) string {
	if slips {
		return "slips"
	}
	return "breaks"
}

// Enough is the word for how the capacity stands to what is asked for.
func Enough(e judge.Enough) string {
	return map[judge.Enough]string{judge.Ample: "enough", judge.Under: "short", judge.Thin: "thin"}[e]
}

// Release says in a few words how a knot comes off.
func Release(k *knot.Knot) string {
	if k.Release.UnderLoad {
		return "under load"
	}
	return map[knot.Off]string{knot.Easy: "by hand, when slack", knot.Worked: "by hand, with work", knot.Jams: "jams", knot.Cut: "by cutting"}[k.Release.Slack]
}

// Criterion names a part of the score.
func Criterion(c rank.Criterion) string {
	return map[rank.Criterion]string{
		rank.Fit: "made for this", rank.Strength: "strength", rank.Hold: "hold", rank.Release: "coming off", rank.Time: "time to tie",
		rank.Ease: "easy to learn", rank.Inspect: "easy to check", rank.Line: "line used",
	}[c]
}

// Flags are warnings about a knot in its rig.
func Flags(v judge.Verdict) []string {
	out := []string{}
	switch h := v.Now(); {
	case h.Class == knot.Marginal && h.Locking == nil:
		out = append(out, Sentence(HoldWhy(h, v.Knot)))
	case h.Class == knot.Marginal && h.Locking.Chance < 0.9:
		flag := fmt.Sprintf("Locks by itself in %.0f of 100 cases.", 100*h.Locking.Chance)
		if hand := h.Locking.Hand; hand > 0 && !math.IsInf(float64(hand), 1) {
			flag += fmt.Sprintf(" At the worst the end must be held with %s: add turns, or another half hitch.", hand)
		}
		out = append(out, flag)
	}
	if v.Strength.Slips {
		out = append(out, "It slips before it breaks.")
	}
	if v.Strength.Enough != judge.Ample {
		out = append(out, fmt.Sprintf("Bears %.1f times the load; %.0f times is asked for.", v.Strength.Times, v.Rig.DesignFactor))
	}
	if v.Size.Short > 0 {
		out = append(out, fmt.Sprintf("%d wraps fewer than this line asks for.", v.Size.Short))
	}
	if v.Rig.Line.Wear == 3 {
		out = append(out, "This line is worn out: retire it.")
	}
	return out
}

// lower begins without a capital.
func lower(s string) string {
	if s == "" {
		return s
	}
	return strings.ToLower(s[:1]) + s[1:]
}
