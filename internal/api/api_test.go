package api_test

import (
	"encoding/json"
	"io"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/choose"
	"oarweed/internal/api"
	"oarweed/internal/site"
	"oarweed/internal/store"
)

func start(t *testing.T) *httptest.Server {
	t.Helper()
	cat, err := catalogue.Load()
	require.NoError(t, err)
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "x.db"))
	require.NoError(t, err)
	pages, err := site.Handler(fstest.MapFS{
		"index.html":         {Data: []byte("<!doctype html><title>Oarweed</title>")},
		"assets/app-1.js":    {Data: []byte("plain")},
		"assets/app-1.js.gz": {Data: []byte("squeezed")},
	})
	require.NoError(t, err)
	h, _ := api.New(cat, st, pages)
	srv := httptest.NewServer(h)
	t.Cleanup(func() {
		srv.Close()
		_ = st.Close()
	})
	return srv
}

func call(t *testing.T, srv *httptest.Server, method, path, body string) (*http.Response, string) {
	t.Helper()
	req, err := http.NewRequest(method, srv.URL+path, strings.NewReader(body))
	require.NoError(t, err)
	if body != "" {
		req.Header.Set("Content-Type", "application/json")
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
	res, text := call(t, srv, "POST", "/api/choose", quay)
	require.Equal(t, http.StatusOK, res.StatusCode, text)
	var a choose.Answer
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
		{"POST", "/api/choose", strings.Replace(quay, "12}", "-12}", 1), 422, "chain[2].line.diameter_mm"},
		{"POST", "/api/choose", strings.Replace(quay, "polyester", "seaweed", 1), 422, "chain[2].line.material"},
		{"POST", "/api/choose", strings.Replace(quay, "2.4", `"much"`, 1), 422, "peak_kn"},
		{"POST", "/api/choose", strings.Replace(quay, `"peak_kn"`, `"peek_kn"`, 1), 422, "peek_kn"},
		{"POST", "/api/choose", quay[:40], 400, ""},
		{"POST", "/api/attempts", `{"learner_id":1,"knot":"bowline","outcome":"right"}`, 422, "learner_id"},
		{"POST", "/api/learners", `{"name":"   "}`, 422, "name"},
		{"POST", "/api/lines", `{"name":"x","material":"polyester"}`, 422, "diameter_mm"},
		{"POST", "/api/rigs", `{"rig":` + quay + `}`, 422, "rig.name"},
		{"GET", "/api/rigs/77", "", 404, ""},
		{"GET", "/api/knots/sky-hook", "", 404, ""},
		{"GET", "/api/nothing", "", 404, ""},
		{"PATCH", "/api/choose", "", 405, ""},
		{"GET", "/api/quantity?kind=length&text=twelve", "", 422, ""},
		{"GET", "/api/friction?hitch=clove-hitch&object=0mm&line=12mm&mu=0.1", "", 422, "object"},
		{"GET", "/api/strength?material=polyester&diameter=24mm&construction=solid", "", 422, "construction"},
	} {
		res, text := call(t, srv, c.method, c.path, c.body)
		assert.Equal(t, c.status, res.StatusCode, "%s %s: %s", c.method, c.path, text)
		p := problemOf(t, res, text)
		assert.NotEmpty(t, p.Detail)
		if c.field != "" {
			require.NotEmpty(t, p.Fields, text)
			fields := ""
			for _, f := range p.Fields {
				fields += f.Field + " "
			}
			assert.Contains(t, fields, c.field)
		}
		assert.NotContains(t, text, "much", "a rejected value is not sent back")
	}
}

func TestRecordsComeBack(t *testing.T) {
	srv := start(t)
	_, text := call(t, srv, "POST", "/api/learners", `{"name":" Ailsa  of the slip "}`)
	assert.Contains(t, text, `"name":"Ailsa of the slip"`)
	res, text := call(t, srv, "POST", "/api/attempts", `{"learner_id":1,"knot":"bowline","outcome":"fault","fault":"granny"}`)
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, text, "one of the knot's faults")
	res, text = call(t, srv, "POST", "/api/attempts", `{"learner_id":1,"knot":"bowline","outcome":"fault","fault":"tail-short","seconds":12}`)
	require.Equal(t, 200, res.StatusCode, text)
	_, text = call(t, srv, "GET", "/api/attempts?knot=bowline", "")
	assert.Contains(t, text, `"fault":"tail-short"`)
	res, _ = call(t, srv, "DELETE", "/api/attempts/1", "")
	assert.Equal(t, 204, res.StatusCode)
	_, text = call(t, srv, "GET", "/api/attempts", "")
	assert.Equal(t, "[]", strings.TrimSpace(text))

	named := strings.Replace(quay, `"peak_kn"`, `"name":"Quay","peak_kn"`, 1)
	res, text = call(t, srv, "POST", "/api/rigs", `{"rig":`+named+`}`)
	require.Equal(t, 200, res.StatusCode, text)
	_, text = call(t, srv, "GET", "/api/rigs/1", "")
	assert.Contains(t, text, `"surface":"polished-steel"`, "kept with its defaults")
	res, text = call(t, srv, "POST", "/api/lines", `{"name":"Painter","material":"polyester","diameter_mm":10}`)
	require.Equal(t, 200, res.StatusCode, text)
	_, text = call(t, srv, "GET", "/api/lines", "")
	assert.Contains(t, text, `"construction":"laid"`)
}

func TestDescriptionAndPages(t *testing.T) {
	srv := start(t)
	res, text := call(t, srv, "GET", "/api/openapi.json", "")
	require.Equal(t, 200, res.StatusCode)
	var doc struct {
		OpenAPI string                    `json:"openapi"`
		Paths   map[string]map[string]any `json:"paths"`
	}
	require.NoError(t, json.Unmarshal([]byte(text), &doc))
	assert.True(t, strings.HasPrefix(doc.OpenAPI, "3.1"))
	for _, p := range []string{"/api/choose", "/api/knots/{id}/drawing.svg", "/api/rigs/{id}", "/api/attempts"} {
		assert.Contains(t, doc.Paths, p)
	}
	res, text = call(t, srv, "GET", "/api/knots/bowline/drawing.svg?step=99", "")
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, text, "there is no step 99")
	res, text = call(t, srv, "GET", "/api/knots/bowline/drawing.svg?step=2&view=left&look=braid&labels=true", "")
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
	page, svg := call(t, srv, "GET", "/api/knots/bowline/handout.svg", "")
	assert.Equal(t, "image/svg+xml", page.Header.Get("Content-Type"))
	assert.Contains(t, svg, "Small loop crossed the wrong way")
	res, text := call(t, srv, "GET", "/api/knots/bowline/handout.pdf", "")
	assert.Equal(t, "application/pdf", res.Header.Get("Content-Type"))
	assert.True(t, strings.HasPrefix(text, "%PDF-"))
	res, _ = call(t, srv, "GET", "/api/knots/sky-hook/handout.pdf", "")
	assert.Equal(t, 404, res.StatusCode)
}

func TestDrill(t *testing.T) {
	srv := start(t)
	_, text := call(t, srv, "GET", "/api/knots/reef-knot/drill", "")
	var d api.DrillPage
	require.NoError(t, json.Unmarshal([]byte(text), &d))
	assert.Equal(t, 64, d.Choices)
	assert.Equal(t, 10, d.Tangles)
	require.Len(t, d.Crossings, 6)
	var set []string
	for _, c := range d.Crossings {
		set = append(set, c.Name+"o")
	}
	res, text := call(t, srv, "GET", "/api/knots/reef-knot/drill/verdict?set="+strings.Join(set, ","), "")
	require.Equal(t, 200, res.StatusCode, text)
	assert.Contains(t, text, `"name":`)
	res, text = call(t, srv, "GET", "/api/knots/reef-knot/drill/verdict?set=ao", "")
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, text, "set every crossing")
	res, _ = call(t, srv, "GET", "/api/knots/reef-knot/drill.svg?set=ao,tu", "")
	assert.Equal(t, "image/svg+xml", res.Header.Get("Content-Type"))
	res, _ = call(t, srv, "GET", "/api/knots/reef-knot/drill.svg?set=a?", "")
	assert.Equal(t, 422, res.StatusCode)
	res, _ = call(t, srv, "GET", "/api/knots/zeppelin-bend/drill", "")
	assert.Equal(t, 404, res.StatusCode)
}

func TestSchoolsChangeKnotsAndAnswers(t *testing.T) {
	srv := start(t)
	_, before := call(t, srv, "GET", "/api/knots/rolling-hitch", "")
	assert.Contains(t, before, `"network_count":2`)
	res, text := call(t, srv, "PUT", "/api/schools", `{"chosen":{"rolling":"three","cleat":"no-lock"}}`)
	require.Equal(t, http.StatusOK, res.StatusCode, text)
	_, after := call(t, srv, "GET", "/api/knots/rolling-hitch", "")
	assert.Contains(t, after, `"network_count":3`)
	assert.Contains(t, after, "third riding turn")
	_, list := call(t, srv, "GET", "/api/schools", "")
	assert.Contains(t, list, `"rolling":"three"`)

	res, text = call(t, srv, "PUT", "/api/schools", `{"chosen":{"rolling":"seven"}}`)
	assert.Equal(t, "schools.rolling", problemOf(t, res, text).Fields[0].Field)
	_, still := call(t, srv, "GET", "/api/knots/rolling-hitch", "")
	assert.Contains(t, still, `"network_count":3`, "a refused choice changes nothing")
}

func TestKnotsSayWhatTheyShare(t *testing.T) {
	srv := start(t)
	_, text := call(t, srv, "GET", "/api/catalogue", "")
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
	_, page := call(t, srv, "GET", "/api/knots/sheet-bend", "")
	assert.Contains(t, page, `"leads_to":[{"knot":"bowline"`, "bowline and sheet bend help either way")
}

func TestWholeRigAndWhatWouldChangeIt(t *testing.T) {
	srv := start(t)
	_, catalogue := call(t, srv, "GET", "/api/catalogue", "")
	var cat api.Catalogue
	require.NoError(t, json.Unmarshal([]byte(catalogue), &cat))
	require.NotEmpty(t, cat.Templates)
	for _, x := range cat.Templates {
		text, _ := json.Marshal(x.Rig)
		res, body := call(t, srv, "POST", "/api/rig", string(text))
		require.Equal(t, http.StatusOK, res.StatusCode, "%s: %s", x.ID, body)
		// A chain can be kept and comes back whole.
		res, body = call(t, srv, "POST", "/api/rigs", `{"rig":`+string(text)+`}`)
		require.Less(t, res.StatusCode, 300, "%s: %s", x.ID, body)
	}
	res, text := call(t, srv, "POST", "/api/rig", `{"chain":[{"fitting":{"kind":"ring"}}],"peak_kn":1}`)
	assert.Equal(t, "chain", problemOf(t, res, text).Fields[0].Field)
	_, text = call(t, srv, "POST", "/api/changes", quay)
	assert.Contains(t, text, `"inputs":[{"id":"line.diameter"`)
	assert.Contains(t, text, "takes over")
	_, text = call(t, srv, "POST", "/api/chances", quay)
	assert.Contains(t, text, `"p95_kn"`)
}

func TestMapComesRowByRow(t *testing.T) {
	srv := start(t)
	res, text := call(t, srv, "POST", "/api/map?x=line.diameter&y=load&columns=8&rows=7", quay)
	assert.Equal(t, "application/x-ndjson", res.Header.Get("Content-Type"))
	lines := strings.Split(strings.TrimSpace(text), "\n")
	require.Len(t, lines, 8, "the frame and seven rows")
	assert.Contains(t, lines[0], `"columns":8`)
	rows := map[int]bool{}
	for _, l := range lines[1:] {
		var r choose.Row
		require.NoError(t, json.Unmarshal([]byte(l), &r))
		rows[r.Row] = true
		assert.Len(t, r.Knots, 8)
	}
	assert.Len(t, rows, 7)
	res, text = call(t, srv, "POST", "/api/map?x=colour&y=load", quay)
	assert.Equal(t, "x", problemOf(t, res, text).Fields[0].Field)
}

func TestLoadsShackleProceduresAndSchema(t *testing.T) {
	srv := start(t)
	_, text := call(t, srv, "GET", "/api/load/wind?loa=30ft&wind=15kn", "")
	assert.Contains(t, text, "wind on a boat 30 ft long")
	res, text := call(t, srv, "GET", "/api/load/wind?loa=300ft&wind=15kn", "")
	assert.Equal(t, "loa", problemOf(t, res, text).Fields[0].Field)
	_, text = call(t, srv, "GET", "/api/shackle?diameter=6mm", "")
	assert.Contains(t, text, `"word":"holds"`)
	res, text = call(t, srv, "GET", "/api/shackle?diameter=6km", "")
	assert.Equal(t, "diameter", problemOf(t, res, text).Fields[0].Field)
	_, text = call(t, srv, "POST", "/api/procedures/jam", `{"chain":[{"line":{"material":"polyester","diameter_mm":12}},{"joint":{"task":"relieve"}},{"line":{"material":"polyester","diameter_mm":8}}],"peak_kn":1.5}`)
	assert.Contains(t, text, "riding turns, laid toward the pull")
	assert.NotContains(t, text, "{turns}")
	_, text = call(t, srv, "POST", "/api/procedures/coil", "")
	assert.Contains(t, text, "half a twist")
	res, text = call(t, srv, "GET", "/api/rig.schema.json", "")
	assert.Equal(t, "application/schema+json", res.Header.Get("Content-Type"))
	var schema map[string]any
	require.NoError(t, json.Unmarshal([]byte(text), &schema))
	assert.Contains(t, schema["$defs"], "RigElement", "what it refers to is in it")
	assert.NotContains(t, text, "#/components")
}
