// Package note writes what a visit came to as text that a colleague can read:
// what the client said, what was found and done, what it comes to, what is next.
// It is made from the visit's state alone, so that browser and server write the
// same words.
//
//	text := note.Write(note.Visit{State: state, Context: ctx, Earlier: earlier})
//	fmt.Println(text.Objective)
//
// The note has four parts: what the client says, what was found, what it is taken for, and
// what was done and is to be done next. A line that has nothing to say is left out; what was
// not read is called so, because an empty place could be taken for zero.
//
// Words come from core/wording, so that note, print and timeline call a thing by one name. An
// id or a raw number in a note is a defect.
package note
