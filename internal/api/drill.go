package api

import (
	"context"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/catalogue"
	"oarweed/core/problem"
	"oarweed/core/shape"
)

// DrillPage is what a learner needs to work a crossing drill.
type DrillPage struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Frame is left, top, width and height of the drawing in its own units.
	Frame     []float64             `json:"frame" nullable:"false"`
	Crossings []shape.DrillCrossing `json:"crossings" nullable:"false"`
	// Choices is the number of ways to set all crossings, Tangles how many different
	// tangles they make.
	Choices int `json:"choices"`
	Tangles int `json:"tangles"`
}

// parseSet reads "ao,bu": o where the strand that comes by first is over.
func parseSet(text string) (map[string]bool, error) {
	set := map[string]bool{}
	for _, w := range strings.FieldsFunc(text, func(r rune) bool { return r == ',' }) {
		name, sign := w[:len(w)-1], w[len(w)-1]
		if name == "" || sign != 'o' && sign != 'u' {
			return nil, problem.New("set", fmt.Sprintf("%q is not a crossing with o or u", w), "write set=ao,bu")
		}
		set[name] = sign == 'o'
	}
	return set, nil
}

func (s *server) drills(a huma.API) {
	type input struct {
		ID string `path:"id"`
		// Set lists crossings as "ao,bu": o where the strand that comes by first is over.
		Set string `query:"set" maxLength:"200"`
	}
	find := func(ctx context.Context, id string) (*shape.Drill, error) {
		d, err := s.cat().Drill(id)
		if err != nil {
			return nil, fail(ctx, err)
		}
		if d == nil {
			return nil, newProblem(http.StatusNotFound, fmt.Sprintf("There is no crossing drill for %q.", id))
		}
		return d, nil
	}
	huma.Register(a, op("drill", http.MethodGet, "/api/knots/{id}/drill", "The crossing drill of a knot"),
		func(ctx context.Context, in *struct {
			ID string `path:"id"`
		}) (*body[DrillPage], error) {
			d, err := find(ctx, in.ID)
			if err != nil {
				return nil, err
			}
			f := d.Frame()
			return answer(DrillPage{in.ID, s.cat().Knot(in.ID).Name, f[:], d.Crossings, 1 << len(d.Crossings), len(d.Classes())}), nil
		})
	huma.Register(a, op("drill-drawing", http.MethodGet, "/api/knots/{id}/drill.svg", "The drill with some crossings set, as SVG"),
		func(ctx context.Context, in *input) (*picture, error) {
			d, err := find(ctx, in.ID)
			if err != nil {
				return nil, err
			}
			set, err := parseSet(in.Set)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return svg(d.Shadow(shape.Options{Look: shape.LookLaid, Title: "Crossing drill"}, set)), nil
		})
	huma.Register(a, op("drill-verdict", http.MethodGet, "/api/knots/{id}/drill/verdict", "Which knot the crossings make"),
		func(ctx context.Context, in *input) (*body[catalogue.Verdict], error) {
			if _, err := find(ctx, in.ID); err != nil {
				return nil, err
			}
			set, err := parseSet(in.Set)
			if err != nil {
				return nil, fail(ctx, err)
			}
			v, err := s.cat().Verdict(in.ID, set)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return answer(v), nil
		})
}
