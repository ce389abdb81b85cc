package api

import (
	"crypto/rand"
	"encoding/hex"
	"log/slog"
	"mime"
	"net"
	"net/http"
	"net/netip"
	"net/url"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"oarweed/internal/app"
)

// Guard stands before everything.
//
// Threats: a page of another site, open in the same browser, that writes records or
// reads them; a foreign host name that resolves to this machine (DNS rebinding), by
// which such a page would count as ours; our pages shown inside another site's; a
// browser that takes what we send for something else.
//
// Mechanism: the Host must be localhost, a literal address, or a name given by --host,
// else 421. A request that changes something must come from our own pages, by
// Sec-Fetch-Site or Origin (net/http.CrossOriginProtection), else 403, and what it sends
// must be application/json, else 415. Every answer forbids sniffing, framing and
// scripts that are not ours.
//
// Default: on. Way out: --host NAME for a server behind a name of its own; programs that
// are no browser send neither Origin nor Sec-Fetch-Site and pass.
func Guard(next http.Handler, hosts []string) http.Handler {
	foreign := http.NewCrossOriginProtection()
	foreign.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		writeProblem(w, newProblem(http.StatusForbidden, "Pages of other sites may not do this here."))
	}))
	inner := foreign.Handler(typed(next))
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "same-origin")
		h.Set("X-Frame-Options", "DENY")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		// Styles are written by the component library at run time.
		h.Set("Content-Security-Policy", "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'")
		if !ours(r.Host, hosts) {
			writeProblem(w, newProblem(http.StatusMisdirectedRequest, "Oarweed does not go by this name. Call it by its address, or start it with --host NAME."))
			return
		}
		inner.ServeHTTP(w, r)
	})
}

// ours reports whether a Host header is one that this server goes by.
func ours(host string, names []string) bool {
	name := host
	if h, _, err := net.SplitHostPort(host); err == nil {
		name = h
	}
	name = strings.TrimSuffix(strings.TrimPrefix(name, "["), "]")
	if _, err := netip.ParseAddr(name); err == nil {
		return true
	}
	name = strings.ToLower(name)
	return name == "localhost" || slices.ContainsFunc(names, func(n string) bool { return strings.ToLower(n) == name })
}

// typed demands application/json of every body.
func typed(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.ContentLength != 0 && r.Method != http.MethodGet && r.Method != http.MethodHead {
			if kind, _, err := mime.ParseMediaType(r.Header.Get("Content-Type")); err != nil || kind != "application/json" {
				writeProblem(w, newProblem(http.StatusUnsupportedMediaType, "Send application/json."))
				return
			}
		}
		next.ServeHTTP(w, r)
	})
}

// headAsGet answers HEAD as GET; net/http leaves the body out.
func headAsGet(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Method == http.MethodHead {
			r = r.Clone(r.Context())
			r.Method = http.MethodGet
		}
		next.ServeHTTP(w, r)
	})
}

// accessLog writes one line for each request, without what was asked or sent: names of
// learners may be in it.
func accessLog(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		began := time.Now()
		id := token(6)
		w.Header().Set("X-Request-Id", id)
		s := &statusWriter{ResponseWriter: w, status: http.StatusOK}
		next.ServeHTTP(s, r)
		slog.InfoContext(r.Context(), "request", "id", id, "method", r.Method, "path", r.URL.Path, "status", s.status, "bytes", s.bytes, "ms", time.Since(began).Milliseconds())
	})
}

type statusWriter struct {
	http.ResponseWriter
	status, bytes int
}

func (s *statusWriter) WriteHeader(status int) {
	s.status = status
	s.ResponseWriter.WriteHeader(status)
}

func (s *statusWriter) Write(b []byte) (int, error) {
	n, err := s.ResponseWriter.Write(b)
	s.bytes += n
	return n, err
}

// Unwrap lets a flush and deadlines through.
func (s *statusWriter) Unwrap() http.ResponseWriter { return s.ResponseWriter }

// Flush is asked for by streams.
func (s *statusWriter) Flush() { _ = http.NewResponseController(s.ResponseWriter).Flush() }

func token(n int) string {
	b := make([]byte, n)
	_, _ = rand.Read(b) // never fails
	return hex.EncodeToString(b)
}

// browserCookie names the browser to the queue before the processors. It says nothing
// about anybody.
const browserCookie = "oarweed-browser"

// tenant puts the school that is asked, and the browser that asks, into the context.
func tenant(school *app.School) gin.HandlerFunc {
	return func(c *gin.Context) {
		id, err := c.Cookie(browserCookie)
		if err != nil || len(id) != 32 {
			id = c.Request.RemoteAddr
			http.SetCookie(c.Writer, &http.Cookie{Name: browserCookie, Value: token(16), Path: "/api/", MaxAge: 365 * 24 * 3600, HttpOnly: true, SameSite: http.SameSiteStrictMode})
		}
		ctx := app.FromBrowser(app.With(c.Request.Context(), school), id)
		c.Request = c.Request.WithContext(ctx)
		c.Next()
	}
}

// cached lets a browser keep what depends on the catalogue alone until that changes: with
// another binary, which starts anew, or with another doctrine.
func cached(started time.Time) gin.HandlerFunc {
	run := started.UnixNano()
	return func(c *gin.Context) {
		at := strings.TrimPrefix(c.Request.URL.Path, Base)
		if c.Request.Method != http.MethodGet || !strings.HasPrefix(at, "/knots") && !strings.HasPrefix(at, "/faults") && at != "/catalogue" || c.Query("notes") != "" {
			c.Header("Cache-Control", "no-store")
			return
		}
		tag := `"` + strings.ToLower(hex.EncodeToString(fingerprint(run, app.Of(c.Request.Context()).Trade().Taught))) + url.QueryEscape(c.GetHeader(unitsHeader)) + `"`
		c.Header("ETag", tag)
		c.Header("Cache-Control", "no-cache")
		if c.GetHeader("If-None-Match") == tag {
			c.AbortWithStatus(http.StatusNotModified)
		}
	}
}
