package export

import (
	"time"

	ics "github.com/arran4/golang-ical"
)

// Entry of a calendar: an hour of its own, or a whole day where Minutes is 0.
type Entry struct {
	ID      string
	At      time.Time
	Minutes int
	Title   string
	Text    string
}

// Calendar writes entries as iCalendar (RFC 5545).
func Calendar(name string, list []Entry, now time.Time) string {
	c := ics.NewCalendar()
	c.SetProductId("-//Oarweed//Practice//EN")
	c.SetMethod(ics.MethodPublish)
	c.SetName(name)
	for _, e := range list {
		v := c.AddEvent(e.ID + "@oarweed")
		v.SetDtStampTime(now)
		v.SetSummary(e.Title)
		v.SetDescription(e.Text)
		if e.Minutes > 0 {
			v.SetStartAt(e.At)
			v.SetEndAt(e.At.Add(time.Duration(e.Minutes) * time.Minute))
		} else {
			v.SetAllDayStartAt(e.At)
			v.SetAllDayEndAt(e.At.AddDate(0, 0, 1))
		}
	}
	return c.Serialize()
}
