package api

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/internal/app"
	"oarweed/internal/export"
)

func cards(a huma.API) {
	for _, kind := range []struct {
		ext, media string
		write      func(context.Context, export.Card) ([]byte, error)
	}{{"png", "image/png", export.CardPNG}, {"pdf", "application/pdf", export.CardPDF}} {
		huma.Register(a, files(op("rigs", "card-"+kind.ext, http.MethodPost, "/card."+kind.ext, "An answer as a card to send, as "+strings.ToUpper(kind.ext)), kind.media),
			func(ctx context.Context, in *struct{ Body app.CardQuery }) (*file, error) {
				c, err := cardOf(ctx, in.Body)
				if err != nil {
					return nil, fail(ctx, err)
				}
				out, err := kind.write(ctx, *c)
				if err != nil {
					return nil, fail(ctx, err)
				}
				return &file{ContentType: kind.media, Body: out}, nil
			})
	}
	huma.Register(a, files(op("rigs", "qr", http.MethodGet, "/qr.svg", "A link as a QR code"), "image/svg+xml"),
		func(ctx context.Context, in *struct {
			Link string `query:"link" required:"true" maxLength:"2900"`
		}) (*file, error) {
			out, err := export.QR(in.Link)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return svg(string(out)), nil
		})
}

// cardOf is the answer as it is drawn.
func cardOf(ctx context.Context, q app.CardQuery) (*export.Card, error) {
	c, err := of(ctx).AnswerCard(ctx, q)
	if err != nil {
		return nil, err
	}
	return &export.Card{Name: c.Name, Sentence: c.Sentence, Knot: c.Knot, Verdict: c.Verdict, Reason: c.Reason, Off: c.Off, Evidence: c.Evidence,
		Cautions: c.Cautions, Shape: c.Shape, Look: c.Look, Left: q.Left, Link: q.Link}, nil
}
