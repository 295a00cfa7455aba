/** The groups in which the questions are asked, the gravest first. */
export const groups = [
  { outcome: "emergency", name: "Stops everything" },
  { outcome: "refer-first", name: "Seen by a clinician first" },
  { outcome: "avoid-here", name: "Not here" },
  { outcome: "adapt", name: "Gentler" },
] as const;

export const outcomeName: Record<string, string> = {
  emergency: "No treatment: urgent medical care",
  "refer-first": "No treatment until a clinician has cleared it",
  "avoid-here": "Not in these places",
  adapt: "Gentler today",
  clear: "Nothing found",
};
