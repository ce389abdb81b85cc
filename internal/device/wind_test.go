package device_test

import (
	"context"
	"net"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/mooring"
	"oarweed/internal/device"
)

// windAt serves a stand-in; the function given ends it.
func windAt(t *testing.T, addr string, b device.Blow) (string, func()) {
	t.Helper()
	w, err := device.NewWind(b)
	require.NoError(t, err)
	l, err := net.Listen("tcp", addr)
	require.NoError(t, err)
	ctx, cancel := context.WithCancel(context.Background())
	done := make(chan struct{})
	go func() { defer close(done); _ = w.Serve(ctx, l) }()
	end := func() { cancel(); <-done }
	t.Cleanup(end)
	return l.Addr().String(), end
}

// The wind is heard, torn sentences counted and left out; when the feed drops that is said, and
// it is heard again when it returns.
func TestTheWindIsHeardLostAndHeardAgain(t *testing.T) {
	blow := device.Blow{From: 20, To: 20, Bearing: 300, Hertz: 50, Torn: 0.3}
	addr, end := windAt(t, "127.0.0.1:0", blow)
	v := device.NewVane()
	defer v.Close()
	require.NoError(t, v.Dial(addr))
	until(t, "wind and torn sentences", func() bool { s := v.State(); return s.Known && s.Torn > 2 })
	s := v.State()
	assert.InDelta(t, 20, s.Kn, 1)
	assert.InDelta(t, 20, s.GustKn, 0.5)
	assert.InDelta(t, 300, s.FromDeg, 6)
	assert.True(t, s.Relative)
	end()
	until(t, "lost", func() bool { s := v.State(); return !s.Known && s.Lost != "" })
	assert.InDelta(t, 20, v.State().Kn, 1, "the last wind is still told")
	blow.North = true
	windAt(t, addr, blow)
	until(t, "back, from north", func() bool { s := v.State(); return s.Known && !s.Relative })
}

func TestAnAddressThatIsNoneIsRefused(t *testing.T) {
	v := device.NewVane()
	defer v.Close()
	assert.ErrorContains(t, v.Dial("nowhere"), "wind")
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	addr := l.Addr().String()
	require.NoError(t, l.Close())
	require.NoError(t, v.Dial(addr))
	until(t, "unreachable", func() bool { return v.State().Lost == mooring.Unreachable })
	require.NoError(t, v.Dial(""))
	assert.Empty(t, v.State().Lost)
	assert.False(t, v.State().Known)
}

func TestWatchersSeeTheWindUntilItIsClosed(t *testing.T) {
	addr, _ := windAt(t, "127.0.0.1:0", device.Blow{From: 12, To: 12, Hertz: 20})
	v := device.NewVane()
	require.NoError(t, v.Dial(addr))
	seen := 0
	done := make(chan error)
	go func() {
		done <- v.Watch(t.Context(), func(f mooring.Feed) error {
			if f.Known {
				seen++
			}
			if seen == 2 {
				go v.Close()
			}
			return nil
		})
	}()
	select {
	case err := <-done:
		assert.NoError(t, err)
	case <-time.After(20 * time.Second):
		t.Fatal("it watches on after it was closed")
	}
	assert.GreaterOrEqual(t, seen, 2)
}

func TestASimulatedWindRisesAndStays(t *testing.T) {
	w, err := device.NewWind(device.Blow{From: 15, To: 35, Rise: time.Minute, Bearing: 300, Gust: 0.2, Hertz: 10})
	require.NoError(t, err)
	assert.Contains(t, w.String(), "15 to 35 knots")
	mean := func(from, to time.Duration) (sum float64) {
		n := 0.0
		for s := from; s < to; s += 100 * time.Millisecond {
			kn, deg := w.At(s)
			require.True(t, deg >= 0 && deg < 360)
			sum, n = sum+kn, n+1
		}
		return sum / n
	}
	assert.InDelta(t, 25, mean(0, time.Minute), 1)
	assert.InDelta(t, 35, mean(2*time.Minute, 4*time.Minute), 1)
	_, err = device.NewWind(device.Blow{From: -1, To: 200, Bearing: 400, Gust: 2, Hertz: 0, Torn: 2, Rise: -1})
	for _, f := range []string{"from", "to", "bearing", "gust", "hertz", "torn", "rise"} {
		assert.ErrorContains(t, err, f)
	}
}
