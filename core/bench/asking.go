package bench

import (
	"fmt"

	"mokren/core/decode"
	"mokren/core/ids"
)

// What a question costs, in seconds, and how long an interview may take: working values.
const (
	openCostS    = 20
	leadingCostS = 10
	goodS        = 6 * 60
	longS        = 20 * 60
)

// interview is the exercise in which the client is asked.
type interview struct {
	*session
	d          dice
	asked      map[ids.Question]bool
	n, leading int64
	costS      int64
	found      int64
}

func asking(s *session) exercise {
	if !s.quiet() {
		s.says(s.c.Story)
	}
	return &interview{session: s, d: newDice(s.in.Seed, forAnswers), asked: map[ids.Question]bool{}}
}

func (i *interview) act(a *LearnerAction) *decode.Error {
	switch {
	case a.Action != "ask" || a.Question == "":
		return &decode.Error{Path: ".action", Given: a.Action, Allowed: "ask with a question, or finish"}
	case a.Form == "":
		return &decode.Error{Path: ".form", Given: "nothing", Allowed: "open or leading"}
	}
	if _, known := questions()[a.Question]; !known {
		return &decode.Error{Path: ".question", Given: string(a.Question), Allowed: "a question of the screening"}
	}
	i.n++
	i.costS += openCostS
	if a.Form == "leading" {
		i.leading++
		i.costS += leadingCostS - openCostS
		i.mark("leading-question", "A leading question: whoever wants to please agrees with it. Ask it openly.")
	}
	yes, said := i.answers(a)
	if yes && isRed(a.Question) && !i.asked[a.Question] {
		i.found++
		i.mark("flag-found", "A red flag was asked for and found.")
	}
	i.asked[a.Question] = i.asked[a.Question] || yes
	i.says(said)
	return nil
}

// answers are by what is true and by how the client is; whether the truth was heard is told too.
func (i *interview) answers(a *LearnerAction) (heard bool, words string) {
	isTrue := false
	for _, q := range i.c.Yes {
		isTrue = isTrue || q == a.Question
	}
	switch {
	case i.c.Behaviour == "pleasing" && a.Form == "leading":
		return isTrue, "Yes, I think so."
	case i.c.Behaviour == "brave" && isTrue && a.Form == "leading":
		return false, "Oh, that is nothing."
	case isTrue:
		return true, "Yes."
	case i.c.Behaviour == "anxious" && i.d.chance(30):
		return false, "I am not sure. Could it be?"
	}
	return false, "No."
}

func (i *interview) score(into map[string]float64) {
	red := int64(0)
	for _, q := range i.c.Yes {
		if isRed(q) {
			red++
		}
	}
	into["flags"] = 1
	if red > 0 {
		into["flags"] = share(1000 * i.found / red)
	}
	into["open"], into["minutes"] = 0, 0
	if i.n > 0 {
		into["open"] = share(1000 * (i.n - i.leading) / i.n)
		into["minutes"] = falling(i.costS, goodS, longS)
	}
	if missed := red - i.found; i.done && missed > 0 {
		i.mark("flag-missed", fmt.Sprintf("%d of %d red flags were not asked for.", missed, red))
	}
}

func (i *interview) truth() *ClientShown { c := i.c; return &ClientShown{Case: &c} }
