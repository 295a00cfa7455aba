package store

import (
	"fmt"
	"testing"
	"time"

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

func taken(o ongoing, id uuid.UUID, version int64) *visit.Ongoing {
	v, _ := o.take(id, version)
	return v
}

func TestAVisitIsGoneOnWithAtItsVersionOnly(t *testing.T) {
	o := newOngoing()
	id, client := uuid.New(), uuid.New()
	o.keep(id, client, logOf(3), readAgainst{})
	assert.Nil(t, taken(o, uuid.New(), 3), "another visit")
	assert.Nil(t, taken(o, id, 4), "another copy of the program has written since")
	assert.Nil(t, taken(o, id, 3), "and what was there is too old to keep")

	o.keep(id, client, logOf(4), readAgainst{})
	assert.NotNil(t, taken(o, id, 4))
	assert.Nil(t, taken(o, id, 4), "who has taken it may have changed it")
}

func TestWhatWasUsedLongAgoMakesRoom(t *testing.T) {
	o := newOngoing()
	first, second, client := uuid.New(), uuid.New(), uuid.New()
	o.keep(first, client, logOf(mostEvents/2), readAgainst{})
	o.keep(second, client, logOf(mostEvents/2), readAgainst{})
	o.keep(first, client, logOf(mostEvents/2), readAgainst{}) // used again
	o.keep(uuid.New(), client, logOf(1), readAgainst{})
	assert.Nil(t, taken(o, second, mostEvents/2))
	assert.NotNil(t, taken(o, first, mostEvents/2))
	assert.Equal(t, 1, o.kept.weight)
}

func TestAnErasedClientsVisitsAreDropped(t *testing.T) {
	o := newOngoing()
	erased, other := uuid.New(), uuid.New()
	mine := uuid.New()
	o.keep(uuid.New(), erased, logOf(2), readAgainst{})
	o.keep(mine, other, logOf(3), readAgainst{})
	o.keep(uuid.New(), erased, logOf(4), readAgainst{})
	o.drop(erased)
	assert.Len(t, o.kept.by, 1)
	assert.Equal(t, 3, o.kept.weight)
	assert.NotNil(t, taken(o, mine, 3))
}

func TestASafetyRecordIsReadAgainWhenItGrewOrAnEarlierHoldCame(t *testing.T) {
	now := time.Now()
	read := readAgainst{"3 at noon", now}
	assert.True(t, read.covers(readAgainst{"3 at noon", now}))
	assert.True(t, read.covers(readAgainst{"3 at noon", now.Add(time.Second)}))
	assert.False(t, read.covers(readAgainst{"4 at one", now}), "another visit was asked something")
	assert.False(t, read.covers(readAgainst{"3 at noon", now.Add(-time.Second)}), "it was reduced for later holds")
	assert.False(t, readAgainst{}.covers(readAgainst{"", now}), "nothing was read yet")
}
