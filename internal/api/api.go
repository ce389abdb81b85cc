// Package api serves the core over HTTP: typed endpoints under /api/, described
// by /api/openapi.json, and the built front end for every other path. It holds
// no rules of the job.
package api

import (
	"net/http"
	"path"
	"reflect"
	"strings"
	"sync/atomic"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"

	"oarweed/catalogue"
	"oarweed/internal/store"
)

// server is what the endpoints work on.
type server struct {
	// current is the catalogue as the chosen schools see it.
	current atomic.Pointer[catalogue.Catalogue]
	store   *store.Store
}

func (s *server) cat() *catalogue.Catalogue { return s.current.Load() }

// New builds the handler. With a nil store only the description can be read.
func New(cat *catalogue.Catalogue, st *store.Store, site http.Handler) (http.Handler, huma.API) {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.Use(gin.Recovery())
	config := huma.DefaultConfig("Oarweed", "1")
	config.OpenAPIPath = "/api/openapi"
	config.DocsPath = ""
	config.SchemasPath = ""
	config.CreateHooks = nil
	config.Components.Schemas = huma.NewMapRegistry("#/components/schemas/", schemaName)
	a := humagin.New(r, config)
	s := &server{store: st}
	s.current.Store(cat)
	s.schools(a)
	s.whole(a)
	s.answers(a)
	s.knots(a)
	s.lines(a)
	s.rigs(a)
	s.class(a)
	missing := func(c *gin.Context) {
		if c.Request.URL.Path == "/api" || strings.HasPrefix(c.Request.URL.Path, "/api/") {
			p := newProblem(http.StatusNotFound, "There is nothing at this address.")
			c.Header("Content-Type", p.ContentType(""))
			c.JSON(p.Status, p)
			return
		}
		// gin has set 404 on its writer; the site decides for itself.
		c.Status(http.StatusOK)
		site.ServeHTTP(c.Writer, c.Request)
	}
	r.NoRoute(missing)
	r.HandleMethodNotAllowed = true
	r.NoMethod(func(c *gin.Context) {
		p := newProblem(http.StatusMethodNotAllowed, "This cannot be done at this address.")
		c.Header("Content-Type", p.ContentType(""))
		c.JSON(p.Status, p)
	})
	return r, a
}

// schemaName puts the package before the type, since several packages have, say,
// a Line; the types of this one stand alone.
func schemaName(t reflect.Type, hint string) string {
	name := huma.DefaultSchemaNamer(t, hint)
	for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice {
		t = t.Elem()
	}
	if pkg := path.Base(t.PkgPath()); pkg != "." && pkg != "api" && t.Name() != "" && !strings.Contains(t.Name(), "[") {
		return strings.ToUpper(pkg[:1]) + pkg[1:] + name
	}
	return name
}

// IDPath is the path of everything with a number.
type IDPath struct {
	ID int64 `path:"id" minimum:"1"`
}

// body wraps an answer.
type body[T any] struct {
	Body T
}

func answer[T any](v T) *body[T] { return &body[T]{v} }

// made is what saving answers.
type made struct {
	ID int64 `json:"id"`
}
