package main

import (
	"context"
	"flag"
	"fmt"
	"io"
	"sort"
	"strings"

	"oarweed/catalogue"
	"oarweed/core/choose"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// read loads the catalogue and a rig.
func read(in io.Reader) (*catalogue.Catalogue, rig.Document, error) {
	cat, err := catalogue.Load()
	if err != nil {
		return nil, rig.Document{}, err
	}
	d, err := rig.Parse(in)
	return cat, d, err
}

func rigCommand(args []string, in io.Reader, out io.Writer) error {
	verbs := map[string]func(*catalogue.Catalogue, rig.Document) (any, error){
		"check":   func(c *catalogue.Catalogue, d rig.Document) (any, error) { return choose.Whole(c, d) },
		"changes": func(c *catalogue.Catalogue, d rig.Document) (any, error) { return choose.Changes(c, d) },
		"chances": func(c *catalogue.Catalogue, d rig.Document) (any, error) {
			r, err := c.Resolve(d)
			if err != nil {
				return nil, err
			}
			a, err := choose.For(c, r)
			if err != nil {
				return nil, err
			}
			return choose.Chances(c, a), nil
		},
	}
	if len(args) != 1 || verbs[args[0]] == nil {
		return show(out, nil, problem.New("", "rig wants check, changes or chances", `see "oarweed help"`))
	}
	cat, d, err := read(in)
	if err != nil {
		return show(out, nil, err)
	}
	v, err := verbs[args[0]](cat, d)
	return show(out, v, err)
}

// mapDocument is a choice map as one document, its rows in order from the low end of y.
type mapDocument struct {
	choose.Plane
	Map []choose.Row `json:"map"`
}

func mapCommand(ctx context.Context, args []string, in io.Reader, out io.Writer) error {
	var x, y choose.Axis
	var columns, rows int
	if err := flags("map", args, func(f *flag.FlagSet) {
		f.StringVar(&x.Input, "x", "", "input across")
		f.Float64Var(&x.From, "x-from", 0, "low end of x")
		f.Float64Var(&x.To, "x-to", 0, "high end of x")
		f.StringVar(&y.Input, "y", "", "input upward")
		f.Float64Var(&y.From, "y-from", 0, "low end of y")
		f.Float64Var(&y.To, "y-to", 0, "high end of y")
		f.IntVar(&columns, "columns", 32, "columns")
		f.IntVar(&rows, "rows", 32, "rows")
	}); err != nil {
		return show(out, nil, err)
	}
	cat, d, err := read(in)
	if err == nil {
		d, err = cat.Fill(d)
	}
	if err != nil {
		return show(out, nil, err)
	}
	p, err := choose.NewPlane(d, x, y, columns, rows)
	if err != nil {
		return show(out, nil, err)
	}
	m := mapDocument{Plane: p}
	if err := choose.Map(ctx, cat, d, p, func(r choose.Row) error {
		m.Map = append(m.Map, r)
		return nil
	}); err != nil {
		return err
	}
	sort.Slice(m.Map, func(i, j int) bool { return m.Map[i].Row < m.Map[j].Row })
	return show(out, m, nil)
}

func loadCommand(args []string, out io.Writer) error {
	if len(args) == 0 {
		return show(out, nil, problem.New("", "load wants a kind", "use one of "+strings.Join(choose.LoadKinds, ", ")))
	}
	q := choose.LoadInput{Cd: 1, Lines: 1, People: 1}
	if err := flags("load", args[1:], func(f *flag.FlagSet) {
		f.StringVar(&q.LOA, "loa", "", "length over all")
		f.Float64Var(&q.Area, "area", 0, "area to the wind, m²")
		f.Float64Var(&q.Cd, "cd", 1, "drag coefficient")
		f.StringVar(&q.Wind, "wind", "", "wind, like 30kn")
		f.StringVar(&q.Force, "force", "", "force to share")
		f.Float64Var(&q.Angle, "angle", 0, "angle to the force, degrees")
		f.IntVar(&q.Lines, "lines", 1, "lines that share it")
		f.BoolVar(&q.Even, "even", false, "they share evenly")
		f.Float64Var(&q.Mass, "mass", 0, "mass, kg")
		f.Float64Var(&q.Speed, "speed", 0, "drift, m/s")
		f.StringVar(&q.Length, "length", "", "length that stretches")
		f.StringVar(&q.Material, "material", "", "material id")
		f.StringVar(&q.Diameter, "diameter", "", "diameter")
		f.BoolVar(&q.Wet, "wet", false, "the line is wet")
		f.StringVar(&q.Class, "class", "", "line class, like 20lb")
		f.Float64Var(&q.Shock, "shock", 0, "shock as a share of the class")
		f.IntVar(&q.People, "people", 1, "people on the line")
	}); err != nil {
		return show(out, nil, err)
	}
	cat, err := catalogue.Load()
	if err != nil {
		return err
	}
	r, err := choose.Load(cat, args[0], q)
	return show(out, r, err)
}

func holdCommand(args []string, out io.Writer) error {
	var object, line, load, hand string
	q := choose.HoldInput{}
	if err := flags("hold", args, func(f *flag.FlagSet) {
		f.StringVar(&q.Hitch, "hitch", "turns", "hitch, or turns")
		f.StringVar(&object, "object", "60mm", "diameter of the object")
		f.StringVar(&line, "line", "12mm", "diameter of the line")
		f.StringVar(&q.Material, "material", "polyester", "material id")
		f.StringVar(&q.Surface, "surface", "polished-steel", "surface id")
		f.BoolVar(&q.Wet, "wet", false, "wet")
		f.StringVar(&load, "load", "", "load")
		f.StringVar(&hand, "hand", "100N", "hand force")
	}); err != nil {
		return show(out, nil, err)
	}
	var l problem.List
	var err error
	q.Object, err = unit.ParseLength(object, unit.Millimetre)
	l.Take("object", err)
	q.Line, err = unit.ParseLength(line, unit.Millimetre)
	l.Take("line", err)
	q.Load, err = unit.ParseForce(load, unit.Kilonewton)
	l.Take("load", err)
	q.Hand, err = unit.ParseForce(hand, unit.Newton)
	l.Take("hand", err)
	if err := l.Err(); err != nil {
		return show(out, nil, err)
	}
	cat, err := catalogue.Load()
	if err != nil {
		return err
	}
	table, err := choose.Holds(cat, q)
	return show(out, table, err)
}

func shackleCommand(args []string, out io.Writer) error {
	var diameter string
	if err := flags("shackle", args, func(f *flag.FlagSet) {
		f.StringVar(&diameter, "diameter", "6mm", "diameter of the cord")
	}); err != nil {
		return show(out, nil, err)
	}
	d, err := unit.ParseLength(diameter, unit.Millimetre)
	if err == nil && !(d > 0) {
		err = problem.New("", "must be above zero", "give a diameter like 6mm")
	}
	if err != nil {
		var l problem.List
		l.Take("diameter", err)
		return show(out, nil, l.Err())
	}
	cat, err := catalogue.Load()
	if err != nil {
		return err
	}
	return show(out, choose.SoftShackle(cat, d), nil)
}

func procedureCommand(args []string, in io.Reader, out io.Writer) error {
	cat, err := catalogue.Load()
	if err != nil {
		return err
	}
	if len(args) == 0 {
		for _, p := range cat.Procedures {
			fmt.Fprintf(out, "%-12s %s\n", p.ID, p.Name)
		}
		return nil
	}
	var d rig.Document
	for _, p := range cat.Procedures {
		if p.ID == args[0] && p.Needs != "" {
			if d, err = rig.Parse(in); err != nil {
				return show(out, nil, err)
			}
		}
	}
	card, err := choose.Do(cat, args[0], d)
	return show(out, card, err)
}
