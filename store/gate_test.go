package store

import (
	"context"
	"sync"
	"sync/atomic"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Two at once, twenty behind them; one more is turned away at once, and who has waited
// for ten seconds too.
func TestTheGateBoundsWhatIsComparedAtOnce(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		g := newGate(comparedAtOnce, mostWaiting, WaitingFor)
		var now, most, through, busy atomic.Int64
		work := func(lasts time.Duration) func() {
			return func() {
				most.Store(max(most.Load(), now.Add(1)))
				time.Sleep(lasts)
				now.Add(-1)
				through.Add(1)
			}
		}
		var all sync.WaitGroup
		try := func(n int, lasts time.Duration) {
			for range n {
				all.Go(func() {
					if g.pass(t.Context(), true, work(lasts)) != nil {
						busy.Add(1)
					}
				})
			}
			all.Wait()
		}
		try(60, time.Second/2) // the last of them waits for 10 of those
		assert.EqualValues(t, comparedAtOnce, most.Load())
		assert.EqualValues(t, 60-comparedAtOnce-mostWaiting, busy.Load(), "turned away at once")
		assert.EqualValues(t, comparedAtOnce+mostWaiting, through.Load())

		through.Store(0)
		busy.Store(0)
		try(comparedAtOnce+1, WaitingFor+time.Second)
		assert.EqualValues(t, 1, busy.Load(), "waited for ten seconds")
		try(comparedAtOnce, time.Millisecond)
		assert.EqualValues(t, 1, busy.Load(), "and there is room again")
	})
}

func TestWhoGoesAwayLeavesTheQueue(t *testing.T) {
	g := newGate(1, 1, time.Minute)
	ctx, leave := context.WithCancel(t.Context())
	err := g.pass(t.Context(), true, func() {
		leave()
		assert.ErrorIs(t, g.pass(ctx, true, func() { assert.Fail(t, "there is no room") }), context.Canceled)
	})
	assert.NoError(t, err)
	assert.Empty(t, g.queue)
}

// However many strangers knock, one place is free for a device that is known.
func TestAPlaceIsKeptForKnownDevices(t *testing.T) {
	g := newGate(2, 20, time.Minute)
	held, let := make(chan struct{}), make(chan struct{})
	var wg sync.WaitGroup
	for range 5 {
		wg.Go(func() {
			assert.NoError(t, g.pass(context.Background(), false, func() {
				held <- struct{}{}
				<-let
			}))
		})
	}
	<-held // one stranger is inside, the others wait
	ran := false
	require.NoError(t, g.pass(t.Context(), true, func() { ran = true }))
	assert.True(t, ran)
	go func() {
		for range held { //nolint:revive // the others come in one after another
		}
	}()
	close(let)
	wg.Wait()
	close(held)
}
