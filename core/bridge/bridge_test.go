package bridge_test

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/bridge"
	"mokren/core/calc"
	"mokren/core/decode"
	"mokren/core/treat"
	"mokren/core/visit"
)

// ask asks a question and reads the answer.
func ask[Out any](t require.TestingT, d *bridge.Bridge, name string, in any) Out {
	raw, err := json.Marshal(in)
	require.NoError(t, err)
	answer, err := d.Answer(name, raw)
	require.NoError(t, err, name)
	b, err := json.Marshal(answer)
	require.NoError(t, err)
	var out Out
	require.NoError(t, json.Unmarshal(b, &out))
	return out
}

// refused asks what is refused, and gives the field that is named.
func refused(t *testing.T, d *bridge.Bridge, name string, in any) string {
	t.Helper()
	raw, err := json.Marshal(in)
	require.NoError(t, err)
	_, err = d.Answer(name, raw)
	var e *decode.Error
	require.ErrorAs(t, err, &e, name)
	return e.Path
}

// goldenHold is a hold of the golden logs of the present rules.
type goldenHold struct {
	name  string
	start treat.Start
	log   []visit.HoldHappened
}

func goldenHolds(t *testing.T) []goldenHold {
	t.Helper()
	files, err := filepath.Glob(filepath.Join("../treat/testdata", treat.RulesVersion, "*.txt"))
	require.NoError(t, err)
	require.NotEmpty(t, files)
	var out []goldenHold
	for _, f := range files {
		raw, err := os.ReadFile(f)
		require.NoError(t, err)
		h := goldenHold{name: filepath.Base(f)}
		for _, l := range strings.Split(string(raw), "\n") {
			if text, ok := strings.CutPrefix(l, "start "); ok {
				require.NoError(t, json.Unmarshal([]byte(text), &h.start))
			} else if text, ok := strings.CutPrefix(l, "> "); ok {
				var e visit.HoldHappened
				require.NoError(t, json.Unmarshal([]byte(text), &e))
				h.log = append(h.log, e)
			}
		}
		out = append(out, h)
	}
	return out
}

// A live hold that is told its events one by one, late ones among them, shows after each
// what a replay of the log so far shows.
func TestALiveHoldIsItsReplay(t *testing.T) {
	holds := goldenHolds(t)
	rapid.Check(t, func(r *rapid.T) {
		h := holds[rapid.IntRange(0, len(holds)-1).Draw(r, "hold")]
		if len(h.log) == 0 {
			return
		}
		arriving := append([]visit.HoldHappened{}, h.log...)
		for range rapid.IntRange(0, 3).Draw(r, "late") {
			from := rapid.IntRange(0, len(arriving)-1).Draw(r, "from")
			to := rapid.IntRange(from, min(from+4, len(arriving)-1)).Draw(r, "to")
			e := arriving[from]
			copy(arriving[from:to], arriving[from+1:to+1])
			arriving[to] = e
		}
		live, replay := bridge.New(), bridge.New()
		ask[bridge.HoldView](r, live, "hold-open", bridge.HoldLog{Hold: "live", Start: h.start})
		for i, e := range arriving {
			at := e.AtMS + rapid.Int64Range(0, 30_000).Draw(r, "then")
			got := ask[bridge.HoldView](r, live, "hold-add",
				bridge.HoldAddition{HoldMoment: bridge.HoldMoment{Hold: "live", AtMS: at}, Event: e})
			want := ask[bridge.HoldView](r, replay, "hold-open",
				bridge.HoldLog{Hold: "whole", Start: h.start, Log: arriving[:i+1], AtMS: at})
			require.Equal(r, want, got, "%s after %d events", h.name, i+1)
			again := ask[bridge.HoldView](r, live, "hold-look", bridge.HoldMoment{Hold: "live", AtMS: at})
			require.Equal(r, got, again, "looking changes nothing")
		}
	})
}

// What the page is told of a phase agrees with what the coach does with it: in every golden
// log a word that is not offered changes nothing, and one that is offered acts.
func TestWhatIsOfferedActs(t *testing.T) {
	acted := map[treat.Kind]int{}
	for _, h := range goldenHolds(t) {
		d := bridge.New()
		ask[bridge.HoldView](t, d, "hold-open", bridge.HoldLog{Hold: "h", Start: h.start})
		for _, e := range h.log {
			kind, at := treat.Kind(e.Event), bridge.HoldMoment{Hold: "h", AtMS: e.AtMS}
			before := ask[bridge.HoldView](t, d, "hold-look", at)
			after := ask[bridge.HoldView](t, d, "hold-add", bridge.HoldAddition{HoldMoment: at, Event: e})
			switch kind {
			case treat.KindScore, treat.KindSoftening, treat.KindBreath, treat.KindRep:
			default:
				continue
			}
			offered := slices.Contains(before.Takes, kind) || before.Pedal == kind
			if !offered {
				assert.True(t, after.Line.Ignored, "%s: %s at %d acts, and is not offered", h.name, kind, e.AtMS)
			} else if !after.Line.Ignored {
				acted[kind]++
			}
		}
	}
	for _, k := range []treat.Kind{treat.KindScore, treat.KindSoftening} {
		assert.Positive(t, acted[k], k)
	}
}

func TestAQuestionNamesWhatItIsAbout(t *testing.T) {
	d := bridge.New()
	const id = "0190b000-0000-7000-8000-000000000901"
	first := ask[bridge.VisitState](t, d, "visit-state", bridge.VisitLog{Visit: id})
	of := bridge.Of{Visit: id, Revision: first.Revision}
	assert.Empty(t, ask[visit.Working](t, d, "visit-work", bridge.WithSuspects{Of: of}).Points)

	again := ask[bridge.VisitState](t, d, "visit-state", bridge.VisitLog{Visit: id})
	assert.Equal(t, first, again, "nothing has changed")
	again = ask[bridge.VisitState](t, d, "visit-state", bridge.VisitLog{Visit: id, Shown: first.Revision})
	assert.Equal(t, bridge.VisitState{Revision: first.Revision}, again, "the page has it")

	second := ask[bridge.VisitState](t, d, "visit-state", bridge.VisitLog{
		Visit: id, Context: visit.Context{Age: 40},
	})
	assert.Greater(t, second.Revision, first.Revision)
	assert.Equal(t, "$.revision", refused(t, d, "visit-work", bridge.WithSuspects{Of: of}), "an older state")
	assert.Equal(t, "$.visit", refused(t, d, "visit-note", bridge.NoteQuestion{Of: bridge.Of{Visit: "another"}}))
	assert.Equal(t, "$.hold", refused(t, d, "hold-look", bridge.HoldMoment{Hold: "none"}))
	assert.Equal(t, "$.name", refused(t, d, "reduce", struct{}{}))

	// Two visits are kept, the older goes first.
	for _, other := range []visit.UUID{"b", "c"} {
		ask[bridge.VisitState](t, d, "visit-state", bridge.VisitLog{Visit: other})
	}
	of.Revision = second.Revision
	assert.Equal(t, "$.visit", refused(t, d, "visit-work", bridge.WithSuspects{Of: of}))
}

// Every computation that pages ask for is asked by the same name here, and each question
// has a name of its own.
func TestTheListIsWhole(t *testing.T) {
	seen := map[string]bool{}
	for _, q := range bridge.List() {
		assert.False(t, seen[q.Name], q.Name)
		seen[q.Name] = true
	}
	d := bridge.New()
	for _, c := range calc.ForPages() {
		require.True(t, seen[c.Name], c.Name)
		want, err := calc.Run(c.Name, []byte(c.Example))
		require.NoError(t, err)
		got, err := d.Answer(c.Name, []byte(c.Example))
		require.NoError(t, err)
		assert.JSONEq(t, string(want), fmt.Sprintf("%s", got), c.Name)
	}
}
