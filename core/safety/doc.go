// Package safety holds the limits that no protocol, screen or import can pass:
// ceilings by site, shorter caps, and structures to keep off.
package safety
