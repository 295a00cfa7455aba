import { Problem, type Schemas } from "../../../api/client";
import { uuidv7 } from "../../../core/ids";

export type Photo = Schemas["StoredPhoto"];
export const views = ["front", "back", "left", "right"] as const;

/** Hands a file in as a visit's photograph; a Problem says why it was not taken. */
export async function takeIn(visit: string, view: string, file: File) {
  let r: Response;
  try {
    r = await fetch(`/api/visits/${visit}/photos/${uuidv7()}?view=${view}`, {
      method: "PUT",
      body: file,
      headers: { "Content-Type": file.type || "application/octet-stream" },
    });
  } catch {
    throw new Problem(0, "No connection just now. Choose the picture again later.");
  }
  if (r.ok) return;
  const p = (await r.json().catch(() => ({}))) as Schemas["ErrorModel"];
  const why = p.errors?.[0]?.message?.replace("allowed: ", "Not taken in: ");
  throw new Problem(r.status, why ?? p.detail ?? "The picture was not taken in.");
}
