package job

import (
	"strconv"
	"strings"

	"oarweed/core/line"
	"oarweed/core/load"
	"oarweed/core/problem"
	"oarweed/core/trade"
	"oarweed/core/unit"
)

// LoadInput holds the figures of every kind of load as typed; each kind uses its
// own. Area in m², Angle in degrees, Mass in kg, Speed in m/s.
type LoadInput struct {
	LOA      string
	Area     float64
	Cd       float64
	Wind     string
	Force    string
	Angle    float64
	Lines    int
	Even     bool
	Mass     float64
	Speed    float64
	Length   string
	Material string
	Diameter string
	Wet      bool
	Class    string
	Shock    float64
	People   int
	Seconds  float64
}

// loadKinds are the loads that can be worked out, with how.
var loadKinds = []struct {
	id   string
	work func(*trade.Catalogue, LoadInput) (load.Kind, error)
}{{"wind", wind}, {"share", share}, {"snatch", snatch}, {"drag", drag}, {"hand", hand}, {"rider", rider}}

// LoadKinds lists the loads that can be worked out.
func LoadKinds() []string {
	var ids []string
	for _, k := range loadKinds {
		ids = append(ids, k.id)
	}
	return ids
}

// Load works out a load: "wind" on a moored boat, a force that lines "share", a
// "snatch" on a line, the "drag" of a reel, a "hand" haul, a towed "rider". The error names the field.
func Load(c *trade.Catalogue, kind string, q LoadInput) (load.Kind, error) {
	for _, k := range loadKinds {
		if k.id == kind {
			return k.work(c, q)
		}
	}
	return nil, problem.New("kind", strconv.Quote(kind)+" is not a kind of load", "use one of "+strings.Join(LoadKinds(), ", "))
}

func wind(_ *trade.Catalogue, q LoadInput) (load.Kind, error) {
	var l problem.List
	speed, err := windSpeed(q.Wind)
	l.Take("wind", err)
	if q.Area > 0 {
		if err := l.Err(); err != nil {
			return nil, err
		}
		return load.ByArea(q.Area, q.Cd, speed)
	}
	loa, err := unit.ParseLength(q.LOA, unit.Metre)
	l.Take("loa", err)
	if err := l.Err(); err != nil {
		return nil, err
	}
	return load.ByLength(loa, speed)
}

func share(_ *trade.Catalogue, q LoadInput) (load.Kind, error) {
	f, err := unit.ParseForce(q.Force, unit.Kilonewton)
	if err != nil {
		return nil, problem.At("force", err)
	}
	return load.Share(f, unit.Angle(q.Angle)*unit.Degree, q.Lines, q.Even)
}

func snatch(c *trade.Catalogue, q LoadInput) (load.Kind, error) {
	var l problem.List
	run := lengthWithin(&l, "length", q.Length, unit.Metre, 0, 10000*unit.Metre)
	d := lengthWithin(&l, "diameter", q.Diameter, unit.Millimetre, 0.05*unit.Millimetre, 0.2)
	m := c.Material(q.Material)
	if m == nil {
		l.Add("material", strconv.Quote(q.Material)+" is not a material", "use the id of one, like polyamide")
	}
	if err := l.Err(); err != nil {
		return nil, err
	}
	bears, err := line.Line{Material: m, Construction: m.Constructions[0], Diameter: d}.Bears(q.Wet)
	if err != nil {
		return nil, err
	}
	return load.Snatch(q.Mass, q.Speed, bears.Capacity.Interval, m.Stretch.Interval, run)
}

func drag(_ *trade.Catalogue, q LoadInput) (load.Kind, error) {
	class, err := unit.ParseForce(q.Class, unit.Pound)
	if err != nil {
		return nil, problem.At("class", err)
	}
	return load.Drag(class, q.Shock)
}

func hand(_ *trade.Catalogue, q LoadInput) (load.Kind, error) { return load.Hand(q.People) }

func rider(_ *trade.Catalogue, q LoadInput) (load.Kind, error) {
	f, err := unit.ParseForce(q.Force, unit.Kilonewton)
	if err != nil {
		return nil, problem.At("force", err)
	}
	return load.Rider(f, q.Mass, q.Speed, q.Seconds)
}

// windSpeed reads a wind speed in m/s: a bare number, or with m/s or kn.
func windSpeed(text string) (float64, error) {
	t := strings.TrimSpace(strings.ToLower(text))
	k := 1.0
	for _, u := range []struct {
		suffix string
		factor float64
	}{{"knots", load.KnotSpeed}, {"kts", load.KnotSpeed}, {"kn", load.KnotSpeed}, {"m/s", 1}} {
		if cut, ok := strings.CutSuffix(t, u.suffix); ok {
			t, k = strings.TrimSpace(cut), u.factor
			break
		}
	}
	v, err := strconv.ParseFloat(strings.ReplaceAll(t, ",", "."), 64)
	if err != nil {
		return 0, problem.New("", strconv.Quote(text)+" is not a wind speed", "write 30kn or 15 m/s")
	}
	return v * k, nil
}
