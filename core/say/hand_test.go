package say_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"oarweed/core/say"
)

func TestTheOtherHandHasItsOwnWords(t *testing.T) {
	assert.Equal(t, "Left over right, and under: a half knot.", say.OtherHand("Right over left, and under: a half knot."))
	assert.Equal(t, "Go clockwise; upright stays.", say.OtherHand("Go anticlockwise; upright stays."))
	for _, stays := range []string{"A little end is left beyond it.", "Both bowlines are right.", "Left slack", "No slack is left.", "less secure: the left-hand form", "let out until she lies right"} {
		assert.Equal(t, stays, say.OtherHand(stays))
	}
	words := "Swing the end up and back to the left."
	assert.Equal(t, words, say.OtherHand(say.OtherHand(words)))
}
