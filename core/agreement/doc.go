// Package agreement tells how far two people find the same: from pairs of findings on a fixed list
// of sites, or from two free charts of one person, made without sight of each other.
//
// Vocabulary: a pair is one measure of one site by both. Kappa is agreement beyond chance on
// answers, weighted by the square of the distance for grades. The intraclass correlation ICC(2,1)
// is absolute agreement of single readings of random raters. Bias and limits of agreement are of
// first minus second; of pressure thresholds they are ratios, first to second, from logarithms.
//
// Invariants: no interval for fewer than ten pairs or a standard error of 0, and the reason
// instead; a negative value is kept; where a denominator is 0 the value is left out. Kappa of
// findings is never computed on matched free charts: what one of them did not find is missing
// there, and the value would be inflated.
//
// Sources: Cohen 1960 and 1968; Fleiss, Cohen and Everitt 1969 (non-null variance); Shrout and
// Fleiss 1979; McGraw and Wong 1996 (interval of the ICC); Bland and Altman 1986.
package agreement
