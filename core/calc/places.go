package calc

import (
	"cmp"
	"fmt"
	"math"
	"strconv"
	"strings"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/picture"
	"mokren/core/pose"
	"mokren/core/sequence"
)

// PalpateIn names a muscle on a side; without a site it means all of them.
type PalpateIn struct {
	Muscle   ids.Muscle `json:"muscle"`
	Side     ids.Side   `json:"side"`
	Site     string     `json:"site,omitempty"`
	HeightCM *float64   `json:"height_cm,omitempty" minimum:"50" maximum:"250"`
	FingerCM *float64   `json:"finger_cm,omitempty" minimum:"1" maximum:"3" doc:"the therapist's finger-width; absent is 1.8"`
}

// Palpate computes the palpation guide.
func Palpate(in PalpateIn) (atlas.Guide, error) {
	if in.Side == ids.Midline {
		return atlas.Guide{}, &decode.Error{Path: "$.side", Given: `"midline"`, Allowed: "one of left, right"}
	}
	m, err := atlas.Get(in.Muscle)
	if err != nil {
		return atlas.Guide{}, err // every id of the vocabulary has data; a test says so
	}
	if _, ok := m.Site(in.Site); !ok && (m.IsPressed() || in.Site != "") {
		return atlas.Guide{}, noSite(m, in.Site)
	}
	finger := 0.0
	if in.FingerCM != nil {
		finger = *in.FingerCM
	}
	return m.Palpate(in.Side, in.Site, height(in.HeightCM), finger)
}

// noSite names the sites that the muscle has.
func noSite(m *atlas.Muscle, given string) *decode.Error {
	if e := atlas.Pressable(m.ID, "$.muscle"); e != nil {
		return e
	}
	var sites []string
	for _, s := range m.Sites {
		sites = append(sites, s.ID)
	}
	return &decode.Error{
		Path: "$.site", Given: fmt.Sprintf("%q", given), Allowed: "one of " + strings.Join(sites, ", "),
	}
}

// height is the client's, or the default where it is not known; in cm.
func height(h *float64) float64 {
	if h == nil {
		return body.DefaultHeightCM
	}
	return *h
}

// TouchIn is a touched place of a view.
type TouchIn struct {
	View     body.View `json:"view"`
	X        float64   `json:"x" minimum:"0" maximum:"1000"`
	Y        float64   `json:"y" minimum:"0" maximum:"1000"`
	HeightCM *float64  `json:"height_cm,omitempty" minimum:"50" maximum:"250"`
}

// UnderOut names the place and the muscles beneath it, likeliest first.
type UnderOut struct {
	Region  ids.Region        `json:"region,omitempty" doc:"empty off the figure"`
	Side    ids.Side          `json:"side"`
	Cell    string            `json:"cell"`
	Muscles []atlas.Candidate `json:"muscles"`
	// MMPerUnit is how much of this client a unit of the view stands for.
	MMPerUnit float64 `json:"mm_per_unit" doc:"of the client, a unit of the view"`
}

// Under answers a touch on the figure.
func Under(in TouchIn) (UnderOut, error) {
	v, p := in.View, body.Point{X: in.X, Y: in.Y}
	cell := body.CellAt(v, p)
	out := UnderOut{
		Cell: cell.String(), Side: v.SideAt(p), Muscles: []atlas.Candidate{},
		MMPerUnit: 10 * v.CMPerUnit(height(in.HeightCM)),
	}
	if n, ok := body.RegionOf(cell); ok {
		out.Region, out.Side = n.Region, n.Side
		out.Muscles = append(out.Muscles, atlas.Under(v, p, height(in.HeightCM))...)
	}
	return out, nil
}

// RegionSide is a region of the body on a side; midline regions accept any.
type RegionSide struct {
	Region ids.Region `json:"region"`
	Side   ids.Side   `json:"side"`
}

// CellsIn asks for the cells of regions in one view.
type CellsIn struct {
	View    body.View    `json:"view"`
	Regions []RegionSide `json:"regions" maxItems:"200"`
}

// CellsOut gives the centres of the cells, in view units, and their distance.
type CellsOut struct {
	Size  float64      `json:"size"`
	Cells [][2]float64 `json:"cells"`
}

// Cells finds the cells that belong to the regions, for drawing them.
func Cells(in CellsIn) (CellsOut, error) {
	v := in.View
	out := CellsOut{Size: v.CellSize(), Cells: [][2]float64{}}
	for _, n := range body.Cells(v) {
		for _, r := range in.Regions {
			if n.Region == r.Region && (n.Side == r.Side || n.Side == ids.Midline || r.Side == ids.Midline) {
				p := n.Cell.Center()
				out.Cells = append(out.Cells, [2]float64{p.X, p.Y})
				break
			}
		}
	}
	return out, nil
}

// PoseIn names a movement and the side on which it is measured.
type PoseIn struct {
	Movement ids.Movement `json:"movement"`
	Side     ids.Side     `json:"side,omitempty" doc:"right where it is left out"`
}

// Pose draws how a movement is measured.
func Pose(in PoseIn) (pose.Measured, error) {
	return pose.Draw(in.Movement, cmp.Or(in.Side, ids.Right))
}

// PositionIn names a position of the joints: how a muscle is lengthened or shortened, or what a
// test asks for.
type PositionIn struct {
	Muscle ids.Muscle   `json:"muscle,omitempty"`
	Set    string       `json:"set,omitempty" enum:"tension,slack" doc:"with a muscle; tension where it is left out"`
	Test   ids.Test     `json:"test,omitempty" doc:"in place of a muscle"`
	Side   ids.Side     `json:"side,omitempty" doc:"right where it is left out"`
	Lies   ids.Position `json:"lies,omitempty" doc:"how the client is placed; standing where it is left out"`
	// Technique is that of a step: one that moves no joint has no position.
	Technique ids.Technique `json:"technique,omitempty"`
}

// Position draws a position of the joints.
func Position(in PositionIn) (pose.Posed, error) {
	var joints []pose.Joint
	if t, ok := sequence.Find(in.Technique); ok && t.Way == 0 {
		return pose.Posed{}, &decode.Error{
			Path: "$.technique", Given: string(in.Technique), Allowed: "a technique that moves a joint",
		}
	}
	switch {
	case in.Muscle != "":
		m, err := atlas.Get(in.Muscle)
		if err != nil {
			return pose.Posed{}, err
		}
		list := m.Tension
		if in.Set == "slack" {
			list = m.Slack
		}
		for _, j := range list {
			joints = append(joints, pose.Joint{Movement: j.Movement, Toward: j.Toward, Deg: j.Deg})
		}
	case in.Test != "":
		for _, m := range assess.TestMovements(in.Test) {
			joints = append(joints, pose.Joint{Movement: m})
		}
	default:
		return pose.Posed{}, &decode.Error{Path: "$.muscle", Given: "nothing", Allowed: "a muscle, or a test"}
	}
	return pose.Position(joints, cmp.Or(in.Side, ids.Right), in.Lies)
}

// ViewsIn is what somebody looks at the body for.
type ViewsIn struct {
	Aim     body.View   `json:"aim,omitempty" doc:"where a finger has just been"`
	Muscle  ids.Muscle  `json:"muscle,omitempty"`
	Side    ids.Side    `json:"side,omitempty"`
	Site    string      `json:"site,omitempty" doc:"one of the muscle's usual places"`
	Points  []body.View `json:"points,omitempty" maxItems:"200" doc:"the view of each point"`
	Painted []OnView    `json:"painted,omitempty" maxItems:"8"`
	// Anywhere: the next touch may lie in front or behind.
	Anywhere bool `json:"anywhere,omitempty"`
}

// OnView is how many cells of a drawing lie in a view.
type OnView struct {
	View  body.View `json:"view"`
	Cells int       `json:"cells" minimum:"0"`
}

// ViewsOut are the views that fill the pane, one or two.
type ViewsOut struct {
	Views []body.View `json:"views"`
}

// Views chooses the views that the work wants.
func Views(in ViewsIn) (ViewsOut, error) {
	painted := map[body.View]int{}
	for _, p := range in.Painted {
		painted[p.View] += p.Cells
	}
	return ViewsOut{atlas.MainViews(atlas.Work{
		Aim: in.Aim, Muscle: in.Muscle, Side: in.Side, Site: in.Site, Points: in.Points, Painted: painted,
		Anywhere: in.Anywhere,
	})}, nil
}

// AtlasOut lists muscles, the best match first.
type AtlasOut struct {
	Muscles []AtlasEntry `json:"muscles"`
}

// AtlasEntry is a muscle in a list.
type AtlasEntry struct {
	ID     ids.Muscle `json:"id"`
	Name   string     `json:"name"`
	Latin  string     `json:"latin"`
	Kind   string     `json:"kind"`
	Region string     `json:"region"`
	Layer  int        `json:"layer"`
	Sites  []string   `json:"sites"`
	// Actions are the movements that it makes, in any order.
	Actions []ids.Movement `json:"actions"`
}

// Atlas searches the muscles.
func Atlas(in atlas.Query) (AtlasOut, error) {
	out := AtlasOut{Muscles: []AtlasEntry{}}
	for _, m := range atlas.Search(in) {
		e := AtlasEntry{
			ID: m.ID, Name: m.Name, Latin: m.Latin, Kind: m.Kind, Region: m.Region, Layer: m.Layer,
			Actions: []ids.Movement{}, Sites: []string{},
		}
		for _, a := range m.Actions {
			e.Actions = append(e.Actions, a.Movement)
		}
		for _, s := range m.Sites {
			e.Sites = append(e.Sites, s.ID)
		}
		out.Muscles = append(out.Muscles, e)
	}
	return out, nil
}

// HurtsOut names the place and the muscles that usually send pain there.
type HurtsOut struct {
	Region  ids.Region    `json:"region,omitempty" doc:"empty off the figure"`
	Side    ids.Side      `json:"side"`
	Matches []atlas.Match `json:"matches"`
}

// Hurts matches a place against all usual referral patterns, both sides.
func Hurts(in TouchIn) (HurtsOut, error) {
	p := body.Point{X: in.X, Y: in.Y}
	out := HurtsOut{Side: in.View.SideAt(p), Matches: []atlas.Match{}}
	if n, ok := body.RegionOf(body.CellAt(in.View, p)); ok {
		out.Region, out.Side = n.Region, n.Side
	}
	out.Matches = append(out.Matches, atlas.Hurts(in.View, p, height(in.HeightCM))...)
	return out, nil
}

// Layers draws the layers of a view.
func Layers(in picture.LayerRequest) (picture.ViewLayers, error) { return picture.Draw(in), nil }

// PlaceIn is a place kept by a muscle itself.
type PlaceIn struct {
	Muscle   ids.Muscle       `json:"muscle"`
	Side     ids.Side         `json:"side"`
	Place    atlas.FibrePlace `json:"place"`
	HeightCM *float64         `json:"height_cm,omitempty" minimum:"50" maximum:"250"`
}

// PlaceOut is the place on the figure.
type PlaceOut struct {
	View body.View `json:"view"`
	X    float64   `json:"x"`
	Y    float64   `json:"y"`
}

// Place finds a fibre place on the figure.
func Place(in PlaceIn) (PlaceOut, error) {
	if in.Side == ids.Midline {
		return PlaceOut{}, &decode.Error{Path: "$.side", Given: `"midline"`, Allowed: "one of left, right"}
	}
	m, err := atlas.Get(in.Muscle)
	if err != nil {
		return PlaceOut{}, err
	}
	if in.Place.Fibre >= len(m.Parts) {
		return PlaceOut{}, &decode.Error{
			Path: "$.place.fibre", Given: strconv.Itoa(in.Place.Fibre),
			Allowed: fmt.Sprintf("0 to %d", len(m.Parts)-1),
		}
	}
	v, p := m.OnFigure(in.Place, in.Side, height(in.HeightCM))
	return PlaceOut{v, p.X, p.Y}, nil
}

// StationsIn asks where attachment strokes are given on a muscle.
type StationsIn struct {
	Muscle   ids.Muscle `json:"muscle"`
	Side     ids.Side   `json:"side"`
	Stations int        `json:"stations" minimum:"3" maximum:"12"`
	HeightCM *float64   `json:"height_cm,omitempty" minimum:"50" maximum:"250"`
}

// StationsOut is a place a station, in order, on the muscle's longest attachment.
type StationsOut struct {
	View     body.View    `json:"view"`
	Stations []body.Point `json:"stations"`
}

// Stations lays the stations of attachment strokes on the figure.
func Stations(in StationsIn) (StationsOut, error) {
	if in.Side == ids.Midline {
		return StationsOut{}, &decode.Error{Path: "$.side", Given: `"midline"`, Allowed: "one of left, right"}
	}
	m, err := atlas.Get(in.Muscle)
	if err != nil {
		return StationsOut{}, err
	}
	view, at := m.Stations(in.Side, in.Stations, height(in.HeightCM))
	return StationsOut{view, at}, nil
}

// LevelIn is a landmark, or a level with finger-widths out and down from its
// spinous tip, or a level and a count.
type LevelIn struct {
	Landmark       ids.Landmark `json:"landmark,omitempty"`
	Level          ids.Landmark `json:"level,omitempty" enum:"C1,C2,C3,C4,C5,C6,C7,T1,T2,T3,T4,T5,T6,T7,T8,T9,T10,T11,T12,L1,L2,L3,L4,L5,S1,S2,S3,S4"`
	FingersLateral *float64     `json:"fingers_lateral,omitempty" minimum:"0" maximum:"10"`
	FingersDown    *float64     `json:"fingers_down,omitempty" minimum:"-10" maximum:"10"`
	CountDown      *int         `json:"count_down,omitempty" minimum:"-27" maximum:"27" doc:"levels down from level; negative is up"`
	FingerCM       *float64     `json:"finger_cm,omitempty" minimum:"1" maximum:"3"`
}

// LevelOut is the level, and for finger-widths the structure there.
type LevelOut struct {
	Structure string       `json:"structure,omitempty"`
	Level     ids.Landmark `json:"level"`
	PlusMinus int          `json:"plus_minus"`
	OutCM     *float64     `json:"out_cm,omitempty"`
	DownCM    *float64     `json:"down_cm,omitempty"`
	Text      string       `json:"text"`
}

// Level finds a vertebral level or what lies beside it.
func Level(in LevelIn) (LevelOut, error) {
	either := &decode.Error{
		Path: "$.landmark", Given: "both or neither of landmark and level",
		Allowed: "a landmark, or a level with fingers_lateral and fingers_down, or a level with count_down",
	}
	switch {
	case (in.Landmark == "") == (in.Level == ""):
		return LevelOut{}, either
	case in.Landmark != "":
		if in.FingersLateral != nil || in.FingersDown != nil || in.CountDown != nil {
			return LevelOut{}, either
		}
		l, err := body.LevelAt(in.Landmark)
		return LevelOut{Level: l.Level, PlusMinus: l.PlusMinus, Text: l.Text}, err
	case in.CountDown != nil:
		l, err := body.Count(in.Level, *in.CountDown)
		return LevelOut{Level: l.Level, PlusMinus: l.PlusMinus, Text: l.Text}, err
	}
	for _, f := range []struct {
		path string
		v    *float64
	}{{"$.fingers_lateral", in.FingersLateral}, {"$.fingers_down", in.FingersDown}} {
		if f.v == nil {
			return LevelOut{}, &decode.Error{Path: f.path, Given: "nothing", Allowed: "a number of finger-widths"}
		}
	}
	finger := atlas.FingerWidthCM
	if in.FingerCM != nil {
		finger = *in.FingerCM
	}
	b, err := body.FindBeside(in.Level, *in.FingersLateral, *in.FingersDown, finger)
	return LevelOut{b.Structure, b.Level, b.PlusMinus, &b.OutCM, &b.DownCM, b.Text}, err
}

// CellsByView is a drawing: cell ids by the view in which they were painted.
type CellsByView map[body.View][]string

// DrawingIn is two drawings of one client.
type DrawingIn struct {
	Before   CellsByView `json:"before"`
	After    CellsByView `json:"after"`
	HeightCM float64     `json:"height_cm" minimum:"50" maximum:"250"`
}

// DrawingOut compares them. ChangePercent is absent when nothing was painted
// before.
type DrawingOut struct {
	BeforeCM2     float64            `json:"before_cm2"`
	AfterCM2      float64            `json:"after_cm2"`
	Dice          float64            `json:"dice" doc:"overlap, 0 to 1"`
	ChangePercent *float64           `json:"change_percent,omitempty"`
	NewCM2        float64            `json:"new_cm2"`
	GoneCM2       float64            `json:"gone_cm2"`
	Before        []body.RegionCover `json:"before_regions"`
	After         []body.RegionCover `json:"after_regions"`
	New           []body.RegionCover `json:"new_regions"`
	Gone          []body.RegionCover `json:"gone_regions"`
}

// Drawing compares two pain drawings.
func Drawing(in DrawingIn) (DrawingOut, error) {
	before, err := in.Before.cells("$.before")
	if err != nil {
		return DrawingOut{}, err
	}
	after, err := in.After.cells("$.after")
	if err != nil {
		return DrawingOut{}, err
	}
	fresh, gone := after.Without(before), before.Without(after)
	list := func(s body.CellSet) []body.RegionCover { return append([]body.RegionCover{}, s.Regions()...) }
	out := DrawingOut{
		BeforeCM2: before.AreaCM2(in.HeightCM), AfterCM2: after.AreaCM2(in.HeightCM), Dice: before.Dice(after),
		NewCM2: fresh.AreaCM2(in.HeightCM), GoneCM2: gone.AreaCM2(in.HeightCM),
		Before: list(before), After: list(after), New: list(fresh), Gone: list(gone),
	}
	if out.BeforeCM2 > 0 {
		c := math.Round((out.AfterCM2-out.BeforeCM2)/out.BeforeCM2*1e6) / 1e4
		out.ChangePercent = &c
	}
	return out, nil
}

// cells reads a drawing; a cell painted twice counts once.
func (p CellsByView) cells(path string) (body.CellSet, error) {
	out := body.CellSet{}
	for view, list := range p {
		at := path + "." + string(view)
		if e := view.Check(); e != nil {
			return nil, e.Under(at)
		}
		for i, id := range list {
			c, err := body.ParseCell(id)
			if err == nil && c.View != view {
				err = fmt.Errorf("of another view")
			}
			if err == nil {
				if _, on := body.RegionOf(c); !on {
					err = fmt.Errorf("off the figure")
				}
			}
			if err != nil {
				return nil, &decode.Error{
					Path: at + "[" + strconv.Itoa(i) + "]", Given: strconv.Quote(id),
					Allowed: "a cell of this view on the figure, written " + string(view) + ":q,r",
				}
			}
			out[c] = true
		}
	}
	return out, nil
}
