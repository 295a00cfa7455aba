package store

import (
	"sync"
	"time"

	"github.com/google/uuid"
)

// dear keeps what counts over all of a practice's clients, names nobody, and took long: it is used
// again for as long as counting it takes at most a hundredth of the time. What is counted quickly is
// counted each time.
type dear struct {
	mu   sync.Mutex
	kept map[dearKey]dearCount
}

type dearKey struct {
	practice uuid.UUID
	what     string
}

type dearCount struct {
	value any
	until time.Time
}

const (
	// quick counts are never kept.
	quick = 10 * time.Millisecond
	share = 100
)

// counted gives a count that is kept, or counts anew; what is given is shared and not to be changed.
func counted[T any](t *Tx, what string, count func() (T, error)) (T, error) {
	key := dearKey{t.who.Practice, what}
	t.dear.mu.Lock()
	k, ok := t.dear.kept[key]
	t.dear.mu.Unlock()
	began := time.Now()
	if ok && began.Before(k.until) {
		return k.value.(T), nil
	}
	v, err := count()
	took := time.Since(began)
	t.dear.mu.Lock()
	defer t.dear.mu.Unlock()
	if delete(t.dear.kept, key); err == nil && took > quick {
		t.dear.kept[key] = dearCount{v, time.Now().Add(share * took)}
	}
	return v, err
}
