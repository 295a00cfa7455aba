package assess

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"

	"mokren/core/ids"
	"mokren/core/strict"
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
	top, low := p.Plumb[0], p.Plumb[1]
	dx, dy := low[0]-top[0], low[1]-top[1]
	length := math.Hypot(dx, dy)
	if length < 1e-9 || dy <= 0 {
		return PhotoAngles{}, &strict.Error{
			Path: "$.plumb", Given: fmt.Sprint(p.Plumb),
			Allowed: "an upper and a lower point, apart",
		}
	}
	for _, id := range slices.Sorted(maps.Keys(p.Landmarks)) {
		base, side := pairedName(id)
		paired, known := photoLandmarks[base]
		flat := p.View == "front" || p.View == "back"
		if !known || (side != "") != (paired && flat) {
			return PhotoAngles{}, &strict.Error{
				Path:  "$.landmarks." + id,
				Given: fmt.Sprintf("%q in a %s view", id, p.View),
				Allowed: "tragus, C7, acromion, asis, psis, iliac-crest, greater-trochanter, knee, ankle, " +
					"ear-lobe, eye (with -left or -right in front and back views), vertex, sternal-notch, chin, navel",
			}
		}
	}
	roll := math.Atan2(-dx, dy) // a plumb that leans left at its foot: the camera leaned clockwise
	// Into plumb coordinates: along the horizontal, and up.
	ux, uy := dx/length, dy/length // down the plumb
	at := func(id string) (right, up float64, ok bool) {
		q, ok := p.Landmarks[id]
		x, y := q[0]-top[0], q[1]-top[1]
		return x*uy - y*ux, -(x*ux + y*uy), ok
	}
	out := PhotoAngles{
		RollDeg: deg(roll), Angles: map[ids.Measure]float64{}, Offsets: map[string]float64{},
		Unit: "fraction",
	}
	// The client's left (front and back) or front (side views) in the picture.
	sign := 1.0
	if p.View == "back" || p.View == "left" {
		sign = -1
	}
	scale := 1 / length
	if p.HeightCM != nil {
		scale, out.Unit = *p.HeightCM/length, "cm"
	}
	for id := range p.Landmarks {
		r, _, _ := at(id)
		out.Offsets[id] = r * sign * scale
	}
	tilt := func(m ids.Measure, landmarks ...string) {
		for _, id := range landmarks {
			lr, lu, ok1 := at(id + "-left")
			rr, ru, ok2 := at(id + "-right")
			if ok1 && ok2 && lr != rr {
				out.Angles[m] = deg(math.Atan2(lu-ru, math.Abs(lr-rr)))
				return
			}
		}
	}
	if p.View == "front" || p.View == "back" {
		tilt("shoulder-height", "acromion")
		tilt("pelvis-height", "iliac-crest", "asis", "psis")
		tilt("head-tilt", "ear-lobe", "eye", "tragus")
		return out, nil
	}
	if tr, tu, ok := at("tragus"); ok {
		if cr, cu, ok := at("C7"); ok {
			out.Angles["craniovertebral-angle"] = deg(math.Atan2(tu-cu, (tr-cr)*sign))
		}
	}
	if ar, au, ok := at("asis"); ok {
		if pr, pu, ok := at("psis"); ok {
			// Forward tilt, ASIS below PSIS, is positive.
			out.Angles["pelvic-tilt"] = deg(math.Atan2(pu-au, (ar-pr)*sign))
		}
	}
	return out, nil
}

func pairedName(id string) (base, side string) {
	for _, s := range []string{"left", "right"} {
		if b, ok := strings.CutSuffix(id, "-"+s); ok {
			return b, s
		}
	}
	return id, ""
}

func deg(rad float64) float64 { return rad * 180 / math.Pi }
