package safety

import (
	"fmt"
	"slices"

	"mokren/core/decode"
	"mokren/core/ids"
)

// Answer to a question of the screening.
type Answer struct {
	Question ids.Question `json:"question"`
	Answer   string       `json:"answer" enum:"yes,no,unknown"`
	// Side of a yes, where the question asks for it.
	Side ids.Side `json:"side,omitempty" doc:"left, right; absent or midline is both"`
	// Regions that the client has shown.
	Regions []ids.Region `json:"regions,omitempty" maxItems:"100"`
	DaysAgo float64      `json:"days_ago,omitempty" minimum:"0"`
	// Fresh tells whether the question counts as asked; by the days when left out.
	Fresh *bool `json:"fresh,omitempty"`
	// Cleared tells that a clinician has cleared it since.
	Cleared bool `json:"cleared,omitempty"`
	// EventDaysAgo is since what happened (an injury, an operation, an injection, a
	// clot), WeeksPregnant how far a pregnancy is; absent means the strictest.
	EventDaysAgo  *float64 `json:"event_days_ago,omitempty" minimum:"0" maximum:"40000"`
	WeeksPregnant *float64 `json:"weeks_pregnant,omitempty" minimum:"0" maximum:"60"`
	// By tells whose word it is. A client's own never lifts a caution.
	By string `json:"by,omitempty" enum:"therapist,client" doc:"the therapist when left out"`
}

// staleDays: a screening older than this is asked again.
const staleDays = 90

// Place is a region on a side; midline is both sides. Of a place that is pressed,
// Structure is one within whose keep-off radius the line of pressure comes, and Tier
// how grave that is; places of earlier logs have none, and count as Danger.
type Place struct {
	Region    ids.Region    `json:"region"`
	Side      ids.Side      `json:"side"`
	Structure ids.Structure `json:"structure,omitempty"`
	Tier      Tier          `json:"tier,omitempty" enum:"danger,caution"`
}

// AppliedRule is a rule that an answer set off, with its reason.
type AppliedRule struct {
	ID ids.Question `json:"id"`
	// Outcome of the rule, which can be milder or stricter than the question's.
	Outcome Outcome  `json:"outcome"`
	Text    string   `json:"text"`
	Side    ids.Side `json:"side,omitempty"`
	// Regions that it closes; with none and no muscles it is about the whole visit.
	Regions []ids.Region `json:"regions,omitempty"`
	Muscles []ids.Muscle `json:"muscles,omitempty"`
	// Limits that it asks for; nil where it asks for none.
	Limits *Adaptation `json:"limits,omitempty"`
	// EventDaysAgo is since what happened, where that was said.
	EventDaysAgo *float64 `json:"event_days_ago,omitempty"`
}

// Screening is what the answers come to.
type Screening struct {
	Outcome Outcome `json:"outcome" doc:"the worst of the answers given"`
	// Missing questions were not asked, or their answer has aged.
	Missing []ids.Question `json:"missing"`
	// Singly are those of them that had another answer than no: each is asked by itself,
	// and no answer to a whole group is one to them.
	Singly []ids.Question `json:"singly"`
	Rules  []AppliedRule  `json:"rules"`
	// Limits of all rules together, the strictest of each.
	Limits Adaptation `json:"limits"`
	// Everything is blocked: no treatment at all.
	NoTreatment bool         `json:"no_treatment"`
	Blocked     []Place      `json:"blocked" doc:"regions that take no pressure"`
	Muscles     []ids.Muscle `json:"blocked_muscles"`
}

// Questions lists the screening in the order in which it is asked.
func Questions() []Question { return slices.Clone(questions) }

// Screen judges the answers, every one of them: which replaces which is said by
// core/record. Unknown on a question of the two worst outcomes is refer-first, on any
// other it counts as yes. The overall outcome is the worst single one; limits
// combine to the strictest.
func Screen(answers []Answer) Screening {
	s := Screening{
		Outcome: Clear, Missing: []ids.Question{}, Singly: []ids.Question{}, Rules: []AppliedRule{}, Blocked: []Place{},
		Muscles: []ids.Muscle{},
	}
	fresh, said := map[ids.Question]bool{}, map[ids.Question]bool{}
	for _, q := range questions {
		for _, a := range answers {
			if a.Question != q.ID {
				continue
			}
			fresh[q.ID] = fresh[q.ID] || a.fresh(q)
			said[q.ID] = said[q.ID] || a.Answer != "no"
			switch {
			case a.Answer == "no" || a.over(q):
			case !a.lifted(q):
				s.apply(q, a)
			}
			s.clots(a)
		}
		if !fresh[q.ID] {
			s.Missing = append(s.Missing, q.ID)
			if said[q.ID] {
				s.Singly = append(s.Singly, q.ID)
			}
		}
	}
	return s
}

// An injection is over after a week. For twelve weeks an operation asks for care with
// clots, cleared or not.
const (
	injectionDays = 7
	clotDays      = 84
)

// over reports whether what was answered is past by itself.
func (a Answer) over(q Question) bool {
	return q.ID == "recent-injection" && a.Answer == "yes" && a.EventDaysAgo != nil && *a.EventDaysAgo > injectionDays
}

// clots blocks where a clot may lie after an operation.
func (s *Screening) clots(a Answer) {
	since := a.DaysAgo
	if a.EventDaysAgo != nil {
		since = *a.EventDaysAgo
	}
	if a.Question != "recent-surgery" || a.Answer == "no" || since > clotDays {
		return
	}
	s.apply(Question{
		ID: a.Question, Outcome: AvoidHere, Regions: clotsLie,
		Text: "For 12 weeks after an operation not on calves, the hollow of the knee and the inner thigh: clots.",
	}, Answer{Question: a.Question, Answer: "yes", EventDaysAgo: a.EventDaysAgo})
}

var clotsLie = ids.List[ids.Region]("upper-calf lower-calf popliteal medial-thigh")

// lying leaves of a pregnancy's limits what its week asks for; unknown is both.
func (a Answer) lying(l Adaptation) Adaptation {
	if a.Question != "pregnancy" || a.WeeksPregnant == nil || a.Answer != "yes" {
		return l
	}
	l.AvoidPositions = nil
	if *a.WeeksPregnant > firstTrimester {
		l.AvoidPositions = append(l.AvoidPositions, "prone")
	}
	if *a.WeeksPregnant >= flatWeeks {
		l.AvoidPositions = append(l.AvoidPositions, "supine")
	}
	return l
}

// Weeks after which a pregnant client does not lie prone, and flat on the back.
const (
	firstTrimester = 13
	flatWeeks      = 20
)

// fresh reports whether an answer is new enough.
func (a Answer) fresh(q Question) bool {
	if a.Fresh != nil {
		return *a.Fresh
	}
	return a.DaysAgo <= staleDays && !(q.EachVisit && a.DaysAgo >= 1)
}

// apply lets one answer act. What is not known counts as yes; of an emergency that means that
// a clinician has to look first.
func (s *Screening) apply(q Question, a Answer) {
	r := AppliedRule{
		ID: q.ID, Outcome: q.Outcome, Text: q.Text, Side: a.Side, Muscles: q.Muscles, EventDaysAgo: a.EventDaysAgo,
	}
	if a.Answer == "unknown" {
		if q.Outcome == Emergency {
			r.Outcome = ReferFirst
		}
		r.Text = "Not known, so taken as yes. " + q.Text
	}
	r.Regions = append(append(r.Regions, q.Regions...), a.Regions...)
	if q.Outcome == AvoidHere && len(r.Regions) == 0 {
		// Nobody said where: nowhere is safe until someone does.
		r.Text += " Say where; until then nothing is pressed."
		s.NoTreatment = true
	}
	if a := a.lying(q.Limits); a.asks() {
		r.Limits = &a
		s.Limits = s.Limits.Strictest(a)
	}
	s.Rules = append(s.Rules, r)
	if r.Outcome.Worse(s.Outcome) {
		s.Outcome = r.Outcome
	}
	if r.Outcome == Emergency || r.Outcome == ReferFirst {
		s.NoTreatment = true
	}
	side := a.Side
	if side == "" {
		side = ids.Midline
	}
	for _, g := range r.Regions {
		if p := (Place{Region: g, Side: side}); !slices.Contains(s.Blocked, p) {
			s.Blocked = append(s.Blocked, p)
		}
	}
	for _, m := range q.Muscles {
		if !slices.Contains(s.Muscles, m) {
			s.Muscles = append(s.Muscles, m)
		}
	}
}

// asks reports whether a rule asks for anything, so that an empty one is not shown.
func (a Adaptation) asks() bool {
	return a.Ceiling != nil || a.Down > 0 || a.CapSeconds != nil || len(a.AvoidPositions) > 0 ||
		a.ScoreCannotSteer || a.SlackOrBroad || a.SoftOverBones || a.AskArm
}

// Strictest combines what two rules ask: the lower of each, everything that
// either avoids.
func (a Adaptation) Strictest(b Adaptation) Adaptation {
	lower := func(x, y *float64) *float64 {
		if x == nil || y != nil && *y < *x {
			return y
		}
		return x
	}
	out := Adaptation{
		lower(a.Ceiling, b.Ceiling), max(a.Down, b.Down), lower(a.CapSeconds, b.CapSeconds),
		slices.Clone(a.AvoidPositions), a.ScoreCannotSteer || b.ScoreCannotSteer,
		a.SlackOrBroad || b.SlackOrBroad, a.SoftOverBones || b.SoftOverBones, a.AskArm || b.AskArm,
	}
	for _, p := range b.AvoidPositions {
		if !slices.Contains(out.AvoidPositions, p) {
			out.AvoidPositions = append(out.AvoidPositions, p)
		}
	}
	return out
}

// ceilingToHard is how far the hard ceiling may lie above a screening's
// ceiling, as slack-hold has it (3 / 3 / 5).
const ceilingToHard = 2

// On applies the adaptation to a hold's limits.
func (a Adaptation) On(l Limits) Limits {
	l.Target, l.Soft, l.Hard = max(0, l.Target-a.Down), max(0, l.Soft-a.Down), max(0, l.Hard-a.Down)
	if a.Ceiling != nil {
		l = l.Strictest(Limits{*a.Ceiling, *a.Ceiling, *a.Ceiling + ceilingToHard, MaxCapMS})
	}
	if a.CapSeconds != nil {
		l.CapMS = min(l.CapMS, int64(*a.CapSeconds*1000))
	}
	return l
}

// Blocks reports whether a region on a side, or a muscle, takes no pressure,
// and why.
func (s Screening) Blocks(m ids.Muscle, where []Place) (why string, blocked bool) {
	for _, r := range s.Rules {
		if r.At(m, where) {
			return r.Text, true
		}
	}
	return "", false
}

// At reports whether the rule lets nothing be pressed there.
func (r AppliedRule) At(m ids.Muscle, where []Place) bool {
	if r.Outcome == Emergency || r.Outcome == ReferFirst || r.Outcome == AvoidHere && len(r.Regions) == 0 ||
		slices.Contains(r.Muscles, m) {
		return true
	}
	return slices.ContainsFunc(where, func(p Place) bool {
		return slices.Contains(r.Regions, p.Region) &&
			(r.Side == "" || r.Side == ids.Midline || p.Side == ids.Midline || r.Side == p.Side)
	})
}

// Overridable reports whether a licensed person may press there all the same: where the
// rule names regions, and not on open skin, inflammation or nodes, with a diseased or
// unstable neck, or over a tear of less than three days.
func (r AppliedRule) Overridable() bool {
	switch r.ID {
	case "open-skin", "hot-swollen-area", "enlarged-nodes", "carotid-disease", "unstable-neck":
		return false
	case "acute-muscle-tear":
		if r.EventDaysAgo == nil || *r.EventDaysAgo <= tearDays {
			return false
		}
	}
	return r.Outcome == AvoidHere && len(r.Regions) > 0
}

// Grave reports whether a yes to the question would stop the treatment.
func (q Question) Grave() bool { return q.Outcome == Emergency || q.Outcome == ReferFirst }

// Grave lists the missing questions whose yes would stop the treatment: a
// hold cannot start before they are asked.
func (s Screening) Grave() []ids.Question {
	out := []ids.Question{}
	for _, q := range questions {
		if q.Grave() && slices.Contains(s.Missing, q.ID) {
			out = append(out, q.ID)
		}
	}
	return out
}

// Check implements decode.Checker.
func (a Answer) Check() *decode.Error {
	if !slices.ContainsFunc(questions, func(q Question) bool { return q.ID == a.Question }) {
		return &decode.Error{
			Path: "$.question", Given: fmt.Sprintf("%q", a.Question),
			Allowed: "a question of the screening",
		}
	}
	return nil
}

// UntilCleared: a yes to these, and an answer that is not known, stays until it is
// cleared, whatever is answered later.
func (q Question) UntilCleared() bool {
	switch q.ID {
	case "acute-muscle-tear", "recent-surgery", "healing-fracture", "joint-replacement":
		return true
	}
	return q.Grave()
}

// A clearance lifts nothing before a tear is three days old, an operation six weeks.
const (
	tearDays    = 3
	surgeryDays = 42
)

// Waits is for how many days a yes to the question is lifted by nothing.
func (q Question) Waits() float64 {
	switch q.ID {
	case "acute-muscle-tear":
		return tearDays
	case "recent-surgery":
		return surgeryDays
	}
	return 0
}

// lifted reports whether a clearance has lifted the answer by now. Where it was not said
// when it happened, that was when it was answered.
func (a Answer) lifted(q Question) bool {
	if a.EventDaysAgo != nil {
		return a.Cleared && (q.Waits() == 0 || *a.EventDaysAgo > q.Waits()) // a day has 24 hours
	}
	return a.Cleared && a.DaysAgo >= q.Waits()
}

// Resolves: a licensed therapist's own examination may find that a yes to these is over.
func (q Question) Resolves() bool { return q.ID == "fever" || q.ID == "swollen-joint" }

// FindQuestion gives a question by id.
func FindQuestion(id ids.Question) (Question, bool) {
	i := slices.IndexFunc(questions, func(q Question) bool { return q.ID == id })
	if i < 0 {
		return Question{}, false
	}
	return questions[i], true
}

// Milder reports whether an answer asks for less caution than another.
func Milder(a, b string) bool {
	weight := map[string]int{"no": 0, "unknown": 1, "yes": 2}
	return weight[a] < weight[b]
}

// Client is who answers on an own device.
const Client = "client"

// Lasts reports whether no later answer lifts this one: it is no "no", no clearance has
// lifted it, and its question is one that stays until it is cleared.
func (a Answer) Lasts() bool {
	return a.Answer != "no" && slices.ContainsFunc(questions, func(q Question) bool {
		return q.ID == a.Question && q.UntilCleared() && !a.lifted(q)
	})
}
