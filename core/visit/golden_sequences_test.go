package visit_test

import (
	"embed"
	"encoding/json"
	"os"
	"path"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/safety"
	"mokren/core/visit"
)

// Golden sequences: a line "> event" as a device sends it, and at the end a line "< what the runs
// come to". They are only ever added to. They are replayed here, natively and in WebAssembly, and
// through the API (api/sequences_test.go).
//
//go:embed testdata-sequences
var goldenRuns embed.FS

// toldRuns is what must never change of the runs of a visit.
type toldRuns struct {
	Runs     []visit.Run `json:"runs"`
	Words    []string    `json:"words"`
	OneSided []string    `json:"one_sided,omitempty"`
	// Rejected are the types of the events that were not admitted, in their order.
	Rejected []string `json:"rejected"`
}

func runsOf(t *testing.T, events []visit.Event) string {
	t.Helper()
	ctx := visit.Context{Roles: map[string]rights.Role{therapist: rights.Therapist}}
	j := visit.Today().Validator(ctx)
	var stored []visit.Event
	out := toldRuns{Rejected: []string{}}
	for _, e := range events {
		e = j.Admit(e)
		if e.Verdict != visit.Accepted {
			out.Rejected = append(out.Rejected, e.Type)
		}
		stored = append(stored, e)
	}
	s := visit.Reduce(ctx, stored)
	out.Runs, out.OneSided = s.Runs, s.OneSided
	for _, r := range s.Runs {
		out.Words = append(out.Words, r.Words())
	}
	b, err := json.Marshal(out)
	require.NoError(t, err)
	return string(b)
}

func TestGoldenSequences(t *testing.T) {
	files, err := goldenRuns.ReadDir("testdata-sequences")
	require.NoError(t, err)
	require.Len(t, files, 3)
	for _, f := range files {
		raw, err := goldenRuns.ReadFile(path.Join("testdata-sequences", f.Name()))
		require.NoError(t, err)
		var events []visit.Event
		for _, l := range strings.Split(strings.TrimSpace(string(raw)), "\n") {
			kind, text, _ := strings.Cut(l, " ")
			if kind == ">" {
				var e visit.Event
				require.NoError(t, json.Unmarshal([]byte(text), &e))
				events = append(events, e)
				continue
			}
			require.JSONEq(t, text, runsOf(t, events), f.Name())
		}
	}
}

// laid is a shipped sequence as it is begun for the log so far.
func laid(l *log, run int, id ids.Sequence) visit.SequenceBegun {
	ctx := visit.Context{Roles: map[string]rights.Role{therapist: rights.Therapist}}
	for _, o := range visit.Reduce(ctx, l.events).SequenceOffers(ids.Left, nil, nil) {
		if o.Sequence != id {
			continue
		}
		b := visit.SequenceBegun{Run: visit.UUID(uid(run)), Sequence: id, Name: o.Name, Block: o.Block}
		for _, x := range o.Laid.Steps {
			b.Steps = append(b.Steps, visit.RunStep{
				Technique: x.Technique, Where: x.Where, Side: x.Side, Position: x.Position, Contact: x.Contact,
				Dose: x.Dose, Seconds: x.Seconds, Text: x.Text, Point: visit.UUID(x.Point),
			})
		}
		return b
	}
	panic("no such sequence: " + id)
}

// TestWriteGoldenSequences adds those that are missing when MOKREN_GOLDEN is set.
func TestWriteGoldenSequences(t *testing.T) {
	if os.Getenv("MOKREN_GOLDEN") == "" {
		t.Skip("MOKREN_GOLDEN=1 adds golden sequences that are missing")
	}
	a, b := uid(950), uid(951)
	begin := func() *log {
		l := &log{}
		l.add(a, "visit-opened", 0, visit.VisitOpened{})
		var no visit.ScreeningAnswered
		for _, q := range safety.Questions() {
			no.Answers = append(no.Answers, visit.ScreenedAnswer{Question: q.ID, Answer: "no"})
		}
		l.add(a, "screening-answered", 0, no)
		l.agree(a)
		return l
	}
	step := func(l *log, device string, n int, event string, took float64) {
		// What a device has seen is all that had arrived: it has the visit open.
		l.add(device, "sequence-event", int64(len(l.events)), stepped(700, n, event, took))
	}
	// Skips, a point found on the way, and a second device that goes on.
	calf := begin()
	calf.add(a, "point-charted", 0, charted(500, "soleus"))
	calf.add(a, "sequence-begun", 0, laid(calf, 700, "calf-and-sole"))
	step(calf, a, 1, "begin", 0)
	step(calf, a, 1, "done", 30)
	step(calf, a, 2, "skip", 0)
	step(calf, a, 3, "begin", 0)
	calf.add(a, "point-charted", 0, charted(501, "gastrocnemius-medial"))
	step(calf, a, 3, "done", 44.5)
	for n := 4; n <= 7; n++ {
		step(calf, b, n, "begin", 0)
		step(calf, b, n, "done", 20)
	}
	step(calf, b, 8, "begin", 0)
	step(calf, b, 8, "stop", 7)
	// The client feels unwell: nothing goes on before the screening was asked again.
	neck := begin()
	neck.add(a, "sequence-begun", 0, laid(neck, 700, "neck"))
	step(neck, a, 1, "begin", 0)
	step(neck, a, 1, "done", 25)
	step(neck, a, 2, "begin", 0)
	step(neck, a, 2, "unwell", 0)
	step(neck, a, 2, "stop", 9)
	step(neck, a, 3, "begin", 0)
	step(neck, b, 4, "begin", 0)
	// All of it, by two devices in turn; what one says arrives late.
	quiet := begin()
	quiet.add(a, "sequence-begun", 0, laid(quiet, 700, "ten-quiet-minutes"))
	steps := len(laid(quiet, 701, "ten-quiet-minutes").Steps)
	for n := 1; n <= steps; n++ {
		device := []string{a, b}[n%2]
		step(quiet, device, n, "begin", 0)
		if n > 1 {
			step(quiet, []string{a, b}[(n-1)%2], n-1, "done", 31)
		}
	}
	step(quiet, a, steps, "done", 60)
	for name, l := range map[string]*log{"calf": calf, "neck": neck, "quiet": quiet} {
		file := path.Join("testdata-sequences", name+".txt")
		if _, err := os.Stat(file); err == nil {
			continue
		}
		var out strings.Builder
		for _, e := range l.events {
			raw, err := json.Marshal(e)
			require.NoError(t, err)
			out.WriteString("> " + string(raw) + "\n")
		}
		out.WriteString("< " + runsOf(t, l.events) + "\n")
		require.NoError(t, os.MkdirAll("testdata-sequences", 0o755))
		assert.NoError(t, os.WriteFile(file, []byte(out.String()), 0o644))
	}
}
