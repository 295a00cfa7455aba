package body

// Bones gives the outlines of the bones that a view shows, to find one's way:
// light lines authored like the figure, a guide to landmarks and no anatomy
// plate.
func Bones(v View) []Inner {
	f := Figure{}
	for _, authored := range Views {
		if v.head() && authored == LeftSide {
			continue // the head close-up has its own
		}
		if lines := boneFile().in(authored); lines != nil && v.Shows(authored, Point{}) {
			f.line(v, innerLines(lines), !v.OneSided())
		}
	}
	return f.Inner
}
