package mooring

import (
	"math"
	"time"

	"oarweed/core/nmea"
	"oarweed/core/rig"
)

// Warn is how the wind stands against a plan.
type Warn string

const (
	Stands Warn = ""
	Soon   Warn = "soon"  // the wind or its gusts are near what it stands
	Gusts  Warn = "gusts" // the gusts are more than it stands
	Gone   Warn = "gone"  // the wind itself is
)

// near is from which share of the wind that a plan stands one is warned: our own choice. Loads
// go with the square, so that nine tenths of the wind are four fifths of the load.
const near = 0.9

// Watch is a plan in the wind that blows.
type Watch struct {
	Kn      float64 `json:"kn"`
	GustKn  float64 `json:"gust_kn"`
	FromDeg float64 `json:"from_deg" doc:"clockwise from the bow"`
	// StandsKN is what it stands from there; Warn how the wind stands against it.
	StandsKN float64 `json:"stands_kn"`
	Warn     Warn    `json:"warn" enum:",soon,gusts,gone"`
	// Worst: where the wind comes from is not known for her; it is held from where she stands
	// least.
	Worst  bool   `json:"worst,omitempty" doc:"from where she stands least: her heading is not known"`
	Shared Shared `json:"shared"`
}

// In holds a plan against a wind and its gust, both from a bearing off the bow. The error names
// the field.
func In(v *rig.Vocabulary, p Plan, kn, gust, from float64) (Watch, error) {
	p.Wind = Wind{Kn: math.Min(kn, topKn), FromDeg: from}
	s, err := Solve(v, p)
	if err != nil {
		return Watch{}, err
	}
	w := Watch{Kn: kn, GustKn: math.Max(kn, gust), FromDeg: from, StandsKN: s.StandsKN, Shared: s}
	switch {
	case w.Kn > w.StandsKN:
		w.Warn = Gone
	case w.GustKn > w.StandsKN:
		w.Warn = Gusts
	case w.GustKn > near*w.StandsKN:
		w.Warn = Soon
	}
	return w, nil
}

// rose is how many bearings are tried where none is known.
const rose = 16

// Anywhere holds a plan against a wind from where she stands least.
func Anywhere(v *rig.Vocabulary, p Plan, kn, gust float64) (worst Watch, err error) {
	for i := range rose {
		w, err := In(v, p, kn, gust, 360/rose*float64(i))
		if err != nil {
			return w, err
		}
		if i == 0 || w.StandsKN < worst.StandsKN {
			worst = w
		}
	}
	worst.Worst = true
	return worst, nil
}

// Breeze is the wind of the last minutes: what blows now and the strongest gust. Its memory is
// of one size however long it listens.
type Breeze struct {
	// Now is the mean of the last seconds, bearings and all; At when the last sentence came.
	Kn, FromDeg float64
	Relative    bool
	At          time.Time

	x, y  float64 // the mean as a vector, smoothed
	gusts [GustMinutes]float64
	slot  int64
}

const (
	// GustMinutes are those over which the strongest gust counts: ten, as gusts are reported
	// (World Meteorological Organization, from memory).
	GustMinutes = 10
	// smooth is how many seconds the mean reaches back: our own choice.
	smooth = 10.0
)

// Take adds a sentence's wind at a time. A wind from north after one off the bow, or the other
// way round, begins anew.
func (b *Breeze) Take(w nmea.Wind, at time.Time) {
	rad := w.FromDeg * math.Pi / 180
	x, y := w.Kn*math.Cos(rad), w.Kn*math.Sin(rad)
	share := 1.0
	if !b.At.IsZero() && w.Relative == b.Relative {
		share = 1 - math.Exp(-math.Max(0, at.Sub(b.At).Seconds())/smooth)
	}
	b.x, b.y = b.x+share*(x-b.x), b.y+share*(y-b.y)
	b.Kn, b.FromDeg = math.Hypot(b.x, b.y), math.Mod(math.Atan2(b.y, b.x)*180/math.Pi+360, 360)
	b.At, b.Relative = at, w.Relative
	b.forget(at)
	i := b.slot % GustMinutes
	b.gusts[i] = math.Max(b.gusts[i], w.Kn)
}

// forget empties the minutes that have gone by.
func (b *Breeze) forget(at time.Time) {
	slot := at.Unix() / 60
	if slot-b.slot >= GustMinutes {
		b.gusts = [GustMinutes]float64{}
	} else {
		for s := b.slot + 1; s <= slot; s++ {
			b.gusts[s%GustMinutes] = 0
		}
	}
	if slot > b.slot {
		b.slot = slot
	}
}

// GustKn is the strongest of the last [GustMinutes] minutes.
func (b *Breeze) GustKn() (kn float64) {
	for _, g := range b.gusts {
		kn = math.Max(kn, g)
	}
	return kn
}

// OffBow is the wind's bearing from a bow that points so from north.
func (b *Breeze) OffBow(heading float64) float64 {
	if b.Relative {
		return b.FromDeg
	}
	return math.Mod(b.FromDeg-heading+720, 360)
}

// Lost is why no wind is known.
type Lost string

const (
	Unreachable Lost = "unreachable" // nobody answers at the address
	Broken      Lost = "broken"      // the connection broke off
	Silent      Lost = "silent"      // no wind came that can be read
)

// Feed is what the wind instrument says now.
type Feed struct {
	// Addr is the address listened to; empty: none.
	Addr      string `json:"addr"`
	Connected bool   `json:"connected"`
	Lost      Lost   `json:"lost,omitempty" enum:"unreachable,broken,silent" doc:"why no wind is known"`
	// Known: a wind was read that is not older than a few seconds. The last one is told after
	// that too, with its age.
	Known    bool    `json:"known"`
	Kn       float64 `json:"kn"`
	GustKn   float64 `json:"gust_kn" doc:"the strongest of the last ten minutes"`
	FromDeg  float64 `json:"from_deg"`
	Relative bool    `json:"relative" doc:"from_deg counts from the bow, else from north"`
	AgeS     float64 `json:"age_s" doc:"since the last sentence"`
	// Torn sentences had a wrong checksum or could not be read.
	Torn int `json:"torn"`
	// breeze is behind it.
	Breeze Breeze `json:"-"`
}
