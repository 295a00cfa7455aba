package fhirr4_test

import (
	"bytes"
	"encoding/json"
	"slices"
	"strings"
	"testing"

	"github.com/samply/golang-fhir-models/fhir-models/fhir"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/exchange"
	"mokren/exchange/fhirr4"
)

func p[T any](v T) *T { return &v }

const (
	client = visit.UUID("0190b000-0000-7000-8000-000000000001")
	first  = visit.UUID("0190b000-0000-7000-8000-000000000002")
	point  = visit.UUID("0190b000-0000-7000-8000-000000000003")
	hold   = visit.UUID("0190b000-0000-7000-8000-000000000004")
	author = visit.UUID("0190b000-0000-7000-8000-000000000005")
)

// everything has one of each thing that is written.
func everything() (exchange.Archive, map[visit.UUID]visit.State) {
	a := exchange.Archive{
		People: []exchange.ArchivePerson{{ID: author, Name: "Tim Hart", Role: "therapist"}},
		Clients: []exchange.ArchiveClient{{
			ID: client, GivenName: "Ada", FamilyName: "Löwe", BornOn: "1990-02-03", HeightCM: p(168.0), Phone: "1",
			Email: "a@b.example", Emergency: "Bo Löwe 2", Guardian: "Cy Löwe",
		}},
		Visits: []exchange.ArchiveVisit{{
			ID: first, Client: client, Therapist: author, StartsAt: "2026-01-05T09:00:00Z", Minutes: 45, Reason: "calf",
			Events: []visit.Event{{}},
		}},
	}
	charted := visit.PointCharted{Point: point, Identity: point, Muscle: "soleus", Side: ids.Left}
	charted.NPRS = p(7.0)
	s := visit.State{
		Interview: &visit.InterviewNoted{Now: p(6.0)}, Next: "the outer calf",
		Ranges: []visit.Range{{Movement: "knee.flexion", Side: ids.Left, Before: p(120.0), After: p(126.0)}},
		Points: []visit.Point{{
			FoundPoint: visit.FoundPoint{PointCharted: charted, AfterNPRS: p(3.0)},
			Threshold:  &visit.PainThreshold{KPa: 240},
		}},
		Holds: []visit.Hold{{
			ID: hold, Point: point, StartedMS: 1_767_603_600_000, EndedMS: 1_767_603_660_000, Status: visit.Kept,
			Start:   treat.Start{Protocol: "pulses", Muscle: "soleus", Side: ids.Left},
			Summary: treat.Summary{Outcome: treat.Released, PressureS: 40, Limits: safety.Limits{Target: 5}},
		}},
		OpenedMS: 1, ClosedMS: 2, Consents: []visit.ConsentRecorded{{Area: safety.WholeVisit, Given: true}},
		Answers: []visit.GivenAnswer{{ScreenedAnswer: visit.ScreenedAnswer{Question: "fever", Answer: "no"}}},
	}
	return a, map[visit.UUID]visit.State{first: s}
}

// shapes are what a FHIR library knows of each type that is written.
var shapes = map[string]func() any{
	"Patient": func() any { return new(fhir.Patient) }, "Encounter": func() any { return new(fhir.Encounter) },
	"Observation": func() any { return new(fhir.Observation) }, "Condition": func() any { return new(fhir.Condition) },
	"Procedure": func() any { return new(fhir.Procedure) }, "CarePlan": func() any { return new(fhir.CarePlan) },
	"QuestionnaireResponse": func() any { return new(fhir.QuestionnaireResponse) },
	"Appointment":           func() any { return new(fhir.Appointment) },
	"Practitioner":          func() any { return new(fhir.Practitioner) },
	"Consent":               func() any { return new(fhir.Consent) },
	"CodeSystem":            func() any { return new(fhir.CodeSystem) },
	"DocumentReference":     func() any { return new(fhir.DocumentReference) },
}

// Every resource is of its library's shape, has what R4 asks for, names only what is
// in the bundle, and measures in UCUM.
func TestTheBundleIsValid(t *testing.T) {
	a, states := everything()
	notes := map[visit.UUID]fhirr4.Document{first: {PDF: []byte("%PDF-1.3"), Signed: true}}
	raw, err := fhirr4.Write(a, states, notes)
	require.NoError(t, err)
	again, err := fhirr4.Write(a, states, notes)
	require.NoError(t, err)
	assert.Equal(t, string(raw), string(again))
	var b fhir.Bundle
	require.NoError(t, json.Unmarshal(raw, &b))
	assert.Equal(t, fhir.BundleTypeCollection, b.Type)
	there, seen := map[string]bool{}, map[string]int{}
	for _, e := range b.Entry {
		assert.False(t, there[*e.FullUrl], "a full URL is there once")
		there[*e.FullUrl] = true
	}
	for _, e := range b.Entry {
		var any map[string]json.RawMessage
		require.NoError(t, json.Unmarshal(e.Resource, &any))
		kind := strings.Trim(string(any["resourceType"]), `"`)
		seen[kind]++
		shape := shapes[kind]()
		d := json.NewDecoder(bytes.NewReader(without(t, any, "resourceType")))
		d.DisallowUnknownFields()
		require.NoError(t, d.Decode(shape), kind)
		for _, field := range required[kind] {
			assert.Contains(t, any, field, kind)
		}
		for _, r := range references(e.Resource) {
			assert.True(t, there[r], "%s names %s", kind, r)
		}
		for _, code := range ucum(e.Resource) {
			assert.Contains(t, []string{"cm", "deg", "mm", "{score}", "kPa"}, code)
		}
	}
	assert.Equal(t, map[string]int{
		"Patient": 1, "Encounter": 1, "Observation": 7, "Condition": 1, "Procedure": 1, "CarePlan": 1,
		"QuestionnaireResponse": 1, "Appointment": 1, "Practitioner": 1, "Consent": 1, "CodeSystem": 9,
		"DocumentReference": 1,
	}, seen)
}

// required by R4 (1..1), beside what the shapes ask for.
var required = map[string][]string{
	"Encounter": {"status", "class"}, "Observation": {"status", "code"}, "Condition": {"subject", "clinicalStatus"},
	"Procedure": {"status", "subject"}, "CarePlan": {"status", "intent", "subject"},
	"QuestionnaireResponse": {"status"},
}

func without(t *testing.T, fields map[string]json.RawMessage, name string) []byte {
	out := map[string]json.RawMessage{}
	for k, v := range fields {
		if k != name && !strings.HasPrefix(k, "_") {
			out[k] = v
		}
	}
	raw, err := json.Marshal(out)
	require.NoError(t, err)
	return raw
}

// values gives every value under a key, however deep.
func values(raw []byte, key string) []string {
	var out []string
	var walk func(any)
	walk = func(v any) {
		switch v := v.(type) {
		case map[string]any:
			for k, x := range v {
				if s, ok := x.(string); ok && k == key {
					out = append(out, s)
				}
				walk(x)
			}
		case []any:
			for _, x := range v {
				walk(x)
			}
		}
	}
	var v any
	if json.Unmarshal(raw, &v) == nil {
		walk(v)
	}
	return out
}

func references(raw []byte) []string { return values(raw, "reference") }

func ucum(raw []byte) []string {
	var x struct {
		ValueQuantity struct{ System, Code string } `json:"valueQuantity"`
	}
	if json.Unmarshal(raw, &x) != nil || x.ValueQuantity.System != "http://unitsofmeasure.org" {
		return nil
	}
	return []string{x.ValueQuantity.Code}
}

// What is understood comes back; the rest is named with how many there were.
func TestABundleComesBack(t *testing.T) {
	a, states := everything()
	raw, err := fhirr4.Write(a, states, nil)
	require.NoError(t, err)
	got, r := fhirr4.Read(raw, author, exchange.Choices{})
	require.Empty(t, r.Problems)
	require.Len(t, got.Clients, 1)
	want := a.Clients[0]
	want.Revision = 1
	assert.Equal(t, want, got.Clients[0])
	require.Len(t, got.Visits, 1)
	v := got.Visits[0]
	assert.Equal(t, first, v.ID)
	assert.Equal(t, 45, v.Minutes)
	assert.Equal(t, "calf", v.Reason)
	var kinds []string
	for _, e := range v.Events {
		kinds = append(kinds, e.Type)
		_, err := e.Decode()
		require.NoError(t, err)
	}
	slices.Sort(kinds)
	assert.Equal(t, []string{"interview-noted", "range-measured", "range-measured", "visit-closed", "visit-opened"},
		kinds)
	assert.ElementsMatch(t, []string{
		"Observation of something else", "Condition", "Procedure", "CarePlan", "QuestionnaireResponse", "Appointment",
		"Practitioner", "Consent", "CodeSystem", "Encounter.appointment", "Encounter.participant",
	}, named(r))
}

// A bundle of another program: its own ids and codes, a patient behind what is about
// it, a birth year alone.
func TestABundleOfAnotherProgram(t *testing.T) {
	raw := []byte(`{"resourceType":"Bundle","type":"collection","entry":[
		{"resource":{"resourceType":"Observation","status":"final","code":{"coding":[{"system":"http://loinc.org","code":"72514-3"}]},
			"subject":{"reference":"Patient/7"},"encounter":{"reference":"Encounter/9"},"valueQuantity":{"value":4}}},
		{"resource":{"resourceType":"Encounter","id":"9","status":"finished","class":{"code":"AMB"},
			"subject":{"reference":"Patient/7"},"period":{"start":"2026-01-05"}}},
		{"resource":{"resourceType":"Patient","id":"7","name":[{"family":"Moor","given":["Ira","B"]}],"birthDate":"1980"}},
		{"resource":{"resourceType":"Medication"}}]}`)
	got, r := fhirr4.Read(raw, author, exchange.Choices{})
	require.Empty(t, r.Problems)
	require.Len(t, got.Clients, 1)
	assert.Equal(t, "Ira B", got.Clients[0].GivenName)
	assert.Empty(t, got.Clients[0].BornOn)
	require.Len(t, got.Visits, 1)
	assert.Equal(t, got.Clients[0].ID, got.Visits[0].Client)
	assert.Equal(t, 1, r.Readings)
	assert.ElementsMatch(t, []string{
		"birth date without day 1980", "hour of an encounter, which is not told: noon is taken", "Medication",
	}, named(r))
}
