package lesson

import (
	"fmt"
	"math"
	"math/bits"
	"slices"

	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/trade"
)

// Exact is the number of knots up to which the order is the shortest there is.
const Exact = 15

const (
	most = 40 // knots of one lesson
	// shared is the part of demonstration and following that one knot saves another of
	// its structure. Our own estimate.
	shared = 0.4
	// pauseAfter so many minutes there is a break of breakOf.
	pauseAfter, breakOf = 50, 5
	opening             = 3
	closing             = 2
)

// Kind of block.
type Kind string

const (
	Begin       Kind = "begin"       // what for, who is who, cautions
	Demonstrate Kind = "demonstrate" // the whole knot, twice
	Follow      Kind = "follow"      // a step, a pause, a step
	Repeat      Kind = "repeat"      // everybody, by himself
	Check       Kind = "check"       // each one is looked at
	Break       Kind = "break"
	Wet         Kind = "wet"  // all of it again, wet or in gloves
	Test        Kind = "test" // without help, by the clock
	End         Kind = "end"
)

// Place of a lesson.
type Place string

const (
	Indoors Place = "indoors"
	Quay    Place = "quay"
	Afloat  Place = "afloat"
)

// Request is what a lesson is planned for.
type Request struct {
	Minutes  int `json:"minutes" minimum:"5" maximum:"960"`
	Learners int `json:"learners" minimum:"1" maximum:"200"`
	// Helpers are those who check beside the one who teaches.
	Helpers int   `json:"helpers,omitempty" minimum:"0" maximum:"50"`
	Place   Place `json:"place,omitempty" enum:"indoors,quay,afloat" doc:"left out: quay; indoors there is no wet round"`
	// Knots to teach, Known those that all can tie.
	Knots []string `json:"knots" nullable:"false"`
	Known []string `json:"known,omitempty"`
	// Keep the order of Knots; else the shortest is found.
	Keep bool `json:"keep_order,omitempty"`
	// Factors are minutes that a knot really took ÷ those planned, by knot.
	Factors map[string]float64 `json:"factors,omitempty"`
	// Locked are minutes that somebody set for a knot, all its blocks together.
	Locked map[string]float64 `json:"locked,omitempty"`
}

// Block is a stretch of a lesson.
type Block struct {
	Kind    Kind    `json:"kind" enum:"begin,demonstrate,follow,repeat,check,break,wet,test,end"`
	Knot    string  `json:"knot,omitempty"`
	Minutes float64 `json:"minutes"`
}

// Plan is a lesson.
type Plan struct {
	Blocks []Block `json:"blocks" nullable:"false"`
	// LeftOut do not fit the time.
	LeftOut []string `json:"left_out" nullable:"false"`
	// Saved are the minutes that shared structure spares, against each knot by itself.
	Saved   float64 `json:"saved_minutes"`
	Minutes float64 `json:"minutes"`
}

// Knots of the plan, in order.
func (p *Plan) Knots() []string {
	var out []string
	for _, b := range p.Blocks {
		if b.Kind == Demonstrate || b.Kind == Repeat && !slices.Contains(out, b.Knot) {
			out = append(out, b.Knot)
		}
	}
	return out
}

// half rounds to half minutes: nobody plans finer.
func half(x float64) float64 { return math.Max(0.5, math.Round(2*x)/2) }

// part are the minutes of one knot.
type part struct{ show, follow, repeat, check float64 }

func (p part) sum() float64 { return p.show + p.follow + p.repeat + p.check }

// minutesOf is a knot by itself.
func (q *Request) minutesOf(k *knot.Knot) part {
	n, hard := float64(len(k.Steps)), float64(k.Difficulty)
	p := part{
		show:   1 + 0.3*n,
		follow: 0.7*n + 0.5*hard,
		repeat: 1 + hard + 5*3*k.Seconds.Likely/60,
		check:  math.Max(1, 20*float64(q.Learners)/60/float64(1+q.Helpers)),
	}
	by := 1.0
	if f := q.Factors[k.ID]; f > 0 {
		by = f
	}
	if set := q.Locked[k.ID]; set > 0 {
		by = set / p.sum()
	}
	return part{p.show * by, p.follow * by, p.repeat * by, p.check * by}
}

// plan works a lesson out for what the catalogue knows.
type planner struct {
	*Request
	knots []*knot.Knot
	alone []part
	// kin[i] are the knots of the lesson that help with i, helped says that a known one does.
	kin    []uint64
	helped []bool
	// before[i] are the knots of the lesson that must come before i.
	before []uint64
	known  []bool
}

// New plans a lesson. The error names each field.
func New(c *trade.Catalogue, q Request) (*Plan, error) {
	p, err := prepare(c, q)
	if err != nil {
		return nil, err
	}
	var order []int
	switch {
	case q.Keep:
		order = p.asAsked()
	case len(p.knots) <= Exact:
		order = p.shortest()
	default:
		order = p.greedy()
	}
	return p.plan(order), nil
}

func prepare(c *trade.Catalogue, q Request) (*planner, error) {
	var l problem.List
	if q.Minutes < 5 || q.Minutes > 960 {
		l.Add("minutes", fmt.Sprintf("%d is no lesson", q.Minutes), "give 5 to 960")
	}
	if q.Learners < 1 || q.Learners > 200 {
		l.Add("learners", fmt.Sprintf("%d is no class", q.Learners), "give 1 to 200")
	}
	if q.Helpers < 0 || q.Helpers > 50 {
		l.Add("helpers", fmt.Sprintf("%d is not a number of helpers", q.Helpers), "give 0 to 50")
	}
	if q.Place == "" {
		q.Place = Quay
	}
	if !slices.Contains([]Place{Indoors, Quay, Afloat}, q.Place) {
		l.Add("place", fmt.Sprintf("%q is not known", q.Place), "use indoors, quay or afloat")
	}
	if len(q.Knots) == 0 || len(q.Knots) > most {
		l.Add("knots", fmt.Sprintf("are %d", len(q.Knots)), fmt.Sprintf("choose 1 to %d", most))
	}
	p := &planner{Request: &q}
	find := func(field string, i int, id string) *knot.Knot {
		k := c.Knot(id)
		if k == nil {
			l.Add(fmt.Sprintf("%s[%d]", field, i), fmt.Sprintf("%q is not a knot here", id), "use a knot id of the catalogue")
		}
		return k
	}
	for i, id := range q.Known {
		find("known", i, id)
	}
	for _, set := range []struct {
		name string
		list map[string]float64
		most float64
	}{{"factors", q.Factors, 10}, {"locked", q.Locked, 240}} {
		for id, v := range set.list {
			if !(v >= 0 && v <= set.most) {
				l.Add(set.name+"."+id, fmt.Sprintf("%g is out of range", v), fmt.Sprintf("give 0 to %g", set.most))
			}
		}
	}
	at := map[string]int{}
	for i, id := range q.Knots {
		if _, twice := at[id]; twice {
			continue
		}
		if k := find("knots", i, id); k != nil {
			at[id] = len(p.knots)
			p.knots = append(p.knots, k)
			p.alone = append(p.alone, q.minutesOf(k))
		}
	}
	if err := l.Err(); err != nil {
		return nil, err
	}
	n := len(p.knots)
	p.kin, p.helped, p.before, p.known = make([]uint64, n), make([]bool, n), make([]uint64, n), make([]bool, n)
	for id, i := range at {
		p.known[i] = slices.Contains(q.Known, id)
	}
	help := func(from, to string, needs bool) {
		j, ok := at[to]
		if !ok {
			return
		}
		if slices.Contains(q.Known, from) {
			p.helped[j] = true
		} else if i, ok := at[from]; ok {
			p.kin[j] |= 1 << i
			if needs && !p.known[j] {
				p.before[j] |= 1 << i
			}
		}
	}
	for _, x := range c.Kin {
		help(x.From, x.To, x.Needs)
		if x.Both {
			help(x.To, x.From, false)
		}
	}
	return p, nil
}

// partOf is what knot i takes after the knots of mask.
func (p *planner) partOf(i int, mask uint64) part {
	x := p.alone[i]
	switch {
	case p.Locked[p.knots[i].ID] > 0:
	case p.known[i]:
		// Known: repeated, not taught.
		x.show, x.follow = 0, 0
	case p.helped[i] || p.kin[i]&mask != 0:
		x.show, x.follow = x.show*(1-shared), x.follow*(1-shared)
	}
	return part{halfOr0(x.show), halfOr0(x.follow), half(x.repeat), half(x.check)}
}

func halfOr0(x float64) float64 {
	if x == 0 {
		return 0
	}
	return half(x)
}

func (p *planner) cost(i int, mask uint64) float64 { return p.partOf(i, mask).sum() }

// around is what comes on top of teaching so many knots for so many minutes.
func (p *planner) around(n int, teaching float64) (wet, test, breaks float64) {
	if p.Place != Indoors {
		wet = half(1 + float64(n))
	}
	test = half(1 + float64(n)*float64(p.Learners)*0.15/float64(1+p.Helpers))
	breaks = breakOf * math.Floor((opening+teaching)/pauseAfter)
	return
}

func (p *planner) total(n int, teaching float64) float64 {
	if n == 0 {
		return 0
	}
	wet, test, breaks := p.around(n, teaching)
	return opening + teaching + wet + test + breaks + closing
}

func (p *planner) fits(n int, teaching float64) bool {
	return p.total(n, teaching) <= float64(p.Minutes)+1e-9
}

// asAsked keeps the order and takes the knots while they fit.
func (p *planner) asAsked() []int {
	var out []int
	var mask uint64
	teaching := 0.0
	for i := range p.knots {
		if c := p.cost(i, mask); p.fits(len(out)+1, teaching+c) {
			out = append(out, i)
			mask |= 1 << i
			teaching += c
		}
	}
	return out
}

// shortest is exact.
func (p *planner) shortest() []int {
	n := len(p.knots)
	best, last := make([]float64, 1<<n), make([]int8, 1<<n)
	chosen := uint64(0)
	for mask := uint64(1); mask < 1<<n; mask++ {
		best[mask] = math.Inf(1)
		for rest := mask; rest != 0; rest &= rest - 1 {
			i := bits.TrailingZeros64(rest)
			without := mask &^ (1 << i)
			// What it needs comes before it, if it comes at all in this lesson.
			if p.before[i]&^without != 0 {
				continue
			}
			// Of two as short the one asked for later comes later.
			if f := best[without] + p.cost(i, without); f < best[mask]-1e-9 || f <= best[mask]+1e-9 && int8(i) > last[mask] {
				best[mask], last[mask] = f, int8(i)
			}
		}
		if p.fits(bits.OnesCount64(mask), best[mask]) && better(mask, chosen, best) {
			chosen = mask
		}
	}
	var order []int
	for mask := chosen; mask != 0; mask &^= 1 << last[mask] {
		order = append(order, int(last[mask]))
	}
	slices.Reverse(order)
	return order
}

// better: more knots, then fewer minutes, then those asked for first.
func better(a, b uint64, minutes []float64) bool {
	if n, m := bits.OnesCount64(a), bits.OnesCount64(b); n != m {
		return n > m
	}
	if d := minutes[a] - minutes[b]; math.Abs(d) > 1e-9 {
		return d < 0
	}
	// The lowest place in which they differ belongs to the better.
	return a&(a^b)&-(a^b) != 0
}

// greedy takes the cheapest next, for more knots than can be tried in every order.
func (p *planner) greedy() []int {
	var out []int
	var mask uint64
	teaching := 0.0
	for {
		next, least := -1, math.Inf(1)
		for i := range p.knots {
			if mask>>i&1 == 1 || p.before[i]&^mask != 0 {
				continue
			}
			if c := p.cost(i, mask); c < least-1e-9 && p.fits(len(out)+1, teaching+c) {
				next, least = i, c
			}
		}
		if next < 0 {
			return out
		}
		out, mask, teaching = append(out, next), mask|1<<next, teaching+least
	}
}

// plan lays the blocks of an order out.
func (p *planner) plan(order []int) *Plan {
	out := &Plan{Blocks: []Block{}, LeftOut: []string{}}
	add := func(kind Kind, id string, minutes float64) {
		if minutes > 0 {
			out.Blocks = append(out.Blocks, Block{kind, id, minutes})
			out.Minutes += minutes
		}
	}
	var mask uint64
	teaching, pauses := 0.0, 0
	if len(order) > 0 {
		add(Begin, "", opening)
	}
	for _, i := range order {
		id, x := p.knots[i].ID, p.partOf(i, mask)
		// A break comes between two knots, never inside one.
		if n := int(math.Floor((opening + teaching) / pauseAfter)); n > pauses {
			add(Break, "", breakOf*float64(n-pauses))
			pauses = n
		}
		add(Demonstrate, id, x.show)
		add(Follow, id, x.follow)
		add(Repeat, id, x.repeat)
		add(Check, id, x.check)
		out.Saved += p.cost0(i) - x.sum()
		mask |= 1 << i
		teaching += x.sum()
	}
	if len(order) > 0 {
		wet, test, breaks := p.around(len(order), teaching)
		add(Break, "", breaks-breakOf*float64(pauses))
		add(Wet, "", wet)
		add(Test, "", test)
		add(End, "", closing)
	}
	for i, k := range p.knots {
		if mask>>i&1 == 0 {
			out.LeftOut = append(out.LeftOut, k.ID)
		}
	}
	return out
}

// cost0 is a knot taught by itself to people who know none.
func (p *planner) cost0(i int) float64 {
	x := p.alone[i]
	return half(x.show) + half(x.follow) + half(x.repeat) + half(x.check)
}
