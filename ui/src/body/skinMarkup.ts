// The still parts of a view as markup: two hundred shapes that never change, which the browser reads many
// times faster than a component makes them.
import type { Schemas } from "../api/client";

type Drawing = Schemas["FigureView"];

/** What a path consists of. Nothing else comes into the page by markup. */
const pathOnly = /^[\dMLHVCSQTAZmlhvcsqtaz\s.,eE+-]*$/;

const path = (d: string, rest = "") => {
  if (!pathOnly.test(d)) throw new Error(`The drawing has a path that is none: ${d.slice(0, 40)}`);
  return `<path d="${d}"${rest}/>`;
};

/** As React takes it; it compares the object and not the text, so each is made once. */
interface Markup {
  __html: string;
}

export interface LayerMarkup {
  /** The shapes of a layer, as outlines of a width on screen and as areas. */
  lines: Markup;
  areas: Markup;
  shades: Markup;
  inner: Markup;
}

const together = (parts: string[]): Markup => ({ __html: parts.join("") });

function layer(figure: Drawing, n: number): LayerMarkup {
  const of = <T extends { layer?: number }>(list: T[]) => list.filter((s) => (s.layer ?? 0) === n);
  const still = ' vector-effect="non-scaling-stroke"';
  return {
    lines: together(of(figure.shapes).map((s) => path(s.path, ` stroke-width="1.7"${still}`))),
    areas: together(of(figure.shapes).map((s) => path(s.path))),
    shades: together(of(figure.shades).map((s) => path(s.path))),
    inner: together(
      of(figure.inner).map(({ path: d, weight }) =>
        path(d, `${still} stroke-width="${0.5 + 0.6 * weight}" opacity="${0.25 + 0.55 * weight}"`),
      ),
    ),
  };
}

interface SkinMarkup {
  /** All of the body. */
  whole: Markup;
  /** The farther layer first. */
  layers: LayerMarkup[];
}

const made = new WeakMap<Drawing, SkinMarkup>();

export function skinMarkup(figure: Drawing): SkinMarkup {
  const known = made.get(figure);
  if (known) return known;
  const layers = [0, 1].map((n) => layer(figure, n));
  const markup = { whole: together(layers.map((l) => l.areas.__html)), layers };
  made.set(figure, markup);
  return markup;
}
