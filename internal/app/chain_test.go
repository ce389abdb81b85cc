package app_test

import (
	"context"
	"encoding/json"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/core/knot"
	"oarweed/core/rig"
	"oarweed/internal/app"
)

func template(t testing.TB, id string) rig.Document {
	t.Helper()
	for _, x := range cat.Templates {
		if x.ID == id {
			return x.Rig
		}
	}
	t.Fatalf("no template %s", id)
	return rig.Document{}
}

// Every template answers; where it holds a person the caution comes first.
func TestEveryTemplateAnswers(t *testing.T) {
	require.GreaterOrEqual(t, len(cat.Templates), 20)
	for _, x := range cat.Templates {
		a, err := here.CheckRig(context.Background(), x.Rig)
		require.NoError(t, err, x.ID)
		require.NotEmpty(t, a.Joints, x.ID)
		for _, j := range a.Joints {
			assert.NotEmpty(t, j.Knot, "%s %s", x.ID, j.Where)
			assert.Empty(t, j.Against, "%s %s: %v", x.ID, j.Where, j.Against)
		}
		assert.NotNil(t, a.Weakest, x.ID)
		assert.Len(t, a.Cut, len(a.Lines), x.ID)
		assert.GreaterOrEqual(t, len(a.CastOff), len(a.Joints), x.ID)
		if x.Rig.Consequence == rig.Person {
			assert.True(t, a.Cautions[0].Locked, x.ID)
		}
	}
}

// Expected first choices along the chain: common practice, no source.
func TestChainsChooseEachJoint(t *testing.T) {
	for id, want := range map[string][]string{
		"anchor":   {"fishermans-bend", "zeppelin-bend", "cleat-hitch"},
		"leader":   {"there-and-back-join", "improved-clinch"},
		"dropshot": {"there-and-back-join", "palomar"},
		"heaving":  {"racking-bend"},
		"fly":      {"double-surgeons-join", "non-slip-loop"},
		"spear":    {"shaft-knot"},
	} {
		a, err := here.CheckRig(context.Background(), template(t, id))
		require.NoError(t, err)
		var got []string
		for _, j := range a.Joints {
			got = append(got, j.Knot)
		}
		if id == "leader" || id == "dropshot" {
			assert.Contains(t, []string{"there-and-back-join", "cross-woven-join", "double-uni"}, got[0], id)
			got[0] = want[0]
		}
		assert.Equal(t, want, got, id)
	}
}

func TestWeakestIsTheLeast(t *testing.T) {
	d := template(t, "leader")
	a, err := here.CheckRig(context.Background(), d)
	require.NoError(t, err)
	least := math.Inf(1)
	for _, j := range a.Joints {
		least = math.Min(least, j.Chosen.Strength.CapacityKN.Likely)
	}
	for _, l := range a.Lines {
		least = math.Min(least, l.CapacityKN.Likely)
	}
	assert.Equal(t, least, a.CapacityKN.Likely)
	assert.Contains(t, a.Weakest.Says, "gives way first")
	total := 0.0
	for _, j := range a.Joints {
		total += j.Fails
	}
	for _, l := range a.Lines {
		total += l.Fails
	}
	assert.InDelta(t, 1, total, 1e-9, "in every draw something goes first")
	assert.InDelta(t, 1, a.Chance.Holds+a.Chance.Slips+a.Chance.Breaks, 1e-9)
	assert.Less(t, a.Chance.P5KN, a.Chance.P95KN)

	// A 60 lb leader is stronger than the 30 lb braid: the weak place moves, and the hook knot's wraps with it.
	heavy := d
	heavy.Chain = append([]rig.Element{}, d.Chain...)
	l := *d.Chain[2].Line
	l.LabelKN = 0.267
	heavy.Chain[2].Line = &l
	b, err := here.CheckRig(context.Background(), heavy)
	require.NoError(t, err)
	assert.Contains(t, a.Weakest.Says, "it breaks in the braid, at the sharp bend", "whichever line is the weaker: common practice, no source")
	assert.NotEqual(t, a.Weakest.Says, b.Weakest.Says)
	assert.NotEqual(t, a.Joints[1].Chosen.Wraps, b.Joints[1].Chosen.Wraps, "fewer twists in thick line")
	assert.Greater(t, b.CapacityKN.Likely, a.CapacityKN.Likely)
}

func TestCutListAddsUp(t *testing.T) {
	a, err := here.CheckRig(context.Background(), template(t, "anchor"))
	require.NoError(t, err)
	require.Len(t, a.Cut, 2)
	byJoint := map[int]float64{}
	for _, j := range a.Joints {
		byJoint[j.At] = j.Chosen.NeedsM
	}
	assert.InDelta(t, 30+byJoint[1]+byJoint[3], a.Cut[0].TotalM, 1e-9)
	assert.InDelta(t, 20+byJoint[3]+byJoint[5], a.Cut[1].TotalM, 1e-9)
	assert.Contains(t, a.Cut[0].Says, "cut ")
}

func TestCastOffBeginsWithWhatComesOffUnderLoad(t *testing.T) {
	a, err := here.CheckRig(context.Background(), template(t, "mooring"))
	require.NoError(t, err)
	assert.NotContains(t, a.CastOff[0], "Take the load off first")
	b, err := here.CheckRig(context.Background(), template(t, "leader"))
	require.NoError(t, err)
	assert.Contains(t, b.CastOff[0], "Take the load off first")
}

func TestAChosenKnotIsKeptWithWhatSpeaksAgainstIt(t *testing.T) {
	d := parsed(t, strings.Replace(quay, `"task":"moor"`, `"task":"moor","knot":"reef-knot"`, 1))
	a, err := here.CheckRig(context.Background(), d)
	require.NoError(t, err)
	assert.Equal(t, "reef-knot", a.Joints[0].Knot)
	assert.NotEmpty(t, a.Joints[0].Against)
	d.Chain[1].Joint.Knot = "sky-hook"
	_, err = here.CheckRig(context.Background(), d)
	assert.ErrorContains(t, err, "chain[1].joint.knot")
}

func TestErrorsNameTheElementOfTheChain(t *testing.T) {
	d := template(t, "anchor")
	d.Chain = append([]rig.Element{}, d.Chain...)
	bad := *d.Chain[4].Line
	bad.DiameterMM = -3
	d.Chain[4].Line = &bad
	_, err := here.CheckRig(context.Background(), d)
	assert.ErrorContains(t, err, "chain[4].line.diameter_mm")
	assert.Equal(t, 1, strings.Count(err.Error(), "chain[4].line.diameter_mm"), "said once, though two joints share the line")
	for text, says := range map[string]string{
		`{"chain":[],"peak_kn":1}`: "has 0 elements",
		`{"chain":[{"joint":{"task":"moor"}},{"joint":{"task":"moor"}},{"line":{"material":"hmpe"}}],"peak_kn":1}`:    "chain[0]",
		`{"chain":[{"fitting":{"kind":"ring"}},{"joint":{"task":"moor"}},{"fitting":{"kind":"ring"}}],"peak_kn":1}`:   "has no line",
		`{"chain":[{"fitting":{"kind":"ring"},"line":{"material":"hmpe"}},{"joint":{"task":"moor"}},{}],"peak_kn":1}`: "exactly one",
	} {
		_, err := here.CheckRig(context.Background(), parsed(t, text))
		assert.ErrorContains(t, err, says)
	}
}

// A joint alone and the same joint as a chain of one give the same answer.
func TestAChainOfOneIsTheJoint(t *testing.T) {
	alone := answer(t, quay)
	chain, err := here.CheckRig(context.Background(), parsed(t, quay))
	require.NoError(t, err)
	a, _ := json.Marshal(alone)
	b, _ := json.Marshal(chain.Joints[0].Answer)
	assert.JSONEq(t, string(a), string(b))
}

// All lengths × k and all forces × k²: where strength goes with the square of the
// diameter, every utilisation, hold and gate stays the same.
func TestScaleInvariance(t *testing.T) {
	base := parsed(t, quay)
	base.Chain[2].Line.Construction = "braid"
	rapid.Check(t, func(t *rapid.T) {
		k := rapid.Float64Range(0.4, 3).Draw(t, "scale")
		scaled := base
		scaled.Chain = append([]rig.Element{}, base.Chain...)
		f, l := *base.Chain[0].Fitting, *base.Chain[2].Line
		f.SizeMM *= k
		l.DiameterMM *= k
		scaled.Chain[0].Fitting, scaled.Chain[2].Line = &f, &l
		scaled.PeakKN *= k * k
		one, two := answerOf(t, base), answerOf(t, scaled)
		require.Equal(t, len(one.Ranked), len(two.Ranked))
		by := map[string]app.Choice{}
		for _, c := range two.Ranked {
			by[c.Knot] = c
		}
		for _, c := range one.Ranked {
			assert.InEpsilon(t, c.Strength.Utilisation, by[c.Knot].Strength.Utilisation, 1e-9, c.Knot)
			assert.Equal(t, c.Wet.Class, by[c.Knot].Wet.Class, c.Knot)
			assert.InEpsilon(t, c.NeedsM*k, by[c.Knot].NeedsM, 1e-9, c.Knot)
		}
	})
}

// More load never makes a knot hold better, thicker line never breaks sooner.
func TestMonotone(t *testing.T) {
	base := parsed(t, quay)
	rapid.Check(t, func(t *rapid.T) {
		d := rapid.Float64Range(6, 24).Draw(t, "diameter")
		more := d * rapid.Float64Range(1, 2).Draw(t, "more")
		with := func(d float64) *app.Answer {
			x := base
			x.Chain = append([]rig.Element{}, base.Chain...)
			l := *base.Chain[2].Line
			l.DiameterMM = d
			x.Chain[2].Line = &l
			return answerOf(t, x)
		}
		thin, thick := with(d), with(more)
		assert.GreaterOrEqual(t, thick.Line.CapacityKN.Likely, thin.Line.CapacityKN.Likely)
		assert.Equal(t, len(cat.Knots), len(thin.Ranked)+len(thin.RuledOut), "no knot vanishes")
		chances := chancesOf(t, thin.Rig)
		heavier := base
		heavier.Chain = append([]rig.Element{}, base.Chain...)
		l := *base.Chain[2].Line
		l.DiameterMM = d
		heavier.Chain[2].Line = &l
		heavier.PeakKN *= 1.5
		for id, c := range chancesOf(t, heavier) {
			if before, ok := chances[id]; ok {
				assert.LessOrEqual(t, c.Holds, before.Holds, id)
			}
		}
	})
}

func chancesOf(t require.TestingT, d rig.Document) map[string]app.Chance {
	out, err := here.Chances(context.Background(), d)
	require.NoError(t, err)
	return out
}

func answerOf(t require.TestingT, d rig.Document) *app.Answer {
	a, err := here.Choose(context.Background(), d)
	require.NoError(t, err)
	return a
}

// The draws slip as often as the knot does not hold, and come out the same every time:
// the mean of its triangular chance is a third of its three ends.
func TestDrawsAgreeWithTheChanceOfHolding(t *testing.T) {
	a := answer(t, quay)
	chances := chancesOf(t, a.Rig)
	again := chancesOf(t, a.Rig)
	checked := 0
	for _, c := range a.Ranked {
		assert.Equal(t, chances[c.Knot], again[c.Knot], "fixed numbers")
		if c.Strength.Fails == "breaks" {
			checked++
			mean := (*c.Wet.ChanceLow + *c.Wet.Chance + *c.Wet.ChanceHigh) / 3
			assert.InDelta(t, 1-mean, chances[c.Knot].Slips, 0.02, c.Knot)
		}
	}
	assert.Greater(t, checked, 1)
}

func TestSoftShackle(t *testing.T) {
	a, err := here.SoftShackle(app.ShackleQuery{Diameter: "6mm"})
	require.NoError(t, err)
	require.Len(t, a.Rows, 5)
	assert.True(t, a.Cautions[0].Locked, "none for life support")
	for _, row := range a.Rows {
		require.Len(t, row.Cells, 5)
		for _, c := range row.Cells {
			assert.InDelta(t, c.BulkMM/row.OpeningMM, c.Ratio, 1e-9)
			switch {
			case row.Never != "":
				assert.Equal(t, "pulls through", c.Word)
			case c.Ratio >= 1.2:
				assert.Equal(t, "holds", c.Word)
			}
			assert.Greater(t, c.CordM, 0.0)
		}
	}
	twice, err := here.SoftShackle(app.ShackleQuery{Diameter: "12 mm"})
	require.NoError(t, err)
	assert.InDelta(t, 2*a.Rows[0].Cells[0].CordM, twice.Rows[0].Cells[0].CordM, 1e-9)
}

func TestJamReliefCard(t *testing.T) {
	relieve := `{"chain":[{"line":{"material":"polyester","construction":"braid","diameter_mm":12}},{"joint":{"task":"relieve"}},{"line":{"material":"HELPER","diameter_mm":8}}],"peak_kn":1.5}`
	polyester, err := here.Procedure(t.Context(), "jam", parsed(t, strings.Replace(relieve, "HELPER", "polyester", 1)))
	require.NoError(t, err)
	hmpe, err := here.Procedure(t.Context(), "jam", parsed(t, strings.Replace(relieve, "HELPER", "hmpe", 1)))
	require.NoError(t, err)
	assert.Greater(t, hmpe.Turns, polyester.Turns, "slippery line wants more turns")
	assert.Greater(t, hmpe.WinchTurns, polyester.WinchTurns)
	// The capstan equation, turned round: e^{2πnμ} ≥ load ÷ hand at the lowest friction.
	assert.Equal(t, int(math.Ceil(math.Log(1500/80.0)/(2*math.Pi*0.1))), polyester.WinchTurns)
	text, _ := json.Marshal(polyester)
	assert.NotContains(t, string(text), "{turns}")
	assert.Equal(t, "stored-energy", polyester.Cautions[0].ID, "the caution comes first")
	_, err = here.Procedure(t.Context(), "jam", parsed(t, quay))
	assert.ErrorContains(t, err, "relieve")
	_, err = here.Procedure(t.Context(), "swim", rig.Document{})
	assert.ErrorContains(t, err, "not a procedure")
	plain, err := here.Procedure(t.Context(), "reeve", rig.Document{})
	require.NoError(t, err)
	assert.Len(t, plain.Steps, 4)
}

func TestWeightsAreAPreset(t *testing.T) {
	usual := answer(t, quay)
	rescue := answer(t, strings.Replace(quay, `"peak_kn"`, `"weights":"rescue","peak_kn"`, 1))
	assert.NotEqual(t, usual.Ranked[0].Score, rescue.Ranked[0].Score)
	_, err := cat.Resolve(parsed(t, strings.Replace(quay, `"peak_kn"`, `"weights":"luck","peak_kn"`, 1)))
	assert.ErrorContains(t, err, "fishing-heavy")
}

// A friction coefficient of one's own takes the place of the interval.
func TestOwnFriction(t *testing.T) {
	slippery := answer(t, strings.Replace(quay, `"diameter_mm":12`, `"diameter_mm":12,"mu":0.06`, 1))
	assert.Contains(t, ruledOut(slippery, "round-turn-two-half-hitches"), "by itself")
	for _, c := range answer(t, strings.Replace(quay, `"diameter_mm":12`, `"diameter_mm":12,"mu":0.3`, 1)).Ranked {
		if c.Knot == "round-turn-two-half-hitches" {
			assert.Equal(t, "holds", string(c.Wet.Class))
			assert.Equal(t, "yours", string(c.Wet.Mu.Tag))
		}
	}
}

// Bare turns follow the capstan equation in every cell, and the turns named are
// the fewest that do.
func TestHoldTable(t *testing.T) {
	q := app.HoldQuery{Hitch: "turns", Object: "60mm", Line: "12mm", Material: "polyester", Surface: "aluminium", Wet: true, Load: "2.4kN", Hand: "100N"}
	a, err := here.Hold(q)
	require.NoError(t, err)
	for _, r := range a.Rows {
		assert.InEpsilon(t, 2400/math.Exp(2*math.Pi*float64(r.N)*0.15), *r.LikelyN, 1e-9)
		assert.Greater(t, *r.LowestN, *r.HighestN)
		assert.Zero(t, r.Locks)
	}
	require.NotNil(t, a.Turns)
	assert.Equal(t, int(math.Ceil(math.Log(24)/(2*math.Pi*0.1))), *a.Turns)
	// Three schools of the cleat: more turns hold more, and only a lock locks.
	q.Hitch = "cleat-hitch"
	lock, err := here.Hold(q)
	require.NoError(t, err)
	q.Hitch = "cleat-turns"
	bare, err := here.Hold(q)
	require.NoError(t, err)
	assert.Greater(t, lock.Rows[1].Locks, 0.0)
	assert.Zero(t, bare.Rows[1].Locks)
	assert.Contains(t, lock.Says, "figure eight")
	assert.Nil(t, lock.Trade, "its friction decides")
	q.Hitch = "sampan-hitch"
	for wet, class := range map[bool]knot.Class{true: knot.Marginal, false: knot.Holds} {
		q.Wet = wet
		slipped, err := here.Hold(q)
		require.NoError(t, err)
		require.NotNil(t, slipped.Trade, "its class decides")
		assert.Equal(t, class, slipped.Trade.Class)
		assert.Equal(t, class != knot.Holds, strings.HasPrefix(slipped.Says, "From use it is marginal."), "the answer does not promise more than use does")
	}
	for _, bad := range []func(*app.HoldQuery){
		func(q *app.HoldQuery) { q.Material = "cheese" }, func(q *app.HoldQuery) { q.Surface = "ice" },
		func(q *app.HoldQuery) { q.Load = "0" }, func(q *app.HoldQuery) { q.Hitch = "knitting" },
	} {
		x := q
		bad(&x)
		_, err := here.Hold(x)
		assert.Error(t, err)
	}
}
