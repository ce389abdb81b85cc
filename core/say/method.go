package say

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"text/template"

	"oarweed/core/evidence"
	"oarweed/core/friction"
	"oarweed/core/hold"
	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/locker"
	"oarweed/core/rank"
	"oarweed/core/rig"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// Method is the page of every formula, figure and source, in Markdown: the text of the
// catalogue with its tables made from the data. The error is one in the text.
func Method(c *trade.Catalogue) (string, error) {
	t, err := template.New("method").Option("missingkey=error").Parse(c.Method)
	if err != nil {
		return "", err
	}
	tag := hold.TagGives.Scale(144)
	facts, priors := use(c)
	var b strings.Builder
	err = t.Execute(&b, map[string]any{
		"Strengths": strengths(c), "Events": events(), "Friction": priors, "Surfaces": surfaces(c), "Facts": facts, "Weights": weights(c),
		"Tag":        fmt.Sprintf("%.0f to %.0f N, likely %.0f", tag.Low, tag.High, tag.Likely),
		"Classes":    classes(),
		"PriorDraws": hold.PriorDraws, "Draws": hold.Draws,
		"DrawnUp": drawnUp(c), "Proven": proven(c),
		"OneHand": judge.OneHand.String(), "LeastFit": judge.LeastFit, "LookEvery": locker.Every, "Made": rank.Made,
	})
	return b.String(), err
}

func table(head []string, rows [][]string) string {
	var b strings.Builder
	line := func(cells []string) { fmt.Fprintf(&b, "| %s |\n", strings.Join(cells, " | ")) }
	line(head)
	rule := make([]string, len(head))
	for i := range rule {
		rule[i] = "---"
	}
	line(rule)
	for _, r := range rows {
		line(r)
	}
	return strings.TrimSuffix(b.String(), "\n")
}

func span(i evidence.Interval, format string) string {
	if i.Low == i.High {
		return fmt.Sprintf(format, i.Likely)
	}
	return fmt.Sprintf(format+", "+format+", "+format, i.Low, i.Likely, i.High)
}

// apart is the Jones polynomial of two rings that do not hold each other.
const apart = "-t^(-1/2) - t^(1/2)"

// proven lists what each drawing is held against, and what is left to the eye.
func proven(c *trade.Catalogue) string {
	var rows [][]string
	for _, id := range c.DrawingIDs() {
		closures := map[string][]string{}
		for _, p := range c.Proofs(id) {
			by := "its way of tying"
			switch {
			case strings.Contains(p.Origin, "Rolfsen"), strings.Contains(p.Origin, "torus"), strings.Contains(p.Origin, "Hopf"):
				by = "a table of knots"
			case strings.Contains(p.Origin, "family identity"):
				by = "a kindred knot"
			}
			name := p.Closure
			if p.Jones == "1" || p.Jones == apart {
				name += " (blind)"
			}
			closures[by] = append(closures[by], name)
		}
		var values []string
		for _, by := range []string{"a table of knots", "a kindred knot", "its way of tying"} {
			if list := closures[by]; list != nil {
				values = append(values, by+": "+strings.Join(list, ", "))
			}
		}
		second := "every closure"
		if m, err := c.Model(id); err != nil || m == nil {
			second = "none"
		}
		ends, why := c.Ends(id)
		said := string(ends)
		if why != "" {
			said += ": " + why
		}
		rows = append(rows, []string{id, strings.Join(values, "; "), second, said})
	}
	return table([]string{"drawing", "closures held against", "second drawing", "which end is which"}, rows)
}

// drawnUp lists what knots come to when they are drawn up in space, beside what is
// remembered of them, and of the others why they are not.
func drawnUp(c *trade.Catalogue) string {
	var rows [][]string
	var not []string
	for _, k := range c.Knots {
		b, err := c.Snug(k.ID)
		switch {
		case err != nil || b == nil:
			continue
		case !b.Computed:
			not = append(not, fmt.Sprintf("- %s: %s.", k.Name, b.Why))
			continue
		}
		var line []string
		for _, r := range b.Ropes {
			line = append(line, fmt.Sprintf("%.1f", r.Consumed))
		}
		in, thick := "remembered "+fmt.Sprintf("%g", k.Uses.Diameters), "remembered "+fmt.Sprintf("%g", k.Bulk)
		if k.Uses.Remembered > 0 {
			in = fmt.Sprintf("%g for %g", k.Uses.Diameters, k.Uses.Remembered)
		}
		if k.Remembered > 0 {
			thick = fmt.Sprintf("%g for %g", k.Bulk, k.Remembered)
		}
		rows = append(rows, []string{k.Name, strings.Join(line, " + "), fmt.Sprintf("%.1f by %.1f by %.1f", b.Bulk.Across, b.Bulk.Flat, b.Bulk.Along),
			in, thick, fmt.Sprintf("%.3f", b.ContactMin), fmt.Sprintf("%.1f", b.Seconds)})
	}
	return table([]string{"knot", "line in it", "across, flat, along", "line used for remembered", "thickness used for remembered", "nearest", "s"}, rows) + "\n\nNot drawn up:\n" + strings.Join(not, "\n")
}

// strengths lists every law with its figures and source.
func strengths(c *trade.Catalogue) string {
	var rows [][]string
	for _, m := range c.Materials {
		for _, w := range m.Laws {
			var made []string
			for _, k := range w.Constructions {
				if word := rig.FieldOf(rig.LinePart, "construction").Word(string(k)); word != "" {
					made = append(made, word)
				}
			}
			figure := ""
			switch {
			case w.Seamanship > 0:
				figure = fmt.Sprintf("%g·D²/300 t", w.Seamanship)
			case len(w.Table) > 0:
				mm := make([]float64, 0, len(w.Table))
				for k := range w.Table {
					mm = append(mm, k)
				}
				slices.Sort(mm)
				for i, k := range mm {
					if i > 0 {
						figure += ", "
					}
					figure += fmt.Sprintf("%g mm %g kN", k, w.Table[k])
				}
			case w.PerSquare.Likely > 0:
				figure = span(w.PerSquare, "%g") + " kN/mm²"
			case len(w.Bands) > 0:
				for i, b := range w.Bands {
					if i > 0 {
						figure += "; "
					}
					figure += fmt.Sprintf("%g mm: %s", b.MM, span(b.Stress, "%g"))
				}
				figure += " MPa"
			default:
				figure = span(w.Stress, "%g") + " MPa"
			}
			rows = append(rows, []string{m.Name, strings.Join(made, ", "), figure, string(w.Tag), w.Source})
		}
		if m.Wet.Low != 1 || m.Wet.High != 1 {
			rows = append(rows, []string{m.Name, "", "wet keeps " + span(m.Wet.Interval, "%g"), string(m.Wet.Tag), m.Wet.Source})
		}
	}
	return table([]string{"material", "make", "figure", "evidence", "source"}, rows)
}

// events lists what the rope meets in every hitch, with its usual number of turns.
func events() string {
	var rows [][]string
	for _, q := range friction.Choices() {
		h, _ := friction.Find(q.ID, 0) // every choice has an event list
		name := q.Name
		if q.Counts != "" {
			name += " (" + fmt.Sprint(friction.Usual(q.ID)) + " " + q.Counts + ")"
		}
		rows = append(rows, []string{name, Events(h)})
	}
	return table([]string{"hitch", "from the load to the tag"}, rows)
}

// Events puts the event list of a hitch into words.
func Events(h friction.Hitch) string {
	var out []string
	on := friction.Object
	for _, e := range h.Events {
		words := ""
		if e.On != on {
			on = e.On
			words = map[friction.On]string{friction.Own: "about its own part: ", friction.Object: "on the object: "}[on]
		}
		switch e.Kind {
		case friction.Turn:
			words += fmt.Sprintf("turn %.0f°", e.Angle*180/math.Pi)
		case friction.Mark:
			words += "*" + e.Name + "*"
		case friction.Under:
			words += "under *" + e.Name + "*"
			if e.Sides < 1 {
				words += " (½)"
			}
		}
		out = append(out, words)
	}
	return strings.Join(out, ", ")
}

func classes() string {
	var out []string
	for _, k := range []knot.Class{knot.Holds, knot.Marginal, knot.Slips} {
		p := judge.ClassChance(k).Scale(100)
		out = append(out, fmt.Sprintf("*%s* %.3g in 100 (%.3g to %.3g)", k, p.Likely, p.Low, p.High))
	}
	return strings.Join(out, ", ")
}

// use gives the facts with their chances before and after, and the frictions likewise.
func use(c *trade.Catalogue) (facts, priors string) {
	var f, p [][]string
	wetness := map[bool]string{true: "wet", false: "dry"}
	for _, m := range c.Materials {
		for _, wet := range []bool{false, true} {
			b := c.Use().Belief(m, wet)
			p = append(p, []string{m.Name, wetness[wet], span(b.PriorMetal, "%.2f"), span(b.Metal, "%.2f"), span(b.PriorRope, "%.2f"), span(b.Rope, "%.2f"), string(m.Mu(wet).Tag)})
			for _, x := range b.Facts {
				says := string(x.Says)
				if x.LoadKN > 0 {
					says += " " + (unit.Force(x.LoadKN) * unit.Kilonewton).String()
				}
				if x.HeldOut {
					says += " (held out)"
				}
				agrees := "yes"
				if !x.Agrees() {
					agrees = "no"
				}
				hitch, _ := friction.Chosen(x.Hitch)
				f = append(f, []string{hitch.Name, fmt.Sprintf("%g mm on %g mm", x.LineMM, x.ObjectMM), wetness[wet] + " " + m.Name, says, sure(x.Fact),
					fmt.Sprintf("%.2f", x.Prior), fmt.Sprintf("%.2f", x.Posterior), agrees, x.Why + " (" + string(x.Tag) + ")"})
			}
		}
	}
	return table([]string{"hitch", "size", "line", "use says", "how sure", "before", "after", "agrees", "why"}, f),
		table([]string{"line", "", "on smooth metal, before", "after", "rope on rope, before", "after", "evidence"}, p)
}

func sure(f hold.Fact) string {
	if f.Says == hold.WorksLoose {
		return fmt.Sprintf("ln gain %g ± %g", f.Margin, f.Spread)
	}
	return fmt.Sprintf("%g", f.Sure)
}

func surfaces(c *trade.Catalogue) string {
	var rows [][]string
	for _, s := range c.Surfaces {
		rows = append(rows, []string{s.Name, span(s.Factor.Interval, "%g"), string(s.Factor.Tag), s.Factor.Source})
	}
	return table([]string{"surface", "factor", "evidence", "source"}, rows)
}

func weights(c *trade.Catalogue) string {
	names := make([]string, 0, len(c.Weights))
	for k := range c.Weights {
		names = append(names, k)
	}
	slices.Sort(names)
	var rows [][]string
	for _, n := range names {
		w := c.Weights[n]
		rows = append(rows, []string{strings.Replace(n, "-", ", ", 1)})
		for _, v := range []float64{w.Fit, w.Strength, w.Hold, w.Release, w.Time, w.Ease, w.Inspect, w.Line} {
			rows[len(rows)-1] = append(rows[len(rows)-1], fmt.Sprintf("%g", v))
		}
	}
	return table(append([]string{"preset"}, criteria[:]...), rows)
}
