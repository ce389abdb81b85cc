package api

import (
	"context"
	"encoding/json"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/rig"
	"oarweed/core/whatif"
	"oarweed/internal/app"
)

// doc is a rig sent to be worked out.
type doc struct{ Body rig.Document }

func answers(a huma.API) {
	huma.Register(a, op("choice", "choose", http.MethodPost, "/choices", "Rank the knots for a rig with one joint"),
		func(ctx context.Context, in *doc) (*body[*app.Answer], error) {
			out, err := of(ctx).Choose(ctx, in.Body)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("choice", "check-rig", http.MethodPost, "/rig-checks", "Answer for a whole chain: every joint, the weakest link, what to cut"),
		func(ctx context.Context, in *doc) (*body[*app.RigAnswer], error) {
			out, err := of(ctx).CheckRig(ctx, in.Body)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("choice", "chances", http.MethodPost, "/chances", "How each ranked knot of a joint comes out in ten thousand draws"),
		func(ctx context.Context, in *doc) (*body[map[string]app.Chance], error) {
			out, err := of(ctx).Chances(ctx, in.Body)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("choice", "changes", http.MethodPost, "/changes", "What would change the first choice at a joint"),
		func(ctx context.Context, in *doc) (*body[*app.Changes], error) {
			out, err := of(ctx).Changes(ctx, in.Body)
			return answered(ctx, out, err)
		})
	choiceMap(a)
}

// choiceMap streams a map: first the frame, then the rows as they are known.
func choiceMap(a huma.API) {
	schema := func(v any) *huma.Schema { return a.OpenAPI().Components.Schemas.Schema(typeOf(v), true, "") }
	o := op("choice", "map", http.MethodPost, "/maps", "Choice map over two inputs")
	o.Description = "Lines of JSON: first the frame, then the rows as they are known."
	o.Responses = map[string]*huma.Response{"200": {Description: "The frame, then the rows",
		Content: map[string]*huma.MediaType{"application/x-ndjson": {Schema: &huma.Schema{OneOf: []*huma.Schema{schema(whatif.Plane{}), schema(whatif.Row{})}}}}}}
	huma.Register(a, o, func(ctx context.Context, in *struct {
		doc
		app.MapQuery
	}) (*huma.StreamResponse, error) {
		frame, work, err := of(ctx).Map(ctx, in.Body, in.MapQuery)
		if err != nil {
			return nil, fail(ctx, err)
		}
		return &huma.StreamResponse{Body: func(h huma.Context) {
			h.SetHeader("Content-Type", "application/x-ndjson")
			w := h.BodyWriter()
			out := json.NewEncoder(w)
			flush, _ := w.(http.Flusher)
			// A map may take longer than other answers, but each row must get through.
			line := func(v any) error {
				if rw, ok := w.(http.ResponseWriter); ok {
					_ = http.NewResponseController(rw).SetWriteDeadline(time.Now().Add(streamPause))
				}
				err := out.Encode(v)
				if flush != nil {
					flush.Flush()
				}
				return err
			}
			if line(frame) != nil {
				return
			}
			// A reader that has gone away ends the map; there is nobody to tell.
			_ = work(h.Context(), func(r whatif.Row) error { return line(r) })
		}}, nil
	})
}

// streamPause is the longest that a stream waits for its reader, or for its turn.
const streamPause = 2 * time.Minute
