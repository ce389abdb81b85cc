package device

import (
	"context"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"net"
	"sync"
	"time"

	"oarweed/core/mooring"
	"oarweed/core/nmea"
	"oarweed/core/problem"
)

// windQuiet is after how long without a sentence of wind the signal counts as lost; a wind older
// than that is not one that blows.
const windQuiet = 8 * time.Second

// windShown is how often watchers are shown the wind.
const windShown = 500 * time.Millisecond

// Vane listens to a wind instrument that sends NMEA 0183 over TCP. What it keeps is of one size
// however long it listens.
type Vane struct {
	mu     sync.Mutex
	cancel context.CancelFunc
	feed   mooring.Feed
	quiet  time.Duration
	closed chan struct{}
	once   sync.Once
}

// NewVane makes one that listens to nothing.
func NewVane() *Vane { return &Vane{quiet: windQuiet, closed: make(chan struct{})} }

// State is the wind now.
func (v *Vane) State() mooring.Feed {
	v.mu.Lock()
	defer v.mu.Unlock()
	f := v.feed
	b := f.Breeze
	if b.At.IsZero() {
		return f
	}
	f.Kn, f.GustKn, f.FromDeg, f.Relative = b.Kn, b.GustKn(), b.FromDeg, b.Relative
	f.AgeS = math.Round(10*time.Since(b.At).Seconds()) / 10
	f.Known = f.Connected && f.AgeS <= v.quiet.Seconds()
	return f
}

// Dial listens to another address; an empty one to none.
func (v *Vane) Dial(addr string) error {
	if err := checkAddr("wind", addr, "192.168.1.30:10110"); err != nil {
		return err
	}
	v.mu.Lock()
	defer v.mu.Unlock()
	if v.cancel != nil {
		v.cancel()
	}
	v.cancel, v.feed = nil, mooring.Feed{Addr: addr}
	if addr != "" {
		ctx, cancel := context.WithCancel(context.Background())
		v.cancel = cancel
		go v.run(ctx, addr)
	}
	return nil
}

// Close ends what is under way; watchers see no more.
func (v *Vane) Close() {
	v.once.Do(func() { close(v.closed) })
	_ = v.Dial("")
}

func (v *Vane) run(ctx context.Context, addr string) {
	for ctx.Err() == nil {
		err := listen(ctx, addr, v.quiet, func(_ net.Conn, text string) bool {
			w, err := nmea.Read(text)
			v.mu.Lock()
			defer v.mu.Unlock()
			if ctx.Err() != nil {
				return false
			}
			if err != nil {
				if errors.Is(err, nmea.ErrChecksum) || errors.Is(err, nmea.ErrFields) || errors.Is(err, nmea.ErrNone) {
					v.feed.Torn++
				}
				return false
			}
			v.feed.Connected, v.feed.Lost = true, ""
			v.feed.Breeze.Take(w, time.Now())
			return true
		})
		v.mu.Lock()
		if ctx.Err() == nil {
			v.feed.Connected, v.feed.Lost = false, mooring.Unreachable
			switch {
			case errors.Is(err, errSilent):
				v.feed.Lost = mooring.Silent
			case errors.Is(err, errBroken):
				v.feed.Lost = mooring.Broken
			}
		}
		v.mu.Unlock()
		select {
		case <-ctx.Done():
		case <-time.After(redial):
		}
	}
}

// Watch shows the wind twice a second until the context ends or the vane is closed.
func (v *Vane) Watch(ctx context.Context, show func(mooring.Feed) error) error {
	tick := time.NewTicker(windShown)
	defer tick.Stop()
	for {
		if err := show(v.State()); err != nil {
			return err
		}
		select {
		case <-ctx.Done():
			return nil
		case <-v.closed:
			return nil
		case <-tick.C:
		}
	}
}

// Blow is a simulated wind: it rises from one speed to another in a time and stays, gusting, from
// a bearing about which it swings.
type Blow struct {
	Seed     uint64
	From, To float64       // knots
	Rise     time.Duration // from the one to the other
	Bearing  float64       // degrees off the bow, or from north
	North    bool
	Gust     float64       // share by which gusts go beyond the mean
	Hertz    float64       // sentences a second
	Drop     time.Duration // the connection breaks after so long; 0: never
	Torn     float64       // share of sentences that are torn
}

// Wind stands in for a wind instrument.
type Wind struct {
	spec  Blow
	began time.Time
	mu    sync.Mutex
	rnd   *rand.Rand
}

// NewWind makes one. The error names the field.
func NewWind(b Blow) (*Wind, error) {
	var l problem.List
	for _, x := range []struct {
		name         string
		v, low, high float64
	}{{"from", b.From, 0, 120}, {"to", b.To, 0, 120}, {"bearing", b.Bearing, 0, 360}, {"gust", b.Gust, 0, 1}, {"hertz", b.Hertz, 0.1, 100}, {"torn", b.Torn, 0, 1}} {
		if !(x.v >= x.low && x.v <= x.high) {
			l.Add(x.name, fmt.Sprintf("%g is outside %g to %g", x.v, x.low, x.high), "choose a number within")
		}
	}
	if b.Rise < 0 || b.Drop < 0 {
		l.Add("rise", "or drop is below nothing", "give a time like 2m")
	}
	return &Wind{spec: b, rnd: rand.New(rand.NewPCG(b.Seed, 0x77))}, l.Err()
}

func (w *Wind) String() string {
	return fmt.Sprintf("%g to %g knots in %v from %g°, gusts %.0f %%", w.spec.From, w.spec.To, w.spec.Rise, w.spec.Bearing, 100*w.spec.Gust)
}

// At is the wind at a time since it began to blow.
func (w *Wind) At(since time.Duration) (kn, from float64) {
	share := 1.0
	if w.spec.Rise > 0 {
		share = min(1, since.Seconds()/w.spec.Rise.Seconds())
	}
	kn = w.spec.From + share*(w.spec.To-w.spec.From)
	s := since.Seconds()
	// Two swells of gusts that do not beat together, and a swing of some degrees.
	kn *= 1 + w.spec.Gust*(0.6*math.Sin(2*math.Pi*s/11)+0.4*math.Sin(2*math.Pi*s/3.7))
	from = math.Mod(w.spec.Bearing+4*math.Sin(2*math.Pi*s/17)+360, 360)
	return max(0, kn), from
}

// Serve sends the wind to whoever connects until the context ends.
func (w *Wind) Serve(ctx context.Context, l net.Listener) error {
	stop := context.AfterFunc(ctx, func() { _ = l.Close() })
	defer stop()
	w.began = time.Now()
	var all sync.WaitGroup
	defer all.Wait()
	for {
		conn, err := l.Accept()
		if err != nil {
			if ctx.Err() != nil {
				return nil
			}
			return err
		}
		all.Go(func() { w.send(ctx, conn) })
	}
}

func (w *Wind) send(ctx context.Context, conn net.Conn) {
	defer conn.Close()
	tick := time.NewTicker(time.Duration(float64(time.Second) / w.spec.Hertz))
	defer tick.Stop()
	begun := time.Now()
	for {
		select {
		case <-ctx.Done():
			return
		case now := <-tick.C:
			if w.spec.Drop > 0 && now.Sub(begun) > w.spec.Drop {
				return
			}
			kn, from := w.At(now.Sub(w.began))
			text := nmea.Sentence(fmt.Sprintf("WIMWV,%.0f,R,%.1f,N,A", from, kn))
			if w.spec.North {
				text = nmea.Sentence(fmt.Sprintf("WIMWD,%.0f,T,,M,%.1f,N,%.1f,M", from, kn, kn*1.852/3.6))
			}
			w.mu.Lock()
			torn := w.rnd.Float64() < w.spec.Torn
			w.mu.Unlock()
			if torn {
				text = text[:len(text)/2] + "\r\n"
			}
			_ = conn.SetWriteDeadline(now.Add(dialTime))
			if _, err := conn.Write([]byte(text)); err != nil {
				return
			}
		}
	}
}
