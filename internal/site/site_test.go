package site_test

import (
	"net/http"
	"net/http/httptest"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/internal/site"
)

func get(t *testing.T, h http.Handler, method, path string, headers ...string) *httptest.ResponseRecorder {
	t.Helper()
	r := httptest.NewRequest(method, path, nil)
	for i := 0; i+1 < len(headers); i += 2 {
		r.Header.Set(headers[i], headers[i+1])
	}
	w := httptest.NewRecorder()
	h.ServeHTTP(w, r)
	return w
}

func TestPagesAndAssets(t *testing.T) {
	h, err := site.Handler(fstest.MapFS{
		"index.html":          {Data: []byte("<!doctype html>")},
		"icon.svg":            {Data: []byte("<svg/>")},
		"assets/app-1.css":    {Data: []byte("body{}")},
		"assets/app-1.css.gz": {Data: []byte("squeezed")},
	})
	require.NoError(t, err)
	for _, c := range []struct {
		path, body, kind, cache string
		status                  int
	}{
		{"/", "<!doctype html>", "text/html; charset=utf-8", "no-cache", 200},
		{"/index.html", "<!doctype html>", "text/html; charset=utf-8", "no-cache", 200},
		{"/knots/bowline", "<!doctype html>", "text/html; charset=utf-8", "no-cache", 200},
		{"/../../etc/passwd", "<!doctype html>", "text/html; charset=utf-8", "no-cache", 200},
		{"/icon.svg", "<svg/>", "image/svg+xml", "max-age=3600", 200},
		{"/assets/app-1.css", "body{}", "text/css; charset=utf-8", "public, max-age=31536000, immutable", 200},
		{"/assets/app-0.css", "no such file\n", "text/plain; charset=utf-8", "", 404},
	} {
		w := get(t, h, "GET", c.path)
		assert.Equal(t, c.status, w.Code, c.path)
		assert.Equal(t, c.body, w.Body.String(), c.path)
		assert.Equal(t, c.kind, w.Header().Get("Content-Type"), c.path)
		assert.Equal(t, c.cache, w.Header().Get("Cache-Control"), c.path)
	}
	squeezed := get(t, h, "GET", "/assets/app-1.css", "Accept-Encoding", "br, gzip")
	assert.Equal(t, "squeezed", squeezed.Body.String())
	assert.Equal(t, "gzip", squeezed.Header().Get("Content-Encoding"))
	assert.Equal(t, "Accept-Encoding", squeezed.Header().Get("Vary"))
	assert.Empty(t, get(t, h, "HEAD", "/").Body.String())

	tag := get(t, h, "GET", "/").Header().Get("ETag")
	require.NotEmpty(t, tag)
	assert.Equal(t, http.StatusNotModified, get(t, h, "GET", "/", "If-None-Match", tag).Code)
	assert.Equal(t, 200, get(t, h, "GET", "/", "If-None-Match", `"older"`).Code)
}

// Before the first build there is only a placeholder: say so, do not crash.
func TestNotBuiltYet(t *testing.T) {
	h, err := site.Handler(fstest.MapFS{".keep": {}})
	require.NoError(t, err)
	w := get(t, h, "GET", "/")
	assert.Equal(t, http.StatusServiceUnavailable, w.Code)
	assert.Contains(t, w.Body.String(), "make build")
}
