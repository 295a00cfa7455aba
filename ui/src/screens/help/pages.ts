// The help: a page for each step of a visit, for a hold and for a sequence, written by hand.
import type { Schemas } from "../../api/client";
import type { Input } from "../../core/core";

/** A muscle with its layers, or how a movement is measured. */
export type HelpDrawing = { caption: string } & (
  | { movement: Schemas["MovementID"]; layers?: undefined }
  | { movement?: undefined; layers: Input<"layers">["layers"] }
);

export interface HelpPage {
  /** The step of a visit that it stands at, or what it is about. */
  id: string;
  title: string;
  /** What this step is for. */
  what: string;
  drawing?: HelpDrawing;
  /** How experienced people do it. */
  how: string[];
  /** Keys and pedal. */
  keys: string[];
  /** What the numbers mean. */
  numbers: string[];
  sources: string;
}

export const pages: HelpPage[] = [
  {
    id: "last",
    title: "Last: where you left off",
    what: "What was found and pressed at the last visit, how it ended, and how the client was afterwards. Read it before the client lies down.",
    how: [
      "Ask first how the days after were: better, the same or worse, and where it was sore.",
      "Treat again takes a point over to today. It is charted anew, because tissue changes: give today's score before anything else.",
      "What was meant for today stands on top. Take it into the note with one touch.",
    ],
    keys: [],
    numbers: [
      "Two scores beside a point are the one when found and the one at the recheck.",
      "A result is said by the measure of its protocol: released, 6 → 2; +9°; tolerated to 5; 30 % left.",
    ],
    sources: "Working practice; numeric rating scale 0 to 10.",
  },
  {
    id: "draw",
    title: "Pain: where it hurts",
    what: "The client's own words and drawing. It steers what is suspected, and it is what you compare with in three months.",
    how: [
      "Let the client draw, or draw while they point. Begin with the worst place, then what it spreads to.",
      "Set the kind and the strength before you paint. Rub out rather than start again.",
      "Write the complaint as it is said, and one thing the client wants to do again, with its score.",
    ],
    keys: ["On the body + and − come closer and go back, 0 shows all, arrows move."],
    numbers: [
      "Strength: 0 none, 10 the worst one can think of.",
      "An activity: 0 not able to, 10 as before the complaint.",
      "The painted area is measured on a body of the client's height.",
    ],
    sources: "Pain drawing; patient-specific functional scale.",
  },
  {
    id: "screen",
    title: "Screen: may I, and how",
    what: "Questions that decide whether you treat today, where you do not, and how lightly. Consent stands here too.",
    how: [
      "Ask the first group one by one and wait for the answer. The rest may be gone through together.",
      "What is not known counts as yes until you have looked. Say why you ask: people answer better.",
      "A yes that a doctor has cleared is cleared by you, with who said so and when.",
      "Where the screen says refer, do not press. A letter for the doctor is written at Close.",
    ],
    keys: [],
    numbers: [
      "Ceilings that it lowers stand at every point: target, where you ease, where you stop.",
      "Blood thinner, pregnancy, thin bones and the like lower them for the whole visit.",
    ],
    sources: "Red flags and precautions that textbooks agree on. Your local law and your licence come first.",
  },
  {
    id: "measure",
    title: "Measure: before and after, the same way",
    what: "Ranges, posture, squat and reach. Only what is measured today can be called better in three weeks.",
    drawing: {
      movement: "cervical.lateral-flexion",
      caption:
        "Side bending of the neck: the inclinometer on the head, the shoulders held still. Shaded is the usual range, in the other colour what is flagged.",
    },
    how: [
      "Both sides, the good one first. The same tool and the same number of readings afterwards.",
      "Hold still the part that must not move with it: the shoulder for the neck, the pelvis for the back.",
      "Say whether a pull or a pinch is felt at the end, and where. A pinch on the short side speaks for the joint.",
    ],
    keys: [
      "With the inclinometer: hold still at the end, it is taken by itself; a pedal takes the next one.",
    ],
    numbers: [
      "The shaded part of an arc is the usual range at the client's age.",
      "A change of 5° in a limb and 7° in the spine is more than the measuring varies.",
    ],
    sources: "Reference ranges of goniometry; each stands beside its value.",
  },
  {
    id: "suspect",
    title: "Suspect: which muscle first",
    what: "All findings weighed together: pain, ranges, posture, tests, earlier points. The list says what speaks for each muscle and what against.",
    drawing: {
      layers: ["muscles", "referral"],
      caption:
        "Levator scapulae with its usual pattern. Large dots: felt by most; small ones: felt by some. A drawing that covers them speaks for the muscle.",
    },
    how: [
      "Do the next best test while the client is still sitting: it is the one that tells most.",
      "Search what is over 80 %. Below that, ask or test more before you search everything.",
      "A muscle that the screening blocks stays on the list and says so.",
    ],
    keys: [],
    numbers: [
      "Percent is the confidence that a search finds a trigger point there.",
      "The overview shows how often lists of this kind were right in your practice.",
    ],
    sources: "Referral patterns and actions of the atlas; the weights can be changed by the practice.",
  },
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

/** The pages that have all the words that are looked for. */
export function searched(query: string): HelpPage[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  return pages.filter((p) => {
    const all = [p.title, p.what, ...p.how, ...p.keys, ...p.numbers, p.sources].join(" ").toLowerCase();
    return words.every((w) => all.includes(w));
  });
}
