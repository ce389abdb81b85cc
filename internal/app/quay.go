package app

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"image"
	"image/jpeg"
	_ "image/png" // a picture may be one
	"slices"
	"time"

	"oarweed/core/practice"
	"oarweed/core/problem"
)

const (
	quayKind = "quay"
	gearKind = "gear"
	noteKind = "knot-note"
)

// kindOf keeps records of one form as documents.
type kindOf[T any] struct {
	kind string
	// at sets id and revision of a record, get reads them.
	at  func(*T, Document)
	get func(T) (id, revision int64)
}

func (k kindOf[T]) read(d Document) (v T, err error) {
	err = json.Unmarshal(d.Body, &v)
	k.at(&v, d)
	return v, err
}

func (k kindOf[T]) list(ctx context.Context, s *School) ([]T, error) {
	docs, err := s.records.Documents(ctx, k.kind)
	if err != nil {
		return nil, err
	}
	out := make([]T, 0, len(docs))
	for _, d := range docs {
		v, err := k.read(d)
		if err != nil {
			return nil, err
		}
		out = append(out, v)
	}
	return out, nil
}

func (k kindOf[T]) one(ctx context.Context, s *School, id int64) (v T, err error) {
	d, err := s.records.Document(ctx, k.kind, id)
	if err != nil {
		return v, err
	}
	return k.read(d)
}

// save keeps a record; a conflict gives the one kept in its own form.
func (k kindOf[T]) save(ctx context.Context, s *School, v T) (T, error) {
	body, err := json.Marshal(v)
	if err != nil {
		return v, err
	}
	id, revision := k.get(v)
	d, err := s.records.SaveDocument(ctx, Document{ID: id, Kind: k.kind, Revision: revision, Body: body})
	if c := (*Conflict)(nil); errors.As(err, &c) {
		if d, ok := c.Kept.(Document); ok {
			if kept, err := k.read(d); err == nil {
				c.Kept = kept
			}
		}
	}
	if err != nil {
		return v, err
	}
	return k.read(d)
}

var (
	lessonsKept = kindOf[Lesson]{lessonKind, func(l *Lesson, d Document) { l.ID, l.Revision = d.ID, d.Revision },
		func(l Lesson) (int64, int64) { return l.ID, l.Revision }}
	quayKept = kindOf[practice.QuayRound]{quayKind, func(q *practice.QuayRound, d Document) { q.ID, q.Revision = d.ID, d.Revision },
		func(q practice.QuayRound) (int64, int64) { return q.ID, q.Revision }}
	gearKept = kindOf[practice.Gear]{gearKind, func(g *practice.Gear, d Document) {
		g.ID, g.Revision, g.Code = d.ID, d.Revision, practice.GearCode(d.ID)
	}, func(g practice.Gear) (int64, int64) { return g.ID, g.Revision }}
	notesKept = kindOf[practice.Note]{noteKind, func(n *practice.Note, d Document) { n.ID, n.Revision = d.ID, d.Revision },
		func(n practice.Note) (int64, int64) { return n.ID, n.Revision }}
)

func (s *School) known(id string) bool { return s.Trade().Knot(id) != nil }

// QuayRounds lists the walks along the quay, the last changed first.
func (s *School) QuayRounds(ctx context.Context) ([]practice.QuayRound, error) {
	return quayKept.list(ctx, s)
}

// QuayRound reads one.
func (s *School) QuayRound(ctx context.Context, id int64) (practice.QuayRound, error) {
	return quayKept.one(ctx, s, id)
}

// SaveQuayRound keeps one.
func (s *School) SaveQuayRound(ctx context.Context, q practice.QuayRound) (practice.QuayRound, error) {
	if err := q.Check(s.known, s.now()); err != nil {
		return q, err
	}
	return quayKept.save(ctx, s, q)
}

// DeleteQuayRound removes one.
func (s *School) DeleteQuayRound(ctx context.Context, id int64) error {
	return s.records.DeleteDocument(ctx, quayKind, id)
}

// Gear lists what has knots on it, what is to be looked at first before the rest.
func (s *School) Gear(ctx context.Context) ([]practice.Gear, error) {
	list, err := gearKept.list(ctx, s)
	slices.SortStableFunc(list, func(a, b practice.Gear) int {
		switch {
		case a.Again.IsZero() != b.Again.IsZero():
			if a.Again.IsZero() {
				return 1
			}
			return -1
		}
		return a.Again.Compare(b.Again)
	})
	return list, err
}

// GearOf reads one.
func (s *School) GearOf(ctx context.Context, id int64) (practice.Gear, error) {
	return gearKept.one(ctx, s, id)
}

// GearByCode finds a thing by what is printed on its label.
func (s *School) GearByCode(ctx context.Context, code string) (practice.Gear, error) {
	id := practice.GearID(code)
	if id == 0 {
		return practice.Gear{}, problem.New("code", "is not one of a label", "read it again: it begins with G, and its last letter checks the others")
	}
	return gearKept.one(ctx, s, id)
}

// SaveGear keeps one.
func (s *School) SaveGear(ctx context.Context, g practice.Gear) (practice.Gear, error) {
	if err := g.Put(s.known, s.now()); err != nil {
		return g, err
	}
	return gearKept.save(ctx, s, g)
}

// DeleteGear removes one.
func (s *School) DeleteGear(ctx context.Context, id int64) error {
	return s.records.DeleteDocument(ctx, gearKind, id)
}

const (
	// mostPhoto is the largest picture that is taken, in bytes, mostSide its longest side.
	mostPhoto = 3 << 20
	mostSide  = 2400
)

// AddPhoto keeps a picture. It is drawn anew, so that nothing of where and by what it was
// taken stays in it.
func (s *School) AddPhoto(ctx context.Context, key string, learner int64, data []byte) (int64, error) {
	bad := func(what string) error {
		return problem.New("data", what, "take the picture again: JPEG or PNG, up to 3 MB")
	}
	if len(data) == 0 || len(data) > mostPhoto {
		return 0, bad("is empty or too large")
	}
	size, _, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil {
		return 0, bad("is no picture")
	}
	if size.Width > mostSide || size.Height > mostSide || size.Width < 8 || size.Height < 8 {
		return 0, bad("is of no size that is kept")
	}
	img, _, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return 0, bad("cannot be read")
	}
	var out bytes.Buffer
	if err := jpeg.Encode(&out, img, &jpeg.Options{Quality: 82}); err != nil {
		return 0, err
	}
	return s.records.AddPhoto(ctx, key, learner, out.Bytes())
}

// LookAgain is what on gear is to be looked at by a time.
func (s *School) LookAgain(ctx context.Context, at time.Time) ([]practice.Gear, error) {
	list, err := s.Gear(ctx)
	out := []practice.Gear{}
	for _, g := range list {
		if !g.Again.IsZero() && !g.Again.After(at) {
			out = append(out, g)
		}
	}
	return out, err
}
