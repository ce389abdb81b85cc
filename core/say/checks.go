package say

import (
	"regexp"
	"strconv"

	"oarweed/core/knot"
	"oarweed/core/snug"
)

// looks are the words by which a check says what it looks at; the first that it has counts.
var looks = []struct {
	word  *regexp.Regexp
	place snug.Place
}{
	{regexp.MustCompile(`(?i)\b(tails?|ends?)\b`), snug.End},
	{regexp.MustCompile(`(?i)\beye\b`), snug.Eye},
	{regexp.MustCompile(`(?i)\bstanding part`), snug.Standing},
}

// CheckMarks numbers the checks of a knot, each at the place that its words look at: the end,
// the eye, the standing part, else where the ropes grip.
func CheckMarks(k *knot.Knot) []snug.Mark {
	var out []snug.Mark
	for i, text := range k.Checks {
		m := snug.Mark{Text: strconv.Itoa(i + 1)}
		for _, l := range looks {
			if l.word.MatchString(text) {
				m.Place = l.place
				break
			}
		}
		out = append(out, m)
	}
	return out
}
