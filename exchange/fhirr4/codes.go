package fhirr4

import (
	"encoding/json"
	"strconv"

	"github.com/samply/golang-fhir-models/fhir-models/fhir"
)

// The code systems.
const (
	loinc    = "http://loinc.org"
	ucum     = "http://unitsofmeasure.org"
	actCode  = "http://terminology.hl7.org/CodeSystem/v3-ActCode"
	clinical = "http://terminology.hl7.org/CodeSystem/condition-clinical"
	category = "http://terminology.hl7.org/CodeSystem/observation-category"
	scope    = "http://terminology.hl7.org/CodeSystem/consentscope"
	contact  = "http://terminology.hl7.org/CodeSystem/v2-0131"
	role     = "http://terminology.hl7.org/CodeSystem/v3-RoleCode"
	// own is where the program's own code systems are named below; what a file uses of each is in it
	// as a CodeSystem, with displays.
	own = "urn:mokren:"
)

// The program's own code systems.
const (
	movements = own + "movement"
	sides     = own + "side"
	moments   = own + "moment"
	muscles   = own + "muscle"
	protocols = own + "protocol"
	outcomes  = own + "outcome"
	measures  = own + "measure"
	findings  = own + "finding"
	answers   = own + "answer"
)

// The LOINC codes that are used.
const (
	loincPain   = "72514-3" // Pain severity - 0-10 verbal numeric rating [Score] - Reported
	loincHeight = "8302-2"  // Body height
)

func coding(system, code, display string) fhir.Coding {
	c := fhir.Coding{System: &system, Code: &code}
	if display != "" {
		c.Display = &display
	}
	return c
}

func concept(system, code, display string) fhir.CodeableConcept {
	return fhir.CodeableConcept{Coding: []fhir.Coding{coding(system, code, display)}}
}

// codeOf gives the code of a system within a concept, "" without one.
func codeOf(c fhir.CodeableConcept, system string) string {
	for _, x := range c.Coding {
		if x.System != nil && *x.System == system && x.Code != nil {
			return *x.Code
		}
	}
	return ""
}

func quantity(v float64, unit, code string) *fhir.Quantity {
	n := json.Number(strconv.FormatFloat(v, 'f', -1, 64))
	system := ucum
	return &fhir.Quantity{Value: &n, Unit: &unit, System: &system, Code: &code}
}

func reference(id string) fhir.Reference { return *refTo(id) }

func refTo(id string) *fhir.Reference {
	r := "urn:uuid:" + id
	return &fhir.Reference{Reference: &r}
}
