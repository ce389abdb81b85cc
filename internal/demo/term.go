package demo

import (
	"context"
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"oarweed/core/lesson"
	"oarweed/core/practice"
	"oarweed/internal/app"
)

// class of the demo: who they are, how fast they learn (1 is usual), and in which hand.
var class = []struct {
	name, craft, hand string
	pace              float64
	evening           bool
}{
	{"Ailsa", "lugger", "", 1.5, true}, {"Bram", "kelp punt", "", 0.9, true}, {"Corin", "lugger", "left", 0.7, true}, {"Dorrit", "lugger", "", 1.1, true},
	{"Eskil", "workboat", "", 1.0, true}, {"Fenna", "lugger", "", 1.9, true}, {"Gritt", "kelp punt", "", 0.6, true}, {"Hamo", "workboat", "left", 0.8, true},
	{"Ingrid", "kelp punt", "", 1.2, false}, {"Joost", "kelp punt", "", 0.9, false},
}

const (
	eveningClass = "Evening class"
	puntCrew     = "Punt crew"
)

// term says which knot was taught in which week of ten.
var term = []struct {
	week int
	knot string
}{
	{0, "figure-eight"}, {0, "bowline"}, {1, "cleat-hitch"}, {2, "round-turn-two-half-hitches"}, {2, "reef-knot"}, {3, "clove-hitch"},
	{5, "sheet-bend"}, {6, "rolling-hitch"},
}

// practised fills ten evenings: each knot is tied some times from the week it is taught,
// first with help, then faster, then wet, then on the real thing; the slower ones slip.
func practised(ctx context.Context, s *app.School, ids map[string]int64, now time.Time) error {
	rng := rand.New(rand.NewPCG(1871, 12))
	first := now.AddDate(0, 0, -73).Truncate(24 * time.Hour).Add(18*time.Hour + 30*time.Minute)
	for week := range 10 {
		evening := first.AddDate(0, 0, 7*week)
		for _, l := range class {
			if !l.evening && week%2 == 1 {
				continue
			}
			for i, k := range term {
				since := week - k.week
				// What is well known is tied now and then only.
				if since < 0 || since > 3 && rng.IntN(3) > 0 || rng.Float64() < 0.08 {
					continue
				}
				kn := s.Trade().Knot(k.knot)
				skill := 0.62*float64(since)*l.pace + rng.NormFloat64()*0.4
				target := practice.Target(kn)
				a := practice.Attempt{LearnerID: ids[l.name], Knot: k.knot, Outcome: practice.Right, Conditions: "dry",
					Seconds: math.Round(10*target*(0.35+2.2*math.Exp(-0.75*math.Max(0, skill)))*(0.85+0.3*rng.Float64())) / 10,
					At:      evening.Add(time.Duration(8*i)*time.Minute + time.Duration(rng.IntN(200))*time.Second)}
				switch {
				case rng.Float64() < 0.4*math.Exp(-0.6*math.Max(0, skill)):
					// Each has a fault of his own that comes back.
					a.Outcome = practice.Fault
					a.Fault = kn.Faults[(int(ids[l.name])+i)%len(kn.Faults)].Code
				case skill < 0.5:
					a.Help = true
				case a.Seconds > target:
					a.Outcome = practice.Slow
				case skill > 4.4:
					a.Conditions = "wet,real"
				case skill > 2.2:
					a.Conditions = []string{"wet", "gloves", "wet,gloves"}[rng.IntN(3)]
				}
				if k.knot == "cleat-hitch" {
					// Most learn it on one horn.
					a.Side = "right"
					if l.pace > 1.3 && since%2 == 1 {
						a.Side = "left"
					}
				}
				if since > 2 && rng.IntN(6) == 0 {
					a.Judged = "peer"
				}
				if _, _, err := s.AddAttempt(ctx, a); err != nil {
					return err
				}
			}
		}
	}
	return lessonsOf(ctx, s, now)
}

// lessonsOf keeps a lesson that was held, and one that is to come.
func lessonsOf(ctx context.Context, s *app.School, now time.Time) error {
	evening := now.Truncate(24 * time.Hour).Add(18*time.Hour + 30*time.Minute)
	for _, l := range []app.Lesson{
		{Name: "Evening class: sheet bend and rolling hitch", At: evening.AddDate(0, 0, -24), Group: eveningClass, Held: true,
			Request: lesson.Request{Minutes: 90, Learners: 8, Helpers: 1, Place: lesson.Quay, Knots: []string{"sheet-bend", "rolling-hitch", "bowline"}, Known: []string{"bowline"}},
			Took:    map[string]float64{"sheet-bend": 17.5, "rolling-hitch": 24}},
		{Name: "Evening class: last of the term", At: evening.AddDate(0, 0, 5), Group: eveningClass,
			Request: lesson.Request{Minutes: 120, Learners: 8, Helpers: 1, Place: lesson.Quay,
				Knots: []string{"double-sheet-bend", "constrictor-hitch", "fishermans-bend", "sheet-bend"}, Known: []string{"clove-hitch", "round-turn-two-half-hitches"}},
			Notes: map[string]string{"constrictor-hitch": "Eskil's oar: one turn on the split, and it rowed home."}},
	} {
		if _, err := s.SaveLesson(ctx, l); err != nil {
			return err
		}
	}
	return nil
}

// enrolled adds the class, and gives their ids by name.
func enrolled(ctx context.Context, s *app.School) (map[string]int64, error) {
	ids := map[string]int64{}
	for _, c := range class {
		l := practice.Learner{Name: c.name, Craft: c.craft, Hand: c.hand, Groups: []string{eveningClass}}
		if !c.evening {
			l.Groups = []string{puntCrew}
		} else if c.craft == "kelp punt" {
			l.Groups = append(slices.Clone(l.Groups), puntCrew)
		}
		out, _, err := s.AddLearner(ctx, l)
		if err != nil {
			return nil, err
		}
		ids[c.name] = out.ID
	}
	return ids, nil
}
