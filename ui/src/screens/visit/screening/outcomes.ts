/** The groups in which the questions are asked, the gravest first. */
export const groups = [
  { outcome: "emergency", name: "Emergency signs" },
  { outcome: "refer-first", name: "Refer before treating" },
  { outcome: "avoid-here", name: "Avoid these areas" },
  { outcome: "adapt", name: "Adapt treatment" },
] as const;

export const outcomeName: Record<string, string> = {
  emergency: "No treatment: urgent medical care",
  "refer-first": "No treatment until a clinician has cleared it",
  "avoid-here": "Not in these places",
  adapt: "Adapt today's treatment",
  clear: "Nothing found",
};
