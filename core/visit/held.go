package visit

import (
	"cmp"
	"fmt"
	"slices"

	"mokren/core/record"
	"mokren/core/rights"
	"mokren/core/treat"
)

// note keeps what the latest event brought: the result as stored, and a clock
// that was off.
func (h *Hold) note(e Event) {
	if e.Result != nil && (h.stored == nil || e.Version >= h.storedAt) {
		h.stored, h.storedAt = e.Result, e.Version
	}
	h.off(e)
}

// off remembers that a clock was off; it is said once.
func (h *Hold) off(e Event) {
	h.clock = cmp.Or(h.clock, e.Clock)
	if e.Clock == ClockLong {
		h.clock = e.Clock
	}
}

// weigh replays a hold by the rules it was begun under and says what is known
// beside it. Nothing said here takes an accepted hold away.
func (r *reducer) weigh(h *Hold, k record.Verdict, quiet bool) {
	h.Summary = h.replay()
	h.Result = h.Summary.Result()
	if h.claim != nil && h.Status == Kept {
		h.remarkClaim()
	}
	switch h.clock {
	case ClockAhead:
		h.remark("The device's clock was ahead; its times are corrected.")
	case ClockBehind:
		h.remark("The device's clock was behind; its times are corrected.")
	case ClockLong:
		h.remark("The log was longer than the time since the hold began; it is cut to it.")
	}
	if h.late > 0 {
		h.remark(fmt.Sprintf("%d entries came in after the end and were sorted in by their time.", h.late))
	}
	if r.ctx.Roles[h.Author] == rights.Student && h.Countersigned == "" && h.Status != HoldRejected {
		h.remark("Not countersigned yet.")
	}
	if h.Status != HoldRejected {
		r.learnedLater(h, k, quiet)
	}
}

func (h *Hold) remark(text string) { h.Remarks = append(h.Remarks, text) }

// replay runs the hold's log, late events sorted in by their time. Rules that
// this program does not know leave what was stored.
func (h *Hold) replay() treat.Summary {
	c, err := treat.Replayer(h.Start)
	if err != nil {
		h.remark(
			"Recorded under rules " + h.Start.Rules + ", which this program cannot replay: shown as it was stored.",
		)
		return h.asStored()
	}
	if h.memo != nil && (h.claim == nil || h.claim.LastSignMS == nil) {
		return h.memo.of(c, h.events)
	}
	return h.run(c)
}

// memo is a coach that has applied the first events of a hold's log; a copy of the hold shares it.
type memo struct {
	coach   *treat.Coach
	applied int
	lastAt  int64
	summary treat.Summary
}

// of gives what a log comes to: what was added to it in the order of time is applied to the coach
// that has heard the rest, anything else to one that has just begun.
func (m *memo) of(begun *treat.Coach, log []treat.Event) treat.Summary {
	if m.coach != nil && m.applied == len(log) {
		return m.summary
	}
	added := log[min(m.applied, len(log)):]
	inOrder := m.coach != nil && len(log) > m.applied && slices.IsSortedFunc(added, byAt) && added[0].At >= m.lastAt
	if !inOrder {
		*m, added = memo{coach: begun}, treat.SortLate(log)
	}
	for _, e := range added {
		m.coach.Apply(e)
		m.lastAt = max(m.lastAt, e.At)
	}
	m.applied, m.summary = len(log), m.coach.Summary()
	return m.summary
}

func byAt(a, b treat.Event) int { return cmp.Compare(a.At, b.At) }

// run applies the log to a coach that has just begun.
func (h *Hold) run(c *treat.Coach) treat.Summary {
	for _, e := range treat.SortLate(h.events) {
		c.Apply(e)
	}
	if h.claim != nil && h.claim.LastSignMS != nil {
		// No later than the end was written; what the log has itself stands.
		if at := min(*h.claim.LastSignMS, h.EndedMS-h.StartedMS); at > h.lastEvent() {
			return c.Until(at)
		}
	}
	return c.Summary()
}

// lastEvent is the time of the hold's last event, ms from its start.
func (h *Hold) lastEvent() int64 {
	var last int64
	for _, e := range h.events {
		last = max(last, e.At)
	}
	return last
}

// asStored is the result kept with the log, else what the device claimed.
func (h *Hold) asStored() treat.Summary {
	if h.stored != nil {
		return *h.stored
	}
	s := treat.Summary{
		Outcome: treat.Unchanged, Stages: []treat.StageRecord{}, Trace: []treat.TracePoint{},
		Protocol: h.Start.Protocol, Limits: h.Start.Limits, Rules: h.Start.Rules,
	}
	if h.claim != nil {
		s.Outcome, s.PressureS = h.claim.Outcome, float64(h.claim.PressureMS)/1000
	}
	return s
}

// remarkClaim says where a device's claim differs from what its log comes to. The log counts;
// the difference shows that a program or a clock was wrong.
func (h *Hold) remarkClaim() {
	s := h.Summary
	ms := int64(s.PressureS*1000 + 0.5)
	have, said, what := len(s.Stages), h.claim.Stages, "stages"
	if h.claim.Parts != nil {
		have, said, what = s.Count(), h.claim.Parts, "parts"
	}
	if said == nil {
		said = &have
	}
	if s.Outcome == h.claim.Outcome && ms == h.claim.PressureMS && have == *said {
		return
	}
	h.remark(fmt.Sprintf("The log comes to %s, %d %s, %.1f s; the device had said %s, %d %s, %.1f s.",
		s.Outcome, have, what, s.PressureS, h.claim.Outcome, *said, what, float64(h.claim.PressureMS)/1000))
}

// quiet reports that nothing was ever said that could stand against any hold, so
// that nothing can have been learned later: every answer a no, every consent
// given, nothing taken back, no sign.
func (j *Validator) quiet(k record.Verdict) bool {
	s := k.Screening
	return len(j.signs) == 0 && !s.NoTreatment && len(s.Blocked) == 0 && len(s.Muscles) == 0 && j.record.Quiet()
}

// learnedLater says what would have stood against the hold, had it been known:
// a withdrawal, a yes or a closing sign that happened before it and arrived
// after. Where all is quiet and consent covers the place, nothing would have.
func (r *reducer) learnedLater(h *Hold, all record.Verdict, quiet bool) {
	i := slices.IndexFunc(r.state.Points, func(p Point) bool { return p.Point == h.Point })
	if i < 0 {
		return
	}
	at := r.validator.spot(r.state.Points[i].PointCharted)
	if quiet && all.ConsentMissing(at).Reason == "" {
		return
	}
	q := record.Query{Stamp: r.ctx.stamp(h.event), Then: true}
	var day record.Day
	for _, s := range r.validator.signs {
		if s.From.Event == "" || s.Hold != string(h.ID) && q.Sees(s.From) && s.AtMS < h.StartedMS {
			day.Signs = append(day.Signs, s)
		}
	}
	k := r.validator.record.At(q).Judge(day)
	why := k.Blocked(at, string(h.Point))
	if why != "" {
		why = "Blocked by the screening: " + why
	}
	why = cmp.Or(why, k.ConsentMissing(at).Text, k.Day.Closed(at, r.ctx.height()))
	if why != "" {
		h.remark("Learned after it began: " + why)
	}
}
