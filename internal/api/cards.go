package api

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/shape/draw"
	"oarweed/internal/app"
	"oarweed/internal/export"
)

// CardQuery is an answer to be put on a card.
type CardQuery struct {
	Rig rig.Document `json:"rig" doc:"a rig with one joint"`
	// Knot that is chosen; empty: the one that comes first.
	Knot string `json:"knot,omitempty" maxLength:"80"`
	// Sentence is the rig in words, as the screen says it.
	Sentence string `json:"sentence,omitempty" maxLength:"2000"`
	Name     string `json:"name,omitempty" maxLength:"120"`
	// Link opens the rig; it stands on the card as a QR code.
	Link string `json:"link,omitempty" maxLength:"2900"`
	Left bool   `json:"left,omitempty"`
}

func cards(a huma.API) {
	for _, kind := range []struct {
		ext, media string
		write      func(context.Context, export.Card) ([]byte, error)
	}{{"png", "image/png", export.CardPNG}, {"pdf", "application/pdf", export.CardPDF}} {
		huma.Register(a, files(op("rigs", "card-"+kind.ext, http.MethodPost, "/card."+kind.ext, "An answer as a card to send, as "+strings.ToUpper(kind.ext)), kind.media),
			func(ctx context.Context, in *struct{ Body CardQuery }) (*file, error) {
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

// cardOf works the answer out anew: a card says only what the rig itself leads to.
func cardOf(ctx context.Context, q CardQuery) (*export.Card, error) {
	t := of(ctx).Trade()
	answer, err := of(ctx).Choose(ctx, q.Rig)
	if err != nil {
		return nil, err
	}
	var chosen *app.Choice
	for i := range answer.Ranked {
		if x := &answer.Ranked[i]; x.Knot == q.Knot || q.Knot == "" && i == 0 {
			chosen = x
		}
	}
	if chosen == nil {
		return nil, problem.New("knot", "no knot that will do is called that here", "choose one of the ranked, or leave it out")
	}
	c := &export.Card{Name: q.Name, Sentence: q.Sentence, Knot: chosen.Name, Verdict: chosen.Says, Reason: chosen.Reason + ".", Off: chosen.ReleaseHow,
		Look: lookOf(q.Rig), Left: q.Left, Link: q.Link}
	if c.Name == "" {
		c.Name = "Oarweed"
	}
	if answer.Says != "" {
		c.Cautions = append(c.Cautions, answer.Says)
	}
	c.Cautions = append(c.Cautions, chosen.Flags...)
	seen := map[string]bool{}
	for _, list := range [][]rig.Caution{answer.Cautions, chosen.Cautions} {
		for _, x := range list {
			if !seen[x.ID] {
				seen[x.ID] = true
				c.Cautions = append(c.Cautions, x.Text)
			}
		}
	}
	c.Shape, err = t.Drawing(chosen.Knot)
	return c, err
}

// lookOf is the surface of the line that is tied.
func lookOf(d rig.Document) draw.Look {
	if l := d.Chain[len(d.Chain)-1].Line; l != nil {
		switch l.Construction {
		case line.Laid:
			return draw.LookLaid
		case line.Solid:
			return draw.LookMono
		}
	}
	return draw.LookBraid
}
