package picture

import (
	"encoding/xml"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/ids"
)

func TestSVGIsWellFormedAndDrawsEverything(t *testing.T) {
	for _, v := range body.Views {
		w := LayerRequest{View: v, Layers: layers}
		svg, d := SVG(w), Draw(w)
		dec := xml.NewDecoder(strings.NewReader(svg))
		for {
			_, err := dec.Token()
			if err == io.EOF {
				break
			}
			require.NoError(t, err, "%s", v)
		}
		f := body.Draw(v)
		paths := 4*len(f.Shapes) + len(f.Inner) + len(f.Shades) + len(d.Bones)
		for _, s := range d.Strands {
			paths += len(s.Fibres) + len(s.Bands)
			for _, area := range []string{s.Sinew, s.Belly} {
				if area != "" {
					paths++
				}
			}
		}
		assert.Equal(t, paths, strings.Count(svg, "<path"),
			"%s: outline, fill and both clips of each shape, and the layers", v)
		assert.Equal(t, 2*len(d.Structures), strings.Count(svg, "<polyline"))
		assert.Equal(t, len(d.Landmarks), strings.Count(svg, "<circle"))
	}
}

func TestLayersKeepWhatIsAskedFor(t *testing.T) {
	d := Draw(
		LayerRequest{View: body.Back, Layers: []Layer{Muscles, Referral}, Only: []ids.Muscle{"soleus"}, Side: ids.Left},
	)
	require.Len(t, d.Strands, 1)
	for _, s := range d.Strands {
		assert.Equal(t, ids.Left, s.Side)
	}
	require.Len(t, d.Zones, 1)
	assert.NotEmpty(t, d.Zones[0].Essential)
	assert.Empty(t, d.Landmarks)
	assert.Empty(t, Draw(LayerRequest{View: body.Back, Layers: []Layer{Referral}}).Zones,
		"the patterns of all muscles at once say nothing")
	require.NotNil(t, d.Box, "what was asked for has a box")
	for _, c := range d.Zones[0].Essential {
		assert.InDelta(t, d.Box.X+d.Box.Width/2, c[0], d.Box.Width/2+0.01, "the referral is in it")
		assert.InDelta(t, d.Box.Y+d.Box.Height/2, c[1], d.Box.Height/2+0.01)
	}
	alone := Draw(LayerRequest{View: body.Back, Layers: []Layer{Muscles}, Only: []ids.Muscle{"soleus"}, Side: ids.Left})
	assert.Less(t, alone.Box.Height, d.Box.Height)
	assert.Nil(t, Draw(LayerRequest{View: body.Back, Layers: []Layer{Muscles}}).Box)
	peeled := Draw(LayerRequest{View: body.Front, Layers: []Layer{Muscles}, Depth: 3}).Strands
	assert.Len(t, peeled, len(Draw(LayerRequest{View: body.Front, Layers: []Layer{Muscles}}).Strands))
	for i, s := range peeled {
		assert.Equal(t, s.Layer < 3, s.Faded, "%s", s.Muscle)
		if i > 0 {
			assert.LessOrEqual(t, s.Layer, peeled[i-1].Layer, "the deepest is drawn first")
		}
	}
}

func TestEveryStructureAndMuscleIsShownSomewhere(t *testing.T) {
	muscles, structures := map[ids.Muscle]bool{}, map[ids.Structure]bool{}
	for _, v := range body.Views {
		d := Draw(LayerRequest{View: v, Layers: []Layer{Muscles, Structures}})
		f := body.Draw(v)
		for _, s := range d.Strands {
			muscles[s.Muscle] = true
		}
		for _, s := range d.Structures {
			structures[s.Structure] = true
			for _, p := range s.Line {
				assert.True(t, f.Contains(p), "%s %s %s %v lies off the figure", v, s.Structure, s.Side, p)
			}
		}
	}
	for _, m := range ids.Muscles() {
		assert.True(t, muscles[m], "%s", m)
	}
	for _, s := range ids.Structures() {
		assert.True(t, structures[s], "%s has no geometry", s)
	}
}
