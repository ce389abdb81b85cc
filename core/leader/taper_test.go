package leader_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/leader"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// While much is left nothing is advised; near the end so much tippet as makes it what it was,
// and what the join takes besides; after eight changes, or when damage took more than knots did,
// a stronger class.
func TestWhenToAddTippetAndGoUpAClass(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	b := leader.Book{Name: "Evening", Query: leader.Query{LengthM: 2.7, ShortestM: 2, Knot: "non-slip-loop", Line: tippet}, ActionM: 2.5,
		Sections: []leader.Section{{LengthM: 1.5, Knot: "double-uni", Line: rig.Line{Material: "mono", LabelKN: 0.133}}}}
	require.NoError(t, b.Check(c))
	a, err := b.Advise(c)
	require.NoError(t, err)
	_, left, err := b.Now(c)
	require.NoError(t, err)
	assert.Less(t, a.ActionLeft, left.ChangesLeft, "its action goes before its length")
	b.Changes = a.ActionLeft
	now, _, err := b.Now(c)
	require.NoError(t, err)
	a, err = b.Advise(c)
	require.NoError(t, err)
	assert.Zero(t, a.ActionLeft)
	assert.InDelta(t, 2.7-now, a.AddM, 1e-9)
	assert.InDelta(t, 0.1, a.JoinM, 0.09)
	assert.True(t, a.Into)

	b.Changes, b.LostM = 1, 0.3
	a, err = b.Advise(c)
	require.NoError(t, err)
	assert.Equal(t, "damage", a.Because)
	assert.InDelta(t, 20*float64(unit.Pound)/1000, a.UpKN, 1e-6, "16 lb goes up to 20")
	b.Changes, b.LostM = leader.ManyChanges, 0
	a, err = b.Advise(c)
	require.NoError(t, err)
	assert.Equal(t, "changes", a.Because)
	b.Changes = leader.ManyChanges - 1
	a, err = b.Advise(c)
	require.NoError(t, err)
	assert.Empty(t, a.Because)
	assert.Zero(t, a.UpKN)

	b.Sections[0].Knot, b.Sections[0].LengthM = "lace", -1
	err = b.Check(c)
	assert.ErrorContains(t, err, "sections[0].knot")
	assert.ErrorContains(t, err, "sections[0].length_m")
}

// Leaders are enough for every tie: one fewer would not be.
func TestATripTakesEnough(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	item := leader.TripItem{Name: "Evening", Query: leader.Query{LengthM: 2.7, ShortestM: 2.4, Knot: "non-slip-loop", Line: tippet}, ChangesADay: 12}
	trip := leader.Trip{Days: 3, People: 4, Items: []leader.TripItem{item}}
	got, err := trip.Budget(c)
	require.NoError(t, err)
	left, err := leader.Budget(c, item.Query)
	require.NoError(t, err)
	n := got[0]
	assert.Equal(t, 144, n.Ties)
	assert.GreaterOrEqual(t, n.Leaders*(left.ChangesLeft+1), n.Ties)
	assert.Less(t, (n.Leaders-1)*(left.ChangesLeft+1), n.Ties)
	assert.Greater(t, n.ToTieM, n.PerTieM, "the hand needs more than the knot keeps")
	assert.InDelta(t, float64(n.Leaders)*n.CutM*1.1, n.SpoolM, 1e-9)
	item.ChangesADay = 0
	got, err = leader.Trip{Days: 1, People: 4, Items: []leader.TripItem{item}}.Budget(c)
	require.NoError(t, err)
	assert.Equal(t, 4, got[0].Leaders, "one for each")

	item.ShortestM = 3
	_, err = leader.Trip{Days: 0, People: 101, Waste: 2, Items: []leader.TripItem{item, {ChangesADay: -1}}}.Budget(c)
	for _, field := range []string{"days", "people", "waste", "items[0].length_m", "items[1].changes_a_day"} {
		assert.ErrorContains(t, err, field)
	}
}
