package treat

import "mokren/core/decode"

// RulesVersion names the rules that a new hold is begun under. It goes into
// every start event; it changes whenever the same log could give another
// outcome, and the rules that were stay below, so that a hold once recorded
// comes to the same for ever (testdata holds logs of every version).
const RulesVersion = "2027-03"

// lastRules may still begin a hold: a tablet that was offline at an upgrade brings them.
const lastRules = "2027-02"

// rulebook is what one version of the rules does otherwise than today's; the
// zero value is today's.
type rulebook struct {
	// suddenInFloats: the 5 s of a sudden fall were compared as binary
	// fractions, so that a fall at exactly 5.000 s was missed at some times.
	suddenInFloats bool
	// signInFlushIgnored: a nerve sign or pulse in a flush took the pending
	// return away, and the line said that nothing had changed.
	signInFlushIgnored bool
	// undoTakesAny: undo took the last event of whatever source, a stop too.
	undoTakesAny bool
	// twoNervesClose: only a second nerve sign closed the site in the summary.
	twoNervesClose bool
	// runsAlone: a hold that nobody attended ran on past its cap without end.
	runsAlone bool
	// pressesToTheCap: a next press or a return was begun with a second of the cap left.
	pressesToTheCap bool
	first
}

// first is what both versions before 2027-01 do otherwise.
type first struct {
	// noParts: graded stages were the only protocol, and lines knew no parts.
	noParts bool
	// calmIsTwo: calm was 2 at every target, and released whatever came before.
	calmIsTwo bool
	// sinksOn: rule 3 sank without end above a calm score.
	sinksOn bool
	// checksAgain: a second calm score did not confirm a sudden fall.
	checksAgain bool
	// tiesWait: a deadline with the same timestamp as an event fired after it, whether or
	// not the event was an answer.
	tiesWait bool
}

var asFirst = first{noParts: true, calmIsTwo: true, sinksOn: true, checksAgain: true, tiesWait: true}

var rulebooks = map[string]rulebook{
	"2026-11": {
		suddenInFloats: true, signInFlushIgnored: true, undoTakesAny: true, twoNervesClose: true, runsAlone: true,
		pressesToTheCap: true, first: asFirst,
	},
	"2026-12":    {runsAlone: true, pressesToTheCap: true, first: asFirst},
	"2027-01":    {runsAlone: true, pressesToTheCap: true},
	lastRules:    {pressesToTheCap: true},
	RulesVersion: {},
}

// recordOnly is the word on what changes nothing.
func (r *rulebook) recordOnly(k Kind) string {
	switch {
	case k == KindBreath:
		return "Breath recorded."
	case r.noParts:
		return "Recorded; graded stages count no repetitions."
	}
	return "Recorded; nothing is counted here."
}

// Replayer gives the coach for a recorded hold, with the rules that its start
// names. Of today it asks nothing but whether those rules are still known; the
// error is a *decode.Error at "$.rules_version" or "$.protocol".
func Replayer(s Start) (*Coach, error) {
	if _, ok := rulebooks[s.Rules]; !ok {
		return nil, &decode.Error{
			Path: "$.rules_version", Given: `"` + s.Rules + `"`, Allowed: "rules that this program can replay",
		}
	}
	if _, err := coached(s.Protocol); err != nil {
		return nil, err
	}
	if s.Plan == nil && !rulebooks[s.Rules].noParts {
		return nil, &decode.Error{Path: "$.plan", Given: "nothing", Allowed: "the resolved plan"}
	}
	return NewCoach(s), nil
}
