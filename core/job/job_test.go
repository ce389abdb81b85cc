package job_test

import (
	"fmt"
	"log"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/job"
	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

var turns = job.HoldInput{Hitch: "turns", Object: "100 mm", Line: "12 mm", Material: "polyester", Surface: "polished-steel", Wet: true, Load: "2.4 kN", Hand: "100 N"}

func Example() {
	c, err := catalogue.Load()
	if err != nil {
		log.Fatal(err)
	}
	t, err := job.Hold(c, turns)
	if err != nil {
		log.Fatal(err)
	}
	fmt.Println(t.Turns, "turns")
	// Output: 6 turns
}

// Plain turns on a drum: hand force = load · e^(−μφ), the capstan equation (L. Euler,
// 1762; J. Eytelwein, 1808), at the friction the table shows.
func TestTurnsFollowTheCapstanEquation(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	table, err := job.Hold(c, turns)
	require.NoError(t, err)
	factor := c.Surface("polished-steel").Factor.Likely
	for _, r := range table.Rows {
		for mu, hand := range map[float64]float64{table.Mu.Low: float64(r.Lowest), table.Mu.Likely: float64(r.Likely), table.Mu.High: float64(r.Highest)} {
			want := float64(table.Load) * math.Exp(-mu*factor*2*math.Pi*float64(r.N))
			assert.InEpsilon(t, want, hand, 1e-6, "%d turns at %g", r.N, mu)
		}
	}
}

func TestWrongInputNamesItsField(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	q := turns
	q.Material, q.Load = "string", "much"
	_, err = job.Hold(c, q)
	assert.ErrorContains(t, err, "material")
	assert.ErrorContains(t, err, "load")
	_, err = job.SoftShackle(c, job.ShackleInput{Diameter: "wide", Material: "string", Clear: "1 km", Load: "much"})
	for _, field := range []string{"diameter", "material", "clear", "load"} {
		assert.ErrorContains(t, err, field)
	}
	_, err = job.SoftShackle(c, job.ShackleInput{Diameter: "4 mm", Material: "wire"})
	assert.ErrorContains(t, err, "not knotted")
	_, err = job.Load(c, "tide", job.LoadInput{})
	assert.Error(t, err)
}

func document(t *testing.T, text string) rig.Document {
	d, err := rig.Parse(strings.NewReader(text))
	require.NoError(t, err)
	return d
}

// A helper that grips but would break is refused, and one thicker than the line it should
// grip: common practice, no source. 6 mm polyester on 14 mm at 5 kN breaks, or near it.
func TestAHelperMustBearTheLoadAsWellAsGrip(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	relieve := func(loaded, helper string) *job.Relief {
		card, err := job.Fill(c, "jam", document(t, `{"chain":[{"line":{"material":"polyester","construction":"braid","diameter_mm":`+loaded+`}},{"joint":{"task":"relieve"}},{"line":{"material":"polyester","construction":"braid","diameter_mm":`+helper+`}}],"peak_kn":5}`))
		require.NoError(t, err)
		return card.Relief
	}
	weak := relieve("14", "5")
	assert.True(t, weak.Weak())
	assert.False(t, weak.Holds)
	thick := relieve("8", "14")
	assert.True(t, thick.Thick())
	assert.False(t, thick.Holds)
	fair := relieve("18", "14")
	assert.False(t, fair.Weak() || fair.Thick())
}

// The force of a trucker's hitch is the purchase with friction times the pull: between
// plain and the ideal three. Sizes of a lashing follow the spars.
func TestCardsWorkOutTheirBlanks(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	tie, err := job.Fill(c, "tiedown", document(t, `{"chain":[{"fitting":{"kind":"rail"}},{"joint":{"task":"tiedown"}},{"line":{"material":"polyester","construction":"braid","diameter_mm":10}}],"peak_kn":0.5}`))
	require.NoError(t, err)
	assert.True(t, 1.5 < tie.Purchase.Low && tie.Purchase.Low < tie.Purchase.Likely && tie.Purchase.Likely < tie.Purchase.High && tie.Purchase.High < 3, "%v", tie.Purchase)
	lash := func(mm string) float64 {
		card, err := job.Fill(c, "lash", document(t, `{"chain":[{"fitting":{"kind":"spar","size_mm":`+mm+`}},{"joint":{"task":"lash"}},{"line":{"material":"natural","diameter_mm":6}}],"peak_kn":0.3}`))
		require.NoError(t, err)
		return card.Lashing.M()
	}
	assert.InDelta(t, 3*2*math.Pi*0.066*1.5+0.6, lash("60"), 1e-9)
	assert.Greater(t, lash("100"), lash("60"))
	pull, err := job.Fill(c, "test-pull", document(t, `{"chain":[{"fitting":{"kind":"ring"}},{"joint":{"task":"moor"}},{"line":{"material":"polyester","diameter_mm":10}}],"peak_kn":2}`))
	require.NoError(t, err)
	assert.Positive(t, pull.Length)
}

// One turn: the load that a light hand holds by it is hand × e^{2πμ} at the worst (Euler,
// Eytelwein), and in nylon, not in polyester, a wet line is weaker.
func TestSayings(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	of := func(material string) *job.Sayings {
		s, err := job.SayingsOf(c, document(t, `{"chain":[{"fitting":{"kind":"bollard","size_mm":200}},{"joint":{"task":"moor"}},{"line":{"material":"`+material+`","construction":"laid","diameter_mm":12}}],"peak_kn":2}`))
		require.NoError(t, err)
		return s
	}
	nylon, polyester := of("polyamide"), of("polyester")
	b := c.Use().Belief(c.Material("polyamide"), true)
	assert.InEpsilon(t, float64(judge.LightHand)*math.Exp(2*math.Pi*0.9*b.Metal.Low), float64(nylon.UpTo), 0.08)
	assert.Less(t, nylon.Wet.Likely, 0.95*nylon.Dry.Likely)
	assert.Equal(t, polyester.Wet.Likely, polyester.Dry.Likely)
	assert.Greater(t, nylon.Eight, 2.0, "one more eight divides what the end holds")
	assert.Equal(t, "the bollard", nylon.On)
}

// The two checks of a soft shackle that need no catalogue: twice the clear length is four
// lengths more of cord, and a load is borne by four parts at their weaker knot.
func TestASoftShackleBearsByItsWeakerKnotAndIsCutWithItsLoop(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	at := func(clear string) *job.Shackle {
		s, err := job.SoftShackle(c, job.ShackleInput{Diameter: "6 mm", Clear: clear, Load: "2 kN"})
		require.NoError(t, err)
		return s
	}
	short, long := at("100 mm"), at("200 mm")
	for i, clamp := range short.Clamps {
		for j, p := range clamp.Pairs {
			assert.InDelta(t, 0.4, float64(long.Clamps[i].Pairs[j].Cut-p.Cut), 1e-9)
			kept := math.Min(c.Knot(clamp.Knot).EfficiencyIn("hmpe", "clamp").Value.Likely, c.Knot(p.Knot).EfficiencyIn("hmpe", "shackle-stop").Value.Likely)
			assert.InDelta(t, 4*kept*0.8*short.Bears.Capacity.Likely, p.Capacity.Likely, 1e-6)
			assert.Less(t, p.Capacity.Low, p.Capacity.Likely)
		}
	}
	assert.Equal(t, 2*unit.Kilonewton, short.Load)
}

// A whole shackle: in thin cord the clamp first, in thick rope the stoppers; a pair that pulls
// through is not tied; the tails go through the clamp once, between the two knots.
func TestAWholeSoftShackle(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	thin, err := job.SoftShackle(c, job.ShackleInput{Diameter: "6mm"})
	require.NoError(t, err)
	thick, err := job.SoftShackle(c, job.ShackleInput{Diameter: "12mm"})
	require.NoError(t, err)
	order := func(s *job.Shackle, clamp, stopper string) (knots string, x *job.Tying) {
		x, err := s.Tying(c, clamp, stopper)
		require.NoError(t, err)
		last := ""
		for _, step := range x.Steps {
			if step.Knot != last && step.Knot != "" {
				last = step.Knot
				knots += last + " "
			}
			if step.Knot != "" {
				sh, err := c.Drawing(step.Knot)
				if step.Way != "" {
					sh, err = c.WayDrawing(c.Knot(step.Knot), step.Way)
				}
				require.NoError(t, err)
				assert.NoError(t, sh.HasStep(float64(step.Step)), "%+v", step)
			}
		}
		return knots, x
	}
	knots, x := order(thin, "cow-hitch", "figure-eight")
	assert.Equal(t, "cow-hitch figure-eight ", knots)
	assert.False(t, x.StopperFirst)
	assert.Equal(t, job.TieBoth, x.Steps[len(x.Steps)-2].Move)
	knots, x = order(thick, "bull-hitch", "overhand")
	assert.Equal(t, "overhand bull-hitch ", knots)
	assert.True(t, x.StopperFirst)
	assert.Equal(t, job.TieEach, x.Steps[1].Move)
	knots, _ = order(thin, "bull-hitch", "overhand")
	assert.Equal(t, "bull-hitch overhand ", knots, "thin cord: the clamp first")
	knots, x = order(thin, "twisted-bight", "overhand")
	assert.Empty(t, knots, "it pulls through")
	assert.Equal(t, knot.Slips, x.Pair.Class)
	_, err = thin.Tying(c, "bowline", "overhand")
	assert.ErrorContains(t, err, "is not a clamp")
	_, err = thin.Tying(c, "cow-hitch", "bowline")
	assert.ErrorContains(t, err, "is not a stopper")
}
