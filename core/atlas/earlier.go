package atlas

import (
	_ "embed" // the earlier figures
	"encoding/json"
	"fmt"
	"math"
	"sync"

	"mokren/core/body"
	"mokren/core/ids"
)

// Figure1 names the first drawing of the figure, in which a muscle was a few
// lines and a place was percent along and mm across one of them. In Figure2 it was
// sheets, as today; some lay otherwise.
const (
	Figure1 = "figure-1"
	Figure2 = "figure-2"
)

// line1 is a muscle's line on figure version 1, of the left side, in the units
// of the view.
type line1 struct {
	View string       `json:"view"`
	Line [][2]float64 `json:"line"`
}

//go:embed figure-1.json
var figure1File []byte

// lines1 reads the embedded file; the tests have read all of it.
var lines1 = sync.OnceValue(func() map[ids.Muscle][]line1 {
	var out map[ids.Muscle][]line1
	if err := json.Unmarshal(figure1File, &out); err != nil {
		panic(fmt.Errorf("reading figure-1.json: %w", err))
	}
	return out
})

// parts2 are the sheets of figure version 2 that lie otherwise today.
//
//go:embed figure-2.json
var figure2File []byte

var parts2 = sync.OnceValue(func() map[ids.Muscle][]Part {
	var out map[ids.Muscle][]Part
	if err := json.Unmarshal(figure2File, &out); err != nil {
		panic(fmt.Errorf("reading figure-2.json: %w", err))
	}
	return out
})

// Carry brings a place that was kept on an earlier figure to today's: to where
// it lay on the body, or, when the muscle is no longer there, to its nearest
// edge. ok is false for a figure or a place that never was.
func (m *Muscle) Carry(figure string, f FibrePlace, side ids.Side, heightCM float64) (now FibrePlace, ok bool) {
	old, moved := parts2()[m.ID]
	switch {
	case figure == body.Version, figure == Figure2 && !moved:
		return f, f.Fibre >= 0 && f.Fibre < len(m.Parts)
	case figure == Figure2 && f.Fibre >= 0 && f.Fibre < len(old):
		v, p := old[f.Fibre].onFigure(f, side, heightCM)
		return m.nearest(v, p, f, side, heightCM)
	}
	lines := lines1()[m.ID]
	if figure != Figure1 || f.Fibre < 0 || f.Fibre >= len(lines) {
		return f, false
	}
	v, p := lines[f.Fibre].at(f, side, heightCM)
	near, _, ok := m.OnFibre(v, p, side, heightCM)
	return near, ok
}

// nearest is where a place lies today, or, when no part is near it now, the same share
// of today's part.
func (m *Muscle) nearest(v body.View, p body.Point, f FibrePlace, side ids.Side, heightCM float64) (FibrePlace, bool) {
	if now, _, ok := m.OnFibre(v, p, side, heightCM); ok {
		return now, true
	}
	return f, f.Fibre < len(m.Parts)
}

// at finds a place of figure version 1 on the body, which has kept its size and
// its landmarks since.
func (l line1) at(f FibrePlace, side ids.Side, heightCM float64) (body.View, body.Point) {
	v := viewOf(l.View, ids.Left)
	point := func(i int) body.Point { return body.Point{X: l.Line[i][0], Y: l.Line[i][1]} }
	total := 0.0
	for i := 1; i < len(l.Line); i++ {
		total += point(i - 1).Distance(point(i))
	}
	left := total * f.AlongPct / 100
	for i := 1; i < len(l.Line); i++ {
		a, b := point(i-1), point(i)
		d := a.Distance(b)
		if left > d && i < len(l.Line)-1 {
			left -= d
			continue
		}
		way := unit(a, b)
		n := body.Point{X: -way.Y, Y: way.X}
		if out := n.X * v.Outward(ids.Left); out < 0 || out == 0 && n.Y < 0 {
			n = body.Point{X: -n.X, Y: -n.Y}
		}
		units := f.AcrossMM / 10 / v.CMPerUnit(heightCM)
		p := body.Point{X: a.X + way.X*left + n.X*units, Y: a.Y + way.Y*left + n.Y*units}
		if side == ids.Right {
			return v.Mirrored(), v.MirroredPoint(p)
		}
		return v, p
	}
	return v, body.Point{X: math.NaN(), Y: math.NaN()} // a line has two points; the test says so
}
