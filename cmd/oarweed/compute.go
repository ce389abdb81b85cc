package main

import (
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"net/http"
	"strings"

	"oarweed/catalogue"
	"oarweed/core/choose"
	"oarweed/core/friction"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/unit"
	"oarweed/internal/api"
)

// show prints v as JSON; an input error is printed as a problem document instead
// and ends the command with status 1.
func show(out io.Writer, v any, err error) error {
	if err != nil {
		p := api.InputProblem(err)
		if p == nil {
			return err
		}
		if err := write(out, p); err != nil {
			return err
		}
		return errShown
	}
	return write(out, v)
}

func write(out io.Writer, v any) error {
	enc := json.NewEncoder(out)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	return enc.Encode(v)
}

// flags parses args; a word that is no flag or a number that is none is an input error.
func flags(name string, args []string, define func(*flag.FlagSet)) error {
	f := flag.NewFlagSet(name, flag.ContinueOnError)
	f.SetOutput(io.Discard)
	define(f)
	if err := f.Parse(args); err != nil {
		return problem.New("", err.Error(), `see "oarweed help"`)
	}
	if f.NArg() > 0 {
		return problem.New("", fmt.Sprintf("%q was not expected", f.Arg(0)), `see "oarweed help"`)
	}
	return nil
}

func chooseCommand(args []string, in io.Reader, out io.Writer) error {
	answer := func() (*choose.Answer, error) {
		schools := map[string]string{}
		if err := flags("choose", args, func(f *flag.FlagSet) {
			f.Func("school", "question=school", func(s string) error {
				question, school, ok := strings.Cut(s, "=")
				if !ok {
					return fmt.Errorf("write question=school, e.g. cleat=no-lock")
				}
				schools[question] = school
				return nil
			})
		}); err != nil {
			return nil, err
		}
		cat, err := catalogue.Load()
		if err != nil {
			return nil, err
		}
		if cat, err = cat.Of(schools); err != nil {
			return nil, err
		}
		d, err := rig.Parse(in)
		if err != nil {
			return nil, err
		}
		r, err := cat.Resolve(d)
		if err != nil {
			return nil, err
		}
		return choose.For(cat, r)
	}
	a, err := answer()
	return show(out, a, err)
}

func strengthCommand(args []string, out io.Writer) error {
	var material, construction, diameter string
	var wet bool
	if err := flags("strength", args, func(f *flag.FlagSet) {
		f.StringVar(&material, "material", "", "material id")
		f.StringVar(&construction, "construction", "", "laid, braid, twelve or solid")
		f.StringVar(&diameter, "diameter", "", "like 24mm")
		f.BoolVar(&wet, "wet", false, "wet")
	}); err != nil {
		return show(out, nil, err)
	}
	cat, err := catalogue.Load()
	if err != nil {
		return err
	}
	a, err := choose.StrengthOf(cat, material, line.Construction(construction), diameter, wet)
	return show(out, a, err)
}

func frictionCommand(args []string, out io.Writer) error {
	var hitch, object, rope, load, hand string
	var mu float64
	var turns int
	if err := flags("friction", args, func(f *flag.FlagSet) {
		f.StringVar(&hitch, "hitch", "turns", "hitch id")
		f.StringVar(&object, "object", "", "like 60mm")
		f.StringVar(&rope, "line", "", "like 12mm")
		f.Float64Var(&mu, "mu", 0, "friction coefficient, rope on rope and on the object")
		f.StringVar(&load, "load", "", "like 2.4kN; with --hand: how many bare turns hold it")
		f.StringVar(&hand, "hand", "", "like 100N")
		f.IntVar(&turns, "turns", 0, "bare turns, riding turns or figure eights")
	}); err != nil {
		return show(out, nil, err)
	}
	var l problem.List
	read := func(field, text string) unit.Length {
		v, err := unit.ParseLength(text, unit.Millimetre)
		l.Take(field, err)
		return v
	}
	if hitch == "turns" {
		// Bare turns do not depend on the diameters.
		if object == "" {
			object = "60mm"
		}
		if rope == "" {
			rope = "12mm"
		}
	}
	o, r := read("object", object), read("line", rope)
	if err := l.Err(); err != nil {
		return show(out, nil, err)
	}
	a, err := friction.Judge(hitch, turns, o, r, mu, 1)
	if err == nil && (load != "" || hand != "") {
		pull := func(field, text string) unit.Force {
			v, err := unit.ParseForce(text, unit.Kilonewton)
			l.Take(field, err)
			return v
		}
		p, h := pull("load", load), pull("hand", hand)
		if err := l.Err(); err != nil {
			return show(out, nil, err)
		}
		a, err = a.WithHand(p, h, mu)
	}
	return show(out, a, err)
}

func openapiCommand(out io.Writer) error {
	cat, err := catalogue.Load()
	if err != nil {
		return err
	}
	_, a := api.New(cat, nil, http.NotFoundHandler())
	return write(out, a.OpenAPI())
}
