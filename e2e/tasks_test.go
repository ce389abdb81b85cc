package e2e

import (
	"fmt"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// write types into the field that has the keyboard, or under css.
func (p *page) write(css, text string) {
	p.t.Helper()
	p.do(chromedp.WaitVisible(chromedp.CSS(css)), chromedp.Focus(chromedp.CSS(css)), chromedp.SendKeys(chromedp.CSS(css), text))
}

// pressSeen clicks the element under css that is in sight: some stand in the head or in the row below.
func (p *page) pressSeen(css string) {
	p.t.Helper()
	p.until(fmt.Sprintf(`(() => { const e = [...document.querySelectorAll(%q)].find((e) => e.offsetParent && !e.disabled); e?.click(); return !!e })()`, css), css)
	p.touches++
}

// find opens the search, types, and takes what is found.
func (p *page) find(typed, kind, name string) {
	p.t.Helper()
	p.press(`[aria-label="Find"]`)
	p.write(`input[aria-label="What to find"]`, typed)
	p.see(`[data-testid="found"]`, name)
	p.press(fmt.Sprintf(`[data-testid="found"] [data-found=%q]`, kind+" "+name))
}

// What an instructor does, on the desk and on a phone: without a dead end, and in how many
// touches. was: touches before the screens were made anew, 0 where nobody got through.
func TestTasksTakeFewTouches(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	tasks := []struct {
		name      string
		from      string
		most, was int
		do        func(p *page)
	}{
		{"a wet spring to a pile, off under load", "/", 6, 7, func(p *page) {
			p.choose("fitting_kind", "pile")
			p.choose("release", "under-load")
			p.see(`[data-testid="sentence"]`, "pile")
			p.enter("tail", "2 m")
			p.see(`[data-testid="chosen"]`, "under load")
		}},
		{"20 lb line to a hook", "/", 4, 0, func(p *page) {
			p.find("hook", "To do", "Tie on a lure or a hook")
			p.enter("line_size", "20 lb")
			p.see(`[data-testid="sentence"]`, "20 lb")
			p.see(`[data-testid="chosen"]`, "holds")
		}},
		{"braid, leader, tippet, hook", "/", 2, 6, func(p *page) {
			p.pressSeen(`[data-testid="rig-name"]`)
			p.pressText("Braid, leader")
			p.see(`[data-testid="whole"]`, "Whole rig")
		}},
		{"a bowline left-handed, shown across the table", "/", 5, 4, func(p *page) {
			p.find("bowline", "Knot", "Bowline")
			p.pressText("Show it")
			p.pressText("left")
			p.pressText("facing me")
			p.until(`document.querySelector('[data-half="me"]') !== null`, "the half for me")
		}},
		{"drill the reef knot", "/", 3, 3, func(p *page) {
			p.find("reef", "Knot", "Reef knot")
			p.pressText("Crossing drill")
			p.see("main", "over")
		}},
		{"print a handout", "/knots/bowline", 1, 1, func(p *page) {
			p.see("main", "Handout to print")
			assert.NotEmpty(p.t, p.text(`a[href*="handout.pdf"]`))
			p.touches++ // it opens beside the page
		}},
		{"free a jammed winch", "/", 2, 2, func(p *page) {
			p.find("winch", "Job", "Free an overridden winch")
			p.see("main", "winch")
		}},
		{"wind load, and use it", "/", 3, 3, func(p *page) {
			p.press(`[aria-label="Work out the load"]`)
			p.pressText("Work it out")
			p.see(`[data-testid="load-result"]`, "kN")
			p.pressText("in this rig")
			p.until(`document.querySelector("[role=dialog]") === null`, "the sheet to close")
		}},
		{"the map of choices", "/", 1, 2, func(p *page) {
			p.pressText("Map")
			p.see("main, [role=dialog]", "your rig")
		}},
		{"send the answer", "/", 2, 1, func(p *page) {
			p.send()
			p.touches++
			p.pressText("Copy")
		}},
		{"the rig as a file", "/", 2, 2, func(p *page) {
			p.pressSeen(`[data-testid="rig-name"]`)
			p.see("[role=dialog]", "file")
			p.touches++
		}},
		{"a line with the strength on its label", "/", 3, 3, func(p *page) {
			p.choose("otherwise", "label 20")
			p.enter("label", "22 kN")
			p.see(`[data-testid="sentence"]`, "22 kN on its label")
		}},
		{"take it back", "/", 3, 3, func(p *page) {
			p.choose("wet", "dry")
			p.see(`[data-testid="sentence"]`, "dry")
			p.pressSeen(`[aria-label="Undo"]`)
			p.see(`[data-testid="sentence"]`, "wet")
		}},
	}
	for _, size := range [][2]int64{{1280, 800}, {390, 844}} {
		p := open(t, size[0], size[1])
		p.met(s.url)
		for _, task := range tasks {
			t.Run(fmt.Sprintf("%s at %d", task.name, size[0]), func(t *testing.T) {
				p.t = t
				p.until(`(localStorage.removeItem("oarweed-rig"), true)`, "a fresh rig")
				p.goTo(s.url + task.from)
				p.touches = 0
				task.do(p)
				assert.LessOrEqual(t, p.touches, task.most)
				t.Logf("%d touches, before %d", p.touches, task.was)
			})
		}
	}
}
