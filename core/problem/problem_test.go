package problem_test

import (
	"errors"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"oarweed/core/problem"
)

func TestNoComplaintIsNoError(t *testing.T) {
	var l problem.List
	assert.NoError(t, l.Err())
	l.Take("x", nil)
	assert.NoError(t, l.Err())
}

func TestComplaintsAreGatheredAndPlaced(t *testing.T) {
	inner := problem.New("diameter_mm", "is below zero", "give 0 to 200 mm")
	var l problem.List
	l.Add("name", "missing", "")
	l.Take("chain[2].line", fmt.Errorf("reading: %w", inner))
	l.Take("chain", problem.New("[0]", "is a line", "give a fitting"))
	l.Take("file", errors.New("cannot be read"))
	err := l.Err()
	assert.EqualError(t, err, "name: missing; chain[2].line.diameter_mm: is below zero (give 0 to 200 mm); "+
		"chain[0]: is a line (give a fitting); file: cannot be read")
	var e *problem.Error
	assert.ErrorAs(t, err, &e)
	assert.Len(t, e.Fields, 4)
}

func TestFieldWithoutPathOrFix(t *testing.T) {
	assert.Equal(t, "no rope", problem.Field{Message: "no rope"}.String())
	assert.Equal(t, "no rope (thread one)", problem.Field{Message: "no rope", Fix: "thread one"}.String())
}
