package exchange_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/exchange"
)

// One library writes, another reads: appointments come back as they were, on the
// days on which clocks change too.
func TestACalendarGoesRoundThroughTwoLibraries(t *testing.T) {
	vienna, err := time.LoadLocation("Europe/Vienna")
	require.NoError(t, err)
	at := func(month time.Month, day, hour int) time.Time {
		return time.Date(2027, month, day, hour, 30, 0, 0, vienna)
	}
	want := []exchange.Appointment{
		{
			ID:      "0190b000-0000-7000-8000-00000000000a",
			Client:  "Ada Löwe; the elder, née O'Hara",
			Room:    "Room 2",
			Start:   at(3, 27, 9),
			Minutes: 60,
			Status:  "booked",
		},
		{
			ID: "0190b000-0000-7000-8000-00000000000b", Client: "", Start: at(3, 28, 9), Minutes: 45,
			Status: "cancelled",
		}, // clocks go forward
		{
			ID: "0190b000-0000-7000-8000-00000000000c", Client: "x", Start: at(10, 31, 2), Minutes: 90,
			Status: "booked",
		}, // an hour that is there twice
	}
	raw := exchange.WriteCalendar("Alder Room", want)
	got, r := exchange.ReadCalendar(t.Context(), raw, exchange.Choices{}, newYear)
	require.Empty(t, r.Problems)
	require.Len(t, got, 3)
	for i := range want {
		assert.True(t, want[i].Start.Equal(got[i].Start), "%v %v", want[i].Start, got[i].Start)
		assert.Equal(t, want[i].ID, got[i].ID)
		assert.Equal(t, want[i].Minutes, got[i].Minutes)
		assert.Equal(t, want[i].Room, got[i].Room)
		assert.Equal(t, want[i].Status, got[i].Status)
	}
	assert.Equal(t, want[0].Client, got[0].Client)
	assert.Equal(t, "Appointment", got[1].Client, "without a name nobody is named")
}

// A time with a zone is read in it, one without in the practice's; what a series had before today
// is named, and what is no event.
func TestCalendarsOfOtherPrograms(t *testing.T) {
	vienna, err := time.LoadLocation("Europe/Vienna")
	require.NoError(t, err)
	n := 0
	event := func(lines string) string {
		n++
		return fmt.Sprintf("BEGIN:VEVENT\r\nUID:%d\r\n", n) + "DTSTAMP:20270101T000000Z\r\n" + lines + "END:VEVENT\r\n"
	}
	raw := "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n" +
		event("DTSTART;TZID=America/New_York:20270328T090000\r\nDURATION:PT45M\r\nSUMMARY:A B\r\n") +
		event("DTSTART:20270328T090000\r\nDTEND:20270328T100000\r\n") +
		event("DTSTART:20270328T090000\r\nDTEND:20270328T100000\r\nRRULE:FREQ=WEEKLY;COUNT=2\r\n") +
		"BEGIN:VTODO\r\nUID:2\r\nDTSTAMP:20270101T000000Z\r\nEND:VTODO\r\nEND:VCALENDAR\r\n"
	got, r := exchange.ReadCalendar(t.Context(), []byte(raw), exchange.Choices{Zone: vienna}, newYear)
	require.Empty(t, r.Problems)
	require.Len(t, got, 2)
	assert.Equal(t, "2027-03-28T13:00:00Z", got[0].Start.UTC().Format(time.RFC3339))
	assert.Equal(t, 45, got[0].Minutes)
	assert.Equal(t, "2027-03-28T07:00:00Z", got[1].Start.UTC().Format(time.RFC3339), "summer time has begun")
	assert.Equal(t, []exchange.OmittedCount{
		{What: "what a series had before today", N: 1, At: []string{"3, without a name"}}, {What: "vtodo", N: 1},
	}, r.Left)
}
