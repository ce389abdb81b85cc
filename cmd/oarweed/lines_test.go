package main

import (
	"bufio"
	"context"
	"io"
	"net"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/nmea"
)

// Every take-off place has a hitch, on a tower as on a pylon.
func TestTowOnEverything(t *testing.T) {
	for on, hitch := range map[string]string{"pylon": "tow-pylon-hitch", "tower": "tow-pylon-hitch", "hook": "tow-pylon-hitch", "eye": "tow-eye-hitch"} {
		doc, _, err := oarweed(t, "", "tow", "--want", "55ft", "--on", on)
		require.NoError(t, err)
		assert.Equal(t, hitch, doc["hitch"], on)
		assert.InDelta(t, 5*0.3048, doc["take_up_m"], 1e-9)
	}
	doc, _, err := oarweed(t, "", "tow", "--want", "86ft")
	assert.ErrorIs(t, err, errShown)
	assert.Contains(t, doc["fields"].([]any)[0].(map[string]any)["fix"], "lengthen it with a section")
}

func TestLeaderAndMoorRefuseWhatIsNone(t *testing.T) {
	for _, c := range []struct{ in, cmd, field string }{
		{`{"length_m":-1,"shortest_m":2,"knot":"bowline","line":{"material":"mono","label_kn":0.07}}`, "leader", "length_m"},
		{`{"length_m":3,"shortest_m":2,"knot":"lace","line":{"material":"mono","label_kn":0.07}}`, "leader", "knot"},
		{`{"boat":{"loa_m":9,"beam_m":3,"displacement_t":4},"wind":{"kn":20,"from_deg":0},"lines":[]}`, "moor", "lines"},
		{`{"boat":{"loa_m":99,"beam_m":3,"displacement_t":4},"wind":{"kn":20,"from_deg":0},"lines":[{"from":[4,0],"to":[9,0],"line":{"material":"polyamide","diameter_mm":14}}]}`, "moor", "boat.loa_m"},
		{`{"boat":{"loa_m":9,"beam_m":3,"displacement_t":4,"side_m2":-1},"wind":{"kn":20,"from_deg":0},"lines":[{"from":[4,0],"to":[9,0],"line":{"material":"polyamide","diameter_mm":14}}]}`, "moor", "boat.side_m2"},
		{`[]`, "moor", ""},
	} {
		doc, text, err := oarweed(t, c.in, c.cmd)
		assert.ErrorIs(t, err, errShown, c.in)
		assert.EqualValues(t, 422, doc["status"])
		assert.Contains(t, text, c.field)
	}
}

// A wind instrument that stands in sends sentences whose checksums are right, until it is stopped.
func TestAWindStandsIn(t *testing.T) {
	ctx, stop := context.WithCancel(t.Context())
	defer stop()
	r, w := io.Pipe()
	done := make(chan error, 1)
	go func() {
		done <- run(ctx, []string{"wind-sim", "--addr", "127.0.0.1:0", "--from", "12", "--to", "12", "--bearing", "40", "--north", "--gust", "0", "--hertz", "50"}, strings.NewReader(""), w, io.Discard)
	}()
	said, err := bufio.NewReader(r).ReadString('\n')
	require.NoError(t, err)
	_, after, ok := strings.Cut(said, "listens at ")
	require.True(t, ok, said)
	addr, _, _ := strings.Cut(after, ": ")
	conn, err := net.Dial("tcp", addr)
	require.NoError(t, err)
	defer conn.Close()
	require.NoError(t, conn.SetReadDeadline(time.Now().Add(10*time.Second)))
	in := bufio.NewScanner(conn)
	for range 5 {
		require.True(t, in.Scan(), in.Err())
		got, err := nmea.Read(in.Text())
		require.NoError(t, err, in.Text())
		assert.InDelta(t, 12, got.Kn, 0.1)
		assert.InDelta(t, 40, got.FromDeg, 6)
		assert.False(t, got.Relative)
	}
	stop()
	select {
	case err := <-done:
		assert.NoError(t, err)
	case <-time.After(10 * time.Second):
		t.Fatal("it does not stop")
	}
	_, text, err := oarweed(t, "", "wind-sim", "--gust", "3", "--hertz", "0")
	require.Error(t, err)
	assert.Contains(t, text+err.Error(), "gust")
	_, _, err = oarweed(t, "", "wind-sim", "--addr", "nowhere")
	assert.ErrorContains(t, err, "cannot listen")
}
