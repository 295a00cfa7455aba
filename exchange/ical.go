package exchange

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"
	goical "github.com/emersion/go-ical"
)

// Appointment is one as a calendar knows it.
type Appointment struct {
	ID      string
	Client  string // full name; empty where names stay out
	With    string // the therapist
	Room    string
	Start   time.Time
	Minutes int
	Status  string // booked, cancelled, no-show
	Changed time.Time
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
	cal.SetXWRCalName(name)
	for _, a := range list {
		e := cal.AddEvent(a.ID + "@mokren")
		e.SetDtStampTime(a.Changed)
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

// ReadCalendar reads appointments; a time without a zone is the practice's. What
// repeats is left out and named: a series is booked here.
func ReadCalendar(ctx context.Context, raw []byte, zone *time.Location) ([]Appointment, Report) {
	var r Report
	if !bytes.Contains(raw[:min(len(raw), 4096)], []byte("BEGIN:VCALENDAR")) {
		r.problem("file", "", "This is no iCalendar file.")
		return nil, r
	}
	if begun := 1 + bytes.Count(raw, []byte("\nBEGIN:")); begun != bytes.Count(raw, []byte("\nEND:")) {
		r.problem("file", "", "The calendar is cut off: something that begins in it has no end.")
		return nil, r
	}
	var out []Appointment
	in := goical.NewDecoder(stoppable(ctx, raw))
	for {
		cal, err := in.Decode()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			r.problem("file", "", "The calendar cannot be read: "+err.Error())
			return nil, r
		}
		for _, part := range cal.Children {
			if part.Name != goical.CompEvent {
				r.leave(strings.ToLower(part.Name))
				continue
			}
			if len(out) >= MaxAppointments {
				r.problem("file", "", fmt.Sprintf("More than %d appointments.", MaxAppointments))
				return nil, r
			}
			if a, ok := appointment(goical.Event{Component: part}, zone, len(out)+1, &r); ok {
				out = append(out, a)
				r.show("%s, %s, %d min", a.Start.In(zone).Format("2 January 2006 15:04"), a.Client, a.Minutes)
			}
		}
	}
	r.Visits = len(out)
	return out, r
}

func appointment(e goical.Event, zone *time.Location, n int, r *Report) (a Appointment, ok bool) {
	if e.Props.Get(goical.PropRecurrenceRule) != nil {
		r.leave("repeating event")
		return a, false
	}
	text := func(name string) string {
		s, err := e.Props.Text(name)
		if err != nil {
			return ""
		}
		return strings.TrimSpace(s)
	}
	var err error
	if a.Start, err = e.DateTimeStart(zone); err != nil || a.Start.IsZero() {
		r.add(Problem{n, "DTSTART", text(goical.PropDateTimeStart), "a time"})
		return a, false
	}
	end, err := e.DateTimeEnd(zone)
	if err != nil {
		r.add(Problem{n, "DTEND", text(goical.PropDateTimeEnd), "a time"})
		return a, false
	}
	a.Minutes = int(end.Sub(a.Start).Minutes())
	if a.Minutes < 5 || a.Minutes > 480 {
		r.add(Problem{n, "DTEND", fmt.Sprintf("%d minutes", a.Minutes), "5 to 480 minutes"})
		return a, false
	}
	a.ID = strings.TrimSuffix(text(goical.PropUID), "@mokren")
	a.Client, a.Room, a.Status = text(goical.PropSummary), text(goical.PropLocation), "booked"
	if strings.EqualFold(text(goical.PropStatus), "CANCELLED") {
		a.Status = "cancelled"
	}
	return a, true
}
