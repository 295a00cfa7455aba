package assess

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
	"sync"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/safety"
)

// Pain is a region of the pain drawing.
type Pain struct {
	Region    ids.Region `json:"region"`
	Side      ids.Side   `json:"side"`
	Intensity float64    `json:"intensity" minimum:"0" maximum:"10"`
	Kind      string     `json:"kind,omitempty" enum:"ache,sharp,burning,numb-tingling,headache"`
}

// ROM is a reading of a movement on a side; for side-bends and turns of the
// spine the side is the direction of movement.
type ROM struct {
	Movement ids.Movement `json:"movement"`
	Side     ids.Side     `json:"side"`
	Active   *float64     `json:"active_deg,omitempty" minimum:"-90" maximum:"360"`
	Passive  *float64     `json:"passive_deg,omitempty" minimum:"-90" maximum:"360"`
	Pain     *float64     `json:"pain_nprs,omitempty" minimum:"0" maximum:"10"`
	Felt     string       `json:"felt,omitempty" enum:"pull,pinch,pain"`
	FeltAt   ids.Region   `json:"felt_region,omitempty"`
	EndFeel  string       `json:"end_feel,omitempty" enum:"soft,firm,hard,empty,springy"`
}

// SquatSign is a sign seen in the squat or toe-touch.
type SquatSign struct {
	Sign ids.Sign `json:"sign"`
	Side ids.Side `json:"side"`
}

// TestResult is a test done.
type TestResult struct {
	Test   ids.Test `json:"test"`
	Side   ids.Side `json:"side"`
	Result string   `json:"result" enum:"positive,negative,unclear"`
}

// EarlierPoint is a point that this client had before.
type EarlierPoint struct {
	Muscle  ids.Muscle `json:"muscle"`
	Side    ids.Side   `json:"side"`
	DaysAgo float64    `json:"days_ago" minimum:"0"`
}

// Findings is everything that the evidence is drawn from.
type Findings struct {
	Pain      []Pain          `json:"pain" maxItems:"400"`
	ROM       []ROM           `json:"rom,omitempty" maxItems:"400"`
	Posture   []Posture       `json:"posture,omitempty" maxItems:"100"`
	Gauges    []Gauge         `json:"gauges,omitempty" maxItems:"20"`
	Signs     []SquatSign     `json:"signs,omitempty" maxItems:"100"`
	Tests     []TestResult    `json:"tests,omitempty" maxItems:"400"`
	Loads     []ids.Load      `json:"loads,omitempty" maxItems:"50"`
	Earlier   []EarlierPoint  `json:"earlier_points,omitempty" maxItems:"400"`
	Screening []safety.Answer `json:"screening,omitempty" maxItems:"400"`
	Top       *int            `json:"top,omitempty" minimum:"1" maximum:"200"`
	// Thresholds of the practice, where it has its own.
	Thresholds Thresholds `json:"thresholds,omitempty"`
}

// Why is one reason with its weight, in natural log-odds.
type Why struct {
	Finding string  `json:"finding"`
	Effect  float64 `json:"effect"`
	Text    string  `json:"text"`
}

// Suspect is a muscle on a side with its confidence.
type Suspect struct {
	Muscle     ids.Muscle `json:"muscle"`
	Name       string     `json:"name"`
	Side       ids.Side   `json:"side"`
	Region     string     `json:"region"`
	Confidence float64    `json:"confidence"`
	// Ready: at or above the line, and not blocked.
	Ready   bool   `json:"ready"`
	Blocked bool   `json:"blocked"`
	Because string `json:"blocked_because,omitempty"`
	Why     []Why  `json:"why"`
}

// NextTest is a test worth doing, with the drop of total entropy that it is
// expected to bring.
type NextTest struct {
	Test     ids.Test `json:"test"`
	Side     ids.Side `json:"side"`
	GainBits float64  `json:"gain_bits"`
	Text     string   `json:"text"`
	Name     string   `json:"name"`
	How      string   `json:"how"`
}

// Ranking is the suspects, highest first.
type Ranking struct {
	Suspects  []Suspect  `json:"suspects"`
	Next      []NextTest `json:"next_tests"`
	Threshold float64    `json:"threshold"`
	Notes     []string   `json:"notes"`
}

// Threshold is the line above which a suspect is ready for hands.
const Threshold = 0.8

// prior odds are low and equal.
const prior = 0.08

// hypothesis collects log-odds by group; a group's second finding counts half,
// the third a quarter, for and against apart, so that three flags of one short
// muscle are not three proofs.
type hypothesis struct {
	muscle *atlas.Muscle
	side   ids.Side
	list   []grouped
	conf   float64
}

type grouped struct {
	group string
	Why
}

func (h *hypothesis) add(group, finding string, ratio float64, text string) {
	if ratio != 1 {
		h.list = append(h.list, grouped{group, Why{finding, math.Log(ratio), text}})
	}
}

// byWeight puts the strongest first; ties by name, so that sums do not depend
// on the order of findings.
func byWeight(a, b Why) int {
	return cmp.Or(cmp.Compare(math.Abs(b.Effect), math.Abs(a.Effect)), cmp.Compare(a.Finding, b.Finding))
}

// reasons damps each group and gives the sum of log-odds with every reason.
func (h *hypothesis) reasons() (sum float64, why []Why) {
	list := slices.Clone(h.list)
	slices.SortFunc(list, func(a, b grouped) int {
		return cmp.Or(cmp.Compare(a.group, b.group), cmp.Compare(sign(a.Effect), sign(b.Effect)), byWeight(a.Why, b.Why))
	})
	why = make([]Why, len(list))
	weight := 1.0
	for i, w := range list {
		if i > 0 && list[i-1].group == w.group && sign(list[i-1].Effect) == sign(w.Effect) {
			weight /= 2
		} else {
			weight = 1
		}
		why[i] = w.Why
		why[i].Effect *= weight
	}
	slices.SortFunc(why, byWeight)
	for _, w := range why {
		sum += w.Effect
	}
	return sum, why
}

func sign(v float64) int {
	if v < 0 {
		return -1
	}
	return 1
}

var priorLog = math.Log(prior / (1 - prior))

func (h *hypothesis) confidence() float64 {
	sum, _ := h.reasons()
	return 1 / (1 + math.Exp(-(priorLog + sum)))
}

// model is every muscle on each side as a hypothesis.
type model struct {
	all   []*hypothesis
	index map[ids.Muscle][2]*hypothesis
	w     Weights
}

var bothSides = [2]ids.Side{ids.Left, ids.Right}

func newModel(w Weights) *model {
	m := &model{index: map[ids.Muscle][2]*hypothesis{}, w: w}
	for _, mu := range atlas.All() {
		if mu.Kind != "muscle" {
			continue
		}
		pair := [2]*hypothesis{{muscle: mu, side: ids.Left}, {muscle: mu, side: ids.Right}}
		m.index[mu.ID] = pair
		m.all = append(m.all, pair[0], pair[1])
	}
	return m
}

// on gives a muscle's hypotheses on a side; midline is both.
func (m *model) on(id ids.Muscle, side ids.Side) []*hypothesis {
	pair := m.index[id]
	switch {
	case pair[0] == nil:
		return nil
	case side == ids.Left:
		return pair[:1]
	case side == ids.Right:
		return pair[1:]
	}
	return pair[:]
}

// Rank draws the evidence together.
func Rank(f Findings, w Weights) Ranking {
	m := newModel(w)
	m.referral(f.Pain)
	m.ranges(f.ROM)
	for _, t := range f.Tests {
		m.test(t)
	}
	m.posture(f.Posture, f.Thresholds)
	m.gauges(f.Gauges, f.Tests)
	for _, s := range f.Signs {
		for _, mu := range squatMuscles[s.Sign] {
			for _, h := range m.on(mu, s.Side) {
				h.add("bearing", "sign:"+string(s.Sign)+":"+string(s.Side), w.of("squat").Plus, "In the squat: "+plain(strings.TrimPrefix(string(s.Sign), "squat-")))
			}
		}
	}
	for _, l := range f.Loads {
		for _, mu := range loadMuscles[l] {
			for _, h := range m.on(mu, ids.Midline) {
				h.add("load", "load:"+string(l), w.of("load").Plus, "Load: "+plain(string(l)))
			}
		}
	}
	for _, e := range latest(f.Earlier) {
		for _, h := range m.on(e.Muscle, e.Side) {
			// Falls with a half-life of two months.
			lr := 1 + (w.of("earlier-point").Plus-1)*math.Exp2(-e.DaysAgo/60)
			h.add("earlier", "earlier-point", lr, fmt.Sprintf("A point here %.0f days ago", e.DaysAgo))
		}
	}
	top := 20
	if f.Top != nil {
		top = *f.Top
	}
	screening := safety.Screen(f.Screening)
	out := Ranking{Suspects: make([]Suspect, 0, len(m.all)), Threshold: Threshold, Notes: notes(f.ROM)}
	for _, h := range m.all {
		sum, why := h.reasons()
		h.conf = 1 / (1 + math.Exp(-(priorLog + sum)))
		s := Suspect{Muscle: h.muscle.ID, Name: h.muscle.Name, Side: h.side, Region: h.muscle.Region, Confidence: h.conf, Why: why}
		s.Because, s.Blocked = blocked(screening, h.muscle, h.side)
		s.Ready = s.Confidence >= Threshold && !s.Blocked
		out.Suspects = append(out.Suspects, s)
	}
	slices.SortFunc(out.Suspects, func(a, b Suspect) int {
		return cmp.Or(cmp.Compare(b.Confidence, a.Confidence), cmp.Compare(a.Muscle, b.Muscle), cmp.Compare(a.Side, b.Side))
	})
	out.Next = m.next(f.Tests)
	out.Suspects = out.Suspects[:min(top, len(out.Suspects))]
	return out
}

// latest keeps the last point of each muscle and side: five visits with the
// same point are one piece of evidence.
func latest(list []EarlierPoint) []EarlierPoint {
	var out []EarlierPoint
	for _, e := range list {
		i := slices.IndexFunc(out, func(o EarlierPoint) bool { return o.Muscle == e.Muscle && o.Side == e.Side })
		switch {
		case i < 0:
			out = append(out, e)
		case e.DaysAgo < out[i].DaysAgo:
			out[i] = e
		}
	}
	return out
}

// blocked: a muscle takes no pressure when a rule names it, or when all its
// sites lie in blocked regions.
func blocked(s safety.Screening, m *atlas.Muscle, side ids.Side) (why string, is bool) {
	if why, is := s.Blocks(m.ID, nil); is {
		return why, true
	}
	for _, p := range m.Places(side) {
		w, b := s.Blocks(m.ID, []safety.Place{p})
		if !b {
			return "", false
		}
		why = w
	}
	return why, why != ""
}

func (m *model) referral(pain []Pain) {
	total := 0.0
	for _, p := range pain {
		total += p.Intensity
	}
	if total == 0 {
		return
	}
	r := m.w.of("referral")
	for _, h := range m.all {
		best, site := 0.0, ""
		for i := range h.muscle.Sites {
			if v := match(&h.muscle.Sites[i], h.side, pain, total); v > best {
				best, site = v, h.muscle.Sites[i].Name
			}
		}
		// From the weight against at no match to the full weight for at a
		// perfect one, evenly in log-odds.
		lr := math.Exp(math.Log(r.Minus) + best*(math.Log(r.Plus)-math.Log(r.Minus)))
		text := "The usual pattern lies elsewhere"
		if best > 0 {
			text = fmt.Sprintf("Pain matches the usual pattern by %.0f %% (%s)", best*100, site)
		}
		h.add("referral", "referral", lr, text)
	}
}

// match: how much of the drawing the pattern explains, weighted by intensity,
// and how much of the pattern's essential zone is there; spill-over counts
// half. One side's pattern does not explain the other side's pain; midline
// regions belong to both.
func match(s *atlas.Site, side ids.Side, pain []Pain, total float64) float64 {
	explained := 0.0
	present := map[ids.Region]bool{}
	for _, p := range pain {
		if p.Side != side && p.Side != ids.Midline && !atlas.MidlineRegion(p.Region) || p.Intensity == 0 {
			continue
		}
		switch {
		case slices.Contains(s.Essential, p.Region):
			explained += p.Intensity
			present[p.Region] = true
		case slices.Contains(s.Spillover, p.Region):
			explained += p.Intensity / 2
		}
	}
	return 0.6*explained/total + 0.4*float64(len(present))/float64(len(s.Essential))
}

// joint is the group of a movement's findings.
func joint(m ids.Movement) string { j, _, _ := strings.Cut(string(m), "."); return j }

func (m *model) ranges(list []ROM) {
	find := func(mv ids.Movement, side ids.Side) *ROM {
		for i := range list {
			if list[i].Movement == mv && list[i].Side == side {
				return &list[i]
			}
		}
		return nil
	}
	short := func(r *ROM) bool {
		v := r.Passive
		if v == nil {
			v = r.Active
		}
		if v == nil {
			return false
		}
		var other *float64
		if o := find(r.Movement, r.Side.Other()); o != nil && r.Side != ids.Midline {
			if other = o.Passive; other == nil || r.Passive == nil {
				other = o.Active
			}
		}
		return progress.Flag(r.Movement, *v, other, 0).Flagged
	}
	for i := range list {
		r := &list[i]
		if r.Active == nil && r.Passive == nil && r.Pain == nil {
			continue
		}
		isShort := short(r)
		measured := r.Active != nil || r.Passive != nil
		key := string(r.Movement) + ":" + string(r.Side)
		for _, h := range m.all {
			for _, mo := range h.muscle.Restricts {
				if mo.Movement != r.Movement || !speaksOf(mo, r.Side, h.side) {
					continue
				}
				plus, text := m.shortWeight(r, h)
				if other := calfTwin(r.Movement); other != "" && isShort {
					plus, text = m.calf(find(other, r.Side), short, r.Movement, h, plus, text)
				}
				switch {
				case isShort:
					h.add("length:"+joint(r.Movement), "rom:"+key, plus, text)
				case r.Pain != nil && *r.Pain > 0:
					h.add("length:"+joint(r.Movement), "rom:"+key, m.w.of("painful-movement").Plus, "Painful in full range: "+plain(string(r.Movement)))
				case measured:
					h.add("length:"+joint(r.Movement), "rom:"+key, m.w.of("restricted").Minus, "Full range: "+plain(string(r.Movement)))
				}
				break
			}
			if r.Active != nil && r.Passive != nil && *r.Passive-*r.Active >= 15 {
				for _, a := range h.muscle.Actions {
					if a.Movement == r.Movement && speaksOf(a, r.Side, h.side) {
						h.add("action:"+joint(r.Movement), "weak:"+key, m.w.of("weak-active").Plus, "Active far less than passive: "+plain(string(r.Movement)))
					}
				}
			}
		}
	}
}

// speaksOf tells whether a motion of a muscle on one side is the motion that
// was read.
func speaksOf(mo atlas.Motion, reading, muscle ids.Side) bool {
	return reading == ids.Midline || ownSide(mo, reading) == muscle
}

// shortWeight: a pull on the lengthened side raises a muscle more, a pinch on
// the shortened side raises the joint, not the muscle; an end that is hard or
// empty speaks little of muscle.
func (m *model) shortWeight(r *ROM, h *hypothesis) (plus float64, text string) {
	text = "Short: " + plain(string(r.Movement))
	switch {
	case r.Felt == "pinch":
		return m.w.of("restricted-pinch").Plus, text + ", felt as a pinch"
	case r.EndFeel == "hard" || r.EndFeel == "empty":
		return math.Sqrt(m.w.of("restricted").Plus), text + ", end feel " + r.EndFeel
	case r.Felt == "pull" && (r.FeltAt == "" || h.muscle.At(r.FeltAt)):
		return m.w.of("restricted-pull").Plus, text + ", felt as a pull there"
	}
	return m.w.of("restricted").Plus, text
}

// calfTwin is the same movement with the knee the other way.
func calfTwin(m ids.Movement) ids.Movement {
	switch m {
	case "ankle.dorsiflexion-knee-straight":
		return "ankle.dorsiflexion-knee-bent"
	case "ankle.dorsiflexion-knee-bent":
		return "ankle.dorsiflexion-knee-straight"
	}
	return ""
}

// calf reads straight against bent: short with the knee straight only is
// gastrocnemius; short with it bent as well is explained by soleus.
func (m *model) calf(twin *ROM, short func(*ROM) bool, mv ids.Movement, h *hypothesis, plus float64, text string) (float64, string) {
	if twin == nil || mv != "ankle.dorsiflexion-knee-straight" {
		return plus, text
	}
	both := slices.ContainsFunc(h.muscle.Restricts, func(r atlas.Motion) bool { return r.Movement == "ankle.dorsiflexion-knee-bent" })
	switch {
	case both && !short(twin):
		return m.w.of("restricted").Minus, "Short with the knee straight only: not this one"
	case !both && short(twin):
		return m.w.of("restricted-pinch").Plus, "Short with the knee bent too: soleus explains it"
	}
	return plus, text
}

func (m *model) test(t TestResult) {
	if t.Result == "unclear" {
		return
	}
	for _, x := range m.targets(t.Test, t.Side) {
		r := m.ratioOf(t.Test)
		lr, word := r.Plus, "positive"
		if t.Result == "negative" {
			lr, word = r.Minus, "negative"
		}
		x.h.add(x.group, "test:"+string(t.Test)+":"+string(t.Side), lr, TestName(t.Test)+" "+word)
	}
}

type target struct {
	h     *hypothesis
	group string
}

func (m *model) ratioOf(t ids.Test) Ratio {
	if strings.HasPrefix(string(t), "resisted:") {
		return m.w.of("contraction")
	}
	return m.w.of("length-test")
}

// targets are the hypotheses that a test speaks of, with the group in which
// its finding is damped: a length test says what a short movement of the same
// muscle says.
func (m *model) targets(t ids.Test, side ids.Side) []target {
	var out []target
	if mv, ok := strings.CutPrefix(string(t), "resisted:"); ok {
		group := "action:" + joint(ids.Movement(mv))
		for _, a := range actors()[ids.Movement(mv)] {
			for _, h := range m.index[a.muscle] {
				if speaksOf(a.motion, side, h.side) {
					out = append(out, target{h, group})
				}
			}
		}
		return out
	}
	for _, mu := range testMuscles[t] {
		for _, h := range m.on(mu, side) {
			group := "length:" + string(t)
			if len(h.muscle.Restricts) > 0 {
				group = "length:" + joint(h.muscle.Restricts[0].Movement)
			}
			out = append(out, target{h, group})
		}
	}
	return out
}

type actor struct {
	muscle ids.Muscle
	motion atlas.Motion
}

// actors lists who does a movement.
var actors = sync.OnceValue(func() map[ids.Movement][]actor {
	out := map[ids.Movement][]actor{}
	for _, mu := range atlas.All() {
		for _, a := range mu.Actions {
			out[a.Movement] = append(out[a.Movement], actor{mu.ID, a})
		}
	}
	return out
})

func (m *model) posture(list []Posture, own Thresholds) {
	flags := Flags(list, own)
	for i, p := range list {
		if !flags[i].Flagged {
			continue
		}
		// On a pair of sides the larger reading's side is the high one.
		if p.HighSide == "" && p.Side != "" && p.Measure != "pelvic-tilt" {
			p.HighSide = larger(p, list)
			if p.HighSide != p.Side {
				continue // the other reading says it
			}
		}
		for _, hit := range postureMuscles(p) {
			for _, mu := range hit.muscles {
				for _, h := range m.on(mu, hit.side) {
					h.add("bearing", "posture:"+string(p.Measure)+":"+string(p.Side), m.w.of("posture").Plus, p.inWords()+": "+flags[i].Reason)
				}
			}
		}
	}
}

// inWords is the reading as a reason names it: "Shoulder height 4.0°".
func (p Posture) inWords() string {
	name := sentence(plain(string(p.Measure)))
	switch {
	case p.Degrees != nil:
		return fmt.Sprintf("%s %.1f°", name, math.Abs(*p.Degrees))
	case p.CM != nil:
		return fmt.Sprintf("%s %.1f cm", name, *p.CM)
	}
	return name
}

func larger(p Posture, list []Posture) ids.Side {
	val := func(p Posture) float64 {
		switch {
		case p.CM != nil:
			return *p.CM
		case p.Degrees != nil:
			return *p.Degrees
		}
		return 0
	}
	for _, o := range list {
		if o.Measure == p.Measure && o.Side == p.Side.Other() && val(o) > val(p) {
			return o.Side
		}
	}
	return p.Side
}

// notes says what the readings suggest beyond single muscles.
func notes(list []ROM) []string {
	out := []string{}
	for _, side := range bothSides {
		loss := map[ids.Movement]float64{}
		even := true
		for _, r := range list {
			ref, ok := progress.Reference(r.Movement, 0)
			if r.Side != side || !ok || r.Active == nil || r.Passive == nil || joint(r.Movement) != "shoulder" {
				continue
			}
			loss[r.Movement] = 1 - *r.Passive/ref
			even = even && math.Abs(*r.Passive-*r.Active) < 10
		}
		er, ok1 := loss["shoulder.external-rotation"]
		ab, ok2 := loss["shoulder.abduction"]
		ir, ok3 := loss["shoulder.internal-rotation"]
		if ok1 && ok2 && ok3 && even && er > ab && ab > ir && er >= 0.25 && ab >= 0.15 {
			out = append(out, fmt.Sprintf("Stiff shoulder, %s? Active and passive range are equally short, outward turn most, then raising sideways, then inward turn: the capsule's order. Nothing is forced in its painful stage.", side))
		}
	}
	return out
}

func plain(id string) string   { return strings.NewReplacer("-", " ", ".", " ").Replace(id) }
func sentence(s string) string { return strings.ToUpper(s[:1]) + s[1:] }
