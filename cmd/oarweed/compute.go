package main

import (
	"fmt"
	"slices"

	"oarweed/core/cover"
	"oarweed/core/lesson"
	"oarweed/core/practice"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/whatif"
	"oarweed/internal/app"
)

// doctrines is the flag of what is taught where practitioners disagree.
type doctrines struct {
	School map[string]string `help:"Doctrine taught, like cleat=no-lock; may be repeated." placeholder:"QUESTION=DOCTRINE"`
}

type chooseCommand struct{ doctrines }

func (c chooseCommand) Run(e *env) error {
	return c.answer(e, func(s *app.School, d rig.Document) (any, error) { return s.Choose(e, d) })
}

type rigCommands struct {
	Check   rigCheck   `cmd:"" help:"Answer for a whole chain: weakest link, cut list, letting go."`
	Changes rigChanges `cmd:"" help:"Say what would change the first choice at a joint."`
	Chances rigChances `cmd:"" help:"Draw each ranked knot of a joint ten thousand times."`
}

type (
	rigCheck   struct{ doctrines }
	rigChanges struct{ doctrines }
	rigChances struct{ doctrines }
)

func (c rigCheck) Run(e *env) error {
	return c.answer(e, func(s *app.School, d rig.Document) (any, error) { return s.CheckRig(e, d) })
}

func (c rigChanges) Run(e *env) error {
	return c.answer(e, func(s *app.School, d rig.Document) (any, error) {
		out, err := s.Changes(e, d)
		if err != nil {
			return nil, err
		}
		return out.Changes, nil
	})
}

func (c rigChances) Run(e *env) error {
	return c.answer(e, func(s *app.School, d rig.Document) (any, error) { return s.Chances(e, d) })
}

func (c doctrines) answer(e *env, of func(*app.School, rig.Document) (any, error)) error {
	s, err := school(e, c.School)
	if err != nil {
		return err
	}
	d, err := rig.Parse(e.in)
	if err != nil {
		return err
	}
	v, err := of(s, d)
	return e.show(v, err)
}

type mapCommand struct {
	doctrines
	app.MapQuery
}

// mapDocument is a choice map as one document, its rows in order from the low end of y.
type mapDocument struct {
	whatif.Plane
	Map []whatif.Row `json:"map"`
}

func (c mapCommand) Run(e *env) error {
	return c.answer(e, func(s *app.School, d rig.Document) (any, error) {
		frame, work, err := s.Map(e, d, c.MapQuery)
		if err != nil {
			return nil, err
		}
		m := mapDocument{Plane: frame}
		err = work(e, func(r whatif.Row) error {
			m.Map = append(m.Map, r)
			return nil
		})
		slices.SortFunc(m.Map, func(a, b whatif.Row) int { return a.Row - b.Row })
		return m, err
	})
}

type loadCommand struct {
	Kind string `arg:"" help:"wind, share, snatch, drag or hand"`
	app.LoadQuery
}

func (c loadCommand) Run(e *env) error {
	return e.answer(func(s *app.School) (any, error) { return s.Load(c.Kind, c.LoadQuery) })
}

type holdCommand struct{ app.HoldQuery }

func (c holdCommand) Run(e *env) error {
	return e.answer(func(s *app.School) (any, error) { return s.Hold(c.HoldQuery) })
}

type practiceCommands struct {
	Due practiceDue `cmd:"" help:"Say when a knot is due again after a history of tries, read from standard input."`
}

type practiceDue struct{}

func (practiceDue) Run(e *env) error {
	var h practice.History
	if err := (problem.Form{A: "a history", Most: 4 << 20, Fix: `send {"reviews":[{"at":"2026-11-26T10:00:00Z","grade":3}]}`}).Decode(e.in, &h); err != nil {
		return err
	}
	m, err := h.Memory()
	return e.show(m, err)
}

type lessonCommands struct {
	Plan lessonPlan `cmd:"" help:"Plan a lesson for a request read from standard input."`
}

type lessonPlan struct{}

func (lessonPlan) Run(e *env) error {
	var q lesson.Request
	if err := (problem.Form{A: "a lesson", Most: 1 << 20, Fix: `send {"minutes":90,"learners":6,"knots":["bowline"]}`}).Decode(e.in, &q); err != nil {
		return err
	}
	s, err := e.usual()
	if err != nil {
		return err
	}
	p, err := lesson.New(s.Trade(), q)
	return e.show(p, err)
}

type cutCommand struct{}

func (cutCommand) Run(e *env) error {
	var q lesson.Pieces
	if err := (problem.Form{A: "a cut list", Most: 1 << 20, Fix: `send {"spools_m":[50],"pieces_m":[2,2]}`}).Decode(e.in, &q); err != nil {
		return err
	}
	c, err := q.Cut()
	return e.show(c, err)
}

type knotsCommands struct {
	Cover knotsCover `cmd:"" help:"Find the fewest knots that do the jobs read from standard input."`
}

type knotsCover struct{ doctrines }

func (k knotsCover) Run(e *env) error {
	var q struct {
		Jobs []cover.Job `json:"jobs"`
	}
	if err := (problem.Form{A: "a list of jobs", Most: 1 << 20, Fix: `send {"jobs":[{"task":"moor","fitting":"cleat","material":"polyester"}]}`}).Decode(e.in, &q); err != nil {
		return err
	}
	s, err := school(e, k.School)
	if err != nil {
		return err
	}
	out, err := cover.Fewest(s.Trade(), q.Jobs)
	return e.show(out, err)
}

type towCommand struct{ app.TowQuery }

func (c towCommand) Run(e *env) error {
	return e.answer(func(s *app.School) (any, error) { return s.Tow(c.TowQuery) })
}

type shackleCommand struct{ app.ShackleQuery }

func (c shackleCommand) Run(e *env) error {
	return e.answer(func(s *app.School) (any, error) { return s.SoftShackle(c.ShackleQuery) })
}

type procedureCommand struct {
	ID string `arg:"" optional:"" help:"which job; a job for a rig reads that from standard input"`
}

func (c procedureCommand) Run(e *env) error {
	s, err := e.usual()
	if err != nil {
		return err
	}
	if c.ID == "" {
		for _, p := range s.Trade().Procedures {
			fmt.Fprintf(e.out, "%-12s %s\n", p.ID, p.Name)
		}
		return nil
	}
	var d rig.Document
	if p := s.Trade().Procedure(c.ID); p != nil && p.Needs != "" {
		if d, err = rig.Parse(e.in); err != nil {
			return err
		}
	}
	v, err := s.Procedure(e, c.ID, d)
	return e.show(v, err)
}

type strengthCommand struct{ app.StrengthQuery }

func (c strengthCommand) Run(e *env) error {
	return e.answer(func(s *app.School) (any, error) { return s.Strength(c.StrengthQuery) })
}

type frictionCommand struct{ app.FrictionQuery }

func (c frictionCommand) Run(e *env) error {
	return e.answer(func(s *app.School) (any, error) { return s.Friction(c.FrictionQuery) })
}

type sayingsCommand struct{ doctrines }

func (c sayingsCommand) Run(e *env) error {
	return c.answer(e, func(s *app.School, d rig.Document) (any, error) { return s.Sayings(e, d) })
}

type methodCommand struct{}

func (methodCommand) Run(e *env) error {
	s, err := school(e, nil)
	if err != nil {
		return err
	}
	text, err := s.Method(e)
	if err != nil {
		return err
	}
	_, err = fmt.Fprint(e.out, text)
	return err
}
