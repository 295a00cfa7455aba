package progress_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/ids"
	"mokren/core/progress"
)

func TestPairAtItsBoundaries(t *testing.T) {
	for _, c := range []struct {
		measure       ids.Measure
		before, after float64
		meaningful    bool
		dir           progress.Direction
	}{
		{"nprs", 7, 5, true, progress.Better},
		{"nprs", 7, 5.5, false, progress.None},
		{"nprs", 5, 7, true, progress.Worse},
		{"nprs", 7, 4.9, true, progress.Better},
		{"nprs", 5, 3.5, true, progress.Better}, // exactly 30 %
		{"nprs", 3, 2.2, false, progress.None},
		{"nprs", 0, 1, false, progress.None}, // no percent of nothing
		{"nprs", 0, 2, true, progress.Worse},
		{"nprs", 1, 0, true, progress.Better},
		{"rom.ankle.dorsiflexion-knee-bent", 8, 13, true, progress.Better},
		{"rom.ankle.dorsiflexion-knee-bent", 8, 12.9, false, progress.None},
		{"rom.cervical.rotation", 60, 67, true, progress.Better},
		{"rom.cervical.rotation", 60, 66.9, false, progress.None},
		{"rom.lumbar.flexion", 50, 43, true, progress.Worse},
		{"ppt-kpa", 400, 500, true, progress.Better},
		{"ppt-kpa", 400, 499, false, progress.None},
		{"ppt-kpa", 200, 260, true, progress.Better},
		{"ppt-kpa", 0, 90, false, progress.None},
		{"tenderness-grade", 3, 2, true, progress.Better},
		{"tenderness-grade", 2, 2, false, progress.None},
		{"psfs-mean", 4, 6, true, progress.Better},
		{"psfs-mean", 4, 5.9, false, progress.None},
		{"psfs-item", 4, 6.9, false, progress.None},
		{"psfs-item", 4, 7, true, progress.Better},
		{"pain-area-cm2", 100, 70, true, progress.Better},
		{"pain-area-cm2", 100, 70.1, false, progress.None},
		{"pain-area-cm2", 0, 50, false, progress.None},
	} {
		got, err := progress.Pair(c.measure, c.before, c.after)
		require.NoError(t, err)
		assert.Equal(t, c.meaningful, got.Meaningful, "%+v", c)
		assert.Equal(t, c.dir, got.Direction, "%+v", c)
		assert.NotEmpty(t, got.Source)
	}
}

func TestRefusals(t *testing.T) {
	for _, c := range []struct {
		measure       ids.Measure
		before, after float64
		field         string
	}{
		{"nprs", 11, 3, "$.before"},
		{"nprs", 3, -1, "$.after"},
		{"shoulder-height", 1, 2, "$.measure"},
		{"rom.elbow.twist", 1, 2, "$.measure"},
		{"tenderness-grade", 5, 1, "$.before"},
	} {
		_, err := progress.Pair(c.measure, c.before, c.after)
		assert.ErrorContains(t, err, c.field)
	}
	_, err := progress.Series("nprs", []progress.Reading{{Day: 3, Value: 1}, {Day: 2, Value: 1}})
	assert.ErrorContains(t, err, "$.series[1].day")
	_, err = progress.Series("nprs", nil)
	assert.ErrorContains(t, err, "$.series")
}

func series(v ...float64) []progress.Reading {
	out := make([]progress.Reading, len(v))
	for i, x := range v {
		out[i] = progress.Reading{Day: float64(7 * i), Value: x}
	}
	return out
}

func TestSignals(t *testing.T) {
	for _, c := range []struct {
		name   string
		values []float64
		want   progress.Signal
	}{
		{"falling", []float64{8, 7, 5, 3}, progress.Improving},
		{"low twice", []float64{7, 5, 2, 1}, progress.Resolved},
		{"low once", []float64{7, 5, 4, 2}, progress.Improving},
		{"stands still", []float64{8, 6, 5.5, 6, 5.5}, progress.Plateau},
		{"worse twice", []float64{3, 5, 7}, progress.Worsening},
		{"three only", []float64{8, 6, 4}, progress.TooFew},
		{"one", []float64{8}, progress.TooFew},
	} {
		got, err := progress.Series("nprs", series(c.values...))
		require.NoError(t, err)
		assert.Equal(t, c.want, got.Signal, c.name)
	}
}

func TestOneOddVisitDoesNotBendTheSlope(t *testing.T) {
	straight, err := progress.Series("rom.shoulder.abduction", series(100, 110, 120, 130, 140))
	require.NoError(t, err)
	odd, err := progress.Series("rom.shoulder.abduction", series(100, 110, 20, 130, 140))
	require.NoError(t, err)
	assert.InDelta(t, 10, *straight.SlopePerWeek, 1e-9)
	assert.InDelta(t, *straight.SlopePerWeek, *odd.SlopePerWeek, 0.01)
}

func TestChangeIsSymmetricInSizeForAbsoluteMeasures(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a := float64(rapid.IntRange(0, 180).Draw(t, "a"))
		b := float64(rapid.IntRange(0, 180).Draw(t, "b"))
		x, err := progress.Pair("rom.knee.flexion", a, b)
		require.NoError(t, err)
		y, err := progress.Pair("rom.knee.flexion", b, a)
		require.NoError(t, err)
		assert.Equal(t, x.Meaningful, y.Meaningful)
		assert.InDelta(t, x.Delta, -y.Delta, 1e-9)
		if !x.Meaningful {
			assert.Equal(t, progress.None, x.Direction)
		}
	})
}

func TestRangeFlags(t *testing.T) {
	p := func(f float64) *float64 { return &f }
	for _, c := range []struct {
		name  string
		m     ids.Movement
		deg   float64
		other *float64
		age   int
		want  bool
	}{
		{"at 85 %", "cervical.rotation", 68, nil, 40, false},
		{"below 85 %", "cervical.rotation", 67.9, nil, 40, true},
		{"sides by 9", "cervical.rotation", 70, p(79), 40, false},
		{"sides by 10", "cervical.rotation", 70, p(80), 40, true},
		{"the better side is not flagged", "cervical.rotation", 80, p(70), 40, false},
		{"4 short", "ankle.dorsiflexion-knee-straight", 6, nil, 40, false},
		{"5 short", "ankle.dorsiflexion-knee-straight", 5, nil, 40, true},
		{"small, sides by 5", "ankle.dorsiflexion-knee-bent", 16, p(21), 40, true},
		{"small, sides by 4", "ankle.dorsiflexion-knee-bent", 16, p(20), 40, false},
		{"zero, 4 short", "knee.extension", -4, nil, 40, false},
		{"zero, 5 short", "knee.extension", -5, nil, 40, true},
		{"60 is not over 60", "cervical.rotation", 67, nil, 60, true},
		{"over 60", "cervical.rotation", 62, nil, 61, false},
		{"over 75", "cervical.rotation", 58, nil, 76, false},
		{"no reference", "scapula.elevation", 1, nil, 40, false},
	} {
		f := progress.Flag(c.m, c.deg, c.other, c.age)
		assert.Equal(t, c.want, f.Flagged, c.name)
		assert.Equal(t, c.want, f.Reason != "", c.name)
	}
}

func TestEveryReferenceCanBeMeasured(t *testing.T) {
	list := progress.MeasurableMovements()
	assert.Greater(t, len(list), 30)
	for _, m := range list {
		assert.NotEmpty(t, m.Sides)
		ref, ok := progress.Reference(m.Movement, 0)
		assert.True(t, ok)
		assert.InDelta(t, ref, m.Reference, 0)
	}
}
