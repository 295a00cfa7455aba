// The HTTP API. Types come from the server's own description; problem+json
// errors become a Problem whose fields a form can show.
import createClient from "openapi-fetch";
import { fetchOnce } from "./ahead";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export const api = createClient<paths>({ baseUrl: "/", fetch: fetchOnce });

/** A refusal by the server, or no answer at all (status 0). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly fields: Record<string, string> = {},
    /** What the record has, where it has something else. */
    readonly stored?: unknown,
  ) {
    super(message);
  }
}

/** No answer, or a server whose record or gate is away for a moment: what is kept
 * here is used, and it is asked again. A "no" is a no. */
export const isOutage = (e: unknown) =>
  e instanceof Problem && (e.status === 0 || (e.status >= 502 && e.status <= 504));

interface Answer<T> {
  data?: T;
  error?: Schemas["ErrorModel"];
  response: Response;
}

/** Waits for an answer and throws a Problem that names the fields. */
export async function must<T>(call: Promise<Answer<T>>): Promise<T> {
  let a: Answer<T>;
  try {
    a = await call;
  } catch {
    throw new Problem(0, "No connection just now. Nothing is lost.");
  }
  if (a.response.ok) return a.data as T;
  const fields: Record<string, string> = {};
  let stored: unknown;
  for (const e of a.error?.errors ?? []) {
    if (e.location === "stored") {
      stored = e.value;
      continue;
    }
    const name = (e.location ?? "").replace(/^(body|query|path)\./, "");
    fields[name] = e.message ?? "";
  }
  const list = Object.entries(fields).map(([k, v]) => `${k}: ${v}`);
  throw new Problem(
    a.response.status,
    [a.error?.detail ?? a.response.statusText, ...list].join(" · "),
    fields,
    stored,
  );
}
