package api

import (
	"context"
	"encoding/json"
	"math"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/picture"
)

// FigureView is a view's drawing with its landmarks.
type FigureView struct {
	body.Figure
	Landmarks []body.Landmark `json:"landmarks"`
}

// Lattice is a view's cells, compact: q and r name a cell ("view:q,r"), x and
// y are its centre, region is an index into regions.
type Lattice struct {
	Size    float64       `json:"size" doc:"distance of neighbouring cells, view units"`
	CM2     float64       `json:"cm2" doc:"area of a cell at a height of 170 cm"`
	Regions []ids.Region  `json:"regions"`
	Cells   []LatticeCell `json:"cells"`
}

// LatticeCell is one cell.
type LatticeCell struct {
	Q      int      `json:"q"`
	R      int      `json:"r"`
	X      float64  `json:"x"`
	Y      float64  `json:"y"`
	Region int      `json:"g"`
	Side   ids.Side `json:"s"`
}

func latticeOf(v body.View) Lattice {
	out := Lattice{
		Size: v.CellSize(), CM2: v.CM2(body.DefaultHeightCM), Regions: []ids.Region{},
		Cells: []LatticeCell{},
	}
	index := map[ids.Region]int{}
	for _, n := range body.Cells(v) {
		i, ok := index[n.Region]
		if !ok {
			i = len(out.Regions)
			index[n.Region] = i
			out.Regions = append(out.Regions, n.Region)
		}
		p := n.Cell.Center()
		out.Cells = append(out.Cells, LatticeCell{
			n.Cell.Q, n.Cell.R, math.Round(p.X*10) / 10,
			math.Round(p.Y*10) / 10, i, n.Side,
		})
	}
	return out
}

// ByView is the view in the address.
type ByView struct {
	View string `path:"view"`
}

func (p ByView) view() (body.View, error) {
	v := body.View(p.View)
	if e := v.Check(); e != nil {
		return v, huma.Error404NotFound("The figure has no such view.",
			&huma.ErrorDetail{Location: "path.view", Message: "allowed: " + e.Allowed, Value: p.View})
	}
	return v, nil
}

// FigureVersion in the query names the drawing that is asked for, so that it can
// be kept for good; a program with another drawing asks by another name.
type FigureVersion struct {
	Figure string `query:"figure" maxLength:"40" doc:"version of the figure, to be kept for good; without it, what is drawn today"`
}

// keep tells how long an answer may be kept.
func (f FigureVersion) keep() string {
	if f.Figure == body.Version {
		return "public, max-age=31536000, immutable"
	}
	return "no-cache"
}

type cachedOut[T any] struct {
	CacheControl string `header:"Cache-Control"`
	Body         T
}

func (s *server) registerFigure(a huma.API) {
	huma.Register(a, op("figure", http.MethodGet, "/api/figure/{view}", "The drawing of a view", 404), figure)
	huma.Register(a, op("lattice", http.MethodGet, "/api/figure/{view}/lattice", "The cells of a view", 404), lattice)
	huma.Register(a, op("figure-svg", http.MethodGet, "/api/figure/{view}/svg", "A view with layers as SVG",
		404, 422), svg)
}

func figure(_ context.Context, in *struct {
	ByView
	FigureVersion
},
) (*cachedOut[FigureView], error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	return &cachedOut[FigureView]{in.keep(), FigureView{body.Draw(v), body.LandmarksOf(v)}}, nil
}

func lattice(_ context.Context, in *struct {
	ByView
	FigureVersion
},
) (*cachedOut[Lattice], error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	return &cachedOut[Lattice]{in.keep(), latticeOf(v)}, nil
}

type svgOut struct {
	ContentType        string `header:"Content-Type"`
	ContentDisposition string `header:"Content-Disposition"`
	Body               []byte
}

// svg hands a view out as a file. What may be asked for is the core's to say.
func svg(_ context.Context, in *struct {
	ByView
	Layers []string `query:"layers" doc:"bones, landmarks, muscles, structures, referral; comma separated"`
	Depth  int      `query:"depth" minimum:"0" maximum:"4"`
	Only   []string `query:"only" maxItems:"100" doc:"muscle ids; comma separated"`
	Side   string   `query:"side" enum:",left,right"`
},
) (*svgOut, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	raw, err := json.Marshal(map[string]any{
		"view": v, "layers": append([]string{}, in.Layers...), "depth": in.Depth,
		"only": append([]string{}, in.Only...),
	})
	if err != nil {
		return nil, err
	}
	var w picture.LayerRequest
	if err := decode.JSON(raw, &w); err != nil {
		return nil, refused(err)
	}
	w.Side = ids.Side(in.Side)
	return &svgOut{"image/svg+xml", `inline; filename="body-` + string(v) + `.svg"`, []byte(picture.SVG(w))}, nil
}
