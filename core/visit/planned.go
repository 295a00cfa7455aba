package visit

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"mokren/core/plan"
	"mokren/core/points"
	"mokren/core/safety"
)

// PlanState is the session as it stands: the plan from now on, and what the real
// time has changed of it.
type PlanState struct {
	plan.Plan
	// Says what changed since the plan was made, in words; empty when nothing did.
	Says string `json:"says,omitempty"`
	// GoneMin of the minutes have passed.
	GoneMin float64 `json:"gone_min"`
	// Accepted: the therapist has made it theirs.
	Accepted bool `json:"accepted"`
}

// usualMinutes a session has when nobody has said.
const usualMinutes = 45

// Planning plans what is left of the session at a moment; wanted is a plan that is being tried
// and not yet accepted. An accepted plan is asked twice: as it was at the beginning, and with what
// has happened since; the difference is what Says tells.
func (s State) Planning(
	ctx Context, earlier []FoundPoint, w Working, wanted *PlanMade, nowMS int64,
) (PlanState, error) {
	made := wanted
	if made == nil {
		made = s.Plan
	}
	if made == nil {
		made = &PlanMade{Minutes: usualMinutes}
	}
	r := s.planRequest(ctx, earlier, w, made)
	accepted := wanted == nil && s.Plan != nil
	var first plan.Plan
	if accepted && s.PlanMS > 0 {
		var err error
		if first, err = plan.Make(r); err != nil {
			return PlanState{}, err
		}
	}
	s.goOn(&r, nowMS)
	now, err := plan.Make(r)
	if err != nil {
		return PlanState{}, err
	}
	out := PlanState{Plan: now, GoneMin: r.GoneMin, Accepted: accepted}
	if out.Accepted && s.PlanMS > 0 && r.GoneMin > 0 {
		out.Says = s.changed(r, first, now)
	}
	return out, nil
}

// planRequest is the plan's request at its beginning. A point that only lacks a consent is
// planned all the same: the question is asked when its turn comes.
func (s State) planRequest(ctx Context, earlier []FoundPoint, w Working, made *PlanMade) plan.Request {
	r := plan.Request{Minutes: made.Minutes, Answers: s.Known, Blocks: made.Blocks}
	list := s.judging(earlier)
	pain := map[safety.Place]bool{}
	for _, x := range painOf(s.Drawing) {
		pain[safety.Place{Region: x.Region, Side: x.Side}] = true
	}
	start := s.sessionStart()
	for i, p := range s.Points {
		work := w.Points[i]
		q := plan.Point{
			ID: string(p.Point), Muscle: p.Muscle, Side: p.Side, Activity: string(work.Activity), Role: work.Role,
			Site: p.Site, Where: p.Where, Blocked: p.Closed, Treated: p.Treated,
			Complaint: slices.ContainsFunc(list[i].Zone(), func(z safety.Place) bool { return pain[z] }),
		}
		if work.Role == "satellite" {
			q.Of = string(work.Of)
		}
		if q.Blocked == "" && p.NeedsConsent == "" {
			q.Blocked = p.Blocked
		}
		q.Protocol = work.Suggested.Protocol
		if work.Taken != nil && !work.Taken.Blocked {
			q.Protocol = work.Taken.Protocol
		}
		if before := spotOf(earlier, p.Identity); before != nil && before.TreatedMS > 0 && start > 0 {
			hours := math.Max(0, float64(start-before.TreatedMS)/3_600_000)
			q.HoursAgo = &hours
		}
		r.Points = append(r.Points, q)
	}
	r.Order, r.Must, r.Dropped = s.still(made.Order), s.still(made.Must), s.still(made.Dropped)
	return r
}

// still keeps those points that are still charted.
func (s State) still(list []UUID) []string {
	var out []string
	for _, id := range list {
		if slices.ContainsFunc(s.Points, func(p Point) bool { return p.Point == id }) {
			out = append(out, string(id))
		}
	}
	return out
}

// sessionStart is when the visit was opened; charting tells where it was not.
func (s State) sessionStart() int64 {
	start := s.OpenedMS
	for _, p := range s.Points {
		if start == 0 || p.ChartedMS < start {
			start = p.ChartedMS
		}
	}
	return start
}

// goOn puts into a request what has passed since the plan was accepted: the time (in half
// minutes, so that a plan does not change while one looks at it), what was pressed, and how
// the client lies. Rejected holds, and those before the plan, count for nothing.
func (s State) goOn(r *plan.Request, nowMS int64) {
	if s.PlanMS > 0 && nowMS > s.PlanMS {
		r.GoneMin = math.Floor(float64(nowMS-s.PlanMS)/60_000*2) / 2
	}
	last := int64(0)
	for _, h := range s.Holds {
		if h.Status == HoldRejected || h.StartedMS < s.PlanMS {
			continue
		}
		if h.StartedMS >= last && h.Position != "" {
			last, r.Position = h.StartedMS, h.Position
		}
		i := slices.IndexFunc(r.Done, func(d plan.TreatedPoint) bool { return d.Point == string(h.Point) })
		if i >= 0 {
			r.Done[i].PressureS += h.Summary.PressureS
			continue
		}
		for _, p := range s.Points {
			if p.Point == h.Point {
				r.Done = append(r.Done, plan.TreatedPoint{
					Point: string(p.Point), Muscle: p.Muscle, Side: p.Side, PressureS: h.Summary.PressureS,
				})
			}
		}
	}
	r.Order = slices.DeleteFunc(r.Order, func(id string) bool {
		return slices.ContainsFunc(r.Done, func(d plan.TreatedPoint) bool { return d.Point == id })
	})
}

// changed says what no longer fits: points of the first plan that are neither done nor in the
// plan from now on, or the last ones of an order by hand that runs over.
func (s State) changed(r plan.Request, first, now plan.Plan) string {
	left := max(0, r.Minutes-r.GoneMin)
	var dropped []string
	for _, x := range first.Steps {
		if x.Kind != "treat" || treats(now, x.Point) ||
			slices.ContainsFunc(r.Done, func(d plan.TreatedPoint) bool { return d.Point == x.Point }) {
			continue
		}
		dropped = append(dropped, s.nameOf(x.Point))
	}
	if now.OverMin > 0 && len(dropped) == 0 {
		dropped = s.lastOf(now, now.OverMin)
	}
	if len(dropped) == 0 {
		return ""
	}
	return fmt.Sprintf("%.4g minutes left: drop %s.", left, strings.Join(dropped, " and "))
}

// lastOf names the last points of an order by hand that must go to fit.
func (s State) lastOf(p plan.Plan, over float64) []string {
	var out []string
	for _, x := range slices.Backward(p.Steps) {
		if x.Kind == "treat" && over > 0 {
			out = append(out, s.nameOf(x.Point))
			over -= x.Minutes
		}
	}
	return out
}

// treats reports whether a plan has a step at a point.
func treats(p plan.Plan, id string) bool {
	return slices.ContainsFunc(p.Steps, func(x plan.Step) bool { return x.Kind == "treat" && x.Point == id })
}

// nameOf is a point in words, or its id where it is no longer charted.
func (s State) nameOf(id string) string {
	for _, p := range s.Points {
		if string(p.Point) == id {
			return sayName(p)
		}
	}
	return id
}

// LeftOff is what a visit leaves to the next one.
type LeftOff struct {
	Points []LeftPoint `json:"points"`
	// Searched are muscles in which nothing was found.
	Searched []MuscleSearched `json:"searched"`
	Next     string           `json:"next,omitempty" doc:"what was meant to be done next"`
	AtMS     int64            `json:"at_ms" doc:"when the visit was opened"`
}

// LeftPoint is a point with what was pressed there and how it let go.
type LeftPoint struct {
	FoundPoint
	Activity points.Activity `json:"activity" enum:"active,latent,none"`
	Holds    []HoldOutline   `json:"holds"`
	// LeftOut tells why nothing was pressed there.
	LeftOut string `json:"left_out,omitempty"`
}

// HoldOutline is a hold in short.
type HoldOutline struct {
	Protocol  string  `json:"protocol"`
	Contact   string  `json:"contact,omitempty"`
	PressureS float64 `json:"pressure_s"`
	Outcome   string  `json:"outcome" enum:"released,reduced,unchanged,stopped"`
	Result    string  `json:"result,omitempty" doc:"what it came to, in words"`
}

// LeftOff tells the next visit what was found, what was pressed with which result, and why a
// point was not reached.
func (s State) LeftOff() LeftOff {
	var ctx Context
	out := LeftOff{Points: []LeftPoint{}, Searched: s.Searched, Next: s.Next, AtMS: s.OpenedMS}
	w := s.Work(ctx, nil, nil)
	leftOut := s.reasons(ctx, w)
	for i, p := range s.Points {
		l := LeftPoint{FoundPoint: p.FoundPoint, Activity: w.Points[i].Activity, Holds: []HoldOutline{}}
		for _, h := range s.Holds {
			if h.Point == p.Point && h.Status != HoldRejected {
				l.Holds = append(l.Holds, HoldOutline{
					string(h.Start.Protocol), string(h.Contact), h.Summary.PressureS, string(h.Summary.Outcome),
					h.Result,
				})
			}
		}
		if len(l.Holds) == 0 {
			l.LeftOut = cmp.Or(leftOut[string(p.Point)], "Not reached.")
		}
		out.Points = append(out.Points, l)
	}
	return out
}

// reasons tells why the plan leaves a point out, where one was not worked on.
func (s State) reasons(ctx Context, w Working) map[string]string {
	out := map[string]string{}
	if !slices.ContainsFunc(s.Points, func(p Point) bool { return !s.worked(p.Point) }) {
		return out
	}
	planned, err := s.Planning(ctx, nil, w, nil, 0)
	if err != nil {
		return out
	}
	for _, x := range planned.LeftOut {
		out[x.Point] = x.Reason
	}
	return out
}

// worked reports whether a hold that counts was begun at a point.
func (s State) worked(point UUID) bool {
	return slices.ContainsFunc(s.Holds, func(h Hold) bool { return h.Point == point && h.Status != HoldRejected })
}

// LetGo names the protocol that let a point go at a visit, and when it was
// pressed last; both empty when nothing was.
func (s State) LetGo(point UUID) (protocol string, atMS int64) {
	for _, h := range s.Holds {
		if h.Point != point || h.Status == HoldRejected {
			continue
		}
		atMS = max(atMS, h.StartedMS)
		if h.Summary.LetGo() {
			protocol = string(h.Start.Protocol)
		}
	}
	return protocol, atMS
}

// Answer is what the client said of a point; nil when that was not said.
func (p PointCharted) Answer(atMS int64) *SpotAnswer {
	places, ok := p.answered()
	if !ok {
		return nil
	}
	if places == nil {
		places = []safety.Place{}
	}
	return &SpotAnswer{AtMS: atMS, Places: places}
}
