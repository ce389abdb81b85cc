package device

import (
	"context"
	"errors"
	"net"
	"strconv"
	"strings"
	"sync"
	"time"

	"oarweed/core/bench"
	"oarweed/core/problem"
	"oarweed/core/unit"
)

// Keep writes readings of a pull down as they arrive: so many chunks, numbered from 0.
type Keep func(ctx context.Context, pull string, chunk int, t bench.Trace) error

// Times of the hub.
const (
	dialTime  = 3 * time.Second
	quietTime = 5 * time.Second        // without a reading the connection counts as lost
	redial    = 700 * time.Millisecond // between two tries
	keepEvery = 500 * time.Millisecond // a crash loses no more of a pull
	showEvery = 50 * time.Millisecond
	lastS     = 60.0 // outside a pull so much is kept, by the cell's clock
	mostLive  = 4096 // readings shown at once
)

var (
	errSilent = errors.New("no reading came")
	errBroken = errors.New("the connection broke off")
)

// Hub dials a cell, keeps the last minute of what it says, and writes pulls down.
type Hub struct {
	keep Keep

	mu     sync.Mutex
	cancel context.CancelFunc
	conn   net.Conn
	state  bench.CellState
	last   bench.Trace // the last minute, or the pull so far
	shift  float64     // added to the cell's clock, which may begin anew
	kept   int         // readings of the pull that are written down
	chunk  int
	shown  map[chan bench.Live]int // readings each watcher has had
	failed error                   // why readings could not be written down
	closed chan struct{}           // nobody watches any more
	once   sync.Once
}

// NewHub makes one that is not connected.
func NewHub(keep Keep) *Hub {
	return &Hub{keep: keep, shown: map[chan bench.Live]int{}, closed: make(chan struct{})}
}

// State is what it is doing.
func (h *Hub) State() bench.CellState {
	h.mu.Lock()
	defer h.mu.Unlock()
	return h.now()
}

func (h *Hub) now() bench.CellState {
	s := h.state
	if s.Pull != "" {
		s.Readings = len(h.last.S)
	}
	return s
}

// Dial connects to a cell, instead of the one before; an empty address disconnects.
func (h *Hub) Dial(addr string) error {
	if err := checkAddr("cell", addr, "192.168.1.20:9015"); err != nil {
		return err
	}
	h.mu.Lock()
	defer h.mu.Unlock()
	if h.state.Pull != "" {
		return problem.New("cell", "a pull is being made", "stop it first")
	}
	if h.cancel != nil {
		h.cancel()
	}
	h.cancel, h.conn = nil, nil
	h.state, h.last = bench.CellState{Cell: addr}, bench.Trace{}
	for watcher := range h.shown {
		h.shown[watcher] = 0
	}
	if addr != "" {
		ctx, cancel := context.WithCancel(context.Background())
		h.cancel = cancel
		go h.run(ctx, addr)
	}
	return nil
}

// Close ends what is under way: a pull is written down, watchers see no more.
func (h *Hub) Close() {
	h.once.Do(func() { close(h.closed) })
	_, _ = h.Stop(context.Background())
	_ = h.Dial("")
}

// run reads the cell and dials again when it is lost.
func (h *Hub) run(ctx context.Context, addr string) {
	for ctx.Err() == nil {
		err := h.read(ctx, addr)
		h.mu.Lock()
		if ctx.Err() == nil {
			h.conn, h.state.Connected, h.state.Lost = nil, false, bench.Unreachable
			switch {
			case errors.Is(err, errSilent):
				h.state.Lost = bench.Silent
			case errors.Is(err, errBroken):
				h.state.Lost = bench.Broken
			}
			if h.state.Pull != "" {
				h.state.Gap = true
			}
		}
		h.mu.Unlock()
		select {
		case <-ctx.Done():
		case <-time.After(redial):
		}
	}
}

func (h *Hub) read(ctx context.Context, addr string) error {
	first := true
	return listen(ctx, addr, quietTime, func(conn net.Conn, text string) bool {
		s, kn, ok := Reading(text)
		if !ok {
			return false
		}
		h.mu.Lock()
		defer h.mu.Unlock()
		if ctx.Err() != nil {
			return false
		}
		if first {
			first, h.conn = false, conn
			h.state.Connected, h.state.Lost = true, ""
		}
		h.add(s, kn)
		return true
	})
}

func (h *Hub) clear() {
	h.last, h.shift = bench.Trace{}, 0
	for watcher := range h.shown {
		h.shown[watcher] = 0
	}
}

// add takes a reading; the hub is locked. A clock that began anew within a pull goes on from
// where it was.
func (h *Hub) add(s, kn float64) {
	s += h.shift
	if n := len(h.last.S); n > 0 && s < h.last.S[n-1] {
		if h.state.Pull == "" {
			s -= h.shift
			h.clear()
		} else {
			h.shift += h.last.S[n-1] - s
			s = h.last.S[n-1]
		}
	}
	if h.state.Pull != "" && len(h.last.S) >= bench.MostReadings {
		return
	}
	h.last.S, h.last.KN = append(h.last.S, s), append(h.last.KN, kn)
	if h.state.Pull != "" || s-h.last.S[0] < 2*lastS {
		return
	}
	drop := 0
	for s-h.last.S[drop] > lastS {
		drop++
	}
	h.last = bench.Trace{S: append([]float64{}, h.last.S[drop:]...), KN: append([]float64{}, h.last.KN[drop:]...)}
	for watcher := range h.shown {
		h.shown[watcher] = max(0, h.shown[watcher]-drop)
	}
}

// Reading reads one line of a cell: time in seconds, force, unit.
func Reading(text string) (s, kn float64, ok bool) {
	text = strings.TrimSpace(text)
	if text == "" || text[0] == '#' {
		return 0, 0, false
	}
	cells := strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ';' || r == '\t' || r == ' ' })
	if len(cells) != 3 {
		return 0, 0, false
	}
	s, err := strconv.ParseFloat(cells[0], 64)
	if err != nil {
		return 0, 0, false
	}
	f, err := unit.ParseForce(cells[1]+" "+cells[2], unit.Newton)
	if err != nil && strings.HasPrefix(cells[1], "-") { // below zero before it is set to zero
		f, err = unit.ParseForce(cells[1][1:]+" "+cells[2], unit.Newton)
		f = -f
	}
	return s, f.KN(), err == nil
}

// Zero takes the middle of the last second as zero.
func (h *Hub) Zero() error {
	h.mu.Lock()
	defer h.mu.Unlock()
	if h.state.Pull != "" {
		return problem.New("cell", "a pull is being made", "stop it first")
	}
	n := len(h.last.S)
	if n == 0 || !h.state.Connected {
		return problem.New("cell", "says nothing", "connect it first")
	}
	sum, count := 0.0, 0
	for i := n - 1; i >= 0 && h.last.S[n-1]-h.last.S[i] <= 1; i-- {
		sum, count = sum+h.last.KN[i], count+1
	}
	h.state.ZeroKN = sum / float64(count)
	return nil
}

// Start begins a pull; what is read from now on is written down under its key.
func (h *Hub) Start(key string) error {
	h.mu.Lock()
	defer h.mu.Unlock()
	switch {
	case h.state.Pull != "":
		return problem.New("pull", "another pull is being made", "stop that one first")
	case !h.state.Connected:
		return problem.New("cell", "is not connected", "connect it, or enter what a dial showed")
	}
	h.clear()
	h.state.Pull, h.state.Gap, h.kept, h.chunk, h.failed = key, false, 0, 0, nil
	_, _ = h.conn.Write([]byte("pull\n"))
	go h.write(key)
	return nil
}

// write keeps what was read of the pull, twice a second, until it is over.
func (h *Hub) write(key string) {
	for {
		time.Sleep(keepEvery)
		h.mu.Lock()
		if h.state.Pull != key {
			h.mu.Unlock()
			return
		}
		h.flush(context.Background())
		h.mu.Unlock()
	}
}

// flush writes down what is not yet; the hub is locked.
func (h *Hub) flush(ctx context.Context) {
	t := bench.Trace{S: h.last.S[h.kept:], KN: h.last.KN[h.kept:]}
	if len(t.S) == 0 {
		return
	}
	if h.failed = h.keep(ctx, h.state.Pull, h.chunk, t); h.failed == nil {
		h.kept, h.chunk = len(h.last.S), h.chunk+1
	}
}

// Stop ends the pull and gives its trace as it was read. The error is that of writing it down:
// the trace is good all the same.
func (h *Hub) Stop(ctx context.Context) (bench.Trace, error) {
	h.mu.Lock()
	defer h.mu.Unlock()
	if h.state.Pull == "" {
		return bench.Trace{}, problem.New("pull", "none is being made", "start one")
	}
	h.flush(ctx)
	out, err := h.last, h.failed
	h.state.Pull = ""
	if h.conn != nil {
		_, _ = h.conn.Write([]byte("stop\n"))
	}
	h.clear()
	return out, err
}

// Watch shows what is read until the context ends or the hub is closed.
func (h *Hub) Watch(ctx context.Context, show func(bench.Live) error) error {
	me := make(chan bench.Live)
	h.mu.Lock()
	h.shown[me] = max(0, len(h.last.S)-mostLive)
	h.mu.Unlock()
	defer func() {
		h.mu.Lock()
		delete(h.shown, me)
		h.mu.Unlock()
	}()
	tick := time.NewTicker(showEvery)
	defer tick.Stop()
	for {
		if err := show(h.since(me)); err != nil {
			return err
		}
		select {
		case <-ctx.Done():
			return nil
		case <-h.closed:
			return nil
		case <-tick.C:
		}
	}
}

func (h *Hub) since(me chan bench.Live) bench.Live {
	h.mu.Lock()
	defer h.mu.Unlock()
	from := h.shown[me]
	to := min(len(h.last.S), from+mostLive)
	l := bench.Live{CellState: h.now(), S: make([]float64, to-from), KN: make([]float64, to-from)}
	zero := 0.0
	if h.state.Pull != "" && len(h.last.S) > 0 {
		zero = h.last.S[0]
	}
	for i := range l.S {
		l.S[i], l.KN[i] = h.last.S[from+i]-zero, h.last.KN[from+i]-h.state.ZeroKN
	}
	h.shown[me] = to
	return l
}
