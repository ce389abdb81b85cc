package api

import (
	"context"
	"fmt"
	"net/http"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/shape/draw"
	"oarweed/internal/export"
)

// SeenQuery is how the pictures on paper are seen.
type SeenQuery struct {
	Look draw.Look `query:"look" enum:"laid,braid,mono" default:"laid"`
	View draw.View `query:"view" enum:"tie,across,left,opposite" default:"tie"`
	Left bool      `query:"left" doc:"for a left-handed tyer"`
}

func (q SeenQuery) seen() export.Seen { return export.Seen{Look: q.Look, View: q.View, Left: q.Left} }

// toldOf gathers what the page of a knot shows.
func toldOf(ctx context.Context, id string) (export.Told, error) {
	k, sh, err := knotOf(ctx, id)
	if err != nil {
		return export.Told{}, err
	}
	t := of(ctx).Trade()
	up, err := t.Snug(k.ID)
	if err != nil {
		return export.Told{}, fail(ctx, err)
	}
	return export.Told{Knot: k, Shape: sh, Up: up, Cautions: t.CautionsOf(k)}, nil
}

// PaperQuery is which knots are put on paper, and under which heading.
type PaperQuery struct {
	SeenQuery
	Knots string `query:"knots" maxLength:"2000" doc:"ids, in the order wanted, with commas between"`
	Title string `query:"title" maxLength:"80" default:"Knots"`
}

// papers are several knots on paper, and the words of the trade.
func papers(a huma.API) {
	gather := func(ctx context.Context, ids string) ([]export.Told, error) {
		var out []export.Told
		for _, id := range strings.FieldsFunc(ids, func(r rune) bool { return r == ',' || r == ' ' }) {
			told, err := toldOf(ctx, id)
			if err != nil {
				return nil, err
			}
			out = append(out, told)
		}
		if len(out) == 0 || len(out) > mostOnPaper {
			return nil, fail(ctx, problem.New("knots", fmt.Sprintf("holds %d knots", len(out)), fmt.Sprintf("name 1 to %d, with commas between", mostOnPaper)))
		}
		return out, nil
	}
	pdf := func(ctx context.Context, text []byte, err error) (*file, error) {
		if err != nil {
			return nil, fail(ctx, err)
		}
		return &file{ContentType: "application/pdf", Body: text}, nil
	}
	huma.Register(a, files(op("knots", "sheet", http.MethodGet, "/knots/sheet.pdf", "Several knots on each page, to print"), "application/pdf"),
		func(ctx context.Context, in *struct {
			PaperQuery
			Per string `query:"per" enum:"4,6" default:"6" doc:"how many on a page"`
		}) (*file, error) {
			list, err := gather(ctx, in.Knots)
			if err != nil {
				return nil, err
			}
			per, _ := strconv.Atoi(in.Per) // one of the two
			text, err := export.Sheet(ctx, in.Title, list, per, in.seen())
			return pdf(ctx, text, err)
		})
	huma.Register(a, files(op("knots", "class-set", http.MethodGet, "/knots/class-set.pdf", "The pages of several knots in one file, with the words they use"), "application/pdf"),
		func(ctx context.Context, in *PaperQuery) (*file, error) {
			list, err := gather(ctx, in.Knots)
			if err != nil {
				return nil, err
			}
			t := of(ctx).Trade()
			used := make([]*knot.Knot, len(list))
			for i := range list {
				used[i] = list[i].Knot
			}
			text, err := export.ClassSet(ctx, in.Title, list, t.WordsIn(used), t.WordShape, in.seen())
			return pdf(ctx, text, err)
		})
	huma.Register(a, files(op("knots", "words-pdf", http.MethodGet, "/words.pdf", "The words of the trade, to print"), "application/pdf"),
		func(ctx context.Context, _ *struct{}) (*file, error) {
			t := of(ctx).Trade()
			text, err := export.Glossary(ctx, t.Words, t.WordShape)
			return pdf(ctx, text, err)
		})
}

// mostOnPaper is how many knots are printed at once.
const mostOnPaper = 24
