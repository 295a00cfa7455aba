package fhirr4

import (
	"bytes"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"

	"github.com/google/uuid"
	"github.com/samply/golang-fhir-models/fhir-models/fhir"

	"mokren/core/visit"
	"mokren/exchange"
)

// Document is a visit's note as it is printed.
type Document struct {
	PDF    []byte
	Signed bool
}

// Write gives an archive as a Bundle of type collection. states are the visits as they stand, notes
// those that are to be in it as documents. The same archive gives the same bytes.
func Write(a exchange.Archive, states map[visit.UUID]visit.State, notes map[visit.UUID]Document) ([]byte, error) {
	w, err := write(a, states, notes)
	if err != nil {
		return nil, err
	}
	return json.MarshalIndent(w.bundle, "", " ")
}

// WriteLines gives the same resources as NDJSON: one a line.
func WriteLines(a exchange.Archive, states map[visit.UUID]visit.State) ([]byte, error) {
	w, err := write(a, states, nil)
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	for _, e := range w.bundle.Entry {
		if err := json.Compact(&b, e.Resource); err != nil {
			return nil, fmt.Errorf("writing a FHIR resource: %w", err)
		}
		b.WriteByte('\n')
	}
	return b.Bytes(), nil
}

func write(
	a exchange.Archive, states map[visit.UUID]visit.State, notes map[visit.UUID]Document,
) (*writer, error) {
	a.Sort()
	w := &writer{
		bundle: fhir.Bundle{Type: fhir.BundleTypeCollection}, used: map[string]map[string]string{},
		people: map[visit.UUID]bool{},
		latest: latestOf(a, states),
	}
	for _, p := range a.People {
		w.practitioner(p)
	}
	for _, c := range a.Clients {
		w.patient(c)
	}
	for _, v := range a.Visits {
		s := states[v.ID]
		w.appointment(v, s)
		w.encounter(v, s)
		w.observations(v, s)
		w.procedures(v, s)
		w.screening(v, s)
		w.consents(v, s)
		w.plan(v, s)
		w.note(v, notes)
	}
	w.conditions(a, states)
	w.codeSystems()
	return w, w.err
}

type writer struct {
	bundle fhir.Bundle
	err    error
	// used are the codes of the program's own systems that stand in the file, with displays.
	used map[string]map[string]string
	// people are those who are in the file, so that nobody else is named.
	people map[visit.UUID]bool
	// latest is each client's latest opened visit.
	latest map[visit.UUID]visit.UUID
}

// latestOf finds each client's latest opened visit; an archive is sorted by its days.
func latestOf(a exchange.Archive, states map[visit.UUID]visit.State) map[visit.UUID]visit.UUID {
	out := map[visit.UUID]visit.UUID{}
	for _, v := range a.Visits {
		if states[v.ID].OpenedMS > 0 {
			out[v.Client] = v.ID
		}
	}
	return out
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
func named(of visit.UUID, what string) string {
	return uuid.NewSHA1(uuid.MustParse(string(of)), []byte(what)).String()
}

func text(s string) *string {
	if s == "" {
		return nil
	}
	return &s
}

// own is a code of one of the program's own systems, noted for its CodeSystem.
func (w *writer) own(system, code, display string) fhir.Coding {
	if w.used[system] == nil {
		w.used[system] = map[string]string{}
	}
	w.used[system][code] = display
	return coding(system, code, display)
}

func (w *writer) concept(system, code, display string) *fhir.CodeableConcept {
	return &fhir.CodeableConcept{Coding: []fhir.Coding{w.own(system, code, display)}}
}

// codeSystems describe the program's own codes, as far as the file uses them.
func (w *writer) codeSystems() {
	for _, url := range slices.Sorted(maps.Keys(w.used)) {
		id := uuid.NewSHA1(uuid.NameSpaceURL, []byte(url)).String()
		word := strings.TrimPrefix(url, own)
		name, title := "Mokren"+strings.ToUpper(word[:1])+word[1:], "Mokren: "+word
		c := fhir.CodeSystem{
			Id: &id, Url: &url, Name: &name, Title: &title, Status: fhir.PublicationStatusActive,
			Content: fhir.CodeSystemContentModeFragment,
		}
		for _, code := range slices.Sorted(maps.Keys(w.used[url])) {
			display := w.used[url][code]
			c.Concept = append(c.Concept, fhir.CodeSystemConcept{Code: code, Display: &display})
		}
		w.put(id, c)
	}
}

func (w *writer) practitioner(p exchange.ArchivePerson) {
	id := string(p.ID)
	w.people[p.ID] = true
	w.put(id, fhir.Practitioner{Id: &id, Name: []fhir.HumanName{{Text: &p.Name}}})
}

// by names who did something, where they are in the file.
func (w *writer) by(person visit.UUID) []fhir.Reference {
	if !w.people[person] {
		return nil
	}
	return []fhir.Reference{reference(string(person))}
}

func (w *writer) patient(c exchange.ArchiveClient) {
	id := string(c.ID)
	official := fhir.NameUseOfficial
	p := fhir.Patient{Id: &id, BirthDate: text(c.BornOn), Name: []fhir.HumanName{{
		Use: &official, Family: &c.FamilyName, Given: []string{c.GivenName},
	}}}
	for _, t := range []struct {
		system fhir.ContactPointSystem
		value  string
	}{{fhir.ContactPointSystemPhone, c.Phone}, {fhir.ContactPointSystemEmail, c.Email}} {
		if t.value != "" {
			p.Telecom = append(p.Telecom, fhir.ContactPoint{System: &t.system, Value: &t.value})
		}
	}
	for _, x := range []struct{ system, code, display, who string }{
		{contact, emergencyContact, "Emergency Contact", c.Emergency}, {role, guardian, "guardian", c.Guardian},
	} {
		if x.who != "" {
			p.Contact = append(p.Contact, fhir.PatientContact{
				Relationship: []fhir.CodeableConcept{concept(x.system, x.code, x.display)},
				Name:         &fhir.HumanName{Text: &x.who},
			})
		}
	}
	w.put(id, p)
	if c.HeightCM != nil {
		w.height(c)
	}
}

// Whom a patient's contact is.
const (
	emergencyContact = "C"
	guardian         = "GUARD"
)

// height is a vital sign. Nobody wrote when it was measured; as its profile wants it said, that is
// what stands there.
func (w *writer) height(c exchange.ArchiveClient) {
	id := named(c.ID, "height")
	raw, err := json.Marshal(fhir.Observation{
		Id: &id, Status: fhir.ObservationStatusFinal, Code: concept(loinc, loincHeight, "Body height"),
		Category: []fhir.CodeableConcept{concept(category, "vital-signs", "Vital Signs")},
		Subject:  refTo(string(c.ID)), ValueQuantity: quantity(*c.HeightCM, "cm", "cm"),
	})
	if err != nil {
		w.err = err
		return
	}
	// The library has no place for a date that is only told to be missing.
	w.put(id, json.RawMessage(bytes.Replace(raw, []byte(`{"id":`), []byte(unknownTime+`"id":`), 1)))
}

const unknownTime = `{"_effectiveDateTime":{"extension":[{"url":"http://hl7.org/fhir/StructureDefinition/` +
	`data-absent-reason","valueCode":"unknown"}]},`
