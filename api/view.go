package api

import (
	"cmp"
	"context"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/store"
)

// PracticeView is what waits to be looked at.
type PracticeView struct {
	Unsigned []UnsignedNote `json:"unsigned"`
	// Licences that end: everyone's for an owner, one's own for the others.
	Licences []EndingLicence `json:"licences"`
	Due      []DueClient     `json:"due"`
	// Watched are spots that stand still, grow worse or have let go for good.
	Watched []WatchedSpot `json:"watched"`
	// HandUses are the reader's own of the week, Today the number of this day.
	HandUses []treat.HandUse `json:"hand_uses"`
	Today    int             `json:"today"`
	Load     treat.Load      `json:"load"`
}

// UnsignedNote is a closed visit whose note waits, for a name or for the second one.
type UnsignedNote struct {
	Visit     string `json:"visit" format:"uuid"`
	Client    string `json:"client" format:"uuid"`
	Name      string `json:"name"`
	Therapist string `json:"therapist"`
	StartsAt  string `json:"starts_at" format:"date-time"`
	Awaits    bool   `json:"awaits_counter" doc:"a student's, signed: a licensed person countersigns it"`
}

// EndingLicence is a member's licence that is past or ends soon.
type EndingLicence struct {
	Name    string `json:"name"`
	Licence string `json:"licence"`
	Until   string `json:"until" format:"date" doc:"the last day"`
	Expired bool   `json:"expired"`
}

// DueClient is a client whose next visit was proposed and is not booked.
type DueClient struct {
	Client string `json:"client" format:"uuid"`
	Name   string `json:"name"`
	From   string `json:"from"`
	To     string `json:"to"`
	Over   bool   `json:"over" doc:"the proposed time is past"`
	// Rechecks are what was not as it should be when the latest visit ended.
	Rechecks []visit.Recheck `json:"rechecks"`
}

// WatchedSpot is a spot whose course asks for something.
type WatchedSpot struct {
	Client string          `json:"client" format:"uuid"`
	Name   string          `json:"name"`
	Muscle string          `json:"muscle"`
	Side   ids.Side        `json:"side"`
	Signal progress.Signal `json:"signal"`
	Next   string          `json:"next"`
	First  float64         `json:"first"`
	Last   float64         `json:"last"`
}

// Outcomes are the practice's, by muscle and protocol, with what the list of
// suspects was worth.
type Outcomes struct {
	Protocols []progress.ProtocolOutcome `json:"protocols"`
	Muscles   []MuscleOutcome            `json:"muscles"`
	List      assess.Calibration         `json:"list"`
}

// MuscleOutcome is one muscle by each protocol.
type MuscleOutcome struct {
	Muscle ids.Muscle                 `json:"muscle"`
	Name   string                     `json:"name"`
	Worked []progress.ProtocolOutcome `json:"worked"`
}

func (s *server) registerView(a huma.API) {
	huma.Register(a, op("practice-view", http.MethodGet, "/api/practice/view",
		"Unsigned notes, who is due, whose spots stand still, one's own hands", 401), s.practiceView)
	huma.Register(a, op("outcomes", http.MethodGet, "/api/practice/outcomes",
		"What each protocol came to, and whether the list of suspects keeps its word", 401), s.outcomes)
}

func (s *server) practiceView(ctx context.Context, _ *struct{}) (*oneOut[PracticeView], error) {
	return one(ctx, s, action("list", "practice-view", ""), func(tx *store.Tx) (PracticeView, error) {
		now := s.now()
		out := PracticeView{Due: []DueClient{}}
		if err := tx.RefreshAll(ctx, now); err != nil {
			return out, err
		}
		var err error
		if out.Unsigned, err = unsigned(ctx, tx); err != nil {
			return out, err
		}
		if out.Licences, err = endingLicences(ctx, tx, now); err != nil {
			return out, err
		}
		due, err := tx.DueClients(ctx, now)
		if err != nil {
			return out, err
		}
		today := now.Format(time.DateOnly)
		for _, d := range due {
			age := 0
			if d.BornOn.Valid {
				age = ageOn(d.BornOn.Time, now)
			}
			again, err := d.Rechecks(age)
			if err != nil {
				return out, err
			}
			to := d.To.Format(time.DateOnly)
			out.Due = append(out.Due, DueClient{
				d.Client.String(), d.Name, d.From.Format(time.DateOnly), to, to < today, again,
			})
		}
		if out.Watched, err = watched(ctx, tx, now); err != nil {
			return out, err
		}
		if out.HandUses, out.Today, err = tx.HandUses(ctx, now, uuid.Nil); err != nil {
			return out, err
		}
		out.Load, err = treat.LoadOf(out.HandUses)
		return out, err
	})
}

func watched(ctx context.Context, tx *store.Tx, now time.Time) ([]WatchedSpot, error) {
	out := []WatchedSpot{}
	spots, err := tx.LivelySpots(ctx, now)
	if err != nil {
		return out, err
	}
	for _, x := range spots {
		c, err := progress.Series("nprs", x.Numbers)
		if err != nil || c.Signal == progress.Improving || c.Signal == progress.TooFew {
			continue
		}
		out = append(out, WatchedSpot{
			Client: x.Client.String(), Name: x.Name, Muscle: nameOf(x.Muscle), Side: x.Side, Signal: c.Signal,
			Next: c.Next, First: x.Numbers[0].Value, Last: x.Numbers[len(x.Numbers)-1].Value,
		})
	}
	urgent := []progress.Signal{progress.Worsening, progress.Plateau, progress.Resolved}
	slices.SortStableFunc(out, func(a, b WatchedSpot) int {
		return cmp.Compare(slices.Index(urgent, a.Signal), slices.Index(urgent, b.Signal))
	})
	return out, nil
}

func nameOf(m ids.Muscle) string {
	if x, err := atlas.Get(m); err == nil {
		return x.Name
	}
	return string(m)
}

func (s *server) outcomes(ctx context.Context, _ *struct{}) (*oneOut[Outcomes], error) {
	return one(ctx, s, action("list", "outcomes", ""), func(tx *store.Tx) (Outcomes, error) {
		out := Outcomes{Muscles: []MuscleOutcome{}}
		if err := tx.RefreshAll(ctx, s.now()); err != nil {
			return out, err
		}
		treated, err := tx.TreatedByMuscle(ctx)
		if err != nil {
			return out, err
		}
		var all []progress.TreatmentResult
		for m, list := range treated {
			all = append(all, list...)
			out.Muscles = append(out.Muscles, MuscleOutcome{m, nameOf(m), progress.WhatWorked(list)})
		}
		slices.SortFunc(out.Muscles, func(a, b MuscleOutcome) int { return cmp.Compare(a.Name, b.Name) })
		out.Protocols = progress.WhatWorked(all)
		said, err := tx.Suspicions(ctx)
		if err != nil {
			return out, err
		}
		weights, err := tx.Weights(ctx)
		out.List = assess.Calibrate(said, weights)
		return out, err
	})
}

// endingLicences are an owner's care for everyone's; each sees the own.
func endingLicences(ctx context.Context, tx *store.Tx, now time.Time) ([]EndingLicence, error) {
	out := []EndingLicence{}
	list, err := tx.Licences(ctx)
	for _, l := range list {
		expired, ends := licenceEnds(l.Until, now)
		if expired || ends {
			out = append(out, EndingLicence{l.Name, l.Licence, l.Until.Format(time.DateOnly), expired})
		}
	}
	return out, err
}

func unsigned(ctx context.Context, tx *store.Tx) ([]UnsignedNote, error) {
	out := []UnsignedNote{}
	list, err := tx.UnsignedNotes(ctx)
	for _, u := range list {
		out = append(out, UnsignedNote{
			u.Visit.String(), u.Client.String(), u.Name, u.Therapist, u.StartsAt.UTC().Format(time.RFC3339), u.Awaits,
		})
	}
	return out, err
}
