// Package visit reduces a visit's log of events to its present state. It is
// the only place that knows what an event does; browser and server run it
// alike, so what the therapist sees offline is what the record will hold.
//
//	state := visit.Reduce(context, events) // any order, duplicates allowed
//
// Nothing is overwritten silently: undo is an event, a conflict is shown, and
// an event that cannot stand is kept aside with its reason, never dropped.
package visit
