package api

import (
	"context"
	"errors"
	"net"
	"net/http"
	"strings"
	"sync"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"
	"golang.org/x/time/rate"

	"oarweed/core/practice"
	"oarweed/core/problem"
	"oarweed/internal/app"
)

// Access says who may do what once the server listens beyond this machine.
//
// Threats: somebody else on the same network who reads or changes the records; a learner
// who looks at others, or gives himself marks as the instructor; somebody who tries codes
// or passphrases one after the other; a stolen cookie used on another site.
//
// Mechanism: everything under /api/ needs a session, but signing in, joining and asking
// who one is. An instructor signs in with a passphrase (argon2id), which is set once, with
// a code that the terminal shows. A learner joins with a code of the lesson, of 40 random
// bits, and reaches the catalogue, drawings, drills, the naming of what he tied and what is his own, nothing else.
// Tries are limited per address. The session's cookie is HttpOnly and SameSite=Strict,
// Secure under TLS, and renewed when somebody signs in.
//
// Default: on whenever the server listens on an address other than loopback; off on this
// machine alone. Without TLS whoever is on the network can read what is sent: the sign-in
// page says so.
type Access struct {
	sessions *scs.SessionManager
	// setup is the code of the terminal with which the passphrase is set first; empty once
	// it is set.
	setup string
	mu    sync.Mutex
	tries map[string]*rate.Limiter
	tls   bool
}

// NewAccess asks for a passphrase. setup is the code with which the first is set. keep
// stores the sessions.
func NewAccess(keep scs.Store, setup string, tls bool) *Access {
	m := scs.New()
	m.Store = keep
	m.Lifetime = 30 * 24 * time.Hour
	m.Cookie.Name = "oarweed-session"
	m.Cookie.HttpOnly = true
	m.Cookie.SameSite = http.SameSiteStrictMode
	m.Cookie.Secure = tls
	m.Cookie.Path = "/api/"
	m.HashTokenInStore = true
	return &Access{sessions: m, setup: setup, tries: map[string]*rate.Limiter{}, tls: tls}
}

// Roles of a session.
const (
	roleInstructor = "instructor"
	roleLearner    = "learner"
)

// Session says who one is.
type Session struct {
	// Role is open where nothing is asked for (this machine alone), setup while no
	// passphrase is set, none before signing in.
	Role    string            `json:"role" enum:"open,setup,none,instructor,learner"`
	Learner *practice.Learner `json:"learner,omitempty" doc:"who joined, where the role is learner"`
	// Plain: what is sent can be read by others on the network.
	Plain bool `json:"plain,omitempty"`
}

type accessKey struct{}

// accessOf is the access control of a request; nil where there is none.
func accessOf(ctx context.Context) *Access {
	a, _ := ctx.Value(accessKey{}).(*Access)
	return a
}

// open are the operations that need no session, forLearners those that a joined phone may
// use beside them: no record of anybody, only the catalogue and what is drawn from it.
var (
	open        = []string{"GET /session", "POST /session", "POST /session/setup", "POST /join", "GET /openapi.json"}
	forLearners = []string{"DELETE /session", "GET /catalogue", "GET /knots", "POST /knots/traced", "POST /knots/fewest", "GET /faults", "GET /words", "GET /words.pdf", "GET /words.pdf", "GET /me", "POST /me/attempts", "GET /doctrines", "GET /quantity", "GET /method", "GET /qr.svg"}
)

// permits reports whether a request is for one of the operations.
func permits(list []string, method, path string) bool {
	for _, o := range list {
		m, p, _ := strings.Cut(o, " ")
		if m == method && (path == p || strings.HasPrefix(path, p+"/") && m == http.MethodGet) {
			return true
		}
	}
	return false
}

// middleware lets pass who may.
func (a *Access) middleware(c *gin.Context) {
	c.Request = c.Request.WithContext(context.WithValue(c.Request.Context(), accessKey{}, a))
	path, ours := strings.CutPrefix(c.Request.URL.Path, Base)
	if !ours {
		c.Next()
		return
	}
	ctx, err := a.sessions.Load(c.Request.Context(), cookieOf(c.Request, a.sessions.Cookie.Name))
	if err != nil {
		problemOn(c, broken())
		c.Abort()
		return
	}
	c.Request = c.Request.WithContext(ctx)
	if until := a.sessions.GetInt64(ctx, "until"); until != 0 && time.Now().Unix() > until {
		// The lesson is over.
		if err := a.sessions.Clear(ctx); err != nil {
			problemOn(c, broken())
			c.Abort()
			return
		}
	}
	role := a.sessions.GetString(ctx, "role")
	method := c.Request.Method
	if method == http.MethodHead {
		method = http.MethodGet
	}
	switch {
	case permits(open, method, path), role == roleInstructor:
	case role == roleLearner && permits(forLearners, method, path):
	case role == roleLearner:
		problemOn(c, newProblem(http.StatusForbidden, "A learner's phone cannot do this. Ask the instructor."))
		c.Abort()
		return
	default:
		problemOn(c, newProblem(http.StatusUnauthorized, "Sign in, or join with the code of the lesson."))
		c.Abort()
		return
	}
	// What the session came to is written before the first byte of the answer.
	w := &committing{ResponseWriter: c.Writer, commit: func() { a.commit(c) }}
	c.Writer = w
	c.Next()
	w.once()
}

func cookieOf(r *http.Request, name string) string {
	c, err := r.Cookie(name)
	if err != nil {
		return ""
	}
	return c.Value
}

// commit keeps the session and sets, or clears, its cookie.
func (a *Access) commit(c *gin.Context) {
	ctx := c.Request.Context()
	switch a.sessions.Status(ctx) {
	case scs.Modified:
		token, expires, err := a.sessions.Commit(ctx)
		if err == nil {
			a.sessions.WriteSessionCookie(ctx, c.Writer, token, expires)
		}
	case scs.Destroyed:
		a.sessions.WriteSessionCookie(ctx, c.Writer, "", time.Time{})
	}
}

// committing writes the session's cookie before the head of an answer goes out.
type committing struct {
	gin.ResponseWriter
	commit func()
	done   bool
}

func (w *committing) once() {
	if !w.done {
		w.done = true
		if !w.Written() {
			w.commit()
		}
	}
}
func (w *committing) WriteHeader(status int)      { w.once(); w.ResponseWriter.WriteHeader(status) }
func (w *committing) WriteHeaderNow()             { w.once(); w.ResponseWriter.WriteHeaderNow() }
func (w *committing) Write(b []byte) (int, error) { w.once(); return w.ResponseWriter.Write(b) }
func (w *committing) WriteString(s string) (int, error) {
	w.once()
	return w.ResponseWriter.WriteString(s)
}

// Tries at a passphrase or a code: so many at once from an address, then one every so
// often.
const (
	triesAtOnce = 6
	tryEvery    = 20 * time.Second
	mostTriers  = 10_000
)

// try reports whether an address may try again now.
func (a *Access) try(from string) bool {
	a.mu.Lock()
	defer a.mu.Unlock()
	if len(a.tries) > mostTriers {
		clear(a.tries)
	}
	l := a.tries[from]
	if l == nil {
		l = rate.NewLimiter(rate.Every(tryEvery), triesAtOnce)
		a.tries[from] = l
	}
	return l.Allow()
}

type addressKey struct{}

// addressOf is the address a request came from, without its port.
func addressOf(ctx context.Context) string {
	from, _ := ctx.Value(addressKey{}).(string)
	return from
}

func withAddress(c *gin.Context) {
	host, _, err := net.SplitHostPort(c.Request.RemoteAddr)
	if err != nil {
		host = c.Request.RemoteAddr
	}
	c.Request = c.Request.WithContext(context.WithValue(c.Request.Context(), addressKey{}, host))
	c.Next()
}

func tooMany() error {
	return newProblem(http.StatusTooManyRequests, "Too many tries from here. Wait a minute.")
}

// learnerOf is the learner of a joined phone.
func learnerOf(ctx context.Context) (int64, error) {
	a := accessOf(ctx)
	if a == nil || a.sessions.GetString(ctx, "role") != roleLearner {
		return 0, newProblem(http.StatusForbidden, "This is for phones that joined a lesson.")
	}
	return a.sessions.GetInt64(ctx, "learner"), nil
}

// instructs reports whether it is the instructor who asks, or nobody else can.
func instructs(ctx context.Context) bool {
	a := accessOf(ctx)
	return a == nil || a.sessions.GetString(ctx, "role") == roleInstructor
}

func access(a huma.API) {
	huma.Register(a, op("access", "session", http.MethodGet, "/session", "Who one is"),
		func(ctx context.Context, _ *struct{}) (*body[Session], error) {
			out, err := sessionOf(ctx)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("access", "sign-in", http.MethodPost, "/session", "Sign in as the instructor"),
		func(ctx context.Context, in *struct {
			Body struct {
				Passphrase string `json:"passphrase" maxLength:"200"`
			}
		}) (*body[Session], error) {
			x := accessOf(ctx)
			if x == nil {
				return answered(ctx, Session{Role: "open"}, nil)
			}
			if !x.try(addressOf(ctx)) {
				return nil, tooMany()
			}
			ok, err := of(ctx).Passes(ctx, in.Body.Passphrase)
			if err != nil && !errors.Is(err, app.ErrNotFound) {
				return nil, fail(ctx, err)
			}
			if !ok {
				return nil, fail(ctx, problem.New("passphrase", "is not the one", "try again; who set it can set another on the server's machine"))
			}
			return x.begin(ctx, roleInstructor, 0)
		})
	huma.Register(a, op("access", "set-passphrase", http.MethodPost, "/session/setup", "Set the passphrase, with the code that the terminal shows"),
		func(ctx context.Context, in *struct {
			Body struct {
				Code       string `json:"code" maxLength:"40"`
				Passphrase string `json:"passphrase" maxLength:"200"`
			}
		}) (*body[Session], error) {
			x := accessOf(ctx)
			if x == nil || x.setup == "" {
				return nil, newProblem(http.StatusForbidden, "A passphrase is set already.")
			}
			if !x.try(addressOf(ctx)) {
				return nil, tooMany()
			}
			if !app.SameCode(in.Body.Code, x.setup) {
				return nil, fail(ctx, problem.New("code", "is not the one", "read it on the terminal in which Oarweed was started"))
			}
			if err := of(ctx).SetPassphrase(ctx, in.Body.Passphrase); err != nil {
				return nil, fail(ctx, err)
			}
			x.setup = ""
			return x.begin(ctx, roleInstructor, 0)
		})
	huma.Register(a, op("access", "sign-out", http.MethodDelete, "/session", "Sign out"),
		func(ctx context.Context, _ *struct{}) (*struct{}, error) {
			if x := accessOf(ctx); x != nil {
				return gone(ctx, x.sessions.Destroy(ctx))
			}
			return nil, nil
		})
	huma.Register(a, op("access", "join", http.MethodPost, "/join", "Join a lesson with its code"),
		func(ctx context.Context, in *struct {
			Body struct {
				Code string `json:"code" maxLength:"40"`
				Name string `json:"name" maxLength:"80"`
			}
		}) (*body[Session], error) {
			x := accessOf(ctx)
			if x == nil {
				return nil, newProblem(http.StatusForbidden, "Phones can join when the server listens beyond this machine: start it with --addr 0.0.0.0:8080.")
			}
			if !x.try(addressOf(ctx)) {
				return nil, tooMany()
			}
			l, until, err := of(ctx).JoinAs(ctx, in.Body.Code, in.Body.Name)
			if err != nil {
				return nil, fail(ctx, err)
			}
			out, err := x.begin(ctx, roleLearner, l.ID)
			if err == nil {
				// It ends with the lesson.
				x.sessions.Put(ctx, "until", until.Unix())
			}
			return out, err
		})
	huma.Register(a, created(op("access", "add-join", http.MethodPost, "/joins", "Make a code with which learners' phones join; it is shown once")),
		func(ctx context.Context, in *struct {
			Body struct {
				Group   string `json:"group,omitempty" maxLength:"80"`
				Minutes int    `json:"minutes" minimum:"1" maximum:"960"`
			}
		}) (*record[app.Join], error) {
			out, err := of(ctx).AddJoin(ctx, in.Body.Group, in.Body.Minutes)
			return made(ctx, out, "joins", out.ID, 1, true, err)
		})
	huma.Register(a, op("access", "joins", http.MethodGet, "/joins", "The codes that hold"),
		func(ctx context.Context, _ *struct{}) (*body[[]app.Join], error) {
			out, err := of(ctx).Joins(ctx)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("access", "end-join", http.MethodDelete, "/joins/{id}", "End a code"),
		func(ctx context.Context, in *IDPath) (*struct{}, error) {
			return gone(ctx, of(ctx).EndJoin(ctx, in.ID))
		})
	huma.Register(a, op("access", "me", http.MethodGet, "/me", "A joined learner's own page"),
		func(ctx context.Context, _ *struct{}) (*body[*app.Person], error) {
			id, err := learnerOf(ctx)
			if err != nil {
				return nil, err
			}
			out, err := of(ctx).Person(ctx, id)
			return answered(ctx, out, err)
		})
	huma.Register(a, created(op("access", "my-attempt", http.MethodPost, "/me/attempts", "A joined learner's own attempt, judged by himself")),
		func(ctx context.Context, in *struct{ Body practice.Attempt }) (*record[practice.Attempt], error) {
			id, err := learnerOf(ctx)
			if err != nil {
				return nil, err
			}
			in.Body.ID, in.Body.LearnerID, in.Body.Judged = 0, id, "self"
			out, added, err := of(ctx).AddAttempt(ctx, in.Body)
			if err == nil && out.LearnerID != id {
				// The key is that of somebody else's attempt: nothing of it is told.
				return nil, newProblem(http.StatusConflict, "This attempt was sent by somebody else.")
			}
			return made(ctx, out, "me/attempts", out.ID, out.ID, added, err)
		})
}

// begin signs somebody in under a new token, so that one known before is worth nothing.
func (a *Access) begin(ctx context.Context, role string, learner int64) (*body[Session], error) {
	if err := a.sessions.RenewToken(ctx); err != nil {
		return nil, fail(ctx, err)
	}
	a.sessions.Put(ctx, "role", role)
	a.sessions.Put(ctx, "learner", learner)
	a.sessions.Remove(ctx, "until")
	out, err := sessionOf(ctx)
	return answered(ctx, out, err)
}

func sessionOf(ctx context.Context) (Session, error) {
	a := accessOf(ctx)
	if a == nil {
		return Session{Role: "open"}, nil
	}
	out := Session{Role: "none", Plain: !a.tls}
	switch role := a.sessions.GetString(ctx, "role"); {
	case role == roleInstructor:
		out.Role = role
	case role == roleLearner:
		l, err := of(ctx).Records().Learner(ctx, a.sessions.GetInt64(ctx, "learner"))
		if errors.Is(err, app.ErrNotFound) {
			return out, a.sessions.Destroy(ctx)
		}
		if err != nil {
			return out, err
		}
		out.Role, out.Learner = role, &l
	case a.setup != "":
		out.Role = "setup"
	}
	return out, nil
}
