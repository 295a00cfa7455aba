package treat

// The clock: an event first moves it through every deadline that fell due at or
// before it, each at its own time.

// deadline is something that falls due by itself.
type deadline struct {
	at   int64
	fire func(*state)
}

// Rule 1, and what follows a release.
const (
	firstAskAfter   = 5 * second
	askAfter        = 10 * second
	silenceAfter    = 30 * second
	flushFor        = 20 * second
	flushBeforeBack = 15 * second
	// aloneAfter past the cap without any key nobody attends the hold.
	aloneAfter = 120 * second
)

// next finds the earliest deadline. The order of the list settles ties: the
// caps come first, since nothing may be advised past them.
func (s *state) next() deadline {
	d := deadline{never, nil}
	consider := func(at int64, fire func(*state)) {
		at = max(at, s.now)
		if at < d.at {
			d = deadline{at, fire}
		}
	}
	if s.place == PhaseFlush {
		consider(s.flushEnd, (*state).flushed)
	}
	if s.place != "" {
		return d
	}
	if s.pressing() {
		if !s.capped {
			consider(s.now+s.start.Limits.CapMS-s.pressed, (*state).reachCap)
		}
		if s.capped && s.key != nil {
			consider(max(s.cappedAt, s.key.now)+aloneAfter, (*state).alone)
		}
		if s.plan.PressMaxMS > 0 && !s.closing {
			consider(s.now+s.plan.PressMaxMS-s.unbroken, (*state).pressedLongEnough)
		}
	}
	if s.closing {
		return d
	}
	if s.plan.TotalMS > 0 {
		consider(s.now+s.plan.TotalMS-s.spent, (*state).reachTotal)
	}
	s.partDeadlines(consider)
	return d
}

func (s *state) partDeadlines(consider func(int64, func(*state))) {
	silence := s.answeredAt + silenceAfter
	if s.plan.Unsteered {
		silence = never
	}
	overFirst := s.part.until == silence && parts[s.part.kind].tells
	if silence < never && !overFirst {
		// Before the part's end: without an answer nobody knows what it did.
		consider(silence, (*state).silence)
	}
	if s.part.halted < 0 {
		if at := s.strategy.alarm(s); at < never {
			consider(at, func(s *state) { s.strategy.rang(s) })
		}
		if s.part.until < never {
			consider(s.part.until, func(s *state) { s.strategy.over(s) })
		}
	}
	if s.askDue || s.plan.Unsteered {
		return
	}
	first, again := s.strategy.asks(s)
	wait := again
	if !s.answered {
		wait = first
	}
	if wait < never {
		consider(s.answeredAt+wait, (*state).askNow)
	}
}

// advance moves the clock to a time. A deadline that falls exactly on the time
// of an answer waits for it (an answer just in time counts); when only showing,
// it counts as due.
func (s *state) advance(to int64, due bool) {
	for {
		d := s.next()
		if d.fire == nil || d.at > to || d.at == to && !due {
			break
		}
		s.flow(d.at)
		d.fire(s)
	}
	s.flow(to)
}

// flow lets time pass on the clocks.
func (s *state) flow(to int64) {
	if to <= s.now {
		return
	}
	dt := to - s.now
	switch {
	case s.pressing():
		room := min(dt, max(0, s.start.Limits.CapMS-s.pressed))
		s.pressed += room
		s.overrun += dt - room
		s.unbroken += dt
	default:
		s.unbroken = 0
	}
	if s.inPart() {
		s.spent += dt
		s.strategy.flows(s, dt)
	}
	s.now = to
}
