package e2e

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

func TestTmp(t *testing.T) {
	dir := "/tmp/shots"
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	for _, size := range []struct {
		n    string
		w, h int64
	}{{"d", 1280, 800}, {"p", 390, 844}} {
		p := open(t, size.w, size.h)
		shoot := func(name, path, wait string) {
			p.goTo(s.url + path)
			p.do(chromedp.WaitVisible(chromedp.CSS(wait)))
			time.Sleep(900 * time.Millisecond)
			p.shoot(filepath.Join(dir, name+"-"+size.n+".png"))
		}
		shoot("rig", "/", `[data-testid="chosen"]`)
		shoot("shackle", "/jobs/soft-shackle", `[data-testid="shackle"]`)
		shoot("reeve", "/jobs/reeve", `ol, main`)
		shoot("cleat", "/knots/cleat-hitch?step=6", `.knot-drawing`)
		shoot("cow", "/knots/cow-hitch", `.knot-drawing`)
	}
}
