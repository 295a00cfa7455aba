package store_test

import (
	"cmp"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/visit"
	"mokren/store"
)

// The answers that a visit carries are read without all those that were
// replaced; what comes out is what folding every one of them gives.
func TestWhatIsCarriedIsWhatAFoldOfEverythingGives(t *testing.T) {
	p := newPractice(t, "fold@x.example")
	rnd := rand.New(rand.NewPCG(9, 9))
	questions := []ids.Question{"fever", "recent-surgery", "anticoagulant", "pregnancy", "open-skin"}
	var folded []safety.Answer
	now := time.Now()
	for n := range 25 {
		at := now.AddDate(0, 0, -50+2*n)
		p.visitAt(t, at)
		var events []visit.Event
		if rnd.IntN(4) == 0 {
			q := questions[rnd.IntN(len(questions))]
			events = append(events, p.event("screening-cleared", visit.ScreeningCleared{
				Question: q, By: "Dr Orr", On: "today",
			}))
		}
		asked := visit.Screened{By: [2]string{"therapist", "client"}[rnd.IntN(2)]}
		for _, q := range questions {
			if rnd.IntN(2) == 0 {
				answer := [3]string{"yes", "no", "unknown"}[rnd.IntN(3)]
				asked.Answers = append(asked.Answers, visit.ScreenedAnswer{Question: q, Answer: answer, Side: "left"})
			}
		}
		if len(asked.Answers) > 0 {
			events = append(events, p.event("screening-answered", asked))
		}
		if len(events) == 0 {
			continue
		}
		p.as(t, func(tx *store.Tx) error {
			_, err := tx.Append(ctx, p.visit, batch(events...))
			return err
		})
		s := p.state(t)
		for _, c := range s.Cleared {
			for i := range folded {
				folded[i].Cleared = folded[i].Cleared || folded[i].Question == c.Question
			}
		}
		for _, a := range s.Answers {
			folded = safety.Merge(folded, []safety.Answer{{
				Question: a.Question, Answer: a.Answer, Side: a.Side, By: cmp.Or(a.By, "therapist"),
				Cleared: a.Cleared, DaysAgo: float64(50 - 2*n),
			}})
		}
	}
	p.visitAt(t, now)
	var carried []safety.Answer
	p.as(t, func(tx *store.Tx) error {
		vc, err := contextOf(tx, p.visit)
		for _, a := range vc.Carried {
			if a.Question != "first-visit" {
				carried = append(carried, a)
			}
		}
		return err
	})
	require.Len(t, carried, len(folded))
	for i, a := range folded {
		assert.InDelta(t, a.DaysAgo, carried[i].DaysAgo, 0.1)
		carried[i].DaysAgo = a.DaysAgo
		assert.Equal(t, a, carried[i])
	}
	assert.Greater(t, len(folded), len(questions), "some stand beside others")
}

// Tables that an older program wrote are written anew when they are read.
func TestTablesOfAnOlderProgramAreWrittenAnew(t *testing.T) {
	p := newPractice(t, "older@x.example")
	p.as(t, func(tx *store.Tx) error {
		_, err := tx.Append(ctx, p.visit, batch(p.event("visit-opened", visit.Opened{}), p.point(uuid.NewString())))
		return err
	})
	first := p.visit
	raw := admin(t)
	_, err := raw.Exec(`delete from charted_point where visit_id = $1`, first)
	require.NoError(t, err)
	p.visitAt(t, time.Now().AddDate(0, 0, 7))
	earlier := func() (out store.Earlier) {
		p.as(t, func(tx *store.Tx) error {
			v, err := tx.Visit(ctx, p.visit)
			require.NoError(t, err)
			out, err = tx.Earlier(ctx, v, time.Now())
			return err
		})
		return out
	}
	assert.Empty(t, earlier().Points, "tables of today's program are believed")
	_, err = raw.Exec(`update visit set tables_of = 0, tables_sum = '{}' where id = $1`, first)
	require.NoError(t, err)
	require.Len(t, earlier().Points, 1)
	assert.Equal(t, ids.Muscle("soleus"), earlier().Points[0].Muscle)
}

// Only what differs is written: a note leaves the points alone.
func TestOnlyWhatDiffersIsWritten(t *testing.T) {
	p := newPractice(t, "differs@x.example")
	send := func(e visit.Event) {
		p.as(t, func(tx *store.Tx) error {
			_, err := tx.Append(ctx, p.visit, batch(e))
			return err
		})
	}
	written := func() (xmin string) {
		require.NoError(t, admin(t).Get(&xmin, `select xmin::text from charted_point where visit_id = $1`, p.visit))
		return xmin
	}
	point := uuid.NewString()
	send(p.point(point))
	before := written()
	send(p.event("note-written", visit.Noted{Text: "Sleeps badly."}))
	assert.Equal(t, before, written())
	send(p.event("point-rechecked", visit.Rechecked{Point: visit.UUID(point), NPRS: 3}))
	assert.NotEqual(t, before, written())
}

// visitAt books another visit and goes on in it.
func (p *practice) visitAt(t *testing.T, at time.Time) {
	t.Helper()
	p.visit = uuid.New()
	p.as(t, func(tx *store.Tx) error {
		return tx.NewVisit(ctx, store.Visit{
			ID: p.visit, ClientID: p.client, Therapist: p.who.Person, StartsAt: at, Minutes: 60,
		})
	})
}

// state is what the visit's log comes to.
func (p *practice) state(t *testing.T) (s visit.State) {
	t.Helper()
	p.as(t, func(tx *store.Tx) error {
		vc, err := contextOf(tx, p.visit)
		require.NoError(t, err)
		log, err := tx.Events(ctx, p.visit)
		s = visit.Reduce(vc, log)
		return err
	})
	return s
}
