package e2e

import (
	"encoding/json"
	"strings"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/visit"
)

// spot is a muscle's first usual place.
type spot struct {
	muscle ids.Muscle
	side   ids.Side
}

var calf = spot{"gastrocnemius-medial", "left"}

// charted is the spot as a point: 6 on the scale, with a band, the client's own pain.
func (s spot) charted(p *page) visit.PointCharted {
	p.t.Helper()
	m, err := atlas.Get(s.muscle)
	require.NoError(p.t, err)
	site, number, grade := m.Sites[0], 6.0, 2
	place := site.Place(body.DefaultHeightCM)
	view, at := m.OnFigure(place, s.side, body.DefaultHeightCM)
	point := visit.UUID(uuid.NewString())
	return visit.PointCharted{
		Point: point, Identity: point, Muscle: m.ID, Side: s.side, Site: site.ID, Figure: body.Version,
		View: view, X: at.X, Y: at.Y, Place: place,
		Palpation: visit.Palpation{Band: "yes", Grade: &grade, NPRS: &number, Familiar: "yes"},
	}
}

// said is an event of a log, before it has its envelope.
type said struct {
	kind string
	body any
}

// opened is a step of a visit of a client of its own, as another device has left it:
// screened, consented to, points charted. It is for tests of what comes after that.
func opened(p *page, family, step string, spots ...spot) (client string) {
	p.t.Helper()
	client = ownClient(p, family)
	var asked visit.ScreeningAnswered
	for _, q := range safety.Questions() {
		asked.Answers = append(asked.Answers, visit.ScreenedAnswer{Question: q.ID, Answer: "no"})
	}
	log := []said{
		{"visit-opened", visit.VisitOpened{}},
		{"screening-answered", asked},
		{"consent-recorded", visit.ConsentRecorded{Area: safety.WholeVisit, Given: true}},
	}
	for _, s := range spots {
		log = append(log, said{"point-charted", s.charted(p)})
	}
	id := booked(p, client, time.Now())
	record(p, client, id, log...)
	p.MustNavigate(p.base + "/visits/" + id + "?step=" + strings.ToLower(step))
	p.MustElementX(`//nav[@aria-label="Steps of the visit"]//a[starts-with(@aria-label, "` + step + `")][@aria-current="step"]`)
	return client
}

// booked is a visit of a client that begins at a time.
func booked(p *page, client string, at time.Time) (id string) {
	p.t.Helper()
	id = uuid.NewString()
	p.call("PUT", "/api/visits/"+id, map[string]any{
		"id": id, "client": client, "minutes": 60, "starts_at": at.Format(time.RFC3339Nano),
	})
	return id
}

// record adds to a visit's log as a device of its own would.
func record(p *page, client, id string, log ...said) {
	p.t.Helper()
	var me struct{ ID string }
	require.NoError(p.t, json.Unmarshal(p.call("GET", "/api/session", nil), &me))
	device := uuid.NewString()
	events := make([]map[string]any, len(log))
	for i, e := range log {
		events[i] = map[string]any{
			"id": uuid.NewString(), "client": client, "visit": id, "author": me.ID, "device": device, "seq": i + 1,
			"device_ms": time.Now().UnixMilli() + int64(i), "seen": 0, "schema": visit.SchemaVersion,
			"type": e.kind, "body": e.body,
		}
	}
	p.call("POST", "/api/visits/"+id+"/events", map[string]any{"events": events})
}
