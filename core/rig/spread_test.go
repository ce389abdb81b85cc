package rig_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/rig"
)

// A measured friction comes with the factor by which it may be off; changed, it keeps that.
func TestAMeasuredFrictionMayBeOff(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	l, err := c.LineOf(rig.Line{Material: "polyester", DiameterMM: 12, Mu: 0.2, MuSpread: 1.25})
	require.NoError(t, err)
	mu := l.Mu(true)
	assert.InDelta(t, 0.16, mu.Low, 1e-12)
	assert.InDelta(t, 0.25, mu.High, 1e-12)
	assert.Equal(t, "yours", string(mu.Tag))
	_, err = c.LineOf(rig.Line{Material: "polyester", DiameterMM: 12, Mu: 0.2, MuSpread: 0.5})
	assert.ErrorContains(t, err, "mu_spread")
}
