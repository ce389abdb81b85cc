package api

import (
	"context"
	"fmt"
	"net/http"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/cover"
	"oarweed/core/friction"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/shape"
	"oarweed/core/shape/draw"
	"oarweed/core/shape/drill"
	"oarweed/core/shape/roll"
	"oarweed/core/shape/trace"
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
			}) (*file, error) {
				told, err := toldOf(ctx, in.ID)
				if err != nil {
					return nil, err
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
			Ghost  bool      `query:"ghost"`
			On     string    `query:"on" enum:"ring,clew,post,rail,bollard,cleat,gap,eye,hook,unseen" doc:"what it is tied to is drawn as this, where the knot is drawn on such a thing"`
		}) (*file, error) {
			k, sh, err := knotOf(ctx, in.ID)
			if err != nil {
				return nil, err
			}
			if sh == nil {
				return nil, newProblem(http.StatusNotFound, k.Name+" has no drawing yet.")
			}
			sh, quarter, err := of(ctx).Trade().DrawingOn(in.ID, in.On)
			if err != nil {
				return nil, fail(ctx, err)
			}
			if err := sh.HasStep(in.Step); err != nil {
				return nil, fail(ctx, err)
			}
			return svg(draw.SVG(sh, draw.Options{View: in.View, Left: in.Left, Step: in.Step, Look: in.Look, Labels: in.Labels, Ghost: in.Ghost, Quarter: quarter, Title: k.Name})), nil
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

// DrillPage is what a learner needs to work a crossing drill.
type DrillPage struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Frame is left, top, width and height of the drawing in its own units.
	Frame     []float64        `json:"frame" nullable:"false" doc:"left, top, width and height of the drawing in its own units"`
	Crossings []drill.Crossing `json:"crossings" nullable:"false"`
	// Choices is the number of ways to set all crossings, Tangles how many different
	// tangles they make.
	Choices int `json:"choices" doc:"number of ways to set all crossings"`
	Tangles int `json:"tangles" doc:"how many different tangles they make"`
	// Sampled: the tangles were counted in some of the choices only.
	Sampled bool `json:"sampled,omitempty" doc:"the tangles were counted in some of the choices only"`
	// Next is the knot whose drill comes next.
	Next string `json:"next" doc:"the knot whose drill comes next"`
}

// parseSet reads "ao,bu": o where the strand that comes by first is over.
func parseSet(text string) (map[string]bool, error) {
	set := map[string]bool{}
	for _, w := range strings.FieldsFunc(text, func(r rune) bool { return r == ',' }) {
		name, sign := w[:len(w)-1], w[len(w)-1]
		if name == "" || sign != 'o' && sign != 'u' {
			return nil, problem.New("set", fmt.Sprintf("%q is not a crossing with o or u", w), "write set=ao,bu")
		}
		set[name] = sign == 'o'
	}
	return set, nil
}

func drills(a huma.API) {
	type setting struct {
		KnotPath
		Set string `query:"set" maxLength:"200" doc:"crossings as ao,bu: o where the strand that comes by first is over"`
	}
	find := func(ctx context.Context, id string) (*drill.Drill, error) {
		d, err := of(ctx).Trade().Drill(id)
		if err != nil {
			return nil, fail(ctx, err)
		}
		if d == nil {
			return nil, newProblem(http.StatusNotFound, fmt.Sprintf("There is no crossing drill for %q.", id))
		}
		return d, nil
	}
	huma.Register(a, op("knots", "drill", http.MethodGet, "/knots/{id}/drill", "The crossing drill of a knot"),
		func(ctx context.Context, in *KnotPath) (*body[DrillPage], error) {
			d, err := find(ctx, in.ID)
			if err != nil {
				return nil, err
			}
			f := d.Frame()
			classes, whole := d.Classes()
			t := of(ctx).Trade()
			return answered(ctx, DrillPage{in.ID, t.Knot(in.ID).Name, f[:], d.Crossings, d.Choices(), len(classes), !whole, t.NextDrill(in.ID)}, nil)
		})
	huma.Register(a, files(op("knots", "drill-drawing", http.MethodGet, "/knots/{id}/drill.svg", "The drill with some crossings set"), "image/svg+xml"),
		func(ctx context.Context, in *setting) (*file, error) {
			d, err := find(ctx, in.ID)
			if err != nil {
				return nil, err
			}
			set, err := parseSet(in.Set)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return svg(d.Shadow(draw.Options{Look: draw.LookLaid, Title: "Crossing drill"}, set)), nil
		})
	huma.Register(a, op("knots", "drill-verdict", http.MethodGet, "/knots/{id}/drill/verdict", "Which knot the crossings make"),
		func(ctx context.Context, in *setting) (*body[trade.Verdict], error) {
			if _, err := find(ctx, in.ID); err != nil {
				return nil, err
			}
			set, err := parseSet(in.Set)
			if err != nil {
				return nil, fail(ctx, err)
			}
			v, err := of(ctx).Trade().Verdict(in.ID, set)
			return answered(ctx, v, err)
		})
}

// Traced is what a tracing is found to be, and where its strands cross.
type Traced struct {
	Meetings []trace.Meeting `json:"meetings" nullable:"false" doc:"every crossing, and what is said of it"`
	// Left is how many crossings are not marked yet; until all are, there is no match.
	Left    int          `json:"left" doc:"crossings not marked yet"`
	Matches []trade.Tied `json:"matches" nullable:"false" doc:"best first; none if it is no knot here"`
}

func traces(a huma.API) {
	huma.Register(a, op("knots", "trace", http.MethodPost, "/knots/traced", "Which knot a tracing is of, or which fault of one"),
		func(ctx context.Context, in *struct{ Body trace.Trace }) (*body[Traced], error) {
			meets, err := in.Body.Meetings()
			if err != nil {
				return nil, fail(ctx, err)
			}
			out := Traced{Meetings: append([]trace.Meeting{}, meets...), Matches: []trade.Tied{}}
			for _, m := range meets {
				if m.Over == "" {
					out.Left++
				}
			}
			t := of(ctx).Trade()
			switch {
			case out.Left > 0:
				go t.PrepareNames() // while the crossings are being marked
			case len(meets) > 0:
				out.Matches, err = t.NameTied(in.Body)
			}
			return answered(ctx, out, err)
		})
}

// Rolls are the four joins that look alike, and which way their ropes turn.
type Rolls struct {
	Joins []RollOf `json:"joins" nullable:"false"`
	// Evidence of the counts.
	Evidence string `json:"evidence"`
}

// RollOf is one of them.
type RollOf struct {
	ID    string    `json:"id"`
	Name  string    `json:"name"`
	Frame []float64 `json:"frame" nullable:"false" doc:"left, top, width and height of the drawing in its own units"`
	roll.Rolled
}

// QuizFault is a drawn fault to be found.
type QuizFault struct {
	Drawing string `json:"drawing"`
	// Right is the drawing of the same place done right.
	Right string `json:"right"`
	Knot  string `json:"knot"`
	Of    string `json:"of" doc:"name of the knot"`
	Code  string `json:"code"`
	Name  string `json:"name"`
	Looks string `json:"looks"`
	Leads string `json:"leads"`
	Mend  string `json:"mend"`
	// At is where it shows: x, y and radius, in the units of the drawing.
	At    []float64 `json:"at" nullable:"false" doc:"x, y and radius of where it shows, in the drawing's own units"`
	Frame []float64 `json:"frame" nullable:"false" doc:"left, top, width and height of the drawing in its own units"`
}

func lessonsOf(a huma.API) {
	huma.Register(a, op("knots", "fewest", http.MethodPost, "/knots/fewest", "The fewest knots that do given jobs"),
		func(ctx context.Context, in *struct {
			Body struct {
				Jobs []cover.Job `json:"jobs" nullable:"false" maxItems:"64"`
			}
		}) (*body[cover.Cover], error) {
			out, err := cover.Fewest(of(ctx).Trade(), in.Body.Jobs)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("knots", "rolls", http.MethodGet, "/knots/rolls", "Why the granny rolls out: how the ropes of four joins turn at their crossings"),
		func(ctx context.Context, _ *struct{}) (*body[Rolls], error) {
			t := of(ctx).Trade()
			out := Rolls{Evidence: roll.Evidence}
			for _, id := range roll.Joins {
				sh, err := t.Drawing(id)
				if err != nil {
					return nil, fail(ctx, err)
				}
				rolled, err := roll.Of(sh)
				if err != nil {
					return nil, fail(ctx, err)
				}
				frame := draw.Frame(sh)
				out.Joins = append(out.Joins, RollOf{id, t.NameOfDrawing(id), frame[:], rolled})
			}
			return answered(ctx, out, nil)
		})
	huma.Register(a, op("knots", "faults", http.MethodGet, "/faults", "Every fault that is drawn, and where it shows"),
		func(ctx context.Context, _ *struct{}) (*body[[]QuizFault], error) {
			t := of(ctx).Trade()
			out := []QuizFault{}
			for _, k := range t.Knots {
				for _, f := range k.Faults {
					sh, err := t.Drawing(f.Drawing)
					if err != nil {
						return nil, fail(ctx, err)
					}
					if sh == nil {
						continue
					}
					frame := draw.Frame(sh)
					q := QuizFault{f.Drawing, f.Right, k.ID, k.Name, f.Code, f.Name, f.Looks, f.Leads, f.Mend, []float64{}, frame[:]}
					if len(sh.Ringed) > 0 {
						c := sh.Ringed[0]
						q.At = []float64{c.At.X, c.At.Y, c.R}
					}
					out = append(out, q)
				}
			}
			return answered(ctx, out, nil)
		})
	huma.Register(a, files(op("knots", "word-drawing", http.MethodGet, "/words/{id}/drawing.svg", "The drawing that explains a word"), "image/svg+xml"),
		func(ctx context.Context, in *KnotPath) (*file, error) {
			sh, err := of(ctx).Trade().WordDrawing(in.ID)
			if err != nil {
				return nil, fail(ctx, err)
			}
			if sh == nil {
				return nil, newProblem(http.StatusNotFound, "There is no drawing of this word.")
			}
			return svg(draw.SVG(sh, draw.Options{Step: -1, Look: draw.LookLaid, Title: in.ID})), nil
		})
}
