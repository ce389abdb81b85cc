package trade

import (
	"bytes"
	"encoding/gob"
	"fmt"

	"oarweed/core/knot"
	"oarweed/core/rig"
)

// packed is all of a catalogue as data.
type packed struct {
	Vocabulary rig.Vocabulary
	Knots      []*knot.Knot
	Questions  []*knot.Question
	Kin        []Kin
	Sets       []KnotSet
	Lessons    []LessonKind
	Shackle    Shackle
	Procedures []*Procedure
	Templates  []Template
	Drawings   DrawingSources
	Method     string
}

// Pack writes a catalogue as one file that [Unpack] reads many times faster than the data
// files are read: for a browser, which has to wait for it. It holds the usual doctrines'
// knots and all questions. It is read by the version that wrote it only.
func (c *Catalogue) Pack() ([]byte, error) {
	var b bytes.Buffer
	src := c.src
	src.Snug, src.Starts = nil, nil // no answer needs them, and they are large
	err := gob.NewEncoder(&b).Encode(packed{c.Vocabulary, c.written, c.Questions, c.Kin, c.Sets, c.Lessons, c.Shackle, c.Procedures, c.Templates, src, c.Method})
	return b.Bytes(), err
}

// Unpack reads what Pack wrote. It was checked when it was read from the data files.
func Unpack(text []byte) (*Catalogue, error) {
	var p packed
	if err := gob.NewDecoder(bytes.NewReader(text)).Decode(&p); err != nil {
		return nil, fmt.Errorf("not a packed catalogue of this version: %w", err)
	}
	c := Catalogue{Vocabulary: p.Vocabulary, Drawings: NewDrawings(p.Drawings), Knots: p.Knots, Questions: p.Questions, Kin: p.Kin, Sets: p.Sets, Lessons: p.Lessons,
		Shackle: p.Shackle, Procedures: p.Procedures, Templates: p.Templates, Method: p.Method, written: p.Knots}
	c.Learn()
	return c.WithDoctrines(nil)
}
