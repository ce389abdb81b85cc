package practice_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"oarweed/core/practice"
	"oarweed/core/problem"
)

func TestNotesAreChecked(t *testing.T) {
	known := func(id string) bool { return id == "bowline" }
	n := practice.Note{Knot: "bowline", Aid: true, Text: "  Up, round, down. ", Source: " the harbour school "}
	assert.NoError(t, n.Check(known))
	assert.Equal(t, "Up, round, down.", n.Text)
	assert.Equal(t, "the harbour school", n.Source)
	bad := practice.Note{Knot: "sky-hook", Text: strings.Repeat("é", 601)}
	fields := problem.Fields(bad.Check(known))
	assert.Equal(t, []string{"knot", "text"}, []string{fields[0].Path, fields[1].Path})
	empty := practice.Note{Knot: "bowline", Text: " \n"}
	assert.ErrorContains(t, empty.Check(known), "empty")
}
