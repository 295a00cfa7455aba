package treat

import (
	"fmt"
	"math/rand/v2"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// logsEach is how many random logs every protocol is run with.
const logsEach = 10_000

// drawn is a hold as it may go: mostly sensible, now and then anything at all.
func drawn(r *rand.Rand, st Start) []Event {
	anything := []Kind{
		KindScore, KindTrend, KindTwitch, KindGuard, KindNerveSign, KindPulse, KindSoftening, KindOffSpot, KindOnSpot,
		KindAngleChange, KindPause, KindResume, KindRelease, KindContact, KindUndo, KindTick, KindRep, KindBreath,
		KindRange, KindUnwell, KindSkinReaction, KindClientStop, KindStart,
	}
	log := []Event{{Kind: KindContact}}
	at := int64(0)
	for range 5 + r.IntN(35) {
		at += r.Int64N(9000)
		e := Event{At: at, Kind: KindScore, Source: []string{"table", "pad"}[r.IntN(2)]}
		if r.IntN(3) == 0 {
			e.Kind = anything[r.IntN(len(anything))]
		}
		switch e.Kind {
		case KindScore:
			// Around the target, so that every ceiling is met.
			e.Score = min(10, max(0, st.Limits.Target-3+float64(r.IntN(13))/2))
		case KindTrend:
			e.Word = []string{"same", "less", "more"}[r.IntN(3)]
		case KindBreath:
			e.Word = []string{"in", "out"}[r.IntN(2)]
		case KindRange:
			e.Degrees = float64(40 + r.IntN(40))
		}
		log = append(log, e)
	}
	return log
}

// watch looks at a hold as it goes and says which rule it broke, if any.
type watch struct {
	last     Line    // just before the event
	number   float64 // the last one of the part that runs; -1 for none
	deepened int
}

func (w *watch) broken(st Start, e Event, l Line) string {
	was := w.last
	held := was.Phase != "" && handPresses(st, was.Phase)
	if e.Kind == KindScore {
		w.number = e.Score
	}
	deeper := slices.Contains(l.Advice, Deepen) || slices.Contains(l.Advice, SinkSlightly)
	if deeper {
		w.deepened++
	}
	soft := st.Limits.Soft
	switch {
	case l.PressureS > seconds(st.Limits.CapMS) || l.PressureS > 120:
		return fmt.Sprintf("%v s pressed, past the cap", l.PressureS)
	case deeper && w.number > soft:
		return fmt.Sprintf("deepens at %v, above the soft ceiling of %v", w.number, soft)
	case was.Phase == PhaseStopped && l.Phase != PhaseStopped && e.Kind != KindUndo:
		return "went on after a stop"
	case (e.Kind == KindNerveSign || e.Kind == KindPulse) && held &&
		!slices.Contains(l.Advice, MoveOff) && !slices.Contains(l.Advice, Stop):
		return fmt.Sprintf("stayed on after %s in %s", e.Kind, was.Phase)
	case e.Kind == KindRelease && held && was.Phase != PhaseRest && !slices.Contains(l.Advice, Flush):
		return "a release without a flush"
	case e.Kind == KindClientStop && l.Phase != PhaseStopped && was.Phase != PhaseDone && l.Phase != PhaseDone:
		return "the client's stop did not stop"
	}
	return ""
}

func handPresses(st Start, p Phase) bool {
	switch p {
	case PhaseRelease, PhaseCheck, PhaseOffSpot:
		return true
	}
	return st.Plan.Presses && parts[p].presses
}

func sourceless(log []Event) []Event {
	out := slices.Clone(log)
	for i := range out {
		out[i].Source = ""
	}
	return out
}

// run plays a log under watch.
func (w *watch) run(st Start, log []Event) string {
	w.number = -1
	c := NewCoach(st)
	for _, e := range log {
		w.last = c.At(e.At) // what fell due before it
		l := c.Apply(e)
		if e.Kind == KindUndo {
			w.number = -1
			continue
		}
		if why := w.broken(st, e, l); why != "" {
			return fmt.Sprintf("%s at %v s by %s: %s", why, l.T, e.Kind, l.Text)
		}
	}
	return ""
}

func aStart(t *testing.T, p Protocol, r *rand.Rand) Start {
	t.Helper()
	req := Request{Protocol: p.ID}
	switch r.IntN(4) {
	case 0:
		req.Muscle = "scalenus-medius"
	case 1:
		if p.ShortPresses {
			req.Muscle = "sternocleidomastoid-sternal"
		}
	}
	least := max(10_000, p.LeastCapMS)
	capMS := least + r.Int64N(120_001-least)
	req.CapMS = &capMS
	st, err := NewStart(req)
	require.NoError(t, err)
	return st
}

func TestNoLogBreaksARuleOfAnyProtocol(t *testing.T) {
	for i, p := range protocols {
		t.Run(string(p.ID), func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(uint64(i), 27))
			deepened := 0
			for range logsEach {
				st := aStart(t, p, r)
				log := drawn(r, st)
				w := watch{}
				if why := w.run(st, log); why != "" {
					t.Fatalf("%s\n%v", why, log)
				}
				deepened += w.deepened
			}
			if p.Plan.Presses && p.Plan.Strategy != "ramped" {
				assert.Greater(t, deepened, logsEach/200, "the rule about deepening was hardly exercised")
			}
		})
	}
}

// faulty deepens whatever the number says: what the watch is for.
type faulty struct{ graded }

func (f *faulty) clone() strategy { k := *f; return &k }

func (*faulty) atNewSpot(*state) strategy { return &faulty{} }

func (*faulty) lighter(s *state) { s.said.advice = append(s.said.advice, SinkSlightly) }

func TestTheWatchCatchesAPlantedFault(t *testing.T) {
	strategies["faulty"] = &faulty{}
	defer delete(strategies, "faulty")
	r := rand.New(rand.NewPCG(1, 27))
	caught := 0
	for range 200 {
		st := aStart(t, protocols[0], r)
		st.Plan.Strategy = "faulty"
		if (&watch{}).run(st, drawn(r, st)) != "" {
			caught++
		}
	}
	assert.Greater(t, caught, 100)
}

// Undo is the log without what it takes back; ticks change nothing; 0–5 doubled
// is 0–10.
func TestLogsThatComeToTheSame(t *testing.T) {
	for i, p := range protocols {
		t.Run(string(p.ID), func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(uint64(i), 28))
			logs := logsEach / 10
			if os.Getenv("MOKREN_LONG") != "" {
				logs = logsEach // two minutes; `make fuzz` asks for it
			}
			for range logs {
				st := aStart(t, p, r)
				log := sourceless(drawn(r, st))
				sum := comesTo(st, log)
				require.Equal(t, comesTo(st, withoutUndo(log)), sum, "%v", log)
				require.Equal(t, comesTo(st, ticked(r, log)), sum, "%v", log)
			}
		})
	}
}

func comesTo(st Start, log []Event) Summary {
	c := NewCoach(st)
	for _, e := range log {
		c.Apply(e)
	}
	return c.Summary()
}

// withoutUndo leaves out every undo and what it took back; a stop stays.
func withoutUndo(log []Event) []Event {
	var out []Event
	for _, e := range log {
		switch {
		case e.Kind == KindTick:
		case e.Kind != KindUndo:
			out = append(out, e)
		case len(out) > 0 && out[len(out)-1].Kind != KindClientStop:
			out = out[:len(out)-1]
		}
	}
	return out
}

func ticked(r *rand.Rand, log []Event) []Event {
	var out []Event
	at := int64(0)
	for _, e := range log {
		out = append(out, Event{At: at + r.Int64N(e.At-at+1), Kind: KindTick}, e)
		at = e.At
	}
	return out
}

// Every protocol with a pace of its own comes to an end by itself, without a rep
// or a breath: unanswered, and then it never deepens; and answered calmly.
func TestEveryProtocolEndsByItself(t *testing.T) {
	for _, p := range protocols {
		for _, answers := range []bool{false, true} {
			st, err := NewStart(Request{Protocol: p.ID})
			require.NoError(t, err)
			c := NewCoach(st)
			l := c.Apply(Event{Kind: KindContact})
			at := int64(0)
			for ; at < 400*second && !slices.Contains(l.Advice, ReleaseSlowly) && l.Phase != PhaseFlush; at += 250 {
				l = c.At(at)
				if answers && l.Ask != "" {
					l = c.Apply(Event{At: at, Kind: KindScore, Score: st.Limits.Target})
				}
				if !answers {
					assert.NotContains(t, l.Advice, SinkSlightly, p.ID)
					assert.NotContains(t, l.Advice, Deepen, p.ID)
				}
			}
			assert.Less(t, at, 400*second, "%s, answered %v: still in %s", p.ID, answers, l.Phase)
		}
	}
}
