package say_test

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/chain"
	"oarweed/core/job"
	"oarweed/core/judge"
	"oarweed/core/say"
	"oarweed/core/unit"
	"oarweed/core/whatif"
)

func Example() {
	fmt.Println(say.Sentence("the " + say.Number(3) + " lines hold " + say.Force(2.4*unit.Kilonewton, false)))
	// Output: The three lines hold 2.4 kN.
}

// Whatever the core says of any built-in rig, it is said in whole words: no figure that
// is none, no verb of the printer, no blank where a word belongs.
func TestEverySentenceReads(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	said := map[string]bool{}
	hear := func(s string) { said[s] = true }
	for _, x := range c.Templates {
		whole, err := chain.Judge(t.Context(), c, x.Rig)
		require.NoError(t, err)
		hear(say.Weakest(whole))
		for _, s := range say.LetGo(whole) {
			hear(s)
		}
		rigs, _, err := c.ResolveAll(x.Rig)
		require.NoError(t, err)
		for _, r := range rigs {
			hear(say.Where(r))
			hear(say.Line(r.Line))
			for _, k := range c.Knots {
				v := judge.Whatever(r, k, nil)
				for _, reason := range v.Against {
					hear(say.Reason(reason))
				}
				for _, s := range say.Flags(v) {
					hear(s)
				}
				hear(say.HoldWhy(v.Wet, k))
				hear(say.Release(k))
				hear(say.Enough(v.Strength.Enough))
			}
		}
		if len(x.Rig.Chain) == 3 {
			list, err := whatif.Changes(t.Context(), c, x.Rig)
			require.NoError(t, err)
			for _, change := range list {
				hear(say.Change(c, change, false))
			}
		}
	}
	assert.Greater(t, len(said), 200)
	for s := range said {
		for _, bad := range []string{"%!", "NaN", "Inf", "<nil>", "  ", " .", " ,", "0 mm line"} {
			assert.NotContains(t, s, bad)
		}
		assert.Equal(t, strings.TrimSpace(s), s)
	}
}

func TestSmallWords(t *testing.T) {
	assert.Equal(t, []string{"no", "ten", "11"}, []string{say.Number(0), say.Number(10), say.Number(11)})
	assert.Equal(t, []string{"89 s", "2 min"}, []string{say.Clock(89), say.Clock(120)})
	assert.Empty(t, say.Sentence(""))
	assert.Equal(t, "16 lb", say.Force(16*unit.Pound, true))
}

// docs/method.md is the page Method of the application, word for word.
func TestTheMethodInDocsIsTheOneShown(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	text, err := say.Method(c)
	require.NoError(t, err)
	kept, err := os.ReadFile("../../docs/method.md")
	require.NoError(t, err)
	assert.True(t, text == string(kept), "write it anew: go run ./cmd/oarweed method > docs/method.md")
	for _, w := range []string{"Bayman", "ISO 1140", "held out", "rope on rope", "99.5", "figure eights"} {
		assert.Contains(t, text, w)
	}
	for _, bad := range []string{"%!", "NaN", "Inf", "<no value>", "{{"} {
		assert.NotContains(t, text, bad)
	}
}

// Every saying is worked out in whole words for every built-in rig.
func TestSayingsRead(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	verdicts := map[string]bool{}
	for _, x := range c.Templates {
		if len(x.Rig.Chain) != 3 {
			continue
		}
		s, err := job.SayingsOf(c, x.Rig)
		require.NoError(t, err)
		for _, saying := range say.Sayings(s) {
			verdicts[saying.ID+" "+saying.Verdict] = true
			for _, text := range []string{saying.Says, saying.When} {
				assert.NotEmpty(t, text)
				for _, bad := range []string{"%!", "NaN", "Inf", "  ", " 0 N"} {
					assert.NotContains(t, text, bad, x.ID)
				}
			}
		}
	}
	for _, want := range []string{"one-turn not here", "one-turn true here", "bowline-slips true here", "bowline-slips not here", "wet not here", "wet true here"} {
		assert.True(t, verdicts[want], want)
	}
}
