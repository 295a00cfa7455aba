package record

import (
	"slices"

	"mokren/core/ids"
	"mokren/core/safety"
)

// Client is what the record of the client itself says.
type Client struct {
	// Born are the birth dates that may be right, YYYY-MM-DD: the one entered and, until
	// a licensed person has confirmed it, the one before. The most cautious counts.
	Born []string `json:"born,omitempty"`
	// OffsetMin is how far the practice's clock is east of UTC, for its days.
	OffsetMin int `json:"offset_min,omitempty"`
	// HeightCM is the client's, for the tolerance of places.
	HeightCM float64 `json:"height_cm,omitempty"`
}

func (c Client) same(o Client) bool {
	return slices.Equal(c.Born, o.Born) && c.OffsetMin == o.OffsetMin && c.HeightCM == o.HeightCM
}

// Record is one client's facts, in the order in which they arrived.
type Record struct {
	client Client
	facts  []Fact
	undos  map[string][]Stamp // event → what took it back
}

// New begins a record with facts in their order of arrival.
func New(c Client, facts []Fact) *Record {
	r := &Record{client: c, undos: map[string][]Stamp{}}
	r.Add(facts...)
	return r
}

// Add takes facts in where they arrived: what has not arrived yet comes last.
func (r *Record) Add(facts ...Fact) {
	for _, f := range facts {
		if f.Undo != "" {
			r.undos[f.Undo] = append(r.undos[f.Undo], f.Stamp)
		}
		i := len(r.facts)
		for i > 0 && f.arrivedBefore(r.facts[i-1]) {
			i--
		}
		r.facts = slices.Insert(r.facts, i, f)
	}
}

// arrivedBefore orders by arrival: within a visit by its versions, between visits by the time
// of arrival. What was not sent yet has not arrived.
func (s Stamp) arrivedBefore(o Fact) bool {
	switch {
	case s.Version == 0:
		return false
	case o.Version == 0:
		return true
	case s.Visit == o.Visit:
		return s.Version < o.Version
	}
	return s.arrival() < o.arrival()
}

// takenBack gives the undo of an event that was not itself taken back.
func (r *Record) takenBack(event string) (by Stamp, gone bool) {
	for _, u := range r.undos[event] {
		if _, again := r.takenBack(u.Event); !again {
			return u, true
		}
	}
	return by, false
}

// Quiet reports that every fact can only ever allow, and nothing was taken back.
func (r *Record) Quiet() bool {
	return len(r.undos) == 0 && !slices.ContainsFunc(r.facts, func(f Fact) bool {
		return !f.permits() && (f.Answer != nil || f.Consent != nil) || f.Clearance != nil || f.Override != nil
	})
}

// Query is a moment in a visit: a hold that begins, or now.
type Query struct {
	// Stamp is of what is to begin. Without a version it arrives now, after everything.
	Stamp
	// Now asks what stands, whoever would begin: everything said counts.
	Now bool
	// Then asks what would have counted, had all that was said before it been known.
	Then bool
}

// Sees reports whether a fact was there to be known.
func (q Query) Sees(f Stamp) bool {
	switch {
	case q.Now:
		return true
	case q.Then && f.Device == q.Device:
		return f.Seq < q.Seq
	case q.Then && f.SaidMS < q.SaidMS:
		return true
	case q.Version == 0:
		return true
	case f.Version == 0:
		return false
	case f.Visit == q.Visit:
		return f.Version < q.Version
	}
	return f.arrival() <= q.arrival()
}

// enabledBy reports whether what permits is early enough to allow what begins: earlier in
// the same device's sequence, or arrived before it was said, or seen by whoever began.
func (q Query) enabledBy(f Stamp) bool {
	switch {
	case q.Now:
		return true
	case f.Device == q.Device && f.Seq < q.Seq:
		return true
	case f.Version == 0:
		return false
	case f.Visit == q.Visit && q.Seen >= f.Version:
		return true
	}
	return f.arrival() <= q.SaidMS
}

// State is what the record comes to at a moment.
type State struct {
	// q is the moment that the state is of: who asks, in which visit, knowing what.
	q      Query
	client Client
	// answers that count, the latest to each question, but for those that last until they are
	// cleared.
	answers []KnownAnswer
	// consents are the latest words on each area, of this visit.
	consents []AreaConsent
	// overrides that no later answer and no move of the point has ended.
	overrides []override
	// lastHold is the place of the latest accepted hold; openedMS when the visit was.
	lastHold int
	openedMS int64
	// first: no earlier visit of this client is known.
	first bool
}

// At asks the record.
func (r *Record) At(q Query) *State {
	s := &State{q: q, client: r.client, lastHold: -1, first: true}
	r.openings(s)
	said := no
	if s.first {
		said = yes
	}
	s.answers = append(s.answers, KnownAnswer{
		Stamp: &Stamp{Visit: q.Visit, Licensed: true, SaidMS: s.openedMS, Seq: -1},
		Said:  &Said{Answer: safety.Answer{Question: firstVisit, Answer: said}}, order: -1,
	})
	r.layOver(s, 0)
	return s
}

// layOver lets the facts act, the first of which has a place in the whole record.
func (r *Record) layOver(s *State, first int) {
	for i := range r.facts {
		f := &r.facts[i]
		if !s.q.Sees(f.Stamp) || f.permits() && !s.q.enabledBy(f.Stamp) {
			continue
		}
		// To take back what permits forbids, and the other way round.
		if u, gone := r.takenBack(f.Event); gone && s.q.Sees(u) && (f.permits() || s.q.enabledBy(u)) {
			continue
		}
		s.apply(f, first+i)
	}
}

const firstVisit = ids.Question("first-visit")

// openings finds when the visit was opened, and whether another was before it.
func (r *Record) openings(s *State) {
	own := -1
	for i, f := range r.facts {
		if f.Visit == s.q.Visit && (f.Opened || s.openedMS == 0) {
			if s.openedMS = f.SaidMS; f.Opened {
				own = i
				break
			}
		}
	}
	if s.openedMS == 0 {
		s.openedMS = s.q.SaidMS
	}
	for i, f := range r.facts {
		if f.Opened && f.Visit != s.q.Visit && (own < 0 || i < own) && f.SaidMS <= s.openedMS {
			s.first = false
		}
	}
}

// Answers are those that count, aged to the moment asked about.
func (s *State) Answers(signs []PressedPlace) []safety.Answer {
	out := make([]safety.Answer, 0, len(s.answers)+1)
	for _, k := range s.answers {
		a := s.at(k, s.q.SaidMS)
		if q, ok := safety.FindQuestion(a.Question); ok && q.EachVisit {
			fresh := s.thisVisit(k)
			a.Fresh = &fresh
		}
		if slices.ContainsFunc(signs, func(p PressedPlace) bool { return p.Sign == unwell && !p.before(*k.Stamp) }) {
			a.Fresh = new(bool) // after the client felt unwell everything is asked again
		}
		out = append(out, a)
	}
	if minor, known := s.minor(); known {
		said := no
		if minor {
			said = yes
		}
		out = append(out, safety.Answer{Question: "minor", Answer: said})
	}
	return out
}

// thisVisit reports whether an answer that every visit asks for was said since this one
// was opened. What its client said on the day before, in the waiting room, counts.
func (s *State) thisVisit(k KnownAnswer) bool {
	return k.SaidMS >= s.openedMS || k.Visit == s.q.Visit && s.openedMS-k.SaidMS <= dayMS
}
