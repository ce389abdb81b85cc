package api

import (
	"context"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/cover"
	"oarweed/core/problem"
	"oarweed/core/say"
	"oarweed/core/shape/draw"
	"oarweed/core/shape/drill"
	"oarweed/core/shape/roll"
	"oarweed/core/shape/trace"
	"oarweed/core/trade"
)

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
	Says    string `json:"says"`
	Counted string `json:"counted"`
	// Good: it is the one to tie; the others are faults of it.
	Good bool `json:"good"`
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
				out.Joins = append(out.Joins, RollOf{id, t.NameOfDrawing(id), frame[:], rolled, say.Rolls(rolled), say.RollCount(rolled), t.Knot(id) != nil})
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
