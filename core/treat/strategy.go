package treat

// strategy is how one kind of protocol goes through its parts. Several protocols may share
// one: pulses and short repeats are both paced. Where it stands it keeps itself, in a type
// of its own; what every hold has is in state.
//
// Methods are called with the clock at s.now and with all deadlines before it done; they
// answer through s.say and by entering the next part. What only some strategies mind is an
// interface of its own below; the envelope asks which it has, and else does what is usual.
type strategy interface {
	// clone gives a copy that shares nothing which either may change.
	clone() strategy
	// atNewSpot gives the strategy as it begins at a spot that nothing is known of.
	atNewSpot(s *state) strategy
	// begin enters the first part, or the next press, when the hand comes on.
	begin(s *state)
	// score judges a score that no rule of the envelope (ceilings, sudden fall, rise) took.
	score(s *state, v float64)
	// judged is called when "still on it?" was answered: the sudden fall was confirmed, or
	// there was none. The part is halted until this goes on with it.
	judged(s *state)
	// over is called when the time of the part is up, or a rep or breath ends it.
	over(s *state)
	// asks returns how long after contact, and after an answer, a score is asked for, in ms.
	asks(s *state) (first, again int64)
	// progress tells how far it has come, for the line and the summary.
	progress(s *state) progress
}

// progress is how far a strategy has come at this spot.
type progress struct {
	rep, reps int // presses, movements, rounds, breaths, tries; reps 0 where none are counted
	place     int // places or stations along the muscle
	move      int // movements under a kept contact; 0 before the first
	aim       float64
	ramped    int64 // of the ramp, ms
	reduced   bool  // scores fell by two without a stage that shows it
	borne     bool  // what was to be borne was borne
}

// What only some strategies mind.
type (
	// rings: something falls due within a part. alarm returns its time, ms from the start,
	// or never; rang acts.
	rings interface {
		alarm(s *state) int64
		rang(s *state)
	}
	// lightens: it can go one step back, after a rise or a ceiling.
	lightens interface{ lighter(s *state) }
	// softens: softening under the hand means something. ignored is why it changes nothing,
	// or "".
	softens interface {
		softened(s *state) (ignored string)
	}
	// takesTrend: less or same is asked before the score, when trendFirst says so.
	takesTrend interface {
		trendFirst(s *state) bool
		trend(s *state, word string) (ignored string)
	}
	// expectsMore: the score may grow while the force does. takesMore deals with "more" and
	// reports whether it did; rises reports whether a score is a rise all the same.
	expectsMore interface {
		takesMore(s *state) bool
		rises(s *state, v float64) bool
	}
	// listens: it needs each score, whatever the envelope makes of it.
	listens interface{ heard(v float64) }
	// measures: a range in degrees, the last of s.kept.ranges, can end it.
	measures interface {
		measured(s *state) (ignored string)
	}
	// mindsGuarding: called when the client guards for the first time.
	mindsGuarding interface{ guarded(s *state) }
	// judgesCap: reaching the cap means more than coming off.
	judgesCap interface{ capped(s *state) }
	// lowers sets the limits of the one return and keeps the strategy for it.
	lowers interface{ lower(s *state) }
	// flows: called when ms of a part have passed without a deadline, as a ramp rises.
	flows interface{ flow(s *state, ms int64) }
	// waits: a broken stage waits so many ms for a new baseline, not for ever.
	waits interface{ settles(s *state) int64 }
)

// strategies are the kinds there are, by the name that a plan gives, as they begin.
var strategies = map[string]strategy{
	"stages":     &graded{},
	"steady":     &steady{},
	"paced":      &paced{},
	"ramped":     &ramped{},
	"brief":      &brief{},
	"positional": &positional{},
	"breath":     &breath{},
	"pinned":     &pinned{},
	"movements":  &movements{},
	"rounds":     &rounds{},
	"stations":   &stations{},
	"broad":      &broad{},
}

// plain is what most strategies do alike. It keeps nothing.
type plain struct{}

// judged takes the part up again.
func (plain) judged(s *state) {
	s.goOn()
	s.say(0, "Hold still.", "Still on it.", Hold)
}

// over: the parts that come here are open, and end by a score or the cap.
func (plain) over(*state) {}

func (plain) asks(*state) (first, again int64) { return firstAskAfter, askAfter }

// silent asks at no time by itself; the parts ask when they end.
func silent() (first, again int64) { return never, never }
