package bench

import (
	"fmt"
	"slices"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/treat"
)

// Working values of a simulated client under a hand; numbers are in thousandths.
const (
	stepMS       = 100
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
	lettingGo    = 80      // tenths: more than that is let go slowly
	lettingGoMS  = 500     // within less it is sudden
	mayOverrun   = 20_000  // ms past the cap that score nothing
	mayHurt      = 10_000  // ms above the hard ceiling that score nothing
	unheardOf    = 1 << 40 // longer ago than anything
)

// relief is how far a number falls under pressure that suits, in thousandths of it, and in how many
// ms two thirds of that are reached.
var relief = map[string]struct{ to, within int64 }{
	"quick": {900, 10_000}, "slow": {900, 40_000}, "needs-slack": {250, 40_000}, "hyperirritable": {800, 20_000},
	"stubborn": {0, 10_000}, "sham": {0, 10_000},
}

// slackening protocols bring the ends of a muscle closer, which some points need.
var slackening = []ids.Protocol{"slack-hold", "breath-sink", "broad-first"}

// hold is the exercise in which a simulated client is pressed by the real coach.
type hold struct {
	*session
	point    TruePoint
	protocol ids.Protocol
	coach    *treat.Coach
	start    treat.Start

	now, force, wasAt    int64 // ms; tenths of a newton now; when it was set
	relieved, sore       int64 // thousandths
	guardUntil, cried    int64
	askedAt              int64
	on                   bool
	pressed, inBand      int64 // ms
	overSoft, overHard   int64
	unasked              int64
	sudden, told, obeyed int64
	waiting              *waiting
	last                 treat.Advice // of those, while it stands
}

// waiting is an advice to do less that has not been followed yet.
type waiting struct {
	advice treat.Advice
	since  int64
	force  int64
}

func grading(s *session) exercise {
	h := &hold{session: s, protocol: s.in.Protocol, askedAt: -unheardOf, cried: -unheardOf}
	if len(s.c.Truth.Points) > 0 {
		h.point = s.c.Truth.Points[0]
	} else {
		h.point = TruePoint{Muscle: "upper-trapezius", Side: ids.Right, Response: "sham", Tenderness: 1}
	}
	for _, p := range s.c.Truth.Points {
		if p.primary() {
			h.point = p
			break
		}
	}
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

func (h *hold) act(a *LearnerAction) *decode.Error {
	switch {
	case h.coach == nil:
		return &decode.Error{
			Path: ".action", Given: string(h.protocol),
			Allowed: "a protocol that this muscle may have",
		}
	case a.ms > longestHold:
		return &decode.Error{Path: ".t", Given: a.T.String(), Allowed: "within half an hour"}
	}
	h.advance(a.ms)
	switch a.Action {
	case "press":
		if a.ForceN == nil {
			return &decode.Error{Path: ".force_n", Given: "nothing", Allowed: "newtons, 0 to 100"}
		}
		h.press(int64(*a.ForceN * 10))
	case "ask":
		h.answer()
	case "stop":
		h.tell(treat.Event{At: h.now, Kind: treat.KindRelease})
		h.press(0)
	default:
		return &decode.Error{Path: ".action", Given: a.Action, Allowed: "press, ask, stop or finish"}
	}
	return nil
}

// press changes the force under the hand.
func (h *hold) press(force int64) {
	since := h.now - h.wasAt
	if rise := force - h.force; force > guardsAt || rise > guardsRise && since < guardsWithin && h.on {
		h.guardUntil = h.now + guardsFor
		h.session.mark("guarding", "Too hard or too fast: the client guards, and it hurts more for some seconds.")
	}
	if h.force-force > lettingGo && force < contactN && since < lettingGoMS {
		h.sudden++
		h.session.mark("sudden-release", "Let go at once: release slowly.")
	}
	if h.waiting != nil && force < h.waiting.force {
		h.obeyed++
		h.waiting = nil
	}
	h.force, h.wasAt = force, h.now
	switch {
	case !h.on && force >= contactN:
		h.on = true
		h.tell(treat.Event{At: h.now, Kind: treat.KindContact})
	case h.on && force < contactN:
		h.on = false
	}
}

// advance lives through the time to an action, step by step.
func (h *hold) advance(to int64) {
	for ; h.now+stepMS <= to; h.now += stepMS {
		h.step()
	}
	h.now = to
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
		h.out.Client = append(h.out.Client, ClientTold{T: seconds(h.now), Says: "Too much!"})
		h.tell(treat.Event{At: h.now, Kind: treat.KindScore, Score: float64(min(10, (n+500)/1000))})
	}
	h.look()
}

// number is the client's, in thousandths.
func (h *hold) number() int64 {
	over := h.force - firstTenthsN
	if over <= 0 {
		return min(10_000, h.sore/2)
	}
	pain := int64(h.point.Tenderness) * 2000 * min(1500, 1000*over/(2*firstTenthsN)) / 1000
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
	case h.point.Response == "hyperirritable" && n > 4000:
		r.to = 0
	}
	if h.force > firstTenthsN && r.to > h.relieved {
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
	h.out.Client = append(h.out.Client, ClientTold{T: seconds(h.now), Says: fmt.Sprint(n)})
	if h.on {
		h.tell(treat.Event{At: h.now, Kind: treat.KindScore, Score: float64(n)})
	}
}

func (h *hold) tell(e treat.Event) { h.heed(h.coach.Apply(e)) }

func (h *hold) look() { h.heed(h.coach.At(h.now)) }

// less are advices after which a hand presses less.
var less = []treat.Advice{treat.EaseOff, treat.ReleaseSlowly, treat.MoveOff, treat.Stop, treat.Rest, treat.Done}

// heed notes an advice to do less, and one that was not followed in time.
func (h *hold) heed(l treat.Line) {
	if w := h.waiting; w != nil && h.now-w.since > followWithin {
		h.session.at = h.now
		words := fmt.Sprintf("The coach said “%s”; nothing changed for 5 s.", w.advice)
		h.session.mark("advice-not-followed", words)
		h.waiting = nil
		return
	}
	if len(l.Advice) == 0 || h.waiting != nil || h.force < contactN {
		return
	}
	if slices.Contains(less, l.Advice[0]) && h.last != l.Advice[0] {
		h.told++
		h.waiting = &waiting{l.Advice[0], h.now, h.force}
		h.last = l.Advice[0]
	} else if !slices.Contains(less, l.Advice[0]) {
		h.last = ""
	}
}

func (h *hold) score(into map[string]float64) {
	for _, k := range []string{"ceilings", "in_band", "asked", "time", "release", "followed"} {
		into[k] = 0
	}
	if h.pressed == 0 {
		return
	}
	into["ceilings"] = falling(h.overHard*2+h.overSoft/2, 0, mayHurt)
	into["in_band"] = share(1000 * h.inBand / h.pressed)
	into["asked"] = share(1000 * (h.pressed - h.unasked) / h.pressed)
	into["time"] = falling(max(0, h.pressed-h.start.Limits.CapMS), 0, mayOverrun)
	into["release"] = falling(h.sudden, 0, 1)
	into["followed"] = 1
	if h.told > 0 {
		into["followed"] = share(1000 * h.obeyed / h.told)
	}
	if h.overHard > 0 {
		h.session.mark("over-hard-ceiling", fmt.Sprintf("%d s above the hard ceiling of %g.", h.overHard/1000,
			h.start.Limits.Hard))
	}
}

func (h *hold) truth() *ClientShown { c := h.c; return &ClientShown{Case: &c} }
