package body

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"sync"

	"mokren/core/ids"
)

// Cell is one hexagon of a view's lattice in axial coordinates, pointy side
// up, with its origin in the middle of the view's top edge. It is written
// "view:q,r".
type Cell struct {
	View View
	Q, R int
}

// cellUnits is the distance between neighbouring cells in the whole-body
// views: 12 mm at a height of 171 cm. Close-ups are scaled to the same size.
const cellUnits = 7

// CellSize is the distance between neighbouring cells in view units.
func (v View) CellSize() float64 {
	return cellUnits / v.share()
}

func (c Cell) String() string { return fmt.Sprintf("%s:%d,%d", c.View, c.Q, c.R) }

// ParseCell reads a cell id.
func ParseCell(s string) (Cell, error) {
	view, qr, _ := strings.Cut(s, ":")
	qs, rs, _ := strings.Cut(qr, ",")
	q, err1 := strconv.Atoi(qs)
	r, err2 := strconv.Atoi(rs)
	c := Cell{View(view), q, r}
	if err1 != nil || err2 != nil || !c.View.Known() || c.String() != s {
		return Cell{}, fmt.Errorf("body: %q is not a cell id such as back:-4,31", s)
	}
	return c, nil
}

// Center of a cell in view coordinates.
func (c Cell) Center() Point {
	w := c.View.CellSize()
	return Point{c.View.middle() + w*(float64(c.Q)+float64(c.R)/2), w * math.Sqrt(3) / 2 * float64(c.R)}
}

// InView reports whether the cell lies within its view's edges, on the figure
// or beside it.
func (c Cell) InView() bool {
	p := c.Center()
	return p.X >= 0 && p.X <= c.View.Width() && p.Y >= 0 && p.Y <= 1000
}

// CellAt finds the cell that holds a point.
func CellAt(v View, p Point) Cell {
	w := v.CellSize()
	r := p.Y / (w * math.Sqrt(3) / 2)
	q := (p.X-v.middle())/w - r/2
	// Round in cube coordinates, mending the one that moved most.
	rq, rr, rs := math.Round(q), math.Round(r), math.Round(-q-r)
	dq, dr, ds := math.Abs(rq-q), math.Abs(rr-r), math.Abs(rs+q+r)
	switch {
	case dq > dr && dq > ds:
		rq = -rr - rs
	case dr > ds:
		rr = -rq - rs
	}
	return Cell{v, int(rq), int(rr)}
}

// Mirrored is the cell on the other side of the body.
func (c Cell) Mirrored() Cell { return Cell{c.View.mirrorView(), -c.Q - c.R, c.R} }

// CM2 is the area of a cell of the view for a client's height.
func (v View) CM2(heightCM float64) float64 {
	w := v.CellSize() * v.CMPerUnit(heightCM)
	return math.Sqrt(3) / 2 * w * w
}

// NamedCell is a cell with its region and side.
type NamedCell struct {
	Cell   Cell
	Region ids.Region
	Side   ids.Side
}

var lattices sync.Map // View → *lattice

type lattice struct {
	cells []NamedCell
	index map[Cell]int
}

// latticeOf covers a view with the cells whose centres lie on the figure.
func latticeOf(v View) *lattice {
	if l, ok := lattices.Load(v); ok {
		return l.(*lattice)
	}
	l := &lattice{index: map[Cell]int{}}
	w := v.CellSize()
	rows := int(1000/(w*math.Sqrt(3)/2)) + 1
	half := int(v.middle()/w) + 2
	for r := 0; r <= rows; r++ {
		row := onFigure(v, Cell{v, 0, r}.Center().Y)
		for q := -half - r/2 - 1; q <= half; q++ {
			c := Cell{v, q, r}
			p := c.Center()
			if within(row, p.X) {
				region, side := regionAt(v, p)
				l.index[c] = len(l.cells)
				l.cells = append(l.cells, NamedCell{c, region, side})
			}
		}
	}
	got, _ := lattices.LoadOrStore(v, l)
	return got.(*lattice)
}

// onFigure gives the stretches of a horizontal line that lie on the figure.
func onFigure(v View, y float64) [][2]float64 {
	var row [][2]float64
	for _, s := range contoursOf(v).Shapes {
		row = append(row, Spans(s.poly, y)...)
	}
	return row
}

// within: the left end of a span belongs to it and the right one does not, so that two spans
// share no cell.
func within(row [][2]float64, x float64) bool {
	return slices.ContainsFunc(row, func(s [2]float64) bool { return s[0] <= x && x < s[1] })
}

// Cells lists a view's cells, row by row.
func Cells(v View) []NamedCell { return latticeOf(v).cells }

// row of cells in a view.
type row struct {
	view View
	r    int
}

// rows that were asked for one cell by one: from where to where they lie on the figure.
var rows sync.Map

// rowOf is where a row of cells lies on the figure. It is kept, because the next touch is
// often in the same row.
func rowOf(c Cell, y float64) [][2]float64 {
	k := row{c.View, c.R}
	if known, ok := rows.Load(k); ok {
		return known.([][2]float64)
	}
	spans := onFigure(c.View, y)
	if len(spans) > 0 { // of those beside the figure there is no end
		rows.Store(k, spans)
	}
	return spans
}

// RegionOf names a cell; ok is false off the figure.
func RegionOf(c Cell) (n NamedCell, ok bool) {
	if !c.View.Known() {
		return NamedCell{}, false
	}
	l, made := lattices.Load(c.View)
	if !made {
		// One cell is asked for more often than all of them.
		p := c.Center()
		if !within(rowOf(c, p.Y), p.X) {
			return NamedCell{}, false
		}
		region, side := regionAt(c.View, p)
		return NamedCell{c, region, side}, true
	}
	i, ok := l.(*lattice).index[c]
	if !ok {
		return NamedCell{}, false
	}
	return l.(*lattice).cells[i], true
}
