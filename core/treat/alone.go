package treat

// attend remembers the state after an event: somebody is there.
func (s *state) attend() {
	if s.rules.runsAlone {
		return
	}
	k := s.clone()
	k.attended = nil
	s.attended = &k
}

// alone takes the hold back to its last sign of life, where the clocks stop: what came
// after it counts neither as pressed nor as over. The next contact is a new one.
func (s *state) alone() {
	last := s.attended
	*s = last.clone()
	s.attended = last
	s.interrupt("paused")
	s.phase = PhasePaused
	s.say(0, "Nobody attends: the clock stands. Resume with contact.",
		"The hold is interrupted at its last sign of life.", Rest)
}

// Until is what the hold leaves behind when its page says that nobody attended it after
// a time: the clocks run up to there, not only to the last event.
func (c *Coach) Until(ms int64) Summary {
	s := c.s.clone()
	s.advance(ms, true)
	return s.summary(c.start)
}
