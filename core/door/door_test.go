package door_test

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

	"mokren/core/calc"
	"mokren/core/door"
	"mokren/core/strict"
	"mokren/core/treat"
	"mokren/core/visit"
)

// ask asks a question and reads the answer.
func ask[Out any](t require.TestingT, d *door.Door, name string, in any) Out {
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
func refused(t *testing.T, d *door.Door, name string, in any) string {
	t.Helper()
	raw, err := json.Marshal(in)
	require.NoError(t, err)
	_, err = d.Answer(name, raw)
	var e *strict.Error
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
		live, replay := door.New(), door.New()
		ask[door.HoldView](r, live, "hold-open", door.HoldLog{Hold: "live", Start: h.start})
		for i, e := range arriving {
			at := e.AtMS + rapid.Int64Range(0, 30_000).Draw(r, "then")
			got := ask[door.HoldView](r, live, "hold-add",
				door.HoldAdded{HoldMoment: door.HoldMoment{Hold: "live", AtMS: at}, Event: e})
			want := ask[door.HoldView](r, replay, "hold-open",
				door.HoldLog{Hold: "whole", Start: h.start, Log: arriving[:i+1], AtMS: at})
			require.Equal(r, want, got, "%s after %d events", h.name, i+1)
			again := ask[door.HoldView](r, live, "hold-look", door.HoldMoment{Hold: "live", AtMS: at})
			require.Equal(r, got, again, "looking changes nothing")
		}
	})
}

// What the page is told of a phase agrees with what the coach does with it: in every golden
// log a word that is not offered changes nothing, and one that is offered acts.
func TestWhatIsOfferedActs(t *testing.T) {
	acted := map[treat.Kind]int{}
	for _, h := range goldenHolds(t) {
		d := door.New()
		ask[door.HoldView](t, d, "hold-open", door.HoldLog{Hold: "h", Start: h.start})
		for _, e := range h.log {
			kind, at := treat.Kind(e.Event), door.HoldMoment{Hold: "h", AtMS: e.AtMS}
			before := ask[door.HoldView](t, d, "hold-look", at)
			after := ask[door.HoldView](t, d, "hold-add", door.HoldAdded{HoldMoment: at, Event: e})
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
	d := door.New()
	const id = "0190b000-0000-7000-8000-000000000901"
	first := ask[door.VisitState](t, d, "visit-state", door.VisitLog{Visit: id})
	of := door.Of{Visit: id, Revision: first.Revision}
	assert.Empty(t, ask[visit.Working](t, d, "visit-work", door.WithSuspects{Of: of}).Points)

	second := ask[door.VisitState](t, d, "visit-state", door.VisitLog{Visit: id})
	assert.Greater(t, second.Revision, first.Revision)
	assert.Equal(t, "$.revision", refused(t, d, "visit-work", door.WithSuspects{Of: of}), "an older state")
	assert.Equal(t, "$.visit", refused(t, d, "visit-note", door.NoteAsked{Of: door.Of{Visit: "another"}}))
	assert.Equal(t, "$.hold", refused(t, d, "hold-look", door.HoldMoment{Hold: "none"}))
	assert.Equal(t, "$.name", refused(t, d, "reduce", struct{}{}))

	// Two visits are kept, the older goes first.
	for _, other := range []visit.UUID{"b", "c"} {
		ask[door.VisitState](t, d, "visit-state", door.VisitLog{Visit: other})
	}
	of.Revision = second.Revision
	assert.Equal(t, "$.visit", refused(t, d, "visit-work", door.WithSuspects{Of: of}))
}

// Every computation that pages ask for is asked by the same name here, and each question
// has a name of its own.
func TestTheListIsWhole(t *testing.T) {
	seen := map[string]bool{}
	for _, q := range door.List() {
		assert.False(t, seen[q.Name], q.Name)
		seen[q.Name] = true
	}
	d := door.New()
	for _, c := range calc.ForPages() {
		require.True(t, seen[c.Name], c.Name)
		want, err := calc.Run(c.Name, []byte(c.Example))
		require.NoError(t, err)
		got, err := d.Answer(c.Name, []byte(c.Example))
		require.NoError(t, err)
		assert.JSONEq(t, string(want), fmt.Sprintf("%s", got), c.Name)
	}
}
