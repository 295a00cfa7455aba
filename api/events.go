package api

import (
	"context"
	"encoding/json"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/decode"
	"mokren/core/visit"
	"mokren/store"
)

// EventBatch is what a device sends of one visit.
type EventBatch struct {
	// SentMS lets the record see how far the device's clock is off.
	SentMS int64         `json:"sent_ms,omitempty" minimum:"0" maximum:"253402300799999" doc:"the device's clock now, Unix ms"`
	Since  int64         `json:"since,omitempty" minimum:"0" doc:"the version that the device has; newer events are answered"`
	Events []visit.Event `json:"events" minItems:"1" maxItems:"2000"`
}

// rawBatch reads a batch without its events: each of them is read, and where
// need be refused, for itself.
type rawBatch struct {
	SentMS int64             `json:"sent_ms,omitempty" minimum:"0" maximum:"253402300799999"`
	Since  int64             `json:"since,omitempty" minimum:"0"`
	Events []json.RawMessage `json:"events" minItems:"1" maxItems:"2000"`
}

// Receipt is what became of one event.
type Receipt struct {
	ID     string `json:"id"`
	Result string `json:"result" enum:"stored,stored-before,aside,refused" doc:"aside: kept and shown, but counted nowhere; refused: not kept, whatever is tried"`
	Reason string `json:"reason,omitempty"`
	// Stored is what the record has under this id, where it is something else.
	Stored *visit.Event `json:"stored,omitempty"`
}

// EventAnswer is the answer to a batch.
type EventAnswer struct {
	Version  int64         `json:"version"`
	Receipts []Receipt     `json:"receipts" doc:"one for each event, in order"`
	Events   []visit.Event `json:"events" doc:"what is newer than since, in order of arrival"`
	NowMS    int64         `json:"now_ms" doc:"the server's clock, Unix ms"`
}

// Of a batch: a day of holds is about 200 kB; a slow line takes a while.
const (
	maxBatchBytes = 4 << 20
	maxEventBytes = 1 << 20
)

func (s *server) registerEvents(a huma.API) {
	o := op("send-events", http.MethodPost, "/api/visits/{id}/events",
		"Send a visit's events (twice is the same as once)", 401, 403, 404, 408, 413, 422)
	o.MaxBodyBytes, o.SkipValidateBody = maxBatchBytes, true
	o.RequestBody = jsonBody[EventBatch](a)
	huma.Register(a, o, s.sendEvents)
}

// sendEvents judges and stores a batch. Every event gets a receipt of its own.
func (s *server) sendEvents(ctx context.Context, in *struct {
	ByID
	RawBody []byte
},
) (*oneOut[EventAnswer], error) {
	raw, err := readBatch(in.RawBody)
	if err != nil {
		return nil, err
	}
	return one(ctx, s, action("write", "visit", in.ID), func(tx *store.Tx) (EventAnswer, error) {
		out := EventAnswer{Receipts: make([]Receipt, len(raw.Events)), Events: []visit.Event{}}
		b := store.Batch{SentMS: raw.SentMS, Since: raw.Since, Now: s.visitClock(ctx)}
		var places []int
		for i, r := range raw.Events {
			e, why := readEvent(r, in.ID, tx.Who())
			if why != "" {
				out.Receipts[i] = Receipt{ID: e.ID, Result: string(store.Refused), Reason: why}
				continue
			}
			b.Events, places = append(b.Events, e), append(places, i)
		}
		got, err := tx.Append(ctx, in.uuid(), b)
		if err != nil {
			return out, err
		}
		for i, r := range got.Receipts {
			out.Receipts[places[i]] = Receipt{r.ID, string(r.Result), r.Reason, r.Stored}
		}
		// What a pad said while the tablet was away belongs to the hold that it brings.
		if got.WordsWait {
			if more, any, err := tx.TakeWords(ctx, in.uuid(), raw.Since, b.Now); err != nil {
				return out, err
			} else if any {
				got = more
			}
		}
		s.metrics.took(got.Receipts)
		out.Version, out.Events, out.NowMS = got.Version, append(out.Events, got.New...), b.Now.UnixMilli()
		return out, nil
	})
}

// readBatch reads a batch's envelope.
func readBatch(body []byte) (rawBatch, error) {
	var raw rawBatch
	if e := decode.Storable(body); e != nil && !json.Valid(body) {
		return raw, refused(e)
	}
	if err := json.Unmarshal(body, &raw); err != nil {
		return raw, invalid("body", "JSON that cannot be read", "a batch: "+err.Error())
	}
	if n := len(raw.Events); n < 1 || n > 2000 {
		return raw, invalid("body.events", "a list of another length", "1 to 2000 events")
	}
	return raw, nil
}

// readEvent reads one event's envelope, or says why it is not taken.
func readEvent(raw []byte, visitID string, who store.Principal) (e visit.Event, why string) {
	if len(raw) > maxEventBytes {
		return e, "An event of more than 1 MB."
	}
	var head struct {
		ID string `json:"id"`
	}
	json.Unmarshal(raw, &head) //nolint:errcheck // only to name the event in its receipt
	e.ID = head.ID
	refusal := decode.Storable(raw)
	if refusal == nil {
		if err := decode.JSON(raw, &e); err != nil {
			return visit.Event{ID: head.ID}, err.Error()
		}
	}
	switch {
	case refusal != nil:
		return e, refusal.Under("$.body").Error()
	case e.Visit != visitID:
		return e, "$.visit: the event is of another visit."
	case e.Author != who.Person.String():
		// Another person's unsent work on a shared tablet waits for that person.
		return e, "$.author: it belongs to someone else and is sent when that person signs in."
	}
	return e, ""
}
