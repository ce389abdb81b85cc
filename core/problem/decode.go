package problem

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"
)

// Form is a kind of JSON document that people send.
type Form struct {
	// A names it with its article: "a rig".
	A string
	// Most is the longest that is read, in bytes; TooLong says why no longer one makes sense.
	Most    int
	TooLong string
	// Fix says what to send.
	Fix string
}

// Decode reads one document of the form into v. Fields that v has not, and anything behind
// the end, are refused; the error names the field, or the line.
func (f Form) Decode(r io.Reader, v any) error {
	text, err := io.ReadAll(io.LimitReader(r, int64(f.Most)+1))
	if err != nil {
		return err
	}
	if len(text) > f.Most {
		return New("", fmt.Sprintf("is longer than %d kB%s", f.Most>>10, f.TooLong), "send one at a time")
	}
	_, bare, _ := strings.Cut(f.A, " ")
	dec := json.NewDecoder(bytes.NewReader(text))
	dec.DisallowUnknownFields()
	err = dec.Decode(v)
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	var said *Error
	switch {
	case errors.As(err, &said):
		return err
	case err == nil && dec.More():
		return New("", "there is more after the end of the "+bare, "send one "+bare+" at a time")
	case err == nil:
		return nil
	case errors.As(err, &syntax):
		before := text[:min(int(syntax.Offset), len(text))]
		return New("", fmt.Sprintf("not JSON: %v, in line %d", syntax, 1+bytes.Count(before, []byte("\n"))), f.Fix)
	case errors.As(err, &kind):
		return New(kind.Field, fmt.Sprintf("is a %s where a %s belongs", kind.Value, plainType(kind.Type.String())), "correct the value")
	case errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF):
		return New("", "the text ends before the "+bare+" does", "send the whole document")
	}
	if name, ok := strings.CutPrefix(err.Error(), "json: unknown field "); ok {
		return New(strings.Trim(name, `"`), "is not a field of "+f.A, "check the spelling, or drop it")
	}
	return New("", err.Error(), f.Fix)
}

func plainType(t string) string {
	switch {
	case strings.Contains(t, "float"), strings.Contains(t, "int"), strings.Contains(t, "Grade"):
		return "number"
	case strings.Contains(t, "string"), strings.Contains(t, "rig."), strings.Contains(t, "line."), strings.Contains(t, "lesson."):
		return "word"
	case strings.Contains(t, "Time"):
		return "time"
	}
	return t
}
