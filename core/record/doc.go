// Package record holds what protects a client: one ordered record of facts, of all
// visits, in the order in which they arrived. Everybody who decides asks it: the
// admission of a hold, the browser's preview, plan, suggestion and coach.
//
// The model is docs/safety-record.md. Dates of appointments are no part of it, and the
// visit on which a fact hangs only where consent and overrides are for that visit.
//
//	r := record.New(history, ctx)   // the other visits' facts
//	r.Add(facts...)                 // this visit's, as they arrive
//	s := r.At(record.Query{...})    // what counts for a hold
//	s.Refusal(spot, point)          // why none may begin, the first by precedence
//
// # Vocabulary
//
//   - Fact: an answer, a clearance, a consent, an override, an undo, the opening of a visit or
//     the beginning of a hold, each with its stamp.
//   - Stamp: who wrote it, on which device, when, in which visit, and when it arrived.
//   - Query: the moment that is asked about: what its writer could know then.
//   - Standing: the answers that count at that moment.
//   - Verdict: a state judged by the screening; from it Refusal gives the first reason against
//     a hold at a place.
//
// # Invariants
//
//   - Order is of arrival. The date of an appointment decides nothing.
//   - A fact is never changed. What lifts one is another fact that arrived later.
//   - More caution always counts; less needs a clearance, a correction within minutes, or a
//     licensed word where the question allows one.
//   - recordtest holds a second, slower model of the same rules; random histories give both
//     the same answers.
package record
