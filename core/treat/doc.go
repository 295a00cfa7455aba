// Package treat times and steers treatment. Its heart is the coach: a pure
// state machine over a log of time-stamped events, the same code in server,
// browser and command line.
//
//	start, err := treat.NewStart(treat.Request{Protocol: "graded-stages", Muscle: "soleus"})
//	coach := treat.NewCoach(start)
//	line := coach.Apply(event)   // after each event: what to do now, and why
//	line = coach.At(ms)          // between events: the present state, nothing kept
//	sum := coach.Summary()
//
// Time inside is integer milliseconds from the start event; scores are NPRS
// 0–10.
package treat
