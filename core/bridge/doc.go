// Package bridge is how a page reaches the core. A page asks a question by name with one
// JSON document and gets one back; nothing of the core is reached another way, so what the
// core decides is decided once.
//
//	d := bridge.New()
//	d.Answer("under", []byte(`{"view":"back","x":195,"y":770,"height_cm":170}`))
//
// Vocabulary
//
//   - Question: a name with a typed input and a typed output. List gives them all; the
//     page's types are generated from it (cmd/doorgen), so a shape is written once.
//   - Pure question: its answer depends on its input alone, so the page may keep it.
//     These are the computations of core/calc that pages ask for.
//   - Open visit: what the page has given of a visit (context, log, points of earlier
//     visits) with the state that it reduces to. It stays here, so that a question about it
//     names it instead of sending it again. Each state has a revision; a question about an
//     older revision is refused, and the page drops it.
//   - Live hold: the coach of a hold under way. Events are added to it one at a time; an
//     event that belongs before others rebuilds it from its log.
//
// Data flow: page -> {"name", input} -> Answer -> calc, visit, note, treat -> output ->
// page. The page writes events to its outbox first and asks here afterwards.
//
// Invariants
//
//   - An answer never changes what is stored: the door keeps nothing that the page cannot
//     give again.
//   - A live hold shows what a replay of its whole log shows, in whatever order its
//     events came (TestALiveHoldIsItsReplay).
//   - The door is used by one goroutine.
package bridge
