package calc_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/atlas"
	"mokren/core/calc"
	"mokren/core/decode"
	"mokren/core/ids"
)

func TestEveryExampleRuns(t *testing.T) {
	for _, c := range calc.List() {
		out, err := calc.Run(c.Name, []byte(c.Example))
		require.NoError(t, err, c.Name)
		want := 1
		if c.Lines {
			want = len(strings.Split(c.Example, "\n"))
		}
		assert.Equal(t, want, bytes.Count(out, []byte("\n")), "%s: one line out for each line in", c.Name)
	}
}

func TestBadInputNamesTheField(t *testing.T) {
	const start = `{"t":0,"event":"start","protocol":"graded-stages"}` + "\n"
	for _, c := range []struct{ name, in, field string }{
		{"change", ``, "$"},
		{"change", `[]`, "$"},
		{"change", `{"measure":"nprs"}`, "$.before"},
		{"change", `{"measure":"nprs","before":1}`, "$.after"},
		{"change", `{"measure":"nprs","before":1,"after":2,"series":[]}`, "$.series"},
		{"change", `{"measure":"NPRS","before":1,"after":2}`, "$.measure"},
		{"change", `{"measure":"nprs","series":[{"day":1}]}`, "$.series[0].value"},
		{"change", `{"measure":"nprs","befor":1,"after":2}`, "$.befor"},
		{"palpate", `{"muscle":"soleus"}`, "$.side"},
		{"palpate", `{"muscle":"soleous","side":"left"}`, "$.muscle"},
		{"palpate", `{"muscle":"soleus","side":"midline"}`, "$.side"},
		{"palpate", `{"muscle":"soleus","side":"left","site":"top"}`, "$.site"},
		{"palpate", `{"muscle":"soleus","side":"left","height_cm":0}`, "$.height_cm"},
		{"near", `{}`, "$.muscle"},
		{"near", `{"muscle":"soleus","side":"left","view":"back","x":1,"y":1}`, "$.muscle"},
		{"near", `{"muscle":"soleus"}`, "$.side"},
		{"near", `{"muscle":"soleus","side":"left","x":1}`, "$.view"},
		{"near", `{"muscle":"soleus","side":"left","site":"top"}`, "$.site"},
		{"near", `{"view":"back","y":1}`, "$.x"},
		{"near", `{"view":"back","x":1}`, "$.y"},
		{"near", `{"view":"back","x":1,"y":1}`, "$.x"},
		{"near", `{"view":"back","x":180,"y":800,"contact":"nose"}`, "$.contact"},
		{"range", `{"movement":"scapula.elevation"}`, "$.movement"},
		{"range", `{"movement":"knee.flexion","active_deg":400}`, "$.active_deg"},
		{"under", `{"view":"back","x":-1,"y":0}`, "$.x"},
		{"cells", `{"view":"back","regions":[{"region":"tail","side":"left"}]}`, "$.regions[0].region"},
		{"coach", ``, "line 1"},
		{"coach", `{"t":1,"event":"start","protocol":"graded-stages"}`, "line 1: $.t"},
		{"coach", `{"t":0,"event":"contact"}`, "line 1: $.event"},
		{"coach", `{"t":0,"event":"start","protocol":"graded-stages","cap_seconds":121}`, "line 1: $.cap_seconds"},
		{"coach", `{"t":0,"event":"start","protocol":"graded-stages","scale":7}`, "line 1: $.scale"},
		{"coach", `{"t":0,"event":"start","protocol":"graded-stages","muscle":"heart"}`, "line 1: $.muscle"},
		{"coach", start + `{"t":-1,"event":"contact"}`, "line 2: $.t"},
		{"coach", start + `{"t":1.2345,"event":"contact"}`, "line 2: $.t"},
		{"coach", start + `{"t":"1","event":"contact"}`, "line 2: $.t"},
		{"coach", start + `{"t":5,"event":"contact"}` + "\n" + `{"t":4,"event":"tick"}`, "line 3: $.t"},
		{
			"coach", start + `{"t":5,"event":"contact"}` + "\n\n" + `{"t":6,"event":"score","value":11}`,
			"line 4: $.value",
		},
		{"coach", start + `{"t":5,"event":"contact","val":1}`, "line 2: $.val"},
		{"coach", start + `{"t":5`, "line 2: $.t"},
		{"nonsense", ``, "NAME"},
	} {
		out, err := calc.Run(c.name, []byte(c.in))
		var e *decode.Error
		require.ErrorAs(t, err, &e, "%s %s", c.name, c.in)
		assert.Empty(t, out)
		assert.Equal(t, c.field, e.Path, "%s %s", c.name, c.in)
		assert.NotContains(t, e.Error(), "\n")
	}
}

func coach(t *testing.T, lines ...string) []map[string]any {
	t.Helper()
	out, err := calc.Run("coach", []byte(strings.Join(lines, "\n")))
	require.NoError(t, err)
	var all []map[string]any
	for l := range strings.SplitSeq(strings.TrimSpace(string(out)), "\n") {
		var m map[string]any
		require.NoError(t, json.Unmarshal([]byte(l), &m))
		all = append(all, m)
	}
	return all
}

func TestCoachLines(t *testing.T) {
	all := coach(t, `{"t":0,"event":"start","protocol":"graded-stages","scale":5,"muscle":"scalenus-medius","side":"left"}`,
		`{"t":0.5,"event":"contact"}`, `{"t":3.125,"event":"score","value":2}`,
		`{"t":3.125,"event":"start","protocol":"graded-stages"}`, `{"t":4,"event":"score","value":2.5}`)
	for _, l := range all {
		for _, k := range []string{"t", "phase", "advice", "stage", "stage_left_s", "pressure_s", "text", "reason"} {
			assert.Contains(t, l, k)
		}
	}
	assert.Equal(t, 3.125, all[2]["t"])
	assert.Equal(t, "stage", all[2]["phase"])
	assert.Equal(t, true, all[3]["ignored"])
	assert.Equal(t, []any{"ease-off"}, all[4]["advice"], "5 of 10 is above the scalenes' soft ceiling of 4")
	for _, l := range all[:4] {
		assert.NotContains(t, l, "summary")
	}
	sum := all[4]["summary"].(map[string]any)
	assert.Equal(t, 5.0, sum["highest_score"])
	assert.Equal(t, "unchanged", sum["outcome"])
}

func TestPalpateWithoutSiteIsTheUnion(t *testing.T) {
	var whole, one struct {
		Referral struct{ Essential, Spillover []ids.Region }
		Sites    []struct{ Site string }
	}
	run := func(in string, out any) {
		b, err := calc.Run("palpate", []byte(in))
		require.NoError(t, err)
		require.NoError(t, json.Unmarshal(b, out))
	}
	run(`{"muscle":"soleus","side":"right"}`, &whole)
	run(`{"muscle":"soleus","side":"right","site":"lower-inner"}`, &one)
	assert.Len(t, whole.Sites, 3)
	assert.Len(t, one.Sites, 1)
	assert.Subset(t, whole.Referral.Essential, one.Referral.Essential)
	assert.Contains(t, whole.Referral.Essential, ids.Region("sacroiliac"))
	assert.NotContains(t, one.Referral.Essential, ids.Region("sacroiliac"))
}

func TestDistancesGrowWithTheClient(t *testing.T) {
	dist := func(h string) float64 {
		b, err := calc.Run("palpate", []byte(`{"muscle":"piriformis","side":"left","site":"inner","height_cm":`+h+`}`))
		require.NoError(t, err)
		var g struct {
			Near []struct {
				CM float64 `json:"distance_cm"`
			}
		}
		require.NoError(t, json.Unmarshal(b, &g))
		return g.Near[0].CM
	}
	assert.InDelta(t, 2, dist("200")/dist("100"), 0.1)
}

func answer(t *testing.T, name, in string) map[string]any {
	t.Helper()
	b, err := calc.Run(name, []byte(in))
	require.NoError(t, err, "%s %s", name, in)
	var m map[string]any
	require.NoError(t, json.Unmarshal(b, &m))
	return m
}

func TestPalpateAnswersForEveryMuscleSiteAndSide(t *testing.T) {
	for _, m := range atlas.All() {
		for _, s := range m.Sites {
			for _, side := range []ids.Side{ids.Left, ids.Right} {
				g := answer(t, "palpate", fmt.Sprintf(`{"muscle":%q,"side":%q,"site":%q}`, m.ID, side, s.ID))
				for _, k := range []string{
					"sites", "landmarks", "steps", "strum_deg", "confirm", "tension", "slack",
					"near", "ease_first", "mistaken_for", "referral",
				} {
					assert.Contains(t, g, k)
				}
			}
		}
	}
}

func TestLevel(t *testing.T) {
	for landmark, want := range map[string]string{
		"iliac-crest": "L4", "psis": "S2", "sacrum-base": "L5",
		"crest-scapula-midpoint": "T12", "scapula-inferior-angle": "T7", "scapula-spine-root": "T3",
		"suboccipital-hollow": "C1", "first-spinous-below-occiput": "C2",
	} {
		assert.Equal(t, want, answer(t, "level", `{"landmark":"`+landmark+`"}`)["level"], landmark)
	}
	l := answer(t, "level", `{"level":"L3","fingers_lateral":2,"fingers_down":0}`)
	assert.Equal(t, "transverse-process", l["structure"])
	assert.InDelta(t, 3.6, l["out_cm"], 1e-9)
	assert.InDelta(t, 4.0, answer(t, "level",
		`{"level":"L3","fingers_lateral":2,"fingers_down":0,"finger_cm":2}`)["out_cm"], 1e-9)
	assert.Equal(t, "T12", answer(t, "level", `{"level":"L4","count_down":-4}`)["level"])
	for in, field := range map[string]string{
		`{}`: "$.landmark", `{"landmark":"psis","level":"L4"}`: "$.landmark", `{"level":"L4"}`: "$.fingers_lateral",
		`{"level":"L4","fingers_lateral":1}`:                  "$.fingers_down",
		`{"level":"L9","fingers_lateral":1,"fingers_down":0}`: "$.level", `{"landmark":"patella"}`: "$.landmark",
		`{"level":"L4","count_down":20}`: "$.count_down",
	} {
		_, err := calc.Run("level", []byte(in))
		assert.ErrorContains(t, err, field, in)
	}
}

func TestDrawing(t *testing.T) {
	d := answer(t, "drawing",
		`{"before":{"back":["back:-4,31","back:-4,32"]},"after":{"back":["back:-4,31","back:-4,31"]},"height_cm":170}`)
	assert.InDelta(t, d["before_cm2"].(float64)/2, d["after_cm2"], 1e-9, "a cell painted twice counts once")
	assert.InDelta(t, 2.0/3, d["dice"], 1e-9)
	assert.InDelta(t, -50, d["change_percent"], 1e-9)
	assert.InDelta(t, d["before_cm2"].(float64)/2, d["gone_cm2"], 1e-9)
	same := answer(t, "drawing",
		`{"before":{"front":["front:0,40"],"back":["back:-4,31"]},"after":{"back":["back:-4,31"],"front":["front:0,40"]},"height_cm":160}`)
	assert.InDelta(t, 1, same["dice"], 1e-12)
	apart := answer(t, "drawing", `{"before":{},"after":{"back":["back:-4,31"]},"height_cm":160}`)
	assert.InDelta(t, 0, apart["dice"], 1e-12)
	assert.NotContains(t, apart, "change_percent", "no percentage of nothing")
	for in, field := range map[string]string{
		`{"before":{"top":[]},"after":{},"height_cm":170}`:              "$.before.top",
		`{"before":{"back":["front:0,40"]},"after":{},"height_cm":170}`: "$.before.back[0]",
		`{"before":{},"after":{"back":["back:900,1"]},"height_cm":170}`: "$.after.back[0]",
		`{"before":{},"after":{}}`:                                      "$.height_cm",
	} {
		_, err := calc.Run("drawing", []byte(in))
		assert.ErrorContains(t, err, field, in)
	}
}

func TestIdsAreUniqueWithinTheirKind(t *testing.T) {
	for _, k := range ids.All() {
		seen := map[string]bool{}
		for _, id := range k.IDs {
			assert.False(t, seen[id], "%s %s", k.Name, id)
			seen[id] = true
		}
		assert.NotEmpty(t, k.IDs, k.Name)
	}
	b, err := ids.JSON()
	require.NoError(t, err)
	var m map[string][]string
	require.NoError(t, json.Unmarshal(b, &m))
	assert.Len(t, m["muscles"], 103)
	assert.Contains(t, m["tests"], "resisted:cervical.rotation")
}

func TestScreenByName(t *testing.T) {
	s := answer(t, "screen", `{"answers":[{"question":"unexplained-chest-pain","answer":"yes"}]}`)
	assert.Equal(t, "refer-first", s["outcome"])
	assert.NotContains(t, s["missing"], "unexplained-chest-pain")
	assert.Contains(t, s["missing"], "fever")
	s = answer(t, "screen", `{"answers":[{"question":"anticoagulant","answer":"unknown"}]}`)
	assert.Equal(t, "adapt", s["outcome"], "unknown counts as yes")
	for in, field := range map[string]string{
		`{"answers":[{"question":"feever","answer":"no"}]}`:                       "$.answers[0].question",
		`{"answers":[{"question":"fever","answer":"maybe"}]}`:                     "$.answers[0].answer",
		`{"answers":[{"question":"fever","answer":"yes","days_ago":-1}]}`:         "$.answers[0].days_ago",
		`{"answers":[{"question":"open-skin","answer":"yes","regions":["toe"]}]}`: "$.answers[0].regions[0]",
		`{}`: "$.answers",
	} {
		_, err := calc.Run("screen", []byte(in))
		assert.ErrorContains(t, err, field, in)
	}
}

func TestSuspectsByName(t *testing.T) {
	s := answer(t, "suspects",
		`{"pain":[{"region":"heel","side":"left","intensity":6}],"top":5,"screening":[{"question":"calf-warm-swollen","answer":"yes","side":"left"}]}`)
	assert.Len(t, s["suspects"], 5)
	assert.InDelta(t, 0.8, s["threshold"], 0)
	for _, x := range s["suspects"].([]any) {
		assert.Equal(t, true, x.(map[string]any)["blocked"], "refer-first stops everything")
		assert.Equal(t, false, x.(map[string]any)["ready"])
	}
	for in, field := range map[string]string{
		`{}`: "$.pain", `{"pain":[{"region":"heel","side":"left","intensity":11}]}`: "$.pain[0].intensity",
		`{"pain":[],"tests":[{"test":"ober","side":"left","result":"positive"}]}`: "$.tests[0].test",
		`{"pain":[],"loads":["sitting"]}`:                                         "$.loads[0]",
		`{"pain":[],"weights":{"referral":{"plus":99,"minus":0.5}}}`:              "$.weights.referral.plus",
	} {
		_, err := calc.Run("suspects", []byte(in))
		assert.ErrorContains(t, err, field, in)
	}
	assert.InDelta(t, 30, answer(t, "slope", `{"distance_cm":34,"height_difference_cm":17}`)["slope_deg"], 1e-9)
	_, err := calc.Run("slope", []byte(`{"distance_cm":34}`))
	assert.Error(t, err)
}

// What a page asks the core for is in the browser's core, and nothing else is.
func TestTheBrowserHasWhatItAsksFor(t *testing.T) {
	asked := map[string]bool{}
	names := regexp.MustCompile(`(?:ask|useAsk|useAskAll)\(\s*(?:[\w.]+,\s*)?"([a-z]+)"`)
	err := filepath.WalkDir("../../ui/src", func(path string, d fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".ts") && !strings.HasSuffix(path, ".tsx") ||
			strings.Contains(path, ".test.") {
			return err
		}
		page, err := os.ReadFile(path)
		for _, m := range names.FindAllSubmatch(page, -1) {
			asked[string(m[1])] = true
		}
		return err
	})
	require.NoError(t, err)
	require.Greater(t, len(asked), 20)
	for _, c := range calc.List() {
		_, err := calc.InBrowser(c.Name, []byte(c.Example))
		assert.Equal(t, asked[c.Name], err == nil, "%s: %v", c.Name, err)
	}
}
