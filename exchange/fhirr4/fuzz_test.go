package fhirr4_test

import (
	"testing"

	"mokren/exchange"
	"mokren/exchange/fhirr4"
)

func FuzzBundle(f *testing.F) {
	f.Add([]byte(`{"resourceType":"Bundle","type":"collection","entry":[{"resource":{"resourceType":"Patient","id":"a",` +
		`"name":[{"family":"Quill","given":["Ada"]}]}},{"resource":{"resourceType":"Observation","status":"final",` +
		`"code":{"coding":[{"system":"http://loinc.org","code":"8302-2"}]},"subject":{"reference":"Patient/a"},` +
		`"valueQuantity":{"value":168,"code":"cm"}}}]}`))
	f.Add(searchset(ira, seen, observed("o1", ofHeight, of("66.1", "[in_i]"), "")))
	f.Add([]byte(ira + "\n" + seen + "\n"))
	f.Fuzz(func(_ *testing.T, raw []byte) {
		fhirr4.Read(raw, "0190a000-0000-7000-8000-000000000001", exchange.Choices{})
	})
}
