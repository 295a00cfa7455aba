package treat

import "mokren/core/strict"

// RulesVersion names the rules that a new hold is begun under. It goes into
// every start event; it changes whenever the same log could give another
// outcome, and the rules that were stay below, so that a hold once recorded
// comes to the same for ever (testdata holds logs of every version).
const RulesVersion = "2026-12"

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
}

var rulebooks = map[string]rulebook{
	"2026-11":    {suddenInFloats: true, signInFlushIgnored: true, undoTakesAny: true, twoNervesClose: true},
	RulesVersion: {},
}

// Replayer gives the coach for a recorded hold, with the rules that its start
// names. Of today it asks nothing but whether those rules are still known; the
// error is a *strict.Error at "$.rules_version" or "$.protocol".
func Replayer(s Start) (*Coach, error) {
	if _, ok := rulebooks[s.Rules]; !ok {
		return nil, &strict.Error{
			Path: "$.rules_version", Given: `"` + s.Rules + `"`, Allowed: "rules that this program can replay",
		}
	}
	if _, err := coached(s.Protocol); err != nil {
		return nil, err
	}
	return NewCoach(s), nil
}
