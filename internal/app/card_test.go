package app_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/rig"
	"oarweed/internal/app"
)

// A card can say only what the rig leads to: a knot that will not do is refused, and where a
// person is held the words to him come first.
func TestACardSaysWhatTheRigLeadsTo(t *testing.T) {
	d := parsed(t, quay)
	c, err := here.AnswerCard(context.Background(), app.CardQuery{Rig: d, Sentence: "In words."})
	require.NoError(t, err)
	assert.Equal(t, "Oarweed", c.Name)
	assert.Contains(t, c.Verdict, "holds wet and dry")
	assert.Contains(t, c.Evidence, "computed")
	assert.NotNil(t, c.Shape)
	seen := map[string]bool{}
	for _, x := range c.Cautions {
		assert.False(t, seen[x], "%q stands twice", x)
		seen[x] = true
	}
	_, err = here.AnswerCard(context.Background(), app.CardQuery{Rig: d, Knot: "cow-hitch"})
	assert.ErrorContains(t, err, "knot")
	d.Chain[1].Joint.Task, d.Consequence = "harness", rig.Person
	d.Chain[0].Fitting = &rig.Fitting{Kind: "harness"}
	people, err := here.AnswerCard(context.Background(), app.CardQuery{Rig: d})
	require.NoError(t, err)
	assert.Contains(t, people.Cautions[0], "Approve it yourself")
	assert.NotContains(t, people.Verdict, "enough")
}
