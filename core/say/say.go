// Package say holds every English sentence that the core speaks: reasons, warnings,
// names of lines and places, what a load comes to. One place to read them, to reword
// them, to translate them. It decides nothing.
package say

import (
	"fmt"
	"strings"

	"oarweed/core/line"
	"oarweed/core/rig"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// Sentence begins with a capital and ends in a full stop.
func Sentence(s string) string {
	if s == "" {
		return s
	}
	return Capital(s) + "."
}

// Capital makes the first letter one.
func Capital(s string) string {
	if s == "" {
		return s
	}
	return strings.ToUpper(s[:1]) + s[1:]
}

// Number writes small numbers in words.
func Number(n int) string {
	small := []string{"no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"}
	if n >= 0 && n < len(small) {
		return small[n]
	}
	return fmt.Sprint(n)
}

// Clock writes a time in seconds in words.
func Clock(s float64) string {
	if s < 90 {
		return fmt.Sprintf("%.0f s", s)
	}
	return fmt.Sprintf("%.3g min", s/60)
}

// Force as the people of a line say it: pounds for fishing line, kN or N for rope.
func Force(f unit.Force, fishing bool) string {
	if fishing {
		return f.Pounds()
	}
	return f.String()
}

// Line in words: "12 mm polyester braid"; fishing line by its pound test where that
// is known.
func Line(l line.Line) string {
	word := rig.FieldOf(rig.LinePart, "construction").Word(string(l.Construction))
	size := l.Diameter.String()
	if l.Material.Fishing && l.Label > 0 {
		size = l.Label.Pounds()
	}
	name := strings.TrimPrefix(l.Material.Name, "braided ")
	return strings.TrimSpace(size + " " + name + " " + word)
}

// WhyStrength says why one way of finding a strength counts.
func WhyStrength(w line.Why) string {
	return map[line.Why]string{
		line.LabelWins:   "The label wins over any rule.",
		line.OnlyFigure:  "The only figure known for this line.",
		line.OneInterval: "The figures together: the lowest is what it bears at least, the highest what it may.",
	}[w]
}

// Ends says which end of the strength that counts one way of finding it gives; empty
// if none.
func Ends(o line.Option) string {
	switch {
	case o.Low && o.High:
		return "counts"
	case o.Low:
		return "the low end"
	case o.Likely && o.High:
		return "likely, and the high end"
	case o.Likely:
		return "likely"
	case o.High:
		return "the high end"
	}
	return ""
}

// Where names a joint: "at the ring", "between the lines".
func Where(r *rig.Rig) string {
	switch {
	case r.Fitting != nil:
		return "at the " + r.Fitting.Kind.Name
	case r.Task.Between == rig.OnLine:
		return "on the loaded line"
	}
	one, two := r.Other, r.Line
	switch {
	case one.Material.ID != two.Material.ID:
		return fmt.Sprintf("between the %s and the %s", one.Material.Name, two.Material.Name)
	case one.Diameter != two.Diameter:
		return fmt.Sprintf("between %s and %s", one.Diameter, two.Diameter)
	}
	return "between the two lines"
}

// Knot is a knot's name in the middle of a sentence; "" for no knot.
func Knot(c *trade.Catalogue, id string) string {
	if k := c.Knot(id); k != nil {
		return strings.ToLower(k.Name)
	}
	return ""
}

// List is words with commas and an "and" before the last.
func List(words []string) string {
	if len(words) < 2 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:len(words)-1], ", ") + " and " + words[len(words)-1]
}
