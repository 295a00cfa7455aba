package visit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/visit"
)

// No hold begins without consent to the visit, and to a sensitive area where
// it lies in one; what was agreed to can be withdrawn at any time.
func TestConsentRulesOverHolds(t *testing.T) {
	agreed := func(a safety.Area) visit.ConsentRecorded {
		c := visit.ConsentRecorded{Area: a, Given: true}
		if a != safety.WholeVisit {
			c.Chaperone = "declined"
		}
		return c
	}
	agreedTo := func(a safety.Area) []visit.ConsentRecorded { return []visit.ConsentRecorded{agreed(a)} }
	withdrawn := func(a safety.Area) visit.ConsentRecorded { return visit.ConsentRecorded{Area: a} }
	underAge := asked()
	underAge = carried(underAge, safety.Answer{Question: "minor", Answer: "yes"})
	guardian := visit.ConsentRecorded{Area: safety.WholeVisit, Given: true, By: "guardian"}
	for _, c := range []struct {
		name   string
		ctx    visit.Context
		muscle ids.Muscle
		log    []visit.ConsentRecorded
		needs  safety.Area
	}{
		{"nothing recorded", asked(), "soleus", nil, "visit"},
		{"agreed", asked(), "soleus", agreedTo("visit"), ""},
		{"withdrawn", asked(), "soleus", []visit.ConsentRecorded{agreed("visit"), withdrawn("visit")}, "visit"},
		{
			"withdrawn and given again", asked(), "soleus",
			[]visit.ConsentRecorded{agreed("visit"), withdrawn("visit"), agreed("visit")},
			"",
		},
		{"a sensitive area needs its own", asked(), "subscapularis", agreedTo("visit"), "axilla"},
		{
			"another area's is not enough", asked(), "subscapularis",
			[]visit.ConsentRecorded{agreed("visit"), agreed("groin")},
			"axilla",
		},
		{"both given", asked(), "subscapularis", []visit.ConsentRecorded{agreed("visit"), agreed("axilla")}, ""},
		{
			"the area withdrawn", asked(), "subscapularis",
			[]visit.ConsentRecorded{agreed("visit"), agreed("axilla"), withdrawn("axilla")},
			"axilla",
		},
		{"the area's alone is not enough", asked(), "coccyx-region", agreedTo("coccyx"), "visit"},
		{"under age, and only the client agreed", underAge, "soleus", agreedTo("visit"), "visit"},
		{"under age, and a guardian agreed", underAge, "soleus", []visit.ConsentRecorded{guardian}, ""},
		{
			"under age, and a guardian agreed to the visit alone", underAge, "subscapularis",
			[]visit.ConsentRecorded{guardian, agreed("axilla")},
			"axilla",
		},
		{
			"under age, and a guardian agreed to both", underAge, "subscapularis",
			[]visit.ConsentRecorded{guardian, {Area: "axilla", Given: true, By: "guardian", Chaperone: "present"}},
			"",
		},
	} {
		t.Run(c.name, func(t *testing.T) {
			l := &log{}
			l.add("d", "point-charted", 0, charted(10, c.muscle))
			for _, x := range c.log {
				l.add("d", "consent-recorded", 0, x)
			}
			st := started(20, 10, c.muscle)
			st.Start = adapted(t, st.Start, visit.Reduce(c.ctx, l.events).Screening.Limits)
			l.add("d", "hold-started", 0, st)
			s := visit.Reduce(c.ctx, l.events)
			require.Empty(t, s.Rejected)
			assert.Equal(t, c.needs, s.Points[0].NeedsConsent)
			assert.Equal(t, c.needs != "", s.Points[0].Blocked != "")
			assert.Equal(t, c.needs != "", s.Holds[0].Status == visit.HoldRejected, s.Holds[0].Why)
		})
	}
}

// A hold that was begun with consent stays in the record when it is withdrawn
// afterwards; the next one does not begin.
func TestAWithdrawalLooksForward(t *testing.T) {
	l := &log{}
	l.agree("d")
	l.add("d", "point-charted", 0, charted(10, "soleus"))
	l.add("d", "hold-started", 0, started(20, 10, "soleus"))
	l.add("d", "hold-event", 0, happened(20, 0, "contact", nil))
	l.add("d", "hold-event", 0, happened(20, 3000, "client-stop", nil))
	l.add("d", "consent-recorded", 0, visit.ConsentRecorded{Area: safety.WholeVisit})
	l.add("d", "hold-started", 0, started(21, 10, "soleus"))
	s := visit.Reduce(asked(), l.events)
	assert.Equal(t, visit.Live, s.Holds[0].Status)
	assert.Equal(t, visit.HoldRejected, s.Holds[1].Status)
	assert.Contains(t, s.Holds[1].Why, "No consent")
}

func TestAChaperoneIsOfferedForASensitiveArea(t *testing.T) {
	e := visit.ConsentRecorded{Area: "groin", Given: true}.Check()
	require.NotNil(t, e)
	assert.Equal(t, "$.chaperone", e.Path)
	assert.Nil(t, visit.ConsentRecorded{Area: "groin"}.Check(), "a no needs no chaperone")
	assert.Nil(t, visit.ConsentRecorded{Area: safety.WholeVisit, Given: true}.Check())
}

// Where a point lies counts, not only its muscle.
func TestSensitiveAreas(t *testing.T) {
	at := func(r ids.Region) []safety.Place { return []safety.Place{{Region: r, Side: ids.Left}} }
	for _, c := range []struct {
		muscle ids.Muscle
		region ids.Region
		want   []safety.Area
	}{
		{"gluteus-maximus", "upper-buttock", []safety.Area{"buttock"}},
		{"gluteus-maximus", "lateral-hip", nil},
		{"pectoralis-major", "mid-chest", []safety.Area{"chest"}},
		{"pectoralis-major", "anterior-shoulder", nil},
		{"subscapularis", "axilla", []safety.Area{"axilla"}},
		{"iliacus", "groin", []safety.Area{"groin", "abdomen"}},
		{"soleus", "lower-calf", nil},
	} {
		assert.Equal(t, c.want, safety.SensitiveAreas(c.muscle, at(c.region)), "%s at %s", c.muscle, c.region)
	}
}

// What the client ticked at home does not soften what the therapist noted, and
// asks for more caution where the client knows more.
func TestAClientsAnswerNeverSoftens(t *testing.T) {
	say := func(by, answer string) visit.ScreeningAnswered {
		return visit.ScreeningAnswered{
			By:      by,
			Answers: []visit.ScreenedAnswer{{Question: "anticoagulant", Answer: answer}},
		}
	}
	for _, c := range []struct{ therapist, client, want string }{
		{"yes", "no", "yes"},
		{"unknown", "no", "unknown"},
		{"yes", "unknown", "yes"},
		{"no", "yes", "yes"},
		{"no", "unknown", "unknown"},
		{"", "no", "no"},
	} {
		l := &log{}
		if c.therapist != "" {
			l.add("d", "screening-answered", 0, say("therapist", c.therapist))
		}
		l.add("d", "screening-answered", 1, say("client", c.client))
		assert.Equal(t, c.want, visit.Reduce(visit.Context{Roles: asked().Roles}, l.events).Answers[0].Answer, "%+v", c)
		l.add("d", "screening-answered", 2, say("", "no"))
		assert.Equal(t, "no", visit.Reduce(visit.Context{Roles: asked().Roles}, l.events).Answers[0].Answer,
			"the therapist has the last word")
	}
}

// A practice's own threshold decides in the visit and in the ranking alike.
func TestOwnThresholds(t *testing.T) {
	deg := 4.0
	l := &log{}
	l.add("d", "posture-read", 0, visit.PostureRead{Posture: assess.Posture{
		Measure:  "shoulder-height",
		HighSide: ids.Right, Degrees: &deg,
	}})
	raised := asked()
	raised.Thresholds = assess.Thresholds{"shoulder-height": 5}
	reasons := func(ctx visit.Context) (n int) {
		for _, s := range assess.Rank(visit.Reduce(ctx, l.events).Findings(ctx, nil, 0), nil).Suspects {
			n += len(s.Why)
		}
		return n
	}
	usual := visit.Reduce(asked(), l.events).PostureFlags[0]
	own := visit.Reduce(raised, l.events).PostureFlags[0]
	assert.True(t, usual.Flagged)
	assert.False(t, own.Flagged)
	assert.Equal(t, "flagged from 5°", own.Reason)
	assert.NotEqual(t, usual.Source, own.Source, "it says whose threshold it is")
	assert.Positive(t, reasons(asked()))
	assert.Zero(t, reasons(raised))
}

func TestGaugesBeforeAndAfter(t *testing.T) {
	v := func(x float64) *float64 { return &x }
	l := &log{}
	read := func(moment, gauge string, side ids.Side, value float64) {
		l.add("d", "gauge-read", 0, visit.GaugeRead{
			Gauge:  assess.Gauge{ID: gauge, Side: side, Value: v(value)},
			Moment: moment,
		})
	}
	read("before", "weight-bearing-lunge", ids.Left, 34.9)
	read("before", "weight-bearing-lunge", ids.Right, 41)
	read("after", "weight-bearing-lunge", ids.Left, 39)
	read("before", "toe-touch", ids.Midline, 12)
	read("before", "toe-touch", ids.Left, 12)
	l.add("d", "gauge-read", 0, visit.GaugeRead{Gauge: assess.Gauge{
		ID: "breathing", Side: ids.Midline,
		Kind: "apical",
	}, Moment: "before"})
	s := visit.Reduce(asked(), l.events)
	require.Len(t, s.Rejected, 1, "a toe-touch has no side")
	assert.Contains(t, s.Rejected[0].Reason, "$.body.side")
	require.Len(t, s.Gauges, 4)
	assert.Equal(t, "34.9°, flagged below 35°", s.Gauges[0].Flag)
	assert.InDelta(t, 39, *s.Gauges[0].After, 0)
	assert.Empty(t, s.Gauges[1].Flag)
	assert.Equal(t, "high in the chest", s.Gauges[3].Flag)
	// The short lunge speaks for the calf as its length test would.
	why := assess.Rank(s.Findings(asked(), nil, 0), nil)
	assert.Equal(t, ids.Muscle("soleus"), why.Suspects[0].Muscle)
	assert.Equal(t, ids.Left, why.Suspects[0].Side)
}
