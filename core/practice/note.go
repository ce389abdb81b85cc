package practice

import (
	"fmt"
	"strings"
	"unicode/utf8"

	"oarweed/core/problem"
)

// Note is what an instructor adds to a knot of the catalogue: a memory aid of his own, or who
// uses it, which of two versions is right, where it was seen.
type Note struct {
	ID       int64  `json:"id" readOnly:"true"`
	Revision int64  `json:"revision" readOnly:"true"`
	Knot     string `json:"knot" minLength:"1" maxLength:"60"`
	// Aid: it is something to remember the knot by; else a remark.
	Aid    bool   `json:"aid"`
	Text   string `json:"text" minLength:"1" maxLength:"600"`
	Source string `json:"source,omitempty" maxLength:"200" doc:"where it is from"`
}

// longestNote is how many letters a note has at the most.
const longestNote = 600

// Check puts the note in order. The error names each field.
func (n *Note) Check(known func(knot string) bool) error {
	var l problem.List
	if !known(n.Knot) {
		l.Add("knot", fmt.Sprintf("%q is not in the catalogue", n.Knot), "use the id of a knot")
	}
	n.Text, n.Source = strings.TrimSpace(n.Text), strings.TrimSpace(n.Source)
	if n.Text == "" {
		l.Add("text", "is empty", "write what is to be remembered, or leave the form")
	}
	if k := utf8.RuneCountInString(n.Text); k > longestNote {
		l.Add("text", fmt.Sprintf("has %d letters", k), fmt.Sprintf("use %d at the most, or make two notes", longestNote))
	}
	return l.Err()
}
