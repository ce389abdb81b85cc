package app

import (
	"context"

	"oarweed/core/evidence"
	"oarweed/core/job"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/towline"
	"oarweed/core/unit"
)

const towKind = "tow-line"

var towsKept = kindOf[towline.Book]{towKind, func(b *towline.Book, d Document) { b.ID, b.Revision = d.ID, d.Revision },
	func(b towline.Book) (int64, int64) { return b.ID, b.Revision }}

// TowCard is a tow line with the place of each of its riders.
type TowCard struct {
	towline.Book
	Places []TowPlace `json:"places" nullable:"false" doc:"one for each rider"`
	// Rubbed are places where a hitch has sat so often that the cover is to be felt.
	Rubbed []towline.Run `json:"rubbed" nullable:"false"`
	// Threads says how a loop is put on what the line is made fast to, the hitch between
	// take-offs being Hitch.
	Threads  []string      `json:"threads" nullable:"false"`
	Hitch    string        `json:"hitch" doc:"knot between take-offs"`
	Coils    int           `json:"coils" doc:"of 40 cm"`
	LineName string        `json:"line_name,omitempty"`
	State    []string      `json:"state,omitempty" doc:"how the line of the locker is"`
	Says     []string      `json:"says" nullable:"false"`
	Cautions []rig.Caution `json:"cautions" nullable:"false"`
}

// TowPlace is where the line is made fast for a rider; Wrong says why it cannot be.
type TowPlace struct {
	TowAnswer
	Wrong string       `json:"wrong,omitempty"`
	AtM   float64      `json:"at_m" doc:"of the hitch or the loop, from the handle"`
	Tag   evidence.Tag `json:"tag" enum:"computed"`
}

// TowBooks lists them, the last changed first.
func (s *School) TowBooks(ctx context.Context) ([]towline.Book, error) { return towsKept.list(ctx, s) }

// TowBook reads one.
func (s *School) TowBook(ctx context.Context, id int64) (towline.Book, error) {
	return towsKept.one(ctx, s, id)
}

// SaveTow keeps one. The error names each field.
func (s *School) SaveTow(ctx context.Context, b towline.Book) (towline.Book, error) {
	if err := b.Check(&s.Trade().Vocabulary); err != nil {
		return b, err
	}
	return towsKept.save(ctx, s, b)
}

// DeleteTow removes one.
func (s *School) DeleteTow(ctx context.Context, id int64) error {
	return s.records.DeleteDocument(ctx, towKind, id)
}

// TowLines are the tow lines with the place of each rider.
func (s *School) TowLines(ctx context.Context) ([]TowCard, error) {
	list, err := s.TowBooks(ctx)
	if err != nil {
		return nil, err
	}
	own, err := s.ownLines(ctx)
	if err != nil {
		return nil, err
	}
	used, err := s.records.LinesUsed(ctx)
	if err != nil {
		return nil, err
	}
	out := []TowCard{}
	c := s.Trade()
	for _, b := range list {
		card := TowCard{Book: b, Places: []TowPlace{}, Rubbed: b.Rubbed(), Threads: say.Threads(b.On), Hitch: b.On.Hitch(), Cautions: c.CautionTexts([]string{"person", "tow", "hardware"})}
		for _, r := range b.Riders {
			card.Places = append(card.Places, s.towPlace(b, r))
		}
		if l, ok := own[b.Own]; ok {
			card.LineName = l.Name
			if lc, err := s.lineCard(l, used[l.Code]); err == nil {
				card.State = lc.Says
			}
		}
		if n, err := job.Coils(unit.Length(b.TakeoffsM[len(b.TakeoffsM)-1]).String(), "40cm"); err == nil {
			card.Coils = n
		}
		card.Says = say.TowLine(b)
		out = append(out, card)
	}
	return out, nil
}

func (s *School) towPlace(b towline.Book, r towline.Rider) TowPlace {
	want := unit.Length(r.WantM)
	p, err := towline.Find(b.Offs(), want, b.On)
	if err != nil {
		f := problem.Fields(err)[0]
		return TowPlace{TowAnswer: TowAnswer{WantM: r.WantM, TakeoffsM: b.TakeoffsM}, Wrong: say.Sentence(r.Name + "'s length " + f.Message + ": " + f.Fix), Tag: evidence.Computed}
	}
	return TowPlace{TowAnswer: TowAnswer{TakeoffM: float64(p.Takeoff), TakeUpM: float64(p.TakeUp), Hitch: p.Hitch, Says: say.TowPlace(p, s.Trade().Knot(p.Hitch)), TakeoffsM: b.TakeoffsM, WantM: r.WantM},
		AtM: float64(p.At()), Tag: evidence.Computed}
}

// RecordRun counts a run of a rider on a tow line: with a hitch the cover is rubbed there.
func (s *School) RecordRun(ctx context.Context, id int64, rider int) (towline.Book, error) {
	b, err := s.TowBook(ctx, id)
	if err != nil {
		return b, err
	}
	if rider < 0 || rider >= len(b.Riders) {
		return b, problem.New("rider", "is not one of this line", "count from 0")
	}
	p, err := towline.Find(b.Offs(), unit.Length(b.Riders[rider].WantM), b.On)
	if err != nil {
		return b, err
	}
	b.Record(p)
	return towsKept.save(ctx, s, b)
}
