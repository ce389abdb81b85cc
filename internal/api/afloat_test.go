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

	"oarweed/core/leader"
	"oarweed/core/locker"
	"oarweed/core/mooring"
	"oarweed/core/towline"
	"oarweed/core/usage"
	"oarweed/internal/app"
	"oarweed/internal/device"
)

func bowLine(t *testing.T, srv *httptest.Server) locker.Line {
	t.Helper()
	return answer[locker.Line](t, srv, http.StatusCreated, "POST", "/lines",
		`{"name":"Bow line","material":"polyester","construction":"braid","diameter_mm":12,"length_m":20,"colour":"blue","lives":"Boat shed","bought":"2026-01-10"}`)
}

// A line is known once: what is found when it is looked over counts in every rig that has it.
func TestALineOfTheLockerIsThisOneInARig(t *testing.T) {
	srv := start(t)
	l := bowLine(t, srv)
	require.True(t, locker.Known(l.Code), l.Code)
	rig := fmt.Sprintf(`{"peak_kn":2.4,"chain":[{"fitting":{"kind":"ring","size_mm":40}},{"joint":{"task":"moor"}},{"line":{"material":"polyamide","diameter_mm":6,"own":%q}}]}`, l.Code)
	before := answer[app.Answer](t, srv, http.StatusOK, "POST", "/choices", rig)
	assert.Equal(t, 12.0, before.Line.DiameterMM, "what the locker says counts, not what the rig remembers")
	answer[locker.Line](t, srv, http.StatusOK, "POST", fmt.Sprintf("/lines/%d/looks", l.ID), `{"by":"Ailsa","grades":{"core":0,"chafe":2},"place_m":3.5}`, "If-Match", fmt.Sprint(l.Revision))
	after := answer[app.Answer](t, srv, http.StatusOK, "POST", "/choices", rig)
	assert.InDelta(t, 0.75, after.Line.CapacityKN.Likely/before.Line.CapacityKN.Likely, 1e-9)
	for _, path := range []string{"/rig-checks", "/chances", "/changes"} {
		res, text := call(t, srv, "POST", "/api/v1"+path, rig)
		assert.Equal(t, http.StatusOK, res.StatusCode, text)
	}
	// The code stays with the line; another one may not take it.
	l2 := answer[locker.Line](t, srv, http.StatusOK, "PUT", fmt.Sprintf("/lines/%d", l.ID), `{"name":"Bow line, port","code":"L000001-1","material":"polyester","diameter_mm":12}`, "If-Match", "2")
	assert.Equal(t, l.Code, l2.Code)
	res, text := call(t, srv, "GET", "/api/v1/locker/L000001-1", "")
	assert.Equal(t, http.StatusNotFound, res.StatusCode, text)
	res, _ = call(t, srv, "POST", fmt.Sprintf("/api/v1/lines/%d/looks", l.ID), `{"by":"Ailsa","grades":{"core":0}}`)
	assert.Equal(t, http.StatusPreconditionRequired, res.StatusCode)
}

func TestTheLogOfUseFeedsLinesAndKnots(t *testing.T) {
	srv := start(t)
	l := bowLine(t, srv)
	log := func(key, knot, outcome, where string, more string) usage.Entry {
		return answer[usage.Entry](t, srv, http.StatusCreated, "POST", "/uses",
			fmt.Sprintf(`{"key":%q,"where":%q,"line":%q,"knot":%q,"outcome":%q,"hours":2%s}`, key, where, l.Code, knot, outcome, more))
	}
	log("a", "bowline", "held", "The slip", "")
	log("b", "clove-hitch", "slipped", "Outer quay", `,"place_m":3.5,"wind_kn":22,"note":"swell"`)
	bad := log("c", "clove-hitch", "slipped", "the slip", "")
	again := answer[usage.Entry](t, srv, http.StatusOK, "POST", "/uses", fmt.Sprintf(`{"key":"c","where":"x","line":%q,"outcome":"held"}`, l.Code))
	assert.Equal(t, bad.ID, again.ID, "sent twice it is one")

	page := answer[app.LinePage](t, srv, http.StatusOK, "GET", "/locker/"+l.Code, nil)
	assert.Equal(t, 3, page.State.Trips)
	assert.InDelta(t, 6, page.State.Hours, 1e-9)
	assert.True(t, page.State.Since, "it slipped and nobody looked since")
	assert.Equal(t, usage.Slipped, page.Tally.Worst)
	assert.Equal(t, "clove-hitch", page.Knots[0].Of)
	require.Len(t, page.History, 4)
	assert.Equal(t, "bought", page.History[3].Kind)
	text, _ := json.Marshal(page.History)
	assert.Contains(t, string(text), "Outer quay, clove hitch: slipped at 3.5 m, after 2 h, in 22 knots of wind. Swell.")
	said := answer[struct{ Says string }](t, srv, http.StatusOK, "GET", "/knots/clove-hitch/use", nil)
	assert.Equal(t, "Two uses logged: slipped twice.", said.Says)

	sums := answer[app.UseSums](t, srv, http.StatusOK, "GET", "/uses/sums?where=THE%20SLIP", nil)
	assert.Equal(t, 2, sums.N)
	assert.Equal(t, 1, sums.By[usage.Held])
	wrong := answer[app.UsePage](t, srv, http.StatusOK, "GET", "/uses?wrong=true&limit=1", nil)
	require.Len(t, wrong.Uses, 1)
	assert.Equal(t, "Bow line", wrong.Uses[0].LineName)
	next := answer[app.UsePage](t, srv, http.StatusOK, "GET", "/uses?wrong=true&limit=1&cursor="+wrong.Next, nil)
	require.Len(t, next.Uses, 1)
	assert.NotEqual(t, wrong.Uses[0].ID, next.Uses[0].ID)
	assert.Empty(t, next.Next)

	answer[struct{}](t, srv, http.StatusNoContent, "DELETE", fmt.Sprintf("/uses/%d", bad.ID), nil)
	assert.Equal(t, 2, answer[app.UseSums](t, srv, http.StatusOK, "GET", "/uses/sums", nil).N)
	answer[usage.Entry](t, srv, http.StatusOK, "POST", fmt.Sprintf("/uses/%d/restoration", bad.ID), nil)
	assert.Equal(t, 3, answer[app.UseSums](t, srv, http.StatusOK, "GET", "/uses/sums", nil).N)
	for _, body := range []string{`{"where":"x","line":"L000001-1","outcome":"held"}`, `{"where":"","knot":"bowline","outcome":"held"}`, `{"where":"x","knot":"bowline","outcome":"fine"}`} {
		res, text := call(t, srv, "POST", "/api/v1/uses", body)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, text)
	}
}

func TestALeaderEatsItsSpoolAndATripIsBudgeted(t *testing.T) {
	srv := start(t)
	spool := answer[locker.Line](t, srv, http.StatusCreated, "POST", "/lines", `{"name":"Spool","material":"fluorocarbon","label_kn":0.0712,"length_m":50}`)
	answer[leader.Book](t, srv, http.StatusCreated, "POST", "/leaders",
		fmt.Sprintf(`{"name":"Evening","length_m":2.7,"shortest_m":2.1,"knot":"non-slip-loop","line":{"material":"fluorocarbon","label_kn":0.0712},"own":%q,"changes":9,"action_m":2.3}`, spool.Code))
	got := answer[[]app.LeaderCard](t, srv, http.StatusOK, "GET", "/leaders/left", nil)
	assert.Equal(t, "Spool", got[0].SpoolName)
	assert.Equal(t, "changes", got[0].Because)
	assert.Contains(t, strings.Join(got[0].Says, " "), "go up to 20 lb")
	page := answer[app.LinePage](t, srv, http.StatusOK, "GET", "/locker/"+spool.Code, nil)
	assert.InDelta(t, 47.3, page.LengthM, 1e-9, "it was cut from the spool")
	assert.Equal(t, "leader", page.History[0].Kind)
	renewed := answer[leader.Book](t, srv, http.StatusOK, "POST", fmt.Sprintf("/leaders/%d/tippet", got[0].ID), nil)
	assert.Zero(t, renewed.Changes)
	page = answer[app.LinePage](t, srv, http.StatusOK, "GET", "/locker/"+spool.Code, nil)
	assert.InDelta(t, 47.3-9*got[0].PerChangeM-got[0].JoinM, page.LengthM, 1e-9, "the tippet and its join came off the spool")
	need := answer[[]leader.Needed](t, srv, http.StatusOK, "POST", "/leaders/trip",
		`{"days":2,"people":3,"items":[{"name":"Evening","length_m":2.7,"shortest_m":2.1,"knot":"non-slip-loop","line":{"material":"fluorocarbon","label_kn":0.0712},"changes_a_day":10}]}`)
	assert.Equal(t, 60, need[0].Ties)
}

func TestATowLineIsKeptWithItsRiders(t *testing.T) {
	srv := start(t)
	b := answer[towline.Book](t, srv, http.StatusCreated, "POST", "/tow-lines",
		`{"name":"Tow line two","line":{"material":"hmpe","diameter_mm":6},"takeoffs_m":[18.4,19.9,21.4,22.9,24.4],"on":"pylon","boat":"Workboat","riders":[{"name":"Fenna","want_m":22.1,"kn":13},{"name":"Dorrit","want_m":17},{"name":"Eskil","want_m":30}]}`)
	cards := answer[[]app.TowCard](t, srv, http.StatusOK, "GET", "/tow-lines/places", nil)
	require.Len(t, cards[0].Places, 3)
	assert.InDelta(t, 22.9, cards[0].Places[0].TakeoffM, 1e-9)
	assert.InDelta(t, 0.8, cards[0].Places[0].TakeUpM, 1e-9)
	assert.InDelta(t, 1.4, cards[0].Places[1].TakeUpM, 1e-9)
	assert.Contains(t, cards[0].Places[2].Wrong, "longer than the line reaches")
	assert.Contains(t, fmt.Sprint(cards[0].Cautions), "approves nothing")
	for range towline.Shift {
		answer[towline.Book](t, srv, http.StatusOK, "POST", fmt.Sprintf("/tow-lines/%d/runs", b.ID), `{"rider":0}`)
	}
	cards = answer[[]app.TowCard](t, srv, http.StatusOK, "GET", "/tow-lines/places", nil)
	require.Len(t, cards[0].Rubbed, 1)
	todo := answer[[]app.ToDo](t, srv, http.StatusOK, "GET", "/to-do", nil)
	assert.Contains(t, fmt.Sprint(todo), "Tow line two")
	res, text := call(t, srv, "POST", fmt.Sprintf("/api/v1/tow-lines/%d/runs", b.ID), `{"rider":7}`)
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, text)
}

// The wind rises, the plan warns before it goes; the feed drops and that is said.
func TestTheWindIsHeldAgainstABerth(t *testing.T) {
	h, _, school := handlerWith(t, nil)
	t.Cleanup(school.Close)
	srv := httptest.NewServer(h)
	t.Cleanup(srv.Close)
	plan := answer[mooring.Plan](t, srv, http.StatusOK, "POST", "/moorings/usual", `{"boat":{"loa_m":9,"beam_m":3,"displacement_t":4},"kind":"alongside","line":{"material":"polyamide","diameter_mm":14}}`)
	solved := answer[app.MooringAnswer](t, srv, http.StatusOK, "POST", "/moorings/solve", plan)
	require.Len(t, solved.Details, 4)
	assert.Equal(t, "cleat-hitch", solved.Details[0].AtBoat.Knot)
	assert.NotEmpty(t, solved.Details[0].AtShore.Knot)
	assert.Greater(t, solved.Details[0].CutM, solved.Details[0].RunM*1.25)
	assert.Len(t, solved.Moor, 5)
	assert.Len(t, solved.Unmoor, 6)
	berth := mooring.Berth{Name: "Outer quay", Plan: plan, Lying: true}
	answer[mooring.Berth](t, srv, http.StatusCreated, "POST", "/moorings", berth)

	w, err := device.NewWind(device.Blow{From: 60, To: 60, Bearing: 300, Hertz: 20})
	require.NoError(t, err)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	ctx, end := context.WithCancel(t.Context())
	done := make(chan struct{})
	go func() { defer close(done); _ = w.Serve(ctx, l) }()
	require.NoError(t, school.UseWind(t.Context(), device.NewVane()))
	res, text := call(t, srv, "PUT", "/api/v1/wind", `{"addr":"nowhere"}`, "If-Match", "0")
	assert.Contains(t, problemOf(t, res, text).Fields[0].Path, "wind")
	answer[app.WindSettings](t, srv, http.StatusOK, "PUT", "/wind", fmt.Sprintf(`{"addr":%q}`, l.Addr().String()), "If-Match", "0")
	live := func(ok func(app.Afloat) bool) app.Afloat {
		t.Helper()
		for range 100 {
			got, err := school.Afloat(t.Context())
			require.NoError(t, err)
			if ok(*got) {
				return *got
			}
			time.Sleep(100 * time.Millisecond)
		}
		t.Fatal("the wind does not come to that")
		return app.Afloat{}
	}
	got := live(func(a app.Afloat) bool { return len(a.Berths) == 1 && a.Berths[0].Warn != mooring.Stands })
	assert.Contains(t, got.Berths[0].Says, "Outer quay")
	assert.Contains(t, fmt.Sprint(answer[[]app.ToDo](t, srv, http.StatusOK, "GET", "/to-do", nil)), "Double the lines")
	// The stream says the same.
	ctx2, leave := context.WithTimeout(t.Context(), 5*time.Second)
	defer leave()
	req, err := http.NewRequestWithContext(ctx2, "GET", srv.URL+"/api/v1/wind/live", nil)
	require.NoError(t, err)
	stream, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	var first app.Afloat
	require.NoError(t, json.NewDecoder(stream.Body).Decode(&first))
	_ = stream.Body.Close()
	assert.Len(t, first.Berths, 1)
	end()
	<-done
	lost := live(func(a app.Afloat) bool { return !a.Wind.Known && a.Wind.Lost != "" })
	assert.Empty(t, lost.Berths, "an old wind would read as an all clear")
	assert.Contains(t, lost.Says, "nothing warns now")
	assert.Contains(t, fmt.Sprint(answer[[]app.ToDo](t, srv, http.StatusOK, "GET", "/to-do", nil)), "nothing warns now")
}

func fileBody(text string) string {
	return fmt.Sprintf(`{"data":%q}`, base64.StdEncoding.EncodeToString([]byte(text)))
}

// What is given out as a table comes back in a new school as it was, and nothing comes twice; a
// wrong row is named and nothing of the file is kept.
func TestRecordsGoOutAndComeInAgain(t *testing.T) {
	srv := start(t)
	l := bowLine(t, srv)
	answer[locker.Line](t, srv, http.StatusOK, "POST", fmt.Sprintf("/lines/%d/looks", l.ID), `{"by":"Ailsa","grades":{"core":0,"chafe":1},"place_m":3.5,"note":"=marked"}`, "If-Match", "1")
	answer[locker.Line](t, srv, http.StatusOK, "POST", fmt.Sprintf("/lines/%d/looks", l.ID), `{"by":"Bram","grades":{"splice":2}}`, "If-Match", "2")
	answer[usage.Entry](t, srv, http.StatusCreated, "POST", "/uses", fmt.Sprintf(`{"where":"The slip, north","line":%q,"knot":"bowline","outcome":"chafed","hours":1.5}`, l.Code))
	answer[leader.Book](t, srv, http.StatusCreated, "POST", "/leaders", `{"name":"Evening","length_m":2.7,"shortest_m":2.1,"knot":"non-slip-loop","line":{"material":"fluorocarbon","label_kn":0.0712},"changes":2,
		"sections":[{"length_m":1.5,"knot":"double-uni","line":{"material":"mono","label_kn":0.13}},{"length_m":0.8,"knot":"double-uni","line":{"material":"mono","label_kn":0.1}}]}`)
	answer[towline.Book](t, srv, http.StatusCreated, "POST", "/tow-lines", `{"name":"Tow line two","line":{"material":"hmpe","diameter_mm":6},"takeoffs_m":[18.4,19.9],"on":"eye","riders":[{"name":"Fenna","want_m":19.1,"kn":13},{"name":"Bram","want_m":18.4}],"runs":[{"place_m":19.1,"n":4}]}`)
	plan := answer[mooring.Plan](t, srv, http.StatusOK, "POST", "/moorings/usual", `{"boat":{"loa_m":9,"beam_m":3,"displacement_t":4},"kind":"posts","line":{"material":"polyamide","diameter_mm":14}}`)
	answer[mooring.Berth](t, srv, http.StatusCreated, "POST", "/moorings", mooring.Berth{Name: "Posts", Plan: plan, Heading: 200, Lying: true})

	kinds := []string{"locker", "use", "leaders", "tow-lines", "moorings"}
	tables, lists := map[string]string{}, map[string]string{}
	for _, kind := range kinds {
		_, tables[kind] = call(t, srv, "GET", "/api/v1/files/"+kind+"/table.csv", "")
		_, lists[kind] = call(t, srv, "GET", "/api/v1/files/"+kind+"/records.json", "")
		again := answer[app.TakenFile](t, srv, http.StatusOK, "POST", "/files/"+kind, fileBody(tables[kind]))
		assert.Equal(t, 0, again.New, kind)
		assert.Equal(t, 1, again.There, kind)
	}
	for _, from := range []map[string]string{tables, lists} {
		fresh := start(t)
		for _, kind := range kinds {
			seen := answer[app.TakenFile](t, fresh, http.StatusOK, "POST", "/files/"+kind+"?preview=true", fileBody(from[kind]))
			assert.False(t, seen.Kept)
			assert.Equal(t, 1, seen.New, kind)
			assert.Empty(t, seen.Unknown, kind)
			assert.True(t, answer[app.TakenFile](t, fresh, http.StatusOK, "POST", "/files/"+kind, fileBody(from[kind])).Kept)
			_, out := call(t, fresh, "GET", "/api/v1/files/"+kind+"/table.csv", "")
			assert.Equal(t, tables[kind], out, kind)
		}
	}
	// A wrong row is named by its number and column; the good one before it is not kept either.
	res, text := call(t, srv, "POST", "/api/v1/files/locker", fileBody("name,material,diameter_mm\nSpare,polyester,10\nOdd,wool,much\n"))
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, text, "row 3, diameter_mm")
	res, text = call(t, srv, "POST", "/api/v1/files/locker", fileBody("name;material;diameter_mm\nSpare;polyester;10,5\nOdd;wool;10\n"))
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, text, "row 3")
	assert.Len(t, answer[[]app.LineCard](t, srv, http.StatusOK, "GET", "/locker", nil), 1)
	res, text = call(t, srv, "POST", "/api/v1/files/leaders", fileBody(`[{"name":"x"}]`))
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, text)
	res, _ = call(t, srv, "POST", "/api/v1/files/boats", fileBody("name\nx"))
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
}

func TestSumsOfTheQuay(t *testing.T) {
	srv := start(t)
	slip := answer[app.SlipAnswer](t, srv, http.StatusOK, "GET", "/slip-line?distance=4m&height=3m&line=12mm", nil)
	assert.Greater(t, slip.LengthM, 10.0)
	assert.Contains(t, slip.Says, "runs out through the ring")
	heave := answer[app.HeaveAnswer](t, srv, http.StatusOK, "GET", "/heaving-line?distance=30m", nil)
	assert.True(t, heave.Far)
	assert.Contains(t, heave.Says, "farther than most people throw")
	tide := answer[app.TideAnswer](t, srv, http.StatusOK, "GET", "/fender-tide?rise=1.9m", nil)
	assert.False(t, tide.Covers)
	assert.Contains(t, tide.Says, "hang a longer one")
	for _, bad := range []string{"/slip-line?distance=x", "/heaving-line?height=99m", "/fender-tide?fender=9m"} {
		res, text := call(t, srv, "GET", "/api/v1"+bad, "")
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, text)
	}
}
