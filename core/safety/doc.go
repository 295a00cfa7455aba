// Package safety holds the limits that no protocol, screen, import or log can get round: the
// screening and what its answers forbid or lower, ceilings of places, contacts that are too
// hard, consents, and the structures that are not to be pressed.
//
//	s := safety.Screen(answers)            // outcome, the rules that apply, what they lower
//	limits, where := safety.Site("soleus", places)
//	near := safety.Near(line, heightCM, safety.ReachMM("thumb-pad"))
//
// Where the work can hurt someone, this package shows the usual cautions. It does not replace
// local codes, licensed practice or a clinician's word.
//
// # Vocabulary
//
//   - Question, answer: the screening. An answer that was never given counts as missing, and
//     unknown counts as yes where a yes stops the treatment.
//   - Outcome: clear, adapt, avoid-here, refer-first, emergency, from the mildest on. The worst
//     one of all answers is the outcome of the screening.
//   - Adaptation: what an answer lowers or avoids: ceilings, cap, positions, contacts.
//   - Limits: target, soft and hard ceiling in scores (NPRS 0 to 10), and the cap of pressing
//     in ms. They combine by the strictest of each.
//   - Place: a region and a side, and the structure that its line of pressure comes too near.
//   - Structure: a nerve, vessel, organ, gland or node group as one course in space, with how
//     deep it runs, its radius, and a radius to keep off.
//   - Tier: danger (a hard contact is refused and ceilings hold), caution (named, and lower),
//     note (said only).
//   - Clearance: a clinician's word that lifts an answer. Nothing else does.
//   - Consent: asked for the visit, and for each sensitive area, before hands are there.
//   - Demands: what a protocol asks of the client beside bearing the pressure.
//
// # Data flow
//
//	answers ─▶ Screen ─▶ Screening{Outcome, Rules, Limits, Missing}
//	place on the figure ─▶ core/solid: line of pressure ─▶ Near, Within ─▶ []Place
//	[]Place ─▶ Site (ceilings), ContactForbidden, SensitiveAreas
//	Screening + Site ─▶ core/treat: Start.Adapt, Start.Respects
//
// # Where the numbers come from
//
// Questions and outcomes follow the contraindications and red flags that textbooks of massage
// and musculoskeletal assessment agree on; the words are our own. Radii and depths are working
// values beside the standard anatomy that each structure names as its source.
//
// # Invariants
//
//   - Answers only add caution: taking one away never makes a screening stricter, and adding
//     one never makes it milder, but for a clearance or a later, milder answer of a
//     therapist to a question that does not last.
//   - A client's own word never lifts a caution; it can add one.
//   - Every number that bounds pressing has a most that a practice cannot tune (MinCapMS,
//     MaxCapMS, Open).
//   - What is near is the same from every view, for it is computed in space.
package safety
