// Package demo fills a database with an invented practice: two therapists,
// invented clients of many kinds, weeks of visits. Nothing in it is typed as a
// result: holds are logs of a simulated client and hand, run through the same
// coach as a real one, and every date is relative to today.
package demo
