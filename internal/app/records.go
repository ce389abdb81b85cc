package app

import (
	"context"
	"encoding/json"
	"errors"
	"time"

	"oarweed/core/bench"
	"oarweed/core/locker"
	"oarweed/core/name"
	"oarweed/core/practice"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/usage"
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
	Outcome   practice.Outcome
	// Condition that it was made in, and Group of the learner.
	Condition, Group string
}

// DayTotal counts the attempts of one day, UTC.
type DayTotal struct {
	Day   string `json:"day"`
	Right int    `json:"right"`
	Slow  int    `json:"slow"`
	Fault int    `json:"fault"`
}

// LineUsed is what the log of use holds of a line, and when it was last used.
type LineUsed struct {
	locker.Used
	Last time.Time
}

// UseCounts are the counts of the log of use: all of it by outcome, by line, by knot. A use of
// two lines counts on both.
type UseCounts struct{ All, Lines, Knots []usage.Count }

// Document is a record whose form its use case knows: a lesson, a round on the quay.
type Document struct {
	ID   int64  `json:"id"`
	Kind string `json:"kind"`
	// Key is made by whoever sends it, so that sending it again makes no second one.
	Key       string          `json:"key,omitempty"`
	Revision  int64           `json:"revision"`
	Body      json.RawMessage `json:"body"`
	ChangedAt time.Time       `json:"changed_at"`
}

// BoardRow is what one learner can.
type BoardRow struct {
	ID       int64           `json:"id"`
	Name     string          `json:"name"`
	Groups   []string        `json:"groups,omitempty"`
	Archived bool            `json:"archived,omitempty"`
	Cells    map[string]Cell `json:"cells" doc:"by knot; a knot that was never tried is left out"`
}

// Cell is a learner at a knot.
type Cell struct {
	Level int `json:"level" minimum:"0" maximum:"5" doc:"0 not yet, 1 with help, 2 alone, 3 in time, 4 wet or in gloves, 5 in the real place"`
	Fault int `json:"fault,omitempty" doc:"1: the last try was a fault; 2: the same fault twice running"`
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
	SaveLearner(context.Context, practice.Learner) (practice.Learner, error)
	// MergeLearners gives the attempts of one to another and removes the first;
	// EraseLearner removes one with all that is known of him, for good.
	MergeLearners(ctx context.Context, from, into int64) (practice.Learner, error)
	EraseLearner(ctx context.Context, id int64) error

	// UseTargets says in which time, in seconds, a knot counts as tied in time.
	UseTargets(ctx context.Context, target func(knot string) float64) error
	// Board is what every learner can; Standings and Due say more of one, Due of all where
	// learner is 0.
	Board(context.Context) ([]BoardRow, error)
	ClassTries(ctx context.Context, group string) ([]practice.Attempt, error)
	Standings(ctx context.Context, learner int64) ([]practice.Standing, error)
	Due(ctx context.Context, learner int64, at time.Time, limit int) ([]practice.Standing, error)

	// Documents of a kind, the last changed first.
	Documents(ctx context.Context, kind string) ([]Document, error)
	Document(ctx context.Context, kind string, id int64) (Document, error)
	SaveDocument(context.Context, Document) (Document, error)
	DeleteDocument(ctx context.Context, kind string, id int64) error

	Attempts(context.Context, Filter, Page) (list []practice.Attempt, next string, err error)
	// Totals count them by day, the last so many days on which there were any.
	Totals(ctx context.Context, f Filter, days int) ([]DayTotal, error)
	// AddAttempt records an attempt, or finds the one already there by its key.
	AddAttempt(context.Context, practice.Attempt) (a practice.Attempt, added bool, err error)
	DeleteAttempt(ctx context.Context, id int64) error
	RestoreAttempt(ctx context.Context, id int64) (practice.Attempt, error)

	// Inspections are the last so many, newest first.
	Inspections(ctx context.Context, limit int) ([]practice.Inspection, error)
	// AddInspection records one, or finds the one already there by its key.
	AddInspection(context.Context, practice.Inspection) (i practice.Inspection, added bool, err error)

	// Uses are the log of use, newest first; Used counts it by line and by knot, LinesUsed sums
	// it up for each line, by code.
	Uses(context.Context, usage.Filter, Page) (list []usage.Entry, next string, err error)
	Used(context.Context, usage.Filter) (UseCounts, error)
	LinesUsed(context.Context) (map[string]LineUsed, error)
	// AddUse records a use, or finds the one already there by its key; AddUses many, all or none.
	AddUse(context.Context, usage.Entry) (e usage.Entry, added bool, err error)
	AddUses(context.Context, []usage.Entry) (added int, err error)
	DeleteUse(ctx context.Context, id int64) error
	RestoreUse(ctx context.Context, id int64) (usage.Entry, error)

	Doctrines(context.Context) (Chosen, error)
	SetDoctrines(context.Context, Chosen) (Chosen, error)

	// AddPhoto keeps a picture, or finds the one already there by its key. It goes with its
	// learner, 0 for nobody's.
	AddPhoto(ctx context.Context, key string, learner int64, body []byte) (id int64, err error)
	Photo(ctx context.Context, id int64) ([]byte, error)

	// AppendReadings keeps readings of a pull as they come, in chunks numbered from 0;
	// SaveReadings all of one at once. Unfinished are pulls with readings and no record.
	AppendReadings(ctx context.Context, pull string, chunk int, t bench.Trace) error
	SaveReadings(ctx context.Context, pull string, t bench.Trace) error
	Readings(ctx context.Context, pull string) (bench.Trace, error)
	Unfinished(context.Context) ([]string, error)
	DeleteReadings(ctx context.Context, pull string) error

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
	if err := l.Check(&s.Trade().Vocabulary, s.now()); err != nil {
		return l, err
	}
	if l.ID == 0 {
		l.Code = locker.NewCode()
	} else if was, err := s.records.Line(ctx, l.ID); err == nil {
		l.Code = was.Code // it stands on a label: it stays
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

// SaveLearner changes what is known of a learner.
func (s *School) SaveLearner(ctx context.Context, l practice.Learner) (practice.Learner, error) {
	if err := l.Clean(); err != nil {
		return l, err
	}
	return s.records.SaveLearner(ctx, l)
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
