package pressurepad

import (
	"encoding/json"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/device"
)

func says(h *hand, phase string, advice ...string) {
	b, _ := json.Marshal(Said{Phase: phase, Advice: advice})
	h.hear(b)
}

func passes(h *hand, seconds float64) (n, mm, felt float64) {
	for s := 0.0; s < seconds; s += 0.05 {
		n, mm, felt = h.step(0.05)
	}
	return n, mm, felt
}

// The hand does what the coach says: it comes on by itself, sinks, eases, comes
// off; and what it presses is felt.
func TestTheHandFollowsTheCoach(t *testing.T) {
	h := &hand{tissue: device.Calf(), rnd: rand.New(rand.NewPCG(1, 2)), level: 18}
	n, _, _ := passes(h, 2)
	assert.Zero(t, n, "nobody has said anything")
	says(h, "ready")
	n, mm, felt := passes(h, 6)
	assert.InDelta(t, 18, n, 0.3)
	assert.InDelta(t, 18, h.tissue.Force(mm), 0.1)
	assert.Greater(t, felt, 3.0)
	says(h, "settle", "sink-slightly")
	n, _, _ = passes(h, 2)
	assert.InDelta(t, 20.7, n, 0.3)
	says(h, "settle", "ease-off")
	n, _, _ = passes(h, 2)
	assert.InDelta(t, 15.5, n, 0.3)
	says(h, "release", "release-slowly")
	n, _, felt = passes(h, 3)
	assert.Zero(t, n)
	assert.Zero(t, felt)
	says(h, "return", "return-lighter")
	n, _, _ = passes(h, 5)
	assert.InDelta(t, 11.6, n, 0.3)
}

// For a threshold the hand presses evenly until the client's stop, and rests.
func TestATrialIsPressedEvenlyUntilTheStop(t *testing.T) {
	h := &hand{tissue: device.Calf(), rnd: rand.New(rand.NewPCG(1, 2)), level: 18}
	h.hear([]byte(`{"trial":true}`))
	early, _, _ := passes(h, trialFirstS+1)
	late, _, _ := passes(h, 2)
	assert.InDelta(t, 2*trialRate, late-early, 2*trembles+0.1, "40 kPa a second on 2 cm²")
	h.hear([]byte(`{"stopped":true}`))
	n, _, _ := passes(h, trialRestS-0.5)
	assert.Zero(t, n, "between trials the hand is off")
	n, _, _ = passes(h, 2)
	assert.Positive(t, n, "and comes on again by itself")
}
