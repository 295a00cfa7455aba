package demo

import (
	"bytes"
	"context"
	"encoding/json"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"math"

	"golang.org/x/image/vector"

	"mokren/core/assess"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/exchange"
	"mokren/store"
)

// The demo's photographs are the drawn figure before a wall, leaning and
// tilted a little, with the camera held askew: no person.
const photoWide, photoHigh = 700, 1100

// lean is how a drawn client stands: the shoulders' tilt in degrees (the
// client's right low when positive), and how far the camera is rolled.
type lean struct{ shoulders, roll float64 }

// place maps a view point into the picture.
func (l lean) place(v body.View, p body.Point) (x, y float64) {
	x, y = p.X-v.Width()/2, p.Y-500
	// Above the waist the body tilts about its middle, in front of the camera.
	if p.Y < 400 {
		t := l.shoulders * math.Pi / 180 * (400 - p.Y) / 220
		if v == body.Front {
			t = -t
		}
		y += x * math.Sin(min(max(t, -0.2), 0.2))
	}
	s, c := math.Sincos(l.roll * math.Pi / 180)
	return photoWide/2 + x*c - y*s, photoHigh/2 + x*s + y*c
}

func drawPhoto(v body.View, l lean) []byte {
	img := image.NewRGBA(image.Rect(0, 0, photoWide, photoHigh))
	draw.Draw(img, img.Bounds(), image.NewUniform(color.RGBA{214, 208, 200, 255}), image.Point{}, draw.Src)
	fill := func(pts []body.Point, c color.Color) {
		r := vector.NewRasterizer(photoWide, photoHigh)
		for i, p := range pts {
			x, y := l.place(v, p)
			if i == 0 {
				r.MoveTo(float32(x), float32(y))
				continue
			}
			r.LineTo(float32(x), float32(y))
		}
		r.ClosePath()
		r.Draw(img, img.Bounds(), image.NewUniform(c), image.Point{})
	}
	// The plumb line on the wall.
	fill([]body.Point{
		{X: v.Width()/2 - 1 - 160, Y: -20},
		{X: v.Width()/2 + 1 - 160, Y: -20},
		{X: v.Width()/2 + 1 - 160, Y: 1020},
		{X: v.Width()/2 - 1 - 160, Y: 1020},
	}, color.RGBA{90, 84, 78, 255})
	for _, s := range body.Draw(v).Shapes {
		fill(s.Outline(), color.RGBA{168, 140, 122, 255})
	}
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		panic(err) // a drawing of our own
	}
	return b.Bytes()
}

// photo draws, keeps and marks one photograph of a visit.
func photo(ctx context.Context, tx *store.Tx, v store.Visit, view body.View, l lean, height float64) error {
	pic, err := exchange.ReadPhoto(drawPhoto(view, l))
	if err != nil {
		return err
	}
	p := store.Photo{
		ID: id(), Client: v.ClientID, Visit: v.ID, View: string(view), Width: pic.Width,
		Height: pic.Height,
	}
	if err := tx.PutPhoto(ctx, p, pic.JPEG, pic.Thumb); err != nil {
		return err
	}
	at := func(p body.Point) [2]float64 {
		x, y := l.place(view, p)
		return [2]float64{math.Round(x*10) / 10, math.Round(y*10) / 10}
	}
	m := assess.Photo{
		View: string(view), HeightCM: &height, Landmarks: map[string][2]float64{},
		Plumb: [2][2]float64{
			at(body.Point{X: view.Width()/2 - 160, Y: 0}),
			at(body.Point{X: view.Width()/2 - 160, Y: 1000}),
		},
	}
	for _, id := range []ids.Landmark{"acromion", "iliac-crest"} {
		for _, side := range []ids.Side{ids.Left, ids.Right} {
			if q, err := body.FindLandmark(view, id, side); err == nil {
				m.Landmarks[string(id)+"-"+string(side)] = at(q)
			}
		}
	}
	raw, err := json.Marshal(m)
	if err != nil {
		return err
	}
	return tx.MarkPhoto(ctx, p.ID, raw, 1)
}
