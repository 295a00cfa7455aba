package treat

import "fmt"

// What a score means: the ceilings (rule 2), a rise (7), a sudden fall and calm
// (5), a baseline (3). What a protocol makes of the rest is its strategy's.

const (
	suddenWithin = 5 * second
	suddenFall   = 4
	calmScore    = 2
	calmBelow    = 2           // calm is at least this much below the target
	freshFor     = 20 * second // an older score lets nothing deepen
	mostSinks    = 2
)

// calm is the score at which a hold has done its work: 2, or two below the target where the
// target is low. It goes by the target that the hold was begun with, so that easing does not
// move it; narrow has its own.
func (s *state) calm() float64 {
	if s.rules.calmIsTwo {
		return calmScore
	}
	target := s.start.Limits.Target
	if s.part.kind == PhaseNarrow {
		target = s.limits.Target
	}
	return max(0, min(calmScore, target-calmBelow))
}

// fresh reports whether a score of the last 20 s says how it is now. Nothing deepens without.
func (s *state) fresh() bool { return s.scoreAt >= 0 && s.now-s.scoreAt <= freshFor }

// score is a score under pressure: rules 2 to 7, in order of caution. The first that applies
// answers, so a score above the hard ceiling is never read as a rise, and a rise never as a
// baseline. Scores count for the ceilings also where they are compared with nothing.
func (s *state) scored(e Event) string {
	v := e.Score
	s.answer()
	s.kept.trace = append(s.kept.trace, TracePoint{seconds(s.now), v})
	if s.phase == PhaseRelease {
		return "Number recorded; come off first."
	}
	s.heard(v)
	rise := s.compared.runs && parts[s.part.kind].compares && s.rose(v)
	if s.compared.runs {
		s.compared.last = v
		s.stages.open.EndScore = v
	}
	if rise {
		s.rises++
	}
	soft, hard := s.ceilings()
	if v > hard {
		s.overHard++
	}
	switch {
	case v > hard && s.overHard >= 2:
		s.comeOff(2, "eased", nothing, EndedEased,
			fmt.Sprintf("Above %v for the second time: change to a gentler protocol, slow ramp.", hard))
	case rise && s.rises >= 2:
		s.comeOff(7, "eased", nothing, EndedEased, "The number rose at the same pressure for the second time.")
	case v > soft:
		s.ease(2, fmt.Sprintf("Ease off, %v is too much.", v),
			fmt.Sprintf("%v is above the %s ceiling of %v.", v, ceilingName(v, hard), ceiling(v, soft, hard)))
	case rise:
		s.ease(7, "Ease off, it is rising.", fmt.Sprintf("Up to %v at the same pressure.", v))
	case s.phase == PhaseOffSpot:
		return "Number recorded; it counts again when you are back on the spot."
	default:
		s.takeScore(v)
	}
	return ""
}

// takeScore asks about a sudden fall before it is believed: 4 or more within 5 s is more
// often a finger that slipped off, or numbness, than tissue that let go. A second calm score
// answers the question as well as words do.
func (s *state) takeScore(v float64) {
	checking := s.phase == PhaseCheck
	confirmed := checking && v <= s.calm() && !s.rules.checksAgain
	sudden := s.compared.runs && parts[s.part.kind].compares && !confirmed && s.fellSuddenly(v)
	if s.compared.runs {
		s.compared.since = append(s.compared.since, given{s.now, v})
	}
	switch {
	case sudden:
		s.phase = PhaseCheck
		s.halt()
		s.say(5, askSpot, "A fall of 4 or more within 5 s: ask before believing it.", AskStillOn)
		s.said.ask = askSpot
	case checking:
		s.backInPart()
		s.strategy.judged(s)
	default:
		s.strategy.score(s, v)
	}
}

// heard keeps a score with its part.
func (s *state) heard(v float64) {
	s.score, s.scoreAt = v, s.now
	if s.part.first == nil {
		s.part.first = &v
	}
	s.part.last = &v
	if l, ok := s.strategy.(listens); ok {
		l.heard(v)
	}
}

// given is a score with its time in ms.
type given struct {
	at    int64
	score float64
}

// comparison is a stretch at one pressure: its scores are compared with its first. Only
// while it runs do the others count.
type comparison struct {
	runs       bool
	from       int64
	base, last float64
	since      []given // since the baseline, by which a sudden fall is seen
}

// stageLog are the stretches that the record keeps, each with its own baseline.
type stageLog struct {
	number int  // of the stage that runs or ran last, from 1; 0 at a new spot
	again  bool // the one that comes is the one that was broken off, not the next
	open   openStage
	ended  []StageRecord
}

// compare begins a comparison that is not a stage of its own: the first score
// of a part or a step.
func (s *state) compare(v float64) {
	if s.compared.runs {
		return
	}
	s.compared.runs, s.compared.base, s.compared.last = true, v, v
	s.stages.open = openStage{}
	s.compared.since = []given{{s.now, v}}
}

// rose reports whether a score is a rise against the baseline.
func (s *state) rose(v float64) bool {
	if r, ok := s.strategy.(expectsMore); ok {
		return r.rises(s, v)
	}
	return s.roseByOne(v)
}

// roseByOne is rule 7 as most parts have it.
func (s *state) roseByOne(v float64) bool { return v >= s.compared.last+1 }

// ceilings are the plan's in force; slack-hold's test alone has a soft one of
// its own.
func (s *state) ceilings() (soft, hard float64) {
	if s.part.kind == PhaseTest && s.plan.TestSoft > 0 {
		return s.plan.TestSoft, s.limits.Hard
	}
	return s.limits.Soft, s.limits.Hard
}

// ceilingName says which ceiling a score has passed, for the reason.
func ceilingName(v, hard float64) string {
	if v > hard {
		return "hard"
	}
	return "soft"
}

// ceiling is the value of the one that was passed.
func ceiling(v, soft, hard float64) float64 {
	if v > hard {
		return hard
	}
	return soft
}

// fellSuddenly reports a fall of 4 or more within 5 s at the same pressure.
func (s *state) fellSuddenly(v float64) bool {
	for i := len(s.compared.since) - 1; i >= 0; i-- {
		p := s.compared.since[i]
		within := s.now-p.at <= suddenWithin
		if s.rules.suddenInFloats {
			within = seconds(s.now)-seconds(p.at) <= seconds(suddenWithin)
		}
		if !within {
			return false // what came before lies further back
		}
		if p.score-v >= suddenFall {
			return true
		}
	}
	return false
}

// tooLittle is rule 3: below its least a baseline asks to sink a little, twice at
// most; a calm score after that is not tender enough today. It reports whether
// the score was dealt with.
func (s *state) tooLittle(v, least float64) bool {
	spent := s.sinks >= mostSinks
	switch {
	case spent && v <= s.calm() && v < least || s.rules.calmIsTwo && spent && v <= s.calm():
		s.comeOff(3, "", nothing, EndedNotTender, s.notTender())
		if s.phase == PhaseRelease {
			s.said.advice = append(s.said.advice, Flush)
		}
		return true
	case v < least && (!spent || s.rules.sinksOn):
		s.sinks++
		s.say(3, "Sink a little.", s.belowLeast(v, least), SinkSlightly)
		return true
	}
	return false
}

// notTender names the score that was not exceeded, which is lower where the target is low.
func (s *state) notTender() string {
	if s.calm() == calmScore {
		return "Too little tenderness to treat: still 2 or less after sinking twice."
	}
	return fmt.Sprintf("Too little tenderness to treat: still %v or less after sinking twice.", s.calm())
}

// belowLeast is said when a stage would begin too lightly to mean anything.
func (s *state) belowLeast(v, least float64) string {
	return fmt.Sprintf("Only %v: press a little deeper, to %v.", v, least)
}

// beginStage begins a stretch that is compared with its own baseline and kept in
// the record.
func (s *state) beginStage(v float64) {
	if !s.stages.again {
		s.stages.number++
	}
	s.stages.number = max(s.stages.number, 1)
	s.stages.again, s.needBase, s.sinks = false, false, 0
	s.compared = comparison{runs: true, from: s.now, base: v, last: v, since: []given{{s.now, v}}}
	s.stages.open = openStage{counted: true, StageRecord: StageRecord{
		Stage: s.stages.number, StartS: seconds(s.now), EndS: seconds(s.now), StartScore: v, EndScore: v,
	}}
	if s.spotBase == nil {
		s.spotBase = &v
	}
}

// dropped reports whether any stretch of this hold went down by at least one.
func (s *state) dropped() bool {
	if s.compared.runs && s.stages.open.counted && s.compared.base-s.compared.last >= 1 {
		return true
	}
	for _, g := range s.stages.ended {
		if g.StartScore-g.EndScore >= 1 && g.EndedBy != "off-spot" {
			return true
		}
	}
	return false
}

// calmDown is rule 5: calm, so let go.
func (s *state) calmDown() {
	s.believe()
	s.comeOff(5, "calm", nothing, EndedCalm, fmt.Sprintf("Down to %v: let go.", s.compared.last))
}

// believe counts a calm score as released, where this spot began two or more above it. A spot
// that was never more than a little tender has not let go of anything.
func (s *state) believe() {
	if s.rules.calmIsTwo || s.spotBase != nil && *s.spotBase-s.compared.last >= 2 {
		s.released = true
	}
}

// holdFrom: nothing changes yet.
func (s *state) holdFrom() {
	s.say(0, "Hold still.", fmt.Sprintf("%v, from %v.", s.compared.last, s.compared.base), Hold)
}
