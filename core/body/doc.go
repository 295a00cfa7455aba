// Package body is the figure: views, landmarks, the lattice of cells that pain
// drawings are made of, and the regions that give every cell its name.
//
// View coordinates have their origin at the top left; every view is 1,000
// units tall. In front and back, 1,000 units are the client's height; in the
// soles they are the length of the foot (0.152 of the height, Drillis and
// Contini 1966), in the head close-ups a fifth of the height. The half with x
// above the middle is authored, the other is its mirror image; left views are
// mirror images of right ones.
package body
