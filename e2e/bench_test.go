package e2e

import (
	"bufio"
	"io"
	"net/http"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// BenchmarkColdStart is the time from starting the binary on an existing database
// to the first byte of the page. Budget: 300 ms.
func BenchmarkColdStart(b *testing.B) {
	db := filepath.Join(b.TempDir(), "demo.db")
	serve(b, "demo", db).stop()
	for b.Loop() {
		cmd := exec.Command(binary, "serve", "--db", db, "--addr", "127.0.0.1:0")
		out, err := cmd.StdoutPipe()
		require.NoError(b, err)
		require.NoError(b, cmd.Start())
		line, err := bufio.NewReader(out).ReadString('\n')
		require.NoError(b, err)
		_, rest, _ := strings.Cut(line, "http://")
		res, err := http.Get("http://" + strings.Fields(rest)[0])
		require.NoError(b, err)
		_, err = res.Body.Read(make([]byte, 1))
		require.True(b, err == nil || err == io.EOF)
		b.StopTimer()
		require.NoError(b, res.Body.Close())
		(&server{cmd: cmd}).stop()
		b.StartTimer()
	}
}

// BenchmarkPage opens Rig in a fresh tab and reports when the first content was
// painted (budget 1200 ms), when the answer stood there, how much script came
// over the wire before that (budget 300 kB), how long a change of one phrase and a
// move of a slider take to show in the answer (budget 100 ms), the text read without
// having the page laid out for it.
func BenchmarkPage(b *testing.B) {
	s := serve(b, "demo", filepath.Join(b.TempDir(), "demo.db"))
	var paint, answered, script, change, drag float64
	n := 0
	for b.Loop() {
		p := open(b, 1280, 800)
		p.goTo(s.url)
		p.see(`[data-ranked]`, "Round turn")
		number := func(js string) float64 {
			v, err := chromedp.Run(p.ctx, chromedp.Evaluate[float64](js, chromedp.EvalAwaitPromise))
			require.NoError(b, err)
			return v
		}
		paint += number(`performance.getEntriesByName("first-contentful-paint")[0].startTime`)
		answered += number(`performance.getEntriesByType("resource").filter(r => r.name.endsWith("/api/v1/choices"))[0].responseEnd`)
		script += number(`performance.getEntriesByType("resource").filter(r => r.name.endsWith(".js")).reduce((n, r) => n + r.encodedBodySize, 0) / 1000`)
		p.press(`[data-phrase="wet"]`)
		p.do(chromedp.WaitVisible(chromedp.CSS(`[data-option="dry"]`)))
		change += number(`new Promise(done => {
			const list = document.querySelector("[data-testid=answer]"), from = performance.now();
			new MutationObserver((_, o) => { if (list.dataset.busy === "false") { o.disconnect(); requestAnimationFrame(() => done(performance.now() - from)); } }).observe(list, {attributes: true, subtree: true, childList: true});
			document.querySelector("[data-option=dry]").click();
		})`)
		p.press(`[data-phrase="load"]`)
		p.do(chromedp.WaitVisible(chromedp.CSS(`input[type=range]`)))
		drag += number(`(async () => {
			const slider = document.querySelector("input[type=range]"), shown = () => document.querySelector("[data-ranked] + [data-ranked]").textContent
			const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set
			let total = 0
			for (const v of [0.2, 0.4, 0.6, 0.8, 1, 1.2, 1.4, 1.6]) {
				const before = shown(), from = performance.now()
				set.call(slider, v)
				slider.dispatchEvent(new Event("input", { bubbles: true }))
				while (shown() === before) await new Promise(requestAnimationFrame)
				total += performance.now() - from
				await new Promise(r => setTimeout(r, 150))
			}
			return total / 8
		})()`)
		n++
		time.Sleep(10 * time.Millisecond)
	}
	for name, v := range map[string]float64{"ms-first-paint": paint, "ms-answer": answered, "kB-script": script, "ms-change": change, "ms-drag": drag} {
		b.ReportMetric(v/float64(n), name)
	}
}
