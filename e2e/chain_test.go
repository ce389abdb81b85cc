package e2e

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"github.com/stretchr/testify/require"
)

// rigs opens the sheet of all that is done with rigs, by the name in sight.
func (p *page) rigs() {
	p.t.Helper()
	p.until(`(() => {
		if (document.querySelector("[role=dialog] #rig-name")) return true
		;[...document.querySelectorAll('[data-testid="rig-name"]')].find((e) => e.offsetParent)?.click()
		return false
	})()`, "the sheet of rigs")
}

// takeMenu takes an entry of a group in the sheet of rigs.
func (p *page) takeMenu(group, words string) {
	p.t.Helper()
	p.rigs()
	p.until(fmt.Sprintf(`(() => {
		const list = document.querySelector('[role=group][aria-label=%q]')
		const b = [...(list?.querySelectorAll("button") ?? [])].find((b) => b.innerText.replace("● ", "") === %q)
		b?.click()
		return !!b
	})()`, group, words), words)
	p.until(`document.querySelector("[role=dialog]") === null`, "the sheet to close")
}

// act does something to the chain at a place.
func (p *page) act(place int, words string) {
	p.t.Helper()
	p.press(fmt.Sprintf(`[data-acts="%d"]`, place))
	p.pressText(words)
}

// From a template to a heavier leader: wraps, knots and the weakest link follow.
func TestBraidLeaderHook(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url)
	p.takeMenu("Begin with a usual rig", "Braid, leader, hook")
	p.see(`[data-piece="1"]`, "There-and-back join")
	p.see(`[data-testid="weakest"]`, "it breaks in the braid")
	p.press(`button[data-piece="3"]`)
	p.see(`[data-ranked]:first-child`, "Improved clinch, 6 wraps")
	p.enter("line_size", "60 lb")
	p.see(`[data-ranked]:first-child`, "Uni, 4 wraps")
	p.see(`[data-piece="2"]`, "60 lb fluorocarbon")
	p.press(`[aria-label="Undo"]`)
	p.see(`[data-piece="2"]`, "20 lb fluorocarbon")
	p.press(`[aria-label="Redo"]`)
	p.see(`[data-piece="2"]`, "60 lb fluorocarbon")
	// A line in between, and out again.
	pieces := `new Set([...document.querySelectorAll("[data-piece]")].map((e) => e.dataset.piece)).size`
	p.act(2, "Add a line")
	p.until(pieces+` === 7`, "a longer chain")
	p.act(4, "Remove the line")
	p.until(pieces+` === 5`, "and as it was")
	// A join that has to run through a guide: what is thicker is ruled out, with the figures.
	p.press(`button[data-piece="1"]`)
	p.choose("otherwise", "guide 2")
	p.enter("guide", "1 mm")
	p.see(`[data-testid="sentence"]`, "the join runs through a guide of 1 mm")
	p.pressText("more")
	p.see("[role=dialog]", "the guide is 1 mm wide")
	p.do(chromedp.KeyEvent(kb.Escape))
	p.until(`document.querySelector("[role=dialog]") === null`, "the sheet to close")
	p.press(`[aria-label="Undo"]`)
	p.press(`[aria-label="Undo"]`)
	p.press(`button[data-piece="3"]`)
	// What would change it, and the map.
	p.see(`[data-testid="changes"]`, "What would change this")
	p.pressText("Map")
	p.until(`document.querySelector('[data-testid="map"]')?.dataset.rows === "64"`, "all rows of the map")
}

func TestASharedLinkOpensInAFreshBrowser(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url)
	p.takeMenu("Begin with a usual rig", "Anchor line with an extension")
	p.see(`[data-piece="3"]`, "Zeppelin bend")
	link := p.addressOf("Anchor line with an extension")
	fresh := open(t, 390, 844)
	fresh.goTo(link)
	fresh.see(`[data-piece="3"]`, "Zeppelin bend")
	fresh.pressText("Letting go · To cut")
	fresh.see("[role=dialog]", "cut 3")
	fresh.until(`document.documentElement.scrollWidth <= document.documentElement.clientWidth + 1`, "no sideways scrolling")
}

func TestABrokenFileKeepsTheOldRig(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url)
	p.takeMenu("Begin with a usual rig", "Mooring line")
	p.see(`[data-piece="3"]`, "Cleat hitch")
	give := func(text string) {
		t.Helper()
		p.rigs()
		p.until(fmt.Sprintf(`(() => {
			const input = document.querySelector('input[aria-label="Rig to take in"]')
			if (!input) return false
			const data = new DataTransfer()
			data.items.add(new File([%q], "rig.json", { type: "application/json" }))
			input.files = data.files
			input.dispatchEvent(new Event("change", { bubbles: true }))
			return true
		})()`, text), "the file")
	}
	give(`{"chain": [`)
	p.see(`[role="alert"]`, "This file is not a rig")
	p.see(`[data-piece="3"]`, "Cleat hitch")
	give(`{"peak_kn":1,"chain":[{"fitting":{"kind":"ring"}},{"joint":{"task":"moor"}},{"line":{"material":"cheese","diameter_mm":12}}]}`)
	p.see(`[role="alert"]`, "cheese")
	p.see("main", "Nothing was lost")
	p.see(`[data-piece="3"]`, "Cleat hitch")
	give(`{"name":"From a file","peak_kn":1,"chain":[{"fitting":{"kind":"post"}},{"joint":{"task":"moor"}},{"line":{"material":"polyester","diameter_mm":14}}]}`)
	p.see(`[data-testid="rig-name"]`, "From a file")
	p.until(`document.querySelector('[role="alert"]') === null`, "no complaint left")
}

func TestJamReliefForWetHMPE(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 390, 844)
	p.goTo(s.url + "/jobs")
	p.pressText("Free an overridden winch")
	p.see(`[role="note"]`, "stores energy")
	p.see("main", "riding turns, laid toward the pull")
	p.choose("line_kind", "hmpe twelve")
	p.see(`[data-testid="notes"]`, "wet HMPE can have a friction as low as 0.04")
	p.see("main", "eight riding turns")
	p.goTo(s.url + "/jobs/turns")
	p.see(`[data-testid="hold"]`, "6 turns hold 2.4 kN with a hand of 100 N")
	p.selectOption("Made fast with", "cleat, locked at the end")
	p.see("table", "eights")
	p.goTo(s.url + "/jobs/soft-shackle")
	p.see(`[data-testid="shackle"]`, "pulls through")
	// A whole shackle, from cord to test: the clamp made of the folded cord, both tails as one.
	p.press(`[aria-label="How cow hitch with figure eight of both tails is tied"]`)
	p.see(`[data-testid="tying"]`, "Fold the line and lay the fold over the rail")
	p.see(`[data-testid="tying"]`, "With both tails as one")
	p.until(`document.querySelectorAll('[data-testid="tying"] svg').length >= 7`, "its pictures")
	p.see(`[role="note"]`, "approves nothing here")
}

// The whole rig is kept, and comes back from the database.
func TestAChainIsSaved(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url)
	p.takeMenu("Begin with a usual rig", "Sheet")
	p.see(`[data-piece="3"]`, "stopper")
	p.rigs()
	p.pressText("Save")
	p.see(`[role="status"]`, "Saved")
	var rigs []struct {
		Rig struct {
			Name  string
			Chain []json.RawMessage
		}
	}
	p.goTo(s.url + "/api/v1/rigs")
	require.NoError(t, json.Unmarshal([]byte(p.text("body")), &rigs))
	for _, r := range rigs {
		if r.Rig.Name == "Sheet" {
			require.Len(t, r.Rig.Chain, 5)
			return
		}
	}
	t.Fatal("the sheet was not kept", os.Args[0])
}
