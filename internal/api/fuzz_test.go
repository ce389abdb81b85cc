package api

import "testing"

// The crossings of a drill, as an address says them.
func FuzzParseSet(f *testing.F) {
	for _, s := range []string{"", "ao,bu", ",,", "o", "å", "ao,ao", "a\x00"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, text string) {
		set, err := parseSet(text)
		if err == nil && len(set) > len(text) {
			t.Fatalf("%q holds %d crossings", text, len(set))
		}
	})
}
