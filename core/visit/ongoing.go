package visit

import (
	"encoding/json"
	"slices"

	"mokren/core/record"
)

// Ongoing is a visit whose log was read once: it takes in what arrives at the cost of what
// arrives. Its State is what Reduce makes of the same log, at every moment; a test holds the two
// side by side over random visits. It is a cache and never the record.
type Ongoing struct {
	rules Rules
	ctx   Context
	// readAs is the context but for the clock and the safety record, written out.
	readAs string
	// log is judged, in the order of arrival.
	log       []Event
	validator *Validator
	// reduced has applied the whole log and finished nothing; nil while it has to be made anew.
	reduced *reducer
	// latest is the last event in Order, lastSeq the highest of each device: whether an event
	// sorts after all others.
	latest  Event
	lastSeq map[string]int64
	heard   Heard
}

// Ongoing reads a log that was judged on arrival.
func (l Rules) Ongoing(ctx Context, log []Event) *Ongoing {
	o := &Ongoing{
		rules: l, ctx: ctx, readAs: written(ctx), log: slices.Clone(log), validator: l.Validator(ctx),
		lastSeq: map[string]int64{}, heard: HeardIn(log),
	}
	for _, e := range log {
		o.validator.Replay(e)
		o.sorted(e)
	}
	return o
}

// Unread holds a log that is not read yet; At says that it could not go on, and a log that is read
// takes its place.
func Unread(log []Event) *Ongoing { return &Ongoing{log: log, heard: HeardIn(log)} }

// Log is every event with its verdict, in the order of arrival; it is not to be changed.
func (o *Ongoing) Log() []Event { return o.log }

// Since gives the events after a version, in the order of arrival.
func (o *Ongoing) Since(version int64) []Event {
	from := len(o.log)
	for from > 0 && o.log[from-1].Version > version {
		from--
	}
	return slices.Clone(o.log[from:])
}

// Heard is when each device was last heard of; it is not to be changed.
func (o *Ongoing) Heard() Heard { return o.heard }

// Version is that of the latest event; 0 without one.
func (o *Ongoing) Version() int64 {
	if len(o.log) == 0 {
		return 0
	}
	return o.log[len(o.log)-1].Version
}

// History is the safety record that the log was read against.
func (o *Ongoing) History() []record.Fact { return o.ctx.History }

// At goes on under a context, if nothing but the clock differs from the one that the log was read
// against; it reports whether it could.
func (o *Ongoing) At(ctx Context) bool {
	a, errA := json.Marshal(o.ctx.History)
	b, errB := json.Marshal(ctx.History)
	return errA == nil && errB == nil && string(a) == string(b) && o.AtAsBefore(ctx)
}

// AtAsBefore is At for a context that has no safety record of its own: the one that the log was
// read against still counts.
func (o *Ongoing) AtAsBefore(ctx Context) bool {
	if o.validator == nil {
		return false
	}
	ctx.History = o.ctx.History
	as := written(ctx)
	if as == "" || as != o.readAs {
		return false
	}
	o.ctx, o.validator.ctx = ctx, ctx
	if o.reduced != nil {
		o.reduced.ctx = ctx
	}
	return true
}

// written is a context but for the clock and the safety record; empty where it cannot be written.
func written(ctx Context) string {
	ctx.NowMS, ctx.History = 0, nil
	raw, err := json.Marshal(ctx)
	if err != nil {
		return ""
	}
	return string(raw)
}

// Admit judges an event that arrives now, and keeps it with its verdict.
func (o *Ongoing) Admit(e Event) Event {
	e = o.validator.Admit(e)
	o.log = append(o.log, e)
	o.heard.take(e)
	atTheEnd := o.sorted(e)
	if o.reduced == nil {
		return e
	}
	b, err := o.validator.bodyOf(e)
	_, ofHold := b.(*HoldHappened)
	if err != nil || !ofHold || !atTheEnd || e.Verdict != Accepted || o.validator.closed != nil {
		o.reduced = nil
		return e
	}
	// What is said in a hold acts last of all, and this is the latest of it: the rest stands.
	o.reduced.state.Version = max(o.reduced.state.Version, e.Version)
	o.reduced.act(e, b)
	return e
}

// sorted notes an event's place and reports whether it sorts after all before it.
func (o *Ongoing) sorted(e Event) bool {
	seq, known := o.lastSeq[e.Device]
	last := (!known || e.Seq > seq) && (o.latest.ID == "" || byTime(o.latest, e) < 0)
	if o.latest.ID == "" || byTime(o.latest, e) < 0 {
		o.latest = e
	}
	o.lastSeq[e.Device] = max(seq, e.Seq)
	return last
}

// State is the visit as it stands.
func (o *Ongoing) State() State {
	if o.reduced == nil {
		o.reduced = o.rules.apply(o.ctx, o.validator, o.log)
	}
	return o.reduced.finished()
}

// finished is the state with what depends on the whole. The replay itself stays as it is, so that
// more may be applied to it.
func (r *reducer) finished() State {
	done := *r
	s := &done.state
	s.Points, s.Holds, s.Ranges, s.Gauges = slices.Clone(s.Points), slices.Clone(s.Holds),
		slices.Clone(s.Ranges), slices.Clone(s.Gauges)
	s.Rejected, s.Conflicts = slices.Clone(s.Rejected), slices.Clone(s.Conflicts)
	for i := range s.Holds {
		s.Holds[i].Remarks = slices.Clip(s.Holds[i].Remarks)
		s.Holds[i].Log = slices.Clip(s.Holds[i].Log)
	}
	done.finish()
	return done.state
}
