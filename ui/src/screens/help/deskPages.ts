// Help with the steps before the client lies down.
import type { HelpPage } from "./pages";

export const deskPages: HelpPage[] = [
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
];
