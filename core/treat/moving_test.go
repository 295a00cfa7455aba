package treat_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/treat"
)

// Each protocol that moves says what moves, for every muscle; the others say nothing.
func TestMovingProtocolsNameTheMovement(t *testing.T) {
	moves := []ids.Protocol{"press-and-move", "resisted-lengthening", "contract-relax", "pin-and-stretch"}
	for _, p := range treat.Protocols() {
		for _, m := range atlas.All() {
			if m.Kind != "muscle" {
				continue
			}
			s, err := treat.NewStart(treat.Request{Protocol: p.ID, Muscle: m.ID, Side: ids.Left})
			if err != nil {
				continue // not at this muscle
			}
			if !assert.Equal(t, slices.Contains(moves, p.ID), s.Moving() != "", "%s %s", p.ID, m.ID) {
				return
			}
			assert.NotContains(t, s.Moving(), "..")
		}
	}
}

func TestWhatMovesIsSaidWithItsSide(t *testing.T) {
	s, err := treat.NewStart(treat.Request{Protocol: "contract-relax", Muscle: "scalenus-medius", Side: ids.Left})
	require.NoError(t, err)
	assert.Contains(t, s.Moving(), "The client pushes back: neck side bend to the left.")
	s, err = treat.NewStart(treat.Request{
		Protocol: "contract-relax", Muscle: "scalenus-medius", Side: ids.Left, Variant: "reciprocal",
	})
	require.NoError(t, err)
	assert.Contains(t, s.Moving(), "further that way")
}
