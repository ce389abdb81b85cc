package app

import (
	"context"
	"slices"

	"oarweed/core/practice"
)

// Notes lists what was added to knots, the last changed first.
func (s *School) Notes(ctx context.Context) ([]practice.Note, error) { return notesKept.list(ctx, s) }

// Note reads one.
func (s *School) Note(ctx context.Context, id int64) (practice.Note, error) {
	return notesKept.one(ctx, s, id)
}

// SaveNote keeps one.
func (s *School) SaveNote(ctx context.Context, n practice.Note) (practice.Note, error) {
	if err := n.Check(s.known); err != nil {
		return n, err
	}
	return notesKept.save(ctx, s, n)
}

// DeleteNote removes one.
func (s *School) DeleteNote(ctx context.Context, id int64) error {
	return s.records.DeleteDocument(ctx, noteKind, id)
}

// NotesOn lists what was added to one knot.
func (s *School) NotesOn(ctx context.Context, knot string) ([]practice.Note, error) {
	all, err := s.Notes(ctx)
	return slices.DeleteFunc(all, func(n practice.Note) bool { return n.Knot != knot }), err
}
