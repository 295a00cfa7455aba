package inclinometer_test

import (
	"encoding/json"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/device"
	"mokren/devices/inclinometer"
)

// What the stand-in streams, the core takes: one reading a cycle, at its end.
func TestEveryCycleGivesOneReading(t *testing.T) {
	o := inclinometer.Options{
		Ranges: []float64{61, 44},
		Slopes: []inclinometer.Slope{{Deg: 3.8, DistanceCM: 34.5}, {Deg: -2, DistanceCM: 28}},
	}
	for _, c := range []struct {
		mode device.Mode
		want []float64
	}{{device.Range, []float64{61, 44, 61, 44}}, {device.Posture, []float64{3.8, -2, 3.8, -2}}} {
		w := device.Watch{Mode: c.mode}
		rnd := rand.New(rand.NewPCG(1, 1))
		var got []device.SteadyReading
		for at := time.Duration(0); at < 4*inclinometer.Cycle; at += time.Second / inclinometer.SamplesPerSecond {
			if taken := w.Add(o.At(c.mode, at, inclinometer.UsualReading{}, rnd)); taken != nil {
				got = append(got, *taken)
			}
		}
		require.Len(t, got, len(c.want), "%s", c.mode)
		for i, x := range got {
			assert.InDelta(t, c.want[i], x.Deg, 0.25, "%s", c.mode)
			assert.Equal(t, c.mode == device.Posture, x.DistanceCM != nil)
		}
	}
}

func TestItStreamsOverAWebSocket(t *testing.T) {
	srv := httptest.NewServer(inclinometer.Handler(inclinometer.Options{Speed: 20}))
	defer srv.Close()
	c, _, err := websocket.Dial(t.Context(), "ws"+strings.TrimPrefix(srv.URL, "http")+"/?mode=posture", nil)
	require.NoError(t, err)
	defer c.CloseNow() //nolint:errcheck // the end of the test
	// What is expected sets how far it moves.
	require.NoError(t, c.Write(t.Context(), websocket.MessageText, []byte(`{"expect_deg":3,"expect_cm":34}`)))
	w := device.Watch{Mode: device.Posture}
	last := int64(-1)
	found := false
	for range 90 {
		_, b, err := c.Read(t.Context())
		require.NoError(t, err)
		var s device.Sample
		require.NoError(t, json.Unmarshal(b, &s))
		assert.Greater(t, s.TMS, last)
		last = s.TMS
		if taken := w.Add(s); taken != nil {
			assert.InDelta(t, 3, taken.Deg, 1)
			assert.InDelta(t, 34, *taken.DistanceCM, 8)
			found = true
		}
	}
	assert.True(t, found, "a whole cycle was streamed")
	res, err := http.Get(srv.URL + "/?mode=upside-down")
	require.NoError(t, err)
	assert.Equal(t, 422, res.StatusCode)
	_, res, err = websocket.Dial(t.Context(), "ws"+strings.TrimPrefix(srv.URL, "http")+"/",
		&websocket.DialOptions{HTTPHeader: http.Header{"Origin": {"https://elsewhere.example"}}})
	require.Error(t, err, "not for other pages")
	assert.Equal(t, 403, res.StatusCode)
}
