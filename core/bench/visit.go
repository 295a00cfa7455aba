package bench

import (
	"mokren/core/decode"
)

// whole is a visit with one client: every other exercise, told apart by what is done. A part begins
// with its first action, so that landmarks are shown only to who asks for them; each hold is one of
// its own. Keys of its score are PART.KEY; a part that was not begun has none.
type whole struct {
	*session
	parts map[string]exercise
	holds []*hold
}

func wholeVisit(s *session) exercise {
	s.says(s.c.Story)
	return &whole{session: s, parts: map[string]exercise{}}
}

// ofVisit are the parts of a visit in their order.
var ofVisit = []string{"landmarks", "asking", "reasoning", "search", "grading"}

func (w *whole) act(a *LearnerAction) *decode.Error {
	switch {
	case a.Action == "hold":
		h := newHold(w.session, a.Protocol)
		if h.coach == nil {
			return &decode.Error{
				Path: ".protocol", Given: string(h.protocol), Allowed: "a protocol that this muscle may have",
			}
		}
		w.holds = append(w.holds, h)
		return nil
	case a.Action == "ask" && a.What == "landmarks":
		w.part("landmarks")
		return nil
	}
	part := partOf(a)
	if part != "grading" {
		return w.part(part).act(a)
	}
	if len(w.holds) == 0 {
		return &decode.Error{Path: ".action", Given: a.Action, Allowed: "hold, before anything that is done in one"}
	}
	return w.holds[len(w.holds)-1].act(a)
}

// partOf says which exercise an action belongs to.
func partOf(a *LearnerAction) string {
	switch a.Action {
	case "touch":
		return "landmarks"
	case "stroke", "mark":
		return "search"
	case "test", "name":
		return "reasoning"
	case "press":
		if a.View != "" {
			return "search"
		}
	case "ask":
		switch {
		case a.Question != "":
			return "asking"
		case a.What != "":
			return "reasoning"
		}
	}
	return "grading"
}

func (w *whole) part(name string) exercise {
	if w.parts[name] == nil {
		w.parts[name] = exercises[name](w.session)
	}
	return w.parts[name]
}

func (w *whole) wait(ms int64) {
	if len(w.holds) > 0 {
		w.holds[len(w.holds)-1].wait(ms)
	}
}

func (w *whole) score(into map[string]float64) {
	for _, name := range ofVisit {
		of := map[string]float64{}
		if e := w.parts[name]; e != nil {
			e.score(of)
		}
		if name == "grading" {
			w.graded(of)
		}
		for k, v := range of {
			into[name+"."+k] = v
		}
	}
}

// graded is the mean over the holds, in thousandths.
func (w *whole) graded(into map[string]float64) {
	sums := map[string]int64{}
	for _, h := range w.holds {
		one := map[string]float64{}
		h.score(one)
		for k, v := range one {
			sums[k] += int64(v*1000 + 0.5)
		}
	}
	for k, sum := range sums {
		into[k] = share(sum / int64(len(w.holds)))
	}
}

func (w *whole) truth() *ClientShown { return w.part("reasoning").truth() }
