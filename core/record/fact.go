package record

import (
	"cmp"

	"mokren/core/ids"
	"mokren/core/safety"
)

// Stamp tells who said something, when, and in which order it arrived.
type Stamp struct {
	Event  string `json:"event"`
	Visit  string `json:"visit"`
	Author string `json:"author"`
	Device string `json:"device"`
	Seq    int64  `json:"seq"`
	// Licensed tells that the author held a licensed role.
	Licensed bool `json:"licensed,omitempty"`
	// SaidMS is when it was said by the server's clock; never after ArrivedMS.
	SaidMS    int64 `json:"said_ms"`
	ArrivedMS int64 `json:"arrived_ms,omitempty"`
	// Version is the place among the arrivals of its visit; 0 has not arrived.
	Version int64 `json:"version,omitempty"`
	// Seen is the version of its visit that the writer had seen.
	Seen int64 `json:"seen,omitempty"`
}

// arrival is when it arrived; logs of the first versions have only when it was said.
func (s Stamp) arrival() int64 { return cmp.Or(s.ArrivedMS, s.SaidMS) }

// follows reports whether what permits was said after what forbids, having arrived
// after it: by the device's own sequence, else by the clock. Where the clocks disagree
// with the order of arrival it does not, which is the safer order.
func (s Stamp) follows(forbids Stamp) bool {
	if s.Device == forbids.Device {
		return s.Seq > forbids.Seq
	}
	return s.SaidMS >= forbids.SaidMS
}

// Fact is one entry of the record: exactly one of its kinds is set.
type Fact struct {
	Stamp
	Answer    *Said      `json:"answer,omitempty"`
	Clearance *Clearance `json:"clearance,omitempty"`
	Consent   *Consent   `json:"consent,omitempty"`
	Override  *Override  `json:"override,omitempty"`
	// Undo names the event that is taken back.
	Undo string `json:"undo,omitempty"`
	// Placed is a point that lies elsewhere from now on.
	Placed string `json:"-"`
	// Opened: the visit was opened. Held: a hold was accepted.
	Opened bool `json:"opened,omitempty"`
	Held   bool `json:"held,omitempty"`
}

// permits reports whether a fact can only ever allow.
func (f *Fact) permits() bool {
	switch {
	case f.Answer != nil:
		return f.Answer.Answer.Answer == no
	case f.Consent != nil:
		return f.Consent.Given
	}
	return f.Clearance != nil || f.Override != nil
}

const no, unknown, yes = "no", "unknown", "yes"

type (
	// Said is an answer to a question of the screening; By is whose word it is.
	Said struct {
		safety.Answer
		// HappenedOn is the day of an injury, an operation, an injection or a clot, DueOn
		// that of a birth; YYYY-MM-DD.
		HappenedOn string `json:"happened_on,omitempty"`
		DueOn      string `json:"due_on,omitempty"`
		// Corrects: it says that an answer of a moment ago was a mistake.
		Corrects bool `json:"corrects,omitempty"`
	}
	// Clearance of a question and side.
	Clearance struct {
		Question ids.Question `json:"question"`
		Side     ids.Side     `json:"side,omitempty"`
		Basis    Basis        `json:"basis,omitempty"`
	}
	// Consent to the visit or an area, given or withdrawn.
	Consent struct {
		Area  safety.Area `json:"area"`
		Given bool        `json:"given"`
		By    string      `json:"by,omitempty"`
	}
	// Override of what blocks a point, where the point lay then.
	Override struct {
		Point string `json:"point"`
		// Questions are the answers that it names; none names those that stood.
		Questions []ids.Question `json:"questions,omitempty"`
	}
)

// Basis is what a clearance rests on.
type Basis string

// The bases. A clinician's word is the only one that lifts an emergency yes; resolved is
// a licensed therapist's own examination today; mistaken says that the answer was wrong.
const (
	ByClinician Basis = "clinician"
	ByResolved  Basis = "resolved"
	ByMistaken  Basis = "mistaken"
)

// ofSide reports whether the clearance is of an answer's side.
func (c Clearance) ofSide(side ids.Side) bool {
	return c.Side == "" || c.Side == ids.Midline || c.Side == side
}

// Allows reports whether the clearance's basis is enough for an answer.
func (c Clearance) Allows(a safety.Answer) bool {
	if c.Question != a.Question || !c.ofSide(a.Side) {
		return false
	}
	q, ok := safety.FindQuestion(a.Question)
	switch {
	case c.Basis == "" || c.Basis == ByClinician || !ok:
		return ok
	case a.Answer == unknown:
		return true
	case q.Outcome == safety.Emergency:
		return false
	}
	return c.Basis == ByMistaken || q.Resolves()
}
