package api_test

import (
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/catalogue"
	"oarweed/core/locker"
	"oarweed/core/practice"
	"oarweed/core/rig"
	"oarweed/core/trade"
)

// drawn fills the numbers and words of a part from the table of fields: a field added to
// the table is drawn, saved and compared without a word here.
func drawn(t *rapid.T, part rig.Part, x map[string]any) {
	for _, f := range rig.Fields {
		if f.Part != part || x[f.JSON] != nil || rapid.Bool().Draw(t, f.JSON+" left out") {
			continue
		}
		switch {
		case f.Whole:
			x[f.JSON] = rapid.IntRange(0, int(f.Max)).Draw(t, f.JSON)
		case f.Max > 0:
			lo := math.Max(f.Min, 1e-3*f.Max)
			x[f.JSON] = rapid.Float64Range(lo, f.Max).Draw(t, f.JSON)
		case len(f.Values) > 0:
			x[f.JSON] = rapid.SampledFrom(f.Values).Draw(t, f.JSON).ID
		case f.JSON == "dry":
			x[f.JSON] = rapid.Bool().Draw(t, "dry")
		}
	}
}

func anyLine(t *rapid.T, c *trade.Catalogue) map[string]any {
	m := rapid.SampledFrom(c.Materials).Draw(t, "material")
	x := map[string]any{"material": m.ID, "construction": rapid.SampledFrom(m.Constructions).Draw(t, "construction"), "diameter_mm": rapid.Float64Range(0.1, 40).Draw(t, "diameter")}
	drawn(t, rig.LinePart, x)
	if x["label_kn"] == nil {
		x["diameter_mm"] = rapid.Float64Range(2, 24).Draw(t, "diameter with a known strength")
	}
	return x
}

// anyRig is a chain of one to four joints with whatever its fields can hold.
func anyRig(t *rapid.T, c *trade.Catalogue) map[string]any {
	joint := func(between ...rig.Between) (rig.Between, *rig.Task, map[string]any) {
		var fits []*rig.Task
		for _, k := range c.Tasks {
			for _, b := range between {
				if k.Between == b {
					fits = append(fits, k)
				}
			}
		}
		k := rapid.SampledFrom(fits).Draw(t, "task")
		x := map[string]any{"task": k.ID}
		if rapid.Bool().Draw(t, "knot chosen") {
			x["knot"] = rapid.SampledFrom(c.Knots).Draw(t, "knot").ID
		}
		drawn(t, rig.JointPart, x)
		return k.Between, k, x
	}
	var chain []map[string]any
	b, k, j := joint(rig.ToFitting, rig.TwoLines, rig.OnLine)
	if b == rig.ToFitting {
		f := map[string]any{"kind": k.Fitting, "surface": rapid.SampledFrom(c.Surfaces).Draw(t, "surface").ID}
		drawn(t, rig.FittingPart, f)
		chain = append(chain, map[string]any{"fitting": f})
	} else {
		chain = append(chain, map[string]any{"line": anyLine(t, c)})
	}
	chain = append(chain, map[string]any{"joint": j}, map[string]any{"line": anyLine(t, c)})
	for range rapid.IntRange(0, 3).Draw(t, "further joints") {
		_, _, j := joint(rig.TwoLines, rig.OnLine)
		chain = append(chain, map[string]any{"joint": j}, map[string]any{"line": anyLine(t, c)})
	}
	name := rapid.StringMatching(`[A-Za-zÀ-ÿ0-9][A-Za-zÀ-ÿ0-9'’()-]{0,30}( [A-Za-z0-9]{1,8}){0,3}`).Draw(t, "name")
	x := map[string]any{"name": fmt.Sprint(name, " ", nextName()), "chain": chain, "peak_kn": rapid.Float64Range(0.01, 50).Draw(t, "load")}
	if rapid.Bool().Draw(t, "weights") {
		for w := range c.Weights {
			x["weights"] = w
			break
		}
	}
	drawn(t, rig.WholeRig, x)
	for _, e := range chain {
		if j, ok := e["joint"].(map[string]any); ok && c.Task(j["task"].(string)).Person {
			x["consequence"] = "person" // such a task holds somebody, whatever else is said
		}
	}
	if x["consequence"] == "person" && x["design_factor"] != nil {
		x["design_factor"] = 12
	}
	return x
}

var named int

func nextName() int { named++; return named }

// within checks that back holds everything that was sent; what was left out may have been
// filled in.
func within(t require.TestingT, at string, sent, back any) {
	switch s := sent.(type) {
	case map[string]any:
		b, ok := back.(map[string]any)
		require.True(t, ok, "%s is gone", at)
		for k, v := range s {
			if v == nil || v == 0.0 || v == "" || v == false {
				continue // zero means left out
			}
			within(t, at+"."+k, v, b[k])
		}
	case []any:
		b, ok := back.([]any)
		require.True(t, ok && len(b) == len(s), "%s", at)
		for i := range s {
			within(t, fmt.Sprintf("%s[%d]", at, i), s[i], b[i])
		}
	default:
		require.Equal(t, sent, back, at)
	}
}

func plainJSON(t require.TestingT, v any) (out any) {
	text, err := json.Marshal(v)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(text, &out))
	return out
}

// Any valid rig that is saved comes back with every field that was sent, from the list as
// from its own address; and saving what came back changes nothing.
func TestAnyRigComesBackEqual(t *testing.T) {
	srv := start(t)
	cat, err := catalogue.Load()
	require.NoError(t, err)
	rapid.Check(t, func(t *rapid.T) {
		sent := plainJSON(t, anyRig(t, cat))
		body, _ := json.Marshal(map[string]any{"rig": sent})
		res, text := call(t, srv, "POST", "/api/v1/rigs", string(body))
		require.Equal(t, http.StatusCreated, res.StatusCode, "%s\n%s", body, text)
		var saved rig.Saved
		require.NoError(t, json.Unmarshal([]byte(text), &saved))
		within(t, "rig", sent, plainJSON(t, saved.Rig))
		at := res.Header.Get("Location")
		res, one := call(t, srv, "GET", at, "")
		require.JSONEq(t, text, one)
		_, list := call(t, srv, "GET", "/api/v1/rigs", "")
		require.Contains(t, list, strings.TrimSpace(one))
		again, _ := json.Marshal(map[string]any{"rig": saved.Rig})
		_, text = call(t, srv, "PUT", at, string(again), "If-Match", res.Header.Get("ETag"))
		var back rig.Saved
		require.NoError(t, json.Unmarshal([]byte(text), &back))
		require.Equal(t, saved.Rig, back.Rig)
		require.Equal(t, saved.Revision+1, back.Revision)
		res, _ = call(t, srv, "DELETE", at, "")
		require.Equal(t, http.StatusNoContent, res.StatusCode)
	})
}

func TestAnyLineComesBackEqual(t *testing.T) {
	srv := start(t)
	cat, err := catalogue.Load()
	require.NoError(t, err)
	rapid.Check(t, func(t *rapid.T) {
		x := anyLine(t, cat)
		x["name"], x["note"] = fmt.Sprint("Line ", nextName()), rapid.StringMatching(`[ -~à-ÿ]{0,60}`).Draw(t, "note")
		sent := plainJSON(t, x)
		body, _ := json.Marshal(sent)
		res, text := call(t, srv, "POST", "/api/v1/lines", string(body))
		require.Equal(t, http.StatusCreated, res.StatusCode, "%s\n%s", body, text)
		var saved locker.Line
		require.NoError(t, json.Unmarshal([]byte(text), &saved))
		within(t, "line", sent, plainJSON(t, saved))
		_, one := call(t, srv, "GET", res.Header.Get("Location"), "")
		require.JSONEq(t, text, one)
		call(t, srv, "DELETE", res.Header.Get("Location"), "")
	})
}

func TestAnyAttemptAndLearnerComeBackEqual(t *testing.T) {
	srv := start(t)
	cat, err := catalogue.Load()
	require.NoError(t, err)
	rapid.Check(t, func(t *rapid.T) {
		name := fmt.Sprint(rapid.StringMatching(`[A-Za-zÀ-ÿ]{1,20}( [A-Za-zÀ-ÿ]{1,20}){0,2}`).Draw(t, "name"), " ", nextName())
		body, _ := json.Marshal(map[string]any{"name": name})
		res, text := call(t, srv, "POST", "/api/v1/learners", string(body))
		require.Equal(t, http.StatusCreated, res.StatusCode, text)
		var l practice.Learner
		require.NoError(t, json.Unmarshal([]byte(text), &l))
		_, one := call(t, srv, "GET", res.Header.Get("Location"), "")
		require.JSONEq(t, text, one)

		k := rapid.SampledFrom(cat.Knots).Draw(t, "knot")
		a := map[string]any{"learner_id": l.ID, "knot": k.ID, "key": fmt.Sprint("key-", nextName()),
			"kind":       rapid.SampledFrom([]practice.Kind{practice.Tied, practice.Drill}).Draw(t, "kind"),
			"outcome":    rapid.SampledFrom([]practice.Outcome{practice.Right, practice.Slow, practice.Fault}).Draw(t, "outcome"),
			"seconds":    rapid.Float64Range(0, 7200).Draw(t, "seconds"),
			"conditions": rapid.SampledFrom(practice.Conditions).Draw(t, "conditions"),
			"at":         time.UnixMicro(rapid.Int64Range(0, time.Now().UnixMicro()).Draw(t, "at")).UTC(),
		}
		if a["outcome"] == practice.Fault {
			a["fault"] = rapid.SampledFrom(k.Faults).Draw(t, "fault").Code
		}
		sent := plainJSON(t, a)
		body, _ = json.Marshal(sent)
		res, text = call(t, srv, "POST", "/api/v1/attempts", string(body))
		require.Equal(t, http.StatusCreated, res.StatusCode, "%s\n%s", body, text)
		var back any
		require.NoError(t, json.Unmarshal([]byte(text), &back))
		within(t, "attempt", sent, back)
		res, again := call(t, srv, "POST", "/api/v1/attempts", string(body))
		require.Equal(t, http.StatusOK, res.StatusCode, "sent again it is the same record")
		require.JSONEq(t, text, again)
		_, list := call(t, srv, "GET", fmt.Sprintf("/api/v1/attempts?learner=%d", l.ID), "")
		require.JSONEq(t, `{"attempts":[`+text+`]}`, list)
	})
}
