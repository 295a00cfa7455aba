package treat

import "slices"

// The clock: an event first moves it through every deadline that fell due at or
// before it, each at its own time.

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

// next finds the earliest deadline and its time, which is not before now; nil when nothing
// is due any more.
func (s *state) next() (*deadline, int64) {
	var first *deadline
	class, soonest := s.class(), int64(never)
	for i := range deadlines {
		d := &deadlines[i]
		if !slices.Contains(d.from, class) {
			continue
		}
		if at := d.at(s); at < never && max(at, s.now) < soonest {
			first, soonest = d, max(at, s.now)
		}
	}
	return first, soonest
}

func (s *state) flushEnds() int64 { return s.flushEnd }

// capAt is when the pressing that is left is used up, if the hand presses on from now. It is
// reached once.
func (s *state) capAt() int64 {
	if !s.pressing() || s.capped() {
		return never
	}
	return s.now + s.start.Limits.CapMS - s.pressed
}

func (s *state) capped() bool { return s.cappedAt < never }

// aloneAt counts from the cap or from the last key, whichever came later: a key shows that
// somebody is there.
func (s *state) aloneAt() int64 {
	if !s.pressing() || !s.capped() || s.attended == nil {
		return never
	}
	return max(s.cappedAt, s.attended.now) + aloneAfter
}

// pressLimitAt bounds pressing without a pause, on the front of the neck. It comes before the
// questions in the list of deadlines.
func (s *state) pressLimitAt() int64 {
	if s.plan.PressMaxMS == 0 || !s.pressing() {
		return never
	}
	return s.now + s.plan.PressMaxMS - s.unbroken
}

// totalAt bounds protocols that press nothing: their pressure clock stands, so the cap would
// never come.
func (s *state) totalAt() int64 {
	if s.plan.TotalMS == 0 {
		return never
	}
	return s.now + s.plan.TotalMS - s.spent
}

// silenceAt: at the part's end it comes before the end, for without an answer nobody knows
// what the part did; but where the part tells that itself, it comes not at all.
func (s *state) silenceAt() int64 {
	at := s.asked.since + silenceAfter
	if s.plan.Unsteered || s.part.until == at && parts[s.part.kind].tells {
		return never
	}
	return at
}

// alarmAt is a moment within a part that only the strategy knows. A halted part has none.
func (s *state) alarmAt() int64 {
	if a, ok := s.strategy.(rings); ok && s.part.halted < 0 {
		return a.alarm(s)
	}
	return never
}

func (s *state) alarm() { s.strategy.(rings).rang(s) }

// partEnds: the clock of a halted part stands.
func (s *state) partEnds() int64 {
	if s.part.halted >= 0 {
		return never
	}
	return s.part.until
}

func (s *state) partOver() { s.strategy.over(s) }

// askAt is when a score is asked for by itself: not while one is waited for, and never where
// scores cannot steer.
func (s *state) askAt() int64 {
	if s.asked.due || s.plan.Unsteered {
		return never
	}
	wait, again := s.strategy.asks(s)
	if s.asked.answered {
		wait = again
	}
	if wait == never {
		return never
	}
	return s.asked.since + wait
}

// advance moves the clock to a time. A deadline that falls exactly on the time
// of an answer waits for it (an answer just in time counts); when only showing,
// it counts as due.
func (s *state) advance(to int64, due bool) {
	for {
		d, at := s.next()
		if d == nil || at > to || at == to && !due {
			break
		}
		s.flow(at)
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
		if f, ok := s.strategy.(flows); ok {
			f.flow(s, dt)
		}
	}
	s.now = to
}
