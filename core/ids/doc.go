// Package ids is the vocabulary: every id that Mokren's files, logs and
// programs share, by kind. An id never changes its meaning; new ones are
// added. Each kind is a string type whose Check refuses anything else, so a
// typed struct field is also its own validation (see core/decode).
package ids
