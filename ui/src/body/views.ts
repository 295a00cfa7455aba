// The views of the figure: their names, pairs and scale, and where a touch is.
import { queryOptions, useQuery } from "@tanstack/react-query";
import { api, must, type Schemas } from "../api/client";
import { figureVersion } from "./figurePath";

export type View = Schemas["View"];
export const viewName: Record<View, string> = {
  front: "Front",
  back: "Back",
  left: "Left side",
  right: "Right side",
  "head-left": "Head, left",
  "head-right": "Head, right",
  "sole-left": "Left sole",
  "sole-right": "Right sole",
};

/** The views in the order in which people look, two by two. */
export const allViews = Object.keys(viewName) as View[];

/** A view with the one that is looked at beside it. */
export function beside(v: View): View[] {
  const i = allViews.indexOf(v);
  return allViews.slice(i - (i % 2), i - (i % 2) + 2);
}

const query = { figure: figureVersion };

export const figureOf = (view: View) =>
  queryOptions({
    queryKey: ["figure", view],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => must(api.GET("/api/figure/{view}", { params: { path: { view }, query } })),
  });
export const useFigure = (view: View) => useQuery(figureOf(view));

/** Close-ups are seen larger than the whole body, so lines and marks are too. */
export const scaleOf = (view: View) => (view.startsWith("sole") || view.startsWith("head") ? 2.4 : 1);

/** Where a pointer is on the drawing, in view units. */
export function placeOn(svg: SVGSVGElement | null, e: { clientX: number; clientY: number }) {
  const m = svg?.getScreenCTM();
  if (!m) return { x: 0, y: 0 };
  const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m.inverse());
  return { x: Math.round(p.x * 10) / 10, y: Math.round(p.y * 10) / 10 };
}
