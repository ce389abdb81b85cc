package hold

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
	"sync"

	"oarweed/core/evidence"
	"oarweed/core/friction"
	"oarweed/core/line"
	"oarweed/core/unit"
)

const (
	// Draws of equal weight that a posterior is kept as.
	Draws = 512
	// PriorDraws are weighted by the facts.
	PriorDraws = 4096
)

// TagGives is the force that the tag of a dressed and set knot gives by itself, in
// newtons per square millimetre of the diameter: 1, 4 and 12 N in 12 mm line. From
// memory, deliberately wide.
var TagGives = evidence.Figure{Interval: evidence.Interval{Low: 1.0 / 144, Likely: 4.0 / 144, High: 12.0 / 144}, Tag: evidence.Memory,
	Source: "stiffness, weight and set of a dressed knot: a few newtons in 12 mm line, growing with the square of the diameter; from memory, kept wide"}

// tagGives in newtons per square metre.
func tagGives(p float64) float64 { return TagGives.Dist().Quantile(p) * 1e6 }

// draw of what is not known: friction on smooth metal, rope on rope, where in its
// interval the factor of a surface lies (0 to 1), and what the tag gives.
type draw struct{ metal, rope, surface, tag float64 }

// Belief about the friction of a line, wet or dry, before and after the facts of use.
type Belief struct {
	Material *line.Material
	Wet      bool
	// Metal is the friction on smooth metal, Rope that of rope on rope: 5, 50 and 95 of
	// 100 draws lie below.
	PriorMetal, PriorRope, Metal, Rope evidence.Interval
	// Tag is what the tag gives by itself, in newtons per square metre of d².
	Tag evidence.Interval
	// Facts with what the prior and the posterior give them.
	Facts []Reproduced

	draws []draw
}

// Reproduced is a fact beside the chance that the model gives it.
type Reproduced struct {
	Fact
	// Prior and Posterior are the chances that the hitch holds as the fact means it; that
	// it locks, for one that works loose.
	Prior, Posterior float64
}

// Agrees reports whether the conditioned model says what use says.
func (r Reproduced) Agrees() bool {
	switch r.Says {
	case Slips:
		return r.Posterior <= 0.15
	case WorksLoose:
		return r.Posterior > 0.4 && r.Posterior < 0.99
	}
	return r.Posterior >= 0.85
}

// Table answers how likely a hitch holds. It is safe for concurrent use.
type Table struct {
	facts    []Fact
	surfaces map[string]*line.Surface

	mu      sync.Mutex
	beliefs map[beliefKey]*sync.Once
	known   map[beliefKey]*Belief
	ratios  map[ratioKey]*ratios
}

type beliefKey struct {
	material string
	wet      bool
	// own friction on smooth metal, as a step of its logarithm; 0: the material's.
	own int
}

// NewTable makes a table from facts that have been checked.
func NewTable(facts []Fact, surfaces []*line.Surface) *Table {
	t := &Table{facts: facts, surfaces: map[string]*line.Surface{}, beliefs: map[beliefKey]*sync.Once{}, known: map[beliefKey]*Belief{}, ratios: map[ratioKey]*ratios{}}
	for _, s := range surfaces {
		t.surfaces[s.ID] = s
	}
	return t
}

// Belief about a material, wet or dry.
func (t *Table) Belief(m *line.Material, wet bool) *Belief {
	return t.belief(m, wet, beliefKey{m.ID, wet, 0}, 0)
}

func (t *Table) belief(m *line.Material, wet bool, key beliefKey, own float64) *Belief {
	t.mu.Lock()
	once := t.beliefs[key]
	if once == nil {
		once = &sync.Once{}
		t.beliefs[key] = once
	}
	t.mu.Unlock()
	once.Do(func() {
		b := t.learn(m, wet, own)
		t.mu.Lock()
		t.known[key] = b
		t.mu.Unlock()
	})
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.known[key]
}

// learn weighs draws of the prior by the facts of the material and resamples them.
func (t *Table) learn(m *line.Material, wet bool, own float64) *Belief {
	b := &Belief{Material: m, Wet: wet}
	prior := t.prior(m, wet, own)
	weight := make([]float64, len(prior))
	for i := range weight {
		weight[i] = 1
	}
	var facts []Fact
	for _, f := range t.facts {
		// What use says is said of the usual line of a material; one that was measured is
		// what it is.
		if own == 0 && slices.Contains(f.Materials, m.ID) {
			facts = append(facts, f)
		}
	}
	for _, f := range facts {
		if f.HeldOut {
			continue
		}
		h, g := f.hitch()
		s, factor := h.Solver(g), t.surfaces[f.Surface].Factor.Dist()
		for i, d := range prior {
			weight[i] *= f.likelihood(s, friction.Mu{Rope: d.rope, Object: d.metal * factor.Quantile(d.surface)}, d.tag)
		}
	}
	b.draws = resample(prior, weight)
	b.PriorMetal, b.PriorRope = spread(prior, func(d draw) float64 { return d.metal }), spread(prior, func(d draw) float64 { return d.rope })
	b.Metal, b.Rope = spread(b.draws, func(d draw) float64 { return d.metal }), spread(b.draws, func(d draw) float64 { return d.rope })
	b.Tag = spread(b.draws, func(d draw) float64 { return d.tag })
	for _, f := range facts {
		b.Facts = append(b.Facts, Reproduced{f, t.share(f, prior), t.share(f, b.draws)})
	}
	return b
}

// prior draws of a material: a Halton sequence, which fills the space evenly, shuffled
// so that taking every n-th of them does not follow its pattern.
func (t *Table) prior(m *line.Material, wet bool, own float64) []draw {
	metal, rope := m.Mu(wet).Dist(), m.RopeOnRope(wet).Dist()
	out := make([]draw, PriorDraws)
	for i := range out {
		out[i] = draw{metal.Quantile(halton(i+1, 2)), rope.Quantile(halton(i+1, 3)), halton(i+1, 5), tagGives(halton(i+1, 7))}
		if own > 0 {
			// A line that is slippery on metal is so on itself.
			out[i].rope, out[i].metal = out[i].rope*own/out[i].metal, own
		}
	}
	rand.New(rand.NewPCG(1, 20261126)).Shuffle(len(out), func(i, j int) { out[i], out[j] = out[j], out[i] })
	return out
}

// halton is the i-th number of the radical-inverse sequence (Halton, Numerische
// Mathematik 2, 1960).
func halton(i, base int) float64 {
	f, r := 1.0, 0.0
	for ; i > 0; i /= base {
		f /= float64(base)
		r += f * float64(i%base)
	}
	return r
}

// resample takes draws of equal weight from weighted ones, at even steps of the summed
// weight (systematic resampling).
func resample(from []draw, weight []float64) []draw {
	sum := 0.0
	for _, w := range weight {
		sum += w
	}
	out := make([]draw, 0, Draws)
	step, upTo, next := sum/Draws, 0.0, sum/Draws/2
	for i, w := range weight {
		upTo += w
		for ; next < upTo && len(out) < Draws; next += step {
			out = append(out, from[i])
		}
	}
	for len(out) < Draws {
		out = append(out, out[len(out)-1]) // the last step lost to rounding
	}
	return out
}

func spread(draws []draw, of func(draw) float64) evidence.Interval {
	v := make([]float64, len(draws))
	for i, d := range draws {
		v[i] = of(d)
	}
	slices.Sort(v)
	at := func(p float64) float64 { return v[int(p*float64(len(v)-1))] }
	return evidence.Interval{Low: at(0.05), Likely: at(0.5), High: at(0.95)}
}

// share of draws in which the hitch of a fact holds as the fact means it.
func (t *Table) share(f Fact, draws []draw) float64 {
	h, g := f.hitch()
	s, factor := h.Solver(g), t.surfaces[f.Surface].Factor.Dist()
	n := 0
	for _, d := range draws {
		if f.holds(s, friction.Mu{Rope: d.rope, Object: d.metal * factor.Quantile(d.surface)}, d.tag) {
			n++
		}
	}
	return float64(n) / float64(len(draws))
}

// Question is a hitch in a line on an object.
type Question struct {
	Hitch string
	Count int
	Line  line.Line
	// Object is the thickness it goes round; Surface its id, empty for a rope.
	Object  unit.Length
	Surface string
	Wet     bool
	Load    unit.Force
	// ByHand is what a hand adds to what the tag gives by itself; 0 for a knot that is
	// left.
	ByHand unit.Force
}

// Answer is how likely it holds.
type Answer struct {
	// Chance that it holds the load; its ends are the chances if the tag gave as little, or
	// as much, as 5 and 95 of 100 draws have it give. Locks is the chance that it holds any
	// load.
	Chance evidence.Interval
	Locks  float64
	// Hand is the force on the end with which 5, 50 and 95 of 100 draws hold; 0 where
	// they need none, +Inf where no hand can hold it. Low is the hopeful end.
	Hand evidence.Interval
}

// Ask answers a question. The hitch must exist.
func (t *Table) Ask(q Question) Answer {
	r := t.ratiosFor(q)
	square := float64(q.Line.Diameter * q.Line.Diameter)
	chance := func(gives float64) float64 {
		return above(r.log[:], r, float64(q.Load)/(gives*square+float64(q.ByHand)))
	}
	likely := above(r.held[:], r, float64(q.Load)/square)
	if q.ByHand > 0 {
		likely = chance(r.tag.Likely)
	}
	hand := func(p float64) float64 {
		switch ratio := r.quantile(p); {
		case math.IsInf(ratio, 1):
			return 0
		case ratio > 0:
			return float64(q.Load) / ratio
		}
		return math.Inf(1)
	}
	return Answer{
		Chance: evidence.Interval{Low: min(chance(r.tag.Low), likely), Likely: likely, High: max(chance(r.tag.High), likely)},
		Locks:  r.locks,
		Hand:   evidence.Interval{Low: hand(0.95), Likely: hand(0.5), High: hand(0.05)},
	}
}

// ratios holds the hold ratios of a hitch over the draws: the share that locks, and the
// quantiles of the logarithm of the others, from small to large; and the same of ratio ×
// what the tag gives in that draw.
type ratios struct {
	locks float64
	// none is the share in which no hand on the tag can hold it.
	none float64
	log  [quantiles]float64
	held [quantiles]float64
	// tag is what the tag gives, newtons per square metre of d².
	tag evidence.Interval
}

const (
	quantiles = 65
	// sizeStep is the step in ln(object ÷ rope), ownStep that in ln μ, between which ratios
	// are interpolated; off moves ln μ so that no step is 0.
	sizeStep = 0.2
	ownStep  = 0.1
	off      = 100
	// mostKept bounds the table: 20 MB. Beyond it everything is worked out anew.
	mostKept = 40_000
)

type ratioKey struct {
	hitch   string
	count   int
	belief  beliefKey
	surface string
	size    int
}

// ratiosFor interpolates between the steps of size, and of the line's own friction.
func (t *Table) ratiosFor(q Question) ratios {
	x := math.Log(float64(q.Object/q.Line.Diameter)) / sizeStep
	i := math.Floor(x)
	at := func(own int) ratios {
		key := ratioKey{q.Hitch, q.Count, beliefKey{q.Line.Material.ID, q.Wet, own}, q.Surface, int(i)}
		a := t.kept(key, q.Line.Material)
		key.size++
		return mix(a, t.kept(key, q.Line.Material), x-i)
	}
	if q.Line.OwnMu <= 0 {
		return at(0)
	}
	of := func(mu float64) ratios {
		y := math.Log(mu) / ownStep
		j := math.Floor(y)
		return mix(ptr(at(int(j)+off)), ptr(at(int(j)+off+1)), y-j)
	}
	if q.Line.OwnSpread.High <= q.Line.OwnSpread.Low {
		return of(q.Line.OwnMu)
	}
	// Measured with a spread: as likely at each of some places over it.
	var all []ratios
	spread := q.Line.OwnSpread.Dist()
	for i := range ownPlaces {
		all = append(all, of(spread.Quantile((float64(i)+0.5)/ownPlaces)))
	}
	return pooled(all)
}

// ownPlaces is at how many places over its spread a measured friction is worked out.
const ownPlaces = 7

// pooled are the ratios of several lines, each as likely.
func pooled(list []ratios) ratios {
	const draws = 200
	out := ratios{tag: list[0].tag}
	drawn := func(log func(ratios) []float64) []float64 {
		var all []float64
		for _, r := range list {
			for i := range draws {
				all = append(all, r.at(log(r), (float64(i)+0.5)/draws))
			}
		}
		return all
	}
	out.locks, out.none = summed(drawn(func(r ratios) []float64 { return r.log[:] }), &out.log)
	summed(drawn(func(r ratios) []float64 { return r.held[:] }), &out.held)
	return out
}

func ptr[T any](v T) *T { return &v }

func mix(a, b *ratios, t float64) ratios {
	out := ratios{locks: a.locks + t*(b.locks-a.locks), none: a.none + t*(b.none-a.none), tag: a.tag}
	for i := range out.log {
		out.log[i] = a.log[i] + t*(b.log[i]-a.log[i])
		out.held[i] = a.held[i] + t*(b.held[i]-a.held[i])
	}
	return out
}

func (t *Table) kept(key ratioKey, m *line.Material) *ratios {
	t.mu.Lock()
	r := t.ratios[key]
	t.mu.Unlock()
	if r != nil {
		return r
	}
	own := 0.0
	if key.belief.own != 0 {
		own = math.Exp(float64(key.belief.own-off) * ownStep)
	}
	b := t.belief(m, key.belief.wet, key.belief, own)
	h, _ := friction.Find(key.hitch, key.count)
	s := h.Solver(friction.Geometry{Object: math.Exp(float64(key.size) * sizeStep), Rope: 1})
	factor := evidence.Exactly(1).Dist()
	surface := t.surfaces[key.surface]
	if surface != nil {
		factor = surface.Factor.Dist()
	}
	all, held := make([]float64, len(b.draws)), make([]float64, len(b.draws))
	for i, d := range b.draws {
		object := d.metal * factor.Quantile(d.surface)
		if surface == nil || surface.Rope {
			object = d.rope // the object is a rope
		}
		all[i] = s.HoldRatio(friction.Mu{Rope: d.rope, Object: object})
		held[i] = all[i] * d.tag
	}
	r = &ratios{tag: b.Tag}
	r.locks, r.none = summed(all, &r.log)
	summed(held, &r.held)
	t.mu.Lock()
	defer t.mu.Unlock()
	if len(t.ratios) >= mostKept {
		clear(t.ratios)
	}
	t.ratios[key] = r
	return r
}

// summed sorts ratios, gives the shares of those that are infinite and of those that are
// nothing, and puts the quantiles of the logarithms of the others into log.
func summed(all []float64, log *[quantiles]float64) (infinite, nothing float64) {
	slices.SortFunc(all, cmp.Compare[float64])
	n := len(all)
	from, to := 0, n
	for from < n && all[from] <= 0 {
		from++
	}
	for to > from && math.IsInf(all[to-1], 1) {
		to--
	}
	some := all[from:to]
	for i := range log {
		if len(some) == 0 {
			// None lies between: as good as locking, for the steps beside it.
			log[i] = math.Log(1e12)
			continue
		}
		x := float64(i) / (quantiles - 1) * float64(len(some)-1)
		k := min(int(x), len(some)-2)
		if k < 0 {
			log[i] = math.Log(some[0])
			continue
		}
		a, b := math.Log(some[k]), math.Log(some[k+1])
		log[i] = a + (x-float64(k))*(b-a)
	}
	return float64(n-to) / float64(n), float64(from) / float64(n)
}

// above is the share of draws that reach a value, of which log holds the quantiles.
func above(log []float64, r ratios, value float64) float64 {
	x := math.Log(value)
	i, _ := slices.BinarySearch(log, x)
	below := 0.0
	switch {
	case i == 0:
	case i == quantiles:
		below = 1
	default:
		below = float64(i-1) / (quantiles - 1)
		if gap := log[i] - log[i-1]; gap > 0 {
			below += (x - log[i-1]) / gap / (quantiles - 1)
		}
	}
	return r.locks + (1-r.locks-r.none)*(1-below)
}

// quantile is the hold ratio that a share p of the draws stays below.
func (r *ratios) quantile(p float64) float64 { return r.at(r.log[:], p) }

// at is the same of ratios whose logarithms have the quantiles log.
func (r *ratios) at(log []float64, p float64) float64 {
	switch {
	case p < r.none:
		return 0
	case p >= 1-r.locks:
		return math.Inf(1)
	}
	x := (p - r.none) / (1 - r.none - r.locks) * (quantiles - 1)
	i := min(int(x), quantiles-2)
	return math.Exp(log[i] + (x-float64(i))*(log[i+1]-log[i]))
}
