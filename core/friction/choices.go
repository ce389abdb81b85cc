package friction

import "slices"

// Choice is a hitch as a user picks it.
type Choice struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Counts says what its number counts, in the plural; empty where there is
	// nothing to choose.
	Counts string `json:"counts"`
	// From and To are the fewest and the most that make sense.
	From int `json:"-"`
	To   int `json:"-"`
}

var choices = []Choice{
	{"turns", "plain turns", "turns", 1, 6},
	{"winch", "turns on a winch or bollard", "turns and a half", 1, 6},
	{"cleat-hitch", "cleat, locked at the end", "figure eights", 1, 5},
	{"cleat-turns", "cleat, one eight and turns, no lock", "turns after the eight", 1, 5},
	{"rolling-hitch", "rolling hitch", "riding turns", 2, 8},
	{"timber-hitch", "timber hitch", "twists", 2, 7},
	{"cats-paw", "cat's paw", "twists", 2, 5},
	{ID: "round-turn", Name: "round turn"},
	{ID: "round-turn-two-half-hitches", Name: "round turn and two half hitches"},
	{ID: "clove-hitch", Name: "clove hitch"},
	{ID: "constrictor-hitch", Name: "constrictor"},
	{ID: "cow-hitch", Name: "cow hitch, one leg loaded"},
	{ID: "double-ring-hitch", Name: "double ring hitch"},
	{ID: "bull-hitch", Name: "bull hitch"},
	{ID: "pile-hitch", Name: "pile hitch"},
	{ID: "twisted-bight", Name: "twisted bight"},
	{ID: "half-hitch", Name: "half hitch"},
	{ID: "slippery-hitch", Name: "slippery hitch"},
	{ID: "sampan-hitch", Name: "sampan hitch"},
	{ID: "fishermans-bend", Name: "fisherman's bend"},
	{ID: "marlinespike-hitch", Name: "marlinespike hitch"},
	{ID: "tow-pylon-hitch", Name: "tow pylon hitch"},
	{ID: "tow-eye-hitch", Name: "tow eye hitch"},
}

// Choices lists every hitch that has an event list, those whose number is the
// user's to choose first.
func Choices() []Choice { return slices.Clone(choices) }

// Chosen gives one of [Choices].
func Chosen(id string) (Choice, bool) {
	i := slices.IndexFunc(choices, func(c Choice) bool { return c.ID == id })
	if i < 0 {
		return Choice{}, false
	}
	return choices[i], true
}

// Usual is the number of turns, eights or twists that a hitch is usually made with; 0
// where there is nothing to choose.
func Usual(id string) int { return hitches[id].n }
