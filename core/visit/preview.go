package visit

import "slices"

// Preview tells why an event would be rejected if it were written now, after all that is
// in the log; empty when it would not.
func Preview(ctx Context, log []Event, e Event) string {
	s := Reduce(ctx, append(slices.Clone(log), e))
	for _, a := range s.Rejected {
		if a.Event == e.ID {
			return a.Reason
		}
	}
	// A hold that is rejected is shown as a hold.
	b, err := e.Decode()
	if start, ok := b.(*HoldStarted); err == nil && ok {
		for _, h := range s.Holds {
			if h.ID == start.Hold && h.Status == HoldRejected {
				return h.Why
			}
		}
	}
	return ""
}

// Undoable gives those of some events that their author may undo at a moment, by the
// device's clock.
func Undoable(ctx Context, log []Event, wanted []string, nowMS int64) []string {
	out := []string{}
	j, _ := Today().judged(ctx, log)
	for _, id := range wanted {
		undo := Event{
			Author: j.byID[id].Author, Type: "event-undone", DeviceMS: nowMS, HappenedMS: max(1, nowMS+ctx.ClockMS),
		}
		if j.validate(&undo, &EventUndone{Event: UUID(id)}) == nil {
			out = append(out, id)
		}
	}
	return out
}
