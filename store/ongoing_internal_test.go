package store

import (
	"fmt"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"

	"mokren/core/visit"
)

// logOf is a visit's log of so many events.
func logOf(events int) *visit.Ongoing {
	log := make([]visit.Event, events)
	for i := range log {
		log[i] = visit.Event{ID: fmt.Sprint(i), Version: int64(i + 1)}
	}
	return visit.Unread(log)
}

func TestAVisitIsGoneOnWithAtItsVersionOnly(t *testing.T) {
	o := newOngoing()
	id, client := uuid.New(), uuid.New()
	o.keep(id, client, logOf(3))
	assert.Nil(t, o.take(uuid.New(), 3), "another visit")
	assert.Nil(t, o.take(id, 4), "another copy of the program has written since")
	assert.Nil(t, o.take(id, 3), "and what was there is too old to keep")

	o.keep(id, client, logOf(4))
	assert.NotNil(t, o.take(id, 4))
	assert.Nil(t, o.take(id, 4), "who has taken it may have changed it")
}

func TestWhatWasUsedLongAgoMakesRoom(t *testing.T) {
	o := newOngoing()
	first, second, client := uuid.New(), uuid.New(), uuid.New()
	o.keep(first, client, logOf(mostEvents/2))
	o.keep(second, client, logOf(mostEvents/2))
	o.keep(first, client, logOf(mostEvents/2)) // used again
	o.keep(uuid.New(), client, logOf(1))
	assert.Nil(t, o.take(second, mostEvents/2))
	assert.NotNil(t, o.take(first, mostEvents/2))
	assert.Equal(t, 1, o.events)
}

func TestAnErasedClientsVisitsAreDropped(t *testing.T) {
	o := newOngoing()
	erased, other := uuid.New(), uuid.New()
	mine := uuid.New()
	o.keep(uuid.New(), erased, logOf(2))
	o.keep(mine, other, logOf(3))
	o.keep(uuid.New(), erased, logOf(4))
	o.drop(erased)
	assert.Len(t, o.visits, 1)
	assert.Equal(t, 3, o.events)
	assert.NotNil(t, o.take(mine, 3))
}
