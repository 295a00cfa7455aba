package store_test

import (
	"context"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/visit"
	"mokren/store"
	"mokren/store/storetest"
)

// D10: the app's address alone is enough to start, on a schema that is the one
// the program knows.
func TestD10TheAppLooksAtTheSchemaAsItself(t *testing.T) {
	require.NoError(t, storetest.Open(t).CheckSchema(ctx))
	raw := admin(t)
	_, err := raw.Exec(`insert into goose_db_version (version_id, is_applied) values (9999, true)`)
	require.NoError(t, err)
	defer raw.Exec(`delete from goose_db_version where version_id = 9999`) //nolint:errcheck // the database goes anyway
	assert.NoError(t, storetest.Open(t).CheckSchema(ctx), "an older program beside a newer one")
}

// D13: the audit names the client in whatever was done, and says what was
// refused.
func TestD13TheAuditNamesTheClientAndWhatWasRefused(t *testing.T) {
	p := newPractice(t, "audited@x.example")
	raw := admin(t)
	rows := func(verb, kind, outcome string) (n int) {
		require.NoError(t, raw.Get(&n, `select count(*) from audit where practice_id = $1 and verb = $2 and kind = $3
			and outcome = $4 and (client_id = $5 or $4 = 'refused')`, p.who.Practice, verb, kind, outcome, p.client))
		return n
	}
	read := store.Action{Verb: "read", Kind: "visit", Subject: p.visit.String()}
	require.NoError(t, p.st.As(ctx, p.who, read, func(tx *store.Tx) error {
		_, err := tx.Visit(ctx, p.visit)
		return err
	}))
	assert.Equal(t, 1, rows("read", "visit", "done"))
	stranger := store.Action{Verb: "read", Kind: "visit", Subject: uuid.NewString()}
	err := p.st.As(ctx, p.who, stranger, func(tx *store.Tx) error {
		_, err := tx.Visit(ctx, uuid.New())
		return err
	})
	require.ErrorIs(t, err, store.ErrNotFound)
	assert.Equal(t, 1, rows("read", "visit", "refused"))
	_, err = p.st.SignIn(ctx, store.SignIn{Email: "audited@x.example", Password: "wrong", From: "192.0.2.7"})
	require.ErrorIs(t, err, store.ErrSignIn)
	assert.Equal(t, 1, rows("sign-in", "person", "refused"))
	_, err = p.st.SignIn(ctx, store.SignIn{Email: "nobody@x.example", Password: "wrong", From: "192.0.2.8"})
	require.ErrorIs(t, err, store.ErrSignIn)
	var door int
	require.NoError(t, raw.Get(&door, `select count(*) from door where what = 'sign-in' and address = '192.0.2.8'`))
	assert.Equal(t, 1, door)
}

// What meets other content under its id is a conflict that shows both.
func TestOtherContentUnderAnIDIsAConflict(t *testing.T) {
	p := newPractice(t, "conflict@x.example")
	try := func(fn func(*store.Tx) error) *store.Conflict {
		err := p.st.As(ctx, p.who, store.Action{Verb: "write", Kind: "test"}, fn)
		var c *store.Conflict
		require.ErrorAs(t, err, &c)
		require.ErrorIs(t, err, store.ErrStale)
		return c
	}
	c := try(func(tx *store.Tx) error {
		return tx.PutClient(ctx, store.Client{ID: p.client, GivenName: "Someone", FamilyName: "Else"})
	})
	assert.Equal(t, "Ada", c.Stored.(store.Client).GivenName)
	c = try(func(tx *store.Tx) error {
		return tx.NewVisit(ctx, store.Visit{
			ID: p.visit, ClientID: p.client, Therapist: p.who.Person, StartsAt: time.Now().Add(48 * time.Hour),
			Minutes: 60,
		})
	})
	assert.Equal(t, p.visit, c.Stored.(store.Visit).ID)
	photo := store.Photo{ID: uuid.New(), Client: p.client, Visit: p.visit, View: "front", Width: 1, Height: 1}
	for range 2 {
		p.as(t, func(tx *store.Tx) error { return tx.PutPhoto(ctx, photo, []byte("a"), []byte("a")) })
	}
	c = try(func(tx *store.Tx) error { return tx.PutPhoto(ctx, photo, []byte("b"), []byte("b")) })
	assert.Equal(t, photo.ID, c.Stored.(store.Photo).ID)

	e := p.event("note-written", visit.NoteWritten{Text: "one"})
	other := e
	other.Body = p.event("note-written", visit.NoteWritten{Text: "two"}).Body
	var got store.AppendResult
	p.as(t, func(tx *store.Tx) (err error) {
		_, err = tx.Append(ctx, p.visit, batch(e))
		require.NoError(t, err)
		got, err = tx.Append(ctx, p.visit, batch(other, p.event("note-written", visit.NoteWritten{Text: "three"})))
		return err
	})
	assert.Equal(t, store.Refused, got.Receipts[0].Result)
	require.NotNil(t, got.Receipts[0].Stored)
	assert.JSONEq(t, `{"text":"one"}`, string(got.Receipts[0].Stored.Body))
	assert.Equal(t, store.Stored, got.Receipts[1].Result, "a refused one holds up no other")
	assert.Equal(t, "three", got.State.Note)
}

// A sign in one visit closes its site in another visit of the day, also when
// both are written at once.
func TestD3SignsReachTheOtherVisitsOfTheDay(t *testing.T) {
	p := newPractice(t, "signs@x.example")
	first := p.visit
	point, hold := uuid.NewString(), uuid.NewString()
	p.as(t, func(tx *store.Tx) error {
		_, err := tx.Append(ctx, first, batch(p.screened(), p.consent("visit"), p.point(point), p.hold(hold, point),
			p.event("hold-event", visit.HoldHappened{Hold: visit.UUID(hold), AtMS: 0, Event: "contact"}),
			p.event("hold-event", visit.HoldHappened{Hold: visit.UUID(hold), AtMS: 1000, Event: "skin-reaction"}),
			p.event("hold-event", visit.HoldHappened{Hold: visit.UUID(hold), AtMS: 2000, Event: "client-stop"})))
		return err
	})
	p.visit = uuid.New()
	again, second := uuid.NewString(), uuid.NewString()
	var got store.AppendResult
	p.as(t, func(tx *store.Tx) (err error) {
		require.NoError(t, tx.NewVisit(ctx, store.Visit{
			ID: p.visit, ClientID: p.client, Therapist: p.who.Person, StartsAt: time.Now().Add(time.Minute),
			Minutes: 60,
		}))
		got, err = tx.Append(ctx, p.visit, batch(
			p.screened(), p.consent("visit"), p.point(again), p.hold(second, again),
		))
		return err
	})
	assert.Equal(t, store.KeptRejected, got.Receipts[3].Result)
	assert.Contains(t, got.Receipts[3].Reason, "the skin reacted here")
}

// Many writers of one client's visits: every event once, each with a version of
// its own.
func TestManyWritersOfOneVisit(t *testing.T) {
	p := newPractice(t, "writers@x.example")
	var events []visit.Event
	for range 60 {
		e := p.event("note-written", visit.NoteWritten{Text: "x"})
		e.Device = uuid.NewString()
		events = append(events, e)
	}
	var wg sync.WaitGroup
	for w := range 6 {
		wg.Go(func() {
			for i := w; i < len(events); i += 5 { // some are sent by two
				err := p.st.As(context.Background(), p.who, store.Action{Verb: "write", Kind: "test"},
					func(tx *store.Tx) error {
						_, err := tx.Append(ctx, p.visit, batch(events[i]))
						return err
					})
				assert.NoError(t, err)
			}
		})
	}
	wg.Wait()
	p.as(t, func(tx *store.Tx) error {
		log, err := tx.Events(ctx, p.visit)
		require.Len(t, log, len(events))
		for i, e := range log {
			assert.Equal(t, int64(i+1), e.Version)
		}
		return err
	})
}
