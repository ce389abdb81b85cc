package e2e

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"net/url"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Another site open in the same browser, and a name of its own that leads to this
// machine, can neither read nor change what is kept.
func TestAnotherSiteReadsAndChangesNothing(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	foreign := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Content-Type", "text/html")
		fmt.Fprint(w, "<!doctype html><link rel=icon href=data:,><p>elsewhere")
	}))
	defer foreign.Close()
	learners := func() int {
		res, err := http.Get(s.url + "/api/v1/learners")
		require.NoError(t, err)
		defer res.Body.Close()
		var list []json.RawMessage
		require.NoError(t, json.NewDecoder(res.Body).Decode(&list))
		return len(list)
	}
	before := learners()

	p := open(t, 800, 600)
	p.refuses = true
	p.goTo(foreign.URL)
	p.see("body", "elsewhere")
	in := func(js string) string {
		v, err := chromedp.Run(p.ctx, chromedp.Evaluate[string](js, chromedp.EvalAwaitPromise))
		require.NoError(t, err, js)
		return v
	}
	// Its scripts are given nothing to read.
	assert.Contains(t, in(fmt.Sprintf(`fetch(%q).then(r => r.text(), e => "refused: " + e.message)`, s.url+"/api/v1/learners")), "refused")
	// What a browser sends unasked, as forms and images do, arrives and is turned away.
	for _, kind := range []string{"text/plain", "application/x-www-form-urlencoded"} {
		in(fmt.Sprintf(`fetch(%q, {method: "POST", mode: "no-cors", headers: {"Content-Type": %q}, body: '{"name":"Nobody"}'}).then(r => r.type, e => e.message)`, s.url+"/api/v1/learners", kind))
	}
	in(fmt.Sprintf(`(() => {
		document.body.innerHTML = '<iframe name=hidden></iframe><form method=post target=hidden enctype="text/plain" action=%q><input name=\'{"name":"Nobody","x":"\' value=\'"}\'></form>';
		return new Promise(done => { document.querySelector("iframe").onload = () => done("sent"); document.querySelector("form").submit(); setTimeout(() => done("sent"), 3000) });
	})()`, s.url+"/api/v1/learners"))
	assert.Equal(t, before, learners(), "a foreign page added a learner")
	// Nor can our pages be put in its frame.
	in(fmt.Sprintf(`new Promise(done => { const f = document.createElement("iframe"); f.name = "framed"; f.onload = () => done("loaded"); f.src = %q; document.body.append(f) })`, s.url+"/"))
	assert.Equal(t, "none", in(`(() => { try { return frames.framed.document ? "readable" : "none" } catch { return "none" } })()`))

	// A name of theirs that leads here is not ours.
	u, err := url.Parse(s.url)
	require.NoError(t, err)
	rebound := "http://rebound.test:" + u.Port()
	p.goTo(rebound + "/api/v1/learners")
	text := p.text("body")
	assert.Contains(t, text, "Oarweed does not go by this name")
	assert.NotContains(t, text, "Bram")
	answer := in(`fetch("/api/v1/learners", {method: "POST", headers: {"Content-Type": "application/json"}, body: '{"name":"Nobody"}'}).then(r => String(r.status))`)
	assert.Equal(t, "421", answer)
	assert.Equal(t, before, learners())

	// The guard answers a page of its own just as well without a browser's help.
	for header, status := range map[string]int{"Sec-Fetch-Site: cross-site": 403, "Origin: http://elsewhere.test": 403, "Content-Type: text/plain": 415} {
		req, err := http.NewRequest(http.MethodPost, s.url+"/api/v1/learners", strings.NewReader(`{"name":"Nobody"}`))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/json")
		name, value, _ := strings.Cut(header, ": ")
		req.Header.Set(name, value)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		body, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
		assert.Equal(t, status, res.StatusCode, "%s: %s", header, body)
	}
	assert.Equal(t, before, learners())
}
