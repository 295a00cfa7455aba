// Package visit reduces a visit's log of events to its present state. It is the only place
// that knows what an event does. Browser and server run it alike, so what the therapist sees
// offline is what the record will hold.
//
//	state := visit.Reduce(context, events) // any order, duplicates allowed
//
// # Vocabulary
//
//   - Event: something that happened, in an envelope (event.go): who wrote it, on which
//     device, when, which version of the visit the writer had seen; its body says what.
//   - Kind: a type of event. Each is one file, event_<type>.go, with its body and all that it
//     does; kinds.go lists them, kind.go says what a kind may be asked.
//   - Context: what is known beside the log (context.go): roles, earlier answers and consents
//     as facts, the day's other holds and signs, the practice's thresholds, the height.
//   - Validator: accepts or rejects each event once, when it arrives, by what was known then
//     (validator.go). Its verdict is stored with the event.
//   - Rules: what new events are judged by: the version of the coach's rules, the figure, the
//     ceilings of a place.
//   - Rejected: kept and shown with the reason; it counts nowhere.
//   - State: the visit as it stands (state.go): points, holds, ranges, answers, note, plan.
//   - Spot: a place where a hand was, the same over visits where it is near enough
//     (history.go).
//   - Revision, draft, preview: see core/bridge, which keeps a visit open for a page.
//
// # Data flow
//
// An event is written on a device, kept there, and sent. The server locks the client's
// visits and lets a Validator admit it:
//
//	device ── event ──▶ outbox ──▶ store.Append ──▶ Validator.Admit ──▶ verdict, stored
//	                                                     │
//	            the client's safety record (core/record) ┘
//
// Reading a visit, here or there, is a replay. What was judged keeps its verdict; what this
// device has not sent yet is judged as if it arrived now:
//
//	log ─▶ Arrived (order of arrival) ─▶ Replay or Admit ─▶ Order (order of happening)
//	    ─▶ each kind's apply, points first, holds' logs last ─▶ finish ─▶ State
//
// From a State the other packages are asked: Work (points judged and given a protocol),
// Planning (the session), Trace, Findings (for the suspects), NextAfter (what may come after
// a hold), Aftercare, LeftOff (what the next visit takes up). Timeline tells the log in words.
//
// # The two orders
//
// Events are judged in the order in which they arrived (Event.Version): only that is known to
// be true of a decision. They act in the order in which they happened (Order): per device by
// sequence, between devices by device time corrected on arrival, ties by id. So two tablets
// give the same state whichever sends first, and a late entry changes nothing that was
// decided before it came. What is learned later about an accepted hold is a remark beside
// it; it never becomes rejected.
//
// # A kind of event
//
// This is the whole of a kind:
//
//	var nextNoted = kind{name: "next-noted", body: func() Body { return new(NextNoted) }, by: rights.Role.Clinical}
//
//	// NextNoted is what is meant to be done at the next visit.
//	type NextNoted struct {
//		Text string `json:"text" maxLength:"2000"`
//	}
//
//	func (b *NextNoted) sets(Event) []thing { return []thing{{"what is to be done next", "next"}} }
//
//	func (b *NextNoted) apply(r *reducer, _ Event) error {
//		r.state.Next = b.Text
//		return nil
//	}
//
//	func (b *NextNoted) timeline() string { return "Next time: " + b.Text }
//
// Further methods are found by the interfaces of kind.go: admit (may it be accepted),
// remember (what later events are judged by), facts (the client's safety record), about
// (the point that must be there), place (where points lie), carries (what rests on it),
// protects (it can only add caution), hold (it belongs to a hold's log).
//
// To add one: write the file, add its line to kinds.go and its field to State, run
// `make types`. Types in the page, the API's description, who may write it, whether it can
// be undone and docs/events.md follow from that.
//
// # Holds
//
// hold-started carries the plan and the limits as they were resolved, and the version of the
// rules; hold-event is one word to the coach; hold-ended claims what it came to. The validator
// asks, in this order: does the point exist, are the limits those of the place and of
// today's rules, does the client's record allow it (consent, screening, closed places, two
// treatments a day), the contact, the position, supervision. The replay runs the log through
// core/treat under the rules that it was begun with; what that gives counts, and a claim that
// differs is a remark.
//
// # Example: two tablets
//
// Tablet A charts a point offline at 10:00 and sends at 10:20. Tablet B charts another at 10:05
// and sends at once. B's event is judged first, for it arrived first; A's is judged by what was
// known at 10:20. In the state A's point comes first, because it happened first. Had both set
// the place of the same point without seeing each other, B's would show (it happened later) and
// a Conflict would stay until somebody who has seen both sets it again.
//
// # Undo
//
// An undo is an event that names another; doing it again is an undo of the undo. One undoes
// one's own events of an open visit, and nothing that a hold rests on: the place of a pressed
// point, an answer, a consent. What is signed, closed or pressed stays; a kind says so with
// stays. An answer that only a clearance lifts can be corrected for minutes only.
//
// # Invariants
//
//   - Reduce is pure and total: any log gives a state, and what cannot stand is shown
//     (FuzzReduce, and a reference model in core/record).
//   - Nothing is overwritten silently: two who set the same thing unseen give a Conflict, the
//     later one shows until somebody who saw both sets it again.
//   - A verdict never changes. A replay asks no rule of today's about an accepted event.
//   - Every id in a State is of this log or of the context; places are on today's figure.
//   - A list in a State is empty, not absent, unless its field says omitempty.
//   - No clock: times come from events and from Context.NowMS.
//   - The same log under the same context gives the same state, to the byte of its JSON: lists
//     have an order that does not depend on maps, and the projection in the store compares
//     checksums of it.
package visit
