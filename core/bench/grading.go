package bench

import (
	"fmt"
	"slices"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
)

// Working values of a simulated client under a hand; numbers are in thousandths.
const (
	stepMS       = 100
	steadyMS     = 6_000 // a place gives under pressure that has not risen for so long
	longestHold  = 30 * 60 * 1000
	contactN     = 20      // tenths: the hand is on
	guardsAt     = 320     // tenths: more makes the client guard
	guardsRise   = 60      // and so does such a rise within guardsWithin
	guardsWithin = 300     // ms
	guardsFor    = 6_000   // ms
	guardAdds    = 2_000   // thousandths
	outcryAt     = 8_000   // the client speaks without being asked
	outcryEvery  = 4_000   // ms
	askEvery     = 15_000  // numbers older than that are not known any more
	followWithin = 5_000   // ms
	flushMS      = 15_000  // the least that a hand stays off for the blood to come back
	lettingGo    = 80      // tenths: more than that is let go slowly
	lettingGoMS  = 500     // within less it is sudden
	mayOverrun   = 20_000  // ms past the cap that score nothing
	mayHurt      = 10_000  // ms above the hard ceiling that score nothing
	signFrom     = 160     // tenths: so much beside a structure gives its sign
	signEvery    = 8_000   // ms
	signNearMM   = 10      // a structure of the case that is not nearer gives none
	unheardOf    = 1 << 40 // longer ago than anything
)

// relief is how far a number falls under pressure that suits, in thousandths of it, and in how many
// ms two thirds of that are reached.
var relief = map[string]struct{ to, within int64 }{
	"quick": {900, 10_000}, "slow": {900, 40_000}, "needs-slack": {250, 40_000}, "hyperirritable": {900, 8_000},
	"stubborn": {0, 10_000}, "sham": {0, 10_000},
}

// slackening protocols bring the ends of a muscle closer, which some points need.
var slackening = []ids.Protocol{"slack-hold", "breath-sink", "broad-first"}

// hold is one hold under way: its times run from began. All sums are of ms under the hand.
//
// The client's number is a product of tenderness, force above the first resistance, and what is left
// of it: relieved grows toward the response's share while the pressure suits, and never falls back;
// sore grows past the cap and stays.
//

type hold struct {
	*session
	point    TruePoint
	protocol ids.Protocol
	coach    *treat.Coach
	start    treat.Start

	began                   int64 // ms of the exercise
	now, force, wasAt       int64 // ms of the hold; tenths of a newton now; when it was set
	relieved, sore          int64 // thousandths
	roseAt                  int64 // when the force last grew
	guardUntil, cried       int64
	askedAt                 int64
	on                      bool
	pressed, inBand         int64 // ms
	overSoft, overHard      int64
	unasked                 int64
	sudden, advised, obeyed int64
	flush                   bool // it was asked for
	flushed                 bool // the hand stayed off for it
	offAt                   int64
	signs, answered         int64
	signAt                  int64 // when the client last felt one; unheardOf ago where none waits
	moved                   bool  // off the structure
	waiting                 *waiting
	phase                   treat.Phase
	last                    treat.Advice // of those, while it stands
}

// waiting is an advice to do less that has not been followed yet.
type waiting struct {
	advice treat.Advice
	since  int64
	force  int64
}

func grading(s *session) exercise { return newHold(s, s.in.Protocol) }

// newHold begins one now, on the point that helps, or on the one that there is.
func newHold(s *session, protocol ids.Protocol) *hold {
	h := &hold{
		session: s, protocol: protocol, began: s.at, askedAt: -unheardOf, cried: -unheardOf, signAt: -unheardOf,
		offAt: -unheardOf,
	}
	h.point = s.c.underHand()
	if h.protocol == "" {
		h.protocol = s.c.Protocol
	}
	if h.protocol == "" {
		h.protocol = "hold-to-release"
	}
	start, err := treat.NewStart(treat.Request{Protocol: h.protocol, Muscle: h.point.Muscle, Side: h.point.Side})
	if err == nil {
		h.start, h.coach = start, treat.NewCoach(start)
	}
	return h
}

// underHand is the place that is pressed: the sore one, if its source lies elsewhere, for that it does
// not give is to be noticed; else the last one that helps, else the first that there is.
func (c ClientCase) underHand() TruePoint {
	out := TruePoint{Muscle: "upper-trapezius", Side: ids.Right, Response: "sham", Tenderness: 1, AlongPct: 50}
	if len(c.Truth.Points) > 0 {
		out = c.Truth.Points[0]
	}
	for _, p := range c.Truth.Points {
		if p.Response == "stubborn" || p.primary() && out.Response != "stubborn" {
			out = p
		}
	}
	return out
}

func (h *hold) act(a *LearnerAction) *decode.Error {
	switch {
	case h.coach == nil:
		return &decode.Error{
			Path: ".action", Given: string(h.protocol),
			Allowed: "a protocol that this muscle may have",
		}
	case a.ms-h.began > longestHold:
		return &decode.Error{Path: ".t", Given: a.T.String(), Allowed: "within half an hour"}
	}
	h.advance(a.ms - h.began)
	switch a.Action {
	case "press":
		if a.ForceN == nil {
			return &decode.Error{Path: ".force_n", Given: "nothing", Allowed: "newtons, 0 to 100"}
		}
		h.press(int64(*a.ForceN * 10))
	case "ask":
		h.answer()
	case "sign":
		h.sign()
	case "move":
		h.moved, h.signAt = true, -unheardOf
	case "stop":
		h.press(0)
		h.tell(treat.Event{At: h.now, Kind: treat.KindEnd})
	default:
		return &decode.Error{Path: ".action", Given: a.Action, Allowed: "press, ask, sign, move, stop or finish"}
	}
	return nil
}

// sign notes that the learner heard what the client feels of a structure; said in time, it counts.
func (h *hold) sign() {
	if h.now-h.signAt <= followWithin {
		h.answered++
	}
	h.signAt = -unheardOf
	h.tell(treat.Event{At: h.now, Kind: treat.KindNerveSign})
}

// near is the structure of the case that this hold comes too near to.
func (h *hold) near() (safety.Structure, bool) {
	if h.moved {
		return safety.Structure{}, false
	}
	for _, n := range h.c.Truth.Near {
		if n.MM <= signNearMM {
			return safety.FindStructure(n.Structure)
		}
	}
	return safety.Structure{}, false
}

// feels has the client say what is felt of a structure, again and again while it is pressed on; one
// that was left unheard is marked.
func (h *hold) feels() {
	since := h.now - h.signAt
	if h.signAt >= 0 && since == followWithin+stepMS {
		h.mark("sign-missed", "The client felt something that is not the muscle; it was not answered within 5 s.")
	}
	if h.force < signFrom || h.signAt >= 0 && since < signEvery {
		return
	}
	if s, ok := h.near(); ok {
		h.signs++
		h.signAt = h.now
		h.told(ClientTold{Says: s.Sign, Shows: &ClientShown{Structure: s.ID}})
	}
}

// told puts what the client says at this moment of the hold.
func (h *hold) told(t ClientTold) {
	t.T = seconds(h.began + h.now)
	h.out.Client = append(h.out.Client, t)
}

// mark is at this moment of the hold.
func (h *hold) mark(rule, text string) {
	h.out.Marks = append(h.out.Marks, LearnerMark{seconds(h.began + h.now), rule, text})
}

// wait lives on to a time of the exercise.
func (h *hold) wait(ms int64) {
	if h.coach != nil {
		h.advance(min(ms-h.began, longestHold))
	}
}

// Line is what the coach says now.
func (h *hold) line() treat.Line { return h.coach.At(h.now) }

// press changes the force under the hand.
func (h *hold) press(force int64) {
	since := h.now - h.wasAt
	if rise := force - h.force; force > guardsAt || rise > guardsRise && since < guardsWithin && h.on {
		h.guardUntil = h.now + guardsFor
		h.mark("guarding", "Too hard or too fast: the client guards, and it hurts more for some seconds.")
	}
	if h.force-force > lettingGo && force < contactN && since < lettingGoMS {
		h.sudden++
		h.mark("sudden-release", "Let go at once: release slowly.")
	}
	if h.waiting != nil && force < h.waiting.force {
		h.obeyed++
		h.waiting = nil
	}
	if force > h.force {
		h.roseAt = h.now
	}
	h.force, h.wasAt = force, h.now
	switch {
	case !h.on && force >= contactN:
		h.on = true
		h.askedAt = max(h.askedAt, h.now) // the first number may wait as long as the next ones
		h.tell(treat.Event{At: h.now, Kind: treat.KindContact})
	case h.on && force < contactN:
		h.on, h.offAt = false, h.now
		h.tell(treat.Event{At: h.now, Kind: treat.KindRelease})
	}
}

// advance lives through the time to an action, step by step.
func (h *hold) advance(to int64) {
	for ; h.now+stepMS <= to; h.now += stepMS {
		h.step()
	}
	h.now = max(h.now, to)
}

func (h *hold) step() {
	n := h.number()
	if h.on {
		h.pressed += stepMS
		h.ease(n)
		limits := h.start.Limits
		soft, hard, target := int64(limits.Soft*1000), int64(limits.Hard*1000), int64(limits.Target*1000)
		switch {
		case n > hard:
			h.overHard += stepMS
		case n > soft:
			h.overSoft += stepMS
		}
		if n <= soft && n >= target-2000 {
			h.inBand += stepMS
		}
		if h.now-h.askedAt > askEvery {
			h.unasked += stepMS
		}
	}
	if n >= outcryAt && h.now-h.cried >= outcryEvery {
		h.cried = h.now
		h.told(ClientTold{Says: "Too much!"})
		h.tell(treat.Event{At: h.now, Kind: treat.KindScore, Score: float64(min(10, (n+500)/1000))})
	}
	h.feels()
	h.look()
}

// number is the client's, in thousandths.
func (h *hold) number() int64 {
	over := h.force - firstTenthsN
	if over <= 0 {
		return min(10_000, h.sore/2)
	}
	pain := int64(h.point.Tenderness) * 2000 * min(1500, 2000*over/(3*firstTenthsN)) / 1000
	pain = pain * (1000 - h.relieved) / 1000
	if h.now < h.guardUntil {
		pain += guardAdds
	}
	return min(10_000, pain+h.sore)
}

// ease lets the number fall under suitable pressure, and makes the place sore past the cap.
func (h *hold) ease(n int64) {
	r := relief[h.point.Response]
	switch {
	case h.point.Response == "needs-slack" && slices.Contains(slackening, h.protocol):
		r.to = 900
	case h.point.Response == "hyperirritable" && n > 4499:
		r.to = 0
	}
	steady := h.now-h.roseAt >= steadyMS
	if h.phase == treat.PhaseSlacken { // shortening the muscle takes most of it away at once
		r.to, r.within, steady = max(r.to, 700), 8_000, true
	}
	if h.force > firstTenthsN && steady && r.to > h.relieved {
		h.relieved += max(1, (r.to-h.relieved)*stepMS/r.within)
	}
	if h.pressed > h.start.Limits.CapMS {
		h.sore += 2
	}
}

// answer is what the client says when asked.
func (h *hold) answer() {
	h.askedAt = h.now
	n := (h.number() + 500) / 1000
	h.told(ClientTold{Says: fmt.Sprint(n)})
	if h.on {
		h.tell(treat.Event{At: h.now, Kind: treat.KindScore, Score: float64(n)})
	}
}

func (h *hold) tell(e treat.Event) { h.heed(h.coach.Apply(e)) }

func (h *hold) look() { h.heed(h.coach.At(h.now)) }

// less are advices after which a hand presses less.
var less = []treat.Advice{treat.EaseOff, treat.ReleaseSlowly, treat.MoveOff, treat.Stop, treat.Rest, treat.Done}

// heed notes an advice to do less, and one that was not followed in time; and that a flush was asked
// for, and whether the hand stayed off for all of it.
func (h *hold) heed(l treat.Line) {
	h.phase = l.Phase
	switch {
	case l.Phase == treat.PhaseFlush:
		h.flush = true
	case h.flush && !h.on && h.now-h.offAt >= flushMS:
		h.flushed = true
	}
	if w := h.waiting; w != nil && h.now-w.since > followWithin {
		words := fmt.Sprintf("The coach said “%s”; nothing changed for 5 s.", w.advice)
		h.mark("advice-not-followed", words)
		h.waiting = nil
		return
	}
	if len(l.Advice) == 0 || h.waiting != nil || h.force < contactN {
		return
	}
	if slices.Contains(less, l.Advice[0]) && h.last != l.Advice[0] {
		h.advised++
		h.waiting = &waiting{l.Advice[0], h.now, h.force}
		h.last = l.Advice[0]
	} else if !slices.Contains(less, l.Advice[0]) {
		h.last = ""
	}
}

func (h *hold) score(into map[string]float64) {
	for _, k := range []string{
		"ceilings", "in_band", "asked", "time", "release", "followed", "signs", "flush",
		"rightly",
	} {
		into[k] = 0
	}
	treat := h.c.Best == "treat"
	switch {
	case h.pressed == 0 && h.done && !treat: // left untreated, as it should be
		for k := range into {
			into[k] = 1
		}
		return
	case h.pressed == 0:
		return
	case treat:
		into["rightly"] = 1
	default:
		h.mark("not-to-press", "Nothing here gets better by pressing: "+map[string]string{
			"refer": "it has to be looked at by somebody else first.", "nothing": "there is no point to be found.",
		}[h.c.Best])
	}
	into["ceilings"] = falling(h.overHard*2+h.overSoft/2, 0, mayHurt)
	into["in_band"] = share(1000 * h.inBand / h.pressed)
	into["asked"] = share(1000 * (h.pressed - h.unasked) / h.pressed)
	into["time"] = falling(max(0, h.pressed-h.start.Limits.CapMS), 0, mayOverrun)
	into["release"] = falling(h.sudden, 0, 1)
	into["followed"] = 1
	if h.advised > 0 {
		into["followed"] = share(1000 * h.obeyed / h.advised)
	}
	into["signs"], into["flush"] = 1, 1
	if h.signs > 0 {
		into["signs"] = share(1000 * h.answered / h.signs)
	}
	if h.flush && !h.flushed && h.now-h.offAt < flushMS {
		into["flush"] = 0
		h.mark("no-flush", "The hand came back, or it ended, before the blood had come back.")
	}
	if h.overHard > 0 {
		h.mark("over-hard-ceiling", fmt.Sprintf("%d s above the hard ceiling of %g.", h.overHard/1000,
			h.start.Limits.Hard))
	}
}

func (h *hold) truth() *ClientShown { c := h.c; return &ClientShown{Case: &c} }
