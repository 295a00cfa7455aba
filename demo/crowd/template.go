package crowd

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/store"
)

// kinds of visits that the others are copies of.
const kinds = 24

var muscles = []ids.Muscle{
	"upper-trapezius", "levator-scapulae", "soleus", "gastrocnemius-medial", "infraspinatus", "splenius-capitis",
}

// template makes the practice and its first client, with a visit of each kind.
func template(ctx context.Context, st *store.Store, m Counts, size Size, now time.Time) (made []uuid.UUID, err error) {
	err = st.As(ctx, m.Who, store.Action{Verb: "write", Kind: "crowd"}, func(tx *store.Tx) error {
		if err := tx.NewPractice(ctx, "The Crowded Yard", "Europe/Vienna"); err != nil {
			return err
		}
		if err := tx.NewPerson(ctx, m.Who.Person, "Runa Holt", rights.Owner, m.Email, m.Password); err != nil {
			return err
		}
		client := store.Client{ID: uuid.New(), GivenName: "Template", FamilyName: "Client"}
		if err := tx.PutClient(ctx, client); err != nil {
			return err
		}
		spots := map[ids.Muscle]visit.UUID{}
		for k := range kinds {
			of := Of{
				Visit: uuid.New(), Client: client.ID, Author: m.Who.Person,
				At: now.AddDate(0, 0, -(kinds-k)*7).Add(-2 * time.Hour),
			}
			if err := keep(ctx, tx, of, k, max(1, size.Holds), spots); err != nil {
				return err
			}
			made = append([]uuid.UUID{of.Visit}, made...) // the latest first
		}
		return nil
	})
	return made, err
}

func keep(ctx context.Context, tx *store.Tx, of Of, k, holds int, spots map[ids.Muscle]visit.UUID) error {
	err := tx.NewVisit(ctx, store.Visit{
		ID: of.Visit, ClientID: of.Client, Therapist: of.Author, StartsAt: of.At, Minutes: 60, Reason: "Ache",
	})
	if err != nil {
		return err
	}
	events, err := Log(of, k, holds, spots)
	if err != nil {
		return err
	}
	_, err = tx.Append(ctx, of.Visit, store.Batch{Events: events, Now: of.At.Add(time.Hour)})
	return err
}

// Of is whose visit it is, and when it began by the clock of the device.
type Of struct {
	Visit, Client, Author uuid.UUID
	At                    time.Time
}

// writer writes one visit as a device would.
type writer struct {
	Of
	device uuid.UUID
	events []visit.Event
}

func (w *writer) say(after time.Duration, kind string, body any) {
	raw, err := json.Marshal(body)
	if err != nil {
		panic(err) // our own types
	}
	w.At = w.At.Add(after)
	w.events = append(w.events, visit.Event{
		ID: uuid.Must(uuid.NewV7()).String(), Client: w.Client.String(), Visit: w.Visit.String(),
		Author: w.Author.String(), Device: w.device.String(), Seq: int64(len(w.events) + 1),
		DeviceMS: w.At.UnixMilli(), Schema: visit.SchemaVersion, Type: kind, Body: raw,
	})
}

// askAgain: with so many weekly visits the whole screening is asked anew.
const askAgain = 12

// Log is a visit of the k-th kind with some holds, each at a muscle of its own: asked,
// agreed, measured, charted, pressed, asked again, closed. spots, by muscle, is where a
// client's points were found before.
func Log(of Of, k, holds int, spots map[ids.Muscle]visit.UUID) ([]visit.Event, error) {
	w := &writer{Of: of, device: uuid.New()}
	w.say(0, "visit-opened", visit.VisitOpened{Reason: "Ache"})
	var asked visit.ScreeningAnswered
	for _, q := range safety.Questions() {
		if k%askAgain == 0 || q.EachVisit {
			asked.Answers = append(asked.Answers, visit.ScreenedAnswer{Question: q.ID, Answer: "no"})
		}
	}
	w.say(time.Minute, "screening-answered", asked)
	w.say(time.Minute, "consent-recorded", visit.ConsentRecorded{Area: safety.WholeVisit, Given: true})
	bend := float64(50 + k)
	w.say(time.Minute, "range-measured", visit.RangeMeasured{
		Movement: "cervical.rotation", Side: ids.Left, Moment: "before", Active: &bend,
	})
	for n := range holds {
		m, err := atlas.Get(muscles[(k+n)%len(muscles)])
		if err != nil {
			return nil, err
		}
		if err := w.press(m, k, spots); err != nil {
			return nil, err
		}
	}
	w.say(time.Minute, "visit-closed", visit.VisitClosed{})
	return w.events, nil
}

// press charts a point, holds it once and asks again.
func (w *writer) press(m *atlas.Muscle, k int, spots map[ids.Muscle]visit.UUID) error {
	site, number, grade := m.Sites[0], float64(max(0, 8-k/4)), max(1, 4-k/6)
	place := site.Place(body.DefaultHeightCM)
	view, at := m.OnFigure(place, ids.Left, body.DefaultHeightCM)
	p := visit.PointCharted{
		Point: visit.UUID(uuid.NewString()), Muscle: m.ID, Side: ids.Left, Site: site.ID, Figure: body.Version,
		View: view, X: at.X, Y: at.Y, Place: place,
		Palpation: visit.Palpation{Band: "yes", Grade: &grade, NPRS: &number, Familiar: "yes"},
	}
	if spots[m.ID] == "" {
		spots[m.ID] = p.Point
	}
	p.Identity = spots[m.ID]
	w.say(time.Minute, "point-charted", p)
	start, err := treat.NewStart(treat.Request{
		Protocol: "graded-stages", Muscle: m.ID, Side: ids.Left, Where: m.PressedAt(site.ID, ids.Left),
	})
	if err != nil {
		return err
	}
	hold := visit.UUID(uuid.NewString())
	w.say(time.Minute, "hold-started", visit.HoldStarted{
		Hold: hold, Point: p.Point, Start: start, Contact: m.Contacts[0], Position: m.Positions[0],
	})
	for _, h := range []visit.HoldHappened{
		{AtMS: 0, Event: "contact"},
		{AtMS: 3000, Event: "score", Value: json.RawMessage(`5`)},
		{AtMS: 15000, Event: "score", Value: json.RawMessage(`2`)},
		{AtMS: 16000, Event: "release"},
	} {
		h.Hold = hold
		w.say(4*time.Second, "hold-event", h)
	}
	w.say(time.Second, "hold-ended", visit.HoldEnded{
		Hold: hold, Outcome: "released", PressureMS: 16000, Stages: new(1),
	})
	w.say(time.Minute, "point-rechecked", visit.PointRechecked{Point: p.Point, NPRS: number / 2})
	return nil
}
