// Package treat times treatment and says what to do next. Its heart is the coach: a pure state machine over
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
//     says what each may take). A part ends by its own time, by a word, or by a score.
//   - Envelope: the rules that hold in every protocol: ceilings, rises, sudden fall, caps,
//     signs, pause, slipping off (envelope.go, scores.go, signs.go, hand.go).
//   - Phase: where a hold stands: a part, or outside of it (machine.go).
//   - Transition: what an event does in a phase. Deadline: what falls due by itself (clock.go).
//   - Progress: how far a strategy has come: repetitions, place, aim.
//   - Line: what the coach shows after an event: phase, advice, words, reason, clocks.
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
// The phase on a Line is the kind of the part that runs, or one of these:
//
//	ready      nothing is pressed yet, or the next press is due
//	check      in a part, after a sudden fall: still on it?
//	off-spot   in a part, the hand has slipped; the pressure clock runs on
//	paused     a part waits, the pressure clock stands
//	moved-off  a nerve or a vessel was felt: another spot is wanted
//	release    coming off was advised and is awaited; the pressure clock runs
//	flush      15 or 20 s of blood flow
//	return     lighter, once
//	done       the end
//	stopped    the client, or a sign, ended it: final, and no undo
//
// A part is one of settle, stage, press, rest, ramp, test, slacken, still, sink, move, push,
// lengthen, stroke, broad, narrow; part.go says what each takes.
//
// # Transitions
//
// In a phase, an event ▸ leads there or stays: what it does. Other pairs change nothing.
//
//	ready, moved-off   contact ▸ part: begin the strategy
//	return             contact ▸ part: begin the return, two lighter
//	flush              contact ▸ part, release: begin what waits
//	paused             contact, resume ▸ part, release, flush: go on where it was broken off
//	in a part          release ▸ flush: flush; in a rest nothing
//	release, paused, moved-off  release ▸ flush: flush
//	in a part          score ▸ part, check, release, flush: the envelope, then the strategy
//	in a part          trend ▸ part, release, flush: more is a rise; else the strategy
//	in a part          softening ▸ part, release: the strategy
//	part               on-spot ▸ stays: an answer
//	check              on-spot ▸ part, release: the fall is believed
//	off-spot           on-spot ▸ part: a new baseline
//	in a part          guard ▸ part, release, flush: one step lighter; the second time come off
//	in a part          off-spot ▸ off-spot: the part waits
//	in a part          angle-change ▸ part: a new baseline
//	in a part          pause ▸ paused: the clocks stand
//	anywhere           breath, rep ▸ part, release, flush: end the part or begin it again
//	anywhere           range ▸ flush: keep it; the strategy
//	anywhere           twitch ▸ stays: keep it
//	anywhere           referral ▸ stays: keep it
//	anywhere           nerve-sign, pulse ▸ moved-off, stopped, flush: off; another spot, or stop
//	anywhere           unwell, skin-reaction, client-stop ▸ stopped: stop, for good
//	anywhere           end ▸ closed: close the log
//	afterwards         nerve-sign, pulse ▸ stays: count the sign
//	afterwards         unwell, skin-reaction, client-stop ▸ stays: count the sign
//	afterwards         referral ▸ stays: keep it
//	afterwards         end ▸ closed: close the log
//
// By itself, the first first where two fall due at once:
//
//	flush              flush ▸ return, ready, done: what waits behind it, or done
//	under way          cap ▸ release: come off
//	under way          alone ▸ paused: 120 s without a key: back to it
//	in a part          press limit ▸ release: come off
//	in a part          total ▸ flush: come off
//	in a part          silence ▸ release, flush: 30 s: come off
//	in a part          alarm ▸ part, release: the strategy
//	in a part          part ▸ part, release, flush: the strategy: the next part, or come off
//	in a part          question ▸ stays: ask for a score
//
//	anywhere           part, check, off-spot, release, ready, paused, moved-off, flush, return, done
//	under way          release, part, check, off-spot
//	in a part          part, check, off-spot
//	hand off           ready, paused, moved-off, flush, return, done
//	afterwards         stopped, closed
//
// # Adding a protocol
//
// One of an existing kind is one row in protocols.go with its name, limits, plan and what a
// practice may tune, its id in ids.Protocols, and lines in protocols_test.txt; a test asks for
// the id. Golden logs of it are written by running the tests with MOKREN_GOLDEN set to a
// folder. The list that pages offer, the suggestion's texts and the API's description follow
// from the row.
//
// A new kind is a file with a type of its own (strategy.go says what it owes) and its line in
// strategies. What a part of it takes is a row of parts.
//
// # Example: one graded stage
//
// This is what a log comes to, with the limits 6 / 7 / 8 and 90 s:
//
//	 0 s  contact     settle   "Press slowly to 6."
//	 3 s  score 6     stage    "Hold still."                stage 1 begins at 6
//	24 s  score 4     settle   "On the out-breath, sink…"   down 2, and 20 s have passed
//	27 s  score 6     stage    "Hold still."                stage 2
//	48 s  score 2     release  "Come off slowly."           calm: 2 or less
//	51 s  release     flush    "Flush 20–30 s…"             20 s, by the coach's clock
//	71 s              done     "Done."                      released: 4 below the baseline
//
// ExampleCoach runs its beginning as a test. Without the release at 51 s the pressure clock
// would run on to the cap at 90 s and then count overrun; 120 s later without any key the hold
// would be taken back to its last one.
//
// # Invariants
//
//   - A hold never advises to press deeper past a ceiling or a cap; caps settle ties.
//   - What is counted as pressed never exceeds the cap; what is pressed past it is counted as
//     overrun.
//   - Nothing but transitions and deadlines changes the phase, and each leads where it says.
//   - State is a value: a copy kept aside stays what it was, and undo is going back to one.
//   - A stop is final: nothing that comes later changes it.
//   - Undo takes back the last word of its own source, never a stop.
//   - A log replays to the letter under the rules that it was begun with; what an older
//     version did otherwise is a flag in versions.go, and testdata holds logs of each.
//   - Events out of order are sorted by time before they are replayed (SortLate).
package treat
