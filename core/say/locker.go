package say

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"oarweed/core/leader"
	"oarweed/core/locker"
	"oarweed/core/practice"
	"oarweed/core/usage"
)

var grades = [...]string{"as new", "marked", "worn", "to be retired"}

// LineState says what is to be done about a line of the locker, the most pressing first, and what
// it bears.
func LineState(l locker.Line, s locker.State) []string {
	var out []string
	add := func(format string, args ...any) { out = append(out, fmt.Sprintf(format, args...)) }
	switch {
	case l.Retired != "":
		add("Retired on %s: not to be used.", day(l.Retired))
	case s.Retire == locker.Worn:
		add("Retire it: it was found so worn that nothing should hang on it.")
	case s.Retire == locker.Past:
		add("Its day has come: it was to be retired by %s.", day(l.RetireBy))
	}
	if l.Retired == "" {
		switch {
		case s.Since:
			add("Look it over: something went wrong with it since it was last looked at.")
		case s.LookDue && l.Last() == nil:
			add("Look it over: nobody has yet.")
		case s.LookDue:
			add("Look it over: that was due on %s.", day(s.LookBy))
		}
		if s.Old && s.Retire == "" {
			add("It is %.0f years old: textile lines are commonly put aside after %.0f to %.0f, whatever they look like. What its maker says wins.", s.Years, locker.OldYears.Low, locker.OldYears.High)
		}
	}
	add("It bears %s to %s now, wet and %s; new it was %s.", kn(s.Now.Low), kn(s.Now.High), grades[l.Wear], kn(s.New.Likely))
	return out
}

func day(text string) string {
	t, err := time.Parse(time.DateOnly, text)
	if err != nil {
		return text
	}
	return t.Format("2 January 2006")
}

var parts = map[string]string{"core": "core", "chafe": "cover", "glaze": "glaze", "stiffness": "stiffness", "splice": "splice"}

// Looked says how a line was found.
func Looked(k locker.Look) string {
	var found []string
	for _, p := range locker.Parts {
		if g, ok := k.Grades[p]; ok && g > 0 {
			found = append(found, fmt.Sprintf("%s %s", parts[p], grades[g]))
		}
	}
	out := "Looked over by " + k.By + ": "
	if len(found) == 0 {
		out += "as new"
	} else {
		out += List(found)
	}
	if k.PlaceM > 0 {
		out += fmt.Sprintf(", worst at %.1f m", k.PlaceM)
	}
	out += "."
	if k.Note != "" {
		out += " " + noted(k.Note)
	}
	return out
}

// noted is a note as a sentence of its own.
func noted(s string) string { return Sentence(strings.TrimRight(s, ". ")) }

// LineDay says what a day of a line's history was.
func LineDay(kind string) string {
	return map[string]string{"bought": "Bought.", "retired": "Taken out of use."}[kind]
}

// CutForLeader says that a leader came off a spool.
func CutForLeader(b leader.Book) string {
	return fmt.Sprintf("%.2f m cut for the leader %s; tied again %s since.", b.LengthM, b.Name, Often(b.Changes))
}

// PulledOnBench says that pieces of a line were pulled.
func PulledOnBench(series string, n int) string {
	return fmt.Sprintf("Pulled on the bench: %s, %s.", series, Plural(n, "pull"))
}

var outcomes = map[usage.Outcome]string{usage.Held: "held", usage.Slipped: "slipped", usage.Jammed: "jammed", usage.Broke: "broke",
	usage.Chafed: "chafed", usage.Late: "could not be cast off in time"}

// Used says what was rigged where and what came of it; knot is the knot's name, or empty.
func Used(e usage.Entry, knot string) string {
	what := e.Rig
	if what == "" {
		what = Lower(knot)
	} else if knot != "" {
		what += ", " + Lower(knot)
	}
	if what == "" {
		what = "in use"
	}
	out := fmt.Sprintf("%s, %s: %s", Capital(e.Where), what, outcomes[e.Outcome])
	if e.PlaceM > 0 {
		out += fmt.Sprintf(" at %.1f m", e.PlaceM)
	}
	if e.Hours > 0 {
		out += fmt.Sprintf(", after %g h", e.Hours)
	}
	if e.WindKn > 0 {
		out += fmt.Sprintf(", in %.0f knots of wind", e.WindKn)
	}
	out += "."
	if e.Note != "" {
		out += " " + noted(e.Note)
	}
	return out
}

// Tally says how often a line or a knot was used and what went wrong most.
func Tally(t usage.Tally) string {
	if t.N == 0 {
		return "Not in the log yet."
	}
	out := fmt.Sprintf("%s logged", Plural(t.N, "use"))
	if t.Worst == "" {
		return Capital(out) + ", and nothing went wrong."
	}
	var wrong []string
	list := slices.Clone(usage.Outcomes[1:])
	slices.SortStableFunc(list, func(a, b usage.Outcome) int { return t.By[b] - t.By[a] })
	for _, o := range list {
		if n := t.By[o]; n > 0 {
			wrong = append(wrong, outcomes[o]+" "+Often(n))
		}
	}
	return Capital(out) + ": " + strings.Join(wrong, ", ") + "."
}

// GearDue says that a knot on gear is to be looked at again.
func GearDue(g practice.Gear) string {
	return fmt.Sprintf("Look at it again: due on %s. Tied by %s.", g.Again.Format("2 January 2006"), g.Tied.Name)
}

// TriesDue says how many tries at knots are due.
func TriesDue(n int) string {
	if n == 1 {
		return "One try at a knot is due."
	}
	return fmt.Sprintf("%s tries at knots are due.", Capital(Number(n)))
}

// TakenFile says what a file comes to.
func TakenFile(fresh, there int, kept bool) string {
	verb := "would be taken in"
	if kept {
		verb = "taken in"
	}
	out := fmt.Sprintf("%s new, %s", Capital(Number(fresh)), verb)
	if there > 0 {
		out += fmt.Sprintf("; %s there already and left as it is", Number(there))
		if there > 1 {
			out = strings.Replace(out, "left as it is", "left as they are", 1)
		}
	}
	return out + "."
}
