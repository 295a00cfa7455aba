// Package fhirr4 writes an archive as a FHIR R4 Bundle and reads what it
// understands of one: patients, encounters, and the observations of range and
// pain. Shapes are those of a FHIR library; codes are LOINC where sure, else of
// the practice's own systems; units are UCUM. docs/formats.md has the table.
package fhirr4
