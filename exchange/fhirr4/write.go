package fhirr4

import (
	"encoding/json"
	"fmt"
	"time"

	"github.com/google/uuid"
	"github.com/samply/golang-fhir-models/fhir-models/fhir"

	"mokren/core/visit"
	"mokren/core/wording"
	"mokren/exchange"
)

// Write gives an archive as a Bundle of type collection. states are the visits as
// they stand. The same archive gives the same bytes.
func Write(a exchange.Archive, states map[visit.UUID]visit.State) ([]byte, error) {
	a.Sort()
	w := writer{bundle: fhir.Bundle{Type: fhir.BundleTypeCollection}}
	for _, c := range a.Clients {
		w.patient(c)
	}
	for _, v := range a.Visits {
		w.encounter(v)
		w.observations(v, states[v.ID])
		w.conditions(v, states[v.ID])
		w.procedures(v, states[v.ID])
		w.screening(v, states[v.ID])
		w.plan(v, states[v.ID])
	}
	if w.err != nil {
		return nil, w.err
	}
	return json.MarshalIndent(w.bundle, "", " ")
}

type writer struct {
	bundle fhir.Bundle
	err    error
}

// put adds a resource under its id.
func (w *writer) put(id string, resource any) {
	raw, err := json.Marshal(resource)
	if err != nil && w.err == nil {
		w.err = fmt.Errorf("writing a FHIR resource: %w", err)
	}
	url := "urn:uuid:" + id
	w.bundle.Entry = append(w.bundle.Entry, fhir.BundleEntry{FullUrl: &url, Resource: raw})
}

// named makes the id of something that has none of its own, always the same.
func named(v exchange.ArchiveVisit, what string) string {
	return uuid.NewSHA1(uuid.MustParse(string(v.ID)), []byte(what)).String()
}

func text(s string) *string {
	if s == "" {
		return nil
	}
	return &s
}

func (w *writer) patient(c exchange.ArchiveClient) {
	id := string(c.ID)
	p := fhir.Patient{Id: &id, BirthDate: text(c.BornOn), Name: []fhir.HumanName{{
		Family: &c.FamilyName, Given: []string{c.GivenName},
	}}}
	for _, t := range []struct {
		system fhir.ContactPointSystem
		value  string
	}{{fhir.ContactPointSystemPhone, c.Phone}, {fhir.ContactPointSystemEmail, c.Email}} {
		if t.value != "" {
			p.Telecom = append(p.Telecom, fhir.ContactPoint{System: &t.system, Value: &t.value})
		}
	}
	w.put(id, p)
	if c.HeightCM == nil {
		return
	}
	of := uuid.NewSHA1(uuid.MustParse(id), []byte("height")).String()
	w.put(of, fhir.Observation{
		Id: &of, Status: fhir.ObservationStatusFinal, Code: concept(loinc, loincHeight, "Body height"),
		Subject:       refTo(id),
		ValueQuantity: quantity(*c.HeightCM, "cm", "cm"),
	})
}

func (w *writer) encounter(v exchange.ArchiveVisit) {
	id := string(v.ID)
	start := v.Starts().UTC().Format(time.RFC3339)
	end := v.Starts().UTC().Add(time.Duration(v.Minutes) * time.Minute).Format(time.RFC3339)
	e := fhir.Encounter{
		Id: &id, Status: fhir.EncounterStatusPlanned, Class: coding(actCode, "AMB", "ambulatory"),
		Subject: refTo(string(v.Client)), Period: &fhir.Period{Start: &start, End: &end},
	}
	switch {
	case v.Status == "cancelled" || v.Status == "no-show":
		e.Status = fhir.EncounterStatusCancelled
	case len(v.Events) > 0:
		e.Status = fhir.EncounterStatusFinished
	}
	if v.Reason != "" {
		e.ReasonCode = []fhir.CodeableConcept{{Text: &v.Reason}}
	}
	w.put(id, e)
}

// observe adds one measured value of a visit.
func (w *writer) observe(
	v exchange.ArchiveVisit,
	key string,
	code fhir.CodeableConcept,
	side, moment string,
	q *fhir.Quantity,
) {
	id := named(v, key)
	at := v.Starts().UTC().Format(time.RFC3339)
	o := fhir.Observation{
		Id: &id, Status: fhir.ObservationStatusFinal, Code: code, Subject: refTo(string(v.Client)),
		Encounter: refTo(string(v.ID)), EffectiveDateTime: &at, ValueQuantity: q,
	}
	if side != "" {
		site := concept(own+"side", side, "")
		o.BodySite = &site
	}
	if moment != "" {
		method := concept(own+"moment", moment, "")
		o.Method = &method
	}
	w.put(id, o)
}

// valueAt is a value before or after treatment.
type valueAt struct {
	name  string
	value float64
}

func beforeAfter(before, after *float64) []valueAt {
	var out []valueAt
	if before != nil {
		out = append(out, valueAt{"before", *before})
	}
	if after != nil {
		out = append(out, valueAt{"after", *after})
	}
	return out
}

func (w *writer) observations(v exchange.ArchiveVisit, s visit.State) {
	if i := s.Interview; i != nil && i.Now != nil {
		code := concept(loinc, loincPain, "Pain severity - 0-10 verbal numeric rating [Score] - Reported")
		w.observe(v, "pain-now", code, "", "", quantity(*i.Now, "score", "{score}"))
	}
	for _, r := range s.Ranges {
		code := concept(own+"movement", string(r.Movement), wording.Movement(r.Movement))
		unit := [2]string{"degree", "deg"}
		if r.Movement == "jaw.opening" {
			unit = [2]string{"millimetre", "mm"}
		}
		for _, m := range beforeAfter(r.Before, r.After) {
			key := "range:" + string(r.Movement) + ":" + string(r.Side) + ":" + m.name
			w.observe(v, key, code, string(r.Side), m.name, quantity(m.value, unit[0], unit[1]))
		}
	}
	for _, p := range s.Points {
		at := "point:" + string(p.Point) + ":"
		number := concept(own+"measure", "nprs-at-point", "Number at test pressure, 0-10")
		number.Text = text(wording.Muscle(p.Muscle, p.Side, p.Site))
		for _, m := range beforeAfter(p.NPRS, p.AfterNPRS) {
			w.observe(v, at+m.name, number, string(p.Side), m.name, quantity(m.value, "score", "{score}"))
		}
		if p.Threshold != nil {
			code := concept(own+"measure", "ppt-kpa", "Pressure pain threshold")
			code.Text = number.Text
			w.observe(v, at+"ppt", code, string(p.Side), "before", quantity(p.Threshold.KPa, "kilopascal", "kPa"))
		}
	}
}

// conditions are the points: what is the matter, and where.
func (w *writer) conditions(v exchange.ArchiveVisit, s visit.State) {
	at := v.Starts().UTC().Format(time.RFC3339)
	for _, p := range s.Points {
		id := named(v, "condition:"+string(p.Point))
		active := concept(clinical, "active", "Active")
		code := concept(own+"finding", "tender-point", "Tender point in muscle")
		site := concept(own+"muscle", string(p.Muscle), wording.Muscle(p.Muscle, p.Side, p.Site))
		w.put(id, fhir.Condition{
			Id: &id, ClinicalStatus: &active, Code: &code, BodySite: []fhir.CodeableConcept{site},
			Subject: reference(string(v.Client)), Encounter: refTo(string(v.ID)), RecordedDate: &at,
		})
	}
}

func (w *writer) procedures(v exchange.ArchiveVisit, s visit.State) {
	for _, h := range s.Holds {
		if h.Status == visit.HoldRejected {
			continue
		}
		id := string(h.ID)
		start := time.UnixMilli(h.StartedMS).UTC().Format(time.RFC3339)
		code := concept(own+"protocol", string(h.Start.Protocol), "")
		name := "Graded compression by hand"
		code.Text = &name
		site := concept(own+"muscle", string(h.Start.Muscle), wording.Muscle(h.Start.Muscle, h.Start.Side, ""))
		outcome := concept(own+"outcome", string(h.Summary.Outcome), "")
		p := fhir.Procedure{
			Id: &id, Status: fhir.EventStatusCompleted, Code: &code, Subject: reference(string(v.Client)),
			Encounter: refTo(string(v.ID)), PerformedPeriod: &fhir.Period{Start: &start},
			BodySite: []fhir.CodeableConcept{site}, Outcome: &outcome,
			Note: []fhir.Annotation{
				{Text: fmt.Sprintf("%.1f s of pressure in %d parts", h.Summary.PressureS, h.Summary.Count())},
			},
		}
		if h.EndedMS > 0 {
			end := time.UnixMilli(h.EndedMS).UTC().Format(time.RFC3339)
			p.PerformedPeriod.End = &end
		} else {
			p.Status = fhir.EventStatusInProgress
		}
		w.put(id, p)
	}
}

func (w *writer) screening(v exchange.ArchiveVisit, s visit.State) {
	if len(s.Answers) == 0 {
		return
	}
	id := named(v, "screening")
	at := v.Starts().UTC().Format(time.RFC3339)
	which := own + "screening"
	q := fhir.QuestionnaireResponse{
		Id: &id, Questionnaire: &which, Status: fhir.QuestionnaireResponseStatusCompleted,
		Subject: refTo(string(v.Client)), Encounter: refTo(string(v.ID)), Authored: &at,
	}
	for _, a := range s.Answers {
		answer := coding(own+"answer", a.Answer, "")
		q.Item = append(q.Item, fhir.QuestionnaireResponseItem{
			LinkId: string(a.Question), Answer: []fhir.QuestionnaireResponseItemAnswer{{ValueCoding: &answer}},
		})
	}
	w.put(id, q)
}

func (w *writer) plan(v exchange.ArchiveVisit, s visit.State) {
	if s.Next == "" && (s.Signed == nil || s.Signed.Plan == "") {
		return
	}
	id := named(v, "plan")
	what := s.Next
	if s.Signed != nil && s.Signed.Plan != "" {
		what = s.Signed.Plan
	}
	w.put(id, fhir.CarePlan{
		Id: &id, Status: fhir.RequestStatusActive, Intent: fhir.CarePlanIntentPlan, Description: &what,
		Subject: reference(string(v.Client)), Encounter: refTo(string(v.ID)),
	})
}
