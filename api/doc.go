// Package api is the HTTP door: sessions, authorisation, JSON resources with
// problem+json errors, OpenAPI, and the built front end.
//
//	h, err := api.New(store, api.Options{})
//	http.ListenAndServe(addr, h)
//
// The server keeps no state of its own; more than one copy can run against one
// database.
//
// A resource has a file with its shapes and its operations. What an operation
// needs before it runs is in guard.go (headers, limits, bodies) and authorise.go
// (who may); how it runs, within the practice and the audit, in signed.go; what
// becomes of an error in problem.go.
//
// # Vocabulary
//
//   - Resource: something with an address, such as clients, visits or protocols.
//   - Operation: a method on a resource, with an id. core/rights says who may call it.
//   - Own settings: what a practice sets over what ships (own.go): weights, thresholds,
//     protocols.
//   - Receipt: what became of one event that a device sent.
//   - Submission: what a client entered on a device of their own, until a therapist accepts it.
//   - Response pad: the client's pad during a hold. Its scores come over a WebSocket.
//   - Wire: a WebSocket to a page that has a visit open, which brings new events.
//
// # Data flow
//
//	request ─▶ metrics ─▶ pace and size of the body ─▶ headers, origin ─▶ session
//	        ─▶ authorise: the role read anew, the operation's row in core/rights
//	        ─▶ huma: shapes, bounds ─▶ signed: store.As(principal, action) ─▶ answer
//	error ─▶ problem ─▶ problem+json with a sentence for a person
//
// # Invariants
//
//   - No rule of treatment stands here. A handler reads, calls the core or the store, and writes.
//   - Every operation has a row in core/rights, and a test calls each by every role.
//   - Every access to a client's data leaves its audit row in the transaction that reads it.
//   - Sending the same thing twice is the same as sending it once.
//   - Nothing waits without an end: bodies, sign-ins, photographs and uploads are bounded.
//   - An address that was renamed answers under its old name for one release (former.go).
package api
