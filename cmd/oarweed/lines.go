package main

import (
	"oarweed/core/leader"
	"oarweed/core/mooring"
	"oarweed/core/problem"
)

type leaderCommand struct{}

func (leaderCommand) Run(e *env) error {
	var q leader.Query
	if err := (problem.Form{A: "a leader", Most: 1 << 16, Fix: `send {"length_m":2.7,"shortest_m":2,"knot":"non-slip-loop","line":{"material":"fluorocarbon","label_kn":0.07}}`}).Decode(e.in, &q); err != nil {
		return err
	}
	c, err := e.trade()
	if err != nil {
		return err
	}
	out, err := leader.Budget(c, q)
	return e.show(out, err)
}

type moorCommand struct{}

func (moorCommand) Run(e *env) error {
	var p mooring.Plan
	if err := (problem.Form{A: "a moored boat", Most: 1 << 18, Fix: `send {"boat":{"loa_m":9,"beam_m":3,"displacement_t":4},"wind":{"kn":25,"from_deg":90},"lines":[{"from":[4,1.4],"to":[6,4],"line":{"material":"polyamide","diameter_mm":14}}]}`}).Decode(e.in, &p); err != nil {
		return err
	}
	c, err := e.trade()
	if err != nil {
		return err
	}
	out, err := mooring.Solve(&c.Vocabulary, p)
	return e.show(out, err)
}
