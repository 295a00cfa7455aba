package store_test

import (
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/visit"
	"mokren/store"
)

// What one writes in a visit, event by event, stands as the whole log has it; a row that was changed
// beside the log is found.
func TestTablesAreHeldAgainstTheirLogs(t *testing.T) {
	p := newPractice(t, "check@x.example")
	point, hold := uuid.NewString(), uuid.NewString()
	said := func(ms int64, kind string) visit.Event {
		return p.event("hold-event", visit.HoldHappened{Hold: visit.UUID(hold), AtMS: ms, Event: kind})
	}
	for _, e := range []visit.Event{
		p.screened(), p.consent("visit"), p.point(point), p.hold(hold, point),
		said(0, "contact"), said(8000, "release"),
	} {
		p.as(t, func(tx *store.Tx) error { _, err := tx.Append(ctx, p.visit, batch(e)); return err })
	}
	check := func() (looked int, faults []store.VisitFault) {
		p.as(t, func(tx *store.Tx) (err error) { looked, faults, err = tx.CheckVisits(ctx, time.Now()); return err })
		return looked, faults
	}
	looked, faults := check()
	assert.Equal(t, 1, looked)
	assert.Empty(t, faults)
	admin(t).MustExec(`update hold set pressure_ms = 90000 where id = $1`, hold)
	admin(t).MustExec(`delete from charted_point where id = $1`, point)
	_, faults = check()
	require.Len(t, faults, 1)
	assert.Equal(t, p.visit, faults[0].Visit)
	assert.ElementsMatch(t, []string{"hold", "charted_point"}, faults[0].Tables)
}
