// Package locker keeps lines: what each is made of, where it lives, how it was found when it
// was looked over, and what it bears now.
package locker

import (
	"crypto/rand"
	"encoding/binary"
	"fmt"
	"slices"
	"strings"
	"time"

	"oarweed/core/name"
	"oarweed/core/problem"
	"oarweed/core/rig"
)

// Line is a line of the locker. Its length is what is left of it, its wear what was found
// when it was looked over.
type Line struct {
	ID int64 `json:"id" readOnly:"true"`
	// Code stands on its label and is what rigs, the log and leaders know it by.
	Code string `json:"code,omitempty" maxLength:"12" doc:"on its label; given when it is first kept"`
	Name string `json:"name" minLength:"1" maxLength:"80"`
	Note string `json:"note,omitempty" maxLength:"400"`
	// Revision counts the changes to the record.
	Revision int64 `json:"revision" readOnly:"true"`
	rig.Line
	Colour string `json:"colour,omitempty" enum:"white,natural,yellow,orange,red,green,blue,black,clear"`
	Lives  string `json:"lives,omitempty" maxLength:"80" doc:"where it is kept"`
	// Bought and RetireBy are days, as 2026-05-31.
	Bought   string `json:"bought,omitempty" maxLength:"10" doc:"day, as 2026-05-31"`
	RetireBy string `json:"retire_by,omitempty" maxLength:"10" doc:"day after which it is not used, as 2026-05-31"`
	// Hours and Trips before it was logged; the log adds its own.
	Hours float64 `json:"hours,omitempty" minimum:"0" maximum:"100000" doc:"used before the log"`
	Trips int     `json:"trips,omitempty" minimum:"0" maximum:"100000" doc:"used before the log"`
	// LookEvery is in how many days it is looked over; 0: as usual, [Every].
	LookEvery int    `json:"look_every_days,omitempty" minimum:"0" maximum:"3650"`
	Looks     []Look `json:"looks,omitempty" maxItems:"200" doc:"how it was found, the earliest first"`
	// Retired is the day on which it was taken out of use.
	Retired string `json:"retired,omitempty" maxLength:"10" doc:"day on which it was taken out of use"`
}

// Look is how a line was found when it was looked over.
type Look struct {
	At time.Time `json:"at" doc:"left out: now" required:"false"`
	By string    `json:"by" maxLength:"80"`
	// Grades of its parts, 0 as new to 3 retire it.
	Grades map[string]int `json:"grades" doc:"part: 0 as new, 1 marked, 2 worn, 3 retire it"`
	// Place along the line of the worst of it, in metres from its first end.
	PlaceM float64 `json:"place_m,omitempty" minimum:"0" maximum:"2000"`
	Note   string  `json:"note,omitempty" maxLength:"400"`
	// Photos of its parts, by part.
	Photos map[string]int64 `json:"photos,omitempty"`
}

// Parts of a line that are looked at.
var Parts = []string{"core", "chafe", "glaze", "stiffness", "splice"}

// Worst is the worst grade of a look.
func (k Look) Worst() (grade int) {
	for _, g := range k.Grades {
		grade = max(grade, g)
	}
	return grade
}

// Every is in how many days a line is looked over where nothing else is said: our own choice,
// twice in a season.
const Every = 90

const (
	mostLooks = 200
	dayForm   = "2006-01-02"
	clocks    = 10 * time.Minute // by which those of two devices differ
)

// Check fills in the line's construction and puts its words in order; its wear becomes what was
// found of it. The error names each field.
func (l *Line) Check(v *rig.Vocabulary, now time.Time) error {
	var bad problem.List
	n, err := name.Clean(l.Name, 80)
	bad.Take("name", err)
	l.Name = n
	for field, text := range map[string]*string{"note": &l.Note, "lives": &l.Lives} {
		most := map[string]int{"note": 400, "lives": 80}[field]
		if len([]rune(*text)) > most {
			bad.Add(field, "is too long", fmt.Sprintf("use %d letters at the most", most))
		}
	}
	if l.Code != "" && !Known(l.Code) {
		bad.Add("code", "is not one of a label", "leave it out: it is given")
	}
	if l.Colour != "" && !slices.Contains(Colours, l.Colour) {
		bad.Add("colour", fmt.Sprintf("%q is not known", l.Colour), "use "+strings.Join(Colours, ", "))
	}
	for field, day := range map[string]string{"bought": l.Bought, "retire_by": l.RetireBy, "retired": l.Retired} {
		if _, err := dayOf(day); err != nil {
			bad.Add(field, fmt.Sprintf("%q is no day", day), "write it as 2026-05-31, or leave it out")
		}
	}
	if !(l.Hours >= 0 && l.Hours <= 100_000) {
		bad.Add("hours", fmt.Sprintf("%g is no count of hours", l.Hours), "give 0 or more")
	}
	if l.Trips < 0 || l.Trips > 100_000 {
		bad.Add("trips", fmt.Sprintf("%d is no count", l.Trips), "give 0 or more")
	}
	if l.LookEvery < 0 || l.LookEvery > 3650 {
		bad.Add("look_every_days", fmt.Sprintf("%d is no count of days", l.LookEvery), "give 1 to 3650, or 0 for the usual")
	}
	if len(l.Looks) > mostLooks {
		bad.Add("looks", "are too many", fmt.Sprintf("keep the last %d", mostLooks))
	}
	for i := range l.Looks {
		bad.Take(fmt.Sprintf("looks[%d]", i), l.Looks[i].check(now))
	}
	slices.SortStableFunc(l.Looks, func(a, b Look) int { return a.At.Compare(b.At) })
	if len(l.Looks) > 0 {
		l.Wear = l.found()
	}
	bad.Take("", v.CheckLine(&l.Line))
	return bad.Err()
}

func (k *Look) check(now time.Time) error {
	var bad problem.List
	by, err := name.Clean(k.By, 80)
	bad.Take("by", err)
	k.By = by
	if k.At.IsZero() {
		k.At = now
	}
	if k.At.After(now.Add(clocks)) {
		bad.Add("at", "is in the future", "give the time, or leave it out")
	}
	k.At = k.At.UTC().Truncate(time.Second)
	if len(k.Grades) == 0 {
		bad.Add("grades", "are missing", "grade what you looked at: "+strings.Join(Parts, ", "))
	}
	for part, g := range k.Grades {
		if !slices.Contains(Parts, part) {
			bad.Add("grades", fmt.Sprintf("%q is no part", part), "use "+strings.Join(Parts, ", "))
		}
		if g < 0 || g > 3 {
			bad.Add("grades."+part, fmt.Sprintf("%d is no grade", g), "give 0 to 3")
		}
	}
	for part := range k.Photos {
		if _, ok := k.Grades[part]; !ok {
			bad.Add("photos."+part, "shows a part that is not graded", "grade it too")
		}
	}
	if !(k.PlaceM >= 0 && k.PlaceM <= 2000) {
		bad.Add("place_m", fmt.Sprintf("%g is no place along it", k.PlaceM), "give metres from its first end")
	}
	if len([]rune(k.Note)) > 400 {
		bad.Add("note", "is too long", "use 400 letters at the most")
	}
	return bad.Err()
}

// found is the worst grade of any part, each as it was last looked at: a look at the core alone
// says nothing of a cover that was found worn through.
func (l *Line) found() (grade int) {
	parts := map[string]int{}
	for _, k := range l.Looks {
		for part, g := range k.Grades {
			parts[part] = g
		}
	}
	return Look{Grades: parts}.Worst()
}

// Last look at it; nil before the first.
func (l *Line) Last() *Look {
	if len(l.Looks) == 0 {
		return nil
	}
	return &l.Looks[len(l.Looks)-1]
}

// Colours that a line is drawn in.
var Colours = []string{"white", "natural", "yellow", "orange", "red", "green", "blue", "black", "clear"}

func dayOf(text string) (time.Time, error) {
	if text == "" {
		return time.Time{}, nil
	}
	return time.Parse(dayForm, text)
}

// letters are read out without confusion (Crockford's base 32, from memory).
const letters = "0123456789ABCDEFGHJKMNPQRSTVWXYZ"

// NewCode makes a code: L, six letters, and one that shows a slip of the pen.
func NewCode() string {
	var b [8]byte
	_, _ = rand.Read(b[:]) // it never fails: see crypto/rand
	return codeOf(binary.BigEndian.Uint64(b[:]) >> 34)
}

func codeOf(n uint64) string {
	var b []byte
	for k := n; len(b) < 6; k /= 32 {
		b = append(b, letters[k%32])
	}
	slices.Reverse(b)
	return "L" + string(b) + "-" + string(letters[n%(1<<30)%31])
}

// CodeOf is the code of a line that was kept before lines had one.
func CodeOf(id int64) string { return codeOf(uint64(id)) }

// Known reports whether a code is one, as it stands on a label.
func Known(code string) bool {
	if len(code) != 9 || code[0] != 'L' || code[7] != '-' {
		return false
	}
	var n uint64
	for _, c := range code[1:7] {
		k := strings.IndexRune(letters, c)
		if k < 0 {
			return false
		}
		n = n*32 + uint64(k)
	}
	return letters[n%31] == code[8]
}
