package solid

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
)

// onWrist: these cells of the side views lie where the drawn wrist overlaps forearm and
// hand; which of the two is meant is a matter of taste.
func onWrist(r ids.Region) bool { return r == "dorsal-wrist" || r == "volar-wrist" }

// Whatever the views draw is skin of the solid, and is drawn again where it was touched.
func TestASeenPlaceIsSkinAndComesBack(t *testing.T) {
	for _, v := range body.Views {
		missed, all := 0, 0
		for _, c := range body.Cells(v) {
			p := c.Cell.Center()
			all++
			s, ok := Touch(v, p, v.SideAt(p))
			if !ok {
				missed++
				continue
			}
			assert.InDelta(t, 1, s.In.dot(s.In), 1e-6, "%s %v", v, p)
			at, _, shown := s.At.In(v)
			if !shown { // the tip of the shoulder is arm, which a head close-up does not show
				continue
			}
			limit := 4.0 * units(v)
			if onWrist(c.Region) {
				limit = 9
			}
			assert.LessOrEqual(t, at.Distance(p), limit, "%s %v %s", v, p, c.Region)
		}
		assert.LessOrEqual(t, missed, all/500, "%s: cells beside the solid", v)
	}
}

func units(v body.View) float64 { return body.Front.CMPerUnit(170) / v.CMPerUnit(170) }

// A place that two views show is one place: what the front shows is where the side
// view shows it, and the way in is the same.
func TestTwoViewsOfOnePlace(t *testing.T) {
	same := 0
	for _, c := range body.Cells(body.Front) {
		p := c.Cell.Center()
		s, ok := Touch(body.Front, p, body.Front.SideAt(p))
		if !ok || s.part == hand || s.part == foot || s.At.X <= 1 {
			continue
		}
		q, near, shown := s.At.In(body.LeftSide)
		if !shown || !near {
			continue
		}
		again, ok := Touch(body.LeftSide, q, ids.Left)
		if !ok || again.part != s.part { // hidden by the hanging arm
			continue
		}
		same++
		assert.Less(t, again.At.Distance(s.At), 1.0, "%v", p)
		assert.Greater(t, again.In.dot(s.In), 0.99, "%v", p)
	}
	assert.Greater(t, same, 200)
}

func TestTheOtherSideIsTheMirrorImage(t *testing.T) {
	for _, v := range []body.View{body.Front, body.Back} {
		for x := 5.0; x < 180; x += 13 {
			for y := 8.0; y < 990; y += 17 {
				l, ok := Touch(v, v.Place(body.Point{X: x, Y: y}, ids.Left), ids.Left)
				r, also := Touch(v, v.Place(body.Point{X: x, Y: y}, ids.Right), ids.Right)
				require.Equal(t, ok, also)
				if ok {
					assert.InDelta(t, 0, l.At.Mirrored().Distance(r.At), 1e-9)
					assert.InDelta(t, 0, l.In.Mirrored().Distance(r.In), 1e-9)
				}
			}
		}
	}
}

// Every landmark has one place in space: what front, back and side say of its height
// agrees within 3 mm, but for the swung arm and for what is a line and not a place.
func TestALandmarkHasOneHeight(t *testing.T) {
	apart := map[ids.Landmark]string{
		"radial-styloid": "the side view's forearm is turned, its thumb side higher",
		"thumb-base":     "the side view's forearm is turned, its thumb side higher",
		"rib-5":          "a rib: its front end, and its side",
		"iliac-crest":    "a crest: in front and behind other places of it",
	}
	for _, id := range ids.Landmarks() {
		low, high := math.Inf(1), math.Inf(-1)
		for _, v := range []body.View{body.Front, body.Back, body.LeftSide} {
			if p, err := body.FindLandmark(v, id, ids.Left); err == nil {
				y := v.Authored(p).Y
				low, high = min(low, y), max(high, y)
			}
		}
		if high > low && apart[id] == "" {
			assert.LessOrEqual(t, (high-low)*MMPerUnit, 3.0, "%s", id)
		}
	}
}

func TestTheBonesLieInTheBody(t *testing.T) {
	var read []bone
	require.NoError(t, decode.JSON(bonesFile, &read))
	for _, b := range read {
		for _, raw := range b.Line {
			assert.True(t, Inside(at3(raw)), "%s %v", b.ID, raw)
			assert.Equal(t, b.Middle, raw[0] == 0, "%s", b.ID)
		}
	}
}

// What a thumb meets where textbooks say that bone is under the skin, and where not.
func TestALineEndsOnTheBoneBeneath(t *testing.T) {
	for _, c := range []struct {
		v       body.View
		x, y    float64
		onto    string
		fromMM  float64
		upToMM  float64
		comment string
	}{
		{"front", 54, 830, "shin", 0, 25, "the shin under the skin"},
		{"back", 40, 240, "blade-inner", 0, 20, "the inner border of the blade"},
		{"front", 50, 240, "ribs", 8, 30, "the ribs under pectoralis"},
		{"front", 150, 350, "humerus", 15, 35, "the upper arm bone under brachialis"},
		{"back", 0, 470, "sacrum", 5, 40, "the sacrum"},
		{"front", 58, 713, "kneecap", 0, 15, "the kneecap"},
		{"front", 30, 400, "", 60, 80, "the belly has no bone"},
		{"back", 57, 800, "", 40, 60, "the calf, down to what can be squeezed"},
	} {
		p := c.v.Place(body.Point{X: c.x, Y: c.y}, ids.Left)
		s, ok := Touch(c.v, p, ids.Left)
		require.True(t, ok)
		l := Press(s)
		assert.Equal(t, c.onto, l.Onto, c.comment)
		assert.GreaterOrEqual(t, l.Depth*MMPerUnit, c.fromMM, c.comment)
		assert.LessOrEqual(t, l.Depth*MMPerUnit, c.upToMM, c.comment)
	}
}

// Round a limb the way along the skin is longer than the straight one, and on one side
// of it about as long.
func TestAlongTheSkin(t *testing.T) {
	front, _ := Touch(body.Front, body.Front.Place(body.Point{X: 57, Y: 800}, ids.Left), ids.Left)
	back, _ := Touch(body.Back, body.Back.Place(body.Point{X: 57, Y: 800}, ids.Left), ids.Left)
	assert.Greater(t, Skinwise(front, back), 1.3*front.At.Distance(back.At))
	assert.InDelta(t, Skinwise(front, back), Skinwise(back, front), 0.5)
	down, _ := Touch(body.Front, body.Front.Place(body.Point{X: 57, Y: 820}, ids.Left), ids.Left)
	assert.InDelta(t, 20, Skinwise(front, down), 3)
	assert.InDelta(t, 0, Skinwise(front, front), 1e-9)
}

func TestWordsOfAStep(t *testing.T) {
	at := func(v body.View, x, y float64, s ids.Side) Skin {
		k, ok := Touch(v, v.Place(body.Point{X: x, Y: y}, s), s)
		require.True(t, ok)
		return k
	}
	for _, s := range []ids.Side{ids.Left, ids.Right} {
		assert.Equal(t, "toward the little finger", Words(at("front", 158, 450, s), at("front", 150, 450, s)))
		assert.Equal(t, "toward the thumb", Words(at("front", 158, 450, s), at("front", 166, 450, s)))
		assert.Equal(t, "toward the hand", Words(at("front", 158, 450, s), at("front", 158, 460, s)))
		assert.Equal(t, "toward the midline", Words(at("back", 60, 380, s), at("back", 52, 380, s)))
		assert.Equal(t, "toward the head", Words(at("back", 30, 380, s), at("back", 30, 370, s)))
		assert.Equal(t, "toward the foot", Words(at("back", 57, 790, s), at("back", 57, 800, s)))
	}
}
