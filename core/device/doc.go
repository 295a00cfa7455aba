// Package device holds what outside instruments need judged: when a streamed
// reading is steady enough to be taken.
//
//	w := device.Watch{Mode: device.Range}
//	for s := range samples {
//		if taken := w.Add(s); taken != nil { … }
//	}
//
// It reads no clock; time comes with the samples.
package device
