package snug

import (
	"bytes"
	"encoding/base64"
	"encoding/binary"
	"encoding/json"
	"fmt"
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// mesh is a tube of triangles round a strand, closed at its ends.
type mesh struct {
	points, normals []r3.Vec
	faces           [][3]uint32
}

// sides of a tube.
const sides = 14

// tube makes the mesh of a strand. Its frame is carried along without twist (parallel
// transport; Bishop, American Mathematical Monthly 82, 1975, from memory).
func (s Strand) tube() mesh {
	n := len(s.Nodes)
	var m mesh
	tangent := func(i int) r3.Vec { return r3.Unit(r3.Sub(s.at(i+1), s.at(i-1))) }
	t := tangent(0)
	u := r3.Cross(t, r3.Vec{Z: 1})
	if r3.Norm(u) < 0.1 {
		u = r3.Cross(t, r3.Vec{X: 1})
	}
	u = r3.Unit(u)
	for i := range n {
		next := tangent(i)
		// Turn the frame as the tangent turned.
		if axis := r3.Cross(t, next); r3.Norm(axis) > 1e-9 {
			u = r3.NewRotation(math.Asin(math.Min(1, r3.Norm(axis))), axis).Rotate(u)
		}
		t = next
		u = r3.Unit(r3.Sub(u, r3.Scale(r3.Dot(u, t), t)))
		v := r3.Cross(t, u)
		for k := range sides {
			sin, cos := math.Sincos(2 * math.Pi * float64(k) / sides)
			out := r3.Add(r3.Scale(cos, u), r3.Scale(sin, v))
			m.normals = append(m.normals, out)
			m.points = append(m.points, r3.Add(s.Nodes[i], r3.Scale(s.D/2, out)))
		}
	}
	quad := func(i, j int) {
		for k := range sides {
			a, b := uint32(i*sides+k), uint32(i*sides+(k+1)%sides)
			c, d := uint32(j*sides+k), uint32(j*sides+(k+1)%sides)
			m.faces = append(m.faces, [3]uint32{a, b, c}, [3]uint32{b, d, c})
		}
	}
	for i := range n - 1 {
		quad(i, i+1)
	}
	if s.Closed {
		quad(n-1, 0)
		return m
	}
	for _, end := range []int{0, n - 1} {
		c := uint32(len(m.points))
		out := tangent(end)
		if end == 0 {
			out = r3.Scale(-1, out)
		}
		m.points, m.normals = append(m.points, s.Nodes[end]), append(m.normals, out)
		for k := range sides {
			a, b := uint32(end*sides+k), uint32(end*sides+(k+1)%sides)
			if end == 0 {
				a, b = b, a
			}
			m.faces = append(m.faces, [3]uint32{c, a, b})
		}
	}
	return m
}

// STL is the knot drawn up as a binary STL to print, its rope so many millimetres thick.
func (b *Built) STL(mm float64) []byte {
	var out bytes.Buffer
	out.Write(fmt.Appendf(make([]byte, 0, 80), "%-80.80s", "Oarweed, "+b.ID+", millimetres"))
	var all []mesh
	count := uint32(0)
	for _, s := range b.At(b.Last()) {
		m := s.tube()
		all = append(all, m)
		count += uint32(len(m.faces))
	}
	put := func(v any) { _ = binary.Write(&out, binary.LittleEndian, v) }
	put(count)
	for _, m := range all {
		for _, f := range m.faces {
			p, q, r := m.points[f[0]], m.points[f[1]], m.points[f[2]]
			n := r3.Unit(r3.Cross(r3.Sub(q, p), r3.Sub(r, p)))
			for _, v := range []r3.Vec{n, r3.Scale(mm, p), r3.Scale(mm, q), r3.Scale(mm, r)} {
				put([3]float32{float32(v.X), float32(v.Y), float32(v.Z)})
			}
			put(uint16(0))
		}
	}
	return out.Bytes()
}

// GLTF is the knot drawn up as glTF 2.0 (Khronos), one mesh a strand, with its data inside;
// a diameter is one unit.
func (b *Built) GLTF() ([]byte, error) {
	type object = map[string]any
	var data bytes.Buffer
	var views, accessors, meshes, nodes []object
	colours := [][]float64{{0.72, 0.36, 0.04, 1}, {0.07, 0.3, 0.27, 1}}
	materials := []object{}
	for _, c := range append(colours, []float64{0.4, 0.45, 0.42, 1}) {
		materials = append(materials, object{"pbrMetallicRoughness": object{"baseColorFactor": c, "metallicFactor": 0, "roughnessFactor": 0.7}})
	}
	add := func(target int, write func()) int {
		at := data.Len()
		write()
		views = append(views, object{"buffer": 0, "byteOffset": at, "byteLength": data.Len() - at, "target": target})
		return len(views) - 1
	}
	vecs := func(list []r3.Vec) func() {
		return func() {
			for _, v := range list {
				_ = binary.Write(&data, binary.LittleEndian, [3]float32{float32(v.X), float32(v.Y), float32(v.Z)})
			}
		}
	}
	strands := b.At(b.Last())
	rope := ropeNumbers(strands)
	for i, s := range strands {
		m := s.tube()
		low, high := []float64{math.Inf(1), math.Inf(1), math.Inf(1)}, []float64{math.Inf(-1), math.Inf(-1), math.Inf(-1)}
		for _, p := range m.points {
			for k, x := range []float64{float64(float32(p.X)), float64(float32(p.Y)), float64(float32(p.Z))} {
				low[k], high[k] = math.Min(low[k], x), math.Max(high[k], x)
			}
		}
		points, normals := add(34962, vecs(m.points)), add(34962, vecs(m.normals))
		faces := add(34963, func() { _ = binary.Write(&data, binary.LittleEndian, m.faces) })
		accessors = append(accessors,
			object{"bufferView": points, "componentType": 5126, "count": len(m.points), "type": "VEC3", "min": low, "max": high},
			object{"bufferView": normals, "componentType": 5126, "count": len(m.normals), "type": "VEC3"},
			object{"bufferView": faces, "componentType": 5125, "count": 3 * len(m.faces), "type": "SCALAR"})
		material := rope[i] % 2
		if s.Fixed {
			material = 2
		}
		a := len(accessors)
		meshes = append(meshes, object{"primitives": []object{{"attributes": object{"POSITION": a - 3, "NORMAL": a - 2}, "indices": a - 1, "material": material}}})
		nodes = append(nodes, object{"mesh": len(meshes) - 1})
	}
	scene := []int{}
	for i := range nodes {
		scene = append(scene, i)
	}
	return json.Marshal(object{
		"asset": object{"version": "2.0", "generator": "Oarweed"}, "scene": 0, "scenes": []object{{"nodes": scene, "name": b.ID}},
		"nodes": nodes, "meshes": meshes, "materials": materials, "accessors": accessors, "bufferViews": views,
		"buffers": []object{{"byteLength": data.Len(), "uri": "data:application/octet-stream;base64," + base64.StdEncoding.EncodeToString(data.Bytes())}},
	})
}
