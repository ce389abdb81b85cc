package app

import (
	"context"
	"errors"
	"time"

	"oarweed/core/locker"
	"oarweed/core/name"
	"oarweed/core/practice"
	"oarweed/core/problem"
	"oarweed/core/rig"
)

// ErrNotFound is what records say of an id they do not hold.
var ErrNotFound = errors.New("not found")

// Conflict is what records say of a change made to another revision than the one that
// is kept, or of a name that another record has. Nothing was written.
type Conflict struct {
	// NameTaken: another record has this name; else the record was changed meanwhile.
	NameTaken bool
	// Kept is the record as it is kept now.
	Kept any
}

func (c *Conflict) Error() string {
	if c.NameTaken {
		return "another record has this name"
	}
	return "the record was changed meanwhile"
}

// Page of a list: at most Limit entries after Cursor, "" for the first page.
type Page struct {
	Limit  int
	Cursor string
}

// Filter narrows a list of attempts; zero values let all pass.
type Filter struct {
	Knot      string
	LearnerID int64
}

// Records is where one school's records are kept. Every read is of one moment; what a
// write has acknowledged survives a loss of power. Saving takes the revision that the
// change was made to, 0 for a new record; a [Conflict] gives the one kept.
type Records interface {
	Rigs(context.Context) ([]rig.Saved, error)
	Rig(ctx context.Context, id int64) (rig.Saved, error)
	SaveRig(context.Context, rig.Saved) (rig.Saved, error)
	DeleteRig(ctx context.Context, id int64) error

	Lines(context.Context) ([]locker.Line, error)
	Line(ctx context.Context, id int64) (locker.Line, error)
	SaveLine(context.Context, locker.Line) (locker.Line, error)
	DeleteLine(ctx context.Context, id int64) error

	Learners(context.Context) ([]practice.Learner, error)
	Learner(ctx context.Context, id int64) (practice.Learner, error)
	// AddLearner adds a learner, or finds the one already there by that name.
	AddLearner(context.Context, practice.Learner) (l practice.Learner, added bool, err error)
	RenameLearner(context.Context, practice.Learner) (practice.Learner, error)

	Attempts(context.Context, Filter, Page) (list []practice.Attempt, next string, err error)
	// AddAttempt records an attempt, or finds the one already there by its key.
	AddAttempt(context.Context, practice.Attempt) (a practice.Attempt, added bool, err error)
	DeleteAttempt(ctx context.Context, id int64) error
	RestoreAttempt(ctx context.Context, id int64) (practice.Attempt, error)

	// Inspections are the last so many, newest first.
	Inspections(ctx context.Context, limit int) ([]practice.Inspection, error)
	// AddInspection records one, or finds the one already there by its key.
	AddInspection(context.Context, practice.Inspection) (i practice.Inspection, added bool, err error)

	Doctrines(context.Context) (Chosen, error)
	SetDoctrines(context.Context, Chosen) (Chosen, error)

	Ping(context.Context) error
}

// SaveRig keeps a rig under its name, with its defaults filled in.
func (s *School) SaveRig(ctx context.Context, r rig.Saved) (rig.Saved, error) {
	if err := r.Check(&s.Trade().Vocabulary); err != nil {
		return r, err
	}
	return s.records.SaveRig(ctx, r)
}

// SaveLine keeps a line in the locker.
func (s *School) SaveLine(ctx context.Context, l locker.Line) (locker.Line, error) {
	if err := l.Check(&s.Trade().Vocabulary); err != nil {
		return l, err
	}
	return s.records.SaveLine(ctx, l)
}

// AddLearner adds a learner, or finds the one already there by that name.
func (s *School) AddLearner(ctx context.Context, l practice.Learner) (practice.Learner, bool, error) {
	if err := l.Clean(); err != nil {
		return l, false, err
	}
	return s.records.AddLearner(ctx, l)
}

// RenameLearner changes a learner's name.
func (s *School) RenameLearner(ctx context.Context, l practice.Learner) (practice.Learner, error) {
	if err := l.Clean(); err != nil {
		return l, err
	}
	return s.records.RenameLearner(ctx, l)
}

// AddAttempt records an attempt. added is false where it was recorded before.
func (s *School) AddAttempt(ctx context.Context, a practice.Attempt) (out practice.Attempt, added bool, err error) {
	var bad problem.List
	if a.Key != "" {
		_, err := name.Clean(a.Key, 64)
		bad.Take("key", err)
	}
	if _, err := s.records.Learner(ctx, a.LearnerID); errors.Is(err, ErrNotFound) {
		bad.Add("learner_id", "no such learner", "choose a learner, or add one")
	} else if err != nil {
		return a, false, err
	}
	bad.Take("", a.Check(s.Trade().Knot(a.Knot), s.now()))
	if err := bad.Err(); err != nil {
		return a, false, err
	}
	return s.records.AddAttempt(ctx, a)
}

// AddInspection records that two looked over a rig that people depend on. added is false
// where it was recorded before.
func (s *School) AddInspection(ctx context.Context, i practice.Inspection) (out practice.Inspection, added bool, err error) {
	c := s.Trade()
	if err := i.Check(&c.Vocabulary, func(id string) bool { return c.Knot(id) != nil }, s.now()); err != nil {
		return i, false, err
	}
	return s.records.AddInspection(ctx, i)
}

// Records are the school's, for what needs no rule.
func (s *School) Records() Records { return s.records }

// now is the time of the server.
func (s *School) now() time.Time { return time.Now() }
