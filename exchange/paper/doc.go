// Package paper sets the pages that are printed: the note, the progress report,
// the aftercare sheet, and a blank assessment sheet for a day without power. PDF
// with its fonts embedded, in shapes and words that are read in grey too.
package paper
