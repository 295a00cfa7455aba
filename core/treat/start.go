package treat

import (
	"fmt"
	"slices"
	"strings"

	"mokren/core/atlas"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
)

// Request asks for a hold; absent limits and numbers are the protocol's.
type Request struct {
	Protocol ids.Protocol
	// Target, Soft, Hard (scores) and CapMS are the practice's own; nil takes the protocol's.
	Target *float64
	Soft   *float64
	Hard   *float64
	CapMS  *int64
	Scale  int // 10 (also for zero) or 5
	Muscle ids.Muscle
	Side   ids.Side
	// Where the place pressed lies: some regions have ceilings of their own.
	Where []safety.Place

	// Numbers are a practice's own, by name (see Protocol.Tunable); Name is
	// what it calls its copy.
	Numbers map[string]float64
	Name    string
	// ScoreSteers: false where the client's score cannot steer.
	ScoreSteers *bool
	// MinGainDeg ends a lengthening that gains less in a round; nil takes the protocol's.
	MinGainDeg *float64
	// Variant is one of those that the strategy knows; see variants.
	Variant string
	// Stations, Places and Moves are counts of the strategies that have them; nil takes the
	// plan's.
	Stations *int
	Places   *int
	Moves    *int
}

// Start is a hold's start event: everything that a replay needs, resolved.
type Start struct {
	Protocol ids.Protocol  `json:"protocol"`
	Limits   safety.Limits `json:"limits"`
	Scale    int           `json:"scale"`
	Rules    string        `json:"rules_version"`
	Muscle   ids.Muscle    `json:"muscle,omitempty"`
	Side     ids.Side      `json:"side,omitempty"`
	// Lowered says in words why the limits are below those asked for.
	Lowered string `json:"lowered,omitempty"`
	// Plan is absent in holds of the first rules, which knew one protocol.
	Plan *Plan `json:"plan,omitempty"`
}

// variants of a protocol, and which strategy knows them: the contraction goes
// the other way; the movement is small, or only imagined, where a stiff shoulder
// allows no more.
var variants = map[string][]string{
	"reciprocal": {"rounds"},
	"small":      {"movements"},
	"imagined":   {"movements"},
}

// NewStart resolves the limits of a request: the protocol's or those asked
// for, then the site's ceilings on top, the strictest of each; and the plan's
// numbers. Errors are *decode.Error with paths named as in the command-line
// contract.
func NewStart(r Request) (Start, error) {
	p, ok := Find(r.Protocol)
	if !ok {
		return Start{}, r.Protocol.Check().Under("$.protocol")
	}
	if e := atlas.Pressable(r.Muscle, "$.muscle"); e != nil {
		return Start{}, e
	}
	l, err := r.limits(p)
	if err != nil {
		return Start{}, err
	}
	site, where := safety.Site(r.Muscle, r.Where)
	s := Start{
		Protocol: p.ID, Limits: l.Strictest(site), Scale: r.Scale, Rules: RulesVersion, Muscle: r.Muscle,
		Side: r.Side,
	}
	if s.Scale == 0 {
		s.Scale = 10
	}
	if l.Target > l.Soft {
		return Start{}, &decode.Error{
			Path: "$.target", Given: fmt.Sprint(l.Target),
			Allowed: fmt.Sprintf("at most the soft ceiling, %v", l.Soft),
		}
	}
	if l.Soft > l.Hard {
		return Start{}, &decode.Error{
			Path: "$.soft_ceiling", Given: fmt.Sprint(l.Soft),
			Allowed: fmt.Sprintf("at most the hard ceiling, %v", l.Hard),
		}
	}
	plan, err := r.plan(p)
	if err != nil {
		return Start{}, err
	}
	s.Plan = &plan
	if OnFrontOfNeck(r.Muscle, r.Where) {
		where = "the front of the neck"
	}
	if err := s.place(r.Where); err != nil {
		return Start{}, err
	}
	if s.Limits != l && where != "" {
		s.Lowered = fmt.Sprintf("Limits are %s at %s.", describe(s.Limits), where)
	}
	return s, s.check()
}

// limits are the protocol's, or those asked for.
func (r Request) limits(p Protocol) (safety.Limits, error) {
	l := p.Limits
	for _, o := range []struct {
		path string
		src  *float64
		dst  *float64
	}{{"$.target", r.Target, &l.Target}, {"$.soft_ceiling", r.Soft, &l.Soft}, {"$.hard_ceiling", r.Hard, &l.Hard}} {
		if o.src == nil {
			continue
		}
		if *o.src < 0 || *o.src > 10 {
			return l, &decode.Error{Path: o.path, Given: fmt.Sprint(*o.src), Allowed: "a number from 0 to 10"}
		}
		*o.dst = *o.src
	}
	if r.CapMS != nil {
		if *r.CapMS < safety.MinCapMS || *r.CapMS > safety.MaxCapMS {
			return l, &decode.Error{
				Path: "$.cap_seconds", Given: fmt.Sprint(seconds(*r.CapMS)), Allowed: "a number from 10 to 120",
			}
		}
		l.CapMS = *r.CapMS
	}
	return l, nil
}

// plan is the protocol's, with what the request sets.
func (r Request) plan(p Protocol) (Plan, error) {
	plan, err := p.Tuned(r.Numbers)
	if err != nil {
		return plan, err
	}
	plan.Name = r.Name
	refuse := func(path string, given any, allowed string) error {
		return &decode.Error{Path: path, Given: fmt.Sprint(given), Allowed: allowed}
	}
	if slices.Contains(movedMuscles, r.Muscle) && plan.Strategy == "breath" && r.Numbers["moves"] == 0 {
		plan.Moves = 2
	}
	counts := []struct {
		path     string
		given    *int
		dst      *int
		min, max int
		strategy string
	}{
		{"$.stations", r.Stations, &plan.Stations, minStations, maxStations, "stations"},
		{"$.places", r.Places, &plan.Places, 1, 2, "breath"},
		{"$.moves", r.Moves, &plan.Moves, 0, 3, "breath"},
	}
	for _, c := range counts {
		switch {
		case c.given == nil:
		case *c.given < c.min || *c.given > c.max:
			return plan, refuse(c.path, *c.given, fmt.Sprintf("a whole number from %d to %d", c.min, c.max))
		case plan.Strategy == c.strategy:
			*c.dst = *c.given
		}
	}
	if r.MinGainDeg != nil {
		if *r.MinGainDeg < 0 || *r.MinGainDeg > maxGain {
			return plan, refuse("$.min_gain_deg", *r.MinGainDeg, "a number of degrees from 0 to 90")
		}
		plan.MinGainDeg = *r.MinGainDeg
	}
	if r.Variant != "" && !slices.Contains(variants[r.Variant], plan.Strategy) {
		return plan, refuse("$.variant", r.Variant, "reciprocal with contract-relax, small or imagined with movements")
	}
	plan.Variant = r.Variant
	plan.Unsteered = r.ScoreSteers != nil && !*r.ScoreSteers
	return plan, nil
}

const maxGain = 90.0

// OnFrontOfNeck reports whether a place lies on the front of the neck; the
// scalenes are its side, wherever they are pressed.
func OnFrontOfNeck(m ids.Muscle, where []safety.Place) bool {
	return slices.Contains(frontOfNeckMuscles, m) || !slices.Contains(armMuscles, m) &&
		slices.ContainsFunc(where, func(p safety.Place) bool { return p.Region == "anterior-neck" })
}

// place makes the plan as strict as its place and its cap ask, or says why the
// protocol is not done there.
func (s *Start) place(where []safety.Place) error {
	plan := *s.Plan
	s.Plan = &plan
	protocol, _ := Find(s.Protocol)
	if OnFrontOfNeck(s.Muscle, where) {
		if !protocol.ShortPresses {
			return &decode.Error{
				Path: "$.protocol", Given: `"` + string(s.Protocol) + `"`,
				Allowed: "brief-holds, short-repeats or pulses on the front of the neck",
			}
		}
		plan.PressMaxMS = neckPressMS
		s.Limits.CapMS = min(s.Limits.CapMS, neckCapMS)
	}
	plan.AskArm = plan.AskArm || slices.Contains(armMuscles, s.Muscle)
	if plan.Unsteered {
		if !protocol.Demands.ScoreOptional {
			return &decode.Error{
				Path: "$.protocol", Given: `"` + string(s.Protocol) + `"`,
				Allowed: "hold-to-release where the client's number cannot steer",
			}
		}
		s.Limits.CapMS = min(s.Limits.CapMS, unsteeredCap)
	}
	if plan.Strategy == "positional" && plan.TestSoft == 0 {
		plan.TestSoft = s.Limits.Hard
	}
	plan.TestSoft = min(plan.TestSoft, s.Limits.Hard)
	if s.Limits.CapMS < protocol.LeastCapMS {
		return &decode.Error{
			Path: "$.cap_seconds", Given: fmt.Sprint(seconds(s.Limits.CapMS)),
			Allowed: fmt.Sprintf("at least %v s: %s cannot be done in less", seconds(protocol.LeastCapMS), protocol.ID),
		}
	}
	return plan.fit(s.Limits.CapMS)
}

const unsteeredCap = 30 * second

// allowed are the highest limits that a site's ceilings and a screening leave to
// this hold, on top of the protocol's own.
func (s Start) allowed(site safety.Limits, a safety.Adaptation) (safety.Limits, error) {
	p, err := coached(s.Protocol)
	if err != nil {
		return safety.Limits{}, err
	}
	return a.On(p.Limits.Strictest(site)), nil
}

// Respects reports whether a start stays within what a screening allows at a
// site.
func (s Start) Respects(site safety.Limits, a safety.Adaptation) bool {
	allowed, err := s.allowed(site, a)
	if err != nil || !s.Limits.Within(allowed) {
		return false
	}
	if s.Plan == nil {
		return true
	}
	p, _ := Find(s.Protocol)
	lowered := !p.Limits.Strictest(site).Within(allowed)
	switch {
	case a.ScoreCannotSteer && !s.Plan.Unsteered, a.AskArm && !s.Plan.AskArm:
		return false
	}
	return !lowered || s.Plan.TestSoft <= s.Limits.Soft
}

// Adapt lowers a start to what a screening allows at the place pressed, or says
// why the protocol cannot be done so.
func (s Start) Adapt(a safety.Adaptation, where []safety.Place) (Start, error) {
	site, _ := safety.Site(s.Muscle, where)
	allowed, err := s.allowed(site, a)
	if err != nil {
		return s, err
	}
	plan := *s.Plan
	s.Plan = &plan
	if !s.Limits.Within(allowed) {
		s.Limits = s.Limits.Strictest(allowed)
		plan.TestSoft = min(plan.TestSoft, s.Limits.Soft)
		lowered := fmt.Sprintf(" Limits lowered by the screening: target %v, at most %v, %v s.",
			s.Limits.Target, s.Limits.Hard, seconds(s.Limits.CapMS))
		s.Lowered = strings.TrimSpace(s.Lowered + lowered)
	}
	plan.Unsteered = plan.Unsteered || a.ScoreCannotSteer
	plan.AskArm = plan.AskArm || a.AskArm
	return s, s.place(where)
}

// describe writes limits as target, soft ceiling, hard ceiling and cap.
func describe(l safety.Limits) string {
	return fmt.Sprintf("%v / %v / %v, %v s", l.Target, l.Soft, l.Hard, float64(l.CapMS)/1000)
}

// coached finds a protocol, or says which ids there are.
func coached(id ids.Protocol) (Protocol, error) {
	if p, ok := Find(id); ok {
		return p, nil
	}
	return Protocol{}, id.Check().Under("$.protocol")
}

// check refuses a start that no version of the rules could have resolved.
func (s Start) check() error {
	bad := func(path string, given any, allowed string) error {
		return &decode.Error{Path: path, Given: fmt.Sprint(given), Allowed: allowed}
	}
	switch l := s.Limits; {
	case s.Scale != 10 && s.Scale != 5:
		return bad("$.scale", s.Scale, "10 or 5")
	case l.CapMS < safety.MinCapMS || l.CapMS > safety.MaxCapMS:
		return bad("$.limits.cap_ms", l.CapMS, "a whole number from 10000 to 120000")
	case l.Target < 0 || l.Target > l.Soft || l.Soft > l.Hard || l.Hard > 10:
		return bad("$.limits", describe(l), "0 ≤ target ≤ soft ceiling ≤ hard ceiling ≤ 10")
	}
	if s.Plan != nil {
		return s.Plan.check()
	}
	return nil
}

// Begins says whether a hold may be begun so today, at a place with these
// ceilings; the error is a *decode.Error. A replay does not ask this.
func (s Start) Begins(rules string, site safety.Limits, where string, places []safety.Place) error {
	p, err := coached(s.Protocol)
	if err != nil {
		return err
	}
	if s.Rules != rules && !(rules == RulesVersion && s.Rules == lastRules) {
		return &decode.Error{Path: "$.rules_version", Given: `"` + s.Rules + `"`, Allowed: `"` + rules + `"`}
	}
	if !s.Limits.Within(site) {
		return &decode.Error{
			Path: "$.limits", Given: describe(s.Limits), Allowed: "at most " + describe(site) + " at " + where,
		}
	}
	return s.planned(p, places)
}

// Check implements decode.Checker: the shape of a start event, whatever the
// version of its rules.
func (s Start) Check() *decode.Error {
	if e := s.Protocol.Check(); e != nil {
		return e.Under("$.protocol")
	}
	if s.Muscle != "" {
		if e := s.Muscle.Check(); e != nil {
			return e.Under("$.muscle")
		}
	}
	if s.Side != "" {
		if e := s.Side.Check(); e != nil {
			return e.Under("$.side")
		}
	}
	if err := s.check(); err != nil {
		return err.(*decode.Error)
	}
	return nil
}
