package points

import (
	"cmp"
	"fmt"
	"slices"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
)

// Request asks which protocol suits a point.
type Request struct {
	Point Point
	// FirstVisit lowers the ceilings by one: nobody knows yet how this client reacts.
	FirstVisit bool
	// Screening is judged already; what it forbids is refused before any protocol is named.
	Screening safety.Screening
	// Overridden: a licensed person has given a reason to press all the same.
	Overridden bool
	// BellyTouchable: false when the muscle's belly is too sore to touch.
	BellyTouchable bool
	// WorkedBefore is what let this point go last time; Default is the practice's.
	WorkedBefore ids.Protocol
	Default      ids.Protocol
	// Instead is what the therapist chooses in place of what is suggested.
	Instead ids.Protocol
}

// Suggestion is a protocol with its limits, or why there is none.
type Suggestion struct {
	Blocked bool `json:"blocked,omitempty"`
	// Protocol is empty where nothing may be pressed.
	Protocol ids.Protocol `json:"protocol,omitempty"`
	Name     string       `json:"name,omitempty"`
	// Target, Soft, Hard and CapS are what a hold may begin with here and today.
	Target float64 `json:"target"`
	Soft   float64 `json:"soft_ceiling"`
	Hard   float64 `json:"hard_ceiling"`
	CapS   float64 `json:"cap_seconds"`
	// Presses: false where it lengthens, and the cap of pressing says nothing.
	Presses bool `json:"presses"`
	// Set is how the muscle lies: on stretch or in slack.
	Set      string        `json:"muscle_set,omitempty" enum:"tension,slack"`
	Contacts []ids.Contact `json:"contact"`
	// Text says why, and what was lowered by what.
	Text     string   `json:"text"`
	Cautions []string `json:"cautions,omitempty" doc:"of the answers, on what it asks of the joints"`
}

// choice is what a rule names, and why.
type choice struct {
	protocol ids.Protocol
	// why is said with the protocol.
	why string
	// broad: only a broad contact suits.
	broad bool
	// limits are lowered beyond those of place and screening.
	limits safety.Adaptation
}

// Suggest applies the rules in their order; the first that matches names the
// protocol, and the limits of all combine: protocol, site, screening, strictest
// of each.
func Suggest(r Request) Suggestion {
	where := r.Point.where()
	if why, blocked := r.Screening.Blocks(r.Point.Muscle, where); blocked && !r.Overridden {
		return Suggestion{Blocked: true, Contacts: []ids.Contact{}, Text: why}
	}
	if why := r.neverHere(); why != "" {
		return Suggestion{Blocked: true, Contacts: []ids.Contact{}, Text: why}
	}
	c := r.choose(where)
	limits := r.Screening.Limits.Strictest(c.limits)
	if r.Instead != "" && r.Instead != c.protocol {
		why := "You chose this instead of " + protocolName(c.protocol) + "."
		c = choice{protocol: r.Instead, why: why, broad: c.broad}
		if why := r.unfit(r.Instead); why != "" {
			return Suggestion{Blocked: true, Contacts: []ids.Contact{}, Text: why}
		}
		c.why += r.harder(limits, where)
	}
	p, ok := treat.Find(c.protocol)
	if !ok {
		return Suggestion{Blocked: true, Contacts: []ids.Contact{}, Text: "No protocol of this name."}
	}
	site, at := safety.Site(r.Point.Muscle, where)
	l := limits.On(p.Limits.Strictest(site))
	s := Suggestion{
		Protocol: p.ID, Name: p.Name, Target: min(l.Target, l.Soft), Soft: min(l.Soft, l.Hard), Hard: l.Hard,
		CapS: float64(l.CapMS) / 1000, Set: setOf(p.ID, limits), Text: c.why,
	}
	_, s.Cautions = r.moves(p.ID)
	s.Contacts = r.contacts(where, c.broad || limits.SlackOrBroad && s.Set != "slack")
	s.Presses = p.Plan.Presses
	if l != p.Limits {
		s.Text += fmt.Sprintf(" Limits %v / %v / %v", s.Target, s.Soft, s.Hard)
		if at != "" && !p.Limits.Within(site) {
			s.Text += " at " + at
		}
		s.Text += "."
	}
	return s
}

// harder says so where a protocol that was chosen allows more pressure than the suggested one.
func (r Request) harder(limits safety.Adaptation, where []safety.Place) string {
	asked := r
	asked.Instead = ""
	suggested := Suggest(asked)
	p, ok := treat.Find(r.Instead)
	if !ok || suggested.Blocked {
		return ""
	}
	site, _ := safety.Site(r.Point.Muscle, where)
	if l := limits.On(p.Limits.Strictest(site)); min(l.Soft, l.Hard) <= suggested.Soft {
		return ""
	}
	return fmt.Sprintf(" It allows more than what is suggested (%v / %v / %v).", suggested.Target, suggested.Soft,
		suggested.Hard)
}

// steersNot is how a hold is done that no number steers.
var steersNot = safety.Adaptation{CapSeconds: new(float64(30))}

// lightly is the ceiling of tissue that is easily hurt.
var lightly = safety.Adaptation{Ceiling: new(3.0), SlackOrBroad: true}

// choose goes through the rules.
func (r Request) choose(where []safety.Place) choice {
	m := r.Point.Muscle
	at := func(regions []ids.Region) bool {
		return slices.ContainsFunc(where, func(p safety.Place) bool { return slices.Contains(regions, p.Region) })
	}
	switch {
	case r.Screening.Limits.ScoreCannotSteer:
		return choice{
			"hold-to-release",
			"The client's number cannot steer today: to the first resistance only, broad, 30 s.", true, steersNot,
		}
	case r.gentle() != "":
		return choice{"slack-hold", r.gentle() + ": in slack, light.", false, lightly}
	case r.FirstVisit || r.has("first-visit"):
		return r.firstTime()
	case r.frontOfNeck():
		return choice{protocol: "brief-holds", why: "Front of the neck: brief holds only, never longer than 10 s."}
	case slices.Contains(guardedMuscles, m) || at(guardedRegions) && !slices.Contains(byBreath, m):
		return choice{protocol: "hold-to-release", why: "Nerves and vessels are near: hold at first resistance."}
	case m == "coccyx-region" || at([]ids.Region{"coccyx"}):
		return choice{protocol: "slack-hold", why: "Coccyx: light, in a position of ease."}
	case slices.Contains(byBreath, m):
		return choice{protocol: "breath-sink", why: "Deep behind the belly: sink with the out-breath."}
	case at(sole):
		return choice{protocol: "broad-first", why: "Sole: prone to cramp, so broad before narrow."}
	case m == "subscapularis" || m == "coracobrachialis" || at([]ids.Region{"axilla"}):
		return choice{protocol: "hold-to-release", why: "Armpit: hold at first resistance, a broad pad.", broad: true}
	case !r.BellyTouchable:
		return choice{protocol: "attachment-strokes", why: "The belly cannot be touched: work its attachments."}
	case r.WorkedBefore != "" && r.unfit(r.WorkedBefore) == "":
		return choice{protocol: r.WorkedBefore, why: "It worked here last time."}
	}
	if r.Default != "" && r.unfit(r.Default) == "" {
		return choice{protocol: r.Default, why: "The practice's default."}
	}
	return choice{protocol: "graded-stages", why: "The practice's default."}
}

var (
	guardedMuscles = ids.List[ids.Muscle](
		"scalenus-anterior scalenus-medius scalenus-posterior suboccipitals pectineus popliteus",
	)
	guardedRegions = ids.List[ids.Region]("suboccipital groin pubic popliteal")
	byBreath       = ids.List[ids.Muscle]("psoas-major iliacus diaphragm")
	sole           = ids.List[ids.Region]("heel medial-arch lateral-sole mid-sole metatarsal-heads")
)

func (r Request) frontOfNeck() bool { return treat.OnFrontOfNeck(r.Point.Muscle, r.Point.where()) }

// firstTime: pulses where it is sensitive or the time short, else a slow ramp.
func (r Request) firstTime() choice {
	one := safety.Adaptation{Down: 1}
	t, said := r.Point.tenderness()
	short := r.Screening.Limits.CapSeconds != nil && *r.Screening.Limits.CapSeconds < slowRampS
	if r.frontOfNeck() || said && t >= 7 || short {
		return choice{"pulses", "First visit, and a sensitive place: pulses, pressure limits 1 lower.", false, one}
	}
	return choice{"slow-ramp", "First visit: a slow ramp within comfort, pressure limits 1 lower.", false, one}
}

// slowRampS is the least cap in which a slow ramp can be done.
const slowRampS = 100

// gentle names what makes every tissue easily hurt.
func (r Request) gentle() string {
	switch {
	case r.has("anticoagulant"):
		return "Anticoagulant or bleeding disorder"
	case r.Point.Grade != nil && *r.Point.Grade >= 4:
		return "Too tender to be touched"
	case r.has("fibromyalgia"):
		return "Widespread tenderness"
	}
	return ""
}

// has reports whether an answer has set off a rule.
func (r Request) has(q ids.Question) bool {
	return slices.ContainsFunc(r.Screening.Rules, func(a safety.AppliedRule) bool { return a.ID == q })
}

// neverHere names a point at which no protocol is left.
func (r Request) neverHere() string {
	if !r.frontOfNeck() {
		return ""
	}
	switch why := treat.Forbids("brief-holds", r.Screening, true); {
	case r.Screening.Limits.ScoreCannotSteer:
		return "Nothing on the front of the neck when the client's number cannot steer."
	case why != "":
		return why
	case r.gentle() != "":
		return "Nothing on the front of the neck: " + r.gentle() + ", and slack holds are too long there."
	}
	return ""
}

// unfit tells why a protocol that was chosen by hand is not done here.
func (r Request) unfit(p ids.Protocol) string {
	if why := treat.Forbids(p, r.Screening, r.frontOfNeck()); why != "" {
		return why
	}
	if known, _ := treat.Find(p); r.frontOfNeck() && !known.ShortPresses {
		return "Front of the neck: only brief holds, short repeats and pulses."
	}
	if no, _ := r.moves(p); no != "" {
		return no
	}
	return r.tooShort(p)
}

// tooShort: the time that place and screening leave is less than the protocol takes.
func (r Request) tooShort(id ids.Protocol) string {
	p, _ := treat.Find(id)
	site, _ := safety.Site(r.Point.Muscle, r.Point.where())
	l := r.Screening.Limits.On(p.Limits.Strictest(site))
	if l.CapMS >= p.LeastCapMS {
		return ""
	}
	return fmt.Sprintf("%s takes at least %v s, and %v s are allowed here.", p.Name, float64(p.LeastCapMS)/1000,
		float64(l.CapMS)/1000)
}

// NotHere is a protocol that is not offered at a point, and why.
type NotHere struct {
	Protocol ids.Protocol `json:"protocol"`
	Why      string       `json:"why"`
}

// NotOffered lists the protocols that would be refused at a point, with the reason.
func NotOffered(r Request) []NotHere {
	out := []NotHere{}
	for _, p := range treat.Protocols() {
		if why := r.unfit(p.ID); why != "" {
			out = append(out, NotHere{p.ID, why})
		}
	}
	return out
}

// moves is what the answers say of what a protocol asks of the joints.
func (r Request) moves(p ids.Protocol) (no string, say []string) {
	return treat.Moves(p, r.Point.Muscle, r.Point.Side, r.Screening)
}

// setOf is how the muscle lies: in slack where the protocol or the screening wants it, else on
// stretch.
func setOf(p ids.Protocol, a safety.Adaptation) string {
	if known, _ := treat.Find(p); a.SlackOrBroad || known.InSlack {
		return "slack"
	}
	return "tension"
}

// contacts are the muscle's own that may be used here; the broad ones where
// pressure must be spread.
func (r Request) contacts(where []safety.Place, broad bool) []ids.Contact {
	out := []ids.Contact{}
	m, err := atlas.Get(r.Point.Muscle)
	if err != nil {
		return out
	}
	may := slices.DeleteFunc(slices.Clone(m.Contacts), func(c ids.Contact) bool {
		return safety.ContactForbidden(r.Point.Muscle, where, m.Contacts, c) != ""
	})
	if !broad {
		return append(out, may...)
	}
	out = append(out, slices.DeleteFunc(slices.Clone(may), func(c ids.Contact) bool { return !safety.Broad(c) })...)
	if len(out) == 0 && safety.ContactForbidden(r.Point.Muscle, where, m.Contacts, "palm") == "" {
		return append(out, "palm")
	}
	if len(out) == 0 {
		return may // nothing broad fits there: the usual ones, with a broad pad
	}
	return out
}

// protocolName is a protocol in words, or its id where it is not known.
func protocolName(id ids.Protocol) string {
	p, _ := treat.Find(id)
	return cmp.Or(p.Name, string(id))
}
