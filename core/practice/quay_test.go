package practice_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/core/practice"
	"oarweed/core/problem"
)

func known(id string) bool { return id == "bowline" || id == "cleat-hitch" }

func TestQuayRound(t *testing.T) {
	q := practice.QuayRound{Name: " Low  water ", Seen: []practice.Seen{{Where: "second cleat", Knot: "cleat-hitch",
		Learner: map[string]bool{"lead": true, "lock": true, "tail": false}, Instructor: map[string]bool{"lead": true, "lock": false}}}}
	require.NoError(t, q.Check(known, now))
	assert.Equal(t, "Low water", q.Name)
	assert.Equal(t, now, q.At)
	same, both := q.Seen[0].Agree()
	assert.Equal(t, []int{1, 2}, []int{same, both})
	q.Seen[0].Knot, q.Seen[0].Learner["beauty"], q.Seen[0].Where = "braid", true, ""
	fields := problem.Fields(q.Check(known, now))
	require.Len(t, fields, 3)
}

func TestGearIsLookedAtBySomebodyElse(t *testing.T) {
	g := practice.Gear{What: "Bosun's chair", Knot: "bowline", Tied: practice.Look{Name: "Ailsa"}, Person: true}
	assert.ErrorContains(t, g.Put(known, now), "second one")
	g.Check = practice.Look{Name: "ailsa"}
	assert.ErrorContains(t, g.Put(known, now), "the one who tied it")
	g.Check = practice.Look{Name: "Bram", At: now.Add(time.Hour)}
	assert.ErrorContains(t, g.Put(known, now), "future")
	g.Check = practice.Look{Name: "Bram"}
	require.NoError(t, g.Put(known, now))
	assert.Equal(t, now, g.Tied.At)
}

// A code comes back as its id, however it is typed, and a wrong letter in it is noticed.
func TestGearCode(t *testing.T) {
	assert.Equal(t, "G001-1", practice.GearCode(1))
	assert.EqualValues(t, 1, practice.GearID("g oo1 1"))
	rapid.Check(t, func(t *rapid.T) {
		id := rapid.Int64Range(1, 1<<30).Draw(t, "id")
		code := practice.GearCode(id)
		if practice.GearID(code) != id {
			t.Fatalf("%s is not %d", code, id)
		}
		at := rapid.IntRange(1, len(code)-3).Draw(t, "at")
		wrong := []byte(code)
		wrong[at] = "0123456789ABCDEFGHJKMNPQRSTVWXYZ"[rapid.IntRange(0, 31).Draw(t, "letter")]
		if string(wrong) != code && practice.GearID(string(wrong)) == id {
			t.Fatalf("%s passes for %s", wrong, code)
		}
	})
	assert.Zero(t, practice.GearID("hello"))
}
