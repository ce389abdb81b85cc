package api_test

import (
	"encoding/json"
	"io"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/danielgtaylor/huma/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/practice"
	"oarweed/core/rig"
	"oarweed/core/whatif"
	"oarweed/internal/api"
	"oarweed/internal/app"
	"oarweed/internal/site"
	"oarweed/internal/store"
)

func start(t testing.TB) *httptest.Server {
	t.Helper()
	h, _ := handler(t)
	srv := httptest.NewServer(h)
	t.Cleanup(srv.Close)
	return srv
}

// handler answers for a school with an empty database.
func handler(t testing.TB) (http.Handler, huma.API) {
	t.Helper()
	h, a, _ := handlerWith(t, nil)
	return h, a
}

// handlerWith has the access control that access makes for its store; none if nil.
func handlerWith(t testing.TB, access func(*store.Store) *api.Access) (http.Handler, huma.API, *app.School) {
	t.Helper()
	cat, err := catalogue.Load()
	require.NoError(t, err)
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "x.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	pages, err := site.Handler(fstest.MapFS{
		"index.html":         {Data: []byte("<!doctype html><title>Oarweed</title>")},
		"assets/app-1.js":    {Data: []byte("plain")},
		"assets/app-1.js.gz": {Data: []byte("squeezed")},
	})
	require.NoError(t, err)
	school, err := app.NewSchool(t.Context(), cat, st, app.NewGate(64))
	require.NoError(t, err)
	o := api.Options{Hosts: []string{"tangholm.example"}}
	if access != nil {
		o.Access = access(st)
	}
	h, a := api.New(school, pages, o)
	return h, a, school
}

func call(t require.TestingT, srv *httptest.Server, method, path, body string, headers ...string) (*http.Response, string) {
	req, err := http.NewRequest(method, srv.URL+path, strings.NewReader(body))
	require.NoError(t, err)
	if body != "" {
		req.Header.Set("Content-Type", "application/json")
	}
	for i := 0; i+1 < len(headers); i += 2 {
		req.Header.Set(headers[i], headers[i+1])
	}
	if h := req.Header.Get("Host"); h != "" {
		req.Host = h
	}
	res, err := srv.Client().Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	text, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	return res, string(text)
}

const quay = `{"chain":[{"fitting":{"kind":"ring","size_mm":40}},{"joint":{"task":"moor"}},{"line":{"material":"polyester","construction":"braid","diameter_mm":12}}],"peak_kn":2.4}`

func problemOf(t *testing.T, res *http.Response, text string) api.Problem {
	t.Helper()
	assert.Equal(t, "application/problem+json", res.Header.Get("Content-Type"))
	var p api.Problem
	require.NoError(t, json.Unmarshal([]byte(text), &p), text)
	assert.Equal(t, res.StatusCode, p.Status)
	return p
}

func TestChoose(t *testing.T) {
	srv := start(t)
	res, text := call(t, srv, "POST", "/api/v1/choices", quay)
	require.Equal(t, http.StatusOK, res.StatusCode, text)
	var a app.Answer
	require.NoError(t, json.Unmarshal([]byte(text), &a))
	assert.Equal(t, "round-turn-two-half-hitches", a.Ranked[0].Knot)
	assert.NotEmpty(t, a.Defaults)
	for _, c := range a.Ranked {
		assert.True(t, c.Strength.CapacityKN.Tag.Valid(), "every number carries its evidence")
		assert.NotEmpty(t, c.Strength.Efficiency.Source)
		assert.True(t, c.Wet.Tag.Valid() && c.Dry.Tag.Valid() && c.Seconds.Tag.Valid())
	}
}

func TestProblemsNameTheField(t *testing.T) {
	srv := start(t)
	for _, c := range []struct {
		method, path, body string
		status             int
		field              string
	}{
		{"POST", "/api/v1/choices", strings.Replace(quay, "12}", "-12}", 1), 422, "chain[2].line.diameter_mm"},
		{"POST", "/api/v1/choices", strings.Replace(quay, "polyester", "seaweed", 1), 422, "chain[2].line.material"},
		{"POST", "/api/v1/choices", strings.Replace(quay, "2.4", `"much"`, 1), 422, "peak_kn"},
		{"POST", "/api/v1/choices", strings.Replace(quay, `"peak_kn"`, `"peek_kn"`, 1), 422, "peek_kn"},
		{"POST", "/api/v1/choices", quay[:40], 400, ""},
		{"POST", "/api/v1/attempts", `{"learner_id":1,"knot":"bowline","outcome":"right"}`, 422, "learner_id"},
		{"POST", "/api/v1/learners", `{"name":"   "}`, 422, "name"},
		{"POST", "/api/v1/lines", `{"name":"x","material":"polyester"}`, 422, "diameter_mm"},
		{"POST", "/api/v1/rigs", `{"rig":` + quay + `}`, 422, "rig.name"},
		{"GET", "/api/v1/rigs/77", "", 404, ""},
		{"GET", "/api/v1/knots/sky-hook", "", 404, ""},
		{"GET", "/api/v1/nothing", "", 404, ""},
		{"PATCH", "/api/v1/choices", "", 405, ""},
		{"GET", "/api/v1/quantity?kind=length&text=twelve", "", 422, ""},
		{"GET", "/api/v1/friction?hitch=clove-hitch&object=0mm&line=12mm&mu=0.1", "", 422, "object"},
		{"GET", "/api/v1/strength?material=polyester&diameter=24mm&construction=solid", "", 422, "construction"},
	} {
		res, text := call(t, srv, c.method, c.path, c.body)
		assert.Equal(t, c.status, res.StatusCode, "%s %s: %s", c.method, c.path, text)
		p := problemOf(t, res, text)
		assert.NotEmpty(t, p.Detail)
		if c.field != "" {
			require.NotEmpty(t, p.Fields, text)
			fields := ""
			for _, f := range p.Fields {
				fields += f.Path + " "
			}
			assert.Contains(t, fields, c.field)
		}
		assert.NotContains(t, text, "much", "a rejected value is not sent back")
	}
}

func TestRecordsComeBack(t *testing.T) {
	srv := start(t)
	_, text := call(t, srv, "POST", "/api/v1/learners", `{"name":" Ailsa  of the slip "}`)
	assert.Contains(t, text, `"name":"Ailsa of the slip"`)
	res, text := call(t, srv, "POST", "/api/v1/attempts", `{"learner_id":1,"knot":"bowline","outcome":"fault","fault":"granny"}`)
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, text, "one of the knot's faults")
	res, text = call(t, srv, "POST", "/api/v1/attempts", `{"learner_id":1,"knot":"bowline","outcome":"fault","fault":"tail-short","seconds":12}`)
	require.Equal(t, 201, res.StatusCode, text)
	assert.Equal(t, "/api/v1/attempts/1", res.Header.Get("Location"))
	_, text = call(t, srv, "GET", "/api/v1/attempts?knot=bowline", "")
	assert.Contains(t, text, `"fault":"tail-short"`)
	res, _ = call(t, srv, "DELETE", "/api/v1/attempts/1", "")
	assert.Equal(t, 204, res.StatusCode)
	_, text = call(t, srv, "GET", "/api/v1/attempts", "")
	assert.Equal(t, `{"attempts":[]}`, strings.TrimSpace(text))
	res, _ = call(t, srv, "POST", "/api/v1/attempts/1/restoration", "")
	assert.Equal(t, 200, res.StatusCode)
	_, text = call(t, srv, "GET", "/api/v1/attempts", "")
	assert.Contains(t, text, `"fault":"tail-short"`)

	named := strings.Replace(quay, `"peak_kn"`, `"name":"Quay","peak_kn"`, 1)
	res, text = call(t, srv, "POST", "/api/v1/rigs", `{"rig":`+named+`}`)
	require.Equal(t, 201, res.StatusCode, text)
	_, text = call(t, srv, "GET", "/api/v1/rigs/1", "")
	assert.Contains(t, text, `"surface":"polished-steel"`, "kept with its defaults")
	res, text = call(t, srv, "POST", "/api/v1/lines", `{"name":"Painter","material":"polyester","diameter_mm":10}`)
	require.Equal(t, 201, res.StatusCode, text)
	_, text = call(t, srv, "GET", "/api/v1/lines", "")
	assert.Contains(t, text, `"construction":"laid"`)
}

func TestDescriptionAndPages(t *testing.T) {
	srv := start(t)
	res, text := call(t, srv, "GET", "/api/v1/openapi.json", "")
	require.Equal(t, 200, res.StatusCode)
	var doc struct {
		OpenAPI string                    `json:"openapi"`
		Paths   map[string]map[string]any `json:"paths"`
	}
	require.NoError(t, json.Unmarshal([]byte(text), &doc))
	assert.True(t, strings.HasPrefix(doc.OpenAPI, "3.1"))
	for _, p := range []string{"/api/v1/choices", "/api/v1/knots/{id}/drawing.svg", "/api/v1/rigs/{id}", "/api/v1/attempts"} {
		assert.Contains(t, doc.Paths, p)
	}
	res, text = call(t, srv, "GET", "/api/v1/knots/bowline/drawing.svg?step=99", "")
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, text, "there is no step 99")
	res, text = call(t, srv, "GET", "/api/v1/knots/bowline/drawing.svg?step=2&view=left&look=braid&labels=true", "")
	assert.Equal(t, "image/svg+xml", res.Header.Get("Content-Type"))
	assert.True(t, strings.HasPrefix(text, "<svg"))
	res, text = call(t, srv, "GET", "/knots/bowline", "")
	assert.Equal(t, 200, res.StatusCode)
	assert.Contains(t, text, "<title>Oarweed")
	assert.Equal(t, "no-cache", res.Header.Get("Cache-Control"))
	tag := res.Header.Get("ETag")
	req, _ := http.NewRequest("GET", srv.URL+"/", nil)
	req.Header.Set("If-None-Match", tag)
	again, err := srv.Client().Do(req)
	require.NoError(t, err)
	require.NoError(t, again.Body.Close())
	assert.Equal(t, http.StatusNotModified, again.StatusCode)
	res, _ = call(t, srv, "GET", "/assets/app-2.js", "")
	assert.Equal(t, 404, res.StatusCode)
	req, _ = http.NewRequest("GET", srv.URL+"/assets/app-1.js", nil)
	req.Header.Set("Accept-Encoding", "gzip")
	res, err = http.DefaultTransport.RoundTrip(req)
	require.NoError(t, err)
	squeezed, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	assert.Equal(t, "squeezed", string(squeezed))
	assert.Contains(t, res.Header.Get("Cache-Control"), "immutable")
}

func TestHandout(t *testing.T) {
	srv := start(t)
	page, svg := call(t, srv, "GET", "/api/v1/knots/bowline/handout.svg", "")
	assert.Equal(t, "image/svg+xml", page.Header.Get("Content-Type"))
	assert.Contains(t, svg, "Small loop crossed the wrong way")
	res, text := call(t, srv, "POST", "/api/v1/knot-notes", `{"knot":"bowline","aid":true,"text":"The hare and the burrow","source":"an old hand"}`)
	require.Equal(t, 201, res.StatusCode, text)
	with, noted := call(t, srv, "GET", "/api/v1/knots/bowline/handout.svg?notes=true", "")
	assert.Contains(t, noted, "The hare and the burrow")
	assert.Equal(t, "no-store", with.Header.Get("Cache-Control"), "a copy kept by the browser would be old when a note changes")
	_, plainly := call(t, srv, "GET", "/api/v1/knots/bowline/handout.svg", "")
	assert.NotContains(t, plainly, "hare")
	// Another way to a knot has its drawing; what is no way to it is said.
	_, way := call(t, srv, "GET", "/api/v1/knots/bowline/drawing.svg?way=bowline-to-becket&step=2", "")
	assert.Contains(t, way, "data-moved")
	refused, says := call(t, srv, "GET", "/api/v1/knots/bowline/drawing.svg?way=granny", "")
	assert.Equal(t, 422, refused.StatusCode)
	assert.Contains(t, says, "bowline-to-becket")
	res, text = call(t, srv, "GET", "/api/v1/knots/bowline/handout.pdf", "")
	assert.Equal(t, "application/pdf", res.Header.Get("Content-Type"))
	assert.True(t, strings.HasPrefix(text, "%PDF-"))
	res, _ = call(t, srv, "GET", "/api/v1/knots/sky-hook/handout.pdf", "")
	assert.Equal(t, 404, res.StatusCode)
}

func TestAKnotDrawnUp(t *testing.T) {
	srv := start(t)
	_, plain := call(t, srv, "GET", "/api/v1/knots/bowline/snug.svg", "")
	_, laid := call(t, srv, "GET", "/api/v1/knots/bowline/snug.svg?look=laid", "")
	assert.Greater(t, len(laid), len(plain), "its make shows")
	_, numbered := call(t, srv, "GET", "/api/v1/knots/bowline/snug.svg?checks=true", "")
	assert.Equal(t, 4, strings.Count(numbered, "<circle"), "a number for each check")
	_, line := call(t, srv, "GET", "/api/v1/knots/rolling-hitch/snug.svg?line=true", "")
	box := regexp.MustCompile(`viewBox="\S+ (-?[.0-9]+) \S+ ([.0-9]+)"`).FindStringSubmatch(line)
	require.Len(t, box, 3)
	top, err := strconv.ParseFloat(box[1], 64)
	require.NoError(t, err)
	high, err := strconv.ParseFloat(box[2], 64)
	require.NoError(t, err)
	assert.InDelta(t, high/2, -top, 0.02, "the line leaves at half the height")
	res, text := call(t, srv, "GET", "/api/v1/knots/bowline/snug.svg?look=wool", "")
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, text, "look")
	res, text = call(t, srv, "GET", "/api/v1/knots/slim-beauty/snug", "")
	assert.Equal(t, 404, res.StatusCode)
	assert.Contains(t, text, "wraps", "why not")
	_, text = call(t, srv, "GET", "/api/v1/knots/reef-knot", "")
	var page api.KnotPage
	require.NoError(t, json.Unmarshal([]byte(text), &page))
	require.NotNil(t, page.Snug)
	assert.InDelta(t, page.Snug.Ropes[0].Consumed, page.Uses.Diameters, 0.1)
	assert.Equal(t, 20.0, page.Uses.Remembered)
	assert.Len(t, page.Left.Steps, len(page.Steps))
	assert.NotEqual(t, page.Steps, page.Left.Steps, "left over right for the other hand")
}

func TestDrill(t *testing.T) {
	srv := start(t)
	_, text := call(t, srv, "GET", "/api/v1/knots/reef-knot/drill", "")
	var d api.DrillPage
	require.NoError(t, json.Unmarshal([]byte(text), &d))
	assert.Equal(t, 64, d.Choices)
	assert.Equal(t, 10, d.Tangles)
	require.Len(t, d.Crossings, 6)
	var set []string
	for _, c := range d.Crossings {
		set = append(set, c.Name+"o")
	}
	res, text := call(t, srv, "GET", "/api/v1/knots/reef-knot/drill/verdict?set="+strings.Join(set, ","), "")
	require.Equal(t, 200, res.StatusCode, text)
	assert.Contains(t, text, `"name":`)
	res, text = call(t, srv, "GET", "/api/v1/knots/reef-knot/drill/verdict?set=ao", "")
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, text, "set every crossing")
	res, _ = call(t, srv, "GET", "/api/v1/knots/reef-knot/drill.svg?set=ao,tu", "")
	assert.Equal(t, "image/svg+xml", res.Header.Get("Content-Type"))
	res, _ = call(t, srv, "GET", "/api/v1/knots/reef-knot/drill.svg?set=a?", "")
	assert.Equal(t, 422, res.StatusCode)
	res, _ = call(t, srv, "GET", "/api/v1/knots/figure-eight-loop/drill", "")
	assert.Equal(t, 404, res.StatusCode)
}

func TestDoctrinesChangeKnotsAndAnswers(t *testing.T) {
	srv := start(t)
	_, before := call(t, srv, "GET", "/api/v1/knots/rolling-hitch", "")
	assert.Contains(t, before, `"network_count":2`)
	page, _ := call(t, srv, "GET", "/api/v1/knots/rolling-hitch", "")
	tag := page.Header.Get("ETag")
	res, _ := call(t, srv, "GET", "/api/v1/knots/rolling-hitch", "", "If-None-Match", tag)
	assert.Equal(t, http.StatusNotModified, res.StatusCode)
	list, _ := call(t, srv, "GET", "/api/v1/doctrines", "")
	res, text := call(t, srv, "PUT", "/api/v1/doctrines", `{"chosen":{"rolling":"three","cleat":"no-lock"}}`)
	assert.Equal(t, http.StatusPreconditionRequired, res.StatusCode, text)
	res, text = call(t, srv, "PUT", "/api/v1/doctrines", `{"chosen":{"rolling":"three","cleat":"no-lock"}}`, "If-Match", list.Header.Get("ETag"))
	require.Equal(t, http.StatusOK, res.StatusCode, text)
	_, after := call(t, srv, "GET", "/api/v1/knots/rolling-hitch", "")
	assert.Contains(t, after, `"network_count":3`)
	assert.Contains(t, after, "third riding turn")
	res, _ = call(t, srv, "GET", "/api/v1/knots/rolling-hitch/handout.svg", "", "If-None-Match", tag)
	assert.Equal(t, http.StatusOK, res.StatusCode, "what a doctrine changes is fetched anew")
	_, chosen := call(t, srv, "GET", "/api/v1/doctrines", "")
	assert.Contains(t, chosen, `"rolling":"three"`)
	res, text = call(t, srv, "PUT", "/api/v1/doctrines", `{"chosen":{}}`, "If-Match", list.Header.Get("ETag"))
	assert.Equal(t, http.StatusConflict, res.StatusCode, "changed meanwhile")
	assert.Contains(t, text, `"kept":{"chosen":{`)

	list, _ = call(t, srv, "GET", "/api/v1/doctrines", "")
	res, text = call(t, srv, "PUT", "/api/v1/doctrines", `{"chosen":{"rolling":"seven"}}`, "If-Match", list.Header.Get("ETag"))
	assert.Equal(t, "doctrines.rolling", problemOf(t, res, text).Fields[0].Path)
	_, still := call(t, srv, "GET", "/api/v1/knots/rolling-hitch", "")
	assert.Contains(t, still, `"network_count":3`, "a refused choice changes nothing")
}

func TestKnotsSayWhatTheyShare(t *testing.T) {
	srv := start(t)
	_, text := call(t, srv, "GET", "/api/v1/catalogue", "")
	var cat api.Catalogue
	require.NoError(t, json.Unmarshal([]byte(text), &cat))
	assert.GreaterOrEqual(t, len(cat.Knots), 55)
	for _, k := range cat.Knots {
		if k.ID == "constrictor-hitch" {
			require.Len(t, k.GrowsFrom, 1)
			assert.Equal(t, "clove-hitch", k.GrowsFrom[0].Knot)
		}
		if k.ID == "improved-clinch" {
			assert.Contains(t, k.NotIn, "polyester")
			assert.Contains(t, k.NotIn, "braided-pe", "it slips in braid")
			assert.NotContains(t, k.NotIn, "fluorocarbon")
		}
	}
	_, page := call(t, srv, "GET", "/api/v1/knots/sheet-bend", "")
	assert.Contains(t, page, `"leads_to":[{"knot":"bowline"`, "bowline and sheet bend help either way")
}

func TestWholeRigAndWhatWouldChangeIt(t *testing.T) {
	srv := start(t)
	_, catalogue := call(t, srv, "GET", "/api/v1/catalogue", "")
	var cat api.Catalogue
	require.NoError(t, json.Unmarshal([]byte(catalogue), &cat))
	require.NotEmpty(t, cat.Templates)
	for _, x := range cat.Templates {
		text, _ := json.Marshal(x.Rig)
		res, body := call(t, srv, "POST", "/api/v1/rig-checks", string(text))
		require.Equal(t, http.StatusOK, res.StatusCode, "%s: %s", x.ID, body)
		// A chain can be kept and comes back whole.
		res, body = call(t, srv, "POST", "/api/v1/rigs", `{"rig":`+string(text)+`}`)
		require.Less(t, res.StatusCode, 300, "%s: %s", x.ID, body)
	}
	res, text := call(t, srv, "POST", "/api/v1/rig-checks", `{"chain":[{"fitting":{"kind":"ring"}}],"peak_kn":1}`)
	assert.Equal(t, "chain", problemOf(t, res, text).Fields[0].Path)
	_, text = call(t, srv, "POST", "/api/v1/changes", quay)
	assert.Contains(t, text, `"inputs":[{"id":"line.diameter"`)
	assert.Contains(t, text, "takes over")
	_, text = call(t, srv, "POST", "/api/v1/chances", quay)
	assert.Contains(t, text, `"p95_kn"`)
}

func TestMapComesRowByRow(t *testing.T) {
	srv := start(t)
	res, text := call(t, srv, "POST", "/api/v1/maps?x=line.diameter&y=load&columns=8&rows=7", quay)
	assert.Equal(t, "application/x-ndjson", res.Header.Get("Content-Type"))
	lines := strings.Split(strings.TrimSpace(text), "\n")
	require.Len(t, lines, 8, "the frame and seven rows")
	assert.Contains(t, lines[0], `"columns":8`)
	rows := map[int]bool{}
	for _, l := range lines[1:] {
		var r whatif.Row
		require.NoError(t, json.Unmarshal([]byte(l), &r))
		rows[r.Row] = true
		assert.Len(t, r.Knots, 8)
	}
	assert.Len(t, rows, 7)
	res, text = call(t, srv, "POST", "/api/v1/maps?x=colour&y=load", quay)
	assert.Equal(t, "x", problemOf(t, res, text).Fields[0].Path)
}

func TestLoadsShackleProceduresAndSchema(t *testing.T) {
	srv := start(t)
	_, text := call(t, srv, "GET", "/api/v1/loads/wind?loa=30ft&wind=15kn", "")
	assert.Contains(t, text, "wind on a boat 30 ft long")
	res, text := call(t, srv, "GET", "/api/v1/loads/wind?loa=300ft&wind=15kn", "")
	assert.Equal(t, "loa", problemOf(t, res, text).Fields[0].Path)
	_, text = call(t, srv, "GET", "/api/v1/shackle?diameter=6mm", "")
	assert.Contains(t, text, `"word":"holds"`)
	res, text = call(t, srv, "GET", "/api/v1/shackle?diameter=6km", "")
	assert.Equal(t, "diameter", problemOf(t, res, text).Fields[0].Path)
	_, text = call(t, srv, "POST", "/api/v1/procedures/jam/card", `{"chain":[{"line":{"material":"polyester","diameter_mm":12}},{"joint":{"task":"relieve"}},{"line":{"material":"polyester","diameter_mm":8}}],"peak_kn":1.5}`)
	assert.Contains(t, text, "riding turns, laid toward the pull")
	assert.NotContains(t, text, "{turns}")
	_, text = call(t, srv, "POST", "/api/v1/procedures/coil/card", "")
	assert.Contains(t, text, "half a twist")
	res, text = call(t, srv, "GET", "/api/v1/rig.schema.json", "")
	assert.Equal(t, "application/schema+json", res.Header.Get("Content-Type"))
	var schema map[string]any
	require.NoError(t, json.Unmarshal([]byte(text), &schema))
	assert.Contains(t, schema["$defs"], "RigElement", "what it refers to is in it")
	assert.NotContains(t, text, "#/components")
}

func TestSayingsAndMethod(t *testing.T) {
	srv := start(t)
	res, text := call(t, srv, "POST", "/api/v1/sayings", quay)
	require.Equal(t, 200, res.StatusCode, text)
	var sayings []struct{ ID, Saying, Verdict, Says, When string }
	require.NoError(t, json.Unmarshal([]byte(text), &sayings))
	assert.Len(t, sayings, 5)
	for _, s := range sayings {
		assert.NotEmpty(t, s.Says, s.ID)
	}
	res, text = call(t, srv, "POST", "/api/v1/sayings", strings.Replace(quay, "polyester", "seaweed", 1))
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, text, "material")
	res, text = call(t, srv, "GET", "/api/v1/method", "")
	assert.Equal(t, 200, res.StatusCode)
	assert.Contains(t, text, "Bayman")
}

// Where people depend on a knot the answer approves nothing: no chance, no word of
// enough, its caution first, the followed-through eight before the bowline, with its
// backup counted in; and the task says so whatever the rig says is at risk.
func TestPeopleAreACaseOfTheirOwn(t *testing.T) {
	srv := start(t)
	chair := func(tail string) (a app.Answer, whole app.RigAnswer) {
		doc := `{"chain":[{"fitting":{"kind":"ring","size_mm":12}},{"joint":{"task":"chair"` + tail + `}},{"line":{"material":"polyester","construction":"braid","diameter_mm":12}}],"peak_kn":1,"consequence":"gear"}`
		res, text := call(t, srv, "POST", "/api/v1/choices", doc)
		require.Equal(t, 200, res.StatusCode, text)
		require.NoError(t, json.Unmarshal([]byte(text), &a))
		_, text = call(t, srv, "POST", "/api/v1/rig-checks", doc)
		require.NoError(t, json.Unmarshal([]byte(text), &whole))
		return a, whole
	}
	a, whole := chair("")
	require.Len(t, a.Ranked, 2)
	assert.True(t, a.People)
	assert.Contains(t, a.Says, "Approve it yourself")
	assert.True(t, a.Cautions[0].Locked)
	assert.Equal(t, rig.Person, a.Rig.Consequence)
	first := a.Ranked[0]
	assert.Equal(t, "figure-eight-follow-through", first.Knot)
	assert.Equal(t, "bowline", a.Ranked[1].Knot)
	assert.Equal(t, "yours", first.Strength.Word)
	assert.Nil(t, first.Wet.Chance)
	assert.Equal(t, "barrel-backup", first.Backup)
	assert.Contains(t, strings.Join(first.Flags, " "), "Back the end up")
	assert.Nil(t, whole.Chance)
	// 12 mm: the eight and its tail alone would take less than a metre.
	assert.Greater(t, first.NeedsM, 0.95)
	short, _ := chair(`,"tail_m":0.8`)
	for _, c := range short.Ranked {
		assert.NotEqual(t, "figure-eight-follow-through", c.Knot, "too little end for knot and backup")
	}
}

// Two names, two people, their times kept; sent twice it is one record, and it survives in
// the export.
func TestLookedOverByTwo(t *testing.T) {
	srv := start(t)
	send := func(first, second string) (int, string) {
		res, text := call(t, srv, "POST", "/api/v1/inspections", `{"key":"k-1","knot":"figure-eight-follow-through","first":{"name":"`+first+`"},"second":{"name":"`+second+`"},
			"rig":{"chain":[{"fitting":{"kind":"harness"}},{"joint":{"task":"harness"}},{"line":{"material":"polyester","diameter_mm":11}}],"peak_kn":1}}`)
		return res.StatusCode, text
	}
	for _, pair := range [][2]string{{"Ailsa", ""}, {"Ailsa", "ailsa"}} {
		code, text := send(pair[0], pair[1])
		assert.Equal(t, 422, code, text)
		assert.Contains(t, text, "second.name")
	}
	code, text := send("Ailsa", "Torben")
	assert.Equal(t, 201, code, text)
	code, _ = send("Ailsa", "Torben")
	assert.Equal(t, 200, code, "the same record")
	_, text = call(t, srv, "GET", "/api/v1/inspections", "")
	var list []practice.Inspection
	require.NoError(t, json.Unmarshal([]byte(text), &list))
	require.Len(t, list, 1)
	assert.Equal(t, rig.Person, list[0].Rig.Consequence)
	assert.False(t, list[0].First.At.IsZero() || list[0].ReceivedAt.IsZero())
}

func TestTextsInTheUnitsAskedFor(t *testing.T) {
	srv := start(t)
	named := strings.Replace(quay, `"chain"`, `"name":"My 12 mm line","chain"`, 1)
	res, usual := call(t, srv, "POST", "/api/v1/choices", named)
	require.Equal(t, http.StatusOK, res.StatusCode, usual)
	res, inches := call(t, srv, "POST", "/api/v1/choices", named, "Units", "in")
	require.Equal(t, http.StatusOK, res.StatusCode, inches)
	assert.Equal(t, "Units", res.Header.Get("Vary"))
	assert.Regexp(t, `\d kN`, usual)
	assert.NotRegexp(t, `\d (kN|mm|cm)[^²/]`, inches)
	assert.Regexp(t, `\d lbf`, inches)
	var a, b app.Answer
	require.NoError(t, json.Unmarshal([]byte(usual), &a))
	require.NoError(t, json.Unmarshal([]byte(inches), &b))
	assert.Equal(t, a.Ranked[0].Strength.CapacityKN.Likely, b.Ranked[0].Strength.CapacityKN.Likely, "numbers stay in the unit of their name")

	// What people wrote stays as they wrote it.
	res, text := call(t, srv, "POST", "/api/v1/rigs", `{"rig":`+named+`}`, "Units", "in")
	require.Equal(t, http.StatusCreated, res.StatusCode, text)
	assert.Contains(t, text, "My 12 mm line")
	res, text = call(t, srv, "POST", "/api/v1/choices", quay, "Units", "stone")
	assert.Equal(t, http.StatusBadRequest, res.StatusCode)
	assert.Contains(t, problemOf(t, res, text).Detail, "kgf")
	_, text = call(t, srv, "GET", "/api/v1/quantity?kind=length&text=2&bare=in", "")
	assert.Contains(t, text, "50.8 mm")
}

// A tracing is named once every crossing is marked; before that it says where they are.
func TestATracingIsNamed(t *testing.T) {
	srv := start(t)
	const rope = `{"ropes":[{"points":[[0,0],[4,0],[4,3],[1,3],[1,-2],[3,-2],[3,2],[6,2]]}],"over":`
	_, text := call(t, srv, "POST", "/api/v1/knots/traced", rope+`[[0,0,0,3]]}`)
	var half api.Traced
	require.NoError(t, json.Unmarshal([]byte(text), &half))
	assert.Equal(t, 2, half.Left)
	assert.Empty(t, half.Matches)
	assert.Len(t, half.Meetings, 3)
	_, text = call(t, srv, "POST", "/api/v1/knots/traced", rope+`[[0,0,0,3],[0,5,0,0],[0,1,0,6]]}`)
	var whole api.Traced
	require.NoError(t, json.Unmarshal([]byte(text), &whole))
	require.NotEmpty(t, whole.Matches)
	assert.Equal(t, "overhand", whole.Matches[0].Knot)
	res, text := call(t, srv, "POST", "/api/v1/knots/traced", rope+`[[0,0,0,9]]}`)
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, text, "over[0]")
	res, _ = call(t, srv, "GET", "/api/v1/words/bight/drawing.svg", "")
	assert.Equal(t, 200, res.StatusCode)
	res, _ = call(t, srv, "GET", "/api/v1/words/nothing/drawing.svg", "")
	assert.Equal(t, 404, res.StatusCode)
}
