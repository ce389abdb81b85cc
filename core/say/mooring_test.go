package say_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"oarweed/core/mooring"
	"oarweed/core/say"
)

func TestWhatAMooringStands(t *testing.T) {
	p := mooring.Plan{Lines: []mooring.Line{{Name: "bow line"}, {}}}
	ok := strings.Join(say.Mooring(p, mooring.Shared{Lines: []mooring.Share{{LoadKN: 3, Margin: 2}, {LoadKN: 1, Margin: 4}}, StandsKN: 38.2, WindKN: 4}), " ")
	assert.Contains(t, ok, "It stands 38 knots")
	assert.Contains(t, ok, "The bow line bears most for its strength: 3 kN, 2.0 times")
	bad := strings.Join(say.Mooring(p, mooring.Shared{Lines: []mooring.Share{{LoadKN: 1, Margin: 3}, {LoadKN: 9, Margin: 0.6}}, StandsKN: 21, WindKN: 10, QuayKN: 2}), " ")
	assert.Contains(t, bad, "does not stand this wind")
	assert.Contains(t, bad, "The line 2 bears 9 kN")
	assert.Contains(t, bad, "fenders with 2 kN")
	assert.Contains(t, strings.Join(say.Mooring(p, mooring.Shared{Lines: []mooring.Share{{}, {}}}), " "), "No line bears anything")
}
