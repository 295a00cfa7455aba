package fhirr4

import (
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"
	"github.com/samply/golang-fhir-models/fhir-models/fhir"

	"mokren/core/ids"
	"mokren/core/visit"
	"mokren/exchange"
)

// Read takes patients, encounters, heights, ranges and pain numbers out of a
// Bundle; everything else is named in the report and left out. author is who
// takes it in.
func Read(raw []byte, author visit.UUID) (exchange.Archive, exchange.Report) {
	r := reader{
		clients: map[string]*exchange.ArchiveClient{}, visits: map[string]*exchange.ArchiveVisit{},
		told: map[string][]exchange.Measure{}, ids: map[string]visit.UUID{},
	}
	var b fhir.Bundle
	var kind struct {
		ResourceType string `json:"resourceType"`
	}
	if err := json.Unmarshal(raw, &kind); err != nil || kind.ResourceType != "Bundle" {
		r.problem("resourceType", kind.ResourceType, "a FHIR Bundle in JSON")
		return exchange.Archive{}, r.report
	}
	if err := json.Unmarshal(raw, &b); err != nil {
		r.problem("Bundle", "", "The bundle cannot be read: "+err.Error())
		return exchange.Archive{}, r.report
	}
	// A patient may stand behind what is about it.
	for _, pass := range []map[string]func(string, json.RawMessage){
		{"Patient": r.patient}, {"Encounter": r.encounter}, {"Observation": r.observation},
	} {
		for i, e := range b.Entry {
			r.entry(i, e, pass)
		}
	}
	for i, e := range b.Entry {
		switch t := typeOf(e.Resource); t {
		case "Patient", "Encounter", "Observation":
		case "":
			r.problem(fmt.Sprintf("entry[%d].resource.resourceType", i), "", "the type of the resource")
		default:
			r.report.Left = leave(r.report.Left, t)
		}
	}
	return r.archive(author), r.report
}

func leave(list []exchange.OmittedCount, what string) []exchange.OmittedCount {
	for i := range list {
		if list[i].What == what {
			list[i].N++
			return list
		}
	}
	return append(list, exchange.OmittedCount{What: what, N: 1})
}

func typeOf(raw json.RawMessage) string {
	var t struct {
		ResourceType string `json:"resourceType"`
	}
	if json.Unmarshal(raw, &t) != nil {
		return ""
	}
	return t.ResourceType
}

type reader struct {
	report  exchange.Report
	clients map[string]*exchange.ArchiveClient // by reference
	visits  map[string]*exchange.ArchiveVisit
	told    map[string][]exchange.Measure // by the visit's reference
	ids     map[string]visit.UUID
	order   []string // of patients, then encounters, as they stand
	at      string
}

func (r *reader) problem(field, given, text string) {
	if r.at != "" {
		field = r.at + "." + field
	}
	r.report.Problems = append(r.report.Problems, exchange.Problem{Field: field, Given: given, Text: text})
}

// entry hands a resource to whoever reads its type; the reference to it is its
// full URL, or type and id.
func (r *reader) entry(i int, e fhir.BundleEntry, by map[string]func(string, json.RawMessage)) {
	kind := typeOf(e.Resource)
	f, ok := by[kind]
	if !ok || len(r.report.Problems) > 50 {
		return
	}
	var id struct {
		ID string `json:"id"`
	}
	ref := ""
	if e.FullUrl != nil {
		ref = *e.FullUrl
	} else if json.Unmarshal(e.Resource, &id) == nil {
		ref = kind + "/" + id.ID
	}
	r.at = fmt.Sprintf("entry[%d].%s", i, kind)
	defer func() { r.at = "" }()
	f(ref, e.Resource)
}

// idOf keeps an id that is a UUID; another gets one.
func (r *reader) idOf(ref string) visit.UUID {
	if id, ok := r.ids[ref]; ok {
		return id
	}
	tail := ref[strings.LastIndexAny(ref, ":/")+1:]
	u, err := uuid.Parse(tail)
	if err != nil {
		u = uuid.Must(uuid.NewV7())
	}
	r.ids[ref] = visit.UUID(u.String())
	return r.ids[ref]
}

func (r *reader) patient(ref string, raw json.RawMessage) {
	var p fhir.Patient
	if err := json.Unmarshal(raw, &p); err != nil {
		r.problem("", "", err.Error())
		return
	}
	c := exchange.ArchiveClient{ID: r.idOf(ref), Revision: 1}
	for _, n := range p.Name {
		if c.FamilyName != "" || n.Family == nil {
			continue
		}
		c.FamilyName, c.GivenName = *n.Family, strings.Join(n.Given, " ")
	}
	if p.BirthDate != nil {
		c.BornOn = *p.BirthDate
		if len(c.BornOn) != len(time.DateOnly) {
			// A year alone is no birth date here.
			r.report.Left = leave(r.report.Left, "birth date without day")
			c.BornOn = ""
		}
	}
	for _, t := range p.Telecom {
		switch {
		case t.System == nil || t.Value == nil:
		case *t.System == fhir.ContactPointSystemPhone:
			c.Phone = *t.Value
		case *t.System == fhir.ContactPointSystemEmail:
			c.Email = *t.Value
		}
	}
	if e := c.Check(); e != nil {
		r.problem(strings.TrimPrefix(e.Path, "$."), e.Given, e.Allowed)
		return
	}
	r.clients[ref] = &c
	r.order = append(r.order, ref)
	if len(r.report.Shown) < 8 {
		r.report.Shown = append(r.report.Shown, strings.TrimSpace(c.GivenName+" "+c.FamilyName+" "+c.BornOn))
	}
}

// subject finds whose it is; a reference to nobody in the bundle is a problem.
func (r *reader) subject(ref *fhir.Reference) *exchange.ArchiveClient {
	if ref == nil || ref.Reference == nil {
		r.problem("subject", "", "a reference to a patient")
		return nil
	}
	c := r.clients[*ref.Reference]
	if c == nil {
		r.problem("subject.reference", *ref.Reference, "a patient of this bundle")
	}
	return c
}

func (r *reader) encounter(ref string, raw json.RawMessage) {
	var e fhir.Encounter
	if err := json.Unmarshal(raw, &e); err != nil {
		r.problem("", "", err.Error())
		return
	}
	c := r.subject(e.Subject)
	if c == nil {
		return
	}
	if e.Period == nil || e.Period.Start == nil {
		r.problem("period.start", "", "when the encounter began")
		return
	}
	start, err := moment(*e.Period.Start)
	if err != nil {
		r.problem("period.start", *e.Period.Start, "a FHIR dateTime")
		return
	}
	v := exchange.ArchiveVisit{
		ID: r.idOf(ref), Client: c.ID, StartsAt: start.UTC().Format(time.RFC3339Nano), Minutes: 60, Status: "booked",
	}
	if e.Period.End != nil {
		if end, err := moment(*e.Period.End); err == nil {
			v.Minutes = min(480, max(5, int(end.Sub(start).Minutes())))
		}
	}
	if e.Status == fhir.EncounterStatusCancelled {
		v.Status = "cancelled"
	}
	if len(e.ReasonCode) > 0 && e.ReasonCode[0].Text != nil {
		v.Reason = *e.ReasonCode[0].Text
	}
	r.visits[ref] = &v
	r.order = append(r.order, ref)
}

// moment reads a FHIR dateTime, which may be a day.
func moment(s string) (time.Time, error) {
	if t, err := time.Parse(time.RFC3339, s); err == nil {
		return t, nil
	}
	return time.Parse(time.DateOnly, s)
}

func (r *reader) observation(_ string, raw json.RawMessage) {
	var o fhir.Observation
	if err := json.Unmarshal(raw, &o); err != nil {
		r.problem("", "", err.Error())
		return
	}
	c := r.subject(o.Subject)
	if c == nil {
		return
	}
	code, move := codeOf(o.Code, loinc), codeOf(o.Code, own+"movement")
	known := code == loincHeight || code == loincPain || move != ""
	if !known || o.ValueQuantity == nil || o.ValueQuantity.Value == nil {
		r.report.Left = leave(r.report.Left, "Observation of something else")
		return
	}
	v, err := o.ValueQuantity.Value.Float64()
	if err != nil {
		r.problem("valueQuantity.value", o.ValueQuantity.Value.String(), "a number")
		return
	}
	if code == loincHeight {
		c.HeightCM = &v
		if v < 50 || v > 250 {
			r.problem("valueQuantity.value", fmt.Sprint(v), "50 to 250 cm")
		}
		return
	}
	if o.Encounter == nil || o.Encounter.Reference == nil || r.visits[*o.Encounter.Reference] == nil {
		r.report.Left = leave(r.report.Left, "Observation without an encounter")
		return
	}
	r.reading(&o, move, v)
}

func (r *reader) reading(o *fhir.Observation, move string, v float64) {
	m := exchange.Measure{Movement: move, Value: v}
	if move == "" && (v < 0 || v > 10) {
		r.problem("valueQuantity.value", fmt.Sprint(v), "0 to 10")
		return
	}
	if move != "" {
		m.Side, m.Moment = "midline", "before"
		if o.BodySite != nil {
			m.Side = codeOf(*o.BodySite, own+"side")
		}
		if o.Method != nil {
			m.Moment = codeOf(*o.Method, own+"moment")
		}
		body := visit.RangeMeasured{Movement: ids.Movement(move), Side: ids.Side(m.Side), Moment: m.Moment, Active: &v}
		if e := body.Check(); e != nil {
			r.problem(strings.TrimPrefix(e.Path, "$."), e.Given, e.Allowed)
			return
		}
	}
	ref := *o.Encounter.Reference
	r.told[ref] = append(r.told[ref], m)
	r.report.Readings++
}

func (r *reader) archive(author visit.UUID) exchange.Archive {
	var a exchange.Archive
	for _, ref := range r.order {
		if c := r.clients[ref]; c != nil {
			a.Clients = append(a.Clients, *c)
		}
		v := r.visits[ref]
		if v == nil {
			continue
		}
		v.Therapist = author
		if len(r.told[ref]) > 0 {
			*v = exchange.ReadWords(*v, author, r.told[ref])
		}
		a.Visits = append(a.Visits, *v)
	}
	r.report.Clients, r.report.Visits = len(a.Clients), len(a.Visits)
	return a
}
