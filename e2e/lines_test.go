package e2e

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// set puts a value into the field that a script finds.
func (p *page) set(field, value string) {
	p.t.Helper()
	p.until(fmt.Sprintf(`(() => { const i = %s; if (!i) return false;
		const of = i.tagName === "SELECT" ? HTMLSelectElement : HTMLInputElement;
		Object.getOwnPropertyDescriptor(of.prototype, "value").set.call(i, %q);
		i.dispatchEvent(new Event(i.tagName === "SELECT" ? "change" : "input", { bubbles: true })); return true; })()`, field, value), "the field "+field)
}

// labelled is the field with a label.
func labelled(label string) string {
	return fmt.Sprintf(`[...document.querySelectorAll("label")].filter(l => l.textContent.trim() === %q).map(l => document.getElementById(l.htmlFor) ?? l.querySelector("input,select")).at(-1)`, label)
}

// A leader is tied again until it warns; wind rises until a berth no longer stands it.
func TestALeaderWarnsAndABerthGivesOut(t *testing.T) {
	t.Parallel()
	s := serve(t, "serve", filepath.Join(t.TempDir(), "lines.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/jobs")
	p.pressText("Leaders, change by change")
	p.see("main", "None is in use yet")
	p.pressText("A new leader")
	p.until(`document.querySelector("[role=dialog] input") !== null`, "the form")
	p.pressText("Begin it")
	p.refuses = true
	p.see("[role=dialog]", "name")
	p.set(labelled("Name"), "Evening")
	p.set(labelled("Length, m"), "2,1")
	p.pressText("Begin it")
	p.see("[data-leader]", "Evening")
	p.see("[data-leader]", "Three changes left: have the next one ready.")
	p.pressText("Tied again")
	p.see("[data-leader]", "Two changes left")
	p.pressText("10 cm spoilt")
	p.see("[data-leader]", "too short for another change")
	p.see("[data-leader]", "of tippet to make it what it was")
	p.pressText("New tippet on")
	p.see("[data-leader]", "Three changes left")
	p.goTo(s.url + "/jobs/mooring")
	p.see("[data-moored]", "It stands")
	p.set(`document.querySelector("input[type=range]")`, "60")
	p.see("[data-moored]", "does not stand this wind")
	p.pressText("Between four posts")
	p.see("[data-moored]", "line to port")
	p.see("[data-order='Let go']", "all lines aboard")
}

// windAt serves a simulated wind until it is stopped.
func windAt(t *testing.T, addr string, args ...string) (string, func()) {
	t.Helper()
	ctx, stop := context.WithCancel(t.Context())
	cmd := exec.CommandContext(ctx, binary, append([]string{"wind-sim", "--addr", addr}, args...)...)
	var out bytes.Buffer
	r, w, err := os.Pipe()
	require.NoError(t, err)
	cmd.Stdout, cmd.Stderr = w, &out
	require.NoError(t, cmd.Start())
	line := make([]byte, 200)
	n, err := r.Read(line)
	require.NoError(t, err, out.String())
	_, after, ok := strings.Cut(string(line[:n]), "listens at ")
	require.True(t, ok, string(line[:n]))
	at, _, _ := strings.Cut(after, ": ")
	end := func() { stop(); _ = cmd.Wait(); _ = r.Close(); _ = w.Close() }
	t.Cleanup(end)
	return at, end
}

// The wind rises from 15 to 35 knots and the plan warns; the feed drops, which is said, and
// returns. What cannot wait stands in the count of the header.
func TestTheWindRisesAndTheFeedDrops(t *testing.T) {
	t.Parallel()
	s := serve(t, "serve", filepath.Join(t.TempDir(), "wind.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/lines/moorings")
	p.see("[data-moored]", "It stands")
	p.see("[data-wind]", "is listened to")
	p.set(labelled("Diameter, mm"), "8")
	p.set(labelled("Name of the plan"), "Outer quay")
	p.pressText("Keep this plan")
	p.see("main", "She lies here now")
	p.pressText("She lies here now")
	p.see("[aria-label=Plans]", "⚓ Outer quay")
	at, end := windAt(t, "127.0.0.1:0", "--from", "15", "--to", "35", "--rise", "4s", "--gust", "0.1")
	p.pressText("Wind instrument")
	p.set(labelled("Address of the wind instrument (NMEA 0183)"), at)
	p.pressText("Listen")
	p.until(`document.querySelector("[data-wind]")?.dataset.wind === "known"`, "the wind")
	p.until(`["gusts", "gone"].includes(document.querySelector("[data-berth]")?.dataset.warn)`, "a warning")
	p.see("[data-berth]", "Double the lines")
	p.pressText("The wind that blows")
	p.see("[data-moored]", "It does not stand this wind")
	p.goTo(s.url + "/due")
	p.see("[data-due='Outer quay']", "Double the lines")
	p.see("header", "1")
	p.goTo(s.url + "/lines/moorings")
	p.until(`document.querySelector("[data-wind]")?.dataset.wind === "known"`, "the wind")
	end()
	p.until(`document.querySelector("[data-wind]")?.dataset.wind === "lost"`, "that the wind is lost")
	p.see("[data-wind]", "nothing warns now")
	p.until(`document.querySelector("[data-berth]") === null`, "no all clear from an old wind")
	windAt(t, at, "--from", "8", "--to", "8")
	p.until(`document.querySelector("[data-wind]")?.dataset.wind === "known"`, "the wind again")
}

// Between take-offs and below the shortest; beyond the longest it says so. A run is counted.
func TestATowLineForItsRiders(t *testing.T) {
	t.Parallel()
	s := serve(t, "serve", filepath.Join(t.TempDir(), "tow.db"))
	p := open(t, 1280, 900)
	p.met(s.url)
	p.goTo(s.url + "/lines/tow")
	p.pressText("A new tow line")
	p.set(labelled("Name"), "Tow line one")
	p.set(labelled("or each length, m or ft"), "60ft, 65ft, 70ft, 75ft")
	for _, r := range [][2]string{{"Between", "72.5ft"}, {"Below", "55 ft"}, {"Beyond", "25"}} {
		p.pressText("Add a rider")
		p.set(labelled("Rider"), r[0])
		p.set(labelled("Wants, m or ft"), r[1])
	}
	p.pressText("Keep it")
	p.see("[data-place=Between]", "The 22.86 m take-off, up 76 cm")
	p.see("[data-place=Between]", "approves nothing")
	p.pressText("Record a run")
	p.see("main", "22.1 m: 1 run")
	p.press("[data-rider=Below]")
	p.see("[data-place=Below]", "The 18.29 m take-off, up 1.5 m")
	p.see("[data-place=Below]", "from the shortest take-off, in the line itself")
	p.press("[data-rider=Beyond]")
	p.see("[data-place=Beyond]", "2.14 m longer than the line reaches")
}

func fetched(t *testing.T, url string) []byte {
	t.Helper()
	res, err := http.Get(url)
	require.NoError(t, err)
	defer res.Body.Close()
	out, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	return out
}

// A line is put into the locker, looked over, logged, and its table opens again in another
// school; a wrong row is named and nothing of the file is kept.
func TestALineAndItsTable(t *testing.T) {
	t.Parallel()
	s := serve(t, "serve", filepath.Join(t.TempDir(), "locker.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/lines")
	p.see("main", "Empty")
	p.pressText("Add a line")
	p.set(labelled("Name"), "Bow line")
	p.set(labelled("Diameter, mm"), "12")
	p.set(labelled("Metres left"), "14")
	p.pressText("Into the locker")
	p.see("[data-locker='Bow line']", "nobody has yet")
	p.see("header", "1")
	p.pressText("Look it over")
	p.do(chromedp.Evaluate[chromedp.Void](`document.querySelector("[role=group][aria-label=Core] button").click();
		document.querySelectorAll("[role=group][aria-label=Cover] button")[2].click()`))
	p.set(labelled("Looked over by"), "Ailsa")
	p.pressText("Keep what I found")
	p.see("[data-locker='Bow line']", "wet, worn")
	p.pressText("Log a use")
	p.set(labelled("Where"), "North slip")
	p.pressText("chafed")
	p.set(labelled("Place on the line, m"), "3,5")
	p.pressText("Log it")
	p.see("[data-locker='Bow line']", "something went wrong with it since")
	p.do(chromedp.Evaluate[chromedp.Void](`document.querySelector("[data-locker] a").click()`))
	p.see("[aria-label=History]", "North slip")
	p.see("[aria-label=History]", "chafed at 3.5 m")
	p.see("[aria-label=History]", "Looked over by Ailsa: cover worn")

	table := fetched(t, s.url+"/api/v1/files/locker/table.csv")
	dir := t.TempDir()
	good, bad := filepath.Join(dir, "locker.csv"), filepath.Join(dir, "wrong.csv")
	require.NoError(t, os.WriteFile(good, table, 0o600))
	require.NoError(t, os.WriteFile(bad, append(bytes.Clone(table), "Odd one,,wool,,12\n"...), 0o600))
	other := serve(t, "serve", filepath.Join(t.TempDir(), "other.db"))
	p.met(other.url)
	p.refuses = true
	give := func(file string) {
		p.goTo(other.url + "/lines")
		p.pressText("Files")
		p.until(`document.querySelector("[role=dialog] input[type=file]") !== null`, "the sheet")
		p.do(chromedp.SetUploadFiles(chromedp.CSS("[role=dialog] input[type=file]"), []string{file}))
	}
	give(bad)
	p.see("[role=dialog]", "row 3, material")
	p.see("[role=dialog]", "wool")
	give(good)
	p.see("[data-taken]", "One new, would be taken in.")
	p.pressText("Take 1 in")
	p.see("[data-taken]", "One new, taken in.")
	p.goTo(other.url + "/lines")
	p.see("[data-locker='Bow line']", "wet, worn")
	assert.Equal(t, string(table), string(fetched(t, other.url+"/api/v1/files/locker/table.csv")), "it comes back as it was, code and looks too")
}

// A rig takes a line of the locker, and one of a rig is put into it.
func TestARigsLineIsThisOne(t *testing.T) {
	t.Parallel()
	s := serve(t, "serve", filepath.Join(t.TempDir(), "own.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/")
	p.see("main", "kN")
	p.press(`[data-testid="rig-name"]`)
	p.pressText("Put this line into the locker")
	p.set(labelled("Name"), "Slip warp")
	p.pressText("Into the locker")
	p.until(`decodeURIComponent(location.search).length > 10`, "the rig in the address")
	p.until(`fetch("/api/v1/lines").then(r => r.json()).then(l => l.length === 1 && l[0].diameter_mm === 12)`, "the line in the locker")
	p.until(`(() => { const t = new URLSearchParams(location.search).get("rig"); return t && atob(t.replaceAll("-", "+").replaceAll("_", "/")).includes('"own":"L'); })()`, "that it is this one")
}
