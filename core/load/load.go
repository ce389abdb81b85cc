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
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// AirDensity in kg/m³, standard atmosphere at sea level.
const AirDensity = 1.225

// KnotSpeed is a nautical mile an hour, in m/s.
const KnotSpeed = 1852.0 / 3600

// Load is a load in newtons with its evidence, and how it acts. The types that embed
// it hold the steps by which it came about, for package say to put into words.
type Load struct {
	evidence.Figure
	// Character is how the load acts, for the rig.
	Character rig.Character
}

func newton(i evidence.Interval, tag evidence.Tag, source string, c rig.Character) Load {
	return Load{evidence.Figure{Interval: i, Unit: evidence.Newton, Tag: tag, Source: source}, c}
}

// Of gives the load itself, of whatever kind.
func (l Load) Of() Load { return l }

// Kind is any of the loads below.
type Kind interface{ Of() Load }

// PeakKN is what a rig has to be chosen for, in kN to three figures: the load as the
// table has it, or the likely one. What it may be worse lies in the design factor:
// its upper end here would count that twice.
func (l Load) PeakKN() float64 {
	r, _ := strconv.ParseFloat(strconv.FormatFloat(l.Likely/1e3, 'g', 3, 64), 64)
	return r
}

// Pressure is the force of the wind in newtons on an area in m² with drag
// coefficient cd, at a speed in m/s.
func Pressure(area, cd, speed float64) float64 { return 0.5 * AirDensity * speed * speed * cd * area }

// WindOnArea is the load of a wind (m/s) on an area (m²) with a drag coefficient.
type WindOnArea struct {
	Load
	Area, Cd, Wind float64
}

// WindOnLength is that on a boat known by its length over all: so many pounds at the
// wind of the table.
type WindOnLength struct {
	Load
	LOA    unit.Length
	Wind   float64
	Pounds float64
}

// groundTackle gives the horizontal load in pounds-force at 30 knots by length
// over all in feet. Published small-craft ground-tackle table, from memory.
var groundTackle = []struct{ feet, pounds float64 }{
	{10, 160}, {15, 250}, {20, 360}, {25, 490}, {30, 700}, {35, 900}, {40, 1200}, {50, 1600}, {60, 2000},
}

// TableWind is the wind speed, in knots, to which the table's working load belongs.
const TableWind = 30.0

// ByArea is the load of the wind on a moored boat by its area in m²; wind is in m/s. The
// error names the field.
func ByArea(area, cd, wind float64) (WindOnArea, error) {
	var l problem.List
	checkWind(wind, &l)
	if !(area > 0) || area > 2000 {
		l.Add("area", "must be above zero, at most 2000 m²", "give the area that the wind meets")
	}
	if !(cd > 0) || cd > 3 {
		l.Add("cd", "must be above zero, at most 3", "give 1 for a boat lying beam on")
	}
	if err := l.Err(); err != nil {
		return WindOnArea{}, err
	}
	f := Pressure(area, cd, wind)
	return WindOnArea{newton(evidence.Interval{Low: 0.8 * f, Likely: f, High: 1.3 * f}, evidence.Computed,
		"½·ρ·v²·Cd·A; a fifth below, a third above for gusts and the drag coefficient (our own spread)", rig.Alternating), area, cd, wind}, nil
}

// ByLength is the load of the wind on a moored boat by its length over all; wind is in
// m/s. The error names the field.
func ByLength(loa unit.Length, wind float64) (WindOnLength, error) {
	var l problem.List
	checkWind(wind, &l)
	feet := float64(loa / unit.Foot)
	first, last := groundTackle[0], groundTackle[len(groundTackle)-1]
	if !(feet >= first.feet*0.999 && feet <= last.feet*1.001) {
		l.Add("loa", fmt.Sprintf("%s is outside the table", loa), fmt.Sprintf("give %g to %g ft, or the area of the boat", first.feet, last.feet))
	}
	if err := l.Err(); err != nil {
		return WindOnLength{}, err
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
	share := wind / (TableWind * KnotSpeed)
	f := pounds * share * share * float64(unit.Pound)
	return WindOnLength{newton(evidence.Interval{Low: 0.7 * f, Likely: f, High: 1.3 * f}, evidence.Memory,
		"published small-craft ground-tackle table, from memory; scaled with the square of the wind", rig.Alternating), loa, wind, pounds}, nil
}

func checkWind(wind float64, l *problem.List) {
	if !(wind > 0) || wind > 60 {
		l.Add("wind", "must be above zero and below 60 m/s", "give a speed like 30kn")
	}
}

// Shared is a force on lines that each stand at an angle to it.
type Shared struct {
	Load
	Force unit.Force
	Angle unit.Angle
	Lines int
	Even  bool
	// One is what a single line would carry.
	One unit.Force
}

// Share is the load of one line out of n that share a force, each at an angle to
// it (radians). Unless they share evenly the worst line carries all.
func Share(force unit.Force, angle unit.Angle, n int, even bool) (Shared, error) {
	var l problem.List
	if !(force > 0) {
		l.Add("force", "must be above zero", "give a force like 2.4kN")
	}
	if !(angle >= 0 && angle <= 85*unit.Degree) {
		l.Add("angle", "must be 0 to 85 degrees", "at more the line would have to bear many times the force: lead it better")
	}
	if n < 1 || n > 12 {
		l.Add("lines", "must be 1 to 12", "give the number of lines")
	}
	if err := l.Err(); err != nil {
		return Shared{}, err
	}
	out := Shared{Force: force, Angle: angle, Lines: n, Even: even && n > 1, One: unit.Force(float64(force) / math.Cos(float64(angle)))}
	f := float64(out.One)
	if out.Even {
		f /= float64(n)
	}
	out.Load = newton(evidence.Exactly(f), evidence.Computed, "balance of forces", rig.Alternating)
	return out, nil
}

// Jerk is the peak when a mass (kg) drifting at a speed (m/s) is stopped by a line.
type Jerk struct {
	Load
	Mass, Speed float64
	// Strength and Stretch (at break, as a share) of the line, Length that stretches.
	Strength unit.Force
	Stretch  float64
	Length   unit.Length
	// Stiffness in N/m, all likely.
	Stiffness float64
}

// Snatch is the peak when a mass (kg) drifting at a speed (m/s) is stopped by a
// line: its strength in newtons, its stretch at break as a share, its length.
func Snatch(mass, speed float64, strength, stretch evidence.Interval, length unit.Length) (Jerk, error) {
	var l problem.List
	if !(mass > 0) || mass > 1e8 {
		l.Add("mass", "must be above zero", "give the mass in kg, like 1500")
	}
	if !(speed > 0) || speed > 15 {
		l.Add("speed", "must be above zero, at most 15 m/s", "give a speed like 0.5")
	}
	if !(length > 0) {
		l.Add("length", "must be above zero", "give the length that stretches, like 8m")
	}
	if err := l.Err(); err != nil {
		return Jerk{}, err
	}
	peak := func(strength, stretch float64) float64 {
		k := strength / (stretch * float64(length))
		return speed * math.Sqrt(k*mass)
	}
	f := evidence.Interval{Low: peak(strength.Low, stretch.High), Likely: peak(strength.Likely, stretch.Likely), High: peak(strength.High, stretch.Low)}
	return Jerk{newton(f, evidence.Computed, "v·√(k·m), balance of energy; strength and stretch from memory", rig.Snatch),
		mass, speed, unit.Force(strength.Likely), stretch.Likely, length, strength.Likely / (stretch.Likely * float64(length))}, nil
}

// Dragged is what a reel's drag and the shock of a run put on a line of a class.
type Dragged struct {
	Load
	Class unit.Force
	// Shock is the share of the class that a run adds.
	Shock float64
}

// Drag is what a reel's drag and the shock of a run put on a line of a strength
// class. shock is the share of the class that a run adds.
func Drag(class unit.Force, shock float64) (Dragged, error) {
	var l problem.List
	if !(class > 0) {
		l.Add("class", "must be above zero", "give the line's class like 20lb")
	}
	if !(shock >= 0 && shock <= 2) {
		l.Add("shock", "must be 0 to 2", "give 0.2 for a run, more for a strike on a tight line")
	}
	if err := l.Err(); err != nil {
		return Dragged{}, err
	}
	f := evidence.Interval{Low: 0.25 + shock/2, Likely: 0.29 + shock, High: 0.33 + shock*1.5}.Scale(float64(class))
	return Dragged{newton(f, evidence.Trade, "drag at 25 to 33 % of the line's class, common practice, no source; the shock is yours", rig.Snatch), class, shock}, nil
}

// Ridden is what a towed rider asks of the line.
type Ridden struct {
	Load
	Steady, Start unit.Force
}

// Rider is the load of a rider of a mass in kg who is brought from rest to a speed in m/s in
// so many seconds against a steady pull: steady + m·v/t (Newton's second law), up to half as
// much again where the helm does not open up evenly. The steady pull and the time are the
// user's: nobody publishes them for his boat and rider.
func Rider(steady unit.Force, mass, speed, seconds float64) (Ridden, error) {
	var l problem.List
	if !(mass > 0 && mass <= 1000) {
		l.Add("mass", fmt.Sprintf("%g kg is not 1 to 1000", mass), "give rider and board together")
	}
	if !(speed > 0 && speed <= 40) {
		l.Add("speed", fmt.Sprintf("%g m/s is not up to 40", speed), "give the speed reached, in m/s")
	}
	if !(seconds >= 0.5 && seconds <= 60) {
		l.Add("seconds", fmt.Sprintf("%g s is not 0.5 to 60", seconds), "give how long the start takes")
	}
	if !(steady > 0) {
		l.Add("force", "must be above zero", "give the steady pull, by a spring balance in the line")
	}
	if err := l.Err(); err != nil {
		return Ridden{}, err
	}
	start := float64(steady) + mass*speed/seconds
	f := evidence.Interval{Low: start, Likely: start * 1.2, High: start * 1.5}
	return Ridden{newton(f, evidence.Yours, "your steady pull and start, and up to half as much again where the start is uneven (our own estimate)", rig.Snatch), steady, unit.Force(start)}, nil
}

// Hauled is what so many people haul by hand, standing firm.
type Hauled struct {
	Load
	People int
}

// Hand is what so many people haul by hand, standing firm.
func Hand(people int) (Hauled, error) {
	if people < 1 || people > 10 {
		return Hauled{}, problem.New("people", fmt.Sprintf("%d is not 1 to 10", people), "give the number of people on the line")
	}
	f := evidence.Interval{Low: 200, Likely: OnePerson, High: 500}.Scale(float64(people))
	return Hauled{newton(f, evidence.Memory, "200 to 500 N for each person, from memory, kept wide", rig.Snatch), people}, nil
}

// OnePerson hauls about so much, in newtons; from memory.
const OnePerson = 300

// DockLine is the usual diameter of a dock line for a boat: 1/8 in for each 9 ft of
// length over all. Common practice, no source.
func DockLine(loa unit.Length) unit.Length {
	return unit.Inch / 8 * unit.Length(float64(loa/unit.Foot)/9)
}
