package assess

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mokren/core/ids"
	"mokren/core/stable"
)

// A next test is chosen for the leading hypotheses: at most so many, and none
// that is hardly likelier than anybody's muscle.
const (
	leading = 12
	serious = 0.1
)

// entropy of a confidence, in bits.
func entropy(p float64) float64 {
	if p <= 0 || p >= 1 {
		return 0
	}
	return -p*math.Log2(p) - (1-p)*math.Log2(1-p)
}

// next offers the three tests not yet done that are expected to lower the
// total entropy most, and none that the answers forbid. The chance of a positive answer follows from the
// current confidences: sensitivity and false positives from the two ratios, a
// positive when any of the test's muscles gives it.
func (m *model) next(done []TestResult, today []TestToday) []NextTest {
	lead := slices.Clone(m.all)
	stable.Sort(lead, func(a, b *hypothesis) int { // as the suspects are sorted
		return cmp.Or(cmp.Compare(b.conf, a.conf), cmp.Compare(a.muscle.ID, b.muscle.ID), cmp.Compare(a.side, b.side))
	})
	// Muscles that nothing speaks for are not compared.
	lead = slices.DeleteFunc(lead[:min(leading, len(lead))], func(h *hypothesis) bool { return h.conf <= serious })
	matters := map[*hypothesis]bool{}
	for _, h := range lead {
		matters[h] = true
	}
	out := []NextTest{}
	for _, t := range ids.Tests() {
		for _, side := range bothSides {
			if slices.ContainsFunc(done, func(d TestResult) bool {
				return d.Test == t && (d.Side == side ||
					d.Side == ids.Midline)
			}) {
				continue
			}
			word := wordOn(today, t, side)
			if word.Forbidden != "" {
				continue
			}
			targets := m.targets(t, side)
			led := slices.DeleteFunc(slices.Clone(targets), func(x target) bool { return !matters[x.h] })
			if len(led) == 0 {
				continue
			}
			if gain := m.gain(t, led); gain > 1e-6 {
				out = append(out, NextTest{
					t, side, gain, say(t, side, targets, lead), TestName(t), TestHow(t), word.Cautions,
				})
			}
		}
	}
	stable.Sort(out, func(a, b NextTest) int {
		return cmp.Or(cmp.Compare(b.GainBits, a.GainBits), cmp.Compare(a.Test, b.Test), cmp.Compare(a.Side, b.Side))
	})
	return out[:min(3, len(out))]
}

// ChancePositive is how likely a positive answer is, given the confidences of
// the muscles that the test speaks of.
func ChancePositive(r Ratio, confidences []float64) float64 {
	spec := (r.Plus - 1) / (r.Plus - r.Minus)
	sens := r.Plus * (1 - spec)
	quiet := spec
	for _, p := range confidences {
		// Beyond the false positives, what this muscle adds.
		quiet *= 1 - p*(1-(1-sens)/spec)
	}
	return 1 - quiet
}

// gain is the expected drop of the total entropy, by both answers.
func (m *model) gain(t ids.Test, targets []target) float64 {
	r := m.ratioOf(t)
	ps := make([]float64, len(targets))
	now := 0.0
	for i, x := range targets {
		ps[i] = x.h.conf
		now += entropy(ps[i])
	}
	after := func(lr float64) float64 {
		sum := 0.0
		for _, x := range targets {
			// With one more finding in its group, damped as it would be.
			trial := hypothesis{list: slices.Clip(x.h.list)}
			trial.add(x.group, "trial", lr, "")
			sum += entropy(trial.confidence())
		}
		return sum
	}
	pos := ChancePositive(r, ps)
	return max(0, now-pos*after(r.Plus)-(1-pos)*after(r.Minus))
}

// say names what the test would tell apart: the likeliest muscle that it
// speaks of from the likeliest that it does not.
func say(t ids.Test, side ids.Side, targets []target, lead []*hypothesis) string {
	best := targets[0].h
	for _, x := range targets {
		if x.h.conf > best.conf {
			best = x.h
		}
	}
	text := fmt.Sprintf("%s, %s, would speak for or against %s", TestName(t), side, best.muscle.Name)
	for _, h := range lead {
		if !slices.ContainsFunc(targets, func(x target) bool { return x.h.muscle == h.muscle }) {
			return fmt.Sprintf("%s, %s, helps tell %s from %s", TestName(t), side, best.muscle.Name, h.muscle.Name)
		}
	}
	return text
}
