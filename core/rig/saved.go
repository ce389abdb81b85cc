package rig

import (
	"time"

	"oarweed/core/name"
	"oarweed/core/problem"
)

// Saved is a rig that is kept under its name.
type Saved struct {
	ID        int64     `json:"id" readOnly:"true"`
	ChangedAt time.Time `json:"changed_at" readOnly:"true"`
	// Revision counts the changes to the record.
	Revision int64    `json:"revision" readOnly:"true"`
	Rig      Document `json:"rig"`
}

// Check fills in the rig's defaults, so that it means the same later on, and puts its
// name in order. The error names each field.
func (s *Saved) Check(v *Vocabulary) error {
	var bad problem.List
	n, err := name.Clean(s.Rig.Name, 120)
	bad.Take("rig.name", err)
	full, err := v.Fill(s.Rig)
	bad.Take("rig", err)
	if err := bad.Err(); err != nil {
		return err
	}
	s.Rig = full
	s.Rig.Name = n
	return nil
}
