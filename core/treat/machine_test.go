package treat

import (
	"fmt"
	"math/rand/v2"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// sets are classes that stand together in the tables, as the guide calls them.
var sets = []struct {
	name    string
	classes []Phase
}{
	{"anywhere", anywhere},
	{"under way", underWay},
	{"in a part", inPart},
	{"hand off", handOff},
	{"afterwards", afterwards},
}

func setName(classes []Phase) string {
	for _, s := range sets {
		if slices.Equal(s.classes, classes) {
			return s.name
		}
	}
	return joined(classes)
}

func joined[S ~string](list []S) string {
	out := make([]string, len(list))
	for i, p := range list {
		out[i] = string(p)
	}
	return strings.Join(out, ", ")
}

// Every event does one thing in every phase.
func TestEveryEventHasOneTransitionInEveryPhase(t *testing.T) {
	for _, class := range append(slices.Clone(anywhere), afterwards...) {
		for _, kind := range kinds {
			if kind == KindTick || kind == KindUndo {
				continue // the coach's own: neither is part of a log
			}
			n := 0
			for _, tr := range transitions {
				if slices.Contains(tr.from, class) && slices.Contains(tr.on, kind) {
					n++
				}
			}
			assert.Equal(t, 1, n, "%s in %s", kind, class)
		}
	}
}

// follower plays holds and notes which phases each row of the tables led to.
type follower struct {
	t   *testing.T
	led map[string]map[Phase]bool
}

func (f *follower) lead(row string, from Phase, to []Phase, s *state) {
	f.t.Helper()
	if f.led[row] == nil {
		f.led[row] = map[Phase]bool{}
	}
	class := s.class()
	f.led[row][class] = true
	if class != from && !slices.Contains(to, class) {
		f.t.Fatalf("%s led from %s to %s", row, from, class)
	}
}

// play runs a log without undo, deadline by deadline.
func (f *follower) play(st Start, log []Event) {
	s := newState(&st)
	for _, e := range log {
		if e.Kind == KindTick || e.Kind == KindUndo {
			continue
		}
		for {
			d, at := s.next()
			if d == nil || at > e.At || at == e.At && e.Kind.isAnswer() {
				break
			}
			from := s.class()
			s.flow(at)
			d.fire(&s)
			f.lead(d.name, from, d.to, &s)
		}
		s.flow(e.At)
		from := s.class()
		tr := table[from][e.Kind]
		tr.act(&s, e)
		f.lead(rowName(tr), from, tr.to, &s)
		s.attend()
	}
}

func rowName(t *transition) string { return joined(t.on) + " in " + setName(t.from) }

// obeyed is a hold by which the advice is followed, mostly.
func obeyed(r *rand.Rand, st Start) []Event {
	c := NewCoach(st)
	log := []Event{}
	for at := int64(0); at < 400_000 && len(log) < 60; at += 1000 {
		l := c.At(at)
		e := Event{At: at, Kind: l.Phase.Pedal()}
		switch {
		case r.IntN(12) == 0:
			e.Kind = kinds[r.IntN(len(kinds))]
			e.Word, e.Degrees, e.Score = "out", float64(r.IntN(60)), float64(r.IntN(11))
		case l.Ask != "" && l.Phase != PhaseOffSpot && l.Phase != PhaseCheck:
			e.Kind, e.Score = KindScore, max(0, st.Limits.Target-float64(r.IntN(4)))
		case l.Phase.HandOn() && l.Phase != PhaseRelease && l.Phase != PhaseOffSpot && l.Phase != PhaseCheck,
			l.Phase == PhaseRest:
			continue
		}
		if e.Kind == "" || e.Kind == KindUndo || e.Kind == KindTick {
			continue
		}
		log = append(log, e)
		c.Apply(e)
	}
	return log
}

// Each row leads where it says, and everywhere that it says.
func TestTransitionsLeadWhereTheySay(t *testing.T) {
	f := &follower{t, map[string]map[Phase]bool{}}
	for i, p := range protocols {
		r := rand.New(rand.NewPCG(uint64(i), 3))
		logs := logsEach / 16
		if p.Plan.TotalMS > 0 {
			logs = logsEach / 4 // the total is seldom used up
		}
		for range logs {
			st := aStart(t, p, r)
			f.play(st, drawn(r, st))
			log := obeyed(r, st)
			if len(log) > 0 && r.IntN(2) == 0 { // from here on nobody attends for a while
				n := 1 + r.IntN(len(log))
				log = append(log[:n], Event{At: log[n-1].At + 600_000, Kind: KindContact})
			}
			f.play(st, log)
		}
	}
	for i := range transitions {
		for _, to := range transitions[i].to {
			assert.True(t, f.led[rowName(&transitions[i])][to], "%s never led to %s", rowName(&transitions[i]), to)
		}
	}
	for _, d := range deadlines {
		for _, to := range d.to {
			assert.True(t, f.led[d.name][to], "%s never led to %s", d.name, to)
		}
	}
}

const (
	guideFrom = "// # Transitions\n"
	guideTo   = "// # Adding a protocol"
)

// machine writes the tables as the guide shows them. What changes nothing is left out.
func machine() string {
	var b strings.Builder
	b.WriteString(guideFrom + "//\n")
	b.WriteString("// In a phase, an event ▸ leads there or stays: what it does. Other pairs change nothing.\n//\n")
	row := func(from, on string, to []Phase, what string) {
		where := "stays"
		if len(to) > 0 {
			where = joined(to)
		}
		b.WriteString(wrapped(fmt.Sprintf("//	%-17s  %s ▸ %s: %s", from, on, where, what)))
	}
	for _, t := range transitions {
		if t.what != "" {
			row(setName(t.from), joined(t.on), t.to, t.what)
		}
	}
	b.WriteString("//\n// By itself, the first first where two fall due at once:\n//\n")
	for _, d := range deadlines {
		row(setName(d.from), d.name, d.to, d.what)
	}
	b.WriteString("//\n")
	for _, s := range sets {
		b.WriteString(wrapped(fmt.Sprintf("//	%-17s  %s", s.name, joined(s.classes))))
	}
	return b.String() + "//\n"
}

const guideWidth = 104

// wrapped breaks a line of the guide between words.
func wrapped(line string) string {
	var b strings.Builder
	for len(line) > guideWidth {
		i := strings.LastIndex(line[:guideWidth], " ")
		b.WriteString(line[:i] + "\n")
		line = "//	    " + line[i+1:]
	}
	return b.String() + line + "\n"
}

// The guide in doc.go shows the machine as it is; MOKREN_GUIDE=1 writes it there.
func TestTheGuideShowsTheMachine(t *testing.T) {
	raw, err := os.ReadFile("doc.go")
	require.NoError(t, err)
	doc := string(raw)
	from, to := strings.Index(doc, guideFrom), strings.Index(doc, guideTo)
	require.Positive(t, from)
	require.Greater(t, to, from)
	if os.Getenv("MOKREN_GUIDE") != "" {
		require.NoError(t, os.WriteFile("doc.go", []byte(doc[:from]+machine()+doc[to:]), 0o644))
		return
	}
	assert.Equal(t, machine(), doc[from:to])
}
