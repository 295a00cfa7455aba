package visit_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/rights"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
)

// The people of the tests.
var (
	therapist = uid(902)
	colleague = uid(903)
	student   = uid(904)
	desk      = uid(905)
	owner     = uid(906)
)

// asked is a context in which every question was answered no today.
func asked() visit.Context {
	c := visit.Context{Roles: map[string]rights.Role{
		therapist: rights.Therapist, colleague: rights.Therapist, student: rights.Student, desk: rights.FrontDesk,
		owner: rights.Owner,
	}}
	for _, q := range safety.Questions() {
		c.History = append(c.History, fact(uid(901), 500, safety.Answer{Question: q.ID, Answer: "no"}))
	}
	return c
}

// fact is an answer of a licensed person that has arrived.
func fact(of string, at int64, a safety.Answer) record.Fact {
	said := at - int64(a.DaysAgo*24*3_600_000)
	a.DaysAgo = 0
	return record.Fact{
		Stamp: record.Stamp{
			Event: "before", Visit: of, Author: colleague, Device: "before", Seq: at, Licensed: true, SaidMS: said,
			ArrivedMS: at, Version: 1,
		},
		Answer: &record.Said{Answer: a},
	}
}

// carried adds what another visit has said.
func carried(c visit.Context, a safety.Answer) visit.Context {
	c.History = append(c.History, fact(uid(899), 600, a))
	return c
}

func uid(n int) string { return fmt.Sprintf("0190b000-0000-7000-8000-%012d", n) }

// log builds the events of several devices, each arriving as it is written.
type log struct {
	events []visit.Event
	seq    map[string]int64
	ms     int64
}

func (l *log) add(device, kind string, seen int64, body any) visit.Event {
	return l.write(device, therapist, kind, seen, body)
}

func (l *log) write(device, author, kind string, seen int64, body any) visit.Event {
	if l.seq == nil {
		l.seq = map[string]int64{}
	}
	b, err := json.Marshal(body)
	if err != nil {
		panic(err)
	}
	l.seq[device]++
	l.ms += 1000
	e := visit.Event{
		ID:       uid(len(l.events) + 1),
		Client:   uid(900),
		Visit:    uid(901),
		Author:   author,
		Device:   device,
		Seq:      l.seq[device],
		DeviceMS: l.ms,
		Seen:     seen,
		Version:  int64(len(l.events) + 1),
		Schema:   1,
		Type:     kind,
		Body:     b,
	}
	l.events = append(l.events, e)
	return e
}

// last is the event written last, to be changed.
func (l *log) last() *visit.Event { return &l.events[len(l.events)-1] }

// agree records the client's consent to today's visit.
func (l *log) agree(device string) {
	l.add(device, "consent-recorded", 0, visit.ConsentRecorded{Area: safety.WholeVisit, Given: true})
}

// agreeAll records every consent that a muscle's first site needs.
func (l *log) agreeAll(device string, muscle ids.Muscle) {
	l.agree(device)
	for _, a := range safety.SensitiveAreas(muscle, where(charted(1, muscle))) {
		l.add(device, "consent-recorded", 0, visit.ConsentRecorded{Area: a, Given: true, Chaperone: "declined"})
	}
}

// charted is a point at a muscle's first site, on the left.
func charted(point int, muscle ids.Muscle) visit.PointCharted {
	m := muscleOf(muscle)
	site := m.Sites[0]
	return chartedAt(
		point,
		muscle,
		site.Place(body.DefaultHeightCM),
	)
}

func chartedAt(point int, muscle ids.Muscle, place atlas.FibrePlace) visit.PointCharted {
	n := 6.0
	view, at := muscleOf(muscle).OnFigure(place, ids.Left, body.DefaultHeightCM)
	return visit.PointCharted{
		Point: visit.UUID(uid(point)), Muscle: muscle, Side: ids.Left, Figure: body.Version, View: view,
		X: at.X, Y: at.Y, Place: place,
		Palpation: visit.Palpation{Band: "yes", Grade: new(2), NPRS: &n, Familiar: "yes"},
	}
}

func muscleOf(id ids.Muscle) *atlas.Muscle {
	m, err := atlas.Get(id)
	if err != nil {
		panic(err)
	}
	return m
}

func where(c visit.PointCharted) []safety.Place {
	return muscleOf(c.Muscle).PressedThrough(c.Place, c.Side, c.View, body.Point{X: c.X, Y: c.Y})
}

// started is a hold at charted, with a usual contact and position.
func started(hold, point int, muscle ids.Muscle) visit.HoldStarted {
	s, err := treat.NewStart(treat.Request{
		Protocol: "graded-stages", Muscle: muscle, Side: ids.Left, Where: where(charted(1, muscle)),
	})
	if err != nil {
		panic(err)
	}
	m := muscleOf(muscle)
	return visit.HoldStarted{
		Hold: visit.UUID(uid(hold)), Point: visit.UUID(uid(point)), Start: s, Contact: m.Contacts[0],
		Position: m.Positions[0], MuscleSet: "tension",
	}
}

func happened(hold int, at int64, event string, value any) visit.HoldHappened {
	h := visit.HoldHappened{Hold: visit.UUID(uid(hold)), AtMS: at, Event: event}
	if value != nil {
		h.Value, _ = json.Marshal(value)
	}
	return h
}

// adapted is a start lowered to a screening's limits.
func adapted(t *testing.T, s treat.Start, a safety.Adaptation) treat.Start {
	t.Helper()
	out, err := s.Adapt(a, nil)
	require.NoError(t, err)
	return out
}
