package api

import (
	"context"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/friction"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/shape"
	"oarweed/core/shape/draw"
	"oarweed/core/snug"
	"oarweed/core/trade"
	"oarweed/internal/export"
)

// Catalogue is the vocabulary, and the knots in short.
type Catalogue struct {
	Materials []*line.Material       `json:"materials" nullable:"false"`
	Surfaces  []*line.Surface        `json:"surfaces" nullable:"false"`
	Fittings  []*rig.FittingKind     `json:"fittings" nullable:"false"`
	Tasks     []*rig.Task            `json:"tasks" nullable:"false"`
	Weights   map[string]rig.Weights `json:"weights"`
	// TaskGroups are the kinds of work, in the order in which tasks are listed.
	TaskGroups []string      `json:"task_groups" nullable:"false"`
	Cautions   []rig.Caution `json:"cautions" nullable:"false"`
	Knots      []KnotBrief   `json:"knots" nullable:"false"`
	// Templates are rigs to begin with, Procedures jobs with a guided card.
	Templates  []trade.Template   `json:"templates" nullable:"false"`
	Procedures []*trade.Procedure `json:"procedures" nullable:"false"`
	// Sets are named lists of knots, Lessons those to begin with.
	Sets    []trade.KnotSet    `json:"sets" nullable:"false"`
	Lessons []trade.LessonKind `json:"lessons" nullable:"false"`
	// Words are the glossary.
	Words []trade.Word `json:"words" nullable:"false"`
	// Hitches are what a hold can be worked out for.
	Hitches []friction.Choice `json:"hitches" nullable:"false"`
	// Fields are what a rig says in numbers and words: names, limits, lists of values.
	Fields []rig.Field `json:"fields" nullable:"false"`
}

// KnotBrief is a knot in a list.
type KnotBrief struct {
	ID         string    `json:"id"`
	Name       string    `json:"name"`
	Also       []string  `json:"also,omitempty" nullable:"false"`
	Kind       knot.Kind `json:"kind" enum:"loop,hitch,bend,stopper,terminal"`
	Summary    string    `json:"summary"`
	Difficulty int       `json:"difficulty"`
	Drawn      bool      `json:"drawn"`
	// Tasks with how well it fits each, 0 to 1.
	Tasks map[string]float64 `json:"tasks" doc:"how well it fits each task, 0 to 1"`
	// NotIn lists the materials it is not tied in, or slips in.
	NotIn []string `json:"not_in" nullable:"false" doc:"materials it is not tied in, or slips in"`
	// GrowsFrom: knots that help with learning it.
	GrowsFrom []trade.Relative `json:"grows_from" nullable:"false" doc:"knots that help with learning it"`
	// Faults are the names of what goes wrong with it.
	Faults []string `json:"faults" nullable:"false" doc:"names of what goes wrong with it"`
}

// Told are the words by which a knot is taught.
type Told struct {
	Steps  []string     `json:"steps" nullable:"false"`
	Checks []string     `json:"checks" nullable:"false"`
	Faults []knot.Fault `json:"faults" nullable:"false"`
	Told   knot.Told    `json:"told"`
}

func leftOf(k *knot.Knot) Told {
	k = say.OtherHanded(k)
	return Told{k.Steps, k.Checks, k.Faults, k.Told}
}

// KnotPage is everything about a knot.
type KnotPage struct {
	knot.Knot
	Drawn bool `json:"drawn"`
	// Drill: it has a crossing drill.
	Drill     bool             `json:"drill"`
	GrowsFrom []trade.Relative `json:"grows_from" nullable:"false"`
	LeadsTo   []trade.Relative `json:"leads_to" nullable:"false"`
	// Left are its words for a left-handed tyer.
	Left Told `json:"left"`
	// FaultPlaces are where faults are seen on the drawing, by code, in its own units; a
	// fault that has no one place is left out.
	FaultPlaces map[string][]float64 `json:"fault_places"`
	// Snug: what it takes and how thick it is, drawn up; left out where it is not computed.
	Snug *snug.Metrics `json:"snug,omitempty"`
	// Cautions in full.
	CautionTexts []rig.Caution `json:"caution_texts" nullable:"false"`
}

func briefOf(c *trade.Catalogue, k *knot.Knot) KnotBrief {
	b := KnotBrief{ID: k.ID, Name: k.Name, Also: k.Also, Kind: k.Kind, Summary: k.Summary, Difficulty: k.Difficulty,
		Drawn: k.Shape != "", Tasks: map[string]float64{}, NotIn: []string{}, GrowsFrom: c.GrowsFrom(k.ID), Faults: []string{}}
	for _, f := range k.Faults {
		b.Faults = append(b.Faults, f.Name)
	}
	for id, t := range k.Tasks {
		b.Tasks[id] = t.Fit
	}
	for _, m := range c.Materials {
		if _, refused := k.Refuses[m.ID]; refused || k.HoldIn(m.ID, "").Wet == knot.Slips {
			b.NotIn = append(b.NotIn, m.ID)
		}
	}
	return b
}

// file is a drawing or a page as an answer.
type file struct {
	ContentType string `header:"Content-Type"`
	Policy      string `header:"Content-Security-Policy"`
	Body        []byte
}

func svg(text string) *file { return &file{"image/svg+xml", svgPolicy, []byte(text)} }

// svgPolicy lets a drawing that is opened by itself do nothing but be seen.
const svgPolicy = "default-src 'none'; style-src 'unsafe-inline'; sandbox; frame-ancestors 'none'"

// files describes an operation by the kind of file that it answers with.
func files(o huma.Operation, kind string) huma.Operation {
	o.Responses = map[string]*huma.Response{"200": {Description: o.Summary, Content: map[string]*huma.MediaType{kind: {Schema: &huma.Schema{Type: "string", Format: "binary"}}}}}
	return o
}

// snugOf is what a knot comes to when it is drawn up; nil where that is not computed.
func snugOf(t *trade.Catalogue, id string) *snug.Metrics {
	b, err := t.Snug(id)
	if err != nil || b == nil || !b.Computed {
		return nil
	}
	return &b.Metrics
}

// KnotPath names a knot.
type KnotPath struct {
	ID string `path:"id" maxLength:"80"`
}

// knotOf gives a knot and its drawing, nil where it has none.
func knotOf(ctx context.Context, id string) (*knot.Knot, *shape.Shape, error) {
	k := of(ctx).Trade().Knot(id)
	if k == nil {
		return nil, nil, newProblem(http.StatusNotFound, fmt.Sprintf("No knot is called %q here.", id))
	}
	sh, err := of(ctx).Trade().Drawing(id)
	if err != nil {
		return nil, nil, fail(ctx, err)
	}
	return k, sh, nil
}

func knots(a huma.API) {
	huma.Register(a, op("knots", "catalogue", http.MethodGet, "/catalogue", "Materials, fittings, tasks, fields and knots"),
		func(ctx context.Context, _ *struct{}) (*body[Catalogue], error) {
			t := of(ctx).Trade()
			c := Catalogue{t.Materials, t.Surfaces, t.Fittings, t.Tasks, t.Weights, rig.Groups, t.Cautions, nil, t.Templates, t.Procedures, t.Sets, t.Lessons, t.Words, friction.Choices(), rig.Fields}
			for _, k := range t.Knots {
				c.Knots = append(c.Knots, briefOf(t, k))
			}
			return answered(ctx, c, nil)
		})
	huma.Register(a, op("knots", "knot", http.MethodGet, "/knots/{id}", "Everything about a knot"),
		func(ctx context.Context, in *KnotPath) (*body[KnotPage], error) {
			k, _, err := knotOf(ctx, in.ID)
			if err != nil {
				return nil, err
			}
			t := of(ctx).Trade()
			return answered(ctx, KnotPage{Knot: *k, Drawn: k.Shape != "", Drill: t.HasDrill(k.ID), GrowsFrom: t.GrowsFrom(k.ID), LeadsTo: t.LeadsTo(k.ID), FaultPlaces: t.FaultPlaces(k), Left: leftOf(k), Snug: snugOf(t, k.ID), CautionTexts: t.CautionsOf(k)}, nil)
		})
	for _, p := range []struct {
		id, ext, kind string
		page          func(pdf, svg []byte) *file
	}{
		{"handout", "pdf", "application/pdf", func(pdf, _ []byte) *file { return &file{ContentType: "application/pdf", Body: pdf} }},
		{"handout-svg", "svg", "image/svg+xml", func(_, text []byte) *file { return svg(string(text)) }},
	} {
		huma.Register(a, files(op("knots", p.id, http.MethodGet, "/knots/{id}/handout."+p.ext, "A knot on one printable page, as "+strings.ToUpper(p.ext)), p.kind),
			func(ctx context.Context, in *struct {
				KnotPath
				SeenQuery
				Notes bool `query:"notes" doc:"with the instructor's own aids and notes; a learner has none"`
			}) (*file, error) {
				told, err := toldOf(ctx, in.ID)
				if err != nil {
					return nil, err
				}
				if in.Notes && instructs(ctx) {
					if told.Own, err = of(ctx).NotesOn(ctx, in.ID); err != nil {
						return nil, fail(ctx, err)
					}
				}
				pdf, svg, err := export.Handout(ctx, told, in.seen())
				if err != nil {
					return nil, fail(ctx, err)
				}
				return p.page(pdf, svg), nil
			})
	}
	papers(a)
	huma.Register(a, files(op("knots", "drawing", http.MethodGet, "/knots/{id}/drawing.svg", "The drawing of a knot"), "image/svg+xml"),
		func(ctx context.Context, in *struct {
			KnotPath
			Step   float64   `query:"step" default:"-1" doc:"0 to the last step; −1 the finished knot"`
			View   draw.View `query:"view" enum:"tie,across,left,opposite" default:"tie"`
			Left   bool      `query:"left" doc:"for a left-handed tyer"`
			Look   draw.Look `query:"look" enum:"laid,braid,mono" default:"laid"`
			Labels bool      `query:"labels"`
			Tones  bool      `query:"tones" doc:"the half toward the end lighter than the half toward the standing part"`
			Ghost  bool      `query:"ghost"`
			Way    string    `query:"way" doc:"another way to it, by the id of its drawing, as the knot page names it"`
			On     string    `query:"on" enum:"ring,clew,post,rail,bollard,cleat,gap,eye,hook,unseen" doc:"what it is tied to is drawn as this, where the knot is drawn on such a thing"`
		}) (*file, error) {
			k, sh, err := knotOf(ctx, in.ID)
			if err != nil {
				return nil, err
			}
			if sh == nil {
				return nil, newProblem(http.StatusNotFound, k.Name+" has no drawing yet.")
			}
			quarter := false
			var hold, pull []shape.Strand
			if in.Way != "" {
				sh, err = of(ctx).Trade().WayDrawing(k, in.Way)
			} else {
				sh, quarter, err = of(ctx).Trade().DrawingOn(in.ID, in.On)
				if err == nil {
					hold, pull, err = trade.Seating(k, sh)
				}
			}
			if err != nil {
				return nil, fail(ctx, err)
			}
			if err := sh.HasStep(in.Step); err != nil {
				return nil, fail(ctx, err)
			}
			return svg(draw.SVG(sh, draw.Options{View: in.View, Left: in.Left, Step: in.Step, Look: in.Look, Labels: in.Labels, Hold: hold, Draw: pull, Tones: in.Tones, Ghost: in.Ghost, Quarter: quarter, Title: k.Name})), nil
		})
	huma.Register(a, files(op("knots", "fault-drawing", http.MethodGet, "/faults/{id}/drawing.svg", "The drawing of a faulty form"), "image/svg+xml"),
		func(ctx context.Context, in *struct {
			KnotPath
			View draw.View `query:"view" enum:"tie,across,left,opposite" default:"tie"`
			Left bool      `query:"left" doc:"for a left-handed tyer"`
			Look draw.Look `query:"look" enum:"laid,braid,mono" default:"laid"`
			Bare bool      `query:"bare" doc:"without the ring round what is wrong"`
		}) (*file, error) {
			t := of(ctx).Trade()
			sh, err := t.Drawing(in.ID)
			if err != nil {
				return nil, fail(ctx, err)
			}
			if sh == nil {
				return nil, newProblem(http.StatusNotFound, "There is no drawing by this name.")
			}
			title := t.FaultTitle(in.ID)
			if in.Bare {
				title = "A knot, right or wrong" // its name would give it away
			}
			return svg(draw.SVG(sh, draw.Options{View: in.View, Left: in.Left, Step: -1, Look: in.Look, Unringed: in.Bare, Title: title})), nil
		})
}
