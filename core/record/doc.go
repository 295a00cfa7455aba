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
package record
