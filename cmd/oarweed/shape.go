package main

import (
	"fmt"
	"slices"

	"oarweed/core/problem"
	"oarweed/core/shape"
	"oarweed/core/shape/draw"
	"oarweed/core/shape/roll"
	"oarweed/core/shape/tangle"
	"oarweed/core/shape/trace"
	"oarweed/core/trade"
	"oarweed/internal/export"
)

type shapeCommands struct {
	Check      shapeCheck      `cmd:"" help:"Check the drawings and their proofs."`
	Draw       shapeDraw       `cmd:"" help:"Draw a knot or a faulty form."`
	Sheet      shapeSheet      `cmd:"" help:"Write every drawing on one page of HTML, for a person to look at."`
	Invariants shapeInvariants `cmd:"" help:"Give the invariants of every closure."`
	Turns      shapeTurns      `cmd:"" help:"Count which way the ropes of reef, granny, thief or grief turn at their crossings."`
}

// drawn names a drawing.
type drawn struct {
	Knot string `arg:"" help:"id of a knot or of a drawn fault"`
}

func (d drawn) shape(c *trade.Catalogue) (*shape.Shape, error) {
	sh, err := c.Drawing(d.Knot)
	if err == nil && sh == nil {
		err = problem.New("knot", fmt.Sprintf("%q is not in the catalogue, or has no drawing", d.Knot), "use the id of a knot or of a drawn fault")
	}
	return sh, err
}

type shapeInvariants struct{ drawn }

func (s shapeInvariants) Run(e *env) error {
	c, err := e.trade()
	if err != nil {
		return err
	}
	sh, err := s.shape(c)
	if err != nil {
		return err
	}
	return e.show(struct {
		ID       string           `json:"id"`
		Closures []tangle.Closure `json:"closures"`
	}{s.Knot, tangle.Of(sh)}, nil)
}

type shapeTurns struct{ drawn }

func (s shapeTurns) Run(e *env) error {
	c, err := e.trade()
	if err != nil {
		return err
	}
	if !slices.Contains(roll.Joins, s.Knot) {
		return problem.New("knot", fmt.Sprintf("of %q it says nothing that is known to be true", s.Knot), fmt.Sprintf("take one of %v", roll.Joins))
	}
	sh, err := s.shape(c)
	if err != nil {
		return err
	}
	out, err := roll.Of(sh)
	return e.show(out, err)
}

type shapeCheck struct {
	Knot string `arg:"" optional:"" help:"id of a knot or of a drawn fault; left out: all"`
}

func (s shapeCheck) Run(e *env) error {
	c, err := e.trade()
	if err != nil {
		return err
	}
	if s.Knot != "" && !c.Drawn(s.Knot) && c.Knot(s.Knot) == nil {
		_, err := drawn{s.Knot}.shape(c)
		return err
	}
	var l problem.List
	for _, id := range c.DrawingIDs() {
		if s.Knot != "" && id != s.Knot {
			continue
		}
		sh, err := c.Drawing(id)
		if err == nil {
			err = c.Prove(id)
		}
		l.Take("", err)
		if err == nil {
			fmt.Fprintf(e.out, "%-32s %d steps, %d closures as expected\n", id, sh.Steps(), len(c.Proofs(id)))
		}
	}
	for _, k := range c.Knots {
		if k.Shape == "" && (s.Knot == "" || s.Knot == k.ID) {
			fmt.Fprintf(e.out, "%-32s no drawing yet\n", k.ID)
		}
	}
	return l.Err()
}

type shapeDraw struct {
	drawn
	Step   float64   `default:"-1" help:"0 to the last step; −1: the finished knot"`
	View   draw.View `default:"tie" enum:"tie,across,left,opposite" help:"tie, across, left or opposite"`
	Look   draw.Look `default:"laid" enum:"laid,braid,mono" help:"laid, braid or mono"`
	Labels bool      `help:"name the ends"`
	Ghost  bool      `help:"show the next move"`
	Format string    `default:"svg" enum:"svg,png" help:"svg or png"`
	Width  int       `default:"1200" help:"width of a PNG, pixels"`
}

func (s shapeDraw) Run(e *env) error {
	c, err := e.trade()
	if err != nil {
		return err
	}
	sh, err := s.shape(c)
	if err != nil {
		return err
	}
	if err := sh.HasStep(s.Step); err != nil {
		return err
	}
	o := draw.Options{View: s.View, Step: s.Step, Look: s.Look, Labels: s.Labels, Ghost: s.Ghost, Title: s.Knot}
	if k := c.Knot(s.Knot); k != nil {
		o.Title = k.Name
		if o.Hold, o.Draw, err = trade.Seating(k, sh); err != nil {
			return err
		}
	}
	svg := draw.SVG(sh, o)
	if s.Format == "svg" {
		_, err = fmt.Fprintln(e.out, svg)
		return err
	}
	picture, err := export.PNG(svg, s.Width)
	if err == nil {
		_, err = e.out.Write(picture)
	}
	return err
}

type shapeSheet struct{}

func (shapeSheet) Run(e *env) error {
	c, err := e.trade()
	if err != nil {
		return err
	}
	fmt.Fprint(e.out, `<!doctype html><meta charset="utf-8"><title>All drawings</title>
<style>body{margin:8px;background:#fffdf6;font:14px sans-serif}figure{display:inline-block;margin:4px;border:1px solid #cfcbb8}svg{width:250px;height:230px}</style>
`)
	for _, id := range c.DrawingIDs() {
		sh, err := c.Drawing(id)
		if err != nil {
			return err
		}
		fmt.Fprintf(e.out, "<figure><figcaption>%s</figcaption>%s</figure>\n", id, draw.SVG(sh, draw.Options{Step: -1, Look: draw.LookLaid, Title: id}))
	}
	return nil
}

type nameCommand struct{}

func (nameCommand) Run(e *env) error {
	var t trace.Trace
	if err := (problem.Form{A: "a tracing", Most: 1 << 20, Fix: `send {"ropes":[{"points":[[0,0],[4,0],[4,3],[2,-2]]}],"over":[[0,2,0,0]]}`}).Decode(e.in, &t); err != nil {
		return err
	}
	c, err := e.trade()
	if err != nil {
		return err
	}
	found, err := c.NameTied(t)
	return e.show(map[string]any{"matches": found}, err)
}
