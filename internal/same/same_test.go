package same_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"oarweed/internal/same"
)

func TestDocuments(t *testing.T) {
	want := `{"a":[1,{"b":"x"}],"n":0.1}`
	assert.Empty(t, same.Documents("d", []byte(want), []byte(`{"a":[1,{"b":"x","new":1}],"n":0.10000000000000002}`)), "gained a field, rounded otherwise")
	for got, says := range map[string]string{
		`{"a":[1,{"b":"y"}],"n":0.1}`: "d.a[1].b: y instead of x", `{"a":[1],"n":0.1}`: "d.a: 1 entries instead of 2", `{"a":[1,2],"n":0.1}`: "instead of an object",
		`{"a":[1,{"b":"x"}],"n":0.1001}`: "d.n", `{"a":[1,{"b":"x"}]}`: "d.n: <nil>", `{`: "unexpected end",
	} {
		out := same.Documents("d", []byte(want), []byte(got))
		if assert.Len(t, out, 1, got) {
			assert.Contains(t, out[0], says)
		}
	}
}
