package e2e

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// cellAt starts the stand-in for a load cell and gives its address.
func cellAt(t *testing.T, args ...string) string {
	t.Helper()
	cmd := exec.Command(binary, append([]string{"loadcell-sim", "--addr", "127.0.0.1:0", "--knots", "bowline,figure-eight-loop", "--line", "polyester braid 8mm"}, args...)...)
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	t.Cleanup(func() { _ = cmd.Process.Kill(); _ = cmd.Wait() })
	line, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(t, err)
	address := strings.Fields(strings.TrimPrefix(line, "A load cell listens at "))[0]
	return strings.TrimSuffix(address, ":")
}

// send calls the server as a program would.
func (s *server) send(t *testing.T, method, path string, body any, headers ...string) []byte {
	t.Helper()
	text, err := json.Marshal(body)
	require.NoError(t, err)
	req, err := http.NewRequestWithContext(context.Background(), method, s.url+"/api/v1"+path, bytes.NewReader(text))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	for i := 0; i+1 < len(headers); i += 2 {
		req.Header.Set(headers[i], headers[i+1])
	}
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	out, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.Less(t, res.StatusCode, 300, string(out))
	return out
}

// A series is planned, a pull made on the stand-in, kept, and its marks corrected.
func TestAPullFromTheStandIn(t *testing.T) {
	s := serve(t, "serve", filepath.Join(t.TempDir(), "bench.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/bench")
	p.see("main", "Nothing is planned yet")
	s.send(t, "PUT", "/bench/settings", map[string]any{"cell": cellAt(t, "--quick", "25", "--seed", "7")}, "If-Match", `"0"`)
	p.pressText("Plan a series")
	p.until(`document.querySelector("[role=dialog] select") !== null`, "the form")
	p.pressText("Plan it")
	p.see("main", "Pull 1 of 10")
	p.see("main", "cell is ready")
	p.pressText("Set to zero")
	p.pressText("Start the pull")
	p.see("[role=dialog]", "eye protection")
	p.do(chromedp.Evaluate[chromedp.Void](`document.querySelectorAll("[role=dialog] input").forEach(b => b.click())`))
	p.pressText("All is so")
	p.pressText("Start the pull")
	p.until(`Number(document.querySelector("[data-load]")?.innerText) > 2`, "the load rises")
	p.until(`Number(document.querySelector("[data-load]")?.innerText) < 0.5`, "it has parted")
	p.pressText("Stop")
	p.see("[role=dialog]", "What happened?")
	p.pressText("Knot A: Bowline")
	p.pressText("Keep this pull")
	p.until(`document.querySelectorAll("[data-pull]").length === 1`, "the pull is kept")
	p.see("[data-pull]", "broke at")
	p.see("main", "Pull 2 of 10")
	p.pressText("Trace")
	p.until(`document.querySelector("[role=dialog] [data-plot] canvas") !== null`, "the trace")
	p.do(chromedp.Evaluate[chromedp.Void](`(() => { const o = document.querySelector("[role=dialog] .u-over"), r = o.getBoundingClientRect();
		o.dispatchEvent(new MouseEvent("click", { bubbles: true, clientX: r.left + r.width * 0.3, clientY: r.top + 20 })); })()`))
	p.see("[data-pull]", "marks corrected")
	p.pressText("Back to what was found")
	p.until(`!document.querySelector("[data-pull]").innerText.includes("corrected")`, "as found")
	p.goTo(s.url + "/bench")
	p.see("[data-series]", "1 of 10")
}

// The connection is lost in the middle of a pull and comes back; the server is killed in the next
// one and loses no more than the last moment.
func TestReadingsOutliveLostConnectionsAndCrashes(t *testing.T) {
	db := filepath.Join(t.TempDir(), "bench.db")
	s := serve(t, "serve", db)
	cell := cellAt(t, "--drop", "1500ms", "--hertz", "200")
	s.send(t, "PUT", "/bench/settings", map[string]any{"cell": cell}, "If-Match", `"0"`)
	s.send(t, "POST", "/series", map[string]any{"name": "Torn", "line": map[string]any{"material": "polyester", "construction": "braid", "diameter_mm": 8},
		"specimens": []any{map[string]any{"a": map[string]any{"knot": "bowline"}, "b": map[string]any{"knot": "figure-eight-loop"}}}})
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/bench")
	p.press("[data-series]")
	p.see("main", "cell is ready")
	s.send(t, "POST", "/bench/pulls/torn", nil)
	p.see("main", "pulling")
	p.see("main", "connection was lost")
	p.see("main", "readings are missing")
	p.see("main", "pulling")
	p.pressText("Stop")
	p.see("[role=dialog]", "The connection was lost for a while")
	p.pressText("Later")
	var left []struct {
		Key      string
		Readings int
	}
	require.NoError(t, json.Unmarshal(s.send(t, "GET", "/bench/pulls", nil), &left))
	require.Len(t, left, 1)
	assert.Greater(t, left[0].Readings, 100)

	started := time.Now()
	for {
		res, err := http.Post(s.url+"/api/v1/bench/pulls/killed", "application/json", nil)
		require.NoError(t, err)
		_ = res.Body.Close()
		if res.StatusCode == http.StatusOK {
			started = time.Now()
			break
		}
		time.Sleep(50 * time.Millisecond)
	}
	time.Sleep(1300*time.Millisecond - time.Since(started))
	read := time.Since(started).Seconds()
	p.refuses = true // the stream to the page breaks off
	require.NoError(t, s.cmd.Process.Signal(syscall.SIGKILL))
	_ = s.cmd.Wait()
	s = serve(t, "serve", db)
	left = nil
	require.NoError(t, json.Unmarshal(s.send(t, "GET", "/bench/pulls", nil), &left))
	require.Len(t, left, 2, "both are there, to be recorded or thrown away")
	for _, x := range left {
		if x.Key == "killed" {
			assert.Greater(t, float64(x.Readings), 200*(read-1)-20, "of %.1f s no more than the last is lost", read)
		}
	}
}

// A file with semicolons and decimal commas, and one that is wrong; then so many pulls off a dial
// that the Rig's order changes and says why.
func TestFilesAndTheChoiceAfterPulls(t *testing.T) {
	s := serve(t, "serve", filepath.Join(t.TempDir(), "bench.db"))
	var series struct {
		ID  int64
		Key string
	}
	require.NoError(t, json.Unmarshal(s.send(t, "POST", "/series", map[string]any{"name": "Sheets, wet", "wet": true,
		"line":      map[string]any{"material": "polyester", "construction": "braid", "diameter_mm": 10, "label_kn": 20},
		"specimens": []any{map[string]any{"a": map[string]any{"knot": "bowline"}, "b": map[string]any{"knot": "figure-eight-loop"}}}}), &series))
	dir := t.TempDir()
	good, bad := filepath.Join(dir, "good.csv"), filepath.Join(dir, "bad.csv")
	var text strings.Builder
	text.WriteString("Zeit (s);Kraft (kN)\r\n")
	for i := range 200 {
		kn := 0.03 * float64(i)
		if i > 190 {
			kn = 0.01
		}
		text.WriteString(strings.ReplaceAll(fmt.Sprintf("%.1f;%.3f\r\n", float64(i)/10, kn), ".", ","))
	}
	require.NoError(t, os.WriteFile(good, []byte(text.String()), 0o600))
	require.NoError(t, os.WriteFile(bad, []byte("time;force\n0;0\n1;seven\n2;1\n"), 0o600))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.do(chromedp.Evaluate[chromedp.Void](`localStorage.setItem("oarweed-bench-ready", new Date().toDateString())`))
	p.goTo(fmt.Sprintf("%s/bench/%d", s.url, series.ID))
	p.see("main", "No load cell is connected")
	p.pressText("From a file")
	p.until(`document.querySelector("[role=dialog] input[type=file]") !== null`, "the form")
	p.refuses = true
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[role=dialog] input[type=file]`), []string{bad}))
	p.see("[role=dialog]", "line 3, column 2")
	p.see("[role=dialog]", `"seven" is not a number`)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[role=dialog] input[type=file]`), []string{good}))
	p.see("[role=dialog]", "200 readings")
	p.see("[role=dialog]", "decimal commas")
	p.pressText("Take these readings")
	p.see("[role=dialog]", "What happened?")
	p.pressText("Knot A: Bowline")
	p.pressText("Keep this pull")
	p.see("[data-pull]", "broke at 5.7")
	for i := range 11 {
		p.pressText("Read off a dial")
		p.until(`document.querySelector("[role=dialog] input") !== null`, "the form")
		p.do(chromedp.SendKeys(chromedp.CSS("[role=dialog] input"), fmt.Sprintf("%.2f", 5.6+0.04*float64(i))))
		p.pressText("Knot A: Bowline")
		p.pressText("Keep this pull")
		p.until(fmt.Sprintf(`document.querySelectorAll("[data-pull]").length === %d`, i+2), "kept")
	}
	p.see("[data-result]", "The figure-eight loop is stronger")
	p.pressText("Why? The figures")
	p.see("main", "your pulls weighing")
	rig := `{"name":"","chain":[{"fitting":{"kind":"clew","size_mm":15}},{"joint":{"task":"sheet"}},{"line":{"material":"polyester","construction":"braid","diameter_mm":10}}],"peak_kn":1}`
	var answer struct{ House []string }
	var doc any
	require.NoError(t, json.Unmarshal([]byte(rig), &doc))
	require.NoError(t, json.Unmarshal(s.send(t, "POST", "/choices", doc), &answer))
	require.NotEmpty(t, answer.House)
	assert.Contains(t, answer.House[0], "Your pulls: bowline keeps")
	p.goTo(s.url + "/")
	p.takeMenu("Begin with a usual rig", "Sheet")
	p.see(`[data-house]`, "Your pulls: bowline keeps")
	p.enter("load", "2 kN")
	p.see(`[data-house]`, "it comes second and not first")
	p.until(`document.querySelector("[data-ranked]")?.innerText.includes("igure") === true`, "another knot comes first")
	p.goTo(s.url + "/bench")
	p.press(`input[type=checkbox]`)
	p.until(`fetch("/api/v1/bench/settings").then(r => r.json()).then(b => window.out = b.out) && window.out === true`, "switched off")
	p.goTo(s.url + "/")
	p.see(`[data-testid="chosen"]`, "owline")
	p.until(`document.querySelector("[data-house]") === null`, "nothing of own pulls")
}
