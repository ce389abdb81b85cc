package name_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/core/name"
)

func Example() {
	s, err := name.Clean("  Lugger   fenders ", 80)
	fmt.Printf("%q %v\n", s, err)
	// Output: "Lugger fenders" <nil>
}

func TestWhatLooksTheSameIsTheSame(t *testing.T) {
	composed, err := name.Clean("Åsa", 20)
	require.NoError(t, err)
	apart, err := name.Clean("A\u030asa", 20)
	require.NoError(t, err)
	assert.Equal(t, composed, apart)
	assert.Equal(t, name.Key("STRASSE"), name.Key("straße"))
	assert.NotEqual(t, name.Key("Asa"), name.Key("Åsa"))
}

func TestWhatNobodyCanSeeIsRefused(t *testing.T) {
	for _, s := range []string{"", " \t ", "a\x00b", "a\u202eb", "a\u200bb", "\xff", "a\ufffdb", "toolong"} {
		_, err := name.Clean(s, 6)
		assert.Error(t, err, "%q", s)
	}
}

// Cleaned once, a name is clean.
func TestCleanIsClean(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s, err := name.Clean(rapid.String().Draw(t, "name"), 40)
		if err != nil {
			return
		}
		again, err := name.Clean(s, 40)
		if err != nil || again != s {
			t.Fatalf("%q became %q, %v", s, again, err)
		}
	})
}
