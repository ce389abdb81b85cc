package e2e

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// get reads a document of the API.
func get(t *testing.T, url string, into any) {
	t.Helper()
	res, err := http.Get(url)
	require.NoError(t, err)
	defer res.Body.Close()
	require.NoError(t, json.NewDecoder(res.Body).Decode(into))
}

func attemptsAt(t *testing.T, s *server, knot string) int {
	t.Helper()
	var days []struct{ Right, Slow, Fault int }
	get(t, s.url+"/api/v1/attempts/totals?knot="+knot, &days)
	n := 0
	for _, d := range days {
		n += d.Right + d.Slow + d.Fault
	}
	return n
}

// tile touches a learner of the class in the hand.
func (p *page) tile(name string) {
	p.t.Helper()
	p.press(fmt.Sprintf(`[data-learner=%q]`, name))
}

// A round with six of a class, one with a fault, on a phone: in nine touches after it began.
func TestARoundWithAClassInTheHand(t *testing.T) {
	db := filepath.Join(t.TempDir(), "demo.db")
	s := serve(t, "demo", db)
	p := open(t, 390, 844)
	p.met(s.url)
	before := attemptsAt(t, s, "bowline")
	p.goTo(s.url + "/teach/class?knot=bowline&group=Evening+class")
	p.until(`document.querySelectorAll("[data-learner]").length === 8`, "the class")
	p.pressText("wet")
	p.pressText("Start")
	touches := 0
	for _, name := range []string{"Ailsa", "Bram", "Corin", "Dorrit", "Eskil"} {
		p.tile(name)
		touches++
	}
	p.until(`(document.querySelector('[data-learner="Fenna"]').dispatchEvent(new MouseEvent("contextmenu", {bubbles: true, cancelable: true})), true)`, "a long touch")
	p.pressText("Tail too short")
	touches += 2
	p.pressText("End round")
	touches++
	p.see(`[data-testid="shows"]`, "One of six: tail too short")
	assert.LessOrEqual(t, touches, 9)
	require.Eventually(t, func() bool { return attemptsAt(t, s, "bowline") == before+6 }, 10*time.Second, 100*time.Millisecond)
	wide, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool](`document.documentElement.scrollWidth > innerWidth + 1`))
	require.NoError(t, err)
	assert.False(t, wide)

	// The next round with the net down: touches wait, and arrive once.
	p.pressText("Another round")
	p.refuses = true
	s.stop()
	p.tile("Ailsa")
	p.tile("Bram")
	p.see(`[data-testid="shows"]`, "2 wait on this device")
	again := serveAt(t, s.url, "demo", db)
	// One that is left waits, two wait.
	p.until(`!/waits? on this device/.test(document.querySelector('[data-testid="shows"]').textContent)`, "the touches to be sent")
	assert.Equal(t, before+8, attemptsAt(t, again, "bowline"))
	// A mistake is taken back in one touch.
	p.press(`[aria-label="Take the last back"]`)
	require.Eventually(t, func() bool { return attemptsAt(t, again, "bowline") == before+7 }, 10*time.Second, 100*time.Millisecond)
}

func TestALessonIsPlannedAndRunByKeys(t *testing.T) {
	db := filepath.Join(t.TempDir(), "demo.db")
	s := serve(t, "demo", db)
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/teach/plan/new?like=crew")
	p.see(`[data-testid="sum"]`, "of 90 minutes")
	p.until(`document.querySelectorAll("[data-testid=knots] > li").length === 4`, "four knots")
	p.press(`[aria-label="Take the Bowline out"]`)
	p.until(`document.querySelectorAll("[data-testid=knots] > li").length === 3`, "three")
	p.pressText("▶ Run it")
	p.until(`document.querySelector("[data-testid=run]")?.dataset.kind === "begin"`, "the first block")
	p.see(`[data-testid="run"]`, "First session for new crew")
	p.do(chromedp.KeyEvent(kb.ArrowRight))
	p.until(`document.querySelector("[data-testid=run]")?.dataset.kind === "demonstrate"`, "the demonstration")
	p.do(chromedp.KeyEvent(kb.PageDown))
	p.until(`document.querySelector("[data-testid=run]")?.dataset.kind === "follow"`, "step by step")
	p.do(chromedp.KeyEvent(kb.ArrowRight))
	p.see(`[data-testid="run"]`, "2. ")
	// Loaded anew, it is where it was.
	p.do(chromedp.Reload())
	p.until(`document.querySelector("[data-testid=run]")?.dataset.kind === "follow"`, "the same block")
	p.see(`[data-testid="run"]`, "2. ")
	// Without the server it goes on.
	time.Sleep(1500 * time.Millisecond) // what is prefetched has come
	p.refuses = true
	s.stop()
	for range 12 {
		p.do(chromedp.KeyEvent(kb.ArrowRight))
	}
	p.until(`Number(document.querySelector("[data-testid=run]")?.dataset.block) > 3`, "later blocks without a net")
	again := serveAt(t, s.url, "demo", db)
	for range 60 {
		p.do(chromedp.KeyEvent(kb.ArrowRight))
	}
	p.pressText("Finish, and learn the minutes")
	p.until(`location.pathname.match(/^\/teach\/plan\/\d+$/) !== null`, "the plan again")
	var lessons []struct {
		Name string
		Held bool
		Took map[string]float64
	}
	get(t, again.url+"/api/v1/lessons", &lessons)
	assert.True(t, lessons[0].Held)
	assert.NotEmpty(t, lessons[0].Took)
}

func TestARosterWithErrorsIsTakenIn(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/teach/people")
	p.until(`document.querySelector('input[type=file]') !== null`, "the place to take a list in")
	file := filepath.Join(t.TempDir(), "class.csv")
	require.NoError(t, os.WriteFile(file, []byte("\ufeffName;Class;Hand\nKlaas;Rocks evening;left\nAilsa;Rocks evening;\nCorinn;Rocks evening;\n;Rocks evening;\nMaren;Rocks evening;paw\n"), 0o600))
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{file}))
	p.see(`[data-testid="roster"]`, "is there already")
	p.see(`[data-testid="roster"]`, "like Corin")
	p.see(`[data-testid="roster"]`, "hand")
	p.see(`[data-testid="roster"]`, "row 5")
	p.pressText("Take in 3")
	p.see(`main`, "added, 1 changed")
	var learners []struct {
		Name   string
		Groups []string
	}
	get(t, s.url+"/api/v1/learners", &learners)
	names := map[string][]string{}
	for _, l := range learners {
		names[l.Name] = l.Groups
	}
	assert.Contains(t, names["Ailsa"], "Rocks evening")
	assert.Contains(t, names, "Klaas")
	assert.NotContains(t, names, "Maren")
	// What is given out can be taken in again.
	res, err := http.Get(s.url + "/api/v1/roster.csv")
	require.NoError(t, err)
	defer res.Body.Close()
	text, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	assert.Contains(t, string(text), "Klaas,Rocks evening,left")
}

func TestDueListAndCalendarChange(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/teach/due")
	p.until(`document.querySelectorAll("[data-due]").length > 2`, "what is due")
	p.pressText("Address for all and the lessons")
	p.see(`[data-testid="feed"]`, "/feeds/")
	address := strings.TrimSpace(strings.TrimPrefix(p.text(`[data-testid="feed"] code`), s.url))
	calendar := func() (int, string) {
		res, err := http.Get(s.url + address)
		require.NoError(t, err)
		defer res.Body.Close()
		text, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		return res.StatusCode, string(text)
	}
	status, text := calendar()
	require.Equal(t, 200, status)
	assert.Contains(t, text, "BEGIN:VCALENDAR")
	assert.Contains(t, text, "Evening class: last of the term")
	var due []struct {
		Learner   string
		LearnerID int64 `json:"learner_id"`
		Knot      string
	}
	get(t, s.url+"/api/v1/due", &due)
	require.NotEmpty(t, due)
	n := len(due)
	body := fmt.Sprintf(`{"learner_id":%d,"knot":%q,"outcome":"right","seconds":3}`, due[0].LearnerID, due[0].Knot)
	res, err := http.Post(s.url+"/api/v1/attempts", "application/json", strings.NewReader(body))
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	get(t, s.url+"/api/v1/due", &due)
	assert.Equal(t, n-1, len(due), "tied again, it is no longer due")
	_, changed := calendar()
	assert.NotEqual(t, text, changed)
	p.pressText("Withdraw")
	require.Eventually(t, func() bool { status, _ := calendar(); return status == 404 }, 5*time.Second, 50*time.Millisecond)
}

// Two learners come in by a code, and see nothing of one another.
func TestLearnersPhonesJoin(t *testing.T) {
	s := serveWith(t, "demo", "--db", filepath.Join(t.TempDir(), "demo.db"), "--addr", "0.0.0.0:0")
	line, err := s.said.ReadString('\n')
	require.NoError(t, err)
	_, code, ok := strings.Cut(strings.TrimSpace(line), "with this code: ")
	require.True(t, ok, line)

	teacher := open(t, 1280, 800)
	teacher.refuses = true // without a session the first question is refused
	teacher.goTo(s.url)
	teacher.see(`h1`, "Set the passphrase")
	teacher.do(chromedp.SendKeys(chromedp.Search(`//label[starts-with(., "Code")]/following::input[1]`), code), chromedp.SendKeys(chromedp.Search(`//label[starts-with(., "Passphrase")]/following::input[1]`), "kelp on the slip"))
	teacher.pressText("Set it, and sign in")
	teacher.until(`document.querySelector('[data-testid="chosen"]') !== null`, "the application")
	teacher.goTo(s.url + "/teach?group=Evening+class")
	teacher.pressText("Their phones")
	teacher.pressText("A code for 2 h")
	teacher.until(`document.querySelector("[data-code]") !== null`, "the code")
	joinCode, err := chromedp.Run(teacher.ctx, chromedp.Evaluate[string](`document.querySelector("[data-code]").dataset.code`))
	require.NoError(t, err)
	teacher.do(chromedp.KeyEvent(kb.Escape))

	for _, name := range []string{"Ailsa", "Wiebke"} {
		phone := open(t, 390, 844)
		phone.refuses = true
		phone.goTo(s.url + "/join?code=" + joinCode)
		phone.see(`h1`, "Join the lesson")
		phone.do(chromedp.SendKeys(chromedp.Search(`//label[starts-with(., "Your name")]/following::input[1]`), name))
		phone.pressText("Join")
		phone.see(`header`, name)
		phone.goTo(s.url + "/try/bowline")
		phone.pressText("Start")
		phone.pressText("Done")
		phone.pressText("✓ It is right")
		phone.see(`main`, "Kept: right")
		phone.goTo(s.url + "/teach")
		phone.until(`location.pathname === "/"`, "its own page and no other")
		status, err := chromedp.Run(phone.ctx, chromedp.Evaluate[int](`fetch("/api/v1/board").then(r => r.status)`, chromedp.EvalAwaitPromise))
		require.NoError(t, err)
		assert.Equal(t, 403, status)
		other := map[string]string{"Ailsa": "Wiebke", "Wiebke": "Ailsa"}[name]
		assert.NotContains(t, phone.text("body"), other)
	}
	teacher.goTo(s.url + "/teach?group=Evening+class")
	teacher.see(`[data-testid="board"]`, "Wiebke")
	teacher.goTo(s.url + "/log?knot=bowline")
	teacher.see(`main`, "Wiebke")
}

func TestOnTheQuayAndKnotsOnGear(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.met(s.url)
	p.goTo(s.url + "/teach/quay")
	p.pressText("Begin a round")
	p.until(`document.querySelector('[aria-label="Where"]') !== null`, "the round")
	p.do(chromedp.SendKeys(chromedp.CSS(`[aria-label="Where"]`), "second cleat"))
	p.pressText("Look at it")
	p.until(`document.querySelector('[data-seen="second cleat"]') !== null`, "the cleat")
	p.press(`[aria-label="learner on second cleat"] button:nth-of-type(1)`)
	p.until(`document.querySelector('[aria-label="learner on second cleat"] button').textContent.includes("✓")`, "well")
	p.press(`[aria-label="instructor on second cleat"] button:nth-of-type(1)`)
	p.until(`document.querySelector('[aria-label="instructor on second cleat"] button').textContent.includes("✓")`, "well")
	p.press(`[aria-label="instructor on second cleat"] button:nth-of-type(1)`)
	p.see(`main`, "alike in 0 of 1 points")
	photo := filepath.Join(t.TempDir(), "cleat.png")
	p.shoot(photo)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{photo}))
	p.until(`document.querySelector('[data-seen] img')?.naturalWidth > 100`, "the photo")
	p.pressText("Add a thing")
	p.until(`document.querySelector("[role=dialog] form") !== null`, "the form")
	for label, text := range map[string]string{"What it is": "Bosun's chair", "Tied by": "Ailsa", "Looked at by, somebody else": "Bram"} {
		p.do(chromedp.SendKeys(chromedp.Search(fmt.Sprintf(`//label[text()=%q]/following::input[1]`, label)), text))
	}
	p.pressText("Save")
	p.see(`[data-gear]`, "looked at by Bram")
	p.pressText("Label G")
	p.see(`[data-testid="label"]`, "Bosun's chair")
}
