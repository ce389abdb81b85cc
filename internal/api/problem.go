package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/internal/app"
)

// Problem is an RFC 9457 problem document with the fields at fault.
type Problem struct {
	Type   string          `json:"type"`
	Title  string          `json:"title"`
	Status int             `json:"status"`
	Detail string          `json:"detail"`
	Fields []problem.Field `json:"fields,omitempty" nullable:"false" doc:"what is wrong with which field, and what would put it right"`
	// Kept is the record that stands in the way of a change: as it was changed meanwhile,
	// or the one that has the name.
	Kept any `json:"kept,omitempty" doc:"the record as it is kept, where a change conflicts with it"`
	// NameTaken: another record has the name; else it was changed meanwhile.
	NameTaken bool `json:"name_taken,omitempty"`
}

func (p *Problem) Error() string             { return p.Detail }
func (p *Problem) GetStatus() int            { return p.Status }
func (p *Problem) ContentType(string) string { return "application/problem+json" }

func init() {
	// Huma's own errors would echo rejected values and internal error text.
	huma.NewError = func(status int, message string, errs ...error) huma.StatusError {
		p := newProblem(status, message)
		for _, err := range errs {
			var d *huma.ErrorDetail
			if errors.As(err, &d) {
				field := strings.TrimPrefix(strings.TrimPrefix(d.Location, "body"), ".")
				field = strings.TrimPrefix(field, "query.")
				p.Fields = append(p.Fields, problem.Field{Path: field, Message: d.Message})
			}
		}
		switch {
		case status >= http.StatusInternalServerError:
			p.Detail = broken().Detail
		case status == http.StatusRequestEntityTooLarge:
			p.Detail = fmt.Sprintf("That is more than the %d kB one request may hold; a rig has at most %d joints.", rig.MaxText>>10, rig.MaxJoints)
		case len(p.Fields) > 0:
			p.Detail = inputDetail
		}
		return p
	}
}

const inputDetail = "Please correct what is named."

func newProblem(status int, detail string) *Problem {
	return &Problem{Type: "about:blank", Title: http.StatusText(status), Status: status, Detail: detail}
}

func broken() *Problem {
	return newProblem(http.StatusInternalServerError, "Something went wrong in Oarweed. Nothing was changed; try again.")
}

// InputProblem is the problem document of an input error; nil for other errors.
func InputProblem(err error) *Problem {
	var bad *problem.Error
	if !errors.As(err, &bad) {
		return nil
	}
	p := newProblem(http.StatusUnprocessableEntity, inputDetail)
	p.Fields = bad.Fields
	return p
}

// statusClientLeft is said of a request whose client has gone; nobody reads it.
const statusClientLeft = 499

// fail turns an error of the core, of a use case or of the store into a problem.
func fail(ctx context.Context, err error) error {
	var already *Problem
	var conflict *app.Conflict
	switch {
	case errors.As(err, &already):
		return already
	case errors.As(err, &conflict):
		p := newProblem(http.StatusConflict, "Somebody changed this meanwhile. Nothing of yours was saved yet.")
		if conflict.NameTaken {
			p.Detail = "Another one has this name already. Nothing was saved yet."
		}
		p.Kept, p.NameTaken = conflict.Kept, conflict.NameTaken
		return p
	case errors.Is(err, app.ErrNotFound):
		return newProblem(http.StatusNotFound, "There is nothing here by that number.")
	case errors.Is(err, app.ErrBusy):
		return huma.ErrorWithHeaders(newProblem(http.StatusServiceUnavailable, "Too many computations are waiting. Try again in a moment."), http.Header{"Retry-After": {"2"}})
	case left(err):
		return newProblem(statusClientLeft, "The one who asked has gone.")
	}
	if p := InputProblem(err); p != nil {
		return p
	}
	slog.ErrorContext(ctx, "request failed", "error", err)
	return broken()
}

func problemOn(c *gin.Context, p *Problem) {
	c.Abort()
	writeProblem(c.Writer, p)
}

func writeProblem(w http.ResponseWriter, p *Problem) {
	text, err := json.Marshal(p)
	if err != nil {
		http.Error(w, p.Detail, p.Status)
		return
	}
	w.Header().Set("Content-Type", p.ContentType(""))
	w.WriteHeader(p.Status)
	_, _ = w.Write(text)
}
