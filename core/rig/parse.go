package rig

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"

	"oarweed/core/problem"
)

// MaxText is the longest document that is read, in bytes: three times the longest chain
// with every field given.
const MaxText = 128 << 10

// Parse reads a document; the error names the field, or the place in the text.
func Parse(r io.Reader) (Document, error) {
	var d Document
	text, err := io.ReadAll(io.LimitReader(r, MaxText+1))
	if err != nil {
		return d, err
	}
	if len(text) > MaxText {
		return d, problem.New("", fmt.Sprintf("is longer than %d kB, as no chain of %d joints is", MaxText>>10, MaxJoints), "send one rig at a time")
	}
	dec := json.NewDecoder(bytes.NewReader(text))
	dec.DisallowUnknownFields()
	err = dec.Decode(&d)
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case err == nil && dec.More():
		return d, problem.New("", "there is more after the end of the rig", "send one rig at a time")
	case err == nil:
		return d, nil
	case errors.As(err, &syntax):
		before := text[:min(int(syntax.Offset), len(text))]
		return d, problem.New("", fmt.Sprintf("not JSON: %v, in line %d", syntax, 1+bytes.Count(before, []byte("\n"))), "send a rig document as exported by Oarweed")
	case errors.As(err, &kind):
		return d, problem.New(kind.Field, fmt.Sprintf("is a %s where a %s belongs", kind.Value, plainType(kind.Type.String())), "correct the value")
	case errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF):
		return d, problem.New("", "the text ends before the rig does", "send the whole document")
	}
	if name, ok := strings.CutPrefix(err.Error(), "json: unknown field "); ok {
		return d, problem.New(strings.Trim(name, `"`), "is not a field of a rig", "check the spelling, or drop it")
	}
	return d, problem.New("", err.Error(), "send a rig document as exported by Oarweed")
}

func plainType(t string) string {
	switch {
	case strings.Contains(t, "float"), strings.Contains(t, "int"):
		return "number"
	case strings.Contains(t, "string"), strings.Contains(t, "rig."), strings.Contains(t, "line."):
		return "word"
	}
	return t
}

// UnmarshalYAML reads a rig in a data file, by the same names and as strictly as JSON.
func (d *Document) UnmarshalYAML(unmarshal func(any) error) error {
	var raw any
	if err := unmarshal(&raw); err != nil {
		return err
	}
	text, err := json.Marshal(raw)
	if err != nil {
		return err
	}
	*d, err = Parse(bytes.NewReader(text))
	return err
}
