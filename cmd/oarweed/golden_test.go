package main

import (
	"bytes"
	"crypto/sha256"
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/friction"
	"oarweed/core/line"
	"oarweed/core/rig"
	"oarweed/internal/same"
)

var update = flag.Bool("update", false, "write the golden documents anew")

// goldenCalls are the answers that must not change by accident: every built-in
// rig whole, and what each command makes of it; every hitch, line and load.
func goldenCalls(t *testing.T) map[string][]call {
	cat, err := catalogue.Load()
	require.NoError(t, err)
	out := map[string][]call{}
	add := func(file, stdin string, args ...string) {
		out[file] = append(out[file], call{strings.Join(args, " "), stdin, args})
	}
	for _, x := range cat.Templates {
		text, err := json.Marshal(x.Rig)
		require.NoError(t, err)
		add(x.ID, string(text), "rig", "check")
		if len(x.Rig.Chain) != 3 {
			continue
		}
		add(x.ID, string(text), "rig", "changes")
		add(x.ID, string(text), "rig", "chances")
		add(x.ID, string(text), "choose", "--school", "cleat=no-lock", "--school", "rolling=three")
		across := "line.diameter"
		if x.Rig.Chain[2].Line.LabelKN > 0 {
			across = "line.label"
		}
		add(x.ID, string(text), "map", "--x", across, "--y", "load", "--columns", "12", "--rows", "9")
	}
	jam := `{"chain":[{"line":{"material":"polyester","construction":"braid","diameter_mm":12}},{"joint":{"task":"relieve"}},{"line":{"material":"polyester","construction":"braid","diameter_mm":8}}],"peak_kn":1.2}`
	onto := `{"chain":[{"fitting":{"kind":%q,"size_mm":40}},{"joint":{"task":%q}},{"line":{"material":"polyester","construction":"braid","diameter_mm":8}}],"peak_kn":0.8}`
	for _, p := range cat.Procedures {
		stdin := ""
		if p.Needs != "" {
			stdin = jam // will do where any task does
			if task := cat.Task(p.Needs); task != nil && task.Between != rig.ToFitting {
				stdin = strings.ReplaceAll(jam, "relieve", task.ID)
			} else if task != nil {
				stdin = fmt.Sprintf(onto, task.Fitting, task.ID)
			}
		}
		add("procedures", stdin, "procedure", p.ID)
	}
	for _, id := range cat.DrawingIDs() {
		add("shapes", "", "shape", "draw", id)
		add("shapes", "", "shape", "draw", id, "--step", "1.5", "--view", "across", "--look", "mono", "--labels", "--ghost")
		add("shapes", "", "shape", "invariants", id)
	}
	for _, h := range friction.IDs() {
		for _, wet := range []string{"--wet=false", "--wet=true"} {
			add("hold", "", "hold", "--hitch", h, "--load", "2.4kN", wet)
		}
		add("friction", "", "friction", "--hitch", h, "--object", "60mm", "--line", "12mm", "--mu", "0.15")
	}
	for _, m := range cat.Materials {
		for _, c := range m.Constructions {
			for _, d := range []string{"0.3mm", "8mm", "12mm", "24mm"} {
				add("strength", "", "strength", "--material", m.ID, "--construction", string(line.Construction(c)), "--diameter", d, "--wet")
			}
		}
	}
	add("bench", `{"pulls":[{"group":"A","load_kn":6.9,"failed":true},{"group":"A","load_kn":7.4,"failed":true},{"group":"A","load_kn":7.1},{"group":"A","load_kn":8,"failed":true},{"group":"A","load_kn":6.5,"failed":true},{"group":"A","load_kn":7.7},{"group":"A","load_kn":7.2,"failed":true},{"group":"A","load_kn":7.9,"failed":true},{"group":"B","load_kn":7.1,"failed":true},{"group":"B","load_kn":7.7,"failed":true},{"group":"B","load_kn":8},{"group":"C","load_kn":5}]}`, "bench", "fit")
	add("bench", "Zeit (s);Kraft (N)\n0;2\n1;1002\n2;2002\n3;3002\n4;2802\n5;4002\n6;5002\n7;12\n", "bench", "marks")
	add("leader", `{"length_m":2.7,"shortest_m":2,"knot":"non-slip-loop","line":{"material":"fluorocarbon","label_kn":0.0712}}`, "leader")
	add("moor", `{"boat":{"loa_m":9.144,"beam_m":3,"displacement_t":4},"wind":{"kn":25,"from_deg":-90},"lines":[{"from":[4,-1.5],"to":[6,-2.5],"line":{"material":"polyamide","construction":"laid","diameter_mm":14}},{"from":[-4,-1.5],"to":[-6,-2.5],"line":{"material":"polyamide","construction":"laid","diameter_mm":14}},{"from":[1,-1.5],"to":[-3,-2.5],"line":{"material":"polyamide","construction":"laid","diameter_mm":14}}]}`, "moor")
	add("load", "", "load", "wind", "--loa", "30ft", "--wind", "30kn")
	add("load", "", "load", "wind", "--area", "9", "--wind", "15m/s")
	add("load", "", "load", "share", "--force", "4kN", "--angle", "35", "--lines", "2")
	add("load", "", "load", "snatch", "--mass", "3000", "--speed", "0.5", "--length", "8m", "--material", "polyamide", "--diameter", "12mm", "--wet")
	add("load", "", "load", "drag", "--class", "20lb")
	add("load", "", "load", "hand", "--people", "3")
	add("shackle", "", "shackle", "--diameter", "6mm")
	return out
}

type call struct {
	name, stdin string
	args        []string
}

// TestGoldenAnswers holds every answer to the recorded one; documents may gain
// fields but not lose or change any. To accept a change of the rules: go test
// ./cmd/oarweed -run Golden -update, and say in the commit what changed and why.
func TestGoldenAnswers(t *testing.T) {
	for file, calls := range goldenCalls(t) {
		t.Run(file, func(t *testing.T) {
			t.Parallel()
			path := filepath.Join("testdata", "golden", file+".json")
			got := map[string]json.RawMessage{}
			for _, c := range calls {
				var out, errOut bytes.Buffer
				require.NoError(t, run(t.Context(), c.args, strings.NewReader(c.stdin), &out, &errOut), "%s: %s%s", c.name, out.String(), errOut.String())
				got[c.name] = out.Bytes()
				if !json.Valid(got[c.name]) || file == "shapes" { // a drawing, or long: its checksum will do
					got[c.name] = fmt.Appendf(nil, `"%x"`, sha256.Sum256(bytes.TrimSpace(got[c.name])))
				}
			}
			if *update {
				var b bytes.Buffer
				names := []string{}
				for name := range got {
					names = append(names, name)
				}
				slices.Sort(names)
				for i, name := range names {
					var one bytes.Buffer
					require.NoError(t, json.Compact(&one, got[name]))
					fmt.Fprintf(&b, "%s%q:%s", map[bool]string{true: "{", false: ",\n"}[i == 0], name, one.String())
				}
				b.WriteString("}\n")
				require.NoError(t, os.MkdirAll(filepath.Dir(path), 0o755))
				require.NoError(t, os.WriteFile(path, b.Bytes(), 0o644))
				return
			}
			text, err := os.ReadFile(path)
			require.NoError(t, err)
			want := map[string]json.RawMessage{}
			require.NoError(t, json.Unmarshal(text, &want))
			require.Len(t, got, len(want))
			for name, w := range want {
				differences := same.Documents(name, w, got[name])
				assert.Empty(t, differences[:min(len(differences), 12)])
			}
		})
	}
}

// The table of fields, as the front end's tests read it.
func TestGoldenFields(t *testing.T) {
	got, err := json.MarshalIndent(rig.Fields, "", "  ")
	require.NoError(t, err)
	path := filepath.Join("testdata", "golden", "fields.json")
	if *update {
		require.NoError(t, os.WriteFile(path, append(got, '\n'), 0o644))
		return
	}
	want, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.JSONEq(t, string(want), string(got))
}
