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

	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
)

// Golden visits, a folder for each version of the rules: a line "> event" as it
// is stored, with its verdict, then a line "< what the holds come to". They are
// only ever added to, and are replayed natively and in WebAssembly.
//
//go:embed testdata
var golden embed.FS

// goldenHold is what must never change of an accepted hold.
type goldenHold struct {
	ID      visit.UUID       `json:"id"`
	Status  visit.HoldStatus `json:"status"`
	Why     string           `json:"why,omitempty"`
	Summary treat.Summary    `json:"summary"`
	Remarks []string         `json:"remarks"`
}

func answer(t *testing.T, s visit.State) string {
	t.Helper()
	list := []goldenHold{}
	for _, h := range s.Holds {
		list = append(list, goldenHold{h.ID, h.Status, h.Why, h.Summary, h.Remarks})
	}
	b, err := json.Marshal(list)
	require.NoError(t, err)
	return string(b)
}

// bumped is a law in which everything is otherwise than today.
func bumped() visit.Rules {
	return visit.Rules{Coach: "2099-01", Figure: "figure-99", Site: lowCeilings}
}

func TestGoldenVisits(t *testing.T) {
	versions, err := golden.ReadDir("testdata")
	require.NoError(t, err)
	require.NotEmpty(t, versions)
	for _, v := range versions {
		files, err := golden.ReadDir(path.Join("testdata", v.Name()))
		require.NoError(t, err)
		for _, f := range files {
			raw, err := golden.ReadFile(path.Join("testdata", v.Name(), f.Name()))
			require.NoError(t, err)
			for name, law := range map[string]visit.Rules{"today": visit.Today(), "bumped": bumped()} {
				t.Run(v.Name()+"/"+f.Name()+"/"+name, func(t *testing.T) {
					var events []visit.Event
					for i, l := range strings.Split(strings.TrimSpace(string(raw)), "\n") {
						kind, text, _ := strings.Cut(l, " ")
						if kind == ">" {
							var e visit.Event
							require.NoError(t, json.Unmarshal([]byte(text), &e))
							events = append(events, e)
							continue
						}
						require.Equal(t, text, answer(t, law.Reduce(asked(), events)), "line %d", i+1)
					}
				})
			}
		}
	}
}

// TestWriteGoldenVisits adds visits when MOKREN_GOLDEN names a folder; it never
// touches one that is there.
func TestWriteGoldenVisits(t *testing.T) {
	if os.Getenv("MOKREN_GOLDEN") == "" {
		t.Skip("MOKREN_GOLDEN=testdata adds visits of today's rules")
	}
	late := pressedAt("soleus")
	late.add("a", "hold-event", 0, happened(600, 2000, "score", 6))
	late.add("a", "hold-event", 0, happened(600, 40_000, "release", nil))
	late.add(
		"a",
		"hold-ended",
		0,
		visit.HoldEnded{Hold: visit.UUID(uid(600)), Outcome: "unchanged", PressureMS: 32_000, Stages: new(1)},
	)
	late.add("pad", "hold-event", 0, happened(600, 25_000, "score", 3))
	learned := pressedAt("infraspinatus", "release")
	learned.add("b", "consent-recorded", 0, visit.ConsentRecorded{Area: safety.WholeVisit})
	learned.last().DeviceMS = 1500
	closed := pressedAt("soleus", "unwell", "client-stop")
	closed.add("a", "hold-started", 0, started(601, 500, "soleus"))
	sudden := pressedAt("soleus")
	sudden.add("a", "hold-event", 0, happened(600, 3002, "score", 7))
	sudden.add("a", "hold-event", 0, happened(600, 8002, "score", 2))
	sudden.add("a", "hold-event", 0, happened(600, 9002, "score", 2))
	refused := &log{}
	refused.add("a", "point-charted", 0, charted(500, "soleus"))
	refused.add("a", "hold-started", 0, started(600, 500, "soleus"))
	refused.add("a", "hold-event", 0, happened(600, 0, "contact", nil))
	for _, rules := range []string{"2026-11", treat.RulesVersion} {
		law := visit.Today()
		law.Coach = rules
		for name, l := range map[string]*log{
			"late-pad": late, "learned-later": learned, "closed": closed,
			"sudden": sudden, "refused": refused,
		} {
			writeVisit(t, law, name, l.events)
		}
	}
}

func writeVisit(t *testing.T, law visit.Rules, name string, events []visit.Event) {
	file := path.Join(os.Getenv("MOKREN_GOLDEN"), law.Coach, name+".txt")
	if _, err := os.Stat(file); err == nil {
		return
	}
	require.NoError(t, os.MkdirAll(path.Dir(file), 0o755))
	j := law.Validator(asked())
	var b strings.Builder
	var stored []visit.Event
	for _, e := range events {
		if e.Type == "hold-started" {
			body, err := e.Decode()
			require.NoError(t, err)
			h := body.(*visit.HoldStarted)
			h.Start.Rules = law.Coach
			e.Body, err = json.Marshal(h)
			require.NoError(t, err)
		}
		stored = append(stored, j.Admit(e))
		raw, err := json.Marshal(stored[len(stored)-1])
		require.NoError(t, err)
		b.WriteString("> " + string(raw) + "\n< " + answer(t, law.Reduce(asked(), stored)) + "\n")
	}
	assert.NoError(t, os.WriteFile(file, []byte(b.String()), 0o644))
}
