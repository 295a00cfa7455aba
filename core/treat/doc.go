// Package treat times and steers treatment. Its heart is the coach: a pure state machine over
// a log of time-stamped events, the same code in server, browser and command line.
//
//	start, err := treat.NewStart(treat.Request{Protocol: "graded-stages", Muscle: "soleus"})
//	coach := treat.NewCoach(start)
//	line := coach.Apply(event)   // after each event: what to do now, and why
//	line = coach.At(ms)          // between events: the present state, nothing kept
//	sum := coach.Summary()
//
// Time inside is integer milliseconds from the start event; scores are NPRS 0 to 10.
//
// # Vocabulary
//
//   - Protocol: a way of pressing that a therapist chooses (protocols.go, one row each), with
//     its limits and a plan of numbers.
//   - Strategy: what runs a kind of protocol through its parts (strategy.go; one file each:
//     stages, steady, paced, ramped, brief, positional, breath, pinned, movements, rounds,
//     stations, broad). Protocols that differ in numbers alone share one.
//   - Plan: the numbers of a protocol as they count in one hold (plan.go). It is resolved
//     when the hold starts and stored with it.
//   - Limits: target, soft and hard ceiling in scores, and the cap of pressing in ms.
//   - Start: protocol, plan, limits, muscle, side and rules version of one hold (start.go).
//   - Part: a stretch of a hold with one purpose: settle, press, rest, ramp, push (part.go
//     says what each may take). A part ends by its own time, by a word, or by a number.
//   - Envelope: the rules that hold in every protocol: ceilings, rises, sudden fall, caps,
//     signs, pause, slipping off (envelope.go, numbers.go, signs.go, hand.go).
//   - Course: how far a strategy has come: repetitions, depth, place, aim.
//   - Line: what the coach shows after an event: phase, advice, words, reason, clocks.
//   - Deadline: something that falls due by itself (clock.go).
//   - Summary: what a hold leaves behind: outcome, times, stages or parts, signs, trace.
//
// # Data flow
//
//	Request ─▶ NewStart ─▶ Start ─▶ Adapt (what the screening lowers) ─▶ stored
//	Start ─▶ NewCoach ─▶ Apply(event) … ─▶ Line, Summary
//
// Apply moves the clock through every deadline at or before the event, each at its own time,
// then lets the event act: first the envelope, then the strategy. At does the same on a copy
// and keeps nothing, so a page may look as often as it likes; Due tells when the line will
// change by itself.
//
// # Phases
//
// The phase on a Line is the part that runs, or where the hold stands outside of its parts:
//
//	ready      nothing is pressed yet            contact ─▶ the strategy's first part
//	(parts)    settle stage press rest ramp test slacken still sink move push lengthen
//	           stroke broad narrow
//	check      a sudden fall: still on it?       on-spot ─▶ the part; off-spot ─▶ off-spot
//	off-spot   the hand has slipped              on-spot ─▶ the part, a new baseline
//	paused     the pressure clock stands         contact, resume ─▶ the part
//	moved-off  another spot is wanted            contact ─▶ first part at the new spot
//	release    coming off was advised            release ─▶ flush
//	flush      20 s of blood flow                its end ─▶ return, the next press, or done
//	return     lighter, once                     contact ─▶ a steady hold, two lower
//	done       the end                           nothing
//	stopped    the client, or a sign, ended it   nothing; no undo
//
// # Adding a protocol of an existing kind
//
// One row in protocols.go with its name, limits, plan and what a practice may tune, its id in
// ids.Protocols, and lines in schools_test.txt. Golden logs of it are written by running the
// tests with MOKREN_GOLDEN set to a folder; the list that pages offer, the suggestion's texts and the API's
// description follow from the row.
//
// # Invariants
//
//   - A hold never advises to press deeper past a ceiling or a cap; caps settle ties.
//   - What is counted as pressed never exceeds the cap; what is pressed past it is counted as
//     overrun.
//   - State is a value: a copy kept aside stays what it was, and undo is going back to one.
//   - Undo takes back the last word of its own source, never a stop.
//   - A log replays to the letter under the rules that it was begun with; what an older
//     version did otherwise is a flag in versions.go, and testdata holds logs of each.
//   - Events out of order are sorted by time before they are replayed (SortLate).
package treat
