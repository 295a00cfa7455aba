package api

import (
	"sync"

	"github.com/google/uuid"

	"mokren/core/visit"
)

// Heard is what a visit's screens are told as it happens: new events, and that
// the client's pad is there.
type Heard struct {
	Events []visit.Event `json:"events,omitempty"`
	// Pad: a sign of life of the client's pad; every second while it is there.
	Pad bool `json:"pad,omitempty"`

	// since: another copy of the program has events newer than this version; who
	// listens reads them as themselves.
	since *int64
	// check: somebody's rights have changed; who may listen no more ends.
	check bool
}

// hub passes on what happens in a visit to the screens that are open on it. It
// knows the screens of this copy of the program; copies tell each other through
// the database (signals.go).
type hub struct {
	mu      sync.Mutex
	screens map[uuid.UUID]map[chan Heard]bool
}

func newHub() *hub { return &hub{screens: map[uuid.UUID]map[chan Heard]bool{}} }

// backlog of a screen that is slow to listen; what does not fit it fetches.
const backlog = 64

// listen gives what is said of a visit until leave is called.
func (h *hub) listen(visit uuid.UUID) (heard <-chan Heard, leave func()) {
	c := make(chan Heard, backlog)
	h.mu.Lock()
	defer h.mu.Unlock()
	if h.screens[visit] == nil {
		h.screens[visit] = map[chan Heard]bool{}
	}
	h.screens[visit][c] = true
	return c, func() {
		h.mu.Lock()
		defer h.mu.Unlock()
		delete(h.screens[visit], c)
		if len(h.screens[visit]) == 0 {
			delete(h.screens, visit)
		}
	}
}

// say never waits for a screen.
func (h *hub) say(visit uuid.UUID, what Heard) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for c := range h.screens[visit] {
		select {
		case c <- what:
		default:
		}
	}
}

// checkAll lets every screen look whether it may still listen.
func (h *hub) checkAll() {
	h.mu.Lock()
	visits := make([]uuid.UUID, 0, len(h.screens))
	for v := range h.screens {
		visits = append(visits, v)
	}
	h.mu.Unlock()
	for _, v := range visits {
		h.say(v, Heard{check: true})
	}
}
