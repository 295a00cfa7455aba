// What is felt at a point, as it is being charted.
import type { Schemas } from "../../../api/client";

export interface Chart {
  band: Schemas["Charted"]["taut_band"];
  nodule: NonNullable<Schemas["Charted"]["nodule"]>;
  grade: number;
  nprs?: number;
  familiar: Schemas["Charted"]["familiar"];
  twitch: boolean;
  note: string;
  felt: Schemas["RegionID"][];
}

export const fresh: Chart = {
  band: "yes",
  nodule: "pea",
  grade: 2,
  familiar: "unknown",
  twitch: false,
  note: "",
  felt: [],
};

/** A charted point, to be corrected. */
export const chartOf = (p: Schemas["Point"]): Chart => ({
  band: p.taut_band,
  nodule: p.nodule ?? "none",
  grade: p.grade,
  nprs: p.nprs,
  familiar: p.familiar,
  twitch: p.twitch ?? false,
  note: p.note ?? "",
  felt: p.referral ?? [],
});

/** What of a point's event was felt. */
export const fieldsOf = (c: Chart) => ({
  taut_band: c.band,
  nodule: c.nodule,
  grade: c.grade,
  nprs: c.nprs,
  referral: c.felt,
  familiar: c.familiar,
  twitch: c.twitch,
  note: c.note,
});
