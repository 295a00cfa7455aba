package points

import (
	"cmp"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
)

func at(r ids.Region, s ids.Side) safety.Place { return safety.Place{Region: r, Side: s} }

func one(p Point) Judgement {
	p.ID, p.Muscle, p.Side = "a", "infraspinatus", ids.Left
	return Judge([]Point{p}, nil)[0]
}

func TestCertaintyAtItsBoundaries(t *testing.T) {
	sent := []safety.Place{at("anterior-shoulder", ids.Left)}
	for _, c := range []struct {
		name      string
		point     Point
		certainty Certainty
	}{
		{"nothing said", Point{}, TenderSpot},
		{"grade 1 and 3.5", Point{Grade: new(1), NPRS: new(3.5)}, TenderSpot},
		{"grade 2", Point{Grade: new(2)}, Possible},
		{"number 4", Point{NPRS: new(4.0)}, Possible},
		{"195 kPa below the other side", Point{PPT: new(205.0), Other: new(400.0)}, TenderSpot},
		{"196 kPa below the other side", Point{PPT: new(204.0), Other: new(400.0)}, Possible},
		{"above the other side", Point{PPT: new(600.0), Other: new(204.0)}, TenderSpot},
		{"other side not measured", Point{PPT: new(10.0)}, TenderSpot},
		{"a band", Point{Band: "yes"}, Possible},
		{"perhaps a band", Point{Band: "unsure"}, TenderSpot},
		{"referral", Point{Referral: sent}, Possible},
		{"felt nowhere else", Point{Band: "yes", NoReferral: true}, Possible},
		{"band and number", Point{Band: "yes", NPRS: new(4.0)}, TriggerPoint},
		{"band and referral", Point{Band: "yes", Referral: sent}, TriggerPoint},
		{"number and referral", Point{NPRS: new(7.0), Referral: sent}, TriggerPoint},
		{"twitch is not needed and not enough", Point{Band: "yes", Twitch: new(true)}, Possible},
	} {
		assert.Equal(t, c.certainty, one(c.point).Certainty, c.name)
	}
}

func TestActivity(t *testing.T) {
	for familiar, want := range map[string]Activity{
		"yes": Active, "partly": Active, "no": Latent, "unknown": None, "": None,
	} {
		assert.Equal(t, want, one(Point{Band: "yes", Grade: new(3), Familiar: familiar}).Activity, familiar)
		assert.Equal(t, None, one(Point{Band: "yes", Familiar: familiar}).Activity, "a possible point is neither")
	}
}

func TestWhatWasNotSaidIsNamed(t *testing.T) {
	all := []string{"taut band", "tenderness", "referral", "whether the pain is familiar"}
	assert.Equal(t, all, one(Point{}).Unsaid)
	assert.Empty(t, one(Point{Band: "no", Grade: new(0), NoReferral: true, Familiar: "no"}).Unsaid)
}

func TestTheOverlapWithTheUsualPattern(t *testing.T) {
	m, err := atlas.Get("infraspinatus")
	require.NoError(t, err)
	var essential []safety.Place
	for _, r := range m.Sites[0].Essential {
		essential = append(essential, at(r, ids.Left))
	}
	same := Judge([]Point{{ID: "a", Muscle: m.ID, Side: ids.Left, Site: m.Sites[0].ID, Referral: essential}}, nil)
	assert.InDelta(t, 1, *same[0].Match, 1e-9, "just the usual zone")
	other := Judge([]Point{{
		ID: "a", Muscle: m.ID, Side: ids.Left, Site: m.Sites[0].ID, Referral: []safety.Place{at("heel", ids.Left)},
	}}, nil)
	assert.Zero(t, *other[0].Match)
	assert.Contains(t, other[0].Text, "patterns vary")
	wrong := Judge([]Point{{
		ID: "a", Muscle: m.ID, Side: ids.Left, Site: m.Sites[0].ID,
		Referral: []safety.Place{at("anterior-shoulder", ids.Right)},
	}}, nil)
	assert.Zero(t, *wrong[0].Match, "the other side is no overlap")
	assert.Nil(t, one(Point{}).Match)
}

// An active infraspinatus sends pain to the front of the shoulder, where the
// front of the deltoid lies.
func active() Point {
	return Point{
		ID: "p", Muscle: "infraspinatus", Side: ids.Left, Site: "belly", Band: "yes", NPRS: new(7.0), Familiar: "yes",
	}
}

func inItsZone() Point {
	return Point{ID: "s", Muscle: "deltoid-anterior", Side: ids.Left, NPRS: new(5.0)}
}

func roleOf(of, p Point, painful ...Action) []Role { return Judge([]Point{of, p}, painful)[1].Roles }

func TestASatellite(t *testing.T) {
	r := roleOf(active(), inItsZone())
	require.Equal(t, "satellite", r[0].Role)
	assert.Equal(t, "p", r[0].Of)
	for name, change := range map[string]func(of, p *Point){
		"the other side":                  func(_, p *Point) { p.Side = ids.Right },
		"more tender, and no visit known": func(_, p *Point) { p.NPRS = new(7.5) },
		"more tender, and of one visit": func(of, p *Point) {
			p.NPRS = new(8.0)
			of.FoundAt, p.FoundAt = new(1.0), new(1.0)
		},
		"that one is latent":                func(of, _ *Point) { of.Familiar = "no" },
		"the client felt it somewhere else": func(of, _ *Point) { of.Referral = []safety.Place{at("heel", ids.Left)} },
		"the client felt it nowhere else":   func(of, _ *Point) { of.NoReferral = true },
		"in this client it goes elsewhere":  func(of, _ *Point) { of.Own = []safety.Place{at("heel", ids.Left)} },
	} {
		of, p := active(), inItsZone()
		change(&of, &p)
		assert.Equal(t, "primary", roleOf(of, p)[0].Role, name)
	}
	for name, change := range map[string]func(of, p *Point){
		"as tender":              func(_, p *Point) { p.NPRS = new(7.0) },
		"more tender, but later": func(of, p *Point) { p.NPRS = new(8.0); of.FoundAt, p.FoundAt = new(1.0), new(2.0) },
		"in this client it goes there": func(of, p *Point) {
			p.Muscle, p.Site = "soleus", ""
			of.Own = []safety.Place{at("upper-calf", ids.Left)}
		},
	} {
		of, p := active(), inItsZone()
		change(&of, &p)
		assert.Equal(t, "satellite", roleOf(of, p)[0].Role, name)
	}
}

func TestFunctionalInThePainfulAction(t *testing.T) {
	helper := Point{ID: "s", Muscle: "teres-minor", Side: ids.Left, NPRS: new(9.0)}
	turn := Action{"shoulder.external-rotation", ids.Left}
	r := roleOf(active(), helper, turn)
	assert.True(t, slices.ContainsFunc(r, func(r Role) bool { return r.Role == "functional" && r.Of == "p" }))
	assert.Equal(t, "primary", roleOf(active(), helper)[0].Role, "no movement hurts")
	assert.Equal(t, "primary", roleOf(active(), helper, Action{"knee.flexion", ids.Left})[0].Role)
	assert.Equal(t, "primary", roleOf(active(), helper, Action{"shoulder.external-rotation", ids.Right})[0].Role)
}

// Two muscles that limit a movement do not help one another in it; of two that make it
// one is primary; a turn to one side is made by a muscle of the other.
func TestWhoHelpsInWhat(t *testing.T) {
	is := func(id string, m ids.Muscle, side ids.Side, nprs float64) Point {
		return Point{
			ID: id, Muscle: m, Side: side, Band: "yes", Grade: new(3), NPRS: new(nprs), Familiar: "yes",
			Referral: []safety.Place{at("great-toe", side)},
		}
	}
	judge := func(a Action, p ...Point) []string {
		var out []string
		for _, j := range Judge(p, []Action{a}) {
			out = append(out, j.Roles[0].Role)
		}
		return out
	}
	levator, nape := is("a", "levator-scapulae", ids.Left, 6), is("b", "semispinalis-capitis", ids.Left, 7)
	assert.Equal(t, []string{"primary", "primary"}, judge(Action{"cervical.flexion", ids.Midline}, levator, nape))
	assert.Equal(t, []string{"functional", "primary"}, judge(Action{"cervical.extension", ids.Midline}, levator, nape))
	cord := is("c", "sternocleidomastoid-sternal", ids.Right, 6)
	ownSide := is("d", "splenius-capitis", ids.Left, 5)
	turns := partIn(mustGet(t, cord.Muscle), cord.Side, Action{"cervical.rotation", ids.Left})
	assert.Equal(t, makes, turns, "the right cord turns to the left")
	assert.Equal(t, against, partIn(mustGet(t, cord.Muscle), cord.Side, Action{"cervical.rotation", ids.Right}))
	assert.Equal(t, makes, partIn(mustGet(t, ownSide.Muscle), ownSide.Side, Action{"cervical.rotation", ids.Left}))
}

func mustGet(t *testing.T, id ids.Muscle) *atlas.Muscle {
	t.Helper()
	m, err := atlas.Get(id)
	require.NoError(t, err)
	return m
}

func randomPoints(t *rapid.T) []Point {
	out := []Point{}
	for i := range rapid.IntRange(1, 12).Draw(t, "n") {
		id := string(rune('a' + i))
		p := Point{
			ID: id, Muscle: rapid.SampledFrom(ids.Muscles()).Draw(t, "muscle"+id),
			Side:     rapid.SampledFrom([]ids.Side{ids.Left, ids.Right}).Draw(t, "side"+id),
			Band:     rapid.SampledFrom([]string{"", "yes", "no", "unsure"}).Draw(t, "band"+id),
			Familiar: rapid.SampledFrom([]string{"", "yes", "partly", "no", "unknown"}).Draw(t, "familiar"+id),
		}
		if rapid.Bool().Draw(t, "graded"+id) {
			p.Grade = new(rapid.IntRange(0, 4).Draw(t, "grade"+id))
		}
		if rapid.Bool().Draw(t, "numbered"+id) {
			p.NPRS = new(float64(rapid.IntRange(0, 10).Draw(t, "nprs"+id)))
		}
		if rapid.Bool().Draw(t, "sent"+id) {
			p.Referral = []safety.Place{at(rapid.SampledFrom(ids.Regions()).Draw(t, "region"+id), p.Side)}
		}
		out = append(out, p)
	}
	return out
}

func TestJudgingDoesNotDependOnTheOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		list := randomPoints(t)
		painful := []Action{{rapid.SampledFrom(ids.Movements()).Draw(t, "movement"), ids.Left}}
		want := Judge(list, painful)
		mixed := rapid.Permutation(list).Draw(t, "mixed")
		got := Judge(mixed, painful)
		byID := func(a, b Judgement) int { return cmp.Compare(a.ID, b.ID) }
		slices.SortFunc(want, byID)
		slices.SortFunc(got, byID)
		assert.Equal(t, want, got)
		search := Search{Point: list[0].ID, Points: list, Painful: painful}
		a, _ := Trace(search)
		search.Points = mixed
		b, _ := Trace(search)
		assert.Equal(t, a, b)
	})
}

func randomScreening(t *rapid.T) safety.Screening {
	var answers []safety.Answer
	for _, q := range safety.Questions() {
		if rapid.IntRange(0, 9).Draw(t, string(q.ID)) == 0 {
			answers = append(answers, safety.Answer{Question: q.ID, Answer: "yes"})
		}
	}
	return safety.Screen(answers)
}

func TestTracingMarksWhatIsBlockedAndNeverOffersItself(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		list := randomPoints(t)
		s := Search{Point: list[0].ID, Points: list, Screening: randomScreening(t)}
		got, ok := Trace(s)
		require.True(t, ok)
		assert.LessOrEqual(t, len(got), 8)
		for i, c := range got {
			assert.False(t, c.Muscle == list[0].Muscle && c.Side == list[0].Side)
			assert.NotEmpty(t, c.Reasons)
			where := (&Point{Muscle: c.Muscle, Side: c.Side, Site: c.Site}).where()
			_, blocked := s.Screening.Blocks(c.Muscle, where)
			assert.Equal(t, blocked, c.Blocked)
			assert.Equal(t, blocked, c.Press == "")
			if i > 0 {
				assert.LessOrEqual(t, c.Score, got[i-1].Score)
			}
		}
	})
	_, ok := Trace(Search{Point: "nowhere"})
	assert.False(t, ok)
}

func TestTracingFollowsWhatIsKnown(t *testing.T) {
	calf := Point{ID: "a", Muscle: "soleus", Side: ids.Left, NPRS: new(6.0)}
	s := Search{Point: "a", Points: []Point{calf}}
	plain, _ := Trace(s)
	require.NotEmpty(t, plain)
	first := plain[0]
	s.Searched = []SearchedMuscle{{first.Muscle, first.Side}}
	after, _ := Trace(s)
	assert.NotEqual(t, first.Muscle, after[0].Muscle, "what was searched counts less")
	s.Searched = nil
	s.Suspects = []SuspectedMuscle{{plain[3].Muscle, plain[3].Side, 0.95}}
	after, _ = Trace(s)
	assert.Equal(t, plain[3].Muscle, after[0].Muscle, "a strong suspect comes first")
	s.Points = append(s.Points, Point{
		ID: "b", Muscle: plain[4].Muscle, Side: plain[4].Side, Band: "yes", NPRS: new(8.0), Familiar: "yes",
		Referral: []safety.Place{at("upper-calf", ids.Left), at("lower-calf", ids.Left)},
	})
	s.Suspects = nil
	after, _ = Trace(s)
	assert.Equal(t, plain[4].Muscle, after[0].Muscle, "an active point whose referral was felt here comes first")
	assert.Contains(t, after[0].Reasons[0], "In this client")
}

func TestTheSuggestionInItsOrder(t *testing.T) {
	yes := func(q ...ids.Question) safety.Screening {
		var a []safety.Answer
		for _, id := range q {
			a = append(a, safety.Answer{Question: id, Answer: "yes"})
		}
		return safety.Screen(a)
	}
	p := func(m ids.Muscle) Point { return Point{ID: "a", Muscle: m, Side: ids.Left} }
	touchable := func(r Request) Request { r.BellyTouchable = true; return r }
	sore := p("infraspinatus")
	sore.Grade = new(4)
	back, neck := p("infraspinatus"), p("sternocleidomastoid-sternal")
	for _, c := range []struct {
		name     string
		r        Request
		protocol ids.Protocol
		soft     float64
	}{
		{"the default", touchable(Request{Point: back}), "graded-stages", 7},
		{"the practice's own", touchable(Request{Point: back, Default: "short-repeats"}), "short-repeats", 6},
		{"what worked", touchable(Request{Point: back, WorkedBefore: "pulses", Default: "short-repeats"}), "pulses", 5},
		{"belly too sore", Request{Point: back, WorkedBefore: "pulses"}, "attachment-strokes", 5},
		{"armpit", Request{Point: p("subscapularis")}, "hold-to-release", 5},
		{"sole", touchable(Request{Point: p("flexor-digitorum-brevis")}), "broad-first", 5},
		{"psoas", touchable(Request{Point: p("psoas-major")}), "breath-sink", 5},
		{"coccyx", touchable(Request{Point: p("coccyx-region")}), "slack-hold", 3},
		{"scalenes", touchable(Request{Point: p("scalenus-medius")}), "hold-to-release", 4},
		{"popliteal", touchable(Request{Point: p("popliteus")}), "hold-to-release", 5},
		{"front of the neck", touchable(Request{Point: neck}), "brief-holds", 5},
		{"first visit", touchable(Request{Point: back, FirstVisit: true}), "slow-ramp", 4},
		{"first visit, neck", touchable(Request{Point: neck, FirstVisit: true}), "pulses", 4},
		{"grade 4 before first visit", touchable(Request{Point: sore, FirstVisit: true}), "slack-hold", 3},
		{"anticoagulant", touchable(Request{Point: back, Screening: yes("anticoagulant")}), "slack-hold", 3},
		{"no number", touchable(Request{Point: sore, Screening: yes("no-shared-language")}), "hold-to-release", 5},
	} {
		got := Suggest(c.r)
		assert.Equal(t, c.protocol, got.Protocol, c.name)
		assert.InDelta(t, c.soft, got.Soft, 1e-9, c.name)
		assert.NotEmpty(t, got.Text, c.name)
		assert.NotEmpty(t, got.Contacts, c.name)
	}
	none := Suggest(touchable(Request{Point: p("infraspinatus"), Screening: yes("no-shared-language")}))
	assert.InDelta(t, 30, none.CapS, 1e-9)
	blocked := Suggest(touchable(Request{Point: p("soleus"), Screening: yes("calf-warm-swollen")}))
	assert.True(t, blocked.Blocked)
	assert.Empty(t, blocked.Protocol)
	assert.True(t, Suggest(touchable(Request{
		Point: p("sternocleidomastoid-sternal"), Screening: yes("anticoagulant"),
	})).Blocked, "nothing on the front of the neck then")
	assert.True(t, Suggest(touchable(Request{
		Point: p("sternocleidomastoid-sternal"), Instead: "slow-ramp",
	})).Blocked, "safety has its say to what is chosen by hand")
	stretched := Suggest(touchable(Request{
		Point: p("infraspinatus"), Screening: yes("stiff-shoulder-painful"), Instead: "contract-relax",
	}))
	assert.True(t, stretched.Blocked)
	assert.Contains(t, stretched.Text, "No forced range")
	said := Suggest(touchable(Request{
		Point: p("infraspinatus"), Screening: yes("hypermobility"), Instead: "contract-relax",
	})).Cautions
	assert.Equal(t, []string{"Not to the end of the range."}, said)
	assert.NotEqual(t, ids.Protocol("contract-relax"), Suggest(touchable(Request{
		Point: p("infraspinatus"), Screening: yes("stiff-shoulder-painful"), WorkedBefore: "contract-relax",
	})).Protocol, "nor because it worked before")
	pressed := yes("high-blood-pressure")
	short := Suggest(touchable(Request{Point: back, Screening: pressed, Instead: "slow-ramp"}))
	assert.True(t, short.Blocked)
	assert.Equal(t, "Slow ramp takes at least 70 s, and 60 s are allowed here.", short.Text)
	no := NotHere{"slow-ramp", short.Text}
	assert.Contains(t, NotOffered(touchable(Request{Point: back, Screening: pressed})), no)
	assert.NotContains(t, NotOffered(touchable(Request{Point: back})), no)
}

// Whatever is chosen, no ceiling of protocol, site or screening is passed.
func TestASuggestionNeverPassesACeiling(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := randomPoints(t)[0]
		r := Request{
			Point: p, Screening: randomScreening(t), FirstVisit: rapid.Bool().Draw(t, "first"),
			BellyTouchable: rapid.Bool().Draw(t, "touchable"),
		}
		if rapid.Bool().Draw(t, "worked") {
			r.WorkedBefore = rapid.SampledFrom(ids.Protocols()).Draw(t, "before")
		}
		if rapid.Bool().Draw(t, "by hand") {
			r.Instead = rapid.SampledFrom(ids.Protocols()).Draw(t, "instead")
		}
		s := Suggest(r)
		_, blocked := r.Screening.Blocks(p.Muscle, p.where())
		if blocked {
			require.True(t, s.Blocked)
		}
		if s.Blocked {
			assert.Empty(t, s.Protocol)
			return
		}
		proto, ok := treat.Find(s.Protocol)
		require.True(t, ok)
		site, _ := safety.Site(p.Muscle, p.where())
		most := r.Screening.Limits.On(proto.Limits.Strictest(site))
		assert.LessOrEqual(t, s.Target, most.Target)
		assert.LessOrEqual(t, s.Soft, most.Soft)
		assert.LessOrEqual(t, s.Hard, most.Hard)
		assert.LessOrEqual(t, s.CapS*1000, float64(most.CapMS))
		assert.LessOrEqual(t, s.Target, s.Soft)
		assert.LessOrEqual(t, s.Soft, s.Hard)
		m, err := atlas.Get(p.Muscle)
		require.NoError(t, err)
		for _, c := range s.Contacts {
			assert.Empty(t, safety.ContactForbidden(p.Muscle, p.where(), m.Contacts, c))
		}
		if r.Screening.Limits.ScoreCannotSteer {
			assert.Equal(t, ids.Protocol("hold-to-release"), s.Protocol)
		}
	})
}

func Benchmark20PointsJudged(b *testing.B) {
	var list []Point
	for i, m := range ids.Muscles()[:20] {
		list = append(list, Point{
			ID: string(rune('a' + i)), Muscle: m, Side: ids.Left, Band: "yes", NPRS: new(6.0), Familiar: "yes",
			Referral: []safety.Place{at("anterior-shoulder", ids.Left)},
		})
	}
	painful := []Action{{"shoulder.external-rotation", ids.Left}}
	for b.Loop() {
		Judge(list, painful)
	}
}
