// Package progress judges change between visits: what is a real change of a
// measure, what the trend is, and what the trend asks for.
package progress
