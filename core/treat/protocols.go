package treat

import (
	"fmt"
	"slices"
	"strings"

	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/strict"
)

// Protocol is one school's way of pressing, with its default limits.
type Protocol struct {
	ID     ids.Protocol
	Name   string
	Limits safety.Limits
	// Coached tells whether the coach can run it.
	Coached bool
	// ByNumber: the client's number decides when to deepen, ease and stop.
	ByNumber bool
}

// The defaults are practitioners' working choices (graded-stages) or from
// trials: 90 s at the pain threshold or 30 s midway to tolerance (Hou et al.
// 2002).
// 2002). Where pressing is not what is done (resisted-lengthening,
// contract-relax) the number is of the stretch, and the cap the longest there is.
var protocols = []Protocol{
	{"graded-stages", "Graded stages", safety.Limits{Target: 6, Soft: 7, Hard: 8, CapMS: 90_000}, true, true},
	{"hold-to-release", "Hold to release", safety.Limits{Target: 4, Soft: 5, Hard: 7, CapMS: 120_000}, false, false},
	{"short-repeats", "Short repeats", safety.Limits{Target: 5, Soft: 6, Hard: 8, CapMS: 48_000}, false, true},
	{"pulses", "Pulses", safety.Limits{Target: 5, Soft: 5, Hard: 6, CapMS: 96_000}, false, true},
	{"slow-ramp", "Slow ramp", safety.Limits{Target: 4, Soft: 5, Hard: 6, CapMS: 120_000}, false, true},
	{"brief-holds", "Brief holds", safety.Limits{Target: 7, Soft: 7, Hard: 8, CapMS: 90_000}, false, true},
	{"slack-hold", "Slack hold", safety.Limits{Target: 3, Soft: 3, Hard: 5, CapMS: 120_000}, false, true},
	{"breath-sink", "Breath sink", safety.Limits{Target: 4, Soft: 5, Hard: 6, CapMS: 90_000}, false, false},
	{"press-and-move", "Press and move", safety.Limits{Target: 5, Soft: 6, Hard: 8, CapMS: 90_000}, false, true},
	{
		"resisted-lengthening", "Resisted lengthening",
		safety.Limits{Target: 3, Soft: 3, Hard: 5, CapMS: 120_000},
		false, true,
	},
	{"contract-relax", "Contract and relax", safety.Limits{Target: 3, Soft: 3, Hard: 5, CapMS: 120_000}, false, true},
	{"pin-and-stretch", "Pin and stretch", safety.Limits{Target: 5, Soft: 6, Hard: 7, CapMS: 60_000}, false, true},
	{
		"attachment-strokes", "Attachment strokes",
		safety.Limits{Target: 4, Soft: 5, Hard: 7, CapMS: 120_000},
		false, true,
	},
	{"broad-first", "Broad first", safety.Limits{Target: 4, Soft: 5, Hard: 6, CapMS: 90_000}, false, true},
}

// Protocols lists every school.
func Protocols() []Protocol { return slices.Clone(protocols) }

// Find gives a protocol by its id.
func Find(id ids.Protocol) (Protocol, bool) {
	i := slices.IndexFunc(protocols, func(p Protocol) bool { return p.ID == id })
	if i < 0 {
		return Protocol{}, false
	}
	return protocols[i], true
}

// The coach's clocks (ms) and counts for graded stages.
const (
	maxStages       = 3
	stageMin        = 20_000 // no stage ends by a drop before this
	stageWindow     = 30_000
	stageExtra      = 15_000 // once, when the drop is 1 at the end of the window
	firstAskAfter   = 5_000
	askAfter        = 10_000
	silenceAfter    = 30_000
	suddenWithin    = 5_000
	suddenFall      = 4
	flushFor        = 20_000
	flushBeforeBack = 15_000
	calmScore       = 2
	returnLower     = 2 // a return is made this much below the target
)

// Request asks for a hold; absent limits are the protocol's.
type Request struct {
	Protocol ids.Protocol
	Target   *float64
	Soft     *float64
	Hard     *float64
	CapMS    *int64
	Scale    int // 10 (also for zero) or 5
	Muscle   ids.Muscle
	Side     ids.Side
	// Where the place pressed lies: some regions have ceilings of their own.
	Where []safety.Place
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
}

// NewStart resolves the limits of a request: the protocol's or those asked
// for, then the site's ceilings on top, the strictest of each. Errors are
// *strict.Error with paths named as in the command-line contract.
func NewStart(r Request) (Start, error) {
	p, err := coached(r.Protocol)
	if err != nil {
		return Start{}, err
	}
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
			return Start{}, &strict.Error{Path: o.path, Given: fmt.Sprint(*o.src), Allowed: "a number from 0 to 10"}
		}
		*o.dst = *o.src
	}
	if r.CapMS != nil {
		if *r.CapMS < safety.MinCapMS || *r.CapMS > safety.MaxCapMS {
			return Start{}, &strict.Error{
				Path: "$.cap_seconds", Given: fmt.Sprint(float64(*r.CapMS) / 1000),
				Allowed: "a number from 10 to 120",
			}
		}
		l.CapMS = *r.CapMS
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
		return Start{}, &strict.Error{
			Path: "$.target", Given: fmt.Sprint(l.Target),
			Allowed: fmt.Sprintf("at most the soft ceiling, %v", l.Soft),
		}
	}
	if l.Soft > l.Hard {
		return Start{}, &strict.Error{
			Path: "$.soft_ceiling", Given: fmt.Sprint(l.Soft),
			Allowed: fmt.Sprintf("at most the hard ceiling, %v", l.Hard),
		}
	}
	if s.Limits != l {
		s.Lowered = fmt.Sprintf("Limits are %s at %s.", describe(s.Limits), where)
	}
	return s, s.check()
}

// SteeredByNumber reports whether a protocol is steered by the client's number.
func SteeredByNumber(id ids.Protocol) bool {
	for _, p := range protocols {
		if p.ID == id {
			return p.ByNumber
		}
	}
	return true // unknown: the cautious answer
}

// Allowed gives the highest limits that a site's ceilings and a screening leave
// to this hold, on top of the protocol's own.
func (s Start) Allowed(site safety.Limits, a safety.Adaptation) (safety.Limits, error) {
	p, err := coached(s.Protocol)
	if err != nil {
		return safety.Limits{}, err
	}
	return a.On(p.Limits.Strictest(site)), nil
}

// Adapt lowers a start to what a screening allows at the place pressed.
func (s Start) Adapt(a safety.Adaptation, where []safety.Place) Start {
	site, _ := safety.Site(s.Muscle, where)
	if allowed, err := s.Allowed(site, a); err == nil && !s.Limits.Within(allowed) {
		s.Limits = s.Limits.Strictest(allowed)
		s.Lowered = strings.TrimSpace(s.Lowered + fmt.Sprintf(" Lowered to %s by the screening.", describe(s.Limits)))
	}
	return s
}

func describe(l safety.Limits) string {
	return fmt.Sprintf("%v / %v / %v, %v s", l.Target, l.Soft, l.Hard, float64(l.CapMS)/1000)
}

func coached(id ids.Protocol) (Protocol, error) {
	for _, p := range protocols {
		if p.ID == id && p.Coached {
			return p, nil
		}
	}
	if e := id.Check(); e != nil {
		return Protocol{}, e.Under("$.protocol")
	}
	return Protocol{}, &strict.Error{
		Path: "$.protocol", Given: `"` + string(id) + `"`,
		Allowed: "graded-stages (the coach does not run the others yet)",
	}
}

// check refuses a start that no version of the rules could have resolved.
func (s Start) check() error {
	bad := func(path string, given any, allowed string) error {
		return &strict.Error{Path: path, Given: fmt.Sprint(given), Allowed: allowed}
	}
	switch l := s.Limits; {
	case s.Scale != 10 && s.Scale != 5:
		return bad("$.scale", s.Scale, "10 or 5")
	case l.CapMS < safety.MinCapMS || l.CapMS > safety.MaxCapMS:
		return bad("$.limits.cap_ms", l.CapMS, "a whole number from 10000 to 120000")
	case l.Target < 0 || l.Target > l.Soft || l.Soft > l.Hard || l.Hard > 10:
		return bad("$.limits", describe(l), "0 ≤ target ≤ soft ceiling ≤ hard ceiling ≤ 10")
	}
	return nil
}

// Begins says whether a hold may be begun so today, within a site's ceilings;
// the error is a *strict.Error. A replay does not ask this.
func (s Start) Begins(rules string, site safety.Limits, where string) error {
	if _, err := coached(s.Protocol); err != nil {
		return err
	}
	if s.Rules != rules {
		return &strict.Error{Path: "$.rules_version", Given: `"` + s.Rules + `"`, Allowed: `"` + rules + `"`}
	}
	if !s.Limits.Within(site) {
		return &strict.Error{
			Path: "$.limits", Given: describe(s.Limits), Allowed: "at most " + describe(site) + " at " + where,
		}
	}
	return nil
}

// Check implements strict.Checker: the shape of a start event, whatever the
// version of its rules.
func (s Start) Check() *strict.Error {
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
		return err.(*strict.Error)
	}
	return nil
}
