// Package picture lays everything that is known about the body onto a view:
// bones, landmarks, muscles, structures to keep off, referral. The screen
// draws these layers, and SVG writes the same ones to a file.
package picture
