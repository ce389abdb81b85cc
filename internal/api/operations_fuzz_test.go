package api_test

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"net/url"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
)

// Whatever is sent to any operation, the answer is one that was meant: never the server's
// fault, and JSON where it says so.
func FuzzOperations(f *testing.F) {
	cat, err := catalogue.Load()
	require.NoError(f, err)
	h, a := handler(f)
	var operations []string
	for path, item := range a.OpenAPI().Paths {
		for method, o := range map[string]any{"GET": item.Get, "POST": item.Post, "PUT": item.Put, "DELETE": item.Delete} {
			if fmt.Sprint(o) != "<nil>" {
				operations = append(operations, method+" "+path)
			}
		}
	}
	slices.Sort(operations)
	rig, err := json.Marshal(cat.Templates[0].Rig)
	require.NoError(f, err)
	for i := range operations {
		f.Add(uint8(i), "bowline", "", string(rig))
		f.Add(uint8(i), "1", "material=polyester&diameter=12mm&load=1e308kN&x=load&y=tail&columns=9&rows=9", `{"rig":`+string(rig)+`}`)
		f.Add(uint8(i), "wind", "loa=30ft&wind=NaN&step=-1&set=ao&text=1e308m&kind=length&cursor=A", `{"name":"\u0000","learner_id":1,"knot":"bowline","outcome":"right","at":"9999-12-31T23:59:59Z"}`)
	}
	f.Fuzz(func(t *testing.T, which uint8, id, query, sent string) {
		method, path, _ := strings.Cut(operations[int(which)%len(operations)], " ")
		for _, name := range []string{"{id}", "{kind}", "{key}", "{code}"} {
			path = strings.ReplaceAll(path, name, url.PathEscape(id))
		}
		values, _ := url.ParseQuery(query)
		req := httptest.NewRequest(method, "http://localhost"+path+"?"+values.Encode(), strings.NewReader(sent))
		req.Header.Set("Content-Type", "application/json")
		if strings.HasSuffix(path, "/live") { // it ends when its reader leaves
			ctx, leave := context.WithTimeout(req.Context(), 100*time.Millisecond)
			defer leave()
			req = req.WithContext(ctx)
		}
		w := httptest.NewRecorder()
		h.ServeHTTP(w, req)
		said := w.Body.String()
		if w.Code >= http.StatusInternalServerError {
			t.Fatalf("%s %s?%s: %d %.300s", method, path, values.Encode(), w.Code, said)
		}
		if kind := w.Header().Get("Content-Type"); strings.Contains(kind, "json") && !strings.Contains(kind, "ndjson") && said != "" && !json.Valid([]byte(said)) {
			t.Fatalf("%s %s?%s: not JSON: %.300s", method, path, values.Encode(), said)
		}
	})
}
