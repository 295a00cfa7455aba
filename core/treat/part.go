package treat

// may is what may happen in a part of a plan. A hold is in one part at a time; this table
// is the only place that says what a part takes.
type may struct {
	// presses: the hand presses, so the pressure clock runs.
	presses bool
	// byRep, byBreath: a rep, an out-breath ends the part or begins it again.
	byRep, byBreath bool
	// compares: scores given in it are compared with each other (rules 5 and 7).
	compares bool
	// keeps: after an interruption it continues where it was.
	keeps bool
	// settles: after an interruption it waits for a new baseline.
	settles bool
	// tells: if its end and "no answer" fall due at the same time, the end wins.
	tells bool
	// softens: softening under the hand is asked for.
	softens bool
}

var parts = map[Phase]may{
	PhaseSettle:   {presses: true, softens: true},
	PhaseStage:    {presses: true, compares: true, settles: true, softens: true},
	PhasePress:    {presses: true, compares: true, byRep: true, tells: true},
	PhaseRest:     {byRep: true},
	PhaseRamp:     {presses: true, compares: true, keeps: true},
	PhaseTest:     {presses: true},
	PhaseSlacken:  {presses: true, compares: true},
	PhaseStill:    {presses: true, compares: true, keeps: true, softens: true},
	PhaseSink:     {presses: true, compares: true, byBreath: true, softens: true},
	PhaseMove:     {presses: true, byRep: true},
	PhasePush:     {presses: true, compares: true, byRep: true},
	PhaseLengthen: {presses: true, byRep: true},
	PhaseStroke:   {presses: true, byRep: true},
	PhaseBroad:    {presses: true, compares: true, keeps: true},
	PhaseNarrow:   {presses: true, compares: true, softens: true},
}

// part is the stretch that runs. Times are ms since the start of the hold.
type part struct {
	kind  Phase
	began int64 // when it was entered; the record begins here, whatever the clock does
	from  int64 // where its clock stands from: later after an interruption
	until int64 // when it is over by itself; never for an open one
	// again: a rep in its first third has begun it again; that happens once.
	again       bool
	halted      int64    // since when its clock stands; -1 while it runs
	first, last *float64 // the first and the last score given in it; nil for none
}

// PartRecord is one part as it was.
type PartRecord struct {
	Kind       Phase    `json:"kind"`
	StartS     float64  `json:"start_s"`
	EndS       float64  `json:"end_s"`
	FirstScore *float64 `json:"first_number,omitempty"`
	LastScore  *float64 `json:"last_number,omitempty"`
}

// record is the part as the summary keeps it, from when it was entered to its end.
func (p part) record(end int64) PartRecord {
	return PartRecord{p.kind, seconds(p.began), seconds(end), p.first, p.last}
}

// enter leaves the part that runs for another, over by itself after ms. What is asked in
// check and off-spot stays asked.
func (s *state) enter(kind Phase, ms int64) {
	s.leave()
	s.part = part{kind: kind, began: s.now, from: s.now, until: never, halted: -1}
	if ms < never {
		s.part.until = s.now + ms
	}
	if s.phase != PhaseCheck && s.phase != PhaseOffSpot {
		s.phase = kind
	}
	s.startOver()
}

// leave closes the part that runs, if any. The caller says which phase comes then.
func (s *state) leave() {
	if s.part.kind != "" && !s.rules.noParts {
		s.kept.parts = append(s.kept.parts, s.part.record(s.now))
	}
	s.part = part{halted: -1}
}

// startOver forgets what scores are compared with: another part, or another
// step of it.
func (s *state) startOver() {
	if s.compared.runs && !s.stages.open.counted {
		s.compared.runs = false
	}
	s.compared.since = nil
}

// halt lets the part's clock stand.
func (s *state) halt() {
	if s.part.kind != "" && s.part.halted < 0 {
		s.part.halted = s.now
	}
}

// goOn takes a halted part up again: from the beginning, or where it stood and
// one step lighter.
func (s *state) goOn() {
	p := &s.part
	if p.halted < 0 {
		return
	}
	length := p.until - p.from
	stood := s.now - p.halted
	p.halted = -1
	s.startOver()
	if parts[p.kind].keeps {
		p.from += stood
		if p.until < never {
			p.until += stood
		}
		s.lighter()
		return
	}
	p.from = s.now
	if p.until < never {
		p.until = s.now + length
	}
}

// lighter goes one step back, where the strategy has steps.
func (s *state) lighter() {
	if l, ok := s.strategy.(lightens); ok {
		l.lighter(s)
	}
}

// pressing reports whether the hand presses: the pressure clock runs.
func (s *state) pressing() bool {
	return s.phase == PhaseRelease || s.inPart() && s.plan.Presses && parts[s.part.kind].presses
}

// resting: a rest between presses runs by its own clock.
func (s *state) resting() bool { return s.inPart() && s.part.kind == PhaseRest }

// backInPart ends check or off-spot: the part is the phase again. Its clock stays halted until
// the caller goes on with it.
func (s *state) backInPart() {
	if s.phase == PhaseCheck || s.phase == PhaseOffSpot {
		s.phase = s.part.kind
	}
}
