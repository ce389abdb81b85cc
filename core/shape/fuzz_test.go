package shape_test

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"oarweed/core/shape"
	"oarweed/core/shape/draw"
	"oarweed/core/shape/space"
	"oarweed/core/shape/tangle"
)

func seed(f *testing.F, pattern string) {
	names, err := filepath.Glob(filepath.Join("..", "..", "catalogue", pattern))
	require.NoError(f, err)
	require.NotEmpty(f, names)
	for _, name := range names {
		text, err := os.ReadFile(name)
		require.NoError(f, err)
		f.Add(string(text))
	}
}

// A drawing is refused, or can be drawn.
func FuzzShape(f *testing.F) {
	seed(f, "shapes/*.knot")
	f.Fuzz(func(t *testing.T, text string) {
		if len(text) > 10_000 {
			return
		}
		sh, err := shape.Load(text)
		if err != nil {
			return
		}
		_ = draw.SVG(sh, draw.Options{})
	})
}

func FuzzSpaceModel(f *testing.F) {
	seed(f, "second/*.space")
	f.Fuzz(func(t *testing.T, text string) {
		if len(text) < 10_000 {
			_, _ = space.Parse(text)
		}
	})
}

// A polynomial is the same whatever the order of its terms, and as itself.
func FuzzPolynomial(f *testing.F) {
	for _, s := range []string{"1", "-t^-4+t^-3+t^-1", "t^(1/2)-2t^(-3/2)", "+", "-", "t^", "9999999999999999999t"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, text string) {
		if !tangle.Same(text, text) {
			t.Fatalf("%q is not itself", text)
		}
	})
}
