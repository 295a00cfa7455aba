package safety

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
)

func TestEveryStructureHasASignAndAnAct(t *testing.T) {
	list := Structures()
	assert.Len(t, list, len(ids.Structures()))
	for _, s := range list {
		assert.Nil(t, s.ID.Check())
		assert.NotEmpty(t, s.Name)
		assert.NotEmpty(t, s.Sign, "%s", s.ID)
		assert.NotEmpty(t, s.Do, "%s", s.ID)
		again, ok := FindStructure(s.ID)
		assert.True(t, ok)
		assert.Equal(t, s, again)
	}
	_, ok := FindStructure("funny-bone")
	assert.False(t, ok)
}

// Left and right are mirror images but for what the body has once: the spleen
// and the great vein of the belly.
func TestStructuresAreMirrored(t *testing.T) {
	for _, v := range []body.View{body.Front, body.Back} {
		left, right := 0, 0
		for _, s := range Shapes(v) {
			switch s.Side {
			case ids.Left:
				left++
			case ids.Right:
				right++
			}
			assert.Positive(t, s.RadiusMM)
			for _, p := range s.Line {
				if s.Side != ids.Midline {
					assert.Equal(t, s.Side, v.SideAt(p), "%s", s.Structure)
				}
			}
		}
		assert.Positive(t, left)
		assert.Positive(t, right)
	}
	for _, v := range []body.View{body.LeftSide, body.HeadLeft} {
		for _, s := range Shapes(v) {
			assert.NotEqual(t, ids.Right, s.Side, "%s shows one side", v)
		}
	}
}

func TestAdaptationNeverRaises(t *testing.T) {
	base := Limits{4, 4, 5, 40_000}
	for _, a := range []Adaptation{
		{},
		{Down: 1},
		{Ceiling: number(3)},
		{Ceiling: number(9)},
		{CapSeconds: number(60)},
		{Down: 9},
	} {
		l := a.On(base)
		assert.True(t, l.Within(base), "%+v", a)
		assert.GreaterOrEqual(t, l.Target, 0.0)
		assert.LessOrEqual(t, l.Target, l.Soft)
		assert.LessOrEqual(t, l.Soft, l.Hard)
	}
}

func TestTheStructureFileIsWellFormed(t *testing.T) {
	var read []entry
	require.NoError(t, decode.JSON(structureFile, &read))
	assert.Len(t, read, len(ids.Structures()), "each structure once")
}
