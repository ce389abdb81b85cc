// Package name reads the names that people give to learners, rigs and lines, so that
// what looks the same is the same.
package name

import (
	"fmt"
	"strings"
	"unicode"
	"unicode/utf8"

	"golang.org/x/text/cases"
	"golang.org/x/text/unicode/norm"

	"oarweed/core/problem"
)

// Clean gives a name in Unicode normal form C with single blanks and none at its
// ends. most is the number of letters it may have. The error says what is wrong: no
// name, too long, or with a control or direction mark in it, which nobody can see.
func Clean(s string, most int) (string, error) {
	if !utf8.ValidString(s) {
		return "", problem.New("", "is not text", "type the name")
	}
	s = norm.NFC.String(strings.Join(strings.Fields(s), " "))
	if s == "" {
		return "", problem.New("", "missing", "give a name")
	}
	if n := utf8.RuneCountInString(s); n > most {
		return "", problem.New("", fmt.Sprintf("has %d letters", n), fmt.Sprintf("use %d at the most", most))
	}
	for _, r := range s {
		if unicode.IsControl(r) || unicode.In(r, unicode.Bidi_Control) || r == utf8.RuneError || r == '\u200b' || r == '\ufeff' {
			return "", problem.New("", fmt.Sprintf("holds a mark that cannot be seen (%U)", r), "type the name without it")
		}
	}
	return s, nil
}

// Key is equal for names that a person would call the same: without regard to
// capitals and to how accents are written.
func Key(s string) string { return norm.NFC.String(cases.Fold().String(norm.NFKC.String(s))) }
