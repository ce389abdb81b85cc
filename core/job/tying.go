package job

import (
	"fmt"
	"slices"
	"strings"

	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// ThickCord is from where the stoppers are tied before the clamp, since thick rope is hard to
// work with both tails in the hand: our own estimate.
const ThickCord = 10 * unit.Millimetre

// Tying is one soft shackle, of a clamp and a stopper, from cord to test.
type Tying struct {
	Clamp, Stopper *knot.Knot
	Pair           Pair
	// StopperFirst: the stoppers are tied before the clamp.
	StopperFirst bool
	Steps        []TyingStep
}

// TyingMove is what a step of a soft shackle is; package say puts it into words.
type TyingMove int

const (
	CutCord TyingMove = iota
	OverFinger
	TieClamp
	TieEach // the stopper, once in each tail
	TieBoth // the stopper, once of both tails
	TailsThrough
	StoppersThrough
	TestPull
)

// TyingStep is one move. Words are those of the knot's step, where it is one. Step of the
// drawing of Knot shows it, or of the drawing of another way to that knot; no knot: none.
type TyingStep struct {
	Move  TyingMove
	Words string
	Knot  string
	Way   string
	Step  int
}

// Tying gives the steps of a soft shackle of that clamp and stopper, by the ids of their knots.
// A pair that pulls through has none. The error names the field.
func (s *Shackle) Tying(c *trade.Catalogue, clamp, stopper string) (*Tying, error) {
	i := slices.IndexFunc(s.Clamps, func(x Clamp) bool { return x.Knot == clamp })
	if i < 0 {
		return nil, problem.New("clamp", fmt.Sprintf("%q is not a clamp", clamp), "use one of "+ids(s.Clamps, func(x Clamp) string { return x.Knot }))
	}
	row := s.Clamps[i]
	j := slices.IndexFunc(row.Pairs, func(p Pair) bool { return p.Knot == stopper })
	if j < 0 {
		return nil, problem.New("stopper", fmt.Sprintf("%q is not a stopper", stopper), "use one of "+ids(row.Pairs, func(p Pair) string { return p.Knot }))
	}
	t := &Tying{Clamp: c.Knot(clamp), Stopper: c.Knot(stopper), Pair: row.Pairs[j]}
	if t.Pair.Class == knot.Slips {
		return t, nil
	}
	t.StopperFirst = t.Pair.First != "" && s.Cord >= ThickCord
	// A clamp is made of the folded cord: where that is a way of its own it is shown.
	way, clamping := "", t.Clamp.Steps
	for _, w := range t.Clamp.Told.Drawn {
		if w.Folded {
			way, clamping = w.Drawing, w.Steps
		}
	}
	tie := TieBoth
	if t.Pair.Each() {
		tie = TieEach
	}
	add := func(move TyingMove, words string, k *knot.Knot, way string, step int) {
		s := TyingStep{Move: move, Words: words}
		if k.Shape != "" {
			s.Knot, s.Way, s.Step = k.ID, way, step
		}
		t.Steps = append(t.Steps, s)
	}
	stop := func() {
		for n, words := range t.Stopper.Steps {
			add(tie, words, t.Stopper, "", n+1)
		}
	}
	t.Steps = append(t.Steps, TyingStep{Move: CutCord})
	through := TailsThrough
	if t.StopperFirst {
		through = StoppersThrough
		stop()
	}
	t.Steps = append(t.Steps, TyingStep{Move: OverFinger})
	for n, words := range clamping {
		add(TieClamp, words, t.Clamp, way, n+1)
	}
	add(through, "", t.Clamp, way, len(clamping))
	if !t.StopperFirst {
		stop()
	}
	t.Steps = append(t.Steps, TyingStep{Move: TestPull})
	return t, nil
}

func ids[T any](of []T, id func(T) string) string {
	var out []string
	for _, x := range of {
		out = append(out, id(x))
	}
	return strings.Join(out, ", ")
}
