package api_test

import (
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/leader"
	"oarweed/internal/app"
)

// A leader is tied again until it warns, and at last is too short.
func TestALeaderUntilItWarns(t *testing.T) {
	srv := start(t)
	b := answer[leader.Book](t, srv, http.StatusCreated, "POST", "/leaders", `{"name":"Evening rocks","length_m":2.2,"shortest_m":2,"knot":"non-slip-loop","line":{"material":"fluorocarbon","label_kn":0.0712}}`)
	left := func() app.LeaderCard {
		list := answer[[]app.LeaderCard](t, srv, http.StatusOK, "GET", "/leaders/left", nil)
		require.Len(t, list, 1)
		return list[0]
	}
	before := left()
	assert.False(t, before.Low)
	for before.ChangesLeft > b.Changes {
		b.Changes++
		b = answer[leader.Book](t, srv, http.StatusOK, "PUT", fmt.Sprintf("/leaders/%d", b.ID), b, "If-Match", fmt.Sprintf(`"%d"`, b.Revision))
		now := left()
		assert.Equal(t, before.ChangesLeft-b.Changes, now.ChangesLeft)
		assert.Equal(t, now.ChangesLeft <= leader.Warn, now.Low)
	}
	assert.Contains(t, left().Says[0], "too short for another change")
	res, text := call(t, srv, "POST", "/api/v1/leaders", `{"name":"x","length_m":-1,"shortest_m":2,"knot":"lace","line":{"material":"fluorocarbon","label_kn":0.07}}`)
	assert.Len(t, problemOf(t, res, text).Fields, 2)
}
