// Package exchange reads and writes the formats of the outside world: the
// archive of everything, FHIR, CSV, vCard, iCalendar, pictures and PDF.
//
// What comes in becomes an Archive, whatever its format, with a Report of what
// was understood and what was not; nothing is stored here. docs/formats.md
// describes each format.
//
//	a, report := exchange.ReadClientsCSV(ctx, file)
//	if len(report.Problems) > 0 { … } // nothing is taken in: all or nothing
package exchange
