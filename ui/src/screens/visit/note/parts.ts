// The four parts of a note.
import type { Schemas } from "../../../api/client";

export const noteParts = ["subjective", "objective", "assessment", "plan"] as const;
export type NoteText = Pick<Schemas["NoteOut"], (typeof noteParts)[number]>;

export const sameText = (a: NoteText, b: NoteText) => noteParts.every((p) => a[p] === b[p]);
/** Only the words; a version has more. */
export const textOf = ({ subjective, objective, assessment, plan }: NoteText): NoteText => ({
  subjective,
  objective,
  assessment,
  plan,
});
