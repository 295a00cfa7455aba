package algometer

import (
	"encoding/json"
	"math/rand/v2"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/device"
)

// Three presses that are stopped at some force give that threshold, at an even
// ramp, more than ten seconds apart.
func TestThreeStoppedPressesGiveAThreshold(t *testing.T) {
	p := press{rnd: rand.New(rand.NewPCG(1, 1)), o: Options{RampKPa: []float64{40, 30, 50}}}
	var trials []device.Trial
	var now device.Trial
	ended, began := 0.0, 0.0
	for n := 0; len(trials) < 3; n++ {
		at := float64(n) / SamplesPerSecond
		stop := len(now.Samples) > 0 && now.Samples[len(now.Samples)-1].N >= 24
		f := p.step(1.0/SamplesPerSecond, stop)
		if f > 0 && len(now.Samples) == 0 {
			began = at
			if ended > 0 {
				assert.Greater(t, began-ended, device.RestS)
			}
		}
		if f > 0 {
			now.Samples = append(now.Samples, device.Force{T: at, N: f})
		}
		if stop {
			now.StoppedT, ended = at, at
			trials = append(trials, now)
			now = device.Trial{}
			for f > 0 {
				f = p.step(1.0/SamplesPerSecond, false)
			}
		}
	}
	got, err := device.MeasurePPT(trials, TipCM2)
	require.NoError(t, err)
	assert.InDelta(t, 240, got.KPa, 6)
	for i, want := range []float64{40, 30, 50} {
		assert.InDelta(t, want, got.Ramp[i], 2)
	}
}

func TestItStreamsAndHears(t *testing.T) {
	srv := httptest.NewServer(Handler(Options{Speed: 50}))
	defer srv.Close()
	c, _, err := websocket.Dial(t.Context(), "ws"+strings.TrimPrefix(srv.URL, "http")+"/", nil)
	require.NoError(t, err)
	defer c.CloseNow() //nolint:errcheck // the end of the test
	highest, lifted := 0.0, false
	for range 600 {
		_, b, err := c.Read(t.Context())
		require.NoError(t, err)
		var f device.Force
		require.NoError(t, json.Unmarshal(b, &f))
		if f.N > 10 && highest <= 10 {
			require.NoError(t, c.Write(t.Context(), websocket.MessageText, []byte(`{"stopped":true}`)))
		}
		highest = max(highest, f.N)
		if highest > 10 && f.N == 0 {
			lifted = true
			break
		}
	}
	assert.True(t, lifted, "lifted when it hears the stop")
	assert.Less(t, highest, 60.0)
}
