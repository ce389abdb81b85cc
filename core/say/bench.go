package say

import (
	"fmt"
	"math"
	"time"

	"oarweed/core/bench"
	"oarweed/core/knot"
)

// EndName names one end of a specimen: the knot, and what was chosen in tying it.
func EndName(v bench.Variant, k *knot.Knot) string {
	out := v.Knot
	if k != nil {
		out = k.Name
	}
	if v.Wraps > 0 {
		out += fmt.Sprintf(", %s wraps", Number(v.Wraps))
	}
	if v.Finishing > 0 {
		out += fmt.Sprintf(", %s finishing", Number(v.Finishing))
	}
	if v.Lubricated {
		out += ", wetted"
	}
	if v.Trimmed {
		out += ", trimmed"
	}
	if v.Undressed {
		out += ", not dressed"
	}
	return out
}

// BenchOutcome is what happened in a pull, in a word or two.
func BenchOutcome(o bench.Outcome) string {
	return map[bench.Outcome]string{bench.Held: "held", bench.Crept: "crept", bench.Caught: "slipped, then caught", bench.SlippedOut: "slipped out", bench.Broke: "broke"}[o]
}

// Wetness is wet or dry.
func Wetness(wet bool) string {
	if wet {
		return "wet"
	}
	return "dry"
}

// BenchWhere is where a pull failed.
func BenchWhere(w bench.Where) string {
	return map[bench.Where]string{bench.KnotA: "knot A", bench.KnotB: "knot B", bench.InA: "inside knot A", bench.InB: "inside knot B", bench.InLine: "in the line", bench.AtGrip: "at the grip"}[w]
}

// Duel says which of two knots is the stronger, how sure that is and what more would tell: a
// headline and a sentence or two.
func Duel(a, b string, d bench.Duel) (head, body string) {
	stronger, weaker, won := b, a, d.AGave
	p := d.BStronger()
	if p < 0.5 {
		stronger, weaker, won, p = a, b, d.BGave, 1-p
	}
	percent := int(math.Floor(100 * p))
	more := d.More()
	pull := "No number of pulls that can be made will tell them apart: call them alike."
	if more < bench.MostMore {
		pull = fmt.Sprintf("If it goes on so, %s would tell.", Plural(more, "more pull"))
	}
	counted := fmt.Sprintf("In %s the %s gave first %s.", Plural(d.Pulls(), "pull"), Lower(weaker), Often(won))
	switch {
	case d.Pulls() == 0:
		return "Nothing has given yet", "No pull of the two against each other has failed in one of them."
	case p >= bench.EnoughSure:
		return fmt.Sprintf("The %s is stronger", Lower(stronger)), fmt.Sprintf("%s That is %d %% sure.", counted, percent)
	case p >= 0.8:
		return fmt.Sprintf("The %s is likely stronger", Lower(stronger)), fmt.Sprintf("%s That is %d %% sure: pull more before you teach it. %s", counted, percent, pull)
	case d.AGave == d.BGave:
		return "Too close to call", fmt.Sprintf("In %s each gave first as often. %s", Plural(d.Pulls(), "pull"), pull)
	}
	return "Too few pulls to tell", fmt.Sprintf("%s That is %d %% sure, hardly more than a coin. %s", counted, percent, pull)
}

// Lower is a name within a sentence.
func Lower(name string) string {
	if len(name) > 1 && name[1] >= 'a' && name[1] <= 'z' {
		return string(name[0]|0x20) + name[1:]
	}
	return name
}

// Plural is a count with its noun.
func Plural(n int, noun string) string {
	if n == 1 {
		return "one " + noun
	}
	return Number(n) + " " + noun + "s"
}

// Often says how often.
func Often(n int) string {
	switch n {
	case 0:
		return "never"
	case 1:
		return "once"
	case 2:
		return "twice"
	}
	return Number(n) + " times"
}

// Strengths says at what load a knot gave.
func Strengths(name string, g bench.Group, lineKN float64) string {
	if g.MedianKN == nil {
		return fmt.Sprintf("%s: %s.", name, TooFew(g))
	}
	out := fmt.Sprintf("%s gives at about %s", name, kn(*g.MedianKN))
	if g.MedianLow != nil && g.MedianHigh != nil {
		out += fmt.Sprintf(", nine in ten times between %s and %s for the middle of many", kn(*g.MedianLow), kn(*g.MedianHigh))
	} else {
		out += ", and so few failures do not bound that"
	}
	if lineKN > 0 {
		out += fmt.Sprintf(": %d %% of the line", int(math.Round(100**g.MedianKN/lineKN)))
	}
	return out + "."
}

func kn(v float64) string { return fmt.Sprintf("%.3g kN", v) }

// TooFew says why nothing could be worked out of pulls.
func TooFew(g bench.Group) string {
	switch g.TooFew {
	case bench.NothingFailed:
		return fmt.Sprintf("it held in %s, so that only a least strength is known", Plural(g.N, "pull"))
	case bench.OneLoadFailed:
		return "it gave only at the highest load of all: pull further or more"
	}
	return "too few pulls"
}

// House says what own pulls make of the catalogue's figure.
func House(name string, failures int, h bench.House) string {
	return fmt.Sprintf("%s: %s say %d to %d %%, the catalogue %d to %d; together %d to %d, your pulls weighing %d %%.", name, Plural(failures, "failure"),
		percent(h.Pulled.Low), percent(h.Pulled.High), percent(h.Prior.Low), percent(h.Prior.High), percent(h.Value.Low), percent(h.Value.High), percent(h.Weight))
}

func percent(v float64) int { return int(math.Round(100 * v)) }

// HouseSource is the source of a figure that own pulls give.
func HouseSource(failures, pulls int, weight float64) string {
	return fmt.Sprintf("%s on your bench, %s failed; they weigh %d %% beside the catalogue", Plural(pulls, "pull"), Number(failures), percent(weight))
}

// SlippedOften says how often a knot slipped out on the bench.
func SlippedOften(slipped, gave int) string {
	return fmt.Sprintf("on your bench it slipped out in %s of the %s in which it gave", Number(slipped), Plural(gave, "pull"))
}

// HouseMoved says what own pulls changed at a joint.
func HouseMoved(name string, share, was float64, place, wasPlace int) string {
	out := fmt.Sprintf("Your pulls: %s keeps %d %% where the catalogue says %d", Lower(name), percent(share), percent(was))
	switch {
	case wasPlace == 0:
		return out + ", which lets it in."
	case place == 0:
		return out + ", which rules it out."
	case place != wasPlace:
		return out + fmt.Sprintf(": it comes %s and not %s.", Ordinal(place), Ordinal(wasPlace))
	}
	return out + "; its place stays."
}

// OwnWraps says that own pulls set the count.
func OwnWraps(name string, n int) string {
	return fmt.Sprintf("Your pulls: %s gets %s in this line.", Lower(name), Plural(n, "wrap"))
}

// Ordinal is a place in an order.
func Ordinal(n int) string {
	if n >= 1 && n <= 6 {
		return [...]string{"first", "second", "third", "fourth", "fifth", "sixth"}[n-1]
	}
	return fmt.Sprintf("%d.", n)
}

// Yardstick says how many pulls came up to what one calls good.
func Yardstick(above, of int, kn float64, l bench.Limits) string {
	if of == 0 {
		return fmt.Sprintf("No pull says yet whether it comes up to %.3g kN.", kn)
	}
	return fmt.Sprintf("%s of %s came up to %.3g kN; of many, %d to %d in a hundred may be expected to.", Capital(Number(above)), Plural(of, "pull"), kn, percent(l.Low), percent(l.High))
}

// Guessed says what was taken for granted about a file.
func Guessed(g bench.Guess) string {
	return map[bench.Guess]string{
		bench.GuessedTimeUnit:  "The file does not say the unit of time: taken as seconds.",
		bench.GuessedForceUnit: "The file does not say the unit of force: taken as kilonewtons.",
		bench.GuessedColumns:   "The columns have no names: time and force are taken as the first two with numbers.",
	}[g]
}

// Pull says what one pull did.
func Pull(p bench.Pull) string {
	out := fmt.Sprintf("%s at %s", BenchOutcome(p.Outcome), kn(p.LoadKN()))
	if p.Where != "" {
		out += ", " + BenchWhere(p.Where)
	}
	if n := len(p.Slips()); n > 0 {
		out += fmt.Sprintf("; first slip at %s", kn(p.Slips()[0].LoadKN))
	}
	return out
}

// SeriesHead says how far a series is.
func SeriesHead(pulled, planned int) string {
	if pulled == 0 {
		return "Nothing pulled yet"
	}
	return fmt.Sprintf("%d of %d pulled", min(pulled, planned), planned)
}

// Twice says that the readings of a file are there already.
func Twice(at time.Time) string {
	return "These very readings are kept already, as the pull of " + at.Format("2 January 2006, 15:04") + "."
}

// Standing says what own pulls make of a claim.
func Standing(h bench.Standing) string {
	pulled := fmt.Sprintf("%d of %s speak for it", h.For, Plural(h.For+h.Counter, "pull"))
	switch {
	case h.For+h.Counter == 0:
		return "You have pulled nothing that speaks for it or against it."
	case h.Verdict == bench.Agrees:
		return fmt.Sprintf("Your bench agrees: %s, %d %% sure.", pulled, int(math.Floor(100*h.Sure)))
	case h.Verdict == bench.Disagrees:
		return fmt.Sprintf("Your bench disagrees: %s, %d %% sure of the contrary.", pulled, int(math.Floor(100*(1-h.Sure))))
	case h.More >= bench.MostMore:
		return fmt.Sprintf("Too close to tell: %s; no number of pulls that can be made will.", pulled)
	}
	return fmt.Sprintf("Too few to tell: %s; %s more like these would.", pulled, Number(h.More))
}

// ClassLog says what the class log holds of a knot.
func ClassLog(name string, tries, faults int) string {
	if tries == 0 {
		return ""
	}
	return fmt.Sprintf("In the log: %s at the %s, %s of them a fault.", tried(tries), Lower(name), Number(faults))
}

func tried(n int) string {
	if n == 1 {
		return "one try"
	}
	return Number(n) + " tries"
}
