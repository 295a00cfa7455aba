package exchange

import (
	"time"

	ics "github.com/arran4/golang-ical"
)

// Appointment is one as a calendar knows it.
type Appointment struct {
	// ID is the visit's; of an event of another program one that its UID always gives.
	ID string
	// Series is the same for those that were booked, or repeat, together.
	Series string
	// Entry is which event of the file it is, from 1.
	Entry   int
	Client  string // full name; empty where names stay out
	With    string // the therapist
	Room    string
	Start   time.Time
	Minutes int
	Status  string // booked, cancelled, no-show
	Changed time.Time
	// Sequence counts the changes of an event, as its own calendar does.
	Sequence int
}

// MaxAppointments is how many are read of a file.
const MaxAppointments = 5000

// product is who wrote a calendar (RFC 5545, 3.7.3).
const product = "-//Mokren//Appointments//EN"

// WriteCalendar gives appointments as iCalendar (RFC 5545). Times are in UTC, so
// that no reader's time zone tables matter. Without names it says "Appointment".
func WriteCalendar(name string, list []Appointment) []byte {
	cal := ics.NewCalendar()
	cal.SetProductId(product)
	cal.SetMethod(ics.MethodPublish)
	if name != "" {
		cal.SetXWRCalName(name)
	}
	for _, a := range list {
		e := cal.AddEvent(a.ID + "@mokren")
		e.SetDtStampTime(a.Changed)
		e.SetModifiedAt(a.Changed)
		e.SetSequence(a.Sequence)
		e.SetStartAt(a.Start.UTC())
		e.SetEndAt(a.Start.UTC().Add(time.Duration(a.Minutes) * time.Minute))
		what := "Appointment"
		if a.Client != "" {
			what = a.Client
		}
		e.SetSummary(what)
		if a.Room != "" {
			e.SetLocation(a.Room)
		}
		if a.With != "" {
			e.SetDescription("With " + a.With)
		}
		e.SetStatus(ics.ObjectStatusConfirmed)
		if a.Status == "cancelled" || a.Status == "no-show" {
			e.SetStatus(ics.ObjectStatusCancelled)
		}
	}
	return []byte(cal.Serialize(ics.WithNewLine("\r\n"))) // as RFC 5545 ends its lines
}
