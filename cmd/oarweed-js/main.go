//go:build js && wasm

// Command oarweed-js is the use cases compiled for the browser: the same rules and the
// same documents, without a server. It sets two functions:
//
//	oarweedLoad(bytes) → milliseconds
//	oarweed(verb, text, id) → text
//
// The first takes what "oarweed pack" wrote and must be called first. In the second verb is
// choose, check-rig, knots, knot or drawing; text is a rig document or empty; id names a
// knot. The answer is JSON, or SVG for a drawing; for bad input it is {"fields": […]}, as in
// the API's problem documents.
package main

import (
	"context"
	"encoding/json"
	"strings"
	"syscall/js"
	"time"

	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/shape/draw"
	"oarweed/core/trade"
	"oarweed/internal/app"
)

func main() {
	var school *app.School
	js.Global().Set("oarweedLoad", js.FuncOf(func(_ js.Value, args []js.Value) any {
		began := time.Now()
		text := make([]byte, args[0].Get("length").Int())
		js.CopyBytesToGo(text, args[0])
		cat, err := trade.Unpack(text)
		if err == nil {
			school, err = app.NewSchool(context.Background(), cat, nil, nil)
		}
		if err != nil {
			return refused(err)
		}
		return time.Since(began).Seconds() * 1e3
	}))
	js.Global().Set("oarweed", js.FuncOf(func(_ js.Value, args []js.Value) any {
		text := make([]string, 3)
		for i := range min(len(args), 3) {
			if args[i].Type() == js.TypeString {
				text[i] = args[i].String()
			}
		}
		if school == nil {
			return refused(problem.New("", "the catalogue is not loaded", "call oarweedLoad first"))
		}
		out, err := answer(school, text[0], text[1], text[2])
		if err != nil {
			return refused(err)
		}
		return out
	}))
	select {} // the functions stay
}

func refused(err error) string {
	fields, _ := json.Marshal(map[string]any{"fields": problem.Fields(err)})
	return string(fields)
}

func answer(s *app.School, verb, text, id string) (string, error) {
	ctx := context.Background()
	switch verb {
	case "choose", "check-rig":
		d, err := rig.Parse(strings.NewReader(text))
		if err != nil {
			return "", err
		}
		if verb == "choose" {
			return document(s.Choose(ctx, d))
		}
		return document(s.CheckRig(ctx, d))
	case "knots":
		return document(s.Trade().Knots, nil)
	case "knot":
		if k := s.Trade().Knot(id); k != nil {
			return document(k, nil)
		}
		return "", problem.New("id", "is no knot here", "use the id of one")
	case "drawing":
		sh, err := s.Trade().Drawing(id)
		if err != nil {
			return "", err
		}
		if sh == nil {
			return "", problem.New("id", "has no drawing here", "use the id of a knot")
		}
		return draw.SVG(sh, draw.Options{Step: -1, Look: draw.LookLaid, Title: id}), nil
	}
	return "", problem.New("verb", "is not known", "use choose, check-rig, knots, knot or drawing")
}

func document(v any, err error) (string, error) {
	if err != nil {
		return "", err
	}
	text, err := json.Marshal(v)
	return string(text), err
}
