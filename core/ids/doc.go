// Package ids is the vocabulary: every id that Mokren's files, logs and
// programs share, by kind. An id never changes its meaning; new ones are
// added. Each kind is a string type whose Check refuses anything else, so a
// typed struct field is also its own validation (see core/decode).
//
// Ids are a contract: other programs, archives and stored events name them. One is added at
// the end of its list and is never renamed or used for something else. An id that is not known
// is refused with the nearest one that is, because most wrong ids are typing errors.
//
// Lists stand in lists.go. Their types (Muscle, Region, Question and so on) are strings, so
// that JSON reads them as they are and a check says of which kind one has to be.
package ids
