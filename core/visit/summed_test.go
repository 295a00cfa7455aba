package visit_test

import (
	"fmt"
	"math/rand/v2"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/visit"
)

// aCourse is a client's course with a number a point and a visit, drawn at
// random; some points are missing at some visits.
func aCourse(r *rand.Rand) []visit.VisitContribution {
	visits := make([]visit.VisitContribution, 1+r.IntN(7))
	points, movements := r.IntN(5), r.IntN(4)
	moves := []ids.Movement{"cervical.rotation", "knee.flexion", "hip.abduction"}
	for i := range visits {
		visits[i] = visit.VisitContribution{Visit: uid(i), Day: float64(7 * i), Date: fmt.Sprintf("2031-01-%02d", 1+i)}
		for p := range points {
			if r.IntN(4) == 0 {
				continue
			}
			n := float64(r.IntN(21)) / 2
			c := charted(500+p, "soleus")
			c.Identity, c.NPRS = c.Point, &n
			visits[i].Points = append(
				visits[i].Points,
				visit.TreatedPoint{FoundPoint: visit.FoundPoint{PointCharted: c}},
			)
		}
		for m := range movements {
			deg := float64(r.IntN(60))
			visits[i].Ranges = append(visits[i].Ranges, visit.Range{Movement: moves[m], Side: ids.Left, Before: &deg})
		}
		if r.IntN(3) > 0 {
			now := float64(r.IntN(21)) / 2
			visits[i].PainNow = &now
		}
	}
	return visits
}

// judged by hand: the table of meaningful change, written once more.
func clearly(kind string, before, after float64) string {
	d := after - before
	size := max(d, -d)
	switch kind {
	case "point", "own score":
		switch {
		case size < 2 && (before == 0 || size/before < 0.3-1e-9):
			return ""
		case d < 0:
			return "better"
		}
		return "worse"
	case "neck":
		if size < 7 {
			return ""
		}
	default:
		if size < 5 {
			return ""
		}
	}
	if d > 0 {
		return "better"
	}
	return "worse"
}

var counted = regexp.MustCompile(
	`(?:(\d+) of (\d+)|no clear gain in (\d+)) (point|movement|own score)s?(?: clearly better)?(?:, (\d+) worse)?`,
)

// readBack takes the counts out of a sentence: better, of, worse by kind.
func readBack(text string) map[string][3]int {
	out := map[string][3]int{}
	n := func(s string) int {
		v, _ := strconv.Atoi(s)
		return v
	}
	for _, m := range counted.FindAllStringSubmatch(text, -1) {
		out[m[4]] = [3]int{n(m[1]), n(m[2]) + n(m[3]), n(m[5])}
	}
	return out
}

// The sentence on top agrees with the numbers, for a thousand random courses.
func TestTheSentenceOnTopAgreesWithTheNumbers(t *testing.T) {
	r := rand.New(rand.NewPCG(13, 1))
	said := 0
	for range 1000 {
		course := aCourse(r)
		series := map[string][]float64{}
		for _, v := range course {
			for _, p := range v.Points {
				key := "point " + string(p.Identity)
				series[key] = append(series[key], *p.NPRS)
			}
			for _, x := range v.Ranges {
				series["movement "+string(x.Movement)] = append(series["movement "+string(x.Movement)], *x.Before)
			}
			if v.PainNow != nil {
				series["own score now"] = append(series["own score now"], *v.PainNow)
			}
		}
		first, last := map[string][3]int{}, map[string][3]int{}
		for key, s := range series {
			n := len(s)
			if n < 2 {
				continue
			}
			kind := strings.TrimSpace(key[:strings.LastIndex(key, " ")])
			how := kind
			if strings.Contains(key, "cervical") {
				how = "neck"
			}
			count(first, kind, clearly(how, s[0], s[n-1]))
			count(last, kind, clearly(how, s[n-2], s[n-1]))
		}
		got := visit.Course(course, 40).Summed
		if len(first) == 0 {
			assert.NotContains(t, got.Text, "Since")
			continue
		}
		said++
		whole, since, ok := strings.Cut(got.Text, "Since the last one: ")
		require.True(t, ok, got.Text)
		require.Equal(t, first, readBack(whole), got.Text)
		require.Equal(t, last, readBack(since), got.Text)
	}
	assert.Greater(t, said, 500)
}

func count(into map[string][3]int, kind, direction string) {
	c := into[kind]
	c[1]++
	switch direction {
	case "better":
		c[0]++
	case "worse":
		c[2]++
	}
	into[kind] = c
}

// A client is resolved only when every point is and nothing hurts in movement.
func TestAClientsSignal(t *testing.T) {
	at := func(pain float64, numbers ...[]float64) visit.CourseSummary {
		var course []visit.VisitContribution
		for i := range numbers[0] {
			d := visit.VisitContribution{Visit: uid(i), Day: float64(7 * i)}
			for p, of := range numbers {
				c := charted(500+p, "soleus")
				c.Identity, c.NPRS = c.Point, &of[i]
				d.Points = append(d.Points, visit.TreatedPoint{FoundPoint: visit.FoundPoint{PointCharted: c}})
			}
			deg := 60.0
			d.Ranges = []visit.Range{{Movement: "knee.flexion", Side: ids.Left, Before: &deg, BeforePain: &pain}}
			course = append(course, d)
		}
		return visit.Course(course, 40).Summed
	}
	low, falling := []float64{7, 4, 2, 1}, []float64{8, 7, 6, 4}
	still, rising := []float64{6, 6, 5.5, 6}, []float64{4, 3, 5, 7}
	for _, c := range []struct {
		name string
		got  visit.CourseSummary
		want string
	}{
		{"all low", at(0, low, low), "resolved"},
		{"all low, but a movement hurts", at(1, low, low), "improving"},
		{"one of two low", at(0, low, still), "improving"},
		{"falling", at(0, falling), "improving"},
		{"still", at(0, still, still), "plateau"},
		{"one rises twice", at(0, low, rising), "worse"},
		{"one visit", at(0, []float64{5}), "too-few"},
	} {
		assert.Equal(t, c.want, string(c.got.Signal), c.name)
	}
}
