package trade

import (
	"fmt"
	"slices"

	"oarweed/core/knot"
	"oarweed/core/problem"
	"oarweed/core/shape/drill"
)

// DrillName names the tangle that comes of turning over some crossings.
type DrillName struct {
	Flips []string
	Name  string
	Says  string
}

// Verdict is what a choice of crossings has made.
type Verdict struct {
	// Name of the knot made; Right if it is the one to be made.
	Name  string `json:"name"`
	Right bool   `json:"right"`
	Says  string `json:"says"`
	// Differs is the number of crossings that are not as in the drawing, Wrong which: from its
	// mirror image where that is nearer and makes no difference.
	Differs int      `json:"differs"`
	Wrong   []string `json:"wrong" nullable:"false"`
}

// Drills lists the knots that have a crossing drill, in the order of the catalogue.
func (c *Catalogue) Drills() []string {
	var out []string
	for _, k := range c.Knots {
		if c.HasDrill(k.ID) {
			out = append(out, k.ID)
		}
	}
	return out
}

// NextDrill is the knot whose drill comes after that of another, in the order of the catalogue.
func (c *Catalogue) NextDrill(id string) string {
	at := slices.IndexFunc(c.Knots, func(k *knot.Knot) bool { return k.ID == id })
	for i := range c.Knots {
		if next := c.Knots[(at+1+i)%len(c.Knots)].ID; c.HasDrill(next) {
			return next
		}
	}
	return id
}

// HasDrill reports whether a knot has a crossing drill: each that is drawn, but for those of
// which the data say why not.
func (d *Drawings) HasDrill(id string) bool { return d.drills[id] != nil }

type namedDrill struct {
	*drill.Drill
	names map[string]DrillName // by key
	alike map[string]string    // what the tyer was free in, by key
}

// Drill gives the crossing drill of a knot; nil if it has none. All choices are
// worked out once and kept.
func (d *Drawings) Drill(id string) (*drill.Drill, error) {
	x, err := d.namedDrill(id)
	if x == nil {
		return nil, err
	}
	return x.Drill, err
}

func (d *Drawings) namedDrill(id string) (*namedDrill, error) {
	if d.drills[id] == nil {
		return nil, nil
	}
	return d.drills[id]()
}

func (d *Drawings) newDrill(id string) (*namedDrill, error) {
	sh, err := d.Drawing(id)
	if err != nil {
		return nil, err
	}
	x, err := drill.New(sh)
	if err != nil {
		return nil, err
	}
	out := &namedDrill{x, map[string]DrillName{}, map[string]string{}}
	for _, a := range sh.Alike {
		mask, err := x.Flips(a.Crossings)
		if err != nil {
			return nil, fmt.Errorf("shapes/%s.knot: alike: %w", id, err)
		}
		out.alike[x.Key(mask)] = a.Says
	}
	for _, n := range d.src.DrillNames[id] {
		mask, err := x.Flips(n.Flips)
		if err != nil {
			return nil, fmt.Errorf("drills.yaml.%s: %w", id, err)
		}
		out.names[x.Key(mask)] = n
	}
	return out, nil
}

// Verdict names what was made: set holds, by crossing, whether the strand that
// comes by first was put over. The error names a crossing that is not set.
func (c *Catalogue) Verdict(id string, set map[string]bool) (Verdict, error) {
	d, err := c.namedDrill(id)
	if err != nil {
		return Verdict{}, err
	}
	if d == nil {
		return Verdict{}, problem.New("knot", fmt.Sprintf("%q has no crossing drill", id), "choose another knot")
	}
	mask, err := d.Mask(set)
	if err != nil {
		return Verdict{}, problem.New("set", err.Error(), "set every crossing")
	}
	knot := c.Knot(id).Name
	v := Verdict{Differs: drill.Nearest(mask, 0), Wrong: d.Wrong(mask)}
	key := d.Key(mask)
	named, known := d.names[key]
	switch {
	case mask == 0:
		v.Name, v.Right, v.Says = knot, true, "As it should be."
	case d.Free() && mask == d.Mirror(0):
		v.Name, v.Right, v.Says = knot, true, "The mirror image: the same knot, tied with the other hand."
	case key == d.Key(0):
		v.Name, v.Right, v.Says = knot, true, "Laid another way, but the same tangle by every invariant we compute."
	case d.Free() && key == d.Key(d.Mirror(0)):
		v.Name, v.Right, v.Says = knot, true, "The mirror image, laid another way."
	case d.alike[key] != "":
		v.Name, v.Right, v.Says = knot, true, "As good: "+d.alike[key]+"."
	case known:
		v.Name, v.Says = named.Name, named.Says
	default:
		v.Name, v.Says = "Another tangle", fmt.Sprintf("Not a knot with a name here. %d crossings are not as in the %s.", v.Differs, knot)
		if len(v.Wrong) == 1 {
			v.Says = fmt.Sprintf("Not a knot with a name here. One crossing is not as in the %s.", knot)
		}
	}
	return v, nil
}
