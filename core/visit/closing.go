package visit

// A closed visit takes its note, signatures and addenda; what its own people's devices
// had written before it closed and send now, with a remark; and what protects the client,
// whenever it comes.

const closedWhy = "The visit is closed; write an addendum instead."

// afterClosing tells why a closed visit does not take an event, or "". What only adds caution is
// always taken. Otherwise the kind says what it may: always, never when it is a hold, only as
// a hold's own late log, or only what was written before the closing was seen.
func (j *Validator) afterClosing(e Event, b Body) string {
	if j.closed == nil || protects(b) {
		return ""
	}
	switch byName[e.Type].closed {
	case takesAlways:
		return ""
	case takesNoHold:
		return "The visit is closed; a hold belongs to an open one."
	case takesOfItsDevice:
		return j.ofItsDevice(e, b.(ofHold).hold())
	}
	c := *j.closed
	before := e.Device == c.Device && e.Author == c.Author && e.Seq < c.Seq ||
		e.Device != c.Device && e.At() < c.At() && (c.Version == 0 || e.Seen < c.Version)
	if before && (e.Author == c.Author || j.wroteHere(e)) {
		return ""
	}
	return closedWhy
}

// protects reports whether a body can only add caution.
func protects(b Body) bool {
	p, ok := b.(protecting)
	return ok && p.protects()
}

// ofItsDevice: a hold's own log may come late, from the device and by the person that
// wrote it.
func (j *Validator) ofItsDevice(e Event, hold UUID) string {
	if h, ok := j.holds[hold]; ok && h.event.Device == e.Device && h.event.Author == e.Author {
		return ""
	}
	return closedWhy
}

// wroteHere reports whether an author has written in this visit, on this device, before
// it closed.
func (j *Validator) wroteHere(e Event) bool {
	for _, o := range j.byID {
		if o.Device == e.Device && o.Author == e.Author && (j.closed.Version == 0 || o.Version < j.closed.Version) {
			return true
		}
	}
	return false
}

// padWaits is how long after a hold's end a number of another device still counts.
const padWaits = 10 * 60_000

// tooLate tells why an entry of a hold changes nothing any more, or "": the hold is over
// for its own device, and for others' when they did not say it in time. Signs count always.
func (h *begun) tooLate(e Event, b *HoldHappened) string {
	if h.ended == nil || protects(b) {
		return ""
	}
	over := h.ended.At() - h.event.At()
	for _, e := range h.log {
		over = max(over, e.At)
	}
	switch {
	case e.Device == h.ended.Device && e.Seq < h.ended.Seq:
		return ""
	case e.Device == h.ended.Device:
		return "The hold has ended: this changes nothing of it."
	case b.AtMS > over+clockTolerance:
		return "It was said after the hold had ended: it changes nothing of it."
	case e.ReceivedMS > 0 && e.ReceivedMS-max(h.ended.At(), h.ended.ReceivedMS) > padWaits:
		return "It came more than ten minutes after the hold had ended: it changes nothing of it."
	}
	return ""
}

// late lists what came in after the visit had closed, so that whoever signed the note can see
// what the note did not know. What belongs to closing itself is not listed.
func (r *reducer) late(e Event) {
	c := r.validator.closed
	if c == nil || e.ID == c.ID || c.Version == 0 || e.Version <= c.Version || e.Verdict != Accepted {
		return
	}
	if k := byName[e.Type]; k.closed == takesAlways || k.closed == takesEarlierUnlisted {
		return
	}
	r.state.Late = append(r.state.Late, LateEntry{e.ID, e.Type, e.At(), e.ReceivedMS, e.Author})
}

// LateEntry is something that a closed visit has taken in.
type LateEntry struct {
	Event     string `json:"event"`
	Type      string `json:"type"`
	AtMS      int64  `json:"at_ms" doc:"when it happened"`
	ArrivedMS int64  `json:"arrived_ms"`
	Author    string `json:"author"`
}
