package choose

import (
	"strconv"
	"strings"

	"oarweed/catalogue"
	"oarweed/core/line"
	"oarweed/core/load"
	"oarweed/core/problem"
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
}

// LoadKinds are the loads that can be worked out.
var LoadKinds = []string{"wind", "share", "snatch", "drag", "hand"}

// Load works out a load: "wind" on a moored boat, a force that lines "share", a
// "snatch" on a line, the "drag" of a reel, a "hand" haul.
func Load(c *catalogue.Catalogue, kind string, q LoadInput) (load.Result, error) {
	var l problem.List
	length := func(field, text string, bare unit.Length) unit.Length {
		v, err := unit.ParseLength(text, bare)
		l.Take(field, err)
		return v
	}
	force := func(field, text string, bare unit.Force) unit.Force {
		v, err := unit.ParseForce(text, bare)
		l.Take(field, err)
		return v
	}
	done := func(r load.Result, err error) (load.Result, error) {
		l.Take("", err)
		return r, l.Err()
	}
	switch kind {
	case "wind":
		wind, err := speed(q.Wind)
		l.Take("wind", err)
		var loa unit.Length
		if q.Area <= 0 {
			loa = length("loa", q.LOA, unit.Metre)
		}
		if err := l.Err(); err != nil {
			return load.Result{}, err
		}
		return load.Wind(loa, q.Area, q.Cd, wind)
	case "share":
		f := force("force", q.Force, unit.Kilonewton)
		if err := l.Err(); err != nil {
			return load.Result{}, err
		}
		return load.Share(f, unit.Angle(q.Angle)*unit.Degree, q.Lines, q.Even)
	case "snatch":
		run := length("length", q.Length, unit.Metre)
		d := length("diameter", q.Diameter, unit.Millimetre)
		m := c.Material(q.Material)
		if m == nil {
			l.Add("material", strconv.Quote(q.Material)+" is not a material", "use the id of one, like polyamide")
		}
		if err := l.Err(); err != nil {
			return load.Result{}, err
		}
		ln := line.Line{Material: m, Construction: m.Constructions[0], Diameter: d}
		bears, err := Bears(ln, q.Wet)
		if err != nil {
			return load.Result{}, err
		}
		return load.Snatch(q.Mass, q.Speed, bears.CapacityKN.Scale(1e3), m.Stretch.Interval, run)
	case "drag":
		f := force("class", q.Class, unit.Pound)
		if err := l.Err(); err != nil {
			return load.Result{}, err
		}
		return load.Drag(f, q.Shock)
	case "hand":
		return done(load.Hand(q.People))
	}
	return load.Result{}, problem.New("kind", strconv.Quote(kind)+" is not a kind of load", "use one of "+strings.Join(LoadKinds, ", "))
}

// speed reads a wind speed: m/s, or knots with kn.
func speed(text string) (float64, error) {
	t := strings.TrimSpace(strings.ToLower(text))
	k := 1.0
	for suffix, factor := range map[string]float64{"kn": load.Knot, "kts": load.Knot, "knots": load.Knot, "m/s": 1} {
		if cut, ok := strings.CutSuffix(t, suffix); ok {
			t, k = strings.TrimSpace(cut), factor
			break
		}
	}
	v, err := strconv.ParseFloat(strings.ReplaceAll(t, ",", "."), 64)
	if err != nil {
		return 0, problem.New("", strconv.Quote(text)+" is not a wind speed", "write 30kn or 15 m/s")
	}
	return v * k, nil
}
