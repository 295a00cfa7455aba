package api

import (
	"context"
	"time"

	"github.com/google/uuid"

	"mokren/core/assess"
	"mokren/core/rights"
	"mokren/core/sequence"
	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/store"
)

// OpenVisit is what the visit screen begins with; the browser reduces the
// events itself, with the same core.
type OpenVisit struct {
	Visit  Visit         `json:"visit"`
	Client Client        `json:"client"`
	Events []visit.Event `json:"events"`
	State  visit.State   `json:"state" doc:"the server's reduction of the events"`
	// Earlier are the spots of earlier visits, each as found last, the latest first.
	Earlier []visit.FoundPoint `json:"earlier"`
	Ranges  []visit.Range      `json:"earlier_ranges" doc:"the latest earlier visit's readings"`
	Gauges  []visit.GaugePair  `json:"earlier_gauges" doc:"the latest earlier ones"`
	Posture []assess.Posture   `json:"earlier_posture" doc:"the latest earlier visit's readings"`
	// Left is what the latest earlier visit has left to this one.
	Left *visit.LeftOff `json:"left_off,omitempty"`
	// Drawings are the latest few pain drawings of earlier visits, the latest first.
	Drawings []EarlierDrawing `json:"earlier_drawings"`
	// Entries came from the client's own device and wait to be taken in.
	Entries []Submission `json:"entries"`
	// Interview is the latest earlier one.
	Interview *visit.InterviewNoted `json:"earlier_interview,omitempty"`
	// Context is what the log is read against, here and in the browser.
	Context visit.Context `json:"context"`
	// Team are the people of the practice who do clinical work.
	Team []Member `json:"team"`
	// Protocols are the practice's own copies of protocols, by id.
	OwnProtocols map[string]treat.OwnProtocol `json:"own_protocols"`
	// OwnSequences are the practice's own, by id.
	OwnSequences map[string]sequence.OwnSequence `json:"own_sequences"`
	// Schools is the same under its name of version 0.10; it goes with the next version.
	Schools map[string]treat.OwnProtocol `json:"schools" doc:"the old name of own_protocols"`
	// HandUses are the reader's own holds of the week in other visits, Today the
	// number of this day.
	HandUses []treat.HandUse `json:"hand_uses"`
	Today    int             `json:"today"`
	// NowMS lets a device see how far its clock is off.
	NowMS int64 `json:"now_ms" doc:"the server's clock, Unix ms"`
	// OffsetMin is how far the practice's clock is ahead of UTC at the visit.
	OffsetMin int `json:"offset_min"`
}

// Member is a person of the practice.
type Member struct {
	ID   string      `json:"id" format:"uuid"`
	Name string      `json:"name"`
	Role rights.Role `json:"role" enum:"owner,therapist,student,front-desk"`
	// Licensed: may countersign for a student.
	Licensed bool `json:"licensed"`
}

// EarlierDrawing is the pain drawing of an earlier visit.
type EarlierDrawing struct {
	Visit    string         `json:"visit" format:"uuid"`
	StartsAt string         `json:"starts_at" format:"date-time"`
	Strokes  []visit.Stroke `json:"strokes"`
}

func (s *server) openVisit(ctx context.Context, in *ByID) (*oneOut[OpenVisit], error) {
	return one(ctx, s, action("read", "visit", in.ID), func(tx *store.Tx) (OpenVisit, error) {
		return s.readVisit(ctx, tx, in.uuid())
	})
}

func (s *server) readVisit(
	ctx context.Context, tx *store.Tx, id uuid.UUID,
) (out OpenVisit, err error) {
	now := s.visitClock(ctx)
	v, err := tx.Visit(ctx, id)
	if err != nil {
		return out, err
	}
	c, err := tx.Client(ctx, v.ClientID)
	if err != nil {
		return out, err
	}
	out.Visit, out.Client, out.NowMS = visitOut(v), s.clientFor(tx.Who(), c), now.UnixMilli()
	if out.Events, err = tx.Events(ctx, v.ID); err != nil {
		return out, err
	}
	if out.Context, err = tx.VisitContext(ctx, v, now); err != nil {
		return out, err
	}
	out.State = visit.Reduce(out.Context, out.Events)
	if out.Team, err = team(ctx, tx); err != nil {
		return out, err
	}
	if out.OwnSequences, err = tx.OwnSequences(ctx); err != nil {
		return out, err
	}
	if out.OwnProtocols, err = tx.OwnProtocols(ctx); err != nil {
		return out, err
	}
	out.Schools = out.OwnProtocols
	if out.HandUses, out.Today, err = tx.HandUses(ctx, now, v.ID); err != nil {
		return out, err
	}
	if out.Entries, err = submissionsOf(ctx, tx, v.ID); err != nil {
		return out, err
	}
	zone, err := zoneOf(ctx, tx)
	if err != nil {
		return out, err
	}
	_, offset := v.StartsAt.In(zone).Zone()
	out.OffsetMin = offset / 60
	before, err := tx.Earlier(ctx, v, now)
	if err != nil {
		return out, err
	}
	out.Earlier, out.Ranges, out.Gauges, out.Interview = before.Points, before.Ranges, before.Gauges, before.Interview
	out.Posture = before.Posture
	out.Left = before.Left
	out.Drawings = make([]EarlierDrawing, len(before.Drawings))
	for i, d := range before.Drawings {
		out.Drawings[i] = EarlierDrawing{d.Visit, d.StartsAt.UTC().Format(time.RFC3339), d.Strokes}
	}
	return out, nil
}

// team are those who do clinical work.
func team(ctx context.Context, tx *store.Tx) ([]Member, error) {
	people, err := tx.People(ctx)
	if err != nil {
		return nil, err
	}
	out := []Member{}
	for _, p := range people {
		if p.Role.Clinical() {
			out = append(out, Member{p.ID.String(), p.Name, p.Role, p.Role.Licensed()})
		}
	}
	return out, nil
}
