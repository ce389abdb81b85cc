package api_test

import (
	"context"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/bench"
	"oarweed/internal/app"
	"oarweed/internal/device"
)

// answer calls, and reads what comes back.
func answer[T any](t *testing.T, srv *httptest.Server, want int, method, path string, body any, headers ...string) (out T) {
	t.Helper()
	text := ""
	if s, ok := body.(string); ok {
		text = s
	} else if body != nil {
		raw, err := json.Marshal(body)
		require.NoError(t, err)
		text = string(raw)
	}
	res, got := call(t, srv, method, "/api/v1"+path, text, headers...)
	require.Equal(t, want, res.StatusCode, got)
	if got != "" {
		require.NoError(t, json.Unmarshal([]byte(got), &out), got)
	}
	return out
}

const series = `{"name":"Bowline and eight","line":{"material":"polyester","construction":"braid","diameter_mm":10,"label_kn":20},"wet":true,"yardstick_kn":10,
	"specimens":[{"a":{"knot":"bowline"},"b":{"knot":"figure-eight-loop"}},{"a":{"knot":"figure-eight-loop"},"b":{"knot":"bowline"}}]}`

func pulls(t *testing.T, srv *httptest.Server, s bench.Series, bowlineKN float64, n int) {
	for i := range n {
		kn := bowlineKN * (0.94 + 0.01*float64(i%12))
		a, b, where := "bowline", "figure-eight-loop", "a"
		if i%2 == 1 {
			a, b, where = b, a, "b"
		}
		answer[bench.Pull](t, srv, http.StatusCreated, "POST", "/pulls",
			fmt.Sprintf(`{"key":"%s-%g-%d","series":%q,"at":"2026-05-02T10:%02d:00Z","a":{"knot":%q},"b":{"knot":%q},"source":"dial","peak_kn":%g,"outcome":"broke","where":%q}`, s.Key, bowlineKN, i, s.Key, i, a, b, kn, where))
	}
}

// Pulls read off a dial: what they say, and how they move the choice.
func TestPullsChangeTheChoice(t *testing.T) {
	srv := start(t)
	s := answer[bench.Series](t, srv, http.StatusCreated, "POST", "/series", series)
	assert.NotEmpty(t, s.Key)
	page := answer[app.SeriesPage](t, srv, http.StatusOK, "GET", fmt.Sprintf("/series/%d/page", s.ID), nil)
	assert.Equal(t, 0, page.Next)
	assert.Equal(t, "Nothing has given yet", page.Head)
	sheet := `{"chain":[{"fitting":{"kind":"clew","size_mm":15}},{"joint":{"task":"sheet"}},{"line":{"material":"polyester","construction":"braid","diameter_mm":10}}],"peak_kn":1}`
	before := answer[app.Answer](t, srv, http.StatusOK, "POST", "/choices", sheet)
	require.Equal(t, "bowline", before.Ranked[0].Knot)
	assert.Empty(t, before.House)

	pulls(t, srv, s, 6, 12) // far weaker than the catalogue has it
	page = answer[app.SeriesPage](t, srv, http.StatusOK, "GET", fmt.Sprintf("/series/%d/page", s.ID), nil)
	assert.Equal(t, "The figure-eight loop is stronger", page.Head)
	assert.Contains(t, page.Says[0], "In 12 pulls the bowline gave first 12 times.")
	require.Len(t, page.Ends, 2)
	assert.Equal(t, 12, page.Ends[0].Group.Failures)
	assert.Equal(t, bench.NothingFailed, page.Ends[1].Group.TooFew)
	assert.Contains(t, page.Ends[0].Yardstick, "No of 12 pulls came up to 10 kN")
	require.NotNil(t, page.Ends[0].House)
	assert.Greater(t, page.Ends[0].House.Weight, 0.5)
	assert.Equal(t, -1, page.Next)
	require.NotNil(t, page.LogRank)
	assert.Less(t, page.LogRank.P, 0.01)

	after := answer[app.Answer](t, srv, http.StatusOK, "POST", "/choices", sheet)
	require.NotEmpty(t, after.House)
	assert.Contains(t, after.House[0], "Your pulls: bowline keeps")
	// Under a load at which it matters the order changes, and it is said why.
	hard := strings.Replace(sheet, `"peak_kn":1`, `"peak_kn":2`, 1)
	moved := answer[app.Answer](t, srv, http.StatusOK, "POST", "/choices", hard)
	require.NotEmpty(t, moved.House)
	assert.Contains(t, moved.House[0], "it comes second and not first")
	assert.Equal(t, "bowline", moved.Ranked[1].Knot)
	for _, c := range after.Ranked {
		if c.Knot == "bowline" {
			assert.Equal(t, "yours", string(c.Strength.Efficiency.Tag))
			assert.Contains(t, c.Strength.Efficiency.Source, "12 pulls on your bench")
			assert.Less(t, c.Strength.Efficiency.Likely, 0.5)
		}
	}
	// A dry line, another construction: the catalogue's.
	dry := answer[app.Answer](t, srv, http.StatusOK, "POST", "/choices", strings.Replace(sheet, `"peak_kn":1`, `"peak_kn":1,"dry":true`, 1))
	assert.Empty(t, dry.House)

	res, table := call(t, srv, "GET", fmt.Sprintf("/api/v1/series/%d/pulls.csv", s.ID), "")
	assert.Equal(t, http.StatusOK, res.StatusCode)
	assert.Contains(t, table, "highest load (kN)")
	assert.Len(t, strings.Split(strings.TrimSpace(table), "\n"), 13)
	// Out as a table, and into another series; a second time nothing is added.
	other := answer[bench.Series](t, srv, http.StatusCreated, "POST", "/series", strings.Replace(series, `"wet":true,`, "", 1))
	in := map[string]any{"data": base64.StdEncoding.EncodeToString([]byte(table + "13,,bowline,lace,dial,7,broke,knot A,,,,\n"))}
	seen := answer[app.TakenResults](t, srv, http.StatusOK, "POST", fmt.Sprintf("/series/%d/results?preview=true", other.ID), in)
	assert.Equal(t, []int{12, 0}, []int{seen.Added, seen.There})
	assert.Contains(t, seen.Lines[12].Wrong, `line 14, column 4: "lace"`)
	answer[app.TakenResults](t, srv, http.StatusOK, "POST", fmt.Sprintf("/series/%d/results", other.ID), in)
	again := answer[app.TakenResults](t, srv, http.StatusOK, "POST", fmt.Sprintf("/series/%d/results", other.ID), in)
	assert.Equal(t, []int{0, 12}, []int{again.Added, again.There})
	copied := answer[app.SeriesPage](t, srv, http.StatusOK, "GET", fmt.Sprintf("/series/%d/page", other.ID), nil)
	assert.Equal(t, page.Ends[0].Group, copied.Ends[0].Group)
	answer[any](t, srv, http.StatusNoContent, "DELETE", fmt.Sprintf("/series/%d", other.ID), nil)
	res, pdf := call(t, srv, "GET", fmt.Sprintf("/api/v1/series/%d/labels.pdf?at=http://10.0.0.2:8080", s.ID), "")
	assert.Equal(t, http.StatusOK, res.StatusCode)
	assert.True(t, strings.HasPrefix(pdf, "%PDF-"))

	set, _ := call(t, srv, "PUT", "/api/v1/bench/settings", `{"cell":"","out":true}`, "If-Match", `"0"`)
	require.Equal(t, http.StatusOK, set.StatusCode)
	off := answer[app.Answer](t, srv, http.StatusOK, "POST", "/choices", sheet)
	assert.Empty(t, off.House, "switched off")
	assert.Equal(t, before.Ranked[0].Strength.Efficiency, off.Ranked[0].Strength.Efficiency)
}

// A count of wraps that own pulls say counts in lines of about that strength, and is said.
func TestOwnCountsOfWraps(t *testing.T) {
	srv := start(t)
	wraps := func(lb float64) (int, []string) {
		a := answer[app.Answer](t, srv, http.StatusOK, "POST", "/choices", fmt.Sprintf(`{"chain":[{"fitting":{"kind":"hook-eye","size_mm":2.5}},{"joint":{"task":"lure"}},{"line":{"material":"mono","label_kn":%g}}],"peak_kn":0.01}`, lb*0.00444822))
		for _, c := range a.Ranked {
			if c.Knot == "improved-clinch" {
				return c.Wraps, a.House
			}
		}
		return 0, a.House
	}
	usual, _ := wraps(10)
	require.Positive(t, usual)
	answer[app.BenchSettings](t, srv, http.StatusOK, "PUT", "/bench/settings", fmt.Sprintf(`{"cell":"","wraps":[{"knot":"improved-clinch","lb":10,"n":%d}]}`, usual+2), "If-Match", `"0"`)
	n, house := wraps(10)
	assert.Equal(t, usual+2, n)
	assert.Contains(t, fmt.Sprint(house), "Your pulls: improved clinch gets")
	far, house := wraps(30)
	assert.NotEqual(t, usual+2, far)
	assert.Empty(t, house)
	res, text := call(t, srv, "PUT", "/api/v1/bench/settings", `{"cell":"","wraps":[{"knot":"bowline","lb":10,"n":3}]}`, "If-Match", `"1"`)
	assert.Equal(t, "wraps[0].knot", problemOf(t, res, text).Fields[0].Path)
}

func TestProofPulls(t *testing.T) {
	srv := start(t)
	p := answer[bench.Proof](t, srv, http.StatusCreated, "POST", "/proofs", `{"knot":"blood-join","result":"passed","load_kn":0.03}`)
	assert.False(t, p.At.IsZero())
	require.Len(t, answer[[]bench.Proof](t, srv, http.StatusOK, "GET", "/proofs", nil), 1)
	res, text := call(t, srv, "POST", "/api/v1/proofs", `{"knot":"lace","result":"passed","load_kn":-1}`)
	q := problemOf(t, res, text)
	assert.Len(t, q.Fields, 2)
	res, _ = call(t, srv, "DELETE", fmt.Sprintf("/api/v1/proofs/%d", p.ID), "")
	assert.Equal(t, http.StatusNoContent, res.StatusCode)
}

// Seen to slip out time and again, a knot counts as slipping in that line; seen to hold it counts as
// no surer than it did.
func TestSeenToSlip(t *testing.T) {
	srv := start(t)
	s := answer[bench.Series](t, srv, http.StatusCreated, "POST", "/series", series)
	hold := func() app.Choice {
		a := answer[app.Answer](t, srv, http.StatusOK, "POST", "/choices", `{"chain":[{"fitting":{"kind":"clew","size_mm":15}},{"joint":{"task":"sheet","knot":"bowline"}},{"line":{"material":"polyester","construction":"braid","diameter_mm":10}}],"peak_kn":1}`)
		for _, c := range a.Ranked {
			if c.Knot == "bowline" {
				return c
			}
		}
		for _, r := range a.RuledOut {
			if r.Knot == "bowline" {
				assert.Contains(t, fmt.Sprint(r.Reasons), "on your bench it slipped out in six of the six pulls")
			}
		}
		return app.Choice{}
	}
	before := hold()
	assert.Equal(t, "holds", string(before.Wet.Class))
	for i := range 6 {
		answer[bench.Pull](t, srv, http.StatusCreated, "POST", "/pulls",
			fmt.Sprintf(`{"key":"slip-%d","series":%q,"at":"2026-05-02T10:%02d:00Z","a":{"knot":"bowline"},"b":{"knot":"figure-eight-loop"},"source":"dial","peak_kn":%g,"outcome":"slipped","where":"a"}`, i, s.Key, i, 5+0.1*float64(i)))
	}
	after := hold()
	assert.NotEqual(t, "holds", string(after.Wet.Class))
}

func TestAPullSentTwiceIsOne(t *testing.T) {
	srv := start(t)
	s := answer[bench.Series](t, srv, http.StatusCreated, "POST", "/series", series)
	pulls(t, srv, s, 9, 1)
	pulls(t, srv, s, 9, 1)
	all := answer[[]bench.Pull](t, srv, http.StatusOK, "GET", "/pulls", nil)
	require.Len(t, all, 1)
	res, text := call(t, srv, "POST", "/api/v1/pulls", `{"key":"x","series":"none","a":{"knot":"lace"},"b":{"knot":"bowline"},"source":"dial","peak_kn":0,"outcome":"broke"}`)
	p := problemOf(t, res, text)
	var fields []string
	for _, f := range p.Fields {
		fields = append(fields, f.Path)
	}
	assert.Subset(t, fields, []string{"a.knot", "peak_kn", "where", "series"})
}

// A pull on the stand-in, end to end: read live, stopped, recorded, corrected, exported.
func TestAPullOnTheCell(t *testing.T) {
	cat, err := catalogue.Load()
	require.NoError(t, err)
	cell, err := device.NewCell(cat, device.Specimen{Seed: 5, Knots: []string{"bowline", "figure-eight-loop"}, Line: "polyester braid 10mm", Hertz: 100, Quick: 20})
	require.NoError(t, err)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	ctx, cancel := context.WithCancel(context.Background())
	t.Cleanup(cancel)
	go func() { _ = cell.Serve(ctx, l) }()

	h, _, school := handlerWith(t, nil)
	require.NoError(t, school.UseCell(t.Context(), device.NewHub(school.Records().AppendReadings)))
	t.Cleanup(school.Close)
	srv := httptest.NewServer(h)
	t.Cleanup(srv.Close)
	s := answer[bench.Series](t, srv, http.StatusCreated, "POST", "/series", series)
	res, text := call(t, srv, "PUT", "/api/v1/bench/settings", `{"cell":"nowhere"}`, "If-Match", `"0"`)
	assert.Equal(t, "cell", problemOf(t, res, text).Fields[0].Path)
	answer[app.BenchSettings](t, srv, http.StatusOK, "PUT", "/bench/settings", fmt.Sprintf(`{"cell":%q}`, l.Addr()), "If-Match", `"0"`)
	var state bench.CellState
	for range 200 {
		if res, _ := call(t, srv, "POST", "/api/v1/bench/zero", ""); res.StatusCode == http.StatusOK {
			break
		}
		time.Sleep(20 * time.Millisecond)
	}
	state = answer[bench.CellState](t, srv, http.StatusOK, "POST", "/bench/pulls/first", "")
	assert.Equal(t, "first", state.Pull)
	live, err := srv.Client().Get(srv.URL + "/api/v1/bench/live")
	require.NoError(t, err)
	defer live.Body.Close()
	dec, most := json.NewDecoder(live.Body), 0.0
	for {
		var frame bench.Live
		require.NoError(t, dec.Decode(&frame))
		last := 0.0
		for _, x := range frame.KN {
			most, last = max(most, x), x
		}
		if most > 2 && len(frame.KN) > 0 && last < most/4 {
			break
		}
	}
	time.Sleep(100 * time.Millisecond)
	done := answer[app.Stopped](t, srv, http.StatusOK, "POST", "/bench/stop", "")
	require.NotNil(t, done.Marks)
	require.NotNil(t, done.Marks.Break)
	left := answer[[]*app.Stopped](t, srv, http.StatusOK, "GET", "/bench/pulls", nil)
	require.Len(t, left, 1, "kept, and not recorded yet")
	p := answer[bench.Pull](t, srv, http.StatusCreated, "POST", "/pulls",
		fmt.Sprintf(`{"key":"first","series":%q,"a":{"knot":"bowline"},"b":{"knot":"figure-eight-loop"},"source":"cell","peak_kn":%g,"outcome":"broke","where":"a"}`, s.Key, done.Marks.Peak.LoadKN))
	require.NotNil(t, p.Found)
	assert.Equal(t, done.Marks.Peak, p.Found.Peak)
	assert.Empty(t, answer[[]*app.Stopped](t, srv, http.StatusOK, "GET", "/bench/pulls", nil))
	// A mark is corrected: both are kept, and the corrected one counts.
	p.Corrected = &bench.Corrected{Peak: &bench.Mark{S: 3, LoadKN: 5.5}}
	p.Found = nil
	q := answer[bench.Pull](t, srv, http.StatusOK, "PUT", fmt.Sprintf("/pulls/%d", p.ID), p, "If-Match", fmt.Sprintf(`"%d"`, p.Revision))
	assert.NotNil(t, q.Found, "what was found stays")
	page := answer[app.SeriesPage](t, srv, http.StatusOK, "GET", fmt.Sprintf("/series/%d/page", s.ID), nil)
	assert.Equal(t, 5.5, page.Ends[0].Values[0].LoadKN)
	// Out as a file, and in again: it is noticed.
	res, file := call(t, srv, "GET", fmt.Sprintf("/api/v1/pulls/%d/trace.csv", p.ID), "")
	require.Equal(t, http.StatusOK, res.StatusCode)
	in := map[string]any{"data": base64.StdEncoding.EncodeToString([]byte(file))}
	again := answer[app.ReadTrace](t, srv, http.StatusOK, "POST", "/bench/traces/preview", in)
	require.NotNil(t, again.Twice)
	assert.Equal(t, p.ID, again.Twice.ID)
	assert.Equal(t, done.Readings, again.Readings)
	drawn := answer[map[string][]float64](t, srv, http.StatusOK, "GET", fmt.Sprintf("/pulls/%d/trace?points=100", p.ID), nil)
	assert.Len(t, drawn["t_s"], 100)
}

func TestFilesOfReadings(t *testing.T) {
	srv := start(t)
	send := func(text string) map[string]any {
		return map[string]any{"data": base64.StdEncoding.EncodeToString([]byte(text))}
	}
	good := answer[app.ReadTrace](t, srv, http.StatusOK, "PUT", "/bench/pulls/file-1/readings", send("Zeit;Kraft\n0;0,1\n0,5;1,2\n1;2,2\n1,5;0\n"))
	assert.True(t, good.Columns.DecimalComma)
	assert.Len(t, good.Guessed, 2)
	res, text := call(t, srv, "POST", "/api/v1/bench/traces/preview", fmt.Sprintf(`{"data":%q}`, base64.StdEncoding.EncodeToString([]byte("time,force\n0,1\n1,x\n2,1\n"))))
	assert.Equal(t, "line 3, column 2", problemOf(t, res, text).Fields[0].Path)
	kept := answer[[]*app.Stopped](t, srv, http.StatusOK, "GET", "/bench/pulls", nil)
	require.Len(t, kept, 1, "a preview keeps nothing")
	res, _ = call(t, srv, "DELETE", "/api/v1/bench/pulls/file-1", "")
	assert.Equal(t, http.StatusNoContent, res.StatusCode)
	assert.Empty(t, answer[[]*app.Stopped](t, srv, http.StatusOK, "GET", "/bench/pulls", nil))
}
