package say_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"oarweed/core/leader"
	"oarweed/core/say"
)

func TestWhatIsLeftOfALeader(t *testing.T) {
	assert.Equal(t, []string{"12 changes left, each takes 26 mm."}, say.Leader(leader.Left{ChangesLeft: 12, PerChangeM: 0.026}, 3, "", leader.Left{}))
	assert.Equal(t, []string{"Two changes left: have the next one ready.", "With the palomar knot there would be four."},
		say.Leader(leader.Left{ChangesLeft: 2, PerChangeM: 0.05}, 3, "Palomar knot", leader.Left{ChangesLeft: 4}))
	assert.Contains(t, say.Leader(leader.Left{}, 3, "", leader.Left{})[0], "too short")
}
