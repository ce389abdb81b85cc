package catalogue_test

import (
	"io/fs"
	"os"
	"path/filepath"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/trade"
)

// A data file that was damaged is refused with its name, and never stops the program.
func FuzzDataFile(f *testing.F) {
	whole := fstest.MapFS{}
	root := os.DirFS(".")
	require.NoError(f, fs.WalkDir(root, ".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		switch filepath.Ext(path) {
		case ".yaml", ".knot", ".space":
			text, err := fs.ReadFile(root, path)
			if err != nil {
				return err
			}
			whole[path] = &fstest.MapFile{Data: text}
		}
		return nil
	}))
	for _, name := range []string{"knots/bowline.yaml", "tasks.yaml", "fittings.yaml", "doctrines.yaml", "templates.yaml", "shackle.yaml"} {
		f.Add(name, whole[name].Data)
		f.Add(name, whole[name].Data[:len(whole[name].Data)/2])
	}
	f.Fuzz(func(t *testing.T, name string, text []byte) {
		if _, ok := whole[name]; !ok || len(text) > 20_000 {
			return
		}
		other := fstest.MapFS{}
		for k, v := range whole {
			other[k] = v
		}
		other[name] = &fstest.MapFile{Data: text}
		_, _ = catalogue.LoadFrom(other)
	})
}

// What is no packed catalogue is refused.
func FuzzUnpack(f *testing.F) {
	c, err := catalogue.Load()
	require.NoError(f, err)
	packed, err := c.Pack()
	require.NoError(f, err)
	f.Add(packed[:2000])
	f.Add([]byte{})
	f.Fuzz(func(t *testing.T, text []byte) { _, _ = trade.Unpack(text) })
}
