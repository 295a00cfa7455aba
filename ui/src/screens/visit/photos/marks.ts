// What is marked on a photograph: a plumb line and landmarks.
import type { Schemas } from "../../../api/client";
import type { Photo } from "./take";

export type Marks = Schemas["Photo"];
export type At = [number, number];

const paired = ["acromion", "iliac-crest", "asis", "psis", "ear-lobe", "eye", "knee", "ankle"];
const single = [
  "tragus",
  "C7",
  "acromion",
  "asis",
  "psis",
  "iliac-crest",
  "greater-trochanter",
  "knee",
  "ankle",
];

/** Landmarks of both sides that are joined by a line. */
export const joined = ["acromion", "iliac-crest", "asis", "psis", "ear-lobe", "eye"];

/** Seen from the front or the back. */
export const flat = (p: Photo) => p.view === "front" || p.view === "back";

/** What is kept, or a plumb line to begin with. */
export const marksOf = (p: Photo, heightCM: number | undefined): Marks =>
  p.marks ?? {
    view: p.view,
    plumb: [
      [p.width * 0.1, p.height * 0.05],
      [p.width * 0.1, p.height * 0.95],
    ],
    landmarks: {},
    ...(heightCM ? { height_cm: heightCM } : {}),
  };

/** Landmarks that are not marked yet. */
export const missing = (p: Photo, marks: Marks) =>
  (flat(p) ? paired.flatMap((l) => [`${l}-left`, `${l}-right`]) : single).filter((l) => !marks.landmarks[l]);

/** Puts a landmark about where it is looked for, to be dragged. */
export function dropped(p: Photo, marks: Marks, landmark: string): Marks {
  const left = landmark.endsWith("-left") === (p.view === "front");
  const at: At = [p.width / 2 + (left ? 40 : -40), p.height * 0.3];
  return { ...marks, landmarks: { ...marks.landmarks, [landmark]: at } };
}

/** The upper and the lower end; the server takes no other number of them. */
export const plumbOf = (marks: Marks) => marks.plumb as [At, At];

/** Every mark by its id; the plumb's ends first. */
export const points = (marks: Marks): [string, number[]][] => [
  ["plumb-0", plumbOf(marks)[0]],
  ["plumb-1", plumbOf(marks)[1]],
  ...Object.entries(marks.landmarks),
];

/** Moves a mark, within the picture. */
export function moved(p: Photo, marks: Marks, id: string, x: number, y: number): Marks {
  const at: At = [Math.min(p.width, Math.max(0, x)), Math.min(p.height, Math.max(0, y))];
  if (id === "plumb-0") return { ...marks, plumb: [at, plumbOf(marks)[1]] };
  if (id === "plumb-1") return { ...marks, plumb: [plumbOf(marks)[0], at] };
  return { ...marks, landmarks: { ...marks.landmarks, [id]: at } };
}

/** How far the plumb leans in the picture, degrees: the camera's roll. */
export function rollOf(marks: Marks): number {
  const [[x0, y0], [x1, y1]] = plumbOf(marks);
  return (Math.atan2(-(x1 - x0), y1 - y0) * 180) / Math.PI;
}
