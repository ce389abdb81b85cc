package app

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"

	"oarweed/core/problem"
	"oarweed/core/say"
	"oarweed/core/sheet"
)

// TakenFile says what a file of records came to, or would.
type TakenFile struct {
	// Kept: it was taken in; else it was only read.
	Kept  bool `json:"kept"`
	New   int  `json:"new"`
	There int  `json:"there" doc:"there already, and left as they are"`
	// Unknown are columns that are not read.
	Unknown []string `json:"unknown" nullable:"false"`
	// Names of the first records, as they were read.
	Names []string `json:"names" nullable:"false"`
	Says  string   `json:"says"`
}

// mostNames of a preview.
const mostNames = 12

// file is how records of a kind go out and come in.
type file interface {
	table(context.Context, *School) ([][]string, error)
	records(context.Context, *School) (any, error)
	fromTable(context.Context, *School, [][]string, bool) (*TakenFile, error)
	fromJSON(context.Context, *School, []byte, bool) (*TakenFile, error)
}

// fileOf is a file of records of one form.
type fileOf[T any] struct {
	sheet sheet.Sheet[T]
	fresh func() T
	list  func(context.Context, *School) ([]T, error)
	// name of a record, by which it is known to be there already.
	name  func(*T) string
	check func(context.Context, *School, []*T) error
	// add keeps them all.
	add func(context.Context, *School, []T) error
}

func (f fileOf[T]) table(ctx context.Context, s *School) ([][]string, error) {
	list, err := f.list(ctx, s)
	return f.sheet.Write(list), err
}

func (f fileOf[T]) records(ctx context.Context, s *School) (any, error) { return f.list(ctx, s) }

func (f fileOf[T]) fromTable(ctx context.Context, s *School, table [][]string, keep bool) (*TakenFile, error) {
	read, unknown, err := f.sheet.Read(table, f.fresh)
	if err != nil {
		return nil, err
	}
	list := make([]T, len(read))
	for i, r := range read {
		list[i] = r.Record
	}
	return f.take(ctx, s, list, func(i int) string { return fmt.Sprintf("row %d", read[i].Row) }, unknown, keep)
}

func (f fileOf[T]) fromJSON(ctx context.Context, s *School, text []byte, keep bool) (*TakenFile, error) {
	var list []T
	if err := json.Unmarshal(text, &list); err != nil {
		return nil, problem.New("file", "is not a list of these records: "+err.Error(), "give a file that was given out here")
	}
	return f.take(ctx, s, list, rowAt, nil, keep)
}

// rowAt names a record of a list.
func rowAt(i int) string { return fmt.Sprintf("[%d]", i) }

// take checks all of them and keeps the new ones, or none if one is wrong.
func (f fileOf[T]) take(ctx context.Context, s *School, list []T, at func(int) string, unknown []string, keep bool) (*TakenFile, error) {
	var bad problem.List
	for i := range list {
		bad.Take(at(i), f.check(ctx, s, []*T{&list[i]}))
	}
	if err := bad.Err(); err != nil {
		return nil, err
	}
	kept, err := f.list(ctx, s)
	if err != nil {
		return nil, err
	}
	there := map[string]bool{}
	for i := range kept {
		there[f.name(&kept[i])] = true
	}
	out := &TakenFile{Kept: keep, Unknown: append([]string{}, unknown...), Names: []string{}}
	var fresh []T
	for _, x := range list {
		n := f.name(&x)
		if there[n] {
			out.There++
			continue
		}
		there[n] = true
		out.New++
		fresh = append(fresh, x)
		if len(out.Names) < mostNames {
			out.Names = append(out.Names, n)
		}
	}
	out.Says = say.TakenFile(out.New, out.There, keep)
	if keep {
		return out, f.add(ctx, s, fresh)
	}
	return out, nil
}

// each keeps records one by one.
func each[T any](save func(*School, context.Context, T) (T, error)) func(context.Context, *School, []T) error {
	return func(ctx context.Context, s *School, list []T) error {
		for _, x := range list {
			if _, err := save(s, ctx, x); err != nil {
				return err
			}
		}
		return nil
	}
}

// Files are the kinds of records that go out and come in as files.
var files = map[string]file{
	"locker":    lockerFile,
	"use":       useFile,
	"leaders":   leaderFile,
	"tow-lines": towFile,
	"moorings":  berthFile,
}

// FileKinds are their names.
func FileKinds() []string { return []string{"locker", "use", "leaders", "tow-lines", "moorings"} }

func fileNamed(kind string) (file, error) {
	f, ok := files[kind]
	if !ok {
		return nil, problem.New("kind", fmt.Sprintf("%q is not known", kind), "use "+strings.Join(FileKinds(), ", "))
	}
	return f, nil
}

// TableOf gives records of a kind as a table, its head first; RecordsOf as they are kept.
func (s *School) TableOf(ctx context.Context, kind string) ([][]string, error) {
	f, err := fileNamed(kind)
	if err != nil {
		return nil, err
	}
	return f.table(ctx, s)
}

// RecordsOf gives records of a kind as they are kept.
func (s *School) RecordsOf(ctx context.Context, kind string) (any, error) {
	f, err := fileNamed(kind)
	if err != nil {
		return nil, err
	}
	return f.records(ctx, s)
}

// TakeTable takes records of a kind in from a table, all of it or nothing; unless keep says so it
// only reads it. The error names row and column.
func (s *School) TakeTable(ctx context.Context, kind string, table [][]string, keep bool) (*TakenFile, error) {
	f, err := fileNamed(kind)
	if err != nil {
		return nil, err
	}
	return f.fromTable(ctx, s, table, keep)
}

// TakeRecords does so from JSON.
func (s *School) TakeRecords(ctx context.Context, kind string, text []byte, keep bool) (*TakenFile, error) {
	f, err := fileNamed(kind)
	if err != nil {
		return nil, err
	}
	return f.fromJSON(ctx, s, text, keep)
}
