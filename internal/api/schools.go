package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/knot"
)

// Schools are the questions on which practitioners disagree, and what was chosen.
type Schools struct {
	Questions []*knot.Question `json:"questions" nullable:"false"`
	// Chosen maps question ids to school ids; what is left out is taught the usual way.
	Chosen map[string]string `json:"chosen"`
}

// teach makes the chosen schools count from now on.
func (s *server) teach(chosen map[string]string) error {
	of, err := s.cat().Of(chosen)
	if err == nil {
		s.current.Store(of)
	}
	return err
}

func (s *server) schools(a huma.API) {
	if s.store != nil {
		// What no longer exists is taught the usual way until it is chosen again.
		if chosen, err := s.store.Schools(context.Background()); err == nil {
			_ = s.teach(chosen)
		}
	}
	huma.Register(a, op("schools", http.MethodGet, "/api/schools", "Where practitioners disagree, and what you teach"),
		func(ctx context.Context, _ *struct{}) (*body[Schools], error) {
			chosen, err := s.store.Schools(ctx)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return answer(Schools{s.cat().Schools, chosen}), nil
		})
	huma.Register(a, op("choose-schools", http.MethodPut, "/api/schools", "Choose what you teach"),
		func(ctx context.Context, in *struct {
			Body struct {
				Chosen map[string]string `json:"chosen"`
			}
		}) (*body[Schools], error) {
			if _, err := s.cat().Of(in.Body.Chosen); err != nil {
				return nil, fail(ctx, err)
			}
			if err := s.store.SetSchools(ctx, in.Body.Chosen); err != nil {
				return nil, fail(ctx, err)
			}
			if err := s.teach(in.Body.Chosen); err != nil {
				return nil, fail(ctx, err)
			}
			return answer(Schools{s.cat().Schools, in.Body.Chosen}), nil
		})
}
