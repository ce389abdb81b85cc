// Package nmea reads wind out of NMEA 0183 sentences: MWV, MWD and VWR. The forms of the
// sentences are from memory; the checksum is by its definition, the exclusive or of all bytes
// between $ and *.
package nmea

import (
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Wind is what a sentence says of it.
type Wind struct {
	Kn float64 `json:"kn"`
	// FromDeg is the bearing that it comes from, clockwise: from the bow where Relative, else
	// from north.
	FromDeg  float64 `json:"from_deg"`
	Relative bool    `json:"relative"`
	// True wind, not the apparent one that a boat under way feels.
	True bool `json:"true"`
}

// What is wrong with a sentence. ErrOther is none of wind, and ErrInvalid what the instrument
// itself calls so: neither is a fault of the line.
var (
	ErrNone     = errors.New("is no sentence")
	ErrChecksum = errors.New("has a wrong checksum")
	ErrFields   = errors.New("lacks fields, or holds what is no number")
	ErrOther    = errors.New("is of something else")
	ErrInvalid  = errors.New("is marked invalid by the instrument")
)

// longest is how long a sentence may be; the standard says 82, and some send more.
const longest = 120

// Checksum of what stands between $ and *.
func Checksum(body string) byte {
	var sum byte
	for i := range len(body) {
		sum ^= body[i]
	}
	return sum
}

// Sentence puts $, checksum and line end round a body like "WIMWV,045,R,12.5,N,A".
func Sentence(body string) string { return fmt.Sprintf("$%s*%02X\r\n", body, Checksum(body)) }

// Read reads one line. A line without a checksum is refused: on a wire that is how a torn line
// looks.
func Read(line string) (Wind, error) {
	line = strings.TrimRight(line, "\r\n ")
	if len(line) < 9 || len(line) > longest || line[0] != '$' {
		return Wind{}, ErrNone
	}
	body, sum, ok := strings.Cut(line[1:], "*")
	if !ok || len(sum) != 2 {
		return Wind{}, ErrChecksum
	}
	want, err := strconv.ParseUint(sum, 16, 8)
	if err != nil || Checksum(body) != byte(want) {
		return Wind{}, ErrChecksum
	}
	f := strings.Split(body, ",")
	if len(f[0]) != 5 {
		return Wind{}, ErrOther
	}
	switch f[0][2:] {
	case "MWV":
		return mwv(f)
	case "MWD":
		return mwd(f)
	case "VWR":
		return vwr(f)
	}
	return Wind{}, ErrOther
}

// mwv: angle from the bow, R apparent or T true, speed, its unit (N knots, M m/s, K km/h), A valid.
func mwv(f []string) (Wind, error) {
	if len(f) < 6 {
		return Wind{}, ErrFields
	}
	if f[5] != "A" {
		return Wind{}, ErrInvalid
	}
	angle, speed := number(f[1]), number(f[3])
	perKn, ok := map[string]float64{"N": 1, "M": 3.6 / 1.852, "K": 1 / 1.852}[f[4]]
	if !ok || f[2] != "R" && f[2] != "T" {
		return Wind{}, ErrFields
	}
	return checked(Wind{Kn: speed * perKn, FromDeg: angle, Relative: true, True: f[2] == "T"})
}

// mwd: direction from true north, T, from magnetic north, M, speed in knots, N, in m/s, M.
func mwd(f []string) (Wind, error) {
	if len(f) < 9 {
		return Wind{}, ErrFields
	}
	speed := number(f[5])
	if f[5] == "" {
		speed = number(f[7]) * 3.6 / 1.852
	}
	from := number(f[1])
	if f[1] == "" {
		from = number(f[3])
	}
	return checked(Wind{Kn: speed, FromDeg: from, True: true})
}

// vwr: angle from the bow up to 180, L or R, speed in knots, N, and in other units.
func vwr(f []string) (Wind, error) {
	if len(f) < 5 {
		return Wind{}, ErrFields
	}
	angle := number(f[1])
	switch f[2] {
	case "L":
		angle = math.Mod(360-angle, 360)
	case "R":
	default:
		return Wind{}, ErrFields
	}
	return checked(Wind{Kn: number(f[3]), FromDeg: angle, Relative: true})
}

// number is NaN where there is none.
func number(s string) float64 {
	v, err := strconv.ParseFloat(s, 64)
	if err != nil {
		return math.NaN()
	}
	return v
}

// checked refuses what no wind is: slower than none, faster than 250 knots, from nowhere.
func checked(w Wind) (Wind, error) {
	if !(w.Kn >= 0 && w.Kn <= 250) || !(w.FromDeg >= 0 && w.FromDeg <= 360) {
		return Wind{}, ErrFields
	}
	return w, nil
}
