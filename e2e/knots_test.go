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
	want := "second"
	if firstOver {
		want = "first"
	}
	said := fmt.Sprintf(`document.querySelector('[data-crossing=%q]').dataset.over`, crossing)
	for range 3 {
		done, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool](fmt.Sprintf(`%s === %q`, said, want)))
		if err == nil && done {
			return
		}
		p.press(fmt.Sprintf(`[data-crossing=%q]`, crossing))
	}
	p.until(fmt.Sprintf(`%s === %q`, said, want), crossing+" "+want)
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

// select chooses an option of a labelled list by its words.
func (p *page) selectOption(label, option string) {
	p.t.Helper()
	p.until(fmt.Sprintf(`(() => {
		const l = [...document.querySelectorAll("label")].find(l => l.innerText.trim() === %q)
		const s = l && document.getElementById(l.htmlFor)
		const o = s && [...s.options].find(o => o.text.includes(%q))
		if (!o) return false
		Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, "value").set.call(s, o.value)
		s.dispatchEvent(new Event("change", { bubbles: true }))
		return true
	})()`, label, option), label+": "+option)
}

func TestBrowseByTaskMaterialAndWhatIsKnown(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url + "/knots")
	p.see(`[data-testid="count"]`, "knots.")
	p.selectOption("To", "join braid to leader")
	p.see(`[data-testid="count"]`, "5 knots.")
	p.see("main", "Made for it")
	p.selectOption("Hard to learn", "up to 3")
	p.see(`[data-testid="count"]`, "3 knots.")
	p.pressText("Show all")
	p.selectOption("What next for", "Ailsa")
	p.see("main", "Next for Ailsa: part of it is known already")
	p.see("main", "a clove hitch with one more tuck")
	p.pressText("Constrictor hitch")
	p.see("h1", "Constrictor hitch")
	p.see("main", "Comes from the clove hitch")
	p.pressText("Compare")
	p.see(`[data-testid="compared"]`, "They share their structure")
	p.see(`[data-testid="compared"]`, "Strength kept")
}

// A knot is turned by keys, loosened and cut through; a painting takes a few milliseconds.
func TestAKnotIsTakenInTheHand(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url + "/knots/zeppelin-bend")
	p.see("main", "So it looks drawn up")
	p.until(`[...document.querySelectorAll(".knot-drawing svg title")].some(x => x.textContent === "Zeppelin bend, drawn up")`, "the figure")
	p.pressText("Take it in the hand")
	painted := `(() => { const c = document.querySelector("[data-testid=snug] canvas"); if (!c) return 0;
		const copy = new OffscreenCanvas(c.width, c.height).getContext("2d"); copy.drawImage(c, 0, 0);
		const d = copy.getImageData(0, 0, c.width, c.height).data; let sum = 0;
		for (let i = 0; i < d.length; i += 4) sum = (sum * 31 + d[i] + d[i + 3]) % 1000003; return d.some(x => x) ? sum : 0 })()`
	p.until(painted+" > 0", "it is painted")
	changed := func(what string) {
		t.Helper()
		p.until("window.was !== undefined && "+painted+" !== window.was", what)
	}
	keep := func() { p.until("(window.was = "+painted+") > 0", "kept") }
	keep()
	p.focus("[data-testid=snug] canvas")
	p.do(chromedp.KeyEvent(kb.ArrowRight))
	changed("turned by a key")
	keep()
	p.pressText("From behind")
	changed("seen from behind")
	keep()
	p.focus("[data-testid=snug] input")
	p.do(chromedp.KeyEvent(kb.ArrowLeft))
	changed("loosened")
	p.pressText("Draw it up")
	p.until(`document.querySelector("[data-testid=snug] canvas").getAttribute("aria-label").includes("drawn up")`, "drawn up again")
	for _, path := range []string{"snug.stl", "snug.gltf", "snug.svg"} {
		p.until(fmt.Sprintf(`(window.got ??= {})[%[1]q] ?? (fetch("/api/v1/knots/zeppelin-bend/%[1]s").then(async r => { window.got[%[1]q] = r.ok && (await r.blob()).size > 1000 }), false)`, path), path)
	}
	p.until(`fetch("/api/v1/knots/slim-beauty/snug").then(r => r.json()).then(b => { window.not = b.detail }) && (window.not ?? "").includes("wraps")`, "why not")
	p.goTo(s.url + "/knots/slim-beauty")
	p.see("main", "Right when")
	p.until(`!document.body.textContent.includes("So it looks drawn up")`, "nothing is pretended")
}

func TestStepThroughAKnotTiedInTheBight(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url + "/knots/cats-paw?step=1")
	p.see(`[data-testid="step-text"]`, "1 / 4")
	p.until(`document.querySelectorAll(".knot-drawing svg [data-object]").length === 0`, "no hook in the first frame")
	p.do(chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.ArrowRight))
	p.see(`[data-testid="step-text"]`, "4 / 4")
	p.until(`document.querySelectorAll(".knot-drawing svg [data-object]").length > 0`, "the hook in the last")
	p.do(chromedp.KeyEvent("4"))
	p.see("main", "for a left-handed tyer")
	for _, want := range []struct{ path, kind, starts string }{
		{"handout.pdf", "application/pdf", "%PDF-"},
		{"handout.svg", "image/svg+xml", "<svg"},
	} {
		p.until(fmt.Sprintf(`(window.got ??= {})[%[1]q] ?? (fetch("/api/v1/knots/cats-paw/%[1]s").then(async r => { window.got[%[1]q] = r.ok && r.headers.get("content-type") === %[2]q && (await r.text()).startsWith(%[3]q) }), false)`,
			want.path, want.kind, want.starts), want.path)
	}
}

func TestTheSchoolIsKept(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 390, 844)
	p.goTo(s.url + "/doctrines")
	p.press(`[data-question="rolling"] label:nth-of-type(2)`)
	p.until(`document.querySelector('[data-question="rolling"] label:nth-of-type(2) input').checked`, "three is chosen")
	p.goTo(s.url + "/knots/rolling-hitch?step=4")
	p.see(`[data-testid="step-text"]`, "third riding turn")
	p.goTo(s.url + "/doctrines")
	p.until(`document.querySelector('[data-question="rolling"] label:nth-of-type(2) input')?.checked`, "and stays so")
	p.until(`document.documentElement.scrollWidth <= document.documentElement.clientWidth + 1`, "no sideways scrolling")
}
