package e2e

import (
	"fmt"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// tap presses a crossing of the drill until the strand that comes by first lies
// over (or not).
func (p *page) tap(crossing string, firstOver bool) {
	p.t.Helper()
	want := "second strand over"
	if firstOver {
		want = "first strand over"
	}
	said := fmt.Sprintf(`document.querySelector('[data-crossing=%q]').getAttribute("aria-label")`, crossing)
	for range 3 {
		done, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool](fmt.Sprintf(`%s.includes(%q)`, said, want)))
		if err == nil && done {
			return
		}
		p.press(fmt.Sprintf(`[data-crossing=%q]`, crossing))
	}
	p.until(fmt.Sprintf(`%s.includes(%q)`, said, want), crossing+" "+want)
}

func TestBrowseDrillAndKeep(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url + "/knots")
	p.do(chromedp.WaitVisible(chromedp.CSS(`input[type=search]`)), chromedp.SendKeys(chromedp.CSS(`input[type=search]`), "square"))
	p.pressText("Reef knot")
	p.see("h1", "Reef knot")
	p.until(`document.querySelector('[data-lookalike="granny"] svg [data-ringed]') !== null`, "the granny beside its fault, ringed")
	p.pressText("Crossing drill")
	p.see(`[data-testid="verdict"]`, "6 of 6 crossings to set")
	// The left line comes by first everywhere: over at a and c is right, and so on.
	for c, over := range map[string]bool{"a": true, "t": false, "c": true, "d": false, "m": true, "f": false} {
		p.tap(c, over)
	}
	p.see(`[data-testid="verdict"]`, "Granny")
	p.see(`[data-testid="verdict"]`, "3 crossings are not as drawn")
	for c, over := range map[string]bool{"d": true, "m": false, "f": true} {
		p.tap(c, over)
	}
	p.see(`[data-testid="verdict"]`, "✓ Reef knot")
	p.pressText("Corin")
	p.see(`[role="status"]`, "Kept for Corin")
	p.goTo(s.url + "/log")
	p.see(`[data-attempt]`, "Corin Reef knot – crossing drill")
}

func TestDrillByKeyboard(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 390, 844)
	p.goTo(s.url + "/knots/figure-eight/drill")
	p.do(chromedp.Focus(chromedp.CSS(`[data-crossing]`)))
	for range 4 {
		p.do(chromedp.KeyEvent(kb.Enter), chromedp.KeyEvent(kb.ArrowRight))
	}
	p.until(`document.querySelector('[data-testid="verdict"]').innerText.includes("Falls open") || document.querySelector('[data-testid="verdict"]').innerText.includes("Overhand")`, "a verdict")
	p.until(`document.documentElement.scrollWidth <= document.documentElement.clientWidth + 1`, "no sideways scrolling")
}
