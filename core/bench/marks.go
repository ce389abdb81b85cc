package bench

import (
	"math"
	"slices"

	"oarweed/core/problem"
)

// Trace is what a load cell gave: seconds since the start, rising, and kilonewtons.
type Trace struct {
	S  []float64
	KN []float64
}

// Mark is a moment of a trace.
type Mark struct {
	S      float64 `json:"t_s"`
	LoadKN float64 `json:"load_kn"`
}

// Marks is what a trace shows. Loads are above zero, which is the reading of the cell before
// anything was drawn.
type Marks struct {
	// ZeroKN is what the cell read before the pull.
	ZeroKN float64 `json:"zero_kn"`
	// Slips are the moments at which something let go for a while: the load fell, or no
	// longer rose, and went on.
	Slips []Mark `json:"slips" nullable:"false"`
	// Plateau is where slips followed each other at about one load, begin and end; nil if
	// they did not.
	Plateau *[2]Mark `json:"plateau,omitempty"`
	Peak    *Mark    `json:"peak"`
	// Break is the last moment before the load fell away at once; nil if it did not.
	Break *Mark `json:"break"`
	// RampKNs is how fast the load rose from a fifth to four fifths of its peak or of the
	// first slip, kN/s.
	RampKNs float64 `json:"ramp_kn_s"`
	// Outcome is what happened, as the trace shows it.
	Outcome Outcome `json:"outcome" enum:"held,crept,caught,slipped,broke"`
}

// Outcome of a pull.
type Outcome string

const (
	Held       Outcome = "held"
	Crept      Outcome = "crept"
	Caught     Outcome = "caught" // it slipped, held again, and bore more
	SlippedOut Outcome = "slipped"
	Broke      Outcome = "broke"
)

// Outcomes lists them.
var Outcomes = []Outcome{Held, Crept, Caught, SlippedOut, Broke}

// Constants of the search, in seconds and in shares of a load; our own choice, held against
// simulated pulls.
const (
	blockS    = 0.02  // readings are taken together over so long
	quietS    = 0.3   // zero is read over so long at the start
	drop      = 0.01  // a slip lets at least this share of the load go
	dropPeak  = 0.005 // and this share of the highest
	noises    = 6     // and so many times the noise
	beddingIn = 0.06  // below this share of the peak knots draw up, which is no slip
	fell      = 0.5   // a break lets at least this share go
	fellS     = 0.12  // within so long
	parts     = 0.25  // from at least this share of the peak: below, a tail draws out
	stalled   = 0.2   // a stall has less than this share of the slope before
	stallS    = 0.4   // for so long
)

// FindMarks reads a trace. The error says what is wrong with it: fewer than three readings,
// times that do not rise.
func FindMarks(t Trace) (Marks, error) {
	if len(t.S) != len(t.KN) || len(t.S) < 3 {
		return Marks{}, problem.New("trace", "has fewer than three readings", "give time and force of the whole pull")
	}
	for i := 1; i < len(t.S); i++ {
		if !(t.S[i] >= t.S[i-1]) {
			return Marks{}, problem.New("trace", "time runs backwards", "sort the readings by time")
		}
	}
	b := blocks(t)
	m := Marks{Slips: []Mark{}, ZeroKN: b.zero}
	at := func(i int) Mark { return Mark{b.s[i], b.kn[i]} }
	peak := 0
	for i, x := range b.kn {
		if x > b.kn[peak] {
			peak = i
		}
	}
	most := at(peak)
	m.Peak = &most
	top, low, falling := 0, 0, false
	for i := range b.kn {
		if falling { // it has slipped: wait until it bears again
			if b.kn[i] < b.kn[low] {
				low = i
			}
			if b.kn[i] > b.kn[low]+b.least(b.kn[low], most.LoadKN)/2 {
				falling, top = false, i
			}
			continue
		}
		if b.kn[i] >= b.kn[top] {
			top = i
			continue
		}
		if b.kn[top] < beddingIn*most.LoadKN || b.kn[top]-b.kn[i] < b.least(b.kn[top], most.LoadKN) {
			continue
		}
		onset := at(b.edge(top, i))
		if j := b.after(i, fellS); b.kn[j] < (1-fell)*b.kn[top] && b.kn[top] > parts*most.LoadKN {
			m.Break = &onset
			break
		}
		m.Slips = append(m.Slips, onset)
		falling, low = true, i
	}
	end := len(b.kn)
	if m.Break != nil {
		end = b.index(m.Break.S)
	}
	m.Slips = withStalls(b, m.Slips, end, most.LoadKN)
	m.Plateau = plateau(m.Slips)
	m.RampKNs = ramp(b, m)
	m.Outcome = outcome(b, m)
	return m, nil
}

// blocked is a trace with its readings taken together, zero subtracted.
type blocked struct {
	s, kn []float64
	zero  float64
	noise float64 // of a block, kN
	each  float64 // length of a block, s
}

func blocks(t Trace) blocked {
	n := len(t.S)
	each := math.Max(blockS, (t.S[n-1]-t.S[0])/float64(n)) // slow cells: one reading a block
	var b blocked
	b.each = each
	from := 0
	for from < n {
		limit, sum, to := t.S[from]+each*(1-1e-9), 0.0, from
		for to < n && t.S[to] < limit {
			sum += t.KN[to]
			to++
		}
		if to == from {
			to, sum = from+1, t.KN[from]
		}
		b.s = append(b.s, (t.S[from]+t.S[to-1])/2)
		b.kn = append(b.kn, sum/float64(to-from))
		from = to
	}
	// Zero: the lower half of the first moments, so that an early pull does not raise it.
	quiet := slices.Clone(b.kn[:min(len(b.kn), max(1, int(quietS/each)))])
	slices.Sort(quiet)
	b.zero = quiet[len(quiet)/4]
	for i := range b.kn {
		b.kn[i] -= b.zero
	}
	// Noise: second differences, to which a ramp adds nothing; their lower quarter, which jerks
	// do not reach. Of a normal distribution it is 0.3186 standard deviations.
	var rough []float64
	for i := 2; i < len(b.kn); i++ {
		rough = append(rough, math.Abs(b.kn[i]-2*b.kn[i-1]+b.kn[i-2]))
	}
	if len(rough) > 0 {
		slices.Sort(rough)
		b.noise = rough[len(rough)/4] / 0.3186 / math.Sqrt(6)
	}
	return b
}

// least is how far the load must fall to be a slip.
func (b blocked) least(kn, peak float64) float64 {
	return max(drop*kn, dropPeak*peak, noises*b.noise)
}

// edge is where the load began to fall between its top and where the fall was noticed: the
// last block that is still nearer to the top than the noise.
func (b blocked) edge(top, noticed int) int {
	for i := noticed; i > top; i-- {
		if b.kn[i] > b.kn[top]-3*b.noise {
			return i
		}
	}
	return top
}

func (b blocked) after(i int, s float64) int {
	j := i
	for j+1 < len(b.s) && b.s[j+1] <= b.s[i]+s {
		j++
	}
	return j
}

func (b blocked) index(s float64) int {
	i, _ := slices.BinarySearch(b.s, s)
	return min(i, len(b.s)-1)
}

// slope is the rise of the load over blocks i to j, kN/s, by least squares.
func (b blocked) slope(i, j int) float64 {
	var n, sx, sy, sxx, sxy float64
	for k := i; k < j; k++ {
		x, y := b.s[k]-b.s[i], b.kn[k]
		n, sx, sy, sxx, sxy = n+1, sx+x, sy+y, sxx+x*x, sxy+x*y
	}
	if d := n*sxx - sx*sx; d > 0 {
		return (n*sxy - sx*sy) / d
	}
	return 0
}

// withStalls adds to the slips the moments at which the load stopped rising without a fall.
func withStalls(b blocked, slips []Mark, end int, peak float64) []Mark {
	span := max(4, int(stallS/b.each))
	before := 2 * span
	near := func(s float64) bool {
		return slices.ContainsFunc(slips, func(m Mark) bool { return math.Abs(m.S-s) < 2*stallS })
	}
	for i := before; i+span < end; i++ {
		if b.kn[i] < 2*beddingIn*peak {
			continue
		}
		was := b.slope(i-before, i)
		missing := was*(b.s[i+span-1]-b.s[i]) - (b.kn[i+span-1] - b.kn[i])
		if was <= 0 || missing < b.least(b.kn[i], peak) || near(b.s[i]) {
			continue
		}
		if now := b.slope(i, i+span); now < stalled*was && now > -was {
			slips = append(slips, Mark{b.s[i], b.kn[i]})
			i += span
		}
	}
	slices.SortFunc(slips, func(a, b Mark) int { return int(math.Copysign(1, a.S-b.S)) })
	return slips
}

// plateau is from the first to the last of slips that followed each other at one load, within
// a tenth.
func plateau(slips []Mark) *[2]Mark {
	var best *[2]Mark
	for i := range slips {
		j := i
		for j+1 < len(slips) && math.Abs(slips[j+1].LoadKN-slips[i].LoadKN) < 0.1*slips[i].LoadKN {
			j++
		}
		if j-i >= 2 && (best == nil || slips[j].S-slips[i].S > best[1].S-best[0].S) {
			best = &[2]Mark{slips[i], slips[j]}
		}
	}
	return best
}

func ramp(b blocked, m Marks) float64 {
	to := *m.Peak
	if len(m.Slips) > 0 && m.Slips[0].S < to.S {
		to = m.Slips[0]
	}
	end := b.index(to.S)
	from, last := -1, -1
	for i := range end + 1 {
		if from < 0 && b.kn[i] >= to.LoadKN/5 {
			from = i
		}
		if last < 0 && b.kn[i] >= 4*to.LoadKN/5 {
			last = i
		}
	}
	if from < 0 || last <= from {
		return 0
	}
	return (b.kn[last] - b.kn[from]) / (b.s[last] - b.s[from])
}

// outcome says what happened: it parted; it slipped, held again and bore more; it slipped and
// no longer bore; or it held.
func outcome(b blocked, m Marks) Outcome {
	final := b.kn[len(b.kn)-1]
	switch {
	case m.Break != nil && len(m.Slips) > 0 && m.Break.LoadKN > 1.05*m.Slips[0].LoadKN:
		return Caught
	case m.Break != nil:
		return Broke
	case len(m.Slips) == 0:
		return Held
	case final < 0.7*m.Peak.LoadKN && m.Slips[len(m.Slips)-1].LoadKN > final:
		return SlippedOut
	case m.Peak.LoadKN > 1.05*m.Slips[0].LoadKN:
		return Caught
	}
	return SlippedOut
}

// Thinned is a trace for a picture: at most so many points, of each stretch its lowest and its
// highest reading, so that no spike is lost.
func Thinned(t Trace, points int) Trace {
	if len(t.S) <= points || points < 4 {
		return Trace{S: slices.Clone(t.S), KN: slices.Clone(t.KN)}
	}
	var out Trace
	stretches := points / 2
	for i := range stretches {
		from, to := i*len(t.S)/stretches, (i+1)*len(t.S)/stretches
		low, high := from, from
		for j := from; j < to; j++ {
			if t.KN[j] < t.KN[low] {
				low = j
			}
			if t.KN[j] > t.KN[high] {
				high = j
			}
		}
		for _, j := range []int{min(low, high), max(low, high)} {
			out.S, out.KN = append(out.S, t.S[j]), append(out.KN, t.KN[j])
		}
	}
	return out
}
