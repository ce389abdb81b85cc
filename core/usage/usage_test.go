package usage_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"oarweed/core/locker"
	"oarweed/core/problem"
	"oarweed/core/usage"
)

var now = time.Date(2026, 5, 31, 12, 0, 0, 0, time.UTC)

func known(id string) bool { return id == "bowline" }

func Example() {
	e := usage.Entry{Where: "  the   slip ", Knot: "bowline", Outcome: usage.Held}
	fmt.Println(e.Check(known, now), e.Where, e.At.Format(time.DateOnly))
	// Output: <nil> the slip 2026-05-31
}

func TestEveryWrongFieldIsNamed(t *testing.T) {
	e := usage.Entry{Where: " ", Line: "L1", Other: "L1", Knot: "no-knot", Outcome: "fine", Hours: -1, PlaceM: 3000, WindKn: 300, At: now.Add(time.Hour)}
	fields := map[string]bool{}
	for _, f := range problem.Fields(e.Check(known, now)) {
		fields[f.Path] = true
		assert.NotEmpty(t, f.Fix, f.Path)
	}
	for _, f := range []string{"where", "line", "other", "knot", "outcome", "hours", "place_m", "wind_kn", "at"} {
		assert.True(t, fields[f], f)
	}
	e = usage.Entry{Where: "slip", Outcome: usage.Held}
	assert.ErrorContains(t, e.Check(known, now), "which line or which knot")
	e = usage.Entry{Where: "slip", Outcome: usage.Held, Line: locker.NewCode()}
	assert.NoError(t, e.Check(known, now))
}

// What went wrong most comes first, with the outcome that was seen most often.
func TestTallies(t *testing.T) {
	counts := []usage.Count{
		{Line: "A", Knot: "bowline", Outcome: usage.Held, N: 20, Hours: 40},
		{Line: "B", Knot: "bowline", Outcome: usage.Jammed, N: 1},
		{Line: "B", Knot: "clove-hitch", Outcome: usage.Slipped, N: 3, Hours: 2},
		{Knot: "reef-knot", Outcome: usage.Held, N: 1},
	}
	lines := usage.Tallies(counts, func(c usage.Count) string { return c.Line })
	assert.Len(t, lines, 2, "what names no line counts on none")
	assert.Equal(t, "B", lines[0].Of)
	assert.Equal(t, usage.Slipped, lines[0].Worst)
	assert.Equal(t, 4, lines[0].Wrong())
	assert.Empty(t, lines[1].Worst)
	knots := usage.Tallies(counts, func(c usage.Count) string { return c.Knot })
	assert.Equal(t, "clove-hitch", knots[0].Of)
	assert.Equal(t, 21, knots[1].N)
	assert.InDelta(t, 40, knots[1].Hours, 1e-12)
	for _, o := range usage.Outcomes {
		assert.Equal(t, o == usage.Slipped || o == usage.Broke || o == usage.Chafed, o.Hurts(), o)
	}
}
