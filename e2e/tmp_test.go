package e2e

import (
	"path/filepath"
	"testing"
	"time"
)

func TestTmp(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 1300)
	for _, x := range [][2]string{{"rig", "/"}, {"sayings", "/sayings"}, {"lash", "/jobs/lash"}, {"along", "/jobs/alongside"}, {"method", "/method"}} {
		p.goTo(s.url + x[1])
		p.until(`!document.body.innerText.includes("Loading")`, x[0])
		time.Sleep(2 * time.Second)
		p.shoot("/tmp/pics/p-" + x[0] + ".png")
	}
}
