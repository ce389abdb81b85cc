package api_test

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/alexedwards/scs/sqlite3store"
	"github.com/danielgtaylor/huma/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/practice"
	"oarweed/internal/api"
	"oarweed/internal/app"
	"oarweed/internal/store"
)

const (
	setupCode  = "7K3M-Q2ZA"
	passphrase = "kelp on the slip at low water"
)

// guarded is a server that asks who one is.
func guarded(t *testing.T, setup string) (*httptest.Server, huma.API, *app.School) {
	t.Helper()
	h, a, school := handlerWith(t, func(st *store.Store) *api.Access {
		return api.NewAccess(sqlite3store.NewWithCleanupInterval(st.Sessions(), 0), setup, false)
	})
	srv := httptest.NewServer(h)
	t.Cleanup(srv.Close)
	return srv, a, school
}

type who struct {
	t      *testing.T
	url    string
	client *http.Client
}

func somebody(t *testing.T, srv *httptest.Server) who {
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	return who{t, srv.URL, &http.Client{Jar: jar}}
}

func (w who) call(method, path, body string) (int, string) {
	w.t.Helper()
	req, err := http.NewRequest(method, w.url+path, strings.NewReader(body))
	require.NoError(w.t, err)
	if body != "" {
		req.Header.Set("Content-Type", "application/json")
	}
	res, err := w.client.Do(req)
	require.NoError(w.t, err)
	defer res.Body.Close()
	text, err := io.ReadAll(res.Body)
	require.NoError(w.t, err)
	return res.StatusCode, string(text)
}

func TestAnOutsiderGetsNowhere(t *testing.T) {
	srv, a, _ := guarded(t, setupCode)
	out := somebody(t, srv)
	status, text := out.call("GET", "/api/v1/session", "")
	assert.Equal(t, 200, status)
	assert.Contains(t, text, `"role":"setup"`)
	assert.Contains(t, text, `"plain":true`)
	n := 0
	for path, item := range a.OpenAPI().Paths {
		for method, o := range map[string]*huma.Operation{"GET": item.Get, "POST": item.Post, "PUT": item.Put, "DELETE": item.Delete} {
			if o == nil {
				continue
			}
			free := path == "/api/v1/join" || path == "/api/v1/session/setup" || path == "/api/v1/session" && method != "DELETE"
			status, _ := out.call(method, strings.NewReplacer("{id}", "1", "{kind}", "wind", "{file}", "x", "{key}", "x", "{code}", "L000001-1").Replace(path), "")
			if !free {
				n++
				assert.Equal(t, 401, status, "%s %s", method, path)
			}
		}
	}
	assert.Greater(t, n, 60)
	status, _ = out.call("GET", "/feeds/guess.ics", "")
	assert.Equal(t, 404, status)
}

func TestPassphraseIsSetWithTheCodeOfTheTerminal(t *testing.T) {
	srv, _, _ := guarded(t, setupCode)
	in := somebody(t, srv)
	status, _ := in.call("POST", "/api/v1/session/setup", `{"code":"AAAA-AAAA","passphrase":"`+passphrase+`"}`)
	assert.Equal(t, 422, status)
	status, text := in.call("POST", "/api/v1/session/setup", `{"code":"7k3m q2za","passphrase":"short"}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "passphrase")
	status, _ = in.call("POST", "/api/v1/session/setup", `{"code":"7k3m q2za","passphrase":"`+passphrase+`"}`)
	require.Equal(t, 200, status)
	status, _ = in.call("GET", "/api/v1/learners", "")
	assert.Equal(t, 200, status, "signed in by it")
	other := somebody(t, srv)
	status, _ = other.call("POST", "/api/v1/session/setup", `{"code":"7K3MQ2ZA","passphrase":"another one of mine"}`)
	assert.Equal(t, 403, status, "only once")
	status, _ = other.call("POST", "/api/v1/session", `{"passphrase":"kelp on the slip"}`)
	assert.Equal(t, 422, status)
	status, _ = other.call("POST", "/api/v1/session", `{"passphrase":"`+passphrase+`"}`)
	assert.Equal(t, 200, status)
	status, _ = other.call("DELETE", "/api/v1/session", "")
	assert.Less(t, status, 300)
	status, _ = other.call("GET", "/api/v1/learners", "")
	assert.Equal(t, 401, status, "signed out")
}

func TestTriesAreLimited(t *testing.T) {
	srv, _, school := guarded(t, "")
	require.NoError(t, school.SetPassphrase(t.Context(), passphrase))
	out := somebody(t, srv)
	last := 0
	for i := range 9 {
		path, body := "/api/v1/session", fmt.Sprintf(`{"passphrase":"guess number %d"}`, i)
		if i%2 == 1 {
			path, body = "/api/v1/join", fmt.Sprintf(`{"code":"ABCD-%04d","name":"Nobody"}`, i)
		}
		last, _ = out.call("POST", path, body)
	}
	assert.Equal(t, 429, last)
	status, _ := out.call("POST", "/api/v1/session", `{"passphrase":"`+passphrase+`"}`)
	assert.Equal(t, 429, status, "not even with the right one, for a while")
}

func TestAJoinedLearnerReachesOnlyWhatIsHis(t *testing.T) {
	srv, a, school := guarded(t, "")
	ctx := t.Context()
	require.NoError(t, school.SetPassphrase(ctx, passphrase))
	bram, _, err := school.AddLearner(ctx, practice.Learner{Name: "Bram"})
	require.NoError(t, err)
	j, err := school.AddJoin(ctx, "Evening", 60)
	require.NoError(t, err)
	me := somebody(t, srv)
	status, text := me.call("POST", "/api/v1/join", `{"code":"`+strings.ToLower(j.Code)+`","name":"Ailsa"}`)
	require.Equal(t, 200, status, text)
	assert.Contains(t, text, `"role":"learner"`)
	allowed := map[string]bool{}
	for path, item := range a.OpenAPI().Paths {
		for method, o := range map[string]*huma.Operation{"GET": item.Get, "POST": item.Post, "PUT": item.Put, "DELETE": item.Delete} {
			if o == nil || path == "/api/v1/session" || path == "/api/v1/session/setup" || path == "/api/v1/join" {
				continue
			}
			status, _ := me.call(method, strings.NewReplacer("{id}", "1", "{kind}", "wind").Replace(path), "")
			if status != 403 {
				allowed[method+" "+strings.TrimPrefix(path, "/api/v1")] = true
			}
		}
	}
	for _, no := range []string{"GET /learners", "GET /attempts", "POST /attempts", "GET /board", "GET /due", "GET /rigs", "POST /joins", "GET /feeds", "DELETE /learners/{id}", "GET /learners/{id}/page", "GET /roster.csv", "GET /lessons", "GET /photos/{id}", "GET /gear", "PUT /doctrines"} {
		assert.False(t, allowed[no], no)
	}
	for _, yes := range []string{"GET /me", "POST /me/attempts", "GET /catalogue", "GET /knots/{id}", "GET /knots/{id}/drill"} {
		assert.True(t, allowed[yes], yes)
	}
	// What he sends is his, whoever he says he is, and judged by himself.
	status, text = me.call("POST", "/api/v1/me/attempts", fmt.Sprintf(`{"key":"k1","learner_id":%d,"knot":"bowline","outcome":"right","judged":"instructor"}`, bram.ID))
	require.Equal(t, 201, status, text)
	assert.Contains(t, text, `"judged":"self"`)
	assert.Contains(t, text, `"learner":"Ailsa"`)
	// The key of somebody else's attempt tells nothing of it.
	_, _, err = school.AddAttempt(ctx, practice.Attempt{Key: "his", LearnerID: bram.ID, Knot: "bowline", Outcome: practice.Right})
	require.NoError(t, err)
	status, text = me.call("POST", "/api/v1/me/attempts", `{"key":"his","learner_id":1,"knot":"bowline","outcome":"right"}`)
	assert.Equal(t, 409, status)
	assert.NotContains(t, text, "Bram")
	status, text = me.call("GET", "/api/v1/me", "")
	require.Equal(t, 200, status)
	var p app.Person
	require.NoError(t, json.Unmarshal([]byte(text), &p))
	assert.Equal(t, "Ailsa", p.Learner.Name)
	assert.NotContains(t, text, "Bram")
	// A code that is ended lets nobody in.
	joins, err := school.Joins(ctx)
	require.NoError(t, err)
	require.NoError(t, school.EndJoin(ctx, joins[0].ID))
	status, _ = somebody(t, srv).call("POST", "/api/v1/join", `{"code":"`+j.Code+`","name":"Corin"}`)
	assert.Equal(t, 422, status)
}

func TestTheCookieIsTheBrowsersAlone(t *testing.T) {
	srv, _, school := guarded(t, "")
	require.NoError(t, school.SetPassphrase(t.Context(), passphrase))
	res, text := call(t, srv, "POST", "/api/v1/session", `{"passphrase":"`+passphrase+`"}`)
	require.Equal(t, 200, res.StatusCode, text)
	var found bool
	for _, c := range res.Cookies() {
		if c.Name == "oarweed-session" {
			found = true
			assert.True(t, c.HttpOnly)
			assert.Equal(t, http.SameSiteStrictMode, c.SameSite)
			assert.Equal(t, "/api/", c.Path)
			assert.GreaterOrEqual(t, len(c.Value), 40)
		}
	}
	assert.True(t, found)
	assert.NotContains(t, text, passphrase)
}

func TestWithoutAccessNothingIsAsked(t *testing.T) {
	srv := start(t)
	_, text := call(t, srv, "GET", "/api/v1/session", "")
	assert.Contains(t, text, `"role":"open"`)
	res, _ := call(t, srv, "POST", "/api/v1/join", `{"code":"ABCD-EFGH","name":"Ailsa"}`)
	assert.Equal(t, 403, res.StatusCode)
	res, _ = call(t, srv, "GET", "/api/v1/me", "")
	assert.Equal(t, 403, res.StatusCode)
}
