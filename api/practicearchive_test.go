package api_test

import (
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/demo"
)

// ways sets one thing of each kind that a practice may set over what was shipped; what
// it gives puts all of that back.
func ways(t *testing.T, c *caller, plus float64) (back func()) {
	t.Helper()
	site, protocol := uuid.NewString(), uuid.NewString()
	place := map[string]any{"fibre": 0, "along_pct": 71.5, "across_mm": 12.25}
	set := map[string]any{
		"/api/evidence/referral":           map[string]any{"plus": plus, "minus": 0.6},
		"/api/thresholds/scapula-distance": map[string]any{"value": 2.5},
		"/api/protocols/" + protocol: map[string]any{
			"protocol": "pulses", "name": "Short pulses", "numbers": map[string]any{},
		},
		"/api/sequences/" + protocol: map[string]any{
			"name": "Calves, our way", "block": "warm-up", "from": "calf-and-sole", "sides": "each",
			"steps": []any{map[string]any{
				"technique": "kneading", "where": "upper-calf", "dose": map[string]any{"seconds": 60}, "importance": 4,
			}},
		},
		"/api/atlas/temporalis/note":          map[string]any{"text": "Ask about the jaw.", "revision": 0},
		"/api/atlas/temporalis/sites/" + site: map[string]any{"id": site, "name": "Low and outward", "place": place},
	}
	for path, body := range set {
		require.Equal(t, 200, c.call("PUT", path, body, nil).StatusCode, path)
	}
	return func() {
		for path := range set {
			c.call("DELETE", strings.TrimSuffix(path, "/note"), nil, nil)
		}
	}
}

func ratioOf(c *caller, id string) float64 {
	var w api.Weights
	c.call("GET", "/api/evidence", nil, &w)
	return w.Weights[id].Plus
}

// A practice with all that it has set itself: out, into an empty practice, out again:
// the same bytes.
func TestAPracticeGoesOutAndInAndOutAgain(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	t.Cleanup(ways(t, c, 7)) // the other tests know the demo's practice as it was
	other := c.elsewhere(st)
	raw := c.file("/api/practice/export/archive")
	assert.Contains(t, string(raw), `"version":2,"practice":{`)
	taken := other.takeIn("archive", "all.json", raw, true)
	require.Empty(t, taken.Problems)
	assert.GreaterOrEqual(t, taken.Counts.Set, 6)
	assert.Zero(t, taken.Counts.Stayed)
	require.Equal(t, string(raw), string(other.file("/api/practice/export/archive")))
	require.Equal(t, 204, other.call("POST", "/api/imports/"+taken.Import+"/undo", nil, nil).StatusCode)
	left := string(other.file("/api/practice/export/archive"))
	assert.Equal(t, `{"format":"mokren-archive","version":1,"people":[],"clients":[],"visits":[],"photos":[]}`+"\n", left)
}

// What is set otherwise here stays; what an import set and somebody has changed since is
// not undone.
func TestWhatAPracticeHasSetStays(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	from, into := c.elsewhere(st), c.elsewhere(st)
	ways(t, from, 5)
	raw := from.file("/api/practice/export/archive")
	own := map[string]any{"plus": 3, "minus": 0.6}
	require.Equal(t, 200, into.call("PUT", "/api/evidence/referral", own, nil).StatusCode)
	looked := into.takeIn("archive", "w.json", raw, false)
	assert.Equal(t, 5, looked.Counts.Set)
	assert.Equal(t, 1, looked.Counts.Stayed)
	taken := into.takeIn("archive", "w.json", raw, true)
	require.NotEmpty(t, taken.Import)
	assert.InDelta(t, 3, ratioOf(into, "referral"), 1e-9)

	again := into.takeIn("archive", "w.json", raw, true)
	assert.Zero(t, again.Counts.Set, "all of it is here already")
	assert.Equal(t, 1, again.Counts.Stayed)

	changed := map[string]any{"value": 3}
	require.Equal(t, 200, into.call("PUT", "/api/thresholds/scapula-distance", changed, nil).StatusCode)
	assert.Equal(t, 409, into.call("POST", "/api/imports/"+taken.Import+"/undo", nil, nil).StatusCode)
	was := map[string]any{"value": 2.5}
	require.Equal(t, 200, into.call("PUT", "/api/thresholds/scapula-distance", was, nil).StatusCode)
	assert.Equal(t, 204, into.call("POST", "/api/imports/"+taken.Import+"/undo", nil, nil).StatusCode)
	assert.InDelta(t, 3, ratioOf(into, "referral"), 1e-9, "this practice's own")
}

func TestAnArchiveSetsNothingThatIsNotAllowed(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	into := c.elsewhere(st)
	archive := func(version, practice string) []byte {
		return []byte(`{"format":"mokren-archive","version":` + version + `,"practice":` + practice +
			`,"people":[],"clients":[],"visits":[],"photos":[]}`)
	}
	part := func(kind, items string) string {
		practice := `{"weights":[],"thresholds":[],"protocols":[],"notes":[],"sites":[]}`
		return strings.Replace(practice, `"`+kind+`":[]`, `"`+kind+`":[`+items+`]`, 1)
	}
	weight := func(evidence, plus string) string {
		return `{"evidence":"` + evidence + `","ratio":{"plus":` + plus + `,"minus":0.5}}`
	}
	fine, id := weight("referral", "5"), uuid.NewString()
	endless := `{"id":"` + id + `","own":{"name":"Endless","block":"close","steps":[` +
		`{"technique":"kneading","where":"upper-calf","dose":{"seconds":1100}}]}}`
	long := `{"id":"` + id + `","own":{"protocol":"pulses","name":"Long","numbers":{"press_s":600}}}`
	beyond := `{"id":"` + id + `","muscle":"temporalis","name":"x","figure":"figure-2",
		"place":{"fibre":9,"along_pct":1,"across_mm":1}}`
	for field, raw := range map[string][]byte{
		"$.practice":                          archive("1", part("weights", fine)),
		"$.practice.weights[0].evidence":      archive("2", part("weights", weight("moon", "5"))),
		"$.practice.weights[0].ratio.plus":    archive("2", part("weights", weight("referral", "500"))),
		"$.practice.weights[1].evidence":      archive("2", part("weights", fine+","+fine)),
		"$.practice.thresholds[0].value":      archive("2", part("thresholds", `{"threshold":"scapula-distance","value":99}`)),
		"$.practice.protocols[0].own.numbers": archive("2", part("protocols", long)),
		"$.practice.sequences[0].own.steps[0].dose.seconds": archive("2",
			`{"weights":[],"thresholds":[],"protocols":[],"notes":[],"sites":[],"sequences":[`+endless+`]}`),
		"$.practice.notes[0].muscle":      archive("2", part("notes", `{"muscle":"elbow","text":"x"}`)),
		"$.practice.sites[0].place.fibre": archive("2", part("sites", beyond)),
	} {
		p := into.takeIn("archive", "x.json", raw, true)
		require.Len(t, p.Problems, 1, field)
		assert.Contains(t, p.Problems[0].Field, field)
		assert.Empty(t, p.Import)
	}
}
