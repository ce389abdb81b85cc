package practice

import (
	"fmt"
	"slices"
	"strings"
	"unicode"

	"oarweed/core/name"
)

// RosterRow is one learner of a list to be taken in.
type RosterRow struct {
	// Row is its number in the file, from 1.
	Row     int     `json:"row"`
	Learner Learner `json:"learner"`
	// Trouble says why it cannot be taken in; empty if it can.
	Trouble string `json:"trouble,omitempty"`
	// Like names a learner, or an earlier row, of nearly this name.
	Like string `json:"like,omitempty"`
	// LikeID is that learner's; 0 for an earlier row.
	LikeID int64 `json:"like_id,omitempty"`
	// Same: the name is the very same.
	Same bool `json:"same,omitempty"`
}

// columns of a roster by the words that head them, in any language a school here uses.
var columns = map[string]string{
	"name": "name", "learner": "name", "pupil": "name", "student": "name", "navn": "name",
	"group": "groups", "groups": "groups", "class": "groups", "crew": "groups",
	"hand": "hand", "craft": "craft", "boat": "craft", "course": "course", "note": "note", "notes": "note", "remarks": "note",
	"first name": "first", "given name": "first", "last name": "last", "surname": "last", "family name": "last",
}

// ReadRoster reads a table, the first row of which may name its columns; without that the
// first column is the name and the second the group. there are the learners known already.
func ReadRoster(table [][]string, there []Learner) []RosterRow {
	heads, from := []string{"name", "groups"}, 0
	if len(table) > 0 {
		var found []string
		known := false
		for _, cell := range table[0] {
			c := columns[strings.ToLower(strings.TrimSpace(cell))]
			found = append(found, c)
			known = known || c != ""
		}
		if known {
			heads, from = found, 1
		}
	}
	var out []RosterRow
	for i := from; i < len(table); i++ {
		r := RosterRow{Row: i + 1}
		var first, last string
		blank := true
		for k, cell := range table[i] {
			cell = strings.TrimSpace(cell)
			if cell != "" {
				blank = false
			}
			if k >= len(heads) {
				continue
			}
			l := &r.Learner
			switch heads[k] {
			case "name":
				l.Name = cell
			case "first":
				first = cell
			case "last":
				last = cell
			case "groups":
				for _, g := range strings.FieldsFunc(cell, func(c rune) bool { return c == ';' || c == ',' || c == '/' }) {
					l.Groups = append(l.Groups, strings.TrimSpace(g))
				}
			case "hand":
				l.Hand = strings.ToLower(cell)
			case "craft":
				l.Craft = cell
			case "course":
				l.Course = cell
			case "note":
				l.Note = cell
			}
		}
		if blank {
			continue
		}
		if r.Learner.Name == "" {
			r.Learner.Name = strings.TrimSpace(first + " " + last)
		}
		if err := r.Learner.Clean(); err != nil {
			r.Trouble = err.Error()
		}
		r.alike(there, out)
		out = append(out, r)
	}
	return out
}

// alike looks for a learner, or an earlier row, of the same or nearly the same name.
func (r *RosterRow) alike(there []Learner, before []RosterRow) {
	if r.Trouble != "" {
		return
	}
	for _, l := range there {
		if same := name.Key(l.Name) == name.Key(r.Learner.Name); same || Alike(l.Name, r.Learner.Name) {
			r.Like, r.LikeID, r.Same = l.Name, l.ID, same
			if same {
				return
			}
		}
	}
	if r.Like != "" {
		return
	}
	for _, b := range before {
		if same := name.Key(b.Learner.Name) == name.Key(r.Learner.Name); b.Trouble == "" && (same || Alike(b.Learner.Name, r.Learner.Name)) {
			r.Like, r.Same = fmt.Sprintf("%s in row %d", b.Learner.Name, b.Row), same
			return
		}
	}
}

// Alike reports whether two names are nearly the same: one letter more, fewer or other, or
// the same words in another order. Names of three letters or fewer are never alike.
func Alike(a, b string) bool {
	x, y := letters(a), letters(b)
	if slices.Equal(x, y) {
		return true
	}
	if min(len(x), len(y)) < 4 {
		return false
	}
	words := func(s string) []string {
		w := strings.Fields(name.Key(strings.ReplaceAll(s, ",", " ")))
		slices.Sort(w)
		return w
	}
	return slices.Equal(words(a), words(b)) || distance(x, y) == 1
}

// letters of a name, folded, without what stands between them.
func letters(s string) []rune {
	var out []rune
	for _, r := range name.Key(s) {
		if unicode.IsLetter(r) {
			out = append(out, r)
		}
	}
	return out
}

// distance counts the letters by which two words differ (Levenshtein 1966).
func distance(a, b []rune) int {
	row := make([]int, len(b)+1)
	for j := range row {
		row[j] = j
	}
	for i, x := range a {
		before := row[0]
		row[0] = i + 1
		for j, y := range b {
			was := row[j+1]
			put := before
			if x != y {
				put++
			}
			row[j+1] = min(put, row[j]+1, was+1)
			before = was
		}
	}
	return row[len(b)]
}
