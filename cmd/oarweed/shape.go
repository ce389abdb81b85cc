package main

import (
	"flag"
	"fmt"
	"io"
	"slices"

	"oarweed/catalogue"
	"oarweed/core/problem"
	"oarweed/core/shape"
	"oarweed/internal/export"
)

func shapeCommand(args []string, out io.Writer) error {
	if len(args) == 0 {
		return show(out, nil, problem.New("", "shape wants check, draw, sheet or invariants", `see "oarweed help"`))
	}
	cat, err := catalogue.Load()
	if err != nil {
		return err
	}
	verb, args := args[0], args[1:]
	id := ""
	if len(args) > 0 && args[0] != "" && args[0][0] != '-' {
		id, args = args[0], args[1:]
	}
	if id != "" && cat.Knot(id) == nil && !slices.Contains(cat.Drawings(), id) {
		return show(out, nil, problem.New("knot", fmt.Sprintf("%q is not in the catalogue", id), "use the id of a knot or of a drawn fault"))
	}
	switch verb {
	case "check":
		return shapeCheck(cat, id, out)
	case "sheet":
		return shapeSheet(cat, out)
	case "draw":
		return shapeDraw(cat, id, args, out)
	case "invariants":
		sh, err := drawing(cat, id)
		if err != nil {
			return show(out, nil, err)
		}
		return show(out, struct {
			ID       string          `json:"id"`
			Closures []shape.Closure `json:"closures"`
		}{id, sh.Closures()}, nil)
	}
	return show(out, nil, problem.New("", fmt.Sprintf("%q is not something to do with a shape", verb), "use check, draw, sheet or invariants"))
}

func drawing(cat *catalogue.Catalogue, id string) (*shape.Shape, error) {
	if id == "" {
		return nil, problem.New("knot", "none named", "give the id of a knot")
	}
	sh, err := cat.Drawing(id)
	if err == nil && sh == nil {
		err = problem.New("knot", id+" has no drawing yet", "use another")
	}
	return sh, err
}

func shapeCheck(cat *catalogue.Catalogue, only string, out io.Writer) error {
	var l problem.List
	for _, id := range cat.Drawings() {
		if only != "" && id != only {
			continue
		}
		sh, err := cat.Drawing(id)
		if err == nil {
			err = cat.Prove(id)
		}
		l.Take("", err)
		if err == nil {
			fmt.Fprintf(out, "%-32s %d steps, %d closures as expected\n", id, sh.Steps(), len(cat.Proofs(id)))
		}
	}
	for _, k := range cat.Knots {
		if k.Shape == "" && (only == "" || only == k.ID) {
			fmt.Fprintf(out, "%-32s no drawing yet\n", k.ID)
		}
	}
	if err := l.Err(); err != nil {
		return show(out, nil, err)
	}
	return nil
}

func shapeDraw(cat *catalogue.Catalogue, id string, args []string, out io.Writer) error {
	o := shape.Options{}
	var view, look, format string
	var width int
	if err := flags("draw", args, func(f *flag.FlagSet) {
		f.Float64Var(&o.Step, "step", -1, "step")
		f.StringVar(&view, "view", "tie", "tie, across, left or opposite")
		f.StringVar(&look, "look", "laid", "laid, braid or mono")
		f.StringVar(&format, "format", "svg", "svg or png")
		f.IntVar(&width, "width", 1200, "width of a PNG, pixels")
		f.BoolVar(&o.Labels, "labels", false, "name the ends")
		f.BoolVar(&o.Ghost, "ghost", false, "show the next move")
	}); err != nil {
		return show(out, nil, err)
	}
	o.View, o.Look = shape.View(view), shape.Look(look)
	sh, err := drawing(cat, id)
	if err != nil {
		return show(out, nil, err)
	}
	if err := sh.HasStep(o.Step); err != nil {
		return show(out, nil, err)
	}
	o.Title = id
	if k := cat.Knot(id); k != nil {
		o.Title = k.Name
	}
	svg := sh.SVG(o)
	switch format {
	case "svg":
		_, err = fmt.Fprintln(out, svg)
	case "png":
		var picture []byte
		if picture, err = export.PNG(svg, width); err == nil {
			_, err = out.Write(picture)
		}
	default:
		return show(out, nil, problem.New("format", fmt.Sprintf("%q is not a format", format), "use svg or png"))
	}
	return err
}

// shapeSheet writes every drawing on one page of HTML, for a person to look at.
func shapeSheet(cat *catalogue.Catalogue, out io.Writer) error {
	fmt.Fprint(out, `<!doctype html><meta charset="utf-8"><title>All drawings</title>
<style>body{margin:8px;background:#fffdf6;font:14px sans-serif}figure{display:inline-block;margin:4px;border:1px solid #cfcbb8}svg{width:250px;height:230px}</style>
`)
	for _, id := range cat.Drawings() {
		sh, err := cat.Drawing(id)
		if err != nil {
			return show(out, nil, err)
		}
		fmt.Fprintf(out, "<figure><figcaption>%s</figcaption>%s</figure>\n", id, sh.SVG(shape.Options{Step: -1, Look: shape.LookLaid, Title: id}))
	}
	return nil
}
