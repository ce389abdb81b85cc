package api

import (
	"context"
	"fmt"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/catalogue"
	"oarweed/core/friction"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/rig"
	"oarweed/core/shape"
	"oarweed/internal/export"
)

// Catalogue is the vocabulary, and the knots in short.
type Catalogue struct {
	Materials []*line.Material       `json:"materials" nullable:"false"`
	Surfaces  []*line.Surface        `json:"surfaces" nullable:"false"`
	Fittings  []*rig.FittingKind     `json:"fittings" nullable:"false"`
	Tasks     []*rig.Task            `json:"tasks" nullable:"false"`
	Weights   map[string]rig.Weights `json:"weights"`
	Cautions  []rig.Caution          `json:"cautions" nullable:"false"`
	Knots     []KnotBrief            `json:"knots" nullable:"false"`
	// Templates are rigs to begin with, Procedures jobs with a guided card.
	Templates  []catalogue.Template   `json:"templates" nullable:"false"`
	Procedures []*catalogue.Procedure `json:"procedures" nullable:"false"`
	// Hitches are what a hold can be worked out for.
	Hitches []friction.Choice `json:"hitches" nullable:"false"`
}

// KnotBrief is a knot in a list.
type KnotBrief struct {
	ID         string    `json:"id"`
	Name       string    `json:"name"`
	Also       []string  `json:"also,omitempty" nullable:"false"`
	Kind       knot.Kind `json:"kind"`
	Summary    string    `json:"summary"`
	Difficulty int       `json:"difficulty"`
	Drawn      bool      `json:"drawn"`
	// Tasks with how well it fits each, 0 to 1.
	Tasks map[string]float64 `json:"tasks"`
	// NotIn lists the materials it is not tied in, or slips in.
	NotIn []string `json:"not_in" nullable:"false"`
	// GrowsFrom: knots that help with learning it.
	GrowsFrom []catalogue.Relative `json:"grows_from" nullable:"false"`
}

// KnotPage is everything about a knot.
type KnotPage struct {
	knot.Knot
	Drawn bool `json:"drawn"`
	// Drill: it has a crossing drill.
	Drill     bool                 `json:"drill"`
	GrowsFrom []catalogue.Relative `json:"grows_from" nullable:"false"`
	LeadsTo   []catalogue.Relative `json:"leads_to" nullable:"false"`
	// Cautions in full.
	CautionTexts []rig.Caution `json:"caution_texts" nullable:"false"`
}

// brief is a knot in a list.
func (s *server) brief(k *knot.Knot) KnotBrief {
	b := KnotBrief{ID: k.ID, Name: k.Name, Also: k.Also, Kind: k.Kind, Summary: k.Summary, Difficulty: k.Difficulty,
		Drawn: k.Shape != "", Tasks: map[string]float64{}, NotIn: []string{}, GrowsFrom: s.cat().GrowsFrom(k.ID)}
	for id, t := range k.Tasks {
		b.Tasks[id] = t.Fit
	}
	for _, m := range s.cat().Materials {
		if _, refused := k.Refuses[m.ID]; refused || k.HoldIn(m.ID).Wet == knot.Slips {
			b.NotIn = append(b.NotIn, m.ID)
		}
	}
	return b
}

// picture is a drawing or a page as an answer.
type picture struct {
	ContentType  string `header:"Content-Type"`
	CacheControl string `header:"Cache-Control"`
	Body         []byte
}

func svg(text string) *picture { return &picture{"image/svg+xml", "max-age=3600", []byte(text)} }

// cautions gives a knot's cautions in full.
func (s *server) cautions(k *knot.Knot) []rig.Caution {
	out := make([]rig.Caution, 0, len(k.Cautions))
	for _, id := range k.Cautions {
		out = append(out, s.cat().Caution(id))
	}
	return out
}

func (s *server) knots(a huma.API) {
	huma.Register(a, huma.Operation{OperationID: "catalogue", Method: http.MethodGet, Path: "/api/catalogue", Summary: "Materials, fittings, tasks and knots"},
		func(context.Context, *struct{}) (*body[Catalogue], error) {
			c := Catalogue{s.cat().Materials, s.cat().Surfaces, s.cat().Fittings, s.cat().Tasks, s.cat().Weights, s.cat().Cautions, nil, s.cat().Templates, s.cat().Procedures, friction.Choices()}
			for _, k := range s.cat().Knots {
				c.Knots = append(c.Knots, s.brief(k))
			}
			return answer(c), nil
		})
	type KnotPath struct {
		ID string `path:"id"`
	}
	unknown := func(id string) error {
		return newProblem(http.StatusNotFound, fmt.Sprintf("No knot is called %q here.", id))
	}
	huma.Register(a, huma.Operation{OperationID: "knot", Method: http.MethodGet, Path: "/api/knots/{id}", Summary: "Everything about a knot"},
		func(_ context.Context, in *KnotPath) (*body[KnotPage], error) {
			k := s.cat().Knot(in.ID)
			if k == nil {
				return nil, unknown(in.ID)
			}
			p := KnotPage{Knot: *k, Drawn: k.Shape != "", Drill: slices.Contains(s.cat().Drills(), k.ID),
				GrowsFrom: s.cat().GrowsFrom(k.ID), LeadsTo: s.cat().LeadsTo(k.ID), CautionTexts: s.cautions(k)}
			return answer(p), nil
		})
	// find gives a knot and its drawing, nil where it has none.
	find := func(ctx context.Context, id string) (*knot.Knot, *shape.Shape, error) {
		k := s.cat().Knot(id)
		if k == nil {
			return nil, nil, unknown(id)
		}
		sh, err := s.cat().Drawing(id)
		if err != nil {
			return nil, nil, fail(ctx, err)
		}
		return k, sh, nil
	}
	s.drills(a)
	handout := func(id, path, kind, summary string, page func(pdf, svg []byte) []byte) {
		huma.Register(a, op(id, http.MethodGet, path, summary),
			func(ctx context.Context, in *struct {
				KnotPath
				Look shape.Look `query:"look" enum:"laid,braid,mono" default:"laid"`
			}) (*picture, error) {
				k, sh, err := find(ctx, in.ID)
				if err != nil {
					return nil, err
				}
				pdf, svg, err := export.Handout(k, sh, in.Look, s.cautions(k))
				if err != nil {
					return nil, fail(ctx, err)
				}
				return &picture{kind, "max-age=3600", page(pdf, svg)}, nil
			})
	}
	handout("handout", "/api/knots/{id}/handout.pdf", "application/pdf", "A knot on one printable page", func(pdf, _ []byte) []byte { return pdf })
	handout("handout-svg", "/api/knots/{id}/handout.svg", "image/svg+xml", "A knot on one page, as SVG", func(_, svg []byte) []byte { return svg })
	huma.Register(a, huma.Operation{OperationID: "fault-drawing", Method: http.MethodGet, Path: "/api/faults/{id}/drawing.svg", Summary: "The drawing of a faulty form, as SVG"},
		func(ctx context.Context, in *struct {
			KnotPath
			Look shape.Look `query:"look" enum:"laid,braid,mono" default:"laid"`
		}) (*picture, error) {
			sh, err := s.cat().Drawing(in.ID)
			if err != nil {
				return nil, fail(ctx, err)
			}
			if sh == nil {
				return nil, newProblem(http.StatusNotFound, "There is no drawing by this name.")
			}
			title := in.ID
			for _, k := range s.cat().Knots {
				for _, f := range k.Faults {
					if f.Drawing == in.ID {
						title = k.Name + ", gone wrong: " + f.Name
					}
				}
			}
			return svg(sh.SVG(shape.Options{Step: -1, Look: in.Look, Title: title})), nil
		})
	huma.Register(a, huma.Operation{OperationID: "drawing", Method: http.MethodGet, Path: "/api/knots/{id}/drawing.svg", Summary: "The drawing of a knot, as SVG"},
		func(ctx context.Context, in *struct {
			KnotPath
			Step   float64    `query:"step" default:"-1" doc:"0 to the last step; −1 the finished knot"`
			View   shape.View `query:"view" enum:"tie,across,left,opposite" default:"tie"`
			Look   shape.Look `query:"look" enum:"laid,braid,mono" default:"laid"`
			Labels bool       `query:"labels"`
			Ghost  bool       `query:"ghost"`
		}) (*picture, error) {
			k, sh, err := find(ctx, in.ID)
			if err != nil {
				return nil, err
			}
			if sh == nil {
				return nil, newProblem(http.StatusNotFound, k.Name+" has no drawing yet.")
			}
			if err := sh.HasStep(in.Step); err != nil {
				return nil, fail(ctx, err)
			}
			return svg(sh.SVG(shape.Options{View: in.View, Step: in.Step, Look: in.Look, Labels: in.Labels, Ghost: in.Ghost, Title: k.Name})), nil
		})
}
