package visit_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/visit"
)

// aTreated is a visit with one soleus pressed, found at a number.
func aTreated(number float64) visit.State {
	l := &log{}
	l.agree("a")
	c := charted(500, "soleus")
	c.NPRS = &number
	l.add("a", "point-charted", 0, c)
	l.add("a", "hold-started", 0, started(600, 500, "soleus"))
	l.add("a", "hold-event", 0, happened(600, 0, "contact", nil))
	return visit.Reduce(asked(), l.events)
}

// The sheet has what was pressed and its stretch, and nothing of what was not.
func TestAftercare(t *testing.T) {
	s := aTreated(6)
	a := s.Aftercare(nil)
	assert.Equal(t, []string{"Soleus, left"}, a.Worked)
	require.Len(t, a.Stretches, 1)
	assert.Equal(t, []ids.Side{"left"}, a.Stretches[0].Sides)
	assert.NotEmpty(t, a.Stretches[0].Text)
	assert.Positive(t, a.Stretches[0].HoldS)
	assert.NotEmpty(t, a.NotUsual)

	l := &log{}
	l.agree("a")
	l.add("a", "point-charted", 0, charted(500, "soleus"))
	none := visit.Reduce(asked(), l.events).Aftercare(nil)
	assert.Empty(t, none.Worked, "charted is not pressed")
	assert.Empty(t, none.Stretches)
}

// 3–7 days while active, 7–14 improving, 21–28 holding, at the boundaries.
func TestTheNextVisitIsProposed(t *testing.T) {
	for _, c := range []struct {
		before   float64 // last time; 0 is none
		now      float64
		from, to int
	}{
		{0, 6, 3, 7},
		{6, 5, 3, 7},   // less than two, less than a third
		{6, 4, 7, 14},  // two less
		{4, 6, 3, 7},   // worse
		{0, 2, 21, 28}, // two or less is held
		{0, 2.5, 3, 7},
		{6, 2, 21, 28},
	} {
		s := aTreated(c.now)
		var earlier []visit.FoundPoint
		if c.before > 0 {
			p := s.Points[0].FoundPoint
			p.NPRS = &c.before
			earlier = append(earlier, p)
		}
		n := s.Aftercare(earlier).Next
		assert.Equal(t, []int{c.from, c.to}, []int{n.FromDays, n.ToDays}, "%v → %v", c.before, c.now)
		assert.NotEmpty(t, n.Why)
	}
}

// A stretch that the answers forbid is not on the client's sheet; what is there says its
// caution, and who bruises easily is told.
func TestAftercareOfTheAnswers(t *testing.T) {
	s := aTreated(6)
	stretch := s.Aftercare(nil).Stretches[0].Text
	answered := func(list ...safety.Answer) visit.Aftercare {
		s.Screening = safety.Screen(list)
		return s.Aftercare(nil)
	}
	torn := answered(safety.Answer{
		Question: "acute-muscle-tear", Answer: "yes", Regions: []ids.Region{"lower-calf", "upper-calf"}, Side: "left",
	})
	assert.Empty(t, torn.Stretches)
	require.Len(t, torn.LeftOut, 1)
	assert.Contains(t, torn.LeftOut[0], "Soleus, left: Neither pulled nor pushed")

	loose := answered(safety.Answer{Question: "hypermobility", Answer: "yes"})
	require.Len(t, loose.Stretches, 1)
	assert.Equal(t, stretch+" Not to the end of the range.", loose.Stretches[0].Text)

	assert.NotContains(t, strings.Join(loose.Usual, " "), "bruise")
	thin := answered(safety.Answer{Question: "anticoagulant", Answer: "yes"})
	assert.Contains(t, strings.Join(thin.Usual, " "), "You bruise more easily")
}

// A point on the other side of what was pressed waits, unless something stands against it.
func TestTheSecondSideWaitsToBePressed(t *testing.T) {
	l := pressedAt("soleus")
	other := charted(501, "soleus")
	other.Side = ids.Right
	other.View, other.X, other.Y = func() (body.View, float64, float64) {
		v, p := muscleOf("soleus").OnFigure(other.Place, ids.Right, body.DefaultHeightCM)
		return v, p.X, p.Y
	}()
	l.add("a", "point-charted", 0, other)
	l.add("a", "point-charted", 0, charted(502, "tibialis-anterior"))
	s := visit.Reduce(asked(), l.events)
	require.Empty(t, s.Rejected)
	assert.Equal(t, []visit.UUID{visit.UUID(uid(501))}, s.SecondSide, "the other muscle has no second side here")
	b := started(601, 501, "soleus")
	b.Start.Side = ids.Right
	l.add("a", "hold-started", 0, b)
	assert.Empty(t, visit.Reduce(asked(), l.events).SecondSide)
}

func TestTheNextVisitIsOfferedOnItsWeekday(t *testing.T) {
	s := visit.Reduce(asked(), pressedAt("soleus").events)
	next := s.Aftercare(nil).Next
	assert.Equal(t, []int{3, 7}, next.Offer)
	assert.Equal(t, []int{7, 14}, visit.Reduce(asked(), (&log{}).events).Aftercare(nil).Next.Offer)
}
