package practice_test

import (
	"encoding/json"
	"math/rand/v2"
	"os/exec"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/practice"
)

// reference runs histories through the scheduler's own TypeScript package, which the web
// build installs.
const reference = `
import { readFileSync } from "node:fs";
import { createEmptyCard, fsrs, State } from "ts-fsrs";
const histories = JSON.parse(readFileSync(0, "utf8"));
const out = histories.map((h) => {
  const f = fsrs({ request_retention: h.retention, enable_fuzz: false, enable_short_term: true });
  let card = createEmptyCard(new Date(h.reviews[0].at));
  for (const r of h.reviews) card = f.next(card, new Date(r.at), r.grade).card;
  return { state: State[card.state].toLowerCase(), stability: card.stability, difficulty: card.difficulty, due: card.due.toISOString() };
});
console.log(JSON.stringify(out));
`

// Published: FSRS-6 as its open-source package ts-fsrs 5.4.2 computes it.
func TestAsTheReferenceSchedules(t *testing.T) {
	rng := rand.New(rand.NewPCG(6, 12))
	histories := make([]practice.History, 1500)
	for i := range histories {
		h := &histories[i]
		h.Retention = 0.7 + 0.29*rng.Float64()
		at := time.Date(2026, 1, 1+rng.IntN(300), rng.IntN(24), rng.IntN(60), rng.IntN(60), 0, time.UTC)
		for range 1 + rng.IntN(14) {
			h.Reviews = append(h.Reviews, practice.Tried{At: at, Grade: practice.Grade(1 + rng.IntN(4))})
			switch rng.IntN(3) {
			case 0:
				at = at.Add(time.Duration(1+rng.IntN(20)) * time.Minute)
			case 1:
				at = at.Add(time.Duration(1+rng.IntN(72)) * time.Hour)
			default:
				at = at.Add(time.Duration(1+rng.IntN(120)) * 24 * time.Hour)
			}
		}
	}
	in, err := json.Marshal(histories)
	require.NoError(t, err)
	run := exec.Command("node", "--input-type=module", "--eval", reference)
	run.Dir = "../../web" // its node_modules
	run.Stdin = strings.NewReader(string(in))
	text, err := run.CombinedOutput()
	require.NoError(t, err, "make build installs the reference: %s", text)
	var want []practice.Memory
	require.NoError(t, json.Unmarshal(text, &want))
	require.Len(t, want, len(histories))
	for i, h := range histories {
		got, err := h.Memory()
		require.NoError(t, err)
		require.Equal(t, want[i].State, got.State, "history %d", i)
		require.InEpsilon(t, want[i].Stability, got.Stability, 1e-6, "history %d", i)
		require.InEpsilon(t, want[i].Difficulty, got.Difficulty, 1e-6, "history %d", i)
		require.Equal(t, want[i].Due.UTC(), got.Due, "history %d", i)
	}
}

func TestMemoryRefusals(t *testing.T) {
	at := time.Date(2026, 5, 1, 9, 0, 0, 0, time.UTC)
	for field, h := range map[string]practice.History{
		"reviews[0].grade": {Reviews: []practice.Tried{{At: at, Grade: 5}}},
		"reviews[1].at":    {Reviews: []practice.Tried{{At: at, Grade: 3}, {At: at.AddDate(0, 0, -2), Grade: 3}}},
		"reviews[0].at":    {Reviews: []practice.Tried{{Grade: 3}}},
		"retention":        {Retention: 1.2},
	} {
		_, err := h.Memory()
		assert.ErrorContains(t, err, field)
	}
	m, err := practice.History{}.Memory()
	require.NoError(t, err)
	assert.Equal(t, practice.New, m.State)
	assert.True(t, m.Due.IsZero())
}

// Recall falls with time, and is what was asked for when it falls due.
func TestRecallFalls(t *testing.T) {
	at := time.Date(2026, 5, 1, 9, 0, 0, 0, time.UTC)
	m, err := practice.Memory{}.Review(at, practice.Easy, practice.Retention)
	require.NoError(t, err)
	assert.InDelta(t, practice.Retention, m.Recall(m.Due), 0.01)
	last := 1.1
	for _, days := range []int{0, 1, 5, 20, 100} {
		r := m.Recall(at.AddDate(0, 0, days))
		assert.Less(t, r, last)
		last = r
	}
	assert.Zero(t, practice.Memory{}.Recall(at))
}
