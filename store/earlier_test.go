package store_test

import (
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/visit"
	"mokren/store"
)

// Tables that an older program wrote are written anew when they are read.
func TestTablesOfAnOlderProgramAreWrittenAnew(t *testing.T) {
	p := newPractice(t, "older@x.example")
	p.as(t, func(tx *store.Tx) error {
		_, err := tx.Append(
			ctx,
			p.visit,
			batch(p.event("visit-opened", visit.VisitOpened{}), p.point(uuid.NewString())),
		)
		return err
	})
	first := p.visit
	raw := admin(t)
	_, err := raw.Exec(`delete from charted_point where visit_id = $1`, first)
	require.NoError(t, err)
	p.visitAt(t, time.Now().AddDate(0, 0, 7))
	earlier := func() (out store.Earlier) {
		p.as(t, func(tx *store.Tx) error {
			v, err := tx.Visit(ctx, p.visit)
			require.NoError(t, err)
			out, err = tx.Earlier(ctx, v, time.Now())
			return err
		})
		return out
	}
	assert.Empty(t, earlier().Points, "tables of today's program are believed")
	_, err = raw.Exec(`update visit set tables_of = 0, tables_sum = '{}' where id = $1`, first)
	require.NoError(t, err)
	require.Len(t, earlier().Points, 1)
	assert.Equal(t, ids.Muscle("soleus"), earlier().Points[0].Muscle)
}

// Only what differs is written: a note leaves the points alone.
func TestOnlyWhatDiffersIsWritten(t *testing.T) {
	p := newPractice(t, "differs@x.example")
	send := func(e visit.Event) {
		p.as(t, func(tx *store.Tx) error {
			_, err := tx.Append(ctx, p.visit, batch(e))
			return err
		})
	}
	written := func() (xmin string) {
		require.NoError(t, admin(t).Get(&xmin, `select xmin::text from charted_point where visit_id = $1`, p.visit))
		return xmin
	}
	point := uuid.NewString()
	send(p.point(point))
	before := written()
	send(p.event("note-written", visit.NoteWritten{Text: "Sleeps badly."}))
	assert.Equal(t, before, written())
	send(p.event("point-rechecked", visit.PointRechecked{Point: visit.UUID(point), NPRS: 3}))
	assert.NotEqual(t, before, written())
}

// visitAt books another visit and goes on in it.
func (p *practice) visitAt(t *testing.T, at time.Time) {
	t.Helper()
	p.visit = uuid.New()
	p.as(t, func(tx *store.Tx) error {
		return tx.NewVisit(ctx, store.Visit{
			ID: p.visit, ClientID: p.client, Therapist: p.who.Person, StartsAt: at, Minutes: 60,
		})
	})
}
