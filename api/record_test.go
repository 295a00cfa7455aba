package api_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/record/recordtest"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/demo"
)

// attempt is a random life of one client, through the door: three visits whose
// appointments lie years apart, people of every role on devices whose clocks are off, and
// batches that were written a while ago.
type attempt struct {
	*rand.Rand
	t      *testing.T
	people []member
	client string
	visits [3]string
	points [3][2]string
	starts [2]treat.Start
	spots  [2]record.Spot
	seq    map[string]int
	said   map[string]int64
	model  recordtest.Model
	known  visit.Context // who is who
	since  map[string]int64
	mine   map[string][]string  // events that a person may take back
	held   map[visit.UUID]int64 // when each hold began
	begun  map[visit.UUID]bool  // accepted, and no sign yet
	reason map[record.Reason]int
}

type member struct {
	*caller
	id string
}

// world is what all attempts share.
func world(t *testing.T) (people []member, known visit.Context, starts [2]treat.Start, spots [2]record.Spot) {
	c := newCaller(t, api.Options{})
	for _, l := range demo.Logins[:3] {
		of := c.again()
		me := of.signIn(l)
		people = append(people, member{of, me.ID})
	}
	for i, m := range []ids.Muscle{"soleus", "gluteus-maximus"} {
		p := charted(t, uuid.NewString(), m, ids.Left)
		muscle, err := atlas.Get(m)
		require.NoError(t, err)
		spots[i] = record.Spot{
			Muscle: m, Side: ids.Left, Place: p.Place,
			Where: muscle.PressedThrough(p.Place, p.Side, p.View, body.Point{X: p.X, Y: p.Y}),
		}
		s, err := treat.NewStart(treat.Request{
			Protocol: "graded-stages", Muscle: m, Side: ids.Left, Where: spots[i].Where,
		})
		require.NoError(t, err)
		starts[i], err = s.Adapt(safety.Adaptation{Down: 1}, spots[i].Where)
		require.NoError(t, err)
	}
	return people, known, starts, spots
}

func (a *attempt) begin() {
	owner := a.people[0]
	a.client = owner.aClient("Random", "Life")
	days := []int{-85, 0, 1800}
	for i := range a.visits {
		a.visits[i] = uuid.NewString()
		require.Equal(a.t, 200, owner.call("PUT", "/api/visits/"+a.visits[i], map[string]any{
			"id": a.visits[i], "client": a.client, "starts_at": time.Now().AddDate(0, 0, days[i]).Format(time.RFC3339),
		}, nil).StatusCode)
		a.points[i] = [2]string{uuid.NewString(), uuid.NewString()}
		b := a.batch(0, i, "desk", time.Minute)
		for k, p := range a.points[i] {
			b.add("point-charted", charted(a.t, p, a.spots[k].Muscle, ids.Left))
		}
		b.add("screening-answered", graveNo())
		for _, area := range []safety.Area{safety.WholeVisit, "buttock"} {
			b.add(
				"consent-recorded",
				visit.ConsentRecorded{Area: area, Given: true, By: "guardian", Chaperone: "declined"},
			)
		}
		b.send()
	}
	var open api.OpenVisit
	require.Equal(a.t, 200, owner.call("GET", "/api/visits/"+a.visits[0], nil, &open).StatusCode)
	a.model.Client, a.known.Roles = open.Context.Client, open.Context.Roles
}

// batch is what one person's device wrote in one visit some time ago and sends now; its
// clock may be hours off, and it says so.
type batch struct {
	*attempt
	who, visit int
	device     string
	events     []map[string]any
	nowMS, off int64
	ago        int64
}

func (a *attempt) batch(who, visit int, device string, ago time.Duration) *batch {
	off := []int64{0, 0, 3_600_000, -7_200_000}[a.IntN(4)]
	if a.said[device] > time.Now().Add(-ago).UnixMilli() {
		device = fmt.Sprint(device, " ", len(a.said)) // no device goes back before its own
	}
	return &batch{
		attempt: a, who: who, visit: visit, device: device, nowMS: time.Now().UnixMilli(), off: off,
		ago: ago.Milliseconds(),
	}
}

func (b *batch) add(kind string, body any) (id string) {
	id = uuid.NewString()
	b.seq[b.device]++
	b.ago = max(0, b.ago-500)
	b.said[b.device] = b.nowMS - b.ago
	device := uuid.NewSHA1(uuid.MustParse(b.client), []byte(b.device))
	b.events = append(b.events, map[string]any{
		"id": id, "client": b.client, "visit": b.visits[b.visit], "author": b.people[b.who].id, "device": device,
		"seq": b.seq[b.device], "device_ms": b.nowMS - b.ago + b.off,
		"seen":   b.IntN(int(b.since[b.visits[b.visit]]) + 1),
		"schema": 1, "type": kind, "body": body,
	})
	return id
}

// send lets the server judge, and the model after it by the same stamps.
func (b *batch) send() {
	var got api.EventAnswer
	res := b.people[b.who].call("POST", "/api/visits/"+b.visits[b.visit]+"/events", map[string]any{
		"events": b.events, "sent_ms": b.nowMS + b.off, "since": b.since[b.visits[b.visit]],
	}, &got)
	require.Equal(b.t, 200, res.StatusCode)
	require.Len(b.t, got.Events, len(b.events))
	b.since[b.visits[b.visit]] = got.Version
	for _, e := range got.Events {
		of, err := e.Decode()
		require.NoError(b.t, err)
		switch of := of.(type) {
		case *visit.HoldStarted:
			b.compare(e, of)
		case *visit.HoldHappened:
			b.happened(e, of)
		}
		if e.Verdict == visit.Accepted {
			b.model.Facts = append(b.model.Facts, b.known.Facts(e, of)...)
			if key := e.Author + e.Visit; !strings.HasPrefix(e.Type, "point-") && !strings.HasPrefix(e.Type, "hold-") {
				b.mine[key] = append(b.mine[key], e.ID)
			}
		}
	}
}

// happened tells the model of signs, and of eight seconds that no sign cut short.
func (b *batch) happened(e visit.Event, of *visit.HoldHappened) {
	at := of.AtMS
	if e.HoldAtMS != nil {
		at = *e.HoldAtMS
	}
	spot, began := b.spots[of.Hold[0]-'0'], b.held[of.Hold]
	switch {
	case e.Verdict != visit.Accepted:
	case record.IsSign(of.Event):
		b.model.Day.Signs = append(b.model.Day.Signs, record.PressedPlace{Spot: spot, Sign: of.Event, AtMS: began + at})
		delete(b.begun, of.Hold)
	case of.Event == "release" && b.begun[of.Hold] && at >= record.LeastPressedS*1000:
		b.model.Day.Treated = append(b.model.Day.Treated, record.Treatment{Spot: spot, AtMS: began})
	}
}

func (b *batch) compare(e visit.Event, of *visit.HoldStarted) {
	nth := of.Hold[0] - '0'
	b.held[of.Hold] = e.HappenedMS
	stamp := b.known.Facts(e, of)[0].Stamp
	want := b.model.Admission(stamp, b.spots[nth], string(of.Point))
	got := reasonOf(e)
	if want == record.Blocked {
		want = record.NoTreatment // they are said in the same words
	}
	require.Equal(b.t, string(want), string(got), "%s, %d facts", e.Why, len(b.model.Facts))
	b.reason[got]++
	b.begun[of.Hold] = got == ""
}

func reasonOf(e visit.Event) record.Reason {
	for _, r := range []struct {
		text   string
		reason record.Reason
	}{
		{"losed for today", record.Closed},
		{"Blocked by the screening", record.NoTreatment},
		{"not complete", record.NotAsked},
		{"felt unwell", record.NotAsked},
		{"Treated twice", record.TwiceAlready},
		{"under age", record.NotByGuardian},
		{"consent", record.NoConsent},
	} {
		if strings.Contains(e.Why, r.text) {
			return r.reason
		}
	}
	return record.Reason(e.Why)
}

var questionsAsked = []ids.Question{
	"fever", "recent-clot", "clot-breathless", "swollen-joint", "acute-muscle-tear", "recent-surgery", "varicose-veins",
	"open-skin", "minor",
}

func of[T any](a *attempt, list ...T) T { return list[a.IntN(len(list))] }

// turn lets somebody do a few things.
func (a *attempt) turn() {
	b := a.batch(a.IntN(3), a.IntN(3), of(a, "desk", "tablet", "phone"),
		of(a, 15*time.Second, 15*time.Second, time.Minute, 4*time.Minute, 30*time.Minute))
	for range 5 + a.IntN(9) {
		b.something()
	}
	if len(b.events) > 0 {
		b.send()
	}
}

// graveNo answers no to everything that could stop a treatment.
func graveNo() (all visit.ScreeningAnswered) {
	for _, q := range safety.Questions() {
		if q.Grave() {
			all.Answers = append(all.Answers, visit.ScreenedAnswer{Question: q.ID, Answer: "no"})
		}
	}
	return all
}

func (b *batch) something() {
	switch b.IntN(14) {
	case 0:
		b.add(
			"screening-answered",
			visit.ScreeningAnswered{By: of(b.attempt, "", "client"), Answers: []visit.ScreenedAnswer{{
				Question: of(b.attempt, questionsAsked...), Answer: of(b.attempt, "yes", "no", "no", "unknown"),
				Corrects: of(b.attempt, "", "Touched by mistake."), Side: of[ids.Side](b.attempt, "", "left"),
				Regions:    []ids.Region{"lower-calf"},
				HappenedOn: of(b.attempt, "", time.Now().AddDate(0, 0, -60).Format(time.DateOnly)),
			}}},
		)
	case 1, 2:
		b.add("screening-answered", graveNo())
	case 3, 4, 5:
		b.add("screening-cleared", visit.ScreeningCleared{
			Question: of(b.attempt, questionsAsked...), By: "Dr Example", On: "today", Note: "She meant the other leg.",
			Basis: of[visit.Basis](b.attempt, "", "clinician", "resolved", "mistaken"),
		})
	case 6:
		b.add("consent-recorded", visit.ConsentRecorded{
			Area: of(b.attempt, safety.WholeVisit, "buttock"), Given: b.IntN(4) > 0, By: of(b.attempt, "", "guardian"),
			Chaperone: "declined",
		})
	case 7:
		b.add("block-overridden", visit.BlockOverridden{
			Point: visit.UUID(b.points[b.visit][b.IntN(2)]), Reason: "It is two hands away.",
		})
	case 8:
		if list := b.mine[b.people[b.who].id+b.visits[b.visit]]; len(list) > 0 {
			b.add("event-undone", visit.EventUndone{Event: visit.UUID(list[b.IntN(len(list))])})
		}
	default:
		b.hold()
	}
}

// hold presses for eight seconds, now and then with a sign.
func (b *batch) hold() {
	k := b.IntN(2)
	if b.ago < 12_000 {
		return // nobody has pressed into the future
	}
	id := fmt.Sprint(k) + uuid.NewString()[1:] // it tells which of the points it presses
	muscle, err := atlas.Get(b.spots[k].Muscle)
	require.NoError(b.t, err)
	b.add("hold-started", visit.HoldStarted{
		Hold: visit.UUID(id), Point: visit.UUID(b.points[b.visit][k]), Start: b.starts[k], Contact: muscle.Contacts[0],
		Position: muscle.Positions[0], MuscleSet: "slack", Under: visit.UUID(b.people[0].id),
	})
	say := func(at int64, event string) {
		b.ago += 500 // what is written within a hold goes by its own clock
		b.add("hold-event", visit.HoldHappened{Hold: visit.UUID(id), AtMS: at, Event: event})
	}
	say(0, "contact")
	if b.IntN(12) == 0 {
		say(3000, of(b.attempt, "nerve-sign", "pulse", "unwell", "skin-reaction"))
	}
	say(8000, "release")
	b.ago -= 9000
}

// Every admission at the door and its reason are those of the reference model.
func TestAHundredLivesThroughTheAPI(t *testing.T) {
	people, known, starts, spots := world(t)
	seen := map[record.Reason]int{}
	for seed := range uint64(100) {
		a := &attempt{
			Rand: rand.New(rand.NewPCG(seed, 11)), t: t, people: people, known: known, starts: starts, spots: spots,
			seq: map[string]int{}, said: map[string]int64{}, since: map[string]int64{}, mine: map[string][]string{},
			reason: seen,
			held:   map[visit.UUID]int64{}, begun: map[visit.UUID]bool{},
		}
		a.begin()
		for range 5 {
			a.turn()
		}
	}
	t.Log(seen)
	for _, r := range []record.Reason{
		"", record.Closed, record.NoTreatment, record.NotAsked, record.TwiceAlready, record.NoConsent,
		record.NotByGuardian,
	} {
		require.NotZero(t, seen[r], "nothing comes to %q", r)
	}
}
