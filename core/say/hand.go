package say

import (
	"regexp"
	"strings"
)

var sides = map[string]string{"left": "right", "right": "left", "clockwise": "anticlockwise", "anticlockwise": "clockwise"}

var side = regexp.MustCompile(`(?i)\b(left|right|clockwise|anticlockwise)\b`)

// OtherHand says the words of a tying for the other hand: its picture is the mirror image,
// so left and right, and the two ways round, change places.
func OtherHand(words string) string {
	return side.ReplaceAllStringFunc(words, func(w string) string {
		other := sides[strings.ToLower(w)]
		if w[0] < 'a' {
			return Capital(other)
		}
		return other
	})
}
