package treat_test

import (
	"embed"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"path"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/safety"
	"mokren/core/treat"
)

// Golden logs, a folder for each version of the rules: "start" and the resolved
// start event, then for each event a line "> event" and the line "< answer",
// last "= summary". They are only ever added to: what a hold came to once, it
// comes to for ever, natively and in WebAssembly (make test runs both). Words are not compared.
//
//go:embed testdata
var golden embed.FS

// goldenEvent is an event as it stands in a golden log.
type goldenEvent struct {
	AtMS  int64           `json:"at_ms"`
	Event string          `json:"event"`
	Value json.RawMessage `json:"value,omitempty"`
}

func compact(t *testing.T, v any) string {
	t.Helper()
	b, err := json.Marshal(v)
	require.NoError(t, err)
	return string(b)
}

// withoutWords leaves out what is said in words, which may be put better; everything else in a
// golden log is for ever.
func withoutWords(t *testing.T, line string) string {
	t.Helper()
	var fields map[string]any
	require.NoError(t, json.Unmarshal([]byte(line), &fields))
	for _, words := range []string{"text", "reason", "why"} {
		delete(fields, words)
	}
	return compact(t, fields)
}

func TestGoldenLogs(t *testing.T) {
	versions, err := golden.ReadDir("testdata")
	require.NoError(t, err)
	require.NotEmpty(t, versions)
	for _, v := range versions {
		files, err := golden.ReadDir(path.Join("testdata", v.Name()))
		require.NoError(t, err)
		require.NotEmpty(t, files, v.Name())
		for _, f := range files {
			t.Run(v.Name()+"/"+f.Name(), func(t *testing.T) { replayGolden(t, v.Name(), f.Name()) })
		}
	}
}

func replayGolden(t *testing.T, version, name string) {
	raw, err := golden.ReadFile(path.Join("testdata", version, name))
	require.NoError(t, err)
	var start treat.Start
	var coach *treat.Coach
	var last treat.Line
	for i, l := range strings.Split(strings.TrimSpace(string(raw)), "\n") {
		kind, text, _ := strings.Cut(l, " ")
		switch kind {
		case "start":
			require.NoError(t, json.Unmarshal([]byte(text), &start))
			require.Equal(t, version, start.Rules)
			coach, err = treat.Replayer(start)
			require.NoError(t, err)
		case ">":
			var e goldenEvent
			require.NoError(t, json.Unmarshal([]byte(text), &e))
			parsed, err := treat.ParseEvent(e.AtMS, e.Event, e.Value, start.Scale)
			require.NoError(t, err)
			last = coach.Apply(parsed)
		case "<":
			require.Equal(t, withoutWords(t, text), withoutWords(t, compact(t, last)), "line %d", i+1)
		case "=":
			assert.Equal(t, text, compact(t, coach.Summary()))
		default:
			t.Fatalf("line %d is %q", i+1, l)
		}
	}
}

// TestWriteGoldenLogs adds logs of today's rules when MOKREN_GOLDEN names a
// folder; it never touches one that is there.
func TestWriteGoldenLogs(t *testing.T) {
	if os.Getenv("MOKREN_GOLDEN") == "" {
		t.Skip("MOKREN_GOLDEN=testdata adds logs of today's rules")
	}
	dir := path.Join(os.Getenv("MOKREN_GOLDEN"), treat.RulesVersion)
	require.NoError(t, os.MkdirAll(dir, 0o755))
	for name, log := range handWritten() {
		writeGolden(t, path.Join(dir, name+".txt"), treat.Request{Protocol: "graded-stages", Muscle: "soleus"}, log)
	}
	for seed := range uint64(24) {
		r := rand.New(rand.NewPCG(seed, 11))
		req := treat.Request{Protocol: "graded-stages", Muscle: "soleus", Side: "left"}
		if seed%4 == 1 {
			req.Muscle = "scalenus-medius"
		}
		if seed%4 == 2 {
			req.Scale = 5
		}
		writeGolden(t, path.Join(dir, fmt.Sprintf("random-%02d.txt", seed)), req, drawnLog(r, req.Scale))
	}
	for _, p := range treat.Protocols() {
		for seed := range uint64(4) {
			r := rand.New(rand.NewPCG(seed, 12))
			req := treat.Request{Protocol: p.ID, Muscle: "soleus", Side: "right"}
			file := fmt.Sprintf("%s-%d.txt", p.ID, seed)
			writeGolden(t, path.Join(dir, file), req, obedientLog(t, r, req))
		}
	}
}

// obedientLog is a hold that goes its way: every asking is answered, coming off
// is obeyed, and now and then something happens.
func obedientLog(t *testing.T, r *rand.Rand, req treat.Request) []goldenEvent {
	start, err := treat.NewStart(req)
	require.NoError(t, err)
	coach := treat.NewCoach(start)
	log := []goldenEvent{}
	put := func(at int64, event, value string) {
		e := goldenEvent{AtMS: at, Event: event}
		if value != "" {
			e.Value = json.RawMessage(value)
		}
		parsed, err := treat.ParseEvent(at, event, e.Value, start.Scale)
		require.NoError(t, err)
		log = append(log, e)
		coach.Apply(parsed)
	}
	put(0, "contact", "")
	number := start.Limits.Target
	for at := int64(1000); at < 300_000 && len(log) < 60; at += 1000 {
		l := coach.At(at)
		switch {
		case l.Phase == treat.PhaseDone || l.Phase == treat.PhaseStopped:
			return log
		case l.Phase == treat.PhaseRelease:
			put(at, "release", "")
		case l.Phase == treat.PhaseReturn || l.Phase == treat.PhaseReady && at > 1000:
			put(at, "contact", "")
		case l.Ask != "":
			put(at+400, "score", fmt.Sprint(max(0, number-float64(r.IntN(5))/2)))
			number = max(1, number-0.5)
		case r.IntN(25) == 0:
			put(at+400, []string{"guard", "softening", "twitch", "off-spot", "on-spot", "rep"}[r.IntN(6)], "")
		case at%10_000 == 0:
			put(at, "tick", "")
		}
	}
	return log
}

func writeGolden(t *testing.T, file string, req treat.Request, log []goldenEvent) {
	if _, err := os.Stat(file); err == nil {
		return
	}
	start, err := treat.NewStart(req)
	require.NoError(t, err)
	var b strings.Builder
	fmt.Fprintf(&b, "start %s\n", compact(t, start))
	coach := treat.NewCoach(start)
	for _, e := range log {
		parsed, err := treat.ParseEvent(e.AtMS, e.Event, e.Value, start.Scale)
		require.NoError(t, err)
		fmt.Fprintf(&b, "> %s\n< %s\n", compact(t, e), compact(t, coach.Apply(parsed)))
	}
	fmt.Fprintf(&b, "= %s\n", compact(t, coach.Summary()))
	require.NoError(t, os.WriteFile(file, []byte(b.String()), 0o644))
}

// handWritten are the ways a hold goes, one for each outcome and each rule that
// has misled someone.
func handWritten() map[string][]goldenEvent {
	out := map[string][]goldenEvent{}
	for name, text := range map[string]string{
		"released": "0 contact,3000 score 6,14000 score 5,25000 score 3,30000 tick,33000 score 6,52000 " +
			"score 2,57000 release,80000 tick",
		"reduced": "0 contact,2000 score 6,30000 score 4,40000 release,60000 tick",
		"unchanged": "0 contact,2000 score 6,20000 score 6,33000 tick,34000 release,49500 tick,50000 " +
			"contact,52000 score 4,70000 score 4,84000 tick,86000 release,110000 tick",
		"stopped-by-client": "0 contact,2000 score 6,9000 client-stop,11000 release,12000 contact",
		"two-nerve-signs": "0 contact,2000 score 6,5000 nerve-sign tingling,9000 contact,11000 score 6,14000 " +
			"nerve-sign numb",
		"three-pulses":     "0 contact,1000 pulse,3000 contact,4000 pulse,6000 contact,7000 pulse,8000 contact",
		"unwell-then-stop": "0 contact,2000 score 5,6000 unwell dizzy,7000 client-stop",
		"sudden-fall": "0 contact,2000 score 6,7000 score 2,8000 off-spot,10000 on-spot,12000 score 6,16000 " +
			"score 2,17000 on-spot,40000 tick",
		"sudden-fall-5-s": "0 contact,1003 score 7,6003 score 3,7000 score 3,20000 release",
		"sudden-fall-odd": "0 contact,3002 score 7,8002 score 2,9002 score 2,20000 release",
		"nerve-in-flush": "0 contact,2000 score 6,20000 score 6,33000 tick,34000 release,37000 nerve-sign " +
			"tingling,49500 tick,60000 tick",
		"guard-twice": "0 contact,2000 score 6,5000 guard,8000 score 5,12000 guard,14000 release,29500 " +
			"tick,30000 contact,32000 score 4",
		"over-the-ceiling": "0 contact,2000 score 9,5000 score 6,9000 score 9,11000 release,40000 tick",
		"cap-and-overrun":  "0 contact,2000 score 6,30000 score 5,60000 score 5,96000 tick,99000 release",
		"undo": "0 contact,2000 score 6,9000 score 9,10000 undo,12000 undo,14000 score 6,30000 score " +
			"2,31000 undo,40000 score 5",
		"alone": "0 contact,3000 score 6,23000 score 5,1800000 release",
		"alone-then-on": "0 contact,3000 score 6,100000 score 6,400000 contact,403000 score 4,420000 score 2,421000 " +
			"release",
		"paused": "0 contact,2000 score 6,8000 pause,20000 resume,22000 score 6,45000 score 4,46000 " +
			"angle-change,48000 score 6",
		"twitch-and-pad": "0 contact,500 pressure 120,2000 score 6,4000 twitch,6000 breath out,9000 rep,12000 " +
			"softening,20000 trend less,24000 trend more,30000 trend more",
	} {
		for _, entry := range strings.Split(text, ",") {
			f := strings.Fields(entry)
			var at int64
			if _, err := fmt.Sscan(f[0], &at); err != nil {
				panic(err)
			}
			e := goldenEvent{AtMS: at, Event: f[1]}
			if len(f) > 2 {
				e.Value = json.RawMessage(f[2])
				if f[1] != "score" && f[1] != "pressure" {
					e.Value = json.RawMessage(`"` + f[2] + `"`)
				}
			}
			out[name] = append(out[name], e)
		}
	}
	return out
}

func drawnLog(r *rand.Rand, scale int) []goldenEvent {
	if scale == 0 {
		scale = 10
	}
	kinds := []string{
		"score", "score", "score", "score", "score", "trend", "guard", "nerve-sign", "pulse", "off-spot", "on-spot",
		"release", "contact", "contact", "pause", "resume", "undo", "tick", "tick", "twitch", "angle-change",
	}
	log := []goldenEvent{{AtMS: 0, Event: "contact"}}
	at := int64(0)
	for range 30 {
		at += r.Int64N(9000)
		e := goldenEvent{AtMS: at, Event: kinds[r.IntN(len(kinds))]}
		switch e.Event {
		case "score":
			e.Value = json.RawMessage(fmt.Sprint(float64(r.IntN(2*scale+1)) / 2))
		case "trend":
			e.Value = json.RawMessage(`"` + []string{"same", "less", "more"}[r.IntN(3)] + `"`)
		}
		log = append(log, e)
	}
	return log
}

// A start is replayed as it was resolved: what a site allows today, and what
// the protocol's limits are today, change nothing in it.
func TestAReplayAsksNothingOfToday(t *testing.T) {
	start, err := treat.NewStart(treat.Request{Protocol: "graded-stages", Muscle: "soleus"})
	require.NoError(t, err)
	start.Limits = safety.Limits{Target: 9, Soft: 9.5, Hard: 10, CapMS: 120_000}
	coach, err := treat.Replayer(start)
	require.NoError(t, err)
	coach.Apply(treat.Event{At: 0, Kind: treat.KindContact})
	assert.Equal(t, treat.Hold, coach.Apply(treat.Event{At: 1000, Kind: treat.KindScore, Score: 9}).Advice[0])
}
