package fhirr4

import (
	"encoding/base64"
	"fmt"
	"strings"
	"time"

	"github.com/samply/golang-fhir-models/fhir-models/fhir"

	"mokren/core/safety"
	"mokren/core/visit"
	"mokren/core/wording"
	"mokren/exchange"
)

func began(v exchange.ArchiveVisit) string { return v.Starts().UTC().Format(time.RFC3339) }

func ended(v exchange.ArchiveVisit) string {
	return v.Starts().UTC().Add(time.Duration(v.Minutes) * time.Minute).Format(time.RFC3339)
}

// appointment is what was booked, and what became of it.
func (w *writer) appointment(v exchange.ArchiveVisit, s visit.State) {
	id, start, end := named(v.ID, "appointment"), began(v), ended(v)
	a := fhir.Appointment{
		Id: &id, Status: fhir.AppointmentStatusBooked, Start: &start, End: &end, MinutesDuration: &v.Minutes,
		Description: text(v.Reason), Participant: []fhir.AppointmentParticipant{
			{Actor: refTo(string(v.Client)), Status: fhir.ParticipationStatusAccepted},
		},
	}
	switch {
	case v.Status == "cancelled":
		a.Status = fhir.AppointmentStatusCancelled
	case v.Status == "no-show":
		a.Status = fhir.AppointmentStatusNoshow
	case s.ClosedMS > 0:
		a.Status = fhir.AppointmentStatusFulfilled
	case s.OpenedMS > 0:
		a.Status = fhir.AppointmentStatusArrived
	}
	for _, who := range w.by(v.Therapist) {
		a.Participant = append(a.Participant, fhir.AppointmentParticipant{
			Actor: &who, Status: fhir.ParticipationStatusAccepted,
		})
	}
	w.put(id, a)
}

func (w *writer) encounter(v exchange.ArchiveVisit, s visit.State) {
	id, start, end := string(v.ID), began(v), ended(v)
	e := fhir.Encounter{
		Id: &id, Status: fhir.EncounterStatusPlanned, Class: coding(actCode, "AMB", "ambulatory"),
		Subject: refTo(string(v.Client)), Period: &fhir.Period{Start: &start, End: &end},
		Appointment: []fhir.Reference{reference(named(v.ID, "appointment"))},
	}
	switch {
	case v.Status == "cancelled" || v.Status == "no-show":
		e.Status = fhir.EncounterStatusCancelled // R4 has no word for who did not come; the appointment does
	case s.ClosedMS > 0:
		e.Status = fhir.EncounterStatusFinished
	case s.OpenedMS > 0:
		e.Status = fhir.EncounterStatusInProgress
	}
	if v.Reason != "" {
		e.ReasonCode = []fhir.CodeableConcept{{Text: &v.Reason}}
	}
	for _, who := range w.by(v.Therapist) {
		e.Participant = append(e.Participant, fhir.EncounterParticipant{Individual: &who})
	}
	w.put(id, e)
}

// value is one that was measured, where and when in the visit.
type value struct {
	key    string // of its id
	code   fhir.CodeableConcept
	site   *fhir.CodeableConcept
	moment string // before or after treatment; empty where it is neither
	of     *fhir.Quantity
}

// observe adds one measured value of a visit.
func (w *writer) observe(v exchange.ArchiveVisit, x value) {
	id, at := named(v.ID, x.key), began(v)
	o := fhir.Observation{
		Id: &id, Status: fhir.ObservationStatusFinal, Code: x.code, Subject: refTo(string(v.Client)),
		Encounter: refTo(string(v.ID)), EffectiveDateTime: &at, ValueQuantity: x.of, BodySite: x.site,
		Performer: w.by(v.Therapist),
	}
	if x.moment != "" {
		o.Method = w.concept(moments, x.moment, x.moment+" treatment")
	}
	w.put(id, o)
}

// at is where something is: the muscle, where it is in one, and the side.
func (w *writer) at(muscle fhir.Coding, side, words string) *fhir.CodeableConcept {
	site := &fhir.CodeableConcept{Text: text(words)}
	if muscle.Code != nil {
		site.Coding = append(site.Coding, muscle)
	}
	if side != "" {
		site.Coding = append(site.Coding, w.own(sides, side, strings.ReplaceAll(side, "-", " ")))
	}
	return site
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
		w.observe(v, value{key: "pain-now", code: code, of: quantity(*i.Now, "score", "{score}")})
	}
	for _, r := range s.Ranges {
		code := *w.concept(movements, string(r.Movement), wording.Movement(r.Movement))
		unit := [2]string{"degree", "deg"}
		if r.Movement == "jaw.opening" {
			unit = [2]string{"millimetre", "mm"}
		}
		for _, m := range beforeAfter(r.Before, r.After) {
			w.observe(v, value{
				key:  "range:" + string(r.Movement) + ":" + string(r.Side) + ":" + m.name,
				code: code, site: w.at(fhir.Coding{}, string(r.Side), ""), moment: m.name, of: quantity(m.value,
					unit[0], unit[1]),
			})
		}
	}
	for _, p := range s.Points {
		w.point(v, p)
	}
}

// point is what was measured at one.
func (w *writer) point(v exchange.ArchiveVisit, p visit.Point) {
	key := "point:" + string(p.Point) + ":"
	number := *w.concept(measures, "nprs-at-point", "Score at test pressure, 0-10")
	for _, m := range beforeAfter(p.NPRS, p.AfterNPRS) {
		w.observe(v, value{
			key: key + m.name, code: number, site: w.site(p), moment: m.name, of: quantity(m.value, "score", "{score}"),
		})
	}
	if p.Threshold != nil {
		w.observe(v, value{
			key: key + "ppt", code: *w.concept(measures, "ppt-kpa", "Pressure pain threshold"), site: w.site(p),
			moment: "before", of: quantity(p.Threshold.KPa, "kilopascal", "kPa"),
		})
	}
}

// site is where a point lies.
func (w *writer) site(p visit.Point) *fhir.CodeableConcept {
	muscle := w.own(muscles, string(p.Muscle), wording.Muscle(p.Muscle, "", ""))
	return w.at(muscle, string(p.Side), wording.Muscle(p.Muscle, p.Side, p.Site))
}

// conditions are the points: one for each spot, however often it was found. It is resolved when the
// score was 2 or less at the latest two visits that asked for it, else active.
func (w *writer) conditions(a exchange.Archive, states map[visit.UUID]visit.State) {
	type spot struct {
		first, last exchange.ArchiveVisit
		point       visit.Point
		scores      []float64
	}
	found := map[visit.UUID]*spot{}
	var order []visit.UUID
	for _, v := range a.Visits {
		for _, p := range states[v.ID].Points {
			s := found[p.Identity]
			if s == nil {
				s = &spot{first: v}
				found[p.Identity] = s
				order = append(order, p.Identity)
			}
			s.last, s.point = v, p
			if n := p.NPRS; n != nil {
				s.scores = append(s.scores, *n)
			}
		}
	}
	for _, identity := range order {
		s := found[identity]
		id, at := named(s.first.ID, "condition:"+string(identity)), began(s.first)
		status := concept(clinical, "active", "Active")
		n := len(s.scores)
		const low = 2
		if n > 1 && s.scores[n-1] <= low && s.scores[n-2] <= low {
			status = concept(clinical, "resolved", "Resolved")
		}
		w.put(id, fhir.Condition{
			Id: &id, ClinicalStatus: &status, Code: w.concept(findings, "tender-point", "Tender point in muscle"),
			BodySite: []fhir.CodeableConcept{*w.site(s.point)}, Subject: reference(string(s.first.Client)),
			Encounter: refTo(string(s.first.ID)), RecordedDate: &at, OnsetDateTime: &at,
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
		code := w.concept(protocols, string(h.Start.Protocol), wording.Plain(h.Start.Protocol))
		name := "Graded compression by hand"
		code.Text = &name
		muscle := w.own(muscles, string(h.Start.Muscle), wording.Muscle(h.Start.Muscle, "", ""))
		site := w.at(muscle, string(h.Start.Side), wording.Muscle(h.Start.Muscle, h.Start.Side, ""))
		p := fhir.Procedure{
			Id: &id, Status: fhir.EventStatusCompleted, Code: code, Subject: reference(string(v.Client)),
			Encounter: refTo(string(v.ID)), PerformedPeriod: &fhir.Period{Start: &start},
			BodySite: []fhir.CodeableConcept{*site},
			Note: []fhir.Annotation{
				{Text: fmt.Sprintf("%.1f s of pressure in %d parts", h.Summary.PressureS, h.Summary.Count())},
			},
		}
		if h.Summary.Outcome != "" {
			p.Outcome = w.concept(outcomes, string(h.Summary.Outcome), wording.Plain(h.Summary.Outcome))
		}
		for _, who := range w.by(v.Therapist) {
			p.Performer = append(p.Performer, fhir.ProcedurePerformer{Actor: who})
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

// asked are the questions of the screening in words.
var asked = func() map[string]string {
	out := map[string]string{}
	for _, q := range safety.Questions() {
		out[string(q.ID)] = q.Ask
	}
	return out
}()

func (w *writer) screening(v exchange.ArchiveVisit, s visit.State) {
	if len(s.Answers) == 0 {
		return
	}
	id, at := named(v.ID, "screening"), began(v)
	which := own + "screening"
	q := fhir.QuestionnaireResponse{
		Id: &id, Questionnaire: &which, Status: fhir.QuestionnaireResponseStatusCompleted,
		Subject: refTo(string(v.Client)), Encounter: refTo(string(v.ID)), Authored: &at,
	}
	for _, who := range w.by(v.Therapist) {
		q.Author = &who
	}
	for _, a := range s.Answers {
		answer := w.own(answers, a.Answer, a.Answer)
		q.Item = append(q.Item, fhir.QuestionnaireResponseItem{
			LinkId: string(a.Question), Text: text(asked[string(a.Question)]),
			Answer: []fhir.QuestionnaireResponseItemAnswer{{ValueCoding: &answer}},
		})
	}
	w.put(id, q)
}

// consents are the latest word on the visit and on each sensitive area.
func (w *writer) consents(v exchange.ArchiveVisit, s visit.State) {
	for _, c := range s.Consents {
		id, at := named(v.ID, "consent:"+string(c.Area)), began(v)
		status := fhir.ConsentStateActive
		if !c.Given {
			status = fhir.ConsentStateRejected
		}
		about := "Consent to the treatment of this visit"
		if c.Area != safety.WholeVisit {
			about = "Consent to treatment of a sensitive area: " + wording.Plain(c.Area)
		}
		rule := "As asked and answered at the visit; by the law of the place"
		w.put(id, fhir.Consent{
			Id: &id, Status: status, Scope: concept(scope, "treatment", "Treatment"),
			Category: []fhir.CodeableConcept{{Text: &about}}, Patient: refTo(string(v.Client)), DateTime: &at,
			PolicyRule: &fhir.CodeableConcept{Text: &rule},
		})
	}
}

// plan is active at the latest visit; those before it are over.
func (w *writer) plan(v exchange.ArchiveVisit, s visit.State) {
	if s.Next == "" && (s.Signed == nil || s.Signed.Plan == "") {
		return
	}
	id := named(v.ID, "plan")
	what := s.Next
	if s.Signed != nil && s.Signed.Plan != "" {
		what = s.Signed.Plan
	}
	status := fhir.RequestStatusCompleted
	if w.latest[v.Client] == v.ID {
		status = fhir.RequestStatusActive
	}
	w.put(id, fhir.CarePlan{
		Id: &id, Status: status, Intent: fhir.CarePlanIntentPlan, Description: &what,
		Subject: reference(string(v.Client)), Encounter: refTo(string(v.ID)),
	})
}

// note is a visit's note as it is printed.
func (w *writer) note(v exchange.ArchiveVisit, notes map[visit.UUID]Document) {
	doc, there := notes[v.ID]
	if !there {
		return
	}
	id, at := named(v.ID, "note"), began(v)
	kind, data, title := "application/pdf", base64.StdEncoding.EncodeToString(doc.PDF), "Note of the visit"
	status := fhir.CompositionStatusPreliminary
	if doc.Signed {
		status = fhir.CompositionStatusFinal
	}
	w.put(id, fhir.DocumentReference{
		Id: &id, Status: fhir.DocumentReferenceStatusCurrent, DocStatus: &status, Subject: refTo(string(v.Client)),
		Type: &fhir.CodeableConcept{Text: &title}, Date: &at, Author: w.by(v.Therapist),
		Content: []fhir.DocumentReferenceContent{{
			Attachment: fhir.Attachment{ContentType: &kind, Data: &data, Title: &title},
		}},
		Context: &fhir.DocumentReferenceContext{Encounter: []fhir.Reference{reference(string(v.ID))}},
	})
}
