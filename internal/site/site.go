// Package site serves the built front end from an embedded file system:
// fingerprinted assets for a year, the page itself always asked for again,
// compressed copies where they exist.
package site

import (
	"crypto/sha256"
	"encoding/hex"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"
)

type file struct {
	plain, gz []byte
	kind, tag string
}

// Handler serves dist. A path that is not a file gives index.html, so that the
// views of the application have addresses; a missing asset is 404.
func Handler(dist fs.FS) (http.Handler, error) {
	files := map[string]*file{}
	err := fs.WalkDir(dist, ".", func(name string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		text, err := fs.ReadFile(dist, name)
		if err != nil {
			return err
		}
		if base, ok := strings.CutSuffix(name, ".gz"); ok {
			entry(files, base).gz = text
			return nil
		}
		f := entry(files, name)
		sum := sha256.Sum256(text)
		f.plain, f.tag = text, `"`+hex.EncodeToString(sum[:8])+`"`
		f.kind = mime.TypeByExtension(path.Ext(name))
		return nil
	})
	if err != nil {
		return nil, err
	}
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		f := files[name]
		h := w.Header()
		switch {
		case f != nil && strings.HasPrefix(name, "assets/"):
			h.Set("Cache-Control", "public, max-age=31536000, immutable")
		case f != nil && name != "index.html":
			h.Set("Cache-Control", "max-age=3600")
		case strings.HasPrefix(name, "assets/"):
			http.Error(w, "no such file", http.StatusNotFound)
			return
		default:
			f = files["index.html"]
			h.Set("Cache-Control", "no-cache")
		}
		if f == nil || f.plain == nil {
			http.Error(w, "The front end is not built: run make build.", http.StatusServiceUnavailable)
			return
		}
		h.Set("ETag", f.tag)
		h.Set("Content-Type", f.kind)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Vary", "Accept-Encoding")
		if r.Header.Get("If-None-Match") == f.tag {
			w.WriteHeader(http.StatusNotModified)
			return
		}
		text := f.plain
		if f.gz != nil && strings.Contains(r.Header.Get("Accept-Encoding"), "gzip") {
			h.Set("Content-Encoding", "gzip")
			text = f.gz
		}
		w.WriteHeader(http.StatusOK)
		if r.Method != http.MethodHead {
			_, _ = w.Write(text)
		}
	}), nil
}

func entry(files map[string]*file, name string) *file {
	if files[name] == nil {
		files[name] = &file{}
	}
	return files[name]
}
