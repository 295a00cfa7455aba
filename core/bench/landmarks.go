package bench

import (
	"fmt"

	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/wording"
)

// So many landmarks are asked for in a round.
const roundOf = 6

// Working values, in tenths of a millimetre and in milliseconds.
const (
	closeTenths  = 150 // as good as on it
	farTenths    = 600 // nothing learnt yet
	fingerTenths = 180
	quickMS      = 4_000
	slowMS       = 20_000
)

// touching is the exercise in which a named landmark is touched on an unlabelled figure.
type touching struct {
	*session
	asked   []asked
	n       int
	since   int64
	errors  int64 // tenths of a mm, all together, none larger than farTenths
	on      int64
	elapsed int64
}

// asked is one place that is to be touched, and how it is asked for.
type asked struct {
	view body.View
	at   body.Point
	name string // as a mark names it
	show ClientShown
	id   ids.Landmark // of a landmark
}

func landmarks(s *session) exercise {
	d := newDice(s.in.Seed, forLandmarks)
	t := &touching{session: s}
	pick := map[int]func(dice) (asked, bool){1: surfaceLandmark, 2: counted, 3: siteOfMuscle}[max(1, s.c.Level)]
	for len(t.asked) < roundOf {
		a, ok := pick(d)
		for _, x := range t.asked {
			ok = ok && x.name != a.name
		}
		if ok {
			t.asked = append(t.asked, a)
		}
	}
	t.next()
	return t
}

// surfaceLandmark is one of front or back that is no spinous level.
func surfaceLandmark(d dice) (asked, bool) {
	v := []body.View{body.Front, body.Back}[d.below(2)]
	list := body.LandmarksOf(v)
	l := list[d.below(len(list))]
	_, err := body.Count(l.ID, 0)
	return asked{
		view: v, at: l.Point, name: nameOf(l), id: l.ID,
		show: ClientShown{Landmark: l.ID, Side: l.Side, View: v},
	}, err != nil
}

// counted is a spinous level so many below one that is easily found.
func counted(d dice) (asked, bool) {
	from := []ids.Landmark{"C7", "T3", "T7", "L4"}[d.below(4)]
	down := 1 + d.below(5)
	level, err := body.Count(from, down)
	if err != nil {
		return asked{}, false
	}
	at, err := body.FindLandmark(body.Back, level.Level, ids.Midline)
	return asked{
		view: body.Back, at: at, name: fmt.Sprintf("%d below %s", down, from), id: level.Level,
		show: ClientShown{Landmark: from, Side: ids.Midline, View: body.Back, Down: down},
	}, err == nil
}

// siteOfMuscle is a usual place of a muscle, to be found from its landmarks.
func siteOfMuscle(d dice) (asked, bool) {
	m := treatable()[d.below(len(treatable()))]
	site, side := m.Sites[d.below(len(m.Sites))], d.side()
	v, at := m.OnFigure(site.Place(body.DefaultHeightCM), side, body.DefaultHeightCM)
	return asked{
		view: v, at: at, name: wording.Muscle(m.ID, side, site.ID),
		show: ClientShown{Muscle: m.ID, Side: side, View: v, Site: site.ID},
	}, true
}

func (t *touching) next() {
	if t.n < len(t.asked) {
		t.shows(t.asked[t.n].show)
	}
}

func (t *touching) act(a *LearnerAction) *decode.Error {
	switch {
	case a.Action != "touch":
		return &decode.Error{Path: ".action", Given: a.Action, Allowed: "touch or finish"}
	case a.X == nil || a.Y == nil:
		return &decode.Error{Path: ".x", Given: "no place", Allowed: "x and y in units of the view"}
	case t.n == len(t.asked):
		return &decode.Error{Path: ".action", Given: "touch", Allowed: "finish: every landmark was touched"}
	}
	want := t.asked[t.n]
	if a.View != want.view {
		return &decode.Error{Path: ".view", Given: string(a.View), Allowed: string(want.view)}
	}
	off := tenths(want.view, body.Point{X: *a.X, Y: *a.Y}, want.at)
	t.errors += min(farTenths, off)
	t.elapsed += min(slowMS, t.at-t.since)
	if off <= closeTenths {
		t.on++
	} else {
		t.missed(want, off, body.Point{X: *a.X, Y: *a.Y})
	}
	t.n++
	t.since = t.at
	t.next()
	return nil
}

// missed says how far off a touch was, and what was hit instead.
func (t *touching) missed(want asked, off int64, p body.Point) {
	text := fmt.Sprintf("%s: %d mm off, %s.", sentence(want.name), off/10, fingers(off))
	best := off
	var hit *body.Landmark
	for _, l := range body.LandmarksOf(want.view) {
		if d := tenths(want.view, p, l.Point); d < best && d <= closeTenths && l.ID != want.id {
			best, hit = d, &l
		}
	}
	if hit != nil {
		text += " That is " + nameOf(*hit) + "."
	}
	t.mark("landmark-missed", text)
}

func nameOf(l body.Landmark) string { return wording.OnSide(wording.Plain(l.ID), l.Side) }

func fingers(tenthsOff int64) string {
	half := (2*tenthsOff + fingerTenths/2) / fingerTenths
	switch {
	case half <= 1:
		return "half a finger"
	case half == 2:
		return "one finger"
	case half%2 == 1:
		return fmt.Sprintf("%d and a half fingers", half/2)
	}
	return fmt.Sprintf("%d fingers", half/2)
}

func sentence(s string) string {
	if s[0] < 'a' || s[0] > 'z' {
		return s
	}
	return string(s[0]-'a'+'A') + s[1:]
}

// tenths is the distance of two places in tenths of a millimetre of a usual body, in whole numbers.
func tenths(v body.View, a, b body.Point) int64 {
	per := v.CMPerUnit(body.DefaultHeightCM) * 100
	dx, dy := int64((a.X-b.X)*per), int64((a.Y-b.Y)*per)
	return root(dx*dx + dy*dy)
}

// root is the whole part of a square root.
func root(n int64) int64 {
	if n < 2 {
		return n
	}
	x := n
	for y := (x + 1) / 2; y < x; y = (x + n/x) / 2 {
		x = y
	}
	return x
}

func (t *touching) score(into map[string]float64) {
	into["distance"], into["found"], into["pace"] = 0, 0, 0
	if t.n == 0 {
		return
	}
	n := int64(t.n)
	into["distance"] = falling(t.errors/n, closeTenths/3, farTenths)
	into["found"] = share(1000 * t.on / roundOf)
	into["pace"] = falling(t.elapsed/n, quickMS, slowMS)
}

func (t *touching) truth() *ClientShown { return nil }
