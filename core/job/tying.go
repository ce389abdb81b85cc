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

// TyingStep says what to do, and which step of which knot's drawing shows it, or of the drawing
// of another way to that knot; no knot: none.
type TyingStep struct {
	Says string
	Knot string
	Way  string
	Step int
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
	say := func(says string, k *knot.Knot, way string, step int) {
		if k.Shape == "" {
			t.Steps = append(t.Steps, TyingStep{Says: says})
			return
		}
		t.Steps = append(t.Steps, TyingStep{says, k.ID, way, step})
	}
	stop := func() {
		each := "With both tails as one: "
		if t.Pair.Each() {
			each = "In each tail: "
		}
		for n, words := range t.Stopper.Steps {
			say(each+strings.ToLower(words[:1])+words[1:], t.Stopper, "", n+1)
		}
	}
	t.Steps = append(t.Steps, TyingStep{Says: "Cut the cord to the length in the table, and find its middle."})
	if t.StopperFirst {
		stop()
	}
	// A clamp is made of the folded cord: where that is a way of its own it is shown.
	way, steps := "", t.Clamp.Steps
	for _, w := range t.Clamp.Told.Drawn {
		if w.Folded {
			way, steps = w.Drawing, w.Steps
		}
	}
	t.Steps = append(t.Steps, TyingStep{Says: "Make the clamp there, over a finger that keeps the place of the tails; drawn, the finger is a bar."})
	for n, words := range steps {
		say(words, t.Clamp, way, n+1)
	}
	last := len(steps)
	if t.StopperFirst {
		say("One stopper after the other through the clamp while it is open; then draw the clamp shut behind them.", t.Clamp, way, last)
	} else {
		say("Both tails through the clamp as the finger leaves; draw it shut on them.", t.Clamp, way, last)
		stop()
	}
	t.Steps = append(t.Steps, TyingStep{Says: "Close it hand tight; then half the load, then the load and half as much again, with a guard and covered eyes. The stopper must not sink into the clamp."})
	return t, nil
}

func ids[T any](of []T, id func(T) string) string {
	var out []string
	for _, x := range of {
		out = append(out, id(x))
	}
	return strings.Join(out, ", ")
}
