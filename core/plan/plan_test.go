package plan

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
)

// some muscles with rules between them, on the neck and elsewhere.
var some = ids.List[ids.Muscle]("scalenus-medius sternocleidomastoid-sternal upper-trapezius levator-scapulae " +
	"pectoralis-major pectoralis-minor gluteus-maximus piriformis soleus gastrocnemius-medial infraspinatus iliacus " +
	"psoas-major teres-major subscapularis")

func randomRequest(t *rapid.T, most int) Request {
	n := rapid.IntRange(1, most).Draw(t, "n")
	r := Request{Minutes: float64(rapid.IntRange(15, 75).Draw(t, "minutes"))}
	for i := range n {
		id := string(rune('a' + i))
		p := Point{
			ID: id, Muscle: rapid.SampledFrom(some).Draw(t, "muscle"+id),
			Side:      rapid.SampledFrom([]ids.Side{ids.Left, ids.Right}).Draw(t, "side"+id),
			Activity:  rapid.SampledFrom([]string{"active", "latent", "none"}).Draw(t, "activity"+id),
			Role:      rapid.SampledFrom([]string{"primary", "satellite", "functional"}).Draw(t, "role"+id),
			Protocol:  rapid.SampledFrom(ids.Protocols()).Draw(t, "protocol"+id),
			Complaint: rapid.Bool().Draw(t, "complaint"+id),
			Site:      rapid.SampledFrom([]string{"", "x"}).Draw(t, "site"+id),
		}
		if p.Role == "satellite" {
			p.Of = string(rune('a' + rapid.IntRange(0, n-1).Draw(t, "of"+id)))
		}
		if rapid.Bool().Draw(t, "treated"+id) {
			hours := rapid.SampledFrom([]float64{1, 47.9, 48, 100}).Draw(t, "hours"+id)
			p.HoursAgo = &hours
		}
		r.Points = append(r.Points, p)
	}
	if rapid.Bool().Draw(t, "pregnant") {
		r.Answers = []safety.Answer{{Question: "pregnancy", Answer: "yes"}}
	}
	return r
}

// The plan is as good as the best of all orders of all choices in all
// positions, which this tries one by one.
func TestThePlanIsTheBestThereIs(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := randomRequest(t, 8)
		got, err := Make(r)
		require.NoError(t, err)
		want := bruteForce(r)
		assert.InDelta(t, want.worth, got.Worth, 1e-9)
		assert.Equal(t, want.turns, got.Turns)
		treated := 0.0
		for _, s := range got.Steps {
			if s.Kind == "treat" || s.Kind == "turn" {
				treated += s.Minutes
			}
		}
		assert.InDelta(t, want.minutes, treated, 1e-9)
	})
}

// bruteForce walks every order of every choice.
func bruteForce(r Request) value {
	s := safety.Screen(r.Answers)
	f := r.fix()
	var open []candidate
	for _, c := range r.candidates(s, f) {
		if c.never == "" {
			open = append(open, c)
		}
	}
	p := problem{r: r, fixed: f, room: r.left() - f.sum(), most: mostPoints, open: open}
	p.prepare()
	best := value{}
	var walk func(order []int, set uint, lying ids.Position, turns int, minutes float64)
	walk = func(order []int, set uint, lying ids.Position, turns int, minutes float64) {
		total := minutes + turnMin*float64(turns)
		if total > p.room+1e-9 || p.overDose(set) {
			return
		}
		if v := (value{worth: p.worthOf(set), turns: turns, minutes: total}); v.better(best) {
			best = v
		}
		for k, c := range open {
			if set&(1<<k) != 0 {
				continue
			}
			if n := len(order); n > 0 && clash(open[order[n-1]].Point, c.Point) {
				continue
			}
			if slices.ContainsFunc(order, func(o int) bool { return goesBefore(c.Point, open[o].Point) != "" }) {
				continue
			}
			for _, x := range c.positions {
				t := turns
				if lying != "" && x != lying {
					t++
				}
				walk(append(slices.Clone(order), k), set|1<<k, x, t, minutes+c.minutes)
			}
		}
	}
	walk(nil, 0, "", 0, 0)
	return best
}

// Whatever comes in, no rule is broken, and it fits.
func TestNoPlanBreaksARule(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := randomRequest(t, 14)
		r.FirstVisit = rapid.Bool().Draw(t, "first")
		got, err := Make(r)
		require.NoError(t, err)
		screening := safety.Screen(r.Answers)
		byID := map[string]Point{}
		for _, p := range r.Points {
			byID[p.ID] = p
		}
		var order []Point
		lying := ids.Position("")
		at, turns := 0.0, 0
		for _, s := range got.Steps {
			assert.InDelta(t, at, s.StartsMin, 1e-9, "steps follow one another")
			at += s.Minutes
			assert.Empty(t, s.Broken)
			if s.Kind == "turn" {
				turns++
				assert.NotEqual(t, lying, s.Position)
				lying = s.Position
			}
			if s.Kind != "treat" {
				continue
			}
			p := byID[s.Point]
			if lying != "" {
				assert.Equal(t, lying, s.Position, "a turn stands before every change")
			}
			lying = s.Position
			_, blocked := screening.Blocks(p.Muscle, p.Where)
			assert.False(t, blocked)
			assert.NotContains(t, screening.Limits.AvoidPositions, s.Position)
			if p.HoursAgo != nil && *p.HoursAgo < 48 {
				assert.Contains(t, []ids.Protocol{"slack-hold", "contract-relax", "resisted-lengthening"}, p.Protocol)
			}
			for _, before := range order {
				assert.Empty(t, goesBefore(p, before), "%s after %s", p.Muscle, before.Muscle)
			}
			if n := len(order); n > 0 {
				assert.False(t, clash(order[n-1], p))
			}
			order = append(order, p)
		}
		assert.Equal(t, turns, got.Turns)
		assert.LessOrEqual(t, at, r.Minutes+1e-9)
		most := 8
		if r.FirstVisit {
			most = 4
		}
		assert.LessOrEqual(t, len(order), most)
		assert.Equal(t, len(r.Points), len(order)+len(got.LeftOut), "each point is in it or left out with its reason")
		for _, l := range got.LeftOut {
			assert.NotEmpty(t, l.Reason)
		}
	})
}

func TestMoreMinutesNeverLowerTheWorth(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := randomRequest(t, 9)
		less, err := Make(r)
		require.NoError(t, err)
		r.Minutes += float64(rapid.IntRange(1, 30).Draw(t, "more"))
		more, err := Make(r)
		require.NoError(t, err)
		assert.GreaterOrEqual(t, more.Worth, less.Worth-1e-9)
	})
}

func point(id string, m ids.Muscle, side ids.Side, activity string) Point {
	return Point{ID: id, Muscle: m, Side: side, Activity: activity, Role: "primary"}
}

func make45(t *testing.T, r Request) Plan {
	t.Helper()
	r.Minutes = max(r.Minutes, 45)
	p, err := Make(r)
	require.NoError(t, err)
	return p
}

func treated(p Plan) []string {
	out := []string{}
	for _, s := range p.Steps {
		if s.Kind == "treat" {
			out = append(out, s.Point)
		}
	}
	return out
}

func TestWorth(t *testing.T) {
	for _, c := range []struct {
		name  string
		point Point
		worth float64
	}{
		{"active", Point{Activity: "active", Role: "functional"}, 3},
		{"latent", Point{Activity: "latent", Role: "functional"}, 1},
		{"primary", Point{Activity: "active", Role: "primary"}, 4.5},
		{"where it hurts", Point{Activity: "active", Role: "primary", Complaint: true}, 6.75},
		{"neither", Point{Activity: "none", Role: "primary", Complaint: true}, 0},
	} {
		assert.InDelta(t, c.worth, worth(c.point), 1e-9, c.name)
	}
}

func TestASatelliteComesAfterItsPrimaryAndIsWorthHalf(t *testing.T) {
	of := point("of", "infraspinatus", ids.Left, "active")
	sat := Point{
		ID: "sat", Muscle: "teres-major", Side: ids.Left, Activity: "active", Role: "satellite", Of: "of",
		Complaint: true,
	}
	p := make45(t, Request{Points: []Point{sat, of}})
	assert.Equal(t, []string{"of", "sat"}, treated(p))
	assert.InDelta(t, 4.5+3*1.5*0.5, p.Worth, 1e-9)
}

func TestTheDoseIsKept(t *testing.T) {
	at := func(h float64) *float64 { return &h }
	deep := point("a", "infraspinatus", ids.Left, "active")
	deep.HoursAgo = at(47.9)
	p := make45(t, Request{Points: []Point{deep}})
	assert.Empty(t, treated(p))
	assert.Contains(t, p.LeftOut[0].Reason, "48")
	assert.True(t, p.LeftOut[0].Never)
	deep.HoursAgo = at(48)
	assert.Len(t, treated(make45(t, Request{Points: []Point{deep}})), 1)
	deep.HoursAgo, deep.Protocol = at(10), "slack-hold"
	assert.Len(t, treated(make45(t, Request{Points: []Point{deep}})), 1, "light work is no deep work")
	// Six minutes in one region are four holds of 90 s.
	var hip []Point
	for i, m := range ids.List[ids.Muscle](
		"gluteus-medius gluteus-minimus tensor-fasciae-latae gluteus-maximus rectus-femoris",
	) {
		hip = append(hip, point(string(rune('a'+i)), m, ids.Left, "active"))
	}
	p = make45(t, Request{Points: hip, Minutes: 90})
	assert.Len(t, treated(p), 4)
	assert.Contains(t, p.LeftOut[0].Reason, "six minutes")
	twice := point("x", "infraspinatus", ids.Left, "active")
	twice.Treated = 2
	assert.Contains(t, make45(t, Request{Points: []Point{twice}}).LeftOut[0].Reason, "twice")
}

func TestTheNeck(t *testing.T) {
	left, right := point("l", "scalenus-medius", ids.Left, "active"), point("r", "scalenus-medius", ids.Right, "active")
	p := make45(t, Request{Points: []Point{left, right}})
	assert.Len(t, treated(p), 1, "never both sides directly one after the other")
	p = make45(t, Request{Points: []Point{left, right, point("c", "soleus", ids.Left, "latent")}})
	assert.Equal(t, []string{"l", "c", "r"}, treated(p), "something else lies between")
	none := 0.0
	p = make45(t, Request{Points: []Point{left}, Blocks: &Blocks{WarmUp: &none}})
	assert.Contains(t, p.LeftOut[0].Reason, "warm-up")
}

func TestAnOrderByHandIsTakenAndWhatItBreaksIsSaid(t *testing.T) {
	over := point("over", "gluteus-maximus", ids.Left, "active")
	under := point("under", "piriformis", ids.Left, "active")
	p := make45(t, Request{Points: []Point{over, under}, Order: []string{"under", "over"}})
	require.Equal(t, []string{"under", "over"}, treated(p))
	i := slices.IndexFunc(p.Steps, func(s Step) bool { return s.Point == "under" })
	assert.Equal(t, []string{"Before over: what lies over it comes first."}, p.Steps[i].Broken)
	h := 1.0
	over.HoursAgo = &h
	p = make45(t, Request{Points: []Point{over, under}, Order: []string{"under", "over"}})
	assert.Equal(t, []string{"under"}, treated(p), "what the dose forbids is not in it")
	p = make45(t, Request{Points: []Point{under}, Order: []string{"under"}, Minutes: 45, GoneMin: 42})
	assert.InDelta(t, 2.5, p.OverMin, 1e-9, "an order by hand may not fit, and says so")
}

func TestThePlanFlowsAgainFromTheRealTime(t *testing.T) {
	all := []Point{
		point("a", "infraspinatus", ids.Left, "active"), point("b", "gluteus-medius", ids.Left, "active"),
		point("c", "soleus", ids.Right, "latent"),
	}
	full := make45(t, Request{Points: all})
	require.Len(t, treated(full), 3)
	left := make45(t, Request{
		Points: all, GoneMin: 32, Position: "prone",
		Done: []TreatedPoint{{Point: "a", Muscle: "infraspinatus", Side: ids.Left, PressureS: 240}},
	})
	assert.Equal(t, []string{"b"}, treated(left), "13 minutes left, of which 10 are to close")
	assert.InDelta(t, 32, left.Steps[0].StartsMin, 1e-9)
	assert.Contains(t, left.LeftOut[0].Reason, "No time")
}

func TestBadInputNamesTheField(t *testing.T) {
	_, err := Make(Request{Minutes: 45, Points: []Point{{ID: "a"}, {ID: "a"}}})
	assert.ErrorContains(t, err, "$.points[1].id")
	_, err = Make(Request{Minutes: 45, Order: []string{"nowhere"}})
	assert.ErrorContains(t, err, "$.order[0]")
}

func TestShortSessionsKeepTheClosing(t *testing.T) {
	p, err := Make(Request{Minutes: 6, Points: []Point{point("a", "infraspinatus", ids.Left, "active")}})
	require.NoError(t, err)
	assert.Empty(t, treated(p))
	assert.Equal(t, "close", p.Steps[len(p.Steps)-1].Kind)
	assert.InDelta(t, 6, p.Minutes, 1e-9)
}

func fourteen() Request {
	r := Request{Minutes: 75}
	for i := range 14 {
		r.Points = append(r.Points, Point{
			ID: string(rune('a' + i)), Muscle: some[i%len(some)], Side: []ids.Side{ids.Left, ids.Right}[i%2],
			Activity: []string{"active", "latent"}[i%2], Role: "primary", Complaint: math.Mod(float64(i), 3) == 0,
			Protocol: "slack-hold",
		})
	}
	return r
}

func BenchmarkPlanOf14Points(b *testing.B) {
	r := fourteen()
	for b.Loop() {
		if _, err := Make(r); err != nil {
			b.Fatal(err)
		}
	}
}

func TestTheSearchTurnsTheClientAsLittleAsItMay(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var list []SearchTarget
		for i := range rapid.IntRange(1, 9).Draw(t, "n") {
			list = append(list, SearchTarget{
				rapid.SampledFrom(some).Draw(t, "muscle"),
				rapid.SampledFrom([]ids.Side{ids.Left, ids.Right}).Draw(t, "side"),
				float64(i) / 10, true,
			})
		}
		got := SearchOrder(list, nil)
		require.Len(t, got, len(list))
		used := map[ids.Position]bool{}
		turns := 0
		for i, s := range got {
			used[s.Position] = true
			m, err := atlas.Get(s.Muscle)
			require.NoError(t, err)
			assert.Contains(t, m.Lying(s.Side, nil), s.Position)
			if s.Turn {
				turns++
				assert.NotEqual(t, got[i-1].Position, s.Position)
			}
		}
		assert.Equal(t, len(used)-1, turns, "no position is taken twice")
		for _, p := range ids.Positions() {
			for _, q := range ids.Positions() {
				covers := !slices.ContainsFunc(list, func(w SearchTarget) bool {
					m, _ := atlas.Get(w.Muscle)
					l := m.Lying(w.Side, nil)
					return !slices.Contains(l, p) && !slices.Contains(l, q)
				})
				if covers {
					assert.LessOrEqual(t, len(used), 2, "two positions would do")
				}
			}
		}
	})
}

func TestTheSearchTakesThoseAboveTheLineFirst(t *testing.T) {
	got := SearchOrder([]SearchTarget{
		{"soleus", ids.Left, 0.3, false},
		{"pectoralis-major", ids.Left, 0.85, true},
		{"infraspinatus", ids.Left, 0.9, true},
	}, nil)
	require.Len(t, got, 3)
	assert.True(t, got[0].Ready && got[1].Ready)
	assert.Equal(t, ids.Muscle("soleus"), got[2].Muscle)
	none := SearchOrder([]SearchTarget{{"soleus", ids.Left, 0.3, false}}, ids.Positions())
	assert.Empty(t, none, "no position is allowed")
}
