package store_test

import (
	"math/rand/v2"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/store"
)

// Who is due stands in a table of its own: whatever happens to visits, it is what their latest closed
// one says.
func TestWhoIsDueFollowsTheVisits(t *testing.T) {
	p := newPractice(t, "due@x.example")
	db := admin(t)
	r := rand.New(rand.NewPCG(1, 2))
	day := time.Date(2030, 3, 1, 9, 0, 0, 0, time.UTC)
	ids := []uuid.UUID{p.visit}
	one := func() uuid.UUID { return ids[r.IntN(len(ids))] }
	// What a client's visits say by themselves, beside what stands.
	const said = `select l.id::text || ' ' || l.next_from || ' ' || l.next_to from (select * from visit where client_id = $1
			and closed_at is not null order by starts_at desc, id desc limit 1) l where next_from is not null`
	const stands = `select visit_id::text || ' ' || next_from || ' ' || next_to from client_due where client_id = $1`
	full := 0
	for range 200 {
		at := day.AddDate(0, 0, r.IntN(60))
		switch r.IntN(6) {
		case 0:
			id := uuid.New()
			ids = append(ids, id)
			p.as(t, func(tx *store.Tx) error {
				return tx.NewVisit(ctx, store.Visit{
					ID: id, ClientID: p.client, Therapist: p.who.Person, StartsAt: at, Minutes: 60,
				})
			})
		case 1:
			db.MustExec(`update visit set closed_at = $2, next_from = starts_at::date + 5, next_to = starts_at::date + 9
				where id = $1`, one(), at)
		case 2:
			db.MustExec(`update visit set closed_at = null where id = $1`, one())
		case 3:
			db.MustExec(`update visit set starts_at = $2 where id = $1`, one(), at)
		case 4:
			db.MustExec(`update visit set next_from = null, next_to = null where id = $1`, one())
		case 5:
			if len(ids) > 3 {
				db.MustExec(`delete from visit where id = $1`, ids[0])
				ids = ids[1:]
			}
		}
		var want, got []string
		require.NoError(t, db.Select(&want, said, p.client))
		require.NoError(t, db.Select(&got, stands, p.client))
		require.Equal(t, want, got)
		full += len(got)
	}
	assert.Greater(t, full, 50, "so often somebody was due")
}

// Due is who has come within the year, whose time has come, and who is not booked.
func TestWhoIsBookedIsNotDue(t *testing.T) {
	p := newPractice(t, "due.booked@x.example")
	closed := time.Now().AddDate(0, 0, -20)
	admin(t).MustExec(`update visit set starts_at = $2, closed_at = $2, next_from = $3::date + 7, next_to = $3::date + 10
		where id = $1`, p.visit, closed, closed)
	due := func(at time.Time) (out []store.Due) {
		p.as(t, func(tx *store.Tx) (err error) { out, err = tx.DueClients(ctx, at); return err })
		return out
	}
	require.Len(t, due(time.Now()), 1)
	assert.Equal(t, p.client, due(time.Now())[0].Client)
	assert.Empty(t, due(closed.AddDate(0, 0, 6)), "the day before")
	assert.Len(t, due(closed.AddDate(0, 0, 8)), 1)
	assert.Empty(t, due(closed.AddDate(1, 0, 1)), "has not come for a year")
	p.as(t, func(tx *store.Tx) error {
		return tx.NewVisit(ctx, store.Visit{
			ID: uuid.New(), ClientID: p.client, Therapist: p.who.Person,
			StartsAt: time.Now().Add(time.Hour), Minutes: 60,
		})
	})
	assert.Empty(t, due(time.Now()))
}
