// Package note writes what a visit came to as text that a colleague can read:
// what the client said, what was found and done, what it comes to, what is next.
// It is made from the visit's state alone, so that browser and server write the
// same words.
//
//	text := note.Write(note.Visit{State: state, Context: ctx, Earlier: earlier})
//	fmt.Println(text.Objective)
package note
