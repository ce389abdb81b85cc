//go:build !(js && wasm)

package main

import (
	"encoding/json"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/rig"
	"oarweed/internal/app"
	"oarweed/internal/same"
)

const quay = `{"chain":[{"fitting":{"kind":"ring","size_mm":40}},{"joint":{"task":"moor"}},{"line":{"material":"polyester","construction":"braid","diameter_mm":12}}],"peak_kn":2.4}`

// The core answers in a browser's engine as it does here, to the tenth figure.
func TestTheSameAnswersUnderNode(t *testing.T) {
	file := filepath.Join(t.TempDir(), "oarweed.wasm")
	build := exec.Command("go", "build", "-o", file, ".")
	build.Env = append(os.Environ(), "GOOS=js", "GOARCH=wasm")
	out, err := build.CombinedOutput()
	require.NoError(t, err, "%s", out)
	cat, err := catalogue.Load()
	require.NoError(t, err)
	packed, err := cat.Pack()
	require.NoError(t, err)
	pack := filepath.Join(t.TempDir(), "catalogue")
	require.NoError(t, os.WriteFile(pack, packed, 0o600))
	root, err := exec.Command("go", "env", "GOROOT").Output()
	require.NoError(t, err)
	run := exec.Command("node", "testdata/run.mjs", filepath.Join(strings.TrimSpace(string(root)), "lib", "wasm"), file, pack, quay)
	run.Stderr = os.Stderr
	text, err := run.Output()
	require.NoError(t, err)
	var got struct {
		Choose                  json.RawMessage
		Chain                   json.RawMessage
		Knots                   int
		Knot, Drawing           string
		Refused, Unknown, Early struct{ Fields []struct{ Field string } }
		Started                 float64
		Loaded, Choice          float64
	}
	require.NoError(t, json.Unmarshal(text, &got), "%.200s", text)
	t.Logf("started in %.0f ms, catalogue loaded in %.0f ms (%d kB), one choice in %.2f ms", got.Started, got.Loaded, len(packed)/1000, got.Choice)

	school, err := app.NewSchool(t.Context(), cat, nil, nil)
	require.NoError(t, err)
	d, err := rig.Parse(strings.NewReader(quay))
	require.NoError(t, err)
	here, err := school.Choose(t.Context(), d)
	require.NoError(t, err)
	want, err := json.Marshal(here)
	require.NoError(t, err)
	assert.Empty(t, same.Documents("choose", want, got.Choose))
	chain, err := school.CheckRig(t.Context(), d)
	require.NoError(t, err)
	want, err = json.Marshal(chain)
	require.NoError(t, err)
	assert.Empty(t, same.Documents("check-rig", want, got.Chain))
	assert.Equal(t, len(cat.Knots), got.Knots)
	assert.Equal(t, "Bowline", got.Knot)
	assert.True(t, strings.HasPrefix(got.Drawing, "<svg"))
	require.NotEmpty(t, got.Refused.Fields)
	assert.Equal(t, "chain[2].line.material", got.Refused.Fields[0].Field)
	assert.Len(t, got.Early.Fields, 1, "asked before the catalogue is there")
	assert.Equal(t, "verb", got.Unknown.Fields[0].Field)
}
