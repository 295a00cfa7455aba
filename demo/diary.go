package demo

import (
	"context"
	"time"

	"github.com/google/uuid"

	"mokren/core/note"
	"mokren/core/receipt"
	"mokren/core/visit"
	"mokren/store"
)

// signedAfter: notes of older visits are signed, the latest still wait.
const signedAfter = 10 * 24 * time.Hour

// sign signs the note as the core writes it.
func (p person) sign(ctx context.Context, tx *store.Tx, s *scribe, state visit.State) error {
	_, offset := s.now.Zone()
	text := note.Write(note.Visit{State: state, OffsetMin: offset / 60})
	name := Logins[0].Name
	if p.by == tomas {
		name = Logins[1].Name
	}
	s.events = nil
	s.wait(10 * time.Minute)
	s.write("note-signed", visit.NoteSigned{NoteText: text, Name: name})
	_, err := tx.Append(ctx, uuid.MustParse(s.visit.String()), s.batch())
	return err
}

// prices of the practice, tax included.
var prices = receipt.Prices{Currency: "EUR", TaxIncluded: true, Services: []receipt.Service{
	{ID: "hour", Name: "Massage, one hour", Minutes: 60, Cents: 8400, Tax: 1000},
	{ID: "short", Name: "Massage, three quarters", Minutes: 45, Cents: 6600, Tax: 1000},
	{ID: "first", Name: "First visit with assessment", Minutes: 75, Cents: 10500, Tax: 1000},
	{ID: "ball", Name: "Ball for use at home", Cents: 950, Tax: 2000},
}}

// rooms of the practice.
var rooms = []string{"Garden room", "Street room"}

// ahead books what is to come, and sees to who waits.
func ahead(ctx context.Context, tx *store.Tx, now time.Time) error {
	settings, err := tx.Settings(ctx)
	if err != nil {
		return err
	}
	settings.Rooms = rooms
	if err := tx.PutLetterhead(ctx, store.Letterhead{
		Name: "The Alder Room", Address: "3 Mill Lane\nHollin 4410", Telephone: "0155 0100 10",
		Hours: "Monday to Friday, 8 to 18", Logo: "The Alder Room",
	}); err != nil {
		return err
	}
	if err := tx.PutSettings(ctx, settings); err != nil {
		return err
	}
	if err := tx.PutPrices(ctx, prices, 0); err != nil {
		return err
	}
	at := func(days, hour, minute int) time.Time {
		return time.Date(now.Year(), now.Month(), now.Day()+days, hour, minute, 0, 0, now.Location())
	}
	var list []store.Booking
	// Beside the hours of each day's own list, so that nothing overlaps.
	hour := map[uuid.UUID][]int{ines: {13, 14}, tomas: {9, 11}}
	for i, b := range []struct{ client, days, nth, long int }{
		{1, 1, 0, 60},
		{3, 1, 0, 60},
		{2, 1, 1, 60},
		{5, 2, 0, 60},
		{10, 2, 0, 45},
		{4, 2, 1, 60},
		{6, 3, 0, 60},
		{8, 3, 1, 60},
		{0, 4, 0, 60},
		{9, 4, 1, 60},
		{1, -1, 0, 60},
		{4, -2, 1, 45},
	} {
		starts := at(b.days, hour[people[b.client].by][b.nth], 0)
		list = append(list, store.Booking{
			ID: id(), Client: clientID(b.client), Therapist: people[b.client].by, StartsAt: starts,
			Minutes: b.long, Room: rooms[i%len(rooms)], Reason: people[b.client].reason,
		})
	}
	if err := tx.Book(ctx, list); err != nil {
		return err
	}
	// One did not come, one called it off.
	for i, status := range []string{"no-show", "cancelled"} {
		if err := tx.Rebook(ctx, list[len(list)-2+i], status, 1); err != nil {
			return err
		}
	}
	return tx.PutWaiting(ctx, store.Waiting{ID: id(), Client: clientID(10), Minutes: 60, Note: "mornings only"}, false)
}
