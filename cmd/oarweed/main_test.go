package main

import (
	"bytes"
	"encoding/json"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func oarweed(t *testing.T, stdin string, args ...string) (map[string]any, string, error) {
	t.Helper()
	var out, errOut bytes.Buffer
	err := run(t.Context(), args, strings.NewReader(stdin), &out, &errOut)
	var doc map[string]any
	_ = json.Unmarshal(out.Bytes(), &doc)
	return doc, out.String() + errOut.String(), err
}

const quay = `{"chain":[{"fitting":{"kind":"ring","size_mm":40}},{"joint":{"task":"moor"}},{"line":{"material":"polyester","construction":"braid","diameter_mm":12}}],"peak_kn":2.4}`

func TestChoose(t *testing.T) {
	doc, _, err := oarweed(t, quay, "choose")
	require.NoError(t, err)
	first := doc["ranked"].([]any)[0].(map[string]any)
	assert.Equal(t, "round-turn-two-half-hitches", first["knot"])
	for _, bad := range []string{"", "{", `{"chain":[]}`, strings.Replace(quay, "2.4", "-1", 1), quay + quay} {
		doc, _, err := oarweed(t, bad, "choose")
		assert.ErrorIs(t, err, errShown, "bad input ends with status 1")
		assert.EqualValues(t, 422, doc["status"])
		assert.NotEmpty(t, doc["fields"], bad)
	}
}

func TestFriction(t *testing.T) {
	doc, _, err := oarweed(t, "", "friction", "--hitch", "half-hitch", "--object", "60mm", "--line", "12mm", "--mu", "0.15")
	require.NoError(t, err)
	assert.InDelta(t, 0.2065, doc["mu_critical"], 0.0001)
	assert.Equal(t, false, doc["locks"])
	assert.Greater(t, doc["hold_ratio"], 1.0)
	doc, _, err = oarweed(t, "", "friction", "--turns", "3", "--mu", "0.15")
	require.NoError(t, err)
	assert.Nil(t, doc["mu_critical"])
	assert.InDelta(t, 16.902, doc["hold_ratio"], 0.001)
	doc, _, err = oarweed(t, "", "friction", "--turns", "1", "--mu", "0.15", "--load", "2.4kN", "--hand", "100N")
	require.NoError(t, err)
	assert.InDelta(t, 3.372, doc["turns_to_hold"], 0.001, "ln(24)/(2π·0.15)")
	for _, args := range [][]string{
		{"--turns", "1", "--mu", "0.15", "--load", "2.4kN"}, {"--turns", "1", "--mu", "0.15", "--load", "2.4kN", "--hand", "-1N"},
		{"--hitch", "clove-hitch", "--mu", "0.15"}, {"--hitch", "clove-hitch", "--object", "wide", "--line", "12mm", "--mu", "0.1"},
		{"--turns", "3", "--mu", "-1"}, {"--turns", "3", "--mu", "slippery"}, {"--turns", "99", "--mu", "0.1"}, {"--hitch", "knitting", "--object", "60mm", "--line", "12mm", "--mu", "0.1"}, {"--hithc", "x"},
	} {
		doc, _, err := oarweed(t, "", append([]string{"friction"}, args...)...)
		assert.ErrorIs(t, err, errShown, args)
		assert.NotEmpty(t, doc["fields"], args)
	}
}

func TestStrength(t *testing.T) {
	doc, _, err := oarweed(t, "", "strength", "--material", "polyester", "--construction", "laid", "--diameter", "24mm")
	require.NoError(t, err)
	mbl := doc["mbl_kn"].(map[string]any)
	assert.InDelta(t, 75.3, mbl["low"], 0.05, "the seamanship rule is the low end")
	assert.InDelta(t, 89.6, mbl["likely"], 0.05, "the rope standard is likely")
	assert.Equal(t, "memory", mbl["tag"], "no better than the worse of its ends")
	assert.Len(t, doc["options"], 3, "each alternative is named")
	_, _, err = oarweed(t, "", "strength", "--material", "polyester", "--diameter", "-24mm")
	assert.ErrorIs(t, err, errShown)
}

func TestShape(t *testing.T) {
	_, out, err := oarweed(t, "", "shape", "check")
	require.NoError(t, err)
	assert.Contains(t, out, "bowline")
	assert.Equal(t, 1, strings.Count(out, "no drawing"), "the double ring hitch is not drawn until it has been pulled")
	_, out, err = oarweed(t, "", "shape", "draw", "clove-hitch", "--step", "2", "--view", "across")
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(out, "<svg"))
	_, out, err = oarweed(t, "", "shape", "sheet")
	require.NoError(t, err)
	assert.GreaterOrEqual(t, strings.Count(out, "<svg"), 30)
	doc, _, err := oarweed(t, "", "shape", "invariants", "sheet-bend")
	require.NoError(t, err)
	assert.Len(t, doc["closures"], 7, "N, X, D and each line by itself, closed in front and behind")
	_, out, err = oarweed(t, "", "shape", "draw", "bowline", "--format", "png", "--width", "64")
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(out, "\x89PNG"))
	for _, args := range [][]string{{}, {"bake"}, {"draw"}, {"draw", "sky-hook"}, {"draw", "bowline", "--format", "gif"}, {"draw", "bowline", "--step", "99"}} {
		_, _, err := oarweed(t, "", append([]string{"shape"}, args...)...)
		assert.Error(t, err, args)
	}
}

func TestSnug(t *testing.T) {
	doc, _, err := oarweed(t, "", "snug", "metrics", "reef-knot")
	require.NoError(t, err)
	assert.Equal(t, true, doc["computed"])
	assert.Len(t, doc["ropes"], 2)
	assert.InDelta(t, 10.2, doc["ropes"].([]any)[0].(map[string]any)["consumed_d"], 1, "an earlier trial of our own")
	assert.Greater(t, doc["bulk_d"].(map[string]any)["across"], 3.0)
	assert.GreaterOrEqual(t, doc["contact_min_d"], 0.999)
	assert.NotContains(t, doc, "strands")
	doc, _, err = oarweed(t, "", "snug", "metrics", "slim-beauty")
	require.NoError(t, err)
	assert.Equal(t, false, doc["computed"])
	assert.Contains(t, doc["why"], "wraps")
	doc, _, err = oarweed(t, "", "snug", "ideal", "--knot", "trefoil")
	require.NoError(t, err)
	assert.InEpsilon(t, 16.37, doc["length_d"], 0.005, "knot-tightening literature, from memory")
	for format, begins := range map[string]string{"svg": "<svg", "stl": "Oarweed, reef-knot", "gltf": `{"accessors"`} {
		_, out, err := oarweed(t, "", "snug", "export", "reef-knot", "--format", format, "--checks")
		require.NoError(t, err)
		assert.True(t, strings.HasPrefix(out, begins), format)
	}
	dir := t.TempDir()
	_, out, err := oarweed(t, "", "snug", "build", "overhand", "--out", dir)
	require.NoError(t, err)
	assert.Contains(t, out, "bulk 3.07")
	assert.FileExists(t, filepath.Join(dir, "overhand.json"))
	_, out, err = oarweed(t, "", "snug", "build", "slim-beauty", "--out", dir)
	require.NoError(t, err)
	assert.Contains(t, out, "wraps", "known not to come out as hands dress it")
	for _, args := range [][]string{{}, {"metrics", "sky-hook"}, {"ideal", "--knot", "granny"}, {"export", "slim-beauty"}, {"export", "bowline", "--format", "obj"}, {"build", "sky-hook", "--out", dir}} {
		_, _, err := oarweed(t, "", append([]string{"snug"}, args...)...)
		assert.Error(t, err, args)
	}
}

func TestTurnsOfAReefKnot(t *testing.T) {
	doc, _, err := oarweed(t, "", "shape", "turns", "granny")
	require.NoError(t, err)
	assert.Equal(t, []any{6.0, 4.0}, []any{doc["sum"], doc["fields"]})
	_, _, err = oarweed(t, "", "shape", "turns", "bowline")
	assert.ErrorIs(t, err, errShown)
}

func TestFewestKnotsForJobs(t *testing.T) {
	doc, _, err := oarweed(t, `{"jobs":[{"task":"moor","fitting":"cleat","material":"polyester"},{"task":"reef"},{"task":"moor","fitting":"ring","material":"wire"}]}`, "knots", "cover")
	require.NoError(t, err)
	var got []any
	for _, k := range doc["knots"].([]any) {
		got = append(got, k.(map[string]any)["knot"])
	}
	assert.ElementsMatch(t, []any{"cleat-hitch", "reef-knot"}, got)
	assert.Equal(t, []any{map[string]any{"task": "moor", "fitting": "ring", "material": "wire"}}, doc["uncovered"])
	for _, bad := range []string{`{"jobs":[{"task":"kite"}]}`, `{"tasks":[]}`, `[`} {
		doc, _, err := oarweed(t, bad, "knots", "cover")
		assert.ErrorIs(t, err, errShown, bad)
		assert.NotEmpty(t, doc["fields"], bad)
	}
}

func TestUnknownCommand(t *testing.T) {
	doc, out, err := oarweed(t, "", "splice")
	assert.ErrorIs(t, err, errShown)
	assert.NotEmpty(t, doc["fields"])
	assert.Contains(t, out, "splice")
}

// Every command explains itself and its flags.
func TestHelp(t *testing.T) {
	for _, args := range [][]string{{}, {"help"}, {"--help"}} {
		_, out, err := oarweed(t, "", args...)
		require.NoError(t, err)
		for _, word := range []string{"serve", "choose", "rig check", "shape draw", "backup", "friction"} {
			assert.Contains(t, out, word)
		}
	}
	for command, says := range map[string]string{"load": "--wind", "serve": "--host", "rig": "changes", "hold": "--surface", "help shackle": "--diameter"} {
		_, out, err := oarweed(t, "", append(strings.Fields(command), "--help")...)
		require.NoError(t, err)
		assert.Contains(t, out, says, command)
	}
}

// Dependencies point inward: the core imports nothing of ours but the core, and neither
// HTTP, SQL, files nor embedded data; the catalogue only the core; the use cases nothing
// of the server.
func TestDependenciesPointInward(t *testing.T) {
	out, err := exec.Command("go", "list", "-f", "{{.ImportPath}}: {{join .Imports \" \"}}", "oarweed/core/...", "oarweed/catalogue", "oarweed/internal/app").Output()
	require.NoError(t, err)
	lines := strings.Split(strings.TrimSpace(string(out)), "\n")
	require.Greater(t, len(lines), 20)
	for _, l := range lines {
		pkg, imports, _ := strings.Cut(l, ": ")
		for _, i := range strings.Fields(imports) {
			for _, no := range []string{"net/http", "database/sql", "embed", "os", "github.com/gin-gonic/gin", "github.com/danielgtaylor/huma/v2"} {
				if no == "embed" && pkg == "oarweed/catalogue" {
					continue // the data files are embedded there
				}
				assert.NotEqual(t, no, i, pkg)
			}
			if !strings.HasPrefix(i, "oarweed/") {
				continue
			}
			core := strings.HasPrefix(i, "oarweed/core/")
			assert.True(t, core, "%s imports %s", pkg, i)
		}
	}
}

const chain = `{"chain":[{"line":{"material":"braided-pe","label_kn":0.133}},{"joint":{"task":"leader"}},{"line":{"material":"fluorocarbon","label_kn":0.089}},{"joint":{"task":"lure","release":"cut"}},{"fitting":{"kind":"hook-eye"}}],"peak_kn":0.03}`

func TestRigMapLoadShackleProcedure(t *testing.T) {
	doc, _, err := oarweed(t, chain, "rig", "check")
	require.NoError(t, err)
	assert.Len(t, doc["joints"], 2)
	assert.Contains(t, doc["weakest"].(map[string]any)["says"], "gives way first")
	doc, _, err = oarweed(t, quay, "rig", "chances")
	require.NoError(t, err)
	assert.Contains(t, doc, "bowline")
	_, out, err := oarweed(t, quay, "rig", "changes")
	require.NoError(t, err)
	assert.Contains(t, out, "takes over")
	doc, _, err = oarweed(t, quay, "map", "--x", "line.diameter", "--y", "load", "--columns", "6", "--rows", "5")
	require.NoError(t, err)
	require.Len(t, doc["map"], 5)
	assert.Len(t, doc["map"].([]any)[0].(map[string]any)["knots"], 6)
	doc, _, err = oarweed(t, "", "load", "wind", "--loa", "30ft", "--wind", "30kn")
	require.NoError(t, err)
	assert.InDelta(t, 3.114, doc["load_kn"].(map[string]any)["likely"], 0.001, "700 lbf: ground-tackle table, from memory")
	doc, _, err = oarweed(t, "", "hold", "--hitch", "winch", "--load", "2.4kN")
	require.NoError(t, err)
	assert.Contains(t, doc["says"], "5 turns and a half hold 2.4 kN")
	doc, _, err = oarweed(t, "", "tow", "--takeoffs", "60ft,65ft,…,85ft", "--want", "68ft", "--on", "pylon")
	require.NoError(t, err)
	assert.InDelta(t, 70*0.3048, doc["takeoff_m"], 1e-9)
	assert.InDelta(t, 2*0.3048, doc["take_up_m"], 1e-9)
	assert.Equal(t, "tow-pylon-hitch", doc["hitch"])
	assert.Contains(t, doc["says"], "70 ft (21.3 m) take-off and take up 61 cm (2 ft)")
	doc, _, err = oarweed(t, "", "shackle", "--diameter", "8mm")
	require.NoError(t, err)
	assert.Len(t, doc["rows"], 5)
	_, out, err = oarweed(t, "", "procedure")
	require.NoError(t, err)
	assert.Contains(t, out, "jam")
	for _, args := range [][]string{
		{"rig"}, {"rig", "sink"}, {"shackle", "--diameter", "0.2mm"}, {"shackle", "--diameter", "1e308 m"}, {"map", "--x", "colour", "--y", "load"}, {"load"}, {"load", "tide"}, {"load", "wind", "--loa", "30ft", "--wind", "stiff"},
		{"load", "snatch", "--mass", "100", "--speed", "1", "--length", "8m", "--diameter", "12mm", "--material", "spaghetti"},
		{"shackle", "--diameter", "wide"}, {"hold", "--load", "heavy"}, {"hold", "--hitch", "knitting", "--load", "1kN"}, {"procedure", "swim"}, {"procedure", "jam"},
		{"tow", "--want", "90ft"}, {"tow", "--takeoffs", "60ft,…"},
	} {
		doc, _, err := oarweed(t, quay, args...)
		assert.ErrorIs(t, err, errShown, args)
		assert.NotEmpty(t, doc["fields"], args)
	}
}
