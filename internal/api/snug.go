package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/say"
	"oarweed/core/snug"
)

// drawnUp gives a knot drawn up, or the problem that it is not.
func drawnUp(ctx context.Context, id string) (*snug.Built, error) {
	k, _, err := knotOf(ctx, id)
	if err != nil {
		return nil, err
	}
	b, err := of(ctx).Trade().Snug(id)
	if err != nil {
		return nil, fail(ctx, err)
	}
	if b == nil || !b.Computed {
		why := "it is not worked out yet."
		if b != nil {
			why = b.Why + "."
		}
		return nil, newProblem(http.StatusNotFound, k.Name+" is not drawn up: "+why)
	}
	return b, nil
}

func drawnUpKnots(a huma.API) {
	huma.Register(a, op("knots", "snug", http.MethodGet, "/knots/{id}/snug", "A knot drawn up in space, from loose on"),
		func(ctx context.Context, in *struct{ KnotPath }) (*body[*snug.Built], error) {
			out, err := drawnUp(ctx, in.ID)
			if err != nil {
				return nil, err
			}
			return &body[*snug.Built]{out}, nil
		})
	huma.Register(a, files(op("knots", "snug-svg", http.MethodGet, "/knots/{id}/snug.svg", "A knot drawn up, as a figure"), "image/svg+xml"),
		func(ctx context.Context, in *struct {
			KnotPath
			Frame  int       `query:"frame" default:"-1" minimum:"-1" maximum:"5" doc:"0 loose; −1 drawn up"`
			Turn   float64   `query:"turn" doc:"about the upright, radians"`
			Tip    float64   `query:"tip" doc:"toward the viewer, radians"`
			Left   bool      `query:"left" doc:"for a left-handed tyer"`
			Look   snug.Look `query:"look" enum:"laid,braid,mono" default:"mono" doc:"what the surface of ropes shows"`
			Checks bool      `query:"checks" doc:"numbers where each of its checks looks"`
			Line   bool      `query:"line" doc:"as it lies on a level line that leaves to the right, without what it is made on; a unit is the line's diameter"`
		}) (*file, error) {
			b, err := drawnUp(ctx, in.ID)
			if err != nil {
				return nil, err
			}
			frame := in.Frame
			if frame < 0 {
				frame = b.Last()
			}
			var marks []snug.Mark
			if in.Checks {
				marks = say.CheckMarks(of(ctx).Trade().Knot(in.ID))
			}
			return svg(b.SVG(frame, snug.View{Turn: in.Turn, Tip: in.Tip, Left: in.Left, Line: in.Line, Look: in.Look}, of(ctx).Trade().Knot(in.ID).Name+", drawn up", marks...)), nil
		})
	huma.Register(a, files(op("knots", "snug-stl", http.MethodGet, "/knots/{id}/snug.stl", "A knot drawn up, to print"), "model/stl"),
		func(ctx context.Context, in *struct {
			KnotPath
			MM float64 `query:"mm" default:"8" minimum:"1" maximum:"60" doc:"how thick the rope is, mm"`
		}) (*file, error) {
			b, err := drawnUp(ctx, in.ID)
			if err != nil {
				return nil, err
			}
			return &file{ContentType: "model/stl", Body: b.STL(in.MM)}, nil
		})
	huma.Register(a, files(op("knots", "snug-gltf", http.MethodGet, "/knots/{id}/snug.gltf", "A knot drawn up, as glTF"), "model/gltf+json"),
		func(ctx context.Context, in *struct{ KnotPath }) (*file, error) {
			b, err := drawnUp(ctx, in.ID)
			if err != nil {
				return nil, err
			}
			out, err := b.GLTF()
			if err != nil {
				return nil, fail(ctx, err)
			}
			return &file{ContentType: "model/gltf+json", Body: out}, nil
		})
}
