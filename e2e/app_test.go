package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestChooseStepAndRecord(t *testing.T) {
	db := filepath.Join(t.TempDir(), "demo.db")
	s := serve(t, "demo", db)
	p := open(t, 1280, 800)
	p.goTo(s.url)
	p.see(`[data-testid="sentence"]`, "A 12 mm polyester braid")
	p.see(`[data-ranked]:first-child`, "Round turn and two half hitches")
	first := p.text(`[data-ranked]`)

	// From polyester to HMPE: the bowline is flagged and the answer changes.
	p.choose("line_kind", "hmpe twelve")
	p.see(`[data-ranked]:first-child`, "Figure-eight follow-through")
	assert.NotEqual(t, first, p.text(`[data-ranked]`))
	p.see(`[data-ruled="round-turn-two-half-hitches"]`, "slips wet")
	// By the keyboard: an answer that arrives moves the page.
	p.focus(`[data-ranked="bowline"] button`)
	p.do(chromedp.KeyEvent(kb.Enter))
	p.see(`[data-testid="chosen"] h2, [data-testid="chosen"] h3`, "Bowline")
	p.see(`[data-testid="chosen"]`, "it creeps in slippery line")
	p.see(`[data-testid="chosen"]`, "slips before it breaks")

	// Back to polyester; off under load rules the bowline out, with its reason.
	p.choose("line_kind", "polyester braid")
	p.choose("release", "under-load")
	p.see(`[data-ruled="bowline"]`, "Cannot be cast off under load")
	p.see(`[data-ranked]:first-child`, "Round turn and two half hitches")

	// Taken back, and done again.
	p.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	p.see(`[data-testid="sentence"]`, "by hand, once slack")
	p.do(chromedp.KeyEvent("y", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	p.see(`[data-testid="sentence"]`, "under load, by hand")

	// The address holds the rig: a fresh tab shows the same.
	address := p.addressOf(`"under-load"`)
	other := open(t, 1280, 800)
	other.goTo(address)
	other.see(`[data-testid="sentence"]`, "under load, by hand")
	other.see(`[data-ruled="bowline"]`, "Cannot be cast off under load")

	// Open the knot and step through it.
	p.pressText("See it tied")
	p.see("h1", "Round turn and two half hitches")
	p.see(`[data-testid="step-text"]`, "1 / 6")
	p.keepDrawing()
	for range 5 {
		p.do(chromedp.KeyEvent(kb.ArrowRight))
	}
	p.see(`[data-testid="step-text"]`, "6 / 6")
	p.drawingChanged("the last step")
	p.keepDrawing()
	p.do(chromedp.KeyEvent("2"))
	p.see("main", "seen from behind")
	p.until(`document.querySelector("[data-choice=across]").getAttribute("aria-pressed") === "true"`, "the view pressed")
	p.drawingChanged("the view from behind")

	// Record an attempt.
	p.do(chromedp.KeyEvent("a"))
	p.pressText("Save the attempt")
	p.see(`[role="alert"]`, "Who tied it?")
	p.pressText("Bram")
	p.pressText("Fault")
	p.pressText("Only one turn")
	p.do(chromedp.SendKeys(chromedp.CSS(`input[aria-label="Seconds"]`), "19"))
	p.press(`[data-testid="save-attempt"]`)
	p.see(`[data-testid="recent"]`, "Bram: fault, 19 s")

	// Restart the server: it is still there.
	s.stop()
	s = serve(t, "serve", db)
	p.goTo(s.url + "/log")
	p.see(`[data-attempt]`, "Bram Round turn and two half hitches Only one turn 19 s")
}

// keepDrawing remembers the drawing in the page, drawingChanged waits for another.
func (p *page) keepDrawing() {
	p.t.Helper()
	p.until(`document.querySelector(".knot-drawing svg") !== null && !!(window.kept = document.querySelector(".knot-drawing").innerHTML)`, "a drawing")
}

func (p *page) drawingChanged(what string) {
	p.t.Helper()
	p.until(`document.querySelector(".knot-drawing").innerHTML !== window.kept`, what)
}

func TestBadInputKeepsWhatWasTyped(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url)
	p.see(`[data-ranked]:first-child`, "Round turn")

	p.enter("line_size", "twelve")
	p.see(`[role="alert"]`, `"twelve" is not a length`)
	p.see(`[role="alert"]`, "12 mm")
	typed, err := chromedp.Run(p.ctx, chromedp.Value(chromedp.CSS(`form input`)))
	require.NoError(t, err)
	assert.Equal(t, "twelve", typed)
	p.do(chromedp.KeyEvent(kb.Escape))

	p.enter("line_size", "-3 mm")
	p.see(`[role="alert"]`, "below zero")
	p.do(chromedp.KeyEvent(kb.Escape))

	// 10⁹ kN is a number, but no load: the answer from before stays in view.
	p.enter("load", "1e9 kN")
	p.see(`[role="alert"]`, "is too large")
	p.see(`[role="alert"]`, "highest load")
	p.see(`[data-ranked]:first-child`, "Round turn")
	p.see(`[data-testid="sentence"]`, "12 mm polyester braid")
	p.enter("load", "540 lbf")
	p.see(`[data-testid="sentence"]`, "takes 2.4 kN")
	p.until(`document.querySelector("[role=alert]") === null`, "the error to go")

	// A link cut short is said to be broken and does no harm.
	p.goTo(s.url + "/?rig=eyJjaGFpbiI6W3")
	p.see(`[role="alert"]`, "cannot be read")
	p.see(`[data-ranked]:first-child`, "Round turn")
	p.goTo(s.url + "/knots/sky-hook")
	p.see(`[role="alert"]`, "No knot is called")
}

func TestEveryTaskAnswers(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url)
	for _, c := range []struct{ task, first string }{
		{"fender", "Clove hitch"}, {"fender-left", "Round turn"}, {"sheet", "Bowline"}, {"stop", "Double overhand"},
		{"fly", "Non-slip loop, 5 wraps"}, {"lure", "Improved clinch"}, {"extend", "Zeppelin bend"}, {"reef", "Reef knot"}, {"relieve", "Rolling hitch"}, {"bundle", "Constrictor"}, {"anchor", "Fisherman's bend"}, {"haul", "Timber hitch"},
	} {
		p.press(`[data-phrase="task"]`)
		p.press(fmt.Sprintf(`[data-option=%q]`, c.task))
		if c.task == "reef" {
			p.choose("wet", "dry")
		}
		p.see(`[data-ranked]:first-child`, c.first)
		p.until(`document.querySelector("[data-testid=chosen] .knot-drawing svg") !== null`, "a drawing of "+c.first)
	}
}

// The caution for people cannot be switched off, whatever the answer.
func TestThePersonCautionStays(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url)
	p.see(`[data-ranked]:first-child`, "Round turn")
	p.choose("consequence", "person")
	p.see(`[role="note"]`, "approves nothing here")
	p.see(`[data-ranked]`, "Bowline")
	p.choose("release", "under-load")
	p.see(`[data-testid="answer"]`, "No knot here does this")
	p.see(`[role="note"]`, "approves nothing here")
	p.see(`[data-testid="line"]`, "nothing in the list does this")
}

func TestLinesOfTheLockerAndSavedRigs(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url)
	p.see(`[data-ranked]:first-child`, "Round turn")
	p.takeMenu("A line from the locker for this joint", "Kelp punt tow line")
	p.see(`[data-testid="sentence"]`, "A 6 mm HMPE 12-strand")
	p.takeMenu("Saved rigs", "Lugger fenders")
	p.see(`[data-ranked]:first-child`, "Clove hitch")
	p.rigs()
	p.do(chromedp.SendKeys(chromedp.CSS(`#rig-name`), " in May"))
	p.pressText("Save")
	p.see(`[role="status"]`, "Saved")
	p.goTo(s.url)
	p.see(`[data-testid="sentence"]`, "hang a fender")
	p.see(`[data-testid="rig-name"]`, "Lugger fenders in May")

	// Removed, it can be brought back; the rig at hand stays.
	p.rigs()
	p.press(`[aria-label="Remove Lugger fenders in May"]`)
	p.see("[role=dialog]", "Lugger fenders in May is removed")
	p.until(`document.querySelector('[aria-label="Remove Lugger fenders in May"]') === null`, "it to be gone")
	p.pressText("Bring it back")
	p.until(`document.querySelector('[aria-label="Remove Lugger fenders in May"]') !== null`, "it to be back")
	p.do(chromedp.KeyEvent(kb.Escape))
	p.see(`[data-testid="sentence"]`, "hang a fender")
}

func TestWorksByKeyboard(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url)
	p.see(`[data-ranked]:first-child`, "Round turn")
	p.focus(`[data-phrase="line_size"]`)
	p.do(chromedp.KeyEvent(kb.ArrowRight))
	p.until(`document.activeElement?.dataset.phrase === "line_kind"`, "the next phrase to be reached")
	p.do(chromedp.KeyEvent(kb.Enter))
	p.until(`document.querySelector('[data-option="hmpe twelve"]') !== null`, "the editor to open")
	p.do(chromedp.KeyEvent(kb.Escape))
	p.until(`document.querySelector("[data-option]") === null`, "the editor to close")
	p.focus(`[data-phrase="wet"]`)
	p.do(chromedp.KeyEvent(kb.Enter))
	p.until(`document.querySelector('[data-option="dry"]') !== null`, "the editor to open")
	p.focus(`[data-option="wet"]`)
	p.do(chromedp.KeyEvent(kb.ArrowDown), chromedp.KeyEvent(kb.Enter))
	p.see(`[data-testid="sentence"]`, "It is dry")
}

// The page meets the automatic accessibility rules in every light and size.
func TestAccessibility(t *testing.T) {
	t.Parallel()
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(t, err)
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	for _, size := range [][2]int64{{1280, 800}, {390, 844}} {
		t.Run(fmt.Sprint(size[0]), func(t *testing.T) {
			t.Parallel()
			p := open(t, size[0], size[1])
			for _, path := range []string{"/", "/knots", "/knots/bowline", "/knots/bowline/show?to=both", "/knots/name", "/knots/quiz", "/knots/fewest?jobs=moor", "/knots/rolls", "/knots/reef-knot/drill", "/words", "/compare", "/doctrines", "/jobs", "/jobs/jam", "/jobs/soft-shackle", "/jobs/measures", "/jobs/tow-line", "/sayings", "/method", "/log",
				"/teach", "/teach/report", "/teach/class?knot=bowline", "/teach/due", "/teach/people", "/teach/people/3", "/teach/plan", "/teach/plan/2", "/teach/plan/2/run", "/teach/quay", "/bench", "/bench/ledger", "/bench/detective", "/bench/friction", "/lines", "/lines/leaders", "/lines/tow", "/lines/moorings", "/lines/use", "/lines/quay", "/due"} {
				p.goTo(s.url + path)
				p.until(`document.querySelector("main, [role=main]") !== null && (document.querySelector(".knot-drawing svg, [data-attempt], [data-question], main table, main h1, main h2, main li, main input, main a[href^='/jobs/'], main strong, main h3, main p") !== null)`, path)
				lights := []string{"day", "sun", "night"}
				if !slices.Contains([]string{"/", "/knots", "/knots/bowline", "/log"}, path) {
					lights = lights[1:2] // the colours are the same everywhere
				}
				for _, light := range lights {
					_, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool](fmt.Sprintf(`(document.documentElement.dataset.light = %q, true)`, light)))
					require.NoError(t, err)
					_, err = chromedp.Run(p.ctx, chromedp.Evaluate[bool](string(axe)+";true"))
					require.NoError(t, err)
					found, err := chromedp.Run(p.ctx, chromedp.Evaluate[string](
						`axe.run(document, {runOnly: ["wcag2a", "wcag2aa"]}).then(r => r.violations.map(v => v.id + ": " + v.nodes.slice(0, 3).map(n => n.html.slice(0, 160)).join(" | ")).join("\n"))`,
						chromedp.EvalAwaitPromise))
					require.NoError(t, err)
					assert.Empty(t, found, "%s, %s light, %d wide", path, light, size[0])
					wide, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool](`document.documentElement.scrollWidth > document.documentElement.clientWidth + 1`))
					require.NoError(t, err)
					assert.False(t, wide, "%s scrolls sideways at %d", path, size[0])
				}
			}
		})
	}
}
