package device_test

import (
	"context"
	"net"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/bench"
	"oarweed/internal/device"
)

// cellAt serves a stand-in at an address of its own.
func cellAt(t *testing.T, s device.Specimen) string {
	t.Helper()
	cat, err := catalogue.Load()
	require.NoError(t, err)
	cell, err := device.NewCell(cat, s)
	require.NoError(t, err)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	ctx, cancel := context.WithCancel(context.Background())
	done := make(chan struct{})
	go func() { defer close(done); _ = cell.Serve(ctx, l) }()
	t.Cleanup(func() { cancel(); <-done })
	return l.Addr().String()
}

// chunks keeps what a hub writes down.
type chunks struct {
	sync.Mutex
	of map[string]bench.Trace
	n  int
}

func (c *chunks) keep(_ context.Context, pull string, chunk int, t bench.Trace) error {
	c.Lock()
	defer c.Unlock()
	if c.of == nil {
		c.of = map[string]bench.Trace{}
	}
	c.of[pull] = bench.Trace{S: append(c.of[pull].S, t.S...), KN: append(c.of[pull].KN, t.KN...)}
	c.n = max(c.n, chunk+1)
	return nil
}

var polyester = device.Specimen{Seed: 3, Knots: []string{"bowline", "figure-eight-loop"}, Line: "polyester braid 10mm", Hertz: 200, Quick: 10}

func until(t *testing.T, what string, ok func() bool) {
	t.Helper()
	for range 1000 {
		if ok() {
			return
		}
		time.Sleep(10 * time.Millisecond)
	}
	require.Fail(t, "never: "+what)
}

func TestAPullIsReadMarkedAndWrittenDown(t *testing.T) {
	var kept chunks
	h := device.NewHub(kept.keep)
	t.Cleanup(h.Close)
	require.NoError(t, h.Dial(cellAt(t, polyester)))
	until(t, "connected", func() bool { return h.State().Connected })
	until(t, "a second of readings", func() bool { return h.Zero() == nil })
	require.NoError(t, h.Start("one"))
	assert.ErrorContains(t, h.Start("two"), "another pull")
	assert.ErrorContains(t, h.Zero(), "pull is being made")
	assert.ErrorContains(t, h.Dial(""), "stop it first")
	ctx, cancel := context.WithCancel(context.Background())
	seen, most := 0, 0.0
	fell := false
	require.NoError(t, h.Watch(ctx, func(l bench.Live) error {
		seen += len(l.S)
		for _, x := range l.KN {
			most = max(most, x)
		}
		if most > 4 && len(l.KN) > 0 && l.KN[len(l.KN)-1] < 0.3*most && !fell {
			fell = true
			time.AfterFunc(200*time.Millisecond, cancel)
		}
		return nil
	}))
	trace, err := h.Stop(context.Background())
	require.NoError(t, err)
	assert.Greater(t, seen, len(trace.S)/2, "it was shown as it was read")
	m, err := bench.FindMarks(trace)
	require.NoError(t, err)
	require.NotNil(t, m.Peak)
	assert.InDelta(t, most, m.Peak.LoadKN, 0.4)
	assert.Equal(t, trace, kept.of["one"], "every reading is written down")
	assert.Greater(t, kept.n, 1, "in chunks, as they came")
	_, err = h.Stop(context.Background())
	assert.ErrorContains(t, err, "none is being made")
}

func TestALostConnectionComesBack(t *testing.T) {
	var kept chunks
	h := device.NewHub(kept.keep)
	t.Cleanup(h.Close)
	s := polyester
	s.Drop = 1200 * time.Millisecond
	require.NoError(t, h.Dial(cellAt(t, s)))
	until(t, "connected", func() bool { return h.State().Connected })
	require.NoError(t, h.Start("torn"))
	until(t, "lost", func() bool { return !h.State().Connected })
	before := h.State()
	assert.Equal(t, "torn", before.Pull, "the pull goes on")
	assert.Greater(t, before.Readings, 0)
	assert.NotEmpty(t, before.Lost)
	until(t, "back", func() bool { return h.State().Connected && h.State().Readings > before.Readings })
	assert.True(t, h.State().Gap)
	trace, err := h.Stop(context.Background())
	require.NoError(t, err)
	assert.True(t, slices.IsSorted(trace.S))
	assert.GreaterOrEqual(t, len(trace.S), before.Readings, "what was read is not lost")
}

// A cell that talks for days is kept for a minute.
func TestOutsideAPullOnlyTheLastMinuteIsKept(t *testing.T) {
	h := device.NewHub((&chunks{}).keep)
	t.Cleanup(h.Close)
	s := polyester
	s.Hertz, s.Quick = 100, 1000
	require.NoError(t, h.Dial(cellAt(t, s)))
	until(t, "connected", func() bool { return h.State().Connected })
	readings, days := 0, 0.0
	ctx, cancel := context.WithTimeout(context.Background(), 2*time.Second)
	defer cancel()
	require.NoError(t, h.Watch(ctx, func(l bench.Live) error {
		readings += len(l.S)
		if len(l.S) > 0 {
			days = l.S[len(l.S)-1]
		}
		return nil
	}))
	assert.Greater(t, days, 300.0, "minutes of the cell's clock went by")
	assert.LessOrEqual(t, device.Kept(h), 12001)
}

// A server that stops waits for no page that watches.
func TestAClosedHubIsWatchedNoMore(t *testing.T) {
	h := device.NewHub((&chunks{}).keep)
	done := make(chan error, 1)
	go func() { done <- h.Watch(context.Background(), func(bench.Live) error { return nil }) }()
	time.Sleep(60 * time.Millisecond)
	h.Close()
	h.Close()
	select {
	case err := <-done:
		assert.NoError(t, err)
	case <-time.After(5 * time.Second):
		require.Fail(t, "still watched")
	}
}

func TestCellsThatAreNone(t *testing.T) {
	h := device.NewHub((&chunks{}).keep)
	assert.ErrorContains(t, h.Dial("nowhere"), "like 192.168.1.20:9015")
	assert.ErrorContains(t, h.Start("x"), "not connected")
	require.NoError(t, h.Dial("127.0.0.1:1"))
	until(t, "said", func() bool { return h.State().Lost != "" })
	h.Close()
	cat, err := catalogue.Load()
	require.NoError(t, err)
	_, err = device.NewCell(cat, device.Specimen{Knots: []string{"granny"}, Line: "spaghetti 3mm", Hertz: 5000, Quick: 1})
	for _, field := range []string{"knots", "line.material", "hertz"} {
		assert.ErrorContains(t, err, field)
	}
}

func TestReadings(t *testing.T) {
	for text, want := range map[string][2]float64{"12.345,0.512,kN": {12.345, 0.512}, "1;500;N": {1, 0.5}, "2 100 lbf": {2, 0.4448221615}, "3,-0.2,kN": {3, -0.2}} {
		s, kn, ok := device.Reading(text)
		require.True(t, ok, text)
		assert.InDelta(t, want[0], s, 1e-9, text)
		assert.InDelta(t, want[1], kn, 1e-9, text)
	}
	for _, text := range []string{"", "# zero", "1,2", "a,b,kN", "1,2,stone"} {
		_, _, ok := device.Reading(text)
		assert.False(t, ok, text)
	}
}

func FuzzReading(f *testing.F) {
	f.Add("12.345,0.512,kN")
	f.Add("# remark")
	f.Fuzz(func(t *testing.T, text string) { device.Reading(text) })
}
