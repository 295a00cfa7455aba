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
func template(ctx context.Context, st *store.Store, m Made, now time.Time) (made []uuid.UUID, err error) {
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
			w := writer{
				visit: uuid.New(), client: client.ID, author: m.Who.Person, device: uuid.New(),
				at: now.AddDate(0, 0, -(kinds-k)*7).Add(-2 * time.Hour),
			}
			if err := w.write(ctx, tx, k, spots); err != nil {
				return err
			}
			made = append([]uuid.UUID{w.visit}, made...) // the latest first
		}
		return nil
	})
	return made, err
}

// writer writes one visit as a device would.
type writer struct {
	visit, client, author, device uuid.UUID
	at                            time.Time
	events                        []visit.Event
}

func (w *writer) say(after time.Duration, kind string, body any) {
	raw, err := json.Marshal(body)
	if err != nil {
		panic(err) // our own types
	}
	w.at = w.at.Add(after)
	w.events = append(w.events, visit.Event{
		ID: uuid.Must(uuid.NewV7()).String(), Client: w.client.String(), Visit: w.visit.String(),
		Author: w.author.String(), Device: w.device.String(), Seq: int64(len(w.events) + 1),
		DeviceMS: w.at.UnixMilli(), Schema: visit.SchemaVersion, Type: kind, Body: raw,
	})
}

func (w *writer) write(ctx context.Context, tx *store.Tx, k int, spots map[ids.Muscle]visit.UUID) error {
	err := tx.NewVisit(ctx, store.Visit{
		ID: w.visit, ClientID: w.client, Therapist: w.author, StartsAt: w.at, Minutes: 60, Reason: "Ache",
	})
	if err != nil {
		return err
	}
	m, err := atlas.Get(muscles[k%len(muscles)])
	if err != nil {
		return err
	}
	w.say(0, "visit-opened", visit.Opened{Reason: "Ache"})
	var asked visit.Screened
	for _, q := range safety.Questions() {
		if k == 0 || q.EachVisit {
			asked.Answers = append(asked.Answers, visit.ScreenedAnswer{Question: q.ID, Answer: "no"})
		}
	}
	w.say(time.Minute, "screening-answered", asked)
	w.say(time.Minute, "consent-recorded", visit.Consented{Area: safety.WholeVisit, Given: true})
	bend := float64(50 + k)
	w.say(time.Minute, "range-measured", visit.Measured{
		Movement: "cervical.rotation", Side: ids.Left, Moment: "before", Active: &bend,
	})
	if err := w.press(m, k, spots); err != nil {
		return err
	}
	w.say(time.Minute, "visit-closed", visit.Closed{})
	_, err = tx.Append(ctx, w.visit, store.Batch{Events: w.events, Now: w.at.Add(time.Minute)})
	return err
}

// press charts a point, holds it once and asks again.
func (w *writer) press(m *atlas.Muscle, k int, spots map[ids.Muscle]visit.UUID) error {
	site, number, grade := m.Sites[0], float64(8-k/4), max(1, 4-k/6)
	place := site.Place(body.DefaultHeightCM)
	view, at := m.OnFigure(place, ids.Left, body.DefaultHeightCM)
	p := visit.Charted{
		Point: visit.UUID(uuid.NewString()), Muscle: m.ID, Side: ids.Left, Site: site.ID, Figure: body.Version,
		View: view, X: at.X, Y: at.Y, Place: place,
		Felt: visit.Felt{Band: "yes", Grade: &grade, NPRS: &number, Familiar: "yes"},
	}
	if spots[m.ID] == "" {
		spots[m.ID] = p.Point
	}
	p.Identity = spots[m.ID]
	w.say(time.Minute, "point-charted", p)
	start, err := treat.NewStart(treat.Request{Protocol: "graded-stages", Muscle: m.ID, Side: ids.Left})
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
	w.say(time.Minute, "point-rechecked", visit.Rechecked{Point: p.Point, NPRS: number / 2})
	return nil
}
