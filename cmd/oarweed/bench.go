package main

import (
	"fmt"
	"io"
	"net"
	"time"

	"oarweed/core/bench"
	"oarweed/core/problem"
	"oarweed/internal/device"
)

type benchCommands struct {
	Fit   benchFit   `cmd:"" help:"Fit strengths to pulls, read from standard input: Weibull with censoring, survival curves, log-rank."`
	Marks benchMarks `cmd:"" help:"Find slips, peak and break in a trace (CSV), read from standard input."`
}

type benchFit struct{}

func (benchFit) Run(e *env) error {
	var q struct {
		Pulls []bench.Pulled `json:"pulls"`
	}
	if err := (problem.Form{A: "a list of pulls", Most: 4 << 20, Fix: `send {"pulls":[{"group":"A","load_kn":6.9,"failed":true}]}`}).Decode(e.in, &q); err != nil {
		return err
	}
	out, err := bench.Fit(q.Pulls)
	return e.show(out, err)
}

type benchMarks struct{}

// mostTrace is how long a trace may be, in bytes.
const mostTrace = 256 << 20

func (benchMarks) Run(e *env) error {
	text, err := io.ReadAll(io.LimitReader(e.in, mostTrace+1))
	if err != nil {
		return err
	}
	if len(text) > mostTrace {
		return problem.New("file", "is longer than 256 MiB", "give one pull at a time")
	}
	trace, how, err := bench.ReadCSV(text, nil)
	if err != nil {
		return err
	}
	marks, err := bench.FindMarks(trace)
	return e.show(struct {
		bench.Marks
		Read bench.Columns `json:"read"`
	}{marks, how}, err)
}

type cellSimCommand struct {
	Addr  string        `default:"127.0.0.1:9015" help:"address to listen on" placeholder:"HOST:PORT"`
	Seed  uint64        `default:"1" help:"the same seed gives the same pulls"`
	Knots []string      `default:"bowline,figure-eight-loop" help:"the two knots of the specimen, by id" placeholder:"A,B"`
	Line  string        `default:"polyester braid 10mm" help:"material, construction and diameter" placeholder:"LINE"`
	Hertz float64       `default:"100" help:"readings a second, 1 to 1000"`
	Grip  float64       `default:"0" help:"share of pulls in which a grip fails, 0 to 1"`
	Drop  time.Duration `default:"0" help:"break the connection after so long; 0: never"`
	Quick float64       `default:"1" help:"run so many times as fast as the clock"`
}

func (c cellSimCommand) Run(e *env) error {
	cat, err := loaded()
	if err != nil {
		return err
	}
	cell, err := device.NewCell(cat, device.Specimen{Seed: c.Seed, Knots: c.Knots, Line: c.Line, Hertz: c.Hertz, Grip: c.Grip, Drop: c.Drop, Quick: c.Quick})
	if err != nil {
		return err
	}
	l, err := net.Listen("tcp", c.Addr)
	if err != nil {
		return fmt.Errorf("cannot listen: %w", err)
	}
	fmt.Fprintf(e.out, "A load cell listens at %s: %s\n", l.Addr(), cell)
	return cell.Serve(e, l)
}
