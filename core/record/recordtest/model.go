// Package recordtest holds the safety record to a reference model, written from
// docs/safety-record.md in plain lines: no state, no folding, every question asked of all
// the facts anew. It is slow, and that is its point.
package recordtest

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/safety"
)

const day, licensed = int64(86_400_000), 2

// Model is a client's facts in the order of arrival, and what the hands have met.
type Model struct {
	Client record.Client
	Facts  []record.Fact
	Day    record.Day
}

// hold is one question to the model: may this hold begin there?
type hold struct {
	Model
	record.Stamp
	at    record.Spot
	point string
	// counts are the facts that are there for this hold, stands the answers among them
	// that nothing has replaced.
	counts, stands []bool
	openedMS       int64
	signs          []record.PressedPlace // of the day
}

// Admission gives the first reason why a hold may not begin, or "".
func (m Model) Admission(begin record.Stamp, at record.Spot, point string) record.Reason {
	h := &hold{Model: m, Stamp: begin, at: at, point: point}
	h.openedMS, h.signs = h.opened(), h.today()
	for i := range m.Facts {
		h.counts = append(h.counts, h.isThere(i))
	}
	for i := range m.Facts {
		f := &m.Facts[i]
		h.stands = append(h.stands, h.counts[i] && f.Answer != nil && h.ofVisit(f) && !h.replaced(i))
	}
	switch {
	case h.closedToday():
		return record.Closed
	case h.caution(func(q *safety.Question, _ int) bool { return q.Grave() }):
		return record.NoTreatment
	case h.graveMissing():
		return record.NotAsked
	case h.treatedTwice():
		return record.TwiceAlready
	case h.caution(h.blocks), h.any(0, h.clots):
		return record.Blocked
	}
	return h.consents()
}

// any looks for a fact from a place in the order on.
func (h *hold) any(from int, is func(i int, f *record.Fact) bool) bool {
	for i := from; i < len(h.Facts); i++ {
		if is(i, &h.Facts[i]) {
			return true
		}
	}
	return false
}

// isThere: what forbids is there once it arrived; what permits must have arrived before
// the hold was said, or come earlier from the same device, or have been seen; and what was
// taken back is not there, unless the taking back itself came too late.
func (h *hold) isThere(i int) bool {
	f := &h.Facts[i]
	permits := says(f, "no") || f.Consent != nil && f.Consent.Given || f.Clearance != nil || f.Override != nil
	if permits && !h.inTime(f.Stamp) {
		return false
	}
	by, gone := h.takenBack(f.Event)
	return !gone || !permits && !h.inTime(by.Stamp)
}

// says reports whether a fact is this answer to its question.
func says(f *record.Fact, answer string) bool {
	return f.Answer != nil && f.Answer.Answer.Answer == answer
}

// inTime reports whether the hold could know of the fact: its own device had written it, it
// had arrived, or the writer had seen it.
func (h *hold) inTime(f record.Stamp) bool {
	return f.Device == h.Device && f.Seq < h.Seq || f.ArrivedMS <= h.SaidMS || f.Visit == h.Visit && f.Version <= h.Seen
}

// takenBack gives the undo of an event that was not itself taken back.
func (h *hold) takenBack(event string) (by *record.Fact, gone bool) {
	gone = h.any(0, func(_ int, f *record.Fact) bool {
		if f.Undo != event {
			return false
		}
		_, again := h.takenBack(f.Event)
		by = f
		return !again
	})
	return by, gone
}

// follows: a permission counts against a caution that it comes after by arrival, and by
// the device's own sequence, or where the clocks do not say the opposite.
func (h *hold) follows(permit, caution int) bool {
	p, c := &h.Facts[permit], &h.Facts[caution]
	if p.Device == c.Device {
		return permit > caution && p.Seq > c.Seq
	}
	return permit > caution && p.SaidMS >= c.SaidMS
}

// word ranks whose an answer is: the client's, a student's, a licensed person's.
func word(f *record.Fact) int {
	switch {
	case f.Answer.By == "client":
		return 0
	case f.Licensed:
		return licensed
	}
	return 1
}

// ofVisit: whether it is the first visit is asked of each visit.
func (h *hold) ofVisit(f *record.Fact) bool {
	return f.Answer.Question != "first-visit" || f.Visit == h.Visit
}

// replaced: some answer that arrived later has taken the place of this one.
func (h *hold) replaced(g int) bool {
	return h.any(g+1, func(a int, f *record.Fact) bool {
		return h.counts[a] && f.Answer != nil && f.Answer.Question == h.Facts[g].Answer.Question && h.ofVisit(f) &&
			h.replaces(a, g)
	})
}

// replaces reports whether a later answer takes an earlier one's place. Less caution needs a
// correction, a clearance or a licensed word; more caution needs nothing.
func (h *hold) replaces(a, g int) bool {
	x, y := &h.Facts[a], &h.Facts[g]
	was, is := y.Answer.Answer.Answer, x.Answer.Answer.Answer
	switch {
	case was == "no":
		return is != "no" || h.follows(a, g)
	case was == is || is == "yes": // as much caution, or more
		return was == is && (saysAll(x, y) || saysWhere(x, y)) || h.corrects(a, g) ||
			word(x) == licensed && !h.stays(g, a)
	case !h.follows(a, g):
		return false
	case h.stays(g, a), was == "yes" && word(x) != licensed:
		return h.corrects(a, g)
	}
	return word(x) >= word(y) || h.corrects(a, g) // a no to what was not known
}

// saysAll: the same again, of every side and place, and by as good a word.
func saysAll(x, y *record.Fact) bool {
	return covers(x.Answer.Side, y.Answer.Side) && x.Answer.HappenedOn == y.Answer.HappenedOn && word(x) >= word(y) &&
		!slices.ContainsFunc(y.Answer.Regions, func(r ids.Region) bool { return !slices.Contains(x.Answer.Regions, r) })
}

// saysWhere: the same again, with a place, which was not said before.
func saysWhere(x, y *record.Fact) bool {
	unsaid := func(a *record.Said) bool { return a.Side == "" && len(a.Regions) == 0 }
	return unsaid(y.Answer) && !unsaid(x.Answer) && word(x) >= word(y)
}

func covers(side, other ids.Side) bool { return side == other || side == "" || side == ids.Midline }

// corrects: whoever gave an answer calls it a mistake within five minutes, before any hold.
func (h *hold) corrects(a, g int) bool {
	x, y := &h.Facts[a], &h.Facts[g]
	after := x.SaidMS - y.SaidMS
	rests := h.any(g+1, func(i int, f *record.Fact) bool { return i < a && f.Held && h.counts[i] })
	return x.Answer.Corrects && x.Author == y.Author && (x.Answer.By == "client") == (y.Answer.By == "client") &&
		after >= 0 && after <= 5*60_000 && !rests
}

// stays: the answer is of a question that is cleared, and no clearance had lifted it when
// another arrived and was said.
func (h *hold) stays(g, at int) bool {
	return question(&h.Facts[g]).UntilCleared() && !h.lifted(g, at, h.Facts[at].SaidMS)
}

// question is the screening's question that the fact answers.
func question(f *record.Fact) *safety.Question {
	q, _ := safety.FindQuestion(f.Answer.Question)
	return &q
}

// lifted: a clearance before a place in the order allows it, and the days in which none
// does anything are over.
func (h *hold) lifted(g, before int, ms int64) bool {
	f, q := &h.Facts[g], question(&h.Facts[g])
	return waited(f, int64(q.Waits()), ms) && h.any(g+1, func(i int, x *record.Fact) bool {
		c := x.Clearance
		return i < before && c != nil && h.counts[i] && c.Question == q.ID && covers(c.Side, f.Answer.Side) &&
			(c.Basis == "" || c.Basis == record.ByClinician || says(f, "unknown") ||
				c.Basis == record.ByResolved && (q.ID == "fever" || q.ID == "swollen-joint") ||
				c.Basis == record.ByMistaken && q.Outcome != safety.Emergency)
	})
}

// waited: more than so many days have gone since it happened, by the calendar; where that
// was not said, since it was answered.
func waited(f *record.Fact, days, ms int64) bool {
	if f.Answer.HappenedOn == "" || days == 0 {
		return days == 0 || ms-f.SaidMS >= days*day
	}
	return f.Answer.HappenedOn < date(ms-days*day)
}

// caution looks for an answer that stands, is not lifted, and is as asked.
func (h *hold) caution(is func(q *safety.Question, i int) bool) bool {
	return h.any(0, func(i int, f *record.Fact) bool {
		return h.stands[i] && !says(f, "no") && !h.lifted(i, len(h.Facts), h.SaidMS) && is(question(f), i)
	})
}

// blocks: the answer forbids the place, and no override of the point lifts it.
func (h *hold) blocks(q *safety.Question, i int) bool {
	a := h.Facts[i].Answer
	here := q.Outcome == safety.AvoidHere && len(q.Regions)+len(a.Regions) == 0 ||
		slices.Contains(q.Muscles, h.at.Muscle) || slices.ContainsFunc(h.at.Where, func(p safety.Place) bool {
		return (covers(a.Side, p.Side) || p.Side == ids.Midline) &&
			(slices.Contains(q.Regions, p.Region) || slices.Contains(a.Regions, p.Region))
	})
	return here && !h.overridden(q, i, len(q.Regions)+len(a.Regions) > 0)
}

// clots: for twelve weeks after an operation, cleared or not, these places are left alone.
func (h *hold) clots(i int, f *record.Fact) bool {
	lie := slices.ContainsFunc(h.at.Where, func(p safety.Place) bool {
		return strings.Contains(" upper-calf lower-calf popliteal medial-thigh ", " "+string(p.Region)+" ")
	})
	return h.stands[i] && f.Answer.Question == "recent-surgery" && !says(f, "no") && !waited(f, 84, h.SaidMS) && lie &&
		!h.overridden(question(f), i, true)
}

var never = ids.List[ids.Question]("open-skin hot-swollen-area enlarged-nodes carotid-disease unstable-neck")

// overridden reports whether a licensed person may press in spite of the answer, at this place
// and in this visit.
func (h *hold) overridden(q *safety.Question, i int, places bool) bool {
	f := &h.Facts[i]
	no := slices.Contains(never, q.ID) ||
		q.ID == "acute-muscle-tear" && (f.Answer.HappenedOn == "" || !waited(f, 3, h.SaidMS))
	return !no && q.Outcome == safety.AvoidHere && places &&
		h.any(0, func(o int, f *record.Fact) bool {
			return f.Override != nil && h.counts[o] && f.Visit == h.Visit && f.Override.Point == h.point &&
				(len(f.Override.Questions) == 0 || slices.Contains(f.Override.Questions, q.ID)) && !h.ended(o)
		})
}

// ended: the point lies elsewhere since, or a caution came later.
func (h *hold) ended(override int) bool {
	return h.any(override+1, func(i int, f *record.Fact) bool {
		return h.counts[i] && f.Visit == h.Visit && f.Placed == h.point || h.stands[i] && !says(f, "no")
	})
}

// graveMissing: a question that could stop the treatment has no answer that is fresh.
func (h *hold) graveMissing() bool {
	return slices.ContainsFunc(safety.Questions(), func(q safety.Question) bool {
		return q.Grave() && !h.any(0, func(i int, f *record.Fact) bool {
			return h.stands[i] && f.Answer.Question == q.ID && h.fresh(q, f)
		})
	})
}

// fresh: of the last 90 days, after every time the client felt unwell today, and where each
// visit asks, since it was opened or on the day before by this visit's client.
func (h *hold) fresh(q safety.Question, f *record.Fact) bool {
	again := slices.ContainsFunc(h.signs, func(s record.PressedPlace) bool {
		return s.Sign == "unwell" && f.SaidMS <= s.AtMS
	})
	if q.EachVisit {
		return !again && (f.SaidMS >= h.openedMS || f.Visit == h.Visit && h.openedMS-f.SaidMS <= day)
	}
	return !again && h.SaidMS-f.SaidMS <= 90*day
}

// opened is when the visit was; of one that nobody opened, its first fact.
func (h *hold) opened() int64 {
	at := h.SaidMS
	first := func(f *record.Fact) bool { at = f.SaidMS; return true }
	_ = h.any(0, func(_ int, f *record.Fact) bool { return f.Visit == h.Visit && f.Opened && first(f) }) ||
		h.any(0, func(_ int, f *record.Fact) bool { return f.Visit == h.Visit && first(f) })
	return at
}

// consents: the visit's, then those of the areas there; a guardian's for a minor.
func (h *hold) consents() record.Reason {
	minor := h.bornTooLate() || h.caution(func(q *safety.Question, _ int) bool { return q.ID == "minor" })
	for _, area := range append([]safety.Area{safety.WholeVisit}, safety.SensitiveAreas(h.at.Muscle, h.at.Where)...) {
		given := h.latest(area, len(h.Facts))
		switch {
		case given < 0 || !h.Facts[given].Consent.Given:
			return record.NoConsent
		case minor && h.Facts[given].Consent.By != "guardian":
			return record.NotByGuardian
		}
	}
	return ""
}

// latest is the word on an area that holds before a place in the order; -1 is none. A
// withdrawal counts whatever visit it hangs on, consent in its own, and against a
// withdrawal only where it follows.
func (h *hold) latest(area safety.Area, before int) int {
	for i := before - 1; i >= 0; i-- {
		c := h.Facts[i].Consent
		if c == nil || c.Area != area || !h.counts[i] || c.Given && h.Facts[i].Visit != h.Visit {
			continue
		}
		was := h.latest(area, i)
		if !c.Given || was < 0 || h.Facts[was].Consent.Given || h.follows(i, was) {
			return i
		}
	}
	return -1
}

// bornTooLate: by any of the birth dates the client is not 18 yet. Days are compared as
// they are written.
func (h *hold) bornTooLate() bool {
	latest := date(h.SaidMS)
	years, _ := strconv.Atoi(latest[:4])
	latest = fmt.Sprintf("%04d%s", years-18, latest[4:])
	return slices.ContainsFunc(h.Client.Born, func(born string) bool { return born > latest })
}

// date writes the day of a time, counted forward from 1970.
func date(ms int64) string {
	left, year, month := ms/day, 1970, 0
	for {
		days := []int64{31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31}
		if year%4 == 0 && (year%100 != 0 || year%400 == 0) {
			days[1] = 29
		}
		if left < days[month] {
			return fmt.Sprintf("%04d-%02d-%02d", year, month+1, left+1)
		}
		left -= days[month]
		year, month = year+(month+1)/12, (month+1)%12
	}
}

// dayOf is the practice's day of a time.
func (h *hold) dayOf(ms int64) int64 { return (ms + int64(h.Client.OffsetMin)*60_000) / day }

// today are the signs of this day, by the practice's clock.
func (h *hold) today() []record.PressedPlace {
	other := func(s record.PressedPlace) bool { return h.dayOf(s.AtMS) != h.dayOf(h.SaidMS) }
	return slices.DeleteFunc(slices.Clone(h.Day.Signs), other)
}

func (h *hold) same(s record.Spot) bool { return s.Same(h.at, h.Client.Height()) }

// closedToday applies the rules of signs to the place: unwell, a skin reaction, two nerve
// signs, three pulses.
func (h *hold) closedToday() bool {
	count := map[string]int{}
	for _, s := range h.signs {
		shared := slices.ContainsFunc(s.Where, func(p safety.Place) bool { return slices.Contains(h.at.Where, p) })
		switch {
		case s.Sign == "unwell" && (h.same(s.Spot) || safety.OnNeck(h.at.Muscle, h.at.Where)),
			s.Sign == "skin-reaction" && (h.same(s.Spot) || shared):
			return true
		case h.same(s.Spot):
			count[s.Sign]++
		}
	}
	return count["nerve-sign"] >= 2 || count["pulse"] >= 3
}

// treatedTwice counts the day's treatments of this place over all visits.
func (h *hold) treatedTwice() bool {
	n := 0
	for _, t := range h.Day.Treated {
		if h.dayOf(t.AtMS) == h.dayOf(h.SaidMS) && h.same(t.Spot) {
			n++
		}
	}
	return n >= 2
}
