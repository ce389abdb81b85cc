package trade

import (
	"slices"

	"oarweed/core/knot"
	"oarweed/core/shape/trace"
)

// Tied is a knot, or a fault of one, that a tracing was found to be.
type Tied struct {
	Knot string `json:"knot"`
	Name string `json:"name"`
	// Fault is the code of the fault; empty for the knot as it should be.
	Fault string `json:"fault"`
	// Leads says what the fault leads to.
	Leads string `json:"leads,omitempty"`
	// Drawing that shows it.
	Drawing string `json:"drawing"`
	// Mirror: tied with the other hand. Exchanged: its standing part and its end have changed
	// places, so that the wrong one would be pulled.
	Mirror    bool `json:"mirror"`
	Exchanged bool `json:"exchanged,omitempty"`
	// Changes are the crossings that would have to be turned over to make it, as entries of
	// "over" as they stand; empty if it is the knot.
	Changes []trace.Entry `json:"changes" nullable:"false"`
	// By says how it was told: by its diagram, by its diagram once crossings that mean nothing
	// are taken out, or by the invariants of its closures.
	By string `json:"by" enum:"diagram,slack,closures"`
}

// PrepareNames works out what tracings are held against, so that the first name comes at once.
func (c *Catalogue) PrepareNames() { _, _ = c.tracings() }

// NameTied says which knot a tracing is of, or which fault of one: best first, none if it is no
// knot here. Errors name what is wrong with the tracing.
func (c *Catalogue) NameTied(t trace.Trace) ([]Tied, error) {
	r, err := t.Read()
	if err != nil {
		return nil, err
	}
	x, err := c.tracings()
	if err != nil {
		return nil, err
	}
	out := []Tied{}
	for _, m := range x.Find(r) {
		for _, who := range c.drawnBy(m.ID) {
			who.Mirror, who.Exchanged, who.Changes, who.By = m.Mirror, m.Exchanged, m.Changes, "closures"
			switch {
			case m.Same && m.Slack > 0:
				who.By = "slack"
			case m.Same:
				who.By = "diagram"
			}
			if who.Changes == nil {
				who.Changes = []trace.Entry{}
			}
			same := func(t Tied) bool { return t.Knot == who.Knot && t.Fault == who.Fault && t.Mirror == who.Mirror }
			if !slices.ContainsFunc(out, same) { // another way to it is no other knot
				out = append(out, who)
			}
		}
	}
	return out, nil
}

// drawnBy is what a drawing is of: knots as they are, or as a doctrine or another way ties them, before faults.
func (c *Catalogue) drawnBy(id string) []Tied {
	var out, faults []Tied
	for _, k := range c.Knots {
		if k.ID == id || c.alsoDraws(k, id) {
			out = append(out, Tied{Knot: k.ID, Name: k.Name, Drawing: id})
		}
		for _, f := range k.Faults {
			if f.Drawing == id {
				faults = append(faults, Tied{Knot: k.ID, Name: f.Name, Fault: f.Code, Leads: f.Leads, Drawing: id})
			}
			if f.Right == id && k.ID != id && !c.alsoDraws(k, id) {
				out = append(out, Tied{Knot: k.ID, Name: k.Name, Drawing: id})
			}
		}
	}
	return append(out, faults...)
}

// alsoDraws reports whether some doctrine, or another way to it, ties the knot as that drawing
// has it.
func (c *Catalogue) alsoDraws(k *knot.Knot, drawing string) bool {
	if slices.ContainsFunc(k.Told.Drawn, func(w knot.Way) bool { return w.Drawing == drawing }) {
		return true
	}
	for _, q := range c.Questions {
		for _, d := range q.Doctrines {
			if ch, ok := d.Change[k.ID]; ok && ch.Drawing == drawing {
				return true
			}
		}
	}
	return false
}

// NameOfDrawing is the name of what a drawing is of.
func (c *Catalogue) NameOfDrawing(id string) string {
	for _, t := range c.drawnBy(id) {
		return t.Name
	}
	return id
}
