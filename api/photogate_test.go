package api

import (
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
)

// D11: one photograph at a time for each person, and few in all.
func TestD11OnePhotographAtATime(t *testing.T) {
	g := newPhotoGate()
	ines, tomas := uuid.New(), uuid.New()
	assert.True(t, g.enter(ines))
	assert.False(t, g.enter(ines), "while the first is read")
	assert.True(t, g.enter(tomas), "another person waits for the memory, not for Ines")
	for range photosAtOnce {
		assert.True(t, g.all.TryAcquire(1))
	}
	assert.False(t, g.all.TryAcquire(1))
	g.leave(ines)
	assert.True(t, g.enter(ines))
}
