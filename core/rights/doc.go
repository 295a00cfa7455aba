// Package rights says who may do what: one table of roles for every operation
// of the API and every type of event. The API asks it before an operation, and
// the core again when an event is judged. A right that is not written is
// refused.
package rights
