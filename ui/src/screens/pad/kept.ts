// What is entered on the client's own device, kept there until it was handed in.
import type { Schemas } from "../../api/client";
import { uuidv7 } from "../../core/ids";
import type { Story } from "../story";

/** The three parts; each is handed in on its own and replaces what was handed in
 * before, until the therapist has taken it. */
export const parts = ["drawing", "story", "answers"] as const;
export type Part = (typeof parts)[number];
export const titles: Record<Part, string> = { drawing: "Pain", story: "History", answers: "Health" };

export type Answers = Partial<Record<Schemas["QuestionID"], Schemas["ScreenedAnswer"]["answer"]>>;

export interface Kept {
  ids: Record<Part, string>;
  strokes: Schemas["Stroke"][];
  story?: Story;
  loads: Schemas["LoadID"][];
  answers: Answers;
  /** Parts changed since they were handed in. */
  unsent: Part[];
}

const fresh = (): Kept => ({
  ids: { drawing: uuidv7(), story: uuidv7(), answers: uuidv7() },
  strokes: [],
  loads: [],
  answers: {},
  unsent: [],
});

const place = (code: string) => `draw ${code}`;

/** What was entered under this code before the page was closed. */
export function kept(code: string): Kept {
  try {
    const k = JSON.parse(localStorage.getItem(place(code)) ?? "") as Kept;
    if (k.ids && Array.isArray(k.strokes) && Array.isArray(k.unsent)) return { ...fresh(), ...k };
  } catch {
    // nothing kept, or not readable: begin anew
  }
  return fresh();
}

/** Once all is handed in, nothing of it stays on a device that others may use. */
export function keepOnDevice(code: string, k: Kept) {
  if (k.unsent.length) localStorage.setItem(place(code), JSON.stringify(k));
  else localStorage.removeItem(place(code));
}
