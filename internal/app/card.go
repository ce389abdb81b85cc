package app

import (
	"context"
	"fmt"

	"oarweed/core/line"
	"oarweed/core/problem"
	"oarweed/core/rig"
	"oarweed/core/shape"
	"oarweed/core/shape/draw"
)

// CardQuery is an answer to be put on a card.
type CardQuery struct {
	Rig rig.Document `json:"rig" doc:"a rig with one joint"`
	// Knot that is chosen; empty: the one that comes first.
	Knot string `json:"knot,omitempty" maxLength:"80"`
	// Sentence is the rig in words, as the screen says it.
	Sentence string `json:"sentence,omitempty" maxLength:"2000"`
	Name     string `json:"name,omitempty" maxLength:"120"`
	// Link opens the rig; it stands on the card as a QR code.
	Link string `json:"link,omitempty" maxLength:"2900"`
	Left bool   `json:"left,omitempty"`
}

// AnswerCard is what an answer says where it is sent or printed.
type AnswerCard struct {
	Name, Sentence             string
	Knot, Verdict, Reason, Off string
	Evidence                   string // of the figure in the verdict
	Cautions                   []string
	Shape                      *shape.Shape // nil for a knot that is not drawn
	Look                       draw.Look
}

// AnswerCard works the answer out anew: a card says only what the rig itself leads to. What is
// said to people comes first, then what speaks about this knot, then every caution once.
func (s *School) AnswerCard(ctx context.Context, q CardQuery) (*AnswerCard, error) {
	answer, err := s.Choose(ctx, q.Rig)
	if err != nil {
		return nil, err
	}
	var chosen *Choice
	for i := range answer.Ranked {
		if x := &answer.Ranked[i]; x.Knot == q.Knot || q.Knot == "" && i == 0 {
			chosen = x
		}
	}
	if chosen == nil {
		return nil, problem.New("knot", "no knot that will do is called that here", "choose one of the ranked, or leave it out")
	}
	bears := chosen.Strength.CapacityKN
	c := &AnswerCard{Name: q.Name, Sentence: q.Sentence, Knot: chosen.Name, Verdict: chosen.Says, Reason: chosen.Reason + ".", Off: chosen.ReleaseHow,
		Evidence: fmt.Sprintf("Strength %s: %s.", bears.Tag, bears.Source), Look: lookOf(q.Rig)}
	if c.Name == "" {
		c.Name = "Oarweed"
	}
	if answer.Says != "" {
		c.Cautions = append(c.Cautions, answer.Says)
	}
	c.Cautions = append(c.Cautions, chosen.Flags...)
	seen := map[string]bool{}
	for _, list := range [][]rig.Caution{answer.Cautions, chosen.Cautions} {
		for _, x := range list {
			if !seen[x.ID] {
				seen[x.ID] = true
				c.Cautions = append(c.Cautions, x.Text)
			}
		}
	}
	c.Shape, err = s.Trade().Drawing(chosen.Knot)
	return c, err
}

// lookOf is the surface of the line that is tied.
func lookOf(d rig.Document) draw.Look {
	if l := d.Chain[len(d.Chain)-1].Line; l != nil {
		switch l.Construction {
		case line.Laid:
			return draw.LookLaid
		case line.Solid:
			return draw.LookMono
		}
	}
	return draw.LookBraid
}
