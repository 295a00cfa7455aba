// What is felt at a point, as it is being charted. Absent is not said.
import type { Schemas } from "../../../api/client";
import { type Answer, isSaid } from "../body/useAnswer";

export type Felt = Schemas["Palpation"];
export type Scale = "0-10" | "0-5" | "1-10";

/** What the hand and the client say, without where it is felt. */
export type Chart = Omit<Felt, "referral" | "painted" | "no_referral">;

/** Nothing is preset that nobody felt; only the last visit's contact is. */
export const fresh = (before?: Schemas["FoundPoint"]): Chart =>
  before?.contact ? { contact: before.contact } : {};

/** A charted point, to be corrected. */
export function chartOf(p: Schemas["FoundPoint"]): Chart {
  const { taut_band, nodule, grade, nprs, given, scale, asked, familiar, twitch, jump } = p;
  const { feel, skin, fibres_checked, contact, position, moves, note } = p;
  return {
    taut_band,
    nodule,
    grade,
    nprs,
    given,
    scale,
    asked,
    familiar,
    twitch,
    jump,
    feel,
    skin,
    fibres_checked,
    contact,
    position,
    moves,
    note,
  };
}

/** What of a point's event was felt; what was not said is left out. */
export function feltOf(c: Chart, a: Answer): Felt {
  const said = {
    ...c,
    ...(isSaid(a)
      ? { referral: a.regions, painted: a.painted, no_referral: a.none, asked: c.asked ?? "openly" }
      : { asked: undefined }),
  };
  return Object.fromEntries(Object.entries(said).filter(([, v]) => isThere(v))) as Felt;
}

const isThere = (v: unknown) => v !== undefined && v !== "" && !(Array.isArray(v) && v.length === 0);

/** The numbers of a scale. */
export const numbersOf: Record<Scale, number[]> = {
  "0-10": [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10],
  "0-5": [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5],
  "1-10": [1, 2, 3, 4, 5, 6, 7, 8, 9, 10],
};
