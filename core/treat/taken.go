package treat

// What is taken in a phase: facts that a page shows, made from what may happen in a part.

// Over reports whether nothing more happens after the phase.
func (p Phase) Over() bool { return p == PhaseDone || p == PhaseStopped }

// HandOn reports whether a hand is on the client, so that leaving means letting go.
func (p Phase) HandOn() bool {
	switch p {
	case PhaseCheck, PhaseOffSpot, PhaseRelease:
		return true
	}
	return parts[p].presses
}

// Pedal is what the one key within reach says in a phase; empty where it says nothing.
func (p Phase) Pedal() Kind {
	switch p {
	case PhaseReady, PhaseReturn, PhaseMovedOff:
		return KindContact
	case PhasePaused:
		return KindResume
	case PhaseOffSpot, PhaseCheck:
		return KindOnSpot
	case PhaseRest:
		return KindRep
	}
	if p.HandOn() {
		return KindRelease
	}
	return ""
}

// Takes lists what may be said at a moment of a hold, beyond the pedal and the signs: a
// score, softening, an out-breath, the next repetition.
func (s Start) Takes(l Line) []Kind {
	out := []Kind{}
	p := l.Phase
	can, inPart := parts[p]
	byBreath := can.byBreath || p == PhaseLengthen && s.Plan != nil && s.Plan.ByBreath
	if inPart || p.HandOn() || l.Ask != "" {
		out = append(out, KindScore)
	}
	if can.softens {
		out = append(out, KindSoftening)
	}
	if byBreath {
		out = append(out, KindBreath)
	} else if can.byRep && can.presses { // in a rest the pedal says it
		out = append(out, KindRep)
	}
	return out
}
