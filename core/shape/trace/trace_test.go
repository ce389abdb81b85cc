package trace_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/problem"
	"oarweed/core/shape/trace"
)

func parsed(t *testing.T, text string) (trace.Trace, error) {
	t.Helper()
	var out trace.Trace
	err := json.Unmarshal([]byte(text), &out)
	return out, err
}

// What is wrong with a tracing is named, with the place.
func TestBadTracings(t *testing.T) {
	const loop = `"points":[[0,0],[4,0],[4,3],[2,-2]]`
	for name, x := range map[string]struct{ text, field, says string }{
		"left out":        {`{"ropes":[{` + loop + `}],"over":[]}`, "over", "2.8, 0"},
		"no crossing":     {`{"ropes":[{` + loop + `}],"over":[[0,2,0,0],[0,1,0,0]]}`, "over[1]", "do not cross"},
		"no rope":         {`{"ropes":[{` + loop + `}],"over":[[0,2,1,0]]}`, "over[0]", "no rope 1"},
		"no segment":      {`{"ropes":[{` + loop + `}],"over":[[0,3,0,0]]}`, "over[0]", "no segment 3"},
		"both ways":       {`{"ropes":[{` + loop + `}],"over":[[0,2,0,0],[0,0,0,2]]}`, "over[1]", "opposite"},
		"three strands":   {`{"ropes":[{"points":[[-2,0],[2,0]]},{"points":[[0,-2],[0,2],[2,2],[-2,-2]]}],"over":[]}`, "ropes", "three strands"},
		"short":           {`{"ropes":[{"points":[[0,0]]}],"over":[]}`, "ropes[0].points", "too short"},
		"closed rope":     {`{"ropes":[{"closed":true,` + loop + `}],"over":[]}`, "ropes[0].closed", "two ends"},
		"same point":      {`{"ropes":[{"points":[[0,0],[0,0],[1,1]]}],"over":[]}`, "ropes[0].points[1]", "again"},
		"no object":       {`{"ropes":[{` + loop + `}],"over":[[0,2,0,0]],"object":1}`, "object", "no rope 1"},
		"object alone":    {`{"ropes":[{` + loop + `}],"over":[[0,2,0,0]],"object":0}`, "ropes", "0 ropes"},
		"object crossing": {`{"ropes":[{"points":[[9,9],[8,8]]},{` + loop + `}],"over":[[0,2,0,0]],"object":1}`, "ropes[1]", "crosses itself"},
		"three numbers":   {`{"ropes":[{"points":[[0,0,1],[1,1]]}],"over":[]}`, "points", "two numbers"},
		"five numbers":    {`{"ropes":[{` + loop + `}],"over":[[0,2,0,0,1]]}`, "over", "four whole numbers"},
		"huge":            {`{"ropes":[{"points":[[0,0],[1e300,1]]}],"over":[]}`, "ropes[0].points[1]", "no place"},
	} {
		t.Run(name, func(t *testing.T) {
			tr, err := parsed(t, x.text)
			if err == nil {
				_, err = tr.Read()
			}
			require.Error(t, err)
			fields := problem.Fields(err)
			assert.Equal(t, x.field, fields[0].Path, "%v", err)
			assert.Contains(t, fields[0].Message, x.says)
			assert.NotEmpty(t, fields[0].Fix)
		})
	}
}

// The crossings of a half-marked tracing are listed where they lie, with what is said of them;
// a crossing on a point belongs to the segments on either side of it.
func TestMeetings(t *testing.T) {
	tr, err := parsed(t, `{"ropes":[{"points":[[0,0],[2,0],[4,0],[4,3],[2,3],[2,-2],[3,-2],[3,1]]}],"over":[[0,4,0,0]]}`)
	require.NoError(t, err)
	meets, err := tr.Meetings()
	require.NoError(t, err)
	require.Len(t, meets, 2)
	var said, open trace.Meeting
	for _, m := range meets {
		if m.Over != "" {
			said = m
		} else {
			open = m
		}
	}
	assert.InDelta(t, 2, said.X, 1e-6)
	assert.InDelta(t, 0, said.Y, 1e-6)
	assert.Equal(t, "b", said.Over, "the strand that comes by second was said to lie over")
	assert.Equal(t, [2]int{0, 6}, open.B)
	assert.InDelta(t, 3, open.X, 1e-6)
}

// Anything is refused, or read.
func FuzzTrace(f *testing.F) {
	f.Add(`{"ropes":[{"points":[[0,0],[4,0],[4,3],[2,-2]]}],"over":[[0,2,0,0]]}`)
	f.Add(`{"ropes":[{"points":[[0,0],[4,0]]},{"points":[[1,-1],[1,1],[2,1]],"closed":true}],"over":[[0,0,1,0],[1,2,0,0]],"object":1}`)
	f.Fuzz(func(t *testing.T, text string) {
		var tr trace.Trace
		if len(text) > 5000 || json.Unmarshal([]byte(text), &tr) != nil {
			return
		}
		if meets, err := tr.Meetings(); err == nil {
			for _, m := range meets {
				assert.Less(t, m.A[0], len(tr.Ropes))
			}
		}
		_, _ = tr.Read()
	})
}
