package api

import (
	"context"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/unit"
	"oarweed/internal/app"
)

func typeOf(v any) reflect.Type { return reflect.TypeOf(v) }

// Quantity is a length or a force as read from what somebody typed.
type Quantity struct {
	// Value is in mm or kN.
	Value float64 `json:"value" doc:"in mm or kN"`
	Text  string  `json:"text"`
	// Also is the same in the other units of the trade.
	Also string `json:"also" doc:"the same in the other units of the trade"`
}

// MethodPage is the page of every formula, figure and source.
type MethodPage struct {
	// Text is Markdown with tables.
	Text string `json:"text" doc:"Markdown with tables"`
}

func jobs(a huma.API) {
	huma.Register(a, op("jobs", "strength", http.MethodGet, "/strength", "What a line bears"),
		func(ctx context.Context, in *struct{ app.StrengthQuery }) (*body[*app.LineAnswer], error) {
			out, err := of(ctx).Strength(in.StrengthQuery)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("jobs", "friction", http.MethodGet, "/friction", "Whether a hitch holds at a friction"),
		func(ctx context.Context, in *struct{ app.FrictionQuery }) (*body[*app.Friction], error) {
			out, err := of(ctx).Friction(in.FrictionQuery)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("jobs", "hold", http.MethodGet, "/holds", "What hand holds a load by a hitch or by so many turns"),
		func(ctx context.Context, in *struct{ app.HoldQuery }) (*body[*app.HoldTable], error) {
			out, err := of(ctx).Hold(in.HoldQuery)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("jobs", "load", http.MethodGet, "/loads/{kind}", "Work out a load"),
		func(ctx context.Context, in *struct {
			Kind string `path:"kind" enum:"wind,share,snatch,drag,hand,rider"`
			app.LoadQuery
		}) (*body[*app.Load], error) {
			out, err := of(ctx).Load(in.Kind, in.LoadQuery)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("jobs", "fender", http.MethodGet, "/fender", "How a fender hangs: drop and line"),
		func(ctx context.Context, in *struct{ app.FenderQuery }) (*body[*app.FenderAnswer], error) {
			out, err := of(ctx).HangFender(in.FenderQuery)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("jobs", "tow", http.MethodGet, "/tow", "Where a tow line is made fast for the length a rider wants"),
		func(ctx context.Context, in *struct{ app.TowQuery }) (*body[*app.TowAnswer], error) {
			out, err := of(ctx).Tow(in.TowQuery)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("jobs", "coils", http.MethodGet, "/coils", "How many coils a line makes"),
		func(ctx context.Context, in *struct{ app.CoilsQuery }) (*body[*app.CoilsAnswer], error) {
			out, err := of(ctx).Coils(in.CoilsQuery)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("jobs", "shackle", http.MethodGet, "/shackle", "Soft shackle: every clamp with every stopper"),
		func(ctx context.Context, in *struct{ app.ShackleQuery }) (*body[*app.ShackleAnswer], error) {
			out, err := of(ctx).SoftShackle(in.ShackleQuery)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("jobs", "procedure", http.MethodPost, "/procedures/{id}/card", "A job as a guided card, its turns and lengths worked out"),
		func(ctx context.Context, in *struct {
			ID   string        `path:"id"`
			Body *rig.Document `required:"false"`
		}) (*body[*app.Card], error) {
			var d rig.Document
			if in.Body != nil {
				d = *in.Body
			}
			out, err := of(ctx).Procedure(ctx, in.ID, d)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("jobs", "sayings", http.MethodPost, "/sayings", "Common sayings worked out on a rig with one joint"),
		func(ctx context.Context, in *doc) (*body[[]say.Saying], error) {
			out, err := of(ctx).Sayings(ctx, in.Body)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("knowledge", "method", http.MethodGet, "/method", "Every formula, figure and source, in Markdown"),
		func(ctx context.Context, _ *struct{}) (*body[MethodPage], error) {
			out, err := of(ctx).Method(ctx)
			return answered(ctx, MethodPage{out}, err)
		})
	huma.Register(a, op("jobs", "quantity", http.MethodGet, "/quantity", "Read a length or a force as typed"),
		func(ctx context.Context, in *struct {
			Kind string `query:"kind" enum:"length,force" required:"true"`
			Text string `query:"text" maxLength:"60"`
			// Bare is the unit of a number without one.
			Bare string `query:"bare" enum:"mm,m,in,ft,kN,kgf,lb" default:"mm"`
		}) (*body[Quantity], error) {
			if in.Kind == "force" {
				bare := unit.Kilonewton
				switch in.Bare {
				case "lb":
					bare = unit.Pound
				case "kgf":
					bare = unit.Kilogram
				}
				f, err := unit.ParseForce(in.Text, bare)
				return answered(ctx, Quantity{f.KN(), f.String(), f.Pounds()}, err)
			}
			bare := unit.Millimetre
			switch in.Bare {
			case "m":
				bare = unit.Metre
			case "in":
				bare = unit.Inch
			case "ft":
				bare = unit.Foot
			}
			d, err := unit.ParseLength(in.Text, bare)
			return answered(ctx, Quantity{d.MM(), d.String(), d.Inches()}, err)
		})
}
