package api

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/internal/store"
)

func op(id, method, path, summary string) huma.Operation {
	return huma.Operation{OperationID: id, Method: method, Path: path, Summary: summary}
}

func (s *server) lines(a huma.API) {
	huma.Register(a, op("lines", http.MethodGet, "/api/lines", "The locker"),
		func(ctx context.Context, _ *struct{}) (*body[[]store.Line], error) {
			return listed[store.Line](ctx)(s.store.Lines(ctx))
		})
	save := func(ctx context.Context, l store.Line) (*body[made], error) {
		var bad problem.List
		if strings.TrimSpace(l.Name) == "" {
			bad.Add("name", "missing", "give the line a name")
		}
		bad.Take("", s.cat().CheckLine(&l.Line))
		if err := bad.Err(); err != nil {
			return nil, fail(ctx, err)
		}
		return saved(ctx)(s.store.SaveLine(ctx, l))
	}
	huma.Register(a, op("add-line", http.MethodPost, "/api/lines", "Put a line in the locker"),
		func(ctx context.Context, in *struct{ Body store.Line }) (*body[made], error) {
			in.Body.ID = 0
			return save(ctx, in.Body)
		})
	huma.Register(a, op("change-line", http.MethodPut, "/api/lines/{id}", "Change a line of the locker"),
		func(ctx context.Context, in *struct {
			IDPath
			Body store.Line
		}) (*body[made], error) {
			in.Body.ID = in.ID
			return save(ctx, in.Body)
		})
	huma.Register(a, op("remove-line", http.MethodDelete, "/api/lines/{id}", "Take a line out of the locker"),
		func(ctx context.Context, in *IDPath) (*struct{}, error) {
			return removed(ctx, s.store.DeleteLine(ctx, in.ID))
		})
}

func (s *server) rigs(a huma.API) {
	huma.Register(a, op("rigs", http.MethodGet, "/api/rigs", "Saved rigs"),
		func(ctx context.Context, _ *struct{}) (*body[[]store.Rig], error) {
			return listed[store.Rig](ctx)(s.store.Rigs(ctx))
		})
	save := func(ctx context.Context, r store.Rig) (*body[made], error) {
		var bad problem.List
		r.Rig.Name = strings.TrimSpace(r.Rig.Name)
		if r.Rig.Name == "" {
			bad.Add("rig.name", "missing", "give the rig a name")
		}
		full, err := s.cat().Fill(r.Rig)
		bad.Take("rig", err)
		if err := bad.Err(); err != nil {
			return nil, fail(ctx, err)
		}
		// Kept with its defaults, so that it means the same later on.
		r.Rig = full
		return saved(ctx)(s.store.SaveRig(ctx, r))
	}
	huma.Register(a, op("rig", http.MethodGet, "/api/rigs/{id}", "A saved rig"),
		func(ctx context.Context, in *IDPath) (*body[store.Rig], error) {
			r, err := s.store.Rig(ctx, in.ID)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return answer(r), nil
		})
	huma.Register(a, op("add-rig", http.MethodPost, "/api/rigs", "Save a rig"),
		func(ctx context.Context, in *struct{ Body store.Rig }) (*body[made], error) {
			in.Body.ID = 0
			return save(ctx, in.Body)
		})
	huma.Register(a, op("change-rig", http.MethodPut, "/api/rigs/{id}", "Change a saved rig"),
		func(ctx context.Context, in *struct {
			IDPath
			Body store.Rig
		}) (*body[made], error) {
			in.Body.ID = in.ID
			return save(ctx, in.Body)
		})
	huma.Register(a, op("remove-rig", http.MethodDelete, "/api/rigs/{id}", "Remove a saved rig"),
		func(ctx context.Context, in *IDPath) (*struct{}, error) {
			return removed(ctx, s.store.DeleteRig(ctx, in.ID))
		})
}

func (s *server) class(a huma.API) {
	huma.Register(a, op("learners", http.MethodGet, "/api/learners", "The learners"),
		func(ctx context.Context, _ *struct{}) (*body[[]store.Learner], error) {
			return listed[store.Learner](ctx)(s.store.Learners(ctx))
		})
	huma.Register(a, op("add-learner", http.MethodPost, "/api/learners", "Add a learner"),
		func(ctx context.Context, in *struct{ Body store.Learner }) (*body[store.Learner], error) {
			name := strings.Join(strings.Fields(in.Body.Name), " ")
			if name == "" {
				return nil, fail(ctx, problem.New("name", "missing", "type the learner's name"))
			}
			l, err := s.store.AddLearner(ctx, name)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return answer(l), nil
		})
	huma.Register(a, op("attempts", http.MethodGet, "/api/attempts", "The latest attempts"),
		func(ctx context.Context, in *struct {
			Knot  string `query:"knot"`
			Limit int    `query:"limit" default:"50" minimum:"1" maximum:"1000"`
		}) (*body[[]store.Attempt], error) {
			return listed[store.Attempt](ctx)(s.store.Attempts(ctx, in.Knot, in.Limit))
		})
	huma.Register(a, op("add-attempt", http.MethodPost, "/api/attempts", "Record an attempt"),
		func(ctx context.Context, in *struct{ Body store.Attempt }) (*body[made], error) {
			if err := s.checkAttempt(ctx, in.Body); err != nil {
				return nil, fail(ctx, err)
			}
			return saved(ctx)(s.store.AddAttempt(ctx, in.Body))
		})
	huma.Register(a, op("remove-attempt", http.MethodDelete, "/api/attempts/{id}", "Take an attempt back"),
		func(ctx context.Context, in *IDPath) (*struct{}, error) {
			return removed(ctx, s.store.DeleteAttempt(ctx, in.ID))
		})
}

func (s *server) checkAttempt(ctx context.Context, at store.Attempt) error {
	var bad problem.List
	learners, err := s.store.Learners(ctx)
	if err != nil {
		return err
	}
	if !slices.ContainsFunc(learners, func(l store.Learner) bool { return l.ID == at.LearnerID }) {
		bad.Add("learner_id", "no such learner", "choose a learner, or add one")
	}
	k := s.cat().Knot(at.Knot)
	if k == nil {
		bad.Add("knot", fmt.Sprintf("%q is not in the catalogue", at.Knot), "choose a knot")
	} else {
		known := slices.ContainsFunc(k.Faults, func(f knot.Fault) bool { return f.Code == at.Fault })
		switch {
		case at.Kind == "drill":
			// What was made is told by the drill, not by a fault of the catalogue.
		case at.Outcome == "fault" && !known:
			bad.Add("fault", "say which fault it was", "choose one of the knot's faults")
		case at.Outcome != "fault" && at.Fault != "":
			bad.Add("fault", "goes only with the outcome fault", "drop it, or change the outcome")
		}
	}
	return bad.Err()
}

// listed, saved and removed turn what the store gave into an answer.
func listed[T any](ctx context.Context) func([]T, error) (*body[[]T], error) {
	return func(list []T, err error) (*body[[]T], error) {
		if err != nil {
			return nil, fail(ctx, err)
		}
		return answer(list), nil
	}
}

func saved(ctx context.Context) func(int64, error) (*body[made], error) {
	return func(id int64, err error) (*body[made], error) {
		if err != nil {
			return nil, fail(ctx, err)
		}
		return answer(made{id}), nil
	}
}

func removed(ctx context.Context, err error) (*struct{}, error) {
	if err != nil {
		return nil, fail(ctx, err)
	}
	return nil, nil
}
