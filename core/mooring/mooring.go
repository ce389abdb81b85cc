package mooring

import (
	"fmt"
	"math"

	"gonum.org/v1/gonum/mat"

	"oarweed/core/evidence"
	"oarweed/core/line"
	"oarweed/core/load"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Boat by her measures.
type Boat struct {
	LOAM          float64 `json:"loa_m"`
	BeamM         float64 `json:"beam_m"`
	DisplacementT float64 `json:"displacement_t"`
	// SideM2 is what the wind meets from abeam, hull and all above it; left out: a multiple of
	// what the table says from ahead, [Beam].
	SideM2 float64 `json:"side_m2,omitempty" minimum:"0" maximum:"1000" doc:"area that the wind meets from abeam; left out: by her length"`
}

// Wind in knots, from a bearing clockwise from the bow.
type Wind struct {
	Kn      float64 `json:"kn"`
	FromDeg float64 `json:"from_deg"`
}

// Line leads from a place on the boat to one ashore.
type Line struct {
	// Name it goes by: bow line, stern line, spring.
	Name string     `json:"name,omitempty" maxLength:"40"`
	From [2]float64 `json:"from" nullable:"false"`
	To   [2]float64 `json:"to" nullable:"false"`
	Line rig.Line   `json:"line"`
	// Own is the code of the line in the locker; its figures count then.
	Own string `json:"own,omitempty" maxLength:"12" doc:"code of the line in the locker"`
	// Boat and Shore are what its ends are made fast to; left out: a cleat, a bollard.
	Boat  Post `json:"boat,omitempty" enum:"cleat,bollard,ring,post"`
	Shore Post `json:"shore,omitempty" enum:"cleat,bollard,ring,post"`
}

// Plan is a moored boat.
type Plan struct {
	Boat  Boat   `json:"boat"`
	Wind  Wind   `json:"wind"`
	Lines []Line `json:"lines" nullable:"false"`
}

// Share is what one line bears.
type Share struct {
	LoadKN float64 `json:"load_kn"`
	// Margin is the low end of what the line bears, wet and worn, over twice the load; 0 where
	// it bears nothing.
	Margin float64 `json:"margin"`
}

// Shared is how the wind is shared.
type Shared struct {
	Lines []Share `json:"lines" nullable:"false"`
	// StandsKN is the highest wind from there in which every margin is 1 or more.
	StandsKN float64 `json:"stands_kn"`
	// WindKN is the force of the wind: what the worst line bears if it carries all.
	WindKN float64 `json:"wind_kn"`
	// Moved is how far she shifts, m, and turns, degrees.
	Moved   [2]float64 `json:"moved_m" nullable:"false"`
	TurnDeg float64    `json:"turn_deg"`
	// QuayKN is what pushes on her fenders.
	QuayKN float64 `json:"quay_kn"`
}

const (
	most = 40 // lines
	// Abeam she catches so many times the wind from ahead: two to four, from memory.
	abeam = 3
	// A fender gives so much for each kilonewton, our own estimate; two of them, at so much of
	// her length before and behind amidships.
	fenderKNM = 60
	fenderAt  = 0.3
	topKn     = 120
)

// Beam is how many times the wind from ahead she catches abeam, with its evidence.
var Beam = evidence.Figure{Interval: evidence.Interval{Low: 2, Likely: abeam, High: 4}, Tag: evidence.Memory, Source: "side against front of small craft, from memory, kept wide"}

// spring is a line as the sum sees it, in kN and metres.
type spring struct {
	from, to [2]float64
	length   float64 // unstretched
	k        float64 // kN/m
	least    float64 // what it bears at its worst, kN
}

// body is a plan made ready: forces at one wind follow by a factor.
type body struct {
	springs []spring
	quay    float64 // +1 to starboard, −1 to port, 0 none
	beam    float64
	loa     float64
	front   float64 // force of 1 kn from ahead, kN
	side    float64 // of 1 kn from abeam
	from    float64 // radians
}

// Solve shares the wind out. The error names the field.
func Solve(v *rig.Vocabulary, p Plan) (Shared, error) {
	b, err := ready(v, p)
	if err != nil {
		return Shared{}, err
	}
	at, err := b.rest(p.Wind.Kn)
	if err != nil {
		return Shared{}, err
	}
	out := Shared{Lines: []Share{}, Moved: [2]float64{at[0], at[1]}, TurnDeg: at[2] * 180 / math.Pi}
	fx, fy := b.wind(p.Wind.Kn)
	out.WindKN = math.Hypot(fx, fy)
	for _, s := range b.springs {
		t, _, _ := s.pull(at)
		share := Share{LoadKN: t}
		if t > 1e-6 {
			share.Margin = s.least / (2 * t)
		}
		out.Lines = append(out.Lines, share)
	}
	for _, f := range b.fenders() {
		out.QuayKN += b.push(f, at)
	}
	out.StandsKN, err = b.stands()
	return out, err
}

func ready(v *rig.Vocabulary, p Plan) (*body, error) {
	var l problem.List
	number := func(field string, x, low, high float64) {
		if !(x >= low && x <= high) {
			l.Add(field, fmt.Sprintf("%g is outside %g to %g", x, low, high), "correct the number")
		}
	}
	number("boat.loa_m", p.Boat.LOAM, 3.05, 18.28)
	number("boat.beam_m", p.Boat.BeamM, 0.5, 12)
	number("boat.displacement_t", p.Boat.DisplacementT, 0, 500)
	number("boat.side_m2", p.Boat.SideM2, 0, 1000)
	number("wind.kn", p.Wind.Kn, 0, topKn)
	number("wind.from_deg", p.Wind.FromDeg, -360, 360)
	if len(p.Lines) == 0 || len(p.Lines) > most {
		l.Add("lines", fmt.Sprintf("there are %d", len(p.Lines)), fmt.Sprintf("give 1 to %d", most))
	}
	b := &body{beam: p.Boat.BeamM, loa: p.Boat.LOAM, from: p.Wind.FromDeg * math.Pi / 180}
	for i, x := range p.Lines {
		at := fmt.Sprintf("lines[%d]", i)
		if math.Abs(x.From[0]) > 0.6*p.Boat.LOAM || math.Abs(x.From[1]) > p.Boat.BeamM {
			l.Add(at+".from", fmt.Sprintf("%v is not on the boat", x.From), "count from amidships: x toward the bow, y to starboard, in metres")
		}
		d := math.Hypot(x.To[0]-x.From[0], x.To[1]-x.From[1])
		number(at+".to", d, 0.3, 200)
		s, err := springOf(v, x.Line, d)
		l.Take(at+".line", err)
		s.from, s.to = x.From, x.To
		b.springs = append(b.springs, s)
	}
	if err := l.Err(); err != nil {
		return nil, err
	}
	w, err := load.ByLength(unit.Length(p.Boat.LOAM), load.TableWind*load.KnotSpeed)
	if err != nil {
		return nil, problem.At("boat", err)
	}
	b.front = w.Pounds * float64(unit.Pound) / 1000 / (load.TableWind * load.TableWind)
	b.side = abeam * b.front
	if p.Boat.SideM2 > 0 {
		b.side = load.Pressure(p.Boat.SideM2, 1, load.KnotSpeed) / 1000
	}
	b.quay = quayOf(p)
	return b, nil
}

func springOf(v *rig.Vocabulary, n rig.Line, length float64) (spring, error) {
	ln, err := v.LineOf(n)
	if err != nil {
		return spring{}, err
	}
	bears, err := ln.Bears(true)
	if err != nil {
		return spring{}, err
	}
	return spring{length: length, k: stiffness(ln, bears, length), least: bears.Capacity.Low / 1000}, nil
}

// stiffness is strength over stretch at breaking and length, kN/m.
func stiffness(ln line.Line, s line.Strength, length float64) float64 {
	return s.AsNew.Likely / 1000 / (ln.Material.Stretch.Likely * length)
}

// quayOf is the side to which all lines lead, beyond the hull: there is a quay then.
func quayOf(p Plan) float64 {
	for _, side := range []float64{1, -1} {
		all := true
		for _, x := range p.Lines {
			all = all && side*x.To[1] >= p.Boat.BeamM/2
		}
		if all {
			return side
		}
	}
	return 0
}

// wind is its force on her at so many knots, kN.
func (b *body) wind(kn float64) (fx, fy float64) {
	return -b.front * kn * kn * math.Cos(b.from), -b.side * kn * kn * math.Sin(b.from)
}

// moved is where a place on the boat is: at holds shift and turn.
func moved(p [2]float64, at [3]float64) [2]float64 {
	sin, cos := math.Sincos(at[2])
	return [2]float64{cos*p[0] - sin*p[1] + at[0], sin*p[0] + cos*p[1] + at[1]}
}

// pull is the tension of a line and its direction on the boat.
func (s spring) pull(at [3]float64) (t, ux, uy float64) {
	p := moved(s.from, at)
	dx, dy := s.to[0]-p[0], s.to[1]-p[1]
	d := math.Hypot(dx, dy)
	if d <= s.length || d == 0 {
		return 0, 0, 0
	}
	return s.k * (d - s.length), dx / d, dy / d
}

// fenders are places on her side.
func (b *body) fenders() [][2]float64 {
	if b.quay == 0 {
		return nil
	}
	y := b.quay * b.beam / 2
	return [][2]float64{{fenderAt * b.loa, y}, {-fenderAt * b.loa, y}}
}

// push is the force of the quay through a fender, which only pushes.
func (b *body) push(f [2]float64, at [3]float64) float64 {
	p := moved(f, at)
	return fenderKNM * max(0, b.quay*p[1]-b.beam/2)
}

// force is what acts on her at rest in so much wind: along, athwart, turning about amidships.
func (b *body) force(kn float64, at [3]float64) (f [3]float64) {
	add := func(p [2]float64, x, y float64) {
		sin, cos := math.Sincos(at[2])
		rx, ry := cos*p[0]-sin*p[1], sin*p[0]+cos*p[1]
		f[0], f[1], f[2] = f[0]+x, f[1]+y, f[2]+rx*y-ry*x
	}
	for _, s := range b.springs {
		t, ux, uy := s.pull(at)
		add(s.from, t*ux, t*uy)
	}
	for _, p := range b.fenders() {
		add(p, 0, -b.quay*b.push(p, at))
	}
	fx, fy := b.wind(kn)
	add([2]float64{}, fx, fy)
	return f
}

// rest is where all forces cancel: shift and turn. The error says that nothing holds her.
func (b *body) rest(kn float64) (at [3]float64, err error) {
	scale := [3]float64{1, 1, b.loa / 2} // a moment counts as the force at her end
	size := func(f [3]float64) float64 {
		return math.Sqrt(f[0]*f[0] + f[1]*f[1] + f[2]*f[2]/(scale[2]*scale[2]))
	}
	fx, fy := b.wind(kn)
	enough := 1e-7 * (1e-3 + math.Hypot(fx, fy))
	f := b.force(kn, at)
	damp := 1e-3
	for range 400 {
		if size(f) < enough {
			return at, nil
		}
		// The stiffness at this place, by differences.
		const h = 1e-6
		j := mat.NewDense(3, 3, nil)
		for c := range 3 {
			up := at
			up[c] += h
			g := b.force(kn, up)
			for r := range 3 {
				j.Set(r, c, -(g[r]-f[r])/h)
			}
		}
		for c := range 3 {
			j.Set(c, c, j.At(c, c)+damp*scale[c]*scale[c])
		}
		var step mat.VecDense
		if step.SolveVec(j, mat.NewVecDense(3, f[:])) != nil {
			damp = math.Max(10*damp, 1e-3)
			continue
		}
		next := at
		far := math.Max(math.Hypot(step.AtVec(0), step.AtVec(1)), math.Abs(step.AtVec(2))*scale[2])
		cut := math.Min(1, b.loa/math.Max(far, 1e-12)) // no farther than her length at once
		for c := range 3 {
			next[c] += cut * step.AtVec(c)
		}
		if g := b.force(kn, next); size(g) < size(f)*(1+1e-9) || damp > 1e6 {
			at, f, damp = next, g, math.Max(damp/5, 1e-9)
		} else {
			damp *= 6
		}
	}
	if size(f) < 1e-4*(1e-3+math.Hypot(fx, fy)) {
		return at, nil
	}
	return at, problem.New("lines", "do not hold her in this wind: she swings without coming to rest", "add a line that leads against it")
}

// stands is the highest wind, to a tenth of a knot, in which every margin is 1 or more.
func (b *body) stands() (float64, error) {
	holds := func(kn float64) (bool, error) {
		at, err := b.rest(kn)
		if err != nil {
			return false, err
		}
		for _, s := range b.springs {
			if t, _, _ := s.pull(at); s.least < 2*t {
				return false, nil
			}
		}
		return true, nil
	}
	low, high := 0.0, float64(topKn)
	if ok, err := holds(high); err != nil || ok {
		return high, err
	}
	for high-low > 0.05 {
		mid := (low + high) / 2
		ok, err := holds(mid)
		if err != nil {
			return 0, err
		}
		if ok {
			low = mid
		} else {
			high = mid
		}
	}
	return math.Floor(low*10+0.5) / 10, nil
}
