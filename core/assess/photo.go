package assess

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"

	"mokren/core/decode"
	"mokren/core/ids"
)

// photoLandmarks that can be dropped on a picture. In front and back views
// paired ones end in -left or -right.
var photoLandmarks = map[string]bool{
	"tragus": true, "C7": true, "acromion": true, "asis": true, "psis": true, "iliac-crest": true,
	"greater-trochanter": true, "knee": true, "ankle": true, "ear-lobe": true, "eye": true,
	"vertex": false, "sternal-notch": false, "chin": false, "navel": false,
}

// Photo is what was marked on a picture, in pixels with y down. Plumb is two
// points, upper and lower, on something known to be vertical.
type Photo struct {
	View      string                `json:"view" enum:"front,back,left,right"`
	Plumb     [2][2]float64         `json:"plumb"`
	Landmarks map[string][2]float64 `json:"landmarks"`
	HeightCM  *float64              `json:"height_cm,omitempty" minimum:"50" maximum:"250" doc:"the plumb then spans the client's height and offsets are cm"`
}

// PhotoAngles is the picture measured. Roll is how far the camera leaned,
// clockwise positive; everything else is corrected for it.
type PhotoAngles struct {
	RollDeg float64                 `json:"roll_deg"`
	Angles  map[ids.Measure]float64 `json:"angles" doc:"degrees; heights: positive when the client's left is high"`
	// Offsets from the plumb line: in side views forward, in front and back
	// toward the client's left.
	Offsets map[string]float64 `json:"offsets"`
	Unit    string             `json:"unit" enum:"cm,fraction" doc:"of offsets; a fraction is of the plumb's length"`
}

// MeasurePhoto computes angles and offsets, corrected for camera roll.
func MeasurePhoto(p Photo) (PhotoAngles, error) {
	l, err := p.plumbLine()
	if err != nil {
		return PhotoAngles{}, err
	}
	if err := p.checkLandmarks(); err != nil {
		return PhotoAngles{}, err
	}
	out := PhotoAngles{
		RollDeg: deg(l.roll), Angles: map[ids.Measure]float64{}, Offsets: map[string]float64{},
		Unit: "fraction",
	}
	scale := 1 / l.length
	if p.HeightCM != nil {
		scale, out.Unit = *p.HeightCM/l.length, "cm"
	}
	for id := range p.Landmarks {
		q, _ := l.at(id)
		out.Offsets[id] = q.right * l.sign * scale
	}
	if p.flat() {
		l.tilt(out.Angles, "shoulder-height", "acromion")
		l.tilt(out.Angles, "pelvis-height", "iliac-crest", "asis", "psis")
		l.tilt(out.Angles, "head-tilt", "ear-lobe", "eye", "tragus")
		return out, nil
	}
	l.slope(out.Angles, "craniovertebral-angle", "tragus", "C7")
	l.slope(out.Angles, "pelvic-tilt", "asis", "psis")
	return out, nil
}

// flat: seen from the front or the back.
func (p Photo) flat() bool { return p.View == "front" || p.View == "back" }

// checkLandmarks refuses a landmark that the view cannot show.
func (p Photo) checkLandmarks() error {
	for _, id := range slices.Sorted(maps.Keys(p.Landmarks)) {
		base, side := pairedName(id)
		paired, known := photoLandmarks[base]
		if !known || (side != "") != (paired && p.flat()) {
			return &decode.Error{
				Path:  "$.landmarks." + id,
				Given: fmt.Sprintf("%q in a %s view", id, p.View),
				Allowed: "tragus, C7, acromion, asis, psis, iliac-crest, greater-trochanter, knee, ankle, " +
					"ear-lobe, eye (with -left or -right in front and back views), vertex, sternal-notch, chin, navel",
			}
		}
	}
	return nil
}

// plumbLine is what a photograph is measured against.
type plumbLine struct {
	top       [2]float64
	ux, uy    float64 // down the line, unit vector
	length    float64 // pixels
	roll      float64 // radians; a plumb that leans left at its foot: the camera leaned clockwise
	sign      float64 // toward the client's left (front, back) or front (side views) in the picture
	landmarks map[string][2]float64
}

// offPlumb is a place from the upper end of the plumb line, in pixels.
type offPlumb struct{ right, up float64 }

// plumbLine is the true vertical of a photograph. Its two ends must lie apart, the upper one
// above, or no angle can be trusted.
func (p Photo) plumbLine() (plumbLine, error) {
	top, low := p.Plumb[0], p.Plumb[1]
	dx, dy := low[0]-top[0], low[1]-top[1]
	length := math.Hypot(dx, dy)
	if length < 1e-9 || dy <= 0 {
		return plumbLine{}, &decode.Error{
			Path: "$.plumb", Given: fmt.Sprint(p.Plumb),
			Allowed: "an upper and a lower point, apart",
		}
	}
	l := plumbLine{
		top: top, ux: dx / length, uy: dy / length, length: length, roll: math.Atan2(-dx, dy), sign: 1,
		landmarks: p.Landmarks,
	}
	if p.View == "back" || p.View == "left" {
		l.sign = -1
	}
	return l, nil
}

// at gives a landmark's distance from the plumb line and its height along it, in the
// photograph's pixels.
func (l plumbLine) at(id string) (offPlumb, bool) {
	q, ok := l.landmarks[id]
	x, y := q[0]-l.top[0], q[1]-l.top[1]
	return offPlumb{x*l.uy - y*l.ux, -(x*l.ux + y*l.uy)}, ok
}

// tilt is the slope between the two sides of the first landmark that has both.
func (l plumbLine) tilt(angles map[ids.Measure]float64, m ids.Measure, landmarks ...string) {
	for _, id := range landmarks {
		left, ok1 := l.at(id + "-left")
		right, ok2 := l.at(id + "-right")
		if ok1 && ok2 && left.right != right.right {
			angles[m] = deg(math.Atan2(left.up-right.up, math.Abs(left.right-right.right)))
			return
		}
	}
}

// slope is the angle from the rear landmark to the one in front of it. The
// pelvis tips forward, ASIS below PSIS, with a positive one.
func (l plumbLine) slope(angles map[ids.Measure]float64, m ids.Measure, front, rear string) {
	f, ok1 := l.at(front)
	r, ok2 := l.at(rear)
	if !ok1 || !ok2 {
		return
	}
	up := f.up - r.up
	if m == "pelvic-tilt" {
		up = -up
	}
	angles[m] = deg(math.Atan2(up, (f.right-r.right)*l.sign))
}

// pairedName splits a landmark's side from its name; one in the middle has none.
func pairedName(id string) (base, side string) {
	for _, s := range []string{"left", "right"} {
		if b, ok := strings.CutSuffix(id, "-"+s); ok {
			return b, s
		}
	}
	return id, ""
}

func deg(rad float64) float64 { return rad * 180 / math.Pi }
