package api

import (
	"context"
	"encoding/json"
	"net/http"
	"slices"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/agreement"
	"mokren/core/body"
	"mokren/core/calc"
	"mokren/core/safety"
	"mokren/core/visit"
	"mokren/store"
)

// SecondVisit is the other one of two visits that are compared.
type SecondVisit struct {
	Visit string `json:"visit" format:"uuid"`
}

// Two examiners work so far apart at the least, and take so many points at the most, lest the second
// finds what the first has made sore.
const (
	leastApart = 10 * time.Minute
	mostPoints = 8
)

func (s *server) registerAgreement(a huma.API) {
	huma.Register(a, op("visit-agreement", http.MethodPost, "/api/visits/{id}/agreement",
		"How far two people who examined one client find the same", 401, 404, 409, 422), s.visitAgreement)
}

// examined is what one of the two found.
type examined struct {
	store.Visit
	state  visit.State
	charts []agreement.Chart
}

func (s *server) visitAgreement(ctx context.Context, in *struct {
	ByID
	Body SecondVisit
},
) (*oneOut[calc.AgreementOut], error) {
	return one(ctx, s, action("compare", "visit", in.ID), func(tx *store.Tx) (calc.AgreementOut, error) {
		var out calc.AgreementOut
		a, err := s.examined(ctx, tx, in.uuid())
		if err != nil {
			return out, err
		}
		b, err := s.examined(ctx, tx, uuid.MustParse(in.Body.Visit))
		if err != nil {
			return out, err
		}
		if err := mayCompare(a, b); err != nil {
			return out, err
		}
		c, err := tx.Client(ctx, a.ClientID)
		if err != nil {
			return out, err
		}
		height := float64(body.DefaultHeightCM)
		if c.HeightCM.Valid {
			height = c.HeightCM.Float64
		}
		m := agreement.Match(a.charts, b.charts, height)
		pairs := slices.Concat(agreement.Numbers(a.charts, b.charts, m), ranges(a.state, b.state))
		raw, err := json.Marshal(pairs)
		if err != nil {
			return out, err
		}
		if err := tx.KeepPairs(ctx, a.Visit, b.Visit, raw, s.now()); err != nil {
			return out, err
		}
		return calc.AgreementOut{Measures: agreement.Of(pairs), Matching: &m}, nil
	})
}

func (s *server) examined(ctx context.Context, tx *store.Tx, id uuid.UUID) (examined, error) {
	v, err := tx.Visit(ctx, id)
	if err != nil {
		return examined{}, err
	}
	open, err := s.readVisit(ctx, tx, id)
	if err != nil {
		return examined{}, err
	}
	e := examined{Visit: v, state: open.State}
	for _, p := range open.State.Points {
		c := agreement.Chart{
			Muscle: p.Muscle, Side: p.Side, View: p.View, X: &p.X, Y: &p.Y, NPRS: p.NPRS, Grade: p.Grade,
			Band: p.Band, Familiar: p.Familiar,
		}
		if p.Threshold != nil {
			c.PPT = &p.Threshold.KPa
		}
		e.charts = append(e.charts, c)
	}
	return e, nil
}

// mayCompare refuses what would say nothing, or was not agreed to.
func mayCompare(a, b examined) error {
	apart := a.StartsAt.Sub(b.StartsAt).Abs()
	switch {
	case a.ClientID != b.ClientID || a.ID == b.ID:
		return invalid("body.visit", b.ID.String(), "another visit of the same client")
	case a.Therapist == b.Therapist:
		return invalid("body.visit", b.ID.String(), "a visit by somebody else")
	case !agreed(a.state) || !agreed(b.state):
		return huma.Error409Conflict("Both visits need the client's consent and a screening.")
	case apart < leastApart:
		return huma.Error409Conflict("The two examined less than ten minutes apart: the first has made sore what the " +
			"second would find.")
	case len(a.charts) > mostPoints || len(b.charts) > mostPoints:
		return huma.Error409Conflict("More than " + strconv.Itoa(mostPoints) + " points were charted: take fewer.")
	case len(a.charts) == 0 || len(b.charts) == 0:
		return huma.Error409Conflict("Both have to have charted at least one point.")
	}
	return nil
}

// agreed: the client has consented, and was screened.
func agreed(s visit.State) bool {
	for _, c := range s.Consents {
		if c.Area == safety.WholeVisit && c.Given {
			return len(s.Answers) > 0
		}
	}
	return false
}

// ranges are pairs of movements that both have read before anything was pressed.
func ranges(a, b visit.State) []agreement.Pair {
	var out []agreement.Pair
	number := func(v float64) json.RawMessage { return json.RawMessage(strconv.FormatFloat(v, 'g', -1, 64)) }
	for _, x := range a.Ranges {
		for _, y := range b.Ranges {
			if x.Movement == y.Movement && x.Side == y.Side && x.Before != nil && y.Before != nil {
				out = append(out, agreement.Pair{
					Measure: "rom." + string(x.Movement), First: number(*x.Before), Second: number(*y.Before),
				})
			}
		}
	}
	return out
}
