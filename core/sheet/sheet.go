// Package sheet puts records into a table and reads them back: a row for each record, or one for
// each of its parts where it has several. Rows of one record bear the same name; what belongs to
// the record itself stands in the first of them and may be left out of the rest.
package sheet

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"oarweed/core/problem"
)

// Column is one field of a record.
type Column[T any] struct {
	Name string
	Get  func(*T) string
	// Set reads a cell that is not empty; the error says what is wrong with it.
	Set func(*T, string) error
}

// Parts are what a record has several of.
type Parts[T any] struct {
	N func(*T) int
	// Grow adds an empty one.
	Grow    func(*T)
	Columns []PartColumn[T]
}

// PartColumn is one field of a part.
type PartColumn[T any] struct {
	Name string
	Get  func(*T, int) string
	Set  func(*T, int, string) error
}

// Sheet is how records of a kind stand in a table. The first column names the record.
type Sheet[T any] struct {
	Columns []Column[T]
	Parts   *Parts[T]
}

// Head is the first row.
func (s Sheet[T]) Head() []string {
	var out []string
	for _, c := range s.Columns {
		out = append(out, c.Name)
	}
	if s.Parts != nil {
		for _, c := range s.Parts.Columns {
			out = append(out, c.Name)
		}
	}
	return out
}

// Write gives the table of records, its head first.
func (s Sheet[T]) Write(list []T) [][]string {
	out := [][]string{s.Head()}
	for i := range list {
		x := &list[i]
		n := 1
		if s.Parts != nil {
			n = max(1, s.Parts.N(x))
		}
		for k := range n {
			row := make([]string, 0, len(out[0]))
			for c, col := range s.Columns {
				if k == 0 || c == 0 {
					row = append(row, col.Get(x))
				} else {
					row = append(row, "")
				}
			}
			if s.Parts != nil {
				for _, col := range s.Parts.Columns {
					if k < s.Parts.N(x) {
						row = append(row, col.Get(x, k))
					} else {
						row = append(row, "")
					}
				}
			}
			out = append(out, row)
		}
	}
	return out
}

// Read is a record with the row in which it begins, counted as a spreadsheet does.
type Read[T any] struct {
	Row    int
	Record T
}

// Read reads a table back. fresh makes an empty record. Columns are known by their names, in any
// order; those that are not known are given back. The error names row and column of every cell
// that cannot be read.
func (s Sheet[T]) Read(table [][]string, fresh func() T) (out []Read[T], unknown []string, err error) {
	if len(table) == 0 {
		return nil, nil, problem.New("file", "is empty", "give a table with a head")
	}
	at := map[string]int{}
	for i, h := range table[0] {
		h = plain(h)
		at[strings.ToLower(h)] = i
		if h != "" && !slices.Contains(s.Head(), strings.ToLower(h)) {
			unknown = append(unknown, h)
		}
	}
	key := s.Columns[0].Name
	if _, ok := at[key]; !ok {
		return nil, unknown, problem.New("file", "has no column "+key, "name the columns in the first row: "+strings.Join(s.Head(), ", "))
	}
	var bad problem.List
	cell := func(row []string, name string) string {
		if i, ok := at[name]; ok && i < len(row) {
			return plain(row[i])
		}
		return ""
	}
	known := map[string]int{}
	for n, row := range table[1:] {
		line := n + 2
		name := cell(row, key)
		if name == "" {
			if !slices.ContainsFunc(row, func(c string) bool { return plain(c) != "" }) {
				continue // an empty line
			}
			bad.Add(where(line, key), "is empty", "say which it is")
			continue
		}
		i, again := known[name]
		if !again || s.Parts == nil {
			i = len(out)
			known[name] = i
			out = append(out, Read[T]{line, fresh()})
		}
		x := &out[i].Record
		for _, c := range s.Columns {
			if text := cell(row, c.Name); text != "" && c.Set != nil {
				bad.Take(where(line, c.Name), c.Set(x, text))
			}
		}
		if s.Parts == nil {
			continue
		}
		begun := false
		for _, c := range s.Parts.Columns {
			text := cell(row, c.Name)
			if text == "" || c.Set == nil {
				continue
			}
			if !begun {
				begun = true
				s.Parts.Grow(x)
			}
			bad.Take(where(line, c.Name), c.Set(x, s.Parts.N(x)-1, text))
		}
	}
	return out, unknown, bad.Err()
}

func where(row int, column string) string { return fmt.Sprintf("row %d, %s", row, column) }

// plain is a cell without blanks about it and without the apostrophe that keeps a spreadsheet
// from taking it for a formula.
func plain(c string) string {
	c = strings.TrimSpace(strings.TrimPrefix(c, "\ufeff"))
	if len(c) > 1 && c[0] == '\'' && strings.ContainsRune("=+-@", rune(c[1])) {
		c = c[1:]
	}
	return c
}

// Number writes a number; nothing for zero.
func Number(v float64) string {
	if v == 0 {
		return ""
	}
	return strconv.FormatFloat(v, 'f', -1, 64)
}

// ToNumber reads one, with a point or a comma.
func ToNumber(text string) (float64, error) {
	v, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64)
	if err != nil || v != v {
		return 0, problem.New("", fmt.Sprintf("%q is no number", text), "write it in digits")
	}
	return v, nil
}

// Text is a column of text; Num one of a number, Int one of a count.
func Text[T any](name string, at func(*T) *string) Column[T] {
	return Column[T]{name, func(x *T) string { return *at(x) }, func(x *T, s string) error { *at(x) = s; return nil }}
}

// Num is a column of a number.
func Num[T any](name string, at func(*T) *float64) Column[T] {
	return Column[T]{name, func(x *T) string { return Number(*at(x)) }, func(x *T, s string) (err error) { *at(x), err = ToNumber(s); return }}
}

// Int is a column of a count.
func Int[T any](name string, at func(*T) *int) Column[T] {
	return Column[T]{name, func(x *T) string { return Number(float64(*at(x))) }, func(x *T, s string) error {
		v, err := ToNumber(s)
		if err == nil && v != float64(int(v)) {
			err = problem.New("", fmt.Sprintf("%q is no count", s), "write a whole number")
		}
		*at(x) = int(v)
		return err
	}}
}

// Part makes a column of a record one of its parts.
func Part[T, P any](c Column[P], at func(*T, int) *P) PartColumn[T] {
	return PartColumn[T]{c.Name, func(x *T, i int) string { return c.Get(at(x, i)) }, func(x *T, i int, s string) error { return c.Set(at(x, i), s) }}
}
