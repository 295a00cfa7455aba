package store

import (
	"bytes"
	"context"
	"encoding/json"
	"reflect"
	"time"

	"github.com/google/uuid"

	"mokren/core/visit"
)

// Batch is what one device sends of one visit.
type Batch struct {
	Events []visit.Event
	// SentMS is what the device's clock said when it sent; 0 when it did not say.
	SentMS int64
	// Since is the version that the sender has; what is newer is answered.
	Since int64
	// Now is the server's clock.
	Now time.Time
}

// Receipt is what became of one event of a batch.
type Receipt struct {
	ID     string
	Result Result
	Reason string
	// Stored is the event that the record has under this id, where its content
	// is another.
	Stored *visit.Event
}

// Result of one event.
type Result string

// The results. Aside: kept and shown, but counted nowhere. Refused: not kept;
// sending it again changes nothing.
const (
	Stored       Result = "stored"
	StoredBefore Result = "stored-before"
	KeptRejected Result = "aside"
	Refused      Result = "refused"
)

// AppendResult is the answer to a batch.
type AppendResult struct {
	Version  int64
	Receipts []Receipt
	New      []visit.Event // after Batch.Since, in the order of arrival
	State    visit.State
	// WordsWait: a pad's words may belong to the visit (TakeWords).
	WordsWait bool
}

// Append judges a batch and stores it. Each event gets a receipt of its own: one
// that is refused holds up no other, and sending twice is the same as once.
func (t *Tx) Append(ctx context.Context, visitID uuid.UUID, b Batch) (AppendResult, error) {
	v, err := t.lockVisit(ctx, visitID)
	if err != nil {
		return AppendResult{}, err
	}
	o, read, err := t.goOn(ctx, v)
	if err != nil {
		return AppendResult{}, err
	}
	out := AppendResult{Version: v.Version, Receipts: make([]Receipt, len(b.Events))}
	around, err := t.around(ctx, v, b.Now, b.Events...)
	if err != nil {
		return out, err
	}
	arriving, places, err := t.sort(ctx, v, b.Events, around.Stored, out.Receipts)
	if err != nil {
		return out, err
	}
	if len(arriving) > 0 {
		b.Now = around.arrival(b.Now)
	}
	received := visit.Arrival{NowMS: b.Now.UnixMilli(), SentMS: b.SentMS}.Receive(o.Heard(), arriving)
	vc, err := around.context(v, b.Now)
	if err != nil {
		return out, err
	}
	needed := readAgainst{around.Protects, earliest(received, b.Now)}
	if read.covers(needed) && o.AtAsBefore(vc) {
		vc.History = o.History()
	} else if o, err = t.readAgain(ctx, v, &vc, around.Protecting, needed.from, o); err != nil {
		return out, err
	} else {
		read = needed
	}
	known := len(o.Log())
	for i, e := range received {
		out.Version++
		e.Version = out.Version
		out.Receipts[places[i]] = receiptOf(o.Admit(e))
	}
	out.New = o.Since(b.Since)
	arrived := o.Log()[known:]
	out.State = heldAgainst(visitID, vc, o, o.State(), arrived)
	t.afterwards(func() { t.ongoing.keep(visitID, v.ClientID, o, read) })
	if len(arriving) == 0 {
		out.WordsWait = true // nobody has looked
		return out, nil
	}
	if err := t.insert(ctx, arrived); err != nil {
		return out, err
	}
	out.WordsWait, err = t.project(ctx, v, out.Version, out.State, vc)
	return out, err
}

// receiptOf is that of an event that was judged.
func receiptOf(e visit.Event) Receipt {
	if e.Verdict == visit.Rejected {
		return Receipt{ID: e.ID, Result: KeptRejected, Reason: e.Why}
	}
	return Receipt{ID: e.ID, Result: Stored}
}

// goOn gives a locked visit as it was left and what it was read against, or reads its log.
func (t *Tx) goOn(ctx context.Context, v Visit) (*visit.Ongoing, readAgainst, error) {
	if o, read := t.ongoing.take(v.ID, v.Version); o != nil {
		return o, read, nil
	}
	log, err := t.Events(ctx, v.ID)
	if err != nil {
		return nil, readAgainst{}, err
	}
	// Read against nothing yet: the context is known when it is known what arrives.
	return visit.Unread(log), readAgainst{}, nil
}

// readAgain reads the safety record into a visit's context, and goes on under it.
func (t *Tx) readAgain(
	ctx context.Context, v Visit, vc *visit.Context, protecting int, from time.Time, o *visit.Ongoing,
) (*visit.Ongoing, error) {
	var err error
	if vc.History, err = t.history(ctx, *vc, v, protecting, from); err != nil || o.At(*vc) {
		return o, err
	}
	return visit.Today().Ongoing(*vc, o.Log()), nil
}

// lockVisit lets one writer at a time judge for a visit's client: every event
// gets its own version, and a sign in one visit is known in another.
func (t *Tx) lockVisit(ctx context.Context, id uuid.UUID) (Visit, error) {
	var v struct {
		Visit
		Sums []byte `db:"tables_sum"`
	}
	// The row is locked when the client's lock is held, and read as it is then. What is asked in this
	// transaction from here on is planned once for each connection: PostgreSQL would plan a visit's
	// surroundings anew for each event, which takes five times as long as reading them.
	err := t.tx.GetContext(ctx, &v, `with locked as materialized (
			select id, pg_advisory_xact_lock(hashtextextended(client_id::text, 0)),
				set_config('plan_cache_mode', 'force_generic_plan', true) from visit where id = $1)
		select v.tables_sum, `+visitColumns+` join locked on locked.id = v.id for update of v`, id)
	if err == nil {
		t.touch(v.ClientID)
	}
	v.tablesSum = v.Sums
	return v.Visit, found("locking a visit", err)
}

// sort gives the events that are new, with their places in the batch, and
// writes the receipts of the others. stored are the ids that the record has.
func (t *Tx) sort(
	ctx context.Context, v Visit, events []visit.Event, stored []string, receipts []Receipt,
) (arriving []visit.Event, places []int, err error) {
	before := map[string]visit.Event{}
	if len(stored) > 0 {
		list, err := t.events(ctx, `where id = any ($1)`, stored)
		if err != nil {
			return nil, nil, err
		}
		for _, e := range list {
			before[e.ID] = e
		}
	}
	for i, e := range events {
		receipts[i] = Receipt{ID: e.ID, Result: Refused}
		old, there := before[e.ID]
		switch {
		case there && sameEvent(old, e):
			receipts[i].Result = StoredBefore
			if old.Verdict == visit.Rejected {
				receipts[i].Reason = old.Why
			}
		case there && old.Visit != "" && old.Visit != v.ID.String():
			receipts[i].Reason = "Another visit has an event with this id."
		case there:
			receipts[i].Reason = "The record has another event under this id."
			receipts[i].Stored = &old
		case e.Client != v.ClientID.String():
			receipts[i].Reason = "$.client: the visit is another client's."
		default:
			arriving, places = append(arriving, e), append(places, i)
			before[e.ID] = e
		}
	}
	return arriving, places, nil
}

// sameEvent: everything that the device wrote is the same.
func sameEvent(a, b visit.Event) bool {
	return a.Client == b.Client && a.Visit == b.Visit && a.Author == b.Author && a.Device == b.Device &&
		a.Seq == b.Seq &&
		a.DeviceMS == b.DeviceMS && a.Schema == b.Schema && a.Type == b.Type && sameJSON(a.Body, b.Body)
}

// sameJSON compares what two documents say: PostgreSQL keeps neither blanks nor the order of
// fields.
func sameJSON(a, b json.RawMessage) bool {
	if bytes.Equal(a, b) {
		return true
	}
	var x, y any
	return json.Unmarshal(a, &x) == nil && json.Unmarshal(b, &y) == nil && reflect.DeepEqual(x, y)
}
