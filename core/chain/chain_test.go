package chain_test

import (
	"context"
	"fmt"
	"log"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/chain"
	"oarweed/core/rig"
)

func Example() {
	c, err := catalogue.Load()
	if err != nil {
		log.Fatal(err)
	}
	out, err := chain.Judge(context.Background(), c, rig.Document{PeakKN: 2.4, Chain: []rig.Element{
		{Fitting: &rig.Fitting{Kind: "ring", SizeMM: 40}},
		{Joint: &rig.Joint{Task: "moor"}},
		{Line: &rig.Line{Material: "polyester", DiameterMM: 12, LengthM: 8}},
	}})
	if err != nil {
		log.Fatal(err)
	}
	j := out.Joints[out.Weakest.Joint]
	fmt.Printf("%s at %.1f kN\n", j.Chosen.Knot.Name, out.Capacity.Likely/1000)
	// Output: Round turn and two half hitches at 15.7 kN
}

// A rig bears what its weakest part does.
func TestWeakestPartOfEveryTemplate(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	for _, x := range c.Templates {
		out, err := chain.Judge(t.Context(), c, x.Rig)
		require.NoError(t, err, x.ID)
		if out.Weakest == nil {
			continue
		}
		for _, l := range out.Lines {
			assert.GreaterOrEqual(t, l.Bears.Capacity.Likely, out.Capacity.Likely-1e-9, x.ID)
		}
		for _, j := range out.Joints {
			require.NotNil(t, j.Chosen, x.ID)
			assert.GreaterOrEqual(t, j.Chosen.Strength.Capacity.Likely, out.Capacity.Likely-1e-9, x.ID)
		}
		assert.InDelta(t, out.Capacity.Low/(2*float64(out.Joints[0].Order.Rig.Load)), out.Margin, 1e-9)
		assert.Len(t, out.LettingGo, len(out.Joints))
		sum := 0.0
		for _, j := range out.Joints {
			sum += j.First
		}
		for _, l := range out.Lines {
			sum += l.First
		}
		assert.InDelta(t, 1, sum, 1e-9, x.ID)
	}
}

func TestStopsWithItsClient(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	_, err = chain.Judge(ctx, c, c.Templates[0].Rig)
	assert.ErrorIs(t, err, context.Canceled)
}
