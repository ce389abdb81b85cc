package main

import (
	"encoding/json"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"sync"

	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/say"
	"oarweed/core/snug"
	"oarweed/core/trade"
)

type snugCommands struct {
	Build   snugBuild   `cmd:"" help:"Draw knots up in space, and write them down."`
	Metrics snugMetrics `cmd:"" help:"Say what line a knot that is drawn up takes, and how thick it is."`
	Ideal   snugIdeal   `cmd:"" help:"Say how long the ideal closed knot is, in diameters."`
	Export  snugExport  `cmd:"" help:"Write a knot that is drawn up as glTF, STL or SVG."`
}

type snugBuild struct {
	ID     string `arg:"" optional:"" help:"id of a knot; left out: all"`
	Anyway bool   `help:"also those whose form is known not to come out as hands dress it"`
	Out    string `default:"catalogue/snug" help:"folder to write into" placeholder:"FOLDER"`
}

// Run draws up on every processor.
func (s snugBuild) Run(e *env) error {
	c, err := e.trade()
	if err != nil {
		return err
	}
	if s.ID != "" && c.Knot(s.ID) == nil {
		return notAKnot(s.ID)
	}
	if err := os.MkdirAll(s.Out, 0o755); err != nil {
		return err
	}
	var work []*knot.Knot
	for _, k := range c.Knots {
		if (s.ID == "" || k.ID == s.ID) && k.Shape != "" {
			work = append(work, k)
		}
	}
	var hand sync.Mutex
	var all sync.WaitGroup
	var l problem.List
	next := make(chan *knot.Knot)
	for range runtime.GOMAXPROCS(0) {
		all.Go(func() {
			for k := range next {
				b := s.built(c, k)
				text, err := json.Marshal(b)
				if err == nil {
					err = os.WriteFile(filepath.Join(s.Out, k.ID+".json"), append(text, '\n'), 0o644)
				}
				hand.Lock()
				l.Take(k.ID, err)
				if err == nil {
					says := b.Why
					if b.Computed {
						says = fmt.Sprintf("bulk %.2f by %.2f", b.Bulk.Across, b.Bulk.Along)
					}
					fmt.Fprintf(e.out, "%-32s %5.1f s  %s\n", k.ID, b.Seconds, says)
				}
				hand.Unlock()
			}
		})
	}
	for _, k := range work {
		next <- k
	}
	close(next)
	all.Wait()
	return l.Err()
}

func (s snugBuild) built(c *trade.Catalogue, k *knot.Knot) *snug.Built {
	if why := c.Drawings.Dressing(k.ID).Undressed; why != "" && !s.Anyway {
		return &snug.Built{ID: k.ID, Why: why}
	}
	return c.Drawings.DrawUp(k.ID, k.Kind == knot.Loop)
}

func notAKnot(id string) error {
	return problem.New("knot", fmt.Sprintf("%q is not a knot here", id), "use the id of a knot")
}

// drawnUp is a knot as it was built.
func drawnUp(e *env, id string) (*snug.Built, error) {
	c, err := e.trade()
	if err != nil {
		return nil, err
	}
	if c.Knot(id) == nil {
		return nil, notAKnot(id)
	}
	b, err := c.Snug(id)
	if err == nil && b == nil {
		b = &snug.Built{ID: id, Why: "nobody has drawn it up yet: run oarweed snug build " + id}
	}
	return b, err
}

type snugMetrics struct {
	ID string `arg:"" help:"id of a knot"`
}

func (s snugMetrics) Run(e *env) error {
	b, err := drawnUp(e, s.ID)
	if err != nil {
		return err
	}
	out := *b
	out.Strands = nil
	if out.Ropes == nil {
		out.Ropes = []snug.RopeMetrics{}
	}
	return e.show(out, nil)
}

type snugIdeal struct {
	Knot string `required:"" help:"unknot, hopf, trefoil, figure-eight, 5_1 or 5_2"`
}

func (s snugIdeal) Run(e *env) error {
	if !slices.Contains(snug.IdealKnots, s.Knot) {
		return problem.New("knot", fmt.Sprintf("%q is none of %v", s.Knot, snug.IdealKnots), "use one of these")
	}
	l, err := snug.IdealLength(s.Knot)
	return e.show(struct {
		LengthD float64 `json:"length_d"`
	}{l}, err)
}

type snugExport struct {
	ID     string    `arg:"" help:"id of a knot"`
	Format string    `enum:"gltf,stl,svg" default:"gltf" help:"gltf, stl or svg"`
	MM     float64   `name:"mm" default:"8" help:"how thick the rope is in an STL, in millimetres"`
	Turn   float64   `help:"how far it is turned about the upright in an SVG, in degrees"`
	Look   snug.Look `enum:"laid,braid,mono" default:"mono" help:"laid, braid or mono: what the surface of ropes shows, in an SVG"`
	Checks bool      `help:"numbers where each check of the knot looks, in an SVG"`
	Line   bool      `help:"as it lies on a level line, without what it is made on, in an SVG"`
	Tip    float64   `help:"how far its top is tipped toward the viewer, in degrees"`
}

func (s snugExport) Run(e *env) error {
	b, err := drawnUp(e, s.ID)
	if err != nil {
		return err
	}
	if !b.Computed {
		return problem.New("knot", s.ID+" is not drawn up: "+b.Why, "take another knot")
	}
	var out []byte
	switch s.Format {
	case "svg":
		var marks []snug.Mark
		if s.Checks {
			c, err := e.trade()
			if err != nil {
				return err
			}
			marks = say.CheckMarks(c.Knot(s.ID))
		}
		out = []byte(b.SVG(b.Last(), snug.View{Turn: s.Turn * math.Pi / 180, Tip: s.Tip * math.Pi / 180, Line: s.Line, Look: s.Look}, s.ID, marks...))
	case "stl":
		out = b.STL(s.MM)
	default:
		if out, err = b.GLTF(); err != nil {
			return err
		}
	}
	_, err = e.out.Write(out)
	return err
}
