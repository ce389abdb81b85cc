package api_test

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"runtime"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A page of another site can neither write nor, by a foreign name for this machine, read.
func TestOtherSitesAreKeptOut(t *testing.T) {
	srv := start(t)
	learner := `{"name":"Ailsa"}`
	for _, headers := range [][]string{
		{"Origin", "http://evil.example"}, {"Sec-Fetch-Site", "cross-site"}, {"Sec-Fetch-Site", "same-site", "Origin", "http://localhost:9"},
	} {
		res, text := call(t, srv, "POST", "/api/v1/learners", learner, headers...)
		assert.Equal(t, http.StatusForbidden, res.StatusCode, headers)
		problemOf(t, res, text)
		res, _ = call(t, srv, "DELETE", "/api/v1/attempts/1", "", headers...)
		assert.Equal(t, http.StatusForbidden, res.StatusCode, headers)
	}
	for _, kind := range []string{"text/plain", "application/x-www-form-urlencoded", " "} {
		res, text := call(t, srv, "POST", "/api/v1/learners", learner, "Content-Type", kind)
		assert.Equal(t, http.StatusUnsupportedMediaType, res.StatusCode, kind)
		problemOf(t, res, text)
	}
	for host, status := range map[string]int{
		"evil.example": 421, "evil.example:8080": 421, "tangholm.example.evil": 421, "": 200, "localhost": 200, "LOCALHOST:1": 200, "127.0.0.1:9": 200, "192.168.7.4:8080": 200, "[::1]:80": 200,
		"tangholm.example": 200, "Tangholm.Example:8080": 200,
	} {
		res, text := call(t, srv, "GET", "/api/v1/learners", "", "Host", host)
		assert.Equal(t, status, res.StatusCode, host)
		if status == 421 {
			problemOf(t, res, text)
		}
	}
	_, list := call(t, srv, "GET", "/api/v1/learners", "")
	assert.Equal(t, "[]", strings.TrimSpace(list), "nobody got in")
	res, _ := call(t, srv, "POST", "/api/v1/learners", learner, "Origin", srv.URL, "Sec-Fetch-Site", "same-origin")
	assert.Equal(t, http.StatusCreated, res.StatusCode, "our own pages may")
}

func TestEveryAnswerIsGuarded(t *testing.T) {
	srv := start(t)
	for _, path := range []string{"/", "/assets/none.js", "/api/v1/learners", "/api/v1/knots/bowline/drawing.svg", "/api/v1/nothing", "/healthz"} {
		res, _ := call(t, srv, "GET", path, "")
		assert.Equal(t, "nosniff", res.Header.Get("X-Content-Type-Options"), path)
		assert.Equal(t, "same-origin", res.Header.Get("Referrer-Policy"), path)
		assert.Equal(t, "DENY", res.Header.Get("X-Frame-Options"), path)
		assert.Contains(t, res.Header.Get("Content-Security-Policy"), "frame-ancestors 'none'", path)
		head, body := call(t, srv, "HEAD", path, "")
		assert.Equal(t, res.StatusCode, head.StatusCode, path)
		assert.Empty(t, body, path)
	}
	res, text := call(t, srv, "GET", "/healthz", "")
	assert.Equal(t, 200, res.StatusCode)
	assert.Contains(t, text, "ok")
}

// A name is text that can be seen; a time lies between 1970 and now.
func TestRecordsRefuseWhatHurtsLater(t *testing.T) {
	srv := start(t)
	for _, name := range []string{"a\\u0000b", "bell\\u0007", "Ail\\u202esa", " ", strings.Repeat("x", 81)} {
		res, text := call(t, srv, "POST", "/api/v1/learners", `{"name":"`+name+`"}`)
		assert.Equal(t, 422, res.StatusCode, name)
		assert.Equal(t, "name", problemOf(t, res, text).Fields[0].Path)
	}
	call(t, srv, "POST", "/api/v1/learners", `{"name":"Zoë"}`)
	_, text := call(t, srv, "POST", "/api/v1/learners", `{"name":"zoe\u0308"}`)
	assert.Contains(t, text, `"name":"Zoë"`, "one learner, however the accent is written")
	for _, at := range []string{"10000-01-01T00:00:00Z", "9999-01-01T00:00:00Z", "1969-12-31T23:00:00Z", "yesterday"} {
		res, text := call(t, srv, "POST", "/api/v1/attempts", `{"learner_id":1,"knot":"bowline","outcome":"right","at":"`+at+`"}`)
		assert.Contains(t, []int{400, 422}, res.StatusCode, "%s: %s", at, text)
	}
	ahead := time.Now().Add(time.Minute).Format(time.RFC3339)
	res, text := call(t, srv, "POST", "/api/v1/attempts", `{"learner_id":1,"knot":"bowline","outcome":"right","at":"`+ahead+`","received_at":"2001-01-01T00:00:00Z"}`)
	assert.Equal(t, 201, res.StatusCode, "a phone's clock may be a minute ahead: %s", text)
	assert.NotContains(t, text, "2001", "when it was received the server says")
	res, _ = call(t, srv, "GET", "/api/v1/attempts", "")
	assert.Equal(t, 200, res.StatusCode)
}

// No number that is none, in or out.
func TestNothingInfinite(t *testing.T) {
	srv := start(t)
	for path, field := range map[string]string{
		"/api/v1/strength?material=polyester&diameter=1e308m": "diameter", "/api/v1/shackle?diameter=1e308mm": "diameter",
		"/api/v1/friction?hitch=clove-hitch&object=1e300m&line=12mm&mu=0.1": "object", "/api/v1/loads/wind?area=1e300&wind=15": "area",
		"/api/v1/holds?load=1e308kN": "load", "/api/v1/loads/share?force=NaNkN": "force", "/api/v1/quantity?kind=length&text=1e308m": "",
	} {
		res, text := call(t, srv, "GET", path, "")
		assert.Equal(t, 422, res.StatusCode, "%s: %s", path, text)
		assert.Equal(t, field, problemOf(t, res, text).Fields[0].Path, path)
	}
	res, text := call(t, srv, "POST", "/api/v1/choices", strings.Replace(quay, "2.4", "NaN", 1))
	assert.Equal(t, 400, res.StatusCode, text)
	// A cleat without a lock never locks by itself.
	list, _ := call(t, srv, "GET", "/api/v1/doctrines", "")
	call(t, srv, "PUT", "/api/v1/doctrines", `{"chosen":{"cleat":"no-lock"}}`, "If-Match", list.Header.Get("ETag"))
	_, text = call(t, srv, "POST", "/api/v1/choices", strings.NewReplacer(`"ring","size_mm":40`, `"cleat"`, `"moor"`, `"moor","release":"under-load"`).Replace(quay))
	assert.NotContains(t, text, "Inf")
	assert.Contains(t, text, "it never locks: a hand stays on the end")
}

// A chain that is too long is refused at once.
func TestAChainHasAnEnd(t *testing.T) {
	srv := start(t)
	for joints, refusal := range map[int]struct {
		status int
		words  string
	}{61: {422, "has 61 joints"}, 5000: {413, "a rig has at most 60 joints"}} {
		rode := `{"chain":[{"line":{"material":"polyester","diameter_mm":12}}` + strings.Repeat(`,{"joint":{"task":"extend"}},{"line":{"material":"polyester","diameter_mm":12}}`, joints) + `],"peak_kn":1}`
		for path, body := range map[string]string{"/api/v1/rig-checks": rode, "/api/v1/rigs": `{"rig":` + strings.Replace(rode, `{"chain"`, `{"name":"long","chain"`, 1) + `}`} {
			began := time.Now()
			res, text := call(t, srv, "POST", path, body)
			assert.Equal(t, refusal.status, res.StatusCode)
			assert.Contains(t, text, refusal.words)
			t.Logf("%d joints refused by %s after %v", joints, path, time.Since(began))
		}
	}
	// Sixty are worked out.
	rode := `{"chain":[{"line":{"material":"polyester","diameter_mm":12}}` + strings.Repeat(`,{"joint":{"task":"extend"}},{"line":{"material":"polyester","diameter_mm":12}}`, 60) + `],"peak_kn":1}`
	res, _ := call(t, srv, "POST", "/api/v1/rig-checks", rode)
	assert.Equal(t, 200, res.StatusCode)
}

// A reader that leaves stops what was being worked out for it.
func TestLeavingStopsTheWork(t *testing.T) {
	srv := start(t)
	ctx, leave := context.WithCancel(t.Context())
	req, err := http.NewRequestWithContext(ctx, "POST", srv.URL+"/api/v1/maps?x=line.diameter&y=load&columns=256&rows=256", strings.NewReader(quay))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	res, err := srv.Client().Do(req)
	require.NoError(t, err)
	_, err = bufio.NewReader(res.Body).ReadString('\n')
	require.NoError(t, err)
	leave()
	_ = res.Body.Close()
	assert.Eventually(t, func() bool { return working() == 0 }, 30*time.Second, 10*time.Millisecond)
}

// working counts the goroutines that work at a map.
func working() int {
	stack := make([]byte, 1<<20)
	return strings.Count(string(stack[:runtime.Stack(stack, true)]), "whatif.Plane.Row")
}

// Maps of several browsers share the processors row by row; a browser has one at a time.
func TestMapsShareTheProcessors(t *testing.T) {
	srv := start(t)
	var hand sync.Mutex
	var order []int
	var all sync.WaitGroup
	for n := range 3 {
		all.Go(func() {
			req, _ := http.NewRequest("POST", srv.URL+"/api/v1/maps?x=line.diameter&y=load&columns=24&rows=24", strings.NewReader(quay))
			req.Header.Set("Content-Type", "application/json")
			req.Header.Set("Cookie", fmt.Sprintf("oarweed-browser=%032d", n))
			res, err := srv.Client().Do(req)
			if !assert.NoError(t, err) {
				return
			}
			defer res.Body.Close()
			lines := bufio.NewScanner(res.Body)
			for lines.Scan() {
				hand.Lock()
				order = append(order, n)
				hand.Unlock()
			}
		})
	}
	all.Wait()
	require.Len(t, order, 3*25)
	assert.NotEqual(t, order, slices.Sorted(slices.Values(order)), "they come side by side, not one after the other")
}

func TestDescriptionIsComplete(t *testing.T) {
	srv := start(t)
	_, text := call(t, srv, "GET", "/api/v1/openapi.json", "")
	var doc struct {
		Tags  []struct{ Name, Description string }
		Paths map[string]map[string]struct {
			Summary   string
			Tags      []string
			Responses map[string]struct{ Content map[string]any }
		}
		Components struct {
			Schemas map[string]struct {
				Properties map[string]struct {
					Description string
					Enum        []string
					Maximum     *float64
				}
			}
		}
	}
	require.NoError(t, json.Unmarshal([]byte(text), &doc))
	assert.Len(t, doc.Tags, 6)
	for path, methods := range doc.Paths {
		for method, o := range methods {
			assert.NotEmpty(t, o.Summary, "%s %s", method, path)
			assert.NotEmpty(t, o.Tags, "%s %s", method, path)
			for ext, kind := range map[string]string{".svg": "image/svg+xml", ".pdf": "application/pdf"} {
				if strings.HasSuffix(path, ext) {
					assert.Contains(t, o.Responses["200"].Content, kind, path)
					assert.Len(t, o.Responses["200"].Content, 1, path)
				}
			}
		}
	}
	assert.Contains(t, doc.Paths["/api/v1/maps"]["post"].Responses["200"].Content, "application/x-ndjson")
	assert.Contains(t, doc.Paths["/api/v1/rigs"]["post"].Responses, "201")
	rigs := doc.Components.Schemas["RigDocument"].Properties
	assert.Equal(t, []string{"steady", "alternating", "flogging", "snatch"}, rigs["character"].Enum)
	assert.NotEmpty(t, rigs["peak_kn"].Description)
	assert.Equal(t, 200.0, *doc.Components.Schemas["RigLine"].Properties["diameter_mm"].Maximum)
	_, schema := call(t, srv, "GET", "/api/v1/rig.schema.json", "")
	assert.Contains(t, schema, `"under-load"`)
}

// Eight browsers draw the largest maps; another one's choices.
func BenchmarkChoiceBesideMaps(b *testing.B) {
	srv := start(b)
	ctx, stop := context.WithCancel(b.Context())
	defer stop()
	for n := range 8 {
		go func() {
			for ctx.Err() == nil {
				req, _ := http.NewRequestWithContext(ctx, "POST", srv.URL+"/api/v1/maps?x=line.diameter&y=load&columns=256&rows=256", strings.NewReader(quay))
				req.Header.Set("Content-Type", "application/json")
				req.Header.Set("Cookie", fmt.Sprintf("oarweed-browser=%032d", n))
				if res, err := srv.Client().Do(req); err == nil {
					_, _ = io.Copy(io.Discard, res.Body)
					_ = res.Body.Close()
				}
			}
		}()
	}
	time.Sleep(300 * time.Millisecond)
	var all []time.Duration
	for b.Loop() {
		began := time.Now()
		res, text := call(b, srv, "POST", "/api/v1/choices", quay)
		if res.StatusCode != 200 {
			b.Fatal(text)
		}
		all = append(all, time.Since(began))
	}
	slices.Sort(all)
	b.ReportMetric(float64(all[len(all)/2].Microseconds())/1e3, "p50-ms")
	b.ReportMetric(float64(all[len(all)*99/100].Microseconds())/1e3, "p99-ms")
}
