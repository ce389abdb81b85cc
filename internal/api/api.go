// Package api serves the use cases of package app over HTTP: typed endpoints under
// /api/v1/, described by /api/v1/openapi.json, and the built front end for every other
// path. It holds no rules of the job and knows one school only through the context of a
// request, so that one process can come to serve many.
package api

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"path"
	"reflect"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"

	"oarweed/core/rig"
	"oarweed/internal/app"
)

// Base of every address of the API.
const Base = "/api/v1"

// Options of the server.
type Options struct {
	// Hosts are names, beside localhost and any literal address, by which the server may
	// be called: see [Guard].
	Hosts []string
	// Access asks who one is; nil where the server listens to this machine alone.
	Access *Access
	// Log one line for each request.
	Log bool
}

// New builds the handler for a school. With a school that keeps no records only the
// description can be read.
func New(school *app.School, site http.Handler, o Options) (http.Handler, huma.API) {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.Use(gin.CustomRecovery(func(c *gin.Context, _ any) { problemOn(c, broken()) }))
	config := huma.DefaultConfig("Oarweed", "1")
	config.Info.Description = "Knots chosen, proved and taught. JSON in and out; names carry their units. Bad input is answered with RFC 9457 problem documents that name the field and the fix."
	config.OpenAPIPath = ""
	config.DocsPath = ""
	config.SchemasPath = ""
	config.CreateHooks = nil
	config.Components.Schemas = huma.NewMapRegistry("#/components/schemas/", schemaName)
	group := r.Group("", withAddress, tenant(school))
	if o.Access != nil {
		group.Use(o.Access.middleware)
	}
	group.Use(cached(time.Now()), inUnits)
	a := humagin.NewWithGroup(r, group, config)
	for _, t := range tags {
		a.OpenAPI().Tags = append(a.OpenAPI().Tags, &t)
	}
	answers(a)
	knots(a)
	drawnUpKnots(a)
	drills(a)
	traces(a)
	lessonsOf(a)
	jobs(a)
	cards(a)
	rigs(a)
	lines(a)
	learners(a)
	attempts(a)
	teaching(a)
	access(a)
	inspections(a)
	benches(a)
	onTheWater(a)
	doctrines(a)
	description(r, a)
	r.GET("/healthz", tenant(school), health)
	r.GET("/feeds/:word", tenant(school), calendar)
	r.NoRoute(func(c *gin.Context) {
		if c.Request.URL.Path == "/api" || strings.HasPrefix(c.Request.URL.Path, "/api/") {
			problemOn(c, newProblem(http.StatusNotFound, "There is nothing at this address."))
			return
		}
		// gin has set 404 on its writer; the site decides for itself.
		c.Status(http.StatusOK)
		site.ServeHTTP(c.Writer, c.Request)
	})
	r.HandleMethodNotAllowed = true
	r.NoMethod(func(c *gin.Context) {
		problemOn(c, newProblem(http.StatusMethodNotAllowed, "This cannot be done at this address."))
	})
	h := Guard(headAsGet(r), o.Hosts)
	if o.Log {
		h = accessLog(h)
	}
	return h, a
}

var tags = []huma.Tag{
	{Name: "choice", Description: "Rank knots for a rig, judge a chain, ask what would change the answer"},
	{Name: "knots", Description: "What the trade knows, drawings, handouts, the crossing drill"},
	{Name: "jobs", Description: "Sums and guided cards: loads, turns, strengths, soft shackles"},
	{Name: "records", Description: "Rigs, lines, learners and attempts that are kept"},
	{Name: "bench", Description: "Pulls on a bench: series, the load cell, traces, what they say"},
	{Name: "doctrines", Description: "Where practitioners disagree, and what is taught here"},
}

// op describes an operation under [Base].
func op(tag, id, method, at, summary string) huma.Operation {
	return huma.Operation{OperationID: id, Method: method, Path: Base + at, Summary: summary, Tags: []string{tag}, MaxBodyBytes: rig.MaxText}
}

// health says whether the server and its database answer.
func health(c *gin.Context) {
	if err := app.Of(c.Request.Context()).Records().Ping(c.Request.Context()); err != nil {
		problemOn(c, newProblem(http.StatusServiceUnavailable, "The database does not answer."))
		return
	}
	c.JSON(http.StatusOK, gin.H{"status": "ok"})
}

// schemaName puts the package before the type, since several packages have, say,
// a Line; the documents of app and the types of this package stand alone.
func schemaName(t reflect.Type, hint string) string {
	name := huma.DefaultSchemaNamer(t, hint)
	for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice {
		t = t.Elem()
	}
	if pkg := path.Base(t.PkgPath()); pkg != "." && pkg != "api" && pkg != "app" && t.Name() != "" && !strings.Contains(t.Name(), "[") {
		return strings.ToUpper(pkg[:1]) + pkg[1:] + name
	}
	return name
}

// IDPath is the path of everything with a number.
type IDPath struct {
	ID int64 `path:"id" minimum:"1"`
}

// IfMatch says to which revision of a record a change was made.
type IfMatch struct {
	Revision string `header:"If-Match" doc:"revision that the change was made to, as the ETag of the record gave it"`
}

// revision reads the header; without it there is nothing to hold the change against.
func (m IfMatch) revision() (int64, error) {
	if m.Revision == "" {
		return 0, newProblem(http.StatusPreconditionRequired, "Say in If-Match to which revision the change was made.")
	}
	n, err := strconv.ParseInt(strings.Trim(strings.TrimPrefix(m.Revision, "W/"), `"`), 10, 64)
	if err != nil {
		return 0, newProblem(http.StatusUnprocessableEntity, "If-Match is not the ETag of a record.")
	}
	return n, nil
}

// body wraps an answer.
type body[T any] struct {
	Body T
}

// answered gives an answer, or the problem instead.
func answered[T any](ctx context.Context, v T, err error) (*body[T], error) {
	if err != nil {
		return nil, fail(ctx, err)
	}
	return &body[T]{v}, nil
}

// record is an answer with the revision of what it holds.
type record[T any] struct {
	Status   int
	Location string `header:"Location"`
	ETag     string `header:"ETag"`
	Body     T
}

func kept[T any](ctx context.Context, v T, revision int64, err error) (*record[T], error) {
	if err != nil {
		return nil, fail(ctx, err)
	}
	return &record[T]{Status: http.StatusOK, ETag: fmt.Sprintf(`"%d"`, revision), Body: v}, nil
}

// made is an answer for a new record, or for one that was there already.
func made[T any](ctx context.Context, v T, at string, id, revision int64, added bool, err error) (*record[T], error) {
	out, err := kept(ctx, v, revision, err)
	if err == nil {
		out.Location = fmt.Sprintf("%s/%s/%d", Base, at, id)
		if added {
			out.Status = http.StatusCreated
		}
	}
	return out, err
}

// gone answers for what was removed.
func gone(ctx context.Context, err error) (*struct{}, error) {
	if err != nil {
		return nil, fail(ctx, err)
	}
	return nil, nil
}

// of is the school that a request is for.
func of(ctx context.Context) *app.School { return app.Of(ctx) }

// left reports whether the one who asked has gone.
func left(err error) bool { return errors.Is(err, context.Canceled) }
