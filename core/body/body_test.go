package body

import (
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/decode"
	"mokren/core/ids"
)

func TestLandmarksLieOnTheFigure(t *testing.T) {
	names := map[ids.Landmark]bool{}
	for _, v := range Views {
		f := Draw(v)
		for _, l := range LandmarksOf(v) {
			names[l.ID] = true
			assert.Nil(t, l.ID.Check())
			assert.True(t, f.Contains(l.Point), "%s %s %s lies off the figure", v, l.ID, l.Side)
			if l.Side != ids.Midline {
				assert.Equal(t, l.Side, v.SideAt(l.Point), "%s %s", v, l.ID)
			}
		}
	}
	assert.GreaterOrEqual(t, len(names), 60)
}

// The heights that published proportions give, in thousandths above ground.
func TestProportions(t *testing.T) {
	for _, c := range []struct {
		view  View
		id    ids.Landmark
		above float64
	}{
		{Front, "acromion", 818},
		{Back, "greater-trochanter", 530},
		{Back, "iliac-crest", 585},
		{Front, "patella", 285},
		{Back, "lateral-malleolus", 47},
		{Front, "lateral-epicondyle", 620},
		{Front, "radial-styloid", 485},
	} {
		p, err := FindLandmark(c.view, c.id, ids.Left)
		require.NoError(t, err)
		assert.InDelta(t, c.above, 1000-p.Y, 8, "%s", c.id)
	}
}

// Breadths and lengths against published tables, as shares of the height:
// segment lengths, head, hip and foot after Drillis and Contini (1966) and
// Winter (2009); the shoulders between the acromia, waist, neck, knee and calf
// after means of adult surveys of both sexes (working values).
func TestBreadthsAndSegments(t *testing.T) {
	breadth := func(v View, shape string, y float64) float64 {
		f := Draw(v)
		for _, s := range f.Shapes {
			if s.ID == shape {
				widest := 0.0
				for _, x := range Spans(s.poly, y) {
					widest = max(widest, x[1]-x[0])
				}
				return widest / 1000
			}
		}
		t.Fatalf("%s has no %s", v, shape)
		return 0
	}
	for _, c := range []struct {
		name  string
		is    float64
		wants float64
	}{
		{"head, side to side", breadth(Front, "head", 48), 0.089},
		{"neck", breadth(Front, "body", 130), 0.066},
		{"waist", breadth(Front, "body", 381), 0.160},
		{"hips", breadth(Front, "body", 490), 0.195},
		{"calf", breadth(Back, "body", 785), 0.060},
		{"knee", breadth(Front, "body", 714), 0.052},
		{"head, front to back", breadth(LeftSide, "head", 50), 0.113},
		{"foot", breadth(LeftSide, "body", 996), 0.152},
	} {
		assert.InDelta(t, c.wants, c.is, 0.012, "%s", c.name)
	}
	between := func(a, b ids.Landmark) float64 {
		p, err := FindLandmark(Front, a, ids.Left)
		require.NoError(t, err)
		q, err := FindLandmark(Front, b, ids.Left)
		require.NoError(t, err)
		return p.Distance(q) / 1000
	}
	assert.InDelta(t, 0.186, between("acromion", "lateral-epicondyle"), 0.025, "upper arm")
	assert.InDelta(t, 0.146, between("lateral-epicondyle", "radial-styloid"), 0.015, "forearm")
	assert.InDelta(t, 0.245, between("greater-trochanter", "patella"), 0.012, "thigh")
	assert.InDelta(t, 0.246, between("patella", "lateral-malleolus"), 0.012, "shank")
	hand := 0.0
	for _, p := range handFile().Outline.points() {
		hand = max(hand, p.Y/1000)
	}
	assert.InDelta(t, 0.108, hand, 0.01, "hand")
}

// Palpation's levels: crest line L4, PSIS S2, T7 at the lower scapular angle,
// T3 at the root of the scapular spine, T12 halfway between crest and angle.
func TestLevelsMatchTheirLandmarks(t *testing.T) {
	y := func(id ids.Landmark) float64 {
		p, err := FindLandmark(Back, id, ids.Right)
		require.NoError(t, err)
		return p.Y
	}
	assert.InDelta(t, y("iliac-crest"), y("L4"), 3)
	assert.InDelta(t, y("psis"), y("S2"), 1)
	assert.InDelta(t, y("scapula-inferior-angle"), y("T7"), 1)
	assert.InDelta(t, y("scapula-spine-root"), y("T3"), 1)
	assert.InDelta(t, (y("iliac-crest")+y("scapula-inferior-angle"))/2, y("T12"), 2)
	order := strings.Fields("C1 C2 C3 C4 C5 C6 C7 T1 T2 T3 T4 T5 T6 T7 T8 T9 T10 T11 T12 L1 L2 L3 L4 L5 S2")
	for i := 1; i < len(order); i++ {
		assert.Less(t, y(ids.Landmark(order[i-1])), y(ids.Landmark(order[i])))
	}
}

func TestEveryCellHasOneRegionAndItsMirrorImage(t *testing.T) {
	regions := map[ids.Region]bool{}
	for _, v := range Views {
		cells := Cells(v)
		require.NotEmpty(t, cells)
		for _, n := range cells {
			require.Nil(t, n.Region.Check(), "%s", n.Cell)
			regions[n.Region] = true
			back, err := ParseCell(n.Cell.String())
			require.NoError(t, err)
			assert.Equal(t, n.Cell, back)
			assert.Equal(t, n.Cell, CellAt(v, n.Cell.Center()))
			if v.OneSided() && n.Side != ids.Midline {
				assert.Equal(t, v.side(true), n.Side)
			}
			m, ok := RegionOf(n.Cell.Mirrored())
			if assert.True(t, ok, "%s has no mirror image", n.Cell) {
				assert.Equal(t, n.Region, m.Region)
				if n.Cell != n.Cell.Mirrored() {
					assert.Equal(t, n.Side.Other(), m.Side)
				}
			}
		}
	}
	for _, s := range slices.Concat(seeds()[Front], seeds()[Back], seeds()[SoleLeft]) {
		assert.True(t, regions[s.region], "no cell is called %s", s.region)
	}
}

func TestCellsAreAboutTwelveMillimetres(t *testing.T) {
	for _, v := range Views {
		assert.InDelta(t, 12, v.CellSize()*v.CMPerUnit(172)*10, 0.5, "%s", v)
	}
	assert.InDelta(t, Front.CM2(170)/Front.CM2(85), 4, 1e-9, "area goes with the square of the height")
}

func TestCellAtFindsTheNearestCell(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v := rapid.SampledFrom(Views).Draw(t, "view")
		p := Point{rapid.Float64Range(0, v.Width()).Draw(t, "x"), rapid.Float64Range(0, 1000).Draw(t, "y")}
		c := CellAt(v, p)
		d := c.Center().Distance(p)
		for _, n := range []Cell{
			{v, c.Q + 1, c.R},
			{v, c.Q - 1, c.R},
			{v, c.Q, c.R + 1},
			{v, c.Q, c.R - 1},
			{v, c.Q + 1, c.R - 1},
			{v, c.Q - 1, c.R + 1},
		} {
			assert.LessOrEqual(t, d, n.Center().Distance(p)+1e-9)
		}
	})
}

func TestBadCellIdsAreRefused(t *testing.T) {
	for _, s := range []string{
		"", "front", "front:1", "front:1,2,3", "top:1,2", "front:01,2", "front:a,b",
		"front: 1,2",
	} {
		_, err := ParseCell(s)
		assert.Error(t, err, "%q", s)
	}
}

// Every region of the vocabulary is found on the figure, and a region that a
// view has on one side it has on the other.
func TestNoRegionIsEmpty(t *testing.T) {
	found := map[ids.Region]map[ids.Side]bool{}
	for _, v := range Views {
		for _, c := range Cells(v) {
			if found[c.Region] == nil {
				found[c.Region] = map[ids.Side]bool{}
			}
			found[c.Region][c.Side] = true
		}
	}
	for _, r := range ids.Regions() {
		sides := found[r]
		assert.True(t, sides[ids.Midline] || sides[ids.Left] && sides[ids.Right], "%s: %v", r, sides)
	}
}

func TestEveryLandmarkIsDrawnAndEveryBoneSeen(t *testing.T) {
	for _, id := range ids.Landmarks() {
		shown := false
		for _, v := range Views {
			_, left := FindLandmark(v, id, ids.Left)
			_, middle := FindLandmark(v, id, ids.Midline)
			shown = shown || left == nil || middle == nil
		}
		assert.True(t, shown, "%s is in no view", id)
	}
	for _, v := range Views {
		assert.NotEmpty(t, Bones(v), "%s", v)
	}
}

func TestLevelsAtTheirLandmarks(t *testing.T) {
	for landmark, want := range map[ids.Landmark]ids.Landmark{
		"iliac-crest": "L4", "psis": "S2", "sacrum-base": "L5", "above-sacral-hollow": "L5",
		"crest-scapula-midpoint": "T12",
		"scapula-inferior-angle": "T7", "scapula-spine-root": "T3", "suboccipital-hollow": "C1",
		"external-occipital-protuberance": "C1",
		"first-spinous-below-occiput":     "C2", "L3": "L3",
	} {
		l, err := LevelAt(landmark)
		require.NoError(t, err)
		assert.Equal(t, want, l.Level, "%s", landmark)
		assert.Equal(t, 1, l.PlusMinus, "palpation says so")
	}
	_, err := LevelAt("patella")
	assert.ErrorContains(t, err, "$.landmark")
}

// The finger-width rules and the rule of threes.
func TestWhatLiesBesideTheSpine(t *testing.T) {
	for _, c := range []struct {
		level     ids.Landmark
		out, down float64
		structure string
		of        ids.Landmark
	}{
		{"L3", 0, 0, "spinous-process", "L3"},
		{"L3", 1, 1, "facet-joint", "L3"},
		{"L3", 2, 0, "transverse-process", "L3"},
		{"C5", 1, 0, "facet-joint", "C5"},
		{"C5", 1.5, 0, "transverse-process", "C5"},
		{"T1", 2, 0, "transverse-process", "T1"},
		{"T3", 2, 0, "transverse-process", "T3"},
		{"T12", 2, 0, "transverse-process", "T12"},
		{"T7", 2, 0, "transverse-process", "T8"},
		{"T10", 2, 0, "transverse-process", "T11"},
		{"T5", 2, 0, "transverse-process", "T5"},
		{"T11", 2, 0, "transverse-process", "T11"},
		{"T7", 3, 0, "rib-joint", "T8"},
		{"T2", 4, 0, "rib-angle", "T2"},
		{"S2", 1, 0, "sacral-foramen", "S2"},
		{"S1", 2, 0, "sacroiliac-joint", "S1"},
		{"S2", 2.5, 0, "psis", "S2"},
		{"C1", 0, 0, "soft-tissue", "C1"},
		{"L3", 8, 0, "soft-tissue", "L3"},
		// Further down is another vertebra, whatever part of the spine it is of.
		{"L3", 1, 7, "sacral-foramen", "S3"},
		// Each part of the spine is counted by its own spacing.
		{"C7", 0, 6, "spinous-process", "T4"},
		{"C7", 0, 9, "spinous-process", "T6"},
		{"L3", 1, 3, "facet-joint", "L4"},
		{"C5", 1, 1, "facet-joint", "C6"},
		{"C7", 2, 1, "transverse-process", "T1"},
		{"S1", 1, 2, "sacral-foramen", "S3"},
		{"T12", 2, 2, "transverse-process", "L1"},
		// Ribs eleven and twelve have no joint there, and twelve no angle.
		{"T11", 3, 0, "soft-tissue", "T11"},
		{"T12", 3, 0, "soft-tissue", "T12"},
		{"T11", 4, 0, "rib-angle", "T11"},
		{"T12", 4, 0, "soft-tissue", "T12"},
	} {
		b, err := FindBeside(c.level, c.out, c.down, 1.8)
		require.NoError(t, err)
		assert.Equal(t, c.structure, b.Structure, "%+v", c)
		assert.Equal(t, c.of, b.Level, "%+v", c)
		assert.InDelta(t, c.out*1.8, b.OutCM, 1e-9)
		assert.NotEmpty(t, b.Text)
	}
	for _, c := range []struct {
		level     ids.Landmark
		out, down float64
	}{{"S3", 1, 9}, {"S2", 0, 7}, {"L3", 1, 9}} {
		_, err := FindBeside(c.level, c.out, c.down, 1.8)
		assert.ErrorContains(t, err, "$.fingers_down", "below the sacrum")
	}
	_, err := FindBeside("C2", 1, -4, 1.8)
	assert.ErrorContains(t, err, "$.fingers_down", "above the neck")
	// A whole level up from T8's tip is T8's own transverse process.
	up, err := FindBeside("T8", 2, -2.4/1.8, 1.8)
	require.NoError(t, err)
	assert.Equal(t, ids.Landmark("T8"), up.Level)
	l, err := Count("L4", -4)
	require.NoError(t, err)
	assert.Equal(t, ids.Landmark("T12"), l.Level)
	_, err = Count("C2", -2)
	assert.ErrorContains(t, err, "$.count_down")
}

// Wherever a finger goes down the midline, the level is the nearest on the figure.
func TestCountingAgreesWithTheFigure(t *testing.T) {
	for i, from := range spine {
		for down := -9.0; down <= 9; down++ {
			b, err := FindBeside(from, 0, down, 1.8)
			goal := tipCM(i) + down*1.8
			best := 0
			for k := range spine {
				if math.Abs(tipCM(k)-goal) < math.Abs(tipCM(best)-goal) {
					best = k
				}
			}
			if err != nil {
				assert.Greater(t, math.Abs(tipCM(best)-goal), 0.4, "%s %v", from, down)
				continue
			}
			assert.Equal(t, spine[best], b.Level, "%s %v", from, down)
		}
	}
}

func drawing(t *rapid.T, name string) CellSet {
	v := rapid.SampledFrom(Views).Draw(t, name+" view")
	cells := Cells(v)
	out := CellSet{}
	for _, i := range rapid.SliceOfN(rapid.IntRange(0, len(cells)-1), 0, 40).Draw(t, name) {
		out[cells[i].Cell] = true
	}
	return out
}

func TestDrawingsAddUp(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a, b := drawing(t, "a"), drawing(t, "b")
		both, union := CellSet{}, CellSet{}
		for c := range a {
			union[c] = true
			if b[c] {
				both[c] = true
			}
		}
		for c := range b {
			union[c] = true
		}
		assert.InDelta(t, a.AreaCM2(170)+b.AreaCM2(170), union.AreaCM2(170)+both.AreaCM2(170), 1e-6)
		assert.InDelta(t, a.AreaCM2(170), a.Without(b).AreaCM2(170)+both.AreaCM2(170), 1e-6)
		assert.InDelta(t, a.Dice(b), b.Dice(a), 1e-12)
		assert.InDelta(t, 1, a.Dice(a), 1e-12)
		if len(both) == 0 && len(union) > 0 {
			assert.InDelta(t, 0, a.Dice(b), 1e-12)
		}
	})
}

func TestADrawingInWords(t *testing.T) {
	heel := CellSet{}
	for _, c := range Cells(SoleLeft) {
		if c.Region == "heel" {
			heel[c.Cell] = true
		}
	}
	words := heel.Regions()
	require.Len(t, words, 1)
	assert.Equal(t, RegionCover{"heel", ids.Left, 1}, words[0])
	p, ok := heel.Centre(SoleLeft)
	require.True(t, ok)
	n, _ := RegionOf(CellAt(SoleLeft, p))
	assert.Equal(t, ids.Region("heel"), n.Region)
	_, ok = heel.Centre(Front)
	assert.False(t, ok)
	assert.Empty(t, CellSet{}.Regions())
}

// The data files are read strictly: ids, parts and shapes are known, and no
// field is misspelt.
func TestTheDataFilesAreWellFormed(t *testing.T) {
	for name, c := range map[string]struct {
		raw  []byte
		into any
	}{
		"regions":        {regionsJSON, new(regionData)},
		"side-view":      {sidesJSON, new(sideData)},
		"front-and-back": {frontBackJSON, new(frontBackData)},
		"hand":           {handsJSON, new(handData)},
		"soles":          {solesJSON, new(soleData)},
		"bones":          {bonesJSON, new(authored[lineData])},
		"landmarks":      {landmarksJSON, new(authored[markData])},
	} {
		assert.NoError(t, decode.JSON(c.raw, c.into), name)
	}
}
