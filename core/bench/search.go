package bench

import (
	"fmt"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/safety"
	"mokren/core/solid"
	"mokren/core/wording"
)

// Working values of tissue and hand; forces in tenths of a newton, lengths in tenths of a mm.
const (
	firstTenthsN = 80  // where tissue begins to resist
	tooMuch      = 350 // more than a search needs
	searchTenths = 400 // a mark as far from the truth scores nothing
	bandReach    = 400 // how far along the fibres a band is felt
	fewStrokes   = 6
	manyStrokes  = 40
	samples      = 9   // of a stroke
	onStructure  = 120 // a structure within its keep-off gives its sign from so much on
	mostPresses  = 3   // so many over a structure score nothing
	snapsFrom    = 100 // a stroke of less makes no muscle twitch
)

// bell is what is left of something felt at so many tenths of its half-width from its middle, of a
// hundred: a table, since no exponential is the same on every machine.
var bell = [...]int64{
	100, 99, 98, 96, 92, 88, 84, 78, 73, 67, 61, 55, 49, 43, 38, 32, 28, 24, 20, 16, 14, 11, 9, 7, 6, 4, 3, 3, 2, 1, 1,
}

// felt gives the share of a bell at a distance.
func felt(distance, halfWidth int64) int64 {
	i := abs(distance) * 10 / max(1, halfWidth)
	if i >= int64(len(bell)) {
		return 0
	}
	return bell[i]
}

func abs(n int64) int64 { return max(n, -n) }

// resists is what a finger feels of the toe and the steep part of the curve, of a hundred, for
// every 20 tenths of a newton above nothing.
var resists = [...]int64{0, 2, 4, 7, 12, 22, 34, 45, 54, 61, 67, 71, 75, 78, 80, 82, 83, 84, 85, 86}

// searching is the exercise in which a region is felt through.
type searching struct {
	*session
	places  []lying
	strokes int64
	peak    int64 // force
	hard    int64 // presses and strokes above tooMuch
	n       int64
	other   bool  // the other side was felt too
	over    int64 // presses and strokes over a structure
	d       dice
	marked  *LearnerAction
}

// lying is a point of the truth on the figure, with the way of its fibres in thousandths.
type lying struct {
	TruePoint
	view   body.View
	at     body.Point
	wx, wy int64
	// snapped is how often a stroke made it twitch; each makes the place sorer and the next rarer.
	snapped int64
}

func search(s *session) exercise {
	f := &searching{session: s, d: newDice(s.in.Seed, forTwitch)}
	for _, p := range s.c.Truth.Points {
		m, err := atlas.Get(p.Muscle)
		if err != nil {
			continue // cases are checked
		}
		place := atlas.FibrePlace{Fibre: p.Fibre, AlongPct: p.AlongPct, AcrossMM: p.AcrossMM}
		view, at := m.OnFigure(place, p.Side, body.DefaultHeightCM)
		way := m.FibreDirection(place, p.Side, body.DefaultHeightCM)
		f.places = append(f.places, lying{p, view, at, int64(way.X * 1000), int64(way.Y * 1000), 0})
	}
	if !s.quiet() {
		s.out.Client = append(s.out.Client, ClientTold{Says: s.c.Story, Shows: f.region()})
	}
	return f
}

// The middle of the region that is felt through lies so far from the point at the most, in units of a
// view, so that its middle says nothing.
const regionOff = 14

// region is where the search begins: about the point that helps, or about the first that there is.
func (f *searching) region() *ClientShown {
	if len(f.places) == 0 {
		return &ClientShown{View: body.Back, X: new(240.0), Y: new(230.0)}
	}
	at := f.places[0]
	for _, l := range f.places {
		if l.primary() {
			at = l
			break
		}
	}
	d := newDice(f.in.Seed, forRegion)
	x, y := float64(int(at.at.X)+d.about(regionOff)), float64(int(at.at.Y)+d.about(regionOff))
	return &ClientShown{View: at.view, X: &x, Y: &y}
}

func (f *searching) act(a *LearnerAction) *decode.Error {
	if a.View == "" || a.X == nil || a.Y == nil {
		return &decode.Error{Path: ".x", Given: "no place", Allowed: "view, x and y"}
	}
	from := body.Point{X: *a.X, Y: *a.Y}
	switch a.Action {
	case "press":
		return f.press(a, from)
	case "stroke":
		return f.stroke(a, from)
	case "mark":
		if a.Muscle == "" || a.Side == "" || a.DirectionDeg == nil {
			return &decode.Error{Path: ".muscle", Given: string(a.Muscle), Allowed: "muscle, side and direction_deg"}
		}
		f.marked = a
		return nil
	}
	return &decode.Error{Path: ".action", Given: a.Action, Allowed: "press, stroke, mark or finish"}
}

func (f *searching) force(a *LearnerAction) (int64, *decode.Error) {
	if a.ForceN == nil {
		return 0, &decode.Error{Path: ".force_n", Given: "nothing", Allowed: "newtons, 0 to 100"}
	}
	n := int64(*a.ForceN * 10)
	f.n++
	f.peak = max(f.peak, n)
	if n > tooMuch {
		f.hard++
		f.session.mark("too-hard", fmt.Sprintf("%d N: a search needs less than %d.", n/10, tooMuch/10))
	}
	return n, nil
}

func (f *searching) press(a *LearnerAction, p body.Point) *decode.Error {
	force, e := f.force(a)
	if e != nil {
		return e
	}
	f.compare(a.View, p)
	number := f.sore(a.View, p, force)
	f.structure(a.View, p, force)
	f.out.Client = append(f.out.Client, ClientTold{
		T: seconds(f.at), Feels: []int{int(f.feel(a.View, p, force))}, Says: sayNumber(number, f.c.Behaviour),
	})
	return nil
}

func sayNumber(n int64, behaviour string) string {
	switch {
	case behaviour == "brave":
		n = max(0, n-2)
	case behaviour == "anxious" && n > 0:
		n = min(10, n+2)
	}
	if n == 0 {
		return ""
	}
	return fmt.Sprint(n)
}

func (f *searching) stroke(a *LearnerAction, from body.Point) *decode.Error {
	if a.ToX == nil || a.ToY == nil {
		return &decode.Error{Path: ".to_x", Given: "nothing", Allowed: "to_x and to_y"}
	}
	force, e := f.force(a)
	if e != nil {
		return e
	}
	f.strokes++
	told := ClientTold{T: seconds(f.at)}
	for i := range samples {
		k := float64(i) / (samples - 1)
		p := body.Point{X: from.X + k*(*a.ToX-from.X), Y: from.Y + k*(*a.ToY-from.Y)}
		told.Feels = append(told.Feels, int(f.feel(a.View, p, force)))
	}
	f.compare(a.View, from)
	f.structure(a.View, from, force)
	if f.twitches(a, from, force) {
		told.Shows = &ClientShown{Twitch: true}
	}
	f.out.Client = append(f.out.Client, told)
	return nil
}

// structure has the client say what is felt where pressure comes within a structure's keep-off.
func (f *searching) structure(v body.View, p body.Point, force int64) {
	skin, on := solid.Touch(v, p, v.SideAt(p))
	if force < onStructure || !on {
		return
	}
	for _, c := range safety.Within(solid.Press(skin), body.DefaultHeightCM) {
		if c.Tier != safety.Danger {
			continue
		}
		f.over++
		f.out.Client = append(f.out.Client, ClientTold{
			T: seconds(f.at), Says: c.Structure.Sign, Shows: &ClientShown{Structure: c.Structure.ID},
		})
		f.session.mark("over-structure", "Pressed over the "+wording.Plain(c.Structure.ID)+": ease off, and feel "+
			"beside it.")
		return
	}
}

// twitchPct is how likely a first snapping stroke across a point makes its muscle twitch; a working
// value.
var twitchPct = map[string]int{
	"quick": 50, "slow": 40, "needs-slack": 40, "hyperirritable": 80, "stubborn": 30, "sham": 0,
}

// twitches tells whether a stroke across a nodule makes its muscle jump: half as likely each time,
// and the place gets sorer.
func (f *searching) twitches(a *LearnerAction, from body.Point, force int64) bool {
	if force < snapsFrom {
		return false
	}
	to := body.Point{X: *a.ToX, Y: *a.ToY}
	for i := range f.places {
		l := &f.places[i]
		before, along := l.off(from)
		after, alongTo := l.off(to)
		near := abs(along+alongTo)/2 <= int64(l.NoduleMM)*10
		if l.view != a.View || before*after >= 0 || !near {
			continue
		}
		pct := twitchPct[l.Response]
		if l.TwitchPct != nil {
			pct = *l.TwitchPct
		}
		if f.d.chance(pct >> min(l.snapped, 8)) {
			l.snapped++
			return true
		}
	}
	return false
}

// off is how far a place is from a point, across and along its fibres, in tenths of a mm.
func (l lying) off(p body.Point) (across, along int64) {
	per := l.view.CMPerUnit(body.DefaultHeightCM) * 100
	dx, dy := int64((p.X-l.at.X)*per), int64((p.Y-l.at.Y)*per)
	return (dx*l.wy - dy*l.wx) / 1000, (dx*l.wx + dy*l.wy) / 1000
}

// feel is what a finger meets, of a hundred: the tissue, a band across its fibres, and a nodule in it,
// all softened by what lies over them.
func (f *searching) feel(v body.View, p body.Point, force int64) int64 {
	total := resists[min(int64(len(resists)-1), force/20)]
	for _, l := range f.places {
		if l.view != v || l.Response == "sham" {
			continue
		}
		across, along := l.off(p)
		more := 30 * felt(across, int64(l.BandMM)*5) / 100 * felt(along, bandReach) / 100
		more += 25 * felt(across, int64(l.BandMM)*5) / 100 * felt(along, int64(l.NoduleMM)*5) / 100
		through := max(20, 100-int64(l.DepthMM)) * min(firstTenthsN, force) / firstTenthsN
		total += more * through / 100
	}
	return min(100, total)
}

// sore is the number of the client under a finger.
func (f *searching) sore(v body.View, p body.Point, force int64) int64 {
	worst := int64(0)
	for _, l := range f.places {
		if l.view != v {
			continue
		}
		across, along := l.off(p)
		here := felt(across, int64(l.BandMM)*10) * felt(along, int64(l.BandMM)*15) / 100
		number := 2 * int64(l.Tenderness) * here / 100 * min(3*firstTenthsN, force) / (2 * firstTenthsN)
		if number > 0 {
			number += l.snapped
		}
		worst = max(worst, number)
	}
	return min(10, worst)
}

// compare notes that the other side of a point was felt.
func (f *searching) compare(v body.View, p body.Point) {
	for _, l := range f.places {
		m, err := atlas.Get(l.Muscle)
		if err != nil {
			continue
		}
		place := atlas.FibrePlace{Fibre: l.Fibre, AlongPct: l.AlongPct, AcrossMM: l.AcrossMM}
		view, at := m.OnFigure(place, l.Side.Other(), body.DefaultHeightCM)
		f.other = f.other || view == v && tenths(v, p, at) < searchTenths
	}
}

// sines of whole degrees in thousandths, 0 to 90.
var sines = [...]int64{
	0, 17, 35, 52, 70, 87, 105, 122, 139, 156, 174, 191, 208, 225, 242, 259, 276, 292, 309, 326, 342, 358, 375,
	391, 407,
	423, 438, 454, 469, 485, 500, 515, 530, 545, 559, 574, 588, 602, 616, 629, 643, 656, 669, 682, 695, 707, 719, 731,
	743, 755, 766, 777, 788, 799, 809, 819, 829, 839, 848, 857, 866, 875, 883, 891, 899, 906, 914, 921, 927, 934, 940,
	946, 951, 956, 961, 966, 970, 974, 978, 982, 985, 988, 990, 993, 995, 996, 998, 999, 999, 1000, 1000,
}

// aslant is the angle between fibres and a direction from the horizontal, 0 to 90 degrees.
func (l lying) aslant(deg int) int64 {
	deg = ((deg % 180) + 180) % 180
	sin, cos := sines[min(deg, 180-deg)], sines[abs(int64(90-deg))]
	if deg > 90 {
		cos = -cos
	}
	// The view's y runs down, a direction is read upward.
	across := abs(l.wx*sin+l.wy*cos) / 1000
	for d, s := range sines {
		if s >= across {
			return int64(d)
		}
	}
	return 90
}

func (f *searching) score(into map[string]float64) {
	for _, k := range []string{"distance", "direction", "muscle", "gentle", "other_side", "strokes", "structures"} {
		into[k] = 0
	}
	if f.n > 0 {
		into["gentle"] = share(1000 * (f.n - f.hard) / f.n)
		into["strokes"] = falling(f.strokes, fewStrokes, manyStrokes)
		into["structures"] = falling(f.over, 0, mostPresses)
	}
	if f.other {
		into["other_side"] = 1
	}
	a := f.marked
	if a == nil {
		return
	}
	for _, l := range f.places {
		if l.view != a.View || !l.primary() {
			continue
		}
		away := tenths(l.view, body.Point{X: *a.X, Y: *a.Y}, l.at)
		if s := falling(away, 50, searchTenths); s >= into["distance"] {
			into["distance"] = s
			into["direction"] = falling(l.aslant(*a.DirectionDeg), 5, 60)
			into["muscle"] = 0
			if l.Muscle == a.Muscle && l.Side == a.Side {
				into["muscle"] = 1
			} else {
				f.session.mark("other-muscle", "It lies in the "+wording.Muscle(l.Muscle, l.Side, "")+".")
			}
		}
	}
}

func (f *searching) truth() *ClientShown { c := f.c; return &ClientShown{Case: &c} }
