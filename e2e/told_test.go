package e2e

import (
	"fmt"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A knot is told as a teacher tells it; the instructor adds words of his own, changes them and
// takes them away; a word of the trade says what it means.
func TestAKnotIsTold(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "told.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/knots/bowline?step=3")
	p.see(`[data-testid="aid"]`, "up through the hatch")
	p.see("main", "Beginners get wrong, most often first")
	p.see("main", "When it has jammed")
	p.pressText("Add your own")
	p.until(`document.querySelector("[role=dialog] textarea") !== null`, "the form")
	p.do(chromedp.SendKeys(chromedp.CSS("[role=dialog] textarea"), "The eel comes out of its hole."))
	p.pressText("Not now")
	p.pressText("Add your own")
	p.until(`document.querySelector("[role=dialog] textarea")?.value.includes("eel")`, "what was typed is still there")
	p.pressText("Keep")
	p.see(`[data-note="aid"]`, "The eel comes out of its hole.")
	p.goTo(s.url + "/knots/bowline")
	p.see(`[data-note="aid"]`, "eel")
	p.pressText("Change")
	p.until(`document.querySelector("[role=dialog] textarea") !== null`, "the form")
	p.pressText("Remove")
	p.until(`document.querySelector("[data-note]") === null`, "it is gone")
	p.press(`button[aria-label="standing part: what it means"]`)
	p.see("body", "It does not move while you tie")
	p.goTo(s.url + "/words#bight")
	p.see("main", "bent back beside itself")
	p.until(`document.querySelectorAll("main svg").length > 12`, "pictures of the words")
}

// The fewest knots for ticked jobs, and all of them on one sheet.
func TestTheFewestKnots(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "fewest.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/knots")
	p.pressText("The fewest knots")
	for _, job := range []string{"moor", "fender", "reef"} {
		p.press(fmt.Sprintf(`[data-job=%q]`, job))
	}
	p.see(`[data-testid="fewest"]`, "for 3 jobs")
	p.until(`document.querySelectorAll("[data-knot-for]").length > 0`, "the knots")
	got, err := chromedp.Run(p.ctx, chromedp.Evaluate[string](`fetch([...document.querySelectorAll("a")].find(a => a.innerText === "All on one sheet").href).then(async r => r.status + " " + (await r.text()).slice(0, 5))`, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	assert.Equal(t, "200 %PDF-", got)
	p.press(`[data-job="fender"]`)
	p.see(`[data-testid="fewest"]`, "for 2 jobs")
	p.goTo(s.url + "/knots/rolls")
	p.see(`[data-join="granny"]`, "All 6 turn the same way")
	p.see(`[data-join="reef-knot"]`, "it locks")
	p.until(`document.querySelectorAll('[data-join="grief"] svg g path').length > 12`, "an arrow at each crossing")
}

// The drawer of bad examples: touched where it is wrong, or answered in words; every fault that
// is drawn comes up.
func TestFindTheFault(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "quiz.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/knots/quiz")
	faults := int(p.number(`window.faults === undefined ? (window.faults = 0, fetch("/api/v1/faults").then(r => r.json()).then(f => { window.faults = f.length }), 0) : window.faults`))
	p.until(`window.faults > 0`, "the drawn faults")
	faults = int(p.number(`window.faults`))
	require.Greater(t, faults, 9)
	seen := map[string]bool{}
	for range faults {
		p.until(`document.querySelectorAll("[data-shown] svg").length === 2`, "two drawings")
		p.until(`document.querySelector('[data-testid="quiz-verdict"] button') === null`, "not answered yet")
		// In words, by the first name: right or not, it says what is wrong.
		p.press(`[aria-label="Answer in words"] button`)
		p.see(`[data-testid="quiz-verdict"]`, "Put right")
		name, err := chromedp.Run(p.ctx, chromedp.Evaluate[string](`document.querySelector('[data-testid="quiz-verdict"] strong').innerText`))
		require.NoError(t, err)
		seen[name] = true
		p.pressText("Next")
	}
	assert.GreaterOrEqual(t, len(seen), faults-2, "each came up once; two may share a name")
	p.see(`[data-testid="score"]`, fmt.Sprintf("of %d found", faults))
	// Touched on the right one it is not found.
	p.until(`document.querySelectorAll("[data-shown] svg").length === 2`, "two drawings")
	p.press(`[data-shown="right"] [data-place]`)
	p.see(`[data-testid="quiz-verdict"]`, "That one is right")
	p.pressText("One alone")
	p.until(`document.querySelectorAll("[data-shown] svg").length === 1`, "one drawing")
	p.pressText("It is right")
	p.see(`[data-testid="quiz-verdict"]`, "it ")
}
