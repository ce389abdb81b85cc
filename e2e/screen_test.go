package e2e

import (
	"fmt"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// number is what a JavaScript expression comes to.
func (p *page) number(js string) float64 {
	p.t.Helper()
	v, err := chromedp.Run(p.ctx, chromedp.Evaluate[float64](js))
	require.NoError(p.t, err)
	return v
}

// met has the first visit behind it.
func (p *page) met(url string) {
	p.t.Helper()
	p.goTo(url)
	p.pressText("Understood")
	p.until(`document.querySelector('[data-testid="first-visit"]') === null`, "the greeting to go")
}

// send presses the one Send that is in sight: it stands in the head or in the row below.
func (p *page) send() {
	p.t.Helper()
	p.until(`(() => { const b = [...document.querySelectorAll("button")].find((b) => b.innerText === "Send" && b.offsetParent); b?.click(); return !!b })()`, "Send")
}

// Line over sentence over answer, each once, the first three ranks and the chosen knot in
// view; on a phone, held either way, the chosen knot and the bar at the foot.
func TestTheAnswerIsInViewAtEverySize(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	for _, size := range [][2]int64{{1280, 800}, {1920, 1080}, {768, 1024}, {390, 844}, {844, 390}, {320, 640}} {
		p := open(t, size[0], size[1])
		p.met(s.url)
		p.see(`[data-testid="chosen"]`, "holds wet and dry")
		name := fmt.Sprintf("%d by %d", size[0], size[1])
		foot := func(css string) float64 {
			return p.number(fmt.Sprintf(`document.querySelector(%q)?.getBoundingClientRect().bottom ?? 1e6`, css))
		}
		top := func(css string) float64 {
			return p.number(fmt.Sprintf(`document.querySelector(%q)?.getBoundingClientRect().top ?? 1e6`, css))
		}
		high := float64(size[1])
		assert.Less(t, top(`[data-testid="sentence"]`), top(`[data-testid="answer"]`), name)
		assert.False(t, p.number(`document.documentElement.scrollWidth - document.documentElement.clientWidth`) > 1, "%s scrolls sideways", name)
		if size[0] >= 768 && size[1] > 500 {
			assert.Less(t, foot(`[data-ranked]:nth-child(3)`), high, name)
			assert.Less(t, top(`[data-testid="chosen"]`)+180, high, name)
			assert.Less(t, top(`[data-testid="line"]`), top(`[data-testid="sentence"]`), name)
		} else {
			assert.LessOrEqual(t, foot(`[data-testid="foot"]`), high+1, name)
			assert.Greater(t, foot(`[data-testid="foot"]`), high-2, "at the foot, %s", name)
			if size[0] >= 390 {
				assert.Less(t, top(`[data-testid="chosen"]`), high-60, name)
			}
		}
		// Every phrase stands once.
		assert.Equal(t, p.number(`document.querySelectorAll(".phrase").length`), p.number(`new Set([...document.querySelectorAll(".phrase")].map((e) => e.dataset.phrase)).size`), name)
	}
	// At 1280 by 800 nothing of the answer is below the fold: what would change it and the cautions are in view.
	p := open(t, 1280, 800)
	p.met(s.url)
	p.see(`[data-testid="changes"]`, "What would change this")
	p.until(`document.querySelector('[data-testid="changes"] button:last-child')?.getBoundingClientRect().bottom < 800`, "the changes in view")
	assert.Less(t, p.number(`document.querySelector('[data-testid="chosen"] summary').getBoundingClientRect().top`), 790.0)
	assert.Less(t, p.number(`document.querySelector('[data-testid="answer"]').getBoundingClientRect().top`), 330.0, "it was at 624")
}

// The bar at the foot follows the rig and opens the list; a row of it is chosen.
func TestOnAPhoneTheBarHoldsTheAnswer(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 390, 844)
	p.met(s.url)
	p.see(`[data-testid="foot"]`, "Round turn and two half hitches")
	p.choose("line_kind", "hmpe twelve")
	p.see(`[data-testid="foot"]`, "Figure-eight follow-through")
	p.press(`[data-testid="foot"]`)
	p.press(`[role=dialog] [data-ranked="bowline"] button`)
	p.see(`[data-testid="foot"]`, "Bowline")
	p.see(`[data-testid="chosen"]`, "slips")
	// What is brought into sight is not behind the bar.
	p.pressText("Why")
	p.see(`[data-testid="why"]`, "How its place adds up")
}

// Whatever is added, moved, turned round or removed anywhere: the rig stays one that can be
// answered for, and home brings back what this device had, saved or not.
func TestNothingDoneToAChainBreaksIt(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	ok := func(what string) {
		t.Helper()
		p.until(`document.querySelector('[data-testid="answer"]')?.dataset.busy === "false"`, what)
		p.until(`document.querySelector("[role=alert]") === null`, what+" is no error")
	}
	p.act(2, "Add a line") // the first press, which used to break it
	ok("a line added first")
	p.see(`[data-testid="whole"]`, "Whole rig")
	p.act(4, "Add a fitting")
	ok("a fitting at the end")
	p.act(2, "Move it on")
	ok("moved on")
	p.act(4, "Turn the rig round")
	ok("turned round")
	p.act(0, "Remove the fitting")
	ok("a fitting removed")
	words := p.text(`[data-testid="sentence"]`)
	p.goTo(s.url + "/knots")
	p.see("h1", "Knots")
	p.do(chromedp.KeyEvent("r"))
	p.until(fmt.Sprintf(`document.querySelector('[data-testid="sentence"]')?.innerText === %q`, words), "the unsaved rig again")
	// A restart of the browser: the address without a rig.
	p.goTo(s.url)
	p.until(fmt.Sprintf(`document.querySelector('[data-testid="sentence"]')?.innerText === %q`, words), "and after a restart")
}

// The answer as a card: a picture, a link that can be copied without a clipboard, a code.
func TestAnAnswerIsSent(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	for _, size := range [][2]int64{{1280, 800}, {390, 844}} {
		p := open(t, size[0], size[1])
		p.met(s.url)
		p.see(`[data-testid="chosen"]`, "holds")
		p.send()
		p.until(`document.querySelector("[data-testid=send] img")?.naturalWidth === 1080`, "the card")
		p.until(`document.querySelector('[data-testid=send] [aria-label="The link as a code"] svg') !== null`, "the code")
		p.pressText("Copy")
		p.see("[role=dialog] [role=status]", "Link")
		value, err := chromedp.Run(p.ctx, chromedp.Value(chromedp.CSS(`input[aria-label="Link"]`)))
		require.NoError(t, err)
		fresh := open(t, size[0], size[1])
		fresh.goTo(value)
		fresh.see(`[data-testid="sentence"]`, "12 mm polyester braid")
	}
}

// Show: the whole screen, three switches, words that turn with the hand, a half turned to
// the person opposite, a presenter's keys.
func TestAKnotIsShownToAClass(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	for _, size := range [][2]int64{{1280, 800}, {390, 844}} {
		p := open(t, size[0], size[1])
		p.goTo(s.url + "/knots/reef-knot")
		p.pressText("Show it")
		p.see(`[data-testid="show"]`, "Right over left")
		p.until(`document.querySelector("[data-half=me] svg") !== null`, "the picture")
		p.keepShown()
		p.pressText("left")
		p.see(`[data-testid="show"]`, "Left over right")
		p.shownChanged("the other hand")
		p.keepShown()
		p.pressText("facing me")
		p.shownChanged("the other side")
		p.pressText("both")
		p.until(`document.querySelectorAll("[data-half]").length === 2`, "both halves")
		assert.Contains(t, p.text("[data-half=across]"), "Left over right", "the person opposite reads the same words")
		p.do(chromedp.KeyEvent(kb.PageDown), chromedp.KeyEvent(kb.PageDown))
		p.see(`[data-half=me]`, "of 3")
		p.see(`[data-half=me]`, "Right over left")
		// Readable from five metres: the words at 40 px and more where half a desk screen shows them.
		if size[0] == 1280 {
			assert.GreaterOrEqual(t, p.number(`parseFloat(getComputedStyle([...document.querySelectorAll("[data-half=me] div")].find((e) => e.innerText.startsWith("Right over left") && e.children.length === 0)).fontSize)`), 40.0)
		}
		p.do(chromedp.KeyEvent(kb.Escape))
		p.see("h1", "Reef knot")
	}
}

func (p *page) keepShown() {
	p.t.Helper()
	p.until(`!!(window.kept = document.querySelector("[data-half=me] .knot-drawing").innerHTML)`, "a picture")
}

func (p *page) shownChanged(what string) {
	p.t.Helper()
	p.until(`document.querySelector("[data-half=me] .knot-drawing").innerHTML !== window.kept`, what)
}

// Without a server the screen says so at once, keeps what is typed, and recovers by itself.
func TestWithoutANetNothingIsPretended(t *testing.T) {
	db := filepath.Join(t.TempDir(), "demo.db")
	s := serve(t, "demo", db)
	p := open(t, 1280, 800)
	p.refuses = true
	p.met(s.url)
	p.see(`[data-testid="chosen"]`, "holds")
	s.stop()
	p.choose("character", "snatch")
	p.see(`[data-testid="connection"]`, "No connection")
	p.see(`[data-testid="connection"]`, "was answered at")
	p.see(`[data-testid="sentence"]`, "comes in jerks")
	p.see("main", "answer from before this change")
	again := serveAt(t, s.url, "serve", db)
	defer again.stop()
	p.until(`document.querySelector('[data-testid="connection"]') === null`, "the bar to go by itself")
	p.see(`[data-testid="sentence"]`, "comes in jerks")
}

// Any usual name, spelling or part of a word.
func TestEverythingIsFound(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url + "/knots")
	for typed, finds := range map[string]string{
		"fishermans": "Fisherman's bend", "fisherman’s bend": "Fisherman's bend", "figure 8": "Figure eight", "figure of eight": "Figure eight",
		"lark": "Cow hitch", "blood": "Blood join", "bowlin": "Bowline", "mooring": "Make the boat fast", "jammed winch": "Free an overridden winch", "granny": "Granny",
	} {
		p.press(`[aria-label="Find"]`)
		p.do(chromedp.WaitVisible(chromedp.CSS(`input[aria-label="What to find"]`)), chromedp.SendKeys(chromedp.CSS(`input[aria-label="What to find"]`), typed))
		p.see(`[data-testid="found"]`, finds)
		p.do(chromedp.KeyEvent(kb.Escape))
		p.until(`document.querySelector("[role=dialog]") === null`, "the sheet to close")
	}
}

// By the keyboard alone: the answer is a skip link away, phrases say what they are, a letter
// does nothing on a control that has the keyboard, and can be switched off.
func TestTheKeyboardReachesTheAnswerSoon(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.see(`[data-ranked]`, "Round turn")
	p.until(`(document.activeElement?.blur(), document.activeElement === document.body)`, "the start of the page")
	tabs := 0
	for ; tabs < 40; tabs++ {
		if p.number(`document.activeElement?.closest("[data-ranked]") ? 1 : 0`) == 1 {
			break
		}
		if p.number(`document.activeElement?.innerText?.trim() === "To the answer" ? 1 : 0`) == 1 {
			p.do(chromedp.KeyEvent(kb.Enter))
		}
		p.do(chromedp.KeyEvent(kb.Tab))
	}
	assert.LessOrEqual(t, tabs, 16, "stops of the keyboard to the first rank")
	assert.Equal(t, 1.0, p.number(`document.querySelector('[data-phrase="load"]').getAttribute("aria-label") === "Highest load: 2.4 kN" ? 1 : 0`))
	p.focus(`[data-phrase="load"]`)
	p.do(chromedp.KeyEvent("l"))
	p.see(`[data-testid="sentence"]`, "takes 2.4 kN")
	assert.Equal(t, 1.0, p.number(`location.pathname === "/" ? 1 : 0`), "l on a phrase does not leave")
}
