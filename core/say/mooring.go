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
