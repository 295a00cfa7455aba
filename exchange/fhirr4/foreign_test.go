package fhirr4_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/exchange"
	"mokren/exchange/fhirr4"
)

const server = "https://records.example/fhir/"

// searchset is what a server answers: absolute full URLs, relative references, outcomes beside
// matches.
func searchset(resources ...string) []byte {
	var b strings.Builder
	b.WriteString(`{"resourceType":"Bundle","type":"searchset","total":1,"entry":[`)
	for i, r := range resources {
		if i > 0 {
			b.WriteString(",")
		}
		kind := strings.Split(r, `"`)[3]
		id := strings.Split(r, `"`)[7]
		fmt.Fprintf(&b, `{"fullUrl":"%s%s/%s","resource":%s,"search":{"mode":"match"}}`, server, kind, id, r)
	}
	b.WriteString("]}")
	return []byte(b.String())
}

const (
	ira = `{"resourceType":"Patient","id":"p1","active":true,"identifier":[{"system":"urn:x","value":"77"}],
		"name":[{"use":"maiden","family":"Altmann","given":["Ira"]},{"use":"official","family":"Müller","given":["Ira","Jo"]}],
		"telecom":[{"system":"phone","value":"0512 1"},{"system":"phone","value":"0512 2"}],
		"gender":"female","birthDate":"1980-02-03","address":[{"city":"Hollin"}],"contact":[{"name":{"text":"Bo"}}]}`
	seen = `{"resourceType":"Encounter","id":"e1","status":"finished","class":{"code":"AMB"},
		"subject":{"reference":"Patient/p1/_history/3"},"period":{"start":"2026-01-05T09:00:00+01:00","end":"2026-01-05T09:45:00+01:00"}}`
)

func observed(id, code, value, more string) string {
	return `{"resourceType":"Observation","id":"` + id + `","status":"final","code":` + code +
		`,"subject":{"reference":"` + server + `Patient/p1"},"encounter":{"reference":"Encounter/e1"},` + value + more + `}`
}

const (
	ofHeight = `{"coding":[{"system":"http://loinc.org","code":"8302-2"}]}`
	ofPain   = `{"coding":[{"system":"http://loinc.org","code":"72514-3"}]}`
	ofKnee   = `{"coding":[{"system":"urn:mokren:movement","code":"knee.flexion"}]}`
	ofJaw    = `{"coding":[{"system":"urn:mokren:movement","code":"jaw.opening"}]}`
	left     = `,"bodySite":{"coding":[{"system":"urn:mokren:side","code":"left"}]}`
)

func of(value, code string) string {
	return fmt.Sprintf(`"valueQuantity":{"value":%s,"system":"http://unitsofmeasure.org","code":%q}`, value, code)
}

func named(r exchange.Report) []string {
	var out []string
	for _, l := range r.Left {
		out = append(out, l.What)
	}
	return out
}

// A server's answer is read: every style of reference, the official name, and what is left out by name.
func TestASearchsetOfAServer(t *testing.T) {
	raw := searchset(ira, seen, observed("o1", ofPain, `"valueInteger":4`, ""))
	got, r := fhirr4.Read(raw, author, exchange.Choices{})
	require.Empty(t, r.Problems)
	require.Len(t, got.Clients, 1)
	c := got.Clients[0]
	assert.Equal(t, "Ira Jo", c.GivenName)
	assert.Equal(t, "Müller", c.FamilyName)
	assert.Equal(t, "0512 1", c.Phone)
	require.Len(t, got.Visits, 1)
	assert.Equal(t, "2026-01-05T08:00:00Z", got.Visits[0].StartsAt)
	assert.Equal(t, 45, got.Visits[0].Minutes)
	assert.Equal(t, 1, r.Readings, "a whole number is one too")
	assert.Equal(t, []string{
		"further name Ira Altmann", "further telecom 0512 2", "contact Bo", "Patient.address", "Patient.gender",
		"Patient.identifier",
	}, named(r))
	assert.Equal(t, []string{"1"}, r.Left[0].At)
	again, _ := fhirr4.Read(raw, author, exchange.Choices{})
	assert.Equal(t, c.ID, again.Clients[0].ID, "the same file names the same client")
}

// Units are converted by UCUM, or refused by name; without one only a score is read.
func TestUnitsAreConverted(t *testing.T) {
	for _, x := range []struct {
		code, value, more string
		want              float64
		says              string
	}{
		{ofHeight, of("66.1", "[in_i]"), "", 167.894, ""},
		{ofHeight, of("1.68", "m"), "", 168, ""},
		{ofHeight, of("5.5", "[ft_i]"), "", 167.64, ""},
		{ofHeight, `"valueQuantity":{"value":170,"unit":"cm"}`, "", 170, ""},
		{ofHeight, `"valueQuantity":{"value":170}`, "", 0, "none is given"},
		{ofHeight, of("70", "kg"), "", 0, `not "kg"`},
		{ofKnee, of("1.2", "rad"), left, 68.755, ""},
		{ofKnee, of("120", "deg"), left, 120, ""},
		{ofKnee, of("120", "mm"), left, 0, `not "mm"`},
		{ofJaw, of("4.2", "cm"), "", 42, ""},
		{ofJaw, of("42", "deg"), "", 0, `not "deg"`},
		{ofPain, of("4", "{score}"), "", 4, ""},
		{ofPain, `"valueQuantity":{"value":4}`, "", 4, ""},
		{ofPain, of("4", "%"), "", 0, `not "%"`},
		{ofPain, `"valueQuantity":{"value":4,"comparator":"<"}`, "", 0, "as it was measured"},
	} {
		got, r := fhirr4.Read(searchset(ira, seen, observed("o1", x.code, x.value, x.more)), author, exchange.Choices{})
		if x.says != "" {
			if assert.Len(t, r.Problems, 1, x.value) {
				assert.Contains(t, r.Problems[0].Text, x.says, x.value)
				assert.Equal(t, 3, r.Problems[0].Row)
			}
			_, r = fhirr4.Read(searchset(ira, seen, observed("o1", x.code, x.value, x.more)), author,
				exchange.Choices{Leave: map[int]bool{3: true}})
			assert.Empty(t, r.Problems, "left out, the rest comes in")
			continue
		}
		require.Empty(t, r.Problems, x.value)
		if x.code == ofHeight {
			assert.InDelta(t, x.want, *got.Clients[0].HeightCM, 1e-9, x.value)
			continue
		}
		assert.Contains(t, string(got.Visits[0].Events[1].Body), strings.TrimSuffix(fmt.Sprintf(":%g", x.want),
			".0"), x.value)
	}
}

// What was entered in error is not taken, nor what is about it; of two heights the later one counts.
func TestWhatIsInError(t *testing.T) {
	wrong := func(s string) string {
		s = strings.Replace(s, `"status":"final"`, `"status":"entered-in-error"`, 1)
		return strings.Replace(s, `"status":"finished"`, `"status":"entered-in-error"`, 1)
	}
	got, r := fhirr4.Read(searchset(ira, seen, wrong(observed("o1", ofPain, of("9", "{score}"), "")),
		wrong(observed("o2", ofHeight, of("120", "cm"), ""))), author, exchange.Choices{})
	require.Empty(t, r.Problems)
	assert.Nil(t, got.Clients[0].HeightCM)
	assert.Zero(t, r.Readings)
	assert.Contains(t, named(r), "Observation that was entered in error")

	got, r = fhirr4.Read(searchset(ira, wrong(seen), observed("o1", ofPain, of("3", "{score}"), "")), author,
		exchange.Choices{})
	require.Empty(t, r.Problems)
	assert.Empty(t, got.Visits)
	assert.Contains(t, named(r), "Encounter that was entered in error")
	assert.Contains(t, named(r), "what is of an encounter that is left out")

	got, r = fhirr4.Read(searchset(ira,
		observed("o1", ofHeight, of("168", "cm"), `,"effectiveDateTime":"2026-01-02"`),
		observed("o2", ofHeight, of("120", "cm"), `,"effectiveDateTime":"1998"`)), author, exchange.Choices{})
	require.Empty(t, r.Problems)
	assert.InDelta(t, 168, *got.Clients[0].HeightCM, 0)
	assert.Contains(t, named(r), "earlier height")
}

// A finished encounter is a closed visit; one whose hour is not told is at noon of the practice.
func TestEncountersStayWhatTheyWere(t *testing.T) {
	vienna, err := time.LoadLocation("Europe/Vienna")
	require.NoError(t, err)
	day := strings.Replace(seen, `"start":"2026-01-05T09:00:00+01:00","end":"2026-01-05T09:45:00+01:00"`, `"start":"2026-01-05"`, 1)
	got, r := fhirr4.Read(searchset(ira, day), author, exchange.Choices{Zone: vienna})
	require.Empty(t, r.Problems)
	v := got.Visits[0]
	assert.Equal(t, "2026-01-05T11:00:00Z", v.StartsAt)
	assert.Equal(t, "visit-closed", v.Events[len(v.Events)-1].Type)
	assert.Contains(t, named(r), "hour of an encounter, which is not told: noon is taken")
}

// One resource a line is read as a Bundle is.
func TestLines(t *testing.T) {
	a, states := everything()
	raw, err := fhirr4.WriteLines(a, states)
	require.NoError(t, err)
	got, r := fhirr4.Read(raw, author, exchange.Choices{})
	require.Empty(t, r.Problems)
	assert.Equal(t, "Bo Löwe 2", got.Clients[0].Emergency)
	assert.Equal(t, "Cy Löwe", got.Clients[0].Guardian)
	assert.Equal(t, 3, r.Readings)
}

// Bytes of another charset and text that no record can keep are refused, never kept.
func TestBadTextIsRefused(t *testing.T) {
	latin := []byte(strings.Replace(string(searchset(ira)), "Müller", "M\xfcller", 1))
	_, r := fhirr4.Read(latin, author, exchange.Choices{})
	require.Len(t, r.Problems, 1)
	assert.Contains(t, r.Problems[0].Text, "UTF-8")
	nul := []byte(strings.Replace(string(searchset(ira)), "Müller", `M\u0000ller`, 1))
	_, r = fhirr4.Read(nul, author, exchange.Choices{})
	require.Len(t, r.Problems, 1)
	assert.Equal(t, "entry[0].Patient.family_name", r.Problems[0].Field)
}
