package api

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

func TestPagesAreMadeInTurn(t *testing.T) {
	g := newPageGate()
	for range pagesAtOnce {
		assert.True(t, g.enter(t.Context(), time.Hour), "there is room")
	}
	assert.False(t, g.enter(t.Context(), time.Millisecond), "nobody waits for ever")
	gone, leave := context.WithCancel(t.Context())
	leave()
	assert.False(t, g.enter(gone, time.Hour), "who has left does not wait")
	done := make(chan bool, pagesWaiting)
	for range pagesWaiting {
		go func() { done <- g.enter(t.Context(), time.Hour) }()
	}
	assert.Eventually(t, func() bool { return len(g.waiting) == cap(g.waiting) }, time.Minute, time.Millisecond)
	assert.False(t, g.enter(t.Context(), time.Hour), "a full queue says so at once")
	for range pagesAtOnce + pagesWaiting {
		g.leave()
	}
	for range pagesWaiting {
		assert.True(t, <-done, "and who waited has had a turn")
	}
}
