package store

import (
	"container/list"
	"sync"
	"time"

	"github.com/google/uuid"
)

// recent keeps what was used last, up to a weight, and drops what nobody has used for half an hour. It
// is a cache of this process: who uses it asks the record whether it still holds.
type recent[V any] struct {
	mu sync.Mutex
	by map[uuid.UUID]*list.Element
	// order begins with what was used last; weight is that of all.
	order        *list.List
	weight, most int
	// swept: sweep is going to come.
	swept bool
}

// stays is how long something is kept that nobody uses.
const stays = 30 * time.Minute

type recently[V any] struct {
	id     uuid.UUID
	value  V
	weight int
	used   time.Time
}

func newRecent[V any](most int) *recent[V] {
	return &recent[V]{by: map[uuid.UUID]*list.Element{}, order: list.New(), most: most}
}

// get gives what is kept under an id; it is shared.
func (r *recent[V]) get(id uuid.UUID) (value V, ok bool) {
	r.mu.Lock()
	defer r.mu.Unlock()
	e, ok := r.by[id]
	if !ok {
		return value, false
	}
	k := e.Value.(*recently[V])
	k.used = time.Now()
	r.order.MoveToFront(e)
	return k.value, true
}

// take gives what is kept under an id, and keeps it no more.
func (r *recent[V]) take(id uuid.UUID) (value V, ok bool) {
	r.mu.Lock()
	defer r.mu.Unlock()
	e, ok := r.by[id]
	if !ok {
		return value, false
	}
	return r.remove(e).value, true
}

// keep takes a value in, and drops those that were used longest ago beyond what is kept.
func (r *recent[V]) keep(id uuid.UUID, value V, weight int) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if e, ok := r.by[id]; ok {
		r.remove(e)
	}
	r.by[id] = r.order.PushFront(&recently[V]{id, value, weight, time.Now()})
	for r.weight += weight; r.weight > r.most; {
		r.remove(r.order.Back())
	}
	r.sweepLater()
}

func (r *recent[V]) sweepLater() {
	if !r.swept {
		r.swept = true
		time.AfterFunc(stays, r.sweep)
	}
}

// sweep drops what nobody has used for long.
func (r *recent[V]) sweep() {
	r.mu.Lock()
	defer r.mu.Unlock()
	for e := r.order.Back(); e != nil && time.Since(e.Value.(*recently[V]).used) >= stays; e = r.order.Back() {
		r.remove(e)
	}
	if r.swept = false; r.order.Len() > 0 {
		r.sweepLater()
	}
}

// drop forgets what is of some kind.
func (r *recent[V]) drop(is func(id uuid.UUID, value V) bool) {
	r.mu.Lock()
	defer r.mu.Unlock()
	for e := r.order.Front(); e != nil; {
		next := e.Next()
		if k := e.Value.(*recently[V]); is(k.id, k.value) {
			r.remove(e)
		}
		e = next
	}
}

func (r *recent[V]) remove(e *list.Element) *recently[V] {
	k := r.order.Remove(e).(*recently[V])
	delete(r.by, k.id)
	r.weight -= k.weight
	return k
}
