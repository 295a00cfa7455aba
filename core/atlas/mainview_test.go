package atlas_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/atlas"
	"mokren/core/body"
)

func TestTheViewThatTheWorkWants(t *testing.T) {
	type (
		w     = atlas.Work
		views = []body.View
		cells = map[body.View]int
	)
	front, back, sole := body.Front, body.Back, body.SoleLeft
	for name, c := range map[string]struct {
		work w
		want views
	}{
		"nothing":                     {w{}, views{front, back}},
		"anywhere":                    {w{Anywhere: true}, views{front, back}},
		"points behind":               {w{Points: views{back, back}}, views{back}},
		"points behind and in front":  {w{Points: views{back, front}}, views{front, back}},
		"a third is turned to":        {w{Points: views{sole, back, back, front, front}}, views{front, back}},
		"a drawing with a stray cell": {w{Painted: cells{back: 99, front: 1}}, views{back}},
		"a drawing on both":           {w{Painted: cells{back: 90, front: 10}}, views{front, back}},
		"one cell alone":              {w{Painted: cells{sole: 1}}, views{sole}},
		"points before the drawing":   {w{Points: views{back}, Painted: cells{front: 9}}, views{back}},
		"a muscle before points":      {w{Muscle: "pectoralis-major", Side: "left", Points: views{back}}, views{front}},
		"the place of a muscle":       {w{Muscle: "soleus", Side: "left", Points: views{front}}, views{back}},
		"the aim before the muscle":   {w{Aim: front, Muscle: "soleus", Side: "left"}, views{front}},
	} {
		assert.Equal(t, c.want, atlas.MainViews(c.work), name)
	}
	// Each usual place of each muscle is seen in the view that it asks for.
	for _, m := range atlas.All() {
		for _, s := range m.Sites {
			v, _ := m.OnFigure(s.Place(body.DefaultHeightCM), "left", body.DefaultHeightCM)
			got := atlas.MainViews(w{Muscle: m.ID, Side: "left", Site: s.ID})
			assert.Equal(t, views{v}, got, "%s at %s", m.ID, s.ID)
		}
	}
}
