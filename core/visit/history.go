package visit

import (
	"slices"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/points"
	"mokren/core/progress"
	"mokren/core/safety"
	"mokren/core/treat"
)

// TreatedPoint is a point with what its holds came to. Rejected holds count nowhere.
type TreatedPoint struct {
	FoundPoint
	SecondsS float64       // pressure over all holds of the visit, s
	Parts    int           // over all holds
	Holds    int           // that count
	Outcome  treat.Outcome // of the last one; empty without any
	Result   string        // of the last one, in words
	// Protocols of the holds that count, each once.
	Protocols []ids.Protocol
	PPT       *float64 // kPa, before treatment
	Referral  []safety.Place
	Activity  points.Activity // as judged within the visit
	// Lengthened: a step of a lengthening sequence was done after the last hold began.
	Lengthened bool
}

// LengthenedAfter reports whether a step of a lengthening sequence was done after a hold began.
func (s State) LengthenedAfter(h Hold) bool {
	for _, r := range s.Runs {
		for _, x := range r.Steps {
			if r.Block == "lengthen" && x.Outcome == "done" && x.BeganMS > h.StartedMS {
				return true
			}
		}
	}
	return false
}

// Treated gives a visit's points with what their holds came to.
func (s State) Treated() []TreatedPoint {
	out := make([]TreatedPoint, len(s.Points))
	work := s.Work(Context{}, nil, nil)
	for i, p := range s.Points {
		t := TreatedPoint{FoundPoint: p.FoundPoint, Activity: work.Points[i].Activity}
		for _, h := range s.Holds {
			if h.Point == p.Point && h.Status != HoldRejected {
				t.Holds++
				t.Lengthened = s.LengthenedAfter(h)
				t.SecondsS += h.Summary.PressureS
				t.Parts += h.Summary.Count()
				t.Outcome, t.Result = h.Summary.Outcome, h.Result
				if !slices.Contains(t.Protocols, h.Start.Protocol) {
					t.Protocols = append(t.Protocols, h.Start.Protocol)
				}
			}
		}
		slices.Sort(t.Protocols)
		if p.Threshold != nil {
			t.PPT = &p.Threshold.KPa
		}
		if a := p.Answer(p.ChartedMS); a != nil {
			t.Referral = a.Places
		}
		out[i] = t
	}
	return out
}

// VisitContribution is what one visit adds to a client's course, with the day it belongs to.
type VisitContribution struct {
	Visit string
	Day   float64 // days from any fixed day
	Date  string  // the practice's local date, YYYY-MM-DD
	// Points with what their holds came to, rejected ones left out.
	Points []TreatedPoint
	Ranges []Range
	// PainCM2 is the area of the visit's pain drawing; nil where none was drawn.
	PainCM2 *float64
	// PainNow is the number that the client named at the beginning.
	PainNow *float64
	// Activities that the client named, each with its score.
	Activities []Activity
}

// PointVisit is one point at one visit.
type PointVisit struct {
	// Visit that it was found at, on its local date.
	Visit  string   `json:"visit"`
	Date   string   `json:"date"`
	Before *float64 `json:"before,omitempty" doc:"NPRS when found"`
	After  *float64 `json:"after,omitempty" doc:"NPRS at the recheck"`
	// Grade of tenderness when found and at the recheck, 0 to 4.
	Grade      *int    `json:"grade,omitempty"`
	AfterGrade *int    `json:"after_grade,omitempty"`
	SecondsS   float64 `json:"seconds" doc:"pressure over all holds of the visit, s"`
	Parts      int     `json:"parts" doc:"over all holds"`
	Holds      int     `json:"holds"`
	// Outcome of its last hold of the visit; empty where it was not pressed.
	Outcome treat.Outcome `json:"outcome,omitempty"`
	Result  string        `json:"result,omitempty" doc:"of its last hold, in words"`
	// Protocols that it was pressed by, each once.
	Protocols []ids.Protocol `json:"protocols"`
	// PPT is the pressure pain threshold, in kPa.
	PPT *float64 `json:"ppt_kpa,omitempty"`
	// Activity as judged within the visit.
	Activity points.Activity `json:"activity,omitempty" enum:"active,latent,none"`
	// Referral is where it was felt.
	Referral []safety.Place `json:"referral"`
	// View and place at which it lay then: a point may move.
	View body.View `json:"view"`
	X    float64   `json:"x"`
	Y    float64   `json:"y"`
}

// PointHistory follows one point identity over visits.
type PointHistory struct {
	// Identity joins points of several visits to one spot.
	Identity UUID       `json:"identity"`
	Muscle   ids.Muscle `json:"muscle"`
	Name     string     `json:"name"`
	Site     string     `json:"site,omitempty"`
	Side     ids.Side   `json:"side"`
	// View and place at which it was found last.
	View body.View `json:"view"`
	X    float64   `json:"x"`
	Y    float64   `json:"y"`
	// Visits at which it was charted, oldest first.
	Visits []PointVisit     `json:"visits"`
	Number *progress.Change `json:"number,omitempty" doc:"NPRS when found, first visit against last, with the signal"`
	// Grade and PPT compare the first reading with the last.
	Grade *progress.Change `json:"grade_change,omitempty"`
	Since *progress.Change `json:"since_last,omitempty" doc:"NPRS when found, last visit against the one before"`
	PPT   *progress.Change `json:"ppt,omitempty"`
	// Worked is what each protocol came to here.
	Worked []progress.ProtocolOutcome `json:"worked"`
}

// RangeVisit is one movement at one visit.
type RangeVisit struct {
	Visit  string   `json:"visit"`
	Date   string   `json:"date"`
	Before *float64 `json:"before,omitempty"`
	After  *float64 `json:"after,omitempty"`
	Pain   *float64 `json:"pain,omitempty" doc:"NPRS, at its last reading of the visit"`
}

// RangeHistory follows one movement on one side over visits.
type RangeHistory struct {
	Movement ids.Movement `json:"movement"`
	Side     ids.Side     `json:"side"`
	// Reference is the usual range at the client's age; FlagBelow is where a reading is noted
	// as short.
	Reference float64 `json:"reference"`
	FlagBelow float64 `json:"flag_below"`
	// Visits at which it was read, oldest first.
	Visits []RangeVisit     `json:"visits"`
	Change *progress.Change `json:"change,omitempty" doc:"before-value, first visit against last"`
	// Since is the last visit against the one before.
	Since *progress.Change `json:"since_last,omitempty"`
}

// History is a client's course.
type History struct {
	Points []PointHistory `json:"points"`
	Ranges []RangeHistory `json:"ranges"`
	// Scores are the client's own: pain now, pain area, what they want back.
	Scores []ScoreHistory `json:"scores"`
	// Treated are the visits at which something was pressed.
	Treated []TreatedDay `json:"treated"`
	// Lengthening compares what was lengthened after its hold with what was not.
	Lengthening *progress.Lengthening `json:"lengthening,omitempty"`
	// Worked is what each protocol came to over all points.
	Worked []progress.ProtocolOutcome `json:"worked"`
	Summed CourseSummary              `json:"summed"`
}

// TreatedDay is a visit at which something was pressed.
type TreatedDay struct {
	Visit    string  `json:"visit"`
	Date     string  `json:"date"`
	Holds    int     `json:"holds"`
	SecondsS float64 `json:"seconds"`
}

// SameSpotAs finds the identity among earlier points that a new place belongs
// to, the latest visit first; "" when it is a new spot.
func SameSpotAs(earlier []FoundPoint, muscle ids.Muscle, side ids.Side, place atlas.FibrePlace, heightCM float64) UUID {
	m, err := atlas.Get(muscle)
	if err != nil {
		return ""
	}
	for _, p := range earlier {
		if p.Muscle == muscle && p.Side == side && m.SameSpot(p.Place, place, side, heightCM) {
			return p.Identity
		}
	}
	return ""
}
