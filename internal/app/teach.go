package app

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"time"

	"oarweed/core/lesson"
	"oarweed/core/name"
	"oarweed/core/practice"
	"oarweed/core/problem"
	"oarweed/core/say"
	"oarweed/core/trade"
)

// Kinds of documents that a school keeps.
const (
	lessonKind = "lesson"
	feedKind   = "feed"
)

// Board is who can what.
type Board struct {
	Rows   []BoardRow `json:"rows" nullable:"false"`
	Groups []string   `json:"groups" nullable:"false"`
	// Next is what the group is taught next, and why.
	Next []NextKnot `json:"next" nullable:"false"`
}

// NextKnot is a knot to teach a class next.
type NextKnot struct {
	Knot string `json:"knot"`
	Name string `json:"name"`
	Says string `json:"says"`
	Lack int    `json:"lack" doc:"how many of the class cannot tie it"`
}

// Board of a group, of all who are not archived where it is empty. among limits what is
// taught next to some knots.
func (s *School) Board(ctx context.Context, group string, among []string) (*Board, error) {
	rows, err := s.records.Board(ctx)
	if err != nil {
		return nil, err
	}
	out := &Board{Rows: []BoardRow{}, Groups: []string{}, Next: []NextKnot{}}
	for _, r := range rows {
		if r.Archived {
			continue
		}
		for _, g := range r.Groups {
			if !slices.Contains(out.Groups, g) {
				out.Groups = append(out.Groups, g)
			}
		}
		if group == "" || slices.Contains(r.Groups, group) {
			out.Rows = append(out.Rows, r)
		}
	}
	slices.Sort(out.Groups)
	c := s.Trade()
	shares := map[string]*practice.Share{}
	for _, r := range out.Rows {
		for id, cell := range r.Cells {
			x := shares[id]
			if x == nil {
				x = &practice.Share{Knot: id, Of: len(out.Rows)}
				shares[id] = x
			}
			if cell.Level >= int(practice.Alone) {
				x.Can++
			}
			if cell.Fault > 0 {
				x.Faulty++
			}
			if cell.Fault > 1 {
				x.Repeated++
			}
		}
	}
	var list []practice.Share
	for _, k := range c.Knots {
		if x := shares[k.ID]; x != nil {
			list = append(list, *x)
		}
	}
	for _, n := range practice.WhatNext(list, stepsOf(c), among) {
		if k := c.Knot(n.Knot); k != nil && len(out.Next) < 5 {
			out.Next = append(out.Next, NextKnot{n.Knot, k.Name, say.WhatNext(n, c), n.Lack})
		}
	}
	return out, nil
}

func stepsOf(c *trade.Catalogue) []practice.Step {
	var out []practice.Step
	for _, x := range c.Kin {
		out = append(out, practice.Step{From: x.From, To: x.To, Needs: x.Needs})
		if x.Both {
			out = append(out, practice.Step{From: x.To, To: x.From})
		}
	}
	return out
}

// ClassReport is what a class shows at each knot.
type ClassReport struct {
	Knots []ClassKnot `json:"knots" nullable:"false"`
	// Dry are knots that nobody of the class has tied wet or in gloves.
	Dry []string `json:"dry" nullable:"false" doc:"names of knots that somebody ties in time and nobody has tied wet"`
	// Tries planned until a knot is tied in time.
	PlannedTries int `json:"planned_tries"`
}

// ClassKnot is one of its knots.
type ClassKnot struct {
	practice.ClassKnot
	Name    string  `json:"name"`
	TargetS float64 `json:"target_s"`
}

// plannedTries is how many tries a lesson plan gives a knot before it should be tied in
// time: one followed, five by oneself. As package lesson has it.
const plannedTries = 6

// ClassReport works it out for a group, for all where it is empty.
func (s *School) ClassReport(ctx context.Context, group string) (*ClassReport, error) {
	list, err := s.records.ClassTries(ctx, group)
	if err != nil {
		return nil, err
	}
	target := func(id string) float64 {
		if k := s.Trade().Knot(id); k != nil {
			return practice.Target(k)
		}
		return 0
	}
	out := &ClassReport{Knots: []ClassKnot{}, Dry: []string{}, PlannedTries: plannedTries}
	for _, x := range practice.ClassReport(list, target) {
		k := s.Trade().Knot(x.Knot)
		if k == nil {
			continue
		}
		for i := range x.Faults {
			x.Faults[i].Name = x.Faults[i].Code
			for _, f := range k.Faults {
				if f.Code == x.Faults[i].Code {
					x.Faults[i].Name, x.Faults[i].AfterStep = f.Name, f.AfterStep
				}
			}
		}
		if x.Competent > 0 && x.Wetted == 0 {
			out.Dry = append(out.Dry, k.Name)
		}
		out.Knots = append(out.Knots, ClassKnot{x, k.Name, practice.Target(k)})
	}
	return out, nil
}

// DueKnot is a knot that somebody should tie again.
type DueKnot struct {
	practice.Standing
	Learner string `json:"learner"`
	Name    string `json:"name" doc:"of the knot"`
	Says    string `json:"says"`
}

// Due is what a learner should tie again now, what all should where learner is 0: a fault
// seen twice first, then what is longest overdue for how well it is remembered.
func (s *School) Due(ctx context.Context, learner int64, at time.Time, limit int) ([]DueKnot, error) {
	list, err := s.records.Due(ctx, learner, at, limit)
	if err != nil {
		return nil, err
	}
	rows, err := s.records.Learners(ctx)
	if err != nil {
		return nil, err
	}
	people := map[int64]practice.Learner{}
	for _, l := range rows {
		people[l.ID] = l
	}
	out := []DueKnot{}
	for _, x := range practice.DueFirst(list, at) {
		k, l := s.Trade().Knot(x.Knot), people[x.LearnerID]
		if k != nil && l.Name != "" && !l.Archived {
			out = append(out, DueKnot{x, l.Name, k.Name, say.Due(x, at)})
		}
	}
	return out, nil
}

// Person is a learner with all that is known of what he can.
type Person struct {
	Learner   practice.Learner `json:"learner"`
	Standings []PersonKnot     `json:"standings" nullable:"false"`
	Due       []DueKnot        `json:"due" nullable:"false"`
	// Notes are what the log finds: a side never shown, a knot never tied wet.
	Notes []string `json:"notes" nullable:"false"`
}

// PersonKnot is a learner at one knot.
type PersonKnot struct {
	practice.Standing
	Name    string  `json:"name" doc:"of the knot"`
	TargetS float64 `json:"target_s" doc:"in time is within this"`
}

// Person reads one learner's page.
func (s *School) Person(ctx context.Context, id int64) (*Person, error) {
	l, err := s.records.Learner(ctx, id)
	if err != nil {
		return nil, err
	}
	list, err := s.records.Standings(ctx, id)
	if err != nil {
		return nil, err
	}
	due, err := s.Due(ctx, id, s.now(), 100)
	if err != nil {
		return nil, err
	}
	out := &Person{Learner: l, Standings: []PersonKnot{}, Due: due, Notes: []string{}}
	dry := []string{}
	for _, x := range list {
		k := s.Trade().Knot(x.Knot)
		if k == nil {
			continue
		}
		out.Standings = append(out.Standings, PersonKnot{x, k.Name, practice.Target(k)})
		if x.LeftOK != x.RightOK {
			has, lacks := "right", "left"
			if x.LeftOK {
				has, lacks = lacks, has
			}
			out.Notes = append(out.Notes, fmt.Sprintf("%s: shown on the %s only, never on the %s.", k.Name, has, lacks))
		}
		if x.Level >= practice.InTime && !x.Wetted {
			dry = append(dry, k.Name)
		}
	}
	if len(dry) > 0 {
		out.Notes = append(out.Notes, "In time, and never tied wet or in gloves: "+say.List(dry)+".")
	}
	return out, nil
}

// RoundQuery is a round at one knot: who tied it how.
type RoundQuery struct {
	Knot     string             `json:"knot"`
	Attempts []practice.Attempt `json:"attempts" nullable:"false" maxItems:"1000"`
	Group    string             `json:"group,omitempty" maxLength:"80"`
}

// RoundAnswer is what it showed.
type RoundAnswer struct {
	Says string `json:"says"`
	// Next is the knot that should come next, if any.
	Next *NextKnot `json:"next,omitempty"`
}

// Round says what a round showed and what comes next.
func (s *School) Round(ctx context.Context, q RoundQuery) (*RoundAnswer, error) {
	k := s.Trade().Knot(q.Knot)
	if k == nil {
		return nil, problem.New("knot", fmt.Sprintf("%q is not in the catalogue", q.Knot), "choose a knot")
	}
	t := practice.TallyOf(q.Knot, q.Attempts)
	out := &RoundAnswer{Says: say.Round(t, k)}
	b, err := s.Board(ctx, q.Group, nil)
	if err != nil {
		return nil, err
	}
	for _, n := range b.Next {
		// What they just did wrong is repeated first.
		if t.Wrong*2 > t.Learners && n.Knot != q.Knot {
			continue
		}
		if t.Wrong*2 <= t.Learners && n.Knot == q.Knot {
			continue
		}
		out.Next = &n
		break
	}
	return out, nil
}

// Lesson is a planned lesson.
type Lesson struct {
	ID       int64          `json:"id" readOnly:"true"`
	Revision int64          `json:"revision" readOnly:"true"`
	Name     string         `json:"name" minLength:"1" maxLength:"80"`
	At       time.Time      `json:"at,omitzero" doc:"when it is held; left out: not set"`
	Group    string         `json:"group,omitempty" maxLength:"80"`
	Request  lesson.Request `json:"request"`
	// Notes are the instructor's own, by knot: a story, a motive, a memory aid.
	Notes map[string]string `json:"notes,omitempty"`
	// Took are the minutes that each knot really took, when it was held.
	Took map[string]float64 `json:"took,omitempty"`
	// Block is how far a lesson that is being held has come, from 1; 0 before and after.
	Block int  `json:"block,omitempty" minimum:"0" maximum:"400"`
	Held  bool `json:"held,omitempty"`
	// Unlearned: what it took no longer teaches the planner.
	Unlearned bool `json:"unlearned,omitempty"`
}

// PlannedLesson is a lesson worked out: its plan, what to bring, how to cut it.
type PlannedLesson struct {
	Plan *lesson.Plan `json:"plan"`
	Kit  lesson.Kit   `json:"kit"`
	// Cuts say how the pieces come from the spools of the locker; nil where no line of the
	// locker has a length.
	Cuts   *lesson.Cuts `json:"cuts,omitempty"`
	Spools []string     `json:"spools" nullable:"false" doc:"the lines of the locker, in the order of the cuts"`
	// Learned are factors on a knot's minutes that earlier lessons gave.
	Learned map[string]float64 `json:"learned"`
}

// PlanLesson works a lesson out, with what earlier lessons took and the lines at hand.
func (s *School) PlanLesson(ctx context.Context, q lesson.Request) (*PlannedLesson, error) {
	learned, err := s.learned(ctx)
	if err != nil {
		return nil, err
	}
	given := q.Factors
	q.Factors = map[string]float64{}
	for id, f := range learned {
		q.Factors[id] = f
	}
	for id, f := range given {
		q.Factors[id] = f
	}
	p, err := lesson.New(s.Trade(), q)
	if err != nil {
		return nil, err
	}
	out := &PlannedLesson{Plan: p, Kit: lesson.KitOf(s.Trade(), p.Knots(), q.Learners, q.Helpers), Spools: []string{}, Learned: learned}
	lines, err := s.records.Lines(ctx)
	if err != nil {
		return nil, err
	}
	pieces := lesson.Pieces{Pieces: out.Kit.Pieces}
	for _, l := range lines {
		m := s.Trade().Material(l.Material)
		if l.LengthM > 0 && m != nil && !m.Fishing {
			pieces.Spools = append(pieces.Spools, l.LengthM)
			out.Spools = append(out.Spools, l.Name)
		}
	}
	if len(pieces.Spools) > 0 && len(pieces.Pieces) > 0 {
		if out.Cuts, err = pieces.Cut(); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// learned is how much longer each knot took than planned, over the lessons held: the mean
// of the ratios, drawn toward 1 by one lesson's weight.
func (s *School) learned(ctx context.Context) (map[string]float64, error) {
	list, err := s.Lessons(ctx)
	if err != nil {
		return nil, err
	}
	sum, n := map[string]float64{}, map[string]float64{}
	for _, x := range list {
		if x.Unlearned || len(x.Took) == 0 {
			continue
		}
		q := x.Request
		q.Factors, q.Locked = nil, nil
		plan, err := lesson.New(s.Trade(), q)
		if err != nil {
			continue // a knot that is gone from the catalogue
		}
		planned := map[string]float64{}
		for _, b := range plan.Blocks {
			planned[b.Knot] += b.Minutes
		}
		for id, took := range x.Took {
			if planned[id] > 0 && took > 0 {
				sum[id] += took / planned[id]
				n[id]++
			}
		}
	}
	out := map[string]float64{}
	for id := range sum {
		out[id] = math.Round(100*(sum[id]+1)/(n[id]+1)) / 100
	}
	return out, nil
}

// Lessons lists them, the last changed first.
func (s *School) Lessons(ctx context.Context) ([]Lesson, error) { return lessonsKept.list(ctx, s) }

// Lesson reads one.
func (s *School) Lesson(ctx context.Context, id int64) (Lesson, error) {
	return lessonsKept.one(ctx, s, id)
}

// SaveLesson keeps a lesson. The error names each field.
func (s *School) SaveLesson(ctx context.Context, l Lesson) (Lesson, error) {
	var bad problem.List
	n, err := name.Clean(l.Name, 80)
	bad.Take("name", err)
	l.Name = n
	if _, err := lesson.New(s.Trade(), l.Request); err != nil {
		bad.Take("request", err)
	}
	for id, text := range l.Notes {
		if len([]rune(text)) > 2000 {
			bad.Add("notes."+id, "is too long", "use 2000 letters at the most")
		}
	}
	for id, m := range l.Took {
		if !(m >= 0 && m <= 960) {
			bad.Add("took."+id, fmt.Sprintf("%g is no time", m), "give 0 to 960 minutes")
		}
	}
	if err := bad.Err(); err != nil {
		return l, err
	}
	return lessonsKept.save(ctx, s, l)
}

// DeleteLesson removes one.
func (s *School) DeleteLesson(ctx context.Context, id int64) error {
	return s.records.DeleteDocument(ctx, lessonKind, id)
}

// Feed is a secret address at which somebody's calendar reads what is due.
type Feed struct {
	ID int64 `json:"id" readOnly:"true"`
	// LearnerID whose knots it holds; 0: all learners' and the lessons.
	LearnerID int64     `json:"learner_id,omitempty"`
	Made      time.Time `json:"made" readOnly:"true"`
	// Path is given once, when it is made: only its fingerprint is kept.
	Path string `json:"path,omitempty" readOnly:"true"`
	Hash string `json:"-"`
}

type keptFeed struct {
	LearnerID int64     `json:"learner_id"`
	Made      time.Time `json:"made"`
	Hash      string    `json:"hash"`
}

func fingerprint(secret string) string {
	sum := sha256.Sum256([]byte(secret))
	return hex.EncodeToString(sum[:])
}

// secret is 192 random bits as text.
func secret() string {
	b := make([]byte, 24)
	_, _ = rand.Read(b)
	return base64.RawURLEncoding.EncodeToString(b)
}

// AddFeed makes a secret address.
func (s *School) AddFeed(ctx context.Context, learner int64) (Feed, error) {
	if learner != 0 {
		if _, err := s.records.Learner(ctx, learner); err != nil {
			return Feed{}, err
		}
	}
	word := secret()
	k := keptFeed{learner, s.now().UTC().Truncate(time.Second), fingerprint(word)}
	body, err := json.Marshal(k)
	if err != nil {
		return Feed{}, err
	}
	d, err := s.records.SaveDocument(ctx, Document{Kind: feedKind, Body: body})
	return Feed{ID: d.ID, LearnerID: learner, Made: k.Made, Path: "/feeds/" + word + ".ics"}, err
}

// Feeds lists them, without their secrets.
func (s *School) Feeds(ctx context.Context) ([]Feed, error) {
	list, err := s.records.Documents(ctx, feedKind)
	out := make([]Feed, 0, len(list))
	for _, d := range list {
		var k keptFeed
		if err := json.Unmarshal(d.Body, &k); err != nil {
			return nil, err
		}
		out = append(out, Feed{ID: d.ID, LearnerID: k.LearnerID, Made: k.Made, Hash: k.Hash})
	}
	return out, err
}

// WithdrawFeed closes a secret address.
func (s *School) WithdrawFeed(ctx context.Context, id int64) error {
	return s.records.DeleteDocument(ctx, feedKind, id)
}

// FeedOf finds the feed of a secret; [ErrNotFound] if it was never given or is withdrawn.
func (s *School) FeedOf(ctx context.Context, word string) (Feed, error) {
	list, err := s.Feeds(ctx)
	if err != nil {
		return Feed{}, err
	}
	hash := fingerprint(word)
	for _, f := range list {
		if f.Hash == hash {
			return f, nil
		}
	}
	return Feed{}, ErrNotFound
}
