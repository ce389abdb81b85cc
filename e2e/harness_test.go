// Package e2e drives the real application: the built binary, a real SQLite file
// and a real browser.
package e2e

import (
	"bufio"
	"context"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// patience is how long anything on a page may take: far longer than it does, since a
// busy machine is slow, not wrong.
const patience = 90 * time.Second

var binary string

func TestMain(m *testing.M) {
	os.Exit(func() int {
		if _, err := os.Stat("../web/dist/index.html"); err != nil {
			fmt.Fprintln(os.Stderr, "e2e: the front end is not built: run make build")
			return 1
		}
		dir, err := os.MkdirTemp("", "oarweed-e2e")
		if err != nil {
			fmt.Fprintln(os.Stderr, err)
			return 1
		}
		defer os.RemoveAll(dir)
		binary = filepath.Join(dir, "oarweed")
		if out, err := exec.Command("go", "build", "-o", binary, "../cmd/oarweed").CombinedOutput(); err != nil {
			fmt.Fprintf(os.Stderr, "e2e: %s\n%v\n", out, err)
			return 1
		}
		return m.Run()
	}())
}

// server is a running application.
type server struct {
	url string
	cmd *exec.Cmd
	// said is what it writes to its terminal.
	said *bufio.Reader
}

// serve starts the application on a database and waits until it answers.
func serve(t testing.TB, command, db string) *server {
	t.Helper()
	return serveAt(t, "http://127.0.0.1:0", command, db)
}

// serveAt is the same at an address of its own.
func serveAt(t testing.TB, url, command, db string) *server {
	t.Helper()
	return serveWith(t, command, "--db", db, "--addr", strings.TrimPrefix(url, "http://"))
}

// serveWith starts the application with arguments of its own.
func serveWith(t testing.TB, args ...string) *server {
	t.Helper()
	cmd := exec.Command(binary, args...)
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	cmd.Stderr = os.Stderr
	require.NoError(t, cmd.Start())
	said, address := bufio.NewReader(out), ""
	for address == "" {
		line, err := said.ReadString('\n')
		require.NoError(t, err, "the server did not say where it is")
		if _, rest, ok := strings.Cut(line, "http://"); ok {
			address = strings.Fields(rest)[0]
		}
	}
	s := &server{"http://" + strings.Replace(address, "[::]", "127.0.0.1", 1), cmd, said}
	t.Cleanup(s.stop)
	res, err := http.Get(s.url + "/api/v1/session")
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	require.Equal(t, http.StatusOK, res.StatusCode)
	return s
}

func (s *server) stop() {
	if s.cmd.ProcessState == nil {
		_ = s.cmd.Process.Signal(syscall.SIGTERM)
		_ = s.cmd.Wait()
	}
}

// page is a browser tab. Errors in its console fail the test.
type page struct {
	t   testing.TB
	ctx context.Context
	// refuses is set where the server or the browser is meant to refuse something.
	refuses bool
	// touches are the presses so far.
	touches int
}

func open(t testing.TB, width, height int64) *page {
	t.Helper()
	options := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.NoSandbox, chromedp.DisableGPU, chromedp.WindowSize(int(width), int(height)),
		chromedp.Flag("disable-quic", true), chromedp.Flag("disable-component-update", true),
		chromedp.Flag("disable-domain-reliability", true), chromedp.Flag("no-pings", true),
		chromedp.Flag("force-prefers-reduced-motion", true), chromedp.Flag("lang", "en-US"),
		chromedp.Flag("host-resolver-rules", "MAP rebound.test 127.0.0.1 , MAP * ~NOTFOUND , EXCLUDE 127.0.0.1 , EXCLUDE localhost"))
	if path, err := exec.LookPath("/usr/lib/chromium/chromium"); err == nil {
		options = append(options, chromedp.ExecPath(path))
	}
	alloc, cancelAlloc := chromedp.NewExecAllocator(context.Background(), options...)
	tab, cancelTab := chromedp.NewContext(alloc)
	require.NoError(t, chromedp.Do(tab), "Chromium must start: run make test-deps")
	ctx, cancel := context.WithTimeout(tab, 10*patience)
	var trouble []string
	var lock sync.Mutex
	console := chromedp.Console(tab)
	go func() {
		for m, err := range console {
			if err != nil {
				return
			}
			// The browser logs refused input and unknown knots by itself.
			expected := strings.Contains(m.Text, "422 (Unprocessable") ||
				strings.Contains(m.Text, "404 (Not Found)") && strings.Contains(m.URL, "/api/v1/knots/")
			if (m.Type == chromedp.ConsoleError || m.Type == chromedp.ConsoleException) && !expected {
				lock.Lock()
				trouble = append(trouble, m.Text)
				lock.Unlock()
			}
		}
	}()
	p := &page{t: t, ctx: ctx}
	t.Cleanup(func() {
		if t.Failed() {
			p.shoot(filepath.Join(os.TempDir(), "oarweed-failed-"+strings.ReplaceAll(t.Name(), "/", "-")+".png"))
		}
		cancel()
		cancelTab()
		cancelAlloc()
		lock.Lock()
		defer lock.Unlock()
		if len(trouble) > 0 && !p.refuses {
			t.Errorf("the browser's console shows errors: %v", trouble)
		}
	})
	p.do(chromedp.EmulateViewport(width, height))
	return p
}

func (p *page) do(steps ...chromedp.Action[chromedp.Void]) {
	p.t.Helper()
	require.NoError(p.t, chromedp.Do(p.ctx, steps...))
}

func (p *page) goTo(url string) { p.t.Helper(); p.do(chromedp.Navigate(url)) }

// see waits until the page's text, or the text of the elements under css, holds words.
func (p *page) see(css, words string) {
	p.t.Helper()
	p.until(fmt.Sprintf(`[...document.querySelectorAll(%q)].some(e => e.innerText.replace(/\s+/g, " ").toLowerCase().includes(%q))`, css, strings.ToLower(words)),
		fmt.Sprintf("%q in %s", words, css))
}

// until waits for a JavaScript condition.
func (p *page) until(js, what string) {
	p.t.Helper()
	_, err := chromedp.Run(p.ctx, chromedp.Poll[bool](js, chromedp.WithPollingTimeout(patience)))
	// A page that was just being left has no context any more: the next one is asked.
	for k := 0; k < 5 && err != nil && strings.Contains(err.Error(), "Cannot find context"); k++ {
		time.Sleep(200 * time.Millisecond)
		_, err = chromedp.Run(p.ctx, chromedp.Poll[bool](js, chromedp.WithPollingTimeout(patience)))
	}
	if err != nil {
		text, _ := chromedp.Run(p.ctx, chromedp.Evaluate[string](`document.body.innerText.slice(0, 3000)`))
		require.NoError(p.t, err, "waiting for %s; the page says:\n%s", what, text)
	}
}

// press clicks the first element under css once it is there and can be seen.
func (p *page) press(css string) {
	p.t.Helper()
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	p.still(css)
	require.NoError(p.t, chromedp.Do(ctx, chromedp.Click(chromedp.CSS(css))), "pressing %s", css)
	p.touches++
}

// focus puts the keyboard on the first element under css and waits until it stays
// there: an answer that arrives may draw the page anew.
func (p *page) focus(css string) {
	p.t.Helper()
	p.still(css)
	p.until(fmt.Sprintf(`(() => {
		const e = document.querySelector(%q)
		if (document.activeElement !== e) { e?.focus(); return false }
		return true
	})()`, css), "the keyboard on "+css)
}

// still brings an element into sight and waits until it has stopped moving: a menu
// that is just opening would be clicked beside.
func (p *page) still(css string) {
	p.t.Helper()
	p.stillAt(fmt.Sprintf(`document.querySelector(%q)`, css), css)
}

// stillAt is the same for the element that a JavaScript expression finds.
func (p *page) stillAt(js, what string) {
	p.t.Helper()
	p.until(fmt.Sprintf(`(() => {
		const e = %s
		if (!e) return false
		e.scrollIntoView({block: "nearest", behavior: "instant"})
		const r = e.getBoundingClientRect(), now = [r.x, r.y, r.width, r.height].join()
		if (window.lastSeen?.of !== e || window.lastSeen.at !== now) window.lastSeen = {of: e, at: now, since: performance.now()}
		return performance.now() - window.lastSeen.since > 60
	})()`, js), what+" to stand still")
}

// pressText clicks the smallest button, option or link whose text holds words.
func (p *page) pressText(words string) {
	p.t.Helper()
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	path := fmt.Sprintf(`//*[self::button or self::a or @role="option"][contains(normalize-space(.), %q)]`, words)
	p.stillAt(fmt.Sprintf(`document.evaluate(%q, document, null, XPathResult.FIRST_ORDERED_NODE_TYPE, null).singleNodeValue`, path), words)
	require.NoError(p.t, chromedp.Do(ctx, chromedp.Click(chromedp.Search(path))), "pressing %q", words)
	p.touches++
}

// choose opens a phrase of the sentence and takes one of its options.
func (p *page) choose(phrase, option string) {
	p.t.Helper()
	p.press(fmt.Sprintf(`[data-phrase=%q]`, phrase))
	p.press(fmt.Sprintf(`[data-option=%q]`, option))
}

// enter opens a phrase, types text in its field and presses Enter.
func (p *page) enter(phrase, text string) {
	p.t.Helper()
	p.press(fmt.Sprintf(`[data-phrase=%q]`, phrase))
	p.do(chromedp.WaitVisible(chromedp.CSS(`form input`)), chromedp.Focus(chromedp.CSS(`form input`)),
		chromedp.Clear(chromedp.CSS(`form input`)), chromedp.SendKeys(chromedp.CSS(`form input`), text+"\r"))
}

// addressOf is the page's address once the rig in it holds words: it follows the
// screen a moment later.
func (p *page) addressOf(words string) string {
	p.t.Helper()
	p.until(fmt.Sprintf(`atob(location.search.slice(5).replaceAll("-", "+").replaceAll("_", "/")).includes(%q)`, words), "the address to hold "+words)
	address, err := chromedp.Run(p.ctx, chromedp.Location())
	require.NoError(p.t, err)
	return address
}

func (p *page) text(css string) string {
	p.t.Helper()
	v, err := chromedp.Run(p.ctx, chromedp.Evaluate[string](fmt.Sprintf(`document.querySelector(%q)?.innerText ?? ""`, css)))
	require.NoError(p.t, err)
	return v
}

func (p *page) shoot(file string) {
	png, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	if err != nil {
		p.t.Log("no picture:", err)
		return
	}
	if err := os.WriteFile(file, png, 0o644); err != nil {
		p.t.Log("no picture:", err)
	}
}
