package sequence

import (
	"fmt"
	"slices"
	"strings"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
)

// rule tells why a step is not done with this client today, or "": then its position, contact and
// dose are what today allows, and its text says what to be careful of.
func (l *Laid) rule(c Client) string {
	s := c.Screening
	if s.NoTreatment || s.Outcome == safety.Emergency || s.Outcome == safety.ReferFirst {
		return "No treatment today: " + firstText(s)
	}
	muscle, _, where := PlaceOf(l.Where, l.Side)
	if why := l.neck(muscle, where); why != "" {
		return why
	}
	cautions, why := l.moves(s, muscle, where)
	if why != "" {
		return why
	}
	if l.technique.Presses != "none" {
		if why := l.presses(c, muscle, where); why != "" {
			return why
		}
	}
	if why := l.lies(s); why != "" {
		return why
	}
	if why := l.touches(s, muscle, where); why != "" {
		return why
	}
	if l.technique.Presses != "none" || len(l.technique.Contacts) > 0 {
		l.Consent = safety.SensitiveAreas(muscle, where)
	}
	l.write(s, cautions)
	return ""
}

// neck keeps what is never done at the neck away from it.
func (l *Laid) neck(m ids.Muscle, where []safety.Place) string {
	if l.technique.NeverAtNeck == "" || !safety.OnNeck(m, where) {
		return ""
	}
	return l.technique.NeverAtNeck
}

// moves asks the screening about the joints that a step moves, and its protocol's rules.
func (l *Laid) moves(s safety.Screening, m ids.Muscle, where []safety.Place) (cautions []string, why string) {
	t := l.technique
	if t.Protocol != "" {
		if why := treat.Forbids(t.Protocol, s, treat.OnFrontOfNeck(m, where)); why != "" {
			return nil, why
		}
	}
	if t.Way == 0 {
		return nil, ""
	}
	why, cautions = s.Moves(safety.Motion{Way: t.Way, Movements: l.movements()}, m, where)
	return cautions, why
}

// movements are those of the joint: a muscle's own that lengthen it, a region's by its name.
func (l *Laid) movements() []ids.Movement {
	if m, _ := muscleOf(l.Where); m != nil {
		if l.technique.Way == safety.Resisted {
			out := []ids.Movement{}
			for _, a := range m.Actions {
				out = append(out, a.Movement)
			}
			return out
		}
		return m.Lengthened().Movements
	}
	joint := jointOf[ids.Region(l.Where)]
	out := []ids.Movement{}
	for _, mv := range ids.Movements() {
		if j, _, _ := strings.Cut(string(mv), "."); j == joint {
			out = append(out, mv)
		}
	}
	return out
}

// jointOf names the joint that moves at a region.
var jointOf = func() map[ids.Region]string {
	out := map[ids.Region]string{}
	for joint, regions := range map[string]string{
		"cervical": "suboccipital anterior-neck lateral-neck posterior-neck neck-angle occiput",
		"shoulder": "top-of-shoulder anterior-shoulder lateral-shoulder posterior-shoulder axilla suprascapular " +
			"scapula anterior-upper-arm lateral-upper-arm posterior-upper-arm medial-upper-arm upper-chest mid-chest",
		"elbow":    "antecubital olecranon lateral-elbow medial-elbow",
		"wrist":    "volar-forearm dorsal-forearm radial-forearm ulnar-forearm volar-wrist dorsal-wrist",
		"fingers":  "palm dorsal-hand thumb index-finger middle-finger ring-finger little-finger",
		"thoracic": "upper-thoracic-spine mid-thoracic-spine lower-thoracic-spine medial-scapular-border",
		"lumbar":   "lumbar-spine flank iliac-crest sacroiliac sacrum posterior-lower-ribs",
		"hip": "groin upper-buttock lower-buttock lateral-hip anterior-hip anterior-thigh lateral-thigh " +
			"medial-thigh posterior-thigh",
		"knee": "anterior-knee lateral-knee medial-knee popliteal",
		"ankle": "shin lateral-leg medial-leg upper-calf lower-calf achilles lateral-ankle medial-ankle " +
			"anterior-ankle heel",
		"lesser-toes": "medial-arch lateral-sole mid-sole metatarsal-heads great-toe lesser-toes dorsal-foot",
		"jaw":         "jaw cheek temple ear",
	} {
		for _, r := range ids.List[ids.Region](regions) {
			out[r] = joint
		}
	}
	return out
}()

// waitsHours is how long firm work on a site that was pressed waits.
const waitsHours = 48

// presses asks what a hold is asked: what is blocked or closed today, and firm work on what was pressed
// lately or lies over a structure in danger.
func (l *Laid) presses(c Client, m ids.Muscle, where []safety.Place) string {
	if m != "" && atlas.Pressable(m, "") != nil {
		return safety.StayOff
	}
	if why, blocked := c.Screening.Blocks(m, where); blocked {
		return why
	}
	for _, p := range c.Points {
		here := p.ID == l.Point && l.Point != "" || p.Muscle == m && p.Side == l.Side
		if !here {
			continue
		}
		switch {
		case p.Closed != "":
			return p.Closed
		case l.technique.Presses != "firm":
		case p.HoursAgo != nil && *p.HoursAgo < waitsHours:
			return fmt.Sprintf("Pressed %.0f hours ago: nothing firm before %d.", *p.HoursAgo, waitsHours)
		case p.Treated >= 2:
			return "Treated twice today: enough for this site."
		}
	}
	if l.technique.Presses != "firm" || l.technique.Kind == "hold" {
		return ""
	}
	for _, p := range where {
		if p.Tier == safety.Danger && p.Structure != "" {
			s, _ := safety.FindStructure(p.Structure)
			return "Nothing firm over the " + strings.ToLower(s.Name[:1]) + s.Name[1:] + "."
		}
	}
	if _, at := safety.Site("", where); at != "" && m == "" {
		return "Nothing firm at " + at + "."
	}
	return ""
}

// lies takes another position where the one that is meant is barred today.
func (l *Laid) lies(s safety.Screening) string {
	barred := func(p ids.Position) bool { return slices.Contains(s.Limits.AvoidPositions, p) }
	if l.Technique == "standing-and-walking" {
		return ""
	}
	if l.Position != "" && !barred(l.Position) {
		return ""
	}
	for _, p := range l.positions() {
		if !barred(p) {
			l.Position = p
			return ""
		}
	}
	return "No position in which it can be done is allowed today."
}

// A muscle's file says how the client can lie for it; a region is reached from the side of the body
// on which it is seen, from the other side lying, or seated.

// positions in which a place is reached, the usual one first.
func (l *Laid) positions() []ids.Position {
	if m, _ := muscleOf(l.Where); m != nil {
		return m.Positions
	}
	other := ids.Position("side-lying-right")
	if l.Side == ids.Right {
		other = "side-lying-left"
	}
	if behind()[ids.Region(l.Where)] {
		return []ids.Position{"prone", other, "seated"}
	}
	return []ids.Position{"supine", other, "seated"}
}

// touches takes the first contact that today allows.
func (l *Laid) touches(s safety.Screening, m ids.Muscle, where []safety.Place) string {
	t := l.technique
	if len(t.Contacts) == 0 {
		return ""
	}
	list := t.Contacts
	if l.Contact != "" {
		list = append([]ids.Contact{l.Contact}, list...)
	}
	why := ""
	for _, c := range list {
		no := l.barred(s, m, where, c)
		if no == "" {
			l.Contact = c
			return ""
		}
		if why == "" {
			why = no
		}
	}
	return why
}

// barred tells why a contact may not be used, or "".
func (l *Laid) barred(s safety.Screening, m ids.Muscle, where []safety.Place, c ids.Contact) string {
	if l.technique.Presses == "none" {
		return ""
	}
	if why := s.Limits.TooHard(where, c); why != "" {
		return why
	}
	if l.technique.Presses != "firm" {
		return ""
	}
	if s.Limits.SlackOrBroad && !safety.Broad(c) {
		return "Only broad contacts today."
	}
	usual := []ids.Contact{}
	if known, _ := muscleOf(l.Where); known != nil {
		usual = known.Contacts
	}
	return safety.ContactForbidden(m, where, usual, c)
}

// write lowers the dose where a limit is lower, and says how it is done.
func (l *Laid) write(s safety.Screening, cautions []string) {
	t := l.technique
	text := []string{t.How}
	if l.say != "" {
		text = append(text, "Say: "+l.say)
	}
	if firm := t.Presses == "firm"; firm && s.Limits.CapSeconds != nil {
		limit := *s.Limits.CapSeconds
		if l.Dose.Seconds != nil && *l.Dose.Seconds > limit {
			l.Dose = t.doseOf(limit, 0)
			text = append(text, fmt.Sprintf("At most %v s today.", limit))
		}
		if l.Dose.EachS != nil && *l.Dose.EachS > limit {
			amount, _ := l.Dose.amount(t.Steer)
			l.Dose = t.doseOf(amount, limit)
		}
	}
	switch low := s.Limits.Ceiling != nil || s.Limits.Down > 0; {
	case t.Presses == "firm" && low:
		amount, _ := l.Dose.amount(t.Steer)
		each := 0.0
		if l.Dose.EachS != nil {
			each = *l.Dose.EachS
		}
		// Three quarters, and not below the least dose: less of what is pressed, as the ceilings are lower.
		l.Dose = t.doseOf(max(t.Amount.Least, amount*3/4), each)
		text = append(text, "Lighter and shorter than usual today.")
	case t.Presses == "light" && low:
		text = append(text, "Lightly today.")
	}
	if t.Lubricant != "none" && t.Lubricant != "grip" && has(s, "lubricant-allergy") {
		text = append(text, "Without oil or cream: through a cloth.")
	}
	if len(l.Consent) > 0 {
		text = append(text, "Ask first: "+joined(l.Consent)+".")
	}
	l.Text = strings.Join(append(text, cautions...), " ")
}

func has(s safety.Screening, q ids.Question) bool {
	return slices.ContainsFunc(s.Rules, func(a safety.AppliedRule) bool { return a.ID == q })
}

// firstText is the gravest rule's own words.
func firstText(s safety.Screening) string {
	for _, r := range s.Rules {
		if r.Outcome == s.Outcome {
			return r.Text
		}
	}
	return "the screening says so."
}
