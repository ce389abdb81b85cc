package api

import (
	"context"
	"encoding/json"
	"maps"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/choose"
	"oarweed/core/load"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Changes is what would change the answer, with the numbers that a map can be
// drawn over.
type Changes struct {
	Changes []choose.Change `json:"changes" nullable:"false"`
	Inputs  []*choose.Input `json:"inputs" nullable:"false"`
}

func (s *server) whole(a huma.API) {
	type Doc struct{ Body rig.Document }
	huma.Register(a, op("rig-answer", http.MethodPost, "/api/rig", "Answer for a whole chain: every joint, the weakest link, what to cut"),
		func(ctx context.Context, in *Doc) (*body[*choose.RigAnswer], error) {
			out, err := choose.Whole(s.cat(), in.Body)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return answer(out), nil
		})
	one := func(ctx context.Context, d rig.Document) (*choose.Answer, error) {
		r, err := s.cat().Resolve(d)
		if err != nil {
			return nil, fail(ctx, err)
		}
		out, err := choose.For(s.cat(), r)
		if err != nil {
			return nil, fail(ctx, err)
		}
		return out, nil
	}
	huma.Register(a, op("chances", http.MethodPost, "/api/chances", "How each ranked knot of a joint comes out in ten thousand draws"),
		func(ctx context.Context, in *Doc) (*body[map[string]choose.Chance], error) {
			out, err := one(ctx, in.Body)
			if err != nil {
				return nil, err
			}
			return answer(choose.Chances(s.cat(), out)), nil
		})
	huma.Register(a, op("changes", http.MethodPost, "/api/changes", "What would change the first choice at a joint"),
		func(ctx context.Context, in *Doc) (*body[Changes], error) {
			out, err := choose.Changes(s.cat(), in.Body)
			if err != nil {
				return nil, fail(ctx, err)
			}
			full, err := s.cat().Fill(in.Body)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return answer(Changes{out, choose.Inputs(full)}), nil
		})
	huma.Register(a, huma.Operation{OperationID: "map", Method: http.MethodPost, Path: "/api/map", Summary: "Choice map over two inputs, row by row as lines of JSON: first the frame, then the rows as they are known"},
		func(ctx context.Context, in *struct {
			Doc
			X       string  `query:"x" required:"true" example:"line.diameter"`
			XFrom   float64 `query:"x_from"`
			XTo     float64 `query:"x_to"`
			Y       string  `query:"y" required:"true" example:"load"`
			YFrom   float64 `query:"y_from"`
			YTo     float64 `query:"y_to"`
			Columns int     `query:"columns" default:"64"`
			Rows    int     `query:"rows" default:"64"`
		}) (*huma.StreamResponse, error) {
			full, err := s.cat().Fill(in.Body)
			if err != nil {
				return nil, fail(ctx, err)
			}
			p, err := choose.NewPlane(full, choose.Axis{Input: in.X, From: in.XFrom, To: in.XTo}, choose.Axis{Input: in.Y, From: in.YFrom, To: in.YTo}, in.Columns, in.Rows)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return &huma.StreamResponse{Body: func(h huma.Context) {
				h.SetHeader("Content-Type", "application/x-ndjson")
				h.SetHeader("Cache-Control", "no-store")
				w := h.BodyWriter()
				enc := json.NewEncoder(w)
				flush, _ := w.(http.Flusher)
				if enc.Encode(p) != nil {
					return
				}
				// A reader that has gone away ends the map; there is nobody to tell.
				_ = choose.Map(h.Context(), s.cat(), full, p, func(r choose.Row) error {
					err := enc.Encode(r)
					if flush != nil {
						flush.Flush()
					}
					return err
				})
			}}, nil
		})
	huma.Register(a, op("shackle", http.MethodGet, "/api/shackle", "Soft shackle: every clamp with every stopper"),
		func(ctx context.Context, in *struct {
			Diameter string `query:"diameter" default:"6mm"`
		}) (*body[choose.ShackleAnswer], error) {
			d, err := unit.ParseLength(in.Diameter, unit.Millimetre)
			if err == nil && (d < 0.5*unit.Millimetre || d > 100*unit.Millimetre) {
				err = problem.New("", d.String()+" is no cord for a soft shackle", "give 0.5 to 100 mm")
			}
			if err != nil {
				var l problem.List
				l.Take("diameter", err)
				return nil, fail(ctx, l.Err())
			}
			return answer(choose.SoftShackle(s.cat(), d)), nil
		})
	huma.Register(a, op("procedure", http.MethodPost, "/api/procedures/{id}", "A job as a guided card, its turns and lengths worked out"),
		func(ctx context.Context, in *struct {
			ID   string        `path:"id"`
			Body *rig.Document `required:"false"`
		}) (*body[*choose.Card], error) {
			var d rig.Document
			if in.Body != nil {
				d = *in.Body
			}
			out, err := choose.Do(s.cat(), in.ID, d)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return answer(out), nil
		})
	huma.Register(a, op("load", http.MethodGet, "/api/load/{kind}", "Work out a load"),
		func(ctx context.Context, in *struct {
			Kind string `path:"kind" enum:"wind,share,snatch,drag,hand"`
			LoadQuery
		}) (*body[load.Result], error) {
			out, err := s.load(in.Kind, in.LoadQuery)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return answer(out), nil
		})
	huma.Register(a, op("hold", http.MethodGet, "/api/hold", "What hand holds a load by a hitch or by so many turns"),
		func(ctx context.Context, in *struct {
			Hitch    string `query:"hitch" required:"true"`
			Object   string `query:"object" required:"true" example:"60mm"`
			Line     string `query:"line" required:"true" example:"12mm"`
			Material string `query:"material" default:"polyester"`
			Surface  string `query:"surface" default:"polished-steel"`
			Wet      bool   `query:"wet"`
			Load     string `query:"load" required:"true" example:"2.4kN"`
			Hand     string `query:"hand" default:"100 N"`
		}) (*body[*choose.HoldTable], error) {
			q := choose.HoldInput{Hitch: in.Hitch, Material: in.Material, Surface: in.Surface, Wet: in.Wet}
			var l problem.List
			var err error
			q.Object, err = unit.ParseLength(in.Object, unit.Millimetre)
			l.Take("object", err)
			q.Line, err = unit.ParseLength(in.Line, unit.Millimetre)
			l.Take("line", err)
			q.Load, err = unit.ParseForce(in.Load, unit.Kilonewton)
			l.Take("load", err)
			q.Hand, err = unit.ParseForce(in.Hand, unit.Newton)
			l.Take("hand", err)
			if err := l.Err(); err != nil {
				return nil, fail(ctx, err)
			}
			out, err := choose.Holds(s.cat(), q)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return answer(out), nil
		})
	schema := rigSchema(a)
	huma.Register(a, op("rig-schema", http.MethodGet, "/api/rig.schema.json", "JSON Schema of a rig document"),
		func(context.Context, *struct{}) (*picture, error) {
			return &picture{"application/schema+json", "max-age=3600", schema}, nil
		})
}

// LoadQuery holds the figures of every kind of load; each uses its own.
type LoadQuery struct {
	LOA      string  `query:"loa" example:"30ft"`
	Area     float64 `query:"area" doc:"m²"`
	Cd       float64 `query:"cd" default:"1"`
	Wind     string  `query:"wind" example:"30kn"`
	Force    string  `query:"force" example:"2.4kN"`
	Angle    float64 `query:"angle" doc:"degrees"`
	Lines    int     `query:"lines" default:"1"`
	Even     bool    `query:"even"`
	Mass     float64 `query:"mass" doc:"kg"`
	Speed    float64 `query:"speed" doc:"m/s"`
	Length   string  `query:"length" example:"8m"`
	Material string  `query:"material"`
	Diameter string  `query:"diameter"`
	Wet      bool    `query:"wet"`
	Class    string  `query:"class" example:"20lb"`
	Shock    float64 `query:"shock"`
	People   int     `query:"people" default:"1"`
}

func (s *server) load(kind string, q LoadQuery) (load.Result, error) {
	return choose.Load(s.cat(), kind, choose.LoadInput(q))
}

// rigSchema writes the schema of rig.Document by itself, in JSON Schema 2020-12.
func rigSchema(a huma.API) []byte {
	all := a.OpenAPI().Components.Schemas.Map()
	defs := map[string]any{}
	var take func(name string)
	take = func(name string) {
		if _, done := defs[name]; done || all[name] == nil {
			return
		}
		text, _ := json.Marshal(all[name])
		moved := strings.ReplaceAll(string(text), "#/components/schemas/", "#/$defs/")
		defs[name] = json.RawMessage(moved)
		for _, other := range slices.Sorted(maps.Keys(all)) {
			if strings.Contains(moved, `"#/$defs/`+other+`"`) {
				take(other)
			}
		}
	}
	take("RigDocument")
	out, _ := json.MarshalIndent(map[string]any{
		"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "Oarweed rig",
		"$ref": "#/$defs/RigDocument", "$defs": defs,
	}, "", "  ")
	return out
}
