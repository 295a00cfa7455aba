package api_test

import (
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/visit"
	"mokren/demo"
)

// The golden sequences come to the same record through the API, with its clocks, its people and
// what it stores, as they do in the core.
func TestGoldenSequencesThroughTheAPI(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	files, err := filepath.Glob("../core/visit/testdata-sequences/*.txt")
	require.NoError(t, err)
	require.Len(t, files, 3)
	for _, f := range files {
		t.Run(filepath.Base(f), func(t *testing.T) {
			raw, err := os.ReadFile(f)
			require.NoError(t, err)
			client := c.aClient("Golden", strings.TrimSuffix(filepath.Base(f), ".txt"))
			of := uuid.NewString()
			require.Equal(t, 200, c.call("PUT", "/api/visits/"+of, map[string]any{
				"id": of, "client": client, "starts_at": time.Now().Format(time.RFC3339),
			}, nil).StatusCode)
			// Ids are given anew: the same log is not stored twice.
			ids := map[string]string{
				goldenID(900): client, goldenID(901): of, goldenID(902): me.ID,
			}
			events, want := goldenLog(t, string(raw), ids)
			from := time.Now().UnixMilli() - int64(len(events))*1000
			rejected := []string{}
			for i := range events {
				events[i].DeviceMS = from + int64(i)*1000
				events[i].Version = 0
				var got api.EventAnswer
				res := c.call("POST", "/api/visits/"+of+"/events", map[string]any{
					"sent_ms": time.Now().UnixMilli(), "events": []any{events[i]},
				}, &got)
				require.Equal(t, 200, res.StatusCode)
				if got.Receipts[0].Result != "stored" {
					rejected = append(rejected, events[i].Type)
					t.Log(got.Receipts[0].Reason)
				}
			}
			var open api.OpenVisit
			require.Equal(t, 200, c.call("GET", "/api/visits/"+of, nil, &open).StatusCode)
			assert.Equal(t, want.Rejected, rejected)
			assert.Equal(t, withoutTimes(want.Runs), withoutTimes(open.State.Runs))
			var words []string
			for _, r := range open.State.Runs {
				words = append(words, r.Words())
			}
			assert.Equal(t, want.Words, words)
		})
	}
}

func goldenID(n int) string {
	return "0190b000-0000-7000-8000-" + strings.Repeat("0", 9) + string(rune('0'+n/100)) + string(rune('0'+n/10%10)) +
		string(rune('0'+n%10))
}

type goldenRuns struct {
	Runs     []visit.Run `json:"runs"`
	Words    []string    `json:"words"`
	Rejected []string    `json:"rejected"`
}

// goldenLog reads a log with the ids of this database: those that are given, and new ones for all
// others.
func goldenLog(t *testing.T, raw string, given map[string]string) (events []visit.Event, want goldenRuns) {
	t.Helper()
	fresh := uuid.New()
	anew := func(text string) string {
		for old, id := range given {
			text = strings.ReplaceAll(text, old, id)
		}
		// What is left of the golden ids keeps its number and gets a beginning of its own.
		return strings.ReplaceAll(text, "0190b000-0000-7000-8000-", fresh.String()[:24])
	}
	for _, l := range strings.Split(strings.TrimSpace(raw), "\n") {
		kind, text, _ := strings.Cut(l, " ")
		if kind == "<" {
			require.NoError(t, json.Unmarshal([]byte(anew(text)), &want))
			continue
		}
		var e visit.Event
		require.NoError(t, json.Unmarshal([]byte(anew(text)), &e))
		events = append(events, e)
	}
	return events, want
}

// withoutTimes are runs but for the clock that they ran by.
func withoutTimes(runs []visit.Run) []visit.Run {
	out := append([]visit.Run{}, runs...)
	for i := range out {
		out[i].BeganMS = 0
		out[i].Steps = append([]visit.StepRun{}, out[i].Steps...)
		for k := range out[i].Steps {
			out[i].Steps[k].BeganMS = 0
		}
	}
	return out
}
