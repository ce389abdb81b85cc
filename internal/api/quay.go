package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/practice"
	"oarweed/internal/app"
)

// records registers the five ways in which records of one kind are read and changed.
type records[T any] struct {
	one, many, at string
	list          func(*app.School, context.Context) ([]T, error)
	read          func(*app.School, context.Context, int64) (T, error)
	save          func(*app.School, context.Context, T) (T, error)
	remove        func(*app.School, context.Context, int64) error
	// id sets id and revision, revision reads both.
	set func(*T, int64, int64)
	ids func(T) (id, revision int64)
}

func (r records[T]) register(a huma.API, tag string) {
	huma.Register(a, op(tag, r.at, http.MethodGet, "/"+r.at, r.many),
		func(ctx context.Context, _ *struct{}) (*body[[]T], error) {
			out, err := r.list(of(ctx), ctx)
			return answered(ctx, out, err)
		})
	kept := func(ctx context.Context, v T, err error) (*record[T], error) {
		_, revision := r.ids(v)
		return kept(ctx, v, revision, err)
	}
	huma.Register(a, op(tag, "one-of-"+r.at, http.MethodGet, "/"+r.at+"/{id}", r.one),
		func(ctx context.Context, in *IDPath) (*record[T], error) {
			out, err := r.read(of(ctx), ctx, in.ID)
			return kept(ctx, out, err)
		})
	huma.Register(a, created(op(tag, "add-to-"+r.at, http.MethodPost, "/"+r.at, "Keep "+r.one)),
		func(ctx context.Context, in *struct{ Body T }) (*record[T], error) {
			r.set(&in.Body, 0, 0)
			out, err := r.save(of(ctx), ctx, in.Body)
			id, revision := r.ids(out)
			return made(ctx, out, r.at, id, revision, true, err)
		})
	huma.Register(a, op(tag, "change-in-"+r.at, http.MethodPut, "/"+r.at+"/{id}", "Change "+r.one),
		func(ctx context.Context, in *struct {
			IDPath
			IfMatch
			Body T
		}) (*record[T], error) {
			revision, err := in.revision()
			if err != nil {
				return nil, err
			}
			r.set(&in.Body, in.ID, revision)
			out, err := r.save(of(ctx), ctx, in.Body)
			return kept(ctx, out, err)
		})
	huma.Register(a, op(tag, "remove-from-"+r.at, http.MethodDelete, "/"+r.at+"/{id}", "Remove "+r.one),
		func(ctx context.Context, in *IDPath) (*struct{}, error) {
			return gone(ctx, r.remove(of(ctx), ctx, in.ID))
		})
}

// Photo is a picture as it was taken.
type Photo struct {
	Key       string `json:"key,omitempty" maxLength:"64"`
	LearnerID int64  `json:"learner_id,omitempty"`
	Data      []byte `json:"data" maxLength:"4500000" doc:"JPEG or PNG, base64"`
}

// PhotoKept is its id.
type PhotoKept struct {
	ID int64 `json:"id"`
}

func quay(a huma.API) {
	records[practice.QuayRound]{"a round on the quay", "Rounds on the quay, the last changed first", "quay-rounds",
		(*app.School).QuayRounds, (*app.School).QuayRound, (*app.School).SaveQuayRound, (*app.School).DeleteQuayRound,
		func(q *practice.QuayRound, id, revision int64) { q.ID, q.Revision = id, revision },
		func(q practice.QuayRound) (int64, int64) { return q.ID, q.Revision }}.register(a, "teaching")
	records[practice.Gear]{"a thing with a knot on it", "Knots on gear, what is to be looked at first before the rest", "gear",
		(*app.School).Gear, (*app.School).GearOf, (*app.School).SaveGear, (*app.School).DeleteGear,
		func(g *practice.Gear, id, revision int64) { g.ID, g.Revision = id, revision },
		func(g practice.Gear) (int64, int64) { return g.ID, g.Revision }}.register(a, "teaching")
	records[practice.Note]{"a note on a knot", "Memory aids and remarks of one's own on knots, the last changed first", "knot-notes",
		(*app.School).Notes, (*app.School).Note, (*app.School).SaveNote, (*app.School).DeleteNote,
		func(n *practice.Note, id, revision int64) { n.ID, n.Revision = id, revision },
		func(n practice.Note) (int64, int64) { return n.ID, n.Revision }}.register(a, "teaching")
	huma.Register(a, op("teaching", "gear-by-code", http.MethodGet, "/gear-codes/{code}", "A thing by the code on its label"),
		func(ctx context.Context, in *struct {
			Code string `path:"code" maxLength:"20"`
		}) (*body[practice.Gear], error) {
			out, err := of(ctx).GearByCode(ctx, in.Code)
			return answered(ctx, out, err)
		})
	huma.Register(a, created(op("teaching", "add-photo", http.MethodPost, "/photos", "Keep a picture, drawn anew without where and by what it was taken")),
		func(ctx context.Context, in *struct{ Body Photo }) (*record[PhotoKept], error) {
			id, err := of(ctx).AddPhoto(ctx, in.Body.Key, in.Body.LearnerID, in.Body.Data)
			return made(ctx, PhotoKept{id}, "photos", id, 1, true, err)
		})
	huma.Register(a, files(op("teaching", "photo", http.MethodGet, "/photos/{id}", "A picture"), "image/jpeg"),
		func(ctx context.Context, in *IDPath) (*file, error) {
			out, err := of(ctx).Records().Photo(ctx, in.ID)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return &file{ContentType: "image/jpeg", Policy: svgPolicy, Body: out}, nil
		})
}
