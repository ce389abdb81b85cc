// Package load works out what a line has to bear: wind on a moored boat, a force
// at an angle or shared, a jerk, the drag of a reel, a pull by hand.
//
// # Sources
//
//   - Wind: F = ½ρv²·Cd·A, ρ = 1.225 kg/m³ (standard atmosphere).
//   - Where the area is not known: the published small-craft ground-tackle table of
//     horizontal loads, from memory, by length over all; its columns scale with v².
//   - Angle: F/cos θ, from the balance of forces.
//   - Jerk: a mass m that drifts at v onto a line of stiffness k stops with the force
//     v·√(k·m), from the balance of energy. k = strength ÷ (stretch at break × length):
//     a straight line to the breaking point, which is too stiff at first and so on
//     the safe side.
//   - Drag: a quarter to a third of the line's class, common practice, no source.
//   - Hand: from memory.
package load

import (
	"fmt"
	"math"
	"strconv"

	"oarweed/core/evidence"
	"oarweed/core/problem"
	"oarweed/core/unit"
)

// AirDensity in kg/m³, standard atmosphere at sea level.
const AirDensity = 1.225

// Knot is a nautical mile an hour, in m/s.
const Knot = 1852.0 / 3600

// Result is a load with how it came about.
type Result struct {
	LoadKN evidence.Figure `json:"load_kn"`
	// PeakKN is what a rig has to be chosen for: the high end of the interval, for a
	// line that is too strong does no harm. To three figures.
	PeakKN float64 `json:"peak_kn"`
	// Character is how the load acts, for the rig.
	Character string `json:"character"`
	// Says is the result in a sentence, Working the steps to it.
	Says    string   `json:"says"`
	Working []string `json:"working" nullable:"false"`
}

func result(f evidence.Interval, tag evidence.Tag, source, character, says string, working ...string) Result {
	kn := f.Scale(1e-3)
	return Result{evidence.Figure{Interval: kn, Tag: tag, Source: source}, threeFigures(kn.High), character, says, working}
}

func threeFigures(v float64) float64 {
	r, _ := strconv.ParseFloat(strconv.FormatFloat(v, 'g', 3, 64), 64)
	return r
}

// Pressure is the force of the wind in newtons on an area in m² with drag
// coefficient cd, at a speed in m/s.
func Pressure(area, cd, speed float64) float64 { return 0.5 * AirDensity * speed * speed * cd * area }

// groundTackle gives the horizontal load in pounds-force at 30 knots by length
// over all in feet. Published small-craft ground-tackle table, from memory.
var groundTackle = []struct{ feet, pounds float64 }{
	{10, 160}, {15, 250}, {20, 360}, {25, 490}, {30, 700}, {35, 900}, {40, 1200}, {50, 1600}, {60, 2000},
}

// TableWind is the wind speed, in knots, to which the table's working load belongs.
const TableWind = 30.0

// Wind is the load of the wind on a moored boat: by its area (m², with cd) where
// area is above zero, else by its length over all. wind is in m/s. The error names
// the field.
func Wind(loa unit.Length, area, cd, wind float64) (Result, error) {
	var l problem.List
	if !(wind > 0) || wind > 60 {
		l.Add("wind", "must be above zero and below 60 m/s", "give a speed like 30kn")
	}
	if area > 0 {
		if !(cd > 0) || cd > 3 {
			l.Add("cd", "must be above zero, at most 3", "give 1 for a boat lying beam on")
		}
		if err := l.Err(); err != nil {
			return Result{}, err
		}
		f := Pressure(area, cd, wind)
		spread := evidence.Interval{Low: 0.8 * f, Likely: f, High: 1.3 * f}
		return result(spread, evidence.Computed, "½·ρ·v²·Cd·A; a fifth below, a third above for gusts and the drag coefficient (our own spread)", "alternating",
			fmt.Sprintf("%s of wind on %.3g m².", unit.Force(f), area),
			fmt.Sprintf("½ × %g kg/m³ × (%.3g m/s)² × %.2g × %.3g m² = %s", AirDensity, wind, cd, area, unit.Force(f))), nil
	}
	feet := float64(loa / unit.Foot)
	first, last := groundTackle[0], groundTackle[len(groundTackle)-1]
	if feet < first.feet*0.999 || feet > last.feet*1.001 {
		l.Add("loa", fmt.Sprintf("%s is outside the table", loa), fmt.Sprintf("give %g to %g ft, or the area of the boat", first.feet, last.feet))
	}
	if err := l.Err(); err != nil {
		return Result{}, err
	}
	pounds := last.pounds
	for i := 1; i < len(groundTackle); i++ {
		a, b := groundTackle[i-1], groundTackle[i]
		if feet <= b.feet {
			// A power law between rows: the loads go by area.
			pounds = a.pounds * math.Pow(math.Max(feet, a.feet)/a.feet, math.Log(b.pounds/a.pounds)/math.Log(b.feet/a.feet))
			break
		}
	}
	share := wind / (TableWind * Knot)
	f := pounds * share * share * float64(unit.Pound)
	return result(evidence.Interval{Low: 0.7 * f, Likely: f, High: 1.3 * f}, evidence.Memory,
		"published small-craft ground-tackle table, from memory; scaled with the square of the wind", "alternating",
		fmt.Sprintf("%s of wind on a boat %.3g ft long.", unit.Force(f), feet),
		fmt.Sprintf("%.0f lbf at %g kn by the table", pounds, TableWind),
		fmt.Sprintf("× (%.3g kn ÷ %g kn)² = %s", wind/Knot, TableWind, unit.Force(f))), nil
}

// Share is the load of one line out of n that share a force, each at an angle to
// it (radians). Unless they share evenly the worst line carries all.
func Share(force unit.Force, angle unit.Angle, n int, even bool) (Result, error) {
	var l problem.List
	if !(force > 0) {
		l.Add("force", "must be above zero", "give a force like 2.4kN")
	}
	if angle < 0 || angle > 85*unit.Degree {
		l.Add("angle", "must be 0 to 85 degrees", "at more the line would have to bear many times the force: lead it better")
	}
	if n < 1 || n > 12 {
		l.Add("lines", "must be 1 to 12", "give the number of lines")
	}
	if err := l.Err(); err != nil {
		return Result{}, err
	}
	f := float64(force) / math.Cos(float64(angle))
	working := []string{fmt.Sprintf("%s ÷ cos %.3g° = %s", force, float64(angle/unit.Degree), unit.Force(f))}
	says := fmt.Sprintf("The worst line carries %s.", unit.Force(f))
	if even && n > 1 {
		f /= float64(n)
		working = append(working, fmt.Sprintf("÷ %d lines that share evenly = %s", n, unit.Force(f)))
		says = fmt.Sprintf("Each of %d lines carries %s.", n, unit.Force(f))
	} else if n > 1 {
		working = append(working, "lines seldom share: the worst one is taken to carry all")
	}
	return result(evidence.Exactly(f), evidence.Computed, "balance of forces", "alternating", says, working...), nil
}

// Snatch is the peak when a mass (kg) drifting at a speed (m/s) is stopped by a
// line: its strength in newtons, its stretch at break as a share, its length.
func Snatch(mass, speed float64, strength, stretch evidence.Interval, length unit.Length) (Result, error) {
	var l problem.List
	if !(mass > 0) {
		l.Add("mass", "must be above zero", "give the mass in kg, like 1500")
	}
	if !(speed > 0) || speed > 15 {
		l.Add("speed", "must be above zero, at most 15 m/s", "give a speed like 0.5")
	}
	if !(length > 0) {
		l.Add("length", "must be above zero", "give the length that stretches, like 8m")
	}
	if err := l.Err(); err != nil {
		return Result{}, err
	}
	peak := func(strength, stretch float64) float64 {
		k := strength / (stretch * float64(length))
		return speed * math.Sqrt(k*mass)
	}
	f := evidence.Interval{Low: peak(strength.Low, stretch.High), Likely: peak(strength.Likely, stretch.Likely), High: peak(strength.High, stretch.Low)}
	k := strength.Likely / (stretch.Likely * float64(length))
	return result(f, evidence.Computed, "v·√(k·m), balance of energy; strength and stretch from memory", "snatch",
		fmt.Sprintf("The jerk peaks at about %s.", unit.Force(f.Likely)),
		fmt.Sprintf("stiffness %s ÷ (%.0f %% × %s) = %.3g kN/m", unit.Force(strength.Likely), 100*stretch.Likely, length, k/1000),
		fmt.Sprintf("%.3g m/s × √(%.3g kN/m × %.4g kg) = %s", speed, k/1000, mass, unit.Force(f.Likely))), nil
}

// Drag is what a reel's drag and the shock of a run put on a line of a strength
// class. shock is the share of the class that a run adds.
func Drag(class unit.Force, shock float64) (Result, error) {
	var l problem.List
	if !(class > 0) {
		l.Add("class", "must be above zero", "give the line's class like 20lb")
	}
	if shock < 0 || shock > 2 {
		l.Add("shock", "must be 0 to 2", "give 0.2 for a run, more for a strike on a tight line")
	}
	if err := l.Err(); err != nil {
		return Result{}, err
	}
	f := evidence.Interval{Low: 0.25 + shock/2, Likely: 0.29 + shock, High: 0.33 + shock*1.5}.Scale(float64(class))
	return result(f, evidence.Trade, "drag at 25 to 33 % of the line's class, common practice, no source; the shock is yours", "snatch",
		fmt.Sprintf("Drag and shock come to about %s.", unit.Force(f.Likely).Pounds()),
		fmt.Sprintf("drag 25 to 33 %% of %s", class.Pounds()), fmt.Sprintf("and %.0f %% for the shock", 100*shock)), nil
}

// Hand is what so many people haul by hand, standing firm.
func Hand(people int) (Result, error) {
	if people < 1 || people > 10 {
		return Result{}, problem.New("people", fmt.Sprintf("%d is not 1 to 10", people), "give the number of people on the line")
	}
	f := evidence.Interval{Low: 200, Likely: 300, High: 500}.Scale(float64(people))
	return result(f, evidence.Memory, "200 to 500 N for each person, from memory, kept wide", "snatch",
		fmt.Sprintf("%d on the line haul about %s.", people, unit.Force(f.Likely)), fmt.Sprintf("%d × 300 N", people)), nil
}

// DockLine is the usual diameter of a dock line for a boat: 1/8 in for each 9 ft of
// length over all. Common practice, no source.
func DockLine(loa unit.Length) unit.Length {
	return unit.Inch / 8 * unit.Length(float64(loa/unit.Foot)/9)
}
