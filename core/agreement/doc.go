// Package agreement tells how far two people find the same: from pairs of findings on a fixed list
// of sites, or from two free charts of one person, made without sight of each other.
//
// # Vocabulary
//
// A pair is one measure of one site by both. A chart is one point as one of the two has charted it.
// First and second are the two people, always in the same order.
//
// # Statistics
//
// Answers (band, familiar) are compared by Cohen's kappa,
//
//	kappa = (po − pe) / (1 − pe)
//
// with po the share on which both agree and pe the share on which they would by chance, given how
// often each gives each answer. Tenderness has steps, and a miss by one is less than a miss by
// three: its kappa weighs each cell by 1 − (i − j)² / (k − 1)². The interval is kappa ± 1.959964
// standard errors, from the variance of the large sample that does not suppose that there is no
// agreement (Fleiss, Cohen and Everitt), and ends at ±1. An unsure band is no answer: it is left
// out and counted.
//
// Numbers (scores, pressure thresholds, each movement by itself) are compared by the intraclass
// correlation ICC(2,1): absolute agreement of single readings by raters of whom there could be
// others. Its interval is McGraw and Wong's. Movements are never pooled over joints, which would
// make any pair of raters look alike. Beside it stand the bias, the mean of first minus second, and
// the limits of agreement, bias ± 1.96 standard deviations (n − 1), each with its own interval from
// Student's t. A pressure threshold varies in proportion to itself: its differences are taken of
// logarithms and told as ratios, first to second.
//
// Free charts are matched one to one: the same side, at most 40 mm apart along the skin, as many
// matches as there can be, and of those the least distance in all. Told are what both found, what
// one found, the positive agreement 2a / (2a + b + c), and on how many they name the same muscle.
//
// # Invariants
//
//   - No interval for fewer than ten pairs or a standard error of 0, and the reason instead; no ICC
//     for fewer than five.
//   - A negative value is kept: less alike than by chance is a finding.
//   - Where a denominator is 0 the value is left out, and the text says so.
//   - Kappa of findings is never computed on matched free charts: what one of them did not find is
//     missing there, and the value would be inflated.
//   - Points of one person depend on each other; the text says that the interval is too narrow.
//   - Values are rounded to six decimals, so that every machine says the same.
//
// # Sources
//
// Cohen 1960 and 1968; Fleiss, Cohen and Everitt 1969; Shrout and Fleiss 1979; McGraw and Wong 1996;
// Bland and Altman 1986 (at ±1.96 here, where their paper prints ±2). The words for a value are a
// working scale. Quantiles of F and t come from a library; a browser's core does without it.
package agreement
