// Package exchange reads and writes the formats of the outside world: the
// archive of everything, FHIR, CSV, vCard, iCalendar, pictures and PDF.
//
// What comes in becomes an Archive, whatever its format, with a Report of what
// was understood and what was not; nothing is stored here. docs/formats.md
// describes each format.
//
//	a, report := exchange.ReadClientsCSV(ctx, file)
//	if len(report.Problems) > 0 { … } // nothing is taken in: all or nothing
//
// # Vocabulary
//
//   - Archive: clients, visits with their logs, photographs and a practice's own settings, in
//     the shape that all formats become or are made from.
//   - Report: what a file holds, what would be added, what is here already, and what is not
//     understood, counted by kind.
//   - Problem: something that makes the whole file unfit, with the line or the path.
//   - Paper: a page as PDF: note, aftercare, report, incident (paper/).
//
// # Data flow
//
//	file ─▶ reader of its format ─▶ Archive + Report ─▶ shown to whoever imports ─▶ store.Import
//	store.Export ─▶ Archive ─▶ writer of a format ─▶ file
//
// # Formats
//
// The archive is JSON and holds everything; FHIR R4 bundles hold what others understand; CSV
// tables are for spreadsheets; vCard brings contacts, iCalendar the diary. Two iCalendar modules
// are used on purpose: one writes folded lines and empty calendars, the other reads times that
// have no zone in a given one.
//
// # Invariants
//
//   - Writing and reading an archive gives the same archive, to the byte when written again.
//   - A file is taken whole or not at all; its verdicts are not believed.
//   - Whatever a file holds, a reader ends with an archive or a problem (fuzzed), within bounds
//     of size and depth.
//   - Health data never leaves by itself: every export is asked for, and audited.
//   - A picture is decoded whole before it is kept, and loses where it was taken.
package exchange
