package visit

import (
	"fmt"
	"maps"
	"slices"

	"mokren/core/decode"
	"mokren/core/record"
	"mokren/core/rights"
)

// kind is one type of event. Each stands in a file of its own (event_*.go) with its body;
// kinds.go lists them, and everything else about events is made from that list: who may
// write one, what the API describes, what a page may undo.
type kind struct {
	name string
	// body makes an empty body.
	body func() Body
	// by tells which roles may write it.
	by func(rights.Role) bool
	// stays tells what may be undone instead; empty where its author may undo it, as long as
	// nothing rests on it.
	stays string
	// closed is what a closed visit does with it.
	closed closing
	// acts is when it acts, beside the others of the log.
	acts turn
	// rejectedToo: one that was rejected acts all the same, so that it shows.
	rejectedToo bool
}

// Body is what an event holds, and what it does. The methods that not every kind needs
// stand in the interfaces below.
type Body interface {
	// apply changes the state of the visit. An error tells why it cannot; the event is
	// shown with it, and nothing is lost.
	apply(r *reducer, e Event) error
}

type (
	// admitted kinds are asked before they are accepted; an error names the field, or says
	// why.
	admitted interface {
		admit(j *Validator, e *Event) error
	}
	// remembered kinds change what later events are judged by.
	remembered interface{ remember(j *Validator, e Event) }
	// factual kinds add to the client's safety record.
	factual interface {
		facts(at record.Stamp) []record.Fact
	}
	// setting kinds set things that two people may set without having seen each other.
	setting interface{ sets(e Event) []thing }
	// aboutPoint kinds are about a point that is charted already.
	aboutPoint interface{ about() UUID }
	// placing kinds change where points lie.
	placing interface {
		place(j *Validator) (moved bool)
		at() UUID
	}
	// carrying kinds may carry a hold; carries tells which, or "".
	carrying interface{ carries(j *Validator) string }
	// protecting kinds may only add caution: a yes, a withdrawal, a reaction, a sign. Then
	// they enter the client's record whatever visit they hang on.
	protecting interface{ protects() bool }
	// told kinds stand in the timeline of a visit, in a few words; "" leaves one out.
	told interface{ timeline() string }
	// ofHold kinds belong to the log of a hold.
	ofHold interface{ hold() UUID }
)

// thing is something that is set: how it is called, and the key of its conflicts.
type thing struct{ what, key string }

// closing is what a closed visit does with an event.
type closing uint8

// A closed visit takes what its own people had written before it closed, with a remark; or
// everything of a kind, or no hold; of a hold's log what its own device sends.
const (
	takesEarlier closing = iota
	takesEarlierUnlisted
	takesAlways
	takesNoHold
	takesOfItsDevice
)

// turn is when an event acts: points come before everything that names them, and a hold
// before its log, so that two devices whose clocks differ a little lose nothing.
type turn uint8

const (
	then turn = iota
	first
	last
)

// What may be undone instead of what never is.
const (
	staysPressed = "an event outside a hold's log; what was pressed stays"
	staysWritten = "an event that can be taken back; this one stays"
)

// byName are the kinds by their names.
var byName = func() map[string]kind {
	out := make(map[string]kind, len(kinds))
	for _, k := range kinds {
		out[k.name] = k
	}
	return out
}()

// Decode reads an event's body strictly; errors are *decode.Error.
func (e Event) Decode() (Body, error) {
	if e.Schema != SchemaVersion {
		return nil, &decode.Error{Path: "$.schema", Given: fmt.Sprint(e.Schema), Allowed: fmt.Sprint(SchemaVersion)}
	}
	k, ok := byName[e.Type]
	if !ok {
		names := slices.Sorted(maps.Keys(byName))
		return nil, &decode.Error{Path: "$.type", Given: fmt.Sprintf("%q", e.Type), Allowed: fmt.Sprint(names)}
	}
	b := k.body()
	if err := decode.JSON(e.Body, b); err != nil {
		if se, ok := err.(*decode.Error); ok {
			return nil, se.Under("$.body")
		}
		return nil, err
	}
	return b, nil
}

// Types lists the event types with an empty body of each, for documentation.
func Types() map[string]any {
	out := map[string]any{}
	for _, k := range kinds {
		out[k.name] = k.body()
	}
	return out
}

// MayWrite reports whether a role may write an event of a type.
func MayWrite(r rights.Role, eventType string) bool {
	k, ok := byName[eventType]
	return ok && k.by(r)
}

// TimelineEntry is something that happened in a visit, in words.
type TimelineEntry struct {
	AtMS   int64  `json:"at_ms" doc:"by the server's clock, Unix ms"`
	Author string `json:"author"`
	Type   string `json:"type"`
	Text   string `json:"text"`
	// Undone: it was undone later. Rejected is why it counts nowhere.
	Undone   bool   `json:"undone,omitempty"`
	Rejected string `json:"rejected,omitempty"`
}

// Timeline tells what happened in a visit, in order. The words of a hold are left to the
// hold, and what was undone is told as undone instead of by its undo.
func Timeline(ctx Context, log []Event) []TimelineEntry {
	j, judged := Today().judged(ctx, log)
	out := []TimelineEntry{}
	for _, e := range Order(judged) {
		b, err := j.bodyOf(e)
		if err != nil {
			continue // shown as what could not be read
		}
		t, ok := b.(told)
		if !ok || t.timeline() == "" {
			continue
		}
		l := TimelineEntry{AtMS: e.At(), Author: e.Author, Type: e.Type, Text: t.timeline(), Undone: j.gone(e.ID)}
		if e.Verdict == Rejected {
			l.Rejected = e.Why
		}
		out = append(out, l)
	}
	return out
}

// KindInWords is a type of event for readers.
type KindInWords struct {
	Type  string
	Body  any
	Roles []rights.Role
	// Undo and Closed say in words what may be undone, and what a closed visit takes.
	Undo, Closed string
}

// KindsInWords lists the types of events for readers, in the order of their names.
func KindsInWords() []KindInWords {
	inClosed := map[closing]string{
		takesEarlier:         "what was written before the end",
		takesEarlierUnlisted: "what was written before the end",
		takesAlways:          "always",
		takesNoHold:          "never",
		takesOfItsDevice:     "from the hold's own device",
	}
	var out []KindInWords
	for _, k := range kinds {
		w := KindInWords{Type: k.name, Body: k.body(), Undo: "its author", Closed: inClosed[k.closed]}
		for _, r := range rights.Roles {
			if k.by(r) {
				w.Roles = append(w.Roles, r)
			}
		}
		if k.stays != "" {
			w.Undo = "never"
		}
		if _, ok := w.Body.(carrying); ok && k.stays == "" {
			w.Undo = "its author, while no hold rests on it"
		}
		if _, ok := w.Body.(protecting); ok && w.Closed != "always" {
			w.Closed += "; what adds caution always"
		}
		out = append(out, w)
	}
	return out
}

// Kind is a type of event as a page needs to know it.
type Kind struct {
	Type     string `json:"type"`
	Undoable bool   `json:"undoable" doc:"its author may undo it, as long as nothing rests on it"`
}

// Kinds lists the types of events.
func Kinds() []Kind {
	out := make([]Kind, len(kinds))
	for i, k := range kinds {
		// An undo is not undone by the same key: doing it again is another.
		out[i] = Kind{k.name, k.stays == "" && k.name != eventUndone.name}
	}
	return out
}
