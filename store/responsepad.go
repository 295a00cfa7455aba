package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mokren/core/treat"
	"mokren/core/visit"
)

// Word is what a client's pad said during a visit: a number, or stop.
type Word struct {
	ID    uuid.UUID  `db:"id"`
	At    time.Time  `db:"at"`
	Kind  treat.Kind `db:"kind"`
	Value []byte     `db:"value"` // JSON; nil with a stop

	Device uuid.UUID `db:"device"`
	Seq    int64     `db:"seq"`
}

// PadDevice is what the pad of a code is called in the log.
func PadDevice(visit uuid.UUID, code string) uuid.UUID { return uuid.NewSHA1(visit, codeHash(code)) }

// PutWord keeps a pad's word; the same one again is the same as once.
func (t *Tx) PutWord(ctx context.Context, l Link, w Word) error {
	t.touch(l.Client)
	var value *string
	if w.Value != nil {
		value = new(string(w.Value))
	}
	_, err := t.tx.ExecContext(ctx, `insert into pad_word (practice_id, id, client_id, visit_id, device, seq, at, kind,
			value)
		select $1, $2, $3, $4, $5, coalesce(max(seq), 0) + 1, $6, $7, $8 from pad_word
			where visit_id = $4 and device = $5
		on conflict (practice_id, id) do nothing`,
		t.who.Practice, w.ID, l.Client, l.Visit, w.Device, w.At, w.Kind, value)
	return found("keeping a pad's word", err)
}

// EndLinks takes a visit's codes of one purpose back.
func (t *Tx) EndLinks(ctx context.Context, visit uuid.UUID, purpose string) error {
	_, err := t.tx.ExecContext(ctx, `select link_end($1, $2, $3)`, t.who.Practice, visit, purpose)
	return found("taking codes back", err)
}

// wordWaits is how long a word waits for a hold that a tablet has not sent yet.
const wordWaits = 24 * time.Hour

// TakeWords puts what a pad has said into the holds that it was said in, sorted
// in by its time. It reports whether anything was taken; the answer has what is
// newer than since.
func (t *Tx) TakeWords(ctx context.Context, visitID uuid.UUID, since int64, now time.Time) (AppendResult, bool, error) {
	waiting := func() (words []Word, err error) {
		err = t.tx.SelectContext(ctx, &words, `select id, at, kind, value, device, seq from pad_word
			where visit_id = $1 and not taken and at > $2 order by device, seq`, visitID, now.Add(-wordWaits))
		return words, found("reading a pad's words", err)
	}
	if words, err := waiting(); err != nil || len(words) == 0 {
		return AppendResult{}, false, err
	}
	v, err := t.lockVisit(ctx, visitID)
	if err != nil {
		return AppendResult{}, false, err
	}
	words, err := waiting() // another may have taken them before the lock was ours
	if err != nil {
		return AppendResult{}, false, err
	}
	log, err := t.Events(ctx, visitID)
	if err != nil {
		return AppendResult{}, false, err
	}
	vc, err := t.VisitContext(ctx, v, now)
	if err != nil {
		return AppendResult{}, false, err
	}
	holds := visit.Reduce(vc, log).Holds
	var events []visit.Event
	var taken []string
	for _, w := range words {
		e, ok := w.event(v, holds)
		if !ok {
			continue
		}
		e.Author, e.Seen = t.who.Person.String(), v.Version
		events, taken = append(events, e), append(taken, w.ID.String())
	}
	if len(events) == 0 {
		return AppendResult{}, false, nil
	}
	_, err = t.tx.ExecContext(ctx, `update pad_word set taken = true where visit_id = $1 and id = any ($2)`,
		visitID, taken)
	if err != nil {
		return AppendResult{}, false, fmt.Errorf("taking a pad's words: %w", err)
	}
	out, err := t.Append(ctx, visitID, Batch{Events: events, Since: since, Now: now})
	return out, true, err
}

// event is a word as an event of the hold that it was said in.
func (w Word) event(v Visit, holds []visit.Hold) (visit.Event, bool) {
	at := w.At.UnixMilli()
	h, ok := holdAt(holds, at)
	if !ok {
		return visit.Event{}, false
	}
	body, err := json.Marshal(visit.HoldHappened{
		Hold: h.ID, AtMS: at - h.StartedMS, Event: string(w.Kind), Value: w.Value,
	})
	if err != nil {
		return visit.Event{}, false
	}
	return visit.Event{
		ID: w.ID.String(), Client: v.ClientID.String(), Visit: v.ID.String(), Device: w.Device.String(), Seq: w.Seq,
		DeviceMS: at, Schema: visit.SchemaVersion, Type: "hold-event", Body: body,
	}, true
}

// holdAt is the hold that was under way at a time, the latest begun first.
func holdAt(holds []visit.Hold, atMS int64) (visit.Hold, bool) {
	for i := len(holds) - 1; i >= 0; i-- {
		h := holds[i]
		if h.StartedMS <= atMS && (h.EndedMS == 0 || atMS <= h.EndedMS) && h.Status != visit.HoldRejected {
			return h, true
		}
	}
	return visit.Hold{}, false
}
