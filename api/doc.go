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
package api
