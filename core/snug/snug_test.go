package snug_test

import (
	"bytes"
	"encoding/base64"
	"encoding/binary"
	"encoding/json"
	"encoding/xml"
	"io"
	"math"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"

	"oarweed/core/shape"
	"oarweed/core/snug"
)

// lifted is a knot of the catalogue as a run begins with it.
func lifted(t *testing.T, id string) []snug.Strand {
	t.Helper()
	return snug.Lift(source(t, id), strings.Contains(id, "bowline"))
}

func source(t *testing.T, id string) *shape.Shape {
	t.Helper()
	text, err := os.ReadFile("../../catalogue/shapes/" + id + ".knot")
	require.NoError(t, err)
	sh, err := shape.Load(string(text))
	require.NoError(t, err)
	return sh
}

// Lengths of ideal knots, in diameters: knot-tightening literature, from memory; a ring and
// two linked rings are exact.
func TestIdealKnotsAreAsLongAsPublished(t *testing.T) {
	for _, x := range []struct {
		knot         string
		length, most float64
	}{
		{"unknot", math.Pi, 0.005},
		{"hopf", 4 * math.Pi, 0.005},
		{"trefoil", 16.37, 0.005},
		{"figure-eight", 21.04, 0.005},
		{"5_1", 23.55, 0.01},
		{"5_2", 24.74, 0.01},
	} {
		t.Run(x.knot, func(t *testing.T) {
			t.Parallel()
			l, err := snug.IdealLength(x.knot)
			require.NoError(t, err)
			assert.InEpsilon(t, x.length, l, x.most)
			t.Logf("%s: %.3f, published %.3f, %+.2f %%", x.knot, l, x.length, 100*(l/x.length-1))
		})
	}
	_, err := snug.IdealLength("granny")
	assert.ErrorContains(t, err, "trefoil", "the error names the knots there are")
}

// Line that open knots take, in diameters. Overhand and figure eight: knot-tightening
// literature, from memory. Others: an earlier trial of our own, within a tenth, and the
// bowline and the double overhand somewhat less, as the trial counted line up to the eye.
func TestOpenKnotsTakeTheLineTheyTake(t *testing.T) {
	for _, x := range []struct {
		knot      string
		low, high float64
		shortened bool
	}{
		{"overhand", 10.1, 10.3, true},
		{"figure-eight", 13.6, 14.0, true},
		{"double-overhand", 17, 20, true},
		{"triple-overhand", 25, 29, true},
		{"reef-knot", 9.2, 11.2, false},
		{"bowline", 23, 29, false},
	} {
		b := committed(t, x.knot)
		for _, r := range b.Ropes {
			got := r.Consumed
			if x.shortened {
				got = r.Shortened
			}
			assert.True(t, x.low <= got && got <= x.high, "%s: %.1f, want %.1f to %.1f", x.knot, got, x.low, x.high)
		}
		assert.GreaterOrEqual(t, b.ContactMin, 0.999, x.knot)
	}
	// Why a triple is chosen where the hole is large, and a figure eight hardly helps.
	assert.Greater(t, committed(t, "triple-overhand").Bulk.Across, 1.15*committed(t, "figure-eight").Bulk.Across)
	assert.InEpsilon(t, 3.2, committed(t, "overhand").Bulk.Across, 0.05)
	assert.InEpsilon(t, 3.3, committed(t, "figure-eight").Bulk.Across, 0.05)
	assert.InEpsilon(t, 4.0, committed(t, "triple-overhand").Bulk.Across, 0.05)
}

func committed(t *testing.T, id string) *snug.Built {
	t.Helper()
	text, err := os.ReadFile("../../catalogue/snug/" + id + ".json")
	require.NoError(t, err)
	b, err := snug.Read(text)
	require.NoError(t, err)
	return b
}

// What is committed is what comes out now, on this machine, every time.
func TestABuiltKnotIsWhatIsCommitted(t *testing.T) {
	for _, id := range []string{"overhand", "cow-hitch", "reef-knot"} {
		t.Run(id, func(t *testing.T) {
			t.Parallel()
			got, want := snug.Build(id, lifted(t, id), nil), committed(t, id)
			got.Seconds, want.Seconds = 0, 0
			assert.Equal(t, want, got)
		})
	}
}

// Without contact ropes pass through one another: that is seen, and nothing is given.
func TestTheGuardSeesRopesPassThroughOneAnother(t *testing.T) {
	for _, id := range []string{"overhand", "reef-knot", "bowline"} {
		p := snug.Dress
		p.Blind = true
		out, err := snug.Tighten(lifted(t, id), p)
		require.ErrorIs(t, err, snug.ErrThrough, id)
		assert.Nil(t, out)
	}
}

func TestTubesThatOverlapAreNotBegunWith(t *testing.T) {
	straight := func(z float64, vertical bool) snug.Strand {
		s := snug.Strand{D: 1, Held: []int{0, 40}}
		for i := range 41 {
			x := float64(i-20) / 5
			v := r3.Vec{X: x, Z: z}
			if vertical {
				v = r3.Vec{Y: x, Z: z}
			}
			s.Nodes = append(s.Nodes, v)
		}
		return s
	}
	_, err := snug.Tighten([]snug.Strand{straight(0, false), straight(0.4, true)}, snug.Dress)
	require.ErrorIs(t, err, snug.ErrOverlap)
	out, err := snug.Tighten([]snug.Strand{straight(0, false), straight(1.1, true)}, snug.Dress)
	require.NoError(t, err)
	assert.Greater(t, snug.Thickness(out), 0.999, "what has room is given back apart")
	// A thick line and a thin one stay apart by the half of both.
	thick := straight(0.7, true)
	_, err = snug.Tighten([]snug.Strand{straight(0, false), thick}, snug.Dress)
	require.NoError(t, err)
	thick.D = 2
	_, err = snug.Tighten([]snug.Strand{straight(0, false), thick}, snug.Dress)
	require.ErrorIs(t, err, snug.ErrOverlap)
}

// Every edge of a closed surface belongs to two triangles, which run along it in opposite
// directions: only such a tube can be printed.
func TestThePrintedModelIsClosed(t *testing.T) {
	for _, id := range []string{"overhand", "clove-hitch"} {
		b := committed(t, id)
		stl := b.STL(10)
		require.Greater(t, len(stl), 84)
		n := int(binary.LittleEndian.Uint32(stl[80:84]))
		require.Equal(t, 84+50*n, len(stl))
		type point [3]float32
		edges := map[[2]point]int{}
		var volume float64
		wide := float32(0)
		for i := range n {
			var p [3]point
			require.NoError(t, binary.Read(bytes.NewReader(stl[84+50*i+12:84+50*i+48]), binary.LittleEndian, &p))
			for k := range 3 {
				edges[[2]point{p[k], p[(k+1)%3]}]++
				wide = max(wide, p[k][0])
			}
			a, b, c := vec(p[0]), vec(p[1]), vec(p[2])
			volume += r3.Dot(a, r3.Cross(b, c)) / 6
		}
		for e, k := range edges {
			require.Equal(t, 1, k, id)
			require.Equal(t, 1, edges[[2]point{e[1], e[0]}], id)
		}
		var tubes float64
		for _, s := range b.At(b.Last()) {
			l := 0.0
			for i := 1; i < len(s.Nodes); i++ {
				l += r3.Norm(r3.Sub(s.Nodes[i], s.Nodes[i-1]))
			}
			if s.Closed {
				l += r3.Norm(r3.Sub(s.Nodes[0], s.Nodes[len(s.Nodes)-1]))
			}
			tubes += 1000 * l * math.Pi * s.D * s.D / 4
		}
		assert.InEpsilon(t, tubes, volume, 0.06, "%s: turned outward, in cubic millimetres", id)
		assert.Greater(t, wide, float32(10))
	}
}

func vec(p [3]float32) r3.Vec { return r3.Vec{X: float64(p[0]), Y: float64(p[1]), Z: float64(p[2])} }

// Khronos, glTF 2.0: what an importer asks for.
func TestTheModelIsGLTF(t *testing.T) {
	out, err := committed(t, "reef-knot").GLTF()
	require.NoError(t, err)
	var g struct {
		Asset   struct{ Version string }
		Buffers []struct {
			ByteLength int
			URI        string
		}
		BufferViews []struct{ ByteOffset, ByteLength int }
		Accessors   []struct {
			BufferView, ComponentType, Count int
			Type                             string
		}
		Meshes []struct {
			Primitives []struct {
				Attributes map[string]int
				Indices    int
			}
		}
	}
	require.NoError(t, json.Unmarshal(out, &g))
	assert.Equal(t, "2.0", g.Asset.Version)
	require.Len(t, g.Meshes, 2, "a rope each")
	data, err := base64.StdEncoding.DecodeString(strings.TrimPrefix(g.Buffers[0].URI, "data:application/octet-stream;base64,"))
	require.NoError(t, err)
	assert.Len(t, data, g.Buffers[0].ByteLength)
	for _, m := range g.Meshes {
		p := m.Primitives[0]
		points, faces := g.Accessors[p.Attributes["POSITION"]], g.Accessors[p.Indices]
		assert.Equal(t, points.Count, g.Accessors[p.Attributes["NORMAL"]].Count)
		v := g.BufferViews[faces.BufferView]
		assert.Equal(t, 4*faces.Count, v.ByteLength)
		assert.Zero(t, v.ByteOffset%4)
		for i := range faces.Count {
			require.Less(t, int(binary.LittleEndian.Uint32(data[v.ByteOffset+4*i:])), points.Count)
		}
	}
}

// Every knot that was tried reads, has what it takes or says why not, and is a figure that a
// phone loads at once.
func TestEveryKnotDrawnUpReadsAndIsDrawn(t *testing.T) {
	all, err := os.ReadDir("../../catalogue/snug")
	require.NoError(t, err)
	computed := 0
	for _, f := range all {
		id, ok := strings.CutSuffix(f.Name(), ".json")
		require.True(t, ok, f.Name())
		b := committed(t, id)
		assert.Equal(t, id, b.ID)
		if !b.Computed {
			assert.NotEmpty(t, b.Why, id)
			continue
		}
		computed++
		assert.GreaterOrEqual(t, b.ContactMin, 0.999, id)
		assert.NotEmpty(t, b.Ropes, id)
		loose, tight := snug.Length(ropes(b.At(0))), snug.Length(ropes(b.At(b.Last())))
		assert.Less(t, tight, loose, id)
		for _, left := range []bool{false, true} {
			svg := b.SVG(b.Last(), snug.View{Left: left, Look: snug.LookBraid}, id+" & <drawn up>")
			assert.Greater(t, len(svg), len(b.SVG(b.Last(), snug.View{Left: left, Look: snug.LookMono}, "")), "%s: its make shows", id)
			assert.Less(t, len(svg), 40_000, id)
			assert.True(t, wellFormed(svg), id)
			assert.Contains(t, svg, "&amp; &lt;")
			assert.NotContains(t, b.SVG(b.Last(), snug.View{Line: true}, id), "--object)", id)
		}
	}
	assert.GreaterOrEqual(t, computed, 48)
}

// Numbers point to the end, the standing part, the eye and where the ropes grip, and none lies
// on another.
func TestNumbersStandApartWhereTheyLook(t *testing.T) {
	b := committed(t, "bowline")
	marks := []snug.Mark{{snug.Body, "1"}, {snug.End, "2"}, {snug.End, "3"}, {snug.Eye, "4"}, {snug.Standing, "5"}}
	svg := b.SVG(b.Last(), snug.View{}, "Bowline", marks...)
	require.True(t, wellFormed(svg))
	circle := regexp.MustCompile(`<path d="M[-.0-9]+ [-.0-9]+L([-.0-9]+) ([-.0-9]+)"[^>]*/><circle cx="([-.0-9]+)" cy="([-.0-9]+)" r="([.0-9]+)"`)
	found := circle.FindAllStringSubmatch(svg, -1)
	require.Len(t, found, len(marks))
	at := func(m []string, k int) float64 {
		v, err := strconv.ParseFloat(m[k], 64)
		require.NoError(t, err)
		return v
	}
	for i, a := range found {
		for _, b := range found[:i] {
			assert.Greater(t, math.Hypot(at(a, 3)-at(b, 3), at(a, 4)-at(b, 4)), 2*at(a, 5))
		}
	}
	assert.Equal(t, found[1][1:3], found[2][1:3], "both at the end")
	up := func(i int) float64 { return -at(found[i], 2) }
	assert.Greater(t, up(4), up(0), "the standing part leaves upward of the knot")
	assert.Less(t, up(3), up(0), "the eye hangs below it")
}

func ropes(all []snug.Strand) []snug.Strand {
	return slices.DeleteFunc(all, func(s snug.Strand) bool { return s.Fixed })
}

func wellFormed(text string) bool {
	d := xml.NewDecoder(strings.NewReader(text))
	for {
		if _, err := d.Token(); err == io.EOF {
			return true
		} else if err != nil {
			return false
		}
	}
}
