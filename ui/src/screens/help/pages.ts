// The help: a page for each step of a visit, for a hold and for a sequence, written by hand.
import type { Schemas } from "../../api/client";
import type { Input } from "../../core/core";
import { deskPages } from "./deskPages";
import { tablePages } from "./tablePages";

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

export const pages: HelpPage[] = [...deskPages, ...tablePages];

/** The pages that have all the words that are looked for. */
export function searched(query: string): HelpPage[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  return pages.filter((p) => {
    const all = [p.title, p.what, ...p.how, ...p.keys, ...p.numbers, p.sources].join(" ").toLowerCase();
    return words.every((w) => all.includes(w));
  });
}
