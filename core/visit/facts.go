package visit

import (
	"mokren/core/record"
	"mokren/core/safety"
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
func (c Context) Facts(e Event, body any) []record.Fact {
	at := c.stamp(e)
	switch b := body.(type) {
	case *Opened:
		return []record.Fact{{Stamp: at, Opened: true}}
	case *Screened:
		out := make([]record.Fact, len(b.Answers))
		for i, a := range b.Answers {
			out[i] = record.Fact{Stamp: at, Answer: &record.Said{
				Answer: safety.Answer{
					Question: a.Question, Answer: a.Answer, Side: a.Side, Regions: a.Regions, By: b.By,
				},
				HappenedOn: a.HappenedOn, DueOn: a.DueOn, Corrects: a.Corrects != "",
			}}
		}
		return out
	case *ScreeningCleared:
		return []record.Fact{{Stamp: at, Clearance: b.clearance()}}
	case *Consented:
		return []record.Fact{{Stamp: at, Consent: &record.Consent{Area: b.Area, Given: b.Given, By: b.By}}}
	case *BlockOverridden:
		return []record.Fact{{Stamp: at, Override: &record.Override{Point: string(b.Point), Questions: b.Questions}}}
	case *HoldStarted:
		return []record.Fact{{Stamp: at, Held: true}}
	case *Undone:
		return []record.Fact{{Stamp: at, Undo: string(b.Event)}}
	}
	return nil
}
