package store_test

import (
	"bytes"
	"encoding/json"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/rig"
	"oarweed/internal/app"
)

// Exported data that was changed on the way is refused whole, or taken in and exported again.
func FuzzImport(f *testing.F) {
	c, err := catalogue.Load()
	require.NoError(f, err)
	s := open(f, filepath.Join(f.TempDir(), "a.db"))
	who := learner(f, s, "Ailsa")
	_, _, err = s.AddAttempt(f.Context(), attempt(who.ID, time.Date(2026, 6, 2, 10, 0, 0, 0, time.UTC)))
	require.NoError(f, err)
	_, err = s.SaveRig(f.Context(), rig.Saved{Rig: slip()})
	require.NoError(f, err)
	data, err := s.Export(f.Context())
	require.NoError(f, err)
	whole, err := json.Marshal(data)
	require.NoError(f, err)
	f.Add(whole)
	for _, x := range []string{"", "{}", `{"oarweed_data":9}`, `{"oarweed_data":1,"learners":[{"id":1}]}`, `{"oarweed_data":1,"attempts":[{"learner_id":7}]}`} {
		f.Add([]byte(x))
	}
	f.Fuzz(func(t *testing.T, sent []byte) {
		into := open(t, filepath.Join(t.TempDir(), "into.db"))
		if _, err := into.Import(t.Context(), bytes.NewReader(sent), c); err != nil {
			assert.NotEmpty(t, err.Error())
			left, err := into.Export(t.Context())
			require.NoError(t, err)
			assert.Empty(t, left.Learners)
			assert.Empty(t, left.Rigs)
			return
		}
		_, err = into.Export(t.Context())
		require.NoError(t, err)
	})
}

// A cursor is this program's own: any other is refused, or begins somewhere.
func FuzzCursor(f *testing.F) {
	s := open(f, filepath.Join(f.TempDir(), "a.db"))
	who := learner(f, s, "Ailsa")
	for i := range 3 {
		_, _, err := s.AddAttempt(f.Context(), attempt(who.ID, time.Date(2026, 6, 2, 10, i, 0, 0, time.UTC)))
		require.NoError(f, err)
	}
	_, next, err := s.Attempts(f.Context(), app.Filter{}, app.Page{Limit: 2})
	require.NoError(f, err)
	require.NotEmpty(f, next)
	for _, x := range []string{next, "", "!!", next[:len(next)-1], next + "A", "MjAyNg"} {
		f.Add(x)
	}
	f.Fuzz(func(t *testing.T, cursor string) {
		list, _, err := s.Attempts(t.Context(), app.Filter{}, app.Page{Limit: 2, Cursor: cursor})
		if err == nil {
			assert.LessOrEqual(t, len(list), 2)
		}
	})
}
