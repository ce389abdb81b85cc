package draw_test

import (
	"encoding/xml"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/shape"
	"oarweed/core/shape/draw"
)

// An overhand knot, drawn here independently of the catalogue.
const overhand = `knot overhand
x l 1.2,3.2  b 4,5.6  r 6.8,3.2
rope r: -2.5,3 -1,3 |0 +l -b 6,6 7.2,4.6 +r 6.3,1.3 4,0.5 |1 1.7,1.3 -l 0.8,4.6 2,6 +b -r 9,3 10.5,3 |2
`

func load(t testing.TB, source string) *shape.Shape {
	t.Helper()
	sh, err := shape.Load(source)
	require.NoError(t, err)
	return sh
}

// parsePaths reads a drawing as XML and gives the path data by group.
func parsePaths(t *testing.T, svg string) (paths int, texts []string) {
	t.Helper()
	d := xml.NewDecoder(strings.NewReader(svg))
	inText := false
	for {
		tok, err := d.Token()
		if err == io.EOF {
			return paths, texts
		}
		require.NoError(t, err, "the drawing must be well-formed")
		switch e := tok.(type) {
		case xml.StartElement:
			inText = e.Name.Local == "text"
			if e.Name.Local == "path" {
				paths++
			}
		case xml.CharData:
			if inText {
				texts = append(texts, string(e))
			}
		}
	}
}

func TestDrawings(t *testing.T) {
	sh := load(t, overhand)
	require.Equal(t, 2, sh.Steps())
	seen := map[string]bool{}
	for _, view := range draw.Views {
		for step := 0; step <= 2; step++ {
			svg := draw.SVG(sh, draw.Options{View: view, Step: float64(step), Look: draw.LookLaid, Labels: true, Ghost: true, Title: "Over & under"})
			paths, texts := parsePaths(t, svg)
			assert.Greater(t, paths, 4)
			assert.Contains(t, texts, "working end")
			assert.Contains(t, svg, "<title>Over &amp; under</title>")
			assert.Equal(t, step > 0, strings.Contains(svg, "data-moved"), "the moved part is accented from the first step on")
			assert.Equal(t, step < 2, strings.Contains(svg, "data-ghost"), "the next move is shown until the last step")
			assert.Less(t, len(svg), 40_000)
			if step == 2 {
				assert.False(t, seen[svg], "every view of the finished knot differs")
				seen[svg] = true
			}
		}
	}
	whole := draw.SVG(sh, draw.Options{Step: -1})
	assert.NotContains(t, whole, "data-moved")
	// Three crossings: three gaps, so the rope is drawn in four pieces.
	assert.Equal(t, 4, strings.Count(whole, `stroke-width="0.7"/>`)-strings.Count(whole, `stroke="#000"`)-1)
}

func TestHalfwayStepsMoveTheEnd(t *testing.T) {
	sh := load(t, overhand)
	last := ""
	for k := range 9 {
		svg := draw.SVG(sh, draw.Options{Step: float64(k) / 4})
		assert.NotEqual(t, last, svg)
		last = svg
	}
}

// In two tones the end's half is lighter, from halfway between the first and the last crossing.
func TestTones(t *testing.T) {
	sh := load(t, overhand)
	plain := draw.SVG(sh, draw.Options{Step: -1})
	toned := draw.SVG(sh, draw.Options{Step: -1, Tones: true})
	assert.NotContains(t, plain, "data-toned")
	assert.Contains(t, toned, "data-toned")
	assert.Greater(t, len(toned), len(plain))
}
