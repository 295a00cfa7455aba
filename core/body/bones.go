package body

import "sync"

// boneLines are bones in outline, to find one's way: light lines authored like
// the figure. They are a guide to landmarks, not an anatomy plate.
var boneLines = sync.OnceValue(func() map[View][]innerLine {
	d := boneFile()
	return map[View][]innerLine{
		Front: innerLines(d.Front), Back: innerLines(d.Back), LeftSide: innerLines(d.Sides),
		HeadLeft: innerLines(d.Heads), SoleLeft: innerLines(d.Soles),
	}
})

// Bones gives the outlines of the bones that a view shows.
func Bones(v View) []Inner {
	f := Figure{}
	for _, authored := range Views {
		if v.head() && authored == LeftSide {
			continue // the head close-up has its own
		}
		if lines := boneLines()[authored]; lines != nil && v.Shows(authored, Point{}) {
			f.line(v, lines, !v.OneSided())
		}
	}
	return f.Inner
}
