package visit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/visit"
)

// The plan leads: press begins where the plan does, as the client lies there, and what was
// pressed comes last.
func TestPressFollowsThePlan(t *testing.T) {
	l := &log{}
	for i, m := range []ids.Muscle{"soleus", "levator-scapulae", "upper-trapezius", "piriformis"} {
		l.agreeAll("a", m)
		l.add("a", "point-charted", 0, charted(500+i, m))
	}
	l.add("a", "plan-made", 0, visit.PlanMade{Minutes: 90})
	s := visit.Reduce(asked(), l.events)
	require.Empty(t, s.Rejected)
	planned, err := s.Planning(asked(), nil, s.Work(asked(), nil, nil), nil, s.PlanMS)
	require.NoError(t, err)
	offers, err := s.Offers(asked(), nil, s.PlanMS)
	require.NoError(t, err)
	require.Len(t, offers, 4)
	at := 0
	for _, step := range planned.Steps {
		if step.Kind != "treat" {
			continue
		}
		o := offers[at]
		assert.Equal(t, step.Point, string(o.Point))
		assert.Equal(t, step.Position, o.Position)
		assert.True(t, o.Planned)
		assert.True(t, o.Ready)
		assert.NotEmpty(t, o.Contact)
		at++
	}
	require.Equal(t, 3, at, "three are enough of a session")
	assert.False(t, offers[3].Planned)

	first := offers[0].Point
	muscle := s.Points[0].Muscle
	for _, p := range s.Points {
		if p.Point == first {
			muscle = p.Muscle
		}
	}
	point := 500
	for visit.UUID(uid(point)) != first {
		point++
	}
	l.add("a", "hold-started", 0, started(600, point, muscle))
	s = visit.Reduce(asked(), l.events)
	after, err := s.Offers(asked(), nil, s.PlanMS)
	require.NoError(t, err)
	assert.Equal(t, first, after[3].Point, "pressed: last")
	assert.Equal(t, offers[1].Point, after[0].Point)
}

func TestNothingIsReadyWhereSomethingStandsAgainstIt(t *testing.T) {
	l := &log{}
	l.add("a", "point-charted", 0, charted(500, "soleus"))
	s := visit.Reduce(asked(), l.events)
	offers, err := s.Offers(asked(), nil, 0)
	require.NoError(t, err)
	assert.False(t, offers[0].Ready, "nobody has agreed")
}
