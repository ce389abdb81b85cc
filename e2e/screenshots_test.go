package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// TestScreenshots takes the pictures of docs/screenshots from demo data; it runs
// only when make screenshots asks for it.
func TestScreenshots(t *testing.T) {
	dir := os.Getenv("OARWEED_SHOTS")
	if dir == "" {
		t.Skip("make screenshots takes the pictures")
	}
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	settle := func(p *page) {
		p.until(`document.querySelectorAll(".knot-drawing svg").length > 0 || !document.querySelector(".knot-drawing")`, "drawings")
		time.Sleep(300 * time.Millisecond)
	}
	desk := open(t, 1280, 800)
	shoot := func(p *page, name, path, wait string) {
		p.goTo(s.url + path)
		p.do(chromedp.WaitVisible(chromedp.CSS(wait)))
		settle(p)
		p.shoot(filepath.Join(dir, name+".png"))
	}
	desk.met(s.url)
	shoot(desk, "rig", "/", `[data-testid="changes"] button`)
	shoot(desk, "show", "/knots/bowline/show?to=both&step=3", `[data-testid="show"] svg`)
	shoot(desk, "knot", "/knots/bowline?step=3", `.knot-drawing`)
	shoot(desk, "knots", "/knots", `.knot-drawing`)
	shoot(desk, "job", "/jobs/jam", `[data-testid="notes"]`)
	desk.goTo(s.url + "/")
	desk.takeMenu("Begin with a usual rig", "Anchor line with an extension")
	desk.see(`[data-piece="3"]`, "Zeppelin bend")
	settle(desk)
	desk.shoot(filepath.Join(dir, "chain.png"))
	shoot(desk, "locker", "/lines", `[data-locker]`)
	shoot(desk, "tow", "/lines/tow", `[data-place]`)
	shoot(desk, "moorings", "/lines/moorings", `[data-moored-line]`)
	shoot(desk, "board", "/teach?group=Evening+class", `[data-testid="board"]`)
	shoot(desk, "plan", "/teach/plan/2", `[data-testid="sum"]`)
	shoot(desk, "log", "/log", `[data-attempt]`)
	shoot(desk, "ledger", "/bench/ledger", `[data-claim]`)
	s.send(t, "PUT", "/bench/settings", map[string]any{"cell": cellAt(t, "--seed", "12", "--quick", "2")}, "If-Match", `"0"`)
	desk.do(chromedp.Evaluate[chromedp.Void](`localStorage.setItem("oarweed-bench-ready", new Date().toDateString())`))
	desk.goTo(s.url + "/bench")
	desk.press("[data-series]")
	desk.see("main", "cell is ready")
	desk.pressText("Set to zero")
	desk.pressText("Start the pull")
	desk.until(`Number(document.querySelector("[data-load]")?.innerText) > 5.5`, "the load")
	settle(desk)
	desk.shoot(filepath.Join(dir, "bench.png"))
	desk.pressText("Stop")
	desk.pressText("Throw the readings away")
	// Every knot that is drawn up, on one sheet.
	desk.until(`window.sheet ?? (window.sheet = false, fetch("/api/v1/catalogue").then(r => r.json()).then(async c => {
		const all = await Promise.all(c.knots.map(async k => {
			const r = await fetch("/api/v1/knots/" + k.id + "/snug.svg?look=" + (k.kind === "terminal" ? "mono" : "laid"));
			return r.ok ? "<figure><div class=knot-drawing>" + await r.text() + "</div><figcaption>" + k.name + "</figcaption></figure>" : "";
		}));
		document.body.innerHTML = "<div style='display:grid;grid-template-columns:repeat(8,1fr);gap:6px;padding:10px;text-align:center;font-size:14px;line-height:1.1'>" + all.join("") + "</div>";
		for (const d of document.querySelectorAll(".knot-drawing svg")) d.style = "height:128px;width:100%";
		window.sheet = true;
	}), false)`, "the sheet")
	desk.do(chromedp.EmulateViewport(1280, 1130))
	desk.shoot(filepath.Join(dir, "drawn-up.png"))
	phone := open(t, 390, 844)
	phone.met(s.url)
	shoot(phone, "rig-phone", "/", `[data-testid="chosen"]`)
	phone.goTo(s.url + "/teach/class?knot=bowline&group=Evening+class")
	phone.until(`document.querySelectorAll("[data-learner]").length === 8`, "the class")
	phone.pressText("wet")
	phone.pressText("Start")
	time.Sleep(11 * time.Second)
	for _, name := range []string{"Ailsa", "Fenna", "Dorrit"} {
		phone.tile(name)
		time.Sleep(1500 * time.Millisecond)
	}
	phone.tile("Fenna")
	phone.pressText("Tail too short")
	phone.until(`document.querySelector('[data-testid="fault"]') === null`, "the sheet closed")
	phone.shoot(filepath.Join(dir, "class-phone.png"))
	shoot(phone, "knot-phone", "/knots/clove-hitch?step=2", `.knot-drawing`)
	desk.do(chromedp.EmulateViewport(1280, 800))
	desk.goTo(s.url + "/knots/name")
	photo, err := filepath.Abs("testdata/tied.png")
	require.NoError(t, err)
	desk.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{photo}))
	desk.until(`document.querySelector("svg image") !== null`, "the photo")
	points, over := traced(t)
	desk.pen(points)
	desk.until(fmt.Sprintf(`document.querySelectorAll("[data-spot]").length === %d`, len(over)), "its crossings")
	for i, side := range over {
		if i == 2 {
			side = map[string]string{"a": "b", "b": "a"}[side]
		}
		desk.mark(i, side)
	}
	desk.until(`document.querySelector('[data-named="nearly bowline"]') !== null`, "nearly")
	desk.do(chromedp.Evaluate[chromedp.Void](`scrollTo(0, 0)`))
	settle(desk)
	desk.shoot(filepath.Join(dir, "name.png"))
}
