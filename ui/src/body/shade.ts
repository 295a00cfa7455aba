// The shade along the body's edge, inside. As an SVG filter it would be worked out again for every
// tile of the screen in which a mark changes; here it is drawn once, coarsely, since it is blurred.
import { useEffect, useMemo, useReducer, useSyncExternalStore } from "react";
import type { Schemas } from "../api/client";
import { whenIdle } from "../parts/whenIdle";

type Drawing = Schemas["FigureView"];

/** Pixels to a unit of the view: the blur is several units wide. */
const fine = 0.5;
/** Beyond the view's own edge, so that the shade does not end with it. */
const margin = 40;
const opacity = 0.75;

/** Day and table mode have colours of their own. */
function useMode() {
  return useSyncExternalStore(
    (told) => {
      const seen = new MutationObserver(told);
      seen.observe(document.documentElement, { attributes: true, attributeFilter: ["data-mode"] });
      return () => seen.disconnect();
    },
    () => document.documentElement.dataset.mode ?? "",
  );
}

const made = new Map<string, string>();

/** A picture of the shade of one layer's shapes, and where it lies; blur in view units. The first
 * time it comes when the body itself has been painted. */
export function useShade(figure: Drawing, layer: number, blur: number) {
  "use no memo"; // what is made stands outside of React
  const mode = useMode();
  const key = [figure.view, figure.version, layer, mode].join(" ");
  const [, drawn] = useReducer((n: number) => n + 1, 0);
  const box = useMemo(
    () => ({ x: -margin, y: -margin, width: figure.width + 2 * margin, height: 1000 + 2 * margin }),
    [figure],
  );
  useEffect(() => {
    if (made.has(key)) return undefined;
    return whenIdle(() => {
      const shapes = figure.shapes.filter((s) => (s.layer ?? 0) === layer);
      const href = shapes.length > 0 ? draw(shapes, box, blur) : undefined;
      if (!href) return;
      made.set(key, href);
      drawn();
    });
  }, [key, figure, layer, blur, box]);
  const href = made.get(key);
  return href ? { ...box, href } : undefined;
}

/** Nothing where there is no canvas. */
function draw(
  shapes: Drawing["shapes"],
  box: { x: number; y: number; width: number; height: number },
  blur: number,
) {
  if (typeof Path2D === "undefined") return undefined;
  const width = Math.ceil(box.width * fine);
  const height = Math.ceil(box.height * fine);
  // All that is not body.
  const outside = canvas(width, height);
  outside.fillRect(0, 0, width, height);
  outside.globalCompositeOperation = "destination-out";
  outside.setTransform(fine, 0, 0, fine, -box.x * fine, -box.y * fine);
  for (const s of shapes) outside.fill(new Path2D(s.path));
  // Its shadow alone: the thing itself lies beside the picture.
  const shade = canvas(width, height);
  shade.shadowColor = getComputedStyle(document.documentElement).getPropertyValue("--skin-shade");
  shade.shadowBlur = 2 * blur * fine;
  shade.shadowOffsetX = width;
  shade.globalAlpha = opacity;
  shade.drawImage(outside.canvas, -width, 0);
  return shade.canvas.toDataURL();
}

function canvas(width: number, height: number) {
  const c = document.createElement("canvas");
  c.width = width;
  c.height = height;
  const drawn = c.getContext("2d");
  if (!drawn) throw new Error("a canvas draws in two dimensions");
  return drawn;
}
