package visit

import (
	"mokren/core/record"
)

// stamp is an event's place in the client's record.
func (c Context) stamp(e Event) record.Stamp {
	return record.Stamp{
		Event: e.ID, Visit: e.Visit, Author: e.Author, Device: e.Device, Seq: e.Seq,
		Licensed: c.Roles[e.Author].Licensed(), SaidMS: e.At(), ArrivedMS: e.ReceivedMS, Version: e.Version,
		Seen: e.Seen,
	}
}

// Facts are what an accepted event adds to the client's safety record.
func (c Context) Facts(e Event, b Body) []record.Fact {
	if f, ok := b.(factual); ok {
		return f.facts(c.stamp(e))
	}
	return nil
}
