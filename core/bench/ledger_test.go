package bench_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"oarweed/core/bench"
)

func TestAClaimHeldAgainstPulls(t *testing.T) {
	claim := bench.Claim{ID: "x", Claim: "a", Against: "b", Stronger: &bench.ClaimEnd{Knot: "figure-eight-loop"}, Weaker: &bench.ClaimEnd{Knot: "bowline"}, Materials: []string{"polyester"}}
	in := func(string) string { return "polyester" }
	h := claim.Hold(nil, in)
	assert.Equal(t, bench.TooSoon, h.Verdict)
	var pulls []bench.Pull
	for i := range 6 {
		a, b, w := bowline, eight, bench.KnotA
		if i%2 == 1 {
			a, b, w = eight, bowline, bench.KnotB
		}
		pulls = append(pulls, pull(7, a, b, bench.Broke, w))
	}
	h = claim.Hold(pulls, in)
	assert.Equal(t, bench.Standing{For: 6, Sure: h.Sure, Verdict: bench.Agrees}, h)
	assert.Equal(t, 0, claim.Hold(pulls, func(string) string { return "hmpe" }).For, "in another line")
	contrary := claim
	contrary.Stronger, contrary.Weaker = claim.Weaker, claim.Stronger
	assert.Equal(t, bench.Disagrees, contrary.Hold(pulls, in).Verdict)
	assert.Greater(t, claim.Hold(pulls[:2], in).More, 0, "two pulls do not tell")

	slips := bench.Claim{ID: "y", Claim: "a", Against: "b", Slips: &bench.ClaimEnd{Knot: "bowline"}}
	out := []bench.Pull{pull(0.7, bowline, eight, bench.SlippedOut, bench.KnotA), pull(1.2, bowline, eight, bench.Broke, bench.KnotA), pull(1.3, bowline, eight, bench.Broke, bench.KnotB)}
	h = slips.Hold(out, in)
	assert.Equal(t, []int{1, 1}, []int{h.For, h.Counter}, "only where the bowline gave")

	wet, dry := true, false
	wetted := bench.Claim{ID: "z", Claim: "a", Against: "b", Stronger: &bench.ClaimEnd{Knot: "uni", Lubricated: &wet}, Weaker: &bench.ClaimEnd{Knot: "uni", Lubricated: &dry}}
	h = wetted.Hold([]bench.Pull{pull(1, bench.Tied{Knot: "uni"}, bench.Tied{Knot: "uni", Lubricated: true}, bench.Broke, bench.KnotA)}, in)
	assert.Equal(t, 1, h.For)
}

func TestClaimsThatSayNothingAreRefused(t *testing.T) {
	bad := bench.Claim{ID: "x", Claim: "a", Against: "b", Slips: &bench.ClaimEnd{Knot: "lace"}, Materials: []string{"wool"}}
	err := bad.Check(knows, []string{"polyester"})
	assert.ErrorContains(t, err, `"lace" is not a knot`)
	assert.ErrorContains(t, err, `"wool" is not a material`)
	assert.ErrorContains(t, bench.Claim{ID: "x", Claim: "a", Against: "b"}.Check(knows, nil), "nothing that can be pulled")
}
