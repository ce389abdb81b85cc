package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/leader"
	"oarweed/internal/app"
)

// leaders are the leaders in use.
func leaders(a huma.API) {
	records[leader.Book]{"a leader in use", "Leaders in use, the last changed first", "leaders",
		(*app.School).LeaderBooks, (*app.School).LeaderBook, (*app.School).SaveLeader, (*app.School).DeleteLeader,
		func(b *leader.Book, id, revision int64) { b.ID, b.Revision = id, revision },
		func(b leader.Book) (int64, int64) { return b.ID, b.Revision }}.register(a, "records")
	huma.Register(a, op("records", "leaders-left", http.MethodGet, "/leaders/left", "Leaders in use with what is left of each"),
		func(ctx context.Context, _ *struct{}) (*body[[]app.LeaderCard], error) {
			out, err := of(ctx).Leaders(ctx)
			return answered(ctx, out, err)
		})
}
