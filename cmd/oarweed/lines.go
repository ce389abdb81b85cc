package main

import (
	"fmt"
	"net"
	"time"

	"oarweed/core/leader"
	"oarweed/core/mooring"
	"oarweed/core/problem"
	"oarweed/internal/device"
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

type windSimCommand struct {
	Addr    string        `default:"127.0.0.1:10110" help:"address to listen on" placeholder:"HOST:PORT"`
	Seed    uint64        `default:"1" help:"the same seed tears the same sentences"`
	From    float64       `default:"15" help:"knots at first"`
	To      float64       `default:"35" help:"knots at last"`
	Rise    time.Duration `default:"2m" help:"how long it takes to rise"`
	Bearing float64       `default:"300" help:"degrees off the bow, or from north with --north"`
	North   bool          `help:"tell it from north (MWD) and not off the bow (MWV)"`
	Gust    float64       `default:"0.2" help:"share by which gusts go beyond the mean, 0 to 1"`
	Hertz   float64       `default:"10" help:"sentences a second, 0.1 to 100"`
	Drop    time.Duration `default:"0" help:"break the connection after so long; 0: never"`
	Torn    float64       `default:"0" help:"share of sentences that are torn, 0 to 1"`
}

func (c windSimCommand) Run(e *env) error {
	w, err := device.NewWind(device.Blow{Seed: c.Seed, From: c.From, To: c.To, Rise: c.Rise, Bearing: c.Bearing, North: c.North, Gust: c.Gust, Hertz: c.Hertz, Drop: c.Drop, Torn: c.Torn})
	if err != nil {
		return err
	}
	l, err := net.Listen("tcp", c.Addr)
	if err != nil {
		return fmt.Errorf("cannot listen: %w", err)
	}
	fmt.Fprintf(e.out, "A wind instrument listens at %s: %s\n", l.Addr(), w)
	return w.Serve(e, l)
}
