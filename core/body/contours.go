package body

import "slices"

// bodyHalf is the outline of neck, trunk, arm and leg, from the neck outward
// and down: torso and arm run in one contour, so that shoulder, armpit and hip
// flow. From behind the foot shows its heel.
func (d frontBackData) bodyHalf(v View) []Point {
	c := d.Contours
	foot := c.FootFront
	if v == Back {
		foot = c.FootBack
	}
	return slices.Concat(c.NeckToWrist, c.WristToArmpit, c.ArmpitToHip, c.HipToAnkle, foot, c.AnkleToCrotch).points()
}

// drawFrontOrBack mirrors one half. Ears come first, so that the head lies before them.
func (f *Figure) drawFrontOrBack(v View) {
	d := frontBackFile()
	f.add(v, "body", Trunk, d.bodyHalf(v), false)
	f.add(v, "ear", Head, d.Contours.Ear.points(), true)
	f.add(v, "head", Head, d.Contours.Head.points(), false)
	lines, hand := d.Front, handFile().Palm
	if v == Back {
		lines, hand = d.Back, handFile().Back
	}
	f.line(v, innerLines(lines), true)
	f.hand(v, hanging, hand, true)
}

// hand lays the hand on the end of a forearm.
func (f *Figure) hand(v View, p pose, lines []lineData, both bool) {
	f.add(v, "hand", Hand, p.all(handFile().Outline.points()), true)
	laid := innerLines(lines)
	for i := range laid {
		laid[i].pts = p.all(laid[i].pts)
	}
	f.line(v, laid, both)
}

// drawSole lays each toe as a capsule on the outline of the foot.
func (f *Figure) drawSole(v View) {
	d := soleFile()
	f.add(v, "sole", Foot, d.Outline.points(), true)
	for i, t := range d.Toes {
		toe := limb{t.From.point(), t.To.point(), t.Width[0], t.Width[1]}
		f.add(v, "toe-"+string(rune('1'+i)), Foot, capsule(toe), true)
	}
	f.line(v, innerLines(d.Lines), false)
}
