// A pain drawing in the browser: what is painted, by cell.
import type { Schemas } from "../api/client";
import { View } from "./views";

export type Kind = "ache" | "sharp" | "burning" | "numb-tingling" | "headache";
export const kinds: readonly Kind[] = ["ache", "sharp", "burning", "numb-tingling", "headache"];
export const kindName: Record<Kind, string> = {
  ache: "Ache",
  sharp: "Sharp",
  burning: "Burning",
  "numb-tingling": "Numbness / tingling",
  headache: "Headache",
};

export interface Paint {
  kind: Kind;
  /** 1–10; 0 erases. */
  intensity: number;
}
export type Drawing = ReadonlyMap<string, Paint>;

export function fromStrokes(strokes: readonly Schemas["Stroke"][]): Drawing {
  const out = new Map<string, Paint>();
  for (const s of strokes) for (const c of s.cells) out.set(c, { kind: s.kind, intensity: s.intensity });
  return out;
}

/** Groups what is painted by kind and intensity, as the record keeps it. */
export function toStrokes(d: Drawing): Schemas["Stroke"][] {
  const groups = new Map<string, Schemas["Stroke"]>();
  for (const [cell, p] of d) {
    const key = `${p.kind} ${p.intensity}`;
    const g = groups.get(key) ?? { ...p, cells: [] };
    g.cells.push(cell);
    groups.set(key, g);
  }
  return [...groups.values()];
}

/** Lays a stroke over a drawing. */
export function paint(d: Drawing, cells: readonly string[], p: Paint): Drawing {
  const out = new Map(d);
  for (const c of cells) {
    if (p.intensity === 0) out.delete(c);
    else out.set(c, p);
  }
  return out;
}

/** Cell ids by view, as the comparison wants them. */
export function byView(d: Drawing): Record<string, string[]> {
  const out: Record<string, string[]> = {};
  for (const c of d.keys()) {
    const v = c.slice(0, c.indexOf(":"));
    out[v] = [...(out[v] ?? []), c];
  }
  return out;
}

const otherView: Partial<Record<View, View>> = {
  left: "right",
  right: "left",
  "head-left": "head-right",
  "head-right": "head-left",
  "sole-left": "sole-right",
  "sole-right": "sole-left",
};

/** The same drawing on the other side of the body. */
export function mirrored(d: Drawing): Drawing {
  const out = new Map<string, Paint>();
  for (const [c, p] of d) {
    const [v = "", at = ""] = c.split(":");
    const [q = 0, r = 0] = at.split(",").map(Number);
    out.set(`${otherView[v as View] ?? v}:${-q - r},${r}`, p);
  }
  return out;
}

/** How much is painted in each view. */
export function paintedOn(drawing: Drawing): NonNullable<Schemas["ViewsIn"]["painted"]> {
  const count = new Map<string, number>();
  for (const cell of drawing.keys()) {
    const [view = ""] = cell.split(":");
    count.set(view, (count.get(view) ?? 0) + 1);
  }
  return [...count].map(([view, cells]) => ({ view: view as View, cells }));
}
