package rig

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"

	"oarweed/core/problem"
)

// MaxText is the longest document that is read, in bytes: three times the longest chain
// with every field given.
const MaxText = 128 << 10

var form = problem.Form{A: "a rig", Most: MaxText, TooLong: fmt.Sprintf(", as no chain of %d joints is", MaxJoints),
	Fix: "send a rig document as exported by Oarweed"}

// Parse reads a document; the error names the field, or the place in the text.
func Parse(r io.Reader) (Document, error) {
	var d Document
	err := form.Decode(r, &d)
	return d, err
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
