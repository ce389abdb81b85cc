// Package locker keeps lines: what each is made of and what is written about it.
package locker

import (
	"oarweed/core/name"
	"oarweed/core/problem"
	"oarweed/core/rig"
)

// Line is a line of the locker.
type Line struct {
	ID   int64  `json:"id" readOnly:"true"`
	Name string `json:"name" minLength:"1" maxLength:"80"`
	Note string `json:"note,omitempty" maxLength:"400"`
	// Revision counts the changes to the record.
	Revision int64 `json:"revision" readOnly:"true"`
	rig.Line
}

// Check fills in the line's construction and puts its name in order. The error names
// each field.
func (l *Line) Check(v *rig.Vocabulary) error {
	var bad problem.List
	n, err := name.Clean(l.Name, 80)
	bad.Take("name", err)
	l.Name = n
	if len([]rune(l.Note)) > 400 {
		bad.Add("note", "is too long", "use 400 letters at the most")
	}
	bad.Take("", v.CheckLine(&l.Line))
	return bad.Err()
}
