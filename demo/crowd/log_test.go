package crowd_test

import (
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/visit"
	"mokren/demo/crowd"
)

// Whatever the number of a visit, the rules take all of it: nothing that a bench or a
// fault test counts is set aside.
func TestEveryVisitOfACrowdIsTakenWhole(t *testing.T) {
	of := crowd.Of{Client: uuid.New(), Author: uuid.New(), At: time.Date(2026, 3, 2, 9, 0, 0, 0, time.UTC)}
	before := visit.Context{Roles: map[string]rights.Role{of.Author.String(): rights.Owner}}
	spots := map[ids.Muscle]visit.UUID{}
	for k := range 48 {
		of.Visit, of.At = uuid.New(), of.At.AddDate(0, 0, 7)
		events, err := crowd.Log(of, k, 4, spots)
		require.NoError(t, err)
		s := visit.Reduce(before, events)
		require.Empty(t, s.Rejected, "visit %d", k)
		assert.NotZero(t, s.ClosedMS, "visit %d", k)
		require.Len(t, s.Holds, 4)
		for _, h := range s.Holds {
			assert.Equal(t, visit.Kept, h.Status, "visit %d: %v", k, h.Remarks)
		}
		for i, e := range events {
			e.Version = int64(i + 1)
			if b, err := e.Decode(); err == nil {
				before.History = append(before.History, before.Facts(e, b)...)
			}
		}
	}
	assert.Len(t, spots, 6, "points are found again at the same spots")
}
