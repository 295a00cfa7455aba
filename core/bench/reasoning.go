package bench

import (
	"fmt"
	"slices"

	"mokren/core/assess"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/wording"
)

// What is asked for and measured costs seconds: working values.
const (
	storyCostS   = 60
	drawingCostS = 60
	rangeCostS   = 45
	testCostS    = 60
	testErrsPct  = 10 // a test says the contrary so often
	briefS       = 4 * 60
	tediousS     = 20 * 60
)

// inference is the exercise in which a learner says what it is.
type inference struct {
	*session
	f       assess.Findings
	d       dice
	costS   int64
	answers []NamedCause
	named   bool
	tests   map[string]string // what came of each, which stays
}

func reasoning(s *session) exercise {
	return &inference{
		session: s, tests: map[string]string{}, f: s.c.Findings(s.in.Seed), d: newDice(s.in.Seed, forAnswers),
	}
}

func (r *inference) act(a *LearnerAction) *decode.Error {
	if r.named {
		return &decode.Error{Path: ".action", Given: a.Action, Allowed: "finish: it was named"}
	}
	switch a.Action {
	case "ask":
		return r.ask(a)
	case "test":
		return r.test(a)
	case "name":
		return r.name(a)
	}
	return &decode.Error{Path: ".action", Given: a.Action, Allowed: "ask, test, name or finish"}
}

func (r *inference) ask(a *LearnerAction) *decode.Error {
	switch a.What {
	case "story":
		r.costS += storyCostS
		r.says(r.c.Story)
	case "drawing":
		r.costS += drawingCostS
		var pain []PainOf
		for _, p := range r.f.Pain {
			pain = append(pain, PainOf{p.Region, p.Side, int(p.Intensity)})
		}
		r.shows(ClientShown{Pain: pain})
	default:
		return &decode.Error{Path: ".what", Given: a.What, Allowed: "story or drawing"}
	}
	return nil
}

// special is a test of the evidence: positive where it speaks for a muscle that is the source, but for
// its own error.
func (r *inference) special(a *LearnerAction) *decode.Error {
	of := assess.TestSpeaksOf(a.Test, a.Side)
	if a.Side == "" || len(of) == 0 {
		return &decode.Error{Path: ".test", Given: string(a.Test), Allowed: "a test of the evidence and its side"}
	}
	r.costS += testCostS
	key := string(a.Test) + " " + string(a.Side)
	if r.tests[key] == "" {
		positive := slices.ContainsFunc(r.c.Truth.Points, func(p TruePoint) bool {
			return p.primary() && slices.Contains(of, assess.MuscleOn{Muscle: p.Muscle, Side: p.Side})
		})
		r.tests[key] = "negative"
		if positive != r.d.chance(testErrsPct) {
			r.tests[key] = "positive"
		}
	}
	r.shows(ClientShown{Test: a.Test, Side: a.Side, Result: r.tests[key]})
	return nil
}

func (r *inference) test(a *LearnerAction) *decode.Error {
	if a.Test != "" {
		return r.special(a)
	}
	if a.Movement == "" || a.Side == "" {
		return &decode.Error{Path: ".movement", Given: string(a.Movement), Allowed: "a movement and its side"}
	}
	deg, known := r.c.Reading(a.Movement, a.Side, r.d)
	for _, x := range r.f.ROM { // measured twice, it is what it was
		if x.Movement == a.Movement && x.Side == a.Side {
			deg = *x.Active
		}
	}
	if !known {
		return &decode.Error{Path: ".movement", Given: string(a.Movement), Allowed: "a movement that has a usual range"}
	}
	r.costS += rangeCostS
	r.shows(ClientShown{Movement: a.Movement, Side: a.Side, Deg: &deg})
	return nil
}

func (r *inference) name(a *LearnerAction) *decode.Error {
	if len(a.Answers) == 0 {
		return &decode.Error{Path: ".answers", Given: "none", Allowed: "one to three"}
	}
	r.answers, r.named = a.Answers, true
	for _, x := range a.Answers {
		if ok := r.right(x); !ok && x.Percent >= sure {
			r.mark("sure-and-wrong", fmt.Sprintf("%s, said with %d %%: it is not.", sentence(r.words(x)), x.Percent))
		}
	}
	return nil
}

// sure is a confidence at which a wrong answer is worth a mark.
const sure = 70

func (r *inference) words(a NamedCause) string {
	switch a.Is {
	case "muscle":
		return "the " + wording.OnSide(wording.Plain(a.Muscle), a.Side)
	case "nothing":
		return "nothing to press"
	}
	return "to be referred"
}

func (r *inference) right(a NamedCause) bool {
	if a.Is != "muscle" {
		return a.Is == r.c.Best
	}
	for _, p := range r.c.Truth.Points {
		if p.primary() && p.Muscle == a.Muscle && p.Side == a.Side {
			return true
		}
	}
	return false
}

// statements are all that is judged as true or not: every answer, and every truth that was not
// named, said with 0 %.
func (r *inference) statements() []statement {
	var out []statement
	for _, a := range r.answers {
		out = append(out, statement{a.Percent, r.right(a)})
	}
	named := func(is string, m ids.Muscle, side ids.Side) bool {
		for _, a := range r.answers {
			if a.Is == is && a.Muscle == m && a.Side == side {
				return true
			}
		}
		return false
	}
	if r.c.Best != "treat" && !named(r.c.Best, "", "") {
		out = append(out, statement{0, true})
	}
	for _, p := range r.c.Truth.Points {
		if p.primary() && !named("muscle", p.Muscle, p.Side) {
			out = append(out, statement{0, true})
		}
	}
	return out
}

// statement is something that was said with a confidence, and whether it is so.
type statement struct {
	percent int
	isSo    bool
}

// brier is the mean of squared differences, in millionths.
func brier(list []statement) int64 {
	sum := int64(0)
	for _, s := range list {
		d := int64(s.percent)
		if s.isSo {
			d = 100 - d
		}
		sum += d * d * 100
	}
	return sum / int64(len(list))
}

func (r *inference) score(into map[string]float64) {
	into["found"], into["confidence"], into["economy"] = 0, 0, 0
	if !r.named {
		return
	}
	for _, a := range r.answers {
		if r.right(a) {
			into["found"] = 1
		}
	}
	into["confidence"] = share(1000 - brier(r.statements())/1000)
	into["economy"] = falling(r.costS, briefS, tediousS)
	if into["found"] == 0 {
		r.mark("not-named", "What it was is not among your answers.")
	}
}

// truth has the case and what the engine makes of the same findings, in whole percent.
func (r *inference) truth() *ClientShown {
	c := r.c
	out := &ClientShown{Case: &c}
	ranking := assess.Rank(r.f, assess.Weights{})
	if len(ranking.Next) > 0 {
		out.Separates = wording.OnSide(ranking.Next[0].Name, ranking.Next[0].Side)
	}
	for i, s := range ranking.Suspects {
		if i == among {
			break
		}
		out.Engine = append(out.Engine, Suspected{s.Muscle, s.Side, int(s.Confidence*100 + 0.5)})
	}
	return out
}
