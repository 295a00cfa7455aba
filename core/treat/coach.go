package treat

import (
	"slices"

	"mokren/core/stable"
)

// Coach runs one hold. The zero value is not useful; see NewCoach.
type Coach struct {
	start Start
	log   []Event // what counts: no ticks, no undone events, no undos
	// before holds the state before each event of log, so that undo needs no
	// replay. States share their slices, which only grow; see state.
	before []state
	s      state
}

// NewCoach begins a hold at time 0.
func NewCoach(s Start) *Coach {
	c := &Coach{start: s}
	c.s = newState(&c.start)
	return c
}

// Apply records an event and gives the state after it. Events come in the
// order of their times; see Log for sorting late ones in.
func (c *Coach) Apply(e Event) Line {
	switch e.Kind {
	case KindTick:
		return c.At(e.At)
	case KindUndo:
		return c.undo(e)
	}
	ignored := c.record(e)
	l := c.s.line()
	if ignored != "" {
		l.Ignored, l.Reason = true, ignored
	}
	return l
}

// At shows the state at a time without keeping anything: ticks never change
// an outcome.
func (c *Coach) At(ms int64) Line {
	s := c.s.clone()
	s.advance(ms, true)
	return s.line()
}

// Due is the time of the next deadline after ms, by which the line changes without
// an event: the end of a part, a question, a cap. ok is false when nothing is due any more.
func (c *Coach) Due(ms int64) (at int64, ok bool) {
	s := c.s.clone()
	s.advance(ms, true)
	d, at := s.next()
	return at, d != nil
}

// record lets an event act and remembers the state before it.
func (c *Coach) record(e Event) (ignored string) {
	c.log = append(c.log, e)
	c.before = append(c.before, c.s)
	c.s.strategy = c.s.strategy.clone()
	c.s.advance(e.At, !c.s.rules.tiesWait && !e.Kind.isAnswer())
	ignored = c.s.apply(e)
	c.s.attend()
	return ignored
}

// undo takes the last event of its own source back; the state is then that of
// the log without it. A stop is not taken back.
func (c *Coach) undo(e Event) Line {
	ignored := func(why string) Line {
		l := c.At(e.At)
		l.Ignored, l.Reason = true, why
		return l
	}
	i := len(c.log) - 1
	for !c.s.rules.undoTakesAny && i >= 0 && c.log[i].Source != e.Source {
		i--
	}
	switch {
	case i < 0:
		return ignored("Nothing to take back.")
	case c.log[i].Kind == KindClientStop && !c.s.rules.undoTakesAny:
		return ignored("A stop is not taken back; a new hold needs a fresh decision.")
	}
	later := slices.Clone(c.log[i+1:])
	// What grows from here is its own: summaries of what is taken back share the old slices.
	c.s, c.log, c.before = c.before[i].clone(), c.log[:i], c.before[:i]
	for _, l := range later {
		c.record(l)
	}
	return c.At(e.At)
}

// Start gives the start event with its resolved limits.
func (c *Coach) Start() Start { return c.start }

// Summary is what the hold leaves behind, as of its last event that counts.
func (c *Coach) Summary() Summary { return c.s.summary(c.start) }

// Replay runs a whole log and gives a line for each event, the last with the
// summary. It does not sort; see SortLate.
func Replay(start Start, log []Event) []Line {
	c := NewCoach(start)
	out := make([]Line, 0, len(log))
	for _, e := range log {
		out = append(out, c.Apply(e))
	}
	if len(out) > 0 {
		sum := c.Summary()
		out[len(out)-1].Summary = &sum
	}
	return out
}

// SortLate puts events that arrived late (a client's pad, a second device)
// where their time says; events of the same time keep the order of arrival.
func SortLate(log []Event) []Event {
	out := slices.Clone(log)
	stable.Sort(out, func(a, b Event) int { return int(a.At - b.At) })
	return out
}
