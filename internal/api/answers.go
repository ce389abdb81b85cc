package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/choose"
	"oarweed/core/friction"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Quantity is a length or a force as read from what somebody typed.
type Quantity struct {
	// Value is in mm or kN.
	Value float64 `json:"value"`
	Text  string  `json:"text"`
	// Also is the same in the other units of the trade.
	Also string `json:"also"`
}

func (s *server) answers(a huma.API) {
	huma.Register(a, huma.Operation{OperationID: "choose", Method: http.MethodPost, Path: "/api/choose", Summary: "Rank the knots for a rig"},
		func(ctx context.Context, in *struct{ Body rig.Document }) (*body[*choose.Answer], error) {
			r, err := s.cat().Resolve(in.Body)
			if err != nil {
				return nil, fail(ctx, err)
			}
			out, err := choose.For(s.cat(), r)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return answer(out), nil
		})
	huma.Register(a, huma.Operation{OperationID: "strength", Method: http.MethodGet, Path: "/api/strength", Summary: "What a line bears"},
		func(ctx context.Context, in *struct {
			Material     string            `query:"material" required:"true"`
			Construction line.Construction `query:"construction"`
			Diameter     string            `query:"diameter" required:"true" example:"24mm"`
			Wet          bool              `query:"wet"`
		}) (*body[choose.LineAnswer], error) {
			out, err := choose.StrengthOf(s.cat(), in.Material, in.Construction, in.Diameter, in.Wet)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return answer(out), nil
		})
	huma.Register(a, huma.Operation{OperationID: "friction", Method: http.MethodGet, Path: "/api/friction", Summary: "Whether a hitch holds"},
		func(ctx context.Context, in *struct {
			Hitch  string  `query:"hitch" required:"true"`
			Object string  `query:"object" required:"true" example:"60mm"`
			Line   string  `query:"line" required:"true" example:"12mm"`
			Mu     float64 `query:"mu" required:"true"`
			Turns  int     `query:"turns"`
		}) (*body[friction.Report], error) {
			var l problem.List
			object, err := unit.ParseLength(in.Object, unit.Millimetre)
			l.Take("object", err)
			rope, err := unit.ParseLength(in.Line, unit.Millimetre)
			l.Take("line", err)
			if err := l.Err(); err != nil {
				return nil, fail(ctx, err)
			}
			out, err := friction.Judge(in.Hitch, in.Turns, object, rope, in.Mu, 1)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return answer(out), nil
		})
	huma.Register(a, huma.Operation{OperationID: "quantity", Method: http.MethodGet, Path: "/api/quantity", Summary: "Read a length or a force as typed"},
		func(ctx context.Context, in *struct {
			Kind string `query:"kind" enum:"length,force" required:"true"`
			Text string `query:"text" maxLength:"60"`
			// Bare is the unit of a number without one.
			Bare string `query:"bare" enum:"mm,m,kN,lb" default:"mm"`
		}) (*body[Quantity], error) {
			if in.Kind == "force" {
				bare := unit.Kilonewton
				if in.Bare == "lb" {
					bare = unit.Pound
				}
				f, err := unit.ParseForce(in.Text, bare)
				if err != nil {
					return nil, fail(ctx, err)
				}
				return answer(Quantity{f.KN(), f.String(), f.Pounds()}), nil
			}
			bare := unit.Millimetre
			if in.Bare == "m" {
				bare = unit.Metre
			}
			d, err := unit.ParseLength(in.Text, bare)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return answer(Quantity{d.MM(), d.String(), d.Inches()}), nil
		})
}
