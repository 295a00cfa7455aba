// Package progress judges change between visits: what is a real change of a
// measure, what the trend is, and what the trend asks for.
//
//	c, err := progress.Pair("nprs", 7, 4)      // one value against another
//	c, err = progress.Series("nprs", readings) // the first against the last, with a trend
//
// # Vocabulary
//
//   - Measure: what was read: a score, a grade, degrees, kPa, cm².
//   - Reading: a value with its day.
//   - Threshold: the least change that is more than measuring error, in the measure's unit, in
//     percent, or by either; each with its source.
//   - Trend: the middle slope of all pairs of readings (per week), with a range that holds it
//     in 95 of 100 cases. It needs some visits before it says anything.
//   - Share: how often out of how many, with the range of the true share.
//   - Flag: a range of motion below the usual for the age, or far below the other side.
//
// # Invariants
//
//   - Two readings of one day are one moment: they have no slope.
//   - Few readings say so instead of giving a number.
//   - The same readings give the same result, natively and in the browser: where pairs are too
//     many, a fixed seed chooses them.
package progress
