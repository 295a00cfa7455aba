// Help with the steps at the table, and with the end of a visit.
import type { HelpPage } from "./pages";

export const tablePages: HelpPage[] = [
  {
    id: "find",
    title: "Find: from the landmark to the band",
    what: "The guide leads from bone to band. Chart what you feel while the finger is still there.",
    drawing: {
      layers: ["bones", "landmarks", "muscles"],
      caption:
        "Landmarks first: from the bony corner of the shoulder blade the muscle runs up to the side of the neck. Feel across its fibres.",
    },
    how: [
      "Find the bone first, then the muscle, then let the client contract it once to be sure.",
      "Feel across the fibres for the band, then along it for the spot.",
      "Ask openly: where do you feel this? Show the usual pattern only after the answer.",
      "Nothing there is a finding too: say nothing found, and the list learns.",
    ],
    keys: [
      "Pedal, space or Page Down: next step. c chart it, m nothing, r not reachable.",
      "While charting: 0 to 9 and x the score, g tenderness, b band, f familiar, u as usual, n nowhere else, w twitch, s chart.",
    ],
    numbers: [
      "Tenderness 0 none, 1 mild, 2 moderate, 3 with a wince, 4 cannot bear touch.",
      "A pressure threshold is the mean of up to three trials, in kPa; over 20 % apart, repeat them.",
    ],
    sources: "Palpation criteria: taut band, tender spot, familiar pain.",
  },
  {
    id: "plan",
    title: "Plan: what fits today",
    what: "Which points, in which order, how the client lies, how long. It counts turns of the client, sore places and your minutes.",
    how: [
      "Points that send pain to others come first: what hangs on them may let go by itself.",
      "Keep what the client came for, even when another order looks better.",
      "Use this plan, and Press follows it. When time runs out it says what to drop.",
    ],
    keys: [],
    numbers: [
      "Minutes of a point are those of its protocol, with ten to twenty seconds of flush.",
      "A place that was pressed within 48 hours waits.",
    ],
    sources: "Working values; each protocol has its own source.",
  },
  {
    id: "press",
    title: "Press: graded, by the client's score",
    what: "Contact, position and protocol are offered. Begin, and the coach asks, times and says when to ease.",
    drawing: {
      layers: ["muscles", "structures"],
      caption:
        "What to keep off near the muscle: nerves and vessels with their width, dashed where they lie on the far side.",
    },
    how: [
      "Sink until the first resistance and wait. Pressure that has to be endured guards the muscle.",
      "Stay at the target. Above the first ceiling ease at once, above the second come off.",
      "Come off slowly, let blood flow back, and end the session with broad strokes, never on a point.",
      "Tingling, numbness or a pulse under the finger: off, and to another place. Twice at one place: leave it today.",
    ],
    keys: [
      "Space or pedal: the one key that fits now. 0 to 9 and x the score, r come off, p pulse, n nerve sign, u unwell, Esc stop.",
    ],
    numbers: [
      "Target, and two ceilings: ease above the first, come off above the second.",
      "Released is calm and at least two below where it began; reduced is two below; unchanged is neither.",
      "Your own hand: the load of thumb and fingers today and this week.",
    ],
    sources: "Each protocol names its sources in the practice's list.",
  },
  {
    id: "hold",
    title: "Hold: follow the coach",
    what: "The large line says what to do now, the line below what to ask. Numbers, clocks and the way to stop stand at the same place in every protocol.",
    how: [
      "Touch Contact, or press the pedal, when the finger lies on the spot. The clock of pressure runs from there.",
      "Give the client's score each time the coach asks. It decides whether to wait, to go deeper or to ease.",
      "Say softening when the tissue yields under the finger: it counts as much as a score.",
      "A sign of danger ends the hold. Come off first, then touch it: the coach says what it closes for today.",
      "A touch that was wrong is taken back with Undo, here or in the visit.",
    ],
    keys: [
      "Space or pedal: contact, the next step, let go. 0 to 9 and x the score. f softening, o off the spot, a another angle.",
      "r come off, p pulse, n nerve sign, k skin, u unwell, Esc the client stops.",
      "With the client's pad the scores come by themselves; with the pressure pad contact and letting go do too.",
    ],
    numbers: [
      "The large clock is the time of the stage, press or breath; the bar below is all pressure, up to its cap.",
      "Target 6, ceilings 7 / 8: press to 6, ease off above 7, come off above 8. The screening can lower them.",
      "Results: released, reduced or unchanged; or what the protocol measures, such as +9° or tolerated to 5.",
    ],
    sources: "Each protocol names its sources in the practice's list; caps and ceilings are working values.",
  },
  {
    id: "sequence",
    title: "Sequence: warm-up, lengthening, closing",
    what: "Techniques around the hold, step by step: strokes, circles, stretches and breaths are counted and timed, both sides in turn.",
    how: [
      "The large word is the technique, below it where and on which side. The pace runs in the corner: move with it.",
      "A step hands over to the next by itself, or at the pedal. Held, the pedal begins the step again.",
      "Point here charts what you find while you go, and the sequence goes on where it was.",
      "What the screening forbids today is left out and named before you begin.",
    ],
    keys: [
      "Space or pedal: next step; held: this step again. j skip, l longer, b one step back, o the other side first, p point here, Esc the client stops.",
    ],
    numbers: [
      "Minutes are those of the steps. With less time the least important steps go first.",
      "A step that presses has the same limits as a hold and counts for the load of your hands.",
    ],
    sources: "Working values of massage practice; each technique has its bounds.",
  },
  {
    id: "bench",
    title: "Bench: a client who is always there",
    what: "A simulated client to learn on, under Bench in the menu. Nothing of it is a client's record, and nothing of a client is in it.",
    how: [
      "Landmarks first, then search: press with a touch, stroke by moving, and feel the other side before you mark.",
      "In a hold raise the force slowly, ask for the number, and do what the coach says within five seconds.",
      "Ask openly: who wants to please agrees with a leading question.",
      "Name up to three causes while in doubt. Nothing to press and refer are answers too.",
      "In the review each mark says why it matters; again from here begins the same client at that moment.",
    ],
    keys: [
      "The force slider takes the arrow keys; the pressure pad may give the force.",
      "On the real hold screen its own keys stay: n a nerve sign, p a pulse, escape stops.",
    ],
    numbers: [
      "Each score is 0 to 100; 80 is passed and rests for a day, then 3, 7, 14 and 30.",
      "A Brier score of 0 is sure and right, 0.25 is a coin. Numbers of the tissue are working values.",
    ],
    sources: "Agreement: Cohen; Shrout and Fleiss; Bland and Altman.",
  },
  {
    id: "recheck",
    title: "Recheck: what has changed",
    what: "What was not right before, and every point that was pressed, looked at again beside its value from before.",
    how: [
      "The same pressure, the same tool, the same number of readings.",
      "Let the client stand and walk a few steps before they dress: it shows what they will feel at home.",
      "No change is worth writing down. After three visits without one, look for another cause.",
    ],
    keys: [],
    numbers: ["Clearly better is two points of the score or 30 %, 5° in a limb, 7° in the spine."],
    sources: "Minimal important changes; each stands beside its value.",
  },
  {
    id: "close",
    title: "Close: note, aftercare, next visit",
    what: "Read the note as it is written, sign it, give the sheet, book the next visit.",
    how: [
      "Edit the note where it does not say what you saw. After signing, only an addendum is written.",
      "The sheet has no name on it. It goes to paper, or to the client's phone by a code.",
      "The next visit is proposed by what was found: a touch on the day, and it is booked.",
      "A referral letter is drafted where the screening or a sign asks for one.",
    ],
    keys: [],
    numbers: [
      "Three to seven days while places hurt, a week or two while it gets better, three to four weeks when it holds.",
    ],
    sources: "Working values; your own judgement comes first.",
  },
];
