package say_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/leader"
	"oarweed/core/locker"
	"oarweed/core/practice"
	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/usage"
)

var noon = time.Date(2026, 5, 31, 12, 0, 0, 0, time.UTC)

// The most pressing comes first: what must not be used, then what is to be looked at, then its
// age, then what it bears.
func TestWhatIsSaidOfALine(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	says := func(change func(*locker.Line), u locker.Used) []string {
		l := locker.Line{Name: "Bow line", Bought: "2026-05-01", Line: rig.Line{Material: "polyester", DiameterMM: 12}}
		change(&l)
		require.NoError(t, l.Check(&c.Vocabulary, noon))
		s, err := l.At(&c.Vocabulary, u, noon)
		require.NoError(t, err)
		return say.LineState(l, s)
	}
	look := func(days, grade int) func(*locker.Line) {
		return func(l *locker.Line) {
			l.Looks = []locker.Look{{At: noon.AddDate(0, 0, -days), By: "Ailsa", Grades: map[string]int{"core": grade}}}
		}
	}
	for name, x := range map[string]struct {
		change func(*locker.Line)
		used   locker.Used
		want   []string
	}{
		"fresh":         {func(*locker.Line) {}, locker.Used{}, []string{"wet and as new"}},
		"marked":        {look(5, 1), locker.Used{}, []string{"wet and marked"}},
		"worn out":      {look(5, 3), locker.Used{}, []string{"Retire it: it was found so worn", "to be retired"}},
		"past its day":  {func(l *locker.Line) { l.RetireBy = "2026-05-01" }, locker.Used{}, []string{"Its day has come: it was to be retired by 1 May 2026", "It bears"}},
		"overdue":       {look(120, 0), locker.Used{}, []string{"that was due on 1 May 2026", "It bears"}},
		"never looked":  {func(l *locker.Line) { l.Bought = "" }, locker.Used{}, []string{"nobody has yet", "It bears"}},
		"it slipped":    {look(5, 0), locker.Used{Bad: noon}, []string{"something went wrong with it since", "It bears"}},
		"old":           {func(l *locker.Line) { l.Bought = "2019-05-01"; look(5, 0)(l) }, locker.Used{}, []string{"It is 7 years old", "It bears"}},
		"out of use":    {func(l *locker.Line) { l.Retired = "2026-05-30"; look(500, 3)(l) }, locker.Used{Bad: noon}, []string{"Retired on 30 May 2026: not to be used", "It bears"}},
		"worn and late": {func(l *locker.Line) { look(120, 3)(l) }, locker.Used{}, []string{"Retire it", "that was due", "It bears"}},
	} {
		got := says(x.change, x.used)
		require.Len(t, got, len(x.want), "%s: %v", name, got)
		for i, w := range x.want {
			assert.Contains(t, got[i], w, name)
		}
	}
}

func TestWhatIsSaidOfLooksAndUses(t *testing.T) {
	k := locker.Look{By: "Ailsa", Grades: map[string]int{"core": 0, "chafe": 1, "splice": 2}, PlaceM: 3.5, Note: "fluffy at the fairlead."}
	assert.Equal(t, "Looked over by Ailsa: cover marked and splice worn, worst at 3.5 m. Fluffy at the fairlead.", say.Looked(k))
	assert.Equal(t, "Looked over by Bram: as new.", say.Looked(locker.Look{By: "Bram", Grades: map[string]int{"core": 0}}))
	assert.Equal(t, "Bought.", say.LineDay("bought"))
	assert.Equal(t, "Taken out of use.", say.LineDay("retired"))
	assert.Equal(t, "2.70 m cut for the leader Evening; tied again twice since.", say.CutForLeader(leader.Book{Name: "Evening", Query: leader.Query{LengthM: 2.7}, Changes: 2}))

	for want, e := range map[string]usage.Entry{
		"North slip, in use: held.": {Where: "north slip", Outcome: usage.Held},
		"North slip, clove hitch: could not be cast off in time, after 1.5 h.":                   {Where: "north slip", Knot: "clove-hitch", Outcome: usage.Late, Hours: 1.5},
		"North slip, painter, clove hitch: slipped at 2.0 m, in 20 knots of wind. Worked loose.": {Where: "north slip", Rig: "painter", Knot: "clove-hitch", Outcome: usage.Slipped, PlaceM: 2, WindKn: 20, Note: "worked loose"},
	} {
		knot := ""
		if e.Knot != "" {
			knot = "Clove hitch"
		}
		assert.Equal(t, want, say.Used(e, knot))
	}
	assert.Equal(t, "Not in the log yet.", say.Tally(usage.Tally{}))
	assert.Equal(t, "One use logged, and nothing went wrong.", say.Tally(usage.Tally{N: 1, By: map[usage.Outcome]int{usage.Held: 1}}))
	tally := usage.Tallies([]usage.Count{{Knot: "k", Outcome: usage.Held, N: 4}, {Knot: "k", Outcome: usage.Jammed, N: 3}, {Knot: "k", Outcome: usage.Broke, N: 1}}, func(c usage.Count) string { return c.Knot })[0]
	assert.Equal(t, "Eight uses logged: jammed three times, broke once.", say.Tally(tally))

	assert.Equal(t, "Look at it again: due on 31 May 2026. Tied by Corin.", say.GearDue(practice.Gear{Again: noon, Tied: practice.Look{Name: "Corin"}}))
	assert.Equal(t, "One try at a knot is due.", say.TriesDue(1))
	assert.Equal(t, "Three tries at knots are due.", say.TriesDue(3))
	assert.Equal(t, "Two new, would be taken in.", say.TakenFile(2, 0, false))
	assert.Contains(t, say.TakenFile(0, 1, true), "one there already and left as it is")
	assert.Contains(t, say.TakenFile(1, 2, true), "two there already and left as they are")
}

// Advice on a leader comes only when there is something to do.
func TestAdviceOnALeader(t *testing.T) {
	b := leader.Book{Name: "Evening", ActionM: 2.4}
	assert.Empty(t, say.LeaderAdvice(b, leader.Advice{ActionLeft: 9}, leader.Left{ChangesLeft: 9}))
	got := strings.Join(say.LeaderAdvice(b, leader.Advice{ActionLeft: 2, AddM: 0.4, JoinM: 0.12, UpKN: 0.13345, Because: "damage"}, leader.Left{ChangesLeft: 9}), " ")
	assert.Contains(t, got, "Two changes until it works less well.")
	assert.Contains(t, got, "Add 40 cm of tippet to make it what it was; the join takes 12 cm more of each.")
	assert.Contains(t, got, "More was cut off for nicks than for knots: go up to 30 lb for the next.")
	got = strings.Join(say.LeaderAdvice(b, leader.Advice{AddM: 0.4, UpKN: 0.089, Because: "changes"}, leader.Left{ChangesLeft: 3}), " ")
	assert.Contains(t, got, "short of what it needs to work as it should")
	assert.Contains(t, got, "tied again many times: go up to 20 lb")
}
