package store

import (
	"encoding/json"
	"log/slog"
	"time"

	"github.com/google/uuid"

	"mokren/core/visit"
)

// ongoing keeps the visits that were written last, read and reduced, so that taking in an event
// costs what arrives and not the log. It is a cache of this process: a visit is used only at the
// version that the record has, under the visit's lock, and against the context as it is now; what a
// transaction has used comes back when it has committed. Nothing of it is stored, so no archive has
// it; an erased client's visits are dropped here at once, and in other copies of the program with all
// that was not written for half an hour.
type ongoing struct{ kept *recent[keptVisit] }

// mostEvents of all visits are kept: some 2 kB each, with what was read of them.
const mostEvents = 20_000

type keptVisit struct {
	client uuid.UUID
	visit  *visit.Ongoing
	read   readAgainst
}

// readAgainst is the safety record that a visit was read against: which one, and for holds that
// began at from or later. Its zero value is none.
type readAgainst struct {
	protects string
	from     time.Time
}

// covers reports whether another reading would say nothing more: the same record, and no hold that
// began before what this one was reduced for.
func (r readAgainst) covers(needed readAgainst) bool {
	return r.protects != "" && r.protects == needed.protects && !needed.from.Before(r.from)
}

func newOngoing() ongoing { return ongoing{newRecent[keptVisit](mostEvents)} }

// take gives a visit at a version, and nothing when it is not here or at another. What is taken is
// not kept any more: a transaction that fails has changed it.
func (o ongoing) take(id uuid.UUID, version int64) (*visit.Ongoing, readAgainst) {
	k, ok := o.kept.take(id)
	if !ok || k.visit.Version() != version {
		return nil, readAgainst{}
	}
	return k.visit, k.read
}

func (o ongoing) keep(id, client uuid.UUID, v *visit.Ongoing, read readAgainst) {
	o.kept.keep(id, keptVisit{client, v, read}, len(v.Log()))
}

// drop forgets a client's visits.
func (o ongoing) drop(client uuid.UUID) {
	o.kept.drop(func(_ uuid.UUID, k keptVisit) bool { return k.client == client })
}

// oneIn closings the state that was gone on with is held against the whole log.
const oneIn = 200

// heldAgainst gives the state of a visit that has just closed as the whole log has it, for one
// visit in 200, and says so when what was gone on with differs.
func heldAgainst(
	id uuid.UUID, vc visit.Context, o *visit.Ongoing, state visit.State, arrived []visit.Event,
) visit.State {
	closed := false
	for _, e := range arrived {
		closed = closed || e.Type == "visit-closed" && e.Verdict == visit.Accepted
	}
	if !closed || int(id[15])+256*int(id[14]) >= 65_536/oneIn {
		return state
	}
	whole := visit.Reduce(vc, o.Log())
	a, errA := json.Marshal(state)
	b, errB := json.Marshal(whole)
	if errA != nil || errB != nil || string(a) != string(b) {
		slog.Error("a visit that was gone on with differs from its whole log; the whole is kept", "visit", id)
	}
	return whole
}
