package demo

import (
	"context"
	"fmt"
	"time"

	"oarweed/core/leader"
	"oarweed/core/line"
	"oarweed/core/locker"
	"oarweed/core/mooring"
	"oarweed/core/rig"
	"oarweed/core/towline"
	"oarweed/core/usage"
	"oarweed/internal/app"
)

// rigged fills the log of use, the tow lines, the moorings and the leaders; codes are those of
// the locker by name.
func rigged(ctx context.Context, s *app.School, now time.Time) error {
	list, err := s.Records().Lines(ctx)
	if err != nil {
		return err
	}
	codes := map[string]string{}
	for _, l := range list {
		codes[l.Name] = l.Code
	}
	for i, u := range uses {
		e := usage.Entry{Key: fmt.Sprint("demo-use-", i), At: now.Add(-u.ago), Where: u.where, Line: codes[u.line], Other: codes[u.other], Knot: u.knot, Outcome: u.outcome,
			Hours: u.hours, PlaceM: u.place, WindKn: u.wind, Note: u.note}
		if _, _, err := s.AddUse(ctx, e); err != nil {
			return fmt.Errorf("use %d: %w", i, err)
		}
	}
	for _, b := range leaders {
		b.Own, b.Begun = codes[spoolOf[b.Name]], now.Add(-3*day)
		if _, err := s.SaveLeader(ctx, b); err != nil {
			return err
		}
	}
	for _, b := range tows {
		b.Own = codes["Kelp punt tow line"]
		if _, err := s.SaveTow(ctx, b); err != nil {
			return err
		}
	}
	for _, b := range []struct {
		name, kind string
		boat       mooring.Boat
		line       rig.Line
		wind       mooring.Wind
		lying      bool
	}{
		{"Between the posts", "posts", mooring.Boat{LOAM: 6.5, BeamM: 2.2, DisplacementT: 1.4}, rig.Line{Material: "polyamide", Construction: line.Laid, DiameterMM: 12}, mooring.Wind{Kn: 20, FromDeg: 60}, false},
		{"Workboat at the outer quay", "alongside", mooring.Boat{LOAM: 9, BeamM: 3, DisplacementT: 4.2}, rig.Line{Material: "polyester", Construction: line.Braid, DiameterMM: 12}, mooring.Wind{Kn: 25, FromDeg: 300}, true},
	} {
		p, err := s.UsualBerth(b.boat, b.kind, b.line)
		if err != nil {
			return err
		}
		p.Wind = b.wind
		if b.lying {
			p.Lines[0].Own = codes["Workboat bow line"]
		}
		if _, err := s.SaveBerth(ctx, mooring.Berth{Name: b.name, Plan: p, Heading: 215, Lying: b.lying}); err != nil {
			return err
		}
	}
	return nil
}

const day = 24 * hour

// looked over and by whom, so many days ago.
func looked(now time.Time, days int, by string, grades map[string]int, place float64, note string) locker.Look {
	return locker.Look{At: now.AddDate(0, 0, -days), By: by, Grades: grades, PlaceM: place, Note: note}
}

func ago(now time.Time, days int) string { return now.AddDate(0, 0, -days).Format(time.DateOnly) }

func linesOf(now time.Time) []locker.Line {
	return []locker.Line{
		{Name: "Workboat bow line", Note: "Spliced eye on the boat's end.", Colour: "blue", Lives: "Workboat, fore locker", Bought: ago(now, 800), Hours: 420, Trips: 180,
			Line: rig.Line{Material: "polyester", Construction: line.Braid, DiameterMM: 12, LengthM: 14},
			Looks: []locker.Look{looked(now, 200, "Fenna", map[string]int{"core": 0, "chafe": 0, "splice": 0}, 0, ""),
				looked(now, 40, "Fenna", map[string]int{"core": 0, "chafe": 1, "glaze": 0, "stiffness": 0, "splice": 0}, 1.2, "fluffy at the fairlead")}},
		{Name: "Workboat stern line", Colour: "blue", Lives: "Workboat, aft locker", Bought: ago(now, 800), Line: rig.Line{Material: "polyester", Construction: line.Braid, DiameterMM: 12, LengthM: 14},
			Looks: []locker.Look{looked(now, 150, "Eskil", map[string]int{"core": 0, "chafe": 0, "splice": 0}, 0, "")}},
		{Name: "Practice line, blue reel", Note: "For the classes.", Colour: "blue", Lives: "Class room", Bought: ago(now, 300), Line: rig.Line{Material: "polyester", Construction: line.Braid, DiameterMM: 8, LengthM: 50},
			Looks: []locker.Look{looked(now, 20, "Ailsa", map[string]int{"core": 0, "chafe": 0, "stiffness": 0}, 0, "")}},
		{Name: "Practice line, short reel", Colour: "orange", Lives: "Class room", Bought: ago(now, 60), Line: rig.Line{Material: "polypropylene", Construction: line.Laid, DiameterMM: 10, LengthM: 18}},
		{Name: "Lugger painter", Note: "Natural-look three-strand.", Colour: "natural", Lives: "Lugger", Bought: ago(now, 75), Line: rig.Line{Material: "polypropylene", Construction: line.Laid, DiameterMM: 10, LengthM: 8}},
		{Name: "Lugger fore sheet", Colour: "white", Lives: "Lugger", Bought: ago(now, 1900), Line: rig.Line{Material: "polyester", Construction: line.Braid, DiameterMM: 8, LengthM: 11},
			Looks: []locker.Look{looked(now, 25, "Corin", map[string]int{"core": 1, "chafe": 2, "glaze": 1, "stiffness": 1}, 3.4, "glazed where the winch holds it")}},
		{Name: "Spare anchor line", Colour: "white", Lives: "Boat shed, hook 3", Bought: ago(now, 80), Line: rig.Line{Material: "polyamide", Construction: line.Laid, DiameterMM: 12, LengthM: 40}},
		{Name: "Short anchor line", Note: "Kept apart: bent to the painter when it is needed.", Colour: "green", Lives: "Kelp punt", Bought: ago(now, 30), Line: rig.Line{Material: "polyamide", Construction: line.Laid, DiameterMM: 10, LengthM: 4.6}},
		{Name: "Kelp punt tow line", Note: "Floats; kept in the punt shed.", Colour: "yellow", Lives: "Punt shed", Bought: ago(now, 400), Trips: 90, Line: rig.Line{Material: "hmpe", Construction: line.Twelve, DiameterMM: 6, LengthM: 24.4},
			Looks: []locker.Look{looked(now, 9, "Bram", map[string]int{"core": 0, "chafe": 1, "splice": 0}, 21.9, "cover rubbed where the hitch sits")}},
		{Name: "Old fender line", Colour: "natural", Lives: "Boat shed, hook 1", Bought: ago(now, 2600), Line: rig.Line{Material: "natural", Construction: line.Laid, DiameterMM: 10, LengthM: 3},
			Looks: []locker.Look{looked(now, 3, "Ailsa", map[string]int{"core": 3, "chafe": 2}, 1.1, "grey and short inside")}},
		{Name: "Pollack leader", Note: "Rocks evening, 20 lb.", Colour: "clear", Lives: "Tackle box", Bought: ago(now, 50), Line: rig.Line{Material: "fluorocarbon", Construction: line.Solid, LabelKN: 0.089, LengthM: 86}},
		{Name: "Bonefish tippet", Colour: "clear", Lives: "Tackle box", Bought: ago(now, 50), Line: rig.Line{Material: "fluorocarbon", Construction: line.Solid, LabelKN: 0.0712, LengthM: 27}},
	}
}

var spoolOf = map[string]string{"Flats rod, bonefish fly": "Bonefish tippet", "Rocks evening, pollack": "Pollack leader"}

var leaders = []leader.Book{
	{Name: "Flats rod, bonefish fly", Query: leader.Query{LengthM: 2.7, ShortestM: 2.1, Knot: "non-slip-loop", Line: rig.Line{Material: "fluorocarbon", LabelKN: 0.0712}}, Changes: 6, ActionM: 2.3,
		Sections: []leader.Section{{LengthM: 1.5, Knot: "double-uni", Line: rig.Line{Material: "mono", LabelKN: 0.222}}, {LengthM: 0.9, Knot: "double-uni", Line: rig.Line{Material: "mono", LabelKN: 0.133}}}},
	{Name: "Rocks evening, pollack", Query: leader.Query{LengthM: 1.8, ShortestM: 1.2, Knot: "improved-clinch", Line: rig.Line{Material: "fluorocarbon", LabelKN: 0.089}}, Changes: 9, LostM: 0.15},
}

var tows = []towline.Book{
	{Name: "Tow line two", Boat: "Workboat", On: towline.Pylon, Line: rig.Line{Material: "hmpe", Construction: line.Twelve, DiameterMM: 6}, TakeoffsM: []float64{18.4, 19.9, 21.4, 22.9, 24.4},
		Riders: []towline.Rider{{Name: "Fenna", WantM: 22.1, Kn: 13}, {Name: "Ailsa", WantM: 19.9, Kn: 12}, {Name: "Bram", WantM: 18.4, Kn: 11}, {Name: "Corin", WantM: 20.7, Kn: 13}, {Name: "Dorrit", WantM: 17, Kn: 11}},
		Runs:   []towline.Run{{PlaceM: 20.7, N: 6}, {PlaceM: 22.1, N: 23}}},
}

var uses = []struct {
	ago                      time.Duration
	where, line, other, knot string
	outcome                  usage.Outcome
	hours, place, wind       float64
	note                     string
}{
	{80 * day, "Outer quay", "Workboat bow line", "", "bowline", usage.Held, 14, 0, 18, ""},
	{78 * day, "Outer quay", "Workboat stern line", "", "round-turn-two-half-hitches", usage.Held, 14, 0, 18, ""},
	{71 * day, "North slip", "Lugger painter", "", "clove-hitch", usage.Slipped, 2, 0, 14, "worked loose in the swell; a round turn now"},
	{64 * day, "Outer quay", "Workboat bow line", "", "bowline", usage.Held, 20, 0, 22, ""},
	{55 * day, "Sand hole", "Spare anchor line", "Short anchor line", "zeppelin-bend", usage.Held, 5, 0, 12, ""},
	{44 * day, "Outer quay", "Workboat bow line", "", "bowline", usage.Chafed, 30, 1.2, 27, "no chafe gear at the fairlead"},
	{36 * day, "Lugger", "Lugger fore sheet", "", "figure-eight", usage.Jammed, 4, 0, 19, ""},
	{30 * day, "North slip", "Lugger painter", "", "round-turn-two-half-hitches", usage.Held, 3, 0, 15, ""},
	{22 * day, "Tang sound", "Kelp punt tow line", "", "tow-pylon-hitch", usage.Held, 1, 0, 8, ""},
	{15 * day, "Tang sound", "Kelp punt tow line", "", "tow-pylon-hitch", usage.Held, 1.5, 0, 6, ""},
	{10 * day, "Outer quay", "Workboat stern line", "", "clove-hitch", usage.Late, 9, 0, 24, "drawn tight in the gust: a slipped hitch next time"},
	{6 * day, "North slip", "Lugger painter", "", "bowline", usage.Held, 2, 0, 9, ""},
	{2 * day, "Outer quay", "Workboat stern line", "", "round-turn-two-half-hitches", usage.Held, 12, 0, 16, ""},
}
