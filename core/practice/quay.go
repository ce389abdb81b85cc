package practice

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"oarweed/core/name"
	"oarweed/core/problem"
)

// Points at which what somebody made fast is judged on the quay.
var Points = []string{"lead", "crossings", "lock", "tail", "neat", "lets-go"}

// QuayRound is a walk along the quay: how things were made fast, judged by a learner, then
// by the instructor.
type QuayRound struct {
	ID       int64     `json:"id" readOnly:"true"`
	Revision int64     `json:"revision" readOnly:"true"`
	Name     string    `json:"name" minLength:"1" maxLength:"80"`
	At       time.Time `json:"at,omitzero"`
	Seen     []Seen    `json:"seen" nullable:"false" maxItems:"500"`
}

// Seen is one thing that was looked at.
type Seen struct {
	Where string `json:"where" minLength:"1" maxLength:"120" doc:"which cleat, post or ring"`
	Knot  string `json:"knot,omitempty" doc:"what is tied there, if it is one of the catalogue"`
	Photo int64  `json:"photo,omitempty" doc:"id of a photo"`
	// LearnerID judged it; Learner and Instructor are what each found, by point: true is
	// well done, left out is not looked at.
	LearnerID  int64           `json:"learner_id,omitempty"`
	Learner    map[string]bool `json:"learner,omitempty"`
	Instructor map[string]bool `json:"instructor,omitempty"`
	Note       string          `json:"note,omitempty" maxLength:"400"`
}

// Agree counts the points that both looked at, and those on which they agree.
func (s Seen) Agree() (same, both int) {
	for _, p := range Points {
		a, looked := s.Learner[p]
		b, too := s.Instructor[p]
		if looked && too {
			both++
			if a == b {
				same++
			}
		}
	}
	return
}

// Check puts the round in order. The error names each field.
func (q *QuayRound) Check(known func(knot string) bool, now time.Time) error {
	var l problem.List
	n, err := name.Clean(q.Name, 80)
	l.Take("name", err)
	q.Name = n
	if q.At.IsZero() {
		q.At = now.UTC().Truncate(time.Second)
	}
	if q.Seen == nil {
		q.Seen = []Seen{}
	}
	if len(q.Seen) > 500 {
		l.Add("seen", "are too many", "begin another round")
	}
	for i := range q.Seen {
		s, at := &q.Seen[i], fmt.Sprintf("seen[%d].", i)
		w, err := name.Clean(s.Where, 120)
		l.Take(at+"where", err)
		s.Where = w
		if s.Knot != "" && !known(s.Knot) {
			l.Add(at+"knot", fmt.Sprintf("%q is not in the catalogue", s.Knot), "choose a knot, or leave it out")
		}
		for field, found := range map[string]map[string]bool{"learner": s.Learner, "instructor": s.Instructor} {
			for p := range found {
				if !slices.Contains(Points, p) {
					l.Add(at+field, fmt.Sprintf("%q is no point", p), "use "+strings.Join(Points, ", "))
				}
			}
		}
	}
	return l.Err()
}

// Gear is a thing with a knot on it: who tied it, who looked, when to look again. It
// approves nothing.
type Gear struct {
	ID       int64 `json:"id" readOnly:"true"`
	Revision int64 `json:"revision" readOnly:"true"`
	// Code is short and printed on its label: it stays the same wherever Oarweed is reached.
	Code string `json:"code" readOnly:"true"`
	What string `json:"what" minLength:"1" maxLength:"120"`
	Knot string `json:"knot"`
	// Place it lies or hangs.
	Place string    `json:"place,omitempty" maxLength:"120"`
	Tied  Look      `json:"tied"`
	Check Look      `json:"checked,omitzero"`
	Again time.Time `json:"again,omitzero" doc:"when to look again"`
	Note  string    `json:"note,omitempty" maxLength:"400"`
	Photo int64     `json:"photo,omitempty"`
	// Person: somebody's life hangs on it; then a second one must have looked.
	Person bool `json:"person,omitempty"`
}

// Put puts the gear in order. The error names each field.
func (g *Gear) Put(known func(knot string) bool, now time.Time) error {
	var l problem.List
	w, err := name.Clean(g.What, 120)
	l.Take("what", err)
	g.What = w
	if !known(g.Knot) {
		l.Add("knot", fmt.Sprintf("%q is not in the catalogue", g.Knot), "choose a knot")
	}
	look := func(field string, x *Look) {
		n, err := name.Clean(x.Name, 80)
		l.Take(field+".name", err)
		x.Name = n
		if x.At.IsZero() {
			x.At = now
		}
		if x.At.After(now.Add(clocksDiffer)) {
			l.Add(field+".at", "is in the future", "give the time, or leave it out")
		}
		x.At = x.At.UTC().Truncate(time.Second)
	}
	look("tied", &g.Tied)
	if g.Check.Name != "" {
		look("checked", &g.Check)
		if name.Key(g.Check.Name) == name.Key(g.Tied.Name) {
			l.Add("checked.name", "is the one who tied it", "let another look")
		}
	} else if g.Person {
		l.Add("checked.name", "is missing: somebody's life hangs on it", "let a second one look, and give the name")
	}
	return l.Err()
}

// codeLetters are read out without confusion (Crockford's base 32, from memory).
const codeLetters = "0123456789ABCDEFGHJKMNPQRSTVWXYZ"

// GearCode is the code on the label of the gear with an id: the number in base 32 and a
// letter that shows a slip of the pen (the number modulo 31).
func GearCode(id int64) string {
	var b []byte
	for n := id; n > 0 || len(b) < 3; n /= 32 {
		b = append(b, codeLetters[n%32])
	}
	slices.Reverse(b)
	return "G" + string(b) + "-" + string(codeLetters[id%31])
}

// GearID reads a code as typed; 0 if it is none.
func GearID(code string) int64 {
	code = strings.ToUpper(strings.NewReplacer(" ", "", "-", "").Replace(code))
	code = strings.NewReplacer("O", "0", "I", "1", "L", "1").Replace(code)
	if len(code) < 5 || len(code) > 12 || code[0] != 'G' {
		return 0
	}
	var id int64
	for _, c := range code[1 : len(code)-1] {
		k := strings.IndexRune(codeLetters, c)
		if k < 0 {
			return 0
		}
		id = id*32 + int64(k)
	}
	if id == 0 || codeLetters[id%31] != code[len(code)-1] {
		return 0
	}
	return id
}
