package rig_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/rig"
)

// Whatever is sent, a rig is refused with a reason or can be resolved; and one that was
// read is read as the same from what is written of it.
func FuzzRig(f *testing.F) {
	c, err := catalogue.Load()
	require.NoError(f, err)
	for _, x := range c.Templates {
		text, err := json.Marshal(x.Rig)
		require.NoError(f, err)
		f.Add(string(text))
	}
	for _, s := range []string{"", "[]", `{"chain":[]}`, `{"chain":[{}]}`, `{"peak_kn":1e400}`, `{"version":9}`, `{"chain":[{"joint":{"task":"moor","tail_m":-1}}]}`} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, text string) {
		d, err := rig.Parse(strings.NewReader(text))
		if err != nil {
			assert.NotEmpty(t, err.Error())
			return
		}
		written, err := json.Marshal(d)
		require.NoError(t, err)
		again, err := rig.Parse(strings.NewReader(string(written)))
		require.NoError(t, err)
		assert.Equal(t, d, again)
		_, _, _ = c.ResolveAll(d)
	})
}
