package device

import (
	"bufio"
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"net"
	"strings"
	"time"

	"oarweed/core/bench"
	"oarweed/core/job"
	"oarweed/core/knot"
	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/trade"
)

// Specimen is what a simulated cell pulls.
type Specimen struct {
	Seed  uint64
	Knots []string // two ids
	Line  string   // like "polyester braid 10mm"
	Hertz float64
	Grip  float64       // share of pulls in which a grip fails
	Drop  time.Duration // the connection breaks after so long; 0: never
	Quick float64       // so many times as fast as the clock
}

// Cell stands in for a load cell: it reads noise until it is told to pull, then a simulated
// specimen, made of what the catalogue says of its knots and drawn anew for each pull.
type Cell struct {
	spec   Specimen
	knots  [2]*knot.Knot
	line   line.Line
	lineKN float64
	rnd    *rand.Rand

	// The cell's clock and the pull go on while nobody listens.
	began  time.Time
	n      int // readings so far
	pull   bench.Trace
	offset float64
}

// NewCell makes one. The error names the field.
func NewCell(c *trade.Catalogue, s Specimen) (*Cell, error) {
	var l problem.List
	out := &Cell{spec: s, rnd: rand.New(rand.NewPCG(s.Seed, 0x0a12))}
	if len(s.Knots) != 2 {
		l.Add("knots", fmt.Sprintf("%d are given", len(s.Knots)), "give two, like bowline,figure-eight-loop")
	}
	for i, id := range s.Knots {
		if i < 2 {
			if out.knots[i] = c.Knot(id); out.knots[i] == nil {
				l.Add("knots", fmt.Sprintf("%q is not a knot here", id), "use the id of a knot, as in its address")
			}
		}
	}
	words := strings.Fields(s.Line)
	in := job.StrengthInput{}
	switch len(words) {
	case 3:
		in.Construction = line.Construction(words[1])
		fallthrough
	case 2:
		in.Material, in.Diameter = words[0], words[len(words)-1]
		ln, strength, err := job.Strength(c, in)
		l.Take("line", err)
		out.line, out.lineKN = ln, strength.AsNew.Likely/1000
	default:
		l.Add("line", fmt.Sprintf("%q is not a line", s.Line), `write it like "polyester braid 10mm"`)
	}
	within := func(name string, v, low, high float64) {
		if !(v >= low && v <= high) {
			l.Add(name, fmt.Sprintf("%g is outside %g to %g", v, low, high), "choose a number within")
		}
	}
	within("hertz", s.Hertz, 1, 1000)
	within("grip", s.Grip, 0, 1)
	within("quick", s.Quick, 0.1, 1000)
	return out, l.Err()
}

// String says what it would pull.
func (c *Cell) String() string {
	return fmt.Sprintf("%s against %s in %g mm %s, about %.1f kN without a knot", c.knots[0].Name, c.knots[1].Name, c.line.Diameter.MM(), c.line.Material.Name, c.lineKN)
}

// Serve answers one connection after another until the context ends.
func (c *Cell) Serve(ctx context.Context, l net.Listener) error {
	stop := context.AfterFunc(ctx, func() { _ = l.Close() })
	defer stop()
	c.began = time.Now()
	for {
		conn, err := l.Accept()
		if err != nil {
			if ctx.Err() != nil {
				return nil
			}
			return err
		}
		c.feed(ctx, conn)
	}
}

// feed sends readings until the other side leaves.
func (c *Cell) feed(ctx context.Context, conn net.Conn) {
	defer conn.Close()
	ctx, cancel := context.WithCancel(ctx)
	defer cancel()
	asked := make(chan string, 4)
	go func() {
		defer cancel()
		for in := bufio.NewScanner(conn); in.Scan(); {
			select {
			case asked <- strings.TrimSpace(in.Text()):
			default:
			}
		}
	}()
	out := bufio.NewWriter(conn)
	began, cell := time.Now(), c.bench()
	c.n = c.due() // what was read while nobody listened is lost
	const every = 20 * time.Millisecond
	tick := time.NewTicker(every)
	defer tick.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case word := <-asked:
			if word == "pull" {
				c.pull, _ = bench.Simulate(c.specimen(), c.rnd)
				c.offset = float64(c.n) / c.spec.Hertz
			} else if word == "stop" {
				c.pull = bench.Trace{}
			}
			continue
		case <-tick.C:
		}
		if c.spec.Drop > 0 && time.Since(began) > c.spec.Drop {
			return
		}
		for due := c.due(); c.n < due; c.n++ {
			s, kn := float64(c.n)/c.spec.Hertz, cell.ZeroKN+cell.NoiseKN*c.rnd.NormFloat64()
			if i := c.n - int(math.Round(c.offset*c.spec.Hertz)); i >= 0 && i < len(c.pull.S) {
				kn = c.pull.KN[i]
			}
			fmt.Fprintf(out, "%.4f,%.4f,kN\n", s, kn)
		}
		if err := out.Flush(); err != nil {
			return
		}
	}
}

// due is how many readings there should have been by now.
func (c *Cell) due() int {
	return int(time.Since(c.began).Seconds() * c.spec.Quick * c.spec.Hertz)
}

// bench is the cell and the bench without a specimen.
func (c *Cell) bench() bench.Simulated {
	return bench.Simulated{
		LineKN: c.lineKN, StretchAt: c.line.Material.Stretch.Likely, GaugeMM: 1000, SpeedMMS: 6, Hertz: c.spec.Hertz,
		NoiseKN: 0.0015 * c.lineKN, DriftKNS: 0.0001 * c.lineKN, ZeroKN: 0.012 * c.lineKN, RestS: 1,
	}
}

// specimen ties another one: strengths as the catalogue has them, slips where it says that the
// knot does not hold in this line.
func (c *Cell) specimen() bench.Simulated {
	p := c.bench()
	for i, k := range c.knots {
		e := k.EfficiencyIn(c.line.Material.ID, "")
		share := e.Figure().Dist().Quantile(c.rnd.Float64())
		p.Knots[i] = bench.Act{BreaksKN: share * c.lineKN}
		switch hold := k.HoldIn(c.line.Material.ID, ""); {
		case hold.Dry == knot.Slips || e.Fails == knot.Gives:
			p.Knots[i] = bench.Act{BreaksKN: 0.95 * c.lineKN, SlipsKN: share * c.lineKN, TailMM: 80}
		case hold.Dry == knot.Marginal && c.rnd.Float64() < 0.5:
			p.Knots[i].SlipsKN, p.Knots[i].Catches, p.Knots[i].TailMM = 0.7*share*c.lineKN, 1+c.rnd.IntN(3), 200
		}
	}
	if c.rnd.Float64() < c.spec.Grip {
		p.GripKN = (0.2 + 0.3*c.rnd.Float64()) * c.lineKN
	}
	return p
}
