// Package rights says who may do what: one table of roles for every operation
// of the API. The API asks it before an operation. Who may write an event is said by the
// kind of the event (core/visit), and asked again when the event is admitted. A right that
// is not written is refused.
package rights
