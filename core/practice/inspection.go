package practice

import (
	"fmt"
	"strings"
	"time"

	"oarweed/core/name"
	"oarweed/core/problem"
	"oarweed/core/rig"
)

// Look is somebody who looked over a rig, and when.
type Look struct {
	Name string    `json:"name" minLength:"1" maxLength:"80"`
	At   time.Time `json:"at,omitzero" doc:"when; left out: now"`
}

// Inspection is a rig that people depend on, looked over by two before the weight came on.
// It says who looked and when, and approves nothing.
type Inspection struct {
	ID int64 `json:"id" readOnly:"true"`
	// Key is made by whoever sends it, so that sending it again makes no second record.
	Key string `json:"key,omitempty" maxLength:"64"`
	// Rig with one joint, as it was tied, and its Knot.
	Rig  rig.Document `json:"rig"`
	Knot string       `json:"knot"`
	// First is who tied or goes, Second who checked.
	First  Look   `json:"first"`
	Second Look   `json:"second"`
	Note   string `json:"note,omitempty" maxLength:"500"`
	// ReceivedAt is when it was written down here.
	ReceivedAt time.Time `json:"received_at,omitzero" readOnly:"true"`
}

// Check puts names and times in order and fills in the rig's defaults. known reports
// whether there is a knot of an id. The error names each field.
func (i *Inspection) Check(v *rig.Vocabulary, known func(string) bool, now time.Time) error {
	var l problem.List
	for path, look := range map[string]*Look{"first": &i.First, "second": &i.Second} {
		n, err := name.Clean(look.Name, 80)
		l.Take(path+".name", err)
		look.Name = n
		switch {
		case look.At.IsZero() || look.At.After(now) && look.At.Before(now.Add(clocksDiffer)):
			look.At = now
		case look.At.Before(time.Unix(0, 0)) || look.At.After(now):
			l.Add(path+".at", "is no time at which it can have been looked at", "give the time, or leave it out")
		}
		look.At = look.At.UTC().Truncate(time.Microsecond)
	}
	if i.First.Name != "" && strings.EqualFold(i.First.Name, i.Second.Name) {
		l.Add("second.name", "is the same person", "somebody else has to check")
	}
	if len(i.Note) > 500 {
		l.Add("note", "is too long", "use 500 letters at the most")
	}
	if !known(i.Knot) {
		l.Add("knot", fmt.Sprintf("%q is not in the catalogue", i.Knot), "choose a knot")
	}
	full, err := v.Fill(i.Rig)
	l.Take("rig", err)
	if err == nil {
		i.Rig = full
	}
	i.ReceivedAt = now.UTC().Truncate(time.Microsecond)
	return l.Err()
}
