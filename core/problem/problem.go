// Package problem describes bad input: which field is wrong, what is wrong
// with it and what would put it right. Every core package reports input
// errors this way, so the command line, the API and the screen say the same.
package problem

import (
	"errors"
	"strings"
)

// Field is one complaint about one field.
type Field struct {
	// Path names the field as the document spells it, e.g. "chain[2].line.diameter_mm".
	Path string `json:"field"`
	// Message says what is wrong, Fix what to do about it; both are whole plain phrases.
	Message string `json:"message"`
	Fix     string `json:"fix,omitempty"`
}

// Error is a list of complaints. A nil or empty list is no error: see [List.Err].
type Error struct {
	Fields []Field
}

func (e *Error) Error() string {
	parts := make([]string, len(e.Fields))
	for i, f := range e.Fields {
		parts[i] = f.String()
	}
	return strings.Join(parts, "; ")
}

// String gives "path: message; fix".
func (f Field) String() string {
	s := f.Message
	if f.Path != "" {
		s = f.Path + ": " + s
	}
	if f.Fix != "" {
		s += " (" + f.Fix + ")"
	}
	return s
}

// List gathers complaints while a document is being checked.
type List struct {
	fields []Field
}

// Add records one complaint.
func (l *List) Add(path, message, fix string) {
	l.fields = append(l.fields, Field{path, message, fix})
}

// Take records what err says. Complaints carried by err keep their text and
// gain path as a prefix; any other error becomes one complaint about path.
func (l *List) Take(path string, err error) {
	if err == nil {
		return
	}
	var e *Error
	if !errors.As(err, &e) {
		l.Add(path, err.Error(), "")
		return
	}
	for _, f := range e.Fields {
		l.Add(join(path, f.Path), f.Message, f.Fix)
	}
}

// Err gives the gathered complaints as an error, or nil when there are none.
func (l *List) Err() error {
	if len(l.fields) == 0 {
		return nil
	}
	return &Error{Fields: l.fields}
}

// At is err with path before the path of each of its complaints; nil for nil.
func At(path string, err error) error {
	var l List
	l.Take(path, err)
	return l.Err()
}

// New is an error with a single complaint.
func New(path, message, fix string) error {
	return &Error{Fields: []Field{{path, message, fix}}}
}

func join(a, b string) string {
	switch {
	case a == "":
		return b
	case b == "" || strings.HasPrefix(b, "["):
		return a + b
	default:
		return a + "." + b
	}
}

// Fields lists the complaints that err carries; none for nil, and one without a
// field for any other error.
func Fields(err error) []Field {
	var e *Error
	switch {
	case err == nil:
		return nil
	case errors.As(err, &e):
		return e.Fields
	}
	return []Field{{Message: err.Error()}}
}
