package api

import (
	"context"
	"fmt"
	"net/http/httptest"
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/store"
)

// A refused upgrade says why; a caller who has left meanwhile is no failure.
func TestARefusedUpgradeIsAnswered(t *testing.T) {
	for _, c := range []struct {
		err  error
		want int
	}{
		{fmt.Errorf("reading: %w", store.ErrNotFound), 404},
		{fmt.Errorf("reading: %w", assert.AnError), 503},
		{fmt.Errorf("reading: %w", context.Canceled), 200}, // nothing is written
	} {
		w := httptest.NewRecorder()
		writeStatus(w, c.err)
		assert.Equal(t, c.want, w.Code, c.err)
	}
}
