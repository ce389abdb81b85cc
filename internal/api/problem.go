package api

import (
	"context"
	"errors"
	"log/slog"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/problem"
	"oarweed/internal/store"
)

// Problem is an RFC 9457 problem document with the fields at fault.
type Problem struct {
	Type   string  `json:"type"`
	Title  string  `json:"title"`
	Status int     `json:"status"`
	Detail string  `json:"detail"`
	Fields []Field `json:"fields,omitempty" nullable:"false" doc:"what is wrong with which field, and what would put it right"`
}

// Field is one complaint about one field.
type Field struct {
	Field   string `json:"field"`
	Message string `json:"message"`
	Fix     string `json:"fix,omitempty"`
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
				p.Fields = append(p.Fields, Field{Field: field, Message: d.Message})
			}
		}
		if status >= http.StatusInternalServerError {
			p.Detail = "Something went wrong in Oarweed. Nothing was changed; try again."
		} else if len(p.Fields) > 0 {
			p.Detail = "Some of what was sent cannot be used."
		}
		return p
	}
}

func newProblem(status int, detail string) *Problem {
	return &Problem{Type: "about:blank", Title: http.StatusText(status), Status: status, Detail: detail}
}

// InputProblem is the problem document of an input error; nil for other errors.
func InputProblem(err error) *Problem {
	var bad *problem.Error
	if !errors.As(err, &bad) {
		return nil
	}
	p := newProblem(http.StatusUnprocessableEntity, "Some of what was sent cannot be used.")
	for _, f := range bad.Fields {
		p.Fields = append(p.Fields, Field{f.Path, f.Message, f.Fix})
	}
	return p
}

// fail turns an error of the core or the store into a problem document.
func fail(ctx context.Context, err error) error {
	if p := InputProblem(err); p != nil {
		return p
	}
	if errors.Is(err, store.ErrNotFound) {
		return newProblem(http.StatusNotFound, "There is nothing here by that number.")
	}
	slog.ErrorContext(ctx, "request failed", "error", err)
	return newProblem(http.StatusInternalServerError, "Something went wrong in Oarweed. Nothing was changed; try again.")
}
