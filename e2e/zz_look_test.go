package e2e

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

func TestZZLook(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	for i, task := range []string{"fender", "relieve", "fly", "stop", "sheet", "join"} {
		p.goTo(s.url)
		p.see(`[data-ranked]:first-child`, "Round")
		p.press(`[data-phrase="task"]`)
		p.press(`[data-option="` + task + `"]`)
		time.Sleep(900 * time.Millisecond)
		p.shoot(filepath.Join(os.TempDir(), "look", string(rune('a'+i))+".png"))
	}
	p.do(chromedp.Navigate(s.url))
}
