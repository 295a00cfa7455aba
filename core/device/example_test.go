package device_test

import (
	"fmt"

	"mokren/core/device"
)

func ExampleWatch() {
	w := device.Watch{Mode: device.Range}
	for ms := int64(0); ms < 8000; ms += 50 {
		// At rest, out in a second and a half, still at 62°.
		deg := max(0, min(62, float64(ms-1500)/24))
		if taken := w.Add(device.Sample{TMS: ms, Deg: deg}); taken != nil {
			fmt.Printf("%.0f°\n", taken.Deg)
		}
	}
	// Output: 62°
}
