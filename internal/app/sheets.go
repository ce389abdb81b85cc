package app

import (
	"context"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"oarweed/core/leader"
	"oarweed/core/line"
	"oarweed/core/locker"
	"oarweed/core/mooring"
	"oarweed/core/name"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/sheet"
	"oarweed/core/towline"
	"oarweed/core/usage"
)

// lineColumns are what a line is made of, wherever it stands.
func lineColumns[T any](at func(*T) *rig.Line) []sheet.Column[T] {
	return []sheet.Column[T]{
		sheet.Text("material", func(x *T) *string { return &at(x).Material }),
		{Name: "construction", Get: func(x *T) string { return string(at(x).Construction) }, Set: func(x *T, t string) error { at(x).Construction = line.Construction(t); return nil }},
		sheet.Num("diameter_mm", func(x *T) *float64 { return &at(x).DiameterMM }),
		sheet.Num("label_kn", func(x *T) *float64 { return &at(x).LabelKN }),
		sheet.Int("wear", func(x *T) *int { return &at(x).Wear }),
	}
}

func parts[T, P any](of func(*T) *[]P, columns []sheet.Column[P]) *sheet.Parts[T] {
	p := &sheet.Parts[T]{N: func(x *T) int { return len(*of(x)) }, Grow: func(x *T) { var none P; *of(x) = append(*of(x), none) }}
	for _, c := range columns {
		p.Columns = append(p.Columns, sheet.Part(c, func(x *T, i int) *P { return &(*of(x))[i] }))
	}
	return p
}

func timeColumn[T any](name string, at func(*T) *time.Time) sheet.Column[T] {
	return sheet.Column[T]{Name: name, Get: func(x *T) string {
		if at(x).IsZero() {
			return ""
		}
		return at(x).UTC().Format(time.RFC3339)
	}, Set: func(x *T, text string) error {
		for _, form := range []string{time.RFC3339, "2006-01-02 15:04", time.DateOnly} {
			if v, err := time.Parse(form, text); err == nil {
				*at(x) = v.UTC()
				return nil
			}
		}
		return problem.New("", fmt.Sprintf("%q is no time", text), "write it as 2026-05-31 or 2026-05-31 14:30")
	}}
}

var lockerFile = fileOf[locker.Line]{
	sheet: sheet.Sheet[locker.Line]{
		Columns: slices.Concat([]sheet.Column[locker.Line]{
			sheet.Text("name", func(l *locker.Line) *string { return &l.Name }),
			sheet.Text("code", func(l *locker.Line) *string { return &l.Code }),
		}, lineColumns(func(l *locker.Line) *rig.Line { return &l.Line }), []sheet.Column[locker.Line]{
			sheet.Num("length_left_m", func(l *locker.Line) *float64 { return &l.LengthM }),
			sheet.Text("colour", func(l *locker.Line) *string { return &l.Colour }),
			sheet.Text("lives", func(l *locker.Line) *string { return &l.Lives }),
			sheet.Text("bought", func(l *locker.Line) *string { return &l.Bought }),
			sheet.Text("retire_by", func(l *locker.Line) *string { return &l.RetireBy }),
			sheet.Text("retired", func(l *locker.Line) *string { return &l.Retired }),
			sheet.Num("hours", func(l *locker.Line) *float64 { return &l.Hours }),
			sheet.Int("trips", func(l *locker.Line) *int { return &l.Trips }),
			sheet.Int("look_every_days", func(l *locker.Line) *int { return &l.LookEvery }),
			sheet.Num("friction", func(l *locker.Line) *float64 { return &l.Mu }),
			sheet.Num("friction_spread", func(l *locker.Line) *float64 { return &l.MuSpread }),
			sheet.Text("note", func(l *locker.Line) *string { return &l.Note }),
		}),
		Parts: parts(func(l *locker.Line) *[]locker.Look { return &l.Looks }, slices.Concat([]sheet.Column[locker.Look]{
			timeColumn("looked_at", func(k *locker.Look) *time.Time { return &k.At }),
			sheet.Text("looked_by", func(k *locker.Look) *string { return &k.By }),
		}, gradeColumns(), []sheet.Column[locker.Look]{
			sheet.Num("worst_at_m", func(k *locker.Look) *float64 { return &k.PlaceM }),
			sheet.Text("look_note", func(k *locker.Look) *string { return &k.Note }),
		})),
	},
	fresh: func() locker.Line { return locker.Line{} },
	list:  func(ctx context.Context, s *School) ([]locker.Line, error) { return s.records.Lines(ctx) },
	name:  func(l *locker.Line) string { return name.Key(l.Name) },
	check: func(_ context.Context, s *School, list []*locker.Line) error {
		for _, l := range list {
			for i := range l.Looks {
				l.Looks[i].Photos = nil // a picture is of this database alone
			}
			if err := l.Check(&s.Trade().Vocabulary, s.now()); err != nil {
				return err
			}
		}
		return nil
	},
	add: func(ctx context.Context, s *School, list []locker.Line) error {
		codes, err := s.ownLines(ctx)
		if err != nil {
			return err
		}
		for _, l := range list {
			l.ID, l.Revision = 0, 0
			if _, taken := codes[l.Code]; l.Code == "" || taken {
				l.Code = locker.NewCode()
			}
			if _, err := s.records.SaveLine(ctx, l); err != nil {
				return err
			}
		}
		return nil
	},
}

// gradeColumns are the parts that were looked at. A grade of 0 is written: it was looked at.
func gradeColumns() []sheet.Column[locker.Look] {
	var out []sheet.Column[locker.Look]
	for _, part := range locker.Parts {
		out = append(out, sheet.Column[locker.Look]{Name: part, Get: func(k *locker.Look) string {
			if g, ok := k.Grades[part]; ok {
				return strconv.Itoa(g)
			}
			return ""
		}, Set: func(k *locker.Look, text string) error {
			g, err := strconv.Atoi(text)
			if err != nil {
				return problem.New("", fmt.Sprintf("%q is no grade", text), "give 0 to 3")
			}
			if k.Grades == nil {
				k.Grades = map[string]int{}
			}
			k.Grades[part] = g
			return nil
		}})
	}
	return out
}

// mostOut is how much of the log goes into one file.
const mostOut = 200_000

var useFile = fileOf[usage.Entry]{
	sheet: sheet.Sheet[usage.Entry]{Columns: []sheet.Column[usage.Entry]{
		sheet.Text("where", func(e *usage.Entry) *string { return &e.Where }),
		timeColumn("at", func(e *usage.Entry) *time.Time { return &e.At }),
		sheet.Text("rig", func(e *usage.Entry) *string { return &e.Rig }),
		sheet.Text("line", func(e *usage.Entry) *string { return &e.Line }),
		sheet.Text("other", func(e *usage.Entry) *string { return &e.Other }),
		sheet.Text("knot", func(e *usage.Entry) *string { return &e.Knot }),
		{Name: "outcome", Get: func(e *usage.Entry) string { return string(e.Outcome) }, Set: func(e *usage.Entry, t string) error { e.Outcome = usage.Outcome(t); return nil }},
		sheet.Num("hours", func(e *usage.Entry) *float64 { return &e.Hours }),
		sheet.Num("place_m", func(e *usage.Entry) *float64 { return &e.PlaceM }),
		sheet.Num("wind_kn", func(e *usage.Entry) *float64 { return &e.WindKn }),
		sheet.Text("note", func(e *usage.Entry) *string { return &e.Note }),
		sheet.Text("key", func(e *usage.Entry) *string { return &e.Key }),
	}},
	fresh: func() usage.Entry { return usage.Entry{} },
	list: func(ctx context.Context, s *School) ([]usage.Entry, error) {
		list, _, err := s.records.Uses(ctx, usage.Filter{}, Page{Limit: mostOut})
		for i := range list {
			if list[i].Key == "" { // so that it is known again when it comes back
				list[i].Key = useKey(&list[i])
			}
		}
		return list, err
	},
	name: func(e *usage.Entry) string {
		if e.Key != "" {
			return e.Key
		}
		return useKey(e)
	},
	check: func(ctx context.Context, s *School, list []*usage.Entry) error {
		for _, e := range list {
			e.Photo = 0
		}
		return s.checkUses(ctx, list, false)
	},
	add: func(ctx context.Context, s *School, list []usage.Entry) error {
		// The newest stands first: kept the other way round, those of one second keep their order.
		slices.Reverse(list)
		_, err := s.records.AddUses(ctx, list)
		return err
	},
}

// useKey is what tells a use without a key of its own from others.
func useKey(e *usage.Entry) string {
	return fmt.Sprintf("%s %s %s %s", e.At.UTC().Format(time.RFC3339), e.Line, e.Knot, name.Key(e.Where))
}

var leaderFile = fileOf[leader.Book]{
	sheet: sheet.Sheet[leader.Book]{
		Columns: slices.Concat([]sheet.Column[leader.Book]{
			sheet.Text("name", func(b *leader.Book) *string { return &b.Name }),
			sheet.Num("length_m", func(b *leader.Book) *float64 { return &b.LengthM }),
			sheet.Num("shortest_m", func(b *leader.Book) *float64 { return &b.ShortestM }),
			sheet.Num("action_m", func(b *leader.Book) *float64 { return &b.ActionM }),
			sheet.Text("knot", func(b *leader.Book) *string { return &b.Knot }),
		}, lineColumns(func(b *leader.Book) *rig.Line { return &b.Line }), []sheet.Column[leader.Book]{
			sheet.Int("changes", func(b *leader.Book) *int { return &b.Changes }),
			sheet.Num("lost_m", func(b *leader.Book) *float64 { return &b.LostM }),
			timeColumn("begun", func(b *leader.Book) *time.Time { return &b.Begun }),
			sheet.Text("spool", func(b *leader.Book) *string { return &b.Own }),
		}),
		Parts: parts(func(b *leader.Book) *[]leader.Section { return &b.Sections }, named("section_", slices.Concat([]sheet.Column[leader.Section]{
			sheet.Num("length_m", func(s *leader.Section) *float64 { return &s.LengthM }),
			sheet.Text("knot", func(s *leader.Section) *string { return &s.Knot }),
		}, lineColumns(func(s *leader.Section) *rig.Line { return &s.Line })))),
	},
	fresh: func() leader.Book { return leader.Book{} },
	list:  func(ctx context.Context, s *School) ([]leader.Book, error) { return s.LeaderBooks(ctx) },
	name:  func(b *leader.Book) string { return name.Key(b.Name) },
	check: func(_ context.Context, s *School, list []*leader.Book) error {
		for _, b := range list {
			b.ID, b.Revision = 0, 0
			if err := b.Check(s.Trade()); err != nil {
				return err
			}
		}
		return nil
	},
	add: each((*School).SaveLeader),
}

// named are columns with a word before their names.
func named[T any](word string, columns []sheet.Column[T]) []sheet.Column[T] {
	for i := range columns {
		columns[i].Name = word + columns[i].Name
	}
	return columns
}

var towFile = fileOf[towline.Book]{
	sheet: sheet.Sheet[towline.Book]{
		Columns: slices.Concat([]sheet.Column[towline.Book]{
			sheet.Text("name", func(b *towline.Book) *string { return &b.Name }),
			sheet.Text("boat", func(b *towline.Book) *string { return &b.Boat }),
			{Name: "on", Get: func(b *towline.Book) string { return string(b.On) }, Set: func(b *towline.Book, t string) error { b.On = towline.On(t); return nil }},
			{Name: "takeoffs", Get: func(b *towline.Book) string {
				var out []string
				for _, m := range b.TakeoffsM {
					out = append(out, strconv.FormatFloat(m, 'f', -1, 64)+"m")
				}
				return strings.Join(out, ", ")
			}, Set: func(b *towline.Book, t string) error {
				offs, err := towline.ParseTakeoffs(t)
				for _, x := range offs {
					b.TakeoffsM = append(b.TakeoffsM, float64(x))
				}
				return err
			}},
			sheet.Text("locker", func(b *towline.Book) *string { return &b.Own }),
		}, lineColumns(func(b *towline.Book) *rig.Line { return &b.Line }), []sheet.Column[towline.Book]{
			{Name: "runs", Get: func(b *towline.Book) string {
				var out []string
				for _, r := range b.Runs {
					out = append(out, fmt.Sprintf("%s m x %d", strconv.FormatFloat(r.PlaceM, 'f', -1, 64), r.N))
				}
				return strings.Join(out, "; ")
			}, Set: func(b *towline.Book, t string) error {
				for p := range strings.SplitSeq(t, ";") {
					var r towline.Run
					if _, err := fmt.Sscanf(strings.TrimSpace(p), "%g m x %d", &r.PlaceM, &r.N); err != nil {
						return problem.New("", fmt.Sprintf("%q is no count at a place", p), "write it like 21.5 m x 12; 22 m x 3")
					}
					b.Runs = append(b.Runs, r)
				}
				return nil
			}},
		}),
		Parts: parts(func(b *towline.Book) *[]towline.Rider { return &b.Riders }, []sheet.Column[towline.Rider]{
			sheet.Text("rider", func(r *towline.Rider) *string { return &r.Name }),
			sheet.Text("rider_boat", func(r *towline.Rider) *string { return &r.Boat }),
			sheet.Num("want_m", func(r *towline.Rider) *float64 { return &r.WantM }),
			sheet.Num("kn", func(r *towline.Rider) *float64 { return &r.Kn }),
		}),
	},
	fresh: func() towline.Book { return towline.Book{} },
	list:  func(ctx context.Context, s *School) ([]towline.Book, error) { return s.TowBooks(ctx) },
	name:  func(b *towline.Book) string { return name.Key(b.Name) },
	check: func(_ context.Context, s *School, list []*towline.Book) error {
		for _, b := range list {
			b.ID, b.Revision = 0, 0
			if err := b.Check(&s.Trade().Vocabulary); err != nil {
				return err
			}
		}
		return nil
	},
	add: each((*School).SaveTow),
}

var berthFile = fileOf[mooring.Berth]{
	sheet: sheet.Sheet[mooring.Berth]{
		Columns: []sheet.Column[mooring.Berth]{
			sheet.Text("name", func(b *mooring.Berth) *string { return &b.Name }),
			sheet.Num("loa_m", func(b *mooring.Berth) *float64 { return &b.Plan.Boat.LOAM }),
			sheet.Num("beam_m", func(b *mooring.Berth) *float64 { return &b.Plan.Boat.BeamM }),
			sheet.Num("displacement_t", func(b *mooring.Berth) *float64 { return &b.Plan.Boat.DisplacementT }),
			sheet.Num("side_m2", func(b *mooring.Berth) *float64 { return &b.Plan.Boat.SideM2 }),
			sheet.Num("wind_kn", func(b *mooring.Berth) *float64 { return &b.Wind.Kn }),
			sheet.Num("wind_from_deg", func(b *mooring.Berth) *float64 { return &b.Wind.FromDeg }),
			sheet.Num("heading_deg", func(b *mooring.Berth) *float64 { return &b.Heading }),
			{Name: "lying", Get: func(b *mooring.Berth) string {
				if b.Lying {
					return "yes"
				}
				return ""
			}, Set: func(b *mooring.Berth, t string) error {
				switch strings.ToLower(t) {
				case "yes", "true", "1":
					b.Lying = true
				case "no", "false", "0":
				default:
					return problem.New("", fmt.Sprintf("%q is neither", t), "write yes or no")
				}
				return nil
			}},
			sheet.Text("note", func(b *mooring.Berth) *string { return &b.Note }),
		},
		Parts: parts(func(b *mooring.Berth) *[]mooring.Line { return &b.Plan.Lines }, slices.Concat([]sheet.Column[mooring.Line]{
			sheet.Text("line", func(l *mooring.Line) *string { return &l.Name }),
			sheet.Num("from_x", func(l *mooring.Line) *float64 { return &l.From[0] }),
			sheet.Num("from_y", func(l *mooring.Line) *float64 { return &l.From[1] }),
			sheet.Num("to_x", func(l *mooring.Line) *float64 { return &l.To[0] }),
			sheet.Num("to_y", func(l *mooring.Line) *float64 { return &l.To[1] }),
			postColumn("boat", func(l *mooring.Line) *mooring.Post { return &l.Boat }),
			postColumn("shore", func(l *mooring.Line) *mooring.Post { return &l.Shore }),
			sheet.Text("locker", func(l *mooring.Line) *string { return &l.Own }),
		}, lineColumns(func(l *mooring.Line) *rig.Line { return &l.Line }))),
	},
	fresh: func() mooring.Berth { return mooring.Berth{} },
	list:  func(ctx context.Context, s *School) ([]mooring.Berth, error) { return s.Berths(ctx) },
	name:  func(b *mooring.Berth) string { return name.Key(b.Name) },
	check: func(_ context.Context, s *School, list []*mooring.Berth) error {
		for _, b := range list {
			b.ID, b.Revision = 0, 0
			if err := b.Check(&s.Trade().Vocabulary); err != nil {
				return err
			}
		}
		return nil
	},
	add: each((*School).SaveBerth),
}

func postColumn(name string, at func(*mooring.Line) *mooring.Post) sheet.Column[mooring.Line] {
	return sheet.Column[mooring.Line]{Name: name, Get: func(l *mooring.Line) string { return string(*at(l)) }, Set: func(l *mooring.Line, t string) error {
		if !slices.Contains(mooring.Posts, mooring.Post(t)) {
			return problem.New("", fmt.Sprintf("%q is not known", t), "use cleat, bollard, ring or post")
		}
		*at(l) = mooring.Post(t)
		return nil
	}}
}
