package assess

import (
	"strings"
	"sync"

	"mokren/core/atlas"
	"mokren/core/ids"
)

// test adds a positive or a negative result. Unclear says nothing, and is not the same as
// negative.
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

// ratioOf: a resisted action weighs as a painful contraction, every other test as a length
// test.
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
	for _, mu := range testMuscles()[t] {
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

// actors lists which muscles that may be pressed do a movement.
var actors = sync.OnceValue(func() map[ids.Movement][]actor {
	out := map[ids.Movement][]actor{}
	for _, mu := range atlas.All() {
		if !mu.IsPressed() {
			continue
		}
		for _, a := range mu.Actions {
			out[a.Movement] = append(out[a.Movement], actor{mu.ID, a})
		}
	}
	return out
})

// MuscleOn is a muscle on a side.
type MuscleOn struct {
	Muscle ids.Muscle
	Side   ids.Side
}

// TestSpeaksOf are the muscles for which a positive test on a side speaks.
func TestSpeaksOf(t ids.Test, side ids.Side) []MuscleOn {
	var out []MuscleOn
	for _, x := range newModel(Weights{}).targets(t, side) {
		out = append(out, MuscleOn{x.h.muscle.ID, x.h.side})
	}
	return out
}
