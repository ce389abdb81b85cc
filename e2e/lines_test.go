package e2e

import (
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
)

// A leader is tied again until it warns; wind rises until a berth no longer stands it.
func TestALeaderWarnsAndABerthGivesOut(t *testing.T) {
	s := serve(t, "serve", filepath.Join(t.TempDir(), "lines.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/jobs")
	p.pressText("Leaders, change by change")
	p.see("main", "None is in use yet")
	p.pressText("A new leader")
	p.until(`document.querySelector("[role=dialog] input") !== null`, "the form")
	p.pressText("Begin it")
	p.refuses = true
	p.see("[role=dialog]", "name")
	p.do(chromedp.SendKeys(chromedp.CSS("[role=dialog] input"), "Evening"))
	p.do(chromedp.Evaluate[chromedp.Void](`(() => { const i = [...document.querySelectorAll("[role=dialog] input")][1];
		Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(i, "2,1"); i.dispatchEvent(new Event("input", { bubbles: true })); })()`))
	p.pressText("Begin it")
	p.see("[data-leader]", "Evening")
	p.see("[data-leader]", "Three changes left: have the next one ready.")
	p.pressText("Tied again")
	p.see("[data-leader]", "Two changes left")
	p.pressText("10 cm spoilt")
	p.see("[data-leader]", "too short for another change")
	p.pressText("Take one back")
	p.goTo(s.url + "/jobs/mooring")
	p.see("[data-moored]", "It stands")
	p.do(chromedp.Evaluate[chromedp.Void](`(() => { const i = document.querySelector("input[type=range]");
		Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(i, "60"); i.dispatchEvent(new Event("input", { bubbles: true })); })()`))
	p.see("[data-moored]", "does not stand this wind")
	p.pressText("Between four posts")
	p.see("[data-moored]", "line to port")
}
