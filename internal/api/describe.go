package api

import (
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"maps"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"oarweed/core/rig"
)

// fingerprint of what the answers depend on.
func fingerprint(run int64, taught string) []byte {
	sum := sha256.Sum256(fmt.Appendf(nil, "%d %s", run, taught))
	return sum[:9]
}

// Description is the API's OpenAPI document. Rig fields get their descriptions, limits
// and words from the table of the core; huma itself only checks their types, so that
// what is wrong with a value is said in the core's words.
func Description(a huma.API) map[string]any {
	text, err := json.Marshal(a.OpenAPI())
	if err != nil {
		panic(err) // made of our own types
	}
	var doc map[string]any
	_ = json.Unmarshal(text, &doc) // what was just written
	schemas := doc["components"].(map[string]any)["schemas"].(map[string]any)
	parts := map[rig.Part]string{rig.WholeRig: "RigDocument", rig.FittingPart: "RigFitting", rig.JointPart: "RigJoint", rig.LinePart: "RigLine"}
	words := map[string]any{}
	for _, f := range rig.Fields {
		properties := schemas[parts[f.Part]].(map[string]any)["properties"].(map[string]any)
		p := properties[f.JSON].(map[string]any)
		p["description"] = f.Doc
		if f.Max > 0 {
			p["minimum"], p["maximum"] = 0, f.Max
		}
		if len(f.Values) > 0 && !f.Whole {
			var ids []any
			for _, v := range f.Values {
				ids = append(ids, v.ID)
			}
			p["enum"] = ids
			words[f.JSON] = ids
		}
	}
	// The same words where the catalogue and the locker say them of a line or a task.
	for _, schema := range schemas {
		properties, _ := schema.(map[string]any)["properties"].(map[string]any)
		for _, name := range []string{"construction", "release", "character"} {
			if p, ok := properties[name].(map[string]any); ok && p["type"] == "string" {
				p["enum"] = words[name]
			}
		}
	}
	return doc
}

// description serves the OpenAPI document and the schema of a rig.
func description(r *gin.Engine, a huma.API) {
	write := func(at, kind string, v any) {
		text, err := json.MarshalIndent(v, "", "  ")
		if err != nil {
			panic(err) // made of our own types
		}
		r.GET(Base+at, func(c *gin.Context) {
			c.Header("Cache-Control", "no-cache")
			c.Data(http.StatusOK, kind, text)
		})
	}
	doc := Description(a)
	write("/openapi.json", "application/vnd.oai.openapi+json", doc)
	write("/rig.schema.json", "application/schema+json", rigSchema(doc))
}

// rigSchema is the schema of a rig document by itself, in JSON Schema 2020-12.
func rigSchema(doc map[string]any) map[string]any {
	all := doc["components"].(map[string]any)["schemas"].(map[string]any)
	defs := map[string]any{}
	var take func(name string)
	take = func(name string) {
		if _, done := defs[name]; done {
			return
		}
		text, _ := json.Marshal(all[name])
		moved := strings.ReplaceAll(string(text), "#/components/schemas/", "#/$defs/")
		defs[name] = json.RawMessage(moved)
		for _, other := range slices.Sorted(maps.Keys(all)) {
			if strings.Contains(moved, `"#/$defs/`+other+`"`) {
				take(other)
			}
		}
	}
	take("RigDocument")
	return map[string]any{
		"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "Oarweed rig",
		"$ref": "#/$defs/RigDocument", "$defs": defs,
	}
}
