package say

import (
	"fmt"

	"oarweed/core/mooring"
)

// Mooring says what a plan stands and which line bears most.
func Mooring(p mooring.Plan, s mooring.Shared) []string {
	name := func(i int) string {
		if n := p.Lines[i].Name; n != "" {
			return n
		}
		return fmt.Sprintf("line %d", i+1)
	}
	worst := -1
	for i, l := range s.Lines {
		if l.Margin > 0 && (worst < 0 || l.Margin < s.Lines[worst].Margin) {
			worst = i
		}
	}
	if worst < 0 {
		return []string{"No line bears anything: the quay holds her, or there is no wind."}
	}
	w := s.Lines[worst]
	out := []string{fmt.Sprintf("It stands %.0f knots from there.", s.StandsKN)}
	switch {
	case w.Margin < 1:
		out[0] = fmt.Sprintf("It does not stand this wind: %.0f knots is the most from there.", s.StandsKN)
		out = append(out, fmt.Sprintf("The %s bears %s, more than half of what it has at its worst. Double it, or lead another with it.", name(worst), kn(w.LoadKN)))
	default:
		out = append(out, fmt.Sprintf("The %s bears most for its strength: %s, %.1f times within half of what it has at its worst.", name(worst), kn(w.LoadKN), w.Margin))
	}
	out = append(out, fmt.Sprintf("If it had to carry all of it alone, %s.", kn(s.WindKN)))
	if s.QuayKN > 0.01 {
		out = append(out, fmt.Sprintf("She lies on her fenders with %s.", kn(s.QuayKN)))
	}
	return out
}

func lineName(p mooring.Plan, i int) string {
	if n := p.Lines[i].Name; n != "" {
		return n
	}
	return fmt.Sprintf("line %d", i+1)
}

var postNames = map[mooring.Post]string{"": "bollard", "cleat": "cleat", "bollard": "bollard", "ring": "ring", "post": "post"}

// byHand is what one may still take off a cleat by hand, kN: a hand's pull, from memory.
const byHand = 0.2

// Moor says to the crew in which order the lines go on.
func Moor(p mooring.Plan, s mooring.Shared, order []int) []string {
	out := []string{"Fenders down. Nobody between boat and shore, no hand on a line that runs."}
	for n, i := range order {
		name, post := lineName(p, i), postNames[p.Lines[i].Shore]
		switch {
		case n == 0 && s.Lines[i].LoadKN > 0.01:
			out = append(out, fmt.Sprintf("%s first, onto the %s: take it in, make fast. It holds her against the wind.", Capital(name), post))
		case n == 0:
			out = append(out, fmt.Sprintf("%s first, onto the %s: take it in, make fast.", Capital(name), post))
		case s.Lines[i].LoadKN > 0.01:
			out = append(out, fmt.Sprintf("%s onto the %s: take it in, make fast.", Capital(name), post))
		default:
			out = append(out, fmt.Sprintf("%s onto the %s, hand tight: it bears nothing in this wind, and will when it turns.", Capital(name), post))
		}
	}
	return out
}

// Unmoor says to the crew in which order they come off.
func Unmoor(p mooring.Plan, s mooring.Shared, order []int) []string {
	out := []string{"Engine on, propeller clear, everybody knows the order."}
	for n := len(order) - 1; n >= 0; n-- {
		i := order[n]
		name := lineName(p, i)
		switch load := s.Lines[i].LoadKN; {
		case n == 0 && load > byHand:
			out = append(out, fmt.Sprintf("%s last: she lies to it with %s. Lead it as a slip line, or bring her up to it first until it is slack.", Capital(name), kn(load)))
		case n == 0:
			out = append(out, fmt.Sprintf("%s last.", Capital(name)))
		case load > byHand:
			out = append(out, fmt.Sprintf("Ease the %s round its cleat until it is slack, then let go: it bears %s.", name, kn(load)))
		default:
			out = append(out, fmt.Sprintf("Let go the %s.", name))
		}
	}
	return append(out, "Say: all lines aboard. Only then away.")
}

var chafes = map[mooring.Chafe]string{mooring.Rail: "where it leads out over the side", mooring.Quay: "on the edge of the quay"}

// LineDetail says what a line of a berth needs, the most pressing first.
func LineDetail(p mooring.Plan, i int, d mooring.Detail) []string {
	out := []string{}
	if d.Short {
		out = append(out, fmt.Sprintf("Too thin for this wind: new and dry it should bear %s, %d times its load.", kn(d.NeedKN), mooring.Factor))
	}
	if d.ThinMM > 0.5 {
		out = append(out, fmt.Sprintf("The rule for dock lines asks for %.0f mm.", p.Boat.Rule()))
	}
	var rubs []string
	for _, c := range d.Chafes {
		if w := chafes[c]; w != "" {
			rubs = append(rubs, w)
		}
	}
	for _, k := range d.Crosses {
		rubs = append(rubs, "against the "+lineName(p, k))
	}
	if len(rubs) > 0 {
		out = append(out, "It rubs "+List(rubs)+".")
	}
	if d.SnatchKN.Likely > 0 {
		out = append(out, fmt.Sprintf("If she comes up on it from slack: %s to %s.", kn(d.SnatchKN.Low), kn(d.SnatchKN.High)))
	}
	return out
}

// Watched says how the wind stands against a berth: what is to be done first of all.
func Watched(name string, w mooring.Watch) string {
	if w.Worst {
		name += " (her heading is not set: from where it stands least)"
	}
	switch w.Warn {
	case mooring.Gone:
		return fmt.Sprintf("%s: %.0f knots are more than it stands from there (%.0f). Double the lines that bear, or leave.", name, w.Kn, w.StandsKN)
	case mooring.Gusts:
		return fmt.Sprintf("%s: gusts of %.0f knots are more than it stands from there (%.0f). Double the lines that bear now.", name, w.GustKn, w.StandsKN)
	case mooring.Soon:
		return fmt.Sprintf("%s: %.0f knots, and it stands %.0f from there. See to it before it goes.", name, max(w.Kn, w.GustKn), w.StandsKN)
	}
	return fmt.Sprintf("%s stands: %.0f knots of %.0f.", name, w.Kn, w.StandsKN)
}

var lostWind = map[mooring.Lost]string{mooring.Unreachable: "nobody answers at its address", mooring.Broken: "the connection broke off", mooring.Silent: "it sends no wind that can be read"}

// Feed says what is known of the wind, and that nothing is where nothing is.
func Feed(f mooring.Feed) string {
	from := "from north"
	if f.Relative {
		from = "off the bow"
	}
	wind := fmt.Sprintf("%.0f knots, gusts of %.0f, from %.0f° %s", f.Kn, f.GustKn, f.FromDeg, from)
	switch {
	case f.Addr == "":
		return "No wind instrument is listened to."
	case f.Known:
		return "Wind now: " + wind + "."
	}
	out := "The wind is not known"
	if w := lostWind[f.Lost]; w != "" {
		out += ": " + w
	}
	out += ". Look up: nothing warns now."
	if !f.Breeze.At.IsZero() {
		out += fmt.Sprintf(" The last was %s, %s ago.", wind, Clock(f.AgeS))
	}
	return out
}
